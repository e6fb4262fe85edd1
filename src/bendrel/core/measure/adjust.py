"""All readings adjusted together: the shape that fits what was read and every further reading best.

The unknowns are what each reading should have been. Each reading is an observation of itself, each further
one (wire, tapes, where end B stands and where it looks) an observation of what the readings come out as; all
are weighed by what they are worth. With no further reading every reading is taken as it was read.
"""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.contradiction import yardstick
from bendrel.core.measure.culprits import likeliest
from bendrel.core.measure.doubt import Doubt, doubt_of
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, equations, misses, od_of, rolls, with_roll
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.slots import Slot, changed, moved, slots, value_of
from bendrel.core.measure.solver import gain, loadings
from bendrel.core.measure.spread import Spread, spread_of
from bendrel.core.record import record

Array = NDArray[np.float64]

ROUNDS, HALVINGS, STILL = 12, 6, 1e-8
OPEN = 60.0
"""A reading that is left out is off by so many times what readings are: it is found from the others alone."""


@record
class Trust:
    """What a person says of single readings: `held` are right as they were read, `left_out` count nothing."""

    held: frozenset[Slot] = frozenset()
    left_out: frozenset[Slot] = frozenset()


@record
class Taken:
    """One reading as it was taken: the change from what was read, and what 95 of 100 are within; mm or
    degrees."""

    slot: Slot
    change: float
    doubt: float


@record
class Adjusted:
    """The readings as taken, and what 95 of 100 results lie within."""

    read: ReadBends | Corners
    taken: tuple[Taken, ...]
    doubt: Doubt


def adjust(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors, trust: Trust | None = None
) -> Adjusted:
    """The readings of `read` adjusted to everything that is `given`.

    Weighted least squares by Gauss and Newton, each round solved as `solver` tells.
    Raises ShapeError where `read` is no shape, or where what is given bends it into none.
    Source: JCGM 102:2011, 6; observation equations of surveying, any textbook.
    """
    found = list(slots(read))
    sigmas = with_roll(_sigmas(found, errors, trust or Trust()), given)
    x: Array = np.zeros(len(sigmas))
    if given == Given():
        return _told(read, found, x, np.diag(sigmas), spread_of(read, errors))
    here = as_left(
        read, given, errors, trust or Trust()
    )  # what is left out may be far off: begin where it fits
    x[: len(found)] = [value_of(here, slot) - value_of(read, slot) for slot in found]
    roll = 0.0
    if rolls(given):
        _, roll = yardstick(here, given, errors).told(given, outcome(here))
        x[-1] = roll
    spread = spread_of(here, errors)
    for _ in range(ROUNDS):
        rows, own = equations(here, given, errors, spread, roll)
        miss = misses(given, outcome(here), od_of(read), roll)
        best = sigmas * (gain(rows * sigmas, own) @ (miss + rows @ x))
        step, here, spread = _as_far_as_it_goes(read, errors, x, best, len(found))
        still = float(np.max(np.abs(step - x), initial=0.0)) < STILL
        x = step
        roll = float(x[-1]) if rolls(given) else 0.0
        if still:
            break
    own_errors = _loadings(*equations(here, given, errors, spread, roll), sigmas)
    return _told(here, found, x, own_errors[: len(found)], spread)


def as_left(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors, trust: Trust
) -> ReadBends | Corners:
    """`read` with every reading that is left out where all that is given puts it, one after the other. Raises
    ShapeError where `read` is no shape."""
    if given == Given():
        return read
    here = read
    for slot in slots(read):
        if slot in trust.left_out:
            here = changed(here, slot, likeliest(here, slot, given, errors))
    return here


def _as_far_as_it_goes(
    read: ReadBends | Corners, errors: ReadingErrors, x: Array, step: Array, count: int
) -> tuple[Array, ReadBends | Corners, Spread]:
    """The step from `x`, halved until the readings are a shape. Raises ShapeError where they never are."""
    for _ in range(HALVINGS):
        here = moved(read, step[:count].tolist())
        try:
            return step, here, spread_of(here, errors)
        except ShapeError:
            step = (x + step) / 2
    here = moved(read, step[:count].tolist())
    return step, here, spread_of(here, errors)


def expected(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors, trust: Trust | None = None
) -> Doubt:
    """The doubt of `read` where all of `given` is read as well: its figures do not count, only that they are
    there. Raises ShapeError where `read` is no shape."""
    spread = spread_of(read, errors)
    alone = _sigmas(slots(read), errors, trust or Trust())
    if given == Given():
        return doubt_of(spread, np.diag(alone))
    own_errors = _loadings(*equations(read, given, errors, spread), with_roll(alone, given))
    return doubt_of(spread, own_errors[: len(alone)])


def _loadings(rows: Array, own: Array, sigmas: Array) -> Array:
    """How every error, of readings and of what is given, moves each reading as it is taken."""
    both: Array = sigmas[:, None] * loadings(rows * sigmas, own)
    return both


def _sigmas(found: Iterable[Slot], errors: ReadingErrors, trust: Trust) -> Array:
    def one(slot: Slot) -> float:
        if slot in trust.held:
            return 0.0
        return errors.sigma(slot) * (OPEN if slot in trust.left_out else 1.0)

    return np.array([one(slot) for slot in found])


def _told(
    here: ReadBends | Corners, found: list[Slot], x: Array, own_errors: Array, spread: Spread
) -> Adjusted:
    own = 1.96 * np.sqrt(np.sum(own_errors**2, axis=1))
    return Adjusted(
        read=here,
        taken=tuple(
            Taken(slot=slot, change=change, doubt=doubt)
            for slot, change, doubt in zip(found, x[: len(found)].tolist(), own.tolist(), strict=True)
        ),
        doubt=doubt_of(spread, own_errors),
    )
