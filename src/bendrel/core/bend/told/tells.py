"""Which one reading would tell most now of where end B lies, and what it is worth."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

from bendrel.core.bend.told.figures import READ_NAMES, FigureKind, ReadName
from bendrel.core.bend.told.flat import Flat
from bendrel.core.bend.told.many import end_of, one
from bendrel.core.bend.told.observed import Gauge, reading_of
from bendrel.core.bend.told.standing import DRAWS, Reach, draws
from bendrel.core.bend.told.unknowns import Unknowns
from bendrel.core.bend.told.weighed import Weighed
from bendrel.core.findings import EndName
from bendrel.core.measure.landing import Port
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

KINDS: tuple[FigureKind, ...] = ("angle", "clock", "leg", "from_a", "from_b", "rims")
"""What is asked for: a plane always as a clock."""


@record
class Tells:
    """One reading that may be taken now: of which bend, what it would read if all came out as it is believed
    to be (mm or degrees), and the share of parts of which end B would then be known to within the reach."""

    bend: int
    name: ReadName
    would_read: float
    known: float


@record
class Known:
    """The share of parts of which end B is known to within the reach (all that was read weighed in), and the
    readings that may be taken now, the one that tells most first."""

    now: float
    readings: tuple[Tells, ...]


def tells_most(
    unknowns: Unknowns,
    weighed: Weighed,
    read: Sequence[tuple[int, FigureKind]],
    indices: Sequence[int],
    gauge: Gauge,
    port: Port,
    reach: Reach,
    *,
    beyond_mm: Mapping[EndName, float],
    od_mm: float,
) -> Known:
    """Of the readings of the bends told at `indices`, what each would tell that was not taken (`read`).

    What is known of end B is a normal distribution; a reading takes its own part out of its covariance.
    Source: the update of a linear filter, looked at before the reading is taken.
    """
    import numpy as np

    length = unknowns.planned.length_mm
    columns, step = columns_about(unknowns, weighed)
    ends = end_of(unknowns.parts(columns), length, reach.lands)
    flat = Flat(end_of(one(weighed.laid), length, reach.lands), port, reach)
    misses = flat.miss(ends)
    slopes = (misses[:, 1:] - misses[:, :1]) / step
    doubt = slopes @ weighed.covariance @ slopes.T
    last = max(indices, default=-1)
    taken = {(index, READ_NAMES[kind]) for index, kind in read}
    found = []
    for index in indices:
        for kind in KINDS:
            name = READ_NAMES[kind]
            if (
                (index, name) in taken
                or (kind == "rims" and index != last)
                or (kind == "clock" and not index)
            ):
                continue
            told = reading_of(unknowns, index, kind, beyond_mm, od_mm)(columns)
            slope = (told[1:] - told[0]) / step
            cross = slopes @ weighed.covariance @ slope
            variance = float(slope @ weighed.covariance @ slope) + gauge.sd(kind) ** 2
            after = doubt - np.outer(cross, cross) / variance
            found.append(
                Tells(
                    bend=unknowns.told[index].bend + 1,
                    name=name,
                    would_read=float(told[0]),
                    known=_within(flat, after),
                )
            )
    return Known(now=_within(flat, doubt), readings=tuple(sorted(found, key=lambda item: -item.known)))


def columns_about(unknowns: Unknowns, weighed: Weighed) -> tuple[Array, float]:
    """The most likely unknowns, and with each a little more; by how much. Raises nothing."""
    import numpy as np

    step = 1e-4
    here = weighed.values[:, None]
    return np.hstack([here, here + step * np.eye(unknowns.size)]), step


def _within(flat: Flat, covariance: Array) -> float:
    import numpy as np

    values, vectors = np.linalg.eigh(covariance)
    root = vectors * np.sqrt(np.clip(values, 0.0, None))
    return float(flat.fits(root @ draws(4, 4 * DRAWS)).mean())
