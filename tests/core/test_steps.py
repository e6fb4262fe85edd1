"""The order of work, step by step, against trade.md 2 and 6 (common practice)."""

from dataclasses import replace

import pytest

from bendrel.core.line.document import LineEnd
from bendrel.core.plan.assemble import plan_line
from bendrel.core.procedure.steps import EndWork, build_steps
from tests.lines import bent, row


def end(name="A", *, flared=True, thread="3/8-24", allowance=2.05, order="before"):
    return EndWork(
        end=name,
        name="45° double flare" if flared else "unflared end",
        flared=flared,
        nut_thread=thread,
        allowance_mm=allowance,
        order=order if flared else None,
    )


def steps(held, far, *, spare=25.0, bends=3, unit="mm"):
    return build_steps(
        cut_mm=952, spare_mm=spare, bends=bends, held=held, far=far, unit=unit, tests=("Prove it.",)
    )


def text_of(made, kind):
    return [step.text for step in made if step.kind == kind]


def test_the_usual_order():
    made = steps(end("A"), end("B", order="after", thread="M10x1"))
    assert [step.kind for step in made] == [
        "prove", "cut", "nuts", "flare", "mark", "bend", "fit", "trim", "flare", "blow", "install", "test",
    ]  # fmt: skip
    assert "3/8-24 at A and M10x1 at B" in text_of(made, "prove")[0]
    assert "Cut 952 mm, square" in text_of(made, "cut")[0]
    assert "the 3/8-24 facing end A and the M10x1 facing end B" in text_of(made, "nuts")[0]
    assert "flared rim at end A" in text_of(made, "mark")[0]
    assert "leaving 2 mm for the flare" in text_of(made, "trim")[0]


def test_from_end_b_the_ends_keep_their_names():
    made = steps(end("B", thread="M10x1"), end("A", order="after"))
    assert "3/8-24 at A and M10x1 at B" in text_of(made, "prove")[0]
    assert text_of(made, "flare")[0].startswith("Flare end B")
    assert text_of(made, "trim")[0].startswith("Trim end A")


def test_a_held_end_flared_after_bending_is_marked_from_its_cut_end():
    made = steps(end("A", order="after"), end("B", order="after"))
    kinds = [step.kind for step in made]
    assert kinds.index("bend") < kinds.index("flare")
    assert "cut end at end A" in text_of(made, "mark")[0]


def test_a_far_end_flared_first_loses_its_spare_before():
    made = steps(end("A"), end("B", order="before"))
    kinds = [step.kind for step in made]
    assert kinds.index("trim") < kinds.index("bend")
    assert "25 mm off end B" in text_of(made, "trim")[0]
    assert kinds.count("trim") == 1


def test_an_unflared_tube_without_nuts_has_no_steps_for_them():
    plain = {"flared": False, "thread": None, "allowance": 0.0}
    kinds = [step.kind for step in steps(end("A", **plain), end("B", **plain), spare=0)]
    assert kinds == ["cut", "mark", "bend", "fit", "blow", "install", "test"]


def test_a_straight_tube_is_not_bent():
    kinds = {step.kind for step in steps(end("A"), end("B", order="after"), bends=0)}
    assert not kinds & {"mark", "bend"}


@pytest.mark.parametrize(("unit", "said"), [("in", '37 15/32"'), ("mm", "952 mm")])
def test_lengths_are_said_in_the_persons_unit(unit, said):
    assert said in text_of(steps(end("A"), end("B", order="after"), unit=unit), "cut")[0]


def test_one_nut_is_one_nut():
    made = steps(end("A"), end("B", flared=False, thread=None, allowance=0.0))
    assert text_of(made, "nuts")[0].startswith("The nut on now")


def test_a_sleeve_joint_is_closed_this_shops_way(kit):
    """Trade notes 11: against the stop, a hair back, or a stub past the sleeve."""
    sleeve = LineEnd(fitting="compression", nut="compression_3-16in_3-8-24")
    line = bent(row(100, 90), service="fuel-low", end_a=sleeve, end_b=LineEnd(fitting="npt"))
    texts = [step.text for step in plan_line(line, kit).part.steps]
    assert any(text.startswith("End A: tube hard against the stop") for text in texts)
    assert any(text.startswith("End B: sealant: a little on tapered threads") for text in texts)
    other = replace(kit, preferences={**kit.preferences, "sleeve": "hair back"})
    texts = [step.text for step in plan_line(line, other).part.steps]
    assert any(text.startswith("End A: tube a hair back from it") for text in texts)
