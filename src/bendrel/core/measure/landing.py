"""Where end B of a part lies beside the place it is held against: a port, or its drawing."""

from __future__ import annotations

from math import atan2, cos, degrees, hypot, pi, radians, sin
from typing import TYPE_CHECKING, Annotated

from annotated_types import Ge, Le

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList, reversed_list
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.vectors import Vector, add, cross, dot, scale
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

Clock = Annotated[float, Ge(-3600), Le(3600)]


@record
class EndBeside:
    """End A home, the part rolled to its best, end B not trimmed yet.

    `along_mm` is how much too long it is, `off_mm` how far its end lies beside the port, towards
    `off_clock_deg`; `tilt_deg` how far it leans from the port's way, towards `tilt_clock_deg`. Clocks are
    clockwise seen from A, from the plane of bend 1, in the tube's own untwisted frame. None was not read.
    `mm_error` and `deg_error` are one standard deviation of the readings.
    """

    along_mm: Annotated[float, Ge(-10_000), Le(10_000)] | None = None
    off_mm: Annotated[float, Ge(0), Le(10_000)] | None = None
    off_clock_deg: Clock | None = None
    tilt_deg: Annotated[float, Ge(0), Le(80)] | None = None
    tilt_clock_deg: Clock | None = None
    mm_error: Annotated[float, Ge(0.01), Le(100)] = 0.3
    deg_error: Annotated[float, Ge(0.01), Le(45)] = 0.3


@record
class Port:
    """Where the end that lands belongs: the point, its way, and the two directions beside it: towards clock 0
    and towards clock 90."""

    point: Vector
    way: Vector
    noon: Vector
    three: Vector


def port_of(planned: BendList, lands: EndName = "B") -> Port:
    """The port of the end that `lands` with the other home, in the frame of `end_frame`, seen from the end at
    home. A bend there of clock C would close towards C."""
    shape = planned if lands == "B" else reversed_list(planned)
    end = end_frame(shape)
    clock = shape.clocks_deg[-1] if shape.bends else 0.0
    aside = cross(end.normal, end.way)
    c, s = cos(radians(clock)), sin(radians(clock))
    # the last bend's own two directions, turned back by its clock
    noon = add(scale(aside, c), scale(end.normal, -s))
    return Port(point=end.point, way=end.way, noon=noon, three=cross(end.way, noon))


def towards(port: Port, vector: Vector) -> tuple[float, float]:
    """How far a vector lies beside the port's way and towards which clock (degrees from 0 to 360)."""
    x, y = dot(vector, port.noon), dot(vector, port.three)
    return hypot(x, y), degrees(atan2(y, x)) % 360.0


def rolled(vectors: Array, degrees: Array | float) -> Array:
    """`vectors` (3, parts) turned about end A's axis."""
    import numpy as np

    turn = np.radians(degrees)
    c, s = np.cos(turn), np.sin(turn)
    return np.stack([vectors[0], vectors[1] * c - vectors[2] * s, vectors[1] * s + vectors[2] * c])


def landed(port: Port, points: Array, ways: Array, roll_deg: Array | float) -> Array:
    """How the end B of each part, at `points` and along `ways` (3, parts), lies at the port: along, off
    towards clock 0 and 90 (mm), tilt towards 0 and 90 (degrees), (5, parts), with the part rolled by
    `roll_deg` about end A."""
    import numpy as np

    off = rolled(points, roll_deg) - np.array(port.point)[:, None]
    way = rolled(ways, roll_deg)
    sides = np.array([port.noon, port.three])
    ahead = np.array(port.way) @ way
    return np.concatenate(
        [[np.array(port.way) @ off], sides @ off, np.arctan2(sides @ way, np.maximum(ahead, 1e-9)) * 180 / pi]
    )


Row = tuple[int, float, float]


def rows_of(landing: EndBeside) -> tuple[Row, ...]:
    """What was read: (row of `landed`, value, one standard deviation). A distance whose side was not read
    says only how large it is: its sides then have it as their doubt."""
    found: list[Row] = []
    if landing.along_mm is not None:
        found.append((0, landing.along_mm, landing.mm_error))
    for first, size, clock, error in (
        (1, landing.off_mm, landing.off_clock_deg, landing.mm_error),
        (3, landing.tilt_deg, landing.tilt_clock_deg, landing.deg_error),
    ):
        if size is None:
            continue
        if clock is None:
            doubt = hypot(error, size * 0.5**0.5)
            found += [(first, 0.0, doubt), (first + 1, 0.0, doubt)]
        else:
            found += [
                (first, size * cos(radians(clock)), error),
                (first + 1, size * sin(radians(clock)), error),
            ]
    return tuple(found)
