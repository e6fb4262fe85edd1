"""Use cases at the tool: the order of bends, how a bend swings, how exact the part will be."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.attool.order_report import AtBench, at_bench
from bendrel.core.attool.sweep import SwingView, swing_view
from bendrel.core.bending.section import Section
from bendrel.core.findings import Finding
from bendrel.core.fitup.asbuilt import MadeBend
from bendrel.core.fitup.exactness import Exactness
from bendrel.core.line.document import Line
from bendrel.core.making.exact import how_exact
from bendrel.core.making.remade import Remade, remake
from bendrel.core.plan.assemble import plan_line
from bendrel.core.record import record
from bendrel.core.rigid.choosing import choices_of
from bendrel.core.rigid.part import Part
from bendrel.core.rigid.start import StartAdvice, where_to_start
from bendrel.core.rigid.step_by_step import BenchStep, bench_steps
from bendrel.core.rules.piece.judge_section import sections_of
from bendrel.core.shop.choices import Choices
from bendrel.core.shop.kit import Kit
from bendrel.exchange.tape import build_tape
from bendrel.services.errors import Refused


@record
class BenchReport:
    """Everything about making a part that takes longer than a keystroke to work out. `findings` come
    beside those of the plan."""

    at: AtBench
    start: StartAdvice
    exact: Exactness
    sections: tuple[Section | None, ...]
    flat_limit: float
    findings: tuple[Finding, ...]


@record
class PartStanding:
    """A part that is being made: its steps and how it stands."""

    part: Part
    steps: tuple[BenchStep, ...]
    remade: Remade


def report(line: Line, kit: Kit) -> BenchReport:
    """The report of a line as typed. Raises Refused while it cannot be planned."""
    part, chosen = _planned(line, kit)
    at = at_bench(line, kit, part)
    exact, said = how_exact(line, kit, chosen, part)
    sections, limit = sections_of(line, kit, chosen, part)
    reasons = {(taken.code, taken.where): taken.reason for taken in line.set_aside}
    findings = tuple(
        replace(f, set_aside=reasons.get((f.code, str(f.where)), "")) for f in (*at.findings, *said)
    )
    return BenchReport(
        at=at,
        start=where_to_start(line, part),
        exact=exact,
        sections=sections,
        flat_limit=limit,
        findings=findings,
    )


def swing(line: Line, kit: Kit, move: int) -> SwingView:
    """One move as it swings. Raises Refused."""
    part, _ = _planned(line, kit)
    if not 1 <= move <= len(part.moves):
        raise Refused(f"There is no move {move}; this part has {len(part.moves)}.")
    return swing_view(line, kit, part, move)


def standing(line: Line, kit: Kit, made: tuple[MadeBend, ...]) -> PartStanding:
    """How a part stands of which some bends are made. Raises Refused."""
    part, chosen = _planned(line, kit)
    numbers = [item.bend for item in made]
    wrong = [n for n in numbers if n > len(part.bends)]
    if wrong or len(set(numbers)) != len(numbers):
        raise Refused("The bends that are made are not those of this plan; begin a new making.")
    return PartStanding(part=part, steps=bench_steps(part), remade=remake(line, kit, part, chosen, made))


def print_tape(line: Line, kit: Kit) -> bytes:
    """PDF of the paper tape, to scale. Raises Refused."""
    part, chosen = _planned(line, kit)
    return build_tape(line, part, chosen.tube.size)


def _planned(line: Line, kit: Kit) -> tuple[Part, Choices]:
    plan = plan_line(line, kit)
    chosen = choices_of(line, kit)
    if plan.part is None or chosen is None:
        reason = plan.problems[0].message if plan.problems else "it cannot be planned yet."
        raise Refused(f"Not yet: {reason}")
    return plan.part, chosen
