"""Readings simulated from solid geometry, independent of the conversion formulas.

A known part is laid out with NumPy; a tape is laid along a leg and read where the real edges of a
round tube lie: the meeting point of straight-edges along back or inside, or the farthest point of
the bend's back along the leg. The readings, typed in, must give the part back.
"""

import random

import numpy as np
import pytest

from bendrel.core.line.document import Angle, BendReadings, BendRow, Plane
from bendrel.core.line.resolve import resolve
from bendrel.core.units.lengths import Length
from tests.parts import random_part

OD = 6.35


def reach_past_start(reference: str, angle_deg: float, radius: float) -> float:
    """Measured along the leg from where the bend starts, in the plane of the bend.

    The leg runs along +x, the bend turns towards +y about (0, R). Straight-edges are lines offset
    from both centrelines; their meeting point is found by solving two equations.
    """
    if reference == "start":
        return 0.0
    theta = np.radians(angle_deg)
    side = {"centre": 0.0, "outside": -1.0, "back": -1.0, "inside": 1.0, "hollow": 1.0}[reference]
    offset = side * OD / 2
    if reference in ("back", "hollow") and angle_deg > 90:
        sweep = np.linspace(0, theta, 20_001)
        edge = (radius - offset) * np.sin(sweep)
        return float(edge.max())
    out = np.array([np.cos(theta), np.sin(theta)])
    normal = np.array([-np.sin(theta), np.cos(theta)])
    end = np.array([radius * np.sin(theta), radius * (1 - np.cos(theta))]) + normal * offset
    # leg edge: (t, offset); next leg's edge: end + u·out
    t, _ = np.linalg.solve(np.array([[1.0, -out[0]], [0.0, -out[1]]]), end - np.array([0.0, offset]))
    return float(t)


def references_for(angle_deg: float, rng: random.Random) -> str:
    if angle_deg >= 170:
        return rng.choice(["back", "hollow", "start"])
    return rng.choice(["centre", "outside", "inside", "back", "hollow", "start"])


@pytest.mark.parametrize("start", [0, 100])
def test_two_hundred_known_parts_come_back_from_their_readings(start):
    for seed in range(start, start + 100):
        rng = random.Random(seed)
        part = random_part(seed, bends=rng.randint(1, 8))
        rows, before = [], 0.0
        last_reference = "start"
        for k, bend in enumerate(part.bends):
            to = references_for(bend.angle_deg, rng)
            ahead = reach_past_start(to, bend.angle_deg, bend.radius_mm)
            clock = sum(b.rotation_deg for b in part.bends[1 : k + 1])
            rows.append(
                BendRow(
                    length=Length(text=f"{before + bend.straight_mm + ahead:.9f}mm"),
                    read_from=last_reference,
                    read_to=to,
                    angle=Angle(text=f"{bend.angle_deg:.9f}"),
                    plane=Plane(text=f"{bend.rotation_deg:.9f}°"),
                    radius=Length(text=f"{bend.radius_mm:.9f} mm"),
                )
            )
            assert -180 * len(rows) <= clock <= 180 * len(rows)
            last_reference = references_for(bend.angle_deg, rng)
            before = reach_past_start(last_reference, bend.angle_deg, bend.radius_mm)
        readings = BendReadings(
            rows=tuple(rows),
            last=Length(text=f"{before + part.last_straight_mm:.9f}"),
            last_read_from=last_reference,
        )
        read = resolve(readings, od_mm=OD, radius_mm=None)
        assert read.problems == ()
        assert read.shape.straights_mm == pytest.approx(part.straights_mm, abs=2e-5)
        assert read.shape.developed_mm == pytest.approx(part.developed_mm, abs=1e-4)


def test_confusing_inside_and_outside_costs_the_tube_at_a_right_angle():
    """Plane geometry: the three references differ by the tube's radius; out against in, by its diameter."""
    outside = reach_past_start("outside", 90, 15)
    assert outside - reach_past_start("inside", 90, 15) == pytest.approx(OD)
    assert outside - reach_past_start("centre", 90, 15) == pytest.approx(OD / 2)
