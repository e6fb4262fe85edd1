"""The one more check that is asked for, against simulated misreadings and planes on the wrong side."""

from __future__ import annotations

import random
from dataclasses import replace

import pytest

from bendrel.core.measure.ask import separating, unnoticed
from bendrel.core.measure.culprits import ranked
from bendrel.core.measure.doubt import doubt_of
from bendrel.core.measure.further import Further, as_read, with_more
from bendrel.core.measure.legs import ReadBend, ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.sheet import sheet_of
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


def names(asked):
    return {(slot.row, slot.field) for slot in asked.between}


def test_nothing_would_be_noticed_where_nothing_was_checked():
    """Without a further reading every leg and angle may be off, and the second plane on its other side."""
    read = bends((100, 90, None), (80, 60, 90))
    asked = unnoticed(read, Given(), ERRORS)
    assert names(asked) >= {(0, "length"), (2, "last"), (1, "plane")}


def test_the_handedness_of_two_bends_changes_neither_wire_nor_tape():
    read = bends((100, 90, None), (80, 60, 90))
    known = outcome(read)
    taken = Given(wire_mm=known.developed_mm, tape_mm=known.tape_mm)
    asked = unnoticed(read, taken, ERRORS)
    assert (1, "plane") in names(asked)
    assert asked.reading.kind in ("way B", "place B", "sheet")


def test_in_one_plane_there_is_no_other_side():
    asked = unnoticed(bends((100, 90, None), (80, 60, 0), (70, 45, 180)), Given(), ERRORS)
    assert not [slot for slot in asked.between if slot.field == "plane"]


def test_a_reading_that_notices_it_already_is_not_asked_for_again():
    """Where end B stands, and its way, to a tenth of what slips do: nothing goes unnoticed."""
    read = bends((100, 90, None), (80, 90, 90), (150, 90, 90))
    known, exact = outcome(read), replace(ERRORS, place_mm=0.05, angle_deg=0.1, length_mm=0.05)
    assert unnoticed(read, Given(place_b=known.point, way_b=known.way_b), exact) is None


def test_a_leg_that_was_misread_is_named_first_far_oftener_once_the_check_asked_for_is_taken():
    """24 lines with one leg read 12 to 40 mm wrong and the tape taken: what is asked for is taken of the true
    line, until nothing more is asked for."""
    rng = random.Random(2)
    before = after = tried = 0
    while tried < 24:
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
        before += found[0][1].what == wrong
        while (asked := separating(read, given, found, ERRORS)) is not None:
            more = as_read(asked.reading, known, sheet_of(read), read.od_mm, ERRORS)
            assert with_more(given, more) != given
            given = with_more(given, more)
            found = ranked(read, given, ERRORS)
        after += found[0][1].what == wrong
    assert after >= 0.9 * tried
    assert after > 3 * before


def test_a_tape_that_is_wrong_itself_is_named():
    """Everything agrees but the tape from A to the second corner, 30 mm too long."""
    read = bends((100, 90, None), (80, 60, 90), (120, 45, 60))
    known = outcome(read)
    tape = Further(kind="across", start="A", end=1)
    wrong = as_read(tape, known, sheet_of(read), read.od_mm, ERRORS).across[0]
    given = Given(
        wire_mm=known.developed_mm,
        tape_mm=known.tape_mm,
        place_b=known.point,
        way_b=known.way_b,
        across=(replace(wrong, mm=wrong.mm + 30),),
    )
    (_, first), *_ = ranked(read, given, ERRORS)
    assert (first.what, first.change) == (tape, pytest.approx(-30, abs=2))
