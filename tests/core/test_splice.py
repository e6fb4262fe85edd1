"""Mending a damaged tube: where it is cut, how long the piece is, what is refused, the chain it becomes."""

import os
import random
from dataclasses import replace

import pytest

from bendrel.core.bend.tube.planned import plan_rigid
from bendrel.core.geometry.bends import BendList, ShapeError, bend_spans
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.parts import put_together
from bendrel.core.ids import NotAChain
from bendrel.core.joints.pieces import place_pieces
from bendrel.core.line.document import HoseSpan, RigidSpan
from bendrel.core.line.resolve import Reader
from bendrel.core.line.run import main_run, run_of
from bendrel.core.mend.cuts import why_not
from bendrel.core.mend.decide import mended
from bendrel.core.mend.gap import OVER_A_GAP, over_gap
from bendrel.core.mend.let_in import LetIn, let_in, place_of_component
from bendrel.core.mend.proposals import Damaged, proposals
from bendrel.core.plan.in_space import place_in_space
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.services.mend.splicing import damaged_of
from tests.lines import bent, row
from tests.made_lines import one_tube
from tests.often import often
from tests.reference.test_shape_occ import occ_wire

LINES = int(os.environ.get("BENDREL_SPLICED", "30"))
STRAIGHT = BendList(bends=(), last_straight_mm=900.0)


def damaged(kit, shape=STRAIGHT, start=300.0, stop=340.0, tube="steel-seamless_8mm_1", **more):
    return Damaged(shape=shape, tube=kit.tubes[tube], from_mm=start, to_mm=stop, **more)


def way(offers, method):
    return next(offer for offer in offers if offer.method == method)


def test_the_worked_example(kit):
    """Rust 300 to 340 on 900 mm: cuts 275 and 365, gap 90, sleeve piece 86, hose with 25 mm overlaps 140.
    By hand: 300 − 25, 340 + 25, 90 − 2·2, 90 + 2·25; 8 mm tube goes 10 into a brass sleeve's body."""
    service = kit.services["cooler"]
    offers = proposals(kit, damaged(kit), service)
    sleeve, hose = way(offers, "sleeve_unions"), way(offers, "hose")
    assert (sleeve.cut_a_mm, sleeve.cut_b_mm, sleeve.gap_mm) == (275, 365, 90)
    assert (sleeve.piece_mm, sleeve.stop_mm, sleeve.spring_apart_mm) == (86, 2, 10)
    assert (hose.piece_mm, hose.overlap_mm) == (140, 25)


FRESH, SEIZED, DEAR = "comes undone", "seized", "seized in an expensive part"


@pytest.mark.parametrize(
    ("ends", "whole", "from_a", "from_b"),
    [
        # one in fifty breaks as it comes undone, two in five seized ones: an hour, or eight of a dear part
        ((FRESH, FRESH), 1.2 + 1.2, 1.2, 1.2),
        ((FRESH, SEIZED), 1.2 + 24, 1.2, 24),
        ((SEIZED, FRESH), 24 + 1.2, 24, 1.2),
        ((DEAR, FRESH), 192 + 1.2, 192, 1.2),
        ((FRESH, DEAR), 1.2 + 192, 1.2, 192),
    ],
)
def test_a_seized_end_counts_where_it_comes_undone(kit, ends, whole, from_a, from_b):
    offers = proposals(kit, damaged(kit, ends=ends), kit.services["cooler"])

    def risk(method):
        return next(one.minutes for one in way(offers, method).cost if one.name == "a seized end that breaks")

    told = [risk(method) for method in ("whole", "replace_from_a", "replace_from_b", "hose", "sleeve_unions")]
    assert told == pytest.approx([whole, from_a, from_b, 0, 0])


