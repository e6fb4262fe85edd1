"""How a hose lies between its two ends: its shape, its tightest place, how far it stands out, and the
lengths that keep a radius."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import numpy as np

from bendrel.core.hose.elastica import (
    Array,
    Held,
    Settled,
    curvature_of,
    guesses,
    lowest,
    points_of,
    refined,
    ways_out,
)
from bendrel.core.record import record
from bendrel.core.shape.vectors import Vector, along, cross, dot, length, subtract, unit

_COARSE, _FINE, _FINEST = 24, 64, 192
"""Pieces for finding the shape, for its radius over many lengths, and for what is shown: the radius comes
out to 2 %, 0.3 % and 0.03 %."""
_LENGTHS = 48
_FLAT = 1e-6
_EDGE_MM = 0.02
_MOST_HALVINGS = 24
_NEARLY = 0.8


class HoseError(ValueError):
    """A hose that cannot lie so; the text says what would do."""


@record
class HoseEnd:
    """One end of a hose: the point in mm where it leaves what holds it, and the unit way along the hose
    from its first to its second end."""

    point: Vector
    way: Vector


@record
class HoseEnds:
    """Both ends, and the stiff straight behind each in mm."""

    a: HoseEnd
    b: HoseEnd
    straight_mm: float = 0.0

    def __post_init__(self) -> None:
        if self.straight_mm < 0:
            raise HoseError(f"A stiff straight of {self.straight_mm:g} mm: 0 or more is accepted.")
        if length(subtract(self.a.point, self.b.point)) < 1e-6:
            raise HoseError("Both ends of the hose are at the same point; they must lie apart.")

    @property
    def distance_mm(self) -> float:
        """From end to end."""
        return length(subtract(self.b.point, self.a.point))

    @property
    def inner(self) -> tuple[Vector, Vector]:
        """Where the stiff straights end."""
        return (
            along(self.a.point, self.a.way, self.straight_mm),
            along(self.b.point, self.b.way, -self.straight_mm),
        )

    @property
    def least_mm(self) -> float:
        """No hose between these ends is shorter."""
        first, last = self.inner
        return length(subtract(last, first)) + 2 * self.straight_mm

    @property
    def in_line(self) -> bool:
        """A straight hose goes from one to the other."""
        first, last = self.inner
        gap = subtract(last, first)
        if length(gap) < 1e-9:
            return dot(self.a.way, self.b.way) > 1 - 1e-12
        way = unit(gap)
        return dot(way, self.a.way) > 1 - 1e-12 and dot(way, self.b.way) > 1 - 1e-12

    @property
    def flat(self) -> bool:
        """Both ways lie in one plane with the line between the ends."""
        first, last = self.inner
        gap = subtract(last, first)
        if length(gap) < 1e-9:
            return True
        return abs(dot(cross(self.a.way, self.b.way), unit(gap))) < _FLAT


@record
class HoseShape:
    """A hose as it lies. `radius_mm` is the tightest radius of its centreline, None where it is straight;
    `tightest_at_mm` where that is along the hose; `reach_mm` how far it stands out from the straight line
    between its ends. `points` run from end to end. `bows`
    says that it would bow sideways out of its plane if its ends could turn in their seats."""

    length_mm: float
    radius_mm: float | None
    tightest_at_mm: float
    reach_mm: float
    points: tuple[Vector, ...]
    bows: bool


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


@lru_cache(maxsize=256)
def hose_shape(ends: HoseEnds, length_mm: float) -> HoseShape:
    """The shape of a hose of `length_mm` (stiff straights included).

    Where both ends lie in one plane the hose does: its ends are held from turning. Else the shape of least
    energy is taken. Raises HoseError for a length that does not reach, or that would have to kink.
    """
    _reaches(ends, length_mm)
    if ends.in_line and length_mm <= ends.least_mm * (1 + 1e-9):
        return _straight(ends)
    held, free = _held((ends,), (length_mm,))
    rest = lowest(guesses(held, _COARSE, flat=ends.flat), held)
    rest = refined(rest, held, _FINEST)
    if not rest.found[0]:
        raise HoseError(
            f"A hose of {length_mm:.1f} mm would have to kink between these ends; it needs more length "
            f"than that."
        )
    curvature = curvature_of(rest)[0] / free[0]
    first, _ = ends.inner
    inner = np.array(first) + points_of(rest)[0] * free[0]
    tightest = int(curvature.argmax())
    points = [*map(_vector, inner)]
    if ends.straight_mm:
        points = [ends.a.point, *points, ends.b.point]
    return HoseShape(
        length_mm=length_mm,
        radius_mm=float(1 / curvature[tightest]) if curvature[tightest] > 1e-9 else None,
        tightest_at_mm=ends.straight_mm + tightest * free[0] / _FINEST,
        reach_mm=float(_reach(ends, inner)),
        points=tuple(points),
        bows=bool(ends.flat and ways_out(rest, held)[0] > 0),
    )


def hose_windows(ends: HoseEnds, radius_mm: float, longest_mm: float) -> Windows:
    """All lengths up to `longest_mm` at which a hose between these ends is nowhere tighter than
    `radius_mm`.

    Edges are good to 0.1 mm where the radius changes with the length. Raises HoseError for a radius of 0
    and a longest length that does not reach.
    """
    return windows_over((ends,), radius_mm, longest_mm)


def windows_over(positions: Sequence[HoseEnds], radius_mm: float, longest_mm: float) -> Windows:
    """The same for a hose whose ends move through `positions`: lengths that hold at every one; what is
    said of a length is the tightest radius and the greatest reach of all. Raises as `hose_windows` does."""
    if not radius_mm > 0:
        raise HoseError(f"A least radius of {radius_mm:g} mm: more than 0 is accepted.")
    least = max(ends.least_mm for ends in positions)
    if longest_mm <= least:
        raise HoseError(
            f"The greatest length looked at, {longest_mm:.1f} mm, does not reach from end to end: more "
            f"than "
            f"{least:.1f} mm is needed."
        )
    lengths = _lengths(positions, least, longest_mm)
    search = _Search(positions)
    radii, reaches = search.over(lengths)
    # the gentlest place of a narrow window may lie between two of the lengths
    worst = radii.min(axis=0)
    peaks = [
        k
        for k in range(1, len(lengths) - 1)
        if worst[k - 1] <= worst[k] >= worst[k + 1] and _NEARLY * radius_mm < worst[k] < radius_mm
    ]
    if peaks:
        between = [
            lengths[k] + share * (lengths[k + 1] - lengths[k])
            for peak in peaks
            for k in (peak - 1, peak)
            for share in (0.2, 0.4, 0.6, 0.8)
        ]
        more, further = search.over(between)
        order = np.argsort([*lengths, *between], kind="stable")
        lengths = [[*lengths, *between][k] for k in order]
        radii = np.concatenate([radii, more], axis=1)[:, order]
        reaches = np.concatenate([reaches, further], axis=1)[:, order]
        worst = radii.min(axis=0)
    keeps = worst >= radius_mm
    over = tuple(
        AtLength(length_mm=mm, radius_mm=float(r), reach_mm=float(out))
        for mm, r, out in zip(lengths, worst, reaches.max(axis=0), strict=True)
    )
    crossings = [k for k in range(len(lengths) - 1) if keeps[k] != keeps[k + 1]]
    edges = dict(
        zip(
            crossings, search.edges([(lengths[k], lengths[k + 1]) for k in crossings], radius_mm), strict=True
        )
    )
    windows: list[Window] = []
    opened: AtLength | None = over[0] if keeps[0] else None
    for k in range(len(lengths) - 1):
        if k not in edges:
            continue
        if opened is None:
            opened = edges[k]
        else:
            windows.append(Window(least=opened, most=edges[k]))
            opened = None
    if opened is not None:
        windows.append(Window(least=opened, most=over[-1]))
    return Windows(windows=tuple(windows), over=over)


def _lengths(positions: Sequence[HoseEnds], least: float, longest: float) -> list[float]:
    """Lengths to look at, close together at first: just over the shortest the radius changes fastest."""
    shares = (np.arange(_LENGTHS) + 1.0) / _LENGTHS
    lengths = [float(least + (longest - least) * share**2) for share in shares]
    straight = all(ends.in_line for ends in positions if ends.least_mm > least - 1e-9)
    return [least, *lengths] if straight else lengths


class _Search:
    """Shapes over lengths for a set of positions, kept so that an edge starts from its neighbours."""

    def __init__(self, positions: Sequence[HoseEnds]) -> None:
        self.positions = tuple(positions)
        self.flat = all(ends.flat for ends in positions)
        self.found: dict[float, Settled] = {}

    def over(self, lengths: Sequence[float]) -> tuple[Array, Array]:
        """Radius and reach, (positions, lengths)."""
        count = len(self.positions)
        everyone = [ends for _ in lengths for ends in self.positions]
        held, free = _held(everyone, [mm for mm in lengths for _ in range(count)])
        rest = refined(lowest(guesses(held, _COARSE, flat=self.flat), held), held, _FINE)
        for k, mm in enumerate(lengths):
            self.found[mm] = rest.take(np.arange(k * count, (k + 1) * count))
        radii, reaches = self._told(everyone, rest, free)
        return radii.reshape(len(lengths), count).T, reaches.reshape(len(lengths), count).T

    def edges(self, brackets: Sequence[tuple[float, float]], radius_mm: float) -> list[AtLength]:
        """Where the tightest radius over all positions crosses `radius_mm` in each bracket."""
        return [self._edge(low, high, radius_mm) for low, high in brackets]

    def _edge(self, low: float, high: float, radius_mm: float) -> AtLength:
        sides = [self._at(mm, [self.found[mm]]) for mm in (low, high)]
        starts = [rest for _, rest in sides]
        before, behind = (at for at, _ in sides)
        for k in range(_MOST_HALVINGS):
            wide = behind.length_mm - before.length_mm
            if wide < _EDGE_MM or (before.radius_mm >= radius_mm) == (behind.radius_mm >= radius_mm):
                break
            share = (radius_mm - before.radius_mm) / (behind.radius_mm - before.radius_mm)
            share = 0.5 if k % 3 == 2 else min(max(share, 0.05), 0.95)
            here, _ = self._at(before.length_mm + share * wide, starts)
            if (here.radius_mm >= radius_mm) == (before.radius_mm >= radius_mm):
                before = here
            else:
                behind = here
        return before if before.radius_mm >= behind.radius_mm else behind

    def _at(self, mm: float, starts: Sequence[Settled]) -> tuple[AtLength, Settled]:
        """One length at every position, from where it lay at others."""
        held, free = _held(self.positions, [mm] * len(self.positions))
        each = [refined(start, held, _FINEST) for start in starts]
        energy = np.stack([np.where(rest.found, rest.energy, np.inf) for rest in each])
        best = energy.argmin(axis=0)
        rest = Settled(
            tangents=np.stack([one.tangents for one in each])[best, np.arange(len(best))],
            force=np.stack([one.force for one in each])[best, np.arange(len(best))],
            energy=energy.min(axis=0),
            found=np.isfinite(energy.min(axis=0)),
        )
        radii, reaches = self._told(self.positions, rest, free)
        return AtLength(length_mm=mm, radius_mm=float(radii.min()), reach_mm=float(reaches.max())), rest

    def _told(self, everyone: Sequence[HoseEnds], rest: Settled, free: Array) -> tuple[Array, Array]:
        """Radius (0 where no rest was found) and reach of every hose."""
        curvature = curvature_of(rest).max(axis=1) / free
        radii = np.where(rest.found, 1 / np.maximum(curvature, 1e-9), 0.0)
        inner = (
            points_of(rest) * free[:, None, None] + np.array([ends.inner[0] for ends in everyone])[:, None]
        )
        reaches = np.array([_reach(ends, points) for ends, points in zip(everyone, inner, strict=True)])
        return radii, reaches


def _held(everyone: Sequence[HoseEnds], lengths: Sequence[float]) -> tuple[Held, Array]:
    """The ends between the stiff straights, and the free lengths that they are measured in."""
    free = np.array(lengths) - 2 * np.array([ends.straight_mm for ends in everyone])
    inner = np.array([ends.inner for ends in everyone])
    closing = (inner[:, 1] - inner[:, 0]) / free[:, None]
    return (
        Held(
            closing=closing,
            way_a=np.array([ends.a.way for ends in everyone]),
            way_b=np.array([ends.b.way for ends in everyone]),
        ),
        free,
    )


def _reach(ends: HoseEnds, points: Array) -> float:
    start = np.array(ends.a.point)
    way = np.array(unit(subtract(ends.b.point, ends.a.point)))
    # the stiff straights end in points of the free hose, so that nothing of them stands out further
    off = points - start
    return float(np.linalg.norm(off - (off @ way)[:, None] * way, axis=1).max(initial=0.0))


def _reaches(ends: HoseEnds, length_mm: float) -> None:
    if length_mm < ends.distance_mm - 1e-6:
        raise HoseError(
            f"A hose of {length_mm:.1f} mm does not reach: its ends are {ends.distance_mm:.1f} mm apart."
        )
    if length_mm < ends.least_mm - 1e-6 or (not ends.in_line and length_mm <= ends.least_mm * (1 + 1e-9)):
        raise HoseError(
            f"A hose of {length_mm:.1f} mm is too short here: with its ends as they point it needs more "
            f"than "
            f"{ends.least_mm:.1f} mm."
        )


def _straight(ends: HoseEnds) -> HoseShape:
    gap = subtract(ends.b.point, ends.a.point)
    points = tuple(along(ends.a.point, gap, k / _FINEST) for k in range(_FINEST + 1))
    return HoseShape(
        length_mm=ends.least_mm,
        radius_mm=None,
        tightest_at_mm=0.0,
        reach_mm=0.0,
        points=points,
        bows=False,
    )


def _vector(row: Array) -> Vector:
    x, y, z = row.tolist()
    return (x, y, z)
