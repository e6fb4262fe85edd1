"""Mending as the screen asks for it: a noted damage, cuts as typed, and what is refused."""

from dataclasses import replace

import pytest

from bendrel.core.errors import BendrelError
from bendrel.core.line.condition import Condition, Damage
from bendrel.core.line.document import HoseSpan, RigidSpan
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.services.mend.gaps import GapOrder, gap_answer, ways_over_gap
from bendrel.services.mend.splicing import MendOrder, decide_to_mend, ways_to_mend, what_it_takes
from tests.lines import bent, row


def hurt(at="300", to="340", **changes):
    """A straight of 600 mm and one more behind a bend, with rust noted on the first."""
    line = bent(row(600, 90), last=300, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    noted = Damage(id="d1", at=Length(text=at), to=Length(text=to))
    return replace(line, condition=Condition(damage=(noted,), twin="no twin"), **changes)


def way(mending, method):
    return next(offer for offer in mending.offers if offer.method == method)


def test_a_typed_cut_is_taken_and_one_in_the_damage_is_moved(kit):
    """By hand: rust from 300 with 25 mm of margin is cut at 275 at the latest."""
    order = MendOrder(damage="d1", cut_a="200 mm")
    told = ways_to_mend(hurt(), order, kit)
    assert way(told, "hose").cut_a_mm == 200
    assert told.snapped == ()
    moved = ways_to_mend(hurt(), replace(order, cut_a="290"), kit)
    assert way(moved, "hose").cut_a_mm == 275
    assert "too near to the damage" in moved.snapped[0]


def test_a_typed_cut_without_room_is_refused_with_the_reason(kit):
    told = ways_to_mend(hurt(), MendOrder(damage="d1", cut_a="10 mm"), kit)
    flared = way(told, "flared_unions")
    assert flared.verdict == "refused"
    assert any("straight stay on the side of A" in reason.text for reason in flared.reasons)


@pytest.mark.parametrize(
    ("line", "order", "said"),
    [
        (hurt(), MendOrder(damage="d9"), "not noted any more"),
        (hurt(at=""), MendOrder(damage="d1"), "where the damage begins"),
        (hurt(), MendOrder(damage="d1", cut_a="soon"), "side of A"),
    ],
)
def test_what_cannot_be_asked_is_one_sentence(kit, line, order, said):
    with pytest.raises(BendrelError, match=said):
        ways_to_mend(line, order, kit)


def test_deciding_wants_a_way_that_is_there_and_a_reason(kit):
    order = MendOrder(damage="d1")
    with pytest.raises(BendrelError, match="no way “glue”"):
        decide_to_mend(hurt(), order, "glue", "it was quick to do", kit)
    with pytest.raises(BendrelError, match="why it is mended"):
        decide_to_mend(hurt(), order, "hose", "x", kit)
    made = decide_to_mend(hurt(), order, "flared_unions", "sound on both sides", kit)
    assert [span.state for span in made.document.spans if isinstance(span, RigidSpan)] == [
        "stays", "to make", "stays",
    ]  # fmt: skip
    assert made.span == made.document.spans[1].id
    assert made.document.condition.decision.choice == "splice"
    assert {joint.why for joint in made.document.joints} == {"sound on both sides"}


def test_what_a_way_takes_is_what_the_line_then_needs(kit):
    """Two unions, and of the tube only the new piece, not the 900 mm of the old line."""
    takes = what_it_takes(hurt(), MendOrder(damage="d1"), "sleeve_unions", kit)
    needs = {need.ref: need.amount for need in takes.needs}
    assert needs["joint:compression-union/8 mm"] == 2
    assert 80 < needs["tube:steel-seamless_8mm_1"] < 250
    assert any("wrench" in tool.what for tool in takes.tools)
    hose = {
        need.ref.split(":")[0] for need in what_it_takes(hurt(), MendOrder(damage="d1"), "hose", kit).needs
    }
    assert {"hose", "clamp"} <= hose
    assert "joint" not in hose
    with pytest.raises(BendrelError, match="refused"):
        what_it_takes(hurt(service="brake"), MendOrder(damage="d1"), "hose", kit)


def test_room_round_the_tube_as_measured(kit):
    tight = ways_to_mend(hurt(), MendOrder(damage="d1", room="20 mm"), kit)
    assert way(tight, "sleeve_unions").verdict == "care"
    with pytest.raises(BendrelError, match="Room round the tube"):
        ways_to_mend(hurt(), MendOrder(damage="d1", room="tight"), kit)


def test_a_gap_on_the_screen_is_the_gap_of_the_command(kit):
    told = ways_over_gap(GapOrder(gap="90", tube_a="8", service="cooler"), kit)
    said = gap_answer(90, 8, None, None, "cooler")["proposals"]
    assert [(one.method, one.piece_mm) for one in told.offers] == [(o["method"], o["piece_mm"]) for o in said]
    inches = ways_over_gap(GapOrder(gap="3.5", tube_a="5/16", service="cooler", unit="in"), kit)
    assert way(inches, "hose").gap_mm == pytest.approx(88.9)
    bodies = ways_over_gap(GapOrder(gap="58", tube_a="8", bodies=True, service="cooler"), kit)
    assert way(bodies, "sleeve_unions").piece_mm == 58 + 2 * 10


@pytest.mark.parametrize(
    ("order", "said"),
    [
        (GapOrder(gap="", tube_a="8"), "Type the gap"),
        (GapOrder(gap="90", tube_a="thin"), "Tube, A side"),
        (GapOrder(gap="-3", tube_a="8"), "Gap"),
        (GapOrder(gap="90", tube_a="8", service="beer"), "no service “beer”"),
    ],
)
def test_a_gap_that_cannot_be_read_is_one_sentence(kit, order, said):
    with pytest.raises(BendrelError, match=said):
        ways_over_gap(order, kit)


def crimped(end="B", length="300 mm", service="cooler"):
    """Rust at the crimp of a hose, 20 mm from that end of a tube of 900 mm."""
    line = bent(last=900, service=service, tube="steel-seamless_8mm_1", bender="lever_8mm")
    tube, at = line.spans[0], ("870", "880") if end == "B" else ("20", "30")
    hose = HoseSpan(id="h1", hose="cooler_5-16in", joined="crimped", length=Length(text=length))
    noted = Damage(id="d1", at=Length(text=at[0]), to=Length(text=at[1]), span=tube.id)
    spans = (tube, hose) if end == "B" else (hose, tube)
    condition = Condition(damage=(noted,), twin="no twin")
    return replace(line, spans=spans, joints=(), condition=condition)


@pytest.mark.parametrize("end", ["A", "B"])
def test_a_crimped_end_is_resleeved(kit, end):
    """Cut 25 mm beyond the rust: 845 of 900 stay, 55 go; hose 300 + 55 + an overlap of 25."""
    line, order = crimped(end), MendOrder(damage="d1")
    offer = way(ways_to_mend(line, order, kit), "resleeve")
    assert (offer.gap_mm, offer.piece_mm) == (pytest.approx(55), pytest.approx(380))
    assert any("never saw round it" in reason.text for reason in offer.reasons)
    made = decide_to_mend(line, order, "resleeve", "the rest of it is sound", kit).document
    tube = next(span for span in made.spans if isinstance(span, RigidSpan))
    hose = next(span for span in made.spans if isinstance(span, HoseSpan))
    assert (tube.state, hose.joined, hose.clamps_each) == ("stays", "clamps", 2)
    assert hose.length.exact_mm == pytest.approx(380)
    assert plan_line(made, kit).part.developed_mm == pytest.approx(845)
    assert [damage.span for damage in made.condition.damage] == ["h1"]
    assert made.condition.decision.reason == made.joints[0].why == "the rest of it is sound"


def test_resleeving_is_offered_at_a_crimp_only_and_refused_where_hose_is(kit):
    methods = {offer.method for offer in ways_to_mend(hurt(), MendOrder(damage="d1"), kit).offers}
    assert "resleeve" not in methods
    line, order = crimped(service="brake"), MendOrder(damage="d1")
    brake = way(ways_to_mend(line, order, kit), "resleeve")
    assert brake.verdict == "refused"
    assert brake.reasons[0].source.text
    with pytest.raises(BendrelError, match="refused"):
        decide_to_mend(
            crimped(service="brake"), MendOrder(damage="d1"), "resleeve", "it was quick to do", kit
        )
    assert way(ways_to_mend(crimped(length=""), MendOrder(damage="d1"), kit), "resleeve").piece_mm is None


@pytest.mark.parametrize(
    ("method", "kind"),
    [
        ("sleeve_unions", "rigid"),
        ("replace_from_a", "rigid"),
        ("replace_from_b", "rigid"),
        ("hose", "hose"),
    ],
)
def test_what_is_new_is_looked_at_next(kit, method, kind):
    made = decide_to_mend(hurt(), MendOrder(damage="d1"), method, "sound on both sides", kit)
    span = made.document.span(made.span)
    assert span.kind == kind
    assert kind == "hose" or span.state == "to make"
