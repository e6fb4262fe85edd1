"""Put the plan together: shape, ends, cut length, marks and moves, then the rules."""

from __future__ import annotations

from collections.abc import Container, Mapping
from dataclasses import replace
from itertools import pairwise

from bendrel.core.bending.calibration import calibrated
from bendrel.core.bending.moves import Setting
from bendrel.core.ends.fitting import FittingKind
from bendrel.core.findings import SEVERITY_ORDER, EndName, Finding
from bendrel.core.lengths import Length, is_blank, length_mm
from bendrel.core.line.changes import with_changes
from bendrel.core.line.document import BendReadings, Line, LineEnd, RigidSpan, is_reason
from bendrel.core.line.growing import as_far_as_read
from bendrel.core.line.readings import Problem, Resolved, resolve
from bendrel.core.plan import working
from bendrel.core.plan.case import SPAN, Case
from bendrel.core.plan.choices import Choices
from bendrel.core.plan.chosen import Chosen, choose
from bendrel.core.plan.clipping import clips_of, clips_to_get
from bendrel.core.plan.ends import EndParts, end_parts, planned_end
from bendrel.core.plan.judge import judge
from bendrel.core.plan.kit import Kit
from bendrel.core.plan.looked import look_at
from bendrel.core.plan.measured import measure
from bendrel.core.plan.model import Move, Part, Plan, PlannedBend, Term
from bendrel.core.plan.moves import order_of, origins, plan_moves
from bendrel.core.plan.removed import judge_removal
from bendrel.core.plan.tightening import tightening
from bendrel.core.procedure.steps import EndWork, Step, Stock, build_steps, with_cautions
from bendrel.core.service import WORK_STAGES
from bendrel.core.shape.bends import BendList, Span, bend_spans
from bendrel.core.shape.centreline import end_frame, pieces, sampled
from bendrel.core.shape.view import ABOVE, FROM_A, clearest, from_b
from bendrel.core.units import UnitError, parse_angle


def plan_line(line: Line, kit: Kit) -> Plan:
    """The whole plan of `line` with the tools and tables of `kit`. Raises nothing: what cannot be
    read comes back as problems, what cannot be made as findings. No fix that chooses something else
    brings up anything as bad as what it mends: each is tried first."""
    plan = _planned(line, kit)
    # findings often share a fix: what it leads to is planned once
    mended: dict[str, Plan] = {}
    return replace(plan, findings=tuple(_tried(line, kit, plan, found, mended) for found in plan.findings))


def _tried(line: Line, kit: Kit, plan: Plan, finding: Finding, mended: dict[str, Plan]) -> Finding:
    if finding.fix is None or not finding.fix.choice:
        return finding
    key = repr(finding.fix.changes)
    if key not in mended:
        mended[key] = _planned(with_changes(line, finding.fix.changes), kit)
    after = mended[key]
    there = {(found.code, str(found.where)) for found in plan.findings}
    worse = after.part is None or any(
        (found.code, str(found.where)) == (finding.code, str(finding.where))
        or (
            SEVERITY_ORDER[found.severity] <= SEVERITY_ORDER[finding.severity]
            and (found.code, str(found.where)) not in there
        )
        for found in after.findings
    )
    return replace(finding, fix=None) if worse else finding


