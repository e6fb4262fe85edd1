"""Replace or splice, and what was found on the old line (common practice)."""

from dataclasses import replace
from pathlib import Path

import pytest

from bendrel.core.findings import Spot
from bendrel.core.line.condition import Condition, Damage, Decision, Fixture
from bendrel.core.line.document import Joint, SetAside
from bendrel.core.mend.recommend import ARGUMENT_IDS
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.lines import bent, row

SEIZED, EXPENSIVE = "seized", "seized in an expensive part"


def rust(at, to=None, **changes):
    return Damage(at=Length(text=f"{at}"), to=Length(text="" if to is None else f"{to}"), **changes)


def line(service="brake", **condition):
    """A line 283.6 mm along the tube: 100 + 60 + 100 of straight and two arcs of R 15."""
    return bent(row(100, 90), row(60, 45, "3:00"), service=service, condition=Condition(**condition))


def looked(kit, service="brake", **condition):
    return plan_line(line(service, **condition), kit).looked


@pytest.mark.parametrize(
    ("service", "condition", "expected"),
    [
        # brake and high pressure: replace
        ("brake", {"damage": (rust(20, 30),)}, "replace whole"),
        ("brake", {"damage": (rust(20),), "end_a": SEIZED, "end_b": SEIZED}, "replace whole"),
        ("hydraulic", {"damage": (rust(20),), "school": "economy"}, "replace whole"),
        # corrosion in more than one place
        ("cooler", {"damage": (rust(10), rust(200)), "school": "economy"}, "replace whole"),
        # one place, fittings seized in an expensive part: economy and untouched fittings
        (
            "cooler",
            {"damage": (rust(100, 120),), "end_a": EXPENSIVE, "end_b": SEIZED, "school": "economy"},
            "splice",
        ),
        ("cooler", {"damage": (rust(100),), "school": "economy", "part_available": False}, "splice"),
        # one end seized and the damage near one end: from a separation point
        (
            "cooler",
            {"damage": (rust(10, 30),), "end_b": SEIZED},
            "replace from a separation point",
        ),
        # a tidy restoration, an upgrade, a route that is the fault, age
        ("cooler", {"damage": (rust(100),)}, "replace whole"),
        ("cooler", {"reasons": ("upgrade",), "school": "economy"}, "replace whole"),
        (
            "cooler",
            {"reasons": ("dangerous route",), "damage": (rust(100),), "school": "economy"},
            "replace whole",
        ),
        ("cooler", {"reasons": ("brittle",), "cause": "age"}, "replace whole"),
    ],
)
def test_what_the_arguments_come_out_for(kit, service, condition, expected):
    assert looked(kit, service, **condition).recommendation.choice == expected


@pytest.mark.parametrize(
    ("ends", "said"),
    [
        (("not tried", "not tried"), set()),
        (("not tried", "comes undone"), set()),
        (("comes undone", "comes undone"), {"ends_free"}),
        ((SEIZED, "not tried"), set()),
        ((SEIZED, SEIZED), {"ends_seized"}),
        ((SEIZED, EXPENSIVE), {"ends_seized", "expensive_part"}),
    ],
)
def test_an_end_that_nobody_tried_is_no_argument(kit, ends, said):
    """What was not tried is not said to come undone, nor to be seized."""
    told = looked(kit, "cooler", damage=(rust(100, 120),), end_a=ends[0], end_b=ends[1]).recommendation
    about_ends = {"ends_free", "ends_seized", "expensive_part"}
    assert {one.id for one in told.arguments} & about_ends == said


def test_every_argument_is_known_weighed_and_sourced(kit):
    assert {argument.id for argument in kit.arguments} == ARGUMENT_IDS
    for argument in kit.arguments:
        assert argument.weight != 0
        assert argument.text.endswith(".")
        assert argument.source.text


def test_nothing_found_nothing_advised(kit):
    assert looked(kit).recommendation is None


def test_damage_and_clips_lie_where_they_were_found(kit):
    found = looked(
        kit,
        damage=(rust("2in", "3in", kind="chafe", depth="through"), rust(90, 80)),
        fixtures=(Fixture(at=Length(text="120"), state="missing"),),
    )
    assert [(d.from_mm, d.to_mm) for d in found.damage] == [(50.8, pytest.approx(76.2)), (80, 90)]
    assert found.fixtures[0].at_mm == 120


def test_a_place_that_cannot_be_read_or_lies_beyond_b_is_told_and_stops_nothing(kit):
    plan = plan_line(line(damage=(rust("nowhere"), rust(900), rust(""))), kit)
    assert plan.part is not None
    assert [p.path for p in plan.looked.problems] == ["/condition/damage/d1/at", "/condition/damage/d2/at"]
    assert "beyond end B" in plan.looked.problems[1].message
    assert plan.looked.damage == ()


