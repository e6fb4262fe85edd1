"""One side of a partly bent tube at the tool, and how it goes round while a bend is made.

All in the bench frame of `body`: the clamped side stays, the free side is drawn round the die. While
the bend is at φ, what lay at x on the free side has moved up by R·φ and been turned by φ about the
die's centre. Source: kinematics of a rotary-draw bend seen from the clamp.
"""

from __future__ import annotations

from math import ceil, cos, radians, sin
from typing import TYPE_CHECKING

from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.vectors import Vector, add, cross, rotated, scale
from bendrel.core.geometry.vectors import along as moved
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

SPACING_MM, MOST_POINTS = 8.0, 2_500
"""How far apart the points are; a tube of more than 20 m is looked at more coarsely."""


@record
class Tail:
    """One side of a partly bent tube as it stands at the tool: points every few mm from the tangent
    point outwards, in mm, and how far along the tube each lies."""

    points: Array
    along: Array


def side_points(shape: BendList, bend: int, made: frozenset[int], extra_mm: float, *, free: bool) -> Tail:
    """The tube on one side of `bend` before it is made, end A held, in the bench frame.

    `shape` runs from the held end; bends that are not in `made` are still straight. The free side
    starts at the bend's own arc, straight; `extra_mm` of tube lies beyond the finished end.
    """
    import numpy as np

    count, clocks = len(shape.bends), shape.clocks_deg
    spacing = max(SPACING_MM, shape.developed_mm / MOST_POINTS)
    order = range(bend + 1, count) if free else range(bend - 1, -1, -1)
    straights = shape.straights_mm
    # how far to go before each bend on the way out; one that is not made is so much more straight
    reach = shape.bends[bend].arc_mm + straights[bend + 1] if free else straights[bend]
    point: Vector = (0.0, 0.0, 0.0)
    way: Vector = (1.0 if free else -1.0, 0.0, 0.0)
    normal: Vector = (0.0, 0.0, 1.0 if free else -1.0)
    clock, along = clocks[bend], 0.0
    points: list[Array] = [np.zeros((1, 3))]
    at: list[Array] = [np.zeros(1)]

    def straight(length: float) -> None:
        nonlocal point, along
        if length > 0:
            steps = _steps(length, length, spacing)
            points.append(np.array(point) + steps[:, None] * np.array(way))
            at.append(along + steps)
            along += length
        point = moved(point, way, length)

    for k in order:
        after = straights[k + 1] if free else straights[k]
        if k not in made:
            reach += shape.bends[k].arc_mm + after
            continue
        straight(reach)
        # a rotation is a handedness: outwards to the held end it keeps its sign too
        normal = rotated(normal, way, clocks[k] - clock if free else clock - clocks[k])
        clock = clocks[k]
        radius, angle = shape.bends[k].radius_mm, radians(shape.bends[k].angle_deg)
        inward = cross(normal, way)
        turned = _steps(angle, radius * angle, spacing)
        arc = np.outer(np.sin(turned), way) + np.outer(1 - np.cos(turned), inward)
        points.append(np.array(point) + radius * arc)
        at.append(along + radius * turned)
        point = moved(moved(point, way, radius * sin(angle)), inward, radius * (1 - cos(angle)))
        way = add(scale(way, cos(angle)), scale(inward, sin(angle)))
        along, reach = along + radius * angle, after
    straight(reach + extra_mm)
    return Tail(points=np.concatenate(points), along=np.concatenate(at))


def _steps(whole: float, length_mm: float, spacing_mm: float) -> Array:
    """`whole` in equal steps, each no longer than the spacing of points along `length_mm`."""
    import numpy as np

    count = max(1, ceil(length_mm / spacing_mm))
    steps: Array = np.arange(1, count + 1, dtype=np.float64) * (whole / count)
    return steps


def swung(tail: Tail, radius_mm: float, angle_deg: float) -> Array:
    """The free side's points (n, 3) when the bend has reached `angle_deg`."""
    import numpy as np

    phi = radians(angle_deg)
    wrapped = np.minimum(tail.along, radius_mm * phi)
    turned = wrapped / radius_mm
    x = tail.points[:, 0] - wrapped
    y = tail.points[:, 1] - radius_mm
    c, s = np.cos(turned), np.sin(turned)
    return np.column_stack([c * x - s * y, s * x + c * y + radius_mm, tail.points[:, 2]])
