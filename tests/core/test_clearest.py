"""Ways of looking: right-handed, end A on the left, and as much of the shape in sight as there is."""

from __future__ import annotations

import numpy as np
import pytest

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.geometry.centreline import sampled
from bendrel.core.geometry.view import ABOVE, FROM_A, back_of, clearest, from_b
from tests.measured import shop_part, walk


def points(part):
    return tuple(point for _, point in sampled(part, 15.0))


def flat(view, part):
    return np.array([view.flat(point) for point in points(part)])


@pytest.mark.parametrize("seed", range(20))
def test_the_free_view_is_square_and_has_end_a_on_the_left(seed):
    part = shop_part(seed)
    view = clearest(points(part))
    right, up, towards = (np.array(v) for v in (view.right, view.up, view.towards))
    assert np.column_stack([right, up, towards]).T @ np.column_stack([right, up, towards]) == pytest.approx(
        np.eye(3), abs=1e-9
    )
    assert np.linalg.det(np.column_stack([right, up, towards])) == pytest.approx(1)
    assert towards[2] > 0, "from above, as the person stands"
    seen = flat(view, part)
    assert seen[-1][0] >= seen[0][0] - 1e-9
    wide, tall = np.ptp(seen, axis=0)
    assert wide >= tall * 0.6, "the longest way across"


@pytest.mark.parametrize("seed", range(20))
def test_the_free_view_shows_about_as_much_as_any_view_from_above(seed):
    """Spread on paper against 600 other ways of looking at least twenty degrees up: not under a quarter
    of the largest (it is one of a fixed set, and the one on the left decides between them)."""
    part = shop_part(seed)
    seen = np.array(points(part))
    told = np.prod(np.ptp(flat(clearest(points(part)), part), axis=0))
    rng = np.random.default_rng(seed)
    most = 0.0
    for lift, around in zip(rng.uniform(0.35, 1.15, 600), rng.uniform(0, 2 * np.pi, 600), strict=True):
        eye = np.array([np.cos(lift) * np.cos(around), np.cos(lift) * np.sin(around), np.sin(lift)])
        right = np.cross([0, 0, 1], eye)
        right /= np.linalg.norm(right)
        across, upward = seen @ right, seen @ np.cross(eye, right)
        if across[-1] >= across[0]:
            most = max(most, float(np.ptp(across) * np.ptp(upward)))
    assert told > 0.25 * most


def test_named_ways_are_the_trades():
    """From A along the tube with 12 o'clock up; above square on to the first bend's plane."""
    assert np.array(FROM_A.towards) == pytest.approx([-1, 0, 0])
    assert FROM_A.flat((0.0, 5.0, 0.0)) == (0.0, 5.0)
    assert FROM_A.flat((0.0, 0.0, 5.0)) == (5.0, 0.0)
    assert np.array(ABOVE.towards) == pytest.approx([0, 0, 1])
    for seed in range(8):
        _, _, way = walk(shop_part(seed))
        view = from_b(tuple(float(v) for v in way))
        assert np.array(view.towards) == pytest.approx(way, abs=1e-9)
        assert view.up[1] >= -1e-9
    straight_up = from_b((0.0, 1.0, 0.0))
    assert np.array(straight_up.towards) == pytest.approx([0, 1, 0], abs=1e-9)


@pytest.mark.parametrize(
    ("before", "after", "way"),
    [
        ((-10, 0), (0, -10), (np.sqrt(0.5), np.sqrt(0.5))),  # a corner points away from both legs
        ((-10, 0), (10, 0), (0.0, 0.0)),  # a straight run has either side
        ((0, 0), (10, 0), (-1.0, 0.0)),
    ],
)
def test_labels_stand_at_the_back_of_a_corner(before, after, way):
    told = np.array(back_of(before, (0, 0), after))
    if way == (0.0, 0.0):
        assert abs(told @ [1, 0]) < 1e-9
        assert np.linalg.norm(told) == pytest.approx(1)
    else:
        assert told == pytest.approx(way)


def test_a_flat_part_is_not_looked_at_edge_on():
    bends = tuple(Bend(straight_mm=100, rotation_deg=t, angle_deg=90, radius_mm=15) for t in (0, 180))
    part = BendList(bends=bends, last_straight_mm=100)
    wide, tall = np.ptp(flat(clearest(points(part)), part), axis=0)
    assert tall > 0.25 * wide
