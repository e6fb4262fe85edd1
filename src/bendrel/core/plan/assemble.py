"""Put the plan together: the rigid piece, what follows for the whole line, then the rules."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.chain.chosen import Chosen, choose
from bendrel.core.chain.clipping import clips_of, clips_to_get
from bendrel.core.findings import SEVERITY_ORDER, Finding
from bendrel.core.line.changes import with_changes
from bendrel.core.line.document import Line
from bendrel.core.line.looked import look_at
from bendrel.core.line.measured import measure
from bendrel.core.line.removed import judge_removal
from bendrel.core.plan.model import Plan
from bendrel.core.rigid.part import Part
from bendrel.core.rigid.planned import Planned, plan_rigid
from bendrel.core.rules.case import Case
from bendrel.core.rules.judged import judge
from bendrel.core.rules.set_aside import worst_first
from bendrel.core.shop.choices import Choices
from bendrel.core.shop.kit import Kit


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
    piece = plan_rigid(line, kit)
    part, chosen, read, ends = piece.part, piece.choices, piece.read, piece.ends
    measured = measure(line, kit, read.read if read else None)
    removed = judge_removal(line, kit)
    if part is None or chosen is None or read is None or read.shape is None or ends is None:
        return Plan(
            rules_version=kit.rules_version,
            part=None,
            so_far=piece.so_far,
            problems=piece.problems,
            lengths_mm=piece.lengths_mm,
            looked=look_at(line, kit, None),
            measured=measured,
            removed=removed,
            chosen=None,
            clips=None,
            findings=(),
        )
    looked = look_at(line, kit, part.developed_mm)
    clips = clips_of(kit, chosen, read.shape, looked)
    follows = choose(
        line, kit, chosen, read.shape, ends, part.take_mm, removed, clips, clips_to_get(clips, looked)
    )
    case = _case(line, kit, chosen, piece, part, follows)
    return Plan(
        rules_version=kit.rules_version,
        part=part,
        so_far=None,
        problems=(*follows.problems, *piece.problems),
        lengths_mm=piece.lengths_mm,
        looked=looked,
        measured=measured,
        removed=removed,
        chosen=follows,
        clips=clips,
        findings=worst_first(line, judge(case, looked, measured, removed, follows, clips)),
    )


def _case(line: Line, kit: Kit, chosen: Choices, piece: Planned, part: Part, follows: Chosen) -> Case:
    ends = piece.ends or ()
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
        lengths_mm=piece.read.lengths_mm if piece.read else {},
        carried=follows.carried,
    )
