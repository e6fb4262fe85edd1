"""What is corrected of a part that came out otherwise, against SciPy from many starts."""

from __future__ import annotations

import random
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from scipy.optimize import minimize
from scipy.spatial.transform import Rotation

from bendrel.core.bend.fitting.correction import Freedom, correct
from bendrel.core.bend.told.laid import laid_out, shape_from
from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import sampled
from tests.core.fit_bench import some_plan
from tests.core.test_fit import shape_of as fit_shape
from tests.core.test_order import part_for


def off(shape: BendList, k: int, angle: float) -> BendList:
    """The part with one angle off, its bend starting where it should."""
    laid = laid_out(shape)
    angles = [a + (angle if i == k else 0) for i, a in enumerate(laid.angles_deg)]
    return shape_from(replace(laid, angles_deg=tuple(angles)))


def freedom(shape: BendList) -> Freedom:
    count = len(shape.bends)
    return Freedom(
        least_mm=(20.0, *[12.0] * (count - 1), 20.0),
        greatest_deg=180.0,
        trimmed="B",
        spare_mm=25.0,
        shorter_mm=60.0,
        place_mm=60.0,
        angle_deg=30.0,
        clock_deg=60.0,
        roll_deg=20.0,
        meets_mm=1.0,
        meets_deg=1.0,
    )


def chain(starts, angles, clocks, length, roll):
    """End B by plain rotation matrices, written on its own: point, direction and the straights."""

    def turn(axis, degrees):
        c, s = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
        if axis == "x":
            return np.array([[1, 0, 0], [0, c, -s], [0, s, c]])
        return np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]])

    pose, point, at, clock = turn("x", roll), np.zeros(3), 0.0, None
    straights = []
    for start, angle, now in zip(starts, angles, clocks, strict=True):
        straights.append(start - at)
        point = point + pose @ [start - at, 0, 0]
        pose = pose @ turn("x", 0.0 if clock is None else now - clock)
        theta = np.radians(angle)
        point = point + pose @ [15.0 * np.sin(theta), 15.0 * (1 - np.cos(theta)), 0]
        pose = pose @ turn("z", angle)
        at, clock = start + 15.0 * theta, now
    straights.append(length - at)
    return point + pose @ [length - at, 0, 0], pose[:, 0], np.array(straights)


def reference_meets(shape: BendList, as_built, made: set[int], free: Freedom, starts: int) -> bool:
    """SLSQP from many starts with the same freedom: does any of them meet the port?"""
    plan = laid_out(shape)
    goal, goal_way, planned = chain(plan.starts_mm, plan.angles_deg, plan.clocks_deg, plan.length_mm, 0.0)
    loose = [k for k in range(len(shape.bends)) if k not in made]

    def part(x):
        lists = [list(as_built.starts_mm), list(as_built.angles_deg), list(as_built.clocks_deg)]
        for i, k in enumerate(loose):
            for j in range(3):
                lists[j][k] += x[3 * i + j]
        return chain(*lists, as_built.length_mm + x[-2], x[-1])

    def miss(x):
        end, way, _ = part(x)
        return float(((end - goal) ** 2).sum() + (np.degrees(way - goal_way) ** 2).sum())

    def room(x):
        return part(x)[2] - np.minimum(free.least_mm, planned)

    bounds = []
    for k in loose:
        angle = as_built.angles_deg[k]
        most = min(free.angle_deg, free.greatest_deg - angle)
        bounds += [(-free.place_mm, free.place_mm), (-min(free.angle_deg, angle - 1), most)]
        bounds += [(-free.clock_deg, free.clock_deg)]
    bounds += [(-free.place_mm, free.spare_mm), (-free.roll_deg, free.roll_deg)]
    for seed in range(starts):
        rng = np.random.default_rng(100 + seed)
        start = [rng.uniform(low, high) / 3 for low, high in bounds]
        found = minimize(
            miss, start, method="SLSQP", bounds=bounds, options={"maxiter": 150},
            constraints={"type": "ineq", "fun": room},
        )  # fmt: skip
        if found.fun < 0.25 and room(found.x).min() > -0.1:
            return True
    return False


def test_one_bend_off_is_taken_up_by_the_rest_wherever_that_is_possible():
    """Up to ±4° off and at least two bends left: end B within 1 mm and 1°, or the reference fails too."""
    met = 0
    for seed in range(40):
        rng = random.Random(seed)
        shape = part_for(seed, rng.randint(4, 6), 15.0, low=35)
        done = rng.randint(1, len(shape.bends) - 2)
        wrong = rng.randrange(done)
        as_built = laid_out(off(shape, wrong, rng.uniform(-4, 4)))
        made, free = set(range(done)), freedom(shape)
        found = correct(as_built, shape, made, free)
        if found.meets:
            met += 1
            assert found.left.off_mm <= 1
            assert found.left.askew_deg <= 1
            kept = laid_out(found.shape)
            for k in made:
                assert kept.starts_mm[k] == pytest.approx(as_built.starts_mm[k])
                assert kept.angles_deg[k] == pytest.approx(as_built.angles_deg[k])
            for k in range(1, done):  # clocks among the made bends stay as well
                was = as_built.clocks_deg[k] - as_built.clocks_deg[0]
                assert (kept.clocks_deg[k] - kept.clocks_deg[0] - was) % 360 == pytest.approx(0, abs=1e-6)
        else:
            assert not reference_meets(shape, as_built, made, free, 6), f"seed {seed}"
    assert met >= 30


