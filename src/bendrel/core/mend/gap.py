"""The same without any shape: a gap, two diameters and a service."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from bendrel.core.findings import Source
from bendrel.core.mend.allowed import allowed, worst
from bendrel.core.mend.hoses import hose_for
from bendrel.core.mend.lengths import fits, gap_lengths, insertion, least_piece, too_short
from bendrel.core.mend.offer import WORD_ORDER, Offer, Reason
from bendrel.core.mend.proposals import ranked
from bendrel.core.mend.there import no_swing, tools_there
from bendrel.core.parts.fits import stands
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import verdict_order
from bendrel.core.parts.service import Service
from bendrel.core.parts.splicing import Method
from bendrel.core.parts.tube import Tube
from bendrel.core.parts.verdict import preferred
from bendrel.core.record import record
from bendrel.core.units.notation import Unit

BY_MATERIAL = Source(kind="common practice", text="joints and ends by what the tube is of")
OVER_A_GAP: tuple[Method, ...] = ("flared_unions", "bite_unions", "sleeve_unions", "hose")


def over_gap(
    kit: Kit,
    gap_mm: float,
    od_mm: float,
    other_mm: float,
    service: Service,
    tubes: Sequence[Tube],
    *,
    between_bodies: bool = False,
    free_mm: float | None = None,
    unit: Unit = "mm",
) -> tuple[Offer, ...]:
    """Every way over a gap between two cut tubes of `od_mm` and `other_mm`, best first.

    `gap_mm` is measured from cut face to cut face, or with `between_bodies` from one union's body to the
    other's, which is as much shorter as both tubes go into them. `tubes` are what the tube may be: one where
    its material is said, else one of each material, and every way is told for the one that suits it best;
    none where the catalogue has none of this size. `free_mm` is what is free all round the tubes (None while
    not measured); reasons are said in `unit`."""
    gap = _Gap(
        kit=kit,
        gap_mm=gap_mm,
        od_mm=od_mm,
        other_mm=other_mm,
        service=service,
        between_bodies=between_bodies,
        free_mm=free_mm,
        unit=unit,
    )
    return ranked([_best(kit, gap, method, tubes) for method in OVER_A_GAP])


def tubes_of(kit: Kit, od_mm: float, service: Service, material: str = "") -> tuple[Tube, ...]:
    """What a tube of this outside diameter may be, one of each material (or of the one that is said): the
    thinnest wall that holds what the service works at, else the thickest. The materials that are usual in the
    service come first."""
    same = kit.splicing.weigh.same_size_mm
    near = [tube for tube in kit.tubes.values() if abs(tube.od_mm - od_mm) <= same]
    found = []
    for name in dict.fromkeys(tube.material for tube in near):
        if material in ("", name):
            walls = sorted((t for t in near if t.material == name), key=lambda t: t.wall_mm)
            found.append(next((t for t in walls if stands(kit, service.duty, t)), walls[-1]))

    def rank(tube: Tube) -> tuple[int, bool]:
        verdict = kit.verdict("tube", tube.material, service.id)
        mine = verdict is not None and preferred(verdict, kit.preferences)
        return verdict_order(kit, "tube", tube.material, service.id), not mine

    return tuple(sorted(found, key=rank))


def _best(kit: Kit, gap: _Gap, method: Method, tubes: Sequence[Tube]) -> Offer:
    """One way, told for the material that suits it best, and what that leaves to be said."""
    if len(tubes) < 2:
        return gap.offer(method, tubes[0] if tubes else None)
    told = [(tube, gap.offer(method, tube)) for tube in tubes]
    tube, offer = min(told, key=lambda pair: WORD_ORDER[pair[1].verdict])
    name = kit.materials[tube.material].name
    not_in = [kit.materials[t.material].name for t, one in told if one.verdict == "refused"]
    text = f"This is told for {name}: say what the tube is of."
    if offer.verdict == "refused":
        text = "It is refused in every material of this size."
    elif not_in:
        text += f" It is refused in {'; '.join(not_in)}."
    reason = Reason(text=text, source=BY_MATERIAL)
    return replace(offer, assumes=name, reasons=(reason, *offer.reasons))


@record
class _Gap:
    """A gap, and what is known around it."""

    kit: Kit
    gap_mm: float
    od_mm: float
    other_mm: float
    service: Service
    between_bodies: bool
    free_mm: float | None
    unit: Unit

    def offer(self, method: Method, tube: Tube | None) -> Offer:
        """One way in one tube."""
        kit, way = self.kit, self.kit.splicing.methods[method]
        size = tube.size if tube is not None else f"{self.od_mm:g} mm"
        larger = max(self.od_mm, self.other_mm)
        said = allowed(kit, way, self.service, tube, size, self.od_mm)
        word, reasons = said.word, list(said.reasons)
        into = insertion(kit, said.fitting, size)
        gap = self.gap_mm
        if self.between_bodies:
            gap += 2 * ((into or 0.0) + way.stop)
        offer = gap_lengths(kit, way, self.service, said.fitting, gap, larger, tube, unit=self.unit)
        if self.between_bodies and into is None:
            word = worst(word, "refused")
            text = "How far this tube goes into the union is not known: read the gap between the cut faces."
            reasons.append(Reason(text=text, source=way.source))
            offer = replace(offer, piece_mm=None)
        if abs(self.od_mm - self.other_mm) > kit.splicing.weigh.same_size_mm:
            if method == "hose":
                text = "The two tubes differ: one bore on both, else a reducing connector between two hoses."
            else:
                text = "The two tubes differ: a reducing union on one side, and a piece of the other's size."
            word = worst(word, "care")
            reasons.append(Reason(text=text, source=way.source))
        if method == "hose" and word != "refused" and hose_for(kit, self.service, larger) is None:
            word = worst(word, "care")
            text = f"The catalogue has no hose of the usual class for {larger:g} mm."
            reasons.append(Reason(text=text, source=kit.limits["hose_warm"].source))
        if no_room := no_swing(way, self.free_mm, self.unit):
            word = worst(word, "care")
            reasons.append(Reason(text=no_room, source=way.source))
        least = least_piece(kit, way, said.fitting, size)
        if offer.piece_mm is not None and not fits(offer.piece_mm, least):
            word = "refused"
            reasons.append(too_short(least, way.source, self.unit))
            offer = replace(offer, piece_mm=None)
        tools = tools_there(kit, way, said.fitting, size, None, self.free_mm, self.unit)
        return replace(offer, verdict=word, reasons=tuple(reasons), tools=tools)
