"""Cuts through flared ends, to draw them."""

from __future__ import annotations

from math import hypot, radians, tan
from typing import Literal

FlareShape = Literal["bulb", "folded", "cone"]
"""A folded one is a cone of two layers."""
Stroke = tuple[tuple[float, float], ...]


def flare_profile(
    shape: FlareShape, od_mm: float, wall_mm: float, flare_mm: float, half_angle_deg: float
) -> Stroke:
    """The middle of the wall of a flared end above its axis, in mm: (x, y) with the rim at x = 0, the tube
    towards −x and y from the axis, from two outside diameters behind the flare on. `flare_mm` is its diameter
    across, over the outside; `half_angle_deg` half the cone (0 < angle < 90).

    Source: a wall that keeps its thickness.

    >>> [(round(x, 3), round(y, 3)) for x, y in flare_profile("cone", 6, 1, 9, 45)]  # half a wall inside
    [(-13.5, 2.5), (-1.5, 2.5), (0.0, 4.0)]
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
    return ((-2 * od_mm - deep, middle), (-deep, middle), (0.0, rim))


def folded_layer(profile: Stroke, wall_mm: float) -> Stroke:
    """The second layer of a double flare, a wall inside the cone that a `flare_profile` ends with,
    as far back as the cone begins."""
    (x0, y0), (x1, y1) = profile[-2:]
    long = hypot(x1 - x0, y1 - y0)
    across, along = (x1 - x0) / long, (y1 - y0) / long
    inside = (along * wall_mm, -across * wall_mm)
    return tuple((x + inside[0], y + inside[1]) for x, y in ((x1, y1), (x0, y0)))


def torn(profile: Stroke, wall_mm: float) -> Stroke:
    """A stroke across the wall of `profile` at its widest place, where a flare splits: in mm, one and a half
    walls long."""
    x, y = max(profile, key=lambda point: point[1])
    return ((x - 0.75 * wall_mm, y - 0.75 * wall_mm), (x + 0.75 * wall_mm, y + 0.75 * wall_mm))
