"""Rules of the service: what is refused there, and what material and end do not go together."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import EndName, Finding, Fix
from bendrel.core.plan.case import SPAN, Case, set_value
from bendrel.core.plan.judge_ends import ENDS


def judge_service(case: Case) -> Iterator[Finding]:
    """Findings on material and ends against the service."""
    yield from _material(case)
    for end in ENDS:
        yield from _end_type(case, end)
        yield from _double_flare(case, end)


def _material(case: Case) -> Iterator[Finding]:
    for refusal in case.service.refused_materials:
        if refusal.id == case.material.id:
            yield Finding(
                severity="stop",
                code="material_refused",
                where=case.whole(),
                title=f"No {case.material.name} on a {case.service.name} line",
                message=refusal.reason,
                source=refusal.source,
                advice="Choose another material.",
                fix=_other_material(case),
                safety=True,
            )


def _other_material(case: Case) -> Fix | None:
    refused = {refusal.id for refusal in case.service.refused_materials}
    for tube in case.kit.tubes.values():
        if tube.size == case.tube.size and tube.material not in refused:
            name = case.kit.materials[tube.material].name
            return set_value(f"Use {name}", f"{SPAN}/tube", tube.id)
    return None


def _end_type(case: Case, end: EndName) -> Iterator[Finding]:
    fitting = case.fittings[end]
    for refusal in case.service.refused_fittings:
        if refusal.id == fitting.id:
            yield Finding(
                severity="stop",
                code="end_refused",
                where=case.at_end(end),
                title=f"End {end}: no {fitting.name} on a {case.service.name} line",
                message=refusal.reason,
                source=refusal.source,
                advice="Choose a flared end.",
                fix=_flared(case, end),
                safety=True,
            )


def _flared(case: Case, end: EndName) -> Fix | None:
    """The first flared end type that this tube size has a nut for, nut included."""
    path = f"/end_{end.lower()}"
    for fitting in case.kit.fittings.values():
        nuts = case.kit.nuts_for(fitting.id, case.tube.size)
        if fitting.kind in ("double", "bulb") and nuts:
            both = (
                *set_value("", f"{path}/fitting", fitting.id).changes,
                *set_value("", f"{path}/nut", nuts[0].id).changes,
            )
            return Fix(label=f"Make it a {fitting.name}", changes=both)
    return None


def _double_flare(case: Case, end: EndName) -> Iterator[Finding]:
    if case.fittings[end].kind != "double" or case.material.double_flare:
        return
    rule = case.kit.advice["double_flare_hard"]
    yield Finding(
        severity="caution",
        code="double_flare_hard",
        where=case.at_end(end),
        title=f"End {end}: a double flare is hard in {case.material.name}",
        message=rule.text,
        source=rule.source,
        advice="Choose a softer material, or adapt both ports to 37° single flares.",
        safety=case.service.safety_critical,
    )