def codes(kit, **condition):
    return {f.code: f for f in plan_line(line(**condition), kit).findings}


def test_the_twin_of_a_rusted_line(kit):
    assert codes(kit, reasons=("rusted through",))["twin"].severity == "note"
    assert "twin" not in codes(kit, reasons=("rusted through",), twin="sound")
    assert "twin" not in codes(kit, reasons=("nicked",))


def test_a_plan_that_repeats_the_old_contact(kit):
    worn = (rust(100, 120, kind="chafe"),)
    finding = codes(kit, damage=worn)["old_contact"]
    assert (finding.severity, finding.where.from_mm, finding.where.to_mm) == ("caution", 100, 120)
    assert "old_contact" not in codes(kit, damage=worn, countermeasure="sleeve")
    assert "old_contact" in codes(kit, damage=(rust(100),), cause="contact")
    assert "old_contact" not in codes(kit, damage=(rust(100),), cause="trapped dirt")


def test_clips_that_an_earlier_owner_never_put_back(kit):
    fixtures = (Fixture(at=Length(text="50"), state="missing"), Fixture(at=Length(text="90")))
    found = [f for f in plan_line(line(fixtures=fixtures), kit).findings if f.code == "fixture"]
    assert [f.where.item for f in found] == ["f1"]
    assert "missing at 50 mm" in found[0].title


def test_a_decision_against_the_advice_needs_its_reason(kit):
    splice = Decision(choice="splice")
    assert "decision_without_reason" in codes(kit, damage=(rust(100),), decision=splice)
    told = replace(splice, reason="inspector agreed to a flared union")
    assert "decision_without_reason" not in codes(kit, damage=(rust(100),), decision=told)
    whole = Decision(choice="replace whole")
    assert "decision_without_reason" not in codes(kit, damage=(rust(100),), decision=whole)


def test_findings_on_several_places_are_set_aside_one_by_one(kit):
    worn = (rust(20, kind="chafe"), rust(200, kind="chafe"))
    noted = replace(
        line(damage=worn),
        set_aside=(SetAside(code="old_contact", at=Spot(kind="tube", item="d1"), reason="clip moved"),),
    )
    told = plan_line(noted, kit).findings
    aside = {f.where.item: f.set_aside for f in told if f.code == "old_contact"}
    assert aside == {"d1": "clip moved", "d2": ""}


def test_the_guide_lists_every_rule_as_it_stands(kit):
    guide = (Path(__file__).parents[2] / "docs/guide/taking-in-looking-removing.md").read_text("utf-8")
    for argument in kit.arguments:
        way = "for" if argument.weight > 0 else "against"
        assert f"| {way} {argument.choice} | {abs(argument.weight):g} | {argument.text} |" in guide


def test_a_decided_splice_is_not_ready_to_be_cut_whole(kit):
    """Until a splice has a plan of its own, the plan of the whole line is stopped and says so."""
    for choice in ("splice", "replace from a separation point"):
        decided = line(decision=Decision(choice=choice, reason="one bad place near the end"))
        stop = next(f for f in plan_line(decided, kit).findings if f.code == "not_planned")
        assert stop.severity == "stop"
        assert "do not cut" in stop.message
        groups = {need.ref.split(":")[0] for need in plan_line(decided, kit).chosen.needs}
        assert "tube" not in groups
        assert ("nut" in groups) == (choice != "splice")
    assert "not_planned" not in codes(kit, decision=Decision(choice="replace whole"))


def test_damage_is_measured_along_its_own_tube(kit):
    """300 mm to make, 1,500 mm that stays: what is noted at 900 mm of the second lies on it, at 1,600 mm it
    lies beyond it; of the first, 400 mm does."""
    first = bent(last=300, service="cooler", tube="steel-plated_3-8in_0.711", bender="given_any")
    tube = first.spans[0]
    second = replace(tube, id="s2", state="stays", readings=replace(tube.readings, last=Length(text="1500")))
    line = replace(first, spans=(tube, second), joints=(Joint(kind="flared-union"),))

    def told(span, at):
        noted = Condition(damage=(Damage(span=span, at=Length(text=f"{at} mm"), to=Length(text=f"{at} mm")),))
        looked = plan_line(replace(line, condition=noted), kit).looked
        return [d.from_mm for d in looked.damage], [p.message for p in looked.problems]

    assert told("s2", 900) == ([900], [])
    assert told("s2", 1600)[0] == []
    assert "beyond end B" in told("s2", 1600)[1][0]
    assert told(tube.id, 400)[0] == []
    assert told(tube.id, 290)[0] == [290]
