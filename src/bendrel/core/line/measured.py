"""What the readings are worth, and how the checks agree with them."""

from __future__ import annotations

from contextlib import suppress
from typing import Literal

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.line.bought import BoughtPart, compare_bought
from bendrel.core.line.checks import DrawnEnd
from bendrel.core.line.compared import Check, compared
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.given import drawn_sheet, given_checks, reading_errors
from bendrel.core.line.paths import readings_path
from bendrel.core.line.resolve import Problem, slot_path
from bendrel.core.measure.adjust import Adjusted, Trust, adjust, as_left, expected
from bendrel.core.measure.contradiction import contradicts
from bendrel.core.measure.doubt import Doubt
from bendrel.core.measure.explain import name_of
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.slots import Slot, SlotKind, slots, value_of
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record

TrustWord = Literal["", "held", "left out"]


@record
class TakenReading:
    """One reading where all are adjusted together: its pointer in the document, what was read and what was
    taken, and what 95 of 100 are within; in mm or degrees. `trust` is what a person says of it."""

    path: str
    name: str
    kind: SlotKind
    read: float
    taken: float
    doubt: float
    trust: TrustWord


@record
class TrustedReading:
    """One reading that a person holds or leaves out: its pointer among the readings, and its name."""

    path: str
    name: str
    trust: TrustWord


@record
class Measured:
    """The doubt of the shape as it is taken, every check, and checks that cannot be read. `taken` are the
    readings where further ones adjust them; blank while there are none, or where they contradict one another:
    nothing is bent to fit. `drawn` is end B as a sheet of the line shows it now."""

    doubt: Doubt | None
    checks: tuple[Check, ...]
    disagree: bool
    bought: BoughtPart | None
    taken: tuple[TakenReading, ...]
    trusted: tuple[TrustedReading, ...]
    problems: tuple[Problem, ...]
    drawn: DrawnEnd | None = None


@record
class Weighed:
    """What was measured, and the readings to plan by: as they were read, or as they are taken."""

    measured: Measured
    read: ReadBends | Corners | None


def measure(span: RigidSpan, kit: Kit, read: ReadBends | Corners | None) -> Weighed:
    """Judge the readings of one rigid span, and adjust them to what was read further; `read` is None while
    they cannot be read."""
    errors = reading_errors(kit)
    given, problems = given_checks(span, read, kit)
    nothing = Measured(
        doubt=None, checks=(), disagree=False, bought=None, taken=(), trusted=(), problems=problems
    )
    if read is None:
        return Weighed(measured=nothing, read=None)
    trust = trust_of(span, read)
    try:
        judged = as_left(read, given, errors, trust)
        made, doubt = outcome(judged), expected(read, Given(), errors, trust)
    except ShapeError:
        return Weighed(measured=nothing, read=read)
    checks = compared(judged, given, made, errors)
    wrong = contradicts(judged, given, made, errors) or any(not check.agrees for check in checks)
    fit: Adjusted | None = None
    if (checks or trust != Trust()) and not wrong:
        with suppress(ShapeError):
            fit = adjust(read, given, errors, trust)
    line = fit.read if fit else read
    bought: BoughtPart | None = None
    if span.bought and isinstance(line, ReadBends):
        bought = compare_bought(span, line, errors)
    measured = Measured(
        doubt=fit.doubt if fit else doubt,
        checks=checks,
        disagree=wrong,
        bought=bought,
        taken=_taken(span, read, fit, trust) if fit else (),
        trusted=_trusted(span, read, trust),
        problems=problems,
        drawn=drawn_sheet(span, line, kit.limits["jig_least_mm"].value),
    )
    return Weighed(measured=measured, read=fit.read if fit else read)


def trust_of(span: RigidSpan, read: ReadBends | Corners) -> Trust:
    """What a person says of the readings of `read`; pointers to rows that are gone say nothing."""
    if not span.checks.held and not span.checks.left_out:
        return Trust()
    at = {slot_path(span.readings, slot): slot for slot in slots(read)}

    def found(paths: tuple[str, ...]) -> frozenset[Slot]:
        return frozenset(at[path] for path in paths if path in at)

    return Trust(held=found(span.checks.held), left_out=found(span.checks.left_out))


def _word(slot: Slot, trust: Trust) -> TrustWord:
    return "held" if slot in trust.held else "left out" if slot in trust.left_out else ""


def _trusted(span: RigidSpan, read: ReadBends | Corners, trust: Trust) -> tuple[TrustedReading, ...]:
    return tuple(
        TrustedReading(
            path=slot_path(span.readings, slot), name=name_of(read, slot), trust=_word(slot, trust)
        )
        for slot in slots(read)
        if slot in trust.held | trust.left_out
    )


def _taken(
    span: RigidSpan, read: ReadBends | Corners, fit: Adjusted, trust: Trust
) -> tuple[TakenReading, ...]:
    return tuple(
        TakenReading(
            path=readings_path(span.id, slot_path(span.readings, one.slot)),
            name=name_of(read, one.slot),
            kind=one.slot.kind,
            read=value_of(read, one.slot),
            taken=value_of(read, one.slot) + one.change,
            doubt=one.doubt,
            trust=_word(one.slot, trust),
        )
        for one in fit.taken
    )
