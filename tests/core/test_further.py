"""Tapes across, corners seen from A, and the old part on its sheet: against figures by hand, and against
parts whose true shape is hidden."""

from __future__ import annotations

from dataclasses import replace
from math import acos, atan2, cos, degrees, hypot, radians, sin, sqrt
from random import Random

import numpy as np
import pytest

from bendrel.core.geometry.centreline import sampled
from bendrel.core.geometry.corners import corners_from_bends
from bendrel.core.measure.adjust import Trust, adjust
from bendrel.core.measure.ask import separating, unnoticed
from bendrel.core.measure.contradiction import contradicts
from bendrel.core.measure.culprits import ranked
from bendrel.core.measure.further import Further, as_read, on_sheet, with_more
from bendrel.core.measure.landing import EndBeside, rows_of
from bendrel.core.measure.observed import Across, Corner, Given, equations, misses
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.sheet import OnDrawing, sheet_of
from bendrel.core.measure.slots import Slot, changed, moved, slots, value_of
from bendrel.core.measure.spots import across
from bendrel.core.measure.spread import spread_of
from bendrel.core.measure.worth import next_readings
from tests.core.test_adjust import ELBOW, bend, hidden, part, read_off
from tests.often import often
from tests.reading_errors import USUAL as ERRORS

HAIRPIN = part(replace(bend(100, 180), read_to="start"), last=100)
HAIRPIN = replace(HAIRPIN, last_read_from="start")


def apart(read, start, end, over=False):
    return across(outcome(read), start, end, read.od_mm, over=over)[0]


def test_a_tape_to_a_corner_goes_where_the_legs_meet():
    """Corners at (100, 0) and (100, 80): the second one lies √(100² + 80²) from A."""
    two = part(bend(100, 90), replace(bend(80, 90, 0), read_from="centre"), last=60)
    assert apart(two, "A", 1) == pytest.approx(hypot(100, 80))
    assert apart(two, 0, "B") == pytest.approx(hypot(80, 60))
    assert apart(two, "A", "B") == pytest.approx(outcome(two).tape_mm)


def test_over_the_back_a_tape_reads_to_the_farthest_place_of_the_bend():
    """A U of radius 15 whose middle lies at (100, 15): from rim A the farthest place of the back is 15 + half
    the tube beyond the middle, in line with it."""
    assert apart(HAIRPIN, "A", 0, over=True) == pytest.approx(hypot(100, 15) + 15 + 4.75 / 2)


def test_a_hairpin_has_no_corner_and_is_taken_at_the_middle_of_its_arc():
    assert apart(HAIRPIN, "A", 0) == pytest.approx(hypot(115, 15))


def test_every_derivative_is_the_slope_of_what_is_read():
    """All kinds at once, by small steps of every reading and of the roll."""
    draw = Random(1)
    for count in range(3, 7):
        true = hidden(draw, count)
        given = Given(
            place_b=(0, 0, 0),
            across=(
                Across(start="A", end=1, mm=0),
                Across(start=0, end=count - 1, mm=0),
                Across(start="B", end=0, mm=0, over=True),
                Across(start=0, end=2, mm=0, over=True),
            ),
            corners=(Corner(bend=1, sides=(0, None, 0)),),
            laid=laid_on(sheet_of(true).port, 0, (0, 0), (0, 0)),
        )
        size, roll = len(list(slots(true))), draw.uniform(-5, 5)
        rows, _ = equations(true, given, ERRORS, spread_of(true, ERRORS), roll)

        def off(k, by, true=true, given=given, size=size, roll=roll):
            steps = [by if j == k else 0.0 for j in range(size)]
            return misses(given, outcome(moved(true, steps)), true.od_mm, roll + (by if k == size else 0.0))

        for k in range(size + 1):
            slope = (off(k, -1e-4) - off(k, 1e-4)) / 2e-4
            assert rows[:, k] == pytest.approx(slope, abs=1e-4), (count, k)


def laid_on(port, along, beside, lean, mm=0.5 / sqrt(3)):
    (x, y), (lean_x, lean_y) = beside, lean
    landing = EndBeside(
        along_mm=along,
        off_mm=hypot(x, y),
        off_clock_deg=degrees(atan2(y, x)),
        tilt_deg=hypot(lean_x, lean_y),
        tilt_clock_deg=degrees(atan2(lean_y, lean_x)),
        mm_error=mm,
        deg_error=1 / sqrt(3),
    )
    return OnDrawing(rows=rows_of(landing), port=port)


