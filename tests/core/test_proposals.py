"""What is proposed where the order in use fails; orders are asked of python-fcl as in test_order.

The parts are told apart by plain geometry: a long tail and a wall near by, a back too short for the tool's
handle, a tail that must go first. Lengths in mm, wall 250 mm from the tool's zero where there is one.
"""

from __future__ import annotations

import re
from fractions import Fraction
from math import pi

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.bench.order_report import at_bench, order_findings
from bendrel.core.bend.tube.marking import order_of
from bendrel.core.bend.tube.part import ids_of, shape_of
from bendrel.core.findings import Fix
from bendrel.core.line.run import main_run
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from tests.core.test_order import hits_in
from tests.lines import bent, replace, row, the_tube, with_tube
from tests.random_lines import with_fix

KIT = load_kit()
WALLED = replace(KIT, bench=replace(KIT.bench, wall_mm=250.0))

START_AT_B = bent(row(40, 180), row(200, 45, "3:00"), last=300, bender="bench_3-16in")
OTHER_ORDER = bent(row(120, 90), row(60, 135), last=40, bender="vise_3-16in")
TAIL_FIRST = bent(row(200, 90), row(120, 135), row(120, 135), last=90, bender="bench_3-16in")
TURN_ROUND = bent(row(60, 90), row(300, 135, "6:00"), last=300, bender="vise_3-16in")
OTHER_TOOL = bent(row(90, 90), row(60, 135), last=150)
JOIN = bent(row(200, 180), row(120, 45), last=150)
NOTHING = bent(row(200, 180), row(60, 180), last=90)


def apply_changes(line, changes):
    """The line with the fix taken, as the screen does it."""
    return with_fix(line, Fix(label="", changes=tuple(changes)), KIT)


def asked(line, kit):
    return at_bench(main_run(line), kit, plan_line(line, kit).part)


@pytest.mark.parametrize(
    ("line", "kit", "says"),
    [
        (START_AT_B, WALLED, "Start from end B"),
        (OTHER_ORDER, KIT, "Another order: 2, 1"),
        (TAIL_FIRST, KIT, "Cut the tail off first"),
        (TURN_ROUND, WALLED, "Turn the tool round and feed from its other side"),
    ],
)
def test_a_proposal_says_what_to_do_and_taking_it_sets_the_part_free(line, kit, says):
    told = asked(line, kit)
    assert told.blocked is not None
    assert told.proposal.text.startswith(says)
    (finding,) = told.findings
    taken = apply_changes(line, finding.fix.changes)
    span = the_tube(taken)
    assert asked(taken, kit).blocked is None
    assert order_findings(main_run(taken), kit, plan_line(taken, kit).part) == ()
    part = plan_line(taken, kit).part
    shape = shape_of(part)
    order = order_of(span, ids_of(part))[0]
    extra = (part.beyond_mm["A"], part.beyond_mm["B"])
    assert hits_in(shape, order, span.bender, extra=extra, bench=kit.bench, turned=span.turned) == []


def test_the_order_that_is_refused_touches_in_the_other_library_too():
    for line, kit in ((START_AT_B, WALLED), (TURN_ROUND, WALLED)):
        part = plan_line(line, kit).part
        shape = shape_of(part)
        extra = (part.beyond_mm["A"], part.beyond_mm["B"])
        order = order_of(the_tube(line), ids_of(part))[0]
        assert hits_in(shape, order, the_tube(line).bender, extra=extra, bench=kit.bench) == [
            "wall at bend 1"
        ]


def test_a_turned_tool_is_said_in_the_steps_and_not_of_a_tool_in_the_hands():
    def bend_step(line):
        return next(step.text for step in order_of_work(line, WALLED) if step.kind == "bend")

    turned = with_tube(TURN_ROUND, turned=True)
    assert bend_step(turned).startswith("Turn the tool round on the bench")
    in_hand = with_tube(turned, bender="lever_3-16in")
    assert bend_step(in_hand).startswith("Bend in the order")


def test_another_tool_is_named_with_its_radius_and_its_fix_takes_it():
    told = asked(OTHER_TOOL, KIT)
    assert told.proposal is None
    assert told.other_tool.text == "The bench-mounted bender can make it in one piece, with radius 19 mm."
    (finding,) = told.findings
    taken = apply_changes(OTHER_TOOL, finding.fix.changes)
    assert the_tube(taken).bender == told.other_tool.bender
    assert order_findings(main_run(taken), KIT, plan_line(taken, KIT).part) == ()


def test_a_joint_is_proposed_on_the_straight_between_two_pieces_that_can_be_made():
    """In the middle of the 120 mm behind the U, whose arc is half a circle of 15 mm."""
    told = asked(JOIN, KIT)
    assert (told.proposal, told.other_tool) == (None, None)
    assert told.joint.straight == 2
    assert told.joint.at_mm == pytest.approx(200 + 15 * pi + 60)
    assert "between bend 1 and bend 2" in told.joint.text


def test_where_nothing_helps_every_bend_that_is_left_has_its_witness():
    told = asked(NOTHING, KIT)
    assert (told.proposal, told.other_tool, told.joint) == (None, None, None)
    assert told.whole
    assert [text.split(":")[0] for text in told.witness] == [
        "bend 2 with end A held",
        "bend 2 with end B held",
    ]
    (finding,) = told.findings
    assert finding.code == "no_order"
    assert finding.title == "It cannot be bent in one piece in any order"


def test_what_is_in_the_way_is_said_in_the_persons_unit():
    inches = replace(START_AT_B, unit="in")
    (finding,) = order_findings(main_run(inches), WALLED, plan_line(inches, WALLED).part)
    (metric,) = order_findings(main_run(START_AT_B), WALLED, plan_line(START_AT_B, WALLED).part)
    mm = float(re.search(r"([\d.]+) mm from the tool", metric.message)[1])
    whole, part = re.search(r'(\d+)(?: (\d/\d))?" from the tool', finding.message).groups()
    assert 25.4 * (int(whole) + Fraction(part or 0)) == pytest.approx(mm, abs=25.4 / 16 + 0.5)
