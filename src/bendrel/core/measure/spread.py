"""How every reading moves what the line comes out as."""

from __future__ import annotations

from itertools import pairwise
from math import acos, radians
from typing import Any

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import BendList, ShapeError
from bendrel.core.geometry.centreline import end_frame, pieces
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector, along, cross, dot, length, subtract, unit
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.legs import ReadBends, setback_mm, shape_of
from bendrel.core.measure.slots import Slot, slots
from bendrel.core.record import record

Array = NDArray[np.float64]


@record
class Motion:
    """How every reading moves every place of a tube. `straights` (mm), `angles` and `turns` (radians) are the
    derivatives of the bend list by every reading, a row a bend; `starts`, `ways` and `axes` the places where
    bends begin, the way there and the bend's axis, `centres` the middles of their arcs, one row a bend."""

    straights: Array
    angles: Array
    turns: Array
    starts: Array
    ways: Array
    axes: Array
    centres: Array

    def point(self, place: Vector, bends: int, own: Vector | None = None) -> Array:
        """The derivative (3 rows, mm) of a `place` that stands fast to the straight before bend `bends` (0 is
        the first; their count means end B). `own` is by how much that bend's own angle moves it, a radian.

        Source: a straight shifts what follows along itself, a rotation turns it about the straight, an angle
        about the bend's own axis.
        """
        on = min(bends + 1, len(self.turns))
        moved: Array = self.ways[: bends + 1].T @ self.straights[: bends + 1]
        at = np.array(place)
        moved = moved + _crossed(self.ways[:on], at - self.starts[:on]).T @ self.turns[:on]
        moved = moved + _crossed(self.axes[:bends], at - self.centres[:bends]).T @ self.angles[:bends]
        return moved if own is None else moved + np.outer(own, self.angles[bends])

    def way(self, way: Vector) -> Array:
        """The derivative (3 rows) of the way into end B."""
        moved: Array = (
            _crossed(self.ways[:-1], np.array([way])).T @ self.turns
            + _crossed(self.axes, np.array([way])).T @ self.angles
        )
        return moved


def _crossed(a: Array, b: Array) -> Array:
    """Vector products row by row, written out: a tape asks for them at every bend."""
    ax, ay, az = a.T
    bx, by, bz = b.T
    return np.array([ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx]).T


@record
class Spread:
    """Derivatives of the outcome by each reading (columns, as `slots` gives them): developed
    length (1 row), end B's place, the way into B and the way out of A (3 rows each), per mm or degree.
    `roll` is how end B's place (3) and way (3) move as the part is rolled about end A, a radian. `motion` is
    None for corner points, which stand by themselves."""

    developed: Array
    point: Array
    way: Array
    way_a: Array
    tape: Array
    sigmas: Array
    roll: Array
    motion: Motion | None = None


def spread_of(read: ReadBends | Corners, errors: ReadingErrors) -> Spread:
    """How every reading moves the outcome. Raises ShapeError where `read` is no shape."""
    found = list(slots(read))
    sigmas = np.array([errors.sigma(slot) for slot in found])
    if isinstance(read, Corners):
        return _spread_of_corners(read, sigmas)
    shape = shape_of(read)
    motion = _motion(shape, *_by_readings(read, shape, found))
    last = end_frame(shape)
    point = motion.point(last.point, len(shape.bends))
    radii = np.array([bend.radius_mm for bend in shape.bends])
    reach = length(last.point)
    return Spread(
        developed=motion.straights.sum(axis=0) + radii @ motion.angles,
        point=point,
        way=motion.way(last.way),
        way_a=np.zeros_like(point),
        tape=(np.array(last.point) / reach) @ point if reach > 1e-9 else np.zeros(len(found)),
        sigmas=sigmas,
        roll=_rolling((1.0, 0.0, 0.0), last.point, last.way),
        motion=motion,
    )


def _rolling(axis: Vector, point: Vector, way: Vector) -> Array:
    return np.array([*cross(axis, point), *cross(axis, way)])


def _motion(shape: BendList, straights: Array, angles: Array, turns: Array) -> Motion:
    starts, ways, axes, centres = [], [], [], []
    for piece in pieces(shape):
        start = piece.start
        if piece.radius_mm is None:
            ways.append(start.way)
            continue
        starts.append(start.point)
        axes.append(start.normal)
        centres.append(along(start.point, cross(start.normal, start.way), piece.radius_mm))
    places = [np.array(found, dtype=float).reshape(-1, 3) for found in (starts, ways, axes, centres)]
    return Motion(
        straights=straights,
        angles=angles,
        turns=turns,
        starts=places[0],
        ways=places[1],
        axes=places[2],
        centres=places[3],
    )


