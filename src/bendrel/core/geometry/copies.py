"""A line that follows another: beside it at a constant distance, or with an end made longer."""

from __future__ import annotations

from dataclasses import replace
from math import cos, radians, tan

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import NO_CORNER_DEG, Bend, BendList, ShapeError


def neighbour(shape: BendList, spacing_mm: float, clock_deg: float, *, nested: bool) -> BendList:
    """The line that runs `spacing_mm` beside `shape`, on the side `clock_deg` as seen from end A.

    In the tube's own untwisted frame the side stays the same, so towards the inside of a bend at
    clock C the neighbour lies c = spacing·cos(clock − C) away. `nested`: bends about the same
    centre, radius R − c and the same straights, at a constant distance all along. Otherwise every
    bend keeps its radius, each straight gives up c·tan(θ/2) at each of its bends, and the distance
    is kept along the straights only.

    Raises ShapeError where a nested radius is used up, or where a bend from 170° up cannot keep
    its radius. Source: geometry of offset arcs and corners.
    """
    bends: list[Bend] = []
    shift_before = 0.0
    for number, (bend, clock) in enumerate(zip(shape.bends, shape.clocks_deg, strict=True), start=1):
        inward = spacing_mm * cos(radians(clock_deg - clock))
        if nested:
            radius = bend.radius_mm - inward
            if radius <= 0:
                raise ShapeError(
                    f"Bend {number} has a radius of {{radius}} and the neighbour lies {{inward}} inside it; "
                    "keep the bend's own radius, or take the other side.",
                    radius=bend.radius_mm,
                    inward=inward,
                )
            bends.append(replace(bend, radius_mm=radius))
            continue
        if bend.angle_deg >= NO_CORNER_DEG:
            raise ShapeError(f"Bend {number} is a hairpin; beside it only a nested bend fits.")
        shift = inward * tan(radians(bend.angle_deg) / 2)
        bends.append(replace(bend, straight_mm=bend.straight_mm - shift_before - shift))
        shift_before = shift
    return BendList(bends=tuple(bends), last_straight_mm=shape.last_straight_mm - shift_before)


def extended(shape: BendList, end: EndName, by_mm: float) -> BendList:
    """`shape` with one end longer by `by_mm`, or shorter where it is negative.

    Raises ShapeError where the straight at that end is shorter than what is taken off.
    """
    straight = shape.straights_mm[0 if end == "A" else -1] + by_mm
    if straight < 0:
        left = straight - by_mm
        raise ShapeError(f"End {end} has only {{left}} of straight to take off.", left=left)
    if end == "A" and shape.bends:
        first = replace(shape.bends[0], straight_mm=straight)
        return replace(shape, bends=(first, *shape.bends[1:]))
    return replace(shape, last_straight_mm=straight)
