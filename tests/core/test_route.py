"""Getting a bent tube through an opening, against a numeric slide of the tube itself."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.geometry.passing import width_needed
from bendrel.core.line.document import LeftOpen, Opening
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.units.lengths import Angle, Length
from tests.lines import bent, row, the_tube

KIT = load_kit()
HOLE = Opening(what="frame rail", at=Length(text="60"), across=Length(text="20"), deep=Length(text="60"))


def slid_width(radius, angle, od, deep):
    """Bend in the middle of the passage: lateral extent of both edges of the tube between the mouths."""
    half = np.radians(angle) / 2
    phi = np.linspace(-half, half, 4001)
    edges = []
    for r in (radius - od / 2, radius + od / 2):
        arc = np.column_stack([r * np.sin(phi), r * np.cos(phi)])
        legs = np.linspace(0, 5 * deep, 4001)
        way = np.array([np.cos(half), -np.sin(half)])
        right = arc[-1] + legs[:, None] * way
        left = right * [-1, 1]
        edges.append(np.vstack([left, arc, right]))
    inside = [edge[np.abs(edge[:, 0]) <= deep / 2] for edge in edges]
    return max(e[:, 1].max() for e in inside) - min(e[:, 1].min() for e in inside)


@pytest.mark.parametrize(
    ("radius", "angle", "od"), [(15, 90, 4.76), (15, 30, 4.76), (28, 120, 9.5), (38, 10, 12.7)]
)
@pytest.mark.parametrize("deep", [2.0, 12.0, 40.0])
def test_the_width_agrees_with_sliding_the_edges(radius, angle, od, deep):
    assert width_needed(radius, angle, od, deep) == pytest.approx(
        slid_width(radius, angle, od, deep), abs=0.1
    )


def test_a_thin_plate_asks_for_no_more_than_the_tube():
    assert width_needed(15, 90, 4.76, 0.0) == pytest.approx(4.76)


def found(line, code):
    return [f for f in plan_line(line, KIT).findings if f.code == code]


def test_a_bend_that_does_not_pass_is_left_open_in_soft_tube():
    line = bent(row(100, 90), row(120, 30), openings=(HOLE,), last=80)
    stuck = found(line, "does_not_pass")
    assert [f.where.number for f in stuck] == [1]
    (change,) = stuck[0].fix.changes
    angle = float(change.value["angle"]["text"])
    span = replace(the_tube(line), left_open=(LeftOpen(row="r1", angle=Angle(text=str(angle))),))
    opened = replace(line, spans=(span,))
    assert found(opened, "does_not_pass") == []
    plan = plan_line(opened, KIT)
    move = plan.part.moves[0]
    assert move.angle_deg == angle
    assert move.finish_deg == 90
    assert move.dial_deg == pytest.approx(angle, abs=2)
    assert any("finish in place: bend 1 to 90°" in step.text for step in order_of_work(opened, KIT))
    # the others keep their marks: the tube is as long as before
    assert plan.part.moves[1].mark_mm == plan_line(line, KIT).part.moves[1].mark_mm


def test_stiff_tube_is_never_finished_in_place():
    tubes = [t for t in KIT.tubes.values() if t.size == "3/16 in"]
    stiff = next(t.id for t in tubes if not KIT.materials[t.material].tweaks_in_place)
    line = bent(row(100, 90), openings=(HOLE,), last=80, tube=stiff)
    assert found(line, "does_not_pass")[0].fix is None
    span = replace(the_tube(line), left_open=(LeftOpen(row="r1", angle=Angle(text="20")),))
    assert found(replace(line, spans=(span,)), "left_open_stiff")[0].severity == "stop"


def test_the_nut_must_go_through_too():
    tight = replace(HOLE, across=Length(text="9"), deep=Length())
    assert found(bent(row(100, 90), openings=(tight,)), "end_does_not_pass")[0].where.end == "B"
    assert found(bent(row(100, 90), openings=(replace(HOLE, deep=Length()),)), "end_does_not_pass") == []


def test_what_cannot_be_read_is_said_and_the_line_is_planned():
    line = bent(row(100, 90), openings=(replace(HOLE, at=Length(text="here")),))
    plan = plan_line(line, KIT)
    assert plan.part is not None
    assert [f.code for f in plan.findings if f.code == "opening"] == ["opening"]


def test_room_beyond_limits_what_may_swing_out():
    narrow = replace(HOLE, across=Length(), deep=Length(), room=Length(text="100"))
    line = bent(row(100, 90), row(300, 90, "3:00"), last=300, openings=(narrow,))
    stuck = found(line, "does_not_pass")
    assert [f.where.number for f in stuck] == [1, 2]
    assert "swings out" in stuck[0].message
