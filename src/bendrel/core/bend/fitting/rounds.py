"""Many parts taken through fit rounds on paper: what they miss by at the end."""

from __future__ import annotations

from itertools import combinations
from statistics import NormalDist
from typing import TYPE_CHECKING

from bendrel.core.bend.fitting.tweak import May, Way, act_sd, ways_of
from bendrel.core.bend.told.flat import Flat
from bendrel.core.bend.told.many import Many
from bendrel.core.bend.told.standing import Reach
from bendrel.core.bend.told.unknowns import Hand
from bendrel.core.geometry.bends import BendList
from bendrel.core.measure.landing import Port
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

PARTS = 400
CHECKS = 64
ROUNDS = 6
MOST_WAYS = 16
"""Of a long part only so many things are tried, spread evenly over it: more bring nothing to a forecast."""


@record
class Fitting:
    """How parts are fitted: what may be done to them, how exactly an offer is read (one standard deviation),
    the share of likely parts that must fit, and the tube's outside diameter."""

    may: May
    read_mm: float
    read_deg: float
    fits: float
    od_mm: float


def after_rounds(
    part: Many,
    planned: BendList,
    port: Port,
    flat: Flat,
    slopes: Array,
    reach: Reach,
    *,
    hand: Hand,
    fitting: Fitting,
) -> Array:
    """The misses, as `Flat` figures (4, parts), of parts that were made with `slopes` (what one standard
    deviation of every unknown changes of the miss) and then offered, read and tweaked up to six times.

    To first order: a part is its four figures, a reading and a tweak their error, and what is known of it a
    normal distribution. The rules are those of `best_tweaks`. Source: derived.
    """
    import numpy as np

    rng = np.random.default_rng(20_001)
    _, ways = ways_of(
        part, planned.developed_mm, port, reach, fitting.may, planned.straights_mm, fitting.od_mm
    )
    ways = ways[:: max(1, -(-len(ways) // MOST_WAYS))]
    true = slopes @ rng.standard_normal((slopes.shape[1], PARTS))
    reading = np.array([fitting.read_mm / reach.mm] * 2 + [fitting.read_deg / reach.deg] * 2)
    singular = 1e-9 * np.eye(4)
    covariance = slopes @ slopes.T + singular
    mean = np.zeros((4, PARTS))
    spread = np.repeat(covariance[None], PARTS, axis=0)
    done = np.zeros(PARTS, dtype=bool)
    checks = rng.standard_normal((4, CHECKS))
    for _ in range(ROUNDS):
        read = true + reading[:, None] * rng.standard_normal((4, PARTS))
        gain = spread @ np.linalg.inv(spread + np.diag(reading**2))
        mean = mean + np.einsum("pij,jp->ip", gain, read - mean)
        spread = spread - gain @ spread
        root = np.linalg.cholesky(spread + singular)
        likely = mean.T[:, :, None] + root @ checks
        chance = flat.fits(np.moveaxis(likely, 1, 0)).mean(axis=1)
        done |= chance >= fitting.fits
        to_do = ~done & (chance < fitting.may.alone)
        if not to_do.any() or not ways:
            continue
        moved, noise = _tweaked(mean, ways, fitting, hand)
        better = _shrinks(mean, moved, spread, noise, fitting.may)
        go = to_do & better
        true = np.where(go, true + moved + _drawn(noise, rng), true)
        mean = np.where(go, mean + moved, mean)
        spread = np.where(go[:, None, None], spread + noise, spread)
    return true


def _tweaked(mean: Array, ways: list[Way], fitting: Fitting, hand: Hand) -> tuple[Array, Array]:
    """For every part the one or two things that are expected to leave least: what they change of it, and the
    covariance of the hand's error in them."""
    import numpy as np

    best = (mean**2).sum(axis=0)
    moved = np.zeros_like(mean)
    noise = np.zeros((mean.shape[1], 4, 4))
    may = fitting.may
    for size in (1, 2):
        for chosen in combinations(ways, size):
            columns = np.stack([way.moves for way in chosen], axis=1)
            grid = columns.T @ columns
            solve = np.linalg.inv(grid + np.diag(1e-6 + 0.002 * np.diag(grid)))
            by = np.clip(
                -solve @ columns.T @ mean,
                np.array([[way.least] for way in chosen]),
                np.array([[way.most] for way in chosen]),
            )
            change = columns @ by
            doubt = sum(
                act_sd(hand, way.act, 1.0, way.lever_mm, in_tool=may.in_tool) ** 2
                * np.outer(way.moves, way.moves)
                for way in chosen
            )
            # a second thing must be worth it
            cost = ((mean + change) ** 2).sum(axis=0) + float(np.trace(doubt)) + 0.1 * (size - 1)
            take = cost < best
            best = np.where(take, cost, best)
            moved = np.where(take, change, moved)
            noise = np.where(take[:, None, None], doubt, noise)
    return moved, noise


def _shrinks(mean: Array, moved: Array, spread: Array, noise: Array, may: May) -> Array:
    """Where the change is expected to bring the part nearer for as many of the likely parts as must be: the
    fall of the square of the miss is normal to first order."""
    import numpy as np

    after = mean + moved
    fall = (mean**2).sum(axis=0) - (after**2).sum(axis=0) - np.trace(noise, axis1=1, axis2=2)
    variance = 4 * np.einsum("ip,pij,jp->p", moved, spread, moved)
    variance = variance + 4 * np.einsum("ip,pij,jp->p", after, noise, after)
    variance = (
        variance + 2 * np.einsum("pij,pji->p", noise, noise) + 4 * np.einsum("pij,pji->p", noise, spread)
    )
    sure: Array = fall > NormalDist().inv_cdf(may.surely) * np.sqrt(np.maximum(variance, 1e-12))
    return sure


def _drawn(noise: Array, rng: np.random.Generator) -> Array:
    import numpy as np

    values, vectors = np.linalg.eigh(noise)
    root = vectors * np.sqrt(np.clip(values, 0.0, None))[:, None, :]
    drawn: Array = np.einsum("pij,pj->ip", root, rng.standard_normal((noise.shape[0], 4)))
    return drawn
