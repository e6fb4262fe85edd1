"""Fluid in, fluid out, and what the circuit holds: what is left unexplained."""

from __future__ import annotations

from collections.abc import Sequence

from bendrel.core.line.proving import FillRow
from bendrel.core.parts.proving import BalanceRule
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_moved_volume


@record
class Balance:
    """In ml: what went in, came out, stayed in the reservoir, and what the circuit holds (None while nobody
    knows). `unexplained_ml` is what went in and is nowhere; negative where there is room that nothing
    filled. `taking` says that the last turn of a repeated step still took fluid, None before two of them."""

    into_ml: float
    out_ml: float
    level_ml: float
    holds_ml: float | None
    unexplained_ml: float | None
    allowed_ml: float
    taking: bool | None
    off: bool
    reasons: tuple[str, ...]
    problems: tuple[str, ...]


def balance(rows: Sequence[FillRow], holds_ml: float | None, rule: BalanceRule) -> Balance:
    """The balance of one fill: in − out − change of the reservoir = what the circuit holds − air left.

    Source: conservation of volume; what may be unexplained is the catalogue's.
    """
    problems: list[str] = []

    def ml(text: str, name: str, *, signed: bool = False) -> float:
        if not text.strip():
            return 0.0
        try:
            found = parse_moved_volume(text, "ml") * 1000
        except UnitError as error:
            problems.append(f"{name}: {error}")
            return 0.0
        if found < 0 and not signed:
            problems.append(f"{name}: {text} is negative; what went the other way stands in its own field.")
        return found

    into = [ml(row.into, "in") for row in rows]
    out = [ml(row.out, "out") for row in rows]
    level = [ml(row.level, "level", signed=True) for row in rows]
    allowed = max(rule.share * sum(into), rule.ml)
    unexplained = None
    if holds_ml is not None and sum(into) > 0 and not problems:
        unexplained = sum(into) - sum(out) - sum(level) - holds_ml
    off = unexplained is not None and abs(unexplained) > allowed
    return Balance(
        into_ml=sum(into),
        out_ml=sum(out),
        level_ml=sum(level),
        holds_ml=holds_ml,
        unexplained_ml=unexplained,
        allowed_ml=allowed,
        taking=_taking(rows, rule),
        off=off,
        reasons=_reasons(unexplained) if off and unexplained is not None else (),
        problems=tuple(problems),
    )


def _taking(rows: Sequence[FillRow], rule: BalanceRule) -> bool | None:
    """Whether the last turn of the step that was done last still took fluid or showed air."""
    if not rows:
        return None
    last = [row for row in rows if row.step == rows[-1].step]
    if len(last) < 2:
        return None
    try:
        took = parse_moved_volume(last[-1].into, "ml") * 1000 if last[-1].into.strip() else 0.0
    except UnitError:
        return None
    return took >= rule.taken_ml or last[-1].air in ("a little", "much")


def _reasons(unexplained: float) -> tuple[str, ...]:
    if unexplained > 0:
        return (
            "a joint leaks: look at every one, and under the machine",
            "fluid that came out was not booked, or was spilled",
            "more of the system had run empty than is put down as what it holds",
        )
    return (
        "air is still in it: bleed on, the highest point first",
        "fluid that went in was not booked",
        "less of the system had run empty than is put down as what it holds",
    )
