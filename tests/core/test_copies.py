"""Lines copied beside others, and the same line with another radius: checked point by point."""

from math import cos, radians, tan

import numpy as np
import pytest
from scipy.spatial.transform import Rotation

from bendrel.core.geometry.bends import Bend, BendList, ShapeError
from bendrel.core.geometry.centreline import end_frame, sampled
from bendrel.core.geometry.copies import extended, neighbour
from bendrel.core.geometry.reradius import bow_height_mm, reradius
from bendrel.core.line.bought import compare_bought
from bendrel.core.line.document import PartReading, RigidSpan
from bendrel.core.line.resolve import resolve
from tests.measured import OD, Hands, R, by_leg, shop_part, walk
from tests.reading_errors import USUAL


def one_bend(straight, angle, radius):
    bend = Bend(straight_mm=straight, rotation_deg=0, angle_deg=angle, radius_mm=radius)
    return BendList(bends=(bend,), last_straight_mm=straight)


def path(part, *, offset=(0.0, 0.0), step=4.0):
    """Points of a part's centreline by an independent walk, started `offset` (up, right) from A."""
    turned, point = Rotation.identity(), np.array([0.0, *offset])
    points = [point]
    for bend in (*part.bends, None):
        straight = bend.straight_mm if bend else part.last_straight_mm
        if bend:
            turned = turned * Rotation.from_euler("x", bend.rotation_deg, degrees=True)
        ahead = turned.apply([1, 0, 0])
        points += [point + ahead * x for x in np.arange(0, straight, step)]
        point = point + ahead * straight
        points.append(point)
        if bend:
            centre = point + turned.apply([0, 1, 0]) * bend.radius_mm
            normal = turned.apply([0, 0, 1])
            for angle in np.linspace(0, radians(bend.angle_deg), 40):
                points.append(centre + Rotation.from_rotvec(normal * angle).apply(point - centre))
            turned = turned * Rotation.from_euler("z", bend.angle_deg, degrees=True)
            point = points[-1]
    return np.array(points)


def distances(a, b):
    """From every point of `a` to the broken line `b`."""
    starts, legs = b[:-1], np.diff(b, axis=0)
    squares = np.maximum((legs**2).sum(axis=1), 1e-12)
    offset = a[:, None, :] - starts[None]
    part = np.clip((offset * legs[None]).sum(axis=2) / squares, 0, 1)
    return np.sqrt(((offset - part[:, :, None] * legs[None]) ** 2).sum(axis=2).min(axis=1))


def beside(clock, spacing):
    return spacing * cos(radians(clock)), spacing * np.sin(radians(clock))


def test_a_nested_neighbour_keeps_its_distance_everywhere():
    for seed in range(40):
        part = shop_part(seed)
        clock = 37.0 * seed
        made = neighbour(part, 9.0, clock, nested=True)
        away = np.linalg.norm(path(made, offset=beside(clock, 9.0)) - path(part), axis=1)
        assert np.allclose(away, 9.0, atol=1e-6)


def test_a_neighbour_with_the_same_die_keeps_its_distance_along_the_straights():
    """Each straight of the neighbour lies parallel to its own, at the spacing."""
    for seed in range(40):
        part = shop_part(seed)
        clock = 23.0 * seed
        made = neighbour(part, 9.0, clock, nested=False)
        ours, theirs = walk(part)[0], walk(made)[0]
        shift = np.array([0.0, *beside(clock, 9.0)])
        for a, b, a2, b2 in zip(ours, theirs, ours[1:], theirs[1:], strict=False):
            way = (a2 - a) / np.linalg.norm(a2 - a)
            for here, there in ((a, b), (a2, b2)):
                gap = there + shift - here
                assert np.linalg.norm(gap - way * (gap @ way)) == pytest.approx(9.0, abs=1e-6)


def test_neighbours_that_cannot_be():
    tight = one_bend(50, 90, 8)
    with pytest.raises(ShapeError, match=r"Bend 1 has a radius of 8 mm"):
        neighbour(tight, 9, 0, nested=True)
    hairpin = one_bend(50, 180, 20)
    with pytest.raises(ShapeError, match="hairpin"):
        neighbour(hairpin, 9, 0, nested=False)


def test_an_end_made_longer_moves_that_end_straight_on():
    part = shop_part(3)
    _, end, way = walk(part)
    assert np.allclose(end_frame(extended(part, "B", 40)).point, end + way * 40, atol=1e-9)
    longer = extended(part, "A", 40)
    assert np.allclose(end_frame(longer).point, end + np.array([40, 0, 0]), atol=1e-9)
    with pytest.raises(ShapeError, match="mm of straight to take off"):
        extended(part, "B", -part.last_straight_mm - 1)


def test_a_larger_radius_keeps_corners_and_ports():
    """R 15 to R 24 at 90°: 9 mm of each straight, (24 − 15)(√2 − 1) = 3.73 mm inside the old corner;
    the arcs are 9·π/2 longer, the straights 18 shorter."""
    square = one_bend(100, 90, 15)
    made = reradius(square, 24, least_between_mm=12, least_ends_mm=(20, 15))
    assert [made.shape.bends[0].straight_mm, made.shape.last_straight_mm] == pytest.approx([91, 91])
    assert (made.moved, made.meets_ports, made.short) == (False, True, ())
    assert made.departure_mm == pytest.approx(9 * (2**0.5 - 1), abs=0.02)
    assert made.departure_bend == 1
    assert made.surplus_mm == pytest.approx(18 - 9 * np.pi / 2)
    assert made.bows[0].height_mm == pytest.approx((3 * 91 * made.surplus_mm / 8) ** 0.5)


