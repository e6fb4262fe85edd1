"""A line while its readings come in: what is known is drawn. Expected lengths by plane geometry, R 15 mm."""

from dataclasses import replace
from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bendrel.core.line.document import BendReadings, CornerReadings, CornerRow
from bendrel.core.line.growing import as_far_as_read
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length, Plane
from tests.lines import bent, row

BLANK = Length()


def grown(*rows, last=BLANK, **changes):
    readings = BendReadings(rows=rows, last=last, **changes)
    return as_far_as_read(readings, od_mm=4.7625, radius_mm=15.0, stub_mm=60.0)


def test_nothing_read_is_nothing_to_draw():
    assert grown() is None
    assert grown(row("", "")) is None


def test_a_first_leg_is_a_straight_piece():
    shape = grown(row(200, ""))
    assert shape.bends == ()
    assert shape.last_straight_mm == pytest.approx(200)


def test_a_bend_stands_as_soon_as_it_is_read_and_the_tube_goes_on_a_little():
    shape = grown(row(200, 90))
    assert [bend.angle_deg for bend in shape.bends] == [90]
    assert shape.last_straight_mm == 60


def test_the_next_leg_reaches_to_the_corner_that_is_not_read_yet():
    """Read from the back of a 90° bend: R + OD/2 lies before the straight."""
    shape = grown(row(200, 90), row(150, "", start="outside", end="outside"))
    assert len(shape.bends) == 1
    assert shape.last_straight_mm == pytest.approx(150 - 15 - 4.7625 / 2)


def test_marks_on_a_wire_grow_along_the_wire():
    wire = [replace(row(at, 90), by="wire") for at in (100, 300)]
    shape = grown(wire[0], replace(wire[1], angle=Angle()))
    assert len(shape.bends) == 1
    assert shape.last_straight_mm == pytest.approx(300 - 100 - 15 * pi / 2)


def test_what_cannot_be_read_ends_what_is_drawn():
    shape = grown(row(200, 90), row("2oo", 45, "3:00"), row(100, 30))
    assert len(shape.bends) == 1


def test_a_bend_without_a_plane_is_not_guessed():
    shape = grown(row(200, 90), replace(row(150, 45), plane=Plane()))
    assert len(shape.bends) == 1


def test_corners_grow_from_the_second_on():
    points = [(0, 0, 0), (100, 0, 0), (100, 120, 0)]
    rows = [CornerRow(**{k: Length(text=str(v)) for k, v in zip("xyz", p, strict=True)}) for p in points]
    for count, bends in ((1, None), (2, 0), (3, 1)):
        readings = CornerReadings(rows=(*rows[:count], CornerRow()))
        shape = as_far_as_read(readings, od_mm=4.7625, radius_mm=15.0, stub_mm=60.0)
        assert (None if shape is None else len(shape.bends)) == bends


def test_the_plan_draws_it_without_calling_it_a_part(kit):
    line = bent(row(200, 90), row(150, ""))
    plan = plan_line(line, kit)
    assert plan.part is None
    assert plan.findings == ()
    assert len(plan.piece().so_far.bends) == 1
    assert plan.piece().so_far.end_b.fitting == "plain"
    assert plan_line(bent(row(200, 90)), kit).piece().so_far is None


@given(st.lists(st.tuples(st.integers(60, 400), st.integers(5, 170)), min_size=1, max_size=6), st.data())
def test_what_is_drawn_is_the_beginning_of_the_line_that_it_becomes(legs, data):
    rows = tuple(row(length, angle, "3:00" if k % 2 else "12:00") for k, (length, angle) in enumerate(legs))
    whole = grown(*rows, last=Length(text="300"))
    count = data.draw(st.integers(0, len(rows) - 1))
    part = grown(*rows[:count], replace(rows[count], angle=Angle()))
    assert part.bends == whole.bends[:count]
