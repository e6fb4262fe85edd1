"""What a line takes and costs, counted by hand; and what the board says of it."""

from __future__ import annotations

from math import pi

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.line.condition import Condition
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.core.work.shopping import Need
from bendrel.services.job.jobs import JobDraft
from bendrel.services.job.kits import added_up
from bendrel.services.shelf.shelf import Held
from tests.lines import Component, End, Hose, bent, replace, row, the_tube, with_tube

KIT = load_kit()
LINE = bent(row(100, 90), row(60, 60, "3:00"), last=80)
CUT = 240 + 15 * pi / 2 + 15 * pi / 3 + 2 * 2.0456 + 25


def amounts(line):
    return {need.ref: (need.amount, need.unit) for need in plan_line(line, KIT).chosen.needs}


def test_a_flared_line_takes_its_tube_two_nuts_and_two_caps():
    told = amounts(LINE)
    amount, unit = told["tube:copper-nickel_3-16in_0.711"]
    assert (amount, unit) == (pytest.approx(CUT, abs=0.01), "mm")
    nuts = [need for need in plan_line(LINE, KIT).chosen.needs if need.ref.startswith("nut:")]
    assert [(n.ref, n.amount, n.why) for n in nuts] == [
        ("nut:double-45_3-16in_3-8-24", 1, "end A"), ("nut:double-45_3-16in_3-8-24", 1, "end B")]  # fmt: skip
    caps = [need for need in plan_line(LINE, KIT).chosen.needs if need.ref.startswith("cap:")]
    assert [(n.ref, n.amount) for n in caps] == [("cap:3/8-24", 1)] * 2
    coil = with_tube(LINE, stock_form="coil")
    straightened = amounts(coil)["tube:copper-nickel_3-16in_0.711"][0]
    assert straightened == pytest.approx(CUT + KIT.limits["straighten_mm"].value, abs=0.01)


def test_hoses_take_their_length_and_two_ends_of_clamps():
    piece = Hose(
        hose="cooler_3-8in", clamp="worm_12-20", clamps_each=2, length=Length(text="350 mm"), rubs=True
    )
    end = End(fitting="bead", beyond=(piece,))
    size = {"tube": "copper-nickel_3-8in_0.889", "bender": "lever_3-8in"}
    made = bent(row(100, 90), last=100, service="cooler", end_a=End(fitting="bead"), end_b=end, **size)
    told = amounts(made)
    assert told["hose:cooler_3-8in"] == (350, "mm")
    assert told["clamp:worm_12-20"] == (4, "each")
    assert told["sleeve:hose"] == (1, "each")
    one = replace(made, end_b=replace(end, beyond=(replace(piece, clamps_each=1, rubs=False),)))
    assert amounts(one)["clamp:worm_12-20"] == (2, "each")
    assert "sleeve:hose" not in amounts(one)
    crimped = replace(made, end_b=replace(end, beyond=(replace(piece, joined="crimped", clamp=None),)))
    told = amounts(crimped)
    assert told["hose-end:cooler_3-8in"] == (2, "each")
    assert not [ref for ref in told if ref.startswith("clamp:")]
    unmeasured = replace(made, end_b=replace(end, beyond=(replace(piece, length=Length()),)))
    assert "hose:cooler_3-8in" not in amounts(unmeasured)


def test_a_banjo_takes_two_washers_and_new_parts_are_bought_once():
    end = End(fitting="banjo", nut="banjo_3-16in_M10x1")
    told = plan_line(bent(row(100, 90), service="oil-feed", end_a=end, end_b=end), KIT).chosen.needs
    washers = [need for need in told if need.kind == "washer"]
    assert [n.amount for n in washers] == [2, 2]
    bolts = [need.what for need in told if need.ref.startswith("nut:")]
    assert bolts
    assert all(what.startswith("banjo bolt M10x1") for what in bolts)
    assert len(bolts) == 2
    new = Component(what="filter", age="new", note="5 micron")
    old = Component(what="check valve", age="old")
    parts = replace(end, beyond=(new, old))
    told = amounts(bent(row(100, 90), service="oil-feed", end_a=end, end_b=parts))
    assert told["part:filter"] == (1, "each")
    assert "part:check valve" not in told


def test_an_insert_goes_on_the_list_with_its_end():
    end = End(fitting="compression", insert=True, nut=KIT.nuts_for("compression", "8 mm")[0].id)
    tube = next(t.id for t in KIT.tubes.values() if t.material == "nylon" and t.size == "8 mm")
    ends = {"end_a": end, "end_b": End(fitting="plain")}
    made = bent(row(200, 45, radius=60), last=200, service="fuel-low", tube=tube, bender="given_any", **ends)
    assert amounts(made)["insert:8 mm"] == (1, "each")


@pytest.mark.parametrize(("choice", "tube", "nuts"), [("replace whole", 1, 2), ("splice", 0, 0),
                                                      ("replace from a separation point", 0, 2)])  # fmt: skip
