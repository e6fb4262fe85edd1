"""The line document: what the person typed and chose. Everything else is computed from it.

A line is a chain from end A to end B: one rigid span, and beyond each of its ends the hoses and
parts between it and the port. `spans` is a list so that spliced pieces can join it without breaking
a stored document.
"""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen, MinLen

from bendrel.core.bending.bender import MarkStyle
from bendrel.core.findings import EndName
from bendrel.core.lengths import Angle, Length, Plane, Text
from bendrel.core.line.checks import Checks
from bendrel.core.measuring.legs import By, Reference
from bendrel.core.record import record
from bendrel.core.removal.log import OpenItem, Removal
from bendrel.core.repair.condition import Condition
from bendrel.core.units import PlaneSchool, Unit

Name = Annotated[str, MinLen(1), MaxLen(120)]
MOST_ROWS = 200


@record
class BendRow:
    """The way to one bend, and the bend. `radius` None means the bender's own.

    By leg, `length` runs between the two references. By wire it is the mark where the bend starts
    (`read_to` centre: its middle), and `to` the mark where it ends, which gives the angle where
    `angle` is blank. By string it runs from the start of the bend before, around it, to this start.
    """

    by: By = "leg"
    length: Length = Length()
    to: Length = Length()
    read_from: Reference = "outside"
    read_to: Reference = "outside"
    angle: Angle = Angle()
    plane: Plane = Plane()
    radius: Length | None = None


@record
class BendReadings:
    """A line read bend by bend from end A. The first leg starts at the rim of end A, so its
    `read_from` is not used; the last leg runs to the rim of end B: by wire it is the whole wire,
    by string it runs from the start of the last bend around whatever was not read. `alongside` says that
    the new tube is laid against the old part and bent after it: no row is read, only the whole length."""

    kind: Literal["bends"] = "bends"
    rows: Annotated[tuple[BendRow, ...], MaxLen(MOST_ROWS)] = ()
    last: Length = Length()
    last_by: By = "leg"
    last_read_from: Reference = "outside"
    alongside: bool = False

    @property
    def copied(self) -> bool:
        """The bends are there and nobody has read them."""
        return self.alongside and not self.rows


@record
class CornerRow:
    """One corner point of the centreline from a datum. `radius` None means the bender's own."""

    x: Length = Length()
    y: Length = Length()
    z: Length = Length()
    radius: Length | None = None


@record
class CornerReadings:
    """A line given by corner points from end A to end B."""

    kind: Literal["corners"] = "corners"
    rows: Annotated[tuple[CornerRow, ...], MaxLen(MOST_ROWS)] = ()


@record
class LeftOpen:
    """A bend that is bent only to `angle` at first and finished when the line is in its place."""

    bend: Annotated[int, Ge(1), Le(MOST_ROWS)]
    angle: Angle
    how: Literal["by hand", "with pliers", "out again, at the tool"] = "by hand"


@record
class Opening:
    """Something that the line goes through on its way in. `at` is where it sits along the fitted line from
    end A, `enters` the end that goes in first; `across` its clear width, `deep` how long the passage
    is (blank: a thin plate), `room` what is free beyond it; blank where nothing is in the way."""

    what: Text = ""
    at: Length = Length()
    enters: EndName = "B"
    across: Length = Length()
    deep: Length = Length()
    room: Length = Length()


StockForm = Literal["stick", "coil", "folded"]


@record
class RigidSpan:
    """A rigid piece: its tube and bender from the catalogue, its readings, and how it is made.

    `held` is the end that is in the clamp to begin with. `order` says in which order the bends are made
    and which end is held at each, such as "A1 A2 B4 B3"; blank is one after the other away from the
    held end. `trim_first` cuts the spare off before bending; `turned` says that a tool on the bench stands
    turned round, so that the tube is fed from its other side; `stock` is the length that is bent where
    it is not cut to length first. A coil or a folded line is straightened before it is cut.
    """

    kind: Literal["rigid"] = "rigid"
    tube: Annotated[str, MaxLen(80)]
    bender: Annotated[str, MaxLen(80)]
    readings: BendReadings | CornerReadings
    spare: Length = Length(text="25 mm")
    held: EndName = "A"
    marks: MarkStyle = "start"
    order: Annotated[str, MaxLen(1000)] = ""
    trim_first: bool = False
    turned: bool = False
    stock: Length = Length()
    stock_form: StockForm = "stick"
    left_open: Annotated[tuple[LeftOpen, ...], MaxLen(20)] = ()


@record
class HosePiece:
    """A piece of hose beyond an end of the tube. `near` and `far` are the diameters that it goes on;
    a blank `near` is the tube itself. `rubs` says that it touches something on its way."""

    kind: Literal["hose"] = "hose"
    hose: Annotated[str, MaxLen(80)]
    length: Length = Length()
    joined: Literal["clamps", "crimped", "reusable"] = "clamps"
    clamp: Annotated[str, MaxLen(80)] | None = None
    clamps_each: Annotated[int, Ge(0), Le(2)] = 2
    near: Length = Length()
    far: Length = Length()
    far_plain: bool = False
    rubs: bool = False
    sleeved: bool = False


PartInLine = Literal[
    "check valve", "reservoir", "filter", "restrictor", "shut-off valve", "cooler", "adapter"
]