def test_what_others_must_do_is_not_made_whole_either(kit):
    """Fuel gas on vehicles is left to licensed practice by local law."""
    left = [service for service in kit.services.values() if service.left_to]
    assert left
    for service in left:
        whole = way(proposals(kit, damaged(kit), service), "whole")
        assert whole.verdict == "refused"
        assert whole.reasons[0].text == f"It is not made here: {service.left_to}."
    made = way(proposals(kit, damaged(kit), kit.services["cooler"]), "whole")
    assert (made.verdict, "both old ends have to come undone" in made.reasons[0].text) == ("right", True)


def test_the_bends_of_the_new_piece_are_those_on_its_side(kit):
    """Bends 1 and 2 lie before a damage in the third straight, bend 3 behind it; nothing between two cuts."""
    line = bent(
        row(250, 90), row(250, 60, "3:00"), row(400, 45), last=250,
        service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm",
    )  # fmt: skip
    rigid = planned(kit, line)
    middle = (bend_spans(rigid.shape)[1].end_mm + bend_spans(rigid.shape)[2].start_mm) / 2
    offers = proposals(kit, damaged_of(kit, rigid, middle - 5, middle + 5, "nick"), kit.services["cooler"])
    told = {one.method: one.piece_bends for one in offers}
    assert (told["whole"], told["replace_from_a"], told["replace_from_b"]) == ((1, 2, 3), (1, 2), (3,))
    assert (told["sleeve_unions"], told["hose"]) == ((), ())


def test_a_nick_needs_less_clean_metal_than_rust(kit):
    nick = way(proposals(kit, damaged(kit, kind="nick"), kit.services["cooler"]), "hose")
    assert (nick.cut_a_mm, nick.cut_b_mm) == (290, 350)


def test_a_short_damage_is_cut_further_apart_for_the_ends_of_the_new_piece(kit):
    """80 mm from cut to cut would leave a flared piece of some 57 mm, less than its two nuts and the tool."""
    offers = proposals(kit, damaged(kit, start=600.0, stop=630.0), kit.services["cooler"])
    flared, sleeve = way(offers, "flared_unions"), way(offers, "sleeve_unions")
    assert flared.verdict != "refused"
    assert (sleeve.cut_a_mm, sleeve.cut_b_mm) == (575, 655)
    assert flared.cut_a_mm == 575
    assert flared.cut_b_mm > 655


def test_clips_and_arcs_push_a_cut_away(kit):
    service = kit.services["cooler"]
    free = way(proposals(kit, damaged(kit), service), "hose")
    clipped = way(proposals(kit, damaged(kit, clips_mm=(270.0,)), service), "hose")
    assert clipped.cut_a_mm < free.cut_a_mm
    shape = bent(row(100, 90), row(200, 45), last=300)
    read = plan_rigid(main_run(shape), kit).rigid
    arc = bend_spans(read.shape)[1]
    assert why_not(read.shape, arc.middle_mm, (), 10) == "that is in the arc of bend 2"
    assert why_not(read.shape, 50, (52,), 10) == "a clip sits there"
    assert why_not(read.shape, 50, (90,), 10) == ""


SERVICES = ("brake", "fuel-injection", "hydraulic", "steering-pressure", "cooler", "coolant", "vacuum")
TUBES = (
    ("copper-nickel_3-16in_0.711", "lever_3-16in"),
    ("steel-seamless_8mm_1", "lever_8mm"),
    ("steel-seamless_10mm_1.5", "bench_10mm"),
)
ONE_OF_EACH = ("copper-nickel_3-16in_0.711", "steel-plated_8mm_0.7", "steel-seamless_12mm_1.5", "nylon_8mm_1")
FORBIDDEN = {
    ("brake", "sleeve_unions"), ("brake", "bite_unions"), ("brake", "hose"),
    ("fuel-injection", "sleeve_unions"),
    ("hydraulic", "sleeve_unions"),
}  # fmt: skip
"""What the trade forbids whatever the catalogue says. Source: common practice of the trade."""


