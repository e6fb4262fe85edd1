"""How far the result may be off, given how well a tape and a gauge can be read.

Each reading is off by at most its reading error, evenly within it, so its standard deviation is
that error over √3 (JCGM 100:2008, 4.3.7); they are carried to the result by their derivatives
(JCGM 100:2008, 5.1.2). Stated for 95 % of cases.
"""

from __future__ import annotations

from math import degrees, sqrt

import numpy as np
from numpy.typing import NDArray

from bendrel.core.measure.spread import Spread
from bendrel.core.record import record

Array = NDArray[np.float64]

# Half-width of 95 %, in standard deviations, of a sum of even errors, by its excess kurtosis: one
# error alone, one and a third of its size, two equal ones, and many (normal). Worked from the
# rectangle, the trapezium and the triangle that they add up to.
_KURTOSIS = (-1.2, -1.018, -0.6, 0.0)
_HALF_95 = (1.6454, 1.750, 1.9018, 1.95996)


@record
class Doubt:
    """What 95 of 100 results lie within: the developed length, end B's place, the distance from rim
    to rim (mm), and the way into port B (degrees), end A held and nothing rolled. `meets_mm` and `meets_deg`
    are how near end B comes to its port once the part is rolled about end A to its best, as its nut there
    lets it be."""

    developed_mm: float
    end_b_mm: float
    tape_mm: float
    way_b_deg: float
    meets_mm: float
    meets_deg: float


def doubt_of(spread: Spread, loadings: Array | None = None) -> Doubt:
    """The 95 % figures of a spread. `loadings` is how every independent error, of standard deviation 1, moves
    each reading (a row a reading, mm or degrees); where nothing is adjusted each has its own alone."""
    of = np.diag(spread.sigmas) if loadings is None else loadings
    both = np.vstack([spread.point @ of, np.degrees(spread.way @ of)])  # a millimetre counts like a degree
    roll = np.concatenate([spread.roll[:3], np.degrees(spread.roll[3:])])
    size = float(roll @ roll)
    met = both - np.outer(roll, roll @ both) / size if size > 1e-9 else both
    return Doubt(
        developed_mm=half_95((spread.developed @ of) ** 2),
        end_b_mm=radius_95(spread.point @ of),
        tape_mm=half_95((spread.tape @ of) ** 2),
        way_b_deg=degrees(radius_95(spread.way @ of)),
        meets_mm=radius_95(met[:3]),
        meets_deg=radius_95(met[3:]),
    )


def half_95(variances: Array) -> float:
    """Half-width that holds 95 % of a sum of even errors with these variances."""
    total = float(np.sum(variances))
    if total <= 0:
        return 0.0
    kurtosis = EVEN * float(np.sum(variances**2)) / total**2
    return float(np.interp(kurtosis, _KURTOSIS, _HALF_95)) * sqrt(total)


EVEN = -1.2
"""Excess kurtosis of an even error."""


def radius_95(loadings: Array) -> float:
    """Radius that holds 95 % of a cloud of even errors, of which each moves it along one column:
    Satterthwaite's scaled χ² of the square of the distance, its quantile by Wilson and Hilferty."""
    covariance = loadings @ loadings.T
    total = float(np.trace(covariance))
    if total <= 0:
        return 0.0
    variance = 2 * float(np.sum(covariance**2)) + EVEN * float(np.sum(np.sum(loadings**2, axis=0) ** 2))
    freedom = 2 * total**2 / max(variance, 1e-3 * total**2)
    cube = 1 - 2 / (9 * freedom) + 1.644854 * sqrt(2 / (9 * freedom))
    return sqrt(total * cube**3)
