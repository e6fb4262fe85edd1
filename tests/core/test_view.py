"""Ways of looking at a line, and where labels stand."""

import pytest

from bendrel.core.geometry.corners import corners_from_bends
from bendrel.core.geometry.vectors import cross, dot, length, subtract
from bendrel.core.geometry.view import FROM_A, back_of, clearest, from_b
from bendrel.core.plan.planner import plan_line
from tests.lines import bent, row
from tests.parts import random_part


def test_from_end_a_a_clockwise_rotation_is_clockwise_on_the_paper():
    """A bend at 12 o'clock goes up (+y), one at 3 o'clock to the right: rotation +90 is +z."""
    assert FROM_A.flat((0, 10, 0)) == (0, 10)
    assert FROM_A.flat((0, 0, 10)) == (10, 0)
    assert FROM_A.towards == (-1, 0, 0)


def test_the_plane_read_at_three_oclock_is_drawn_to_the_right_from_a(kit):
    part = plan_line(bent(row(100, 90), row(60, 90, "3:00")), kit).part
    end = part.views["from A"].flat(part.end_b.point)
    assert end[0] == pytest.approx(100 + 15)
    assert end[1] == pytest.approx(15 + 60 + 15)


@pytest.mark.parametrize("way", [(1, 0, 0), (0, 1, 0), (0, -1, 0), (0.6, 0, 0.8)])
def test_from_b_looks_back_along_the_last_straight(way):
    view = from_b(way)
    assert view.towards == pytest.approx(way)
    assert dot(view.right, view.up) == pytest.approx(0)


def test_the_clearest_view_is_square_shows_spread_and_starts_on_the_left():
    for seed in range(40):
        shape = random_part(seed, bends=5, hairpins=False)
        points = corners_from_bends(shape).points
        view = clearest(points)
        assert length(cross(view.right, view.up)) == pytest.approx(1)
        assert view.flat(points[0])[0] <= view.flat(points[-1])[0] + 1e-6
        straightest = length(subtract(points[-1], points[0]))
        xs = [view.flat(point)[0] for point in points]
        ys = [view.flat(point)[1] for point in points]
        assert max(max(xs) - min(xs), max(ys) - min(ys)) > 0.4 * straightest


def test_a_label_stands_on_the_back_of_its_bend():
    assert back_of((-1, 0), (0, 0), (0, 1)) == pytest.approx((0.7071, -0.7071), abs=1e-4)
    assert back_of((-1, 0), (0, 0), (1, 0)) == pytest.approx((0, -1))
