"""Rules of the service: who makes it at all, and what is refused or needs care of tube and ends there."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import EndName, Finding, Fix, Severity
from bendrel.core.joints.verdict import Verdict
from bendrel.core.plan.case import SPAN, Case, choose
from bendrel.core.plan.ends_for import end_fix, ends_that_go
from bendrel.core.plan.judge_ends import ENDS


def judge_service(case: Case) -> Iterator[Finding]:
    """Findings on the service itself, and on tube and ends against it."""
    yield from _said(case)
    yield from _material(case)
    for end in ENDS:
        yield from _end_type(case, end)


def against(verdict: Verdict | None) -> Severity | None:
    """How bad it is; None where nothing stands against it."""
    if verdict is None or verdict.verdict in ("right", "acceptable"):
        return None
    return "stop" if verdict.verdict == "refused" else "caution"


def _said(case: Case) -> Iterator[Finding]:
    service = case.service
    if service.left_to:
        yield Finding(
            severity="stop",
            code="left_to_practice",
            where=case.whole(),
            title=f"No {service.name} line is made here",
            message=f"It is not made here: {service.left_to}.",
            source=service.source,
            advice="Record what was found, and leave the line to those who may.",
            safety=True,
        )
    elif service.duty is None:
        rule = case.kit.advice["unsaid"]
        yield Finding(
            severity="caution",
            code="service_unsaid",
            where=case.whole(),
            title="What does the line carry?",
            message=rule.text,
            source=rule.source,
            advice="Say its service in Choose.",
            safety=True,
        )


def _material(case: Case) -> Iterator[Finding]:
    verdict = case.kit.verdict("tube", case.material.id, case.service.id)
    severity = against(verdict)
    if verdict is None or severity is None:
        return
    refused = severity == "stop"
    yield Finding(
        severity=severity,
        code="material_refused" if refused else "material_care",
        where=case.whole(),
        title=f"{'No' if refused else 'Care with'} {case.material.name} on a {case.service.name} line",
        message=verdict.reason,
        source=verdict.source,
        advice="Choose another material, or compare the choices.",
        fix=_other_material(case) if refused else None,
        safety=refused or case.service.safety_critical,
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
            return choose(f"Use {material.name}", (f"{SPAN}/tube", tube.id))
    return None


def _end_type(case: Case, end: EndName) -> Iterator[Finding]:
    fitting = case.fittings[end]
    if fitting.takes_hose and case.held_hose(end):
        return  # a crimped hose holds by its crimp, whatever the tube's end is: judged as a joint
    verdict = case.kit.verdict("end", fitting.id, case.service.id)
    severity = against(verdict)
    if verdict is None or severity is None:
        return
    if verdict.unless == "two clamps" and case.two_clamps(end):
        return
    refused = severity == "stop"
    yield Finding(
        severity=severity,
        code="end_refused" if refused else "end_care",
        where=case.at_end(end),
        title=f"End {end}: {'no' if refused else 'care with'} {fitting.name} on a {case.service.name} line",
        message=verdict.reason,
        source=verdict.source,
        advice="Choose an end that is right for this service.",
        fix=next(
            (end_fix(case, end, other) for other in ends_that_go(case, end, words=("right", "acceptable"))),
            None,
        )
        if refused
        else None,
        safety=refused or case.service.safety_critical,
    )
