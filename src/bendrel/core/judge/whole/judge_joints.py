"""Rules on what joins two neighbours: whether anything does, whether it may, and whether its sizes meet."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from bendrel.core.findings import Finding
from bendrel.core.judge.case import Whole
from bendrel.core.judge.verdicts import said_against
from bendrel.core.judge.whole.hose_fixes import reducer
from bendrel.core.line.document import ComponentSpan, HoseSpan, Joint, RigidSpan, is_reason
from bendrel.core.parts.splicing import Splice


def judge_joints(whole: Whole) -> Iterator[Finding]:
    """Findings on every joint between two tubes or two hoses."""
    pairs = zip(pairwise(whole.line.spans), whole.line.joints, strict=True)
    for (before, behind), joint in pairs:
        if isinstance(before, RigidSpan) and isinstance(behind, RigidSpan):
            yield from _tubes(whole, before, behind, joint)
        elif isinstance(before, RigidSpan) and isinstance(behind, ComponentSpan):
            yield from _tube_and_component(whole, before, behind, tube_first=True)
        elif isinstance(before, ComponentSpan) and isinstance(behind, RigidSpan):
            yield from _tube_and_component(whole, behind, before, tube_first=False)
        elif isinstance(before, HoseSpan) and isinstance(behind, HoseSpan) and not joint.kind:
            yield whole.told("hose_to_hose", whole.at_span(before.id, "B"))


def _tubes(whole: Whole, before: RigidSpan, behind: RigidSpan, joint: Joint) -> Iterator[Finding]:
    kit, where = whole.kit, whole.at_span(before.id, "B")
    one, other = kit.tubes.get(before.tube), kit.tubes.get(behind.tube)
    if not joint.kind or joint.kind not in kit.joints:
        rule = kit.advice["joint_missing"]
        yield whole.told("joint_missing", where, message=rule.text, source=rule.source)
        return
    yield from said_against(
        whole,
        kit.verdict("joint", joint.kind, whole.service.id),
        refused="union_refused",
        care="union_care",
        where=where,
        what=kit.joints[joint.kind].name,
        advice="Choose a joint that is right for this service, or replace the line whole.",
    )
    if one is not None and other is not None and not kit.goes_on(one.size, other.size):
        rule = kit.advice["joint_sizes"]
        yield whole.told(
            "joint_sizes",
            where,
            message=rule.text,
            source=rule.source,
            fix=reducer(whole, before.id, one.od_mm, other.od_mm),
            size=one.size,
            size_2=other.size,
            name=kit.joints[joint.kind].name,
        )
    way = _way(whole, joint)
    if way is not None and whole.service.id in way.law and not is_reason(joint.why):
        rule = kit.advice["union_law"]
        yield whole.told("union_law", where, message=rule.text, source=rule.source)


def _tube_and_component(
    whole: Whole, tube: RigidSpan, component: ComponentSpan, *, tube_first: bool
) -> Iterator[Finding]:
    """A tube that goes straight into a component of another size."""
    row = whole.kit.tubes.get(tube.tube)
    placed = next((one for one in whole.chosen.pieces.components if one.stands.span == component.id), None)
    if row is None or placed is None:
        return
    size = placed.on_a_mm if tube_first else placed.on_b_mm
    if size is None or abs(size - row.od_mm) <= whole.kit.splicing.weigh.same_size_mm:
        return
    span, a, b = (tube.id, row.od_mm, size) if tube_first else (component.id, size, row.od_mm)
    yield whole.told(
        "component_size",
        whole.at_span(tube.id, "B" if tube_first else "A"),
        fix=reducer(whole, span, a, b),
        what=component.what,
        size=whole.say(size),
        size_2=row.size,
    )


def _way(whole: Whole, joint: Joint) -> Splice | None:
    return next((way for way in whole.kit.splicing.methods.values() if way.joint == joint.kind), None)
