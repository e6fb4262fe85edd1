"""What the free side, the clamped side and the lever run into, against the same motion followed in small
steps by rotation matrices."""

from __future__ import annotations

import numpy as np
import pytest

from bendrel.core.bend.tool.body import Block, Surroundings
from bendrel.core.bend.tool.sides import Tail, swung
from bendrel.core.bend.tool.swing import levered, meeting, resting, swinging

R, KEEP = 20.0, 6.0


def drawn_round(point, along, phi):
    """Where a point of the free side lies when the bend stands at each `phi`: slid back by what was wound on,
    then turned with it about (0, R). Shape (n, 3)."""
    phi = np.atleast_1d(phi)
    wound = np.minimum(along, R * phi)
    c, s = np.cos(wound / R), np.sin(wound / R)
    x, y = point[0] - wound, point[1] - R
    return np.column_stack([c * x - s * y, s * x + c * y + R, np.full(len(phi), point[2])])


def single(point, along=600.0):
    return Tail(points=np.array([point], dtype=float), along=np.array([along]))


def test_a_point_goes_round_as_it_is_wound():
    for phi in (0, 30, 90, 170):
        told = swung(single((150.0, -12.0, 7.0)), R, phi)[0]
        assert told == pytest.approx(drawn_round((150.0, -12.0, 7.0), 600.0, np.radians(phi))[0])


def test_the_free_side_meets_the_clamped_side_where_they_come_near():
    """Pairs of points drawn at random: told when they come nearer than what is kept, silent when they stay
    clear of it by a hair; the rule looks at passing moments, so the narrow band between is left out."""
    rng = np.random.default_rng(5)
    near = clear = 0
    for _ in range(700):
        angle = rng.uniform(40, 180)
        p = np.array([rng.uniform(30, 160), rng.uniform(-60, 160), rng.uniform(-12, 12)])
        phi = np.radians(rng.uniform(0, angle))
        close = drawn_round(p, 600.0, phi)[0]
        off = rng.normal(size=3)
        q = close + off / np.linalg.norm(off) * rng.choice([rng.uniform(0, 5.0), rng.uniform(8.0, 40.0)])
        path = drawn_round(p, 600.0, np.radians(np.linspace(0, angle, 2001)))
        gap = np.linalg.norm(path - q, axis=1).min()
        told = meeting(single(p), single(q), R, angle, KEEP)
        if gap < KEEP - 0.5:
            near += 1
            assert told is not None, (p, q, angle, gap)
            assert (told.thing, told.side, told.along_mm) == ("the tube itself", "free", 600.0)
            there = np.linalg.norm(drawn_round(p, 600.0, np.radians(told.at_deg))[0] - q)
            assert there < KEEP + 1.5
        elif gap > KEEP + 0.5:
            clear += 1
            assert told is None, (p, q, angle, gap)
    assert min(near, clear) > 150


def test_a_swing_that_ends_just_before_the_other_tube_ends_too_near():
    """At 90° the free side lies two degrees of its way short of the tube that stands there."""
    for phi in (90, 140):
        p = (140.0, 30.0, 2.0)
        short = drawn_round(p, 600.0, np.radians(phi))[0]
        q = drawn_round(p, 600.0, np.radians(phi + 2))[0]
        gap = np.linalg.norm(q - short)
        assert 2 < gap < 6
        told = meeting(single(p), single(q), R, phi, gap + 0.05)
        assert told is not None
        assert told.at_deg == pytest.approx(phi)
        assert meeting(single(p), single(q), R, phi, gap - 0.05) is None


def test_neighbours_along_the_tube_are_no_contact():
    one, other = single((5.0, 0.0, 0.0), 5.0), single((-5.0, 0.0, 0.0), 5.0)
    assert meeting(one, other, R, 90, KEEP) is None
    assert meeting(single((5.0, 0.0, 0.0), 100.0), other, R, 90, KEEP + 20) is not None


def first_inside(path, block, keep):
    """The first of a path's points within a box and what is kept around it; None where none is."""
    low, high = np.array(block.low) - keep, np.array(block.high) + keep
    hit = np.all((path > low) & (path < high), axis=1)
    return int(np.argmax(hit)) if hit.any() else None


