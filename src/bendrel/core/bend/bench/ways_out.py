"""The ways on from a part that is not as planned, the least waste first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from math import hypot
from typing import Literal

from bendrel.core.bend.fitting.exactness import Zone
from bendrel.core.bend.fitting.landing import Landing, landing
from bendrel.core.bend.fitting.tweak import Tweak
from bendrel.core.bend.told.laid import Laid, laid_out, shape_from
from bendrel.core.bend.tube.part import Part
from bendrel.core.geometry.bends import BendList
from bendrel.core.line.run import Run
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.notation import format_length

WayKind = Literal["as planned", "re-plan", "tweak", "forgive", "joint", "start again"]


@record
class WayOut:
    """One way on, with the tube that it loses (mm)."""

    kind: WayKind
    text: str
    lost_mm: float


@record
class Standing:
    """Where the part stands: as it is now with the rest as planned, along its tube as built and as told,
    what is left at end B after re-planning, whether that meets, the bends that are made (from 0), and what
    may be done to them again that is expected to help."""

    now: BendList
    planned: BendList
    built: Laid
    told: Laid
    left: Landing
    meets: bool
    near: bool
    zone: Zone
    departs_mm: float
    made: tuple[int, ...]
    tweaks: tuple[Tweak, ...]


def ways_out(at: Standing, kit: Kit, run: Run, part: Part) -> tuple[WayOut, ...]:
    """All ways on, the one that loses least first. Where the part is on the plan there is only one."""
    if at.near:
        return (WayOut(kind="as planned", text="On the plan: go on.", lost_mm=0.0),)
    far = at.departs_mm > kit.limits["route_room_mm"].value
    ways: list[WayOut] = []
    if at.meets:
        room = ": look whether it has that room" if far else ""
        text = (
            "End B still meets its port when the rest is made as re-planned; "
            f"the route moves by up to {format_length(at.departs_mm, run.line.unit)}{room}."
        )
        ways.append(WayOut(kind="re-plan", text=text, lost_mm=0.0))
    if far or not at.meets:
        ways += [*_without_loss(at, run), *_with_loss(at, kit, run, part)]
    return tuple(sorted(ways, key=lambda way: way.lost_mm))


def _without_loss(at: Standing, run: Run) -> Iterator[WayOut]:
    left, zone, unit = at.left, at.zone, run.line.unit
    if not at.meets and left.off_mm <= zone.mm and left.askew_deg <= zone.deg:
        text = (
            f"{format_length(left.off_mm, unit)} and {left.askew_deg:.1f}° are within what a hand brings "
            f"home ({format_length(zone.mm, unit)}, {zone.deg:g}°)."
        )
        yield WayOut(kind="forgive", text=text, lost_mm=0.0)
    home = bool(at.tweaks) and at.tweaks[-1].leaves_mm <= zone.mm and at.tweaks[-1].leaves_deg <= zone.deg
    if home:
        last = at.tweaks[-1]
        what = " and ".join(_said(tweak) for tweak in at.tweaks)
        text = (
            f"{what[0].upper()}{what[1:]}. End B then lands {format_length(last.leaves_mm, unit)} and "
            f"{last.leaves_deg:.1f}° from its port."
        )
        yield WayOut(kind="tweak", text=text, lost_mm=0.0)


def _said(tweak: Tweak) -> str:
    act = tweak.act
    if act.kind == "twist":
        way = "clockwise" if act.deg > 0 else "anticlockwise"
        return f"twist straight {act.at} by {abs(act.deg):.1f}°, the side of B {way} seen from A"
    more = "more" if act.deg > 0 else "less: opening a bend is hard on the tube"
    return f"bend {act.at} again, {abs(act.deg):.1f}° {more}"


def _with_loss(at: Standing, kit: Kit, run: Run, part: Part) -> Iterator[WayOut]:
    left = _unspoilt(at, part, kit.limits["useful_offcut_mm"].value)
    verdict = kit.verdict("joint", "flared-union", run.line.service)
    if at.made and (verdict is None or verdict.verdict != "refused"):
        yield from _joints(at, part, kit, left)
    kept = left.before_mm + left.behind_mm
    rest = f"; {format_length(kept, run.line.unit)} of straight tube is left as offcut." if kept else "."
    yield WayOut(kind="start again", text=f"Start again from new tube{rest}", lost_mm=part.cut_mm - kept)


@record
class _Unspoilt:
    """The tube's cut ends seen from rim A, and the straight tube before the first made bend and behind
    the last that is long enough to keep; mm."""

    cut_a_mm: float
    cut_b_mm: float
    before_mm: float
    behind_mm: float


def _unspoilt(at: Standing, part: Part, useful_mm: float) -> _Unspoilt:
    cut_a, cut_b = -part.beyond_mm["A"], part.developed_mm + part.beyond_mm["B"]
    before = min((part.bends[k].start_mm for k in at.made), default=cut_b) - cut_a
    behind = cut_b - max((part.bends[k].end_mm for k in at.made), default=cut_b)
    return _Unspoilt(
        cut_a_mm=cut_a,
        cut_b_mm=cut_b,
        before_mm=before if before >= useful_mm else 0.0,
        behind_mm=behind if behind >= useful_mm else 0.0,
    )


def _joints(at: Standing, part: Part, kit: Kit, left: _Unspoilt) -> Iterator[WayOut]:
    """Keep the good bends of one side of the bad one: cut in the nearest straight that a joint and its
    wrenches have room on."""
    straights, bad = at.planned.straights_mm, culprit(at, kit.limits["degree_mm"].value)
    room_mm = kit.limits["joint_straight_mm"].value
    for k in range(bad, 0, -1):
        if straights[k] >= room_mm and any(j < k for j in at.made):
            lost = left.cut_b_mm - part.bends[k].start_mm - left.behind_mm
            text = f"Keep the side of A: cut in the straight before bend {k + 1} and join a new piece there."
            yield WayOut(kind="joint", text=text, lost_mm=lost)
            break
    for k in range(bad + 1, len(part.bends)):
        if straights[k] >= room_mm and any(j >= k for j in at.made):
            lost = part.bends[k - 1].end_mm - left.cut_a_mm - left.before_mm
            text = f"Keep the side of B: cut in the straight after bend {k} and join a new piece there."
            yield WayOut(kind="joint", text=text, lost_mm=lost)
            break


def culprit(at: Standing, degree_mm: float) -> int:
    """The made bend (from 0) of which what came out otherwise than told takes end B furthest from its port.
    What was told otherwise than planned, to make up for an earlier one, is not to blame."""
    planned = laid_out(at.planned)

    def alone(k: int) -> float:
        def one(
            plan: tuple[float, ...], built: tuple[float, ...], told: tuple[float, ...]
        ) -> tuple[float, ...]:
            return (*plan[:k], plan[k] + built[k] - told[k], *plan[k + 1 :])

        laid = replace(
            planned,
            starts_mm=one(planned.starts_mm, at.built.starts_mm, at.told.starts_mm),
            angles_deg=one(planned.angles_deg, at.built.angles_deg, at.told.angles_deg),
            clocks_deg=one(planned.clocks_deg, at.built.clocks_deg, at.told.clocks_deg),
        )
        there = landing(shape_from(laid), at.planned)
        return hypot(there.off_mm, degree_mm * there.askew_deg)

    return max(at.made, key=alone)
