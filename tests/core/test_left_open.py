"""A bend that is left open for now: at the tool, and in the readings taken at the bench."""

from __future__ import annotations

from math import pi, radians, tan

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.bench.order_report import order_findings
from bendrel.core.bend.bench.sweep import swing_view
from bendrel.core.bend.tool.moves import usual_order
from bendrel.core.bend.tool.order import follow, left_open
from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.line.document import LeftOpen
from bendrel.core.line.run import main_run
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle
from tests.core.test_making import made_of
from tests.core.test_order import at, hits_in
from tests.lines import bent, replace, row, with_tube

KIT = load_kit()
OD = 4.7625
LINE = bent(row(100, 90), row(120, 90, "3:00"), last=140)


def opened(line, bend=2, angle="30", how="by hand", held="A"):
    left = LeftOpen(row=f"r{bend}", angle=Angle(text=angle), how=how)
    return with_tube(line, left_open=(left,), held=held)


def test_the_rest_of_the_arc_is_straight_tube_behind_it():
    """90° and 30° on 15 mm: 60° of arc, 15.708 mm, stay straight, and the tube keeps its length."""
    bends = (
        Bend(straight_mm=100, rotation_deg=0, angle_deg=90, radius_mm=15),
        Bend(straight_mm=80, rotation_deg=90, angle_deg=45, radius_mm=15),
    )
    whole = BendList(bends=bends, last_straight_mm=60)
    now = left_open(whole, {0: 30.0})
    assert [bend.angle_deg for bend in now.bends] == [30, 45]
    assert now.straights_mm == pytest.approx((100, 80 + 15 * pi / 3, 60))
    assert now.developed_mm == pytest.approx(whole.developed_mm)


def test_a_leg_that_would_stand_in_the_bench_is_clear_of_it_while_its_bend_is_open():
    """Bend 1 hangs 300 mm down, the tube lies 110 mm above the bench; at 10° it hangs 300·sin 10°, 52 mm."""
    first = Bend(straight_mm=300, rotation_deg=0, angle_deg=90, radius_mm=19)
    second = replace(first, straight_mm=150, rotation_deg=90)
    whole = BendList(bends=(first, second), last_straight_mm=60)
    order = usual_order(2, "A")
    assert follow(at("bench_3-16in", whole), order).contact.thing == "bench"
    assert "bench at bend 2" in hits_in(whole, order, "bench_3-16in")
    now = left_open(whole, {0: 10.0})
    assert follow(at("bench_3-16in", now), order) is None
    assert hits_in(now, order, "bench_3-16in") == []


U = bent(row(300, 90), row(150, 90, "3:00"), last=60, bender="bench_3-16in")


def findings(line):
    return [f.code for f in order_findings(main_run(line), KIT, plan_line(line, KIT).part)]


def test_the_plan_swings_a_bend_as_far_as_it_is_bent_at_the_tool():
    assert findings(U) == ["order_blocked"]
    assert findings(opened(U, 1, "10")) == []
    # one that comes back to the tool is finished there, with everything else made
    assert findings(opened(U, 1, "10", "out again, at the tool")) == ["order_blocked"]
    line = opened(U, 1, "10")
    assert swing_view(main_run(line), KIT, plan_line(line, KIT).part, 1).standings[-1].deg == pytest.approx(
        10
    )


@pytest.mark.parametrize("held", ["A", "B"])
def test_an_open_bend_is_read_as_it_is_now_and_is_no_miss(held):
    line = opened(LINE, held=held)
    first = {} if held == "A" else {"angle": "30"}
    second = {"angle": "30"} if held == "A" else {}
    told = made_of(line, [first, second])
    assert [(d.bend, d.off) for d in told.departures] == [(2, pytest.approx(0))]
    assert told.near


def test_what_it_is_short_of_its_opening_trains_the_hand_and_not_the_plan():
    told = made_of(opened(LINE), [{}, {"angle": "28"}])
    assert told.departures[0].off == pytest.approx(-2)
    assert told.as_it_is.off_mm < 0.01


def test_the_leg_of_an_open_bend_reads_to_its_own_corner():
    """Leg to bend 2 from the back of bend 1: 120 + (15 + D/2)·(tan 45° + tan 15°), held at A."""
    told = made_of(opened(LINE), [{}])
    back = 15 + OD / 2
    assert told.next.leg_mm == pytest.approx(120 + back * (1 + tan(radians(15))), abs=0.01)
    whole = made_of(LINE, [{}])
    assert whole.next.leg_mm == pytest.approx(120 + back * 2, abs=0.01)


def test_held_at_b_the_open_bend_keeps_its_place_on_that_side():
    """From the cut end at B: 140 mm, what lies beyond the rim, and to the corner of 30°."""
    line = opened(LINE, held="B")
    part = plan_line(line, KIT).part
    back = (15 + OD / 2) * tan(radians(15))
    assert made_of(line, []).next.leg_mm == pytest.approx(140 + part.beyond_mm["B"] + back, abs=0.01)
