"""Rules on what was found on the old line, so that the new one does not repeat it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from bendrel.core.findings import Finding, Place
from bendrel.core.geometry.clips import Clips, gaps_between
from bendrel.core.judge.case import Case, Whole, set_value
from bendrel.core.line.paths import at
from bendrel.core.mend.looked import Looked

WEARS_OUT_IN_PAIRS = {"rusted through", "brittle"}


def judge_look(whole: Whole, looked: Looked, clips: Mapping[str, Clips]) -> Iterator[Finding]:
    """Findings on twin, contact, fixtures, clips and the decision."""
    yield from _twin(whole)
    yield from _contact(whole, looked)
    yield from _fixtures(whole, looked)
    for case in whole.cases:
        yield from _unheld(case, clips[case.part.span])
    yield from _decision(whole, looked)
    yield from _not_planned(whole)


def _twin(case: Whole) -> Iterator[Finding]:
    condition = case.line.condition
    if not WEARS_OUT_IN_PAIRS & set(condition.reasons) or condition.twin != "not looked at":
        return
    rule = case.kit.advice["twin"]
    yield Finding(
        severity="note",
        code="twin",
        where=case.whole(),
        title="Look at the other one of the pair",
        message=rule.text,
        source=rule.source,
        fix=set_value("There is no twin", at("condition", "twin"), "no twin"),
    )


def _contact(case: Whole, looked: Looked) -> Iterator[Finding]:
    condition = case.line.condition
    if condition.countermeasure.strip():
        return
    rule = case.kit.advice["old_contact"]
    for damage in looked.damage:
        if damage.kind == "chafe" or condition.cause == "contact":
            yield Finding(
                severity="caution",
                code="old_contact",
                where=Place(
                    kind="tube",
                    span=damage.span,
                    item=damage.id,
                    from_mm=damage.from_mm,
                    to_mm=damage.to_mm,
                ),
                title="The old contact is repeated",
                message=(
                    f"Worn at {case.say(damage.from_mm)} to {case.say(damage.to_mm)} from end A, and "
                    f"the new line takes the same path. {rule.text}"
                ),
                source=rule.source,
                advice="Note a countermeasure on Look, or move the nearest bend.",
                safety=case.service.safety_critical,
            )


def _fixtures(case: Whole, looked: Looked) -> Iterator[Finding]:
    rule = case.kit.advice["fixture"]
    for fixture in looked.fixtures:
        if fixture.state != "there":
            yield Finding(
                severity="note",
                code="fixture",
                where=Place(
                    kind="tube",
                    span=fixture.span,
                    item=fixture.id,
                    from_mm=fixture.at_mm,
                    to_mm=fixture.at_mm,
                ),
                title=f"A {fixture.kind} is {fixture.state} at {case.say(fixture.at_mm)}",
                message=rule.text,
                source=rule.source,
                advice="Put it on the list of parts to get.",
            )


def _unheld(case: Case, clips: Clips) -> Iterator[Finding]:
    """The longest stretch without a clip, once more than one place was noted: with one, the rest may only
    not have been written down."""
    if not clips.old or len(clips.places_mm) < 2:
        return
    start, end = max(gaps_between(clips.places_mm, case.part.developed_mm), key=lambda gap: gap[1] - gap[0])
    if end - start <= clips.apart_mm + case.hand_mm:
        return
    rule = case.kit.advice["clip_gap"]
    gap, usual = case.say_apart(end - start, clips.apart_mm)
    yield Finding(
        severity="note",
        code="clip_gap",
        where=case.along(start, end),
        title=f"{gap} without a clip",
        message=f"From {case.say(start)} to {case.say(end)}; {usual} is usual for this tube. {rule.text}",
        source=clips.source,
        advice="Put a clip between, or note the ones that are there.",
    )


def _decision(case: Whole, looked: Looked) -> Iterator[Finding]:
    decision, told = case.line.condition.decision, looked.recommendation
    if decision is None or told is None or decision.choice == told.choice or decision.reason.strip():
        return
    rule = case.kit.advice["decision"]
    yield Finding(
        severity="caution",
        code="decision_without_reason",
        where=case.whole(),
        title=f"Decided: {decision.choice}, against the advice",
        message=f"The arguments come out for “{told.choice}”. {rule.text}",
        source=rule.source,
        advice="Write the reason on Look.",
        safety=case.service.safety_critical,
    )


def _not_planned(case: Whole) -> Iterator[Finding]:
    """A splice, or a new piece from a separation point on, is decided and has no plan here yet."""
    decision = case.line.condition.decision
    if decision is None or decision.choice == "replace whole" or len(case.line.spans) > 1:
        return
    rule = case.kit.advice["not_planned"]
    yield Finding(
        severity="stop",
        code="not_planned",
        where=case.whole(),
        title=f"Decided: {decision.choice}, which has no plan here yet",
        message=rule.text,
        source=rule.source,
        advice="Measure and cut the piece at the machine, or decide to replace the line whole.",
        fix=set_value("Replace it whole", at("condition", "decision", "choice"), "replace whole"),
    )
