"""A span told from its other end is the same span: what was noted of it goes along."""

from __future__ import annotations

import dataclasses
import os
from collections import Counter
from dataclasses import fields, replace

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.tube.planned import plan_rigid
from bendrel.core.findings import Place, Spot
from bendrel.core.ids import NotAChain
from bendrel.core.line.checks import Checks
from bendrel.core.line.condition import Condition, Damage, Fixture
from bendrel.core.line.document import BendReadings, BendRow, HoseSpan, Line, Opening, PartReading, SetAside
from bendrel.core.line.edits.chain import turned_round
from bendrel.core.line.edits.turned import reversed_hose, spot_turned
from bendrel.core.line.proving import Proving
from bendrel.core.line.run import runs
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length, Plane, length_mm
from tests.made_lines import made_line

CHAINS = int(os.environ.get("BENDREL_CHAINS", "40"))
PLUGS = {"plug-A": "plug-B", "plug-B": "plug-A"}
FLOWS = {"A to B": "B to A", "B to A": "A to B"}


def turned(line: Line, kit, span_id: str) -> Line:
    """As the program turns a span: a tube with what is read of it."""
    shapes = {run.span.id: planned.rigid for run in runs(line) if (planned := plan_rigid(run, kit))}
    rigid = shapes.get(span_id)
    return turned_round(line, span_id, rigid.shape if rigid else None)


def from_the_other_port(line: Line, kit) -> Line:
    """The whole line seen from port B: every span turned, their order and the ports changed over."""
    for span in line.spans:
        line = turned(line, kit, span.id)
    condition, flows = line.condition, line.carries.flows
    return dataclasses.replace(
        line,
        spans=line.spans[::-1],
        joints=line.joints[::-1],
        port_a=line.port_b,
        port_b=line.port_a,
        carries=dataclasses.replace(line.carries, flows=FLOWS.get(flows, flows)),
        condition=dataclasses.replace(condition, end_a=condition.end_b, end_b=condition.end_a),
        removal=dataclasses.replace(
            line.removal, done=tuple(PLUGS.get(done, done) for done in line.removal.done)
        ),
    )


@pytest.fixture
def tube_line(kit) -> Line:
    """Two bends with everything on them that has a place: 100, 90°, 150, 40°, 200 to the corners in mm."""
    rows = (
        BendRow(id="r1", length=Length(text="100"), angle=Angle(text="90"), read_to="centre"),
        BendRow(
            id="r2", length=Length(text="150"), angle=Angle(text="40"), plane=Plane(text="3:00"),
            read_from="centre", read_to="centre",
        ),
    )  # fmt: skip
    made = next(line for line in (made_line(kit, seed) for seed in range(99)) if len(line.spans) == 1)
    tube = dataclasses.replace(
        made.spans[0],
        state="to make",
        readings=BendReadings(rows=rows, last=Length(text="200"), last_read_from="centre"),
        checks=Checks(),
        order=(),
        left_open=(),
        openings=(Opening(id="o1", at=Length(text="50"), enters="A"),),
        bought=(
            PartReading(kind="leg", row="r1", text="101"),
            PartReading(kind="leg", text="199"),
            PartReading(kind="plane", row="r2", text="90", by="from bend"),
        ),
    )
    condition = Condition(
        damage=(Damage(id="d1", at=Length(text="20"), to=Length(text="30")),),
        fixtures=(Fixture(id="f1", span=tube.id, at=Length(text="60")),),
    )
    return Line(name="turned", unit="mm", spans=(tube,), condition=condition)


def test_places_are_told_from_the_other_end(kit, tube_line):
    whole = plan_line(tube_line, kit).pieces[0].part.developed_mm
    after = turned(tube_line, kit, tube_line.spans[0].id)
    damage, fixture = after.condition.damage[0], after.condition.fixtures[0]
    assert (length_mm(damage.at), length_mm(damage.to)) == pytest.approx((whole - 30, whole - 20))
    assert length_mm(fixture.at) == pytest.approx(whole - 60)
    opening = after.spans[0].openings[0]
    assert (length_mm(opening.at), opening.enters) == (pytest.approx(whole - 50), "B")
    # the leg to the first bend is the last one from there
    assert [(item.kind, item.row, item.text) for item in after.spans[0].bought] == [
        ("leg", "", "101"),
        ("leg", "r2", "199"),
        ("plane", "r1", "90"),
    ]


def test_reasons_stay_with_what_they_were_given_for(kit, tube_line):
    span = tube_line.spans[0].id
    spots = (
        Spot(kind="end", span=span, end="A"),
        Spot(kind="straight", span=span, row="r1"),
        Spot(kind="straight", span=span, row="r2"),
        Spot(kind="straight", span=span),
        Spot(kind="bend", span=span, row="r1"),
    )
    aside = tuple(SetAside(code="short_straight", at=spot, reason="looked at it twice") for spot in spots)
    line = dataclasses.replace(tube_line, set_aside=aside)
    after = [item.at for item in turned(line, kit, span).set_aside]
    assert after == [
        Spot(kind="end", span=span, end="B"),
        Spot(kind="straight", span=span),
        Spot(kind="straight", span=span, row="r1"),
        Spot(kind="straight", span=span, row="r2"),
        Spot(kind="bend", span=span, row="r1"),
    ]


