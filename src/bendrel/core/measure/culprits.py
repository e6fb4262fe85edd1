"""Which reading is wrong when a check does not agree: the one whose smallest change explains it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector
from bendrel.core.measure.doubt import ReadingErrors, Spread, spread_of
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.outcome import Outcome, outcome
from bendrel.core.measure.slots import Slot, SlotKind, changed, slots
from bendrel.core.record import record

Array = NDArray[np.float64]

MOST_NAMED = 3
STEPS: dict[SlotKind, tuple[float, ...]] = {
    "length": (0.0, -60.0, -25.0, 25.0, 60.0),
    "angle": tuple(float(k) for k in range(-80, 81, 20)),
    "plane": tuple(float(k) for k in range(-180, 180, 30)),
}
MANY_READINGS = 60


@record
class Given:
    """The checks that were taken, in mm and as unit vectors; None where not."""

    wire_mm: float | None = None
    tape_mm: float | None = None
    way_a: Vector | None = None
    way_b: Vector | None = None


@record
class Suspect:
    """A reading that may be wrong, and the change in mm or degrees that would reconcile all."""

    slot: Slot
    change: float
    misfit: float


Residual = Callable[[Outcome], Array]


def ranked(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors
) -> tuple[tuple[float, Suspect], ...]:
    """Every reading as the one that is wrong, likeliest first: (twice the negative log likelihood but for a
    constant, suspect).

    For each reading alone the change is sought that leaves the least misfit of all checks, weighed
    by what the other readings' own errors can do (generalised least squares, JCGM 102:2011), plus
    the size of the change against how far people misread. Raises ShapeError where `read` is no
    shape.
    """
    # a smaller change explains a check sooner than a larger one; a plane may be any way round
    worst: dict[SlotKind, float] = {"length": errors.gross_mm, "angle": errors.gross_deg, "plane": 180.0}
    residual = _residual(given)
    whiten = _whitening(read, given, errors)
    found = []
    for slot in slots(read):
        fit = _Fit(read, slot, residual, whiten)
        change, misfit = fit.best(coarse=len(list(slots(read))) > MANY_READINGS)
        weight = (change / worst[slot.kind]) ** 2
        found.append((misfit + weight, Suspect(slot=slot, change=change, misfit=misfit)))
    return tuple(sorted(found, key=lambda pair: pair[0]))


def _residual(given: Given) -> Residual:
    """Checks less what the readings come out as, one row a figure."""

    def rows(made: Outcome) -> Iterator[float]:
        if given.wire_mm is not None:
            yield given.wire_mm - made.developed_mm
        if given.tape_mm is not None:
            yield given.tape_mm - made.tape_mm
        for wanted, got in ((given.way_a, made.way_a), (given.way_b, made.way_b)):
            if wanted is not None:
                yield from (w - g for w, g in zip(wanted, got, strict=True))

    return lambda made: np.fromiter(rows(made), dtype=float)


def _whitening(read: ReadBends | Corners, given: Given, errors: ReadingErrors) -> Array:
    """The matrix that turns residuals into independent ones of unit spread."""
    spread: Spread = spread_of(read, errors)
    rows, own = [], []
    length, angle = errors.length_mm / sqrt(3), np.radians(errors.angle_deg) / sqrt(3)
    if given.wire_mm is not None:
        rows.append(spread.developed)
        own.append(length)
    if given.tape_mm is not None:
        rows.append(spread.tape)
        own.append(length)
    if given.way_a is not None:
        rows += [np.zeros_like(spread.developed)] * 3
        own += [angle] * 3
    if given.way_b is not None:
        rows += list(spread.way)
        own += [angle] * 3
    matrix = np.array(rows)
    covariance = (matrix * spread.sigmas**2) @ matrix.T + np.diag(np.array(own) ** 2)
    whitened: Array = np.linalg.inv(np.linalg.cholesky(covariance))
    return whitened


class _Fit:
    """The best change of one reading."""

    def __init__(self, read: ReadBends | Corners, slot: Slot, residual: Residual, whiten: Array) -> None:
        self._read, self._slot, self._residual, self._whiten = read, slot, residual, whiten

    def best(self, *, coarse: bool) -> tuple[float, float]:
        """(change, misfit): a look over the whole range, then Gauss and Newton from the best two."""
        steps = STEPS[self._slot.kind]
        looked = sorted((self._misfit(x), x) for x in (steps[::3] if coarse else steps))
        refined = [self._refine(x) for _, x in looked[:2]]
        misfit, change = min(refined)
        return change, misfit

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
        whitened: Array = self._whiten @ self._residual(made)
        return whitened


def _angles_hold(read: ReadBends, slot: Slot, x: float) -> bool:
    """A bend stays over 0° and under a full turn."""
    if slot.field != "angle":
        return True
    return 0 < (read.bends[slot.row].angle_deg or 0.0) + x < 360
