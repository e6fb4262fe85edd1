"""Getting the old ends apart: what is tried by how they close, and what the end of it means elsewhere.
Expected: trade practice as written down by hand (soak, to and fro, no warmth near what burns)."""

import dataclasses

import pytest

from bendrel.core.joints.closing import joints_of
from bendrel.core.line.condition import Condition
from bendrel.core.line.document import BendReadings, HoseSpan, Line, RigidSpan, TubeEnd
from bendrel.core.line.opened import port_opened
from bendrel.core.line.removal import Removal, RemovedItem, TakenApart, refit_steps
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.core.work.closing import work_of


def old(service, fitting="double-45", nut=None, **changes):
    """An old tube that stays, 600 mm long."""
    span = RigidSpan(
        id="s1",
        state="stays",
        tube="copper-nickel_3-16in_0.711",
        bender="",
        readings=BendReadings(last=Length(text="600")),
        end_a=TubeEnd(fitting=fitting, nut=nut),
        end_b=TubeEnd(fitting=fitting, nut=nut),
    )
    return dataclasses.replace(Line(name="old", service=service, unit="mm", spans=(span,)), **changes)


def apart(kit, line):
    return plan_line(line, kit).apart


@pytest.mark.parametrize(
    ("service", "fitting", "tried", "warm"),
    [
        ("cooler", "double-45", ["grip", "soak", "to-and-fro", "warmth", "six-point"], True),
        ("fuel-low", "double-45", ["grip", "soak", "to-and-fro", "six-point"], False),
        ("fuel-low", "quick", ["latch-soak", "latch-turn", "latch-cut"], None),
        ("fuel-low", "bead", ["hose-turn", "hose-slit"], False),
        ("coolant", "bead", ["hose-turn", "hose-warm", "hose-slit"], True),
        ("unspecified", "double-45", ["grip", "soak", "to-and-fro", "six-point"], False),
    ],
)
def test_what_is_tried_goes_by_how_it_closes_and_what_it_holds(kit, service, fitting, tried, warm):
    for end in apart(kit, old(service, fitting)):
        assert [way.id for way in end.ways] == tried
        assert bool(end.warning) == (warm is False)


def test_a_hose_end_is_asked_as_a_hose(kit):
    hose = HoseSpan(id="h1", hose="coolant_5-8in", length=Length(text="400"))
    line = Line(name="h", service="coolant", unit="mm", spans=(hose,))
    assert [way.id for way in apart(kit, line)[0].ways] == ["hose-turn", "hose-warm", "hose-slit"]


@pytest.mark.parametrize(
    ("thought", "ended", "state"),
    [
        ("not tried", "", "not tried"),
        ("seized", "came undone", "comes undone"),
        ("not tried", "came, damaged", "comes undone"),
        ("comes undone", "left shut", "seized"),
        ("seized in an expensive part", "tube cut behind it", "seized in an expensive part"),
    ],
)
def test_how_it_ended_counts_in_replace_or_splice(kit, thought, ended, state):
    removal = Removal(apart=(TakenApart(end="B", ended=ended),))
    condition = Condition(reasons=("weeping",), end_a="seized", end_b=thought)
    plan = plan_line(old("cooler", removal=removal, condition=condition), kit)
    assert plan.apart[1].state == state
    argued = {one.id for one in plan.looked.recommendation.arguments}
    assert ("ends_seized" in argued) == state.startswith("seized")
    assert ("expensive_part" in argued) == (state == "seized in an expensive part")


def test_an_end_left_shut_is_not_opened_on_paper():
    removal = Removal(done=("plug-A", "plug-B"), apart=(TakenApart(end="A", ended="left shut"),))
    line = old("cooler", removal=removal)
    assert [port_opened(line, "A"), port_opened(line, "B")] == [False, True]


def test_a_hose_that_is_clamped_shut_is_proved_and_let_go_again(kit):
    line = old("fuel-low", removal=Removal(hose_shut=True, done=("shut-clamp",)))
    steps = [step.id for step in plan_line(line, kit).removed.advice.steps]
    assert steps[0] == "clean"
    assert steps[-2:] == ["shut-clamp", "shut-proved"]
    assert "the clamp on the hose" in {
        thing.what for thing in work_of(line, kit, joints_of(line, kit)).put_on
    }
    without = dataclasses.replace(line, removal=Removal())
    assert "shut-clamp" not in [step.id for step in plan_line(without, kit).removed.advice.steps]


def test_what_was_moved_aside_is_looked_at_again():
    removal = Removal(items=(RemovedItem(kind="moved aside", what="heater hose", where="on the bulkhead"),))
    (step,) = refit_steps(removal)
    assert step.text == "look again at heater hose, on the bulkhead: seated, held, nothing pinched"


def test_an_end_that_a_mend_leaves_alone_is_not_asked(kit):
    """Old tube on both sides of a new hose: neither port is touched, unless somebody noted that it was."""
    whole = old("cooler")
    hose = HoseSpan(id="h1", hose="cooler_5-16in", length=Length(text="150"))
    (span,) = whole.spans
    mended = dataclasses.replace(whole, spans=(span, hose, dataclasses.replace(span, id="s2")))
    assert apart(kit, mended) == ()
    noted = dataclasses.replace(mended, removal=Removal(apart=(TakenApart(end="B", ended="left shut"),)))
    assert [one.end for one in apart(kit, noted)] == ["B"]
    assert [one.end for one in apart(kit, whole)] == ["A", "B"]
