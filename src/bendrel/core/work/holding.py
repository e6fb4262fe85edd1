"""A line's hold tests: what pressure is safe to prove it with, and what was noted, ready to be judged."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence

from bendrel.core.errors import BendrelError
from bendrel.core.findings import Source
from bendrel.core.line.document import Line
from bendrel.core.line.proving import Hold
from bendrel.core.parts.fluid import ATMOSPHERE_KPA
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.proving import GasRule, HoldKind
from bendrel.core.parts.service import Duty
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, UnitError
from bendrel.core.units.quantities import format_pressure, parse_pressure, parse_temperature, parse_volume
from bendrel.core.work.proof.hold import HoldTest

_NUMBER = re.compile(r"-?(?:[0-9]+\.?[0-9]*|\.[0-9]+)")
_CLOCK = re.compile(r"([0-9]{1,3}):([0-5][0-9])")


class HoldUnread(BendrelError, ValueError):
    """A hold test that cannot be judged as it was noted. The text is one sentence."""


@record
class HoldProposal:
    """What a line is proved with: `kpa` above (vacuum: below) the air, what must still stand after
    `minutes`, and why not more. `said` tells it in words; `danger` is what must be said of a gas, `liquid`
    that a liquid is asked for instead of one."""

    kind: HoldKind
    must: bool
    kpa: float
    threshold_kpa: float
    minutes: float
    said: str
    text: str
    danger: str
    liquid: str
    most_gas_kpa: float
    source: Source


def proposed(line: Line, kit: Kit, duty: Duty | None, weakest_kpa: float | None) -> HoldProposal | None:
    """The hold test of a line's service; None where it has none. Never more than the weakest element is
    allowed, nor for a gas more than is safe unless the line works with it."""
    rule = kit.proving.by_service[line.service]
    offer, gas = rule.hold, kit.proving.gas
    if offer is None or duty is None:
        return None
    kpa = offer.kpa if offer.kpa is not None else duty.working_kpa
    why = "as is usual in this service" if offer.kpa is not None else "the service's working pressure"
    if offer.kind != "vacuum" and weakest_kpa is not None and weakest_kpa < kpa:
        kpa, why = weakest_kpa, "no more than the weakest part is allowed"
    most = gas.most_kpa
    if offer.own_pressure:
        most = min(duty.working_kpa, duty.most_kpa or duty.working_kpa)
    if offer.kind == "gas" and kpa > most:
        kpa, why = most, "no more than a gas may stand at for a proof"
    way = "below" if offer.kind == "vacuum" else "above"
    return HoldProposal(
        kind=offer.kind,
        must=offer.must,
        kpa=kpa,
        threshold_kpa=kpa * offer.share,
        minutes=offer.minutes,
        said=(
            f"{format_pressure(kpa, line.unit)} {way} the air, {why}; after {offer.minutes:g} min there must "
            f"still be {format_pressure(kpa * offer.share, line.unit)}."
        ),
        text=offer.text,
        danger=gas.text if offer.kind == "gas" else "",
        liquid=""
        if offer.kind != "liquid"
        else "With liquid: it stores no energy worth speaking of. Not with air.",
        most_gas_kpa=most,
        source=rule.source,
    )


def hold_test(
    line: Line,
    hold: Hold,
    proposal: HoldProposal | None,
    volume_ml: float | None,
    recorded: tuple[Sequence[float], Sequence[float], Sequence[float] | None] | None,
    gas: GasRule,
) -> HoldTest:
    """A hold test as noted. `volume_ml` is what the line holds, `recorded` the times, absolute pressures and
    temperatures of its run (None: it was read by eye). Raises HoldUnread."""
    unit, air = line.unit, air_of(hold)
    volume = volume_ml
    if hold.volume.strip():
        volume = _read("volume", hold.volume, lambda text: parse_volume(text, "ml") * 1000)
    if volume is None or volume <= 0:
        raise HoldUnread("How much is shut in is not known: type its volume, such as 250 ml.")
    times, pressures, warm = recorded or _by_eye(hold, unit, air)
    threshold = _threshold(hold, unit, air, proposal, pressures)
    minutes = _read("minutes", hold.minutes, _minutes) if hold.minutes.strip() else None
    if minutes is None and proposal is not None and proposal.kind == hold.kind:
        minutes = proposal.minutes
    limit = proposal.most_gas_kpa if proposal is not None else gas.most_kpa
    if hold.kind == "gas" and len(pressures) and max(pressures) - air > limit * gas.over_share:
        there, most = format_pressure(max(pressures) - air, unit), format_pressure(limit, unit)
        raise HoldUnread(
            f"Gas at {there} is refused as a proof, {most} at most: it stores "
            "energy, and a joint that lets go is shot out. Let it off; use a liquid."
        )
    return HoldTest(
        kind=hold.kind,
        volume_ml=volume,
        times_s=times,
        pressures_kpa=pressures,
        temperatures_c=warm,
        air_kpa=air,
        threshold_kpa=threshold,
        hold_s=None if minutes is None else minutes * 60,
    )


def reached_kpa(test: HoldTest) -> float:
    """The most that was set, in kPa above the air (below it for a vacuum)."""
    if test.kind == "vacuum":
        return test.air_kpa - min(test.pressures_kpa)
    return max(test.pressures_kpa) - test.air_kpa


def air_of(hold: Hold) -> float:
    """The air's pressure at a hold test, kPa absolute. Raises HoldUnread."""
    return _read("air pressure", hold.air, parse_pressure) if hold.air.strip() else ATMOSPHERE_KPA


