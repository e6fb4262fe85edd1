"""Where practitioners disagree: the question, its answers with their reasons, the shop's start."""

from __future__ import annotations

from collections.abc import Iterable

from bendrel.core.findings import Source
from bendrel.core.record import record


@record
class OwnFigure:
    """What a shop that gives an answer measures itself, in degrees between `least_deg` and `most_deg`; not
    known until it is typed, and `unknown` says what holds until then."""

    id: str
    label: str
    least_deg: float
    most_deg: float
    unknown: str


@record
class SchoolOption:
    """One answer, the reason its people give, and what such a shop measures itself."""

    id: str
    name: str
    reason: str
    figure: OwnFigure | None = None


@record
class School:
    """One question; `start` is the answer until the shop chooses, blank where the shop is asked."""

    id: str
    question: str
    start: str
    options: tuple[SchoolOption, ...]
    source: Source


def figure_of(schools: Iterable[School], figure: str) -> OwnFigure | None:
    """The figure of that id among the answers of `schools`. Raises nothing."""
    figures = (option.figure for school in schools for option in school.options)
    return next((one for one in figures if one is not None and one.id == figure), None)
