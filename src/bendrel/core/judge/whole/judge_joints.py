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
            rule = whole.kit.advice["hose_to_hose"]
            yield Finding(
                severity="stop",
                code="hose_to_hose",
                where=whole.at_span(before.id, "B"),
                title="Two hoses meet with nothing between them",
                message=rule.text,
                source=rule.source,
                advice="Put a connector between the two, or take one hose.",
                safety=whole.service.safety_critical,
            )


def _tubes(whole: Whole, before: RigidSpan, behind: RigidSpan, joint: Joint) -> Iterator[Finding]:
    kit, where = whole.kit, whole.at_span(before.id, "B")
    one, other = kit.tubes.get(before.tube), kit.tubes.get(behind.tube)
    if not joint.kind or joint.kind not in kit.joints:
        rule = kit.advice["joint_missing"]
        yield Finding(
            severity="caution",
            code="joint_missing",
            where=where,
            title="Nothing joins these two tubes yet",
            message=rule.text,
            source=rule.source,
            advice="Choose the joint on the strip.",
            safety=whole.service.safety_critical,
        )
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
        yield Finding(
            severity="stop",
            code="joint_sizes",
            where=where,
            title=f"{one.size} and {other.size} do not meet in one {kit.joints[joint.kind].name}",
            message=rule.text,
            source=rule.source,
            advice="Put a reducer between the two.",
            fix=reducer(before.id, one.od_mm, other.od_mm),
            safety=whole.service.safety_critical,
        )
    way = _way(whole, joint)
    if way is not None and whole.service.id in way.law and not is_reason(joint.why):
        rule = kit.advice["union_law"]
        yield Finding(
            severity="caution",
            code="union_law",
            where=where,
            title=f"Why is a section of this {whole.service.name} line mended?",
            message=rule.text,
            source=rule.source,
            advice="Write the reason at the joint; it stays in the record.",
            safety=True,
        )


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
    rule = whole.kit.advice["joint_sizes"]
    span, a, b = (tube.id, row.od_mm, size) if tube_first else (component.id, size, row.od_mm)
    yield Finding(
        severity="stop",
        code="joint_sizes",
        where=whole.at_span(tube.id, "B" if tube_first else "A"),
        title=f"The {component.what} is for {whole.say(size)}, the tube is {row.size}",
        message=rule.text,
        source=rule.source,
        advice="Put a reducer between the two.",
        fix=reducer(span, a, b),
        safety=whole.service.safety_critical,
    )


def _way(whole: Whole, joint: Joint) -> Splice | None:
    return next((way for way in whole.kit.splicing.methods.values() if way.joint == joint.kind), None)
