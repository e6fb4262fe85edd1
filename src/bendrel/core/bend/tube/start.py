"""Which end to start from, and which to leave long and trim at the last."""

from __future__ import annotations

from bendrel.core.bend.tube.ends import PlannedEnd
from bendrel.core.bend.tube.part import Part
from bendrel.core.findings import EndName, Source
from bendrel.core.line.run import Run
from bendrel.core.record import record

SOURCE = Source(kind="common practice", text="start at the tightest geometry, trim the far end last")


@record
class StartAdvice:
    """The end to begin at, and why."""

    end: EndName
    text: str
    source: Source


def where_to_start(run: Run, part: Part) -> StartAdvice:
    """An end that can only be flared before bending comes first, and so does a ready-made one; an end
    with a hose beyond it, which forgives, comes last; else the end with the tighter geometry.

    The tighter end is the one that has more degrees of bending in the nearer half of the tube.
    """
    ends: tuple[EndName, EndName] = ("A", "B")
    planned = {"A": part.end_a, "B": part.end_b}
    for end, other in (ends, ends[::-1]):
        mine, theirs = planned[end], planned[other]
        if mine.ready and not theirs.ready:
            own = "is the stick's own flare" if mine.flared else "comes finished"
            return _advice(end, other, f"end {end} {own}", theirs)
        if mine.possible_orders == ("before",) and theirs.possible_orders != ("before",):
            return _advice(end, other, f"end {end} can only be flared before it is bent", theirs)
    for end, other in (ends, ends[::-1]):
        if any(piece.kind == "hose" for piece in run.end(other).beyond) and not any(
            piece.kind == "hose" for piece in run.end(end).beyond
        ):
            return _advice(end, other, f"the hose beyond end {other} forgives most", planned[other])
    middle = part.developed_mm / 2
    near_a = sum(bend.angle_deg for bend in part.bends if bend.middle_mm <= middle)
    near_b = sum(bend.angle_deg for bend in part.bends if bend.middle_mm > middle)
    start: EndName = "A" if near_a >= near_b else "B"
    last: EndName = "B" if start == "A" else "A"
    why = f"{max(near_a, near_b):.0f}° of its bends lie in that half"
    return _advice(start, last, why, planned[last])


def _advice(end: EndName, last: EndName, why: str, far: PlannedEnd) -> StartAdvice:
    late = "after" in far.possible_orders or not far.possible_orders
    trim = f"leave end {last} long and trim it at the last" if late else "cut to length first"
    return StartAdvice(end=end, text=f"Start from end {end}: {why}; {trim}.", source=SOURCE)
