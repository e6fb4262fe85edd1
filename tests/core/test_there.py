"""Tools at the cuts and the shop's own pace: by the figures of the data file, worked out by hand."""

from dataclasses import replace

import pytest

from bendrel.core.bend.bench.state import MakingState, Spell, worked_minutes
from bendrel.core.mend.cuts import stays_beside
from bendrel.core.mend.gap import over_gap
from bendrel.core.mend.proposals import proposals
from bendrel.core.mend.there import cutter_there, tools_there
from bendrel.core.parts.pace import Pace, pace_of
from tests.core.test_splice import STRAIGHT, damaged, way


@pytest.mark.parametrize(
    ("free", "cutter"),
    [(None, "ratchet"), (50, "ratchet"), (22, "ratchet"), (21, "saw"), (9, "disc"), (7, None)],
)
def test_the_best_cutter_for_the_room_that_is_there(kit, free, cutter):
    found = cutter_there(kit, free)
    assert (found.id if found else None) == cutter


def test_a_wrench_without_room_to_swing_is_said_and_costs_the_way_its_place(kit):
    """A union's nut wants 35 mm to swing: with 20 free it is done with care, never silently."""
    tight = way(proposals(kit, damaged(kit, free_mm=20.0), kit.services["cooler"]), "sleeve_unions")
    wide = way(proposals(kit, damaged(kit, free_mm=60.0), kit.services["cooler"]), "sleeve_unions")
    unknown = way(proposals(kit, damaged(kit), kit.services["cooler"]), "sleeve_unions")
    assert tight.verdict == "care"
    assert any("20 mm are free" in reason.text for reason in tight.reasons)
    assert wide.verdict == unknown.verdict
    assert [tool.fits for tool in tight.tools if "wrench" in tool.what] == ["does not fit"]
    assert [tool.fits for tool in wide.tools if "wrench" in tool.what] == ["fits"]
    assert {tool.fits for tool in unknown.tools} == {"measure first"}


def test_where_nothing_cuts_the_line_comes_off_first(kit):
    told = tools_there(kit, kit.splicing.methods["hose"], "bead", "8 mm", None, 5.0, "mm")
    assert (told[0].fits, "take the line off" in told[0].why) == ("does not fit", True)


def test_the_straight_that_stays_beside_a_cut():
    assert stays_beside(STRAIGHT, 200.0, "A") == 200
    assert stays_beside(STRAIGHT, 200.0, "B") == 700


def test_the_same_over_a_gap(kit):
    tube = kit.tubes["steel-seamless_8mm_1"]
    told = way(over_gap(kit, 90, 8, 8, kit.services["cooler"], (tube,), free_mm=20.0), "hose")
    assert told.verdict == "care"
    assert any(tool.fits == "does not fit" for tool in told.tools)


def test_the_pace_pools_what_is_common_with_the_shops_own():
    """12 bends of 4 min and own 6 bends in 60: (48 + 60) / 18 = 6 min; a day at one bend is no pace."""
    assert pace_of(4, 12, 240, []) == Pace(bend_minutes=4, parts=0)
    assert pace_of(4, 12, 240, [(4, 40), (2, 20)]) == Pace(bend_minutes=6, parts=2)
    assert pace_of(4, 12, 240, [(1, 700), (0, 30), (3, 0)]) == Pace(bend_minutes=4, parts=0)


def test_the_bends_of_a_piece_are_weighed_by_the_shops_own_pace(kit):
    slow = replace(kit, pace=Pace(bend_minutes=9, parts=3))
    usual = way(proposals(kit, damaged(kit), kit.services["cooler"]), "whole")
    told = way(proposals(slow, damaged(slow), slow.services["cooler"]), "whole")
    assert "of this shop" not in usual.cost[1].words
    assert "9.0 min, from 3 parts of this shop" in told.cost[1].words


def test_minutes_worked_count_only_spells_that_ended():
    spells = (
        Spell(start="2026-11-26T18:00:00+00:00", stop="2026-11-26T18:25:00+00:00"),
        Spell(start="2026-11-26T19:00:00+00:00", stop=""),
        Spell(start="yesterday", stop="2026-11-26T18:25:00+00:00"),
    )
    assert worked_minutes(MakingState(spells=spells)) == 25


def test_what_is_said_of_the_room_is_in_the_unit_of_the_line(kit):
    told = tools_there(kit, kit.splicing.methods["hose"], "bead", "8 mm", None, 12.7, "in")
    assert any('1/2"' in tool.why for tool in told)
    assert not any(" mm" in tool.why for tool in told)
