"""What keeps a line from being done comes first: what is on the machine, then what only has to be made, then
what is still to be thought about."""

from dataclasses import replace

import pytest

from bendrel.core.line.document import BendReadings
from bendrel.core.line.proving import Done, FillRow, Proving
from bendrel.core.line.removal import OpenItem, Removal, RemovedItem
from bendrel.core.plan.next_step import next_step
from bendrel.core.plan.planner import plan_line
from tests.lines import End, bent, row, with_tube

SOUND = bent(row(100, 90), row(60, 45, "3:00"))
NUT = End(fitting="double-45", nut="double-45_3-16in_3-8-24", thread="3/8-24")
UNPROVED = bent(row(100, 90), last=80, end_a=NUT)
BAD = with_tube(SOUND, tube="aluminium-3003_3-16in_0.889")
UNREAD = with_tube(SOUND, readings=BendReadings())
OFF = replace(SOUND, removal=Removal(items=(RemovedItem(what="wheel", count=4, kind="nut"),)))


def said(kit, line):
    told = next_step(line, plan_line(line, kit))
    return told.text, told.rank


@pytest.mark.parametrize(
    ("line", "text", "rank"),
    [
        (replace(OFF, finished=True), "Refit: 4 × nut wheel", 0),
        (replace(SOUND, finished=True, open_items=(OpenItem(what="clip"),)), "Close: clip", 0),
        (replace(SOUND, proving=Proving(fills=(FillRow(step="fill"),))), "Prove it and sign it off", 0),
        (replace(SOUND, proving=Proving(done=(Done(step="hand-s1-A"),))), "Fit it", 0),
        (SOUND, "Print the sheet and make it", 1),
        (UNPROVED, "Prove the nuts in the ports", 2),
        (BAD, "Settle the stops", 3),
        (UNREAD, "Finish the readings", 4),
    ],
)
def test_the_next_step_and_its_turn(kit, line, text, rank):
    assert said(kit, line) == (text, rank)


def test_of_what_is_left_for_later_the_first_that_is_due_is_told(kit):
    items = (
        OpenItem(what="later"),
        OpenItem(what="soon", due="2026-03-01"),
        OpenItem(what="sooner", due="2026-02-01"),
    )
    assert said(kit, replace(SOUND, finished=True, open_items=items))[0] == "Close: sooner"


def test_a_line_with_nothing_left_is_done(kit):
    assert said(kit, replace(SOUND, finished=True)) == ("Done", 9)
