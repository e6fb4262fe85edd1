"""How a hose lies between two ends, against figures and solvers of others."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.integrate import solve_bvp
from scipy.spatial.transform import Rotation

from bendrel.core.hose.shape.laid import HoseEnd, HoseEnds, HoseError, hose_shape
from bendrel.core.hose.shape.windows import hose_windows

U_TURN = ((0, 0, 0), (1, 0, 0), (0, 200, 0), (-1, 0, 0))
OFFSET = ((0, 0, 0), (1, 0, 0), (300, 60, 0), (1, 0, 0))
QUARTER = ((0, 0, 0), (1, 0, 0), (200, 200, 0), (0, 1, 0))
IN_LINE = ((0, 0, 0), (1, 0, 0), (300, 0, 0), (1, 0, 0))


def ends(a, way_a, b, way_b, straight=0.0):
    def end(point, way):
        way = np.array(way, float) / np.linalg.norm(way)
        return HoseEnd(point=tuple(map(float, point)), way=tuple(map(float, way)), straight_mm=straight)

    return HoseEnds(a=end(a, way_a), b=end(b, way_b))


def moved(turn, a, way_a, b, way_b):
    shift = np.array([31.0, -12.0, 57.0])
    return ends(turn.apply(a) + shift, turn.apply(way_a), turn.apply(b) + shift, turn.apply(way_b))


@pytest.mark.parametrize(
    ("where", "lengths"),
    [
        # two independent solvers, flat, no stiff straights: docs/decisions/0021
        (U_TURN, {314.16: 100.0, 330: 94.1, 360: 87.7, 400: 84.2, 450: 83.5, 500: 84.8, 600: 90.1}),
        (OFFSET, {310: 215, 320: 120.5, 340: 83.8, 360: 71.8}),
        (QUARTER, {314.16: 200, 320: 168.9, 340: 120.6, 400: 85.4}),
    ],
    ids=["u-turn", "offset", "quarter turn"],
)
def test_tightest_radius_of_flat_hoses(where, lengths):
    for length, radius in lengths.items():
        assert hose_shape(ends(*where), length).radius_mm == pytest.approx(radius, rel=5e-3)


def test_a_little_too_long_between_ends_in_line():
    """A clamped beam that buckles: y = a/2·(1 - cos 2πx/l), so a² = 4·l·Δl/π² and κ = a/2·(2π/l)²
    (Euler)."""
    out = np.sqrt(4 * 300 * 0.05 / np.pi**2)
    shape = hose_shape(ends(*IN_LINE), 300.05)
    assert shape.reach_mm == pytest.approx(out, rel=1e-3)
    assert shape.radius_mm == pytest.approx(1 / (out / 2 * (2 * np.pi / 300) ** 2), rel=5e-3)


def test_a_straight_hose_has_no_radius():
    shape = hose_shape(ends(*IN_LINE), 300)
    assert (shape.radius_mm, shape.reach_mm, len(shape.points)) == (None, 0.0, 193)


def random_flat(rng):
    way = [np.array([np.cos(t), np.sin(t), 0.0]) for t in rng.uniform(-np.pi, np.pi, 2)]
    gap = np.array([rng.uniform(120, 500), 0.0, 0.0])
    return ((0, 0, 0), way[0], gap, way[1]), float(gap[0] * rng.uniform(1.08, 2.2))


def exact_curvature(points, length, way_a, way_b):
    """θ'' = p·sin θ - q·cos θ with both ends clamped, solved by collocation: the greatest |θ'|."""
    points = np.array(points)
    chords = np.diff(points[:, :2], axis=0)
    middle = (np.arange(len(chords)) + 0.5) / len(chords)
    turned = np.unwrap(np.arctan2(chords[:, 1], chords[:, 0]))
    start, stop = (np.arctan2(way[1], way[0]) for way in (way_a, way_b))
    start += 2 * np.pi * round((turned[0] - start) / (2 * np.pi))
    stop += 2 * np.pi * round((turned[-1] - stop) / (2 * np.pi))
    s, along = np.linspace(0, 1, 60), np.linspace(0, 1, len(points))
    theta = np.interp(s, middle, turned)
    x, y = (np.interp(s, along, points[:, k]) for k in (0, 1))
    first = np.array([theta, np.gradient(theta, s), x, y])
    first[2:] /= length

    def rest(_, y, force):
        return np.array([y[1], force[0] * np.sin(y[0]) - force[1] * np.cos(y[0]), np.cos(y[0]), np.sin(y[0])])

    def clamped(a, b, _):
        return np.array([a[0] - start, a[2], a[3], b[0] - stop,
                         b[2] - points[-1, 0] / length, b[3] - points[-1, 1] / length])  # fmt: skip

    found = solve_bvp(rest, clamped, s, first, p=[0.0, 0.0], tol=1e-5, max_nodes=20000)
    assert found.success
    fine = found.sol(np.linspace(0, 1, 4000))
    return np.abs(fine[1]).max() / length


@pytest.mark.long("solved by collocation")
def test_flat_hoses_against_collocation_on_the_exact_equations():
    """Source: scipy's collocation solver, which knows nothing of this one."""
    rng = np.random.default_rng(12)
    for _ in range(100):
        where, length = random_flat(rng)
        shape = hose_shape(ends(*where), length)
        assert 1 / shape.radius_mm == pytest.approx(
            exact_curvature(shape.points, length, where[1], where[3]), rel=1e-2
        )


def test_a_flat_hose_is_the_same_whichever_way_it_is_turned():
    rng = np.random.default_rng(5)
    for _ in range(25):
        where, length = random_flat(rng)
        turn = Rotation.random(random_state=rng)
        flat = np.array(hose_shape(ends(*where), length).points)
        there = np.array(hose_shape(moved(turn, *where), length).points)
        back = turn.inv().apply(there - [31.0, -12.0, 57.0])
        assert np.abs(back - flat).max() < 0.1


