"""Rules on what was noted while the line was closed and proved."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.judge.case import Whole
from bendrel.core.line.signed import signed_stands
from bendrel.core.units.quantities import format_volume
from bendrel.core.work.balancing import balance_of
from bendrel.core.work.joints import joints_of
from bendrel.core.work.standing import standing_of


def judge_proving(whole: Whole) -> Iterator[Finding]:
    """Findings on joints, fluid, function and the sign-off; none while nothing was noted."""
    yield from _joints(whole)
    yield from _fluid(whole)
    yield from _functions(whole)
    if signed_stands(whole.line) is False:
        rule = whole.kit.advice["signed_changed"]
        yield Finding(
            severity="caution",
            code="signed_changed",
            where=whole.whole(),
            title="It has been changed since it was signed off",
            message=rule.text,
            source=rule.source,
            safety=whole.service.safety_critical,
        )


def _joints(whole: Whole) -> Iterator[Finding]:
    if not whole.line.proving.joints:
        return
    for joint in joints_of(whole.line, whole.kit):
        found = standing_of(whole.line, whole.kit, joint)
        where = whole.at_span(joint.span, joint.end)
        if found.binds:
            rule = whole.kit.advice["nut_binds"]
            yield Finding(
                severity="caution",
                code="nut_binds",
                where=where,
                title=f"The nut binds, {joint.place}",
                message=f"{found.binds} {rule.text}",
                source=rule.source,
                advice=f"Likely: {'; '.join(found.causes)}.",
                safety=whole.service.safety_critical,
            )
        if found.state == "wet":
            rule = whole.kit.advice["joint_wet"]
            yield Finding(
                severity="caution",
                code="joint_wet",
                where=where,
                title=f"Wet: {joint.place}",
                message=rule.text,
                source=rule.source,
                advice=found.rung_text,
                safety=whole.service.safety_critical,
            )


def _fluid(whole: Whole) -> Iterator[Finding]:
    flowing = whole.chosen.flowing
    found = balance_of(whole.line, whole.kit, flowing.volume_ml if flowing else None)
    if found is None or not found.off or found.unexplained_ml is None:
        return
    rule = whole.kit.proving.balance
    yield Finding(
        severity="caution",
        code="bleed_balance",
        where=whole.whole(),
        title=(
            f"{format_volume(found.unexplained_ml)} of fluid went in and is nowhere"
            if found.unexplained_ml > 0
            else f"{format_volume(-found.unexplained_ml)} less went in than there is room for"
        ),
        message=f"Up to {format_volume(found.allowed_ml)} is usual. Likely: {'; '.join(found.reasons)}.",
        source=rule.source,
        safety=whole.service.safety_critical,
    )


def _functions(whole: Whole) -> Iterator[Finding]:
    rule = whole.kit.proving.by_service.get(whole.service.id)
    failed = {check.step for check in whole.line.proving.checks if check.works == "no"}
    for step in rule.steps if rule else ():
        if step.id in failed:
            said = whole.kit.advice["function_failed"]
            yield Finding(
                severity="caution",
                code="function_failed",
                where=whole.whole(),
                title=f"It does not work: {step.text.split('.')[0].split(':')[0]}",
                message=said.text,
                source=said.source,
                safety=whole.service.safety_critical,
            )
