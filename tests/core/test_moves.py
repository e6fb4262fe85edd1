"""Bench moves against a literal simulation of a bender: the shape made must be the shape planned."""

import random

import numpy as np
import pytest

from bendrel.core.bend.tool.marks import mark_bend
from bendrel.core.bend.tool.moves import Setting, tube_turns, usual_order
from bendrel.core.geometry.bends import Bend, BendList, bend_spans
from bendrel.core.geometry.centreline import pieces
from tests.core.bench_simulation import Tube, misfit_mm
from tests.parts import random_part


def make(shape: BendList, settings, *, zero=0.0, allowance=0.0):
    """Carry the planner's moves out on a straight tube; returns (made, planned) points."""
    parts = list(pieces(shape))
    stations = [p.at_mm for p in parts] + [shape.developed_mm]
    planned = [p.start.point for p in parts] + [parts[-1].frame(parts[-1].length_mm).point]
    tube = Tube(shape.developed_mm + 2 * allowance, [s + allowance for s in stations])
    spans = bend_spans(shape)
    turns = tube_turns(shape.clocks_deg, settings)
    for setting, turn in zip(settings, turns, strict=True):
        bend = shape.bends[setting.bend]
        mark = mark_bend(
            bend,
            spans[setting.bend],
            shape.developed_mm,
            held=setting.held,
            style="start",
            zero_offset_mm=zero,
            allowance_mm=allowance,
        )
        tube.bend(
            held=setting.held,
            mark_mm=mark.mm,
            zero_mm=zero,
            turn_deg=turn,
            angle_deg=bend.angle_deg,
            radius_mm=bend.radius_mm,
            sense=setting.sense,
        )
    return tube.points, np.array(planned)


def spans_and_stations(shape: BendList, extra=(0.0, 0.0)):
    """Places along the cut tube: both ends, every bend's start and end, and five more in each arc."""
    spans = [(span.start_mm + extra[0], span.end_mm + extra[0]) for span in bend_spans(shape)]
    whole = shape.developed_mm + sum(extra)
    places = {0.0, whole, *(float(at) for span in spans for at in np.linspace(*span, 7))}
    return sorted(places), spans


@pytest.mark.parametrize("held", ["A", "B"])
def test_the_usual_order_makes_the_part_and_not_its_mirror(held):
    for seed in range(150):
        shape = random_part(seed)
        made, planned = make(shape, usual_order(len(shape.bends), held), zero=3.0, allowance=2.05)
        assert misfit_mm(made, planned) < 1e-6
        if len(shape.bends) >= 3:
            assert misfit_mm(made, planned, mirrored=True) > 0.05


def test_any_order_either_end_and_either_sense_make_the_part():
    for seed in range(300):
        rng = random.Random(seed)
        shape = random_part(seed + 5000, bends=rng.randint(1, 9))
        order = list(range(len(shape.bends)))
        rng.shuffle(order)
        settings = [
            Setting(bend=k, held=rng.choice("AB"), sense=rng.choice(["left", "right"])) for k in order
        ]
        made, planned = make(shape, settings, zero=rng.uniform(-5, 5))
        assert misfit_mm(made, planned) < 1e-6


def test_the_simulation_can_fail():
    """Turning the tube the wrong way at every bend makes the mirror image."""
    shape = random_part(3, bends=5, hairpins=False)
    flipped = BendList(
        bends=tuple(
            Bend(
                straight_mm=b.straight_mm,
                rotation_deg=-b.rotation_deg,
                angle_deg=b.angle_deg,
                radius_mm=b.radius_mm,
            )
            for b in shape.bends
        ),
        last_straight_mm=shape.last_straight_mm,
    )
    made, _ = make(flipped, usual_order(5, "A"))
    _, planned = make(shape, usual_order(5, "A"))
    assert misfit_mm(made, planned) > 1
    assert misfit_mm(made, planned, mirrored=True) < 1e-6


def test_a_positive_rotation_is_turned_anticlockwise_from_either_end():
    """Geometry of a rotary-draw bender: in the usual order, whichever end is held."""
    clocks = (0.0, 90.0, 120.0)
    assert tube_turns(clocks, usual_order(3, "A")) == (0, -90, -30)
    assert tube_turns(clocks, usual_order(3, "B")) == (0, -30, -90)


BEND = Bend(straight_mm=100, rotation_deg=0, angle_deg=90, radius_mm=15)
PART = BendList(bends=(BEND,), last_straight_mm=60)


def marked(style, held="A", zero=0.0, allowance=0.0, bend=BEND):
    part = BendList(bends=(bend,), last_straight_mm=60)
    return mark_bend(
        bend,
        bend_spans(part)[0],
        part.developed_mm,
        held=held,
        style=style,
        zero_offset_mm=zero,
        allowance_mm=allowance,
    ).mm


def test_marks_by_hand():
    """R 15, 90°: arc 23.56 mm, so its middle lies 11.78 mm on (R·θ/2). From B the bend starts
    after the 60 mm straight. A zero 4 mm towards the clamp moves every mark 4 mm back."""
    assert marked("start") == pytest.approx(100)
    assert marked("middle") == pytest.approx(111.781, abs=1e-3)
    assert marked("start", held="B") == pytest.approx(60)
    assert marked("middle", held="B") == pytest.approx(71.781, abs=1e-3)
    assert marked("start", zero=4) == pytest.approx(96)
    assert marked("start", allowance=2.05) == pytest.approx(102.05)


def test_corner_less_take_up_is_the_same_place_by_another_sum():
    assert marked("corner", zero=4, allowance=2) == pytest.approx(marked("start", zero=4, allowance=2))
    hairpin = Bend(straight_mm=100, rotation_deg=0, angle_deg=170, radius_mm=15)
    assert marked("corner", bend=hairpin) is None


def test_a_middle_mark_comes_to_lie_half_way_round_the_bend():
    """Bend the tube literally and look where the middle mark of the plan is: at half the angle."""
    bend = Bend(straight_mm=120, rotation_deg=0, angle_deg=80, radius_mm=20)
    part = BendList(bends=(bend,), last_straight_mm=90)
    span, whole = bend_spans(part)[0], part.developed_mm
    start = mark_bend(bend, span, whole, held="A", style="start").mm
    middle = mark_bend(bend, span, whole, held="A", style="middle").mm
    tube = Tube(whole, [0.0, start, middle, span.end_mm, whole])
    tube.bend(held="A", mark_mm=start, zero_mm=0, turn_deg=0, angle_deg=80, radius_mm=20, sense="left")
    way = tube.ways[2]
    assert np.degrees(np.arctan2(way[1], way[0])) == pytest.approx(40)


def test_half_a_turn_when_the_tube_is_changed_over_or_the_tool_swings_the_other_way():
    """Rotary-draw geometry: the swinging side changes and the tool's sense does not, so 180° is added."""
    clocks = (0.0, 30.0)
    over = (Setting(bend=0, held="A"), Setting(bend=1, held="B"))
    assert tube_turns(clocks, over) == (0, pytest.approx(-150))
    other = (Setting(bend=0, held="A", sense="left"), Setting(bend=1, held="A", sense="right"))
    assert tube_turns(clocks, other) == (0, pytest.approx(150))
    both = (Setting(bend=0, held="A", sense="left"), Setting(bend=1, held="B", sense="right"))
    assert tube_turns(clocks, both) == (0, pytest.approx(30))
    assert tube_turns((), ()) == ()
