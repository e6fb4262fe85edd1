"""A hose whose ends move: every position of the travel, and what the hose does there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from itertools import product
from math import degrees

import numpy as np

from bendrel.core.findings import EndName
from bendrel.core.geometry.vectors import Vector, add, along, cross, dot, rotated, subtract, unit
from bendrel.core.hose.shape.elastica import Array, Settled
from bendrel.core.hose.shape.laid import HoseEnds, HoseError, shapes_of
from bendrel.core.record import record

MOST_MOVES = 3
_STEPS = {0: 1, 1: 41, 2: 7, 3: 4}
"""Places along each move, by how many moves there are."""


@record
class Hinge:
    """An end that swings about an axis: a point on it and its unit way, right-hand rule; degrees from the
    position in which the hose is fitted."""

    end: EndName
    point: Vector
    axis: Vector
    least_deg: float
    most_deg: float


@record
class Slide:
    """An end that slides along a unit way; mm from the position in which the hose is fitted."""

    end: EndName
    way: Vector
    least_mm: float
    most_mm: float


Move = Hinge | Slide


@record
class Position:
    """One position of the travel: how far each move has gone (degrees or mm), and where the ends are then.
    `turned_a` and `turned_b` are a direction fixed to each end, square to its way, which shows how it
    turned."""

    gone: tuple[float, ...]
    ends: HoseEnds
    turned_a: Vector
    turned_b: Vector


@record
class AtPosition:
    """The hose at one position. `radius_mm` is 0 where it has no shape: it does not reach, or kinks;
    `spare_mm` the length beyond what just reaches, negative where it does not; `twist_deg` how far its end
    B would have been turned against end A, clockwise seen along the hose."""

    gone: tuple[float, ...]
    radius_mm: float | None
    tightest_at_mm: float
    reach_mm: float
    spare_mm: float
    twist_deg: float
    points: tuple[Vector, ...]


def travel(ends: HoseEnds, moves: Sequence[Move]) -> tuple[Position, ...]:
    """Every position looked at, that in which the hose is fitted among them: 41 along one move, a grid of
    two or three. A move that is listed first sits nearest to the hose, as the steering swivel on an axle
    that is hinged.

    Raises HoseError for more than three moves, and for one that goes nowhere.
    """
    if len(moves) > MOST_MOVES:
        raise HoseError(f"{len(moves)} moves: up to {MOST_MOVES} at once are looked at.")
    steps = _STEPS[len(moves)]
    each: list[list[float]] = []
    for move in moves:
        least, most = (
            (move.least_deg, move.most_deg) if isinstance(move, Hinge) else (move.least_mm, move.most_mm)
        )
        if not least < most:
            raise HoseError(f"A move from {least:g} to {most:g} goes nowhere; the second must be greater.")
        if least > 0 or most < 0:
            raise HoseError(
                f"A move from {least:g} to {most:g} does not pass 0, the position in which the hose is "
                f"fitted."
            )
        if isinstance(move, Hinge) and most - least > 360:
            raise HoseError(f"A hinge from {least:g} to {most:g}°: a full turn is the most.")
        each.append(sorted({0.0, *np.linspace(least, most, steps).tolist()}))
    square_a, square_b = _square(ends.a.way), _square(ends.b.way)
    return tuple(_position(ends, moves, gone, square_a, square_b) for gone in product(*each))


def _position(
    ends: HoseEnds, moves: Sequence[Move], gone: tuple[float, ...], square_a: Vector, square_b: Vector
) -> Position:
    where = {"A": (ends.a.point, ends.a.way, square_a), "B": (ends.b.point, ends.b.way, square_b)}
    for move, far in zip(moves, gone, strict=True):
        point, way, square = where[move.end]
        if isinstance(move, Slide):
            where[move.end] = (along(point, move.way, far), way, square)
            continue
        where[move.end] = (
            add(move.point, rotated(subtract(point, move.point), move.axis, far)),
            rotated(way, move.axis, far),
            rotated(square, move.axis, far),
        )
    (a, way_a, turned_a), (b, way_b, turned_b) = where["A"], where["B"]
    moved = HoseEnds(a=replace(ends.a, point=a, way=way_a), b=replace(ends.b, point=b, way=way_b))
    return Position(gone=gone, ends=moved, turned_a=turned_a, turned_b=turned_b)


def over_travel(positions: Sequence[Position], length_mm: float) -> tuple[AtPosition, ...]:
    """A hose of `length_mm` at every position. It was laid without twist in the first position that has all
    moves at 0."""
    reach = [k for k, at in enumerate(positions) if length_mm > at.ends.least_mm * (1 + 1e-9)]
    found: dict[int, AtPosition] = {}
    if reach:
        some = [positions[k] for k in reach]
        shapes, rest = shapes_of([at.ends for at in some], length_mm)
        for k, at, shape, twist in zip(reach, some, shapes, _twists(some, rest), strict=True):
            found[k] = AtPosition(
                gone=at.gone,
                radius_mm=shape.radius_mm,
                tightest_at_mm=shape.tightest_at_mm,
                reach_mm=shape.reach_mm,
                spare_mm=length_mm - at.ends.least_mm,
                twist_deg=float(twist),
                points=shape.points,
            )
    return tuple(found.get(k) or _pulled(at, length_mm) for k, at in enumerate(positions))


def _pulled(at: Position, length_mm: float) -> AtPosition:
    """A hose that is pulled straight, where that can be, or does not reach."""
    first, last = at.ends.inner
    straight = at.ends.in_line and length_mm >= at.ends.least_mm * (1 - 1e-9)
    return AtPosition(
        gone=at.gone,
        radius_mm=None if straight else 0.0,
        tightest_at_mm=0.0,
        reach_mm=0.0,
        spare_mm=length_mm - at.ends.least_mm,
        twist_deg=0.0,
        points=(at.ends.a.point, first, last, at.ends.b.point),
    )


def _twists(positions: Sequence[Position], rest: Settled) -> Array:
    """How far the untwisted hose arrives turned against its end B, in degrees, (positions,). The position
    at rest has none: there it was tightened.

    Source: R. Bishop, There Is More than One Way to Frame a Curve (1975): the frame that never turns about
    the way is carried from piece to piece by the least turn.
    """
    home = next((k for k, at in enumerate(positions) if not any(at.gone)), 0)
    ways = np.concatenate(
        [
            np.array([at.ends.a.way for at in positions])[:, None],
            rest.tangents,
            np.array([at.ends.b.way for at in positions])[:, None],
        ],
        axis=1,
    )
    carried = np.array([at.turned_a for at in positions])
    for here, there in zip(ways.swapaxes(0, 1), ways.swapaxes(0, 1)[1:], strict=False):
        both = here + there
        share = (carried * there).sum(-1) / np.maximum(1.0 + (here * there).sum(-1), 1e-9)
        carried = carried - share[:, None] * both
    way_b, mark = ways[:, -1], np.array([at.turned_b for at in positions])
    angle = np.arctan2((np.cross(mark, carried) * way_b).sum(-1), (mark * carried).sum(-1))
    turned = np.degrees(angle - angle[home])
    return np.asarray((turned + 180.0) % 360.0 - 180.0)


def _square(way: Vector) -> Vector:
    other: Vector = (0.0, 0.0, 1.0) if abs(way[2]) < 0.9 else (1.0, 0.0, 0.0)
    return unit(cross(way, other))


def out_of_plane_deg(ends: HoseEnds, moves: Sequence[Move]) -> float | None:
    """The greatest angle between the plane that the hose lies in and the plane that its ends move in; None
    where the hose has no plane of its own. Twist comes from it."""
    normal = cross(ends.a.way, subtract(ends.b.point, ends.a.point))
    if dot(normal, normal) < 1e-9:
        normal = cross(ends.b.way, subtract(ends.b.point, ends.a.point))
    if dot(normal, normal) < 1e-9 or not ends.flat:
        return None
    normal = unit(normal)
    worst = 0.0
    for move in moves:
        if isinstance(move, Hinge):
            off = degrees(np.arccos(min(1.0, abs(dot(normal, move.axis)))))
        else:
            off = degrees(np.arcsin(min(1.0, abs(dot(normal, move.way)))))
        worst = max(worst, float(off))
    return worst