def test_the_smallest_change_is_none():
    shape = part_for(3, 5, 15.0)
    found = correct(laid_out(shape), shape, {0, 1}, freedom(shape))
    assert found.meets
    before, after = laid_out(shape), laid_out(found.shape)
    assert after.angles_deg == pytest.approx(before.angles_deg, abs=0.01)
    assert after.starts_mm == pytest.approx(before.starts_mm, abs=0.05)


def test_with_every_bend_made_nothing_brings_a_crooked_part_home():
    shape = part_for(5, 4, 15.0)
    found = correct(laid_out(off(shape, 1, 4.0)), shape, range(4), freedom(shape))
    assert not found.meets
    assert found.left.off_mm > 1


def test_a_bend_between_two_made_ones_keeps_their_distance_on_the_tube():
    shape = part_for(7, 3, 15.0, low=80)
    as_built = laid_out(off(shape, 0, 3.0))
    found = correct(as_built, shape, {0, 2}, freedom(shape))
    kept = laid_out(found.shape)
    assert kept.starts_mm[2] - kept.starts_mm[0] == pytest.approx(
        as_built.starts_mm[2] - as_built.starts_mm[0]
    )


def test_a_part_that_fits_by_roll_and_trim_is_not_re_planned():
    """Bends a little off, rolled and trimmed within 1 mm and 1°: every bend that is left stays as told."""
    stayed = 0
    for seed in range(30):
        rng = random.Random(seed)
        shape = part_for(seed, rng.randint(3, 6), 15.0, low=35)
        as_built = laid_out(off(shape, 0, rng.uniform(-0.6, 0.6)))
        free = freedom(shape)
        if not correct(as_built, shape, range(len(shape.bends)), free).meets:
            continue
        stayed += 1
        kept = laid_out(correct(as_built, shape, {0}, free).shape)
        assert kept.angles_deg == pytest.approx(as_built.angles_deg, abs=1e-9)
        for k, (now, was) in enumerate(zip(kept.starts_mm, as_built.starts_mm, strict=True)):
            assert now == pytest.approx(was, abs=1e-9), k
    assert stayed >= 10


def farthest_mm(shape: BendList, planned: BendList, roll: float) -> float:
    """How far the corners of a part, rolled, lie from the planned centreline, densely sampled."""
    turn = Rotation.from_euler("x", roll, degrees=True)
    way = np.array([point for _, point in sampled(planned, 3.0)])
    steps = np.linspace(0, 1, 40)[:, None]
    dense = np.concatenate([a + (b - a) * steps for a, b in pairwise(way)])
    corners = turn.apply([point for _, point in sampled(shape, 15.0)])
    return max(float(np.linalg.norm(dense - corner, axis=1).min()) for corner in corners)


@pytest.mark.long("statistics of many parts")
def test_with_one_bend_left_the_route_hardly_moves():
    """Parts of a hand that marks to 0.3 mm, pulls to 0.3° and turns to 0.5°, all but one bend made: 95 % (of
    20 one or two may not) of the re-plans move the route by less than 12 mm, and nearly all of them meet."""
    rng = np.random.default_rng(9)
    moved, met = [], 0
    while len(moved) < 20:
        plan = some_plan(rng)
        shape = fit_shape(plan)
        laid, made = laid_out(shape), list(range(len(shape.bends) - 1))
        turned = np.cumsum([0.0, *rng.normal(0, 0.5, len(made) - 1)])

        def beside(figures, errors):
            return tuple(f + e for f, e in zip(figures, [*errors, 0.0], strict=True))

        as_built = replace(
            laid,
            starts_mm=beside(laid.starts_mm, rng.normal(0, 0.3, len(made))),
            angles_deg=beside(laid.angles_deg, rng.normal(0, 0.3, len(made))),
            clocks_deg=beside(laid.clocks_deg, turned),
        )
        free = freedom(shape)
        if correct(as_built, shape, range(len(shape.bends)), free).meets:
            continue
        found = correct(as_built, shape, made, free)
        met += found.meets
        moved.append(farthest_mm(found.shape, shape, found.roll_deg))
    assert met >= 0.85 * len(moved)
    assert np.mean(np.array(moved) < 12) >= 0.9