def _planned(line: Line, kit: Kit) -> Plan:
    problems: list[Problem] = []
    chosen = _choices(line, kit, problems)
    if chosen is None:
        return _without_part(line, kit, problems, {})
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
    measured = measure(line, kit, read.read)
    if read.shape is None or spare is None or stock is None or problems:
        return replace(
            _without_part(line, kit, problems, lengths),
            so_far=None if read.shape is not None else _so_far(line, kit, chosen),
        )
    shape = read.shape
    order, unread = order_of(span, len(shape.bends))
    wrong = (Problem(path=f"{SPAN}/order", message=unread),) if unread else ()
    straights = shape.straights_mm
    a = end_parts(line, kit, chosen, "A", straights[0], uses["A"], longs["A"] or 0.0)
    b = end_parts(line, kit, chosen, "B", straights[-1], uses["B"], longs["B"] or 0.0)
    part = _part(line, kit, chosen, shape, a, b, spare, order, stock)
    looked, removed = look_at(line, kit, part.developed_mm), judge_removal(line, kit)
    clips = clips_of(kit, chosen, shape, looked)
    follows = choose(
        line, kit, chosen, shape, (a, b), part.take_mm, removed, clips, clips_to_get(clips, looked)
    )
    case = _case(line, kit, chosen, read, part, (a, b), follows)
    return Plan(
        rules_version=kit.rules_version,
        part=part,
        so_far=None,
        problems=(*follows.problems, *wrong),
        lengths_mm=lengths,
        looked=looked,
        measured=measured,
        removed=removed,
        chosen=follows,
        clips=clips,
        findings=_sorted(line, judge(case, looked, measured, removed, follows, clips)),
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


def _case(
    line: Line,
    kit: Kit,
    chosen: Choices,
    read: Resolved,
    part: Part,
    ends: tuple[EndParts, EndParts],
    follows: Chosen,
) -> Case:
    return Case(
        line=line,
        kit=kit,
        part=part,
        tube=chosen.tube,
        material=chosen.material,
        bender=chosen.bender,
        service=kit.services[line.service],
        rooms={end.end: end.room for end in ends},
        nuts={end.end: end.nut for end in ends},
        fittings={end.end: end.fitting for end in ends},
        lengths_mm=read.lengths_mm,
        carried=follows.carried,
    )


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
        steps=_build_steps(line, kit, cut, spare, moves, shape, held, b if held is a else a),
        derivations=working.derivations(figures),
    )


def open_bends(span: RigidSpan, shape: BendList) -> dict[int, float]:
    """The bends that are left open for now, by number, and how far they are bent; what cannot be read or
    is no less than the bend itself is left out."""
    found: dict[int, float] = {}
    for item in span.left_open:
        if item.bend > len(shape.bends):
            continue
        try:
            angle = item.angle.exact_deg or parse_angle(item.angle.text)
        except UnitError:
            continue
        if angle < shape.bends[item.bend - 1].angle_deg:
            found[item.bend] = angle
    return found


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


_TAKES: Mapping[FittingKind, str] = {
    "double": "flare",
    "single": "flare",
    "bulb": "flare",
    "hose": "bead",
    "quick": "bead",
    "compression": "way into the body",
    "bite": "way into the body",
    "nipple": "nipple",
}
"""What the tube of an end's allowance is for."""


def _closing(kit: Kit, parts: EndParts) -> tuple[str, str]:
    """How this shop closes a sleeve or tapered joint, and its reason; nothing to say of the others."""
    if not parts.fitting.closing:
        return "", ""
    school = kit.schools[parts.fitting.closing]
    answer = next(o for o in school.options if o.id == kit.preferences[school.id])
    if school.id == "sleeve":
        return (
            f"tube {answer.name} while the nut is tightened; wait, look for a drip, nip again.",
            answer.reason,
        )
    return f"sealant: {answer.name}, none on the first thread.", answer.reason


