"""Where every span of a line stands in space: against plane trigonometry, and the chain put together."""

from dataclasses import replace

import pytest

from bendrel.core.line.document import BendReadings, ComponentSpan, HoseSpan, Joint
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length, Plane
from tests.lines import bent, row


def tube(name, *rows, last):
    return replace(bent(*rows, last=last, tube="steel-seamless_8mm_1", bender="lever_8mm").spans[0], id=name)


def mm(value):
    return Length(text=f"{value} mm")


def line_of(*spans, joints=()):
    made = bent(last=300, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    return replace(made, spans=spans, joints=joints)


def placed(kit, line):
    return plan_line(line, kit).in_space


def test_a_line_of_one_tube_stands_in_its_own_frame(kit):
    assert placed(kit, bent(row(100, 90), last=200)) is None


def test_an_elbow_turns_the_way_in_its_middle(kit):
    """100 along, an elbow of 60 from port to port, 50 behind it: (100 + 30, 30 + 50)."""
    elbow = ComponentSpan(id="e", what="elbow", length=mm(60), turn=Angle(text="90"))
    at = placed(kit, line_of(tube("t", last=100), elbow, tube("u", last=50)))
    assert at.whole
    assert at.spans[-1].ends.point == pytest.approx((130, 80, 0), abs=1e-9)
    assert at.spans[-1].ends.way == pytest.approx((0, 1, 0), abs=1e-9)
    assert not at.span("e").guessed


def test_what_lies_between_ends_and_a_roll_count(kit):
    """A straight of 100, a 90° bend of 22 mm radius, a straight of 100, 12 mm to the next tube: it starts at
    (22 + 100, 22 + 100 + 12). Straight 80, bend, straight 70: in the same plane it comes back to
    x = 122 − 22 − 70 at y = 134 + 80 + 22, a quarter round it leaves the plane by 22 + 70 there."""
    first, second = tube("t", row(100, 90), last=100), tube("u", row(80, 90), last=70)
    joint = Joint(kind="compression-union", apart=mm(12), roll=Plane(text="+90°"))
    turned = placed(kit, line_of(first, second, joints=(joint,)))
    assert turned.spans[1].starts.point == pytest.approx((122, 134, 0), abs=1e-9)
    assert turned.spans[1].ends.point == pytest.approx((122, 236, turned.spans[1].ends.way[2] * 92), abs=1e-9)
    assert abs(turned.spans[1].ends.way[2]) == pytest.approx(1, abs=1e-9)
    flat = placed(kit, line_of(first, second, joints=(replace(joint, roll=Plane()),)))
    assert flat.spans[1].ends.point == pytest.approx((30, 236, 0), abs=1e-9)


def test_a_hose_lies_straight_on_until_its_way_is_known(kit):
    straight = HoseSpan(id="h", hose="cooler_5-16in", length=mm(150), clamp=None)
    at = placed(kit, line_of(tube("t", last=100), straight))
    # 25 mm of it lie on each end
    assert at.span("h").ends.point == pytest.approx((200, 0, 0), abs=1e-9)
    assert at.span("h").guessed
    shape = tube("x", row(60, 90), last=90).readings
    assert isinstance(shape, BendReadings)
    bent_hose = replace(straight, shape=shape)
    known = placed(kit, line_of(tube("t", last=100), bent_hose))
    assert known.span("h").ends.way == pytest.approx((0, 1, 0), abs=1e-9)
    assert not known.span("h").guessed


def test_a_hose_alone_and_a_length_nobody_knows_are_drawn(kit):
    alone = placed(kit, line_of(HoseSpan(id="h", hose="cooler_5-16in")))
    assert alone.span("h").guessed
    assert len(alone.span("h").path) >= 2
    assert alone.span("h").ends.point[0] == kit.limits["drawn_hose_mm"].value


def test_the_line_stops_where_its_tubes_have_not_been_read(kit):
    joint = Joint(kind="compression-union")
    unread = tube("u", row(80, "soon"), last=70)
    line = line_of(tube("t", last=100), unread, tube("v", last=50), joints=(joint, joint))
    at = placed(kit, line)
    assert [one.span for one in at.spans] == ["t", "u"]
    assert not at.whole


@pytest.mark.parametrize(("field", "value"), [("roll", Plane(text="askew")), ("apart", mm("a bit"))])
def test_a_joint_that_cannot_be_read_is_said_and_the_line_still_stands(kit, field, value):
    joint = replace(Joint(kind="compression-union"), **{field: value})
    plan = plan_line(line_of(tube("t", row(100, 90), last=100), tube("u", last=50), joints=(joint,)), kit)
    assert [problem.path for problem in plan.problems] == [f"/joints/t/{field}"]
    assert plan.in_space.whole
