"""Clips on a drawn line: a short bar across it where each one sits."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import pairwise
from math import hypot

from bendrel.core.geometry.vectors import Vector, add, length, scale, subtract
from bendrel.core.geometry.view import Point

HALF = 8.0
"""Half a bar, in units of the paper."""

Bar = tuple[Point, Point]
Place = Callable[[Vector], Point]


def clip_bars(path: Sequence[Vector], places_mm: Sequence[float], place: Place) -> tuple[Bar, ...]:
    """A bar for every clip at a place (mm along `path`) that lies on it, square to the line on the paper."""
    bars = []
    for at_mm in places_mm:
        left = at_mm
        for a, b in pairwise(path):
            long = length(subtract(b, a))
            if long > 0 and left <= long:
                bars.append(_across(place(add(a, scale(subtract(b, a), left / long))), place(a), place(b)))
                break
            left -= long
    return tuple(bars)


def _across(at: Point, a: Point, b: Point) -> Bar:
    dx, dy = b[0] - a[0], b[1] - a[1]
    size = hypot(dx, dy)
    # seen along the line it has no side: upright, as good as any
    x, y = (-dy / size * HALF, dx / size * HALF) if size > 1e-9 else (0.0, HALF)
    return (at[0] - x, at[1] - y), (at[0] + x, at[1] + y)