def _build_steps(
    line: Line,
    kit: Kit,
    cut_mm: float,
    spare_mm: float,
    moves: tuple[Move, ...],
    shape: BendList,
    held: EndParts,
    far: EndParts,
) -> tuple[Step, ...]:
    span = line.spans[0]
    closing = {parts.end: _closing(kit, parts) for parts in (held, far)}
    tight = {parts.end: tightening(kit, parts.fitting, parts.nut, line.unit) for parts in (held, far)}
    work = [
        EndWork(
            end=parts.end,
            name=parts.fitting.name,
            flared=parts.fitting.flared,
            nut_thread=parts.nut.thread if parts.nut else None,
            loose_nut=parts.fitting.loose_nut,
            brazed=parts.fitting.brazed,
            joint_text=closing[parts.end][0],
            joint_why=closing[parts.end][1],
            tight_text=tight[parts.end][0],
            tight_why=tight[parts.end][1],
            allowance_mm=parts.allowance_mm,
            takes=_TAKES.get(parts.fitting.kind, "end"),
            order=parts.order,
            leave_long_mm=parts.leave_long_mm,
            ready=parts.ready,
        )
        for parts in (held, far)
    ]
    steps = build_steps(
        cut_mm=cut_mm,
        spare_mm=spare_mm,
        bends=len(moves),
        changes=sum(one.held != two.held for one, two in pairwise(moves)),
        finishes=tuple(
            f"bend {item.bend} to {shape.bends[item.bend - 1].angle_deg:g}° {item.how}"
            for item in span.left_open
            if item.bend in open_bends(span, shape)
        ),
        stock=Stock(
            form=span.stock_form,
            straighten_mm=kit.limits["straighten_mm"].value,
            trim_first=span.trim_first and spare_mm > 0,
            turned=span.turned and kit.tool_kinds[kit.benders[span.bender].kind].mount != "in the hands",
        ),
        held=work[0],
        far=work[1],
        unit=line.unit,
        proofs=kit.services[line.service].proofs,
        copied=isinstance(span.readings, BendReadings) and span.readings.copied,
    )
    return with_cautions(
        steps,
        {stage: tuple(c.text for c in kit.cautions_at(line.service, stage)) for stage in WORK_STAGES},
    )


def choices_of(line: Line, kit: Kit) -> Choices | None:
    """What the line's choices mean; None where the catalogue lacks one of them."""
    return _choices(line, kit, [])


def _choices(line: Line, kit: Kit, problems: list[Problem]) -> Choices | None:
    span = line.spans[0]
    asked: list[tuple[str, str, str | None, Container[str]]] = [
        (f"{SPAN}/tube", "tube", span.tube, kit.tubes),
        (f"{SPAN}/bender", "bender", span.bender, kit.benders),
        ("/service", "service", line.service, kit.services),
    ]
    for path, end in (("/end_a", line.end_a), ("/end_b", line.end_b)):
        asked.append((f"{path}/fitting", "end type", end.fitting, kit.fittings))
        asked.append((f"{path}/nut", "nut", end.nut, kit.nuts))
    for path, what, wanted, known in asked:
        if wanted is not None and wanted not in known:
            message = f"The catalogue has no {what} “{wanted}”; choose one that is listed."
            problems.append(Problem(path=path, message=message))
    if problems:
        return None
    tube = kit.tubes[span.tube]
    told = kit.calibration(span.bender, span.tube)
    return Choices(
        tube=tube,
        material=kit.materials[tube.material],
        bender=calibrated(kit.benders[span.bender], told),
        calibration=told,
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


def _without_part(line: Line, kit: Kit, problems: list[Problem], lengths: dict[str, float]) -> Plan:
    return Plan(
        rules_version=kit.rules_version,
        part=None,
        so_far=None,
        problems=tuple(problems),
        lengths_mm=lengths,
        looked=look_at(line, kit, None),
        measured=measure(line, kit, None),
        removed=judge_removal(line, kit),
        chosen=None,
        clips=None,
        findings=(),
    )


def _sorted(line: Line, findings: list[Finding]) -> tuple[Finding, ...]:
    """Worst first; what a person has taken on comes last, with their reason. A safety finding is not
    taken on by a text that gives none."""
    reasons = {(taken.code, taken.where): taken.reason for taken in line.set_aside}
    told = []
    for finding in findings:
        reason = reasons.get((finding.code, str(finding.where)), "")
        counts = not finding.safety or is_reason(reason)
        told.append(replace(finding, set_aside=reason if counts else ""))
    return tuple(
        sorted(
            told,
            key=lambda f: (f.set_aside != "", SEVERITY_ORDER[f.severity], f.where.from_mm or 0.0, f.code),
        )
    )
