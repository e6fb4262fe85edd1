"""What every judgement of the core looks like: where, how bad, why, with which numbers."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from bendrel.core.codes import Code, Stage
from bendrel.core.record import record

Severity = Literal["stop", "caution", "note"]
SourceKind = Literal["standard", "common practice", "from memory", "derived", "shop's own"]
EndName = Literal["A", "B"]

SEVERITY_ORDER: dict[Severity, int] = {"stop": 0, "caution": 1, "note": 2}


@record
class Source:
    """Where a number or a rule comes from. Nothing from memory is presented as a standard."""

    kind: SourceKind
    text: str


@record
class Spot:
    """What a finding is about, by ids that never change: a bend or straight by its row, an end, a whole
    span, the whole line; `item` is a damage, fixture or opening. A straight has the id of the bend that it
    leads to, none where it leads to end B."""

    kind: Literal["bend", "straight", "end", "tube", "span"]
    span: str = ""
    row: str = ""
    end: EndName | None = None
    item: str = ""


@record
class Place:
    """A place on the line. `number` counts bends and straights from end A of their span, for the eye;
    `span` is blank where the whole line is meant.

    `from_mm` and `to_mm` are developed positions from end A's finished end, without allowances.
    """

    kind: Literal["bend", "straight", "end", "tube", "span"]
    span: str = ""
    row: str = ""
    item: str = ""
    number: int | None = None
    end: EndName | None = None
    from_mm: float | None = None
    to_mm: float | None = None

    @property
    def spot(self) -> Spot:
        """The same without the figures, which change."""
        return Spot(kind=self.kind, span=self.span, row=self.row, end=self.end, item=self.item)

    def __str__(self) -> str:
        if self.kind == "end":
            return f"end {self.end}"
        if self.kind in ("tube", "span"):
            return self.kind
        return f"{self.kind} {self.number}"


@record
class Change:
    """One value to set in the line document; `path` is a JSON pointer that names what has an id by
    its id (`line.paths`), and one past the end of a list adds to it."""

    path: str
    value: str | int | float | bool | dict[str, object] | list[object] | None


@record
class Reduce:
    """A reducer to be put in behind a tube or into a hose: outside diameters in mm on its two sides."""

    span: str
    a_mm: float
    b_mm: float


@record
class Fix:
    """A way out that one click applies: its label and the changes it makes.

    `choice` says that it changes what is chosen: it is offered only where the line planned with it has
    nothing against it that is as bad as what it mends. `reduce` is a reducer that is put in besides.
    """

    label: str
    changes: tuple[Change, ...]
    choice: bool = False
    reduce: Reduce | None = None


@record
class Finding:
    """Something wrong or risky. `advice` explains the way out where no `fix` can be applied.

    `safety` marks what can hurt somebody. `set_aside` is the reason with which a person took it
    on; it stays in the record. `stage` is where in the work it is settled, by its code.
    """

    severity: Severity
    code: Code
    where: Place
    title: str
    message: str
    source: Source
    advice: str = ""
    fix: Fix | None = None
    safety: bool = False
    set_aside: str = ""
    stage: Stage = "plan"


@record
class Input:
    """One input of a computed figure, as shown to the person."""

    name: str
    value: str
    source: Source | None = None


@record
class Derivation:
    """The working behind one figure: what is computed, how, from what, giving what."""

    id: str
    title: str
    formula: str
    inputs: tuple[Input, ...]
    result: str
    source: Source


def given(name: str, value: str, source: Source | None = None) -> Input:
    """One input of a figure."""
    return Input(name=name, value=value, source=source)


def shown(
    name: str, title: str, formula: str, inputs: Iterable[Input], result: str, source: Source
) -> Derivation:
    """The working behind a figure; `name` is its id."""
    return Derivation(
        id=name, title=title, formula=formula, inputs=tuple(inputs), result=result, source=source
    )


DERIVED = Source(kind="derived", text="plane geometry of straights and arcs")
