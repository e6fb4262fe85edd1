"""How a hose lies between its two ends: its shape, its tightest place, how far it stands out, and the
lengths that keep a radius."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import numpy as np

from bendrel.core.geometry.vectors import Vector, along, cross, dot, length, subtract, unit
from bendrel.core.hose.shape.elastica import (
    Array,
    Held,
    Settled,
    curvature_of,
    guesses,
    lowest,
    points_of,
    refined,
    ways_out,
)
from bendrel.core.record import record
from bendrel.core.units.lengths_error import LengthsError

COARSE, FINE, FINEST = 24, 64, 192
"""Pieces for finding the shape, for its radius over many lengths, and for what is shown: the radius comes
out to 2 %, 0.3 % and 0.03 %."""
_FLAT = 1e-6


class HoseError(LengthsError, ValueError):
    """A hose that cannot lie so; the text says what would do."""


@record
class HoseEnd:
    """One end of a hose: the point in mm where it leaves what holds it, the unit way along the hose from its
    first to its second end, and for how many mm it is stiff and straight there."""

    point: Vector
    way: Vector
    straight_mm: float = 0.0

    def __post_init__(self) -> None:
        if self.straight_mm < 0:
            raise HoseError(f"A stiff straight of {self.straight_mm:g} mm: 0 or more is accepted.")


@record
class HoseEnds:
    """Both ends of a hose."""

    a: HoseEnd
    b: HoseEnd

    def __post_init__(self) -> None:
        if length(subtract(self.a.point, self.b.point)) < 1e-6:
            raise HoseError("Both ends of the hose are at the same point; they must lie apart.")

    @property
    def distance_mm(self) -> float:
        """From end to end."""
        return length(subtract(self.b.point, self.a.point))

    @property
    def inner(self) -> tuple[Vector, Vector]:
        """Where the stiff straights end."""
        return (
            along(self.a.point, self.a.way, self.a.straight_mm),
            along(self.b.point, self.b.way, -self.b.straight_mm),
        )

    @property
    def least_mm(self) -> float:
        """No hose between these ends is shorter."""
        first, last = self.inner
        return length(subtract(last, first)) + self.stiff_mm

    @property
    def stiff_mm(self) -> float:
        """What is stiff at both ends together."""
        return self.a.straight_mm + self.b.straight_mm

    @property
    def in_line(self) -> bool:
        """A straight hose goes from one to the other."""
        first, last = self.inner
        gap = subtract(last, first)
        if length(gap) < 1e-9:
            return dot(self.a.way, self.b.way) > 1 - 1e-12
        way = unit(gap)
        return dot(way, self.a.way) > 1 - 1e-12 and dot(way, self.b.way) > 1 - 1e-12

    @property
    def flat(self) -> bool:
        """Both ways lie in one plane with the line between the ends."""
        first, last = self.inner
        gap = subtract(last, first)
        if length(gap) < 1e-9:
            return True
        return abs(dot(cross(self.a.way, self.b.way), unit(gap))) < _FLAT


@record
class HoseShape:
    """A hose as it lies. `radius_mm` is the tightest radius of its centreline, None where it is straight;
    `tightest_at_mm` where that is along the hose; `reach_mm` how far it stands out from the straight line
    between its ends. `points` run from end to end. `bows`
    says that it would bow sideways out of its plane if its ends could turn in their seats."""

    length_mm: float
    radius_mm: float | None
    tightest_at_mm: float
    reach_mm: float
    points: tuple[Vector, ...]
    bows: bool


@lru_cache(maxsize=256)
def hose_shape(ends: HoseEnds, length_mm: float) -> HoseShape:
    """The shape of a hose of `length_mm` (stiff straights included).

    Where both ends lie in one plane the hose does: its ends are held from turning. Else the shape of least
    energy is taken. Raises HoseError for a length that does not reach, or that would have to kink.
    """
    _reaches(ends, length_mm)
    if ends.in_line and length_mm <= ends.least_mm * (1 + 1e-9):
        return _straight(ends)
    (shape,), _ = _shapes((ends,), length_mm, FINEST)
    if shape.radius_mm == 0:
        raise HoseError(
            "A hose of {length} would have to kink between these ends; it needs more length.",
            length=length_mm,
        )
    return shape


def shapes_of(positions: Sequence[HoseEnds], length_mm: float) -> tuple[tuple[HoseShape, ...], Settled]:
    """One hose between each of several pairs of ends, all of which it reaches, and how it rests there. A
    radius of 0 is one that has no shape without a kink."""
    return _shapes(positions, length_mm, FINE)


def _shapes(
    positions: Sequence[HoseEnds], length_mm: float, pieces: int
) -> tuple[tuple[HoseShape, ...], Settled]:
    held, free = held_ends(positions, [length_mm] * len(positions))
    flat = all(ends.flat for ends in positions)
    rough = lowest(guesses(held, COARSE, flat=flat), held, rivals=FINE)
    out = ways_out(rough, held) if flat else np.zeros(len(positions))
    rest = refined(rough, held, pieces)
    shapes: list[HoseShape] = []
    for k, (ends, curvature) in enumerate(
        zip(positions, curvature_of(rest, held) / free[:, None], strict=True)
    ):
        inner = np.array(ends.inner[0]) + points_of(rest.take(np.array([k])))[0] * free[k]
        points = [*map(_vector, inner)]
        if ends.stiff_mm:
            points = [ends.a.point, *points, ends.b.point]
        tightest = int(curvature.argmax())
        radius = float(1 / curvature[tightest]) if curvature[tightest] > 1e-9 else None
        shapes.append(
            HoseShape(
                length_mm=length_mm,
                radius_mm=radius if rest.found[k] else 0.0,
                tightest_at_mm=float(ends.a.straight_mm + tightest * free[k] / pieces),
                reach_mm=reach_mm(ends, inner),
                points=tuple(points),
                bows=bool(out[k] > 0),
            )
        )
    return tuple(shapes), rest


def held_ends(everyone: Sequence[HoseEnds], lengths: Sequence[float]) -> tuple[Held, Array]:
    """The ends of every hose between its stiff straights, and the free lengths that they are measured
    in."""
    free = np.array(lengths) - np.array([ends.stiff_mm for ends in everyone])
    inner = np.array([ends.inner for ends in everyone])
    closing = (inner[:, 1] - inner[:, 0]) / free[:, None]
    return (
        Held(
            closing=closing,
            way_a=np.array([ends.a.way for ends in everyone]),
            way_b=np.array([ends.b.way for ends in everyone]),
        ),
        free,
    )


def reach_mm(ends: HoseEnds, points: Array) -> float:
    """The greatest distance of `points` (N, 3) from the straight line through both ends, in mm."""
    start = np.array(ends.a.point)
    way = np.array(unit(subtract(ends.b.point, ends.a.point)))
    # the stiff straights end in points of the free hose, so that nothing of them stands out further
    off = points - start
    return float(np.linalg.norm(off - (off @ way)[:, None] * way, axis=1).max(initial=0.0))


def _reaches(ends: HoseEnds, length_mm: float) -> None:
    if length_mm < ends.distance_mm - 1e-6:
        raise HoseError(
            "A hose of {length} does not reach: its ends are {apart} apart.",
            length=length_mm,
            apart=ends.distance_mm,
        )
    if length_mm < ends.least_mm - 1e-6 or (not ends.in_line and length_mm <= ends.least_mm * (1 + 1e-9)):
        raise HoseError(
            "A hose of {length} is too short here: with its ends as they point it needs more than {least}.",
            length=length_mm,
            least=ends.least_mm,
        )


def _straight(ends: HoseEnds) -> HoseShape:
    gap = subtract(ends.b.point, ends.a.point)
    points = tuple(along(ends.a.point, gap, k / FINEST) for k in range(FINEST + 1))
    return HoseShape(
        length_mm=ends.least_mm,
        radius_mm=None,
        tightest_at_mm=0.0,
        reach_mm=0.0,
        points=points,
        bows=False,
    )


def _vector(row: Array) -> Vector:
    x, y, z = row.tolist()
    return (x, y, z)
