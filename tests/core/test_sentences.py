"""Every sentence that is said of a line, as people make them, reads as a person would write it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import pytest

from bendrel.core.geometry.bends import Bend, BendList, ShapeError
from bendrel.core.geometry.parts import cut_across
from bendrel.core.hose.shape.laid import HoseEnd, HoseEnds, HoseError, hose_shape
from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import Line
from bendrel.core.line.opened import stays
from bendrel.core.line.resolve import resolve
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length
from bendrel.core.work.closing import work_of
from bendrel.core.work.making import steps_for
from bendrel.services.bench.benches import planned_of
from bendrel.services.errors import Refused
from bendrel.services.shelf.lookups import StrengthOrder, how_strong
from tests.lines import bent, known_kit, row
from tests.made_lines import made_line
from tests.often import often
from tests.sentences import names_in, wrong_in

KIT = known_kit()
NAMES = names_in(KIT)


def said(line: Line) -> Iterator[str]:
    plan = plan_line(line, KIT)
    for finding in plan.findings:
        yield from (finding.title, finding.message, finding.advice, finding.fix.label if finding.fix else "")
    yield from (problem.message for problem in plan.problems)
    if plan.chosen is not None:
        for tool in plan.chosen.tools:
            yield from (tool.what, tool.why, tool.note)
        yield from (need.what for need in plan.chosen.needs)
    joints = joints_of(line, KIT)
    yield from (joint.place for joint in joints)
    for step in work_of(line, KIT, joints).steps:
        yield from (step.text, step.why)
    for span in line.spans:
        if span.kind == "rigid" and not stays(span):
            try:
                rigid = planned_of(line, KIT, span.id)
            except Refused:
                continue
            for step in steps_for(rigid, KIT):
                yield from (step.text, step.why, *step.cautions)
                for told in step.flaring.steps if step.flaring else ():
                    yield from (told.text, told.why)


@pytest.mark.parametrize("first", range(0, often(40, 100), 20))
def test_what_is_said_of_lines_as_people_make_them(first):
    wrong, count = [], 0
    for seed in range(first, first + 20):
        line = made_line(KIT, seed)
        for text in said(line):
            count += 1
            wrong += [(seed, kind, where) for kind, where in wrong_in(text, line.unit, NAMES)]
    assert count > 1000
    assert wrong == []


@pytest.mark.parametrize(
    ("text", "unit", "kind"),
    [
        ("Use a injection clamp", "mm", "article"),
        ("Use an union", "mm", "article"),
        ("1 stops are open", "mm", "number"),
        ("12 clamp to fit", "mm", "number"),
        ("At /spans/s1/length", "mm", "raw"),
        ("hose_kinks", "mm", "raw"),
        ("the the tube", "mm", "twice"),
        ("Which seat?. Say it", "mm", "stops"),
        ("Cut at 12 mm", "in", "unit"),
        ('Cut at 12"', "mm", "unit"),
    ],
)
def test_the_checker_finds_what_is_wrong(text, unit, kind):
    assert [found for found, _ in wrong_in(text, unit)] == [kind]


@pytest.mark.parametrize(
    "text",
    [
        "Use an injection clamp and a union, one bend, 2 bends; a u-bend",
        "Cut 4.75 mm tube…",
        "End A is end A. One of 2.",
    ],
)
def test_the_checker_lets_pass_what_is_right(text):
    assert list(wrong_in(text, "in", frozenset({"4.75 mm"}))) == []


def test_what_is_refused_in_a_line_of_inches_says_inches():
    marks = replace(row(10, 90, unit="in"), by="wire", to=Length(text="29", unit="in"), angle=Angle())
    readings = replace(bent(marks).spans[0].readings, last=Length(text="5", unit="in"))
    (problem,) = resolve(readings, od_mm=6.35, radius_mm=25.4).problems
    assert problem.message.startswith('From 10" to 29" on the wire is no bend at a radius of 1";')
    # an arc of 90 degrees at 1 in is pi/2 in, 1 9/16 to the nearest 1/32
    bend = Bend(straight_mm=127, rotation_deg=0, angle_deg=90, radius_mm=25.4)
    with pytest.raises(ShapeError) as cut:
        cut_across(BendList(bends=(bend,), last_straight_mm=50.8), 139.7)
    assert cut.value.said("in") == (
        '5 1/2" lies in the arc of bend 1, 5" to 6 9/16"; a tube is cut on a straight.'
    )
    ends = HoseEnds(a=HoseEnd(point=(0, 0, 0), way=(1, 0, 0)), b=HoseEnd(point=(254, 0, 0), way=(1, 0, 0)))
    with pytest.raises(HoseError) as short:
        hose_shape(ends, 203.2)
    assert short.value.said("in") == 'A hose of 8" does not reach: its ends are 10" apart.'
    with pytest.raises(Refused, match=r"more than 0\.094\W, half the tube"):
        how_strong(StrengthOrder(tube="copper-nickel_3-16in_0.711", radius="0.05", unit="in"), KIT)
