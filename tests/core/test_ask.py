"""The one more check that is asked for, against simulated misreadings and planes on the wrong side."""

from __future__ import annotations

import random
from dataclasses import replace
from math import hypot

import pytest

from bendrel.core.measure.ask import separating, unnoticed
from bendrel.core.measure.culprits import ranked
from bendrel.core.measure.doubt import doubt_of
from bendrel.core.measure.legs import ReadBend, ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.slots import changed, slots
from bendrel.core.measure.spread import spread_of
from tests.reading_errors import reading_errors

ERRORS = reading_errors(gross_mm=40.0, gross_deg=15.0)


def bends(*rows, last=120.0) -> ReadBends:
    """(leg, angle, rotation) of each bend, sighted to the centreline corner."""
    return ReadBends(
        bends=tuple(
            ReadBend(
                by="leg", at_mm=leg, to_mm=None, read_from="centre", read_to="centre", angle_deg=angle,
                rotation_deg=turn, clock_deg=None, radius_mm=15.0,
            )
            for leg, angle, turn in rows
        ),
        last_mm=last, last_by="leg", last_read_from="centre", od_mm=4.7625,
    )  # fmt: skip


def test_a_plane_that_nothing_would_notice_asks_for_the_way_of_port_b():
    """Two bends: their handedness changes neither wire nor tape, only the way into B."""
    asked = unnoticed(bends((100, 90, None), (80, 60, 90)), Given(), ERRORS)
    assert asked is not None
    assert asked.kind == "way B"
    assert [slot.row for slot in asked.between] == [1]
    known = outcome(bends((100, 90, None), (80, 60, 90)))
    assert unnoticed(bends((100, 90, None), (80, 60, 90)), Given(way_b=known.way_b), ERRORS) is None


def test_in_one_plane_there_is_no_other_side():
    assert unnoticed(bends((100, 90, None), (80, 60, 0), (70, 45, 180)), Given(), ERRORS) is None


def test_a_check_that_notices_it_already_is_not_asked_for_again():
    """Three bends: the tape from rim to rim tells on which side the third one lies."""
    read = bends((100, 90, None), (80, 90, 90), (150, 90, 90))
    taken = Given(tape_mm=outcome(read).tape_mm)
    assert unnoticed(read, Given(), ERRORS) is not None
    assert unnoticed(read, taken, ERRORS) is None
    doubt = doubt_of(spread_of(read, ERRORS))
    for row in (1, 2):
        slot = next(slot for slot in slots(read) if (slot.row, slot.field) == (row, "plane"))
        over = outcome(changed(read, slot, -180.0))
        assert abs(over.tape_mm - taken.tape_mm) > hypot(doubt.tape_mm, ERRORS.length_mm)


def test_a_leg_that_was_misread_is_named_first_far_oftener_once_the_check_asked_for_is_taken():
    """60 lines with one leg read 12 to 40 mm wrong and the tape taken: what is asked for is taken of the true
    line, until nothing more is asked for."""
    rng = random.Random(2)
    before = after = tried = 0
    while tried < 60:
        rows = [(rng.uniform(60, 250), rng.choice([30, 45, 60, 90]), None)]
        rows += [(rng.uniform(60, 250), rng.choice([30, 45, 60, 90]), rng.choice([90, -90, 45, 180, 120]))
                 for _ in range(rng.randint(2, 5))]  # fmt: skip
        true = bends(*rows, last=rng.uniform(60, 250))
        known = outcome(true)
        wrong = rng.choice([slot for slot in slots(true) if slot.kind == "length"])
        read = changed(true, wrong, rng.choice([-1, 1]) * rng.uniform(12, 40))
        given = Given(tape_mm=known.tape_mm)
        if abs(outcome(read).tape_mm - known.tape_mm) < 3 * doubt_of(spread_of(read, ERRORS)).tape_mm:
            continue
        tried += 1
        found = ranked(read, given, ERRORS)
        before += found[0][1].slot == wrong
        while (asked := separating(read, given, found, ERRORS)) is not None:
            assert {"wire": given.wire_mm, "tape": given.tape_mm, "way B": given.way_b}[asked.kind] is None
            given = replace(
                given, **({"wire_mm": known.developed_mm} if asked.kind == "wire" else {"way_b": known.way_b})
            )
            found = ranked(read, given, ERRORS)
        after += found[0][1].slot == wrong
    assert after >= tried / 2
    assert after > 3 * before


def test_nothing_is_asked_for_when_every_check_is_taken():
    read = bends((100, 90, None), (80, 60, 90))
    known = outcome(read)
    given = Given(wire_mm=known.developed_mm + 20, tape_mm=known.tape_mm, way_b=known.way_b)
    assert separating(read, given, ranked(read, given, ERRORS), ERRORS) is None
    assert ranked(read, given, ERRORS)[0][1].change == pytest.approx(20, abs=15)
