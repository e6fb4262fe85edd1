"""Rules on what was typed of a line: pressure and heat far from what is usual in its service."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from bendrel.core.chain.carried import Carried
from bendrel.core.chain.strength import strength_of
from bendrel.core.findings import Finding
from bendrel.core.quantities import format_pressure
from bendrel.core.rules.case import Whole


def judge_typed(case: Whole) -> Iterator[Finding]:
    """Findings on a pressure or a heat that the person typed. What is over the service's own limit is another
    service; what is far under or over the usual is asked for a reason."""
    carried = case.chosen.carried
    if carried is None or case.service.left_to:
        return
    yield from _other_service(case, carried)
    yield from _pressure(case, carried)
    yield from _heat(case, carried)


def _other_service(case: Whole, carried: Carried) -> Iterator[Finding]:
    duty = carried.duty
    if duty.most_kpa and duty.working_kpa > duty.most_kpa:
        yield Finding(
            severity="stop",
            code="other_service",
            where=case.whole(),
            title=f"{format_pressure(duty.working_kpa, case.line.unit)} is no {case.service.name} line",
            message=f"Up to {format_pressure(duty.most_kpa, case.line.unit)}: {duty.most_text}.",
            source=duty.source,
            advice="Correct the pressure, or choose the service that it belongs to.",
            safety=True,
        )


def _pressure(case: Whole, carried: Carried) -> Iterator[Finding]:
    duty, limits, advice = carried.duty, case.kit.limits, case.kit.advice
    if duty.vacuum:
        return
    usual = format_pressure(carried.usual_kpa, case.line.unit)
    working = format_pressure(duty.working_kpa, case.line.unit)
    low = duty.working_kpa < carried.usual_kpa * limits["low_pressure_share"].value
    if low and not case.line.carries.why_low.strip():
        high = carried.usual_kpa >= limits["high_pressure_kpa"].value
        yield Finding(
            severity="stop" if high and case.service.safety_critical else "caution",
            code="low_pressure",
            where=case.whole(),
            title=f"Only {working} on {case.service.a_line}?",
            message=f"{usual} is usual. {advice['low_pressure'].text}",
            source=duty.source,
            safety=case.service.safety_critical,
        )
    over = duty.working_kpa > carried.usual_kpa * limits["over_pressure_share"].value
    if (
        over
        and not (duty.most_kpa and duty.working_kpa > duty.most_kpa)
        and not case.line.carries.why_high.strip()
    ):
        yield Finding(
            severity="caution",
            code="over_pressure",
            where=case.whole(),
            title=f"{working} on {case.service.a_line}?",
            message=f"{usual} is usual. {advice['over_pressure'].text}",
            source=duty.source,
            safety=case.service.safety_critical,
        )


def _heat(case: Whole, carried: Carried) -> Iterator[Finding]:
    duty, limits, usual_c = carried.duty, case.kit.limits, carried.usual_hot_c
    if case.line.carries.why_heat.strip():
        return
    low = duty.hot_c < usual_c - limits["low_heat_c"].value
    if not low and duty.hot_c <= usual_c + limits["over_heat_c"].value:
        return
    weak = _weak_at_the_usual(case, carried) if low else []
    told = f"{weak[0]} would not stand it. " if weak else ""
    advice = case.kit.advice["low_heat" if low else "over_heat"].text
    yield Finding(
        severity="stop" if weak and case.service.safety_critical else "caution",
        code="low_heat" if low else "over_heat",
        where=case.whole(),
        title=f"{'Only ' if low else ''}{duty.hot_c:.0f} °C at the hottest on {case.service.a_line}?",
        message=f"{usual_c:.0f} °C is usual. {told}{advice}",
        source=duty.source,
        safety=case.service.safety_critical,
    )


def _weak_at_the_usual(case: Whole, carried: Carried) -> list[str]:
    """What is too hot, or not strong enough any more, at the service's usual heat."""
    usual = replace(carried, duty=replace(carried.duty, hot_c=carried.usual_hot_c))
    found = strength_of(case.kit, case.rigids, case.chosen.pieces, usual)
    pressed = not (usual.duty.vacuum or usual.duty.open)
    return [
        f"The {element.name}"
        for element in found.elements
        if element.too_hot
        or (
            pressed
            and element.allowed_kpa is not None
            and element.allowed_kpa < usual.duty.working_kpa - 1e-6
        )
    ]