def test_a_radius_without_room_is_moved_so_that_the_ports_are_met():
    """Corners 40 mm apart cannot hold two 90° bends of R 24 with 12 mm between."""
    bends = (
        Bend(straight_mm=100, rotation_deg=0, angle_deg=90, radius_mm=10),
        Bend(straight_mm=20, rotation_deg=180, angle_deg=90, radius_mm=10),
        Bend(straight_mm=120, rotation_deg=90, angle_deg=60, radius_mm=10),
    )
    old = BendList(bends=bends, last_straight_mm=100)
    made = reradius(old, 24, least_between_mm=12, least_ends_mm=(20, 15))
    assert (made.short[0].straight, made.short[0].lack_mm) == (2, pytest.approx(12 - (20 - 2 * 14)))
    assert made.moved
    assert made.meets_ports
    _, end, way = walk(old)
    _, end2, way2 = walk(made.shape)
    assert np.allclose(end, end2, atol=0.01)
    assert np.allclose(way, way2, atol=1e-3)
    assert made.shape.bends
    assert all(bend.radius_mm == 24 for bend in made.shape.bends)
    assert made.departure_mm == pytest.approx(
        distances(np.array([p for _, p in sampled(made.shape, 1.0)]), path(old, step=0.5)).max(), abs=0.05
    )


def test_random_lines_get_the_larger_radius_between_the_same_ports():
    for seed in range(25):
        old = shop_part(seed)
        made = reradius(old, 22, least_between_mm=12, least_ends_mm=(15, 15))
        _, end, way = walk(old)
        _, end2, way2 = walk(made.shape)
        assert made.meets_ports
        assert np.allclose(end, end2, atol=0.01)
        assert np.allclose(way, way2, atol=1e-3)


def test_a_hairpin_with_another_radius_still_meets_its_ports():
    bends = (
        Bend(straight_mm=80, rotation_deg=0, angle_deg=90, radius_mm=16),
        Bend(straight_mm=60, rotation_deg=90, angle_deg=180, radius_mm=16),
        Bend(straight_mm=60, rotation_deg=90, angle_deg=90, radius_mm=16),
    )
    made = reradius(
        BendList(bends=bends, last_straight_mm=80), 22, least_between_mm=12, least_ends_mm=(15, 15)
    )
    assert (made.moved, made.meets_ports) == (True, True)


def test_the_bow_takes_up_what_it_says():
    """A 300 mm chord and 2 mm over: an arc of that height is 302 mm long (chord and sagitta of a circle)."""
    height = bow_height_mm(300, 2)
    radius = (150**2 + height**2) / (2 * height)
    assert 2 * radius * np.arcsin(150 / radius) == pytest.approx(302, abs=0.02)


@pytest.fixture
def read():
    return resolve(by_leg(shop_part(4, bends=4), Hands(4), ("outside",)), od_mm=OD, radius_mm=R).read


def held(read, *readings):
    old = by_leg(shop_part(4, bends=4), Hands(4), ("outside",))
    span = RigidSpan(
        id="s1", tube="", bender="", readings=old, bought=tuple(PartReading(**r) for r in readings)
    )
    return compare_bought(
        span,
        read,
        USUAL,
    )


def test_a_bought_part_that_is_right_and_one_that_is_not(read):
    leg, angle = read.bends[1].at_mm, read.bends[3].angle_deg
    right = held(read, {"kind": "leg", "row": "r2", "text": f"{leg + 0.4}"})
    assert abs(right.compared[0].off) <= right.compared[0].allowed
    wrong = held(
        read,
        {"kind": "leg", "row": "r2", "text": f"{leg + 6}"},
        {"kind": "bend", "row": "r4", "text": f"{angle + 5}"},
    )
    assert [c.off for c in wrong.compared] == pytest.approx([6, 5])
    assert wrong.compared
    assert all(abs(c.off) > c.allowed for c in wrong.compared)
    assert wrong.way_b_deg == pytest.approx(5, abs=0.01)
    only_leg = held(read, {"kind": "leg", "row": "r2", "text": f"{leg + 6}"})
    assert only_leg.end_b_mm == pytest.approx(6)


def test_readings_of_a_part_that_the_line_has_not(read):
    found = held(
        read,
        {"kind": "leg", "row": "r9", "text": "20"},
        {"kind": "plane", "row": "r1", "text": "3:00"},
        {"kind": "bend", "row": "r2", "text": "bent"},
        {"kind": "bend", "row": "r1", "text": ""},
    )
    assert [problem.path for problem in found.problems] == [
        "/spans/s1/bought/0",
        "/spans/s1/bought/1",
        "/spans/s1/bought/2",
    ]
    assert (found.compared, found.end_b_mm) == ((), None)


def test_the_corner_stays_where_it_was():
    """(R' − R)·tan(θ/2) at 60°: 9·tan 30° = 5.196 mm a side."""
    bend = one_bend(80, 60, 15)
    made = reradius(bend, 24, least_between_mm=0, least_ends_mm=(0, 0))
    assert made.shape.bends[0].straight_mm == pytest.approx(80 - 9 * tan(radians(30)))
