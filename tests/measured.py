"""A person measuring a known part: what rule, wire, string and square would read off it.

Written apart from the program: corners come from a walk along the part with rotation matrices of
SciPy, and tape readings from where the corner of back or inside lies.
"""

from __future__ import annotations

import random
from math import radians, tan

import numpy as np
from scipy.spatial.transform import Rotation

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.line.document import BendReadings, BendRow, CornerReadings, CornerRow
from bendrel.core.units.lengths import Angle, Length, Plane

OD, R = 4.7625, 15.0


class Hands:
    """Readings with an even error of up to so many mm and degrees."""

    def __init__(self, seed: int, mm: float = 0.0, deg: float = 0.0) -> None:
        self.rng, self._mm, self._deg = random.Random(seed), mm, deg

    def mm(self, true: float) -> Length:
        return Length(text=f"{true + self.rng.uniform(-self._mm, self._mm):.9f}", exact_mm=None)

    def angle(self, true: float) -> Angle:
        return Angle(text=f"{true + self.rng.uniform(-self._deg, self._deg):.9f}")

    def turn(self, true: float) -> Plane:
        read = (true + self.rng.uniform(-self._deg, self._deg) + 180) % 360 - 180
        return Plane(text=f"{read:.9f}°")


def shop_part(seed: int, bends: int | None = None) -> BendList:
    """A part that a shop bender could make: 2 to 7 bends of 20° to 120°, straights of 40 mm and more."""
    rng = random.Random(seed)
    made = [
        Bend(
            straight_mm=rng.uniform(40, 220),
            rotation_deg=rng.uniform(-180, 180) if k else 0.0,
            angle_deg=rng.uniform(20, 120),
            radius_mm=R,
        )
        for k in range(bends or rng.randint(2, 7))
    ]
    return BendList(bends=tuple(made), last_straight_mm=rng.uniform(40, 220))


def walk(part: BendList):
    """(corner points, end point, way at the end) in the frame of end A, by rotation matrices."""
    turned, point, corners = Rotation.identity(), np.zeros(3), []
    for bend in part.bends:
        turned = turned * Rotation.from_euler("x", bend.rotation_deg, degrees=True)
        ahead = turned.apply([1, 0, 0])
        point = point + ahead * bend.straight_mm
        corners.append(point + ahead * bend.radius_mm * tan(radians(bend.angle_deg) / 2))
        over = radians(bend.angle_deg)
        side = turned.apply([0, 1, 0])
        point = point + bend.radius_mm * (ahead * np.sin(over) + side * (1 - np.cos(over)))
        turned = turned * Rotation.from_euler("z", bend.angle_deg, degrees=True)
    way = turned.apply([1, 0, 0])
    return corners, point + way * part.last_straight_mm, way


def stations(part: BendList, apart_mm: float = 2.0):
    """(points, ways) of the centreline at most `apart_mm` apart, carried along by small rotations as
    `walk` does for whole bends."""
    turned, point, points, ways = Rotation.identity(), np.zeros(3), [], []

    def straight(length):
        for at in np.linspace(0, length, max(2, int(length / apart_mm) + 1)):
            points.append(point + turned.apply([1, 0, 0]) * at)
            ways.append(turned.apply([1, 0, 0]))
        return points[-1]

    for bend in part.bends:
        turned = turned * Rotation.from_euler("x", bend.rotation_deg, degrees=True)
        point = straight(bend.straight_mm)
        centre = point + turned.apply([0, 1, 0]) * bend.radius_mm
        steps = max(2, int(bend.radius_mm * radians(bend.angle_deg) / apart_mm) + 1)
        over = Rotation.from_rotvec(turned.apply([0, 0, 1]) * radians(bend.angle_deg) / steps)
        for _ in range(steps):
            point = centre + over.apply(point - centre)
            turned = over * turned
            points.append(point)
            ways.append(turned.apply([1, 0, 0]))
    straight(part.last_straight_mm)
    return np.array(points), np.array(ways)


