"""A part while it is made: readings carried forward, the section, the ends and the stock."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest

from bendrel.core.bend.bench.remade import remake
from bendrel.core.bend.bench.sweep import swing_view
from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.bend.told.spread import HandRead, spread_of
from bendrel.core.bend.tool.section import section_after
from bendrel.core.bend.tube.choosing import choose_rows
from bendrel.core.bend.tube.part import shape_of
from bendrel.core.bend.tube.start import where_to_start
from bendrel.core.line.exact_ways import ExactWays
from bendrel.core.line.run import main_run
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.units.lengths import Length
from bendrel.core.work.making import bench_steps
from tests.lines import End, Hose, bent, end_of, in_order, known_kit, replace, row, the_tube, with_tube

KIT = known_kit()
LINE = with_tube(
    bent(row(80, 90), row(150, 45, "3:00"), row(120, 60, "6:00"), row(140, 90, "9:00"), last=120),
    ways=ExactWays(fine_gauge=True),
)


def made_of(line, readings, *, sure=("angle", "plane", "leg", "from_a", "from_b", "rims")):
    """The bends made so far, each as it was told at that time, with its readings, which were read again."""
    part, chosen = plan_line(line, KIT).part, choose_rows(main_run(line), KIT, [])
    done = []
    for read in readings:
        told = remake(main_run(line), KIT, part, chosen, done).next
        done.append(
            MadeBend(
                bend=told.move.bend,
                held=told.move.held,
                start_mm=told.start_mm,
                angle_deg=told.angle_deg,
                clock_deg=told.clock_deg,
                beyond_deg=told.beyond_deg,
                unit="mm",
                sure=sure,
                **read,
            )
        )
    return remake(main_run(line), KIT, part, chosen, done)


def test_a_part_made_as_told_meets_its_port():
    told = made_of(LINE, [{}, {}, {}, {}])
    assert told.meets
    assert told.as_it_is.off_mm < 0.01
    assert told.next is None
    assert [way.kind for way in told.ways] == ["as planned"]


@pytest.mark.parametrize("end", ["A", "B"])
def test_what_was_told_of_a_bend_stays_to_be_read_when_it_is_made(end):
    """A re-planned bend is put right by the figures it was bent by, not by those of the first plan."""
    line = with_tube(LINE, held=end)
    readings = [{"angle": "88"}, {"plane": "2:50", "leg": ""}, {"angle": "61.5"}]
    first = []
    for count in range(3):
        following = made_of(line, readings[:count]).next
        first.append(following.move)
    told = made_of(line, readings).told
    assert [move.bend for move in told] == [move.bend for move in first]
    for then, now in zip(first, told, strict=True):
        assert now.dial_deg == pytest.approx(then.dial_deg)
        assert now.mark_mm == pytest.approx(then.mark_mm)
        assert now.turn_deg == pytest.approx(then.turn_deg)
        assert now.clock_deg == pytest.approx(then.clock_deg)


@pytest.mark.parametrize("end", ["A", "B"])
@pytest.mark.parametrize("short", [1.0, 3.0, 6.0])
def test_re_planned_turns_and_clocks_are_of_one_tube(end, short):
    """Seen from the held end: between two bends the tube is turned by the difference of their clocks,
    against it with end A held. A bend that is made stays where it is on the tube, also while bend 1, from
    which a plan counts, may still move."""
    line = with_tube(LINE, held=end)
    start = made_of(line, [])
    readings = [{"angle": f"{start.next.angle_deg - short:.1f}"}]
    promised = made_of(line, readings).then.off_mm
    moves = [start.next.move]
    for _ in range(3):
        told = made_of(line, readings)
        moves.append(told.next.move)
        assert told.next.clock_deg % 360 == pytest.approx(told.next.move.clock_deg)
        assert told.then.off_mm < 1
        readings.append({})
    for before, now in pairwise(moves):
        turned = (now.clock_deg - before.clock_deg) * (1 if end == "B" else -1)
        assert (now.turn_deg - turned + 180) % 360 - 180 == pytest.approx(0, abs=1e-6)
    assert promised < 1
    assert made_of(line, readings).as_it_is.off_mm < 1


def test_a_bend_three_degrees_short_is_taken_up_by_the_rest():
    told = made_of(LINE, [{}, {"angle": "42"}])
    assert told.departures[0].off == pytest.approx(-3)
    assert told.as_it_is.off_mm > 0.5 or told.as_it_is.askew_deg > 0.25
    assert told.meets
    assert told.then.off_mm < 1
    assert told.changed
    assert told.changes
    # and the bends that follow, made as re-planned, do meet it
    assert made_of(LINE, [{}, {"angle": "42"}, {}, {}]).as_it_is.off_mm < 1.5


def test_the_last_bend_off_leaves_only_ways_out_and_the_least_waste_first():
    told = made_of(LINE, [{}, {}, {}, {"angle": "80"}])
    assert not told.meets
    assert told.fit is not None
    assert not told.fit.fits
    (tweak,) = told.fit.tweaks
    assert (tweak.act.kind, tweak.act.at) == ("bend", 4)
    assert tweak.act.deg == pytest.approx(10, abs=0.7)  # a hand turns it about its middle
    lost = [way.lost_mm for way in told.ways]
    assert lost == sorted(lost)
    assert told.ways[-1].kind == "start again"
    assert "tweak" in [way.kind for way in told.ways]


def test_a_leg_and_a_plane_move_what_follows():
    """100 mm to the first bend's start, read 2 mm long: everything behind it lies 2 mm further on."""
    straight = made_of(LINE, [{}])
    told = made_of(LINE, [{"leg": f"{straight.legs_mm[0] + 2:.4f}"}])
    assert told.departures[0].name == "leg"
    assert told.departures[0].off == pytest.approx(2, abs=0.001)
    plane = made_of(LINE, [{}, {"plane": "3:10"}])
    assert plane.departures[0].off == pytest.approx(5)


