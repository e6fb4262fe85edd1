"""Where end B lands against its port."""

from __future__ import annotations

from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import Frame, end_frame
from bendrel.core.geometry.vectors import Vector, angle_between, length, subtract
from bendrel.core.record import record


@record
class Landing:
    """How far end B is from where it should be: `off` the way there and back as a vector (mm), its
    length, and the angle between the two directions (degrees)."""

    off: Vector
    off_mm: float
    askew_deg: float


def landing(made: BendList, planned: BendList) -> Landing:
    """End B of `made` against that of `planned`, both fitted at end A with the first bend's plane
    alike: the nut at A lets the part be rolled to it."""
    return landing_of(end_frame(made), end_frame(planned))


def landing_of(made: Frame, planned: Frame) -> Landing:
    """The same of two end frames."""
    off = subtract(made.point, planned.point)
    return Landing(off=off, off_mm=length(off), askew_deg=angle_between(made.way, planned.way))
