"""Bends of the old part beside their drawing and over the board: by hand, and by slopes."""

from __future__ import annotations

from dataclasses import replace
from math import asin, cos, degrees, radians, sin, sqrt
from random import Random

import pytest

from bendrel.core.geometry.corners import corners_from_bends
from bendrel.core.measure.adjust import adjust
from bendrel.core.measure.contradiction import contradicts
from bendrel.core.measure.culprits import ranked
from bendrel.core.measure.further import on_sheet
from bendrel.core.measure.observed import Given, equations, misses
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.sheet import OnDrawing, off_drawn, sheet_of, sides_of
from bendrel.core.measure.slots import Slot, changed, moved, slots
from bendrel.core.measure.spread import spread_of
from tests.core.test_adjust import ELBOW, bend, hidden, part, read_off
from tests.core.test_further import bend_on_its_sheet, laid_on, on_its_sheet
from tests.reading_errors import USUAL as ERRORS

STAIR = part(bend(100, 90), bend(80, 90, 180), last=60)
"""Down at (100, 0) and straight on again from (100, 80): both bends turn in one plane."""


def off(read, shown, k, roll_deg=0.0):
    """How far bend `k` of `read` lies to the left and above where the sheet of `shown` draws it."""
    sheet = sheet_of(shown)
    return tuple(off_drawn(one, outcome(read), roll_deg) for one in on_sheet(sheet, k, ERRORS))


def pushed(mm):
    """Outwards at the middle of an arc of 90° and radius 15 that is pushed along the leg before it: where the
    line from the drawn arc's middle point out through its middle meets the pushed circle."""
    aside = mm / sqrt(2)
    return aside + sqrt(15**2 - aside**2) - 15


def test_a_leg_that_is_longer_shows_square_to_the_bend():
    """The elbow's first leg is 2 mm longer: so is its arc's middle pushed along that leg."""
    longer = changed(ELBOW, Slot(row=0, field="length"), 2.0)
    left, above = off(longer, ELBOW, 0)
    assert (abs(left), above) == pytest.approx((pushed(2), 0), abs=1e-9)


def test_outside_of_a_left_turn_is_to_the_right():
    """Seen from above the elbow turns left or right as it lies; where the part lies farther out it is off
    towards the side that the bend does not turn to."""
    sheet, longer = sheet_of(ELBOW), changed(ELBOW, Slot(row=0, field="length"), 2.0)
    turns_left = sheet.up[2] > 0  # the part's own frame turns to +y, which is left of +x seen from +z
    left, _ = off(longer, ELBOW, 0)
    assert (left < 0) == turns_left


def test_a_rolled_part_rises_by_its_distance_from_the_axis():
    """The middle of the stair's second bend, rolled by 4° about A, rises by its distance from A's axis times
    the sine."""
    _, above = off(STAIR, STAIR, 1, roll_deg=4)
    away = sheet_of(STAIR).bends[1].point[1]
    assert abs(above) == pytest.approx(abs(away * sin(radians(4))), rel=0.01)


def test_a_height_on_a_slope_counts_square_to_the_tube():
    """On a tube that rises by 30° what is straight above counts by the cosine; one that stands has none."""
    rise = asin(0.5)
    sides = sides_of((cos(rise), 0.0, sin(rise)), (0.0, 0.0, 1.0), 60.0)
    assert sides.above == pytest.approx((-0.5, 0, cos(rise)))
    assert sides.left == pytest.approx((0, 1, 0))
    assert sides.level == pytest.approx(cos(rise))
    assert sides_of((0.1, 0.0, 0.995), (0.0, 0.0, 1.0), 60.0) is None


