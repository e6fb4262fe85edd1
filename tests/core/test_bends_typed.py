"""Bends of the old part on its sheet as a person types them: what is taken, and what is said of the rest."""

from __future__ import annotations

from dataclasses import replace

import pytest

from bendrel.core.line.checks import BendOnSheet, Checks, OnSheet
from bendrel.core.line.given import drawn_sheet
from bendrel.core.line.measured import measure
from bendrel.core.line.resolve import resolve
from tests.lines import bent, row

LINE = bent(row(100, 90), row(60, 45, "3:00"), row(80, 30, "5:00"), last=70)
(TUBE,) = LINE.spans
READ = resolve(TUBE.readings, od_mm=4.75, radius_mm=15).read
DRAWN = drawn_sheet(TUBE, READ, 20.0)
HIGH = DRAWN.bends[1].high


def measured(kit, drawn=DRAWN, **typed):
    sheet = OnSheet(
        along="0", off="touches", tilt="square", drawn=drawn, bends=(BendOnSheet(**{"row": "r2"} | typed),)
    )
    return measure(replace(TUBE, checks=Checks(sheet=sheet)), kit, READ).measured


def problem(kit, **typed):
    (said,) = measured(kit, **typed).problems
    return said.path, said.message


def test_a_bend_that_lies_as_drawn_agrees_and_moves_nothing(kit):
    told = measured(kit, beside="touches", height=f"{HIGH}")
    (check,) = (check for check in told.checks if check.kind == "bend on sheet")
    assert (check.of, check.agrees) == ("s1", True)
    assert all(one.taken == pytest.approx(one.read, abs=0.01) for one in told.taken)


def test_left_and_right_are_two_sides_and_high_and_low_too(kit):
    def planes(**typed):
        return [one.taken - one.read for one in measured(kit, **typed).taken]

    right, left = planes(beside="0.4"), planes(beside="0.4", left=True)
    assert max(map(abs, right)) > 0.01
    assert right == pytest.approx([-moved for moved in left], abs=0.02)
    high, low = planes(height=f"{HIGH + 0.4}"), planes(height=f"{HIGH - 0.4}")
    assert high == pytest.approx([-moved for moved in low], abs=0.02)


def test_what_is_far_off_contradicts_and_nothing_is_bent_to_fit(kit):
    told = measured(kit, height=f"{HIGH + 300}")
    assert told.disagree
    assert told.taken == ()


def test_what_cannot_be_read_is_said_at_its_field(kit):
    at = "/spans/s1/checks/sheet/bends/s1"
    assert problem(kit, beside="a hair")[0] == f"{at}/beside"
    path, said = problem(kit, height="-4")
    assert path == f"{at}/height"
    assert "“-4”" in said
    path, said = problem(kit, row="gone", height="20")
    assert path == f"{at}/row"
    assert said.startswith("This bend is gone")


def test_a_sheet_that_did_not_show_the_bend_says_nothing_of_it(kit):
    older = replace(DRAWN, bends=(), up=None)
    path, said = problem(kit, drawn=older, height="20")
    assert path.endswith("/row")
    assert "read it on a sheet printed now" in said


def test_where_the_tube_stands_up_from_the_board_nothing_is_read(kit):
    up = replace(DRAWN, up=DRAWN.bends[1].way)
    assert "stands up from the board" in problem(kit, drawn=up, height="20")[1]


def test_with_no_sheet_kept_the_bend_lies_beside_what_the_readings_draw(kit):
    told = measured(kit, drawn=None, beside="touches")
    assert [check.agrees for check in told.checks if check.kind == "bend on sheet"] == [True]
