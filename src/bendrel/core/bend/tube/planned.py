"""One rigid piece planned: from its readings and choices to cut, marks, moves and steps."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from bendrel.core.bend.tool.moves import Setting
from bendrel.core.bend.tube.choosing import choose_rows
from bendrel.core.bend.tube.ends import EndParts, end_parts, planned_end
from bendrel.core.bend.tube.marking import order_of, origins, plan_moves
from bendrel.core.bend.tube.opened import open_bends
from bendrel.core.bend.tube.part import Part, PlannedBend, Term
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList, Span, bend_spans
from bendrel.core.geometry.centreline import bend_middles, end_frame
from bendrel.core.geometry.view import ABOVE, FROM_A, clearest, from_b
from bendrel.core.line.document import TubeEnd
from bendrel.core.line.growing import as_far_as_read
from bendrel.core.line.measured import Measured, measure
from bendrel.core.line.paths import readings_path
from bendrel.core.line.resolve import Problem, resolve, taken_as
from bendrel.core.line.rewrite import bend_ids
from bendrel.core.line.run import Run, RunEnd, with_span
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.notation import UnitError


@record
class Rigid:
    """A rigid piece that is planned, with everything that it was planned from."""

    run: Run
    choices: Choices
    shape: BendList
    ends: tuple[EndParts, EndParts]
    part: Part
    lengths_mm: Mapping[str, float]

    @property
    def tube(self) -> Tube:
        """Its tube."""
        return self.choices.tube

    @property
    def new(self) -> bool:
        """It is to make; else it is old tube that stays."""
        return self.run.span.state == "to make"


@record
class Planned:
    """A rigid piece as far as it can be planned. `choices` are None where the catalogue lacks one of them,
    `rigid` while something cannot be read; `so_far` is then the part as far as it has been read."""

    run: Run
    choices: Choices | None
    measured: Measured
    rigid: Rigid | None
    so_far: Part | None
    problems: tuple[Problem, ...]
    lengths_mm: dict[str, float]

    @property
    def part(self) -> Part | None:
        """The planned part, where everything of it can be read."""
        return self.rigid.part if self.rigid else None


def plan_rigid(run: Run, kit: Kit) -> Planned:
    """Plan one rigid piece. Raises nothing: what cannot be read comes back as problems."""
    problems: list[Problem] = []
    chosen = choose_rows(run, kit, problems)
    if chosen is None:
        return Planned(
            run=run,
            choices=None,
            measured=measure(run.span, kit, None).measured,
            rigid=None,
            so_far=None,
            problems=tuple(problems),
            lengths_mm={},
        )
    span = run.span
    read = resolve(span.readings, od_mm=chosen.tube.od_mm, radius_mm=chosen.bender.radius)
    weighed = measure(span, kit, read.read)
    if weighed.read is not None:
        read = taken_as(read, span.readings, weighed.read)
    problems += [Problem(path=readings_path(span.id, p.path), message=p.message) for p in read.problems]
    spare = _optional(span.spare, run.at("spare"), problems)
    stock = _optional(span.stock, run.at("stock"), problems)
    ends = run.ends.values()
    uses = {end.end: _own_use(end, problems) for end in ends}
    longs = {end.end: _optional(end.tube.leave_long, end.tube_at("leave_long"), problems) for end in ends}
    lengths = {readings_path(span.id, path): mm for path, mm in read.lengths_mm.items()}
    if spare is not None:
        lengths[run.at("spare")] = spare
    if read.shape is None or spare is None or stock is None or problems:
        return Planned(
            run=run,
            choices=chosen,
            measured=weighed.measured,
            rigid=None,
            so_far=None if read.shape is not None else _so_far(run, kit, chosen),
            problems=tuple(problems),
            lengths_mm=lengths,
        )
    shape = read.shape
    order, unread = order_of(span, read.ids)
    straights = shape.straights_mm
    a = end_parts(run, kit, chosen, "A", straights[0], uses["A"], longs["A"] or 0.0)
    b = end_parts(run, kit, chosen, "B", straights[-1], uses["B"], longs["B"] or 0.0)
    return Planned(
        run=run,
        choices=chosen,
        measured=weighed.measured,
        rigid=Rigid(
            run=run,
            choices=chosen,
            shape=shape,
            ends=(a, b),
            part=_part(run, kit, chosen, shape, read.ids, a, b, spare=spare, order=order, stock=stock),
            lengths_mm=read.lengths_mm,
        ),
        so_far=None,
        problems=(Problem(path=run.at("order"), message=unread),) if unread else (),
        lengths_mm=lengths,
    )


def _so_far(run: Run, kit: Kit, chosen: Choices) -> Part | None:
    """The part as far as its readings go; what is beyond them is left out."""
    shape = as_far_as_read(
        run.span.readings,
        od_mm=chosen.tube.od_mm,
        radius_mm=chosen.bender.radius,
        stub_mm=kit.limits["stub_mm"].value,
    )
    if shape is None:
        return None
    ids = bend_ids(run.span.readings)[: len(shape.bends)]
    span = replace(run.span, order=(), held="A", left_open=(), end_b=TubeEnd())
    bare = Run(line=with_span(run.line, span), span=span, index=run.index)
    order, _ = order_of(span, ids)
    straights = shape.straights_mm
    a = end_parts(bare, kit, chosen, "A", straights[0], None, 0.0)
    b = end_parts(bare, kit, chosen, "B", straights[-1], None, 0.0)
    return _part(bare, kit, chosen, shape, ids, a, b, spare=0.0, order=order, stock=0.0)


def _part(
    run: Run,
    kit: Kit,
    chosen: Choices,
    shape: BendList,
    ids: tuple[str, ...],
    *ends: EndParts,
    spare: float,
    order: tuple[Setting, ...],
    stock: float,
) -> Part:
    (a, b), span = ends, run.span
    spans = bend_spans(shape)
    bends = _planned_bends(shape, spans, ids)
    last = end_frame(shape)
    end_a = planned_end(a, (0.0, 0.0, 0.0), (-1.0, 0.0, 0.0))
    end_b = planned_end(b, last.point, last.way)
    terms = (
        Term(id="developed", label="along the tube", mm=shape.developed_mm),
        Term(id="end-A", label=f"end A, {a.fitting.name}", mm=a.allowance_mm),
        Term(id="end-B", label=f"end B, {b.fitting.name}", mm=b.allowance_mm),
        *(
            Term(id=f"long-{end.end}", label=f"end {end.end} left long", mm=end.leave_long_mm)
            for end in (a, b)
            if end.leave_long_mm > 0
        ),
        Term(id="spare", label="spare", mm=spare),
    )
    cut = sum(term.mm for term in terms)
    at = origins((a, b), span.held, 0.0 if span.trim_first else spare)
    uncut: EndName = "B" if span.held == "A" else "A"
    if stock > cut and not span.trim_first and not at[uncut].flared:
        at[uncut] = replace(at[uncut], beyond_mm=at[uncut].beyond_mm + stock - cut)
    moves = plan_moves(order, chosen, shape, spans, at, span.marks, open_bends(span, ids, shape))
    return Part(
        span=span.id,
        bends=bends,
        last_straight_mm=shape.last_straight_mm,
        developed_mm=shape.developed_mm,
        od_mm=chosen.tube.od_mm,
        end_a=end_a,
        end_b=end_b,
        spare_mm=spare,
        terms=terms,
        cut_mm=cut,
        take_mm=cut + (0.0 if span.stock_form == "stick" else kit.limits["straighten_mm"].value),
        beyond_mm={end: origin.beyond_mm for end, origin in at.items()},
        held_end=span.held,
        mark_style=span.marks,
        moves=moves,
        views={
            "free": clearest(((0.0, 0.0, 0.0), *bend_middles(shape), last.point)),
            "from A": FROM_A,
            "from B": from_b(last.way),
            "above": ABOVE,
        },
    )


def _planned_bends(shape: BendList, spans: tuple[Span, ...], ids: tuple[str, ...]) -> tuple[PlannedBend, ...]:
    return tuple(
        PlannedBend(
            id=name,
            number=k,
            straight_mm=bend.straight_mm,
            rotation_deg=bend.rotation_deg,
            clock_deg=clock % 360.0,
            angle_deg=bend.angle_deg,
            radius_mm=bend.radius_mm,
            arc_mm=bend.arc_mm,
            start_mm=span.start_mm,
            middle_mm=span.middle_mm,
            end_mm=span.end_mm,
        )
        for k, (bend, span, clock, name) in enumerate(
            zip(shape.bends, spans, shape.clocks_deg, ids, strict=True), start=1
        )
    )


def _optional(reading: Length, path: str, problems: list[Problem]) -> float | None:
    """A length that may stay blank, which is 0."""
    if is_blank(reading):
        return 0.0
    try:
        return length_mm(reading, "not_negative")
    except UnitError as error:
        problems.append(Problem(path=path, message=str(error)))
        return None


def _own_use(end: RunEnd, problems: list[Problem]) -> float | None:
    """The person's own flared test piece, where there is one."""
    trial = end.tube.trial
    if trial is None or is_blank(trial.used):
        return None
    return _optional(trial.used, end.tube_at("trial", "used"), problems)
