"""Where practitioners disagree: the question, its answers with their reasons, the shop's start."""

from __future__ import annotations

from bendrel.core.findings import Source
from bendrel.core.record import record


@record
class SchoolOption:
    """One answer and the reason its people give."""

    id: str
    name: str
    reason: str


@record
class School:
    """One question; `start` is the answer until the shop chooses, blank where the shop is asked."""

    id: str
    question: str
    start: str
    options: tuple[SchoolOption, ...]
    source: Source
