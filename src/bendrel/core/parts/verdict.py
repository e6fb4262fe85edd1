"""Whether a tube, end, hose, clamp or joint may be used in a service, and why."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from bendrel.core.findings import Source
from bendrel.core.record import record

VerdictWord = Literal["right", "acceptable", "caution", "refused"]
Of = Literal["tube", "end", "hose", "clamp", "joint", "component"]

VERDICT_ORDER: dict[VerdictWord, int] = {"right": 0, "acceptable": 1, "caution": 2, "refused": 3}


@record
class Verdict:
    """What is said of `ids` in `services`. `school` is `question:answer` where practitioners differ:
    it is the choice of that school. A caution is met by what it names in `unless`."""

    of: Of
    ids: tuple[str, ...]
    services: tuple[str, ...]
    verdict: VerdictWord
    reason: str
    source: Source
    school: str = ""
    unless: Literal["", "two clamps", "made up"] = ""


@record
class Joint:
    """A way of joining two pieces of one line. A union's body takes `ends` of tube, both of one type, the
    best known first; without any it is no body: a hose makes the joint."""

    id: str
    name: str
    source: Source
    ends: tuple[str, ...] = ()


Verdicts = Mapping[tuple[Of, str, str], Verdict]


def index_verdicts(rows: tuple[Verdict, ...]) -> dict[tuple[Of, str, str], Verdict]:
    """The rows by (of, id, service). Raises ValueError when two rows say something of the same."""
    found: dict[tuple[Of, str, str], Verdict] = {}
    for row in rows:
        for item in row.ids:
            for service in row.services:
                key = (row.of, item, service)
                if key in found:
                    raise ValueError(f"Two verdicts on {row.of} {item} in {service}.")
                found[key] = row
    return found


def preferred(verdict: Verdict, preferences: Mapping[str, str]) -> bool:
    """The shop's own school chooses this."""
    question, _, answer = verdict.school.partition(":")
    return bool(question) and preferences.get(question) == answer