def test_what_is_decided_decides_what_is_bought(choice, tube, nuts):
    from bendrel.core.line.condition import Decision

    made = replace(LINE, condition=Condition(decision=Decision(choice=choice, reason="said")))
    refs = [need.ref.split(":")[0] for need in plan_line(made, KIT).chosen.needs]
    assert (refs.count("tube"), refs.count("nut")) == (tube, nuts)


def test_a_filling_is_bought_once_for_all_lines():
    fluid = Need(ref="fluid:dot4", what="DOT 4", amount=0.5, unit="l", why="front")
    more = replace(fluid, amount=0.8, why="rear")
    nut = Need(ref="nut:x", what="nut", amount=2, unit="each", why="front")
    tube = Need(ref="tube:x", what="tube", amount=300.0, unit="mm", why="front")
    told = added_up(
        [fluid, nut, tube, more, replace(nut, why="rear"), replace(tube, amount=450.5, why="front")]
    )
    assert [(n.ref, n.amount, n.why) for n in told] == [
        ("fluid:dot4", 0.8, "front; rear"),
        ("nut:x", 4, "front; rear"),
        ("tube:x", 750.5, "front"),
    ]
    other = added_up([nut, replace(nut, what="another nut")])
    assert [n.amount for n in other] == [2, 2]


def test_prices_are_for_a_metre_a_piece_or_a_litre(shop):
    """640 cents a metre of tube, 95 a nut; one nut lies there. Beside them the supplier is asked."""
    shop.shelf.hold(Held(ref="tube:copper-nickel_3-16in_0.711", unit_cents=640))
    shop.shelf.hold(Held(ref="nut:double-45_3-16in_3-8-24", have=1, unit_cents=95))
    kit = shop.kits.of_line(LINE)
    rows = {(r.need.ref, r.need.why): r for r in kit.rows}
    tube = rows["tube:copper-nickel_3-16in_0.711", "cut length"]
    assert (tube.unit_cents, tube.own_price) == (640, True)
    assert tube.cents == round(640 * CUT / 1000)
    assert tube.short == pytest.approx(CUT, abs=0.01)
    nut = rows["nut:double-45_3-16in_3-8-24", "end A"]
    assert (nut.cents, nut.have, nut.short) == (95, 1, 0)
    cap = rows["cap:3/8-24", "end A: keep grit out"]
    assert not cap.own_price
    assert kit.total_cents == sum(r.cents or 0 for r in kit.rows)
    assert kit.unpriced == sum(r.cents is None for r in kit.rows)
    assert kit.supplier_answers
    shop.supplier.answers = False
    away = shop.kits.of_line(LINE)
    assert not away.supplier_answers
    assert {r.need.ref for r in away.rows if r.cents is not None} == {
        "tube:copper-nickel_3-16in_0.711", "nut:double-45_3-16in_3-8-24"}  # fmt: skip
    assert away.unpriced == len(away.rows) - 3  # its tube and both nuts have the shop's own price


@pytest.fixture
def job(shop):
    return shop.jobs.create(JobDraft(name="Tender")).id


def kept(shop, job, line):
    made = shop.lines.create(job, line.name)
    return shop.lines.save(made.id, made.version, line)


def summary(shop, line):
    (found,) = [entry for entry in shop.jobs.board()[0].lines if entry.id == line.id]
    return found


def test_the_board_says_what_a_line_is(shop, job):
    told = summary(shop, kept(shop, job, replace(LINE, name="Rear")))
    assert (told.name, told.service, told.tube) == ("Rear", "brake", "3/16 in copper-nickel")
    assert (told.bends, told.unit, told.done, told.twin_open) == (2, "mm", False, False)
    assert told.cut_mm == pytest.approx(CUT, abs=0.01)
    assert "stop" not in told.findings


def test_the_board_counts_findings_but_what_was_set_aside(shop, job):
    """A radius that is too tight stops a brake line; an old one of a pair is asked for its twin."""
    tight = replace(bent(row(100, 90, radius="8"), last=100, bender="given_any"), name="Tight")
    told = summary(shop, kept(shop, job, tight))
    plan = plan_line(tight, KIT)
    stops = [f for f in plan.findings if f.severity == "stop"]
    assert told.findings["stop"] == len(stops) >= 1
    assert told.worst == "stop"
    rusty = replace(
        LINE, name="Rusty", condition=Condition(reasons=("rusted through",), urgency="off the road")
    )
    told = summary(shop, kept(shop, job, rusty))
    assert (told.twin_open, told.urgency, told.reasons) == (True, "off the road", ("rusted through",))


def test_a_line_that_cannot_be_planned_has_its_place_on_the_board(shop, job):
    unread = replace(bent(row("", 90)), name="Unread")
    told = summary(shop, kept(shop, job, unread))
    assert (told.bends, told.cut_mm) == (0, None)
    strange = replace(LINE, name="Strange", spans=(replace(the_tube(LINE), tube="none_such"),))
    assert summary(shop, kept(shop, job, strange)).tube == "no tube chosen"
