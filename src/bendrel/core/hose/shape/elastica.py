"""The shape of a hose held at two ends: an elastica in space, many at once.

The hose is inextensible, equally stiff all round, without weight and without twist. Its way is followed by
unit tangents at the middles of N equal pieces; its energy is that of the turns between neighbours.
Newton's method on the sphere of every tangent, with the force that holds the ends together as multiplier,
finds where it comes to rest. Everything is in units of the hose's own length; the arrays hold B hoses side
by side: tangents (B, N, 3), vectors (B, 3).

Source: L. Euler, De curvis elasticis (1744); Newton on a product of spheres after P.-A. Absil et al.,
Optimization Algorithms on Matrix Manifolds (2008), 6.2.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import LinAlgError, solve_banded

from bendrel.core.record import record

Array = NDArray[np.float64]

_SAFE_PASSES = 12
"""Passes that only go downhill, before Newton's own."""
_MOST_PASSES = 28
_MOST_TURN = 0.7
"""Radians that a tangent may turn in one pass: further, a straight line tells nothing of the sphere."""
_AT_REST = 1e-9
_FOUND = 1e-6
_OFF_RIDGE = 1e-6
_SAME, _NEAR = 1e-4, 0.03
_SHARP = 0.6
"""Radians from one piece to the next that the sums of small turns no longer hold for."""
_BOWS = 0.6
"""How far out the first guesses bow, as a share of the hose's length."""
_HARDLY = 0.01


@record
class Held:
    """Both ends of B hoses: `closing` runs from first to second end as a share of the length; `way_a` and
    `way_b` are unit vectors along the hose. All (B, 3)."""

    closing: Array
    way_a: Array
    way_b: Array

    def take(self, which: NDArray[np.intp]) -> Held:
        """Some of them, in that order."""
        return Held(closing=self.closing[which], way_a=self.way_a[which], way_b=self.way_b[which])


@record
class Settled:
    """B hoses where they came to rest: tangents (B, N, 3), the `force` that holds the ends (B, 3), bending
    `energy` (B,), and whether rest was `found` (B,)."""

    tangents: Array
    force: Array
    energy: Array
    found: NDArray[np.bool_]

    def take(self, which: NDArray[np.intp]) -> Settled:
        """Some of them, in that order."""
        return Settled(
            tangents=self.tangents[which],
            force=self.force[which],
            energy=self.energy[which],
            found=self.found[which],
        )

    def with_others(self, which: NDArray[np.intp], others: Settled) -> Settled:
        """The same with `others` in the places `which`; of two for one place the later stays."""
        tangents, force, energy = self.tangents.copy(), self.force.copy(), self.energy.copy()
        found = self.found.copy()
        tangents[which], force[which] = others.tangents, others.force
        energy[which], found[which] = others.energy, others.found
        return Settled(tangents=tangents, force=force, energy=energy, found=found)


def guesses(held: Held, pieces: int, *, flat: bool) -> Array:
    """First guesses for every hose, (B, G, pieces, 3): a cubic from end to end, and the same with a bow to
    either side; `flat` keeps to the plane of the ends (the bows out of it are left out)."""
    s = ((np.arange(pieces) + 0.5) / pieces)[:, None]
    closing, a, b = (v[:, None, :] for v in (held.closing, held.way_a, held.way_b))
    cubic = 6 * s * (1 - s) * closing + (1 - 4 * s + 3 * s * s) * a + (3 * s * s - 2 * s) * b
    bump = 32 * _BOWS * s * (1 - s) * (1 - 2 * s)
    across = _across(held)
    sides = across[:, :1] if flat else across
    # between ends in line the cubic is straight, from where no way leads on
    ways = [cubic + _HARDLY * bump * across[:, 0, None, :]]
    for side in range(sides.shape[1]):
        for sign in (1.0, -1.0):
            ways.append(cubic + sign * bump * sides[:, side, None, :])
    stacked = np.stack(ways, axis=1)
    return _normed(stacked)


