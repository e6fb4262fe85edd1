"""What was done to close and prove a line, as the person noted it: joints, fills, hold tests, sign-off.

It is part of the line's document, so that it is saved, undone and travels with it. Times are local, ISO
8601 to the minute, blank where not said.
"""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import MaxLen, MinLen

from bendrel.core.findings import EndName
from bendrel.core.ids import Id, LongId, fill_ids
from bendrel.core.parts.proving import HoldKind, Rung
from bendrel.core.record import record
from bendrel.core.units.lengths import PhotoId, Text

Person = Annotated[str, MaxLen(60)]
When = Annotated[str, MaxLen(25)]
Day = Annotated[str, MaxLen(10)]
Note = Annotated[str, MaxLen(400)]
Figure = Annotated[str, MaxLen(24)]

Seen = Literal["dried", "dry", "wet", "next door", "nip", "re-seat", "another clamp", "re-make"]
"""What happens at a joint under watch: it is dried, found dry or wet, found to be wet from the part next
door, or mended by a rung of the ladder."""
MENDED: tuple[Rung, ...] = ("nip", "re-seat", "another clamp", "re-make")


@record
class Done:
    """A step that was ticked off: its id, when, and by whom (blank: not said)."""

    step: LongId
    at: When = ""
    by: Person = ""


@record
class JointEvent:
    """One look at a joint, or one thing done to it."""

    id: LongId = ""
    at: When = ""
    what: Seen
    by: Person = ""
    note: Note = ""


@record
class JointWork:
    """What was done at the joint that closes `end` of `span` against `meets` (a span, blank for the port).
    `turns` by hand before a wrench was put on it; `applied` what went on it, `tight` how far it went, `aim`
    what the machine's own manual says that it goes to."""

    span: Id
    end: EndName
    meets: Id = ""
    turns: Figure = ""
    applied: Text = ""
    tight: Text = ""
    aim: Figure = ""
    by: Person = ""
    events: Annotated[tuple[JointEvent, ...], MaxLen(60)] = ()

    def __post_init__(self) -> None:
        fill_ids(self, "events", "e")


Air = Literal["", "none", "a little", "much"]


@record
class FillRow:
    """One turn of a guided run, by the id of its step: volumes as typed (`level` the change of the
    reservoir, + for more), seconds, the air that was seen, a figure that the step asks for."""

    id: LongId = ""
    step: LongId
    at: When = ""
    place: Text = ""
    into: Figure = ""
    out: Figure = ""
    level: Figure = ""
    air: Air = ""
    seconds: Figure = ""
    value: Figure = ""
    by: Person = ""
    note: Note = ""


@record
class HoldRow:
    """One reading by eye: minutes, and what gauge and thermometer showed."""

    minutes: Figure = ""
    pressure: Figure = ""
    temperature: Figure = ""


GaugeReads = Literal["above the air", "below the air", "absolute"]


@record
class Hold:
    """One hold test. `run` is the recorded or imported run that it is judged by, blank where `rows` were read
    by eye. `volume` is what was shut in (blank: the line's own), `threshold` the pressure that must not be
    reached within `minutes`; pressures as the gauge reads them. `instead` is why a test that is less than
    what was asked for is taken on."""

    id: LongId = ""
    kind: HoldKind = "liquid"
    run: Annotated[str, MaxLen(40)] = ""
    rows: Annotated[tuple[HoldRow, ...], MaxLen(200)] = ()
    reads: GaugeReads = "above the air"
    volume: Figure = ""
    threshold: Figure = ""
    minutes: Figure = ""
    air: Figure = ""
    instead: Note = ""
    at: When = ""
    by: Person = ""
    note: Note = ""


Works = Literal["", "yes", "no", "not fitted"]


@record
class FunctionCheck:
    """A proof of function by the id of its step; `not fitted` where the machine has no such thing."""

    step: LongId
    works: Works = ""
    value: Figure = ""
    by: Person = ""
    at: When = ""
    note: Note = ""


@record
class BeforeAfter:
    """A figure of the machine before the work and after it, as read: a pressure, a temperature, a level, or a
    check of the person's own."""

    id: LongId = ""
    what: Text = ""
    before: Text = ""
    after: Text = ""


@record
class Counted:
    """A thing of the person's own that was put on for the work; it comes off at a step of its own."""

    id: LongId = ""
    what: Text = ""


@record
class FollowUp:
    """A second look or a service that is due: at the earliest of a date, kilometres, hours and heat cycles
    after the sign-off. `done` is the day on which it was looked at."""

    id: LongId = ""
    what: Text = "second look"
    day: Day = ""
    km: Figure = ""
    hours: Figure = ""
    cycles: Figure = ""
    done: Day = ""
    found: Note = ""
    by: Person = ""


@record
class SignOff:
    """The line was signed off. `competent` names who tested it where the service asks for somebody
    competent; `stamp` tells what was signed, `rules` by which version of the rules it had been judged."""

    by: Annotated[str, MinLen(1), MaxLen(60)]
    at: When
    competent: Person = ""
    note: Note = ""
    km: Figure = ""
    hours: Figure = ""
    rules: Annotated[str, MaxLen(40)] = ""
    stamp: Annotated[str, MaxLen(64)] = ""


@record
class Proving:
    """The whole log. `done` are the steps that were ticked off, `places` the order of wheels or
    consumers where it differs from the usual, `circuit_holds` what the circuit holds as typed (blank: the
    line's own volume), `fluid` what went in;
    `missed` by how much the part missed its port at the trial fit, `tweaks` how many it took; `compared` are
    figures before and after."""

    done: Annotated[tuple[Done, ...], MaxLen(400)] = ()
    joints: Annotated[tuple[JointWork, ...], MaxLen(120)] = ()
    fills: Annotated[tuple[FillRow, ...], MaxLen(200)] = ()
    places: Annotated[tuple[Text, ...], MaxLen(20)] = ()
    circuit_holds: Figure = ""
    fluid: Text = ""
    holds: Annotated[tuple[Hold, ...], MaxLen(20)] = ()
    checks: Annotated[tuple[FunctionCheck, ...], MaxLen(40)] = ()
    counted: Annotated[tuple[Counted, ...], MaxLen(40)] = ()
    compared: Annotated[tuple[BeforeAfter, ...], MaxLen(40)] = ()
    missed: Text = ""
    tweaks: Figure = ""
    photos: Annotated[tuple[PhotoId, ...], MaxLen(20)] = ()
    follow_ups: Annotated[tuple[FollowUp, ...], MaxLen(20)] = ()
    signed: SignOff | None = None

    def ticked(self, step: str) -> Done | None:
        """The tick of a step, by its id; None where it has none."""
        return next((one for one in self.done if one.step == step), None)

    def __post_init__(self) -> None:
        letters = {"fills": "f", "holds": "h", "counted": "c", "follow_ups": "n", "compared": "b"}
        for name, letter in letters.items():
            fill_ids(self, name, letter)
