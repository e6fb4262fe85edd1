"""What the shop's own lines taught: how often each kind of joint had to be nipped again, and how well parts
met their ports."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from bendrel.core.joints.closing import closes_of, joints_of
from bendrel.core.line.document import Line
from bendrel.core.line.proving import MENDED
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.pace import Pace
from bendrel.core.parts.proving import Closes, Rung
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, length_mm
from bendrel.core.units.notation import UnitError
from bendrel.core.work.standing import rounds_dry, work_at

KINDS: dict[Closes, str] = {
    "nut": "Nut joints",
    "sleeve": "Sleeve joints",
    "washer": "Washer and ring joints",
    "taper": "Tapered joints",
    "clamp": "Clamped hoses",
    "push": "Pushed-on hoses",
    "crimp": "Crimped ends",
    "latch": "Quick connectors",
    "maker": "Joints of bought parts",
}
_WORDS: dict[Rung, str] = {
    "nip": "nipped again",
    "re-seat": "re-seated",
    "another clamp": "given another clamp",
    "re-make": "made anew",
}


@record
class WatchedJoint:
    """One joint that was watched until somebody looked: how it closes, and what it took."""

    closes: Closes
    rungs: tuple[Rung, ...]


@record
class Met:
    """How a line met its ports: what it missed by (mm) and how many tweaks it took, None while not noted."""

    missed_mm: float | None
    tweaks: float | None


@record
class LearntJoint:
    """What one kind of joint taught here; `fittings` are the end types that close so."""

    closes: Closes
    watched: int
    said: str
    fittings: tuple[str, ...]


@record
class Learnt:
    """All of it. `met` says how parts met their ports and how long they took, blank while nobody noted it."""

    joints: tuple[LearntJoint, ...]
    met: str


def watched_of(line: Line, kit: Kit) -> tuple[WatchedJoint, ...]:
    """The joints of one line that were looked at."""
    if not line.proving.joints:
        return ()
    found = []
    for joint in joints_of(line, kit):
        work = work_at(line, joint)
        seen = [event.what for event in work.events] if work else []
        if rounds_dry(line, kit, joint) or "wet" in seen:
            found.append(
                WatchedJoint(closes=joint.closes, rungs=tuple(what for what in seen if what in MENDED))
            )
    return tuple(found)


def met_of(line: Line) -> Met:
    """How one line met its ports, as it was noted at its fitting."""
    missed, tweaks = None, None
    if line.proving.missed.strip():
        try:
            missed = length_mm(Length(text=line.proving.missed, unit=line.unit), "not_negative")
        except UnitError:
            missed = 0.0 if line.proving.missed.strip() == "none" else None
    try:
        tweaks = float(line.proving.tweaks) if line.proving.tweaks.strip() else None
    except ValueError:
        tweaks = None
    return Met(missed_mm=missed, tweaks=tweaks)


def learnt(watched: Sequence[WatchedJoint], met: Iterable[Met], kit: Kit) -> Learnt:
    """What all of it says. A kind of joint that nobody watched is left out."""
    joints = []
    for closes, name in KINDS.items():
        own = [one for one in watched if one.closes == closes]
        if not own:
            continue
        took = [
            f"{count} {word}"
            for rung, word in _WORDS.items()
            if (count := sum(rung in one.rungs for one in own))
        ]
        told = f"{', '.join(took)}" if took else "none wept"
        joints.append(
            LearntJoint(
                closes=closes,
                watched=len(own),
                said=f"{name} here: {told}, of {len(own)} watched.",
                fittings=tuple(row.id for row in kit.fittings.values() if closes_of(row) == closes),
            )
        )
    return Learnt(joints=tuple(joints), met=_met(list(met), kit.pace))


def _met(all_met: list[Met], pace: Pace) -> str:
    missed = [one.missed_mm for one in all_met if one.missed_mm is not None]
    tweaks = [one.tweaks for one in all_met if one.tweaks is not None]
    told = []
    if missed:
        told.append(f"missed their port by {sum(missed) / len(missed):.1f} mm on average ({len(missed)})")
    if tweaks:
        told.append(f"took {sum(tweaks) / len(tweaks):.1f} tweaks ({len(tweaks)})")
    if pace.parts:
        many = "part" if pace.parts == 1 else "parts"
        told.append(f"took {pace.bend_minutes:.0f} min a bend ({pace.parts} {many})")
    return f"Parts here {', '.join(told)}." if told else ""
