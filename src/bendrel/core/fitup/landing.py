"""Where end B lands against its port, and how much each bend has to do with it."""

from __future__ import annotations

from math import radians

from bendrel.core.record import record
from bendrel.core.shape.bends import BendList
from bendrel.core.shape.centreline import Frame, end_frame, pieces
from bendrel.core.shape.vectors import Vector, add, angle_between, cross, length, scale, subtract


@record
class Landing:
    """How far end B is from where it should be: `off` the way there and back as a vector (mm), its
    length, and the angle between the two directions (degrees)."""

    off: Vector
    off_mm: float
    askew_deg: float


@record
class Sensitivity:
    """How far end B moves (mm) and turns (degrees) for one degree more of a bend's angle, for one of
    its rotation, and for one mm more of the straight before it."""

    bend: int
    per_angle_mm: float
    per_rotation_mm: float
    rotation_turns_deg: float
    per_straight_mm: float


def landing(made: BendList, planned: BendList) -> Landing:
    """End B of `made` against that of `planned`, both fitted at end A with the first bend's plane
    alike: the nut at A lets the part be rolled to it."""
    return landing_of(end_frame(made), end_frame(planned))


def landing_of(made: Frame, planned: Frame) -> Landing:
    """The same of two end frames."""
    off = subtract(made.point, planned.point)
    return Landing(off=off, off_mm=length(off), askew_deg=angle_between(made.way, planned.way))


def sensitivities(shape: BendList) -> tuple[Sensitivity, ...]:
    """One for each bend. Source: a rigid part turned about an axis: δp = δφ · axis × (end − centre).

    One degree more of angle turns what follows about the bend's normal at the arc's end and carries it
    on by R·δθ, because the arc gets longer; one degree of rotation turns it about the straight before.
    """
    last = end_frame(shape)
    end = last.point
    found = []
    arcs = [piece for piece in pieces(shape) if piece.radius_mm is not None]
    degree = radians(1.0)
    for number, (bend, arc) in enumerate(zip(shape.bends, arcs, strict=True), start=1):
        off = arc.frame(arc.length_mm)
        turned = add(cross(off.normal, subtract(end, off.point)), scale(off.way, bend.radius_mm))
        about = cross(arc.start.way, subtract(end, arc.start.point))
        leans = length(cross(arc.start.way, last.way))
        found.append(
            Sensitivity(
                bend=number,
                per_angle_mm=length(turned) * degree,
                per_rotation_mm=0.0 if number == 1 else length(about) * degree,
                rotation_turns_deg=0.0 if number == 1 else leans,
                per_straight_mm=1.0,
            )
        )
    return tuple(found)
