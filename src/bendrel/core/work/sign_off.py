"""What stands in the way of signing a line off."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping

from bendrel.core.findings import Finding
from bendrel.core.joints.closing import LineJoint
from bendrel.core.line.document import Line
from bendrel.core.line.removal import not_back
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step
from bendrel.core.record import record
from bendrel.core.work.asked import HoldProof
from bendrel.core.work.closing import Work
from bendrel.core.work.put_on import PutOn, still_on
from bendrel.core.work.standing import JointStanding, rounds_dry


@record
class InTheWay:
    """One thing that keeps a line from being signed off; `stage` is where it is settled, `joint` or `step`
    what it is about."""

    stage: str
    text: str
    joint: str = ""
    step: str = ""


def in_the_way(
    line: Line,
    kit: Kit,
    joints: tuple[LineJoint, ...],
    standing: tuple[JointStanding, ...],
    work: Work,
    findings: tuple[Finding, ...],
    holds: Mapping[str, HoldProof],
) -> tuple[InTheWay, ...]:
    """Everything, in the order of work, each once; `holds` is what the line's hold tests prove, by their
    ids. An empty answer is what a sign-off needs."""
    stops = (
        InTheWay(stage=finding.stage, text=f"Stop: {finding.title}")
        for finding in findings
        if finding.severity == "stop" and not finding.set_aside
    )
    proof = last_hold(line, holds)
    # a wet joint is in the way of both its rounds, and is told once
    noted = (*_steps(line, kit, joints, standing, work, proof), *_noted(line, proof))
    return tuple(dict.fromkeys((*stops, *noted)))


def _steps(
    line: Line,
    kit: Kit,
    joints: tuple[LineJoint, ...],
    standing: tuple[JointStanding, ...],
    work: Work,
    proof: HoldProof | None,
) -> Iterator[InTheWay]:
    """Steps that are not done, what is still on, nuts that bind."""
    named = {joint.id: joint for joint in joints}
    proved = {one.joint: one for one in standing}
    held = proof is not None and proof.counts
    done = {step.id for step in work.steps if step_done(line, kit, step, named.get(step.joint), held)}
    for step in work.steps:
        if step.must and step.id not in done:
            at = f"{named[step.joint].place}: " if step.joint else ""
            if step.does == "looks" and proved[step.joint].state in ("wet", "mended"):
                told = kit.proving.watch(line.service).stands[proved[step.joint].state]
                yield InTheWay(stage="prove", text=f"{at}{told}", joint=step.joint)
                continue
            if step.does == "holds" and proof is not None and proof.result.verdict == "holds":
                text = f"The hold test is not the one that is asked for: {' '.join(proof.short)}"
                yield InTheWay(stage="prove", text=text.rstrip("."), step=step.id)
                continue
            yield InTheWay(stage=step.stage, text=f"{at}{_short(step.text)}", joint=step.joint, step=step.id)
    for thing in still_on_now(work, done):
        # what has a step of its own is named by that
        if thing.until == "joint":
            yield InTheWay(stage="fit", text=f"Still on: {thing.what}", joint=thing.joint)
    watch = kit.proving.watch(line.service)
    for one in standing:
        if not watch.each and one.state in ("wet", "mended"):
            told = f"{named[one.joint].place}: {watch.stands[one.state]}"
            yield InTheWay(stage="prove", text=told, joint=one.joint)
        if one.binds and one.joint in named:
            yield InTheWay(stage="fit", text=f"{named[one.joint].place}: the nut binds", joint=one.joint)


def _noted(line: Line, proof: HoldProof | None) -> Iterator[InTheWay]:
    """What the log says against it."""
    if proof is not None and proof.result.verdict == "leaks":
        yield InTheWay(stage="prove", text="The last hold test says that it leaks", step="hold")
    for check in line.proving.checks:
        if check.works == "no":
            yield InTheWay(stage="prove", text=f"It does not work: {check.note or check.step}")
    for item in line.open_items:
        if not item.closed:
            yield InTheWay(stage="fit", text=f"Left for later: {item.what.strip() or item.kind}")
    over = not_back(line.removal.items)
    if over:
        yield InTheWay(stage="fit", text=f"{len(over)} of what came off are not refitted")


def still_on_now(work: Work, done: Collection[str]) -> tuple[PutOn, ...]:
    """What is on the machine after the steps that are `done`."""
    put = {name for step in work.steps if step.id in done for name in step.on}
    off = {name for step in work.steps if step.id in done for name in step.off}
    return still_on(work.put_on, put, off)


def last_hold(line: Line, holds: Mapping[str, HoldProof]) -> HoldProof | None:
    """What the newest hold test proves; None where it cannot be judged: an older one proves nothing then."""
    return holds.get(line.proving.holds[-1].id) if line.proving.holds else None


def _short(text: str) -> str:
    """The first sentence of a step."""
    return text.split(". ")[0].rstrip(".")


def step_done(line: Line, kit: Kit, step: Step, joint: LineJoint | None, held: bool) -> bool:
    """Whether a step is done: ticked, logged where it asks for figures, proved by a hold test (`held`), or
    the joint found dry as often as its round asks."""
    proving = line.proving
    if step.does == "holds":
        return held
    if step.does == "looks":
        return joint is not None and rounds_dry(line, kit, joint) >= step.round
    if step.kind == "works":
        passed = ("yes", "not fitted") if step.if_fitted else ("yes",)
        return any(check.step == step.run and check.works in passed for check in proving.checks)
    if proving.ticked(step.id) is not None:
        return True
    logged = [row.place for row in proving.fills if step.run and row.step == step.run]
    if step.by_place:
        return bool(logged) and set(places_of(line, kit)) <= set(logged)
    return bool(logged)


def places_of(line: Line, kit: Kit) -> tuple[str, ...]:
    """Where the line is bled, in order: as chosen or typed, else in the first of the usual orders."""
    orders = kit.proving.by_service[line.service].orders
    return line.proving.places or next((order.places for order in orders if order.places), ())
