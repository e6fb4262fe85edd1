"""Rules on a bought hose that was read before it is fitted."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.judge.case import Whole
from bendrel.core.units.notation import format_clock


def judge_bought_hose(case: Whole) -> Iterator[Finding]:
    """Findings on every bought hose that was read: another length than it is to have, elbows that stand
    otherwise."""
    laid = {one.span: one.clock_deg for one in case.laid}
    for hose in case.chosen.pieces.hoses:
        if hose.bought is not None and hose.piece.state != "stays":
            yield from _length(case, hose, hose.bought.length_mm)
            if hose.piece.angle_a != 0 and hose.piece.angle_b != 0:
                wanted = laid.get(hose.piece.id, hose.clock_deg)
                yield from _clock(case, hose, hose.bought.clock_deg, wanted)


def _length(case: Whole, hose: PlacedHose, read_mm: float | None) -> Iterator[Finding]:
    wanted = hose.length_mm
    if read_mm is None or wanted is None:
        return
    allowed = max(case.hand_mm, case.kit.limits["bought_hose_share"].value * wanted)
    told, needed = case.say_apart(read_mm, wanted)
    if read_mm < wanted - allowed:
        yield case.told("bought_hose_short", case.at_span(hose.piece.id), length=told, wanted=needed)
    elif read_mm > wanted + allowed:
        yield case.told("bought_hose_long", case.at_span(hose.piece.id), length=told, wanted=needed)


def _clock(case: Whole, hose: PlacedHose, read_deg: float | None, wanted: float | None) -> Iterator[Finding]:
    """How its elbows stand against what was asked for, or else what its way makes of them."""
    if read_deg is None or wanted is None:
        return
    off = abs((read_deg - wanted + 180.0) % 360.0 - 180.0)
    if off > case.kit.limits["bought_hose_deg"].value:
        yield case.told(
            "bought_hose_clock",
            case.at_span(hose.piece.id),
            clock=format_clock(read_deg),
            wanted=format_clock(wanted),
            off=f"{off:.0f}°",
        )