def _across(held: Held) -> Array:
    """Two unit vectors square to the line between the ends, (B, 2, 3); the first lies in the plane of the
    ends where they have one."""
    straight = np.linalg.norm(held.closing, axis=-1, keepdims=True)
    along = np.where(straight > 1e-12, held.closing / np.maximum(straight, 1e-12), held.way_a)
    any_way = _frames(along)[:, 0]
    found = any_way
    for way in (held.way_b, held.way_a):
        inward = way - (way * along).sum(-1, keepdims=True) * along
        size = np.linalg.norm(inward, axis=-1, keepdims=True)
        found = np.where(size > 1e-6, inward / np.maximum(size, 1e-12), found)
    return np.stack([found, np.cross(along, found)], axis=1)


def settle(
    starts: Array,
    held: Held,
    force: Array | None = None,
    *,
    safe: int | None = None,
    at_rest: float = _AT_REST,
) -> Settled:
    """Let every hose of `starts` (B, N, 3) come to rest, until nothing turns further than `at_rest` in a
    pass. With a `force` to begin with, the start is taken to be near, so that Newton's method is used at
    once, or after `safe` passes downhill."""
    tangents = starts.copy()
    pull = np.zeros_like(held.closing) if force is None else force.copy()
    turn = np.full(len(tangents), np.inf)
    going = np.arange(len(tangents))
    if safe is None:
        safe = _SAFE_PASSES if force is None else 0
    for k in range(_MOST_PASSES):
        downhill = k < safe
        step, change, frames = _step(tangents[going], pull[going], held.take(going), downhill=downhill)
        turned = np.abs(step).max(axis=(1, 2))
        share = np.minimum(1.0, _MOST_TURN / np.maximum(turned, 1e-300))
        step = step * share[:, None, None]
        moved = frames[:, :, 0] * step[:, :, :1] + frames[:, :, 1] * step[:, :, 1:]
        tangents[going] = _normed(tangents[going] + moved)
        pull[going] += change * share[:, None]
        turn[going] = turned
        if not np.isfinite(turned).all():
            break
        if not downhill:
            going = going[turned > at_rest]
            if not len(going):
                break
    found = np.isfinite(turn) & (turn < max(_FOUND, at_rest))
    return Settled(tangents=tangents, force=pull, energy=bending_energy(tangents, held), found=found)


def lowest(
    starts: Array,
    held: Held,
    force: Array | None = None,
    *,
    safe: int | None = None,
    at_rest: float = _AT_REST,
    rivals: int | None = None,
) -> Settled:
    """Of several starts for every hose (B, G, N, 3), with the force (B, G, 3) of each where it is known,
    where the one of least energy came to rest; two that are close are told apart on `rivals` pieces."""
    hoses, ways, pieces, _ = starts.shape
    pull = None if force is None else force.reshape(hoses * ways, 3)
    all_held = held.take(np.repeat(np.arange(hoses), ways))
    rest = settle(starts.reshape(hoses * ways, pieces, 3), all_held, pull, safe=safe, at_rest=at_rest)
    energy = np.where(rest.found, rest.energy, np.inf).reshape(hoses, ways)
    best = energy.argmin(axis=1)
    if rivals is not None:
        least = energy.min(axis=1, keepdims=True)
        near = np.where((energy > least * (1 + _SAME)) & (energy < least * (1 + _NEAR)), energy, np.inf)
        second = near.argmin(axis=1)
        close = np.flatnonzero(np.isfinite(near.min(axis=1)))
        if len(close):
            one, other = (
                refined(rest.take(close * ways + each[close]), held.take(close), rivals).energy
                for each in (best, second)
            )
            best[close] = np.where(other < one, second[close], best[close])
    return rest.take(np.arange(hoses) * ways + best)


def refined(rest: Settled, held: Held, pieces: int) -> Settled:
    """The same hoses followed in `pieces` pieces."""
    now = rest.tangents.shape[1]
    old = np.concatenate([[0.0], (np.arange(now) + 0.5) / now, [1.0]])
    new = (np.arange(pieces) + 0.5) / pieces
    known = np.concatenate([held.way_a[:, None], rest.tangents, held.way_b[:, None]], axis=1)
    k = np.clip(np.searchsorted(old, new) - 1, 0, len(old) - 2)
    share = ((new - old[k]) / (old[k + 1] - old[k]))[None, :, None]
    between = known[:, k] * (1 - share) + known[:, k + 1] * share
    # half-way between opposite ways there is none
    lost = np.linalg.norm(between, axis=-1, keepdims=True) < 0.1
    return settle(_normed(np.where(lost, known[:, k], between)), held, rest.force)


