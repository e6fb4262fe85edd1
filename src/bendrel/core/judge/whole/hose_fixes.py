"""What a hose can be changed to: another bore, another clamp, a bead under it."""

from __future__ import annotations

from bendrel.core.findings import Fix, Reduce
from bendrel.core.joints.pieces import HoseEndFit, PlacedHose, clamp_offers
from bendrel.core.judge.case import Whole, choose
from bendrel.core.line.paths import span_path
from bendrel.core.parts.fits import best_bore
from bendrel.core.parts.hose import Hose

Values = list[tuple[str, str | float | bool | None]]


def hose_at(hose: PlacedHose, *steps: str) -> str:
    """Pointer to something of the hose."""
    return span_path(hose.piece.id, *steps)


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
    if case.kit.end_size("bead", case.tube.size) is None or not case.material.beads:
        return None
    if verdict is not None and verdict.verdict == "refused":
        return None
    at = case.run.end(end)
    return choose("Change it to a beaded end", (at.tube_at("fitting"), "bead"), (at.tube_at("nut"), None))


def fitting_bore(case: Whole, hose: PlacedHose) -> Fix | None:
    """The bore of the same class that goes on everything this hose goes on, with a clamp that holds it; where
    there is none, a reducer with a hose on either side."""
    sizes = [side.on_mm for side in hose.ends]
    best = best_bore(case.kit, hose.hose.hose_class, sizes)
    if best is not None:
        return choose(f"Use {best.size}", (hose_at(hose, "hose"), best.id), *clamp_for_hose(case, hose, best))
    a, b = hose.side("A"), hose.side("B")
    if a is None or b is None:
        return None
    if any(best_bore(case.kit, hose.hose.hose_class, (side.on_mm,)) is None for side in (a, b)):
        return None
    return reducer(case, hose.piece.id, a.on_mm, b.on_mm)


def reducer(case: Whole, span: str, a_mm: float, b_mm: float) -> Fix:
    """A reducer between two sizes that nothing joins."""
    made = Reduce(span=span, a_mm=a_mm, b_mm=b_mm)
    label = f"Put a reducer in, {case.say_small(a_mm)} to {case.say_small(b_mm)}"
    return Fix(label=label, changes=(), choice=True, reduce=made)
