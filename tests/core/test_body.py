"""What stands around the tube at a tool, against boxes worked out by hand, and the die itself."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.tool.body import Block, Surroundings, surroundings
from bendrel.core.bend.tool.sides import Tail
from bendrel.core.bend.tool.swing import levered, resting, swinging
from bendrel.core.findings import Source
from bendrel.core.parts.tool_kind import Bench, ToolKind

SOURCE = Source(kind="from memory", text="round figures of this test")
R, OD = 20.0, 6.0
KIND = ToolKind(
    id="k", name="k", mount="in the vise", behind=10, gap=2, wide=1.5, thick=3, lever=8, lever_wide=0.5,
    lever_gap_mm=12, die_thick=4, post=1.2, above_bench_mm=150, by_feel=False, flattens=1, kinks_below=0,
    words="", source=SOURCE,
)  # fmt: skip
BENCH = Bench(
    id="b", name="b", ahead_mm=900, behind_mm=600, far_mm=500, near_mm=200, wall_mm=700, floor_mm=950,
    thick_mm=45, vise_long_mm=130, vise_wide_mm=90, vise_tall_mm=120, source=SOURCE,
)  # fmt: skip
BENDER = replace(
    load_kit().benders["lever_1-4in"],
    od_mm=OD,
    behind_mm=None,
    beside_mm=None,
    lever_mm=None,
    above_bench_mm=None,
)


def around(kind=KIND, bench=BENCH, bender=BENDER, **how):
    return {block.name: block for block in surroundings(bender, kind, bench, R, **how).blocks}


def box(block):
    return (block.low, block.high)


def test_the_boxes_of_a_tool_in_the_vise():
    """Multiples of R 20 mm: the body runs from 2·R to 10·R behind, 2·R beside the tube and 1.5·R wide, 3·R
    high; the lever from 2·R to 8·R ahead, its near side 3 + 12 mm off the axis and 0.5·R wide. The bench top
    lies 150 mm below the tube, the vise's jaws end under the die (2·R below) and 130 × 90 mm around it."""
    found = around()
    assert set(found) == {"tool body", "lever", "bench", "floor", "wall", "vise"}
    assert box(found["tool body"]) == ((-200, 40, -30), (-40, 70, 30))
    assert box(found["lever"]) == ((40, -25, -30), (160, -15, 30))
    assert [block.name for block in found.values() if block.swings] == ["lever"]
    assert box(found["bench"]) == ((-600, -200, -195), (900, 500, -150))
    assert box(found["vise"]) == ((-65, -25, -150), (65, 65, -40))
    assert found["floor"].high[2] == -1100
    assert found["wall"].low[1:] == (700, -1100)
    assert surroundings(BENDER, KIND, BENCH, R).die_half_mm == 40


def test_a_vise_that_ends_below_the_die_ends_where_it_ends():
    low = around(kind=replace(KIND, above_bench_mm=200))
    assert low["vise"].high[2] == 120 - 200


def test_a_tool_on_the_bench_stands_on_its_post():
    found = surroundings(BENDER, replace(KIND, mount="on the bench"), BENCH, R).blocks
    posts = [box(block) for block in found if block.name == "tool body"]
    assert posts == [((-200, 40, -30), (-40, 70, 30)), ((-24, -4, -150), (24, 44, -40))]
    assert "vise" not in {block.name for block in found}


def test_a_tool_in_the_hands_has_no_bench_and_a_handle():
    found = around(kind=replace(KIND, mount="in the hands"))
    assert set(found) == {"fixed handle", "lever"}
    assert set(around(kind=replace(KIND, mount="in the hands", lever=0))) == {"fixed handle"}
    assert set(around(kind=replace(KIND, mount="in the hands", behind=0))) == {"lever"}


def test_a_bench_that_stands_free_has_no_wall():
    assert "wall" not in around(bench=replace(BENCH, wall_mm=None))


def test_the_tools_own_measures_win():
    own = replace(BENDER, behind_mm=310.0, beside_mm=22.0, lever_mm=90.0, above_bench_mm=80.0)
    found = around(bender=own)
    assert box(found["tool body"]) == ((-310, 40, -30), (-40, 62, 30))
    assert found["lever"].high[0] == 90
    assert found["bench"].high[2] == -80


def test_a_tool_turned_round_is_half_a_turn_about_its_die():
    """Every corner of bench and vise turned by 180° about (0, R); what belongs to the tool stays."""
    straight, turned = around(), around(turned=True)
    for name in ("bench", "vise", "wall", "floor"):
        corners = np.array(box(straight[name]))[:, :2] - [0, R]
        there = -corners + [0, R]
        assert np.array(turned[name].low)[:2] == pytest.approx(there.min(axis=0))
        assert np.array(turned[name].high)[:2] == pytest.approx(there.max(axis=0))
        assert (turned[name].low[2], turned[name].high[2]) == (straight[name].low[2], straight[name].high[2])
    for name in ("tool body", "lever"):
        assert turned[name] == straight[name]


BARE = Surroundings(blocks=(), die_half_mm=30.0, mount="in the hands")
KEEP, GRIP = 5.0, 20.0


def tail(*points):
    """Far along the tube, so that grip and neighbourhood play no part."""
    return Tail(
        points=np.array(points, dtype=float), along=np.array([500.0 + 8 * k for k in range(len(points))])
    )


