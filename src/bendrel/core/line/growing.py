"""What is known of a line while its readings are still coming in, from end A on."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.geometry.bends import BendList, ShapeError
from bendrel.core.geometry.tool_radius import UsualRadius
from bendrel.core.line.document import BendReadings, BendRow, CornerReadings
from bendrel.core.line.resolve import Reader, read_bend, resolve
from bendrel.core.measure.legs import ReadBend, ReadBends, ReadingError, setback_mm, shape_of


def as_far_as_read(
    readings: BendReadings | CornerReadings, *, od_mm: float, radius_mm: UsualRadius, stub_mm: float
) -> BendList | None:
    """The shape up to the first reading that is not there or cannot be read; None where that is nothing.

    After its last bend comes the next leg, up to the corner of the bend that is not read yet, or `stub_mm`
    where that leg is not known either. Lengths in mm.
    """
    if isinstance(readings, CornerReadings):
        return _corners(readings, od_mm, radius_mm)
    known: list[ReadBend] = []
    for k, row in enumerate(readings.rows):
        read = read_bend(Reader(), row, k, radius_mm)
        if read is None:
            break
        known.append(read)
    while True:
        shape = _shape(tuple(known), od_mm)
        if shape is not None:
            break
        known.pop()
    ahead = readings.rows[len(known)] if len(known) < len(readings.rows) else None
    leg = _leg(ahead, shape, od_mm) if ahead is not None else None
    if not known and leg is None:
        return None
    return replace(shape, last_straight_mm=leg if leg is not None else stub_mm)


def _shape(known: tuple[ReadBend, ...], od_mm: float) -> BendList | None:
    """The bends that are known, with nothing after the last; None where two of them contradict each other."""
    try:
        return shape_of(
            ReadBends(bends=known, last_mm=0.0, last_by="wire", last_read_from="centre", od_mm=od_mm)
        )
    except ReadingError:
        return None


def _leg(row: BendRow, shape: BendList, od_mm: float) -> float | None:
    """The straight to the bend of `row`, of which nothing but its place is known."""
    place = Reader().length("", row.length, "not_negative")
    if place is None:
        return None
    before = shape.bends[-1] if shape.bends else None
    if row.by == "wire":
        reached = sum(bend.straight_mm + bend.arc_mm for bend in shape.bends)
        leg = place - reached
    elif row.by == "string":
        leg = place - (before.arc_mm if before else 0.0)
    else:
        try:
            back = setback_mm(row.read_from, before.angle_deg, before.radius_mm, od_mm) if before else 0.0
        except ShapeError:
            return None
        leg = place - back
    return leg if leg > 0 else None


def _corners(readings: CornerReadings, od_mm: float, radius_mm: UsualRadius) -> BendList | None:
    """The corners up to the first that cannot be read: two of them are a straight piece."""
    for count in range(len(readings.rows), 1, -1):
        rows = readings.rows[:count]
        shape = resolve(CornerReadings(rows=rows), od_mm=od_mm, radius_mm=radius_mm).shape
        if shape is not None:
            return shape
    return None
