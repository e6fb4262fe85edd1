"""Gaps and splices know the tube: what a material takes, stands and is allowed.

What must be refused and what must not is written down here by hand, by kind (common practice of the trade;
figures of the joints' own tables). Cuts are held against the arcs of the shape.
"""

from __future__ import annotations

from random import Random

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.tube.planned import plan_rigid
from bendrel.core.geometry.bends import bend_spans
from bendrel.core.line.run import main_run
from bendrel.core.mend.gap import over_gap, tubes_of
from bendrel.core.mend.offer import Offer
from bendrel.core.mend.proposals import Damaged, proposals
from bendrel.services.errors import Refused
from bendrel.services.mend.gaps import GapOrder, gap_answer, ways_over_gap
from tests.lines import bent, row

KIT = load_kit()
BRAKES = ("brake", "clutch")
OIL = ("oil-cooler", "oil-feed")


def ways(service: str, material: str, od_mm: float, **more: object) -> dict[str, Offer]:
    known = KIT.services[service]
    found = over_gap(KIT, 150, od_mm, od_mm, known, tubes_of(KIT, od_mm, known, material), **more)  # type: ignore[arg-type]
    return {offer.method: offer for offer in found}


def words(service: str, material: str, od_mm: float) -> dict[str, str]:
    return {method: offer.verdict for method, offer in ways(service, material, od_mm).items()}


@pytest.mark.parametrize(("service", "material", "od_mm"), [
    *((service, material, 6.0) for service in BRAKES for material in ("aluminium-3003", "copper")),
    ("air-brake", "aluminium-3003", 10.0), ("hydraulic", "copper-nickel", 9.525),
    ("hydraulic", "steel-plated", 8.0), ("oil-feed", "nylon", 6.0), ("oil-cooler", "nylon", 12.0),
])  # fmt: skip
def test_no_joint_makes_up_for_a_tube_that_is_wrong(service: str, material: str, od_mm: float) -> None:
    """Refused in every way, and the reason names the tube."""
    found = ways(service, material, od_mm)
    assert len(found) == 4
    for offer in found.values():
        assert offer.verdict == "refused"
    assert any("tube itself" in r.text or "luminium" in r.text or "opper" in r.text or "ylon" in r.text
               for r in found["flared_unions"].reasons)  # fmt: skip


@pytest.mark.parametrize(("service", "material", "od_mm", "method"), [
    ("hydraulic", "steel-seamless", 12.0, "bite_unions"), ("brake", "copper-nickel", 4.7625, "flared_unions"),
    ("brake", "steel-double-wall", 4.7625, "flared_unions"),
    ("fuel-low", "copper-nickel", 8.0, "sleeve_unions"),
    ("cooler", "steel-plated", 9.525, "hose"), ("coolant", "copper", 15.0, "hose"),
    ("oil-feed", "steel-seamless", 6.0, "flared_unions"),
])  # fmt: skip
def test_the_right_way_is_offered(service: str, material: str, od_mm: float, method: str) -> None:
    """With the material said, and not said: an assumption refuses nothing that is right."""
    assert words(service, material, od_mm)[method] != "refused"
    said = ways(service, "", od_mm)[method]
    assert said.verdict != "refused"
    assert said.assumes
    assert "say what the tube is of" in said.reasons[0].text


def test_nylon_takes_an_insert_and_no_bead() -> None:
    """A brass sleeve holds over an insert; the hose goes over a barb."""
    found = ways("fuel-low", "nylon", 8.0)
    assert any("insert inside the tube" in r.text for r in found["sleeve_unions"].reasons)
    assert found["hose"].fitting == "barb"
    assert found["flared_unions"].verdict == found["bite_unions"].verdict == "refused"


def test_hose_is_clamped_by_what_clamps_hold_and_where_hose_takes_them() -> None:
    """260 N on a bead: 5.1 bar on 1 in against 7; 12.7 mm holds 20 bar, no more than 10. PTFE takes none."""
    assert words("oil-cooler", "steel-seamless", 25.4)["hose"] == "refused"
    half = ways("oil-cooler", "steel-seamless", 12.7)["hose"]
    assert half.verdict == "care"
    assert any("takes no clamps" in r.text for r in half.reasons)
    assert words("oil-feed", "steel-seamless", 6.0)["hose"] == "refused"


