"""What a reading means. Expected values are worked by hand from plane geometry."""

from dataclasses import replace
from math import radians, tan

import pytest

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import corners_from_bends
from bendrel.core.geometry.vectors import length, subtract
from bendrel.core.line.edits.mirror import mirrored
from bendrel.core.line.resolve import resolve
from bendrel.core.line.rewrite import with_shape
from bendrel.core.measure.legs import setback_mm
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Plane
from tests.lines import bent, cornered, row, the_tube
from tests.parts import random_part

OD, R = 4.7625, 15.0


def shape_of(line):
    read = resolve(the_tube(line).readings, od_mm=OD, radius_mm=R)
    assert read.problems == ()
    return read.shape


def test_a_square_bend_reads_half_the_tube_apart_on_each_side():
    """At 90° the outside corner is R + D/2 past the start, the inside R − D/2, the centre R."""
    assert setback_mm("outside", 90, R, OD) == pytest.approx(R + OD / 2)
    assert setback_mm("inside", 90, R, OD) == pytest.approx(R - OD / 2)
    assert setback_mm("centre", 90, R, OD) == pytest.approx(R)
    assert setback_mm("back", 90, R, OD) == pytest.approx(setback_mm("outside", 90, R, OD))
    assert setback_mm("start", 90, R, OD) == 0


def test_over_90_the_hooked_tape_reads_something_else():
    """By hand, (R + D/2)·(tan 60° − 1): at 120° and R 15 the two differ by 12.7 mm."""
    corner, hooked = setback_mm("outside", 120, R, OD), setback_mm("back", 120, R, OD)
    assert corner - hooked == pytest.approx(12.7, abs=0.05)
    assert hooked == pytest.approx(R + OD / 2)
    assert setback_mm("hollow", 150, R, OD) == pytest.approx(R - OD / 2)


def test_a_hairpin_has_no_corner_to_read_to():
    with pytest.raises(ShapeError, match="hook the tape over its back"):
        setback_mm("outside", 180, R, OD)
    assert setback_mm("back", 180, R, OD) == pytest.approx(R + OD / 2)


def test_each_end_of_a_leg_has_its_own_reference():
    """Along a Z: 100 mm from the outside of a 90° bend to the inside of a 60° bend."""
    line = bent(
        row(50, 90),
        row(100, 60, "6:00", start="outside", end="inside"),
    )
    taken = (R + OD / 2) + (R - OD / 2) * tan(radians(30))
    assert shape_of(line).straights_mm[1] == pytest.approx(100 - taken)


def test_planes_as_clock_are_cumulative_and_as_degrees_relative():
    clock = bent(row(50, 90), row(50, 45, "3:00"), row(50, 45, "9:00"), row(50, 90, "1:00"))
    turns = bent(row(50, 90), row(50, 45, "90"), row(50, 45, "180"), row(50, 90, "120"))
    expected = [0, 90, 180, 120]
    assert [b.rotation_deg for b in shape_of(clock).bends] == pytest.approx(expected)
    assert [b.rotation_deg for b in shape_of(turns).bends] == pytest.approx(expected)


def test_every_unreadable_field_is_named_at_once():
    line = bent(row("1,5", 90), row(50, "steep", "13:00"), last="")
    read = resolve(the_tube(line).readings, od_mm=OD, radius_mm=R)
    assert read.shape is None
    assert [p.path for p in read.problems] == [
        "/rows/r1/length",
        "/rows/r2/angle",
        "/rows/r2/plane",
        "/last",
    ]


def test_a_blank_radius_needs_a_bender_that_has_one():
    line = bent(row(50, 90), row(50, 45, "3:00", radius="7/8"))
    assert [b.radius_mm for b in shape_of(line).bends] == pytest.approx([15, 22.225])
    read = resolve(the_tube(line).readings, od_mm=OD, radius_mm=None)
    assert [p.path for p in read.problems] == ["/rows/r1/radius"]


def test_duplicate_corner_points_are_told():
    line = cornered((0, 0, 0), (100, 0, 0), (100, 0, 0), (100, 80, 0))
    read = resolve(the_tube(line).readings, od_mm=OD, radius_mm=R)
    assert "Points 2 and 3 are the same" in read.problems[0].message


@pytest.mark.parametrize("unit", ["in", "mm"])
def test_switching_the_way_of_entry_keeps_the_shape(unit):
    for seed in range(60):
        shape = random_part(seed)
        line = bent(unit=unit)
        for kind in ("bends", "corners", "bends"):
            line = with_shape(line, the_tube(line), shape, kind, R)
            again = shape_of(line)
            points, planned = corners_from_bends(again).points, corners_from_bends(shape).points
            worst = max(length(subtract(a, b)) for a, b in zip(points, planned, strict=True))
            assert worst < 1e-6


def test_a_shape_that_corner_points_cannot_say_is_refused():
    """Two 90° bends of R 40 a leg of 20 mm apart overlap by 60 mm and still have their corners in
    order; 200 mm of overlap puts the second corner before the first."""
    line = bent(row(50, 90, radius=40), row(20, 90, "6:00", start="centre", end="centre", radius=40))
    shape = shape_of(line)
    assert shape.straights_mm[1] == pytest.approx(-60)
    assert the_tube(with_shape(line, the_tube(line), shape, "corners", R)).readings.kind == "corners"
    first, second = shape.bends
    crossed = replace(shape, bends=(first, replace(second, straight_mm=-200.0)))
    with pytest.raises(ShapeError, match="cannot say this line"):
        with_shape(line, the_tube(line), crossed, "corners", R)


def test_a_bare_three_is_never_read_as_three_degrees_without_a_word(kit):
    """A newcomer's 3 o'clock that becomes 3° is scrap: until the shop has said how it reads planes, it is
    asked; then what was typed keeps the meaning it had."""
    asked = plan_line(bent(row(100, 90), row(60, 90, "3")), kit)
    assert asked.part is None
    assert [p.path for p in asked.problems] == ["/spans/s1/readings/rows/r2/plane"]
    assert "3:00" in asked.problems[0].message
    for school, turn in (("clock", 90.0), ("degrees", 3.0)):
        second = replace(row(60, 90, "3"), plane=Plane(text="3", by=school))
        part = plan_line(bent(row(100, 90), second), kit).part
        assert part.bends[1].rotation_deg == pytest.approx(turn)


def test_a_mirrored_bare_figure_keeps_its_meaning():
    """-3° turned round is +3°, not three o'clock."""
    rows = (row(100, 90), replace(row(60, 90), plane=Plane(text="-3", by="clock")))
    made = mirrored(the_tube(bent(*rows)).readings)
    assert made.rows[1].plane.text == "+3"
