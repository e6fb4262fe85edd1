"""The order of work, step by step, as common practice has it."""

import os

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import TestFlare
from bendrel.core.line.proving import Done, Proving
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.units.lengths import Length
from bendrel.core.work.closing import work_of
from bendrel.core.work.making import EndWork, Making, build_steps
from tests.lines import DOUBLE, End, Hose, bent, replace, row
from tests.made_lines import made_line

LINES = int(os.environ.get("BENDREL_LINES", "60"))


def end(name="A", *, flared=True, thread="3/8-24", allowance=2.05, order="before"):
    return EndWork(
        end=name,
        name="45° double flare" if flared else "unflared end",
        flared=flared,
        nut_thread=thread,
        allowance_mm=allowance,
        takes="flare",
        order=order if flared else None,
    )


def steps(held, far, *, spare=25.0, bends=3, unit="mm"):
    made = Making(cut_mm=952, spare_mm=spare, bends=bends, held=held, far=far, unit=unit)
    return build_steps(load_kit(), made)


def text_of(made, kind):
    return [step.text for step in made if step.kind == kind]


def test_the_usual_order():
    made = steps(end("A"), end("B", order="after", thread="M10x1"))
    assert [step.kind for step in made] == [
        "prove", "cut", "nuts", "flare", "mark", "bend", "fit", "trim", "flare", "blow",
    ]  # fmt: skip
    assert "3/8-24 at A and M10x1 at B" in text_of(made, "prove")[0]
    assert "Cut 952 mm, square" in text_of(made, "cut")[0]
    assert "the 3/8-24 facing end A and the M10x1 facing end B" in text_of(made, "nuts")[0]
    assert "flared rim at end A" in text_of(made, "mark")[0]
    assert "leaving 2.1 mm for the flare" in text_of(made, "trim")[0]


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
    assert kinds == ["cut", "mark", "bend", "fit", "blow"]


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
    """Common practice: against the stop, a hair back, or a stub past the sleeve."""
    sleeve = End(fitting="compression", nut="compression_3-16in_3-8-24")
    line = bent(row(100, 90), service="fuel-low", end_a=sleeve, end_b=End(fitting="npt"))
    texts = [step.text for step in order_of_work(line, kit)]
    assert any(t.startswith("Port A: ") and "tube hard against the stop" in t for t in texts)
    assert any(t.startswith("Port B: ") and "sealant: a little on tapered threads" in t for t in texts)
    other = replace(kit, preferences={**kit.preferences, "sleeve": "hair back"})
    texts = [step.text for step in order_of_work(line, other)]
    assert any(t.startswith("Port A: ") and "tube a hair back from it" in t for t in texts)


def test_a_joint_is_tightened_to_a_figure_or_by_feel(kit):
    """ISO 6149-3, light duty: M18x1.5 45 N·m; SAE J1453: 13/16-16 43 to 47 N·m; for 5/8-18 none is known."""
    ends = {
        "end_a": End(fitting="metric-boss", nut="metric-boss_12mm_M18x1_5"),
        "end_b": End(fitting="face-seal", nut="face-seal_12mm_13-16-16"),
    }
    line = bent(row(100, 90), service="hydraulic", tube="steel-seamless_12mm_2", unit="mm", **ends)
    texts = [step.text for step in order_of_work(line, kit) if "Tighten" in step.text]
    assert any(t.startswith("Port A: ") and t.endswith("40 to 45 N·m.") for t in texts)
    assert any(t.startswith("Port B: ") and t.endswith("43 to 47 N·m.") for t in texts)
    feel = replace(kit, preferences={**kit.preferences, "tightening": "feel"})
    texts = [step.text for step in order_of_work(line, feel)]
    assert any("by feel" in t and "40 to 45 N·m is published" in t for t in texts)
    large = End(fitting="double-45", nut="double-45_3-8in_5-8-18")
    line = bent(row(100, 90), service="cooler", tube="steel-plated_3-8in_0.889", end_a=large, end_b=large)
    texts = [step.text for step in order_of_work(line, kit)]
    assert any("None published: by feel" in t for t in texts)