def _threshold(
    hold: Hold, unit: Unit, air: float, proposal: HoldProposal | None, pressures: Sequence[float]
) -> float | None:
    """As typed; else the service's share of what was set. Whether that was enough, `asked` says."""
    if hold.threshold.strip():
        return _absolute(_read("threshold", hold.threshold, lambda text: _kpa(text, unit)), hold, air)
    if proposal is None or proposal.kind != hold.kind:
        return None
    share = proposal.threshold_kpa / proposal.kpa
    reached = min(pressures, default=air) if hold.kind == "vacuum" else max(pressures, default=air)
    return air + share * (reached - air)


def _by_eye(hold: Hold, unit: Unit, air: float) -> tuple[list[float], list[float], list[float] | None]:
    times, pressures, warm = [], [], []
    for k, row in enumerate(hold.rows, start=1):
        if not row.pressure.strip():
            continue  # not read yet
        times.append(_read(f"reading {k}, time", row.minutes, _minutes) * 60)
        shown = _read(f"reading {k}, pressure", row.pressure, lambda text: _kpa(text, unit))
        pressures.append(_absolute(shown, hold, air))
        if row.temperature.strip():
            warm.append(_read(f"reading {k}, temperature", row.temperature, parse_temperature))
    return times, pressures, warm if warm and len(warm) == len(times) else None


def _absolute(shown: float, hold: Hold, air: float) -> float:
    if hold.reads == "absolute":
        return shown
    return air - shown if hold.reads == "below the air" else air + shown


def _read(name: str, text: str, parse: Callable[[str], float]) -> float:
    try:
        return parse(text)
    except UnitError as error:
        raise HoldUnread(f"{name.capitalize()}: {error}") from error


def _kpa(text: str, unit: Unit) -> float:
    """A pressure; a bare number is in bar beside millimetres, in psi beside inches."""
    clean = text.strip()
    if _NUMBER.fullmatch(clean):
        if float(clean) == 0:
            return 0.0
        clean = f"{clean} {'psi' if unit == 'in' else 'bar'}"
    return parse_pressure(clean)


def _minutes(text: str) -> float:
    """Minutes from `2.5` or `2:30`. Raises UnitError."""
    clean = text.strip()
    found = _CLOCK.fullmatch(clean)
    if found:
        return int(found[1]) + int(found[2]) / 60
    if _NUMBER.fullmatch(clean) and float(clean) >= 0:
        return float(clean)
    raise UnitError(f"“{text[:20]}” is no time; write minutes such as 2.5 or 2:30.")