def test_too_long_on_the_sheet_is_shared_by_weights():
    """One corner of 90°, all but the last leg held: of 2 mm too long, read to a third of what a leg is, it
    takes 9/10."""
    angle = Trust(held=frozenset((Slot(row=0, field="angle"), Slot(row=0, field="length"))))
    sheet = laid_on(sheet_of(ELBOW).port, 2, (0, 0), (0, 0), mm=0.5 / sqrt(3) / 3)
    fit = adjust(ELBOW, Given(laid=sheet), ERRORS, angle)
    assert value_of(fit.read, Slot(row=1, field="last")) == pytest.approx(80 + 2 * 0.9)


def test_a_part_that_is_only_rolled_on_its_sheet_changes_nothing():
    """Out of the plane by what 4° about A makes of the 80 mm leg: the roll takes it all."""
    turn = radians(4)
    sheet = laid_on(sheet_of(ELBOW).port, 80 * (cos(turn) - 1), (0, 80 * sin(turn)), (0, degrees(turn)))
    fit = adjust(ELBOW, Given(laid=sheet), ERRORS)
    assert max(abs(one.change) for one in fit.taken) < 0.01


def lying_on(true, port):
    """The old part on its sheet, rolled until its end lies nearest: the roll as a matrix."""
    end = outcome(true).end

    def off(turned):
        away = turned @ end.point - port.point
        return hypot(away @ port.noon, away @ port.three)

    rolls = np.radians(np.arange(-25, 25, 0.1))
    return min(
        (np.array([[1, 0, 0], [0, cos(r), -sin(r)], [0, sin(r), cos(r)]]) for r in rolls),
        key=off,
    )


def on_its_sheet(draw, true, port):
    """Where its end B lies there, read to ±0.5 mm and ±1°, without the program's own sums."""
    end, turned = outcome(true).end, lying_on(true, port)
    off, way = turned @ end.point - port.point, turned @ end.way
    leans = [degrees(atan2(way @ side, way @ port.way)) for side in (port.noon, port.three)]
    told = [off @ port.way, off @ port.noon, off @ port.three, *leans]
    read = [v + draw.uniform(-e, e) for v, e in zip(told, (0.5, 0.5, 0.5, 1, 1), strict=True)]
    return laid_on(port, read[0], read[1:3], read[3:])


def bend_on_its_sheet(draw, true, sheet, k):
    """Where bend `k` lies beside its drawing, read to ±0.5 mm, a square across the drawn tube: the true tube
    as a chain of short chords, where it crosses that plane nearest to the drawn place."""
    drawn, turned = sheet.bends[k], lying_on(true, sheet.port)
    tube = np.array([p for _, p in sampled(outcome(true).shape, 0.5)]) @ turned.T - drawn.point
    along = tube @ np.array(drawn.way)
    here, there = tube[:-1], tube[1:]
    crosses = along[:-1] * along[1:] <= 0
    share = along[:-1][crosses] / (along[:-1] - along[1:])[crosses]
    met = here[crosses] + share[:, None] * (there - here)[crosses]
    off = met[np.argmin(np.linalg.norm(met, axis=1))]
    return tuple(
        replace(one, mm=float(off @ one.side) + draw.uniform(-0.5, 0.5)) for one in on_sheet(sheet, k, ERRORS)
    )


def taken(draw, one, true, read):
    """A reading of the true part with the errors that people make."""
    if one.kind == "sheet":
        return Given(laid=on_its_sheet(draw, true, sheet_of(read).port))
    if one.kind == "bend on sheet":
        sheet = sheet_of(read)
        return Given(laid=OnDrawing(port=sheet.port, bends=bend_on_its_sheet(draw, true, sheet, one.start)))
    told = as_read(one, outcome(true), sheet_of(read), true.od_mm, ERRORS)
    off = draw.uniform(-0.5, 0.5)
    if told.place_b:
        return Given(place_b=tuple(side + draw.uniform(-1, 1) for side in told.place_b))
    if told.way_b:
        way = np.array(told.way_b) + np.radians([draw.uniform(-1, 1) for _ in range(3)])
        return Given(way_b=tuple(float(v) for v in way / np.linalg.norm(way)))
    return replace(
        told,
        tape_mm=told.tape_mm and told.tape_mm + off,
        wire_mm=told.wire_mm and told.wire_mm + off,
        across=tuple(replace(tape, mm=tape.mm + off) for tape in told.across),
    )


