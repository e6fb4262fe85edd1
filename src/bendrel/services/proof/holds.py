"""A hold test from a file of readings: what the command line answers."""

from __future__ import annotations

from typing import Any, get_args

from bendrel.catalogue.loader import load_kit
from bendrel.core.parts.proving import HoldKind
from bendrel.core.work.proof.hold import HoldError, HoldTest, judge_hold
from bendrel.exchange.readings.readings import read_readings


def hold_answer(
    data: bytes,
    kind: str,
    volume_ml: float,
    air_kpa: float,
    threshold_kpa: float | None,
    hold_s: float | None,
    bulk_kpa: float,
) -> dict[str, Any]:
    """What the readings say. Raises FileError and HoldError."""
    known: dict[str, HoldKind] = {name: name for name in get_args(HoldKind)}
    if kind not in known:
        raise HoldError(f"--kind {kind[:20]}: {', '.join(known)} are accepted.")
    readings = read_readings(data)
    result = judge_hold(
        HoldTest(
            kind=known[kind],
            volume_ml=volume_ml,
            times_s=readings.times_s,
            pressures_kpa=readings.pressures_kpa,
            temperatures_c=readings.temperatures_c,
            air_kpa=air_kpa,
            threshold_kpa=threshold_kpa,
            hold_s=hold_s,
            bulk_kpa=bulk_kpa,
        ),
        load_kit().proving.hold,
    )
    return {
        "kind": result.kind,
        "verdict": result.verdict,
        "leak_ml_per_min": result.leak_ml_per_min,
        "leak_doubt": result.leak_doubt,
        "tau_s": result.tau_s,
        "settled_from_s": result.settled_from_s,
        "hold_s": result.hold_s,
        "notes": list(result.notes),
    }
