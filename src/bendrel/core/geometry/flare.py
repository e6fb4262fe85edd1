"""Cuts through flared ends, to draw them."""

from __future__ import annotations

from math import radians, tan
from typing import Literal

FlareShape = Literal["bulb", "folded", "cone"]
Stroke = tuple[tuple[float, float], ...]


def flare_profile(
    shape: FlareShape, od_mm: float, wall_mm: float, flare_mm: float, half_angle_deg: float
) -> Stroke:
    """The middle of the wall of a flared end above its axis, in mm: (x, y) with the rim at x = 0, the tube
    towards −x and y from the axis, from two outside diameters behind the flare on. `flare_mm` is its diameter
    across, over the outside; `half_angle_deg` half the cone (0 < angle < 90).

    Source: a wall that keeps its thickness; a folded one lies back on itself.

    >>> flare_profile("cone", 6, 1, 9, 45)  # the middle of the wall lies half a wall inside
    ((-13.5, 2.5), (-1.5, 2.5), (0.0, 4.0))
    """
    middle = (od_mm - wall_mm) / 2
    rim = max(middle, (flare_mm - wall_mm) / 2)
    if shape == "bulb":
        half = max(rim - middle, wall_mm)
        return (
            (-2 * od_mm - 2 * half, middle),
            (-2 * half, middle),
            (-1.3 * half, rim),
            (-0.7 * half, rim),
            (0.0, middle),
        )
    deep = (rim - middle) / tan(radians(half_angle_deg))
    cone = ((-2 * od_mm - deep, middle), (-deep, middle), (0.0, rim))
    if shape == "cone":
        return cone
    # the second layer lies a wall inside the first and ends where the bore is
    return (*cone, (0.3 * wall_mm, rim - 0.7 * wall_mm), (-deep + 0.7 * wall_mm, middle - 0.7 * wall_mm))


def torn(profile: Stroke, wall_mm: float) -> Stroke:
    """A stroke across the wall of `profile` at its widest place, where a flare splits: in mm, one and a half
    walls long."""
    x, y = max(profile, key=lambda point: point[1])
    return ((x - 0.75 * wall_mm, y - 0.75 * wall_mm), (x + 0.75 * wall_mm, y + 0.75 * wall_mm))
