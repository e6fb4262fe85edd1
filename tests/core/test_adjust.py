"""All readings adjusted together: against sums done by hand, and against parts whose true shape is hidden."""

from __future__ import annotations

from dataclasses import replace
from math import acos, degrees, dist, hypot, radians
from random import Random

import numpy as np
import pytest

from bendrel.core.line.checks import Checks
from bendrel.core.measure.adjust import Trust, adjust, expected
from bendrel.core.measure.legs import ReadBend, ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.slots import Slot, moved, slots, value_of
from bendrel.core.measure.worth import next_readings
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.lines import bent, row
from tests.reading_errors import USUAL

ERRORS = USUAL
ALL = frozenset((Slot(row=0, field="angle"), Slot(row=1, field="last")))


def bend(at, angle, turn=0.0, to="centre"):
    return ReadBend(
        by="leg",
        at_mm=at,
        to_mm=None,
        read_from="outside",
        read_to=to,
        angle_deg=angle,
        clock_deg=None,
        rotation_deg=turn,
        radius_mm=15.0,
    )


def part(*bends, last):
    return ReadBends(bends=bends, last_mm=last, last_by="leg", last_read_from="centre", od_mm=4.75)


ELBOW = part(bend(100, 90), last=80)
"""Corner 100 ahead of end A, then 80 towards 12 o'clock."""


def lengths(read):
    return [value_of(read, slot) for slot in slots(read)]


def test_without_further_readings_all_is_taken_as_read():
    fit = adjust(ELBOW, Given(), ERRORS)
    assert fit.read == ELBOW
    assert all(one.change == 0 for one in fit.taken)


def test_readings_that_agree_change_nothing():
    made = outcome(ELBOW)
    fit = adjust(ELBOW, Given(place_b=made.point, way_b=made.way_b, tape_mm=made.tape_mm), ERRORS)
    assert max(abs(one.change) for one in fit.taken) < 1e-9


def test_a_straight_tube_is_taken_half_way_between_two_equal_readings():
    """Two readings of one length, each as good: their mean, with 1/√2 of the doubt of one."""
    straight = part(last=100)
    fit = adjust(straight, Given(tape_mm=101), ERRORS)
    assert lengths(fit.read) == [pytest.approx(100.5)]
    alone = adjust(straight, Given(), ERRORS)
    assert fit.taken[0].doubt == pytest.approx(alone.taken[0].doubt / 2**0.5)


def test_a_closing_error_is_shared_by_weights():
    """Leg ±0.5 and place ±1: of 3 mm that end B stands further ahead the leg takes 0.25/(0.25 + 1)."""
    fit = adjust(ELBOW, Given(place_b=(103, 80, 0)), ERRORS, Trust(held=ALL))
    assert lengths(fit.read) == [pytest.approx(100.6), 90, 80]


def test_a_reading_that_is_left_out_is_found_from_the_others():
    """The leg read as 110: left out, end B's place says 100, as well as it is read (±1 mm) and as the angle,
    ±1° over a lever of 80 mm, lets it."""
    slip = replace(ELBOW, bends=(bend(110, 90),))
    leg = Slot(row=0, field="length")
    fit = adjust(slip, Given(place_b=(100, 80, 0)), ERRORS, Trust(left_out=frozenset((leg,))))
    found = fit.taken[0]
    assert 110 + found.change == pytest.approx(100, abs=0.2)
    assert found.doubt == pytest.approx(1.96 * hypot(1 / 3**0.5, 80 * radians(1) / 3**0.5), rel=0.02)


def test_all_readings_are_moved_at_once_as_one_by_one():
    read = part(bend(100, 90), bend(60, 45, 30), last=80)
    by = [1.0, 2.0, 3.0, 4.0, 5.0, 6.0]
    assert lengths(moved(read, by)) == [101, 92, 63, 49, 35, 86]


def hidden(draw, bends):
    rows = [
        bend(draw.uniform(60, 250), draw.uniform(20, 120), draw.uniform(-180, 180), "outside")
        for _ in range(bends)
    ]
    rows[0] = replace(rows[0], rotation_deg=0.0)
    return replace(part(*rows, last=draw.uniform(60, 200)), last_read_from="outside")


def read_off(draw, true):
    def off(by):
        return draw.uniform(-by, by)

    return moved(true, [off(0.5) if slot.kind == "length" else off(1.0) for slot in slots(true)])


