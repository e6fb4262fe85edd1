"""The line document: what the person typed and chose. Everything else is computed from it.

A line is a chain from port A to port B: spans (rigid pieces, hoses, components), and between neighbours a
joint. Everything that is spoken of elsewhere has an id that never changes; nothing is addressed by its
place in a list. What comes without an id gets the next free one.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, ClassVar, Literal, get_args

from annotated_types import Ge, Le, MaxLen, MinLen

from bendrel.core.findings import EndName, Spot
from bendrel.core.ids import Id, NotAChain, fill_ids
from bendrel.core.line.checks import Checks
from bendrel.core.line.condition import Condition
from bendrel.core.line.exact_ways import ExactWays
from bendrel.core.line.hose_way import BoughtHose, HosePattern, HoseWay
from bendrel.core.line.proving import Proving
from bendrel.core.line.removal import OpenItem, Removal
from bendrel.core.measure.legs import By, Reference
from bendrel.core.parts.bender import MarkStyle
from bendrel.core.parts.hose_end import EndAngle
from bendrel.core.record import record
from bendrel.core.units.lengths import Angle, Length, Plane, Text
from bendrel.core.units.notation import PlaneSchool, Unit

SpanId = Id
RowId = Id
ItemId = Id
Name = Annotated[str, MinLen(1), MaxLen(120)]
MOST_ROWS = 200


@record
class BendRow:
    """The way to one bend, and the bend. `radius` None means the bender's own.

    By leg, `length` runs between the two references. By wire it is the mark where the bend starts
    (`read_to` centre: its middle), and `to` the mark where it ends, which gives the angle where
    `angle` is blank. By string it runs from the start of the bend before, around it, to this start.
    """

    id: RowId = ""
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

    def __post_init__(self) -> None:
        fill_ids(self, "rows", "r")

    @property
    def copied(self) -> bool:
        """The bends are there and nobody has read them."""
        return self.alongside and not self.rows


@record
class CornerRow:
    """One corner point of the centreline from a datum. `radius` None means the bender's own."""

    id: RowId = ""
    x: Length = Length()
    y: Length = Length()
    z: Length = Length()
    radius: Length | None = None


@record
class CornerReadings:
    """A line given by corner points from end A to end B."""

    kind: Literal["corners"] = "corners"
    rows: Annotated[tuple[CornerRow, ...], MaxLen(MOST_ROWS)] = ()

    def __post_init__(self) -> None:
        fill_ids(self, "rows", "r")


@record
class LeftOpen:
    """A bend that is bent only to `angle` at first and finished when the line is in its place."""

    row: RowId
    angle: Angle
    how: Literal["by hand", "with pliers", "out again, at the tool"] = "by hand"


@record
class InClamp:
    """One step of an order of bends: which bend is made, and which end of the tube is then in the clamp."""

    row: RowId
    held: EndName


@record
class Opening:
    """Something that the line goes through on its way in. `at` is where it sits along the fitted line from
    end A, `enters` the end that goes in first; `across` its clear width, `deep` how long the passage
    is (blank: a thin plate), `room` what is free beyond it; blank where nothing is in the way."""

    id: ItemId = ""
    what: Text = ""
    at: Length = Length()
    enters: EndName = "B"
    across: Length = Length()
    deep: Length = Length()
    room: Length = Length()


StockForm = Literal["stick", "coil", "folded"]


@record
class TestFlare:
    """A test piece of the person's own: the tube that the flare used up, and the end type and tube size
    that it was made with."""

    __test__: ClassVar[bool] = False  # its name begins like a test's

    used: Length = Length()
    fitting: Annotated[str, MaxLen(40)] = ""
    size: Annotated[str, MaxLen(40)] = ""


@record
class TubeEnd:
    """How one end of a rigid piece is finished. `trial` wins over the formula for the end type and tube
    size that it was made with. `insert` says that an insert is in the tube's end. `leave_long` is tube
    left on for trimming after the trial fit. `ready` says that the tube comes with this end finished,
    flared with its nut on, beaded, or with its latch; `flarer` is the flaring tool, blank for the bar."""

    fitting: Annotated[str, MaxLen(40)] = "plain"
    nut: Annotated[str, MaxLen(80)] | None = None
    trial: TestFlare | None = None
    insert: bool = False
    leave_long: Length = Length()
    ready: bool = False
    flarer: Annotated[str, MaxLen(60)] = ""


