"""Which reading is wrong when a check does not agree: the one whose smallest change explains it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.contradiction import Yardstick, yardstick
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.further import Further, one_by_one, without
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, freedom, misses, od_of, rolls
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.slots import Slot, SlotKind, changed, slots
from bendrel.core.record import record
from bendrel.core.units.notation import normalised_turn

Array = NDArray[np.float64]

MOST_NAMED = 3
STEPS: dict[SlotKind, tuple[float, ...]] = {
    "length": (0.0, -60.0, -25.0, 25.0, 60.0),
    "angle": tuple(float(k) for k in range(-80, 81, 20)),
    "plane": tuple(float(k) for k in range(-180, 180, 30)),
}
MANY_READINGS = 60
LESS_LIKELY, EACH_MORE = 2.0, 4.0
"""A check is taken to find a slip, so with more care: e times less likely to be the slip itself. One of
several figures could explain anything if all of them were wrong: e² times less likely for each more."""


@record
class Suspect:
    """A reading that may be wrong, of the shape or a further one, and the change in mm or degrees that would
    reconcile all; of a further one with several figures how far they lie from what all others say."""

    what: Slot | Further
    change: float
    misfit: float


def ranked(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors
) -> tuple[tuple[float, Suspect], ...]:
    """Every reading, further ones too, as the one that is wrong, likeliest first: (twice the negative log
    likelihood but for a constant, suspect).

    For each reading alone the change is sought that leaves the least misfit of all checks, weighed
    by what the other readings' own errors can do (generalised least squares, JCGM 102:2011), plus
    the size of the change against how far people misread. Raises ShapeError where `read` is no
    shape.
    """
    # a smaller change explains a check sooner than a larger one; a plane may be any way round
    worst: dict[SlotKind, float] = {"length": errors.gross_mm, "angle": errors.gross_deg, "plane": 180.0}
    by = yardstick(read, given, errors)
    found = []
    for slot in slots(read):
        fit = _Fit(read, slot, given, by)
        change, misfit = fit.best(coarse=len(list(slots(read))) > MANY_READINGS)
        weight = (change / worst[slot.kind]) ** 2
        found.append((misfit + weight, Suspect(what=slot, change=change, misfit=misfit)))
    for one, alone in one_by_one(given):
        rest = without(given, alone)
        misfit = 0.0 if rest == Given() else yardstick(read, rest, errors).square(rest, outcome(read))
        change = _missed(read, alone, rest, errors)
        more = max(0, freedom(given) - freedom(rest) - 1)
        weight = (change / errors.gross_mm) ** 2 + LESS_LIKELY + EACH_MORE * more
        found.append((misfit + weight, Suspect(what=one, change=change, misfit=misfit)))
    return tuple(sorted(found, key=lambda pair: pair[0]))


def _missed(read: ReadBends | Corners, alone: Given, rest: Given, errors: ReadingErrors) -> float:
    """How far one further reading lies from the readings, with a part on its sheet rolled as the `rest` says;
    of one figure what is to be added to it."""
    made = outcome(read)
    by = rest if rolls(rest) else alone
    _, roll = yardstick(read, by, errors).told(by, made)
    miss = misses(alone, made, od_of(read), roll)
    return -float(miss[0]) if len(miss) == 1 else float(np.linalg.norm(miss))


def likeliest(read: ReadBends | Corners, slot: Slot, given: Given, errors: ReadingErrors) -> float:
    """The change of one reading, in mm or degrees, that leaves the least misfit of what is given. Raises
    ShapeError where `read` is no shape."""
    return _Fit(read, slot, given, yardstick(read, given, errors)).best(coarse=False)[0]


class _Fit:
    """The best change of one reading."""

    def __init__(self, read: ReadBends | Corners, slot: Slot, given: Given, by: Yardstick) -> None:
        self._read, self._slot, self._given, self._by = read, slot, given, by

    def best(self, *, coarse: bool) -> tuple[float, float]:
        """(change, misfit): a look over the whole range, then Gauss and Newton from the best two."""
        steps = STEPS[self._slot.kind]
        looked = sorted((self._misfit(x), x) for x in (steps[::3] if coarse else steps))
        refined = [self._refine(x) for _, x in looked[:2]]
        misfit, change = min(refined)
        return normalised_turn(change) if self._slot.kind == "plane" else change, misfit

    def _refine(self, x: float) -> tuple[float, float]:
        best = (self._misfit(x), x)
        for _ in range(6):
            here, ahead = self._at(x), self._at(x + 1e-3)
            if here is None or ahead is None:
                break
            slope = (ahead - here) / 1e-3
            size = float(slope @ slope)
            if size < 1e-15:
                break
            move = -float(here @ slope) / size
            x += move
            if abs(move) < 0.5:
                best = min(best, (self._misfit(x), x))
            if abs(move) < 2e-3:
                break
        return best

    def _misfit(self, x: float) -> float:
        at = self._at(x)
        return float("inf") if at is None else float(at @ at)

    def _at(self, x: float) -> Array | None:
        try:
            made = outcome(changed(self._read, self._slot, x))
        except (ShapeError, ValueError, ZeroDivisionError):
            return None
        if isinstance(self._read, ReadBends) and not _angles_hold(self._read, self._slot, x):
            return None
        return self._by.told(self._given, made)[0]


def _angles_hold(read: ReadBends, slot: Slot, x: float) -> bool:
    """A bend stays over 0° and under a full turn."""
    if slot.field != "angle":
        return True
    return 0 < (read.bends[slot.row].angle_deg or 0.0) + x < 360