def test_what_is_printed_is_what_the_screen_and_the_bench_say(kit):
    """One list: the same steps of fitting and proving in the same order, on 200 lines."""
    for seed in range(LINES):
        line = made_line(kit, 5000 + seed)
        work = work_of(line, kit, joints_of(line, kit))
        printed = [step for step in order_of_work(line, kit) if step.whole]
        if not printed:
            continue
        assert [step.id for step in printed] == [step.id for step in work.steps]
        for step, told in zip(work.steps, printed, strict=True):
            assert step.text in told.text


def test_what_is_brazed_on_is_brazed_after_bending_and_washed_before_it_is_blown_through(kit):
    """Common practice: eye, stud or nipple at the bench; flux that stays inside eats tube and valve."""
    ends = {
        "end_a": End(fitting="face-seal", nut="face-seal_12mm_13-16-16"),
        "end_b": End(fitting="banjo", nut=None),
    }
    line = bent(row(100, 90), service="hydraulic", tube="steel-seamless_12mm_2", **ends)
    made = order_of_work(line, kit)
    kinds = [step.kind for step in made]
    texts = [step.text for step in made if step.kind == "braze"]
    assert texts[0].startswith("End A: braze on the flat face with O-ring. Its nut is on; keep it cool.")
    assert texts[1].startswith("End B: braze on the banjo")
    assert kinds.index("bend") < kinds.index("braze") < kinds.index("blow")
    assert "braze" not in [step.kind for step in order_of_work(bent(row(100, 90)), kit)]


def test_torque_stands_behind_the_loose_fitting(kit):
    """Everything is started by hand before anything is tightened."""
    told = [step for step in order_of_work(bent(row(100, 90)), kit) if step.whole]
    tight = [k for k, step in enumerate(told) if step.id.startswith("tight-")]
    loose = [k for k, step in enumerate(told) if step.id in ("in", "clips-loose")]
    assert max(loose) < min(tight)


NEEDED = {
    "eyes": "all",
    "stands": {
        "brake", "clutch", "fuel-low", "fuel-injection", "tank-vent", "cooler", "hydraulic",
        "hydraulic-return", "hydraulic-suction", "steering-return", "steering-pressure", "oil-cooler",
        "oil-feed", "coolant", "vacuum", "vent", "air-brake", "unspecified",
    },
    "vapour": {"fuel-low", "fuel-injection", "fuel-high", "tank-vent", "gas"},
    "battery": {
        "fuel-low", "fuel-injection", "fuel-high", "cooler", "hydraulic", "hydraulic-return",
        "hydraulic-suction", "steering-return", "steering-pressure", "oil-cooler", "oil-feed", "tank-vent",
        "unspecified",
    },
    "jet": {"hydraulic", "hydraulic-return", "steering-pressure", "steering-return", "fuel-high"},
    "jet-diesel": {"fuel-injection"},
    "accumulator": {"hydraulic", "hydraulic-return", "hydraulic-suction"},
    "brake-accumulator": {"brake"},
    "servo": {"vacuum"},
}  # fmt: skip


@pytest.mark.parametrize("caution", NEEDED)
def test_cautions_are_said_at_the_step_where_they_matter(kit, caution):
    """What must always be said, by common practice, stands at the first step of each of its stages and in
    the advice for taking the line off."""
    wanted = set(kit.services) if NEEDED[caution] == "all" else NEEDED[caution]
    said = kit.cautions[caution]
    for service in wanted:
        line = bent(row(100, 90), service=service)
        plan, told = plan_line(line, kit), order_of_work(line, kit)
        if "remove" in said.stages:
            assert said.text in plan.removed.advice.cautions, service
        for stage in ("make", "fit", "prove"):
            first = next(step for step in told if step.stage == stage)
            assert (said.text in first.cautions) == (stage in said.stages), (service, stage)


