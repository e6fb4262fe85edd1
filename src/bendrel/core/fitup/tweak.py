"""The one bend of a finished part that is best bent a little more or less."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace
from math import hypot, radians

from bendrel.core.findings import EndName
from bendrel.core.fitup.correction import laid_out, shape_from
from bendrel.core.fitup.landing import Landing, landing
from bendrel.core.record import record
from bendrel.core.shape.bends import BendList

LEAST_DEG = 0.1
"""A bend that is opened never becomes straight: it stays the same bend."""


@record
class Tweak:
    """The one bend that is best bent a little more (positive) or less, and where end B then is."""

    bend: int
    by_deg: float
    left: Landing


@record
class Tweaking:
    """What a bend that is finished takes: opened or bent on by at most so many degrees. `degree_mm` is how
    many mm off weigh like one degree askew; what brings end B nearer by less than the share `helps` is
    not worth another bend."""

    open_deg: float
    more_deg: float
    degree_mm: float
    helps: float


def miss(shape: BendList, planned: BendList, degree_mm: float) -> float:
    """How badly end B misses, as one figure in mm."""
    there = landing(shape, planned)
    return hypot(there.off_mm, degree_mm * there.askew_deg)


def best_tweak(
    made: BendList,
    planned: BendList,
    bends: Collection[int],
    held: EndName,
    may: Tweaking,
) -> Tweak | None:
    """Which one of `bends` (from 0), opened or bent on, brings end B nearest; None when none helps. The bend
    keeps its place on the side of the end that is held, and takes its tube from the other. Source:
    one-dimensional search over each angle."""
    from scipy.optimize import minimize_scalar

    laid = laid_out(made)

    def bent(k: int, by: float) -> BendList:
        starts, angles = list(laid.starts_mm), list(laid.angles_deg)
        angles[k] = max(LEAST_DEG, angles[k] + by)
        if held == "B":
            starts[k] -= laid.radii_mm[k] * radians(angles[k] - laid.angles_deg[k])
        return shape_from(replace(laid, starts_mm=tuple(starts), angles_deg=tuple(angles)))

    found: Tweak | None = None
    least = miss(made, planned, may.degree_mm) * (1 - may.helps)
    for k in bends:

        def tried(by: float, k: int = k) -> float:
            return miss(bent(k, by), planned, may.degree_mm)

        best = minimize_scalar(tried, bounds=(-may.open_deg, may.more_deg), method="bounded")
        if best.fun < least:
            least = float(best.fun)
            shape = bent(k, float(best.x))
            found = Tweak(bend=k + 1, by_deg=float(best.x), left=landing(shape, planned))
    return found
