"""A hose by a wire laid in, or by the old hose: expected figures by hand from the catalogue's rows."""

import dataclasses

import pytest

from bendrel.core.line.document import HoseSpan, Line
from bendrel.core.line.edits.turned import reversed_hose
from bendrel.core.line.hose_way import BoughtHose, HoseEndAt, HosePattern, HoseWay
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length


def mm(text):
    return Length(text=str(text))


def line(pattern, length="372", **changes):
    """A rubber-lined braided hose of dash 8: 17.5 mm outside, 75 mm inside the bend at the least (its row of
    hoses.csv), so 83.75 of its middle."""
    hose = HoseSpan(id="h1", hose="oil-cooler_dash8", joined="reusable", length=mm(length), pattern=pattern)
    hose = dataclasses.replace(hose, **changes)
    return Line(name="cooler", service="oil-cooler", unit="mm", spans=(hose,))


def told(kit, made):
    plan = plan_line(made, kit)
    return {
        f.title: f for f in plan.findings if f.code in ("hose_kinks", "hose_pattern", "hose_length")
    }, plan


@pytest.mark.parametrize(("radius", "tight"), [("83.8", False), ("83", True)])
def test_the_wire_may_be_no_tighter_than_the_hose(kit, radius, tight):
    found, _ = told(kit, line(HosePattern(length=mm(372), radius=mm(radius), at=mm(96))))
    assert list(found) == (["The wire lay too tightly for this hose"] if tight else [])
    if tight:
        (finding,) = found.values()
        assert finding.severity == "stop"
        assert "83 mm, 96 mm from end A; this hose's middle needs 83.8 mm" in finding.message


def test_the_length_of_the_wire_is_taken_with_one_press(kit):
    found, _ = told(kit, line(HosePattern(length=mm(372)), length=""))
    fix = found["The wire says 372 mm"].fix
    assert [(one.path, one.value) for one in fix.changes] == [
        ("/spans/h1/length/text", "372 mm"),
        ("/spans/h1/length/exact_mm", 372.0),
    ]


@pytest.mark.parametrize(
    ("was", "length", "title"),
    [
        ("", "372", None),
        ("", "371.7", None),
        ("", "368", "The hose is shorter than the old hose"),
        ("right", "372", None),
        ("pulled", "372", "The old hose pulled"),
        ("pulled", "390", None),
        ("pulled", "", "The old hose pulled"),
        ("rubbed", "372", "The old hose rubbed"),
    ],
)
def test_the_old_hose_says_more_than_its_length(kit, was, length, title):
    found, _ = told(kit, line(HosePattern(by="old hose", length=mm(372), was=was), length=length))
    assert list(found) == ([title] if title else [])


def test_a_sleeve_answers_an_old_hose_that_rubbed(kit):
    found, _ = told(kit, line(HosePattern(by="old hose", length=mm(372), was="rubbed"), sleeved=True))
    assert not found


def test_a_place_beyond_the_wire_is_said_and_nothing_is_lost(kit):
    _, plan = told(kit, line(HosePattern(length=mm(372), radius=mm(90), at=mm(400))))
    assert [(p.path, p.message) for p in plan.problems] == [
        ("/spans/h1/pattern/at", "This lies beyond end B: the wire is 372 long.")
    ]


def test_turned_round_the_tightest_place_is_told_from_the_other_end():
    hose = line(HosePattern(length=mm(372), radius=mm(90), at=mm(96))).spans[0]
    assert reversed_hose(hose).pattern.at.exact_mm == pytest.approx(276)


def bought(kit, read, stands="", **changes):
    hose = HoseSpan(
        id="h1",
        hose="oil-cooler_dash8",
        joined="crimped",
        length=mm(500),
        angle_a=90,
        angle_b=90,
        clock="90",
        bought=BoughtHose(length=Length(text=read), clock=stands),
    )
    made = Line(name="cooler", service="oil-cooler", unit="mm", spans=(dataclasses.replace(hose, **changes),))
    plan = plan_line(made, kit)
    return [one.title for one in plan.findings if one.code == "bought_hose"], plan


@pytest.mark.parametrize(
    ("length", "clock", "titles"),
    [
        ("", "", []),
        # a hundredth of 500 mm either way, five degrees either way
        ("495", "85", []),
        ("505", "95", []),
        ("494.9", "", ["The bought hose is too short"]),
        ("505.1", "", ["The bought hose is too long"]),
        ("500", "84", ["The elbows of the bought hose stand otherwise"]),
        ("500", "270", ["The elbows of the bought hose stand otherwise"]),
        ("500", "-270", []),
    ],
)
def test_a_bought_hose_is_held_against_what_is_wanted(kit, length, clock, titles):
    assert bought(kit, length, clock)[0] == titles


@pytest.mark.parametrize(
    ("stands", "titles"), [("180", []), ("90", ["The elbows of the bought hose stand otherwise"])]
)
def test_a_bought_hoses_elbows_are_held_against_the_way_where_no_clock_is_typed(kit, stands, titles):
    """A hose that lies straight, out of one port that looks up and into one that looks down: half a turn."""
    a, b = (
        HoseEndAt(x=mm(x), y=mm(0), z=mm(0), way=way, seat=seat)
        for x, way, seat in ((0, "+x", "+z"), (400, "+x", "-z"))
    )
    way = HoseWay(a=a, b=b)
    assert bought(kit, "500", stands, clock="", way=way, length=mm(500))[0] == titles


def test_of_a_bought_hose_only_what_is_known_is_judged(kit):
    assert bought(kit, "300", "10", length=Length(), clock="")[0] == []
    assert bought(kit, "300", "10", state="stays")[0] == []
    _, plan = bought(kit, "long", "round")
    assert {one.path for one in plan.problems} >= {"/spans/h1/bought/length", "/spans/h1/bought/clock"}
