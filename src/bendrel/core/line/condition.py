"""What a person finds on the old line. Positions run along the tube from end A, as typed."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import MaxLen

from bendrel.core.ids import Id, fill_ids
from bendrel.core.parts.splicing import Choice, DamageKind
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, PhotoId, Text

Reason = Literal[
    "rusted through", "weeping", "chafed", "crushed", "kinked",
    "nicked", "cross-threaded", "dangerous route", "brittle", "upgrade",
    "new line", "blocked", "stripped port", "bad old repair", "preventive", "missing",
]  # fmt: skip
Urgency = Literal["off the road", "soon", "can wait"]
Twin = Literal["not looked at", "sound", "due too", "no twin"]
Depth = Literal["surface", "deep", "through"]
FixtureKind = Literal["clip", "sleeve", "grommet", "retainer"]
FixtureState = Literal["there", "broken", "missing", "to fit"]
"""`to fit` is one that the old line never had."""
HOLDING: frozenset[FixtureKind] = frozenset({"clip", "grommet", "retainer"})
"""What holds a line; a sleeve only keeps it from rubbing."""
FixedTo = Literal[
    "", "the old place", "an existing hole", "a stud", "a bracket", "a hole to drill", "a hose, by a tie"
]
Cause = Literal[
    "not known", "contact", "heat", "trapped dirt", "vibration", "age",
    "workshop slip", "road or jack strike", "altered ride height", "bad old repair",
]  # fmt: skip
Rest = Literal["not looked at", "sound", "to be watched"]
"""What the old part that stays was seen to be."""
EndState = Literal["not tried", "comes undone", "seized", "seized in an expensive part"]

School = Literal["one clean piece", "economy"]

Note = Annotated[str, MaxLen(400)]


@record
class Damage:
    """A damaged place from `at` to `to` (blank: a spot). `depth` says how far it goes in."""

    id: Id = ""
    span: Id = ""
    kind: DamageKind = "rust"
    depth: Depth = "deep"
    at: Length = Length()
    to: Length = Length()
    note: Note = ""
    photo: PhotoId = ""


@record
class Fixture:
    """A clip, sleeve, grommet or retainer, on the old line or to be fitted. `clip` is the catalogue's row,
    `fixed_to` what it goes on, `drill` the hole that it takes and `behind` what lies behind that; `shared`
    names the line that it holds besides."""

    id: Id = ""
    span: Id = ""
    kind: FixtureKind = "clip"
    state: FixtureState = "there"
    at: Length = Length()
    note: Note = ""
    photo: PhotoId = ""
    clip: Annotated[str, MaxLen(80)] = ""
    fixed_to: FixedTo = ""
    drill: Length = Length()
    behind: Text = ""
    shared: Text = ""


@record
class WetPoint:
    """A place found wet while it ran, the highest first; `ruled_out` names the part next door
    when the wet came from there."""

    place: Text = ""
    ruled_out: Note = ""


@record
class Decision:
    """What the person decided, and why; the reason stays with the line."""

    choice: Choice
    reason: Note = ""


@record
class Condition:
    """Everything noted when the line was taken in and looked at; `rest` is what was seen of the old part that
    stays."""

    reasons: Annotated[tuple[Reason, ...], MaxLen(16)] = ()
    urgency: Urgency = "soon"
    twin: Twin = "not looked at"
    wet: Annotated[tuple[WetPoint, ...], MaxLen(30)] = ()
    damage: Annotated[tuple[Damage, ...], MaxLen(60)] = ()
    fixtures: Annotated[tuple[Fixture, ...], MaxLen(100)] = ()
    cause: Cause = "not known"
    countermeasure: Note = ""
    end_a: EndState = "not tried"
    end_b: EndState = "not tried"
    part_available: bool = True
    school: School = "one clean piece"
    decision: Decision | None = None
    rest: Rest = "not looked at"
    rest_note: Note = ""

    def __post_init__(self) -> None:
        fill_ids(self, "damage", "d")
        fill_ids(self, "fixtures", "f")
