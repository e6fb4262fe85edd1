"""Edits of the chain as the screen asks for them: whatever is done, the line stays a line."""

import dataclasses
import random

import pytest

from bendrel.core.errors import BendrelError
from bendrel.core.findings import Spot
from bendrel.core.line.condition import Condition, Damage, Fixture
from bendrel.core.line.document import HoseSpan, Line, RigidSpan, SetAside
from bendrel.core.units.lengths import Length, length_mm
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from bendrel.services.line.chains import ChainEdit, edit_chain
from tests.lines import bent, row

PUT = ("tube", "hose", "filter", "cooler", "check valve")
KINDS = ("insert", "insert", "remove", "move", "turn", "split", "join", "swap")


def some_line(rng: random.Random) -> Line:
    rows = [
        row(rng.choice((60, 90, 140)), rng.choice((30, 45, 90)), "3:00") for _ in range(rng.randint(1, 4))
    ]
    line = bent(*rows, last=rng.choice((60, 140)), service="cooler")
    tube = line.spans[0]
    aside = tuple(
        SetAside(
            code="end_room", at=Spot(kind="bend", span=tube.id, row=one.id), reason="measured on the car"
        )
        for one in tube.readings.rows
    )
    return dataclasses.replace(line, set_aside=aside)


def bends_of(line: Line) -> dict[tuple[str, str], object]:
    return {
        (span.id, one.id): one
        for span in line.spans
        if isinstance(span, RigidSpan)
        for one in span.readings.rows
    }


@pytest.mark.parametrize("block", range(8))
def test_random_edits_leave_a_line(kit, block):
    """250 edits a block, 2,000 in all: ids are their own, joints are one fewer than spans, what is set aside
    names a bend that is there, it is the same after writing and reading, and undo is the line before."""
    rng, done, kept = random.Random(block), 0, 0
    said: list[str] = []
    untouched: list[bool] = []
    line = some_line(rng)
    for _ in range(250):
        if len(line.spans) > 14:
            line = some_line(rng)
        span = rng.choice(line.spans)
        kind = rng.choice(KINDS)
        edit = ChainEdit(
            kind=kind,
            span=span.id,
            side=rng.choice("AB"),
            put=rng.choice(PUT) if kind in ("insert", "swap") else "",
            at=rng.choice(("", "40 mm", "5 m", "nowhere")) if kind == "split" else "",
        )
        before = line_to_value(line)
        try:
            edited = edit_chain(line, edit, kit)
        except BendrelError as refused:
            said.append(str(refused))
            continue
        finally:
            untouched.append(line_to_value(line) == before)
        done += 1
        line = edited.document
        ids = [one.id for one in line.spans]
        assert len(set(ids)) == len(ids)
        assert edited.span in ids
        assert len(line.joints) == len(line.spans) - 1
        bends = bends_of(line)
        kept += len(line.set_aside)
        assert all((item.at.span, item.at.row) in bends for item in line.set_aside)
        assert line_from_value(line_to_value(line)) == line
    assert done > 100
    assert kept > 0
    assert untouched
    assert all(untouched)
    assert said
    assert all(one.endswith(".") for one in said)


def test_a_split_keeps_what_was_said_of_its_bend(kit):
    rng = random.Random(3)
    line = some_line(rng)
    while len(line.spans[0].readings.rows) < 3:
        line = some_line(rng)
    names = {item.at.row for item in line.set_aside}
    parted = edit_chain(line, ChainEdit(kind="split", span=line.spans[0].id), kit).document
    assert {item.at.row for item in parted.set_aside} == names
    again = edit_chain(parted, ChainEdit(kind="join", span=line.spans[0].id), kit).document
    assert len(again.spans) == 1
    assert [one.id for one in again.spans[0].readings.rows] == [one.id for one in line.spans[0].readings.rows]
    assert again.set_aside == line.set_aside


def test_what_cannot_be_edited_is_said_in_a_sentence(kit):
    line = some_line(random.Random(1))
    tube = line.spans[0].id
    with pytest.raises(BendrelError, match="no span “b9”"):
        edit_chain(line, ChainEdit(kind="remove", span="b9"), kit)
    with pytest.raises(BendrelError, match="last span stays"):
        edit_chain(line, ChainEdit(kind="remove", span=tube), kit)
    with pytest.raises(BendrelError, match="nothing behind"):
        edit_chain(line, ChainEdit(kind="join", span=tube), kit)
    with pytest.raises(BendrelError, match="beyond the tube"):
        edit_chain(line, ChainEdit(kind="split", span=tube, at="5 m"), kit)
    with pytest.raises(BendrelError, match="Nothing is put in"):
        edit_chain(line, ChainEdit(kind="insert", span=tube), kit)
    with pytest.raises(BendrelError, match="no part “gadget”"):
        edit_chain(line, ChainEdit(kind="swap", span=tube, put="gadget"), kit)
    hosed = edit_chain(line, ChainEdit(kind="insert", span=tube, put="hose"), kit).document
    with pytest.raises(BendrelError, match="this is a hose"):
        edit_chain(hosed, ChainEdit(kind="split", span=hosed.spans[1].id), kit)


@pytest.mark.parametrize("kind", ["insert", "swap"])
def test_a_tube_comes_into_a_line_of_hose_alone(kit, kind):
    """In the size that the service usually starts with, and with its usual ends."""
    hose = HoseSpan(id="h1", hose="cooler_3-8in", clamp="worm_12-20")
    line = Line(name="hose alone", service="cooler", unit="in", spans=(hose,))
    made = edit_chain(line, ChainEdit(kind=kind, span="h1", put="tube"), kit)
    tube = made.document.span(made.span)
    assert kit.tubes[tube.tube].size == "3/8 in"
    assert (tube.end_a.fitting, tube.end_b.fitting) == ("bead", "bead")


def test_damage_and_clips_stay_where_they_are_when_a_tube_is_cut_and_joined_again(kit):
    """On 900 mm, cut at 400: what lies at 600 to 640 is 200 to 240 from the new tube's end A, what lies
    before the cut stays; joined again everything is where it was."""

    def mm(value):
        return Length(text=f"{value} mm")

    line = bent(last=900, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    whole = line.spans[0].id
    condition = Condition(
        damage=(
            Damage(id="d1", span=whole, at=mm(100), to=mm(120)),
            Damage(id="d2", span=whole, at=mm(600), to=mm(640)),
        ),
        fixtures=(Fixture(id="f1", span=whole, at=mm(390)), Fixture(id="f2", span=whole, at=mm(410))),
    )
    line = dataclasses.replace(line, condition=condition)

    def places(made):
        noted = (*made.condition.damage, *made.condition.fixtures)
        return {one.id: (one.span, *(round(length_mm(x), 6) for x in lengths_of(one))) for one in noted}

    def lengths_of(one):
        return (one.at, one.to) if isinstance(one, Damage) else (one.at,)

    parted = edit_chain(line, ChainEdit(kind="split", span=whole, at="400 mm"), kit).document
    behind = parted.spans[-1].id
    assert places(parted) == {
        "d1": (whole, 100, 120),
        "d2": (behind, 200, 240),
        "f1": (whole, 390),
        "f2": (behind, 10),
    }
    again = edit_chain(parted, ChainEdit(kind="join", span=whole), kit).document
    assert places(again) == places(line)
