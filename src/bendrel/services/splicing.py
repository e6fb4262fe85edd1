"""Use cases on mending: every way for a damaged line, and over a gap without any shape."""

from __future__ import annotations

from typing import Any

from bendrel.catalogue.loader import load_kit
from bendrel.core.chain.clipping import HOLDING
from bendrel.core.line.looked import PlacedFixture, look_at
from bendrel.core.line.run import Run
from bendrel.core.repair.condition import DamageKind
from bendrel.core.rigid.planned import Rigid, plan_rigid
from bendrel.core.service import Service
from bendrel.core.shop.kit import Kit
from bendrel.core.splice.gap import OVER_A_GAP, over_gap
from bendrel.core.splice.offer import Offer
from bendrel.core.splice.proposals import Damaged, proposals
from bendrel.exchange.errors import FileError
from bendrel.services.errors import Refused
from bendrel.services.offline import line_of_file
from bendrel.services.tubes import tube_of


def damaged_of(
    rigid: Rigid, from_mm: float, to_mm: float, kind: DamageKind, fixtures: tuple[PlacedFixture, ...] = ()
) -> Damaged:
    """A planned tube as the core takes a damaged one."""
    a, b = rigid.ends
    condition = rigid.run.line.condition

    def taken(end: Any) -> float:
        nut = end.nut.length_mm if end.nut else 0.0
        return float(nut + (end.size.length_mm if end.size else 0.0))

    return Damaged(
        shape=rigid.shape,
        tube=rigid.tube,
        from_mm=from_mm,
        to_mm=to_mm,
        kind=kind,
        clips_mm=tuple(item.at_mm for item in fixtures if item.kind in HOLDING and item.state == "there"),
        end_a_mm=taken(a),
        end_b_mm=taken(b),
        ends=(condition.end_a, condition.end_b),
    )


def service_of(kit: Kit, service: str) -> Service:
    """A service by its id. Raises Refused."""
    known = kit.services.get(service)
    if known is None:
        ids = ", ".join(sorted(kit.services))
        raise Refused(f"There is no service “{service[:30]}”; {ids} are known.")
    return known


def splice_file(
    data: bytes, *, from_mm: float, to_mm: float, service: str | None, radius_mm: float | None = None
) -> dict[str, Any]:
    """What `bendrel splice` answers. Raises FileError, Refused."""
    kit = load_kit()
    line = line_of_file(data, radius_mm)
    known = service_of(kit, service or line.service)
    rigid = _planned(tube_of(line), kit)
    whole = rigid.shape.developed_mm
    if to_mm < from_mm:
        raise Refused(
            f"--from {from_mm:g} lies beyond --to {to_mm:g}; give the damage from its end nearer to A."
        )
    if from_mm < 0 or to_mm > whole:
        raise Refused(
            f"The damage from {from_mm:g} to {to_mm:g} mm is outside the tube, which is {whole:.1f} mm long."
        )
    looked = look_at(line, kit, whole)
    found = proposals(kit, damaged_of(rigid, from_mm, to_mm, "rust", looked.fixtures), known)
    return {
        "developed_mm": whole,
        "damage": [from_mm, to_mm],
        "proposals": [told(offer) for offer in found],
    }


def gap_answer(
    gap_mm: float, tube_mm: float, other_mm: float | None, method: str | None, service: str | None
) -> dict[str, Any]:
    """What `bendrel gap` answers. Raises Refused."""
    kit = load_kit()
    known = service_of(kit, service or "unspecified")
    if method is not None and method not in OVER_A_GAP:
        raise Refused(f"There is no method “{method[:30]}” over a gap; {', '.join(OVER_A_GAP)} are known.")
    near = [tube for tube in kit.tubes.values() if abs(tube.od_mm - tube_mm) <= SAME_SIZE_MM]
    tube = next((tube for tube in near if tube.material == USUAL_MATERIAL), near[0] if near else None)
    other = tube_mm if other_mm is None else other_mm
    found = over_gap(kit, gap_mm, tube_mm, other, known, tube)
    return {
        "developed_mm": None,
        "damage": None,
        "gap_mm": gap_mm,
        "tube_mm": tube_mm,
        "tube_b_mm": other,
        "proposals": [told(offer) for offer in found if method in (None, offer.method)],
    }


SAME_SIZE_MM = 0.1
USUAL_MATERIAL = "copper-nickel"


def told(offer: Offer) -> dict[str, Any]:
    """One way as the command line tells it."""
    return {
        "method": offer.method,
        "verdict": offer.verdict,
        "cut_a_mm": offer.cut_a_mm,
        "cut_b_mm": offer.cut_b_mm,
        "gap_mm": offer.gap_mm,
        "piece_mm": offer.piece_mm,
        "piece_bends": list(offer.piece_bends),
        "overlap_mm": offer.overlap_mm,
        "stop_mm": offer.stop_mm,
        "spring_apart_mm": offer.spring_apart_mm,
        "reasons": [reason.text for reason in offer.reasons],
    }


def _planned(run: Run, kit: Kit) -> Rigid:
    planned = plan_rigid(run, kit)
    if planned.rigid is None:
        raise FileError(f"{planned.problems[0].path}: {planned.problems[0].message}")
    return planned.rigid
