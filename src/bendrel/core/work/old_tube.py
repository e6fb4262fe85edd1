"""The work at an old tube that stays, where a new piece meets it: cut, plugged, marked, made ready, joined.

It is done on the machine, with what fits there. Source: common practice of repairs from a separation point.
"""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import EndName
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.resolve import resolve
from bendrel.core.line.run import ENDS, Run
from bendrel.core.mend.there import flarer_there
from bendrel.core.parts.fitting import Fitting, FittingKind, Flarer
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length
from bendrel.core.work.steps import Step

PUSHED_ON: tuple[FittingKind, ...] = ("compression", "bite")


@record
class OldEnd:
    """The end of an old tube beyond end `end` of a new piece: how it is finished, what joins the two, how
    long its straight is (None while not known) and by how much the new piece overlaps it."""

    end: EndName
    joint: str
    fitting: Fitting
    nut_thread: str | None
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
    size = kit.end_size(fitting.id, kit.tubes[neighbour.tube].size) if neighbour.tube in kit.tubes else None
    straight = _straight_mm(kit, neighbour, "B" if end == "A" else "A")
    named = kit.joints.get(joint.kind)
    return OldEnd(
        end=end,
        joint=named.name if named else "",
        fitting=fitting,
        nut_thread=nut.thread if nut else None,
        insertion_mm=size.used_mm or 0.0 if size else 0.0,
        straight_mm=straight,
        overlap_mm=overlap_mm,
        tool=flarer_there(kit, fitting, straight, nut.length_mm if nut else 0.0),
    )


def _straight_mm(kit: Kit, span: RigidSpan, end: EndName) -> float | None:
    tube, bender = kit.tubes.get(span.tube), kit.tool(span.bender, span.tube)
    if tube is None or bender is None:
        return None
    shape = resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius_mm).shape
    if shape is None:
        return None
    return shape.straights_mm[0 if end == "A" else -1]


def cut_and_plugged(olds: tuple[OldEnd, ...]) -> Iterator[Step]:
    """What is done to the old tube before the new piece is made."""
    for old in olds:
        yield Step(
            kind="old tube",
            text=(
                f"Old tube at end {old.end}: cut it square at the place on the strip, deburr without letting "
                "chips in, and plug it until the joint is closed."
            ),
            why="What still runs out is caught; grit that goes in now is found in the pump later.",
        )


def marked(olds: tuple[OldEnd, ...], unit: Unit) -> Iterator[Step]:
    """Where the new piece is trimmed, told by the old tube itself."""
    for old in olds:
        if old.overlap_mm > 0:
            yield Step(
                kind="fit",
                text=(
                    f"End {old.end}, left {format_length(old.overlap_mm, unit)} long: lay it along the old "
                    "tube and mark both where the joint's two ends will stand. Trim to the mark, not to the "
                    "figure."
                ),
                why="Old brackets have moved; the mark takes up what the tape does not know.",
            )


def made_ready(olds: tuple[OldEnd, ...], unit: Unit) -> Iterator[Step]:
    """The old tube's own end, made on the machine, then what goes back on the line."""
    for old in olds:
        nut = f"nut {old.nut_thread} on first, thread outwards" if old.nut_thread else "nothing to put on"
        if old.fitting.flared:
            tool = (
                f"with the {old.tool.name}, which holds {format_length(old.tool.grip_mm, unit)}"
                if old.tool
                else "no flaring tool has room on that straight: cut further back, or join it otherwise"
            )
            text = f"Flare the old tube at end {old.end} on the machine, {old.fitting.name}: {nut}; {tool}."
            why = "Look at the flare with a mirror: old tube cracks where it is pitted."
        elif old.fitting.kind in PUSHED_ON:
            into = f", {format_length(old.insertion_mm, unit)} into the body" if old.insertion_mm else ""
            text = (
                f"Old tube at end {old.end}: clean it bright, {nut}, sleeve on; "
                f"mark how far it goes in{into}."
            )
            why = "Paint or rust under a sleeve is a leak; without the mark nobody knows that it is home."
        else:
            continue
        yield Step(kind="old tube", text=text, why=why)
    if olds:
        yield Step(
            kind="old tube",
            text="Sleeves, springs and clips over both tubes now, in their old places.",
            why="Most of them only go on before the joint is closed.",
        )
