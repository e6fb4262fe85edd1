"""What every judgement of the core looks like: where, how bad, why, with which numbers."""

from __future__ import annotations

from typing import Literal

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
class Where:
    """A place on the line: a bend or straight by number from end A, an end, the whole tube, or a piece
    (hose or part) beyond an end, numbered from the tube outwards.

    `from_mm` and `to_mm` are developed positions from end A's finished end, without allowances.
    """

    kind: Literal["bend", "straight", "end", "tube", "piece"]
    number: int | None = None
    end: EndName | None = None
    from_mm: float | None = None
    to_mm: float | None = None

    def __str__(self) -> str:
        if self.kind == "end":
            return f"end {self.end}"
        if self.kind == "tube":
            return "tube"
        if self.kind == "piece":
            return f"piece {self.number} beyond {self.end}"
        return f"{self.kind} {self.number}"


@record
class Change:
    """One value to set in the line document; `path` is a JSON pointer, and one past the end of a list
    adds to it."""

    path: str
    value: str | float | bool | dict[str, object] | None


@record
class Fix:
    """A way out that one click applies: its label and the changes it makes.

    `choice` says that it changes what is chosen: it is offered only where the line planned with it has
    nothing against it that is as bad as what it mends.
    """

    label: str
    changes: tuple[Change, ...]
    choice: bool = False


@record
class Finding:
    """Something wrong or risky. `advice` explains the way out where no `fix` can be applied.

    `safety` marks what can hurt somebody. `set_aside` is the reason with which a person took it
    on; it stays in the record.
    """

    severity: Severity
    code: str
    where: Where
    title: str
    message: str
    source: Source
    advice: str = ""
    fix: Fix | None = None
    safety: bool = False
    set_aside: str = ""


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


DERIVED = Source(kind="derived", text="plane geometry of straights and arcs")
