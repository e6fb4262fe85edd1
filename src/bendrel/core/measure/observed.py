"""Further readings as observations: what was taken besides the readings of the shape, how far it is from what
they come out as, and how each reading moves that."""

from __future__ import annotations

from collections.abc import Iterator
from math import radians, sqrt, tan

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector, subtract, unit
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.legs import ReadBends, shape_of
from bendrel.core.measure.outcome import Outcome, by_steps, outcome
from bendrel.core.measure.sheet import OnDrawing, beside, sheet_rows
from bendrel.core.measure.spots import TapePlace, across, held_at
from bendrel.core.measure.spread import Spread
from bendrel.core.record import record

Array = NDArray[np.float64]


WIDE_DEG = 160.0
ANY_ROLL_DEG = 30.0
"""One standard deviation of how a part that was rolled to its best lies about end A: it is found from the
landing itself."""


@record
class Across:
    """A tape straight between two spots, in mm; `over` the backs of the bends, the greatest that it reads."""

    start: TapePlace
    end: TapePlace
    mm: float
    over: bool = False
    id: str = ""


@record
class Corner:
    """Where the corner of a bend (0 is the first) stands as seen from end A, as `place_b`; None where that
    side was not read."""

    bend: int
    sides: tuple[float | None, float | None, float | None]
    id: str = ""


@record
class Given:
    """What was read further, in mm and as unit vectors; None where not. `wire_mm` is the length along the
    line, `tape_mm` straight from rim to rim. `place_b` is where end B stands as seen from end A: ahead,
    towards 12 o'clock and towards 3 o'clock of the first bend; of corner points along the datum's axes."""

    wire_mm: float | None = None
    tape_mm: float | None = None
    way_a: Vector | None = None
    way_b: Vector | None = None
    place_b: Vector | None = None
    across: tuple[Across, ...] = ()
    corners: tuple[Corner, ...] = ()
    laid: OnDrawing | None = None


def freedom(given: Given) -> int:
    """How many figures of what is given say something of their own: a way has two, though three rows tell it,
    and a landing finds its own roll."""
    ways = sum(way is not None for way in (given.way_a, given.way_b))
    return figures(given) - ways - rolls(given)


def figures(given: Given) -> int:
    """How many rows tell what is given."""
    return (
        (given.wire_mm is not None)
        + (given.tape_mm is not None)
        + 3 * sum(one is not None for one in (given.way_a, given.way_b, given.place_b))
        + len(given.across)
        + sum(side is not None for corner in given.corners for side in corner.sides)
        + (given.laid.figures if given.laid else 0)
    )


def rolls(given: Given) -> bool:
    """Whether the roll of an old part on its drawing is one more unknown."""
    return given.laid is not None and given.laid.rolls


def with_roll(sigmas: Array, given: Given) -> Array:
    """The readings' standard deviations, and the roll's where that is an unknown."""
    return np.append(sigmas, ANY_ROLL_DEG) if rolls(given) else sigmas


def misses(given: Given, made: Outcome, od_mm: float, roll_deg: float = 0.0) -> Array:
    """What is given less what the readings come out as, a row a figure."""

    def rows() -> Iterator[float]:
        if given.wire_mm is not None:
            yield given.wire_mm - made.developed_mm
        if given.tape_mm is not None:
            yield given.tape_mm - made.tape_mm
        for wanted, got in (
            (given.way_a, made.way_a),
            (given.way_b, made.way_b),
            (given.place_b, made.point),
        ):
            if wanted is not None:
                yield from (w - g for w, g in zip(wanted, got, strict=True))
        for one in given.across:
            yield one.mm - across(made, one.start, one.end, od_mm, over=one.over)[0]
        for corner in given.corners:
            place = held_at(made, corner.bend).place
            yield from (side - at for side, at in zip(corner.sides, place, strict=True) if side is not None)
        if given.laid is not None:
            yield from beside(given.laid, made, roll_deg)

    return np.array(list(rows()))


def equations(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors, spread: Spread, roll_deg: float = 0.0
) -> tuple[Array, Array]:
    """The derivatives of everything that is given by every reading (a row a figure, per mm or degree; the
    roll last, where that is an unknown), and its own variances: a tape and a gauge are off as
    readings are."""
    length, angle = errors.length_mm / sqrt(3), radians(errors.angle_deg) / sqrt(3)
    rows: list[Array] = []
    own: list[float] = []
    if given.wire_mm is not None:
        rows.append(spread.developed)
        own.append(length**2 + (errors.radius_share * _by_radius(read)) ** 2)
    if given.tape_mm is not None:
        rows.append(spread.tape)
        own.append(length**2)
    if given.way_a is not None:
        rows += list(spread.way_a)
        own += [angle**2] * 3
    if given.way_b is not None:
        rows += list(spread.way)
        own += [angle**2] * 3
    if given.place_b is not None:
        rows += list(spread.point)
        own += [errors.place_mm**2 / 3] * 3
    if given.across or given.corners or given.laid:
        made = outcome(read)
        rows += list(_spot_rows(read, given, made, spread))
        own += [length**2] * len(given.across)
        own += [errors.place_mm**2 / 3 for one in given.corners for side in one.sides if side is not None]
    if given.laid is None:
        return np.array(rows), np.array(own)
    straight = np.array(rows).reshape(len(rows), len(spread.sigmas))
    landing = sheet_rows(read, given.laid, spread, roll_deg)
    whole = np.vstack([np.hstack([straight, np.zeros((len(straight), 1))]), landing])
    if not given.laid.rolls:
        whole = whole[:, :-1]
    return whole, np.array([*own, *(sd**2 for sd in given.laid.sds)])


def _spot_rows(read: ReadBends | Corners, given: Given, made: Outcome, spread: Spread) -> Iterator[Array]:
    """Tapes across, then corners seen from A."""
    motion = spread.motion
    if motion is None or isinstance(read, Corners):
        told = Given(across=given.across, corners=given.corners)
        yield from by_steps(read, lambda there: -misses(told, there, 0.0))
        return
    for one in given.across:
        _, here, there = across(made, one.start, one.end, read.od_mm, over=one.over)
        apart = np.array(unit(subtract(there.place, here.place)))
        yield apart @ (there.moved(motion) - here.moved(motion))
    for corner in given.corners:
        rows = held_at(made, corner.bend).moved(motion)
        yield from (row for row, side in zip(rows, corner.sides, strict=True) if side is not None)


def _by_radius(read: ReadBends | Corners) -> float:
    """How much longer a line between the same corners is whose bends are all of another radius: mm for the
    whole of it."""
    if isinstance(read, Corners):
        return 0.0
    # a hairpin has no corner to stay between: it counts as a wide bend
    return sum(
        bend.radius_mm * abs(radians(bend.angle_deg) - 2 * tan(radians(min(bend.angle_deg, WIDE_DEG)) / 2))
        for bend in shape_of(read).bends
    )


def od_of(read: ReadBends | Corners) -> float:
    """The tube's diameter in mm; 0 for corner points, which are of the middle line."""
    return 0.0 if isinstance(read, Corners) else read.od_mm
