"""How far further readings contradict the readings: against what all errors together can do."""

from __future__ import annotations

from math import sqrt

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, equations, freedom, with_roll
from bendrel.core.measure.spread import spread_of
from bendrel.core.record import record

Array = NDArray[np.float64]

SURE = 1.3
"""Standard deviations by which a slip must stand beyond what errors can do to be surely noticed: nine of
ten."""


@record
class Yardstick:
    """The misses of what is given, in what errors can do: `whiten` makes them independent and of unit spread,
    `free` is how many say something of their own."""

    whiten: Array
    free: int

    def square(self, miss: Array) -> float:
        """χ² of these misses."""
        own = self.whiten @ miss
        return float(own @ own)

    def off(self, miss: Array) -> float:
        """The misses as so many standard deviations of a normal error: over 1.96 once in forty times. Source:
        Wilson and Hilferty's cube root of χ² by its freedom."""
        spread = 2 / (9 * self.free)
        return float((np.cbrt(self.square(miss) / self.free) - (1 - spread)) / sqrt(spread))

    def surely(self, miss: Array) -> bool:
        """Whether a slip that alone makes these misses is noticed over any errors."""
        bound = self.free * (1 - 2 / (9 * self.free) + 1.96 * sqrt(2 / (9 * self.free))) ** 3
        return sqrt(self.square(miss)) > sqrt(bound) + SURE


def yardstick(read: ReadBends | Corners, given: Given, errors: ReadingErrors) -> Yardstick:
    """The yardstick of everything that is `given`. Raises ShapeError where `read` is no shape."""
    spread = spread_of(read, errors)
    rows, own = equations(read, given, errors, spread)
    covariance = (rows * with_roll(spread.sigmas, given) ** 2) @ rows.T + np.diag(own)
    whiten: Array = np.linalg.inv(np.linalg.cholesky(covariance))
    return Yardstick(whiten=whiten, free=freedom(given))