def test_the_allowance_is_for_what_the_end_has(kit):
    """A sleeve end has no flare: its tube goes into the body."""
    ends = {end: End(fitting="compression", nut="compression_3-16in_3-8-24") for end in ("end_a", "end_b")}
    told = order_of_work(bent(row(100, 90), service="fuel-low", **ends), kit)
    trim = next(step for step in told if step.kind == "trim")
    assert "for the way into the body" in trim.text
    assert "flare" not in trim.text


def test_a_test_piece_counts_for_what_it_was_made_with(kit):
    """A figure measured on a flare does not lengthen a plain end, nor another flare."""
    piece = TestFlare(used=Length(text="5 mm"), fitting="double-45", size="3/16 in")
    flared = replace(DOUBLE, trial=piece)
    counted = plan_line(bent(row(100, 90), end_a=flared), kit)
    assert next(t.mm for t in counted.part.terms if t.id == "end-A") == 5
    for other in (
        replace(flared, fitting="plain", nut=None),
        replace(flared, fitting="bubble", nut="bubble_3-16in_M10x1", thread="M10x1"),
        replace(flared, trial=replace(piece, size="1/4 in")),
    ):
        plan = plan_line(bent(row(100, 90), end_a=other), kit)
        assert next(t.mm for t in plan.part.terms if t.id == "end-A") != 5
        assert "trial_stale" in {finding.code for finding in plan.findings}
    old = plan_line(
        bent(row(100, 90), end_a=End(fitting="plain", trial=TestFlare(used=Length(text="5 mm")))), kit
    )
    assert next(t.mm for t in old.part.terms if t.id == "end-A") == 0


def test_what_a_hose_goes_on_is_formed_before_it_is_blown_through(kit):
    """Common practice: a bead, or grooves on a bare end; and no flare is spoken of where there is none."""
    hose = Hose(hose="cooler_3-8in", clamp="worm_12-20", length=Length(text="200 mm"))
    bead, bare = End(fitting="bead"), End(fitting="plain", beyond=(hose,))
    line = bent(row(100, 90), service="cooler", tube="steel-plated_3-8in_0.711", end_a=bead, end_b=bare)
    made = [step for step in order_of_work(line, kit) if not step.whole]
    formed = [step.text for step in made if step.kind == "form"]
    assert formed[0].startswith("End A: bead it")
    assert formed[1].startswith("End B: a few shallow grooves")
    kinds = [step.kind for step in made]
    assert kinds.index("fit") < kinds.index("form") < kinds.index("blow")
    assert "flare" not in " ".join(step.text for step in made)


def test_a_bought_end_is_looked_at_and_neither_made_nor_cut_off(kit):
    """Half of a bought piece with its bead on: the marks start at the finished end, and nothing is added for
    a bead there."""
    bead = End(fitting="bead", ready=True)
    line = bent(row(100, 90), service="cooler", tube="steel-plated_3-8in_0.711", end_a=bead, end_b=bead)
    made = [step for step in order_of_work(line, kit) if not step.whole]
    kinds = [step.kind for step in made]
    assert "form" not in kinds
    assert "trim" not in kinds
    assert next(s.text for s in made if s.kind == "nuts").startswith("End A comes finished, beaded end")
    assert "from the finished end at end A" in next(s.text for s in made if s.kind == "mark")
    part = plan_line(line, kit).part
    assert {term.id: term.mm for term in part.terms if term.id.startswith("end-")} == {"end-A": 0, "end-B": 0}
    assert part.moves[0].measured_from == "flared_rim"


def test_a_nut_that_was_run_home_by_hand_is_proved(kit):
    """It is asked for before the flare; a joint that went home by hand has answered it."""
    nut = replace(DOUBLE, proved=False)
    line = bent(row(100, 90), service="brake", end_a=nut, end_b=nut)

    def asked(of):
        return [one.where.end for one in plan_line(of, kit).findings if one.code == "prove_nut"]

    run_home = Proving(done=(Done(step=f"hand-{line.spans[0].id}-A"),))
    assert (asked(line), asked(replace(line, proving=run_home))) == (["A", "B"], ["B"])
