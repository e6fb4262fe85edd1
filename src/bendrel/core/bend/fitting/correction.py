"""When a bend came out otherwise: what can still be changed so that end B meets its port."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from bendrel.core.bend.fitting.landing import Landing, landing_of
from bendrel.core.bend.told.laid import Laid, shape_from
from bendrel.core.bend.told.many import Many, one, place
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import Frame, bend_middles, end_frame
from bendrel.core.geometry.vectors import cross, rotated
from bendrel.core.measure.landing import rolled
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]


@record
class Freedom:
    """What may still be changed, and how far: the least straights that tool and ends need (`least_mm`,
    one for each straight from end A), the greatest angle, the end that is trimmed at the last, how much
    longer and shorter it may become, the most that a place, an angle, a clock and the roll at end A
    may change, and how near end B must come to meet its port."""

    least_mm: tuple[float, ...]
    greatest_deg: float
    trimmed: EndName
    spare_mm: float
    shorter_mm: float
    place_mm: float
    angle_deg: float
    clock_deg: float
    roll_deg: float
    meets_mm: float
    meets_deg: float


MANY = 12
"""Bends left; more of them are many."""
NUDGE = 1.5e-8
"""A variable is changed by so much of its size to see what follows: the root of what a float tells apart."""
ROUTE_MM = 5.0
"""The route moved by so much weighs like a hundredth of that missed at end B."""
BESIDE = 3.0
"""What a miss weighs where nothing meets."""
INSIDE, NEARER, NEARER_OF_MORE = 0.8, 4.0, 15.0
"""What is re-planned ends within this share of the zone in which end B meets, and nearer where the route
hardly moves for it: a miss as large as the zone weighs like so many times `ROUTE_MM`; with more than one
bend left nearer still, because they can do it without a detour."""


@record
class Correction:
    """The part as it will be: what is made stays, the rest is as corrected. `meets` says that end B then
    is as near to its port as the freedom asks, `roll_deg` how the finished part is rolled about end A's axis,
    `longer_mm` how much longer than planned the trimmed end becomes."""

    shape: BendList
    roll_deg: float
    longer_mm: float
    left: Landing
    meets: bool


def correct(
    as_built: Laid, planned: BendList, made: Collection[int], freedom: Freedom, *, tries: int = 8
) -> Correction:
    """Change what is not in `made` (bends by number from 0) by as little as brings end B home.

    `as_built` has the made bends as they came out and the others as planned. A bend that is not made
    may change its place, its angle and its clock; one end may be trimmed, and the part may be rolled
    about end A. Where roll and trim alone bring it within what the freedom calls meeting, nothing else is
    changed. Least squares with bounds: what is missed beyond most of that weighs a hundred times what the
    route moves, so that the route that moves least wins among those that meet. Where the first solution does
    not meet, `tries` other starts are taken before it is called impossible (with many bends left, which
    have a way out if there is one, fewer); the route is then not moved far for what is left of the miss.
    Source: derived.
    """
    rolled_only = _Problem(as_built, planned, frozenset(range(len(as_built.starts_mm))), freedom, inside=0.0)
    best = rolled_only.solve(0)
    problem = _Problem(as_built, planned, frozenset(made), freedom, inside=INSIDE)
    if best.meets or not problem.free:
        return best
    best = problem.solve(0)
    for seed in range(1, (tries if len(problem.free) <= MANY else min(tries, 2)) + 1):
        if best.meets:
            break
        best = min(best, problem.solve(seed), key=_rank)
    if not best.meets:
        problem.weighs = BESIDE
        best = problem.solve(0)
    return best


def _rank(found: Correction) -> tuple[bool, float]:
    return not found.meets, found.left.off_mm + found.left.askew_deg


class _Problem:
    """The variables, in this order: place, angle and clock of every free bend, the trim, the roll."""

    def __init__(
        self, laid: Laid, planned: BendList, made: frozenset[int], freedom: Freedom, inside: float
    ) -> None:
        import numpy as np

        self.laid, self.freedom, self.planned, self.inside = laid, freedom, planned, inside
        self.weighs = 100.0
        self.route = bend_middles(planned)
        self.free = [k for k in range(len(laid.starts_mm)) if k not in made]
        self.goal = end_frame(planned)
        self.across = (self.goal.normal, cross(self.goal.way, self.goal.normal))
        scale: list[float] = []
        low: list[float] = []
        high: list[float] = []
        for k in self.free:
            angle = laid.angles_deg[k]
            scale += [5.0, 2.0, 4.0]
            low += [-freedom.place_mm, -min(freedom.angle_deg, angle - 1.0), -freedom.clock_deg]
            more = min(freedom.angle_deg, freedom.greatest_deg - angle)
            high += [freedom.place_mm, max(more, 0.0), freedom.clock_deg]
        scale += [5.0, 3.0]
        low += [-max(freedom.shorter_mm, 1e-6), -freedom.roll_deg]
        high += [max(freedom.spare_mm, 1e-6), freedom.roll_deg]
        self.scale, self.low, self.high = np.array(scale), np.array(low), np.array(high)

    def shape(self, values: Sequence[float]) -> BendList:
        """The part with the variables changed by `values`."""
        starts, angles = list(self.laid.starts_mm), list(self.laid.angles_deg)
        clocks = list(self.laid.clocks_deg)
        for i, k in enumerate(self.free):
            starts[k] += values[3 * i]
            angles[k] += values[3 * i + 1]
            clocks[k] += values[3 * i + 2]
        longer = values[-2]
        at_a = self.freedom.trimmed == "A"
        laid = replace(
            self.laid,
            starts_mm=tuple(starts),
            angles_deg=tuple(angles),
            clocks_deg=tuple(clocks),
            length_mm=self.laid.length_mm + (0.0 if at_a else longer),
        )
        return shape_from(laid, -longer if at_a else 0.0)

    def residuals(self, values: Array) -> Array:
        """The misses of one part: see `misses`."""
        return self.misses(values.reshape(-1, 1))[:, 0]

    def slopes(self, values: Array) -> Array:
        """How every miss changes with every variable: all parts that differ in one of them, at once."""
        import numpy as np

        step = NUDGE * np.maximum(1.0, np.abs(values))
        step = np.where(values + step > self.high, -step, step)
        nudged = self.misses(values.reshape(-1, 1) + np.diag(step))
        return (nudged - self.misses(values.reshape(-1, 1))) / step

    def misses(self, values: Array) -> Array:
        """Of parts in columns: misses at end B beyond what is inside, and of the least straights, a
        hundredfold; how far the bends leave the planned route; and a little for every change, so that there
        is one answer."""
        import numpy as np

        parts = values.shape[1]
        many, cut = self._parts(values)
        length = self.laid.length_mm - cut
        if self.freedom.trimmed != "A":
            length = length + values[-2]
        ends = place(many, length)
        roll = values[-1]
        miss_mm = rolled(ends.point, roll) - np.array(self.goal.point)[:, None]
        way = rolled(ends.way, roll)
        across = np.array(self.across) @ way
        miss_deg = np.degrees(np.arcsin(np.clip(across, -1.0, 1.0)))
        far_mm = _beyond(miss_mm, self.inside * self.freedom.meets_mm)
        far_deg = _beyond(miss_deg, self.inside * self.freedom.meets_deg)
        # a part that points the other way has no sideways miss either
        back = np.maximum(0.0, -(np.array(self.goal.way) @ way))
        least = np.minimum(self.freedom.least_mm, self.planned.straights_mm)[:, None]
        short = np.maximum(0.0, least - _straights(many, length, parts))
        small = values / self.scale[:, None]
        hard = self.weighs * np.concatenate([far_mm, far_deg, 100.0 * back[None, :], short])
        if not self.free:
            return np.concatenate([hard, 0.01 * small])
        c, s = np.cos(np.radians(roll)), np.sin(np.radians(roll))
        x, y, z = ends.middles[:, 0], ends.middles[:, 1], ends.middles[:, 2]
        turned = np.stack([x, y * c - z * s, y * s + z * c], axis=1)
        moved = (turned - np.array(self.route)[:, :, None]).reshape(-1, parts) / ROUTE_MM
        nearer = NEARER if len(self.free) == 1 else NEARER_OF_MORE
        near = nearer * np.concatenate([miss_mm / self.freedom.meets_mm, miss_deg / self.freedom.meets_deg])
        return np.concatenate([hard, near, moved, 0.1 * small])

    def _parts(self, values: Array) -> tuple[Many, Array | float]:
        """The parts of `values` along their tubes, and what is cut off each at end A."""
        import numpy as np

        base, count = one(self.laid), values.shape[1]
        starts, angles = np.repeat(base.starts, count, axis=1), np.repeat(base.angles, count, axis=1)
        clocks = np.repeat(base.clocks, count, axis=1)
        for i, k in enumerate(self.free):
            starts[k] += values[3 * i]
            angles[k] += values[3 * i + 1]
            clocks[k] += values[3 * i + 2]
        clocks = clocks - clocks[:1]  # the first bend is where the clock is read from
        cut = -values[-2] if self.freedom.trimmed == "A" else 0.0
        radii = np.array(self.laid.radii_mm, dtype=float)[:, None]
        return Many(starts=starts - cut, angles=angles, clocks=clocks, arcs=np.radians(angles) * radii), cut

    def solve(self, seed: int) -> Correction:
        """The best from one start: the plan as it is, or for a seed somewhere else."""
        import numpy as np
        from scipy.optimize import least_squares

        start = np.zeros(len(self.scale))
        if seed:
            start = np.random.default_rng(seed).normal(0, 2.5, len(start)) * self.scale
        inside = 1e-9 + 1e-9 * np.abs(self.high)
        start = np.clip(start, self.low + inside, self.high - inside)
        found = least_squares(
            self.residuals,
            start,
            jac=self.slopes,
            bounds=(self.low, self.high),
            x_scale=self.scale,
            max_nfev=40,
        )
        told = [float(v) for v in found.x]
        shape = self.shape(told)
        left = landing_of(_rolled(end_frame(shape), told[-1]), self.goal)
        short = any(
            straight < min(least, was) - 0.1
            for least, was, straight in zip(
                self.freedom.least_mm, self.planned.straights_mm, shape.straights_mm, strict=True
            )
        )
        near = left.off_mm <= self.freedom.meets_mm and left.askew_deg <= self.freedom.meets_deg
        meets = near and not short
        return Correction(shape=shape, roll_deg=told[-1], longer_mm=told[-2], left=left, meets=meets)


def _beyond(miss: Array, zone: float) -> Array:
    """What of each miss lies beyond the zone, in its own direction."""
    import numpy as np

    size = np.linalg.norm(miss, axis=0)
    beyond: Array = miss * (np.maximum(0.0, size - zone) / np.maximum(size, 1e-12))
    return beyond


def _straights(many: Many, length: Array | float, parts: int) -> Array:
    """Every straight of parts in columns, from end A's rim to end B's."""
    import numpy as np

    begins = np.concatenate([np.zeros((1, parts)), many.starts + many.arcs])
    ends = np.concatenate([many.starts, np.broadcast_to(length, (1, parts))])
    straights: Array = ends - begins
    return straights


def _rolled(frame: Frame, degrees: float) -> Frame:
    axis = (1.0, 0.0, 0.0)
    return Frame(
        point=rotated(frame.point, axis, degrees),
        way=rotated(frame.way, axis, degrees),
        normal=rotated(frame.normal, axis, degrees),
    )
