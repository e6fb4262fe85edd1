"""The work at an old tube that a new piece meets: its order, a tool that fits there, what it takes."""

from dataclasses import replace

import pytest

from bendrel.core.line.document import Joint, TubeEnd
from bendrel.core.mend.there import flarer_there
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.units.lengths import Length
from tests.lines import bent, row


def mended(fitting, joint, long="", nut=None):
    """A new piece up to an old tube of 8 mm that stays."""
    line = bent(row(100, 90), last=200, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    end = TubeEnd(fitting=fitting, nut=nut)
    new = replace(line.spans[0], end_b=replace(end, leave_long=Length(text=long)))
    old = replace(bent(last=300, tube="steel-seamless_8mm_1", bender="lever_8mm").spans[0], id="old")
    old = replace(old, state="stays", end_a=end)
    return replace(line, spans=(new, old), joints=(Joint(kind=joint),))


def steps(kit, line):
    return order_of_work(line, kit, "s1")


def test_the_old_tube_is_cut_and_plugged_first_and_made_ready_before_the_joint_is_closed(kit):
    told = steps(kit, mended("compression", "compression-union", "25 mm"))
    kinds = [step.kind for step in told]
    assert kinds[0] == "old tube"
    assert "plug it" in told[0].text
    mark = next(k for k, step in enumerate(told) if "lay it along the old tube" in step.text)
    ready = next(k for k, step in enumerate(told) if "clean it bright" in step.text)
    sleeves = next(k for k, step in enumerate(told) if "Sleeves, springs and clips" in step.text)
    closed = next(k for k, step in enumerate(told) if step.id.startswith("tight-"))
    assert kinds.index("fit") < mark < ready < sleeves < closed
    assert "25" in told[mark].text


def test_a_flare_on_the_machine_names_the_tool_that_fits_there(kit):
    nut = kit.nuts_for("single-37", "8 mm")[0].id
    told = [step.text for step in steps(kit, mended("single-37", "flared-union", nut=nut))]
    flare = next(text for text in told if text.startswith("Flare the old tube"))
    assert "hand-held hydraulic press" in flare
    assert "on first" in flare


@pytest.mark.parametrize(("straight", "fits"), [(None, True), (15.0, True), (14.9, False)])
def test_a_tool_that_holds_more_than_the_straight_does_not_fit(kit, straight, fits):
    tool = flarer_there(kit, kit.fittings["single-37"], straight, 0.0)
    assert (tool is not None) == fits
    assert tool is None or tool.use == "on the machine"


def test_a_line_without_old_tube_has_none_of_it(kit):
    assert "old tube" not in {step.kind for step in order_of_work(bent(row(100, 90), last=80), kit)}


def test_the_unions_and_the_old_tubes_own_nuts_are_on_the_shopping_list(kit):
    nut = kit.nuts_for("single-37", "8 mm")[0].id
    plan = plan_line(mended("single-37", "flared-union", nut=nut), kit)
    needs = {need.ref: need.amount for need in plan.chosen.needs}
    assert needs["joint:flared-union/8 mm"] == 1
    count = sum(need.amount for need in plan.chosen.needs if need.ref == f"nut:{nut}")
    assert count == 2


def test_a_piece_without_bends_is_flared_first_not_before_a_bend(kit):
    straight = order_of_work(bent(last=300), kit)
    assert not any("bend" in step.text for step in straight if step.kind == "flare")


def test_a_bent_piece_between_two_old_tubes_is_held_against_its_gap_once_more(kit):
    """Straights of 100 and 200 about a bend of 90° with a radius of 22 mm: across it is √(122² + 222²)."""
    line = mended("compression", "compression-union")
    before = replace(line.spans[1], id="before", end_a=line.spans[0].end_a, end_b=line.spans[1].end_a)
    new = replace(line.spans[0], end_a=TubeEnd(fitting="compression"))
    union = Joint(kind="compression-union")
    both = replace(line, spans=(before, new, line.spans[1]), joints=(union, union))
    told = [step.text for step in order_of_work(both, kit, "s1") if step.kind in ("old tube", "gap")]
    assert [text for text in told if "253.3 mm is planned" in text] == told[2:3]
    assert not any("is planned" in step.text for step in steps(kit, line))
