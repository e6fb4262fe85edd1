"""The work at an old tube that stays: where a new piece meets it, and where a hose or a component goes on.

It is done on the machine, with what fits there. Source: common practice of repairs from a separation point.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.vectors import length
from bendrel.core.joints.faces import facing
from bendrel.core.line.document import Line, RigidSpan
from bendrel.core.line.opened import end_opened, stays
from bendrel.core.line.resolve import resolve
from bendrel.core.line.run import ENDS, Run
from bendrel.core.mend.there import flarer_there
from bendrel.core.parts.fitting import Fitting, FittingKind, Flarer, Nut
from bendrel.core.parts.flaring import Flaring
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step, step_of
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length
from bendrel.core.work.flaring import flaring_of, old_to_flare

PUSHED_ON: tuple[FittingKind, ...] = ("compression", "bite")


@record
class OldEnd:
    """The end of an old tube beyond end `end` of a new piece: how it is finished, what joins the two, how
    long its straight is (None while not known) and by how much the new piece overlaps it; `tube` is None
    while its size is not known."""

    end: EndName
    joint: str
    fitting: Fitting
    nut: Nut | None
    tube: Tube | None
    insertion_mm: float
    straight_mm: float | None
    overlap_mm: float
    tool: Flarer | None


def old_ends(run: Run, kit: Kit, overlaps_mm: dict[EndName, float]) -> tuple[OldEnd, ...]:
    """The old tubes that a piece to make meets, from end A; none for one that stays itself."""
    if run.span.state == "stays":
        return ()
    return tuple(old for end in ENDS if (old := _old_end(run, kit, end, overlaps_mm[end])) is not None)


def _old_end(run: Run, kit: Kit, end: EndName, overlap_mm: float) -> OldEnd | None:
    at = run.index + (-1 if end == "A" else 1)
    neighbour = run.line.spans[at] if 0 <= at < len(run.line.spans) else None
    joint = run.end(end).joint
    if not isinstance(neighbour, RigidSpan) or neighbour.state != "stays" or joint is None:
        return None
    facing = neighbour.end("B" if end == "A" else "A")
    fitting = kit.fittings.get(facing.fitting)
    if fitting is None:
        return None
    nut = kit.nuts.get(facing.nut) if facing.nut else None
    tube = kit.tubes.get(neighbour.tube)
    size = kit.end_size(fitting.id, tube.size) if tube is not None else None
    straight = _straight_mm(kit, neighbour, "B" if end == "A" else "A")
    named = kit.joints.get(joint.kind)
    return OldEnd(
        end=end,
        joint=named.name if named else "",
        fitting=fitting,
        nut=nut,
        tube=tube,
        insertion_mm=size.used_mm or 0.0 if size else 0.0,
        straight_mm=straight,
        overlap_mm=overlap_mm,
        tool=flarer_there(kit, fitting, straight, nut.length_mm if nut else 0.0),
    )


def _straight_mm(kit: Kit, span: RigidSpan, end: EndName) -> float | None:
    tube, bender = kit.tubes.get(span.tube), kit.tool(span.bender, span.tube)
    if tube is None or bender is None:
        return None
    shape = resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius).shape
    if shape is None:
        return None
    return shape.straights_mm[0 if end == "A" else -1]


def cut_and_plugged(kit: Kit, olds: tuple[OldEnd, ...], shape: BendList, unit: Unit) -> Iterator[Step]:
    """What is done to the old tube before the new piece of `shape` is made. A bent piece between two old
    tubes is held against its gap once more: cuts land a little off, and cut tube springs."""
    for old in olds:
        yield step_of(kit, "old-cut", end=old.end)
    if len(olds) == len(ENDS) and shape.bends:
        across = length(end_frame(shape).point)
        near = format_length(kit.limits["meets_mm"].value, unit)
        yield step_of(kit, "old-gap", across=format_length(across, unit), near=near)


def marked(kit: Kit, olds: tuple[OldEnd, ...], unit: Unit) -> Iterator[Step]:
    """Where the new piece is trimmed, told by the old tube itself."""
    for old in olds:
        if old.overlap_mm > 0:
            yield step_of(kit, "old-mark", end=old.end, overlap=format_length(old.overlap_mm, unit))


def made_ready(kit: Kit, olds: tuple[OldEnd, ...], unit: Unit) -> Iterator[Step]:
    """The old tube's own end, made on the machine, then what goes back on the line."""
    for old in olds:
        nut = f"nut {old.nut.thread} on first, thread outwards" if old.nut else "nothing to put on"
        if old.fitting.flared:
            tool = "no flaring tool has room on that straight: cut further back, or join it otherwise"
            if old.tool is not None:
                tool = f"with the {old.tool.name}, which holds {format_length(old.tool.grip_mm, unit)}"
            step = step_of(kit, "old-flare", end=old.end, name=old.fitting.name, nut=nut, tool=tool)
            yield replace(step, flaring=_flaring(kit, old, unit))
        elif old.fitting.kind in PUSHED_ON:
            into = f", {format_length(old.insertion_mm, unit)} into the body" if old.insertion_mm else ""
            yield step_of(kit, "old-sleeve", end=old.end, nut=nut, into=into)
    if olds:
        yield step_of(kit, "old-sleeves")


def _flaring(kit: Kit, old: OldEnd, unit: Unit) -> Flaring | None:
    """How the old tube is flared where it is; None while its size or a tool for it is not known."""
    if old.tube is None or old.tool is None:
        return None
    one = old_to_flare(kit, old.tube, old.fitting, old.end, old.tool, old.nut, unit)
    return flaring_of(kit, replace(one, straight_mm=old.straight_mm))


def old_end_work(line: Line, kit: Kit) -> Iterator[Step]:
    """The work at every opened end of an old tube that a hose or a component goes on, from port A on; what a
    new tube meets is told with that tube."""
    for k, span in enumerate(line.spans):
        if not isinstance(span, RigidSpan) or not stays(span):
            continue
        for end in ENDS:
            other = k - 1 if end == "A" else k + 1
            if not 0 <= other < len(line.spans) or not end_opened(line, k, end):
                continue
            if not isinstance(line.spans[other], RigidSpan):
                yield _at_old_end(line, kit, k, span, end)


def _at_old_end(line: Line, kit: Kit, k: int, span: RigidSpan, end: EndName) -> Step:
    tubes = [one for one in line.spans if isinstance(one, RigidSpan)]
    number = f" {tubes.index(span) + 1}" if len(tubes) > 1 else ""
    where, choice, name = f"Old tube{number}, end {end}", span.end(end), f"old-{span.id}-{end}"
    if choice.ready:
        return step_of(kit, "old-end-kept", name, where=where)
    fitting = kit.fittings.get(choice.fitting)
    formed = fitting.name if fitting is not None else "the end that is noted"
    made = f"Finish it as {formed}, on the machine, with the tool that has room there."
    if fitting is not None and fitting.formed_there:
        made = fitting.formed_there
    until = "the hose goes on" if facing(kit, line, k, end).kind == "bore" else "it is joined"
    return step_of(kit, "old-end", name, where=where, made=made, until=until)
