"""Rules on flow: whether the repair chokes the line, and whether enough arrives, cold and hot."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.flow.along import Flowing
from bendrel.core.flow.carried import Carried
from bendrel.core.judge.case import Whole
from bendrel.core.units.quantities import format_pressure


def _digits(flow_lpm: float) -> int:
    """Digits behind the point that a flow is told with."""
    return 0 if flow_lpm >= 10 else 1 if flow_lpm >= 1 else 2


def judge_flow(case: Whole) -> Iterator[Finding]:
    """Findings on what flows through one planned line."""
    carried, flowing = case.chosen.carried, case.chosen.flowing
    if carried is None or flowing is None:
        return
    yield from _choked(case, carried, flowing)
    yield from _starved(case, carried, flowing)
    yield from _fast(case, carried, flowing)


def _choked(case: Whole, carried: Carried, flowing: Flowing) -> Iterator[Finding]:
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
            message=f"{carried.duty.flow_lpm:g} L/min is more than this bore lets through at any vacuum.",
            source=carried.duty.source,
            advice="Choose a larger bore.",
        )


def _starved(case: Whole, carried: Carried, flowing: Flowing) -> Iterator[Finding]:
    """What the pressure in hand drives through the line against what the consumer needs hot; cold and thick
    it is only said."""
    duty = carried.duty
    source = duty.flow_source or duty.source
    available = format_pressure(duty.available_kpa, case.line.unit)
    if duty.available_kpa and flowing.unknown:
        yield Finding(
            severity="note",
            code="flow_unknown",
            where=case.whole(),
            title="What arrives is not known",
            message=f"Missing: {', '.join(flowing.unknown)}.",
            source=source,
            advice="Measure it, then the flow is reckoned.",
        )
    hot, cold = flowing.arrives_hot_lpm, flowing.arrives_cold_lpm
    if hot is None or cold is None:
        return
    starving = hot < duty.least_lpm
    if starving:
        severe = case.service.safety_critical
        yield Finding(
            severity="stop" if severe else "caution",
            code="starved",
            where=case.whole(),
            title="Too little arrives",
            message=(
                f"{available} may be lost on the way; that drives {hot:.{_digits(hot)}f} L/min through it at "
                f"{duty.hot_c:.0f} °C, {duty.least_lpm:g} L/min are needed. {case.kit.advice['starved'].text}"
            ),
            source=source,
            advice="Choose a larger bore or a shorter way.",
            safety=severe,
        )
    elif cold < duty.least_lpm:
        yield Finding(
            severity="note",
            code="slow_cold",
            where=case.whole(),
            title="Little arrives while it is cold",
            message=(
                f"{available} drive {cold:.{_digits(cold)}f} L/min through it at {duty.cold_c:.0f} °C, "
                f"{hot:.{_digits(hot)}f} L/min at {duty.hot_c:.0f} °C."
            ),
            source=source,
            advice="Let it run without load until it is warm, or use a thinner oil in winter.",
        )
    typed = "flow" in carried.own
    drop = flowing.hot.drop_kpa if flowing.hot is not None else None
    if typed and not starving and drop is not None and drop > duty.available_kpa:
        yield Finding(
            severity="caution",
            code="drop_over_available",
            where=case.whole(),
            title="That flow does not go through",
            message=(
                f"{duty.flow_lpm:g} L/min would lose {format_pressure(drop, case.line.unit)} hot; "
                f"{available} may be lost, which drives {hot:.{_digits(hot)}f} L/min."
            ),
            source=source,
            advice="Choose a larger bore, or correct the flow.",
            safety=case.service.safety_critical,
        )


def _fast(case: Whole, carried: Carried, flowing: Flowing) -> Iterator[Finding]:
    duty = carried.duty
    if not duty.velocity_mps or flowing.velocity_mps <= duty.velocity_mps:
        return
    typed = "flow" in carried.own
    yield Finding(
        severity="caution" if typed else "note",
        code="fast",
        where=case.whole(),
        title="The fluid runs fast in this bore",
        message=(
            f"{flowing.velocity_mps:.1f} m/s at {duty.flow_lpm:g} L/min; up to "
            f"{duty.velocity_mps:g} m/s is usual in {case.service.a_line}."
            + ("" if typed else " That flow is what is usual; type your own in Choose.")
        ),
        source=duty.source,
        advice="Choose a larger size, or correct the flow if it is less.",
    )
