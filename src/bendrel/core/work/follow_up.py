"""When a second look or a service is due: a date, distance, hours or heat cycles, whichever comes first."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, timedelta

from bendrel.core.line.document import ComponentSpan, Line
from bendrel.core.line.proving import FollowUp
from bendrel.core.parts.proving import ProvingRule
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_counter


@record
class Due:
    """A follow-up that is open: `text` says when in words, `day` is its date (ISO, blank where it has none),
    `late` that the day has passed."""

    id: str
    what: str
    text: str
    day: str
    late: bool


def due_of(line: Line, today: date) -> tuple[Due, ...]:
    """Follow-ups of a line that nobody has done, the earliest date first."""
    found = [_due(one, today) for one in line.proving.follow_ups if not one.done.strip()]
    return tuple(sorted(found, key=lambda one: one.day or "9999"))


def _due(one: FollowUp, today: date) -> Due:
    ways = [
        _after(one.km, "kilometres", "km"),
        _after(one.hours, "hours", "h"),
        _after(one.cycles, "heat cycles", "heat cycles"),
        f"by {one.day}" if one.day.strip() else "",
    ]
    told = [way for way in ways if way]
    return Due(
        id=one.id,
        what=one.what.strip() or "second look",
        text=" or ".join(told) + (", whichever comes first" if len(told) > 1 else "")
        if told
        else "no date yet",
        day=one.day,
        late=bool(one.day) and one.day < today.isoformat(),
    )


def _after(text: str, what: str, unit: str) -> str:
    """What is no number is said to be none, where it is due."""
    try:
        count = parse_counter(text, what)
    except UnitError:
        return f"after “{text.strip()}” (no number of {what})"
    return f"after {count} {unit}" if count else ""


def first_follow_ups(line: Line, rule: ProvingRule, day: date) -> tuple[FollowUp, ...]:
    """What is due after a sign-off on `day`: the service's second look, and each part that is replaced at
    intervals. Source: the catalogue's second looks."""
    return tuple(_first(line, rule, day))


def _first(line: Line, rule: ProvingRule, day: date) -> Iterator[FollowUp]:
    second = rule.second
    yield FollowUp(
        what="second look: every joint, dry",
        day=(day + timedelta(days=second.days)).isoformat() if second.days else "",
        km=str(second.km) if second.km else "",
        hours=str(second.hours) if second.hours else "",
        cycles=str(second.cycles) if second.cycles else "",
    )
    for span in line.spans:
        if isinstance(span, ComponentSpan) and span.service.strip():
            yield FollowUp(what=f"change the {span.what}: {span.service.strip()}")
