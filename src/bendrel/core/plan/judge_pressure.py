"""Rules on pressure, heat and flow: the weakest element, the fluid, and whether the repair chokes it."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.plan.carried import Carried
from bendrel.core.plan.case import Case
from bendrel.core.plan.chosen import Chosen
from bendrel.core.plan.strength import Element
from bendrel.core.quantities import format_pressure


def judge_pressure(case: Case, chosen: Chosen) -> Iterator[Finding]:
    """Findings on strength, fluid and flow of one planned part."""
    carried = chosen.carried
    if carried is None:
        return
    yield from _strength(case, carried, chosen)
    yield from _fluid(case, carried)
    yield from _flow(case, carried, chosen)


def _strength(case: Case, carried: Carried, chosen: Chosen) -> Iterator[Finding]:
    if chosen.strength is None or carried.duty.vacuum:
        return
    rule, duty = case.kit.advice["weakest"], carried.duty
    for element in chosen.strength.elements:
        if element.too_hot:
            yield Finding(
                severity="stop",
                code=f"too_hot_{element.id.split('-')[0]}",
                where=element.where,
                title=f"Too hot for the {element.name}",
                message=f"The line runs at up to {duty.hot_c:.0f} °C; {_limit_of_heat(case, element)}.",
                source=element.source,
                advice="Choose a material or class made for the heat, or keep it away from it.",
                safety=True,
            )
        elif element.allowed_kpa is not None and element.allowed_kpa < duty.working_kpa:
            allowed = format_pressure(element.allowed_kpa, case.line.unit)
            working = format_pressure(duty.working_kpa, case.line.unit)
            yield Finding(
                severity="stop",
                code=f"pressure_{element.id.split('-')[0]}",
                where=element.where,
                title=f"Not strong enough: {element.name}",
                message=f"{allowed} is allowed, the line works at {working} ({element.words}). {rule.text}",
                source=element.source,
                advice="Choose a thicker wall, another material or joint, or a larger radius.",
                safety=True,
            )
        elif element.burst_kpa is not None and element.burst_kpa < duty.test_kpa:
            burst = format_pressure(element.burst_kpa, case.line.unit)
            tested = format_pressure(duty.test_kpa, case.line.unit)
            yield Finding(
                severity="stop",
                code=f"test_{element.id.split('-')[0]}",
                where=element.where,
                title=f"Would burst at its test: {element.name}",
                message=f"It bursts at {burst} and is tested at {tested}.",
                source=element.source,
                advice="Choose a thicker wall or another material.",
                safety=True,
            )


def _limit_of_heat(case: Case, element: Element) -> str:
    if element.id == "tube":
        return f"{case.material.name} is used up to {case.material.derating[-1][0]:.0f} °C"
    return f"it is made for {element.words}"


def _fluid(case: Case, carried: Carried) -> Iterator[Finding]:
    fluid, duty = carried.fluid, carried.duty
    if fluid.family not in duty.families:
        rule = case.kit.advice["glycol_mineral"]
        usual = case.kit.fluids[duty.fluid].name
        yield Finding(
            severity="stop",
            code="wrong_fluid",
            where=case.whole(),
            title=f"{fluid.name} does not belong in a {case.service.name} line",
            message=f"It usually carries {usual}. {rule.text}",
            source=rule.source,
            advice="Choose a fluid of the right family; the machine's service manual names it.",
            safety=True,
        )
    for attack in fluid.attacks:
        if attack.id in (case.material.id, case.material.family):
            yield Finding(
                severity="caution",
                code="fluid_tube",
                where=case.whole(),
                title=f"{fluid.name} harms {case.material.name}",
                message=attack.reason,
                source=fluid.source,
                advice="Choose another material.",
                safety=case.service.safety_critical,
            )


def _flow(case: Case, carried: Carried, chosen: Chosen) -> Iterator[Finding]:
    flowing, duty = chosen.flowing, carried.duty
    if flowing is None:
        return
    limit = case.kit.limits["choked_share"]
    if carried.old_bore_mm is not None and flowing.narrowest_mm < carried.old_bore_mm * limit.value:
        drop = ""
        if flowing.hot is not None and flowing.old_hot is not None and flowing.old_hot.drop_kpa:
            times = (flowing.hot.drop_kpa or 0.0) / flowing.old_hot.drop_kpa
            drop = f" The drop is {times:.1f} times the old one, hot."
        yield Finding(
            severity="caution",
            code="choked",
            where=case.whole(),
            title="The repair chokes the line",
            message=(
                f"The narrowest bore is {flowing.narrowest_mm:.1f} mm, the old line had "
                f"{carried.old_bore_mm:.1f} mm.{drop}"
            ),
            source=limit.source,
            advice="Choose the old size, or a thinner wall.",
        )
    if flowing.hot is not None and flowing.hot.drop_kpa is None:
        yield Finding(
            severity="stop",
            code="gas_choked",
            where=case.whole(),
            title="That much air does not pass",
            message=f"{duty.flow_lpm:g} L/min is more than this bore lets through at any vacuum.",
            source=duty.source,
            advice="Choose a larger bore.",
        )
    if duty.velocity_mps and flowing.hot is not None and flowing.hot.velocity_mps > duty.velocity_mps:
        typed = "flow" in carried.own
        yield Finding(
            severity="caution" if typed else "note",
            code="fast",
            where=case.whole(),
            title="The fluid runs fast in this bore",
            message=(
                f"{flowing.hot.velocity_mps:.1f} m/s at {duty.flow_lpm:g} L/min; up to "
                f"{duty.velocity_mps:g} m/s is usual in a {case.service.name} line."
                + ("" if typed else " The flow is the usual one of this service: say yours.")
            ),
            source=duty.source,
            advice="Choose a larger size, or correct the flow if it is less.",
        )
