"""What is offered: one way to mend the line, with its lengths, its reasons and what it is weighed by."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import Derivation, Source
from bendrel.core.mend.there import ToolThere
from bendrel.core.parts.splicing import Method
from bendrel.core.record import record

Word = Literal["right", "acceptable", "care", "refused"]
WORD_ORDER: dict[Word, int] = {"right": 0, "acceptable": 1, "care": 2, "refused": 3}


@record
class Reason:
    """One thing that is said for or against a way, and who says it."""

    text: str
    source: Source


@record
class Weighed:
    """One term of what a way costs, in minutes of work, and in words."""

    name: str
    minutes: float
    words: str


@record
class Offer:
    """One way to mend a damaged line. Places in mm along the old tube from end A; what a way does not have
    is None.

    `piece_mm` is the new piece between its own finished ends (rim to rim, cut to cut), before its own
    flares; `stop_mm` what lies between the two tubes in each joint; `spring_apart_mm` how far the old ends
    must give way. `fitting` is the end that the joints are made with, `cost` the terms of its weight,
    `tools` what can be used at the cuts. `assumes` is the material that it is told for where nobody has said
    which the tube is of."""

    method: Method
    name: str
    verdict: Word
    cut_a_mm: float | None = None
    cut_b_mm: float | None = None
    gap_mm: float | None = None
    piece_mm: float | None = None
    piece_bends: tuple[int, ...] = ()
    overlap_mm: float | None = None
    stop_mm: float | None = None
    spring_apart_mm: float | None = None
    fitting: str = ""
    joint: str = ""
    years: float = 0.0
    reasons: tuple[Reason, ...] = ()
    cost: tuple[Weighed, ...] = ()
    working: tuple[Derivation, ...] = ()
    tools: tuple[ToolThere, ...] = ()
    assumes: str = ""

    @property
    def minutes(self) -> float:
        """What it weighs, in minutes of work."""
        return sum(term.minutes for term in self.cost)
