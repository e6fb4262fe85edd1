"""The other way round: readings that say a given shape, for switching the way of entry."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from bendrel.core.geometry.bends import NO_CORNER_DEG, BendList, ShapeError, bend_spans
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.corners import Corners, bends_from_corners, corners_from_bends, turns_deg
from bendrel.core.geometry.tool_radius import UsualRadius, usual_at
from bendrel.core.geometry.vectors import length, subtract
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    CornerReadings,
    CornerRow,
    Line,
    RigidSpan,
)
from bendrel.core.line.run import with_span
from bendrel.core.units.lengths import Angle, Length, Plane
from bendrel.core.units.notation import Unit, format_angle, format_clock, format_length

Entry = Literal["bends", "wire", "corners", "alongside"]
"""Ways of entering a whole line."""

SAME_MM = 1e-5


def bend_readings(shape: BendList, unit: Unit, radius_mm: UsualRadius) -> BendReadings:
    """Readings along the centreline that give exactly `shape`.

    Legs are told from centreline corner to corner, and from the bend's start where there is no
    corner. A radius equal to the bender's is left blank.
    """
    rows: list[BendRow] = []
    before = 0.0
    clock = 0.0
    for k, bend in enumerate(shape.bends):
        corner = bend.angle_deg < NO_CORNER_DEG
        ahead = bend.tangent_mm if corner else 0.0
        clock += bend.rotation_deg if k else 0.0
        rows.append(
            BendRow(
                length=computed_length(before + bend.straight_mm + ahead, unit),
                read_from=rows[-1].read_to if rows else "centre",
                read_to="centre" if corner else "start",
                angle=Angle(text=format_angle(bend.angle_deg), exact_deg=bend.angle_deg),
                plane=Plane(
                    text=format_clock(clock),
                    exact_deg=bend.rotation_deg if k else 0.0,
                ),
                radius=_own_radius(bend.radius_mm, unit, usual_at(radius_mm, bend.angle_deg)),
            )
        )
        before = ahead
    return BendReadings(
        rows=tuple(rows),
        last=computed_length(before + shape.last_straight_mm, unit),
        last_read_from=rows[-1].read_to if rows else "centre",
    )


def wire_readings(shape: BendList, unit: Unit, radius_mm: UsualRadius) -> BendReadings:
    """Marks along a straightened wire that give exactly `shape`: where every bend starts and ends,
    and the whole wire."""
    legs = bend_readings(shape, unit, radius_mm)
    rows = tuple(
        replace(
            row,
            by="wire",
            length=computed_length(span.start_mm, unit),
            to=computed_length(span.end_mm, unit),
            read_from="start",
            read_to="start",
            angle=Angle(),
        )
        for row, span in zip(legs.rows, bend_spans(shape), strict=True)
    )
    return BendReadings(
        rows=rows,
        last=computed_length(shape.developed_mm, unit),
        last_by="wire",
        last_read_from="start",
    )


def corner_readings(corners: Corners, unit: Unit, radius_mm: UsualRadius) -> CornerReadings:
    """Readings that give exactly these corner points."""
    radii = (None, *corners.radii_mm, None)
    usual = (None, *(usual_at(radius_mm, turn) for turn in turns_deg(corners.points)), None)
    return CornerReadings(
        rows=tuple(
            CornerRow(
                x=computed_length(x, unit),
                y=computed_length(y, unit),
                z=computed_length(z, unit),
                radius=None if radius is None else _own_radius(radius, unit, own),
            )
            for (x, y, z), radius, own in zip(corners.points, radii, usual, strict=True)
        )
    )


def computed_length(mm: float, unit: Unit) -> Length:
    """A length that the program computed: shown rounded, kept exact."""
    return Length(text=format_length(mm, unit), unit=unit, exact_mm=mm)


def with_shape(line: Line, span: RigidSpan, shape: BendList, kind: Entry, radius_mm: UsualRadius) -> Line:
    """`line` with readings of the given kind for `shape` in one rigid span. A bend keeps its id where there
    are as many as before.

    Raises ShapeError when corner points cannot say this shape: a straight that is missing would
    come back as another line.
    """
    readings: BendReadings | CornerReadings
    if kind == "corners":
        corners = corners_from_bends(shape)
        _refuse_unless_same(shape, corners)
        readings = corner_readings(corners, line.unit, radius_mm)
    elif kind == "wire":
        readings = wire_readings(shape, line.unit, radius_mm)
    elif kind == "alongside":
        readings = BendReadings(
            last=computed_length(shape.developed_mm, line.unit), last_by="string", alongside=True
        )
    else:
        readings = bend_readings(shape, line.unit, radius_mm)
    return with_span(line, replace(span, readings=_named_as(readings, span.readings)))


def _named_as(
    new: BendReadings | CornerReadings, old: BendReadings | CornerReadings
) -> BendReadings | CornerReadings:
    names = bend_ids(old)
    if len(names) != len(bend_ids(new)):
        return new
    if isinstance(new, BendReadings):
        return replace(
            new, rows=tuple(replace(row, id=name) for row, name in zip(new.rows, names, strict=True))
        )
    inner = (replace(row, id=name) for row, name in zip(new.rows[1:-1], names, strict=True))
    ends = ("a-end", "b-end")
    first, last = (replace(row, id=name) for row, name in zip((new.rows[0], new.rows[-1]), ends, strict=True))
    return replace(new, rows=(first, *inner, last))


def bend_ids(readings: BendReadings | CornerReadings) -> tuple[str, ...]:
    """Ids of the rows that are bends: of corner points the inner ones."""
    ids = tuple(row.id for row in readings.rows)
    return ids if isinstance(readings, BendReadings) else ids[1:-1]


def _refuse_unless_same(shape: BendList, corners: Corners) -> None:
    back = bends_from_corners(corners, allow_overlap=True)
    missed = length(subtract(end_frame(back).point, end_frame(shape).point))
    if abs(back.developed_mm - shape.developed_mm) > SAME_MM or missed > SAME_MM:
        raise ShapeError(
            "Corner points cannot say this line: a straight is missing or a bend lies flat. "
            "Put that right bend by bend first."
        )


def _own_radius(radius: float, unit: Unit, usual: float | None) -> Length | None:
    if usual is not None and abs(radius - usual) < 1e-9:
        return None
    return computed_length(radius, unit)
