"""Whether a hold test is the one that was asked for: kind, pressure, time and limit by the service's.

A test that holds at half the pressure, or for a tenth of the time, proves nothing of the line; what was done
instead can be taken on with a reason, which stands in the record. Source: the services' own hold tests.
"""

from __future__ import annotations

from bendrel.core.line.proving import Hold
from bendrel.core.parts.proving import AskedRule
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.core.units.quantities import format_pressure
from bendrel.core.work.holding import HoldProposal, reached_kpa
from bendrel.core.work.proof.hold import HoldResult, HoldTest


@record
class HoldProof:
    """What a hold test proves. `short` says in sentences in what it was less than was asked, `taken` why
    that is taken on all the same (blank: it is not)."""

    result: HoldResult
    short: tuple[str, ...]
    taken: str

    @property
    def counts(self) -> bool:
        """It holds, and was what was asked for or is taken on with a reason."""
        return self.result.verdict == "holds" and (not self.short or bool(self.taken.strip()))


def proof_of(
    hold: Hold, test: HoldTest, result: HoldResult, asked: HoldProposal | None, rule: AskedRule, unit: Unit
) -> HoldProof:
    """A test and its result against what was `asked` (None: the service asks for no test)."""
    short = () if asked is None else _short(test, asked, rule, unit)
    return HoldProof(result=result, short=short, taken=hold.instead)


def _short(test: HoldTest, asked: HoldProposal, rule: AskedRule, unit: Unit) -> tuple[str, ...]:
    told = []
    reached, lasted_min = reached_kpa(test), (test.times_s[-1] - test.times_s[0]) / 60
    vacuum = "vacuum" in (test.kind, asked.kind)
    if test.kind != asked.kind:
        told.append(f"It was held with {_with(test.kind)}; {_with(asked.kind)} is asked for.")
    if test.kind == asked.kind or not vacuum:
        if reached < asked.kpa * rule.pressure_share:
            way = "below" if vacuum else "above"
            told.append(
                f"It stood at {format_pressure(reached, unit)} {way} the air; "
                f"{format_pressure(asked.kpa, unit)} is asked for."
            )
        limit = test.threshold_kpa
        kept = None if limit is None or reached <= 0 else abs(limit - test.air_kpa) / reached
        least = asked.threshold_kpa / asked.kpa
        if kept is not None and kept < least - rule.limit_share:
            told.append(f"Its limit lets {1 - kept:.0%} go; {1 - least:.0%} at most is asked for.")
    watched = min(lasted_min, lasted_min if test.hold_s is None else test.hold_s / 60)
    if watched < asked.minutes * rule.time_share:
        told.append(f"It was watched for {watched:.1f} min; {asked.minutes:g} min is asked for.")
    return tuple(told)


def _with(kind: str) -> str:
    return {"liquid": "a liquid", "gas": "a gas", "vacuum": "vacuum"}[kind]