def reach(reference: str, bend: Bend) -> float:
    """From a bend's start to where a straight-edge along that side meets the other leg's, or, over the back
    or in the hollow of more than a right angle, to the farthest that side of the bend reaches out."""
    if reference == "start":
        return 0.0
    aside = {"outside": -OD / 2, "back": -OD / 2, "inside": OD / 2, "hollow": OD / 2}.get(reference, 0.0)
    turned = radians(bend.angle_deg)
    if reference in ("back", "hollow") and bend.angle_deg > 90:
        around = np.append(np.linspace(0, turned, 181), np.pi / 2)
        return float(((bend.radius_mm - aside) * np.sin(around)).max())
    # the other leg: through the arc's end along its way, moved aside towards the bend's centre
    way, side = np.array([np.cos(turned), np.sin(turned)]), np.array([-np.sin(turned), np.cos(turned)])
    end = bend.radius_mm * np.array([np.sin(turned), 1 - np.cos(turned)]) + aside * side
    along, _ = np.linalg.solve(np.column_stack([[1.0, 0.0], -way]), end - [0.0, aside])
    return float(along)


def by_leg(part: BendList, hands: Hands, references=("outside", "inside", "centre", "back", "start")):
    """Every leg with a reference of its own at each end, drawn at random."""
    rows, before = [], None
    for k, bend in enumerate(part.bends):
        start, end = hands.rng.choice(references), hands.rng.choice(references)
        leg = bend.straight_mm + reach(end, bend) + (reach(start, before) if before else 0.0)
        rows.append(
            BendRow(
                length=hands.mm(leg),
                read_from=start,
                read_to=end,
                angle=hands.angle(bend.angle_deg),
                plane=hands.turn(bend.rotation_deg) if k else Plane(),
            )
        )
        before = bend
    start = hands.rng.choice(references)
    last = part.last_straight_mm + (reach(start, before) if before else 0.0)
    return BendReadings(rows=tuple(rows), last=hands.mm(last), last_read_from=start)


def marks(part: BendList):
    """Developed start and end of every bend, and the whole length."""
    at, found = 0.0, []
    for bend in part.bends:
        start = at + bend.straight_mm
        at = start + bend.radius_mm * radians(bend.angle_deg)
        found.append((start, at))
    return found, at + part.last_straight_mm


def by_wire(part: BendList, hands: Hands):
    """Marks along the straightened wire: start and end, or middle and angle, turn about."""
    found, whole = marks(part)
    rows = []
    for k, (bend, (start, end)) in enumerate(zip(part.bends, found, strict=True)):
        middle = k % 2 == 1
        rows.append(
            BendRow(
                by="wire",
                length=hands.mm((start + end) / 2 if middle else start),
                to=Length() if middle else hands.mm(end),
                read_to="centre" if middle else "start",
                angle=hands.angle(bend.angle_deg) if middle else Angle(),
                plane=hands.turn(bend.rotation_deg) if k else Plane(),
            )
        )
    return BendReadings(rows=tuple(rows), last=hands.mm(whole), last_by="wire")


def by_string(part: BendList, hands: Hands):
    """A string from bend start to bend start, around the curve between."""
    rows, before = [], 0.0
    for k, bend in enumerate(part.bends):
        rows.append(
            BendRow(
                by="string",
                length=hands.mm(before + bend.straight_mm),
                angle=hands.angle(bend.angle_deg),
                plane=hands.turn(bend.rotation_deg) if k else Plane(),
            )
        )
        before = bend.radius_mm * radians(bend.angle_deg)
    return BendReadings(rows=tuple(rows), last=hands.mm(before + part.last_straight_mm), last_by="string")


def by_mixture(part: BendList, hands: Hands):
    """Every row by a method of its own."""
    ways = [by_leg(part, hands), by_wire(part, hands), by_string(part, hands)]
    chosen = [hands.rng.choice(ways) for _ in part.bends]
    end = hands.rng.choice(ways)
    rows = tuple(way.rows[k] for k, way in enumerate(chosen))
    return BendReadings(rows=rows, last=end.last, last_by=end.last_by, last_read_from=end.last_read_from)


def by_points(part: BendList, hands: Hands):
    """Corner points from a datum that stands askew to the line."""
    corners, end, _ = walk(part)
    datum = Rotation.from_euler("xyz", [20, -35, 50], degrees=True)
    points = [datum.apply(p) + np.array([300, -120, 45]) for p in (np.zeros(3), *corners, end)]
    rows = tuple(CornerRow(x=hands.mm(x), y=hands.mm(y), z=hands.mm(z)) for x, y, z in points)
    return CornerReadings(rows=rows)