def test_a_reading_that_cannot_be_read_is_named_and_left_out():
    told = made_of(LINE, [{"angle": "about ninety"}])
    assert told.misread[0].name == "angle"
    assert told.as_it_is.off_mm < 0.01


def test_from_end_b_degrees_count_from_the_bend_behind():
    """Held at B bend 2 is straight tube while bend 3 is made: from bend 4, read from B with its sign, bend 3
    lies 90° round; 85° is 5° less, so that its own clock is 5° more (C4 - C3 = 85)."""
    line = with_tube(LINE, held="B")
    told = made_of(line, [{}, {"plane": "+85"}])
    assert told.misread == ()
    assert told.departures[0].off == pytest.approx(-5)
    assert made_of(line, [{}, {"plane": "+90"}]).departures[0].off == pytest.approx(0)
    clock = made_of(line, [{}, {"plane": "6:10"}])
    assert clock.as_it_is.off_mm == pytest.approx(told.as_it_is.off_mm, abs=0.01)


def test_degrees_from_a_bend_that_is_not_made_are_not_taken():
    """In the middle of the tube nothing on either side is made."""
    line = with_tube(LINE, order=in_order("A1 A3 A2 A4"))
    told = made_of(line, [{}, {"plane": "-90"}])
    assert told.misread[0].name == "plane"
    assert told.misread[0].message.startswith("“-90” counts from bend 2, which is not made yet")
    assert made_of(LINE, [{}, {"plane": "90"}]).misread == ()


def test_held_at_b_the_arc_grows_the_other_way():
    line = with_tube(LINE, held="B")
    told = made_of(line, [{}, {"angle": "57"}])
    assert told.meets
    assert made_of(line, [{}, {"angle": "57"}, {}, {}]).as_it_is.off_mm < 1.5


def test_bench_steps_have_every_bend_and_every_key_once():
    steps = bench_steps(plan_line(LINE, KIT).part, order_of_work(LINE, KIT))
    keys = [step.id for step in steps]
    assert len(set(keys)) == len(keys)
    assert [step.bend for step in steps if step.bend] == [1, 2, 3, 4]
    assert keys.index("bend-1") > [step.kind for step in steps].index("nuts")


def test_the_spread_of_a_shop_comes_from_its_own_readings():
    """Six readings' worth of what is common. Six readings of 2°, each in doubt by 0.3°, and a slip: with the
    hand's variance at 2 a reading counts for (2/2.09)² = 0.9157 of one, so that the variance is
    (6 · 0.25 + 6 · 0.9157 · (4 − 0.09))/(6 + 6 · 0.9157) = 2.000 (by hand)."""
    read = HandRead(name="angle", off=2.0, hands=1, reads=1)
    told = spread_of(KIT, [read] * 6 + [replace(read, off=40.0)])
    assert told.angle_deg**2 == pytest.approx(2.0, abs=0.002)
    assert told.readings == 6


def test_what_is_read_badly_is_not_booked_to_the_hand():
    """2,000 legs set to 0.3 mm, each read to 0.5 from the one before it: the spread found is the hand's."""
    rng = np.random.default_rng(4)
    told = []
    for _ in range(400):
        errors = rng.normal(0, 0.5, 5)
        told += [
            HandRead(name="leg", off=rng.normal(0, 0.3) + errors[: k + 1].sum(), hands=1, reads=k + 1)
            for k in range(5)
        ]
    assert spread_of(KIT, told).straight_mm == pytest.approx(0.3, abs=0.05)


def test_a_shop_that_read_nothing_bends_as_is_common():
    usual = KIT.limits["spread_angle_deg"].value
    assert spread_of(KIT, []).angle_deg == pytest.approx(usual)


