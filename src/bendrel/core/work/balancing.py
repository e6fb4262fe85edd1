"""The fluid of one line: what was logged against what had run empty."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_volume
from bendrel.core.work.proof.balance import Balance, balance


def balance_of(line: Line, kit: Kit, volume_ml: float | None) -> Balance | None:
    """The balance of what was logged: against what had run empty as typed, else against what the line alone
    holds. None in a service whose fluid is not balanced, and for one that the catalogue lacks."""
    rule = kit.proving.by_service.get(line.service)
    if rule is None or not rule.balance:
        return None
    holds = volume_ml
    if line.proving.circuit_holds.strip():
        try:
            holds = parse_volume(line.proving.circuit_holds, "ml") * 1000
        except UnitError as error:
            found = balance(line.proving.fills, None, kit.proving.balance)
            return replace(found, problems=(*found.problems, f"what had run empty: {error}"))
    return balance(line.proving.fills, holds, kit.proving.balance)
