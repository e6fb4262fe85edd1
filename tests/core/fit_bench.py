"""A bench for finished parts that shares nothing with the program: a tube of rigid pieces that is bent by a
hidden tool, offered to its port, read, and tweaked by turning what lies beyond a pivot.

Frames: rim A at the origin along +x; a bend of clock 0 closes towards +y.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import minimize_scalar

R = 15.0


def about(axis, degrees):
    """Rotation matrix about any axis (Rodrigues)."""
    a = np.asarray(axis, float) / np.linalg.norm(axis)
    k = np.array([[0, -a[2], a[1]], [a[2], 0, -a[0]], [-a[1], a[0], 0]])
    t = np.radians(degrees)
    return np.eye(3) + np.sin(t) * k + (1 - np.cos(t)) * (k @ k)


@dataclass
class Plan:
    """Straights (bends + 1), rotations from the bend before, angles; mm and degrees."""

    straights: list[float]
    turns: list[float]
    angles: list[float]


@dataclass
class Hand:
    """One standard deviation of marks (mm), dial and turns (degrees)."""

    mark: float = 0.3
    dial: float = 0.3
    turn: float = 0.5


def some_plan(rng) -> Plan:
    """Two to eight bends of 3/16 in tube."""
    count = int(rng.integers(2, 9))
    return Plan(
        straights=[float(s) for s in rng.uniform(45, 180, count + 1)],
        turns=[0.0, *(float(t) for t in rng.uniform(-180, 180, count - 1))],
        angles=[float(a) for a in rng.uniform(20, 110, count)],
    )


class Tube:
    """A bent tube: the pivot and axis of every bend and straight, and end B. `made` gives for every bend
    where its arc starts, its length, its angle and its clock."""

    def __init__(self, made, length: float) -> None:
        here, way, normal = np.zeros(3), np.array([1.0, 0, 0]), np.array([0, 0, 1.0])
        at = clock = 0.0
        self.bends, self.straights = [], []
        for start, arc, angle, turned in made:
            self.straights.append([here, way])
            here = here + way * (start - at)
            normal = about(way, turned - clock) @ normal
            radius = arc / np.radians(angle)
            centre = here + np.cross(normal, way) * radius
            self.bends.append([centre + about(normal, angle / 2) @ (here - centre), normal])
            here = centre + about(normal, angle) @ (here - centre)
            way = about(normal, angle) @ way
            at, clock = start + arc, turned
        self.straights.append([here, way])
        self.end, self.way, self.normal, self.clock = here + way * (length - at), way, normal, clock

    def _pivot(self, kind, at):
        return (self.bends if kind == "bend" else self.straights)[at - 1]

    def lever(self, kind, at) -> float:
        """How far end B moves (mm) by one degree."""
        pivot, axis = self._pivot(kind, at)
        return float(np.linalg.norm(np.cross(axis, self.end - pivot)) * np.radians(1))

    def tweak(self, kind, at, degrees) -> None:
        """Bend further about the middle of an arc, or turn what is beyond a straight, clockwise from A."""
        pivot, axis = self._pivot(kind, at)
        turn = about(axis, degrees)
        later = at if kind == "bend" else at - 1
        for part in (*self.bends[later:], *self.straights[at:]):
            part[0] = pivot + turn @ (part[0] - pivot)
            part[1] = turn @ part[1]
        self.end = pivot + turn @ (self.end - pivot)
        self.way = turn @ self.way


def planned_tube(plan: Plan) -> Tube:
    """The part as planned."""
    made, at, clock = [], 0.0, 0.0
    for straight, turn, angle in zip(plan.straights, plan.turns, plan.angles, strict=False):
        at, clock = at + straight, clock + turn
        arc = R * np.radians(angle)
        made.append((at, arc, angle, clock))
        at += arc
    return Tube(made, at + plan.straights[-1])


def made_tube(plan: Plan, rng, hand: Hand, tool) -> Tube:
    """The part as a hand makes it, marked from end A, on a tool that is off by (radius, zero, spring-back's
    share, spring-back's degrees)."""
    radius, zero, share, fixed = tool
    made, at, told, clock = [], 0.0, 0.0, 0.0
    for k, (straight, turn, angle) in enumerate(zip(plan.straights, plan.turns, plan.angles, strict=False)):
        at += straight
        told += turn
        clock = told if k == 0 else clock + turn + rng.normal(0, hand.turn)
        pulled = angle + rng.normal(0, hand.dial)
        arc = (R + radius) * np.radians(pulled)
        made.append((at + zero + rng.normal(0, hand.mark), arc, pulled - share * angle - fixed, clock))
        at += R * np.radians(angle)
    return Tube(made, at + plan.straights[-1])


class Port:
    """Where end B of the plan is: its point, way, and the sides at clock 0 and 90."""

    def __init__(self, plan: Plan) -> None:
        part = planned_tube(plan)
        self.point, self.way = part.end, part.way
        inward = np.cross(part.normal, part.way)
        self.noon = about(part.way, -part.clock) @ inward
        self.three = np.cross(self.way, self.noon)

    def miss(self, tube: Tube) -> tuple[float, float, np.ndarray]:
        """(mm, degrees, roll) once the part is rolled about A and trimmed at B as suits best."""

        def left(roll):
            turn = about([1, 0, 0], roll)
            off, way = turn @ tube.end - self.point, turn @ tube.way
            off = off - way * np.clip(off @ way, -25, 60)
            lean = np.degrees(np.arctan2(np.linalg.norm(np.cross(way, self.way)), way @ self.way))
            return float(np.linalg.norm(off)), float(lean), turn

        def squared(roll):
            return float(np.hypot(*left(roll)[:2]) ** 2)

        best = minimize_scalar(squared, bounds=(-20, 20), method="bounded", options={"xatol": 1e-6})
        return left(best.x)

    def read(self, tube: Tube, roll, rng, mm: float, deg: float) -> dict[str, float]:
        """What is read of end B with the part rolled so and not trimmed."""
        off, way = roll @ tube.end - self.point, roll @ tube.way
        along = off @ self.way + rng.normal(0, mm)
        beside = np.array([off @ self.noon, off @ self.three]) + rng.normal(0, mm, 2)
        ahead = way @ self.way
        lean = np.degrees(np.arctan2([way @ self.noon, way @ self.three], ahead)) + rng.normal(0, deg, 2)
        return {
            "along_mm": float(along),
            "off_mm": float(np.hypot(*beside)),
            "off_clock_deg": float(np.degrees(np.arctan2(beside[1], beside[0]))),
            "tilt_deg": float(np.hypot(*lean)),
            "tilt_clock_deg": float(np.degrees(np.arctan2(lean[1], lean[0]))),
        }
