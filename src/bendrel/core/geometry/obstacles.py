"""What stands beside a line, and how far from it points and ways are."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from annotated_types import Gt
from numpy.typing import NDArray

from bendrel.core.geometry.vectors import Vector
from bendrel.core.record import record

Array = NDArray[np.float64]


@record
class Ball:
    """A round thing: its middle and radius in mm."""

    middle: Vector
    radius_mm: Annotated[float, Gt(0)]


@record
class Bar:
    """A bar, pipe or shaft with round ends: two points on its axis, its radius in mm."""

    start: Vector
    stop: Vector
    radius_mm: Annotated[float, Gt(0)]


@record
class Box:
    """A box along the axes, from its least to its greatest corner."""

    least: Vector
    most: Vector


@record
class Wall:
    """Everything behind a plane: a point on it, and the unit way that looks out of it."""

    point: Vector
    out: Vector


@record
class Way:
    """Another line: points along its centreline, and its radius in mm."""

    points: tuple[Vector, ...]
    radius_mm: Annotated[float, Gt(0)]


Obstacle = Ball | Bar | Box | Wall | Way


def distances_mm(points: Array, obstacle: Obstacle) -> Array:
    """From every one of `points` (…, 3) to the outside of `obstacle`, in mm; negative inside of a ball,
    bar or wall, 0 inside of a box.

    Source: plane geometry.
    """
    if isinstance(obstacle, Ball):
        return np.asarray(np.linalg.norm(points - np.array(obstacle.middle), axis=-1) - obstacle.radius_mm)
    if isinstance(obstacle, Bar):
        return _from_stretch(points, obstacle.start, obstacle.stop) - obstacle.radius_mm
    if isinstance(obstacle, Box):
        outside = np.maximum(np.array(obstacle.least) - points, points - np.array(obstacle.most))
        return np.asarray(np.linalg.norm(np.maximum(outside, 0.0), axis=-1))
    if isinstance(obstacle, Wall):
        return np.asarray((points - np.array(obstacle.point)) @ np.array(obstacle.out))
    each = [_from_stretch(points, *pair) for pair in zip(obstacle.points, obstacle.points[1:], strict=False)]
    return np.asarray(np.min(each, axis=0) - obstacle.radius_mm)


def _from_stretch(points: Array, start: Vector, stop: Vector) -> Array:
    first, way = np.array(start), np.array(stop) - np.array(start)
    size = float(way @ way)
    share = np.clip((points - first) @ way / max(size, 1e-12), 0.0, 1.0)
    return np.asarray(np.linalg.norm(points - first - share[..., None] * way, axis=-1))