def _by_readings(read: ReadBends, shape: BendList, found: list[Slot]) -> tuple[Array, Array, Array]:
    """Derivatives of straights (mm), bend angles and rotations (radians) by every reading."""
    index = {(slot.row, slot.field): k for k, slot in enumerate(found)}
    count, size = len(read.bends), len(found)
    straights, angles, turns = np.zeros((count + 1, size)), np.zeros((count, size)), np.zeros((count, size))
    reached, clock = np.zeros(size), np.zeros(size)
    for k, row in enumerate(read.bends):
        at = index[k, "length"]
        if row.angle_deg is not None:
            angles[k, index[k, "angle"]] = radians(1)
        else:
            angles[k, index[k, "to"]] = 1 / row.radius_mm
            angles[k, at] = -1 / row.radius_mm
        straights[k, at] = 1
        if row.by == "wire":
            half = row.radius_mm / 2 if row.read_to == "centre" else 0.0
            straights[k] -= half * angles[k] + reached
        elif row.by == "string" and k:
            straights[k] -= read.bends[k - 1].radius_mm * angles[k - 1]
        elif row.by == "leg":
            straights[k] -= _slope(row.read_to, shape, k, read.od_mm) * angles[k]
            if k:
                straights[k] -= _slope(row.read_from, shape, k - 1, read.od_mm) * angles[k - 1]
        if k:
            turns[k, index[k, "plane"]] = radians(1)
            if row.clock_deg is not None:
                turns[k] -= clock
        clock = clock + turns[k]
        reached = reached + straights[k] + row.radius_mm * angles[k]
    straights[count, index[count, "last"]] = 1
    if read.last_by == "wire":
        straights[count] -= reached
    elif count and read.last_by == "string":
        straights[count] -= read.bends[-1].radius_mm * angles[-1]
    elif count:
        straights[count] -= _slope(read.last_read_from, shape, count - 1, read.od_mm) * angles[-1]
    return straights, angles, turns


def _slope(reference: Any, shape: BendList, k: int, od_mm: float) -> float:
    """Change of a setback with the bend's angle, in mm a radian."""
    bend, step = shape.bends[k], 1e-3
    try:
        more = setback_mm(reference, bend.angle_deg + step, bend.radius_mm, od_mm)
        less = setback_mm(reference, bend.angle_deg - step, bend.radius_mm, od_mm)
    except ShapeError:
        return 0.0
    return (more - less) / radians(2 * step)


def _spread_of_corners(read: Corners, sigmas: Array) -> Spread:
    """Corner points stand in the datum: only the two ends move the ends, and a corner's move
    changes the length of its two legs and the arcs at three corners."""
    points, count = read.points, len(read.points)
    developed = np.zeros(3 * count)
    step = 1e-4
    if any(length(subtract(b, a)) < 10 * step for a, b in pairwise(points)):
        raise ShapeError("Two corner points next to each other lie in one place.")
    for k in range(count):
        low, high = max(0, k - 2), min(count, k + 3)
        for axis in range(3):
            lengths = []
            for by in (step, -step):
                window = [list(p) for p in points[low:high]]
                window[k - low][axis] += by
                lengths.append(_developed(window, read.radii_mm[low : high - 2]))
            developed[3 * k + axis] = (lengths[0] - lengths[1]) / (2 * step)
    point, way = np.zeros((3, 3 * count)), np.zeros((3, 3 * count))
    point[:, :3], point[:, -3:] = -np.eye(3), np.eye(3)
    leg = subtract(points[-1], points[-2])
    ahead = np.array(unit(leg))
    across = (np.eye(3) - np.outer(ahead, ahead)) / length(leg)
    way[:, -3:], way[:, -6:-3] = across, -across
    first = subtract(points[1], points[0])
    out = np.array(unit(first))
    sideways = (np.eye(3) - np.outer(out, out)) / length(first)
    way_a = np.zeros_like(way)
    way_a[:, :3] -= sideways
    way_a[:, 3:6] += sideways
    ends = subtract(points[-1], points[0])
    tape = np.array(unit(ends)) @ point if length(ends) > 1e-9 else np.zeros(3 * count)
    return Spread(
        developed=developed,
        point=point,
        way=way,
        way_a=way_a,
        tape=tape,
        sigmas=sigmas,
        roll=_rolling(unit(first), ends, unit(leg)),
    )


def _developed(points: list[list[float]], radii: tuple[float, ...]) -> float:
    """Developed length of a few corners: legs less, at each corner, what the arc cuts off."""
    legs = [subtract((b[0], b[1], b[2]), (a[0], a[1], a[2])) for a, b in pairwise(points)]
    total = sum(length(leg) for leg in legs)
    for (before, after), radius in zip(pairwise(legs), radii, strict=True):
        angle = acos(max(-1.0, min(1.0, dot(unit(before), unit(after)))))
        total += radius * angle - 2 * radius * float(np.tan(angle / 2))
    return total
