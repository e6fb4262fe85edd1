"""When a line is due again, in words."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from bendrel.core.line.proving import FollowUp
from bendrel.core.work.follow_up import due_of
from tests.lines import bent, row

LINE = bent(row(100, 90))


@pytest.mark.parametrize(
    ("due", "said"),
    [
        ({"km": "75", "day": "2027-01-01"}, "after 75 km or by 2027-01-01, whichever comes first"),
        ({"hours": " 1,000 "}, "after 1,000 h"),
        ({"cycles": "3"}, "after 3 heat cycles"),
        ({"km": "soon"}, "after “soon” (no number of kilometres)"),
        ({}, "no date yet"),
    ],
)
def test_when_it_is_due(due, said):
    line = replace(LINE, proving=replace(LINE.proving, follow_ups=(FollowUp(id="f1", **due),)))
    (told,) = due_of(line, date(2026, 12, 2))
    assert (told.text, told.late) == (said, False)


def test_a_day_that_has_passed_is_late_and_what_was_done_is_not_told():
    due = (FollowUp(id="f1", day="2026-12-01"), FollowUp(id="f2", day="2026-11-01", done="2026-11-02"))
    line = replace(LINE, proving=replace(LINE.proving, follow_ups=due))
    assert [(one.id, one.late) for one in due_of(line, date(2026, 12, 2))] == [("f1", True)]
