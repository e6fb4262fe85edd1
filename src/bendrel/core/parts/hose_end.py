"""Ends of a hose: kinds, sizes, what an end takes of the length, and how two angled ends stand to each
other."""

from __future__ import annotations

from itertools import pairwise
from math import radians, tan
from typing import Annotated, Literal

import numpy as np
from annotated_types import Ge, Gt

from bendrel.core.findings import Source
from bendrel.core.geometry.vectors import (
    Vector,
    angle_between,
    dot,
    length,
    scale,
    signed_angle,
    subtract,
    unit,
)
from bendrel.core.record import record

EndAngle = Literal[0, 30, 45, 60, 90, 120, 150, 180]
_MOST_CORNER = 150


@record
class EndStep:
    """One step of making a hose; words in braces are filled in for the hose at hand, `why` says what goes
    wrong
    without it."""

    id: str
    text: str
    why: str


@record
class HoseEndSize:
    """One size of a kind of end, by its dash number (sixteenths of an inch of the tube it replaces) and
    the hose size that it takes. In mm: `cut_off_mm` from the hose's end to the seat of a straight one; of
    an angled one the bent nose of radius `bend_mm` begins `tail_mm` behind the hose's end and ends
    `nose_mm` before the seat."""

    dash: Annotated[int, Gt(0)]
    size: str
    cut_off_mm: Annotated[float, Ge(0)]
    tail_mm: Annotated[float, Ge(0)]
    nose_mm: Annotated[float, Ge(0)]
    bend_mm: Annotated[float, Gt(0)]

    def takes_mm(self, angle: int) -> float:
        """From the hose's end to where the hose's axis crosses the seat's: what the end adds to the
        length. At 180° the two never cross; there it is to the crown of the bend.

        Source: plane geometry of a straight, an arc and a straight.
        """
        if angle == 0:
            return self.cut_off_mm
        if angle > _MOST_CORNER:
            return self.tail_mm + self.bend_mm
        return self.tail_mm + self.bend_mm * tan(radians(angle) / 2)

    def stands_out_mm(self, angle: int) -> float:
        """From the crossing to the seat, along the seat's axis; at 180° the distance between the two
        axes."""
        if angle == 0:
            return 0.0
        if angle > _MOST_CORNER:
            return 2 * self.bend_mm
        return self.nose_mm + self.bend_mm * tan(radians(angle) / 2)


@record
class HoseEndKind:
    """A kind of end: the hose classes that it is for (none: any that is clamped), how it is joined, the
    angles that
    it comes in, the `gap_mm` that stays open when it is home, its nut, and how the hose is made with it."""

    id: str
    name: str
    hose_classes: tuple[str, ...]
    joined: Literal["clamps", "crimped", "reusable"]
    angles: tuple[EndAngle, ...]
    gap_mm: Annotated[float, Ge(0)]
    nut: str
    sizes: tuple[HoseEndSize, ...]
    steps: tuple[EndStep, ...]
    source: Source

    def size_for(self, hose_size: str) -> HoseEndSize | None:
        """The end for one size of hose; None where nobody makes one."""
        return next((one for one in self.sizes if one.size == hose_size), None)


def elbow(way: Vector, seat_way: Vector) -> Vector | None:
    """Which way an angled end turns off the hose: the part of `seat_way` (from the hose toward the seat)
    that is square to the hose's own `way`, of unit length; None where it does not turn off."""
    across = subtract(seat_way, scale(way, dot(way, seat_way)))
    return unit(across) if length(across) > 1e-6 else None


def carried_along(points: tuple[Vector, ...], way_a: Vector, way_b: Vector, mark: Vector) -> Vector:
    """A mark that is square to the hose at its start, where an untwisted hose brings it at its end.

    Source: R. Bishop, There Is More than One Way to Frame a Curve (1975).
    """
    steps = np.diff(np.array(points), axis=0)
    ways = np.vstack([way_a, steps / np.linalg.norm(steps, axis=1, keepdims=True), way_b])
    carried = np.array(mark)
    for here, there in pairwise(ways):
        carried = carried - (carried @ there) / max(1.0 + here @ there, 1e-9) * (here + there)
    x, y, z = carried.tolist()
    return (x, y, z)


def clocking_deg(
    points: tuple[Vector, ...], way_a: Vector, way_b: Vector, elbow_a: Vector, elbow_b: Vector
) -> float:
    """The angle from the near end's elbow to the far end's of an untwisted hose, clockwise seen from the
    near end along the hose, in [0, 360); 0 is both the same way."""
    there = carried_along(points, way_a, way_b, elbow_a)
    return signed_angle(there, elbow_b, way_b) % 360.0


def turned_off_deg(way: Vector, seat_way: Vector) -> float:
    """Angle between the hose's way and the way to the seat: the angle that the end must have."""
    return angle_between(way, seat_way)
