"""Readings that are not needed for the shape, taken to catch a misreading."""

from __future__ import annotations

import re
from math import cos, radians, sin, sqrt

from bendrel.core.lengths import Angle, Length, Plane, Text
from bendrel.core.record import record
from bendrel.core.shape.vectors import Vector
from bendrel.core.units import UnitError


@record
class Checks:
    """Blank where nothing was taken.

    `wire` is the whole wire laid along the old line, `tape` the straight distance from rim to rim.
    For bend readings, port B's direction is told against end A: `port_b_angle` from straight on and
    `port_b_clock` as seen from A. For corner points both ways are told in the datum's axes: end A
    away from its port, end B towards its port.
    """

    wire: Length = Length()
    tape: Length = Length()
    port_b_angle: Angle = Angle()
    port_b_clock: Plane = Plane()
    way_a: Text = ""
    way_b: Text = ""


_AXIS = re.compile(r"([+-]?)\s*([xyz])")
_NUMBER = r"[+-]?(?:[0-9]+\.?[0-9]*|\.[0-9]+)"
_THREE = re.compile(rf"({_NUMBER})[\s;]+({_NUMBER})[\s;]+({_NUMBER})")


def parse_way(text: str) -> Vector:
    """A direction in the datum's axes, as a unit vector: `+x`, `-z`, or three numbers such as `1 0 -1`.

    Raises UnitError.
    """
    clean = text.strip().lower().replace("−", "-")
    axis = _AXIS.fullmatch(clean)
    if axis:
        size = -1.0 if axis[1] == "-" else 1.0
        return (size * (axis[2] == "x"), size * (axis[2] == "y"), size * (axis[2] == "z"))
    three = _THREE.fullmatch(clean)
    values = [float(part) for part in three.groups()] if three else [0.0]
    size = sqrt(sum(value * value for value in values))
    if not 1e-9 < size < 1e9:
        raise UnitError(f"“{text[:25]}” is no direction; write an axis such as +x or -z, or three numbers.")
    return (values[0] / size, values[1] / size, values[2] / size)


def way_from_a(angle_deg: float, clock_deg: float) -> Vector:
    """A direction told from end A, in the part's frame: `angle_deg` off straight on, towards
    `clock_deg` as seen from A (12 o'clock is the plane of the first bend, +y; 3 o'clock +z)."""
    tilt, clock = radians(angle_deg), radians(clock_deg)
    return (cos(tilt), sin(tilt) * cos(clock), sin(tilt) * sin(clock))
