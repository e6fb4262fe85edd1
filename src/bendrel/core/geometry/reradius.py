"""The old line between the same two ports, with the radius that the shop's bender makes."""

from __future__ import annotations

from dataclasses import replace
from math import radians, sqrt, tan

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import NO_CORNER_DEG, BendList
from bendrel.core.geometry.centreline import end_frame, sampled
from bendrel.core.geometry.tool_radius import ToolRadius
from bendrel.core.geometry.vectors import length, subtract
from bendrel.core.record import record

Array = NDArray[np.float64]

ENDS_MEET_MM = 0.01
SAMPLE_DEG = 3.0


@record
class Lack:
    """A straight by number (1 before the first bend), and what it lacks of the tool's least in mm."""

    straight: int
    lack_mm: float


@record
class Bow:
    """A gentle bow that would take up the surplus in one straight: its height and radius in mm."""

    straight: int
    height_mm: float
    radius_mm: float


@record
class Reradius:
    """The line made again with another radius.

    `short` holds the straights that the kept corners leave too short. `moved` says that legs and
    angles were then moved as little as possible. `meets_ports`: both ports are met, with room for
    the tool, without straying further than the radius itself. `departure_mm` is the most it strays
    from the old path, near `departure_bend`. `surplus_mm` is the tube that the old length has over.
    """

    shape: BendList
    short: tuple[Lack, ...]
    moved: bool
    meets_ports: bool
    departure_mm: float
    departure_bend: int | None
    surplus_mm: float
    bows: tuple[Bow, ...]


def reradius(
    shape: BendList,
    radius_mm: float | ToolRadius,
    *,
    least_between_mm: float,
    least_ends_mm: tuple[float, float],
) -> Reradius:
    """Keep every corner where it was and put `radius_mm` into it, of a tool what it leaves at that angle;
    where that leaves a straight too short, or a hairpin has no corner, look for the nearest shape that can
    be made between the ports.

    A straight gives up (R' − R)·tan(θ/2) at each of its bends. Source: plane geometry; the search
    is least squares on legs, angles and rotations.
    """
    tool = radius_mm if isinstance(radius_mm, ToolRadius) else ToolRadius(mm=radius_mm)
    cornered = _cornered(shape, tool)
    least = (least_ends_mm[0], *[least_between_mm] * (len(shape.bends) - 1), least_ends_mm[1])
    short = _short(cornered, least)
    hairpins = any(bend.angle_deg >= NO_CORNER_DEG for bend in shape.bends)
    made = cornered
    moved = bool(short or hairpins) and bool(shape.bends)
    if moved:
        made = _nearest(shape, cornered, least)
    missed = length(subtract(end_frame(made).point, end_frame(shape).point))
    away, near = _departure(shape, made)
    surplus = shape.developed_mm - made.developed_mm
    return Reradius(
        shape=made,
        short=short,
        moved=moved,
        meets_ports=missed < ENDS_MEET_MM and not _short(made, least) and away <= tool.mm,
        departure_mm=away,
        departure_bend=near,
        surplus_mm=surplus,
        bows=_bows(made, surplus),
    )


def bow_height_mm(chord_mm: float, surplus_mm: float) -> float:
    """Height of a shallow bow over `chord_mm` that takes up `surplus_mm`: h = √(3·L·δ/8).
    Source: arc length of a shallow arc, L + 8h²/(3L).

    >>> bow_height_mm(400, 1.5)
    15.0
    """
    return sqrt(3 * chord_mm * surplus_mm / 8)


def _bows(shape: BendList, surplus: float) -> tuple[Bow, ...]:
    """The longest straights first; a bow is gentle where its radius is far over the bends'."""
    if surplus <= 0 or not shape.bends:
        return ()
    usual = max(bend.radius_mm for bend in shape.bends)
    found = []
    for number, straight in enumerate(shape.straights_mm, start=1):
        if straight > 0:
            height = bow_height_mm(straight, surplus)
            radius = straight**2 / (8 * height)
            if radius > 3 * usual:
                found.append(Bow(straight=number, height_mm=height, radius_mm=radius))
    return tuple(sorted(found, key=lambda bow: bow.height_mm / bow.radius_mm)[:3])


