"""Every further reading against what the readings come out as."""

from __future__ import annotations

from collections.abc import Iterator
from math import asin, degrees
from statistics import NormalDist
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.contradiction import yardstick
from bendrel.core.measure.doubt import half_95, radius_95
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.further import FurtherKind, figure, one_by_one
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, beside, equations, misses, od_of
from bendrel.core.measure.outcome import Outcome
from bendrel.core.measure.spread import spread_of
from bendrel.core.record import record

Array = NDArray[np.float64]

FIRST_LEAN = 3
"""The first row of a landing that is an angle."""

CheckKind = FurtherKind | Literal["lean"]


@record
class Check:
    """One check against the readings: in mm for lengths and places, in degrees for a way and a lean. Of a
    place and a way `given` is 0 and `computed` how far the readings are away. `allowed` is what the reading
    errors of both can do, so that of all checks together 95 of 100 agree. `of` is the id of the tape or the
    corner."""

    kind: CheckKind
    given: float
    computed: float
    allowed: float
    of: str = ""

    @property
    def agrees(self) -> bool:
        """Within what tape and gauge can tell."""
        return abs(self.given - self.computed) <= self.allowed + 1e-9


def compared(
    read: ReadBends | Corners, given: Given, made: Outcome, errors: ReadingErrors
) -> tuple[Check, ...]:
    """Every check of `given` against `made`, what `read` comes out as. Raises ShapeError where it is no
    shape."""
    spread = spread_of(read, errors)
    alone = tuple(one_by_one(given))
    wider = NormalDist().inv_cdf(1 - 0.025 / max(1, len(alone))) / NormalDist().inv_cdf(0.975)

    def loadings(one: Given) -> Array:
        rows, own = equations(read, one, errors, spread)
        return np.hstack([rows[:, : len(spread.sigmas)] * spread.sigmas, np.diag(np.sqrt(own))])

    found: list[Check] = []
    for which, one in alone:
        kind, of = which.kind, which.id
        told = loadings(one)
        if kind == "sheet":
            found += _landed(read, one, made, errors, told, wider)
        elif kind in ("wire", "tape", "across"):
            (miss,) = misses(one, made, od_of(read))
            value = figure(one) or 0.0
            allowed = wider * half_95(told[0] ** 2)
            found.append(Check(kind=kind, of=of, given=value, computed=value - float(miss), allowed=allowed))
        else:
            off = float(np.linalg.norm(misses(one, made, od_of(read))))
            allowed = wider * radius_95(told)
            if kind in ("way A", "way B"):
                off, allowed = degrees(2 * asin(min(1.0, off / 2))), degrees(allowed)
            found.append(Check(kind=kind, of=of, given=0.0, computed=off, allowed=allowed))
    return tuple(found)


def _landed(
    read: ReadBends | Corners,
    one: Given,
    made: Outcome,
    errors: ReadingErrors,
    told: Array,
    wider: float,
) -> Iterator[Check]:
    """The old part on its sheet, rolled as suits best: its place in mm, its lean in degrees."""
    if one.laid is None:
        return
    _, roll = yardstick(read, one, errors).told(one, made)
    off = np.array(beside(one.laid, made, roll))
    by_roll = np.array(beside(one.laid, made, roll + 0.5)) - np.array(beside(one.laid, made, roll - 0.5))
    size = float(by_roll @ by_roll)
    free = one.laid.rolls and size > 1e-9
    met = told - np.outer(by_roll, by_roll @ told) / size if free else told
    mm = np.array([row < FIRST_LEAN for row, _, _ in one.laid.rows])
    kinds: tuple[tuple[CheckKind, NDArray[np.bool_]], ...] = (("sheet", mm), ("lean", ~mm))
    for kind, rows in kinds:
        if rows.any():
            away = float(np.linalg.norm(off[rows]))
            yield Check(kind=kind, given=0.0, computed=away, allowed=wider * radius_95(met[rows]))
