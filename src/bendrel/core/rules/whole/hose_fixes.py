"""What a hose can be changed to: another bore, another clamp, a bead under it."""

from __future__ import annotations

from bendrel.core.chain.pieces import HoseEndFit, PlacedHose, clamp_offers
from bendrel.core.findings import Fix
from bendrel.core.hose.hose import Hose
from bendrel.core.line.paths import span_path
from bendrel.core.rules.case import Whole, choose

Values = list[tuple[str, str | float | bool | None]]


def hose_at(hose: PlacedHose, *steps: str) -> str:
    """Pointer to something of the hose."""
    return span_path(hose.piece.id, *steps)


def goes_on_side(case: Whole, hose: Hose, side: HoseEndFit) -> bool:
    """The bore is neither loose nor too tight on what it goes on."""
    limits = case.kit.limits
    share = (side.on_mm - hose.id_mm) / hose.id_mm
    return limits["hose_loose"].value <= share <= limits["hose_warm"].value


def clamp_for_hose(case: Whole, placed: PlacedHose, hose: Hose) -> Values:
    """The clamp that goes with another hose: the present one where it holds, else the best that does."""
    kind = case.kit.hose_classes[hose.hose_class]
    offers = clamp_offers(
        case.kit, case.service.id, hose, kind.clamps, tuple(side.on_mm for side in placed.ends)
    )
    if placed.clamp is None or placed.clamp.id in offers:
        return []
    return [(hose_at(placed, "clamp"), offers[0] if offers else None)]


def beaded_end(whole: Whole, hose: PlacedHose, side: HoseEndFit) -> Fix | None:
    """The end of the tube that this side is on beaded, where that can be and is allowed."""
    verdict = whole.kit.verdict("end", "bead", whole.service.id)
    beside = whole.beside(hose.piece.id, side.faces)
    if beside is None:
        return None
    case, end = beside
    if case.kit.end_size("bead", case.tube.size) is None or case.plastic:
        return None
    if verdict is not None and verdict.verdict == "refused":
        return None
    at = case.run.end(end)
    return choose("Change it to a beaded end", (at.tube_at("fitting"), "bead"), (at.tube_at("nut"), None))


def fitting_bore(case: Whole, hose: PlacedHose) -> Fix | None:
    """The bore of the same class that goes on everything this hose goes on, with a clamp that holds it."""
    fits = [
        other
        for other in case.kit.hoses.values()
        if other.hose_class == hose.hose.hose_class
        and all(goes_on_side(case, other, side) for side in hose.ends)
    ]
    if not fits:
        return None
    on = hose.ends[0].on_mm
    best = min(fits, key=lambda other: abs(on - other.id_mm))
    return choose(f"Use {best.size}", (hose_at(hose, "hose"), best.id), *clamp_for_hose(case, hose, best))