def test_what_a_service_forbids_is_never_better_than_refused(kit):
    met = set()
    for service in kit.services.values():
        for tube in ONE_OF_EACH:
            for offer in proposals(kit, damaged(kit, tube=tube), service):
                verdict = kit.verdict("joint", offer.joint, service.id) if offer.joint else None
                if (service.id, offer.method) in FORBIDDEN or (verdict and verdict.verdict == "refused"):
                    assert offer.verdict == "refused", (service.id, offer.method)
                    met.add((service.id, offer.method))
                if offer.verdict == "refused":
                    assert offer.reasons
                    assert all(reason.text and reason.source.text for reason in offer.reasons)
    assert met >= FORBIDDEN


def test_a_brake_line_is_spliced_only_where_the_law_is_named(kit):
    offers = proposals(kit, damaged(kit, tube="copper-nickel_3-16in_0.711"), kit.services["brake"])
    assert offers[0].method == "whole"
    flared = way(offers, "flared_unions")
    assert flared.verdict == "care"
    assert any("Local law" in reason.text for reason in flared.reasons)


def random_line(seed):
    rng = random.Random(seed)
    rows = [
        row(
            rng.choice((60, 90, 140, 250, 400)),
            rng.choice((20, 45, 60, 90, 110)),
            rng.choice(("12:00", "3:00")),
        )
        for _ in range(rng.randint(0, 6))
    ]
    tube, bender = rng.choice(TUBES)
    service = rng.choice(SERVICES)
    return rng, bent(*rows, last=rng.choice((80, 150, 300)), service=service, tube=tube, bender=bender)


def planned(kit, line):
    rigid = plan_rigid(main_run(line), kit).rigid
    assert rigid is not None
    return rigid


@pytest.mark.parametrize("block", range(often(5, 10)))
def test_random_damage_on_random_lines(kit, block):
    """Fifty lines a block: each cut on a straight, clear of damage and margin, with room; the old tube, the
    joints and the piece add up; the chain that it becomes ends where the old tube did."""
    met = set()
    for seed in range(block * 50, block * 50 + 50):
        rng, line = random_line(seed)
        rigid = planned(kit, line)
        whole = rigid.shape.developed_mm
        start = rng.uniform(0, whole - 1)
        stop = rng.uniform(start, min(whole, start + 120))
        hurt = damaged_of(kit, rigid, start, stop, rng.choice(("rust", "nick", "crush", "chafe")))
        for offer in proposals(kit, hurt, kit.services[line.service]):
            if offer.verdict != "refused":
                _stands(kit, line, rigid, hurt, offer)
                met.add(offer.method)
    assert met == set(kit.splicing.methods) - {"resleeve"}


def _stands(kit, line, rigid, hurt, offer):
    shape, whole = rigid.shape, rigid.shape.developed_mm
    margin = kit.splicing.margins[hurt.kind].mm
    for cut in (offer.cut_a_mm, offer.cut_b_mm):
        if cut is not None:
            assert why_not(shape, cut, (), 0) == ""
            assert 0 < cut < whole
    if offer.cut_a_mm is not None:
        assert offer.cut_a_mm <= hurt.from_mm - margin + 1e-9
    if offer.cut_b_mm is not None:
        assert offer.cut_b_mm >= hurt.to_mm + margin - 1e-9
    _has_room(kit, shape, offer)
    made = mended(line, kit, rigid, offer, "worn through at the bracket")
    if offer.method == "whole":
        assert made.spans == line.spans
        return
    assert len({span.id for span in made.spans}) == len(made.spans)
    if offer.method == "hose":
        hose = next(span for span in made.spans if isinstance(span, HoseSpan))
        tubes = [span for span in made.spans if isinstance(span, RigidSpan)]
        left = sum(planned_span(kit, made, span).developed_mm for span in tubes)
        assert left + hose.length.exact_mm - 2 * offer.overlap_mm == pytest.approx(whole, abs=1e-6)
        assert end_in_space(kit, made) == pytest.approx(end_frame(shape).point, abs=1e-6)
        return
    shapes = [planned_span(kit, made, span) for span in made.spans]
    between = [joint.apart.exact_mm for joint in made.joints]
    if offer.method in ("replace_from_a", "replace_from_b"):
        assert [span.state for span in made.spans].count("stays") == 1
    lengths = sum(one.developed_mm for one in shapes) + sum(between)
    assert lengths == pytest.approx(whole, abs=1e-6)
    was, now = end_frame(shape), end_frame(composed_of(kit, made))
    assert now.point == pytest.approx(was.point, abs=1e-6)
    assert now.way == pytest.approx(was.way, abs=1e-9)
    assert end_in_space(kit, made) == pytest.approx(was.point, abs=1e-6)


