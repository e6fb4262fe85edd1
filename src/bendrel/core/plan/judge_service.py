"""Rules of the service: what is refused there, what needs care, and which seat an end suits."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import EndName, Finding, Fix, Severity
from bendrel.core.joints.seat import seat_fit
from bendrel.core.joints.verdict import Verdict
from bendrel.core.plan.case import SPAN, Case, set_value
from bendrel.core.plan.judge_ends import ENDS
from bendrel.core.tube.material import Material


def judge_service(case: Case) -> Iterator[Finding]:
    """Findings on material and ends against the service, and on each end against its seat."""
    yield from _material(case)
    for end in ENDS:
        yield from _end_type(case, end)
        yield from _flaring(case, end)
        yield from _seat(case, end)
        yield from _metals(case, end)


def _against(verdict: Verdict | None) -> Severity | None:
    if verdict is None or verdict.verdict in ("right", "acceptable"):
        return None
    return "stop" if verdict.verdict == "refused" else "caution"


def _material(case: Case) -> Iterator[Finding]:
    verdict = case.kit.verdict("tube", case.material.id, case.service.id)
    severity = _against(verdict)
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
    """The first tube of this size whose material is right here, else one that is not refused."""
    fitting = [t for t in case.kit.tubes.values() if t.size == case.tube.size]
    for words in (("right",), ("right", "acceptable")):
        for tube in fitting:
            verdict = case.kit.verdict("tube", tube.material, case.service.id)
            if verdict is not None and verdict.verdict in words:
                name = case.kit.materials[tube.material].name
                return set_value(f"Use {name}", f"{SPAN}/tube", tube.id)
    return None


def _end_type(case: Case, end: EndName) -> Iterator[Finding]:
    fitting = case.fittings[end]
    verdict = case.kit.verdict("end", fitting.id, case.service.id)
    severity = _against(verdict)
    if verdict is None or severity is None:
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
        fix=_right_end(case, end) if refused else None,
        safety=refused or case.service.safety_critical,
    )


def suits(case_material: Material, kind: str) -> bool:
    """An end of this kind can be formed in this material. Source: the material's own row."""
    if case_material.flares == "not at all":
        return kind not in ("double", "single", "bulb")
    return kind not in ("double", "bulb") or case_material.double_flare


def _right_end(case: Case, end: EndName) -> Fix | None:
    """The first end type that is right here, suits the port's seat and the material, nut included."""
    path = f"/end_{end.lower()}"
    seat = case.kit.seats.get(case.line.end(end).seat)
    for fitting in case.kit.fittings.values():
        nuts = case.kit.nuts_for(fitting.id, case.tube.size)
        verdict = case.kit.verdict("end", fitting.id, case.service.id)
        right = verdict is not None and verdict.verdict == "right"
        seats = seat is None or fitting.id in seat.takes
        if right and seats and suits(case.material, fitting.kind) and (nuts or not fitting.screwed):
            both = (
                *set_value("", f"{path}/fitting", fitting.id).changes,
                *set_value("", f"{path}/nut", nuts[0].id if nuts else None).changes,
            )
            return Fix(label=f"Change it to {fitting.name}", changes=both)
    return None


def _flaring(case: Case, end: EndName) -> Iterator[Finding]:
    fitting, material = case.fittings[end], case.material
    if not fitting.flared or suits(material, fitting.kind):
        return
    hard = material.flares != "not at all"
    rule = case.kit.advice["double_flare_hard" if hard else "no_flare"]
    yield Finding(
        severity="caution" if hard else "stop",
        code="double_flare_hard" if hard else "no_flare",
        where=case.at_end(end),
        title=f"End {end}: "
        + (f"a {fitting.name} is hard in {material.name}" if hard else f"{material.name} does not flare"),
        message=rule.text,
        source=rule.source,
        advice="Choose a softer material, or adapt both ports to 37° single flares.",
        fix=_single_37(case, end) if hard else None,
        safety=case.service.safety_critical,
    )


def _single_37(case: Case, end: EndName) -> Fix | None:
    nuts = case.kit.nuts_for("single-37", case.tube.size)
    if not nuts:
        return None
    path = f"/end_{end.lower()}"
    both = (
        *set_value("", f"{path}/fitting", "single-37").changes,
        *set_value("", f"{path}/nut", nuts[0].id).changes,
        *set_value("", f"{path}/port_thread", "").changes,  # it goes over an adapter, not into this port
        *set_value("", f"{path}/proved", False).changes,
    )
    return Fix(label="Change it to a 37° single flare", changes=both)


def _seat(case: Case, end: EndName) -> Iterator[Finding]:
    seat = case.kit.seats.get(case.line.end(end).seat)
    if seat is None:
        return
    fitting = case.fittings[end]
    fit = seat_fit(seat, fitting.id)
    if fit.fits == "seals":
        return
    yield Finding(
        severity="stop",
        code="wrong_seat",
        where=case.at_end(end),
        title=f"End {end}: {fitting.name} does not seal in a {seat.name}",
        message=fit.reason,
        source=seat.source,
        advice="Choose the end that the port was made for, or an adapter.",
        fix=_seat_end(case, end),
        safety=case.service.safety_critical,
    )


def _seat_end(case: Case, end: EndName) -> Fix | None:
    """The end that the port's seat takes, with its usual nut, where it may be used and formed."""
    path = f"/end_{end.lower()}"
    for name in case.kit.seats[case.line.end(end).seat].takes:
        fitting = case.kit.fittings[name]
        nuts = case.kit.nuts_for(name, case.tube.size)
        verdict = case.kit.verdict("end", name, case.service.id)
        allowed = verdict is None or verdict.verdict != "refused"
        if allowed and suits(case.material, fitting.kind) and (nuts or not fitting.screwed):
            both = (
                *set_value("", f"{path}/fitting", name).changes,
                *set_value("", f"{path}/nut", nuts[0].id if nuts else None).changes,
            )
            return Fix(label=f"Change it to {fitting.name}", changes=both)
    return None


def _metals(case: Case, end: EndName) -> Iterator[Finding]:
    """Tube and port of metals far apart corrode where they are wet."""
    body = case.kit.bodies.get(case.line.end(end).body)
    if body is None or case.material.family == "plastic" or body.anodic_v <= 0:
        return
    apart = abs(body.anodic_v - case.material.anodic_v)
    limit = case.kit.limits["galvanic_v"]
    if apart <= limit.value:
        return
    eaten = body.name if body.anodic_v > case.material.anodic_v else case.material.name
    yield Finding(
        severity="note",
        code="galvanic",
        where=case.at_end(end),
        title=f"End {end}: {case.material.name} against {body.name}",
        message=f"{apart:.2f} V apart (up to {limit.value:g} V is usual): where it is wet, {eaten} is eaten.",
        source=limit.source,
        advice="Keep it dry: wax or paint the joint, and put a sleeve under every clip.",
    )
