"""Further readings as observations: what was taken besides the readings of the shape, how far it is from what
they come out as, and how each reading moves that."""

from __future__ import annotations

from collections.abc import Iterator
from math import radians, sqrt, tan

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector
from bendrel.core.measure.doubt import ReadingErrors, Spread
from bendrel.core.measure.legs import ReadBends, shape_of
from bendrel.core.measure.outcome import Outcome
from bendrel.core.record import record

Array = NDArray[np.float64]


WIDE_DEG = 160.0


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


def equations(
    read: ReadBends | Corners, given: Given, errors: ReadingErrors, spread: Spread
) -> tuple[Array, Array]:
    """The derivatives of everything that is given by every reading (a row a figure, per mm or degree), and
    its own variances: a tape and a gauge are off as readings are."""
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
    return np.array(rows), np.array(own)


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


def misses(given: Given, made: Outcome) -> Array:
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

    return np.fromiter(rows(), dtype=float)