@pytest.mark.parametrize("clock", ["12:00", "4:00"])
def test_the_check_of_port_b_is_as_far_off_as_before(kit, tube_line, clock):
    checks = Checks(port_b_angle=Angle(text="90"), port_b_clock=Plane(text=clock), tape=Length(text="300"))
    tube = dataclasses.replace(tube_line.spans[0], checks=checks)
    line = dataclasses.replace(tube_line, spans=(tube,))

    def off(of: Line) -> dict[str, float]:
        return {check.kind: check.computed for check in plan_line(of, kit).pieces[0].measured.checks}

    before, after = off(line), off(turned(line, kit, tube.id))
    assert after["way B"] == pytest.approx(before["way B"], abs=0.5)  # a clock is written to the minute
    assert after["tape"] == pytest.approx(before["tape"])


def test_what_cannot_be_read_is_said_and_nothing_is_turned(kit, tube_line):
    condition = dataclasses.replace(tube_line.condition, damage=(Damage(id="d1", at=Length(text="9999")),))
    line = dataclasses.replace(tube_line, condition=condition)
    with pytest.raises(NotAChain, match="9999 lies beyond end B"):
        turned(line, kit, line.spans[0].id)


def places(line: Line, kit) -> list[tuple[str, float, float]]:
    """Damage and clips with their span, as placed."""
    looked = plan_line(line, kit).looked
    return sorted(
        [(d.id, d.from_mm, d.to_mm) for d in looked.damage]
        + [(f.id, f.at_mm, f.at_mm) for f in looked.fixtures]
    )


TIGHTEST = {"too_hot_tube", "pressure_tube"}
"""Told at the tightest bend; of several as tight, at the first."""


def seen(line: Line, kit, *, other: bool) -> Counter[tuple[str, str, object]]:
    """Findings with their places; `other`: as they are told from the other port. What is between two spans
    is said at either of them."""
    ends = [(span.id, end) for span in line.spans for end in ("A", "B")]
    joints = {end: frozenset(pair) for pair in zip(ends[1::2], ends[2::2], strict=False) for end in pair}
    flip = {"A": "B", "B": "A"}

    def spot(code: str, where: Place) -> object:
        here = where.spot
        if code in TIGHTEST and here.kind == "bend":
            return here.span
        if here.kind == "span" and here.end and (pair := joints.get((here.span, here.end))):
            return frozenset((span, flip[end]) for span, end in pair) if other else pair
        return spot_turned(here, line) if other and here.span else here

    return Counter((f.code, f.severity, spot(f.code, f.where)) for f in plan_line(line, kit).findings)


@pytest.mark.parametrize("seed", range(CHAINS))
def test_a_line_seen_from_its_other_port_is_the_same_line(kit, seed):
    # what was done at a joint belongs to the two that met there
    line = dataclasses.replace(made_line(kit, 7000 + seed), proving=Proving())
    try:
        there = from_the_other_port(line, kit)
        back = from_the_other_port(there, kit)
    except NotAChain:
        pytest.skip("wire and string have a beginning, and what cannot be read has no other end")
    one, other = plan_line(line, kit), plan_line(there, kit)
    made = {piece.span: piece.part for piece in other.pieces}
    for piece in one.pieces:
        if piece.part is None:
            continue
        part = made[piece.span]
        assert part.developed_mm == pytest.approx(piece.part.developed_mm, abs=1e-6)
        assert part.cut_mm == pytest.approx(piece.part.cut_mm, abs=1e-6)
        assert [b.angle_deg for b in part.bends] == pytest.approx(
            [b.angle_deg for b in piece.part.bends][::-1]
        )
    assert places(back, kit) == [
        (name, pytest.approx(low, abs=1e-6), pytest.approx(high, abs=1e-6))
        for name, low, high in places(line, kit)
    ]
    assert seen(there, kit, other=True) == seen(line, kit, other=False)


def test_all_that_is_of_one_end_of_a_hose_goes_to_the_other():
    """Every field of end A has its twin at end B; turned twice it is the hose that it was."""
    pairs = [f.name[:-2] for f in fields(HoseSpan) if f.name.endswith("_a")]
    assert {"on", "lap", "plain", "angle", "own"} <= set(pairs)
    turned_any = set()
    for seed in range(60):
        for hose in (span for span in made_line(load_kit(), seed).spans if isinstance(span, HoseSpan)):
            own = replace(hose, shape=None, pattern=None, lap_a=Length(text="20 mm"), angle_a=45)
            turned = reversed_hose(own)
            for name in pairs:
                assert getattr(turned, f"{name}_b") == getattr(own, f"{name}_a"), name
                assert getattr(turned, f"{name}_a") == getattr(own, f"{name}_b"), name
            assert reversed_hose(turned) == own
            turned_any |= {hose.way is not None}
    assert turned_any == {True, False}