def seen_from_a(draw, true):
    made = outcome(true)
    ahead, up, right = (side + draw.uniform(-1, 1) for side in made.point)
    way = np.array(made.way_b) + np.radians([draw.uniform(-1, 1) for _ in range(3)])
    x, y, z = way / np.linalg.norm(way)
    return Given(place_b=(ahead, up, right), way_b=(float(x), float(y), float(z)))


def test_end_b_is_as_near_as_is_said_and_nearer_with_each_reading():
    """200 parts of 3 to 8 bends, legs ±0.5 mm, angles and planes ±1°, end B by rule and square ±1 mm, ±1°."""
    draw, within, misses = Random(29), {"read": 0, "taken": 0}, {"read": [], "taken": []}
    for _ in range(200):
        true = hidden(draw, draw.randint(3, 8))
        read, given, made = read_off(draw, true), seen_from_a(draw, true), outcome(true)
        for name, what in (("read", Given()), ("taken", given)):
            fit = adjust(read, what, ERRORS)
            got = outcome(fit.read)
            miss = dist(got.point, made.point)
            within[name] += miss <= fit.doubt.end_b_mm
            askew = degrees(acos(min(1.0, float(np.dot(got.way_b, made.way_b)))))
            misses[name].append((miss, askew))
    assert all(0.92 <= share / 200 <= 0.98 for share in within.values()), within
    assert np.median([miss for miss, _ in misses["read"]]) > 5
    assert np.mean([miss <= 3 and askew <= 3 for miss, askew in misses["taken"]]) == 1.0
    assert np.median([miss for miss, _ in misses["taken"]]) < 1.1


def test_what_it_would_bring_is_what_it_brings():
    draw = Random(3)
    true = hidden(draw, 5)
    read, given = read_off(draw, true), seen_from_a(draw, true)
    told = next_readings(read, Given(way_b=given.way_b), ERRORS, Trust(), (1.0, 1.0))
    assert told.worth[0].reading.kind == "sheet"
    (place,) = [one for one in told.worth if one.reading.kind == "place B"]
    assert place.meets_mm < told.meets_mm / 3
    assert place.meets_mm == pytest.approx(adjust(read, given, ERRORS).doubt.meets_mm, rel=0.05)
    assert told.meets_mm == expected(read, Given(way_b=given.way_b), ERRORS).meets_mm
    assert next_readings(read, given, ERRORS, Trust(), (5.0, 5.0)).enough


def line(checks=None):
    made = bent(row(100, 90), row(60, 45, "3:00"), last=80)
    (tube,) = made.spans
    return replace(made, spans=(replace(tube, checks=checks or Checks()),))


def stands(kit, made, *by):
    """Where end B of a planned line stands from A, so many mm off."""
    end = plan_line(made, kit).part.end_b.point
    ahead, up, right = (Length(text=f"{side + off:.3f} mm") for side, off in zip(end, by, strict=True))
    return Checks(ahead=ahead, up=up, right=right)


def test_the_plan_is_made_of_what_is_taken(kit):
    read = line()
    fit = line(stands(kit, read, 1.2, 0.0, 0.0))
    was, now = plan_line(read, kit), plan_line(fit, kit)
    (piece,) = now.pieces
    assert now.part.end_b.point[0] - was.part.end_b.point[0] == pytest.approx(1.2, abs=0.6)
    assert now.part.end_b.point[0] > was.part.end_b.point[0] + 0.2
    assert [one.path.split("/")[-1] for one in piece.measured.taken][:2] == ["length", "angle"]
    assert piece.measured.doubt.end_b_mm < was.pieces[0].measured.doubt.end_b_mm
    assert fit.spans[0].readings == read.spans[0].readings


def test_nothing_is_bent_to_fit_what_contradicts(kit):
    plan = plan_line(line(stands(kit, line(), 40.0, 0.0, 0.0)), kit)
    assert plan.part.end_b.point == plan_line(line(), kit).part.end_b.point
    assert (plan.pieces[0].measured.taken, plan.pieces[0].measured.disagree) == ((), True)
    (said,) = [one for one in plan.findings if one.code == "check_place_b"]
    assert said.title.startswith("End B stands 40 mm from where the readings say")


def test_two_of_three_lengths_are_asked_for_by_name(kit):
    checks = replace(stands(kit, line(), 0, 0, 0), right=Length())
    (problem,) = plan_line(line(checks), kit).pieces[0].measured.problems
    assert problem.path == f"/spans/{line(checks).spans[0].id}/checks/right"
    assert problem.message == "Say all three: how far end B stands towards 3 o’clock, 0 for none."
