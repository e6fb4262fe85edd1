"""Corner points ↔ bend list. Expected values are plain geometry done by hand."""

from math import cos, pi, radians, sin, tan

import pytest

from bendrel.core.geometry.bends import Bend, BendList, ShapeError, bend_spans
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.corners import Corners, bends_from_corners, corners_from_bends
from bendrel.core.geometry.vectors import length, subtract
from tests.parts import random_part


def corners(*points, radius=15.0):
    return Corners(points=points, radii_mm=(radius,) * (len(points) - 2))


def test_away_up_right_turns_the_plane_by_plus_90():
    """Right-handed axes by hand: the second rotation of this stair is +90, clockwise seen from A."""
    shape = bends_from_corners(corners((0, 0, 0), (100, 0, 0), (100, 100, 0), (100, 100, 100)))
    assert [b.rotation_deg for b in shape.bends] == pytest.approx([0, 90])
    assert shape.straights_mm == pytest.approx((85, 70, 85))
    assert shape.developed_mm == pytest.approx(240 + 15 * pi)


@pytest.mark.parametrize("start", range(0, 1000, 100))
def test_points_to_bends_to_points_is_the_same_shape(start):
    for seed in range(start, start + 100):
        points = corners_from_bends(random_part(seed))
        again = corners_from_bends(bends_from_corners(points))
        assert len(again.points) == len(points.points)
        worst = max(length(subtract(a, b)) for a, b in zip(points.points, again.points, strict=True))
        assert worst < 1e-9


def test_corner_points_start_at_end_a_along_x():
    points = corners_from_bends(random_part(3, bends=4)).points
    assert points[0] == (0.0, 0.0, 0.0)
    assert points[1][1:] == (0.0, 0.0)
    assert points[1][0] > 0
    assert points[2][1] > 0, "the first bend closes towards +y"
    assert points[2][2] == pytest.approx(0, abs=1e-9)


@pytest.mark.parametrize("angle", [37, 60, 90, 111])
def test_bends_that_touch_have_exactly_no_straight_between(angle):
    """Corners as far apart as both tangents together: 2·R·tan(θ/2); rounding must not leave a sliver."""
    reach = 15 * tan(radians(angle) / 2)
    way = (cos(radians(angle)), sin(radians(angle)))
    first, second = (100.0, 0.0, 0.0), (100 + 2 * reach * way[0], 2 * reach * way[1], 0.0)
    end = (second[0] + 100, second[1], 0.0)
    shape = bends_from_corners(corners((0.0, 0.0, 0.0), first, second, end))
    assert shape.straights_mm[1] == 0.0
    assert shape.bends[1].rotation_deg == 180.0


def test_hairpins_come_back_as_one_bend():
    for angle in (171, 180, 200, 240, 241, 300, 360):
        shape = BendList(
            bends=(
                Bend(straight_mm=30, rotation_deg=0, angle_deg=60, radius_mm=15),
                Bend(straight_mm=40, rotation_deg=70, angle_deg=angle, radius_mm=20),
                Bend(straight_mm=50, rotation_deg=-100, angle_deg=30, radius_mm=15),
            ),
            last_straight_mm=60,
        )
        points = corners_from_bends(shape)
        assert len(points.points) == 4 + (3 if angle > 240 else 2)
        again = bends_from_corners(points)
        assert [b.angle_deg for b in again.bends] == pytest.approx([60, angle, 30])
        assert [b.rotation_deg for b in again.bends] == pytest.approx([0, 70, -100])


def test_a_u_comes_back_alongside_itself():
    """A 180° bend of radius R puts the second leg 2R beside the first, running back."""
    shape = BendList(
        bends=(Bend(straight_mm=100, rotation_deg=0, angle_deg=180, radius_mm=20),),
        last_straight_mm=100,
    )
    end = end_frame(shape)
    assert end.point == pytest.approx((0, 40, 0), abs=1e-9)
    assert end.way == pytest.approx((-1, 0, 0), abs=1e-9)


def test_reading_from_the_other_end_keeps_every_rotation():
    for seed in range(50):
        shape = random_part(seed, hairpins=False)
        points = corners_from_bends(shape)
        back = bends_from_corners(Corners(points=points.points[::-1], radii_mm=points.radii_mm[::-1]))
        assert [b.rotation_deg for b in back.bends[1:]] == pytest.approx(
            [b.rotation_deg for b in shape.bends[1:]][::-1], abs=1e-6
        )
        assert back.straights_mm == pytest.approx(shape.straights_mm[::-1])


def test_a_flat_corner_goes_only_when_it_lies_on_the_chord():
    flat = bends_from_corners(corners((0, 0, 0), (100, 0.01, 0), (200, 0, 0)))
    assert flat.bends == ()
    assert flat.last_straight_mm == pytest.approx(200, abs=1e-3)
    long = bends_from_corners(corners((0, 0, 0), (50_000, 10, 0), (100_000, 0, 0)))
    assert len(long.bends) == 1


def test_a_missing_straight_names_both_corners_and_the_room():
    tight = corners((0, 0, 0), (100, 0, 0), (100, 20, 0), (200, 20, 0))
    with pytest.raises(ShapeError, match=r"corner 1 to corner 2 is 10 mm too short"):
        bends_from_corners(tight)
    drawn = bends_from_corners(tight, allow_overlap=True)
    assert drawn.straights_mm == pytest.approx((85, -10, 85))


@pytest.mark.parametrize(
    ("points", "words"),
    [
        (((0, 0, 0),), "at least two"),
        (((0, 0, 0), (0, 0, 0)), "the same"),
        (((0, 0, 0), (100, 0, 0), (0, 0, 0)), "straight back"),
        (((0, 0, 0), (200_000, 0, 0)), "100 m"),
    ],
)
def test_points_that_are_no_line(points, words):
    with pytest.raises(ShapeError, match=words):
        bends_from_corners(Corners(points=points, radii_mm=(15.0,) * max(0, len(points) - 2)))


def test_spans_lie_end_to_end():
    shape = random_part(7, bends=8)
    spans = bend_spans(shape)
    at = 0.0
    for bend, span in zip(shape.bends, spans, strict=True):
        assert span.start_mm - at == pytest.approx(bend.straight_mm)
        assert span.middle_mm == pytest.approx((span.start_mm + span.end_mm) / 2)
        at = span.end_mm
    assert at + shape.last_straight_mm == pytest.approx(shape.developed_mm)