@pytest.mark.parametrize("block", range(often(2, 4)))
def test_no_way_that_is_offered_ends_in_a_stop(kit, block):
    """Deciding on what is offered raises no finding as bad as the damage that it mends."""
    for seed in range(1000 + block * 25, 1025 + block * 25):
        rng, line = random_line(seed)
        rigid = planned(kit, line)
        already = stops(kit, line)
        whole = rigid.shape.developed_mm
        start = rng.uniform(0, whole - 20)
        for offer in proposals(
            kit, damaged_of(kit, rigid, start, start + 20, "rust"), kit.services[line.service]
        ):
            if offer.verdict in ("right", "acceptable", "care"):
                made = mended(line, kit, rigid, offer, "worn through at the bracket")
                assert stops(kit, made) <= already, (seed, offer.method)


def test_the_nuts_of_a_mended_stretch_are_proved_in_their_unions(kit):
    line = bent(last=900, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    rigid = planned(kit, line)
    offers = proposals(kit, damaged_of(kit, rigid, 400, 420, "rust"), kit.services["cooler"])
    made = mended(line, kit, rigid, way(offers, "flared_unions"), "sound on both sides")
    steps = {span.id: order_of_work(made, kit, span.id) for span in made.spans}
    proved = next(step for step in steps["s2"] if step.kind == "prove")
    assert "port or union" in proved.text


def stops(kit, line):
    return {finding.code for finding in plan_line(line, kit).findings if finding.severity == "stop"}


def planned_span(kit, line, span):
    return plan_rigid(run_of(line, span.id), kit).rigid.shape


def _has_room(kit, shape, offer):
    """The straight beside each cut holds what the method needs on the side that stays."""
    if offer.method not in kit.splicing.methods or offer.method.startswith(("whole", "replace")):
        return
    room = kit.splicing.methods[offer.method].room
    reached = [0.0, *(span.end_mm for span in bend_spans(shape))]
    stops = [*(span.start_mm for span in bend_spans(shape)), shape.developed_mm]
    assert any(a + room <= offer.cut_a_mm + 1e-9 <= b + 1e-6 for a, b in zip(reached, stops, strict=True))
    assert any(a - 1e-6 <= offer.cut_b_mm <= b - room + 1e-9 for a, b in zip(reached, stops, strict=True))


def test_the_mended_chain_ends_where_opencascade_ends_the_old_tube(kit):
    checked = 0
    for seed in range(200):
        line = replace(random_line(seed)[1], service="cooler")
        rigid = planned(kit, line)
        whole = rigid.shape.developed_mm
        hurt = damaged_of(kit, rigid, whole * 0.5, whole * 0.5 + 5, "nick")
        offers = [
            one
            for one in proposals(kit, hurt, kit.services["cooler"])
            if one.verdict != "refused" and one.method not in ("whole", "hose")
        ]
        for offer in offers:
            composed = composed_of(kit, mended(line, kit, rigid, offer, "a nick"))
            end = occ_wire(rigid.shape)[1]
            assert end_frame(composed).point == pytest.approx((end.X(), end.Y(), end.Z()), abs=1e-6)
        checked += bool(offers)
        if checked == 20:
            return
    pytest.fail(f"only {checked} of 200 lines could be mended")


def end_in_space(kit, made):
    """Where the whole line's end B stands, hoses as they lie."""
    tubes = [span for span in made.spans if isinstance(span, RigidSpan)]
    shapes = {span.id: planned_span(kit, made, span) for span in tubes}
    reader = Reader()
    at = place_in_space(made, kit, place_pieces(made, kit, reader.problems), shapes, {}, (), reader)
    return at.spans[-1].ends.point


def composed_of(kit, made):
    return put_together(
        [planned_span(kit, made, span) for span in made.spans],
        [joint.apart.exact_mm for joint in made.joints],
        [joint.roll.exact_deg or 0.0 for joint in made.joints],
    )


def test_a_refused_way_and_a_cut_in_an_arc_are_not_decided_on(kit):
    line = bent(row(100, 90), last=300, service="brake")
    rigid = planned(kit, line)
    offers = proposals(kit, damaged_of(kit, rigid, 200, 220, "rust"), kit.services["brake"])
    with pytest.raises(NotAChain, match="refused"):
        mended(line, kit, rigid, way(offers, "hose"), "hose is quicker")
    arc = bend_spans(rigid.shape)[0].middle_mm
    flared = replace(way(offers, "flared_unions"), verdict="care", cut_a_mm=arc, cut_b_mm=300.0)
    with pytest.raises(ShapeError, match="arc of bend 1"):
        mended(line, kit, rigid, flared, "law looked up")


def test_a_gap_without_any_shape(kit):
    """8 mm tube over 90 mm cut to cut: 90 − 2·2 between sleeve unions, 90 + 2·25 of hose; measured from
    body to body the piece goes 10 into each: 58 + 2·10."""
    tube, cooler = kit.tubes["steel-seamless_8mm_1"], kit.services["cooler"]
    offers = over_gap(kit, 90, 8, 8, cooler, (tube,))
    assert way(offers, "sleeve_unions").piece_mm == 86
    assert way(offers, "hose").piece_mm == 140
    bodies = over_gap(kit, 58, 8, 8, cooler, (tube,), between_bodies=True)
    assert way(bodies, "sleeve_unions").piece_mm == 58 + 2 * 10
    assert {offer.method for offer in offers} == set(OVER_A_GAP)
    other = way(over_gap(kit, 90, 8, 10, cooler, (tube,)), "sleeve_unions")
    assert any("reducing union" in reason.text for reason in other.reasons)
    short = way(over_gap(kit, 3, 8, 8, cooler, (tube,)), "sleeve_unions")
    assert (short.verdict, short.piece_mm) == ("refused", None)


def test_no_proposal_raises_against_itself_what_it_did_not_say(kit):
    """Spliced and let-in lines over all services: what stands against the answer stood with the proposal."""
    made = 0
    for seed in range(LINES):
        line = one_tube(kit, seed)
        rigid = plan_rigid(main_run(line), kit).rigid
        if rigid is None:
            continue
        service, whole = kit.services[line.service], rigid.part.developed_mm
        before = {f.code for f in plan_line(line, kit).findings}
        answers = []
        for offer in proposals(kit, damaged_of(kit, rigid, whole * 0.4, whole * 0.4 + 20, "rust"), service):
            if offer.verdict != "refused" and offer.method != "whole":
                answers.append((mended(line, kit, rigid, offer, "reached from below"), offer.reasons))
        for what in ("filter", "cooler", "shut-off valve"):
            new = LetIn(what=what, length_mm=60.0, at_mm=None, rated="400 bar", rated_kpa=40_000.0, old=True)
            try:
                place = place_of_component(line, kit, rigid, new)
            except ShapeError:
                continue  # no straight has the room
            if place.verdict != "refused":
                answers.append((let_in(line, kit, rigid, new, place), place.reasons))
        for after, reasons in answers:
            made += 1
            told = " ".join(reason.text for reason in reasons)
            for found in plan_line(after, kit).findings:
                named = found.message[:45] in told or any(r.text[:40] in found.message for r in reasons)
                which_way = found.code == "direction_unknown" and "Which way this line flows" in told
                assert found.severity == "note" or found.code in before or named or which_way, (
                    seed,
                    found.code,
                    found.message,
                )
    assert made > LINES