def random_in_space(rng):
    ways = rng.normal(size=(2, 3))
    gap = rng.normal(size=3)
    gap *= rng.uniform(120, 500) / np.linalg.norm(gap)
    return ((0, 0, 0), ways[0], gap, ways[1]), float(np.linalg.norm(gap) * rng.uniform(1.08, 2.2))


def bending(chords, way_a, way_b):
    """∫κ²/2 ds of a row of unit chords between two clamps, in units of one chord."""
    ways = np.vstack([way_a, chords, way_b])
    turns = np.arccos(np.clip((ways[:-1] * ways[1:]).sum(1), -1, 1))
    return (turns[1:-1] ** 2).sum() / 2 + turns[0] ** 2 + turns[-1] ** 2


def another(chords, size, rng):
    """A hose of the same length between the same points with a random smooth bow, and no other."""
    count = len(chords)
    s = (np.arange(count) + 0.5) / count
    bow = sum(rng.normal(size=3) / k**2 * np.sin(k * np.pi * s)[:, None] for k in range(1, 7))
    made = chords + size * bow
    goal = chords.sum(0)
    for _ in range(60):
        made /= np.linalg.norm(made, axis=1, keepdims=True)
        across = count * np.eye(3) - made.T @ made
        made += np.clip(np.linalg.solve(across, goal - made.sum(0)), -0.2, 0.2)
    made /= np.linalg.norm(made, axis=1, keepdims=True)
    assert np.linalg.norm(made.sum(0) - goal) < 1e-6 * count
    return made


@pytest.mark.long("a search by another way")
def test_no_other_hose_of_that_length_is_bent_less():
    rng = np.random.default_rng(8)
    for _ in range(30):
        where, length = random_in_space(rng)
        laid = ends(*where)
        chords = np.diff(np.array(hose_shape(laid, length).points), axis=0)
        chords /= np.linalg.norm(chords, axis=1, keepdims=True)
        least = bending(chords, laid.a.way, laid.b.way)
        for size in (0.01, 0.1, 0.4):
            for _ in range(10):
                assert bending(another(chords, size, rng), laid.a.way, laid.b.way) > least * (1 - 1e-6)


def test_the_points_run_from_end_to_end_with_the_stiff_straights():
    laid = ends((10, 0, 5), (1, 0, 0), (160, 180, 60), (0, 1, 0.4), straight=25)
    shape = hose_shape(laid, 340)
    points = np.array(shape.points)
    assert np.allclose(points[[0, -1]], [laid.a.point, laid.b.point])
    assert np.allclose(points[1], [35, 0, 5])
    assert np.allclose(points[-2], points[-1] - 25 * np.array(laid.b.way))
    assert np.linalg.norm(np.diff(points, axis=0), axis=1).sum() == pytest.approx(340, abs=1e-6)


def test_a_hose_with_free_ends_would_leave_the_plane_of_an_offset():
    """Between parallel ends set off to the side the flat shape is not the one of least energy."""
    assert hose_shape(ends(*OFFSET), 340).bows
    assert not hose_shape(ends(*U_TURN), 400).bows


@pytest.mark.parametrize(("where", "radius"), [(U_TURN, 84), (U_TURN, 75), (OFFSET, 90), (QUARTER, 130)])
def test_windows_are_those_of_trying_every_length(where, radius):
    laid = ends(*where, straight=10)
    longest = laid.distance_mm * 2.2
    found = [(w.least.length_mm, w.most.length_mm) for w in hose_windows(laid, radius, longest).windows]
    tried, keeps = np.arange(laid.least_mm + 1, longest, 3.0), []
    for length in tried:
        keeps.append(hose_shape(laid, float(length)).radius_mm >= radius)
    inside = [any(low <= length <= high for low, high in found) for length in tried]
    for length, kept, said in zip(tried, keeps, inside, strict=True):
        near = min((abs(length - edge) for window in found for edge in window), default=9)
        assert kept == said or near < 1.0, length


def test_between_ends_in_line_the_straight_hose_begins_the_window():
    window = hose_windows(ends(*IN_LINE), 80, 900).windows[0]
    assert window.least.length_mm == 300
    assert window.least.reach_mm == pytest.approx(0, abs=1e-3)


@pytest.mark.parametrize(
    ("make", "said"),
    [
        (lambda: ends((1, 2, 3), (1, 0, 0), (1, 2, 3), (0, 1, 0)), "same point"),
        (lambda: hose_shape(ends(*U_TURN), 150), "does not reach: its ends are 200 mm apart"),
        (lambda: hose_shape(ends(*U_TURN, straight=30), 200), "too short here"),
        (lambda: hose_windows(ends(*U_TURN), 0, 500), "more than 0"),
        (lambda: hose_windows(ends(*U_TURN), 50, 100), "more than 200 mm is needed"),
        (lambda: ends(*U_TURN, straight=-1), "0 or more"),
    ],
)
def test_what_no_hose_can_do_is_said(make, said):
    with pytest.raises(HoseError, match=said):
        make()


def test_a_hose_that_hardly_reaches_and_must_turn_back_keeps_no_radius():
    """Ends 20 apart with stiff straights of 80 that pass each other: two hairpins. Seen from a length of
    2,000 down to one that hardly reaches, the radius only falls."""
    laid = ends((0, 0, 0), (1, 0, 0), (20, 0, 0), (1, 0, 0), straight=80)
    assert hose_windows(laid, 20, 440).windows == ()
    radii = [at.radius_mm for at in hose_windows(laid, 20, 2000).over]
    assert radii == sorted(radii)
    assert radii[0] < 5
