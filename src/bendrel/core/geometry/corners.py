"""Corner points ↔ bend list.

Convention: the points start at the origin along +x and the first bend turns towards +y.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from math import ceil, radians, tan
from typing import Annotated

from annotated_types import Gt

from bendrel.core.geometry.bends import NO_CORNER_DEG, Bend, BendList, ShapeError
from bendrel.core.geometry.vectors import (
    Vector,
    along,
    angle_between,
    cross,
    dot,
    length,
    rotated,
    signed_angle,
    subtract,
    unit,
)
from bendrel.core.record import record

STRAIGHT_IS_ZERO_MM = 1e-6
MERGE_ANGLE_DEG = 0.05
MERGE_DISTANCE_MM = 0.05
LARGEST_PIECE_DEG = 120.0
LONGEST_LEG_MM = 100_000.0


@record
class Corners:
    """Centreline corner points from end A to end B and a radius at each inner one, in mm."""

    points: tuple[Vector, ...]
    radii_mm: tuple[Annotated[float, Gt(0)], ...]


def bends_from_corners(corners: Corners, *, allow_overlap: bool = False) -> BendList:
    """Bend list of a corner-point shape.

    Nearly straight corners are merged away, and the pieces that `corners_from_bends` makes of a
    bend over 170° are joined again. Raises ShapeError for fewer than two points, duplicate
    points, a leg over 100 m, a leg that turns straight back, and a straight that is not there
    (naming both corners and the missing room) unless `allow_overlap`, which returns it negative.

    >>> corner = Corners(points=((0, 0, 0), (100, 0, 0), (100, 100, 0)), radii_mm=(20,))
    >>> [round(straight, 6) for straight in bends_from_corners(corner).straights_mm]  # 100 − 20·tan 45°
    [80.0, 80.0]
    """
    return traced_bends(corners, allow_overlap=allow_overlap)[0]


def traced_bends(corners: Corners, *, allow_overlap: bool = False) -> tuple[BendList, tuple[int, ...]]:
    """The bend list of `bends_from_corners`, and for every bend the corner point (0 is end A) at which it
    begins. Raises ShapeError."""
    _refuse_bad_points(corners)
    keep = _without_flat_corners(corners.points)
    points = [corners.points[i] for i in keep]
    radii = [corners.radii_mm[i - 1] for i in keep[1:-1]]
    legs = [subtract(b, a) for a, b in pairwise(points)]
    ways = [unit(leg) for leg in legs]
    angles = [angle_between(a, b) for a, b in pairwise(ways)]
    for k, angle in enumerate(angles):
        if angle > 180 - 1e-6:
            raise ShapeError(f"Corner {keep[k + 1]} turns straight back; give a hairpin as a bend instead.")
    tangents = [
        0.0,
        *(r * tan(radians(a) / 2) for r, a in zip(radii, angles, strict=True)),
        0.0,
    ]
    straights = []
    for k, leg in enumerate(legs):
        straight = length(leg) - tangents[k] - tangents[k + 1]
        if straight < -STRAIGHT_IS_ZERO_MM and not allow_overlap:
            raise ShapeError(
                f"{_leg_name(keep[k], keep[k + 1], len(corners.points))} is {{short}} too short for the "
                "bends at its ends; lengthen it or use a smaller radius.",
                short=-straight,
            )
        straights.append(0.0 if abs(straight) < STRAIGHT_IS_ZERO_MM else straight)
    normals = [unit(cross(a, b)) for a, b in pairwise(ways)]
    rotations = [0.0] * min(1, len(normals))
    for k, (before, after) in enumerate(pairwise(normals)):
        turn = signed_angle(before, after, ways[k + 1])
        rotations.append(180.0 if turn <= -180.0 else turn)
    bends = [
        Bend(straight_mm=s, rotation_deg=t, angle_deg=a, radius_mm=r)
        for s, t, a, r in zip(straights, rotations, angles, radii, strict=False)
    ]
    joined, firsts = _joined(bends)
    return BendList(bends=joined, last_straight_mm=straights[-1]), tuple(keep[k + 1] for k in firsts)


def turns_deg(points: Sequence[Vector]) -> tuple[float, ...]:
    """By how much a line through these points turns at each that is not an end, in degrees; 0 where two
    points are the same. Raises nothing.

    >>> turns_deg([(0, 0, 0), (100, 0, 0), (100, 50, 0)])
    (90.0,)
    """
    legs = [subtract(b, a) for a, b in pairwise(points)]
    return tuple(angle_between(a, b) if length(a) and length(b) else 0.0 for a, b in pairwise(legs))


def corners_from_bends(shape: BendList) -> Corners:
    """Corner points of a bend list, starting at the origin along +x, first bend towards +y.

    A bend over 170° is written as ⌈angle/120⌉ equal bends with nothing between, since its own
    corner runs off towards infinity.
    """
    way: Vector = (1.0, 0.0, 0.0)
    normal: Vector = (0.0, 0.0, 1.0)
    here: Vector = (0.0, 0.0, 0.0)
    points = [here]
    radii: list[float] = []
    from_corner = 0.0
    for bend in _split(shape.bends):
        tangent = bend.tangent_mm
        here = along(here, way, from_corner + bend.straight_mm + tangent)
        points.append(here)
        radii.append(bend.radius_mm)
        normal = rotated(normal, way, bend.rotation_deg)
        way = rotated(way, normal, bend.angle_deg)
        from_corner = tangent
    points.append(along(here, way, from_corner + shape.last_straight_mm))
    return Corners(points=tuple(points), radii_mm=tuple(radii))


def _leg_name(first: int, second: int, count: int) -> str:
    """Name a leg by its two corners; corner 1 is the first after end A."""
    a = "end A" if first == 0 else f"corner {first}"
    b = "end B" if second == count - 1 else f"corner {second}"
    return f"The leg from {a} to {b}"


def _refuse_bad_points(corners: Corners) -> None:
    if len(corners.points) < 2:
        raise ShapeError("A line needs at least two points: end A and end B.")
    if len(corners.radii_mm) != len(corners.points) - 2:
        raise ShapeError("Every corner between the two ends needs one radius.")
    for k, (a, b) in enumerate(pairwise(corners.points), start=1):
        gap = length(subtract(b, a))
        if gap < STRAIGHT_IS_ZERO_MM:
            raise ShapeError(f"Points {k} and {k + 1} are the same; leave one of them out.")
        if gap > LONGEST_LEG_MM:
            raise ShapeError(f"Points {k} and {k + 1} are over 100 m apart; check their units.")


def _without_flat_corners(points: tuple[Vector, ...]) -> list[int]:
    """Indices to keep: a corner under 0.05° goes if it lies within 0.05 mm of the chord."""
    keep = [0]
    dropped: list[int] = []
    for k in range(1, len(points) - 1):
        last, following = points[keep[-1]], points[k + 1]
        turn = angle_between(subtract(points[k], last), subtract(following, points[k]))
        near = all(_distance_to_chord(points[i], last, following) <= MERGE_DISTANCE_MM for i in (*dropped, k))
        if turn < MERGE_ANGLE_DEG and near:
            dropped.append(k)
        else:
            keep.append(k)
            dropped = []
    return [*keep, len(points) - 1]


def _distance_to_chord(point: Vector, a: Vector, b: Vector) -> float:
    chord = subtract(b, a)
    span = dot(chord, chord)
    if span == 0:
        return length(subtract(point, a))
    part = min(1.0, max(0.0, dot(subtract(point, a), chord) / span))
    return length(subtract(point, along(a, chord, part)))


def _split(bends: tuple[Bend, ...]) -> list[Bend]:
    pieces = []
    for bend in bends:
        count = ceil(bend.angle_deg / LARGEST_PIECE_DEG) if bend.angle_deg > NO_CORNER_DEG else 1
        for k in range(count):
            pieces.append(
                Bend(
                    straight_mm=0.0 if k else bend.straight_mm,
                    rotation_deg=0.0 if k else bend.rotation_deg,
                    angle_deg=bend.angle_deg / count,
                    radius_mm=bend.radius_mm,
                )
            )
    return pieces


def _joined(bends: list[Bend]) -> tuple[tuple[Bend, ...], list[int]]:
    """Join runs that only a bend over 170° is written as: equal, in one plane, nothing between. With them,
    for every bend, the first of the given ones that it is made of."""
    joined: list[Bend] = []
    firsts: list[int] = []
    k = 0
    while k < len(bends):
        run = 1
        while k + run < len(bends) and _continues(bends[k], bends[k + run]):
            run += 1
        taken = 1
        for count in range(min(run, 3), 1, -1):
            total = sum(bend.angle_deg for bend in bends[k : k + count])
            whole = NO_CORNER_DEG < total <= 360 + 1e-9
            if whole and ceil(round(total / LARGEST_PIECE_DEG, 9)) == count:
                taken = count
                break
        first = bends[k]
        firsts.append(k)
        total = sum(bend.angle_deg for bend in bends[k : k + taken])
        joined.append(
            Bend(
                straight_mm=first.straight_mm,
                rotation_deg=first.rotation_deg,
                angle_deg=min(total, 360.0),
                radius_mm=first.radius_mm,
            )
        )
        k += taken
    return tuple(joined), firsts


def _continues(first: Bend, second: Bend) -> bool:
    return (
        abs(second.straight_mm) < STRAIGHT_IS_ZERO_MM
        and abs(second.rotation_deg) < 1e-6
        and abs(second.angle_deg - first.angle_deg) < 1e-6
        and abs(second.radius_mm - first.radius_mm) < 1e-9
    )
