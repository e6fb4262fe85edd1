"""Every further reading against what the readings come out as."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from math import asin, degrees
from statistics import NormalDist
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.contradiction import with_roundness, yardstick
from bendrel.core.measure.doubt import half_95, radius_95
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.further import FurtherKind, figure, one_by_one
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, equations, freedom, misses, od_of, rolls
from bendrel.core.measure.outcome import Outcome
from bendrel.core.measure.sheet import beside
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
    errors of both can do, so that of all checks together 95 of 100 agree. `of` is the id of the tape, the
    corner or the bend on the sheet."""

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
        return np.hstack(
            [
                rows[:, : len(spread.sigmas)] * spread.sigmas,
                np.diag(np.sqrt(with_roundness(own, read, one, spread))),
            ]
        )

    found: list[Check] = []
    for which, one in alone:
        kind, of = which.kind, which.id
        if kind in ("sheet", "bend on sheet"):
            continue  # they share one roll
        told = loadings(one)
        if kind in ("wire", "tape", "across"):
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
    if given.laid is not None:
        laid = Given(laid=given.laid)
        found += _landed(read, laid, made, errors, loadings(laid), wider)
    return tuple(found)


def _landed(
    read: ReadBends | Corners,
    one: Given,
    made: Outcome,
    errors: ReadingErrors,
    told: Array,
    wider: float,
) -> Iterator[Check]:
    """The old part on its sheet, rolled as suits its end B best (its bends, where that was not read beside):
    end B's place in mm, its lean in degrees, each bend in mm. One figure alone the roll takes up."""
    if one.laid is None or freedom(one) < 1:
        return
    landing = Given(laid=replace(one.laid, bends=()))
    by_end = rolls(landing)
    by = landing if by_end else one
    _, roll = yardstick(read, by, errors).told(by, made)
    off = np.array(beside(one.laid, made, roll))
    by_roll = np.array(beside(one.laid, made, roll + 0.5)) - np.array(beside(one.laid, made, roll - 0.5))
    finds = by_roll * (np.arange(len(by_roll)) < len(one.laid.rows) if by_end else 1.0)
    size = float(finds @ finds)
    free = one.laid.rolls and size > 1e-9
    met = told - np.outer(by_roll, finds @ told) / size if free else told
    sds = np.array(one.laid.sds)
    groups: dict[tuple[CheckKind, str], list[int]] = {}
    for k, (row, _, _) in enumerate(one.laid.rows):
        groups.setdefault(("sheet" if row < FIRST_LEAN else "lean", ""), []).append(k)
    for k, bend in enumerate(one.laid.bends, start=len(one.laid.rows)):
        groups.setdefault(("bend on sheet", bend.id), []).append(k)
    for (kind, of), rows in groups.items():
        away = float(np.linalg.norm(off[rows]))
        # what the roll takes up is off by its own reading all the same
        allowed = max(wider * radius_95(met[rows]), float(np.linalg.norm(sds[rows])))
        yield Check(kind=kind, of=of, given=0.0, computed=away, allowed=allowed)
