"""What a set of readings comes out as: the figures that a check can be held against."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import Frame, Piece, end_frame, pieces
from bendrel.core.geometry.corners import Corners, bends_from_corners
from bendrel.core.geometry.vectors import Vector, length, subtract, unit
from bendrel.core.measure.legs import ReadBends, shape_of
from bendrel.core.measure.slots import moved
from bendrel.core.record import record

Array = NDArray[np.float64]

STEP = 1e-4


@record
class Outcome:
    """Developed length and rim-to-rim distance in mm; the ways out of A and into B as unit vectors, and
    where end B stands from end A, in the part's frame for bend readings and in the datum's axes for corner
    points. `shape` is the bend list; `corners` are the corner points from end A, where those were read."""

    developed_mm: float
    tape_mm: float
    way_a: Vector
    way_b: Vector
    point: Vector
    shape: BendList
    corners: tuple[Vector, ...] = ()

    @cached_property
    def end(self) -> Frame:
        """End B in the part's own frame."""
        return end_frame(self.shape)

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """Every straight and arc, in the part's own frame."""
        return pieces(self.shape)


def outcome(read: ReadBends | Corners) -> Outcome:
    """The outcome of `read`. Raises ShapeError where it is no shape."""
    if isinstance(read, Corners):
        shape = bends_from_corners(read, allow_overlap=True)
        legs = [subtract(b, a) for a, b in pairwise(read.points)]
        return Outcome(
            developed_mm=shape.developed_mm,
            tape_mm=length(subtract(read.points[-1], read.points[0])),
            way_a=unit(legs[0]),
            way_b=unit(legs[-1]),
            point=subtract(read.points[-1], read.points[0]),
            shape=shape,
            corners=tuple(subtract(point, read.points[0]) for point in read.points),
        )
    shape = shape_of(read)
    last = end_frame(shape)
    return Outcome(
        developed_mm=shape.developed_mm,
        tape_mm=length(last.point),
        way_a=(1.0, 0.0, 0.0),
        way_b=last.way,
        point=last.point,
        shape=shape,
    )


def by_steps(read: ReadBends | Corners, told: Callable[[Outcome], Array]) -> Array:
    """The derivatives of what is told, by steps of every reading: for corner points, of which most move but
    few things. Raises ShapeError where `read` is no shape."""
    count = 3 * len(read.points) if isinstance(read, Corners) else 0
    columns = []
    for k in range(count):
        step = [0.0] * count
        step[k] = STEP
        more = told(outcome(moved(read, step)))
        step[k] = -STEP
        columns.append((more - told(outcome(moved(read, step)))) / (2 * STEP))
    return np.array(columns).T
