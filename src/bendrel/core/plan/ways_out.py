"""The ways on from a part that is not as planned, the least waste first."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from bendrel.core.fitup.correction import best_tweak
from bendrel.core.fitup.exactness import Zone
from bendrel.core.fitup.landing import Landing
from bendrel.core.line.document import Line
from bendrel.core.plan.choices import Choices
from bendrel.core.plan.kit import Kit
from bendrel.core.plan.model import Part
from bendrel.core.record import record
from bendrel.core.shape.bends import BendList
from bendrel.core.units import Unit, format_length

WayKind = Literal["as planned", "re-plan", "tweak", "forgive", "joint", "start again"]


@record
class WayOut:
    """One way on, with the tube that it loses (mm)."""

    kind: WayKind
    text: str
    lost_mm: float


@record
class Standing:
    """Where the part stands: as it is now with the rest as planned, what is left at end B after
    re-planning, whether that meets, and the bends that are made (from 0)."""

    now: BendList
    planned: BendList
    left: Landing
    meets: bool
    near: bool
    zone: Zone
    departs_mm: float
    made: tuple[int, ...]


def ways_out(at: Standing, chosen: Choices, kit: Kit, line: Line, part: Part) -> tuple[WayOut, ...]:
    """All ways on, the one that loses least first. Where the part is on the plan there is only one."""
    if at.near:
        return (WayOut(kind="as planned", text="On the plan: go on.", lost_mm=0.0),)
    ways = [*_without_loss(at, chosen, line.unit), *_with_loss(at, kit, line, part)]
    return tuple(sorted(ways, key=lambda way: way.lost_mm))


def _without_loss(at: Standing, chosen: Choices, unit: Unit) -> Iterator[WayOut]:
    if at.meets:
        text = (
            "End B still meets its port when the rest is made as re-planned; "
            f"the route moves by up to {format_length(at.departs_mm, unit)}."
        )
        yield WayOut(kind="re-plan", text=text, lost_mm=0.0)
        return
    left, zone = at.left, at.zone
    if left.off_mm <= zone.mm and left.askew_deg <= zone.deg:
        text = (
            f"{format_length(left.off_mm, unit)} and {left.askew_deg:.1f}° are within what a hand brings "
            f"home ({format_length(zone.mm, unit)}, {zone.deg:g}°)."
        )
        yield WayOut(kind="forgive", text=text, lost_mm=0.0)
    tweak = best_tweak(at.now, at.planned)
    soft = chosen.material.tweaks_in_place
    if tweak is not None and (tweak.by_deg > 0 or soft):
        way = "more" if tweak.by_deg > 0 else "less: opening a bend is hard on the tube"
        text = (
            f"Bend {tweak.bend} again, {abs(tweak.by_deg):.1f}° {way}. "
            f"End B then lands {format_length(tweak.left.off_mm, unit)} from its port."
        )
        yield WayOut(kind="tweak", text=text, lost_mm=0.0)


def _with_loss(at: Standing, kit: Kit, line: Line, part: Part) -> Iterator[WayOut]:
    if at.meets:
        return
    verdict = kit.verdict("joint", "flared-union", line.service)
    if at.made and (verdict is None or verdict.verdict != "refused"):
        last = max(at.made)
        text = f"Keep what is good, cut before bend {last + 1} and join a new piece there."
        lost = max(0.0, part.cut_mm - part.bends[last].start_mm)
        yield WayOut(kind="joint", text=text, lost_mm=lost)
    used = max((part.bends[k].end_mm for k in at.made), default=0.0)
    tail = part.developed_mm - used
    kept = tail >= kit.limits["useful_offcut_mm"].value
    rest = f"; {format_length(tail, line.unit)} of straight tail is left as an offcut." if kept else "."
    lost = part.cut_mm - (tail if kept else 0.0)
    yield WayOut(kind="start again", text=f"Start again from new tube{rest}", lost_mm=lost)
