"""Fitting and proving a whole line, step by step: loose from end to end, by hand, tight in order, filled,
proved, looked at, and everything counted out again.

What must happen with a joint open stands before its closing; covers go on after it was dry. Source: the
trade's own order of work (common practice), the catalogue's ways of filling and proving.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Literal

from bendrel.core.joints.direction import flow_of
from bendrel.core.line.document import ComponentSpan, Line
from bendrel.core.line.opened import stays
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.proving import Asked, Part, ProvingRule, ProvingStep
from bendrel.core.record import record
from bendrel.core.work.joints import LineJoint
from bendrel.core.work.old_ends import old_end_work
from bendrel.core.work.put_on import PutOn, put_on

ProvedAt = Literal["fit", "prove"]
WorkGroup = Literal[
    "ready", "loose", "hand", "tight", "open", "fill", "hold", "look", "works", "again", "after"
]
Does = Literal["", "starts", "tightens", "looks", "clips", "holds"]
SCREWED = ("nut", "sleeve", "washer", "taper")


@record
class WorkStep:
    """One step. `joint` is the joint it is done at, `does` what it does to it, in which `round`; `opens` are
    joints that must still be open. `on` and `off` are ids of things put on and taken off, `lends` of those
    that are undone for this step alone and back on before it ends; `run` the step of
    the guided run that it is, with what that `asks`. Without a `must` nothing is signed off."""

    id: str
    stage: ProvedAt
    group: WorkGroup
    text: str
    why: str = ""
    joint: str = ""
    does: Does = ""
    round: int = 1
    opens: tuple[str, ...] = ()
    on: tuple[str, ...] = ()
    off: tuple[str, ...] = ()
    lends: tuple[str, ...] = ()
    run: str = ""
    asks: tuple[Asked, ...] = ()
    again: bool = False
    by_place: bool = False
    must: bool = False
    safety: bool = False
    expects: Literal["", "strokes"] = ""
    if_fitted: bool = False


@record
class Work:
    """All steps in their order, the things that are counted in and out, and the joint that is closed last
    because something must be seen with it open (blank: none)."""

    steps: tuple[WorkStep, ...]
    put_on: tuple[PutOn, ...]
    last_open: str


def work_of(line: Line, kit: Kit, joints: tuple[LineJoint, ...]) -> Work:
    """The work of fitting and proving `line`. Raises KeyError for a service that the catalogue lacks."""
    rule = kit.proving.by_service[line.service]
    opened = any(step.part == "open" for step in rule.steps)
    last = _last(line, kit, joints) if opened else None
    things = put_on(line, kit, joints)
    fit = tuple(_fit(line, kit, rule, joints, last, things))
    prove = tuple(_prove(rule, joints, things))
    return Work(steps=(*fit, *prove), put_on=things, last_open=last.id if last else "")


def _last(line: Line, kit: Kit, joints: tuple[LineJoint, ...]) -> LineJoint | None:
    """The joint that the flow comes to last."""
    duty = kit.services[line.service].duty
    back = flow_of(line, vacuum=duty is not None and duty.vacuum) == "B to A"
    return (joints[0] if back else joints[-1]) if joints else None


def _fit(
    line: Line,
    kit: Kit,
    rule: ProvingRule,
    joints: tuple[LineJoint, ...],
    last: LineJoint | None,
    things: tuple[PutOn, ...],
) -> Iterator[WorkStep]:
    first = [joint for joint in joints if joint is not last]
    yield from _ready(line, kit, rule, joints, things)
    yield from _loose(line)
    for joint in first:
        yield _by_hand(joint, things, "hand")
    for joint in first:
        yield _tighten(joint, "tight")
    yield WorkStep(
        id="clips",
        stage="fit",
        group="tight",
        does="clips",
        text="Clips, from one end to the other: each snug, the line not pulled.",
    )
    # what is not held back by it may come off; what holds something back waits for the last joint
    yield from _taken_off((thing for thing in things if thing.source is None), "fill", "tight")
    sources = tuple(thing for thing in things if thing.source is not None and thing.until == "fill")
    if last is not None:
        for step in _parts(rule, "open"):
            yield _with_it_open(step, last, sources)
        yield _by_hand(last, things, "open")
        yield _tighten(last, "open")
    behind: WorkGroup = "tight" if last is None else "open"
    if sources:
        yield WorkStep(
            id="closed",
            stage="fit",
            group=behind,
            text="Look along the whole line: every joint closed and tight, no plug, cap or wrap left in it.",
            why="Only now does what was shut, pulled or taken off for the work come back.",
            must=True,
            safety=True,
        )
    yield from _taken_off(reversed(sources), "fill", behind)


def _with_it_open(step: ProvingStep, last: LineJoint, sources: tuple[PutOn, ...]) -> WorkStep:
    """What must be seen with the last joint open: whatever holds it back is undone for this step alone and
    back before the joint is closed, the last off the first on."""
    held = [thing.source for thing in reversed(sources) if thing.source is not None]
    lets = [one.back for one in held] + ([] if any(one.tap for one in held) else [step.lets])
    stops = ([] if any(one.tap for one in held) else [step.stops]) + [one.shut for one in reversed(held)]
    text = (
        f"{step.text} For this step alone: {', '.join(lets)}. Before the joint is closed: {', '.join(stops)}."
    )
    return replace(
        _run(step, "fit", "open", opens=(last.id,)), text=text, lends=tuple(thing.id for thing in sources)
    )


def _prove(rule: ProvingRule, joints: tuple[LineJoint, ...], things: tuple[PutOn, ...]) -> Iterator[WorkStep]:
    for step in _parts(rule, "fill"):
        yield _run(step, "prove", "fill")
    offer = rule.hold
    if offer is not None:
        yield WorkStep(
            id="hold",
            stage="prove",
            group="hold",
            text=offer.text,
            does="holds",
            must=offer.must,
            safety=offer.kind == "gas",
        )
    for joint in joints:
        yield _look(joint, 1, rule)
    for step in _parts(rule, "function"):
        yield _run(step, "prove", "works")
    if rule.hot or any(joint.nips for joint in joints):
        if rule.relieve and joints:
            yield WorkStep(
                id="relieve", stage="prove", group="again", text=rule.relieve,
                why="A joint that is touched while something stands behind it can let go in your face.",
                must=True, safety=True,
            )  # fmt: skip
        for joint in joints:
            yield _again(joint, rule)
        for joint in joints:
            yield _look(joint, 2, rule)
    if any(joint.closes in SCREWED for joint in joints):
        yield WorkStep(
            id="protect",
            stage="prove",
            group="after",
            text="Dry: steel joints and clips cleaned, waxed or painted.",
            why="Bare nuts rust from the thread; wax before the joint was dry would have hidden a weep.",
        )
    yield WorkStep(
        id="covers",
        stage="prove",
        group="after",
        text="Covers and trays back only now that every joint was dry.",
        why="What hides a joint hides a leak.",
    )
    yield from _taken_off(things, "end", "after")


def _parts(rule: ProvingRule, part: Part) -> list[ProvingStep]:
    return [step for step in rule.steps if step.part == part]


def _ready(
    line: Line, kit: Kit, rule: ProvingRule, joints: tuple[LineJoint, ...], things: tuple[PutOn, ...]
) -> Iterator[WorkStep]:
    for old in old_end_work(line, kit):
        yield WorkStep(
            id=f"old-{old.span}-{old.end}",
            stage="fit",
            group="ready",
            text=old.text,
            why=old.why,
            opens=tuple(joint.id for joint in joints),
            must=old.cut,
        )
    new = any(not isinstance(span, ComponentSpan) and not stays(span) for span in line.spans)
    every = tuple(joint.id for joint in joints)
    if rule.blow and new:
        yield WorkStep(
            id="blow",
            stage="fit",
            group="ready",
            text="Blow every new piece through with clean dry air, both ways, away from the face.",
            why="Chips lie where the first bend catches them; the other way brings them out.",
            opens=every,
            must=True,
        )
    if rule.flush and new:
        yield WorkStep(id="flush", stage="fit", group="ready", text=rule.flush, opens=every, must=True)
    caps = tuple(thing.id for thing in things if thing.by_cap)
    if caps:
        yield WorkStep(
            id="cap",
            stage="fit",
            group="ready",
            text=f"Cap or wrap every open end, {len(caps)} of them; each stays on until it is joined.",
            why="What is clean now is dirty after one pass under the machine.",
            opens=every,
            on=caps,
        )


def _loose(line: Line) -> Iterator[WorkStep]:
    removal = line.removal
    went = removal.went_out.strip()
    way = f", the way the old one came out ({went}), backwards" if went else ""
    state = "; ".join(removal.machine_state)
    yield WorkStep(
        id="in",
        stage="fit",
        group="loose",
        text=f"Bring it in loose from end to end{way}.{' Two people.' if removal.two_people else ''}",
        why=f"The machine stood so: {state}." if state else "Nothing is tight until all has found its place.",
    )
    yield WorkStep(
        id="clips-loose",
        stage="fit",
        group="loose",
        text="Clips, sleeves and grommets on, all loose.",
        why="Some only go on before a joint is closed; a tight clip pulls a joint out of line.",
    )


def _by_hand(joint: LineJoint, things: tuple[PutOn, ...], group: WorkGroup) -> WorkStep:
    off = tuple(thing.id for thing in things if thing.joint == joint.id)
    told = [
        "Cap and plug off only now." if off else "",
        "" if joint.meets else "Look into the port with a mirror: no rest of an old seal.",
        f"New: {', '.join(joint.new_parts)}." if joint.new_parts else "",
        _started(joint),
    ]
    return WorkStep(
        id=f"hand-{joint.id}",
        stage="fit",
        group=group,
        text=" ".join(text for text in told if text),
        why=joint.angle,
        joint=joint.id,
        does="starts",
        off=off,
    )


def _started(joint: LineJoint) -> str:
    if joint.closes == "clamp":
        return "Push it on to its mark, clamps loose behind the bead."
    if joint.closes == "push":
        return "Push it on to its mark."
    if joint.closes == "latch":
        return "Push it home until it clicks, and pull on it."
    turns = f", about {joint.turns:.0f} turns until it meets" if joint.turns else ""
    return f"Start it by hand and run it home{turns}. No wrench before that."


def _tighten(joint: LineJoint, group: WorkGroup) -> WorkStep:
    text = joint.tight
    if joint.closes in SCREWED:
        wrench = f" with the {joint.wrench} wrench" if joint.wrench else ""
        held = f", a second wrench on {joint.holds}" if joint.holds else ""
        torque = "" if joint.tight else " to its torque"
        text = f"Tighten{wrench}{torque}{held}. {joint.tight}".strip()
    return WorkStep(
        id=f"tight-{joint.id}",
        stage="fit",
        group=group,
        text=text,
        why=joint.angle,
        joint=joint.id,
        does="tightens",
        must=True,
    )


def _begun(words: str) -> str:
    """Words that begin a sentence."""
    return words[0].upper() + words[1:]


def after_relief(kit: Kit, line: Line, text: str) -> str:
    """What is done to a closed joint, with what must be let off before it is touched."""
    return f"{kit.proving.by_service[line.service].relieve} {text}".strip()


def _look(joint: LineJoint, round_: int, rule: ProvingRule) -> WorkStep:
    hot = " and hot" if rule.hot else ""
    return WorkStep(
        id=f"look-{joint.id}-{round_}",
        stage="prove",
        group="look" if round_ == 1 else "again",
        text="Dry it, wait, look." if round_ == 1 else f"Dry it once more, at work again{hot}, wait, look.",
        joint=joint.id,
        does="looks",
        round=round_,
        must=True,
    )


_SETTLES = {
    "sleeve": "a sleeve settles",
    "nut": "a soft flare settles",
    "washer": "a soft washer settles",
    "taper": "never backwards, the sealant would tear",
}


def _again(joint: LineJoint, rule: ProvingRule) -> WorkStep:
    if joint.closes == "clamp":
        text = "Give worm clamps a quarter turn at most; spring and ear clamps are only looked at."
    elif joint.closes not in SCREWED:
        text = "Pull on it, and look where it sits."
    elif joint.nips:
        text = f"Nip it once more, the second wrench on: {_SETTLES[joint.closes]}."
    else:
        text = "Put the wrench on at its torque once more: it must not turn."
    return WorkStep(
        id=f"again-{joint.id}",
        stage="prove",
        group="again",
        text=f"With nothing standing behind it, {text[0].lower()}{text[1:]}" if rule.relieve else text,
        joint=joint.id,
        does="tightens",
        round=2,
        must=True,
    )


def _taken_off(
    things: Iterable[PutOn], until: Literal["fill", "end"], group: WorkGroup
) -> Iterator[WorkStep]:
    for thing in things:
        if thing.until == until:
            back = f"{_begun(thing.source.back)}, now that every joint is closed." if thing.source else ""
            yield WorkStep(
                id=f"off-{thing.id}",
                stage="fit" if until == "fill" else "prove",
                group=group,
                text=back or f"{_begun(thing.what)} off again.",
                off=(thing.id,),
                must=True,
                safety=True,
            )


def _run(step: ProvingStep, stage: ProvedAt, group: WorkGroup, opens: tuple[str, ...] = ()) -> WorkStep:
    return WorkStep(
        id=f"run-{step.id}",
        stage=stage,
        group=group,
        text=step.text,
        opens=opens,
        run=step.id,
        asks=step.asks,
        again=step.again,
        by_place=step.by_place,
        must=step.must,
        safety=step.safety,
        expects=step.expects,
        if_fitted=step.if_fitted,
    )
