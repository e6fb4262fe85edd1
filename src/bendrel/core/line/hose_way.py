"""Where the two ends of a hose are, how they move, and what stands beside its way: as typed."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import MaxLen

from bendrel.core.findings import EndName
from bendrel.core.ids import Id, fill_ids
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, Text

WayText = Annotated[str, MaxLen(60)]
"""A way as typed: ahead, back, left, right, up, down, an axis such as -z, or three numbers."""


@record
class HoseEndAt:
    """Where one end of the hose leaves what holds it, from a datum on the machine (x ahead, y left, z
    up), and `way`, its way there along the hose from end A to end B. `seat` is the way that the port of
    an angled end looks, out of the port; blank for a straight end."""

    x: Length = Length()
    y: Length = Length()
    z: Length = Length()
    way: WayText = ""
    seat: WayText = ""


@record
class EndMove:
    """One way in which an end moves: a hinge about an axis through a point, from `least` to `most` degrees
    (right-hand rule, 0 as the hose is fitted), or a slide along the axis, in lengths."""

    id: Id = ""
    what: Text = ""
    how: Literal["hinge", "slide"] = "hinge"
    end: EndName = "B"
    x: Length = Length()
    y: Length = Length()
    z: Length = Length()
    axis: WayText = ""
    least: Text = ""
    most: Text = ""


@record
class Beside:
    """Something beside the hose. `kind` is what it is, by the catalogue of clearances. A ball has a
    middle and a width across; a bar runs from the first to the second point; a box has them as corners; a
    wall goes through the first and looks along `out`."""

    id: Id = ""
    what: Text = ""
    kind: Annotated[str, MaxLen(40)] = "fixed"
    form: Literal["ball", "bar", "box", "wall"] = "bar"
    x: Length = Length()
    y: Length = Length()
    z: Length = Length()
    to_x: Length = Length()
    to_y: Length = Length()
    to_z: Length = Length()
    across: Length = Length()
    out: WayText = ""


@record
class HoseWay:
    """The way of a hose between its ends. `straight` is the stiff straight behind each, blank for the
    usual; `swivel` the end that can turn about the hose while it moves, none where both are tight."""

    a: HoseEndAt = HoseEndAt()
    b: HoseEndAt = HoseEndAt()
    straight: Length = Length()
    moves: Annotated[tuple[EndMove, ...], MaxLen(3)] = ()
    swivel: Literal["", "A", "B"] = ""
    beside: Annotated[tuple[Beside, ...], MaxLen(20)] = ()

    def __post_init__(self) -> None:
        fill_ids(self, "moves", "m")
        fill_ids(self, "beside", "b")


@record
class BoughtHose:
    """A bought, made-up hose as it was read before it is fitted: over all, and how its elbows stand to each
    other."""

    length: Length = Length()
    clock: Text = ""


@record
class HosePattern:
    """What was taken as the pattern of a hose: a wire laid in where it will lie, or the old hose. `length` is
    over all, from seat to seat or from one end of the hose to the other; `radius` the tightest of its middle,
    `at` how far from end A; `was` says how the old hose lay."""

    by: Literal["wire", "old hose"] = "wire"
    length: Length = Length()
    radius: Length = Length()
    at: Length = Length()
    was: Literal["", "right", "pulled", "rubbed"] = ""