def test_a_brass_sleeve_on_hard_tube_says_that_it_can_slide_off() -> None:
    """The pair's own caution is not left out."""
    found = ways("cooler", "stainless-304", 9.525)["sleeve_unions"]
    assert found.verdict in ("care", "refused")
    assert any("slide off" in r.text for r in found.reasons)


@pytest.mark.parametrize(("od_mm", "method", "material", "piece"), [
    # 100 between bodies and the insertion to the stop of that size at each end
    (4.7625, "sleeve_unions", "copper-nickel", 116), (12.0, "bite_unions", "steel-seamless", 114),
    (8.0, "sleeve_unions", "copper-nickel", 120), (9.525, "sleeve_unions", "copper-nickel", 122),
])  # fmt: skip
def test_between_bodies_by_the_insertion_of_the_size(
    od_mm: float, method: str, material: str, piece: float
) -> None:
    """One table of insertions, by size and joint."""
    known = KIT.services["unspecified"]
    tubes = tubes_of(KIT, od_mm, known, material)
    found = {o.method: o for o in over_gap(KIT, 100, od_mm, od_mm, known, tubes, between_bodies=True)}
    assert found[method].piece_mm == pytest.approx(piece)
    assert found[method].spring_apart_mm == pytest.approx((piece - 100) / 2)


def test_the_command_says_what_it_assumes() -> None:
    """12 mm on hydraulics: 24° unions, told for seamless steel; a material that is said is used."""
    told = {p["method"]: p for p in gap_answer(150, 12, None, None, "hydraulic")["proposals"]}
    assert told["bite_unions"]["verdict"] == "right"
    assert told["bite_unions"]["assumes"] == "seamless steel"
    said = gap_answer(150, 12, None, None, "hydraulic", material="copper-nickel")["proposals"]
    assert {p["verdict"] for p in said} == {"refused"}
    assert {p["assumes"] for p in said} == {""}
    with pytest.raises(Refused, match="no material “tin”"):
        gap_answer(150, 12, None, None, "hydraulic", material="tin")
    with pytest.raises(Refused, match="no nylon 12 tube of 42 mm; it has 1/8 in"):
        ways_over_gap(GapOrder(gap="150", tube_a="42", material="nylon"), KIT)


@pytest.mark.parametrize("block", range(4))
def test_a_hose_is_never_cut_at_a_tangent_point(block: int) -> None:
    """Random lines with a damage beside a bend: on the side that stays lies the hose's whole overlap, on the
    side that goes there is room for the cutter's rollers."""
    rng, met = Random(block), 0
    for _ in range(60):
        rows = [
            row(
                rng.choice((140, 250, 400)),
                rng.choice((30, 60, 90)),
                rng.choice(("12:00", "3:00")),
                radius=30,
            )
            for _ in range(rng.randint(1, 5))
        ]
        tube = rng.choice(("copper-nickel_3-8in_0.889", "steel-plated_3-8in_0.711", "copper-nickel_8mm_1"))
        line = bent(*rows, last=300, service="cooler", tube=tube, bender="given_any")
        rigid = plan_rigid(main_run(line), KIT).rigid
        assert rigid is not None
        spans, whole = bend_spans(rigid.shape), rigid.shape.developed_mm
        beside = rng.choice(spans)
        at = max(30.0, (beside.start_mm if rng.random() < 0.5 else beside.end_mm) + rng.uniform(-30, 30))
        damage = Damaged(shape=rigid.shape, tube=rigid.tube, from_mm=at, to_mm=min(at + 20, whole))
        offer = next(o for o in proposals(KIT, damage, KIT.services["cooler"]) if o.method == "hose")
        if offer.cut_a_mm is None or offer.cut_b_mm is None:
            continue
        met += 1
        lap = max(25.0, 3 * rigid.tube.od_mm)
        edges = [edge for span in spans for edge in (span.start_mm, span.end_mm)]
        before = max([0.0, *(edge for edge in edges if edge <= offer.cut_a_mm + 1e-6)])
        behind = min([whole, *(edge for edge in edges if edge >= offer.cut_b_mm - 1e-6)])
        assert offer.cut_a_mm - before >= lap - 1e-6
        assert behind - offer.cut_b_mm >= lap - 1e-6
        for cut in (offer.cut_a_mm, offer.cut_b_mm):
            assert min(abs(cut - edge) for edge in edges) >= 10 - 1e-6
    assert met > 10
