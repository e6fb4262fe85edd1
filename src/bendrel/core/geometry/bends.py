"""The bend list, the primary form of a rigid piece, and positions along it."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property
from itertools import accumulate
from math import radians, tan
from typing import Annotated

from annotated_types import Ge, Gt, Le

from bendrel.core.record import record
from bendrel.core.units.lengths_error import LengthsError

NO_CORNER_DEG = 170.0  # beyond this the corner runs off towards infinity and is no use


class ShapeError(LengthsError, ValueError):
    """A shape that cannot exist or cannot be read. The text is meant for the person."""


@record
class Bend:
    """A straight and the bend that follows it.

    `rotation_deg` turns the plane from the bend before: right-hand rule along the direction of
    travel, so positive is clockwise seen from end A towards end B. The first bend has 0.
    """

    straight_mm: float
    rotation_deg: float
    angle_deg: Annotated[float, Gt(0), Le(360)]
    radius_mm: Annotated[float, Gt(0)]

    @property
    def arc_mm(self) -> float:
        """Centreline length of the bend: R·θ."""
        return self.radius_mm * radians(self.angle_deg)

    @property
    def tangent_mm(self) -> float:
        """From the bend's start to its corner: R·tan(θ/2). Raises ShapeError over 170°."""
        if self.angle_deg > NO_CORNER_DEG:
            raise ShapeError(f"A bend of {self.angle_deg:g}° has no usable corner.")
        return self.radius_mm * tan(radians(self.angle_deg) / 2)


@record
class BendList:
    """Bends from end A to end B and the straight after the last one. Lengths in mm."""

    bends: tuple[Bend, ...]
    last_straight_mm: Annotated[float, Ge(-1e9)]

    @cached_property
    def straights_mm(self) -> tuple[float, ...]:
        """Every straight from end A: one before each bend, and the last."""
        return (*(bend.straight_mm for bend in self.bends), self.last_straight_mm)

    @cached_property
    def developed_mm(self) -> float:
        """Length along the centreline: all straights and all arcs."""
        return sum(self.straights_mm) + sum(bend.arc_mm for bend in self.bends)

    @cached_property
    def clocks_deg(self) -> tuple[float, ...]:
        """Plane of each bend in the untwisted tube: the sum of all rotations after the first."""
        return tuple(accumulate((bend.rotation_deg for bend in self.bends[1:]), initial=0.0))[
            : len(self.bends)
        ]


@record
class Span:
    """Where one bend lies along the developed tube, in mm from end A's finished end."""

    start_mm: float
    middle_mm: float
    end_mm: float


def bend_spans(shape: BendList) -> tuple[Span, ...]:
    """Developed start, middle and end of every bend.

    >>> bend = Bend(straight_mm=50, rotation_deg=0, angle_deg=90, radius_mm=20)
    >>> part = BendList(bends=(bend,), last_straight_mm=30)
    >>> [round(span.end_mm, 3) for span in bend_spans(part)]  # 50 + 20·π/2
    [81.416]
    """
    spans = []
    at = 0.0
    for bend in shape.bends:
        start = at + bend.straight_mm
        at = start + bend.arc_mm
        spans.append(Span(start_mm=start, middle_mm=start + bend.arc_mm / 2, end_mm=at))
    return tuple(spans)


def reversed_list(shape: BendList) -> BendList:
    """The same part read from end B: straights reversed, every rotation with its sign.

    >>> bend = Bend(straight_mm=50, rotation_deg=0, angle_deg=90, radius_mm=20)
    >>> reversed_list(BendList(bends=(bend,), last_straight_mm=30)).straights_mm
    (30, 50)
    """
    straights = shape.straights_mm[::-1]
    turns = [bend.rotation_deg for bend in shape.bends[1:]][::-1]
    bends = tuple(
        replace(bend, straight_mm=straight, rotation_deg=turn)
        for bend, straight, turn in zip(shape.bends[::-1], straights, [0.0, *turns], strict=False)
    )
    return BendList(bends=bends, last_straight_mm=straights[-1])
