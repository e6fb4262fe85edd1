"""Readings that are not needed for the shape, taken to catch a misreading and to know end B better."""

from __future__ import annotations

from math import cos, radians, sin
from typing import Annotated

from annotated_types import Ge, Le, MaxLen

from bendrel.core.geometry.vectors import Vector
from bendrel.core.ids import Id, fill_ids
from bendrel.core.line.landed import TypedLanding
from bendrel.core.record import record
from bendrel.core.units.lengths import Angle, Length, Plane, Text

Figure = Annotated[float, Ge(-100_000), Le(100_000)]


@record
class TapeAcross:
    """A tape straight from one spot to another, each an end (`A`, `B`) or a bend's row: to where the middle
    lines of a bend's legs meet; `over` the backs of the bends, the greatest that it reads there. Of a bend of
    150° and more, whose corner runs away, to the middle of its arc."""

    id: Id = ""
    start: Id = "A"
    end: Id = "B"
    over: bool = False
    length: Length = Length()


@record
class CornerPlace:
    """Where the corner of a bend stands as seen from end A, like end B's place; a blank side was not read."""

    id: Id = ""
    row: Id = ""
    ahead: Length = Length()
    up: Length = Length()
    right: Length = Length()


Figures = tuple[Figure, Figure, Figure]


@record
class DrawnBend:
    """A bend as the sheet showed it, in mm in the frame of end A: the middle of its arc, the way there, and
    how high the tube's underside was drawn over the board."""

    row: Id
    point: Figures
    way: Figures
    high: Figure


@record
class DrawnEnd:
    """End B as the sheet showed it, in mm in the frame of end A: where, its way, and its 12 o'clock; the
    board's up, and every bend."""

    point: Figures
    way: Figures
    noon: Figures
    up: Figures | None = None
    bends: Annotated[tuple[DrawnBend, ...], MaxLen(200)] = ()


@record
class BendOnSheet:
    """How a bend of the old part lies there: how high the tube's underside is over the board, and how far its
    middle line lies beside the drawn one at the bend's middle; to the right as one goes from A to B, or to
    the left where `left` says so. What was not read is blank."""

    id: Id = ""
    row: Id = ""
    height: Text = ""
    beside: Text = ""
    left: bool = False


@record
class OnSheet(TypedLanding):
    """The old part laid on its jig sheet, rolled to its best: where its end B and its bends lie beside the
    printed ones. `drawn` are those; None means as the readings draw them."""

    drawn: DrawnEnd | None = None
    bends: Annotated[tuple[BendOnSheet, ...], MaxLen(40)] = ()

    def __post_init__(self) -> None:
        fill_ids(self, "bends", "s")

    @property
    def blank(self) -> bool:
        """Nothing is typed."""
        landing = (self.along, self.off, self.off_clock, self.tilt, self.tilt_clock)
        bends = (text for one in self.bends for text in (one.height, one.beside))
        return not any(text.strip() for text in (*landing, *bends))


@record
class Checks:
    """Blank where nothing was taken.

    `wire` is the whole wire laid along the old line, `tape` the straight distance from rim to rim.
    For bend readings, port B's direction is told against end A: `port_b_angle` from straight on and
    `port_b_clock` as seen from A. For corner points both ways are told in the datum's axes: end A
    away from its port, end B towards its port.

    For bend readings `ahead`, `up` and `right` say where rim B stands as seen from rim A: along A's way,
    towards 12 o'clock (the side that the first bend turns to) and towards 3 o'clock. `held` are readings that
    are right as they are, `left_out` those that count nothing where all are adjusted together; pointers into
    the readings. `across` are tapes to corners, `corners` where corners stand, `sheet` how the old part lies
    on its jig sheet.
    """

    wire: Length = Length()
    tape: Length = Length()
    port_b_angle: Angle = Angle()
    port_b_clock: Plane = Plane()
    way_a: Text = ""
    way_b: Text = ""
    ahead: Length = Length()
    up: Length = Length()
    right: Length = Length()
    across: Annotated[tuple[TapeAcross, ...], MaxLen(40)] = ()
    corners: Annotated[tuple[CornerPlace, ...], MaxLen(40)] = ()
    sheet: OnSheet = OnSheet()
    held: Annotated[tuple[Text, ...], MaxLen(400)] = ()
    left_out: Annotated[tuple[Text, ...], MaxLen(400)] = ()

    def __post_init__(self) -> None:
        fill_ids(self, "across", "t")
        fill_ids(self, "corners", "c")


def way_from_a(angle_deg: float, clock_deg: float) -> Vector:
    """A direction told from end A, in the part's frame: `angle_deg` off straight on, towards
    `clock_deg` as seen from A (12 o'clock is the plane of the first bend, +y; 3 o'clock +z)."""
    tilt, clock = radians(angle_deg), radians(clock_deg)
    return (cos(tilt), sin(tilt) * cos(clock), sin(tilt) * sin(clock))