PartKind = Literal["leg", "bend", "plane", "rim to rim", "whole length"]


@record
class PartReading:
    """One reading of a bought, ready-bent part, taken as the same reading of the old line was; `row` is
    the bend that it belongs to, blank for the last leg and for what is read of the whole; `by` says what a
    bare number of a plane means, as in `Plane`."""

    kind: PartKind = "leg"
    row: RowId = ""
    text: Text = ""
    unit: Unit = "mm"
    by: PlaneSchool = ""


SpanState = Literal["to make", "stays"]


@record
class RigidSpan:
    """A rigid piece: its tube and bender from the catalogue, its readings, its two ends, and how it is
    made. `state` says whether it is made new, or is sound old tube that stays: judged, but never cut or
    bought.

    `held` is the end that is in the clamp to begin with. `order` says in which order the bends are made and
    which end is held at each; none is one after the other away from the held end. `trim_first` cuts the
    spare off before bending; `turned` says that a tool on the bench stands turned round, so that the tube
    is fed from its other side; `stock` is the length that is bent where it is not cut to length first. A
    coil or a folded line is straightened before it is cut; `ways` says what is done to be more exact."""

    id: SpanId = ""
    kind: Literal["rigid"] = "rigid"
    state: SpanState = "to make"
    tube: Annotated[str, MaxLen(80)]
    bender: Annotated[str, MaxLen(80)]
    readings: BendReadings | CornerReadings
    end_a: TubeEnd = TubeEnd()
    end_b: TubeEnd = TubeEnd()
    checks: Checks = Checks()
    bought: Annotated[tuple[PartReading, ...], MaxLen(40)] = ()
    openings: Annotated[tuple[Opening, ...], MaxLen(12)] = ()
    spare: Length = Length(text="25 mm")
    held: EndName = "A"
    marks: MarkStyle = "start"
    order: Annotated[tuple[InClamp, ...], MaxLen(MOST_ROWS)] = ()
    trim_first: bool = False
    turned: bool = False
    stock: Length = Length()
    stock_form: StockForm = "stick"
    left_open: Annotated[tuple[LeftOpen, ...], MaxLen(20)] = ()
    ways: ExactWays = ExactWays()

    def __post_init__(self) -> None:
        fill_ids(self, "openings", "o")

    def end(self, name: EndName) -> TubeEnd:
        """End A or end B."""
        return self.end_a if name == "A" else self.end_b

    def with_end(self, name: EndName, end: TubeEnd) -> RigidSpan:
        """The same with another end there."""
        return replace(self, end_a=end) if name == "A" else replace(self, end_b=end)


@record
class Side:
    """What one side of a component or a hose's own end is: a plug that seals as the end type `of`, a socket
    with the seat `of`, a spigot of the form `of`; `thread` as designated. All blank: not known."""

    kind: Literal["", "plug", "socket", "spigot"] = ""
    of: Annotated[str, MaxLen(40)] = ""
    thread: Annotated[str, MaxLen(40)] = ""


@record
class HoseSpan:
    """A piece of hose. `on_a` and `on_b` are the diameters that its ends go on, blank for what its
    neighbour is; `lap_a` and `lap_b` how far it lies on them where that was measured, blank for the usual;
    `plain_a` and `plain_b` say that there is neither bead nor barb. `rubs` says that it
    touches something on its way. `shape` is the way that it is laid where that was read, as of the old
    line that it replaces; `way` is where its ends are, from which it is worked out how it lies; `pattern`
    a wire or the old hose that its length was taken from. `angle_a`
    and `angle_b` are the angles of its own ends, `own_a` and `own_b` what these are where it is not the
    usual of their kind, `clock` how they stand to each other where that is not worked out; `done` names the
    steps of its making that are done. `state` is as of a tube; `bought` is what was read of a bought one."""

    id: SpanId = ""
    kind: Literal["hose"] = "hose"
    state: SpanState = "to make"
    hose: Annotated[str, MaxLen(80)]
    length: Length = Length()
    joined: Literal["clamps", "crimped", "reusable"] = "clamps"
    clamp: Annotated[str, MaxLen(80)] | None = None
    clamps_each: Annotated[int, Ge(0), Le(2)] = 2
    on_a: Length = Length()
    on_b: Length = Length()
    lap_a: Length = Length()
    lap_b: Length = Length()
    plain_a: bool = False
    plain_b: bool = False
    rubs: bool = False
    sleeved: bool = False
    shape: BendReadings | None = None
    way: HoseWay | None = None
    pattern: HosePattern | None = None
    angle_a: EndAngle = 0
    angle_b: EndAngle = 0
    own_a: Side = Side()
    own_b: Side = Side()
    clock: Text = ""
    done: Annotated[tuple[ItemId, ...], MaxLen(30)] = ()
    bought: BoughtHose | None = None


