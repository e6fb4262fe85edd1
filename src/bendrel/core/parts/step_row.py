"""The words of a step of the work: its row in the catalogue, with places for its figures."""

from __future__ import annotations

from typing import Literal

from bendrel.core.parts.service import WorkStage
from bendrel.core.record import record

StepKind = Literal[
    "prove", "straighten", "cut", "nuts", "flare", "braze", "form", "mark", "bend", "fit", "trim", "blow",
    "old tube", "gap", "hose",
    "ready", "loose", "hand", "tight", "open", "fill", "hold", "look", "works", "again", "after",
]  # fmt: skip
"""What is done in a step: of making to *hose*, then of fitting and proving, in their order."""
WHOLE: tuple[StepKind, ...] = (
    "ready", "loose", "hand", "tight", "open", "fill", "hold", "look", "works", "again", "after",
)  # fmt: skip
"""The kinds that are of fitting and proving a whole line, not of making one tube."""
Does = Literal["", "starts", "tightens", "looks", "clips", "holds"]


@record
class StepRow:
    """What is said in a step and why, when it comes, and what it does to its joint. Without a `must` nothing
    is signed off; `safety` ones stand out."""

    id: str
    stage: WorkStage
    kind: StepKind
    text: str
    why: str = ""
    does: Does = ""
    must: bool = False
    safety: bool = False
