"""How far the result may be off, given how well a tape and a gauge can be read.

Each reading is off by at most its reading error, evenly within it, so its standard deviation is
that error over √3 (JCGM 100:2008, 4.3.7); they are carried to the result by their derivatives
(JCGM 100:2008, 5.1.2). Stated for 95 % of cases.
"""

from __future__ import annotations

from itertools import pairwise
from math import acos, degrees, radians, sqrt
from typing import Any

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import BendList, ShapeError
from bendrel.core.geometry.centreline import end_frame, pieces
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector, cross, dot, length, subtract, unit
from bendrel.core.measure.legs import ReadBends, setback_mm, shape_of
from bendrel.core.measure.slots import Slot, slots
from bendrel.core.record import record

Array = NDArray[np.float64]

# Half-width of 95 %, in standard deviations, of a sum of even errors, by its excess kurtosis: one
# error alone, one and a third of its size, two equal ones, and many (normal). Worked from the
# rectangle, the trapezium and the triangle that they add up to.
_KURTOSIS = (-1.2, -1.018, -0.6, 0.0)
_HALF_95 = (1.6454, 1.750, 1.9018, 1.95996)


@record
class ReadingErrors:
    """The most that one reading is off: a length in mm, an angle or plane in degrees, each length that says
    where end B stands; `gross_mm` and `gross_deg` how far people misread a length and a bend's angle at their
    worst, `radius_share` what the radius of an old bend is off, in one standard deviation."""

    length_mm: float
    angle_deg: float
    gross_mm: float
    gross_deg: float
    place_mm: float
    radius_share: float

    def sigma(self, slot: Slot) -> float:
        """Standard deviation of one reading, in mm or degrees."""
        return (self.length_mm if slot.kind == "length" else self.angle_deg) / sqrt(3)


@record
class Doubt:
    """What 95 of 100 results lie within: the developed length, end B's place, the distance from rim
    to rim (mm), and the way into port B (degrees)."""

    developed_mm: float
    end_b_mm: float
    tape_mm: float
    way_b_deg: float


@record
class Spread:
    """Derivatives of the outcome by each reading (columns, as `slots` gives them): developed
    length (1 row), end B's place, the way into B and the way out of A (3 rows each), per mm or degree."""

    developed: Array
    point: Array
    way: Array
    way_a: Array
    tape: Array
    sigmas: Array


def spread_of(read: ReadBends | Corners, errors: ReadingErrors) -> Spread:
    """How every reading moves the outcome. Raises ShapeError where `read` is no shape."""
    found = list(slots(read))
    sigmas = np.array([errors.sigma(slot) for slot in found])
    if isinstance(read, Corners):
        return _spread_of_corners(read, sigmas)
    shape = shape_of(read)
    straights, angles, turns = _by_readings(read, shape, found)
    developed, point, way, tape = _by_geometry(shape, straights, angles, turns)
    return Spread(
        developed=developed, point=point, way=way, way_a=np.zeros_like(way), tape=tape, sigmas=sigmas
    )


def doubt_of(spread: Spread, loadings: Array | None = None) -> Doubt:
    """The 95 % figures of a spread. `loadings` is how every independent error, of standard deviation 1, moves
    each reading (a row a reading, mm or degrees); where nothing is adjusted each has its own alone."""
    of = np.diag(spread.sigmas) if loadings is None else loadings
    return Doubt(
        developed_mm=_half_95((spread.developed @ of) ** 2),
        end_b_mm=_radius_95(spread.point @ of),
        tape_mm=_half_95((spread.tape @ of) ** 2),
        way_b_deg=degrees(_radius_95(spread.way @ of)),
    )


def _half_95(variances: Array) -> float:
    """Half-width that holds 95 % of a sum of even errors with these variances."""
    total = float(np.sum(variances))
    if total <= 0:
        return 0.0
    kurtosis = EVEN * float(np.sum(variances**2)) / total**2
    return float(np.interp(kurtosis, _KURTOSIS, _HALF_95)) * sqrt(total)


EVEN = -1.2
"""Excess kurtosis of an even error."""


def _radius_95(loadings: Array) -> float:
    """Radius that holds 95 % of a cloud of even errors, of which each moves it along one column:
    Satterthwaite's scaled χ² of the square of the distance, its quantile by Wilson and Hilferty."""
    covariance = loadings @ loadings.T
    total = float(np.trace(covariance))
    if total <= 0:
        return 0.0
    variance = 2 * float(np.sum(covariance**2)) + EVEN * float(np.sum(np.sum(loadings**2, axis=0) ** 2))
    freedom = 2 * total**2 / max(variance, 1e-3 * total**2)
    cube = 1 - 2 / (9 * freedom) + 1.644854 * sqrt(2 / (9 * freedom))
    return sqrt(total * cube**3)


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


def _by_geometry(
    shape: BendList, straights: Array, angles: Array, turns: Array
) -> tuple[Array, Array, Array, Array]:
    """Carry derivatives on to the outcome: a straight shifts what follows along itself, a rotation
    turns it about the straight, an angle turns it about the bend's own axis."""
    last = end_frame(shape)
    ways, shifts, swings, ways_shift, ways_swing = [], [], [], [], []
    for piece in pieces(shape):
        start = piece.start
        if piece.radius_mm is None:
            ways.append(start.way)
            continue
        centre = _along(start.point, cross(start.normal, start.way), piece.radius_mm)
        shifts.append(cross(start.way, subtract(last.point, start.point)))
        swings.append(cross(start.normal, subtract(last.point, centre)))
        ways_shift.append(cross(start.way, last.way))
        ways_swing.append(cross(start.normal, last.way))
    point = np.array(ways).T @ straights
    way = np.zeros_like(point)
    developed = straights.sum(axis=0)
    if shape.bends:
        point += np.array(shifts).T @ turns + np.array(swings).T @ angles
        way += np.array(ways_shift).T @ turns + np.array(ways_swing).T @ angles
        developed = developed + np.array([bend.radius_mm for bend in shape.bends]) @ angles
    reach = length(last.point)
    tape = (np.array(last.point) / reach) @ point if reach > 1e-9 else np.zeros(straights.shape[1])
    return developed, point, way, tape


def _along(point: Vector, way: Vector, by: float) -> Vector:
    return (point[0] + by * way[0], point[1] + by * way[1], point[2] + by * way[2])


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
    return Spread(developed=developed, point=point, way=way, way_a=way_a, tape=tape, sigmas=sigmas)


def _developed(points: list[list[float]], radii: tuple[float, ...]) -> float:
    """Developed length of a few corners: legs less, at each corner, what the arc cuts off."""
    legs = [subtract((b[0], b[1], b[2]), (a[0], a[1], a[2])) for a, b in pairwise(points)]
    total = sum(length(leg) for leg in legs)
    for (before, after), radius in zip(pairwise(legs), radii, strict=True):
        angle = acos(max(-1.0, min(1.0, dot(unit(before), unit(after)))))
        total += radius * angle - 2 * radius * float(np.tan(angle / 2))
    return total
