"""Readings that are not needed for the shape, taken to catch a misreading and to know end B better."""

from __future__ import annotations

from math import cos, radians, sin
from typing import Annotated

from annotated_types import MaxLen

from bendrel.core.geometry.vectors import Vector
from bendrel.core.record import record
from bendrel.core.units.lengths import Angle, Length, Plane, Text


@record
class Checks:
    """Blank where nothing was taken.

    `wire` is the whole wire laid along the old line, `tape` the straight distance from rim to rim.
    For bend readings, port B's direction is told against end A: `port_b_angle` from straight on and
    `port_b_clock` as seen from A. For corner points both ways are told in the datum's axes: end A
    away from its port, end B towards its port.

    For bend readings `ahead`, `up` and `right` say where rim B stands as seen from rim A: along A's way,
    towards 12 o'clock (the side that the first bend turns to) and towards 3 o'clock. `held` are readings that
    are right as they are, `left_out` those that count nothing where all are adjusted together; pointers into
    the readings.
    """

    wire: Length = Length()
    tape: Length = Length()
    port_b_angle: Angle = Angle()
    port_b_clock: Plane = Plane()
    way_a: Text = ""
    way_b: Text = ""
    ahead: Length = Length()
    up: Length = Length()
    right: Length = Length()
    held: Annotated[tuple[Text, ...], MaxLen(400)] = ()
    left_out: Annotated[tuple[Text, ...], MaxLen(400)] = ()


def way_from_a(angle_deg: float, clock_deg: float) -> Vector:
    """A direction told from end A, in the part's frame: `angle_deg` off straight on, towards
    `clock_deg` as seen from A (12 o'clock is the plane of the first bend, +y; 3 o'clock +z)."""
    tilt, clock = radians(angle_deg), radians(clock_deg)
    return (cos(tilt), sin(tilt) * cos(clock), sin(tilt) * sin(clock))
