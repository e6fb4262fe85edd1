"""Rules on what was found on the old line, so that the new one does not repeat it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from bendrel.core.findings import Finding, Place
from bendrel.core.geometry.clips import Clips, gaps_between
from bendrel.core.judge.case import Case, Whole, set_value
from bendrel.core.line.paths import at
from bendrel.core.mend.looked import Looked, PlacedFixture

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
    yield case.told(
        "twin", case.whole(), fix=set_value("There is no twin", at("condition", "twin"), "no twin")
    )


def _contact(case: Whole, looked: Looked) -> Iterator[Finding]:
    condition = case.line.condition
    if condition.countermeasure.strip():
        return
    for damage in looked.damage:
        if damage.kind == "chafe" or condition.cause == "contact":
            yield case.told(
                "old_contact",
                Place(
                    kind="tube", span=damage.span, item=damage.id, from_mm=damage.from_mm, to_mm=damage.to_mm
                ),
                start=case.say(damage.from_mm),
                stop=case.say(damage.to_mm),
            )


def _fixtures(case: Whole, looked: Looked) -> Iterator[Finding]:
    gone = [item for item in looked.fixtures if item.state in ("broken", "missing")]
    if len(gone) == 1:
        (one,) = gone
        yield case.told("fixture", _at(one), kind=one.kind, state=one.state, at=case.say(one.at_mm))
    elif gone:
        told = "; ".join(f"{one.kind} {one.state} at {case.say(one.at_mm)}" for one in gone)
        yield case.told("fixtures", _at(gone[0]), count=len(gone), told=told[0].upper() + told[1:])
    blind = [item for item in looked.fixtures if item.drills and not item.behind]
    if blind:
        yield case.told("clip_behind", _at(blind[0]), at=", ".join(case.say(one.at_mm) for one in blind))


def _at(fixture: PlacedFixture) -> Place:
    return Place(kind="tube", span=fixture.span, item=fixture.id, from_mm=fixture.at_mm, to_mm=fixture.at_mm)


def _unheld(case: Case, clips: Clips) -> Iterator[Finding]:
    """The longest stretch without a clip, once more than one place was noted: with one, the rest may only
    not have been written down."""
    if not clips.old or len(clips.places_mm) < 2:
        return
    start, end = max(gaps_between(clips.places_mm, case.part.developed_mm), key=lambda gap: gap[1] - gap[0])
    if end - start <= clips.apart_mm + case.hand_mm:
        return
    gap, usual = case.say_apart(end - start, clips.apart_mm)
    yield case.told(
        "clip_gap",
        case.along(start, end),
        source=clips.source,
        gap=gap,
        start=case.say(start),
        end=case.say(end),
        usual=usual,
    )


def _decision(case: Whole, looked: Looked) -> Iterator[Finding]:
    decision, told = case.line.condition.decision, looked.recommendation
    if decision is None or told is None or decision.choice == told.choice or decision.reason.strip():
        return
    yield case.told("decision_without_reason", case.whole(), choice=decision.choice, choice_2=told.choice)


def _not_planned(case: Whole) -> Iterator[Finding]:
    """A splice, or a new piece from a separation point on, is decided and has no plan here yet."""
    decision = case.line.condition.decision
    if decision is None or decision.choice == "replace whole" or len(case.line.spans) > 1:
        return
    yield case.told(
        "not_planned",
        case.whole(),
        fix=set_value("Replace it whole", at("condition", "decision", "choice"), "replace whole"),
        choice=decision.choice,
    )