def _cornered(shape: BendList, tool: ToolRadius) -> BendList:
    straights = list(shape.straights_mm)
    radii = [tool.at(bend.angle_deg) for bend in shape.bends]
    for k, bend in enumerate(shape.bends):
        if bend.angle_deg < NO_CORNER_DEG:
            more = (radii[k] - bend.radius_mm) * tan(radians(bend.angle_deg) / 2)
            straights[k] -= more
            straights[k + 1] -= more
    return _with(shape, straights, radii=radii)


def _with(
    shape: BendList,
    straights: list[float],
    *,
    radii: list[float] | None = None,
    angles: list[float] | None = None,
    turns: list[float] | None = None,
) -> BendList:
    bends = tuple(
        replace(
            bend,
            straight_mm=straights[k],
            radius_mm=radii[k] if radii else bend.radius_mm,
            angle_deg=angles[k] if angles else bend.angle_deg,
            rotation_deg=turns[k] if turns else bend.rotation_deg,
        )
        for k, bend in enumerate(shape.bends)
    )
    return BendList(bends=bends, last_straight_mm=straights[-1])


def _short(shape: BendList, least: tuple[float, ...]) -> tuple[Lack, ...]:
    pairs = zip(shape.straights_mm, least, strict=False)
    return tuple(
        Lack(straight=k, lack_mm=need - have)
        for k, (have, need) in enumerate(pairs, start=1)
        if have < need - 1e-6
    )


def _nearest(old: BendList, start: BendList, least: tuple[float, ...]) -> BendList:
    """Legs, angles and rotations moved as little as possible so that both ends meet their ports."""
    from scipy.optimize import least_squares  # costs a second to import, and few lines need it

    goal = end_frame(old)
    count = len(start.bends)
    angles = [bend.angle_deg for bend in start.bends]
    turns = [bend.rotation_deg for bend in start.bends]
    first = np.array([*start.straights_mm, *angles, *turns[1:]])
    low = np.array([*least, *[1.0] * count, *[-400.0] * (count - 1)])
    high = np.array([*[1e5] * (count + 1), *[359.0] * count, *[400.0] * (count - 1)])
    # a degree at the usual reach of a line weighs about as much as a few millimetres of leg
    weights = np.array([*[0.01] * (count + 1), *[0.03] * count, *[0.01] * (count - 1)])

    def part(x: Array) -> BendList:
        return _with(
            start,
            [float(v) for v in x[: count + 1]],
            angles=[float(v) for v in x[count + 1 : 2 * count + 1]],
            turns=[0.0, *(float(v) for v in x[2 * count + 1 :])],
        )

    def residual(x: Array, weight: float) -> Array:
        made = end_frame(part(x))
        miss = np.array(subtract(made.point, goal.point))
        way = 200 * np.array(subtract(made.way, goal.way))
        return np.concatenate([miss, way, weight * weights * (x - first)])

    x = np.clip(first, low + 1e-9, high - 1e-9)
    for weight in (1.0, 0.1, 1e-3, 1e-6):  # towards the ports first of all, from a tame start
        x = least_squares(residual, x, bounds=(low, high), args=(weight,)).x
    return part(x)


def _departure(old: BendList, new: BendList) -> tuple[float, int | None]:
    """The most that `new` strays from the path of `old`, and the bend nearest to that place."""
    path = np.array([point for _, point in sampled(old, SAMPLE_DEG)])
    starts, legs = path[:-1], np.diff(path, axis=0)
    squares = np.maximum(np.sum(legs**2, axis=1), 1e-12)
    worst, place = 0.0, 0.0
    for at, point in sampled(new, SAMPLE_DEG):
        offset = np.array(point) - starts
        part = np.clip(np.sum(offset * legs, axis=1) / squares, 0.0, 1.0)
        away = float(np.sqrt(np.min(np.sum((offset - part[:, None] * legs) ** 2, axis=1))))
        if away > worst:
            worst, place = away, at
    if worst < 1e-9:
        return 0.0, None
    middles, reached = [], 0.0
    for bend in new.bends:
        middles.append(reached + bend.straight_mm + bend.arc_mm / 2)
        reached += bend.straight_mm + bend.arc_mm
    nearest = min(range(len(middles)), key=lambda k: abs(middles[k] - place))
    return worst, nearest + 1
