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
_MOST_PASSES = 40
_MOST_TURN = 0.7
"""Radians that a tangent may turn in one pass: further, a straight line tells nothing of the sphere."""
_AT_REST = 1e-9
_OFF_RIDGE = 1e-6
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


def settle(starts: Array, held: Held, force: Array | None = None) -> Settled:
    """Let every hose of `starts` (B, N, 3) come to rest. With a `force` to begin with, the start is taken
    to be near and Newton's method is used at once."""
    tangents = starts
    pull = np.zeros_like(held.closing) if force is None else force
    turn = np.full(len(tangents), np.inf)
    for k in range(_MOST_PASSES):
        downhill = force is None and k < _SAFE_PASSES
        step, change, frames = _step(tangents, pull, held, downhill=downhill)
        turn = np.abs(step).max(axis=(1, 2))
        share = np.minimum(1.0, _MOST_TURN / np.maximum(turn, 1e-300))
        moved = np.einsum("bnai,bna->bni", frames, step * share[:, None, None])
        tangents = _normed(tangents + moved)
        pull = pull + change * share[:, None]
        if not downhill and turn.max() < _AT_REST:
            break
        if not np.isfinite(turn).all():
            break
    found = np.isfinite(turn) & (turn < 1e-6)
    return Settled(tangents=tangents, force=pull, energy=bending_energy(tangents, held), found=found)


def lowest(starts: Array, held: Held) -> Settled:
    """Of several starts for every hose (B, G, N, 3), where the one of least energy came to rest."""
    hoses, ways, pieces, _ = starts.shape
    each = np.repeat(np.arange(hoses), ways)
    all_held = held.take(each)
    rest = settle(starts.reshape(hoses * ways, pieces, 3), all_held)
    energy = np.where(rest.found, rest.energy, np.inf).reshape(hoses, ways)
    return rest.take(np.arange(hoses) * ways + energy.argmin(axis=1))


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
    between = 1.0 - (tangents[:, :-1] * tangents[:, 1:]).sum(-1)
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
        inverse = np.linalg.inv(block)
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


def curvature_of(rest: Settled) -> Array:
    """Curvature at the points of `points_of`, (B, N + 1), in 1/length. The moment of a hose differs from
    place to place by the moment of its force alone, so that one figure holds for all of it, the ends
    included."""
    pieces = rest.tangents.shape[1]
    points = points_of(rest)
    moments = np.cross(rest.tangents[:, :-1], rest.tangents[:, 1:]) * pieces
    lever = np.cross(rest.force[:, None, :], points)
    constant = (moments - lever[:, 1:-1]).mean(axis=1, keepdims=True)
    return np.asarray(np.linalg.norm(constant + lever, axis=-1))


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
    inward = (gradient * tangents).sum(-1)
    if downhill:
        inward = np.minimum(inward, 0.0)
    frames = _frames(tangents)
    pull = np.einsum("bnai,bni->bna", frames, gradient)
    # one band matrix holds all hoses: nothing couples the last piece of one to the first of the next
    nodes = hoses * pieces
    off = np.zeros((hoses, pieces, 2, 2))
    off[:, :-1] = -pieces * np.einsum("bnai,bnci->bnac", frames[:, :-1], frames[:, 1:])
    off = off.reshape(nodes, 2, 2)
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
    turns = solved.reshape(hoses, pieces, 2, 4)
    closes = np.einsum("bnai,bnak->bik", frames, turns) / pieces
    missing = held.closing - tangents.mean(axis=1)
    change = np.linalg.solve(closes[:, :, 1:], (missing - closes[:, :, 0])[..., None])[..., 0]
    step = turns[..., 0] + np.einsum("bnak,bk->bna", turns[..., 1:], change)
    return step, change, frames


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
    size = np.linalg.norm(vectors, axis=-1, keepdims=True)
    return np.asarray(vectors / np.maximum(size, 1e-12))
