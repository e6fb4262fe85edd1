"""Rules on pressure, heat and fluid: the weakest element, what has no rating, and what may go in."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from bendrel.core.codes import Code
from bendrel.core.findings import Change, Finding, Fix
from bendrel.core.flow.strength import Element, ElementKind
from bendrel.core.judge.case import Case, Whole, choose
from bendrel.core.line.carried import Carried
from bendrel.core.line.paths import at

TOO_HOT: Mapping[ElementKind, Code] = {
    "tube": "too_hot_tube",
    "end": "too_hot_end",
    "hose": "too_hot_hose",
    "clamps": "too_hot_clamps",
    "component": "too_hot_component",
}
UNDER_TEST: Mapping[ElementKind, Code] = {
    "tube": "test_tube",
    "end": "test_end",
    "hose": "test_hose",
    "clamps": "test_clamps",
    "component": "test_component",
}
UNRATED: Mapping[ElementKind, Code] = {
    "tube": "rating_unknown_tube",
    "end": "rating_unknown_end",
    "hose": "rating_unknown_hose",
    "clamps": "rating_unknown_clamps",
    "component": "rating_unknown_component",
}
TOO_WEAK: Mapping[ElementKind, Code] = {
    "tube": "pressure_tube",
    "end": "pressure_end",
    "hose": "pressure_hose",
    "clamps": "pressure_clamps",
    "component": "pressure_component",
}


_STRONGER: Mapping[ElementKind, str] = {
    "tube": "Choose a thicker wall, another material, or a larger radius.",
    "end": "Choose an end that is rated for it.",
    "hose": "Choose hose of a higher rating, with ends crimped by a hose shop.",
    "component": "Choose one that is rated for it.",
    "clamps": "Bead the tube, two clamps each side, or a crimped hose.",
}


def judge_pressure(case: Whole) -> Iterator[Finding]:
    """Findings on strength and fluid of one planned line."""
    carried = case.chosen.carried
    if carried is None or case.service.left_to:
        return
    yield from _strength(case, carried)
    yield from _fluid(case, carried)


def _strength(case: Whole, carried: Carried) -> Iterator[Finding]:
    if case.chosen.strength is None:
        return
    duty = carried.duty
    for element in case.chosen.strength.elements:
        if element.too_hot:
            yield case.told(
                "too_hot",
                element.where,
                code=TOO_HOT[element.kind],
                source=element.source,
                element=element,
                hot_c=duty.hot_c,
                limit=_limit_of_heat(case, element),
            )
        elif duty.vacuum:
            continue
        elif element.unknown and not duty.open:
            yield _unknown(case, carried, element)
        elif element.allowed_kpa is not None and element.allowed_kpa < duty.working_kpa - 1e-6:
            yield _too_weak(case, carried, element)
        elif element.burst_kpa is not None and element.burst_kpa < duty.test_kpa:
            yield case.told(
                "under_test",
                element.where,
                code=UNDER_TEST[element.kind],
                source=element.source,
                element=element,
                burst=case.say_kpa(element.burst_kpa),
                tested=case.say_kpa(duty.test_kpa),
            )


def _unknown(case: Whole, carried: Carried, element: Element) -> Finding:
    working, code = case.say_kpa(carried.duty.working_kpa), UNRATED[element.kind]
    return case.told("rating_unknown", element.where, code=code, element=element, working=working)


def _too_weak(case: Whole, carried: Carried, element: Element) -> Finding:
    why = f" {case.kit.advice['weakest'].text}" if element.kind == "tube" else ""
    return case.told(
        "too_weak",
        element.where,
        code=TOO_WEAK[element.kind],
        source=element.source,
        element=element,
        allowed=case.say_kpa(element.allowed_kpa or 0.0),
        working=case.say_kpa(carried.duty.working_kpa),
        why=why,
        advice=_STRONGER[element.kind],
        fix=_stronger(case, element),
        safety=True,
    )


def _stronger(whole: Whole, element: Element) -> Fix | None:
    """Of a tube the thinnest wall of the same material and size that holds and takes both ends."""
    case = _case_of(whole, element)
    if case is None or element.kind != "tube" or not case.rigid.new:
        return None
    own = [
        tube
        for tube in case.kit.tubes.values()
        if tube.material == case.tube.material and tube.size == case.tube.size and case.good_tube(tube)
    ]
    if not own:
        return None
    tube = min(own, key=lambda row: row.wall_mm)
    return choose(f"Take {case.say_wall(tube.wall_mm)} of wall", (case.run.at("tube"), tube.id))


def _case_of(whole: Whole, element: Element) -> Case | None:
    return next((case for case in whole.cases if case.part.span == element.where.span), None)


def _limit_of_heat(whole: Whole, element: Element) -> str:
    case = _case_of(whole, element)
    if element.kind == "tube" and case is not None:
        return f"{case.material.name} is used up to {case.material.derating[-1][0]:.0f} °C"
    return f"it is made for {element.words}"


def _fluid(whole: Whole, carried: Carried) -> Iterator[Finding]:
    case = whole
    fluid, duty = carried.fluid, carried.duty
    made_for = case.kit.fluids.get(case.line.carries.made_for)
    if made_for is not None and made_for.family not in duty.made_for:
        yield whole.told(
            "made_for",
            case.whole(),
            source=duty.source,
            service=case.service.name,
            made_for=made_for.name,
            made_for_2=_families(case, duty.made_for),
        )
        made_for = None
    families = duty.families if made_for is None else (made_for.family,)
    if fluid.family not in families:
        expected = case.kit.fluids[duty.fluid] if made_for is None else made_for
        differ = bool(fluid.seals and expected.seals and fluid.seals != expected.seals)
        rule = case.kit.advice["glycol_mineral" if differ else "wrong_fluid"]
        fix = None
        if differ and made_for is None and fluid.family in duty.made_for:
            # the cap of the reservoir says so: then it is the right one
            fix = Fix(
                label=f"The system is made for {fluid.name}",
                changes=(Change(path=at("carries", "made_for"), value=fluid.id),),
            )
        yield whole.told(
            "wrong_fluid",
            case.whole(),
            source=rule.source,
            fix=fix,
            fluid=fluid.name,
            service=case.service.name,
            expected=expected.name,
            text=rule.text,
        )
    if fluid.freezes_c is not None and duty.cold_c < fluid.freezes_c:
        rule = whole.kit.advice["freezes"]
        yield whole.told(
            "freezes",
            whole.whole(),
            source=fluid.source,
            fluid=fluid.name,
            freezes_c=fluid.freezes_c,
            cold_c=duty.cold_c,
            text=rule.text,
        )
    for case in whole.cases:
        for attack in fluid.attacks:
            if attack.id not in (case.material.id, case.material.family):
                continue
            yield whole.told(
                "fluid_tube",
                case.this(),
                message=attack.reason,
                source=fluid.source,
                fluid=fluid.name,
                material=case.material.name,
            )


def _families(whole: Whole, families: tuple[str, ...]) -> str:
    """The fluids of some families by name."""
    return " or ".join(f.name for f in whole.kit.fluids.values() if f.family in families)
