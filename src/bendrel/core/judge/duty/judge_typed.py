"""Rules on what was typed of a line: pressure and heat far from what is usual in its service."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from bendrel.core.findings import Finding, Severity, Source
from bendrel.core.flow.strength import strength_of
from bendrel.core.judge.case import Whole
from bendrel.core.line.carried import Carried
from bendrel.core.units.quantities import format_pressure


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
        yield case.told(
            "other_service",
            case.whole(),
            source=duty.source,
            working=format_pressure(duty.working_kpa, case.line.unit),
            most=format_pressure(duty.most_kpa, case.line.unit),
            most_text=duty.most_text,
        )


def _pressure(case: Whole, carried: Carried) -> Iterator[Finding]:
    duty, limits, carries = carried.duty, case.kit.limits, case.line.carries
    if duty.vacuum:
        return
    usual = format_pressure(carried.usual_kpa, case.line.unit)
    working = format_pressure(duty.working_kpa, case.line.unit)
    if duty.working_kpa < carried.usual_kpa * limits["low_pressure_share"].value:
        if not carries.why_low.strip():
            stops = carried.usual_kpa >= limits["high_pressure_kpa"].value
            yield _unusual(case, duty.source, "low_pressure", f"Only {working}", f"{usual} is usual.", stops)
        return
    impossible = duty.most_kpa and duty.working_kpa > duty.most_kpa
    over = duty.working_kpa > carried.usual_kpa * limits["over_pressure_share"].value
    if over and not impossible and not carries.why_high.strip():
        yield _unusual(case, duty.source, "over_pressure", working, f"{usual} is usual.", stops=False)


def _heat(case: Whole, carried: Carried) -> Iterator[Finding]:
    duty, limits, usual_c = carried.duty, case.kit.limits, carried.usual_hot_c
    if case.line.carries.why_heat.strip():
        return
    low = duty.hot_c < usual_c - limits["low_heat_c"].value
    if not low and duty.hot_c <= usual_c + limits["over_heat_c"].value:
        return
    weak = _weak_at_the_usual(case, carried) if low else []
    told = f"{usual_c:.0f} °C is usual."
    if weak:
        told = f"{told} {weak[0]} would not stand it."
    what = f"{'Only ' if low else ''}{duty.hot_c:.0f} °C at the hottest"
    code: Odd = "low_heat" if low else "over_heat"
    yield _unusual(case, duty.source, code, what, told, stops=bool(weak))


Odd = Literal["low_pressure", "over_pressure", "low_heat", "over_heat"]
"""The questions about a figure: the code of each is the name of its advice too."""


def _unusual(case: Whole, source: Source, code: Odd, what: str, told: str, stops: bool) -> Finding:
    """A question about a figure; it `stops` only a line that can hurt someone."""
    severity: Severity = "stop" if stops and case.service.safety_critical else "caution"
    said = f"{told} {case.kit.advice[code].text}"
    where = case.whole()
    return case.told("unusual", where, code=code, severity=severity, source=source, what=what, said=said)


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
