"""How far further readings contradict the readings: against what all errors together can do."""

from __future__ import annotations

from math import sqrt

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import (
    ANY_ROLL_DEG,
    Given,
    equations,
    freedom,
    misses,
    od_of,
)
from bendrel.core.measure.outcome import Outcome
from bendrel.core.measure.sheet import beside, curved
from bendrel.core.measure.spread import Spread, spread_of
from bendrel.core.record import record

Array = NDArray[np.float64]

NOTICED = 1.645
"""Readings contradict from so many standard deviations on: once in twenty times without a slip."""
SURE = 1.3
"""Standard deviations by which a slip must stand beyond that to be surely noticed: nine of ten."""
ROLL_ROUNDS, ROLL_STEP = 4, 0.01


@record
class Yardstick:
    """What readings and what is given can be off together: `whiten` makes the misses independent and of unit
    spread, `free` is how many say something of their own."""

    whiten: Array
    free: int
    od_mm: float

    def told(self, given: Given, made: Outcome) -> tuple[Array, float]:
        """The whitened misses of a line that comes out as `made`, and how far an old part on its drawing is
        rolled there, in degrees: as suits best."""
        miss = misses(given, made, self.od_mm)
        laid = given.laid
        if laid is None:
            return np.asarray(self.whiten @ miss, dtype=np.float64), 0.0
        fast = len(miss) - laid.figures
        fixed, turned = self.whiten[:, :fast] @ miss[:fast], self.whiten[:, fast:]

        def at(roll_deg: float) -> Array:
            own: Array = fixed + turned @ np.array(beside(laid, made, roll_deg))
            return np.concatenate([own, [roll_deg / ANY_ROLL_DEG]])

        roll = 0.0
        here = at(roll)
        for _ in range(ROLL_ROUNDS if laid.rolls else 0):
            slope = (at(roll + ROLL_STEP) - here) / ROLL_STEP
            move = -float(here @ slope) / max(float(slope @ slope), 1e-12)
            roll += max(-ANY_ROLL_DEG, min(ANY_ROLL_DEG, move))
            here = at(roll)
            if abs(move) < ROLL_STEP:
                break
        return here, roll

    def square(self, given: Given, made: Outcome) -> float:
        """χ² of the misses."""
        own, _ = self.told(given, made)
        return float(own @ own)

    def off(self, given: Given, made: Outcome) -> float:
        """The misses as so many standard deviations of a normal error. Source: Wilson and Hilferty's cube
        root of χ² by its freedom. One figure that the roll takes up contradicts nothing."""
        if self.free < 1:
            return 0.0
        spread = 2 / (9 * self.free)
        return float((np.cbrt(self.square(given, made) / self.free) - (1 - spread)) / sqrt(spread))

    def surely(self, given: Given, made: Outcome) -> bool:
        """Whether a slip that alone makes these misses is noticed over any errors."""
        if self.free < 1:
            return False
        spread = 2 / (9 * self.free)
        bound = self.free * (1 - spread + NOTICED * sqrt(spread)) ** 3
        return sqrt(self.square(given, made)) > sqrt(bound) + SURE


def yardstick(read: ReadBends | Corners, given: Given, errors: ReadingErrors) -> Yardstick:
    """The yardstick of everything that is `given`. Raises ShapeError where `read` is no shape."""
    spread = spread_of(read, errors)
    rows, own = equations(read, given, errors, spread)
    rows = rows[:, : len(spread.sigmas)]  # the roll is found, not weighed
    own = with_roundness(own, read, given, spread)
    whiten: Array = np.linalg.inv(np.linalg.cholesky((rows * spread.sigmas**2) @ rows.T + np.diag(own)))
    return Yardstick(whiten=whiten, free=freedom(given), od_mm=od_of(read))


def with_roundness(own: Array, read: ReadBends | Corners, given: Given, spread: Spread) -> Array:
    """The variances `own` of what is given, and what the roundness of bends on the sheet adds where misses
    are taken for linear. Raises ShapeError where `read` is no shape."""
    if given.laid is None or not given.laid.bends:
        return own
    fast = len(own) - len(given.laid.bends)
    return np.concatenate([own[:fast], own[fast:] + curved(read, given.laid, spread) ** 2])


def contradicts(read: ReadBends | Corners, given: Given, made: Outcome, errors: ReadingErrors) -> bool:
    """Whether all that is given together is off from what `read` comes out as, `made`, by more than errors
    can do. Raises ShapeError where `read` is no shape."""
    return given != Given() and yardstick(read, given, errors).off(given, made) > NOTICED
