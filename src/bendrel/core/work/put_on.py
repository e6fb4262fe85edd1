"""What is put on for the time of the work and must come off again: counted in, counted out."""

from __future__ import annotations

from collections.abc import Collection, Iterator
from typing import Literal

from bendrel.core.joints.closing import LineJoint
from bendrel.core.line.apart import removal_steps
from bendrel.core.line.document import Line
from bendrel.core.line.run import ENDS
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.removal import HeldBack
from bendrel.core.record import record


@record
class PutOn:
    """One thing that is on the machine for the time of the work. It comes off at its `joint`, before the
    system is filled, or at the very end. `by_cap` says that it is put on while the line is fitted, `source`
    that it holds something back until the last joint is closed and looked at."""

    id: str
    what: str
    until: Literal["joint", "fill", "end"]
    joint: str = ""
    by_cap: bool = False
    source: HeldBack | None = None


def put_on(line: Line, kit: Kit, joints: tuple[LineJoint, ...]) -> tuple[PutOn, ...]:
    """Everything that the strip-down, the new pieces and the person's own notes say is on."""
    return tuple(_put_on(line, kit, joints))


def still_on(things: tuple[PutOn, ...], put: Collection[str], off: Collection[str]) -> tuple[PutOn, ...]:
    """What is on the machine now: caps once they were `put` on, everything else from the beginning, until it
    is `off`."""
    return tuple(thing for thing in things if thing.id not in off and (not thing.by_cap or thing.id in put))


def _put_on(line: Line, kit: Kit, joints: tuple[LineJoint, ...]) -> Iterator[PutOn]:
    done = set(line.removal.done)
    for step in removal_steps(line, kit):
        if step.leaves and step.id in done:
            yield PutOn(id=step.id, what=step.leaves, until=step.until, source=step.source)
    for end in ENDS:
        plug = f"plug-{end}"
        if plug in done:
            at = next((joint.id for joint in joints if joint.end == end and not joint.meets), "")
            yield PutOn(id=plug, what=f"the plug in port {end}", until="joint" if at else "fill", joint=at)
    for joint in joints:
        if joint.new:
            what = f"the cap or wrap, {joint.place}"
            yield PutOn(id=f"cap-{joint.id}", what=what, until="joint", joint=joint.id, by_cap=True)
    for own in line.proving.counted:
        what = own.what.strip() or "something put on for the work"
        yield PutOn(id=f"own-{own.id}", what=what, until="end")
