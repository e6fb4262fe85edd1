"""Rules on flow: whether the repair chokes the line, and whether enough arrives, cold and hot."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.flow.along import Flowing
from bendrel.core.judge.case import Whole
from bendrel.core.line.carried import Carried
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
        yield case.told(
            "choked",
            case.whole(),
            narrowest_mm=flowing.narrowest_mm,
            old_bore_mm=carried.old_bore_mm,
            drop=drop,
        )
    if flowing.hot is not None and flowing.hot.drop_kpa is None:
        yield case.told(
            "gas_choked", case.whole(), source=carried.duty.source, flow_lpm=carried.duty.flow_lpm
        )


def _starved(case: Whole, carried: Carried, flowing: Flowing) -> Iterator[Finding]:
    """What the pressure in hand drives through the line against what the consumer needs hot; cold and thick
    it is only said."""
    duty = carried.duty
    source = duty.flow_source or duty.source
    available = format_pressure(duty.available_kpa, case.line.unit)
    if duty.available_kpa and flowing.unknown:
        yield case.told("flow_unknown", case.whole(), source=source, unknown=", ".join(flowing.unknown))
    hot, cold = flowing.arrives_hot_lpm, flowing.arrives_cold_lpm
    if hot is None or cold is None:
        return
    starving = hot < duty.least_lpm
    if starving:
        yield case.told(
            "starved",
            case.whole(),
            source=source,
            available=available,
            hot=f"{hot:.{_digits(hot)}f}",
            hot_c=duty.hot_c,
            least_lpm=duty.least_lpm,
        )
    elif cold < duty.least_lpm:
        yield case.told(
            "slow_cold",
            case.whole(),
            source=source,
            available=available,
            cold=f"{cold:.{_digits(cold)}f}",
            cold_c=duty.cold_c,
            hot=f"{hot:.{_digits(hot)}f}",
            hot_c=duty.hot_c,
        )
    typed = "flow" in carried.own
    drop = flowing.hot.drop_kpa if flowing.hot is not None else None
    if typed and not starving and drop is not None and drop > duty.available_kpa:
        yield case.told(
            "drop_over_available",
            case.whole(),
            source=source,
            flow_lpm=duty.flow_lpm,
            drop=format_pressure(drop, case.line.unit),
            available=available,
            hot=f"{hot:.{_digits(hot)}f}",
        )


def _fast(case: Whole, carried: Carried, flowing: Flowing) -> Iterator[Finding]:
    duty = carried.duty
    if not duty.velocity_mps or flowing.velocity_mps <= duty.velocity_mps:
        return
    typed = "flow" in carried.own
    yield case.told(
        "fast",
        case.whole(),
        source=duty.source,
        severity="caution" if typed else "note",
        velocity_mps=flowing.velocity_mps,
        flow_lpm=duty.flow_lpm,
        velocity_mps_2=duty.velocity_mps,
        more="" if typed else " That flow is what is usual; type your own in Choose.",
    )
