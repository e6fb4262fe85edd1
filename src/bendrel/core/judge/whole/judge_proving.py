"""Rules on what was noted while the line was closed and proved."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.joints.closing import joints_of
from bendrel.core.judge.case import Whole
from bendrel.core.line.signed import signed_stands
from bendrel.core.units.quantities import format_torque, format_volume
from bendrel.core.work.balancing import balance_of
from bendrel.core.work.standing import standing_of, work_at


def judge_proving(whole: Whole) -> Iterator[Finding]:
    """Findings on joints, fluid, function and the sign-off; none while nothing was noted."""
    yield from _joints(whole)
    yield from _fluid(whole)
    yield from _functions(whole)
    if signed_stands(whole.line) is False:
        yield whole.told("signed_changed", whole.whole())


def _joints(whole: Whole) -> Iterator[Finding]:
    if not whole.line.proving.joints:
        return
    for joint in joints_of(whole.line, whole.kit):
        found, work = standing_of(whole.line, whole.kit, joint), work_at(whole.line, joint)
        where = whole.at_span(joint.span, joint.end)
        if found.binds:
            rule = whole.kit.advice["nut_binds"]
            yield whole.told(
                "nut_binds",
                where,
                source=rule.source,
                place=joint.place,
                binds=found.binds,
                text=rule.text,
                causes="; ".join(found.causes),
            )
        if found.off and joint.torque is not None and work is not None:
            yield whole.told(
                "joint_too_tight" if found.off == "too tight" else "joint_too_loose",
                where,
                source=joint.torque.source,
                place=joint.place,
                made=work.tight.strip(),
                aim=format_torque(joint.torque.least_nm, joint.torque.most_nm, whole.line.unit),
            )
        if found.state == "wet":
            watch = whole.kit.proving.watch(whole.line.service)
            yield whole.told(
                "joint_wet",
                where,
                message=watch.rung,
                advice=found.rung_text,
                source=watch.source,
                state=watch.stands["wet"].capitalize(),
                place=joint.place,
            )


def _fluid(whole: Whole) -> Iterator[Finding]:
    flowing = whole.chosen.flowing
    found = balance_of(whole.line, whole.kit, flowing.volume_ml if flowing else None)
    if found is None or not found.off or found.unexplained_ml is None:
        return
    rule = whole.kit.proving.balance
    yield whole.told(
        "bleed_balance",
        whole.whole(),
        title=f"{format_volume(found.unexplained_ml)} of fluid went in and is nowhere"
        if found.unexplained_ml > 0
        else f"{format_volume(-found.unexplained_ml)} less went in than there is room for",
        source=rule.source,
        allowed_ml=format_volume(found.allowed_ml),
        reasons="; ".join(found.reasons),
    )


def _functions(whole: Whole) -> Iterator[Finding]:
    rule = whole.kit.proving.by_service.get(whole.service.id)
    failed = {check.step for check in whole.line.proving.checks if check.works == "no"}
    for step in rule.steps if rule else ():
        if step.id in failed:
            yield whole.told("function_failed", whole.whole(), split=step.text.split(".")[0].split(":")[0])
