"""Ways of looking at a line: two axes of the paper, chosen so that the shape can be read."""

from __future__ import annotations

from math import cos, hypot, pi, sin

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.vectors import Vector, add, cross, dot, scale, unit
from bendrel.core.record import record

Point = tuple[float, float]
Array = NDArray[np.float64]


@record
class View:
    """Right and up on the paper, as unit vectors in the part's frame."""

    right: Vector
    up: Vector

    @property
    def towards(self) -> Vector:
        """Unit vector from the part to the eye."""
        return cross(self.right, self.up)

    def flat(self, point: Vector) -> Point:
        """Where a point lies on the paper, in mm, up positive."""
        return dot(point, self.right), dot(point, self.up)


FROM_A = View(right=(0.0, 0.0, 1.0), up=(0.0, 1.0, 0.0))
"""From end A along the tube: 12 o'clock, the plane of the first bend, is up."""

ABOVE = View(right=(1.0, 0.0, 0.0), up=(0.0, 1.0, 0.0))
"""Square on to the plane of the first bend."""


def from_b(way_at_b: Vector) -> View:
    """From end B against the direction of travel there, first-bend up where that is possible."""
    look = scale(way_at_b, -1.0)
    up: Vector = (0.0, 1.0, 0.0) if abs(look[1]) < 0.95 else (1.0, 0.0, 0.0)
    right = unit(cross(look, up))
    return View(right=right, up=cross(right, look))


def clearest(points: tuple[Vector, ...]) -> View:
    """The view, of a fixed set, that spreads `points` over the most paper, the first on the left
    and the longest way across."""
    views = [_from_above(lift, pi * turn / 8) for lift in (0.35, 0.75, 1.15) for turn in range(16)]
    wide, tall, right = _spreads(views, points)
    # a flat sliver tells little, and neither does a view that hides the depth
    area = np.where(right, wide * tall + 0.05 * wide * wide, -1.0)
    best = views[int(np.argmax(area))]
    rolled = [best, *(_rolled(best, pi * step / 12) for step in range(-3, 4))]
    wide, tall, right = _spreads(rolled, points)
    ratio = np.where(right, wide / (tall + 0.15 * wide + 1e-9), -1.0)
    return rolled[int(np.argmax(ratio))]


def _from_above(lift: float, around: float) -> View:
    eye = (cos(lift) * cos(around), cos(lift) * sin(around), sin(lift))
    right = unit(cross((0.0, 0.0, 1.0), eye))
    return View(right=right, up=cross(eye, right))


def _rolled(view: View, angle: float) -> View:
    right = add(scale(view.right, cos(angle)), scale(view.up, sin(angle)))
    return View(right=right, up=add(scale(view.up, cos(angle)), scale(view.right, -sin(angle))))


def _spreads(views: list[View], points: tuple[Vector, ...]) -> tuple[Array, Array, NDArray[np.bool_]]:
    """Width and height of `points` in every view, and whether end A lies on the left in it, as it
    does on the strip."""
    there = np.array(points)
    across = there @ np.array([view.right for view in views]).T
    upward = there @ np.array([view.up for view in views]).T
    return np.ptp(across, axis=0), np.ptp(upward, axis=0), across[-1] >= across[0] - 1e-9


def back_of(before: Point, here: Point, after: Point) -> Point:
    """Unit direction on the paper to the back of a corner, for putting its label there."""
    ways = []
    for other in (before, after):
        dx, dy = other[0] - here[0], other[1] - here[1]
        size = hypot(dx, dy)
        ways.append((dx / size, dy / size) if size > 1e-9 else (0.0, 0.0))
    x, y = -(ways[0][0] + ways[1][0]), -(ways[0][1] + ways[1][1])
    size = hypot(x, y)
    return (x / size, y / size) if size > 1e-6 else (-ways[0][1], ways[0][0])
