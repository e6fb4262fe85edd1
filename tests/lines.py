"""Line documents for tests, made of the same types that a person's typing makes."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.lengths import Angle, Length, Plane
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    CornerReadings,
    CornerRow,
    Line,
    LineEnd,
    RigidSpan,
)

DOUBLE = LineEnd(fitting="double-45", nut="double-45_3-16in_3-8-24", port_thread="3/8-24", proved=True)


def row(length, angle, plane="12:00", *, start="start", end="start", radius=None, unit="mm"):
    """One leg and bend; by default read from bend start to bend start, so legs are plain sums."""
    return BendRow(
        length=Length(text=str(length), unit=unit),
        read_from=start,
        read_to=end,
        angle=Angle(text=str(angle)),
        plane=Plane(text=plane),
        radius=None if radius is None else Length(text=str(radius), unit=unit),
    )


def bent(*rows, last=100, last_from="start", **changes) -> Line:
    """A 3/16 in copper-nickel brake line on the lever bender (R 15 mm), no spare."""
    span_changes = {k: changes.pop(k) for k in ("tube", "bender", "held", "marks", "spare") if k in changes}
    span = RigidSpan(
        tube="copper-nickel_3-16in_0.711",
        bender="lever_3-16in",
        readings=BendReadings(rows=rows, last=Length(text=str(last)), last_read_from=last_from),
        spare=Length(text="25 mm"),
    )
    line = Line(name="test", unit="mm", end_a=DOUBLE, end_b=DOUBLE, spans=(replace(span, **span_changes),))
    return replace(line, **changes)


def cornered(*points, **changes) -> Line:
    """The same line given by corner points in mm."""
    rows = tuple(
        CornerRow(x=Length(text=str(x)), y=Length(text=str(y)), z=Length(text=str(z))) for x, y, z in points
    )
    line = bent(**changes)
    return replace(line, spans=(replace(line.spans[0], readings=CornerReadings(rows=rows)),))
