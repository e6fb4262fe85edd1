"""Readings as numbers, and the bend list that they mean. Lengths in mm, angles in degrees."""

from __future__ import annotations

from math import degrees, radians, tan
from typing import Literal

from bendrel.core.geometry.bends import NO_CORNER_DEG, Bend, BendList, ShapeError
from bendrel.core.record import record
from bendrel.core.units.notation import normalised_turn

Reference = Literal["centre", "outside", "inside", "back", "hollow", "start"]
"""Where a length is read at a bend: the virtual corner of the centreline, of the back or of the
inside; a tape hooked over the back or into the hollow of the bend; or the bend's start."""

By = Literal["leg", "wire", "string"]
"""How the place of a bend is read: a leg by rule; a mark along the straightened wire, from end A; or a
string around the curve from the start of the bend before."""


class ReadingError(ShapeError):
    """Readings that contradict each other; `row` (0 is the first from end A, None the last leg) and `field`
    say which."""

    def __init__(self, row: int | None, field: str, message: str, **lengths_mm: float) -> None:
        super().__init__(message, **lengths_mm)
        self.row, self.field = row, field


@record
class ReadBend:
    """One row of bend readings. `clock_deg` or `rotation_deg` is set, `angle_deg` or `to_mm`."""

    by: By
    at_mm: float
    to_mm: float | None
    read_from: Reference
    read_to: Reference
    angle_deg: float | None
    clock_deg: float | None
    rotation_deg: float | None
    radius_mm: float


@record
class ReadBends:
    """All rows of bend readings of a tube of `od_mm`, and the last leg."""

    bends: tuple[ReadBend, ...]
    last_mm: float
    last_by: By
    last_read_from: Reference
    od_mm: float


HOOKED_DEG = 150.0
"""From here on a bend's corner runs away, and a leg is read with the tape hooked over the back."""


def usual_reference(angle_deg: float) -> Reference:
    """Where a leg is read to when nobody says otherwise: the outside corner, or hooked over the back."""
    return "back" if angle_deg >= HOOKED_DEG else "outside"


def setback_mm(reference: Reference, angle_deg: float, radius_mm: float, od_mm: float) -> float:
    """How far a reading to a bend reaches past the bend's start, in mm.

    With straight-edges extended to a virtual corner: R·tan(θ/2) on the centreline, (D/2)·tan(θ/2)
    more on the back and as much less on the inside. A tape hooked over the back agrees with that
    up to 90° and reads R + D/2 beyond (in the hollow: R − D/2).
    Raises ShapeError for a virtual corner from 170° up, which has none.
    Source: plane geometry.

    >>> round(setback_mm("centre", 90, 15, 4.75), 3), round(setback_mm("back", 90, 15, 4.75), 3)
    (15.0, 17.375)
    """
    if reference == "start":
        return 0.0
    side = {"centre": 0.0, "outside": 0.5, "back": 0.5, "inside": -0.5, "hollow": -0.5}[reference]
    reach = radius_mm + side * od_mm
    if reference in ("back", "hollow") and angle_deg > 90:
        return reach
    if angle_deg >= NO_CORNER_DEG:
        raise ShapeError(
            f"A bend of {angle_deg:g}° has no corner to read to; hook the tape over its back, "
            "or read to its start."
        )
    return reach * tan(radians(angle_deg) / 2)


def shape_of(read: ReadBends) -> BendList:
    """The bend list of `read`; straights may come out negative.

    Raises ReadingError for a bend without a corner that was read to its corner, and for wire
    marks that leave no bend.
    """
    bends: list[Bend] = []
    reached = clock = 0.0
    for k, row in enumerate(read.bends):
        angle = _angle(row, k)
        arc = row.radius_mm * radians(angle)
        straight = _straight(read, k, angle, arc, bends[-1] if bends else None, reached)
        turn = _turn(row, clock) if k else 0.0
        clock += turn
        bends.append(Bend(straight_mm=straight, rotation_deg=turn, angle_deg=angle, radius_mm=row.radius_mm))
        reached += straight + arc
    return BendList(bends=tuple(bends), last_straight_mm=_last(read, bends, reached))


def _angle(row: ReadBend, k: int) -> float:
    if row.angle_deg is not None:
        return row.angle_deg
    angle = degrees(((row.to_mm or 0.0) - row.at_mm) / row.radius_mm)
    if not 0 < angle <= 360:
        raise ReadingError(
            k,
            "to",
            "From {at} to {to} on the wire is no bend at a radius of {radius}; the end mark lies after the "
            "start, by at most a full turn.",
            at=row.at_mm,
            to=row.to_mm or 0.0,
            radius=row.radius_mm,
        )
    return angle


def _turn(row: ReadBend, clock: float) -> float:
    if row.clock_deg is not None:
        return normalised_turn(row.clock_deg - clock)
    return row.rotation_deg or 0.0


def _straight(
    read: ReadBends, k: int, angle: float, arc: float, before: Bend | None, reached: float
) -> float:
    row = read.bends[k]
    if row.by == "wire":
        start = row.at_mm - (arc / 2 if row.read_to == "centre" else 0.0)
        return _settled(start - reached)
    if row.by == "string":
        return _settled(row.at_mm - (before.arc_mm if before else 0.0))
    taken = _setback(k, row.read_from, before, read.od_mm) if before else 0.0
    try:
        ahead = setback_mm(row.read_to, angle, row.radius_mm, read.od_mm)
    except ShapeError as error:
        raise ReadingError(k, "length", error.sentence, **error.lengths_mm) from error
    return _settled(row.at_mm - taken - ahead)


def _last(read: ReadBends, bends: list[Bend], reached: float) -> float:
    if read.last_by == "wire":
        return _settled(read.last_mm - reached)
    if not bends:
        return _settled(read.last_mm)
    if read.last_by == "string":
        return _settled(read.last_mm - bends[-1].arc_mm)
    return _settled(read.last_mm - _setback(None, read.last_read_from, bends[-1], read.od_mm))


def _setback(row: int | None, reference: Reference, bend: Bend, od_mm: float) -> float:
    try:
        return setback_mm(reference, bend.angle_deg, bend.radius_mm, od_mm)
    except ShapeError as error:
        raise ReadingError(row, "length", error.sentence, **error.lengths_mm) from error


def _settled(straight: float) -> float:
    return 0.0 if abs(straight) < 1e-6 else straight