def as_asked(draw, true, read, most=3):
    """What is given once everything that the program asks for is read, up to so many."""
    given = Given()
    for _ in range(most):
        if contradicts(read, given, outcome(read), ERRORS):
            asked = separating(read, given, ranked(read, given, ERRORS), ERRORS)
            one = asked and asked.reading
        else:
            told = next_readings(read, given, ERRORS, Trust(), (1.0, 1.0))
            asked = None if told.worth else unnoticed(read, given, ERRORS)
            one = told.worth[0].reading if told.worth else asked and asked.reading
        if one is None:
            break
        given = with_more(given, taken(draw, one, true, read))
    return given


def met(true, got):
    """How near end B of `got` comes to the true port, rolled to its best: mm and degrees."""
    port, end = outcome(true).end, outcome(got).end
    found = (1e9, 1e9)
    for roll in np.radians(np.arange(-6, 6, 0.05)):
        turned = np.array([[1, 0, 0], [0, cos(roll), -sin(roll)], [0, sin(roll), cos(roll)]])
        mm = float(np.linalg.norm(turned @ end.point - port.point))
        deg = degrees(acos(min(1.0, float(turned @ end.way @ port.way))))
        found = min(found, (mm, deg), key=max)
    return found


@pytest.mark.long("many parts, each advised three times")
def test_with_what_it_asks_for_the_part_meets_its_port():
    """Parts of 3 to 8 bends, legs ±0.5 mm, angles ±1°, at most three more readings: 95 of 100 within 1 mm and
    1°, all within 3, and hardly one said to contradict itself (issue: 200 parts, 1.5 % as read)."""
    draw, misses_, false, count = Random(29), [], 0, often(24, 200)
    for _ in range(count):
        true = hidden(draw, draw.randint(3, 8))
        read = read_off(draw, true)
        given = as_asked(draw, true, read)
        false += contradicts(read, given, outcome(read), ERRORS)
        misses_.append(met(true, adjust(read, given, ERRORS).read))
    near = [max(miss) <= 1 for miss in misses_]
    assert sum(near) >= 0.95 * count
    assert all(max(miss) <= 3 for miss in misses_)
    assert false <= max(1, 0.05 * count)


def slipped(draw, read):
    """One slip: a leg 10, 20 or 25.4 mm, an angle 5 or 10°."""
    slot = draw.choice([one for one in slots(read) if one.kind != "plane"])
    by = draw.choice((10, 20, 25.4) if slot.kind == "length" else (5, 10)) * draw.choice((-1, 1))
    return slot, changed(read, slot, by)


@pytest.mark.long("many parts, each advised three times")
def test_one_slip_is_noticed_and_named():
    draw, noticed, first, count = Random(5), 0, 0, often(20, 200)
    for _ in range(count):
        true = hidden(draw, draw.randint(3, 8))
        slot, read = slipped(draw, read_off(draw, true))
        given = as_asked(draw, true, read)
        if contradicts(read, given, outcome(read), ERRORS):
            noticed += 1
            first += ranked(read, given, ERRORS)[0][1].what == slot
    assert noticed >= 0.95 * count
    assert first >= 0.8 * count


def test_a_sheet_that_is_read_whole_is_not_asked_for_again():
    draw = Random(2)
    true = hidden(draw, 4)
    read = read_off(draw, true)
    whole = Given(laid=on_its_sheet(draw, true, sheet_of(read).port))
    part_of = Given(laid=replace(whole.laid, rows=whole.laid.rows[:1]))
    kinds = [
        {one.reading.kind for one in next_readings(read, given, ERRORS, Trust(), (0.1, 0.1)).worth}
        for given in (part_of, whole)
    ]
    assert ("sheet" in kinds[0], "sheet" in kinds[1]) == (True, False)


def test_corner_points_are_brought_nearer_by_the_sheet_too():
    """Corner points ±1 mm of 40 lines: three quarters meet their port within 1 mm and 1° with what is asked
    for (issue: 40 % as read)."""
    draw, near, count = Random(8), 0, 16
    for _ in range(count):
        true = hidden(draw, draw.randint(3, 6))
        made = corners_from_bends(outcome(true).shape)
        read = moved(made, [draw.uniform(-1, 1) for _ in slots(made)])
        given = Given()
        for kind in ("sheet", "tape"):
            given = with_more(given, taken(draw, Further(kind=kind), true, read))
        near += max(met(true, adjust(read, given, ERRORS).read)) <= 1
    assert near >= 0.75 * count
