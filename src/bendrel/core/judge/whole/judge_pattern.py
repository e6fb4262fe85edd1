"""Rules on a hose whose length was taken from a wire laid in, or from the old hose."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Change, Finding, Fix
from bendrel.core.joints.hose_read import PatternRead
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.judge.case import Whole
from bendrel.core.judge.whole.hose_fixes import hose_at


def judge_pattern(case: Whole) -> Iterator[Finding]:
    """Findings on every hose that has a pattern: too tight where that was, another length than it had."""
    for hose in case.chosen.pieces.hoses:
        if hose.pattern is None:
            continue
        yield from _tight(case, hose, hose.pattern)
        yield from _length(case, hose, hose.pattern)


def _tight(case: Whole, hose: PlacedHose, read: PatternRead) -> Iterator[Finding]:
    needs = hose.hose_class.least_radius_mm(hose.hose)
    if read.radius_mm is None or read.radius_mm >= needs - case.hand_mm:
        return
    told, needed = case.say_apart(read.radius_mm, needs)
    yield case.told(
        "hose_pattern_tight",
        case.at_span(hose.piece.id),
        source=hose.hose.source,
        by=read.by,
        radius=told,
        needs=needed,
        place="" if read.at_mm is None else f", {case.say(read.at_mm)} from end A",
    )


def _length(case: Whole, hose: PlacedHose, read: PatternRead) -> Iterator[Finding]:
    if read.length_mm is None:
        return
    said = case.say(read.length_mm)
    pulled, has = read.was == "pulled", hose.length_mm
    if has is None:
        yield case.told(
            "hose_pattern_longer" if pulled else "hose_pattern_unused",
            case.at_span(hose.piece.id),
            fix=None if pulled else _as_long(hose, read.length_mm, said),
            by=read.by,
            length=said,
            has="",
        )
    elif has < read.length_mm - case.hand_mm or (pulled and has <= read.length_mm + case.hand_mm):
        yield case.told(
            "hose_pattern_longer" if pulled else "hose_pattern_short",
            case.at_span(hose.piece.id),
            fix=None if pulled else _as_long(hose, read.length_mm, said),
            by=read.by,
            length=said,
            has=f" This one is {case.say(has)}.",
        )
    elif read.was == "rubbed" and not hose.piece.sleeved:
        yield case.told("hose_pattern_rubbed", case.at_span(hose.piece.id), length=said)


def _as_long(hose: PlacedHose, mm: float, said: str) -> Fix:
    values: tuple[tuple[str, str | float], ...] = (("text", said), ("exact_mm", mm))
    return Fix(
        label=f"Make it {said} long",
        changes=tuple(Change(path=hose_at(hose, "length", name), value=value) for name, value in values),
    )
