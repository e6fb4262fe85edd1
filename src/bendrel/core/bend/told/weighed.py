"""All that was told and read of a part, weighed together by how far each may be trusted."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import radians
from typing import TYPE_CHECKING

from bendrel.core.bend.told.laid import Laid
from bendrel.core.bend.told.many import end_of
from bendrel.core.bend.told.trial import Offer
from bendrel.core.bend.told.unknowns import TOOL, Unknowns
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList
from bendrel.core.measure.landing import Port, landed, port_of, rows_of
from bendrel.core.measure.solver import gain, loadings
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

STEPS = 3
AGAIN = 8


@record
class Reading:
    """One figure read of a part: what it says, its standard deviation, and what it would be for every
    column of unknowns."""

    value: float
    sd: float
    of: Callable[[Array], Array]


@record
class Weighed:
    """The unknowns as they most likely are, their covariance, and the part they make."""

    values: Array
    covariance: Array
    laid: Laid


def weigh(unknowns: Unknowns, readings: Sequence[Reading], *, slip_sd: float) -> Weighed:
    """The most likely unknowns, with what is told and what was read weighed by their variances.

    All readings at once, as `core/measure/solver` tells, taken again at its own answer because large bends
    turn small errors (Gauss and Newton, three times). Where an unknown comes out further than `slip_sd`
    standard deviations from what was told the hand slipped there: what it usually does says nothing, and its
    doubt becomes as wide as the slip. Source: maximum of the posterior with normal errors.
    """
    import numpy as np

    found = _filtered(unknowns, readings)
    for _ in range(AGAIN):
        away = abs(found.values[TOOL:])
        far = away / np.maximum(unknowns.sds, 1e-12)
        worst = int(far.argmax()) if len(far) else 0
        if not len(far) or far[worst] <= slip_sd:
            break
        unknowns.sds[worst] = away[worst]  # one slip often explains the others
        found = _filtered(unknowns, readings)
    return found


def _filtered(unknowns: Unknowns, readings: Sequence[Reading]) -> Weighed:
    import numpy as np

    spread = unknowns.spread()
    size = unknowns.size
    normal, after = np.zeros(size), np.eye(size)
    if readings:
        values = np.array([r.value for r in readings])
        variances = np.array([r.sd for r in readings]) ** 2
        for _ in range(STEPS):
            here, slopes = slopes_of([r.of for r in readings], spread, normal)
            normal = gain(slopes, variances) @ (values - here + slopes @ normal)
        after = loadings(slopes, variances)
    own_errors = spread @ after
    x = spread @ normal
    return Weighed(values=x, covariance=own_errors @ own_errors.T, laid=laid_of(unknowns, x))


def slopes_of(
    figures: Sequence[Callable[[Array], Array]], spread: Array, normal: Array
) -> tuple[Array, Array]:
    """Every figure at the standard normal `normal`, and its slopes, (figures, size)."""
    import numpy as np

    step = 1e-3
    columns = spread @ (normal[:, None] + np.hstack([np.zeros((len(normal), 1)), step * np.eye(len(normal))]))
    told = np.array([figure(columns) for figure in figures])
    return told[:, 0], (told[:, 1:] - told[:, :1]) / step


def laid_of(unknowns: Unknowns, values: Array) -> Laid:
    """The part with these unknowns, before anything was done to it."""
    many = unknowns.parts(values[:, None])
    angles = tuple(float(a) for a in many.angles[:, 0])
    arcs = tuple(float(a) for a in many.arcs[:, 0])
    return Laid(
        starts_mm=tuple(float(s) for s in many.starts[:, 0]),
        angles_deg=angles,
        clocks_deg=tuple(float(c) for c in many.clocks[:, 0]),
        radii_mm=tuple(arc / radians(angle) for arc, angle in zip(arcs, angles, strict=True)),
        length_mm=unknowns.planned.length_mm,
    )


def offered(unknowns: Unknowns, offers: Sequence[Offer], planned: BendList) -> tuple[Reading, ...]:
    """The readings of all trial fits, each after what was done before it."""
    found: list[Reading] = []
    ports = {lands: port_of(planned, lands) for lands in {offer.lands for offer in offers}}
    acted = 0
    for number, offer in enumerate(offers):
        found += [
            Reading(
                value=value,
                sd=sd,
                of=_offer_row(unknowns, ports[offer.lands], offer.lands, (number, acted), row),
            )
            for row, value, sd in rows_of(offer)
        ]
        acted += len(offer.then)
    return tuple(found)


def _offer_row(
    unknowns: Unknowns, port: Port, lands: EndName, when: tuple[int, int], row: int
) -> Callable[[Array], Array]:
    number, acted = when

    def read(values: Array) -> Array:
        ends = end_of(unknowns.parts(values, acted), unknowns.planned.length_mm, lands)
        told: Array = landed(port, ends.point, ends.way, unknowns.roll(values, number))[row]
        return told

    return read
