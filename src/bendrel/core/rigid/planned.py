"""One rigid piece planned: from its readings and choices to cut, marks, moves and steps."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.bending.moves import Setting
from bendrel.core.findings import EndName
from bendrel.core.lengths import Length, is_blank, length_mm
from bendrel.core.line.document import Line, LineEnd
from bendrel.core.line.growing import as_far_as_read
from bendrel.core.line.resolve import Problem, Resolved, resolve
from bendrel.core.record import record
from bendrel.core.rigid import working
from bendrel.core.rigid.choosing import SPAN, choose_rows
from bendrel.core.rigid.ends import EndParts, end_parts, planned_end
from bendrel.core.rigid.marking import order_of, origins, plan_moves
from bendrel.core.rigid.opened import open_bends
from bendrel.core.rigid.part import Part, PlannedBend, Term
from bendrel.core.rigid.work import steps_of
from bendrel.core.shape.bends import BendList, Span, bend_spans
from bendrel.core.shape.centreline import end_frame, pieces, sampled
from bendrel.core.shape.view import ABOVE, FROM_A, clearest, from_b
from bendrel.core.shop.choices import Choices
from bendrel.core.shop.kit import Kit
from bendrel.core.units import UnitError


@record
class Planned:
    """A rigid piece as far as it can be planned. `choices` are None where the catalogue lacks one of them,
    `part` while something cannot be read; `so_far` is then the part as far as it has been read."""

    choices: Choices | None
    read: Resolved | None
    ends: tuple[EndParts, EndParts] | None
    part: Part | None
    so_far: Part | None
    problems: tuple[Problem, ...]
    lengths_mm: dict[str, float]


def plan_rigid(line: Line, kit: Kit) -> Planned:
    """Plan the rigid piece of `line`. Raises nothing: what cannot be read comes back as problems."""
    problems: list[Problem] = []
    chosen = choose_rows(line, kit, problems)
    if chosen is None:
        return Planned(
            choices=None,
            read=None,
            ends=None,
            part=None,
            so_far=None,
            problems=tuple(problems),
            lengths_mm={},
        )
    span = line.spans[0]
    read = resolve(span.readings, od_mm=chosen.tube.od_mm, radius_mm=chosen.bender.radius_mm)
    problems += [Problem(path=f"{SPAN}/readings{p.path}", message=p.message) for p in read.problems]
    spare = _optional(span.spare, f"{SPAN}/spare", problems)
    stock = _optional(span.stock, f"{SPAN}/stock", problems)
    ends = (("A", "/end_a", line.end_a), ("B", "/end_b", line.end_b))
    uses = {end: _own_use(at, choice, problems) for end, at, choice in ends}
    longs = {end: _optional(choice.leave_long, f"{at}/leave_long", problems) for end, at, choice in ends}
    lengths = {f"{SPAN}/readings{path}": mm for path, mm in read.lengths_mm.items()}
    if spare is not None:
        lengths[f"{SPAN}/spare"] = spare
    if read.shape is None or spare is None or stock is None or problems:
        return Planned(
            choices=chosen,
            read=read,
            ends=None,
            part=None,
            so_far=None if read.shape is not None else _so_far(line, kit, chosen),
            problems=tuple(problems),
            lengths_mm=lengths,
        )
    shape = read.shape
    order, unread = order_of(span, len(shape.bends))
    straights = shape.straights_mm
    a = end_parts(line, kit, chosen, "A", straights[0], uses["A"], longs["A"] or 0.0)
    b = end_parts(line, kit, chosen, "B", straights[-1], uses["B"], longs["B"] or 0.0)
    return Planned(
        choices=chosen,
        read=read,
        ends=(a, b),
        part=_part(line, kit, chosen, shape, a, b, spare, order, stock),
        so_far=None,
        problems=(Problem(path=f"{SPAN}/order", message=unread),) if unread else (),
        lengths_mm=lengths,
    )


def _so_far(line: Line, kit: Kit, chosen: Choices) -> Part | None:
    """The part as far as its readings go; what is beyond them is left out."""
    shape = as_far_as_read(
        line.spans[0].readings,
        od_mm=chosen.tube.od_mm,
        radius_mm=chosen.bender.radius_mm,
        stub_mm=kit.limits["stub_mm"].value,
    )
    if shape is None:
        return None
    span = replace(line.spans[0], order="", held="A", left_open=())
    bare = replace(line, spans=(span,), end_b=LineEnd())
    order, _ = order_of(span, len(shape.bends))
    straights = shape.straights_mm
    a = end_parts(bare, kit, chosen, "A", straights[0], None, 0.0)
    b = end_parts(bare, kit, chosen, "B", straights[-1], None, 0.0)
    return _part(bare, kit, chosen, shape, a, b, 0.0, order, 0.0)


def _part(
    line: Line,
    kit: Kit,
    chosen: Choices,
    shape: BendList,
    a: EndParts,
    b: EndParts,
    spare: float,
    order: tuple[Setting, ...],
    stock: float,
) -> Part:
    span = line.spans[0]
    spans = bend_spans(shape)
    bends = _planned_bends(shape, spans)
    last = end_frame(shape)
    path = sampled(shape)
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
    held = a if span.held == "A" else b
    cut = sum(term.mm for term in terms)
    at = origins((a, b), span.held, 0.0 if span.trim_first else spare)
    uncut: EndName = "B" if span.held == "A" else "A"
    if stock > cut and not span.trim_first and not at[uncut].flared:
        at[uncut] = replace(at[uncut], beyond_mm=at[uncut].beyond_mm + stock - cut)
    moves = plan_moves(order, chosen, shape, spans, at, span.marks, open_bends(span, shape))
    figures = working.Figures(
        unit=line.unit,
        tube=chosen.tube,
        material=chosen.material,
        bender=chosen.bender,
        calibration=chosen.calibration,
        ends={"A": (a.fitting, a.size), "B": (b.fitting, b.size)},
        trials={"A": a.own_piece, "B": b.own_piece},
        shape=shape,
        bends=bends,
        terms=terms,
        cut_mm=cut,
        moves=moves,
        style=span.marks,
    )
    return Part(
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
        path=path,
        views={
            "free": clearest((path[0][1], *(bend.point for bend in bends), last.point)),
            "from A": FROM_A,
            "from B": from_b(last.way),
            "above": ABOVE,
        },
        steps=steps_of(line, kit, cut, spare, moves, shape, held, b if held is a else a),
        derivations=working.derivations(figures),
    )


def _planned_bends(shape: BendList, spans: tuple[Span, ...]) -> tuple[PlannedBend, ...]:
    arcs = [piece for piece in pieces(shape) if piece.radius_mm is not None]
    return tuple(
        PlannedBend(
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
            point=arc.point(bend.arc_mm / 2),
        )
        for k, (bend, span, clock, arc) in enumerate(
            zip(shape.bends, spans, shape.clocks_deg, arcs, strict=True), start=1
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


def _own_use(at: str, choice: LineEnd, problems: list[Problem]) -> float | None:
    """The person's own flared test piece, where there is one."""
    if choice.measured_use is None or is_blank(choice.measured_use):
        return None
    return _optional(choice.measured_use, f"{at}/measured_use", problems)