def bending_energy(tangents: Array, held: Held) -> Array:
    """½∫κ² ds over every hose, in units of 1/length; (B,)."""
    pieces = tangents.shape[1]
    between = 1.0 - _dot(tangents[:, :-1], tangents[:, 1:])
    ends = 2.0 - (tangents[:, 0] * held.way_a).sum(-1) - (tangents[:, -1] * held.way_b).sum(-1)
    return np.asarray(pieces * (between.sum(1) + 2.0 * ends))


def ways_out(rest: Settled, held: Held) -> NDArray[np.intp]:
    """In how many ways every hose at rest would leave its shape by itself, (B,): 0 is stable.

    Source: inertia of the equations of rest by block elimination (E. Haynsworth, 1968).
    """
    tangents, force = rest.tangents, rest.force
    hoses, pieces, _ = tangents.shape
    gradient, diagonal = _gradient(tangents, force, held)
    frames = _frames(tangents)
    off = -pieces * np.einsum("bnai,bnci->bnac", frames[:, :-1], frames[:, 1:])
    blocks = (diagonal - (gradient * tangents).sum(-1))[..., None, None] * np.eye(2)
    closing = frames / pieces
    negative = np.zeros(hoses, dtype=np.intp)
    schur = np.zeros((hoses, 3, 3))
    block, row = blocks[:, 0], closing[:, 0]
    for n in range(pieces):
        determinant = block[:, 0, 0] * block[:, 1, 1] - block[:, 0, 1] ** 2
        trace = block[:, 0, 0] + block[:, 1, 1]
        negative += np.where(determinant < 0, 1, np.where(trace < 0, 2, 0))
        try:
            inverse = np.linalg.inv(block)
        except LinAlgError:  # a way that costs nothing either way is none out
            inverse = np.linalg.inv(block + _OFF_RIDGE * pieces * np.eye(2))
        schur += np.einsum("bai,bac,bcj->bij", row, inverse, row)
        if n + 1 < pieces:
            over = np.einsum("bac,bak->bck", off[:, n], inverse)
            row = closing[:, n + 1] - np.einsum("bck,bki->bci", over, row)
            block = blocks[:, n + 1] - np.einsum("bck,bkd->bcd", over, off[:, n])
    held_back = (np.linalg.eigvalsh(schur) < 0).sum(axis=1)
    return np.asarray(negative - held_back)


def points_of(rest: Settled) -> Array:
    """Points at the ends of the pieces, (B, N + 1, 3), starting at the origin."""
    hoses, pieces, _ = rest.tangents.shape
    start = np.zeros((hoses, 1, 3))
    return np.concatenate([start, np.cumsum(rest.tangents, axis=1) / pieces], axis=1)


def curvature_of(rest: Settled, held: Held) -> Array:
    """Curvature at the points of `points_of`, (B, N + 1), in 1/length. The moment of a hose differs from
    place to place by the moment of its force alone, so that one figure holds for all of it, the ends
    included. Where a turn is too sharp for the pieces, it counts as the turn that it is."""
    pieces = rest.tangents.shape[1]
    points = points_of(rest)
    moments = np.cross(rest.tangents[:, :-1], rest.tangents[:, 1:]) * pieces
    lever = np.cross(rest.force[:, None, :], points)
    constant = (moments - lever[:, 1:-1]).mean(axis=1, keepdims=True)
    curvature = np.linalg.norm(constant + lever, axis=-1)
    ways = np.concatenate([held.way_a[:, None], rest.tangents, held.way_b[:, None]], axis=1)
    turns = np.arccos(np.clip(_dot(ways[:, :-1], ways[:, 1:]), -1.0, 1.0))
    turns[:, [0, -1]] *= 2.0  # half a piece lies between an end and its first middle
    return np.asarray(np.where(turns > _SHARP, np.maximum(curvature, turns * pieces), curvature))


