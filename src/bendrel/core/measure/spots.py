"""Places on a line that a tape is held to: its ends, the corners of its bends, their backs."""

from __future__ import annotations

from math import atan2, cos, pi, radians, tan
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.centreline import Piece
from bendrel.core.geometry.vectors import Vector, along, cross, dot, length, scale, subtract
from bendrel.core.measure.legs import HOOKED_DEG
from bendrel.core.measure.outcome import Outcome
from bendrel.core.measure.spread import Motion
from bendrel.core.record import record

Array = NDArray[np.float64]

TapePlace = Literal["A", "B"] | int
"""An end, or a bend (0 is the first from end A)."""

ROUNDS_OVER = 4


@record
class Held:
    """A spot in the part's frame: where it is, how many bends lie before it, and by how much its own bend's
    angle moves it, a radian."""

    place: Vector
    bends: int
    own: Vector | None = None

    def moved(self, motion: Motion) -> Array:
        """How every reading moves it, 3 rows; end A stands still."""
        if self.bends < 0:
            return np.zeros((3, motion.straights.shape[1]))
        return motion.point(self.place, self.bends, self.own)


def held_at(made: Outcome, spot: TapePlace) -> Held:
    """An end, or the corner of a bend: where the middle lines of its two legs meet; of a bend from 150° on,
    whose corner runs away, the middle of its arc."""
    count = len(made.shape.bends)
    if spot == "A":
        return Held(place=(0.0, 0.0, 0.0), bends=-1)
    if spot == "B":
        return Held(place=made.point, bends=count)
    if made.corners:
        return Held(place=made.corners[spot + 1], bends=spot)
    bend, arc = made.shape.bends[spot], _arc(made, spot)
    if bend.angle_deg >= HOOKED_DEG:
        at = arc.frame(arc.length_mm / 2)
        return Held(place=at.point, bends=spot, own=scale(at.way, bend.radius_mm / 2))
    half = radians(bend.angle_deg) / 2
    way = arc.start.way
    return Held(
        place=along(arc.start.point, way, bend.radius_mm * tan(half)),
        bends=spot,
        own=scale(way, bend.radius_mm / 2 / cos(half) ** 2),
    )


def _arc(made: Outcome, bend: int) -> Piece:
    return made.pieces[2 * bend + 1]


def across(
    made: Outcome, start: TapePlace, end: TapePlace, od_mm: float, *, over: bool
) -> tuple[float, Held, Held]:
    """The distance in mm, and the two places that it lies between.

    `over` the backs of bends it is the greatest that a tape reads there: half a tube's diameter beyond the
    farthest place of the arc; a bend's own angle then moves it only where that is the arc's end.
    """
    here, there = held_at(made, start), held_at(made, end)
    extra = 0.0
    if over:
        for _ in range(ROUNDS_OVER):  # each end's farthest place depends on the other's
            if isinstance(start, int):
                here = _farthest(made, start, there.place)
            if isinstance(end, int):
                there = _farthest(made, end, here.place)
        extra = od_mm / 2 * (isinstance(start, int) + isinstance(end, int))
    return length(subtract(there.place, here.place)) + extra, here, there


def _farthest(made: Outcome, spot: int, seen_from: Vector) -> Held:
    """The place of a bend's arc that lies farthest from a point: opposite to it through the arc's middle."""
    bend, arc = made.shape.bends[spot], _arc(made, spot)
    start = arc.start
    inward = cross(start.normal, start.way)
    middle = along(start.point, inward, bend.radius_mm)
    away = subtract(middle, seen_from)
    # the angle along the arc of a place in direction d from its middle: 0 at −inward, a quarter at the way
    turned = atan2(dot(away, start.way), -dot(away, inward)) % (2 * pi)
    over = radians(bend.angle_deg)
    if turned > over:
        turned = over if turned - over < 2 * pi - turned else 0.0
    at = arc.frame(bend.radius_mm * turned)
    own = scale(at.way, bend.radius_mm) if turned == over else None
    return Held(place=at.point, bends=spot, own=own)
