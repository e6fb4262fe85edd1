"""What is known of a planned rigid piece. Lengths in mm, angles in degrees, from A's finished end."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cached_property
from typing import Literal

from bendrel.core.bend.tube.ends import PlannedEnd
from bendrel.core.findings import EndName, Place
from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.geometry.centreline import bend_middles, sampled
from bendrel.core.geometry.vectors import Vector
from bendrel.core.geometry.view import View
from bendrel.core.parts.bender import MarkStyle
from bendrel.core.record import record

ViewName = Literal["free", "from A", "from B", "above"]
MeasuredFrom = Literal["cut_end", "flared_rim"]


@record
class PlannedBend:
    """One bend, with its place on the strip; `id` is the row that it was read in."""

    id: str
    number: int
    straight_mm: float
    rotation_deg: float
    clock_deg: float
    angle_deg: float
    radius_mm: float
    arc_mm: float
    start_mm: float
    middle_mm: float
    end_mm: float


@record
class Term:
    """One term of the cut length."""

    id: str
    label: str
    mm: float


@record
class Move:
    """One bend at the bench, with `held` in the clamp. `turn_deg` is positive clockwise, seen from there.

    `feed_mm` is how far the tube goes on from the mark before to this one, away from the person; None at
    the first bend and wherever the other end comes into the clamp. `angle_deg` and `dial_deg` are what is
    bent now; `finish_deg` the angle it gets in its place, None where it is bent whole at once.

    `mark_mm` is measured along the tube from the held end as `measured_from` says; `strip_mm` is
    the same place from end A's finished end. A corner mark that does not exist is None.
    """

    bend: int
    held: EndName
    feed_mm: float | None
    mark_mm: float | None
    measured_from: MeasuredFrom
    strip_mm: float | None
    start_mark_mm: float
    turn_deg: float
    turn_words: str
    clock_deg: float
    angle_deg: float
    dial_deg: float
    finish_deg: float | None = None


@record
class Part:
    """Everything computed from readings that make sense.

    `take_mm` is what is taken off the stock, straightening included; `beyond_mm` the tube beyond each
    finished rim while the bends are made.
    """

    span: str
    bends: tuple[PlannedBend, ...]
    last_straight_mm: float
    developed_mm: float
    od_mm: float
    end_a: PlannedEnd
    end_b: PlannedEnd
    spare_mm: float
    terms: tuple[Term, ...]
    cut_mm: float
    take_mm: float
    beyond_mm: Mapping[EndName, float]
    held_end: EndName
    mark_style: MarkStyle
    moves: tuple[Move, ...]
    views: Mapping[ViewName, View]

    @property
    def marked_from(self) -> str:
        """What the marks of the first move are measured from, in words."""
        move = self.moves[0]
        if move.measured_from == "cut_end":
            return "cut end"
        return "flared rim" if (self.end_a if move.held == "A" else self.end_b).flared else "finished end"

    @cached_property
    def bend_points(self) -> tuple[Vector, ...]:
        """The middle of every bend's arc in space."""
        return bend_middles(shape_of(self))

    @cached_property
    def path(self) -> tuple[tuple[float, Vector], ...]:
        """Points to draw the centreline by: (developed position, point)."""
        return sampled(shape_of(self))


def place_of_bend(part: Part, number: int) -> Place:
    """The arc of one bend, counted from 1 at end A."""
    bend = part.bends[number - 1]
    return Place(
        kind="bend",
        span=part.span,
        row=bend.id,
        number=number,
        from_mm=bend.start_mm,
        to_mm=bend.end_mm,
    )


def ids_of(part: Part) -> tuple[str, ...]:
    """The rows of its bends, from end A on."""
    return tuple(bend.id for bend in part.bends)


def shape_of(part: Part) -> BendList:
    """The planned part as the geometry rooms take it."""
    return BendList(
        bends=tuple(
            Bend(
                straight_mm=bend.straight_mm,
                rotation_deg=bend.rotation_deg,
                angle_deg=bend.angle_deg,
                radius_mm=bend.radius_mm,
            )
            for bend in part.bends
        ),
        last_straight_mm=part.last_straight_mm,
    )
