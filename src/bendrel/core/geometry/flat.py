"""How a part lies on a board: as flat as it goes."""

from __future__ import annotations

from collections.abc import Sequence
from math import copysign

from bendrel.core.geometry.vectors import Vector, cross, dot, subtract
from bendrel.core.record import record

NEVER_SQUARE: Vector = (0.37, 0.61, 0.70)
"""Up is the side that looks this way: hardly a part lies square to it, so one part always lies one way up."""


@record
class Lying:
    """The board's `x`, `y` and `up` as unit vectors in the part's own frame, right-handed; `low` the least of
    each over the part's middle line, in mm."""

    x: Vector
    y: Vector
    up: Vector
    low: Vector

    def turned(self, way: Vector) -> Vector:
        """A direction of the part along the board's x, y and up."""
        return dot(self.x, way), dot(self.y, way), dot(self.up, way)

    def at(self, point: Vector) -> Vector:
        """A place of the part on the board, in mm: its lower left corner and its lowest place are 0."""
        x, y, z = subtract(self.turned(point), self.low)
        return x, y, z


def lying_flat(points: Sequence[Vector]) -> Lying:
    """`points` of a part's middle line, from the end that shall lie left, turned so that they lie as flat as
    they can, the longest side along x. Source: plane of least squares. Raises nothing."""
    import numpy as np

    all_ = np.array(points)
    centred = all_ - all_.mean(axis=0)
    _, _, axes = np.linalg.svd(centred.T @ centred)
    up = axes[2] * copysign(1.0, float(axes[2] @ np.array(NEVER_SQUARE)))
    x = axes[0] * (-1.0 if (all_[-1] - all_[0]) @ axes[0] < 0 else 1.0)
    along: Vector = (float(x[0]), float(x[1]), float(x[2]))
    above: Vector = (float(up[0]), float(up[1]), float(up[2]))
    turn = np.array([along, cross(above, along), above])
    low = (all_ @ turn.T).min(axis=0)
    return Lying(x=along, y=cross(above, along), up=above, low=(float(low[0]), float(low[1]), float(low[2])))
