"""Fitting and proving a whole line, step by step: loose from end to end, by hand, tight in order, filled,
proved, looked at, and everything counted out again.

What must happen with a joint open stands before its closing; covers go on after it was dry. Source: the
trade's own order of work (common practice), the catalogue's ways of filling and proving.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Literal

from bendrel.core.joints.closing import LineJoint, hand_step
from bendrel.core.joints.direction import flow_of
from bendrel.core.line.condition import HOLDING
from bendrel.core.line.document import ComponentSpan, Line, RigidSpan
from bendrel.core.line.opened import stays
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.proving import Part, ProvingRule, ProvingStep
from bendrel.core.parts.step import Step, step_of
from bendrel.core.parts.step_row import StepKind
from bendrel.core.record import record
from bendrel.core.work.clip_words import put_on_words, tight_words, to_fasten
from bendrel.core.work.old_tube import old_end_work
from bendrel.core.work.put_on import PutOn, put_on


@record
class Work:
    """All steps in their order, the things that are counted in and out, and the joint that is closed last
    because something must be seen with it open (blank: none)."""

    steps: tuple[Step, ...]
    put_on: tuple[PutOn, ...]
    last_open: str


@record
class _Line:
    """What the steps of one line are told from."""

    line: Line
    kit: Kit
    rule: ProvingRule
    joints: tuple[LineJoint, ...]
    last: LineJoint | None
    things: tuple[PutOn, ...]

    def parts(self, part: Part) -> list[ProvingStep]:
        """The steps of the guided run that are done in one part of it."""
        return [step for step in self.rule.steps if step.part == part]

    @property
    def every(self) -> tuple[str, ...]:
        """All joints, by id."""
        return tuple(joint.id for joint in self.joints)


def work_of(line: Line, kit: Kit, joints: tuple[LineJoint, ...]) -> Work:
    """The work of fitting and proving `line`. Raises KeyError for a service that the catalogue lacks."""
    rule, things = kit.proving.by_service[line.service], put_on(line, kit, joints)
    opened = any(step.part == "open" for step in rule.steps)
    last = _last(line, kit, joints) if opened else None
    of = _Line(line=line, kit=kit, rule=rule, joints=joints, last=last, things=things)
    steps = (*_ready(of), *_loose(of), *_fit(of), *_prove(of))
    return Work(steps=steps, put_on=things, last_open=last.id if last else "")


def _last(line: Line, kit: Kit, joints: tuple[LineJoint, ...]) -> LineJoint | None:
    """The joint that the flow comes to last."""
    duty = kit.services[line.service].duty
    back = flow_of(line, vacuum=duty is not None and duty.vacuum) == "B to A"
    return (joints[0] if back else joints[-1]) if joints else None


def _ready(of: _Line) -> Iterator[Step]:
    kit, rule = of.kit, of.rule
    for step in old_end_work(of.line, kit):
        yield replace(step, opens=of.every)
    new = any(not isinstance(span, ComponentSpan) and not stays(span) for span in of.line.spans)
    if rule.blow and new:
        yield replace(step_of(kit, "blow"), opens=of.every)
    if rule.flush and new:
        yield replace(step_of(kit, "flush", flush=rule.flush), opens=of.every)
    caps = tuple(thing.id for thing in of.things if thing.by_cap)
    if caps:
        yield replace(step_of(kit, "cap", count=len(caps)), opens=of.every, on=caps)


def _loose(of: _Line) -> Iterator[Step]:
    removal = of.line.removal
    went, state = removal.went_out.strip(), "; ".join(removal.machine_state)
    yield step_of(
        of.kit,
        "in",
        way=f", the way the old one came out ({went}), backwards" if went else "",
        people=" Two people." if removal.two_people else "",
        state=f"The machine stood so: {state}."
        if state
        else "Nothing is tight until all has found its place.",
    )
    fastened = to_fasten(of.line)
    if _new_tube(of.line) and not any(item.kind in HOLDING for item in fastened):
        yield step_of(of.kit, "clips-loose")
    for item in fastened:
        yield step_of(of.kit, "clip-loose", f"clip-loose-{item.id}", told=put_on_words(of.line, of.kit, item))


def _fit(of: _Line) -> Iterator[Step]:
    kit, last = of.kit, of.last
    first = [joint for joint in of.joints if joint is not last]
    for joint in first:
        yield _by_hand(of, joint, "hand")
    for joint in first:
        yield _tighten(of, joint, "tight")
    held = [item for item in to_fasten(of.line) if item.kind in HOLDING]
    if _new_tube(of.line) and not held:
        yield step_of(kit, "clips")
    for item in held:
        told = tight_words(of.line, of.kit, item)
        yield step_of(kit, "clip-tight", f"clip-tight-{item.id}", told=told)
    # what is not held back by it may come off; what holds something back waits for the last joint
    yield from _taken_off(kit, (thing for thing in of.things if thing.source is None), "fill", "tight")
    sources = tuple(thing for thing in of.things if thing.source is not None and thing.until == "fill")
    if last is not None:
        for step in of.parts("open"):
            yield _with_it_open(step, last, sources)
        yield _by_hand(of, last, "open")
        yield _tighten(of, last, "open")
    behind: StepKind = "tight" if last is None else "open"
    if sources:
        yield replace(step_of(kit, "closed"), kind=behind)
    yield from _taken_off(kit, reversed(sources), "fill", behind)


def _new_tube(line: Line) -> bool:
    """Tube that is new hangs in clips, noted or not; old tube and hoses hang in what is noted."""
    return any(isinstance(span, RigidSpan) and not stays(span) for span in line.spans)


def _with_it_open(step: ProvingStep, last: LineJoint, sources: tuple[PutOn, ...]) -> Step:
    """What must be seen with the last joint open: whatever holds it back is undone for this step alone and
    back before the joint is closed, the last off the first on."""
    held = [thing.source for thing in reversed(sources) if thing.source is not None]
    lets = [one.back for one in held] + ([] if any(one.tap for one in held) else [step.lets])
    stops = ([] if any(one.tap for one in held) else [step.stops]) + [one.shut for one in reversed(held)]
    text = (
        f"{step.text} For this step alone: {', '.join(lets)}. Before the joint is closed: {', '.join(stops)}."
    )
    lends = tuple(thing.id for thing in sources)
    return replace(_run(step, "open"), stage="fit", text=text, opens=(last.id,), lends=lends)


def _prove(of: _Line) -> Iterator[Step]:
    kit, rule = of.kit, of.rule
    for step in of.parts("fill"):
        yield _run(step, "fill")
    offer = rule.hold
    if offer is not None:
        hold = step_of(kit, "hold", told=offer.text)
        yield replace(hold, must=offer.must, safety=offer.kind == "gas")
    watch = kit.proving.watches[rule.watched]
    looked = of.joints if watch.each else ()
    for joint in looked:
        yield replace(step_of(kit, "look", f"look-{joint.id}-1", told=watch.look), joint=joint.id)
    for step in of.parts("function"):
        yield _run(step, "works")
    if rule.hot or any(joint.nips for joint in of.joints):
        if rule.relieve and of.joints:
            draws = rule.hold is not None and rule.hold.kind == "vacuum"
            yield step_of(kit, "relieve-vacuum" if draws else "relieve", "relieve", told=rule.relieve)
        for joint in of.joints:
            yield _again(kit, joint, rule)
        told = watch.again.format(hot=" and hot" if rule.hot else "")
        for joint in looked:
            again = step_of(kit, "look-again", f"look-{joint.id}-2", told=told)
            yield replace(again, joint=joint.id, round=2)
    if any(kit.proving.closings[joint.closes].screwed for joint in of.joints):
        yield step_of(kit, "protect")
    yield step_of(kit, "covers")
    yield from _taken_off(kit, of.things, "end", "after")


def _by_hand(of: _Line, joint: LineJoint, kind: StepKind) -> Step:
    off = tuple(thing.id for thing in of.things if thing.joint == joint.id)
    turns = f", about {joint.turns:.0f} turns until it meets" if joint.turns else ""
    told = [
        "Cap and plug off only now." if off else "",
        "" if joint.meets else of.kit.proving.closings[joint.closes].port,
        f"New: {', '.join(joint.new_parts)}." if joint.new_parts else "",
        of.kit.proving.closings[joint.closes].start.format(turns=turns),
    ]
    said = " ".join(text for text in told if text)
    step = step_of(of.kit, "hand", hand_step(joint.id), told=said, angle=joint.angle)
    return replace(step, kind=kind, joint=joint.id, off=off)


def _tighten(of: _Line, joint: LineJoint, kind: StepKind) -> Step:
    text = joint.tight
    if of.kit.proving.closings[joint.closes].screwed:
        wrench = f" with the {joint.wrench} wrench" if joint.wrench else ""
        held = f", a second wrench on {joint.holds}" if joint.holds else ""
        torque = "" if joint.tight else " to its torque"
        text = f"Tighten{wrench}{torque}{held}. {joint.tight}".strip()
    step = step_of(of.kit, "tight", f"tight-{joint.id}", told=text, angle=joint.angle)
    return replace(step, kind=kind, joint=joint.id)


def _again(kit: Kit, joint: LineJoint, rule: ProvingRule) -> Step:
    closing = kit.proving.closings[joint.closes]
    text = joint.again or "Put the wrench on at its torque once more: it must not turn."
    if closing.screwed and joint.nips:
        text = f"Nip it once more, the second wrench on: {closing.settles}."
    told = f"With nothing standing behind it, {text[0].lower()}{text[1:]}" if rule.relieve else text
    return replace(step_of(kit, "again", f"again-{joint.id}", told=told), joint=joint.id, round=2)


def _begun(words: str) -> str:
    """Words that begin a sentence."""
    return words[0].upper() + words[1:]


def after_relief(kit: Kit, line: Line, text: str) -> str:
    """What is done to a closed joint, with what must be let off before it is touched."""
    return f"{kit.proving.by_service[line.service].relieve} {text}".strip()


def _taken_off(
    kit: Kit, things: Iterable[PutOn], until: Literal["fill", "end"], kind: StepKind
) -> Iterator[Step]:
    for thing in things:
        if thing.until == until:
            back = f"{_begun(thing.source.back)}, now that every joint is closed." if thing.source else ""
            told = back or f"{_begun(thing.what)} off again."
            step = step_of(kit, "off", f"off-{thing.id}", told=told)
            yield replace(step, stage="fit" if until == "fill" else "prove", kind=kind, off=(thing.id,))


def _run(step: ProvingStep, kind: StepKind) -> Step:
    return Step(
        id=f"run-{step.id}",
        stage="prove",
        kind=kind,
        whole=True,
        text=step.text,
        run=step.id,
        asks=step.asks,
        again=step.again,
        by_place=step.by_place,
        must=step.must,
        safety=step.safety,
        expects=step.expects,
        if_fitted=step.if_fitted,
    )
