"""The ends of old tube that a hose or a component goes on: cut, cleaned and finished on the machine.

What a new tube meets is told with that tube (`rigid/old_tube.py`). Source: common practice of repairs.
"""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import EndName
from bendrel.core.joints.faces import facing
from bendrel.core.line.document import Line, RigidSpan
from bendrel.core.line.opened import end_opened, stays
from bendrel.core.line.run import ENDS
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record

_FINISHED = {
    "bead": "Bead it with the beading tool that goes on there; the bead smooth, no crack.",
    "barb": "Put the barb on as it is made for this tube; never braze beside fuel or on the machine.",
    "plain": "Smooth and clean as far as the hose goes on, a few shallow grooves round it, none along it.",
}
_MADE = "Finish it as {name}, on the machine, with the tool that has room there."


@record
class OldEndWork:
    """What is done at one end of an old tube; `cut` says that it is cut for this work."""

    span: str
    end: EndName
    cut: bool
    text: str
    why: str


def old_end_work(line: Line, kit: Kit) -> Iterator[OldEndWork]:
    """The work at every opened end of an old tube that no new tube meets, from port A on."""
    for k, span in enumerate(line.spans):
        if not isinstance(span, RigidSpan) or not stays(span):
            continue
        for end in ENDS:
            other = k - 1 if end == "A" else k + 1
            if not 0 <= other < len(line.spans) or not end_opened(line, k, end):
                continue
            neighbour = line.spans[other]
            if isinstance(neighbour, RigidSpan):
                continue
            yield _work(line, kit, k, span, end)


def _work(line: Line, kit: Kit, k: int, span: RigidSpan, end: EndName) -> OldEndWork:
    tubes = [one for one in line.spans if isinstance(one, RigidSpan)]
    number = f" {tubes.index(span) + 1}" if len(tubes) > 1 else ""
    where = f"Old tube{number}, end {end}"
    choice = span.end(end)
    if choice.ready:
        return OldEndWork(
            span=span.id,
            end=end,
            cut=False,
            text=f"{where}: it keeps its end. Clean it, look at it under a light: no pit where it seals.",
            why="What was crusted over looks sound until the new part is on.",
        )
    fitting = kit.fittings.get(choice.fitting)
    name = fitting.name if fitting is not None else "the end that is noted"
    made = _FINISHED.get(choice.fitting, _MADE.format(name=name))
    met = facing(kit, line, k, end)
    until = "the hose goes on" if met.kind == "bore" else "it is joined"
    return OldEndWork(
        span=span.id,
        end=end,
        cut=True,
        text=f"{where}: cut it square at the place on the strip, catch what runs out, deburr inside and out "
        f"without letting chips in. {made} Plug it until {until}.",
        why="Grit that goes in now is found in the pump later; an edge that is left cuts the hose.",
    )
