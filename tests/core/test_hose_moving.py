"""A hose whose ends move, against trying every length at every position, and against rotations of others."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest
from scipy.spatial.transform import Rotation

from bendrel.core.hose.shape.laid import HoseError, hose_shape
from bendrel.core.hose.shape.moving import Hinge, Slide, out_of_plane_deg, over_travel, travel
from bendrel.core.hose.shape.windows import windows_over
from tests.core.test_hose_shape import ends

AXLE = ends((0, 0, 0), (1, 0, 0), (220, -160, 0), (0, -1, 0), straight=15)


def hinge(point=(500, -160, 0), axis=(0, 0, 1), least=-12.0, most=15.0, end="B"):
    axis = tuple(np.array(axis, float) / np.linalg.norm(axis))
    return Hinge(end=end, point=tuple(map(float, point)), axis=axis, least_deg=least, most_deg=most)


def test_the_end_follows_its_axle_and_swivel():
    """Steering on an axle that moves up and down, by scipy's rotations: the swivel turns first, and the axle
    carries it."""
    steering = hinge(point=(240, -160, 0), axis=(0, 1, 0.2), least=-30, most=30)
    axle = hinge()
    places = travel(AXLE, (steering, axle))
    assert len(places) >= 49
    for place in places:
        turned, swung = place.gone
        inner = Rotation.from_rotvec(np.radians(turned) * np.array(steering.axis))
        outer = Rotation.from_rotvec(np.radians(swung) * np.array(axle.axis))
        point = inner.apply(np.array(AXLE.b.point) - steering.point) + steering.point
        point = outer.apply(point - axle.point) + axle.point
        assert np.allclose(place.ends.b.point, point, atol=1e-9)
        assert np.allclose(place.ends.b.way, (outer * inner).apply(AXLE.b.way), atol=1e-12)
        assert place.ends.a == AXLE.a


def test_a_slide_moves_its_end_along():
    slide = Slide(end="A", way=(0.0, 0.0, 1.0), least_mm=-20.0, most_mm=60.0)
    places = travel(AXLE, (slide,))
    heights = sorted(place.ends.a.point[2] for place in places)
    assert (len(places), heights[0], heights[-1]) == (41, -20, 60)
    assert (0.0,) in [place.gone for place in places]


def test_an_end_turned_about_the_hose_twists_it_by_as_much():
    """The shape stays; the way of end B is the axis."""
    about = hinge(point=AXLE.b.point, axis=AXLE.b.way, least=-40, most=40)
    for at in over_travel(travel(AXLE, (about,)), 360.0):
        assert at.twist_deg == pytest.approx(-at.gone[0], abs=1e-6)


def carried_twist(place, home, length):
    """How far a mark that never turns about the hose arrives off, with scipy's rotations along the points."""

    def arrives(at):
        points = np.array(hose_shape(at.ends, length).points)
        ways = np.diff(points, axis=0)
        ways = np.vstack([at.ends.a.way, ways / np.linalg.norm(ways, axis=1, keepdims=True), at.ends.b.way])
        mark = np.array(at.turned_a)
        for one, other in pairwise(ways):
            axis = np.cross(one, other)
            size = np.linalg.norm(axis)
            if size > 1e-12:
                mark = Rotation.from_rotvec(axis / size * np.arctan2(size, one @ other)).apply(mark)
        own = np.array(at.turned_b)
        return np.degrees(np.arctan2(np.cross(own, mark) @ at.ends.b.way, own @ mark))

    return (arrives(place) - arrives(home) + 180) % 360 - 180


def test_twist_out_of_the_plane_against_rotations_along_the_hose():
    tilted = hinge(axis=(0.3, 0.4, 1), least=-15, most=20)
    places = travel(AXLE, (tilted,))
    home = next(place for place in places if place.gone == (0.0,))
    for place, at in list(zip(places, over_travel(places, 360.0), strict=True))[::8]:
        assert at.twist_deg == pytest.approx(carried_twist(place, home, 360.0), abs=0.3)
    assert out_of_plane_deg(AXLE, (tilted,)) == pytest.approx(np.degrees(np.arccos(1 / np.sqrt(1.25))))