def test_the_section_by_hand():
    """3/16 in × 0.028 in at R 15: back 0.711·15/17.381 = 0.614 mm, strain 2.381/15 = 15.9 %."""
    told = section_after(4.7625, 0.711, 15.0, flattens=1.0, coefficient=0.02)
    assert told.back_mm == pytest.approx(0.614, abs=0.001)
    assert told.inside_mm == pytest.approx(0.845, abs=0.001)
    assert told.strain == pytest.approx(0.1588, abs=1e-4)
    assert told.hardness == pytest.approx(6.698 / 3.15, abs=0.01)
    with pytest.raises(ValueError, match="inside the tube"):
        section_after(10, 1, 5, flattens=1, coefficient=0.02)


def test_flattening_is_judged_by_service_and_tool():
    codes = lambda line: {f.code for f in plan_line(line, KIT).findings}  # noqa: E731
    assert "flattens" not in codes(LINE)
    by_hand = bent(row(80, 90), bender="round_3-16in", last=120)
    assert "flattens" in codes(by_hand)
    assert "flattens" not in codes(replace(by_hand, service="vent" if "vent" in KIT.services else "coolant"))


def test_a_stick_with_its_own_flare_saves_one_and_its_nut_is_checked():
    part = plan_line(LINE, KIT).part
    ready = plan_line(replace(LINE, end_a=replace(end_of(LINE, "A"), ready=True)), KIT).part
    assert ready.end_a.allowance_mm == 0
    assert ready.cut_mm == pytest.approx(part.cut_mm - part.end_a.allowance_mm)
    finished = replace(LINE, end_a=replace(end_of(LINE, "A"), ready=True))
    text = " ".join(step.text for step in order_of_work(finished, KIT))
    assert "End A comes finished" in text
    assert "Flare end A" not in text
    assert "Cut" in text
    assert "from the finished end" in text


def test_a_coil_gets_its_straightening_and_its_allowance():
    line = with_tube(LINE, stock_form="coil")
    coil, kinds = plan_line(line, KIT).part, [step.kind for step in order_of_work(line, KIT)]
    assert coil.take_mm - coil.cut_mm == KIT.limits["straighten_mm"].value
    assert kinds.index("straighten") < kinds.index("cut")


def test_a_shorter_flaring_tool_makes_room_after_bending():
    short = bent(row(36, 90), last=100)
    assert plan_line(short, KIT).part.end_a.possible_orders == ()
    press = replace(short, end_a=replace(end_of(short, "A"), flarer="hand_press"))
    assert plan_line(press, KIT).part.end_a.possible_orders == ("after",)


def test_an_order_is_followed_by_marks_turns_and_the_swing():
    mixed = with_tube(LINE, order=in_order("A1 A2 B4 B3"))
    part = plan_line(mixed, KIT).part
    assert [(m.bend, m.held) for m in part.moves] == [(1, "A"), (2, "A"), (4, "B"), (3, "B")]
    assert part.moves[2].feed_mm is None
    assert "change over to B" in part.moves[2].turn_words
    view = swing_view(main_run(mixed), KIT, part, 3)
    assert view.held == "B"
    assert view.standings[0].deg == 0
    assert view.standings[-1].deg == pytest.approx(shape_of(part).bends[3].angle_deg)
    wrong = with_tube(LINE, order=in_order("A1 A1"))
    told = plan_line(wrong, KIT)
    assert told.problems[0].path == "/spans/s1/order"
    assert [m.bend for m in told.part.moves] == [1, 2, 3, 4], "one after the other until it is put right"


def test_bending_off_the_whole_stick_moves_the_marks_from_that_end():
    from_b = replace(the_tube(LINE), held="A", order=in_order("B4 A1 A2 A3"), stock=Length(text="3 m"))
    cut = plan_line(LINE, KIT).part
    part = plan_line(replace(LINE, spans=(from_b,)), KIT).part
    assert part.beyond_mm["B"] == pytest.approx(cut.beyond_mm["B"] + 3000 - cut.cut_mm)


def test_where_to_start_and_what_to_trim():
    """Common practice: the end with the tightest geometry first, the far end long; a stick's own flare and
    an end that can only be flared before come first, a hose last (common practice)."""
    near_b = bent(row(400, 20), row(60, 90, "3:00"), row(50, 90, "6:00"), last=60)
    part = plan_line(near_b, KIT).part
    assert where_to_start(main_run(near_b), part).end == "B"
    assert "leave end A long" in where_to_start(main_run(near_b), part).text
    ready = replace(near_b, end_a=replace(end_of(near_b, "A"), ready=True))
    assert where_to_start(main_run(ready), plan_line(ready, KIT).part).end == "A"
    hose = replace(near_b, end_b=End(beyond=(Hose(hose="cooler_3-8in"),)))
    assert where_to_start(main_run(hose), plan_line(hose, KIT).part).end == "A"