def _gradient(tangents: Array, force: Array, held: Held) -> tuple[Array, Array]:
    """The pull on every tangent (B, N, 3), and the stiffness that it has of itself (N,)."""
    pieces = tangents.shape[1]
    pull = np.empty_like(tangents)
    pull[:, 1:-1] = 2 * tangents[:, 1:-1] - tangents[:, :-2] - tangents[:, 2:]
    pull[:, 0] = 3 * tangents[:, 0] - tangents[:, 1] - 2 * held.way_a
    pull[:, -1] = 3 * tangents[:, -1] - tangents[:, -2] - 2 * held.way_b
    diagonal = np.full(pieces, 2.0 * pieces)
    diagonal[[0, -1]] = 3.0 * pieces
    return pull * pieces - force[:, None, :] / pieces, diagonal


def _step(tangents: Array, force: Array, held: Held, *, downhill: bool) -> tuple[Array, Array, Array]:
    """One pass: turns of the tangents (B, N, 2) in their `frames`, the change of the force, the frames."""
    hoses, pieces, _ = tangents.shape
    gradient, diagonal = _gradient(tangents, force, held)
    inward = _dot(gradient, tangents)
    if downhill:
        inward = np.minimum(inward, 0.0)
    frames = _frames(tangents)
    pull = _dot(frames, gradient[:, :, None, :])
    # one band matrix holds all hoses: nothing couples the last piece of one to the first of the next
    nodes = hoses * pieces
    beside = np.zeros((hoses, pieces, 2, 2))
    beside[:, :-1] = -pieces * _dot(frames[:, :-1, :, None, :], frames[:, 1:, None, :, :])
    off = beside.reshape(nodes, 2, 2)
    band = np.zeros((7, nodes, 2))
    band[3] = (diagonal - inward).reshape(nodes, 1)
    for row in range(2):
        for column in range(2):
            band[1 + row - column, 1:, column] = off[:-1, row, column]
            band[5 + column - row, :-1, row] = off[:-1, row, column]
    right = np.empty((nodes, 2, 4))
    right[:, :, 0] = -pull.reshape(nodes, 2)
    right[:, :, 1:] = frames.reshape(nodes, 2, 3) / pieces
    try:
        solved = solve_banded((3, 3), band.reshape(7, -1), right.reshape(-1, 4), check_finite=False)
    except LinAlgError:  # one of them stands on a ridge: a trifle of stiffness leads off it
        band[3] += _OFF_RIDGE * pieces
        solved = solve_banded((3, 3), band.reshape(7, -1), right.reshape(-1, 4), check_finite=False)
    turns = solved.reshape(hoses, 2 * pieces, 4)
    closes = np.swapaxes(frames.reshape(hoses, 2 * pieces, 3), 1, 2) @ turns / pieces
    missing = held.closing - tangents.mean(axis=1)
    asked = (missing - closes[:, :, 0])[..., None]
    try:
        change = np.linalg.solve(closes[:, :, 1:], asked)
    except LinAlgError:  # a hose that is still quite straight cannot be pulled along itself
        change = np.linalg.pinv(closes[:, :, 1:]) @ asked
    step = turns[:, :, 0] + (turns[:, :, 1:] @ change)[:, :, 0]
    return step.reshape(hoses, pieces, 2), change[:, :, 0], frames


def _dot(one: Array, other: Array) -> Array:
    """Scalar products over the last axis; written out, which is many times quicker than summing over
    three."""
    return np.asarray(one[..., 0] * other[..., 0] + one[..., 1] * other[..., 1] + one[..., 2] * other[..., 2])


def _frames(tangents: Array) -> Array:
    """Two unit vectors square to every tangent, (…, 2, 3).

    Source: T. Duff et al., Building an Orthonormal Basis, Revisited (2017).
    """
    x, y, z = tangents[..., 0], tangents[..., 1], tangents[..., 2]
    sign = np.where(z >= 0, 1.0, -1.0)
    a = -1.0 / (sign + z)
    b = x * y * a
    one = np.stack([1.0 + sign * x * x * a, sign * b, -sign * x], axis=-1)
    other = np.stack([b, sign + y * y * a, -y], axis=-1)
    return np.stack([one, other], axis=-2)


def _normed(vectors: Array) -> Array:
    size = np.sqrt(_dot(vectors, vectors))[..., None]
    return np.asarray(vectors / np.maximum(size, 1e-12))