def test_the_free_side_runs_into_boxes():
    """A point and a box at random: told when the stepped path passes through the box with what is kept around
    it, silent when the path stays a millimetre clear of that."""
    rng = np.random.default_rng(8)
    hit = clear = 0
    for _ in range(700):
        angle = rng.uniform(30, 180)
        p = np.array([rng.uniform(40, 250), rng.uniform(-80, 150), rng.uniform(-200, 200)])
        middle = drawn_round(p, 600.0, np.radians(rng.uniform(0, angle)))[0] + rng.normal(size=3) * 25
        half = rng.uniform(3, 30, size=3)
        block = Block(name="thing", low=tuple(middle - half), high=tuple(middle + half))
        around = Surroundings(blocks=(block,), die_half_mm=-90.0, mount="on the bench")
        path = drawn_round(p, 600.0, np.radians(np.linspace(0, angle, 2001)))
        told = swinging(single(p), around, R, angle, KEEP, 10.0)
        touched, near = (first_inside(path, block, keep) for keep in (KEEP, KEEP + 1.0))
        if touched is not None:
            hit += 1
            assert told is not None
            assert (told.thing, told.side) == ("thing", "free")
            assert angle * near / 2000 - 3.01 <= told.at_deg <= angle * touched / 2000 + 0.2
        elif near is None:
            clear += 1
            assert told is None
    assert min(hit, clear) > 150


def test_what_is_wound_on_moves_no_more():
    """5 mm along, the point lies on the die after 14.3°; a box where it would have gone on to is not met."""
    early = single((5.0, 0.0, 0.0), 5.0)
    place = drawn_round((5.0, 0.0, 0.0), 600.0, np.radians(150))[0]
    block = Block(name="thing", low=tuple(place - 1), high=tuple(place + 1))
    around = Surroundings(blocks=(block,), die_half_mm=-90.0, mount="on the bench")
    assert swinging(early, around, R, 170, 1.0, 10.0) is None


def test_the_lever_against_the_clamped_side_as_it_goes_round():
    """Seen from the lever the clamped point goes back about (0, R): the same in steps."""
    rng = np.random.default_rng(11)
    lever = Block(name="lever", low=(30.0, -28.0, -18.0), high=(150.0, -12.0, 18.0), swings=True)
    hit = clear = 0
    for _ in range(700):
        angle = rng.uniform(30, 175)
        # somewhere about the lever, gone on round the die with it
        there, gone = rng.uniform([0, -60, -35], [170, 20, 35]), np.radians(rng.uniform(0, 200))
        x, y = there[0], there[1] - R
        c, s = np.cos(gone), np.sin(gone)
        q = np.array([c * x - s * y, s * x + c * y + R, there[2]])
        steps = np.radians(np.linspace(0, angle, 1501))
        x, y = q[0], q[1] - R
        c, s = np.cos(steps), np.sin(steps)
        seen = np.column_stack([c * x + s * y, c * y - s * x + R, np.full(1501, q[2])])
        told = levered(single(q), (lever,), R, angle, KEEP, 10.0)
        touched, near = (first_inside(seen, lever, keep) for keep in (KEEP, KEEP + 1.0))
        if touched is not None:
            hit += 1
            assert told is not None
            assert (told.thing, told.side) == ("lever", "clamped")
            assert angle * near / 1500 - 3.01 <= told.at_deg <= angle * touched / 1500 + 0.2
        elif near is None:
            clear += 1
            assert told is None
    assert min(hit, clear) > 100


def test_the_clamped_side_rests_in_boxes_beyond_the_grip():
    block = Block(name="thing", low=(-100.0, 40.0, -10.0), high=(-50.0, 60.0, 10.0))
    around = Surroundings(blocks=(block,), die_half_mm=-90.0, mount="on the bench")
    for point, touches in (
        ((-45.0, 50.0, 0.0), True), ((-43.5, 50.0, 0.0), False), ((-106.5, 50.0, 0.0), False),
        ((-75.0, 34.5, 0.0), True), ((-75.0, 33.5, 0.0), False), ((-75.0, 66.5, 0.0), False),
        ((-75.0, 50.0, 15.5), True), ((-75.0, 50.0, 16.5), False), ((-75.0, 50.0, -16.5), False),
    ):  # fmt: skip
        found = resting(single(point), around, R, KEEP, 20.0)
        assert (found is not None) == touches, point
        if found:
            assert (found.thing, found.at_deg, found.side) == ("thing", 0.0, "clamped")
    swinging_one = Block(name="lever", low=block.low, high=block.high, swings=True)
    around = Surroundings(blocks=(swinging_one,), die_half_mm=-90.0, mount="on the bench")
    assert resting(single((-75.0, 50.0, 0.0)), around, R, KEEP, 20.0) is None