ComponentKind = Literal[
    "check valve", "reservoir", "filter", "restrictor", "shut-off valve", "cooler", "adapter",
    "union", "reducer", "elbow", "tee", "Y-piece", "manifold", "switch", "quick connector",
    "banjo stack",
]  # fmt: skip
COMPONENT_KINDS: tuple[ComponentKind, ...] = get_args(ComponentKind)


@record
class ComponentSpan:
    """A component in the line. `row` is the catalogue's, blank for one of the person's own; `turned` says
    that its side a looks to end B; `side_a` and `side_b` are what its sides are where no row says it.

    `points` is the end that its arrow points to. Of a vacuum reservoir `source_port` is the end that the
    port to the source faces. `bore` and `land` (the bore's length) are a restrictor's. `length` is from port
    to port, `turn` the angle between them, `on_a` and `on_b` the diameters of its spigots or tubes, `rated`,
    `holds`, `loses` and `service` what its maker says of pressure, volume, loss of pressure and how long it
    lasts; blank while not known."""

    id: SpanId = ""
    kind: Literal["component"] = "component"
    what: ComponentKind
    row: Annotated[str, MaxLen(80)] = ""
    turned: bool = False
    side_a: Side = Side()
    side_b: Side = Side()
    points: Literal["A", "B", "not marked"] = "not marked"
    source_port: Literal["A", "B", "not known"] = "not known"
    age: Literal["new", "old"] = "new"
    bore: Length = Length()
    land: Length = Length()
    note: Text = ""
    length: Length = Length()
    turn: Angle = Angle()
    on_a: Length = Length()
    on_b: Length = Length()
    rated: Text = ""
    holds: Text = ""
    loses: Text = ""
    service: Text = ""


@record
class Carries:
    """What flows in the line where it differs from what is usual in its service; blank is the usual.

    `fluid` is a catalogue id; `made_for` the fluid that the system's seals are made for where that is
    not the service's usual family. `pressure`, `temperature` and `flow` are as typed, such as 5 bar,
    80 °C, 6 L/min; `why_low` and `why_high` say why the pressure is far under or over the usual,
    `why_heat` why the heat is. `drives` is what may be lost on the way, as a pressure or as a head of the
    fluid, such as 400 mm. `flows` is the way it goes.
    `old_bore` is the bore of the old line."""

    fluid: Annotated[str, MaxLen(40)] = ""
    made_for: Annotated[str, MaxLen(40)] = ""
    pressure: Text = ""
    why_low: Text = ""
    why_high: Text = ""
    why_heat: Text = ""
    temperature: Text = ""
    flow: Text = ""
    drives: Text = ""
    flows: Literal["by the ports", "A to B", "B to A", "both ways"] = "by the ports"
    old_bore: Length = Length()


Opened = Literal["", "opened", "stays closed"]
PortRole = Literal["not known", "source", "feed", "return", "signal"]


Branch = Literal["A", "B", "C", "D", "E", "F"]
BRANCHES: dict[ComponentKind, tuple[Branch, ...]] = {
    "tee": ("C",), "Y-piece": ("C",), "manifold": ("C", "D", "E", "F"),
}  # fmt: skip
"""Ports of a component beside the two that its own line goes through."""


@record
class JoinedTo:
    """Where a port of this line stands on another line of the job: on a `branch` of one of its
    components, or, where `span` is blank, on its port A or B. `line` is the other line's id."""

    line: Annotated[str, MaxLen(40)]
    span: SpanId = ""
    branch: Branch = "C"


@record
class PortUnit:
    """What stands at the port where that matters to the whole circuit: an actuator with the air that one
    stroke takes, the least vacuum that moves it, and where it goes when it has none."""

    kind: Literal["", "actuator", "switch", "pump", "engine manifold", "consumer"] = ""
    stroke: Text = ""
    least: Text = ""
    rest: Text = ""