def test_every_slope_of_bends_on_the_sheet():
    draw = Random(3)
    for count in (3, 5):
        bends = hidden(draw, count)
        for true in (bends, corners_from_bends(outcome(bends).shape)):
            sheet = sheet_of(true)
            read = moved(true, [draw.uniform(-3, 3) for _ in slots(true)])
            offs = tuple(one for k in range(count) for one in on_sheet(sheet, k, ERRORS))
            given = Given(laid=OnDrawing(port=sheet.port, bends=offs))
            rows, _ = equations(read, given, ERRORS, spread_of(read, ERRORS), 2.0)
            size = len(list(slots(read)))

            def miss(k, by, read=read, given=given, size=size):
                steps = [by if j == k else 0.0 for j in range(size)]
                return misses(given, outcome(moved(read, steps)), 4.75, 2.0 + (by if k == size else 0.0))

            for k in range(size + 1):
                assert rows[:, k] == pytest.approx((miss(k, -1e-4) - miss(k, 1e-4)) / 2e-4, abs=1e-4)


def test_one_height_alone_says_nothing_the_part_is_only_rolled():
    (above,) = (one for one in on_sheet(sheet_of(STAIR), 1, ERRORS) if abs(one.side[1]) < 0.5)
    given = Given(laid=OnDrawing(port=sheet_of(STAIR).port, bends=(replace(above, mm=4.0),)))
    assert not contradicts(STAIR, given, outcome(STAIR), ERRORS)
    fit = adjust(STAIR, given, ERRORS)
    assert max(abs(one.change) for one in fit.taken) < 0.05


def test_a_bend_on_the_sheet_tells_which_of_two_legs_is_longer():
    """A stair whose end B lands 10 mm ahead: its first or its last leg was misread, and end B cannot tell
    which. Its first bend lies as drawn, so it is the last; outside of it, and it is the first."""
    port = sheet_of(STAIR).port
    landed = laid_on(port, 10, (0, 0), (0, 0))
    named = []
    for out in (0.0, pushed(10)):
        offs = on_sheet(sheet_of(STAIR), 0, ERRORS)
        turns = off(changed(STAIR, Slot(row=0, field="length"), 1.0), STAIR, 0)[0]
        bends = (replace(offs[0], mm=out if turns > 0 else -out), offs[1])
        given = Given(laid=replace(landed, bends=bends))
        named.append(ranked(STAIR, given, ERRORS)[0][1])
    assert [one.what for one in named] == [Slot(row=2, field="last"), Slot(row=0, field="length")]
    assert [one.change for one in named] == pytest.approx([10, 10], abs=0.5)


def test_a_bend_misread_on_the_sheet_is_named_itself():
    """All agrees but one bend, which is said to lie 12 mm beside: that reading is wrong, not the line."""
    draw, named = Random(4), 0
    for _ in range(6):
        true = hidden(draw, 4)
        read = read_off(draw, true)
        sheet = sheet_of(read)
        bends = tuple(one for k in range(1, 4) for one in bend_on_its_sheet(draw, true, sheet, k))
        wrong = tuple(replace(one, mm=one.mm + 12 * (j == 2)) for j, one in enumerate(bends))
        laid = replace(on_its_sheet(draw, true, sheet.port), bends=wrong)
        first = ranked(read, Given(laid=laid), ERRORS)[0][1].what
        named += getattr(first, "kind", "") == "bend on sheet" and first.start == wrong[2].bend
    assert named >= 5


def test_the_doubt_of_the_roll_is_its_own():
    """Degrees of roll that a height tells: what it is off, over its distance from A's axis."""
    away = abs(sheet_of(STAIR).bends[1].point[1])
    (above,) = (one for one in on_sheet(sheet_of(STAIR), 1, ERRORS) if abs(one.side[1]) < 0.5)
    given = Given(laid=OnDrawing(port=sheet_of(STAIR).port, bends=(above,)))
    rows, own = equations(STAIR, given, ERRORS, spread_of(STAIR, ERRORS))
    assert sqrt(own[0]) / abs(rows[0, -1]) == pytest.approx(degrees(ERRORS.laid_sd_mm / away), rel=1e-3)