@record
class PartPiece:
    """A part in the line beyond an end of the tube. `points` is the end that its arrow points to. Of a
    vacuum reservoir `source_port` is the end that the port to the source faces. `bore` and `land` (the
    bore's length) are a restrictor's."""

    kind: Literal["part"] = "part"
    part: PartInLine
    points: Literal["A", "B", "not marked"] = "not marked"
    source_port: Literal["A", "B", "not known"] = "not known"
    age: Literal["new", "old"] = "new"
    bore: Length = Length()
    land: Length = Length()
    note: Text = ""


@record
class Carries:
    """What flows in the line where it differs from what is usual in its service; blank is the usual.

    `fluid` is a catalogue id; `made_for` the fluid that the system's seals are made for where that is
    not the service's usual family. `pressure`, `temperature` and `flow` are as typed, such as 5 bar,
    80 °C, 6 L/min; `why_low` says why the pressure is far under the usual. `flows` is the way it goes.
    `old_bore` is the bore of the old line."""

    fluid: Annotated[str, MaxLen(40)] = ""
    made_for: Annotated[str, MaxLen(40)] = ""
    pressure: Text = ""
    why_low: Text = ""
    temperature: Text = ""
    flow: Text = ""
    flows: Literal["by the ports", "A to B", "B to A", "both ways"] = "by the ports"
    old_bore: Length = Length()


PortRole = Literal["not known", "source", "feed", "return", "signal"]


@record
class LineEnd:
    """One end of the line: how the tube is finished, its nut, and the port it goes to.

    `role` is what the port does, `role_how` how that was established, `tag` the colour or tag that
    was put on it before it came apart.

    `port_thread` is what the port is, as designated; blank while nobody has measured it. `seat` is what
    it seals on and `body` what it is made of, by catalogue id; blank while not known. `beyond` is what
    lies between this end of the tube and its port, from the tube outwards. `measured_use` is the tube a
    flare used up on the person's own test piece, which wins over the formula for the end type and tube
    size that the piece was made with (`measured_fitting`, `measured_size`). `insert` says that an insert
    is in the tube's end. `leave_long` is tube left on for trimming after the trial fit. `ready` says
    that the stick comes with this end flared and its nut on; `flarer` is the flaring tool, blank for the
    bar.
    """

    label: Annotated[str, MaxLen(60)] = ""
    fitting: Annotated[str, MaxLen(40)] = "plain"
    nut: Annotated[str, MaxLen(80)] | None = None
    port_thread: Annotated[str, MaxLen(40)] = ""
    measured_use: Length | None = None
    measured_fitting: Annotated[str, MaxLen(40)] = ""
    measured_size: Annotated[str, MaxLen(40)] = ""
    insert: bool = False
    leave_long: Length = Length()
    seat: Annotated[str, MaxLen(40)] = ""
    body: Annotated[str, MaxLen(40)] = ""
    proved: bool = False
    ready: bool = False
    flarer: Annotated[str, MaxLen(60)] = ""
    beyond: Annotated[tuple[HosePiece | PartPiece, ...], MaxLen(6)] = ()
    role: PortRole = "not known"
    role_how: Text = ""
    tag: Annotated[str, MaxLen(40)] = ""


PartKind = Literal["leg", "bend", "plane", "rim to rim", "whole length"]


@record
class PartReading:
    """One reading of a bought, ready-bent part, taken as the same reading of the old line was; `by` says
    what a bare number of a plane means, as in `Plane`."""

    kind: PartKind = "leg"
    number: Annotated[int, Ge(1), Le(MOST_ROWS + 1)] = 1
    text: Text = ""
    unit: Unit = "mm"
    by: PlaneSchool = ""


@record
class SetAside:
    """A finding that a person has taken on, with the reason that stays in the record."""

    code: Annotated[str, MaxLen(60)]
    where: Annotated[str, MaxLen(40)]
    reason: Annotated[str, MinLen(3), MaxLen(400)]


def is_reason(text: str) -> bool:
    """A text says why: at least two words and eight letters. Source: common practice."""
    words = [word for word in text.split() if sum(letter.isalpha() for letter in word) >= 2]
    return len(words) >= 2 and sum(letter.isalpha() for letter in text) >= 8


@record
class Line:
    """One fluid line, whole. `unit` is what bare numbers are typed and figures shown in."""

    format: Literal["bendrel-line"] = "bendrel-line"
    version: Literal[1] = 1
    name: Name
    service: Annotated[str, MaxLen(40)] = "brake"
    unit: Unit = "in"
    end_a: LineEnd = LineEnd()
    end_b: LineEnd = LineEnd()
    spans: Annotated[tuple[RigidSpan, ...], MinLen(1), MaxLen(1)]
    carries: Carries = Carries()
    condition: Condition = Condition()
    checks: Checks = Checks()
    removal: Removal = Removal()
    open_items: Annotated[tuple[OpenItem, ...], MaxLen(60)] = ()
    finished: bool = False
    openings: Annotated[tuple[Opening, ...], MaxLen(12)] = ()
    bought: Annotated[tuple[PartReading, ...], MaxLen(40)] = ()
    notes: Annotated[str, MaxLen(4000)] = ""
    set_aside: Annotated[tuple[SetAside, ...], MaxLen(100)] = ()

    def end(self, name: EndName) -> LineEnd:
        """End A or end B."""
        return self.end_a if name == "A" else self.end_b