@record
class Port:
    """The port that one end of the line goes to.

    `role` is what the port does, `role_how` how that was established, `tag` the colour or tag that was
    put on it before it came apart. `thread` is what the port is, as designated; blank while nobody has
    measured it. `seat` is what it seals on and `body` what it is made of, by catalogue id; blank while
    not known. `proved` says that the nut was run home in it by hand; `opened` whether it is opened for this
    work, blank where that follows from what stays and what was taken off; `on` is where it stands on another
    line, `unit` what it feeds.
    """

    label: Annotated[str, MaxLen(60)] = ""
    thread: Annotated[str, MaxLen(40)] = ""
    seat: Annotated[str, MaxLen(40)] = ""
    body: Annotated[str, MaxLen(40)] = ""
    role: PortRole = "not known"
    role_how: Text = ""
    tag: Annotated[str, MaxLen(40)] = ""
    proved: bool = False
    opened: Opened = ""
    on: JoinedTo | None = None
    unit: PortUnit = PortUnit()


@record
class Joint:
    """What joins two neighbours. `kind` is a catalogue id, blank where one of them holds itself (a hose).
    `apart` is what lies between the two finished ends: the stop of a union, its seats. `roll` is how far
    the plane of the next tube's first bend is turned from that of the last bend before it, as a rotation
    is; `why` is the reason that it was chosen with, `done` what was done to it, `opened` as of a port."""

    kind: Annotated[str, MaxLen(40)] = ""
    apart: Length = Length()
    roll: Plane = Plane()
    why: Annotated[str, MaxLen(400)] = ""
    done: Text = ""
    opened: Opened = ""


@record
class SetAside:
    """A finding that a person has taken on, with the reason that stays in the record."""

    code: Annotated[str, MaxLen(60)]
    at: Spot
    reason: Annotated[str, MinLen(3), MaxLen(400)]


def is_reason(text: str) -> bool:
    """A text says why: at least two words and eight letters. Source: common practice."""
    words = [word for word in text.split() if sum(letter.isalpha() for letter in word) >= 2]
    return len(words) >= 2 and sum(letter.isalpha() for letter in text) >= 8


Span = RigidSpan | HoseSpan | ComponentSpan
MOST_SPANS = 40


@record
class Line:
    """One fluid line, whole. `unit` is what bare numbers are typed and figures shown in. `joints` has one
    for every two neighbours of `spans`; missing ones are filled with blank ones.

    Raises NotAChain for no span at all, an id that is there twice, and more joints than neighbours.
    """

    format: Literal["bendrel-line"] = "bendrel-line"
    version: Literal[2] = 2
    name: Name
    service: Annotated[str, MaxLen(40)] = "brake"
    unit: Unit = "in"
    port_a: Port = Port()
    port_b: Port = Port()
    spans: Annotated[tuple[Span, ...], MaxLen(MOST_SPANS)]
    joints: Annotated[tuple[Joint, ...], MaxLen(MOST_SPANS)] = ()
    carries: Carries = Carries()
    condition: Condition = Condition()
    removal: Removal = Removal()
    open_items: Annotated[tuple[OpenItem, ...], MaxLen(60)] = ()
    finished: bool = False
    proving: Proving = Proving()
    notes: Annotated[str, MaxLen(4000)] = ""
    set_aside: Annotated[tuple[SetAside, ...], MaxLen(100)] = ()

    def __post_init__(self) -> None:
        if not self.spans:
            raise NotAChain("The line has nothing in it; it needs at least one tube, hose or component.")
        fill_ids(self, "spans", "s")
        missing = len(self.spans) - 1 - len(self.joints)
        if missing < 0:
            raise NotAChain(f"{len(self.joints)} joints for {len(self.spans)} spans; one lies between two.")
        object.__setattr__(self, "joints", (*self.joints, *(Joint() for _ in range(missing))))

    def port(self, name: EndName) -> Port:
        """The port at end A or end B."""
        return self.port_a if name == "A" else self.port_b

    def with_port(self, name: EndName, port: Port) -> Line:
        """The same with another port there."""
        return replace(self, port_a=port) if name == "A" else replace(self, port_b=port)

    def span(self, span_id: str) -> Span:
        """One span. Raises KeyError."""
        for span in self.spans:
            if span.id == span_id:
                return span
        raise KeyError(span_id)
