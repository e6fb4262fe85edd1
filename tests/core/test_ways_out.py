"""When a bend came out wrong: which is to blame, what can be kept, and how much tube is lost.

The part is `LINE` of test_making: legs 80, 150, 120, 140, 120 mm, bends of 90°, 45°, 60° and 90° on a
radius of 15 mm, so that every length below is plane geometry.
"""

from __future__ import annotations

from math import pi

import pytest

from bendrel.core.plan.planner import plan_line
from tests.core.test_making import KIT, LINE, made_of
from tests.lines import in_order, replace, the_tube, with_tube

PART = plan_line(LINE, KIT).part


def held(end):
    return with_tube(LINE, held=end)


def ways(end, readings):
    told = made_of(held(end), readings)
    assert not told.meets
    return {way.kind: way for way in told.ways}


def test_held_at_a_the_side_of_a_is_kept_and_only_the_bad_arc_is_lost():
    way = ways("A", [{}, {}, {"angle": "75"}])["joint"]
    assert way.text.startswith("Keep the side of A: cut in the straight before bend 3")
    # the straight tube behind bend 3 stays useful: what goes is the arc, 60° on 15 mm
    assert way.lost_mm == pytest.approx(15 * pi / 3)


def test_held_at_b_the_side_of_b_is_kept():
    way = ways("B", [{}, {}, {"angle": "60"}])["joint"]
    assert way.text.startswith("Keep the side of B: cut in the straight after bend 2")
    assert way.lost_mm == pytest.approx(15 * pi / 4)


def test_the_bend_to_blame_is_named_though_good_ones_came_after():
    """Bend 2 of a finished part lies 60° round; the joint goes beside it, not behind the last bend."""
    told = made_of(held("B"), [{}, {"plane": "4:00"}, {}, {}])
    joints = [way for way in told.ways if way.kind == "joint"]
    assert {way.text[:40] for way in joints} == {
        "Keep the side of A: cut in the straight ",
        "Keep the side of B: cut in the straight ",
    }
    assert joints
    assert all("bend 3" in way.text for way in joints)


def test_starting_again_keeps_the_straight_tube_of_both_ends():
    """Bends 2 and 3 are made, far off: before and behind them 253.6 and 310.6 mm are still straight."""
    line = with_tube(LINE, order=in_order("A2 A3 A1 A4"))
    told = made_of(line, [{"angle": "140"}, {"angle": "140"}])
    again = next(way for way in told.ways if way.kind == "start again")
    flared = PART.cut_mm - PART.developed_mm - PART.beyond_mm["B"]  # went into the flare at A
    middle = 15 * pi / 4 + 120 + 15 * pi / 3 + flared
    assert again.lost_mm == pytest.approx(middle, abs=0.05)
    assert "straight tube is left as offcut" in again.text


def test_a_correction_that_moves_the_route_far_is_not_the_only_way_shown():
    """Half the bend missing: the rest can still bring end B home, through another place."""
    line = with_tube(LINE, order=in_order("A2 A3 A1 A4"))
    told = made_of(line, [{"angle": "140"}, {"angle": "140"}])
    assert told.meets
    assert told.departs_mm > 45
    assert told.ways[0].text.endswith("look whether it has that room.")
    assert told.ways[-1].kind == "start again"


def test_no_joint_where_the_straight_is_too_short_for_its_wrenches():
    """70 mm of straight are asked for a union and two wrenches; this part has 40 between its bends."""
    rows = the_tube(LINE).readings
    short = replace(
        LINE,
        spans=(
            replace(
                the_tube(LINE),
                readings=replace(
                    rows,
                    rows=tuple(
                        replace(row, length=replace(row.length, text="40"), to=row.to) if k else row
                        for k, row in enumerate(rows.rows)
                    ),
                ),
            ),
        ),
    )
    told = made_of(short, [{}, {}, {"angle": "75"}])
    assert "joint" not in {way.kind for way in told.ways}
    assert told.ways[-1].kind == "start again"


def test_a_finished_bend_is_bent_on_where_that_brings_the_end_home():
    """The last bend ten degrees short: nearly ten more by hand, about its middle, and end B is home."""
    way = ways("A", [{}, {}, {}, {"angle": "80"}])["tweak"]
    assert way.text.startswith("Bend 4 again, 9.")
    assert way.lost_mm == 0


def test_a_bend_is_not_opened_by_more_than_it_stands():
    assert "tweak" not in ways("A", [{}, {}, {}, {"angle": "110"}])
