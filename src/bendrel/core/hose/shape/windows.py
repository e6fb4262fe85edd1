"""The lengths of hose that keep a radius, at one position of its ends or at all of their travel."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from bendrel.core.hose.shape.elastica import (
    Array,
    Held,
    Settled,
    curvature_of,
    guesses,
    lowest,
    points_of,
    refined,
    settle,
)
from bendrel.core.hose.shape.laid import COARSE, FINE, FINEST, HoseEnds, HoseError, held_ends, reach_mm
from bendrel.core.record import record

_LENGTHS, _LENGTHS_MOVING = 48, 24
_APART = 4
"""Of so many lengths one is looked for from nothing; the others start from what was found beside them."""
_PLACES_APART = 6
_ROUGHLY = 1e-4
_NEARLY = 0.8
_DOUBTFUL = 0.08
"""A radius on the coarse pieces that lies no further from the one asked for is worked out on finer ones."""
_GOVERN = 1.1
"""At an edge, positions whose radius is no more than so many times the tightest are followed."""
_OTHERWISE = 0.1
"""Two hoses whose ways differ by more on the average lie otherwise."""
_LOWER = 1e-4
_EDGE_MM = 0.02
_MOST_STEPS = 24


@record
class AtLength:
    """What one length gives; `radius_mm` is 0 where no hose of that length comes to rest without a kink."""

    length_mm: float
    radius_mm: float
    reach_mm: float


@record
class Window:
    """Lengths from `least` to `most`, all of which keep the radius."""

    least: AtLength
    most: AtLength


@record
class Windows:
    """The lengths that keep a radius, in order, and the radius and reach over all lengths looked at."""

    windows: tuple[Window, ...]
    over: tuple[AtLength, ...]

    @property
    def gentlest(self) -> AtLength:
        """The length whose tightest place is gentlest."""
        return max(self.over, key=lambda at: at.radius_mm)


def hose_windows(ends: HoseEnds, radius_mm: float, longest_mm: float) -> Windows:
    """All lengths up to `longest_mm` at which a hose between these ends is nowhere tighter than
    `radius_mm`.

    Edges are good to 0.1 mm where the radius changes with the length. Raises HoseError for a radius of 0
    and a longest length that does not reach.
    """
    return windows_over((ends,), radius_mm, longest_mm)


def windows_over(positions: Sequence[HoseEnds], radius_mm: float, longest_mm: float) -> Windows:
    """The same for a hose whose ends move through `positions`: lengths that hold at every one; what is said
    of a length is the tightest radius and the greatest reach of all. Raises as `hose_windows` does."""
    if not radius_mm > 0:
        raise HoseError(f"A least radius of {radius_mm:g} mm: more than 0 is accepted.")
    least = max(ends.least_mm for ends in positions)
    if longest_mm <= least:
        raise HoseError(
            "The greatest length looked at, {longest}, does not reach from end to end: more than {least} is "
            "needed.",
            longest=longest_mm,
            least=least,
        )
    search = _Search(positions, radius_mm)
    search.look(_lengths(positions, least, longest_mm))
    search.look_closer()
    over = search.told()
    keeps = [at.radius_mm >= radius_mm for at in over]
    windows: list[Window] = []
    opened = over[0] if keeps[0] else None
    for before, behind, kept, keeps_on in zip(over, over[1:], keeps, keeps[1:], strict=False):
        if kept == keeps_on:
            continue
        edge = search.edge(before.length_mm, behind.length_mm)
        if opened is None:
            opened = edge
        else:
            windows.append(Window(least=opened, most=edge))
            opened = None
    if opened is not None:
        windows.append(Window(least=opened, most=over[-1]))
    return Windows(windows=tuple(windows), over=over)


def _lengths(positions: Sequence[HoseEnds], least: float, longest: float) -> list[float]:
    """Lengths to look at, close together at first: just over the shortest the radius changes fastest."""
    count = _LENGTHS if len(positions) == 1 else _LENGTHS_MOVING
    shares = (np.arange(count) + 1.0) / count
    lengths = [float(least + (longest - least) * share**2) for share in shares]
    straight = all(ends.in_line for ends in positions if ends.least_mm > least - 1e-9)
    return [least, *lengths] if straight else lengths


class _Search:
    """Shapes at every position over lengths, kept so that others start from them."""

    def __init__(self, positions: Sequence[HoseEnds], radius_mm: float) -> None:
        self.positions = tuple(positions)
        self.radius_mm = radius_mm
        self.flat = all(ends.flat for ends in positions)
        self.rests: dict[float, Settled] = {}
        self.radii: dict[float, Array] = {}
        self.reaches: dict[float, Array] = {}

    def look(self, lengths: Sequence[float]) -> None:
        """Find the shapes at every position for each of `lengths`, which are in order."""
        places = _spread(len(self.positions), _PLACES_APART)
        anchors = [lengths[k] for k in _spread(len(lengths), _APART)]
        held, _ = self._held([(mm, k) for mm in anchors for k in places])
        found = lowest(guesses(held, COARSE, flat=self.flat), held, at_rest=_ROUGHLY)
        self._follow(lengths, anchors, places, found)

    def look_closer(self) -> None:
        """Look between lengths where a narrow window may lie."""
        over = self.told()
        between = [
            low.length_mm + share * (high.length_mm - low.length_mm)
            for before, here, behind in zip(over, over[1:], over[2:], strict=False)
            if before.radius_mm <= here.radius_mm >= behind.radius_mm
            and _NEARLY * self.radius_mm < here.radius_mm < self.radius_mm
            for low, high in ((before, here), (here, behind))
            for share in (0.2, 0.4, 0.6, 0.8)
        ]
        for mm in dict.fromkeys(between):
            near = min(self.rests, key=lambda known: abs(known - mm))
            held, _ = self._held([(mm, k) for k in range(len(self.positions))])
            rest = self.rests[near]
            self._keep(
                [mm], lowest(rest.tangents[:, None], held, rest.force[:, None], safe=2, at_rest=_ROUGHLY)
            )

    def told(self) -> tuple[AtLength, ...]:
        """The tightest radius and the greatest reach at every length, in order."""
        return tuple(
            AtLength(
                length_mm=mm,
                radius_mm=float(self.radii[mm].min()),
                reach_mm=float(self.reaches[mm].max()),
            )
            for mm in sorted(self.rests)
        )

    def edge(self, low: float, high: float) -> AtLength:
        """Where the tightest radius over all positions crosses the one asked for."""
        bound = _GOVERN * max(self.radii[low].min(), self.radii[high].min())
        governs = np.flatnonzero((self.radii[low] <= bound) | (self.radii[high] <= bound))
        starts = [self.rests[mm].take(governs) for mm in (low, high)]
        reach = max(self.reaches[low].max(), self.reaches[high].max())
        before, behind = (self._at(mm, governs, starts, float(reach)) for mm in (low, high))
        for k in range(_MOST_STEPS):
            wide = behind.length_mm - before.length_mm
            if wide < _EDGE_MM or self._keeps(before) == self._keeps(behind):
                break
            share = (self.radius_mm - before.radius_mm) / (behind.radius_mm - before.radius_mm)
            share = 0.5 if k % 3 == 2 else min(max(share, 0.05), 0.95)
            here = self._at(before.length_mm + share * wide, governs, starts, float(reach))
            if self._keeps(here) == self._keeps(before):
                before = here
            else:
                behind = here
        return before if before.radius_mm >= behind.radius_mm else behind

    def _keeps(self, at: AtLength) -> bool:
        return at.radius_mm >= self.radius_mm

    def _at(self, mm: float, which: NDArray[np.intp], starts: Sequence[Settled], reach: float) -> AtLength:
        """One length at some positions, from where it lay at others."""
        held, free = self._held([(mm, int(k)) for k in which])
        each = [refined(start, held, FINEST) for start in starts]
        energy = np.stack([np.where(rest.found, rest.energy, np.inf) for rest in each])
        best = energy.argmin(axis=0)
        radii = np.stack([_radii(rest, held, free) for rest in each])[best, np.arange(len(best))]
        if len(self.positions) == 1:
            reach = reach_mm(self.positions[0], _points(self.positions[0], each[best[0]], free)[0])
        return AtLength(length_mm=mm, radius_mm=float(radii.min()), reach_mm=reach)

    def _follow(
        self, lengths: Sequence[float], anchors: Sequence[float], places: Sequence[int], found: Settled
    ) -> None:
        """From the shapes at `anchors` and `places` to all of them: each starts from the two lengths
        beside it at the nearest place."""
        count = len(self.positions)
        nearest = np.abs(np.arange(count)[:, None] - np.array(places)[None, :]).argmin(axis=1)
        starts: list[NDArray[np.intp]] = []
        for mm in lengths:
            above = min(int(np.searchsorted(anchors, mm)), len(anchors) - 1)
            below = max(above - 1, 0)
            starts.append(np.stack([below * len(places) + nearest, above * len(places) + nearest], axis=1))
        which = np.concatenate(starts)
        held, _ = self._held([(mm, k) for mm in lengths for k in range(count)])
        rest = lowest(found.tangents[which], held, found.force[which], safe=3, at_rest=_ROUGHLY)
        self._keep(lengths, self._settled_down(rest, held, len(lengths)))

    def _settled_down(self, rest: Settled, held: Held, rows: int) -> Settled:
        """Where a hose lies otherwise than its neighbour at the next position or length, let it try to
        lie like that one: the place where it changes over lies between two that were looked for from
        nothing."""
        count = len(self.positions)
        for _ in range(_PLACES_APART):
            grid = rest.tangents.reshape(rows, count, -1, 3)
            pairs: list[tuple[int, int]] = []
            for axis, step in ((0, count), (1, 1)):
                apart = np.abs(np.diff(grid, axis=axis)).mean(axis=(2, 3))
                row, place = np.nonzero(apart > _OTHERWISE)
                first = row * count + place
                pairs += [*zip(first, first + step, strict=True), *zip(first + step, first, strict=True)]
            if not pairs:
                break
            which, others = (np.array(side) for side in zip(*pairs, strict=True))
            tried = settle(
                rest.tangents[others], held.take(which), rest.force[others], safe=3, at_rest=_ROUGHLY
            )
            better = tried.found & (tried.energy < rest.energy[which] * (1 - _LOWER))
            if not better.any():
                break
            order = np.argsort(-tried.energy, kind="stable")  # of two that are better the lower is kept
            order = order[better[order]]
            rest = rest.with_others(which[order], tried.take(order))
        return rest

    def _keep(self, lengths: Sequence[float], rest: Settled) -> None:
        count = len(self.positions)
        held, free = self._held([(mm, k) for mm in lengths for k in range(count)])
        radii = _radii(rest, held, free)
        doubtful = np.flatnonzero(rest.found & (np.abs(radii / self.radius_mm - 1.0) < _DOUBTFUL))
        if len(doubtful):
            pairs = [(lengths[k // count], k % count) for k in doubtful.tolist()]
            near, some = self._held(pairs)
            radii[doubtful] = _radii(refined(rest.take(doubtful), near, FINE), near, some)
        for k, mm in enumerate(lengths):
            here = np.arange(k * count, (k + 1) * count)
            self.rests[mm] = rest.take(here)
            self.radii[mm] = radii[here]
            self.reaches[mm] = np.array(
                [
                    reach_mm(ends, points)
                    for ends, points in zip(
                        self.positions, self._inner(rest.take(here), free[here]), strict=True
                    )
                ]
            )

    def _inner(self, rest: Settled, free: Array) -> Array:
        first = np.array([ends.inner[0] for ends in self.positions])
        return np.asarray(points_of(rest) * free[:, None, None] + first[:, None])

    def _held(self, pairs: Sequence[tuple[float, int]]) -> tuple[Held, Array]:
        return held_ends([self.positions[k] for _, k in pairs], [mm for mm, _ in pairs])


def _radii(rest: Settled, held: Held, free: Array) -> Array:
    """The tightest radius of every hose, 0 where it did not come to rest."""
    curvature = curvature_of(rest, held).max(axis=1) / free
    return np.where(rest.found, 1 / np.maximum(curvature, 1e-9), 0.0)


def _points(ends: HoseEnds, rest: Settled, free: Array) -> Array:
    return np.asarray(points_of(rest) * free[:, None, None] + np.array(ends.inner[0]))


def _spread(count: int, apart: int) -> list[int]:
    """Every so-many-th of a row, the last one included."""
    return sorted({*range(0, count, apart), count - 1})
