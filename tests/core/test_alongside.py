"""A new tube laid against the old part and bent after it: nothing read but its length (common practice)."""

import pytest

from bendrel.core.line.condition import Condition, Fixture
from bendrel.core.line.document import BendReadings
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.units.lengths import Length, length_mm
from bendrel.services.line.chains import ChainEdit, edit_chain
from tests.lines import bent, with_tube


def copied(length="1240 mm", **changes):
    line = bent(**changes)
    readings = BendReadings(last=Length(text=length), last_by="string", alongside=True)
    return with_tube(line, readings=readings)


def test_its_cut_is_the_string_with_its_ends_and_spare(kit):
    """Two 45° double flares on 3/16 in (7.0 mm) use 2.05 mm each: slant geometry of the cone."""
    part = plan_line(copied(), kit).part
    assert part.developed_mm == pytest.approx(1240)
    assert part.cut_mm == pytest.approx(1240 + 2 * 2.05 + 25, abs=0.02)
    assert part.bends == ()
    assert part.moves == ()


def test_what_hangs_on_its_bends_is_said_to_be_not_known(kit):
    plan = plan_line(copied(), kit)
    note = next(f for f in plan.findings if f.code == "alongside")
    assert note.severity == "note"
    assert "not known" in note.message
    assert not [f for f in plan.findings if f.severity == "stop"]
    assert "length_only" not in {f.code for f in plan.findings}


def test_it_is_bent_after_the_old_part_and_its_sleeves_go_over(kit):
    steps = order_of_work(copied(), kit)
    kinds = [step.kind for step in steps]
    assert "mark" not in kinds
    bends = [step.text for step in steps if step.kind == "bend"]
    assert bends[0].startswith("Tape the new tube against the old part from end A")
    assert "Sleeves and clips over" in bends[1]
    nuts = next(k for k, step in enumerate(steps) if step.kind == "nuts")
    last_flare = max(k for k, step in enumerate(steps) if step.kind == "flare")
    assert nuts < kinds.index("bend") < last_flare


def test_it_still_has_tube_ends_and_clips_in_its_kit(kit):
    fixtures = (
        Fixture(kind="sleeve", at=Length(text="300 mm")),
        Fixture(state="missing", at=Length(text="500 mm")),
    )
    plan = plan_line(copied(condition=Condition(fixtures=fixtures)), kit)
    refs = {need.ref for need in plan.chosen.needs}
    assert "tube:copper-nickel_3-16in_0.711" in refs
    assert "nut:double-45_3-16in_3-8-24" in refs
    assert "clip:pclip_5" in refs
    assert [f.at_mm for f in plan.looked.fixtures] == [300, 500]


def test_without_its_length_it_is_no_part_yet(kit):
    plan = plan_line(copied(""), kit)
    assert plan.part is None
    assert plan.piece().so_far is None
    assert [problem.path for problem in plan.problems] == ["/spans/s1/readings/last"]


def test_cut_in_two_both_halves_are_still_bent_after_the_old_part(kit):
    line = copied()
    made = edit_chain(line, ChainEdit(kind="split", span=line.spans[0].id, at="400 mm"), kit).document
    assert [(span.readings.alongside, span.readings.copied) for span in made.spans] == [(True, True)] * 2
    assert [length_mm(span.readings.last) for span in made.spans] == pytest.approx([400, 840])
    for span in made.spans:
        assert any("Tape the new tube" in step.text for step in order_of_work(made, kit, span.id))
