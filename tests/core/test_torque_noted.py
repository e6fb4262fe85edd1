"""What was noted of a joint against what it goes to. Expected figures by hand: a 3/16 in double flare with a
3/8-24 nut goes to 13 to 18 N·m (its row of torques.csv); 1 lbf·ft is 1.3558 N·m (NIST SP 811)."""

from dataclasses import replace

import pytest

from bendrel.core.joints.closing import joints_of
from bendrel.core.line.proving import JointWork, Proving
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_torque
from bendrel.core.work.standing import standing_of
from bendrel.core.work.words import closing_steps
from tests.core.test_closing import KIT, TUBE, line

NUTTED = replace(TUBE.end_a, fitting="double-45", nut="double-45_3-16in_3-8-24")


def noted(unit="mm", **work):
    made = line("brake", (replace(TUBE, id="s1", end_a=NUTTED),))
    return replace(made, unit=unit, proving=Proving(joints=(JointWork(span="s1", end="A", **work),)))


def at_a(made):
    return next(joint for joint in joints_of(made, KIT) if joint.id == "s1-A")


@pytest.mark.parametrize(
    ("text", "unit", "nm"),
    [
        ("16", "mm", (16, 16)),
        ("12", "in", (16.27, 16.27)),
        ("13-18 N·m", "in", (13, 18)),
        ("140 in-lb", "mm", (15.82, 15.82)),
        ("12 to 15 lbf·ft", "mm", (16.27, 20.34)),
    ],
)
def test_a_torque_as_people_write_it(text, unit, nm):
    assert parse_torque(text, unit) == pytest.approx(nm, abs=0.01)


@pytest.mark.parametrize("text", ["4000", "0", "18-13", "tight", "", "16 bar"])
def test_what_is_no_torque_is_said_in_one_sentence(text):
    with pytest.raises(UnitError, match="is not a torque; write it like 16 N·m"):
        parse_torque(text, "mm")


@pytest.mark.parametrize(
    ("work", "off"),
    [
        ({"tight": "16"}, ""),
        ({"tight": "18.9 Nm"}, ""),  # a wrench reads to some 6 %
        ({"tight": "40 Nm"}, "too tight"),
        ({"tight": "5 Nm"}, "too loose"),
        ({"tight": "by feel"}, ""),
        ({"tight": "1/6 turn past home"}, ""),
        ({"tight": "16", "aim": "22 to 24 Nm"}, "too loose"),
        ({"tight": "40", "aim": "38 to 42"}, ""),
    ],
)
def test_what_was_noted_is_held_against_what_it_goes_to(work, off):
    made = noted(**work)
    assert standing_of(made, KIT, at_a(made)).off == off
    titles = [f.title for f in plan_line(made, KIT).findings if f.code == "joint_torque"]
    assert len(titles) == bool(off)


def test_the_manuals_figure_comes_first_and_an_absurd_one_is_said():
    made = noted(aim="16 Nm")
    torque = at_a(made).torque
    assert (torque.least_nm, torque.most_nm) == (16, 16)
    told = " ".join(step.text for step in closing_steps(made, KIT))
    assert "16 N·m, as the machine's manual says." in told
    wrong = noted(aim="4000")
    assert at_a(wrong).torque.most_nm == 18
    assert "“4000” is not a torque" in standing_of(wrong, KIT, at_a(wrong)).problem
