"""Every single reading of a line by its place, and the line with one of them changed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Literal

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.legs import ReadBend, ReadBends
from bendrel.core.record import record

SlotKind = Literal["length", "angle", "plane"]
Field = Literal["length", "to", "angle", "plane", "last", "x", "y", "z"]
AXES: tuple[Field, Field, Field] = ("x", "y", "z")


@record
class Slot:
    """One reading: the row (0 is the first from end A) and the field of it."""

    row: int
    field: Field

    @property
    def kind(self) -> SlotKind:
        """A length in mm, an angle or a plane in degrees."""
        if self.field in ("angle", "plane"):
            return "angle" if self.field == "angle" else "plane"
        return "length"


def slots(read: ReadBends | Corners) -> Iterator[Slot]:
    """Every reading behind `read`, from end A on."""
    if isinstance(read, Corners):
        for k in range(len(read.points)):
            yield from (Slot(row=k, field=axis) for axis in AXES)
        return
    for k, row in enumerate(read.bends):
        yield Slot(row=k, field="length")
        yield Slot(row=k, field="angle" if row.angle_deg is not None else "to")
        if k:
            yield Slot(row=k, field="plane")
    yield Slot(row=len(read.bends), field="last")


def value_of(read: ReadBends | Corners, slot: Slot) -> float:
    """What was read there, in mm or degrees."""
    if isinstance(read, Corners):
        return read.points[slot.row][AXES.index(slot.field)]
    if slot.field == "last":
        return read.last_mm
    row = read.bends[slot.row]
    if slot.field == "plane":
        return row.rotation_deg or 0.0 if row.clock_deg is None else row.clock_deg
    value = {"length": row.at_mm, "to": row.to_mm, "angle": row.angle_deg}[slot.field]
    return value or 0.0


def changed(read: ReadBends | Corners, slot: Slot, by: float) -> ReadBends | Corners:
    """`read` with one reading changed by `by` mm or degrees."""
    value = value_of(read, slot) + by
    if isinstance(read, Corners):
        point = list(read.points[slot.row])
        point[AXES.index(slot.field)] = value
        points = list(read.points)
        points[slot.row] = (point[0], point[1], point[2])
        return replace(read, points=tuple(points))
    if slot.field == "last":
        return replace(read, last_mm=value)
    bends = list(read.bends)
    bends[slot.row] = _with(bends[slot.row], slot.field, value)
    return replace(read, bends=tuple(bends))


def moved(read: ReadBends | Corners, by: Sequence[float]) -> ReadBends | Corners:
    """`read` with every reading changed at once, by mm or degrees in the order of `slots`."""
    left = iter(by)
    if isinstance(read, Corners):
        points = [(x + next(left), y + next(left), z + next(left)) for x, y, z in read.points]
        return replace(read, points=tuple(points))
    bends = []
    for k, row in enumerate(read.bends):
        new = _with(row, "length", row.at_mm + next(left))
        if row.angle_deg is not None:
            new = _with(new, "angle", row.angle_deg + next(left))
        else:
            new = _with(new, "to", (row.to_mm or 0.0) + next(left))
        if k:
            turn = row.clock_deg if row.clock_deg is not None else row.rotation_deg
            new = _with(new, "plane", (turn or 0.0) + next(left))
        bends.append(new)
    return replace(read, bends=tuple(bends), last_mm=read.last_mm + next(left))


def _with(row: ReadBend, field: Field, value: float) -> ReadBend:
    if field == "length":
        return replace(row, at_mm=value)
    if field == "to":
        return replace(row, to_mm=value)
    if field == "angle":
        return replace(row, angle_deg=value)
    return replace(row, rotation_deg=value) if row.clock_deg is None else replace(row, clock_deg=value)
