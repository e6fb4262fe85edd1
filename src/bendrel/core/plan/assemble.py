"""Put the plan together: every tube, what follows for the whole line, then the rules."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.bend.tube.part import shape_of
from bendrel.core.bend.tube.planned import Planned, Rigid, plan_rigid
from bendrel.core.findings import SEVERITY_ORDER, Finding, Fix
from bendrel.core.hose.laid import lay_hoses
from bendrel.core.joints.apart import apart_of
from bendrel.core.joints.faces import unread_sides
from bendrel.core.joints.pieces import place_pieces
from bendrel.core.joints.reduced import reduced
from bendrel.core.judge.case import Whole
from bendrel.core.judge.judged import judge
from bendrel.core.judge.set_aside import worst_first
from bendrel.core.line.document import Line
from bendrel.core.line.edits.changes import with_changes
from bendrel.core.line.removed import judge_removal
from bendrel.core.line.resolve import Reader
from bendrel.core.line.run import main_run, runs
from bendrel.core.mend.looked import Looked, PlacedFixture, look_at
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.clipping import clips_of, clips_to_get
from bendrel.core.plan.in_space import place_in_space
from bendrel.core.plan.model import Plan, PlannedPiece
from bendrel.core.record import record
from bendrel.core.work.chosen import Chosen, choose
from bendrel.core.work.shopping import NewClips


@record
class WholePlan:
    """A plan and the tubes that it was made of, those that cannot be planned too."""

    plan: Plan
    tubes: tuple[Planned, ...]

    @property
    def rigids(self) -> tuple[Rigid, ...]:
        """The tubes that could be planned."""
        return tuple(tube.rigid for tube in self.tubes if tube.rigid is not None)


def plan_whole(line: Line, kit: Kit) -> WholePlan:
    """The whole plan of `line`, worked out. No fix that chooses something else brings up anything as bad as
    what it mends: each is tried first."""
    whole = _planned(line, kit)
    plan = whole.plan
    # findings often share a fix: what it leads to is planned once
    mended: dict[str, Plan] = {}
    tried = tuple(_tried(line, kit, plan, found, mended) for found in plan.findings)
    return replace(whole, plan=replace(plan, findings=tried))


def _tried(line: Line, kit: Kit, plan: Plan, finding: Finding, mended: dict[str, Plan]) -> Finding:
    if finding.fix is None or not finding.fix.choice:
        return finding
    key = repr(finding.fix)
    if key not in mended:
        mended[key] = _planned(with_fix(line, kit, finding.fix), kit).plan
    after = mended[key]
    there = {(found.code, found.where.spot) for found in plan.findings}
    worse = after.chosen is None or any(
        (found.code, found.where.spot) == (finding.code, finding.where.spot)
        or (
            SEVERITY_ORDER[found.severity] <= SEVERITY_ORDER[finding.severity]
            and (found.code, found.where.spot) not in there
        )
        for found in after.findings
    )
    return replace(finding, fix=None) if worse else finding


def with_fix(line: Line, kit: Kit, fix: Fix) -> Line:
    """`line` as a fix makes it. Raises KeyError for a place that is not there, NotAChain where a reducer
    cannot be put in."""
    made = with_changes(line, fix.changes)
    if fix.reduce is None:
        return made
    return reduced(made, kit, fix.reduce.span, fix.reduce.a_mm, fix.reduce.b_mm)


def _planned(line: Line, kit: Kit) -> WholePlan:
    planned = tuple(plan_rigid(run, kit) for run in runs(line))
    removed = judge_removal(line, kit)
    measured = {one.run.span.id: one.measured for one in planned}
    rigids = tuple(one.rigid for one in planned if one.rigid is not None)
    main = main_run(line)
    name = main.span.id if main else ""
    reader = Reader(line.unit)
    pieces = place_pieces(line, kit, reader.problems)
    lengths_mm = {rigid.run.span.id: rigid.part.developed_mm for rigid in rigids}
    lengths_mm |= {hose.piece.id: hose.length_mm for hose in pieces.hoses if hose.length_mm is not None}
    looked = look_at(line, kit, lengths_mm)
    clips = {rigid.run.span.id: clips_of(kit, rigid, _found_on(looked, rigid, name)) for rigid in rigids}
    reader.problems += unread_sides(kit, line)
    read = {rigid.run.span.id: rigid.shape for rigid in rigids}
    growing = {one.run.span.id: shape_of(one.so_far) for one in planned if one.so_far is not None}
    laid = lay_hoses(kit, pieces, reader)
    in_space = place_in_space(line, kit, pieces, read, growing, laid, reader)
    problems = tuple(problem for one in planned for problem in one.problems)
    lengths = {path: mm for one in planned for path, mm in one.lengths_mm.items()}
    follows: Chosen | None = None
    findings: tuple[Finding, ...] = ()
    if len(rigids) == len(planned) and line.service in kit.services:
        new = {
            span: NewClips(clips=held, count=clips_to_get(held, _found_on(looked, rigid, name)))
            for rigid in rigids
            for span, held in clips.items()
            if span == rigid.run.span.id
        }
        follows = choose(line, kit, rigids, pieces, removed, new)
        problems = (*follows.problems, *problems)
        whole = Whole(
            line=line,
            kit=kit,
            service=kit.services[line.service],
            chosen=follows,
            rigids=rigids,
            laid=laid,
        )
        findings = worst_first(line, judge(whole, looked, measured, removed, clips))
    plan = Plan(
        rules_version=kit.rules_version,
        main=name,
        pieces=tuple(
            PlannedPiece(
                span=one.run.span.id,
                state=one.run.span.state,
                part=one.part,
                so_far=one.so_far,
                measured=measured[one.run.span.id],
                clips=clips.get(one.run.span.id),
            )
            for one in planned
        ),
        in_space=in_space,
        hoses=laid,
        problems=(*reader.problems, *problems),
        lengths_mm=lengths,
        looked=looked,
        removed=removed,
        apart=apart_of(line, kit, pieces),
        chosen=follows,
        findings=findings,
    )
    return WholePlan(plan=plan, tubes=planned)


def _found_on(looked: Looked, rigid: Rigid, main: str) -> tuple[PlacedFixture, ...]:
    """The fixtures of one tube; what names no span is the main one's."""
    span = rigid.run.span.id
    return tuple(item for item in looked.fixtures if (item.span or main) == span)
