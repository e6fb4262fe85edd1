"""Mending as the screen asks for it: a noted damage, cuts as typed, and what is refused."""

from dataclasses import replace

import pytest

from bendrel.core.lengths import Length
from bendrel.core.line.document import RigidSpan
from bendrel.core.repair.condition import Condition, Damage
from bendrel.services.errors import Refused
from bendrel.services.splicing import MendOrder, decide_to_mend, ways_to_mend
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
    with pytest.raises(Refused, match=said):
        ways_to_mend(line, order, kit)


def test_deciding_wants_a_way_that_is_there_and_a_reason(kit):
    order = MendOrder(damage="d1")
    with pytest.raises(Refused, match="no way “glue”"):
        decide_to_mend(hurt(), order, "glue", "it was quick to do", kit)
    with pytest.raises(Refused, match="why it is mended"):
        decide_to_mend(hurt(), order, "hose", "x", kit)
    made = decide_to_mend(hurt(), order, "flared_unions", "sound on both sides", kit)
    assert [span.state for span in made.document.spans if isinstance(span, RigidSpan)] == [
        "stays", "to make", "stays",
    ]  # fmt: skip
    assert made.span == made.document.spans[1].id
    assert made.document.condition.decision.choice == "splice"
    assert {joint.why for joint in made.document.joints} == {"sound on both sides"}
