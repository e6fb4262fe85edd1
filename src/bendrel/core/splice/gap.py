"""The same without any shape: a gap, two diameters and a service."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.repair.splicing import Method
from bendrel.core.service import Service
from bendrel.core.shop.kit import Kit
from bendrel.core.splice.allowed import allowed, worst
from bendrel.core.splice.hoses import hose_for
from bendrel.core.splice.lengths import fits, gap_lengths, least_piece, too_short
from bendrel.core.splice.offer import Offer, Reason
from bendrel.core.splice.proposals import ranked
from bendrel.core.splice.there import no_swing, tools_there
from bendrel.core.tube.material import Tube

OVER_A_GAP: tuple[Method, ...] = ("flared_unions", "bite_unions", "sleeve_unions", "hose")


def over_gap(
    kit: Kit,
    gap_mm: float,
    od_mm: float,
    other_mm: float,
    service: Service,
    tube: Tube | None,
    between_bodies: bool = False,
    free_mm: float | None = None,
) -> tuple[Offer, ...]:
    """Every way over a gap between two cut tubes of `od_mm` and `other_mm`, best first.

    `gap_mm` is measured from cut face to cut face, or with `between_bodies` from one union's body to the
    other's, which is as much shorter as both tubes go into them. `tube` is what the new piece is of, None
    where the catalogue has none of this size, `free_mm` what is free all round the tubes (None while not
    measured)."""
    ways = []
    for method in OVER_A_GAP:
        way = kit.splicing.methods[method]
        size = tube.size if tube is not None else f"{od_mm:g} mm"
        said = allowed(kit, way, service, tube, size)
        gap = gap_mm + 2 * (way.insertion + way.stop) if between_bodies and way.insertion else gap_mm
        offer = gap_lengths(kit, way, said.fitting, gap, max(od_mm, other_mm), tube)
        word, reasons = said.word, list(said.reasons)
        if abs(od_mm - other_mm) > kit.splicing.weigh.same_size_mm:
            if method == "hose":
                text = "The two tubes differ: one bore on both, else a reducing connector between two hoses."
                word = worst(word, "care")
            else:
                text = "The two tubes differ: a reducing union on one side, and a piece of the other's size."
                word = worst(word, "care")
            reasons.append(Reason(text=text, source=way.source))
        if method == "hose" and hose_for(kit, service, max(od_mm, other_mm)) is None and service.hose_class:
            word = worst(word, "care")
            text = f"The catalogue has no hose of the usual class for {max(od_mm, other_mm):g} mm."
            reasons.append(Reason(text=text, source=kit.limits["hose_warm"].source))
        if no_room := no_swing(way, free_mm):
            word = worst(word, "care")
            reasons.append(Reason(text=no_room, source=way.source))
        least = least_piece(kit, way, said.fitting, size)
        if not fits(offer.piece_mm, least):
            word = "refused"
            reasons.append(too_short(least, way.source))
            offer = replace(offer, piece_mm=None)
        tools = tools_there(kit, way, said.fitting, size, None, free_mm)
        ways.append(replace(offer, verdict=word, reasons=tuple(reasons), tools=tools))
    return ranked(ways)
