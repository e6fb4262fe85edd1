"""The one more check that would tell most: of readings that contradict one another, or of slips that nobody
would notice."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import pairwise
from math import exp

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.contradiction import NOTICED, yardstick
from bendrel.core.measure.culprits import MOST_NAMED, Suspect
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.further import Further, as_read, not_read, retaken, with_more
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, od_of
from bendrel.core.measure.outcome import Outcome, outcome
from bendrel.core.measure.sheet import sheet_of
from bendrel.core.measure.slots import Slot, changed, slots
from bendrel.core.record import record
from bendrel.core.units.notation import normalised_turn


@record
class Ask:
    """A reading to take: which, how many times fewer readings it leaves in question (or how many slips it
    would notice), and those that it decides between."""

    reading: Further
    tells: float
    between: tuple[Slot | Further, ...]


def separating(
    read: ReadBends | Corners, given: Given, found: Sequence[tuple[float, Suspect]], errors: ReadingErrors
) -> Ask | None:
    """Of the readings that were not taken, the one after which fewest of those that may be wrong are left,
    whichever of them it is; None where all of them would show the same. `found` is what `ranked` gives.
    Raises ShapeError where `read` is no shape."""
    likely = [(score, suspect) for score, suspect in found if score <= found[0][0] + PLAUSIBLE]
    made = [(exp((found[0][0] - score) / 2), suspect.what, _with(read, suspect)) for score, suspect in likely]
    known = [(weight, slot, there) for weight, slot, there in made if there is not None]
    whole = sum(weight for weight, _, _ in known)
    sheet, od, here = sheet_of(read), od_of(read), outcome(read)
    best: Ask | None = None
    for one in not_read(read, given, sheet, errors):
        measure = yardstick(read, as_read(one, here, sheet, od, errors), errors)
        seen = [(weight, as_read(one, there, sheet, od, errors), there) for weight, _, there in known]
        left = sum(
            weight * other
            for weight, told, _ in seen
            for other, _, elsewhere in seen
            if measure.off(told, elsewhere) <= NOTICED
        )
        tells = whole**2 / left if left > 0 else 0.0
        if tells > WORTH and (best is None or tells > best.tells * MUCH):
            best = Ask(reading=one, tells=tells, between=tuple(slot for _, slot, _ in known[:MOST_NAMED]))
    return best


PLAUSIBLE, WORTH = 8.0, 1.2
"""Readings are thought of that are not more than e^4 less likely than the first; a check must leave so many
times fewer of them to be asked for."""
MUCH = 1.1
"""An easier reading is not given up for one that tells hardly more."""


def unnoticed(read: ReadBends | Corners, given: Given, errors: ReadingErrors) -> Ask | None:
    """The reading that would notice most of the slips that nobody would notice now: a plane on the wrong
    side, a leg or an angle counted wrong. None where every slip that matters would be noticed, or nothing
    would notice it. Raises ShapeError where `read` is no shape."""
    sheet, od, here = sheet_of(read), od_of(read), outcome(read)
    slips = list(_slips(read, errors))
    if given != Given():
        slips = _silent(read, given, slips, here, errors)
    best: Ask | None = None
    for one in not_read(read, given, sheet, errors) if slips else ():
        more = with_more(given, as_read(one, here, sheet, od, errors))
        still = _silent(read, more, slips, here, errors)
        noticed = [slot for slot, _ in slips if slot not in {left for left, _ in still}]
        if noticed and (best is None or len(noticed) > best.tells * MUCH):
            best = Ask(reading=one, tells=float(len(noticed)), between=tuple(dict.fromkeys(noticed)))
    return best


def _silent(
    read: ReadBends | Corners,
    given: Given,
    slips: Sequence[tuple[Slot, Outcome]],
    here: Outcome,
    errors: ReadingErrors,
) -> list[tuple[Slot, Outcome]]:
    """Those of the slips that what is given would not surely show."""
    measure, true = yardstick(read, given, errors), retaken(given, here, od_of(read))
    return [(slot, there) for slot, there in slips if not measure.surely(true, there)]


def _slips(read: ReadBends | Corners, errors: ReadingErrors) -> Iterator[tuple[Slot, Outcome]]:
    """Each reading with the least slip that people make there, and what the line then comes out as: a plane
    on the other side of the bend before it (one that lies in that bend's plane has none), a leg a centimetre
    off, an angle half a mark of the protractor."""
    turns = _turns(read) if isinstance(read, ReadBends) else ()
    for slot in slots(read):
        by = errors.least_slip_mm if slot.kind == "length" else errors.least_slip_deg
        if slot.kind == "plane":
            turn = turns[slot.row]
            if not 20 < abs(turn) < 160:
                continue
            by = -2 * turn
        there = _made(changed(read, slot, by))
        if there is not None:
            yield slot, there


def _turns(read: ReadBends) -> tuple[float, ...]:
    """From every bend's plane to the next, degrees."""
    clocks: list[float] = []
    for k, row in enumerate(read.bends):
        before = clocks[-1] if clocks else 0.0
        clock = before + (row.rotation_deg or 0.0) if row.clock_deg is None else row.clock_deg
        clocks.append(clock if k else 0.0)
    return (0.0, *(normalised_turn(after - before) for before, after in pairwise(clocks)))


def _with(read: ReadBends | Corners, suspect: Suspect) -> Outcome | None:
    """What the line comes out as where this is the slip."""
    what = suspect.what
    return _made(read if isinstance(what, Further) else changed(read, what, suspect.change))


def _made(read: ReadBends | Corners) -> Outcome | None:
    try:
        return outcome(read)
    except ShapeError:
        return None
