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
        yield Finding(
            severity="stop" if marked else "caution",
            code="backwards",
            where=where,
            title=f"The {name} stands the wrong way round",
            message=f"The line flows {chosen.flows}, {side} {faces(part.piece)}. {rule.text}",
            source=rule.source,
            fix=set_value("Turn it round", span_path(part.piece.id, field), turned),
            safety=marked and case.service.safety_critical,
        )
    elif one_way(part.piece, vacuum=vacuum) and (
        faces(part.piece) == "not known" or chosen.flows in ("not known", "contradicts")
    ):
        known = faces(part.piece) != "not known"
        missing = "which way the line flows" if known else "which end its arrow points to"
        if reservoir and not known:
            missing = "which of its ports goes to the source: towards end A or end B"
        yield Finding(
            severity="caution",
            code="direction_unknown",
            where=where,
            title=f"Is the {name} the right way round?",
            message=f"Say {missing}. " + (case.kit.advice["reservoir"].text if reservoir else rule.text),
            source=rule.source,
            advice="Look for the arrow, or blow through it: a check valve passes one way only.",
        )


def _bore(case: Whole, part: PlacedComponent) -> Iterator[Finding]:
    if part.piece.what == "restrictor" and part.bore_mm is None:
        yield Finding(
            severity="note",
            code="restrictor_bore",
            where=case.at_span(part.piece.id),
            title="The restrictor's bore is not measured",
            message="Without it nothing can be said of what it lets through.",
            source=case.kit.limits["orifice_cd"].source,
            advice="Measure it with a drill shank that just passes.",
        )


def _old_filter(case: Whole) -> Iterator[Finding]:
    parts = case.chosen.pieces.components
    new = [p for p in parts if p.piece.what == "restrictor" and p.piece.age == "new"]
    old = [p for p in parts if p.piece.what == "filter" and p.piece.age == "old"]
    if not new:
        return
    rule = case.kit.advice["old_filter"]
    for part in old:
        yield Finding(
            severity="stop",
            code="old_filter",
            where=case.at_span(part.piece.id),
            title="An old filter beside a new restrictor",
            message=rule.text,
            source=rule.source,
            fix=set_value("A new filter is fitted", span_path(part.piece.id, "age"), "new"),
            safety=case.service.safety_critical,
        )
