"""Clips as things: on loose and made tight one by one, the hole and what is behind it, one finding for all
that are missing. Expected: trade practice as written down by hand."""

from dataclasses import replace

import pytest

from bendrel.core.joints.closing import joints_of
from bendrel.core.line.condition import Condition, Fixture
from bendrel.core.line.document import HoseSpan
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.core.work.closing import work_of
from tests.core.test_closing import KIT, TUBE, line

HOLE = Length(text="6.5")


def clip(name, at, **changes):
    return Fixture(id=name, at=Length(text=str(at)), **changes)


def clipped(*fixtures, **changes):
    made = line("cooler", (replace(TUBE, id="s1", **changes),))
    return replace(made, condition=Condition(fixtures=fixtures))


def told(made):
    return {
        step.id: step.text for step in work_of(made, KIT, joints_of(made, KIT)).steps if "clip" in step.id
    }


def test_each_clip_goes_on_loose_and_is_made_tight_by_itself():
    steps = told(
        clipped(
            clip("f1", 60, clip="pclip_5", fixed_to="an existing hole", shared="the fuel return"),
            clip(
                "f2",
                120,
                state="missing",
                fixed_to="a hole to drill",
                drill=Length(text="6.5"),
                behind="tank",
            ),
            clip("f3", 150, kind="sleeve"),
        )
    )
    assert list(steps) == [
        "clip-loose-f1",
        "clip-loose-f2",
        "clip-loose-f3",
        "clip-tight-f1",
        "clip-tight-f2",
    ]
    assert steps["clip-loose-f1"] == (
        "Lined P-clip 5 mm at 60 mm. On an existing hole. It holds the fuel return too. Loose."
    )
    assert "drill 6.5 mm, deburr, paint. Behind it: tank; guard it. Loose." in steps["clip-loose-f2"]
    assert steps["clip-loose-f3"] == "Sleeve at 150 mm."
    assert steps["clip-tight-f2"] == "Clip at 120 mm: snug, the line not pulled."
    assert list(told(clipped())) == ["clips-loose", "clips"]


def test_what_sits_whole_on_old_tube_that_stays_is_not_asked():
    old = clipped(clip("f1", 60), clip("f2", 120, state="broken"), state="stays")
    assert list(told(old)) == ["clip-loose-f2", "clip-tight-f2"]


def found(made, code):
    return [one for one in plan_line(made, KIT).findings if one.code == code]


def test_all_that_are_missing_are_one_finding():
    (one,) = found(clipped(clip("f1", 60, state="missing")), "fixture")
    assert one.title == "A clip is missing at 60 mm"
    (both,) = found(
        clipped(clip("f1", 60, state="missing"), clip("f2", 80, state="broken"), clip("f3", 90)), "fixture"
    )
    assert both.title == "2 clips and sleeves are missing or broken"
    assert "Clip missing at 60 mm; clip broken at 80 mm." in both.message


@pytest.mark.parametrize(("behind", "asked"), [("", 1), ("cabin, carpet back", 0)])
def test_what_is_behind_a_hole_is_asked_before_it_is_drilled(behind, asked):
    made = clipped(clip("f1", 60, state="to fit", fixed_to="a hole to drill", behind=behind))
    assert len(found(made, "clip_behind")) == asked
    assert not found(made, "fixture")


def test_the_drill_for_its_holes_is_among_the_tools_once():
    holes = {"fixed_to": "a hole to drill", "drill": HOLE}
    made = clipped(
        clip("f1", 60, **holes), clip("f2", 90, **holes), clip("f3", 120, fixed_to="a hole to drill")
    )
    drills = [tool.what for tool in plan_line(made, KIT).chosen.tools if tool.what.startswith("drill")]
    rest = "centre punch, deburring tool, paint"
    assert drills == [f"drill 6.5 mm, {rest}", f"drill as large as the clip's screw, {rest}"]
    assert not any("drill" in tool.what for tool in plan_line(clipped(clip("f1", 60)), KIT).chosen.tools)


def test_a_hose_is_held_too_and_a_clip_beyond_it_is_said():
    hose = HoseSpan(id="h1", hose="cooler_3-8in", length=Length(text="400"))
    made = replace(
        line("cooler", (hose,)),
        condition=Condition(fixtures=(clip("f1", 200, span="h1"), clip("f2", 900, span="h1"))),
    )
    looked = plan_line(made, KIT).looked
    assert [(one.span, one.at_mm) for one in looked.fixtures] == [("h1", 200)]
    assert [one.message for one in looked.problems] == ["This lies beyond end B; positions run from end A."]


def test_a_hole_that_cannot_be_read_is_said_where_it_stands():
    made = clipped(clip("f1", 60, fixed_to="a hole to drill", drill=Length(text="small"), behind="air"))
    (problem,) = plan_line(made, KIT).looked.problems
    assert problem.path == "/condition/fixtures/f1/drill"
