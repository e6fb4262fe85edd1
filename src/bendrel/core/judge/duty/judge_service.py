"""Rules of the service: who makes it at all, and what is refused or needs care of tube and ends there."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import EndName, Finding, Fix
from bendrel.core.judge.case import Case, Whole, choose
from bendrel.core.judge.ends_for import end_fix, ends_that_go
from bendrel.core.judge.verdicts import said_against
from bendrel.core.line.run import ENDS


def judge_service(whole: Whole) -> Iterator[Finding]:
    """Findings on the service itself, and on every tube and its ends against it."""
    yield from _said(whole)
    for case in whole.cases:
        yield from _material(case)
        for end in ENDS:
            yield from _end_type(case, end)


def _said(case: Whole) -> Iterator[Finding]:
    service = case.service
    if service.left_to:
        yield case.told(
            "left_to_practice",
            case.whole(),
            source=service.source,
            service=service.name,
            left_to=service.left_to,
        )
    elif service.duty is None:
        yield case.told("service_unsaid", case.whole())


def _material(case: Case) -> Iterator[Finding]:
    yield from said_against(
        case,
        case.kit.verdict("tube", case.material.id, case.service.id),
        refused="material_refused",
        care="material_care",
        where=case.this(),
        what=case.material.name,
        advice="Choose another material, or compare the choices.",
        fix=lambda: _other_material(case),
    )


def _other_material(case: Case) -> Fix | None:
    """The first tube of this size whose material is right here and takes both ends, else one that is not
    refused."""
    fitting = [t for t in case.kit.tubes.values() if t.size == case.tube.size]
    for words in (("right",), ("right", "acceptable")):
        for tube in fitting:
            verdict = case.kit.verdict("tube", tube.material, case.service.id)
            material = case.kit.materials[tube.material]
            if verdict is None or verdict.verdict not in words:
                continue
            if not case.good_tube(tube):
                continue
            return choose(f"Use {material.name}", (case.run.at("tube"), tube.id))
    return None


def _end_type(case: Case, end: EndName) -> Iterator[Finding]:
    fitting = case.fittings[end]
    if fitting.takes_hose and case.held_hose(end):
        return  # a crimped hose holds by its crimp, whatever the tube's end is: judged as a joint
    verdict = case.kit.verdict("end", fitting.id, case.service.id)
    if verdict is not None and verdict.unless == "two clamps" and case.two_clamps(end):
        return
    yield from said_against(
        case,
        verdict,
        refused="end_refused",
        care="end_care",
        where=case.at_end(end),
        what=fitting.name,
        lead=f"End {end}: ",
        advice="Choose an end that is right for this service.",
        fix=lambda: next(
            (end_fix(case, end, other) for other in ends_that_go(case, end, words=("right", "acceptable"))),
            None,
        ),
    )
