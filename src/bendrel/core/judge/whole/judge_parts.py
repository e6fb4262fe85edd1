"""Rules on components: their direction, a restrictor's bore, an old filter beside a new one."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.joints.direction import backwards, faces, one_way
from bendrel.core.joints.pieces import PlacedComponent
from bendrel.core.judge.case import Whole, set_value
from bendrel.core.judge.verdicts import said_against
from bendrel.core.line.paths import span_path
from bendrel.core.parts.verdict import VERDICT_ORDER


def judge_parts(case: Whole) -> Iterator[Finding]:
    """Findings on every component."""
    for placed in case.chosen.pieces.components:
        yield from _allowed(case, placed)
        yield from _direction(case, placed)
        yield from _bore(case, placed)
    yield from _old_filter(case)


def _allowed(case: Whole, part: PlacedComponent) -> Iterator[Finding]:
    """What the service says of its kind, and of what it is made of and for; the worse of the two."""
    named = [part.piece.what] + ([part.row.family] if part.row is not None else [])
    said = [v for name in named if (v := case.kit.verdict("component", name, case.service.id)) is not None]
    if part.piece.age == "old" or not said:
        return
    yield from said_against(
        case,
        max(said, key=lambda verdict: VERDICT_ORDER[verdict.verdict]),
        refused="part_refused",
        care="part_care",
        where=case.at_span(part.piece.id),
        what=f"{part.piece.what}, {part.row.name}" if part.row is not None else part.piece.what,
        advice="Take it out, or choose one that is made for this.",
    )


def _direction(case: Whole, part: PlacedComponent) -> Iterator[Finding]:
    rule = case.kit.advice["backwards"]
    chosen = case.chosen
    vacuum = chosen.carried is not None and chosen.carried.duty.vacuum
    name, where = part.piece.what, case.at_span(part.piece.id)
    reservoir = name == "reservoir"
    field = "source_port" if reservoir else "points"
    if backwards(part.piece, chosen.flows, vacuum=vacuum):
        turned = "A" if faces(part.piece) == "B" else "B"
        marked = one_way(part.piece, vacuum=vacuum)
        side = "its port to the source faces" if reservoir else "it points to"
        yield case.told(
            "backwards",
            where,
            severity="stop" if marked else "caution",
            safety=marked and case.service.safety_critical,
            fix=set_value("Turn it round", span_path(part.piece.id, field), turned),
            name=name,
            flows=chosen.flows,
            side=side,
            piece=faces(part.piece),
        )
    elif one_way(part.piece, vacuum=vacuum) and (
        faces(part.piece) == "not known" or chosen.flows in ("not known", "contradicts")
    ):
        known = faces(part.piece) != "not known"
        missing = "which way the line flows" if known else "which end its arrow points to"
        if reservoir and not known:
            missing = "which of its ports goes to the source: towards end A or end B"
        yield case.told(
            "direction_unknown",
            where,
            name=name,
            missing=missing,
            more=case.kit.advice["reservoir"].text if reservoir else rule.text,
        )


def _bore(case: Whole, part: PlacedComponent) -> Iterator[Finding]:
    if part.piece.what == "restrictor" and part.bore_mm is None:
        yield case.told("restrictor_bore", case.at_span(part.piece.id))


def _old_filter(case: Whole) -> Iterator[Finding]:
    parts = case.chosen.pieces.components
    new = [p for p in parts if p.piece.what == "restrictor" and p.piece.age == "new"]
    old = [p for p in parts if p.piece.what == "filter" and p.piece.age == "old"]
    if not new:
        return
    for part in old:
        yield case.told(
            "old_filter",
            case.at_span(part.piece.id),
            fix=set_value("A new filter is fitted", span_path(part.piece.id, "age"), "new"),
        )
