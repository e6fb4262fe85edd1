"""Use cases at the tool: the order of bends, how a bend swings, how exact the part will be."""

from __future__ import annotations

from bendrel.core.bend.bench.exact import how_exact
from bendrel.core.bend.bench.order_report import AtBench, at_bench
from bendrel.core.bend.bench.remade import Remade, remake
from bendrel.core.bend.bench.sweep import SwingView, swing_view
from bendrel.core.bend.fitting.exactness import Exactness
from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.bend.told.flared import MadeFlare
from bendrel.core.bend.told.offered import TypedOffer
from bendrel.core.bend.told.spread import HandRead, hands_of
from bendrel.core.bend.tool.section import Section
from bendrel.core.bend.tube.part import Part
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.bend.tube.start import StartAdvice, where_to_start
from bendrel.core.findings import Finding
from bendrel.core.judge.piece.judge_section import sections_of
from bendrel.core.judge.set_aside import worst_first
from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step, cautioned
from bendrel.core.plan.planner import tube_of_plan
from bendrel.core.record import record
from bendrel.core.work.flared import FlareStands, flare_stands
from bendrel.core.work.making import bench_steps, steps_for
from bendrel.exchange.paper.tape import build_tape
from bendrel.services.errors import Refused
from bendrel.services.shelf.tubes import tube_of


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
    steps: tuple[Step, ...]
    remade: Remade


def report(line: Line, kit: Kit, span: str = "") -> BenchReport:
    """The report of one tube of a line as typed. Raises Refused while it cannot be planned."""
    rigid = planned_of(line, kit, span)
    run, part, chosen = rigid.run, rigid.part, rigid.choices
    at = at_bench(run, kit, part)
    exact, said = how_exact(run, kit, chosen, part)
    sections, limit = sections_of(line, kit, chosen, part)
    return BenchReport(
        at=at,
        start=where_to_start(run, part),
        exact=exact,
        sections=sections,
        flat_limit=limit,
        findings=worst_first(line, (*at.findings, *said)),
    )


def swing(line: Line, kit: Kit, move: int, span: str = "") -> SwingView:
    """One move as it swings. Raises Refused."""
    rigid = planned_of(line, kit, span)
    part = rigid.part
    if not 1 <= move <= len(part.moves):
        raise Refused(f"There is no move {move}; this part has {len(part.moves)}.")
    return swing_view(rigid.run, kit, part, move)


def standing(
    line: Line, kit: Kit, made: tuple[MadeBend, ...], span: str = "", offers: tuple[TypedOffer, ...] = ()
) -> PartStanding:
    """How a part stands of which some bends are made. Raises Refused."""
    rigid = planned_of(line, kit, span)
    part = rigid.part
    numbers = [item.bend for item in made]
    wrong = [n for n in numbers if n > len(part.bends)]
    if wrong or len(set(numbers)) != len(numbers):
        raise Refused("The bends that are made are not those of this plan; begin a new making.")
    return PartStanding(
        part=part,
        steps=bench_steps(part, cautioned(steps_for(rigid, kit), kit, line.service)),
        remade=remake(rigid.run, kit, part, rigid.choices, made, offers),
    )


def flares_stand(
    line: Line, kit: Kit, flares: tuple[MadeFlare, ...], span: str = ""
) -> tuple[FlareStands, ...]:
    """How every flare of a tube stands, those included of which nothing was noted yet. Raises Refused."""
    noted = {one.end: one for one in flares}
    steps = [step for step in steps_for(planned_of(line, kit, span), kit) if step.kind == "flare"]
    return tuple(
        flare_stands(step.flaring, noted.get(step.flaring.end, MadeFlare(end=step.flaring.end)), line.unit)
        for step in steps
        if step.flaring is not None
    )


def hands_read(
    line: Line, kit: Kit, made: tuple[MadeBend, ...], span: str, offers: tuple[TypedOffer, ...]
) -> tuple[HandRead, ...]:
    """What a part tells of the hands that make it. Raises Refused."""
    return tuple(hands_of(standing(line, kit, made, span, offers).remade.departures))


def print_tape(line: Line, kit: Kit, span: str = "") -> bytes:
    """PDF of the paper tape, to scale. Raises Refused."""
    rigid = planned_of(line, kit, span)
    return build_tape(line, rigid.part, rigid.tube.size)


def planned_of(line: Line, kit: Kit, span: str) -> Rigid:
    """One tube of a line, planned. Raises Refused."""
    rigid, problems = tube_of_plan(line, kit, tube_of(line, span).span.id)
    if rigid is None:
        reason = problems[0].message if problems else "it cannot be planned yet."
        raise Refused(f"Not yet: {reason}")
    return rigid