@pytest.mark.parametrize(
    ("point", "touches"),
    [
        ((0, R + R + KEEP - 1.5, 0), True),  # just within the die's radius and what is kept, less its seat
        ((0, R + R + KEEP - 0.5, 0), False),
        ((-R - KEEP + 1.5, R, 0), True),
        ((-R - KEEP + 0.5, R, 0), False),
        ((0, R, 34.5), True),  # over the middle of the die, within its height and what is kept
        ((0, R, 35.5), False),
        ((0, R, -34.5), True),
        ((0, R, -35.5), False),
    ],
)
def test_clamped_tube_that_comes_back_to_the_die(point, touches):
    """The die is a disc of radius R about (0, R), 30 mm to either side of the plane of bending."""
    found = resting(tail((-300, 0, 0), point), BARE, R, KEEP, GRIP)
    assert (found is not None) == touches
    if found:
        assert (found.thing, found.side, found.along_mm) == ("die", "clamped", 508.0)


@pytest.mark.parametrize(
    ("point", "touches"),
    [
        ((50, R, 0), True),  # 31.4 mm are drawn round by 90°: 50 mm ahead of the axis comes within 18.6 mm
        ((57, R, 0), False),  # 25.6 mm: more than 20 + 5 - 1 mm
        ((54.5, R, 0), True),
        ((50, R, 36), False),
        ((0, R + 23, 0), True),
        ((10, R + 26, 0), False),
    ],
)
def test_free_tube_that_is_drawn_into_the_die(point, touches):
    found = swinging(tail((300, 0, 0), point), BARE, R, 90, KEEP, GRIP)
    assert (found is not None) == touches
    if found:
        assert (found.thing, found.side, found.along_mm) == ("die", "free", 508.0)
        assert 0 <= found.at_deg <= 90


def test_the_tube_at_its_own_die_is_no_contact():
    """The straight that lies along the die, and what is wound on it."""
    ahead = np.arange(0, 200, 2.0)
    straight = Tail(points=np.column_stack([ahead, 0 * ahead, 0 * ahead]), along=ahead)
    assert swinging(straight, BARE, R, 180, KEEP, GRIP) is None
    behind = Tail(points=straight.points * [-1, 1, 1], along=ahead)
    assert resting(behind, BARE, R, KEEP, GRIP) is None


SHELF = Block(name="shelf", low=(100.0, 150.0, -10.0), high=(300.0, 160.0, 10.0))


@pytest.mark.parametrize(("height", "touches"), [(0.0, True), (14.5, True), (15.5, False), (-15.5, False)])
def test_a_box_in_the_way_of_the_swing(height, touches):
    """200 mm of straight swung by 90° about (0, 20): the tip passes y = 150 on the way; a box 10 mm high to
    either side is touched by tube that keeps 5 mm."""
    ahead = np.arange(0, 201, 8.0)
    free = Tail(points=np.column_stack([ahead, 0 * ahead, 0 * ahead + height]), along=ahead + 400)
    found = swinging(free, replace(BARE, blocks=(SHELF,), die_half_mm=-50.0), R, 90, KEEP, GRIP)
    assert (found is not None and found.thing == "shelf") == touches
    if touches:
        # the tip, drawn in by R·φ and turned about (0, R), is the first to come within 5 mm of y = 150
        phi = np.radians(found.at_deg)
        tip = R + np.sin(phi) * (200 - R * phi) - R * np.cos(phi)
        assert 145 - 200 * np.radians(3) < tip < 145


def test_what_lies_in_the_grip_is_the_tools_own_business():
    body = Block(name="tool body", low=(-60.0, -4.0, -10.0), high=(-5.0, 4.0, 10.0))
    near = Tail(points=np.array([[-10.0, 0, 0], [-18, 0, 0]]), along=np.array([10.0, 18.0]))
    beyond = Tail(points=np.array([[-10.0, 0, 0], [-28, 0, 0]]), along=np.array([10.0, 28.0]))
    where = replace(BARE, blocks=(body,))
    assert resting(near, where, R, KEEP, GRIP) is None
    assert resting(beyond, where, R, KEEP, GRIP).along_mm == 28.0


@pytest.mark.parametrize(
    ("place", "angle", "touches"),
    [
        ((-61, R + 51, 0), 170, True),
        ((-61, R + 51, 0), 155, False),  # not that far yet
        ((-61, R + 51, 36), 170, False),  # over it
        ((-190, R + 160, 0), 170, False),  # beyond its reach
    ],
)
def test_the_lever_comes_round_to_the_clamped_side(place, angle, touches):
    """80 mm from the axis its near side, 5 mm kept, lies at asin(-30/80) = -22°: at 140° after 162°."""
    lever = Block(name="lever", low=(40.0, -25.0, -30.0), high=(160.0, -15.0, 30.0), swings=True)
    found = levered(tail(place), (lever,), R, angle, KEEP, GRIP)
    assert (found is not None) == touches


def test_the_lever_rides_along_with_the_free_side():
    """Seen from the lever the free side only slides: what stands beside it from the start is in its way."""
    lever = Block(name="lever", low=(40.0, -25.0, -30.0), high=(160.0, -15.0, 30.0), swings=True)
    where = replace(BARE, blocks=(lever,), die_half_mm=0.0)
    assert swinging(tail((100, -20, 0)), where, R, 90, KEEP, GRIP).thing == "lever"
    late = swinging(tail((180, -20, 0)), where, R, 90, KEEP, GRIP)
    assert late.at_deg == pytest.approx(np.degrees((180 - 165) / R))  # drawn in by R·φ until it is there
    assert swinging(tail((250, -20, 0)), where, R, 90, KEEP, GRIP) is None
    assert swinging(tail((100, -31, 0)), where, R, 90, KEEP, GRIP) is None
