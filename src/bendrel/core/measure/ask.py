"""The one more check that would tell most: of readings that contradict one another, or of planes that nobody
would notice on the wrong side."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import acos, degrees, exp, hypot
from typing import Literal

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import dot
from bendrel.core.measure.culprits import MOST_NAMED, Suspect
from bendrel.core.measure.doubt import Doubt, ReadingErrors, doubt_of, spread_of
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import Outcome, outcome
from bendrel.core.measure.slots import Slot, changed, slots
from bendrel.core.record import record
from bendrel.core.units.notation import normalised_turn

AskKind = Literal["wire", "tape", "way B"]
KINDS: tuple[AskKind, ...] = ("wire", "tape", "way B")


@record
class Ask:
    """A check to take: which, how many times fewer readings it leaves in question (or how many planes it
    would notice), and those that it decides between."""

    kind: AskKind
    tells: float
    between: tuple[Slot, ...]


def separating(
    read: ReadBends | Corners, given: Given, found: Sequence[tuple[float, Suspect]], errors: ReadingErrors
) -> Ask | None:
    """Of the checks that were not taken, the one after which fewest of the readings that may be wrong are
    left, whichever of them it is; None where all of them would show the same. `found` is what `ranked` gives.
    Raises ShapeError where `read` is no shape."""
    doubt = doubt_of(spread_of(read, errors))
    likely = [(score, suspect) for score, suspect in found if score <= found[0][0] + PLAUSIBLE]
    made = [
        (exp((found[0][0] - score) / 2), suspect.slot, _made(changed(read, suspect.slot, suspect.change)))
        for score, suspect in likely
    ]
    known = [(weight, slot, there) for weight, slot, there in made if there is not None]
    whole = sum(weight for weight, _, _ in known)
    best: Ask | None = None
    for kind in _blank(given):
        left = sum(
            weight * other
            for weight, _, there in known
            for other, _, elsewhere in known
            if _apart(kind, there, elsewhere, doubt, errors) <= 1
        )
        tells = whole**2 / left if left > 0 else 0.0
        if tells > WORTH and (best is None or tells > best.tells):
            best = Ask(kind=kind, tells=tells, between=tuple(slot for _, slot, _ in known[:MOST_NAMED]))
    return best


PLAUSIBLE, WORTH = 8.0, 1.2
"""Readings are thought of that are not more than e^4 less likely than the first; a check must leave so many
times fewer of them to be asked for."""


def unnoticed(read: ReadBends | Corners, given: Given, errors: ReadingErrors) -> Ask | None:
    """The check that would notice most of the planes that could be on the wrong side without a word now.
    None where every plane that matters would be noticed, or nothing would notice it.
    Raises ShapeError where `read` is no shape."""
    if isinstance(read, Corners):
        return None
    doubt, here = doubt_of(spread_of(read, errors)), outcome(read)
    taken = [kind for kind in KINDS if kind not in _blank(given)]
    silent: dict[AskKind, list[Slot]] = {}
    for slot, there in _turned_over(read):
        if any(_apart(kind, here, there, doubt, errors) > 1 for kind in taken):
            continue
        for kind in _blank(given):
            if _apart(kind, here, there, doubt, errors) > 1:
                silent.setdefault(kind, []).append(slot)
    if not silent:
        return None
    kind = max(silent, key=lambda name: (len(silent[name]), name == "way B"))
    return Ask(kind=kind, tells=float(len(silent[kind])), between=tuple(silent[kind]))


def _turned_over(read: ReadBends) -> Iterator[tuple[Slot, Outcome]]:
    """Each plane on the other side of the bend before it, and what the line then comes out as. One that lies
    in the plane of the bend before has no other side."""
    clocks: list[float] = []
    for k, row in enumerate(read.bends):
        before = clocks[-1] if clocks else 0.0
        clock = before + (row.rotation_deg or 0.0) if row.clock_deg is None else row.clock_deg
        clocks.append(clock if k else 0.0)
    for slot in slots(read):
        if slot.field != "plane":
            continue
        turn = normalised_turn(clocks[slot.row] - clocks[slot.row - 1])
        if 20 < abs(turn) < 160:
            there = _made(changed(read, slot, -2 * turn))
            if there is not None:
                yield slot, there


def _made(read: ReadBends | Corners) -> Outcome | None:
    try:
        return outcome(read)
    except ShapeError:
        return None


def _blank(given: Given) -> list[AskKind]:
    there = {"wire": given.wire_mm, "tape": given.tape_mm, "way B": given.way_b}
    return [kind for kind in KINDS if there[kind] is None]


def _apart(kind: AskKind, one: Outcome, other: Outcome, doubt: Doubt, errors: ReadingErrors) -> float:
    """How far two outcomes differ in a check, in what it can be off by itself."""
    if kind == "way B":
        off = degrees(acos(max(-1.0, min(1.0, dot(one.way_b, other.way_b)))))
        return off / hypot(doubt.way_b_deg, 2 * errors.angle_deg)
    if kind == "wire":
        return abs(one.developed_mm - other.developed_mm) / hypot(doubt.developed_mm, errors.length_mm)
    return abs(one.tape_mm - other.tape_mm) / hypot(doubt.tape_mm, errors.length_mm)