def test_motion_in_the_plane_of_the_hose_does_not_twist_it():
    assert out_of_plane_deg(AXLE, (hinge(),)) == 0
    assert max(abs(at.twist_deg) for at in over_travel(travel(AXLE, (hinge(),)), 360.0)) < 1e-6


def test_a_hose_that_pulls_at_full_droop():
    """At 300 mm the distance between the stiff straights alone says where it does not reach."""
    places = travel(AXLE, (hinge(most=60),))
    for place, at in zip(places, over_travel(places, 300.0), strict=True):
        a, b = (np.array(end.point) for end in (place.ends.a, place.ends.b))
        needs = (
            np.linalg.norm((b - 15 * np.array(place.ends.b.way)) - (a + 15 * np.array(place.ends.a.way))) + 30
        )
        assert at.spare_mm == pytest.approx(300 - needs)
        assert (at.radius_mm == 0) == (needs >= 300)
    assert {at.radius_mm == 0 for at in over_travel(places, 300.0)} == {True, False}


def random_travel(rng, *, flat):
    ways, gap, axis = rng.normal(size=(2, 3)), rng.normal(size=3), rng.normal(size=3)
    if flat:
        ways[:, 2] = gap[2] = 0
        axis = np.array([0, 0, 1.0])
    gap *= rng.uniform(150, 400) / np.linalg.norm(gap)
    pivot = gap + rng.normal(size=3) * 150
    laid = ends((0, 0, 0), ways[0], gap, ways[1], straight=15)
    return travel(laid, (hinge(pivot, axis, -rng.uniform(5, 25), rng.uniform(5, 25)),))


@pytest.mark.long("every length at every position")
def test_the_window_of_a_moving_hose_is_that_of_trying_lengths_at_every_position():
    """Random cases, tried on both sides of every edge and at random lengths between."""
    rng = np.random.default_rng(21)
    tried = 0
    for case in range(3):
        places = random_travel(rng, flat=case % 2 == 0)
        radius, longest = rng.uniform(40, 90), 2.6 * places[0].ends.distance_mm
        least = max(place.ends.least_mm for place in places)
        if longest < least + 20:
            continue
        windows = windows_over([place.ends for place in places], radius, longest).windows
        edges = [edge.length_mm for window in windows for edge in (window.least, window.most)]
        near = [edge + side for edge in edges for side in (-1.0, 1.0)]
        for length in [*near, *rng.uniform(least + 1, longest, 2)]:
            if not least < length <= longest or min((abs(length - e) for e in edges), default=9) < 0.99:
                continue
            kept = all(
                (hose_shape(place.ends, length).radius_mm or 1e9) >= radius
                for place in _worst(places, length)
            )
            said = any(w.least.length_mm <= length <= w.most.length_mm for w in windows)
            assert kept == said, (case, length, radius, edges)
            tried += 1
    assert tried > 6


def _worst(places, length):
    """The positions that are tightest; the others are looked at coarsely."""
    told = over_travel(places, length)
    order = sorted(range(len(places)), key=lambda k: told[k].radius_mm or 1e9)
    return [places[k] for k in order[:4]]


@pytest.mark.parametrize(
    ("moves", "said"),
    [
        ((hinge(least=5, most=15),), "does not pass 0"),
        ((hinge(least=3, most=3),), "goes nowhere"),
        ((hinge(least=-200, most=200),), "a full turn"),
        ((hinge(), hinge(), hinge(), hinge()), "up to 3"),
    ],
)
def test_a_travel_that_cannot_be_is_said(moves, said):
    with pytest.raises(HoseError, match=said):
        travel(AXLE, moves)
