"""Which hose goes over a cut-out with clamps."""

from __future__ import annotations

from bendrel.core.ids import NotAChain
from bendrel.core.joints.pieces import best_clamp
from bendrel.core.line.document import HoseSpan, Line
from bendrel.core.line.rewrite import computed_length
from bendrel.core.mend.offer import Reason
from bendrel.core.parts.fits import best_bore
from bendrel.core.parts.hose import Hose
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import clamped_classes
from bendrel.core.parts.service import Service
from bendrel.core.units.lengths import Length


def clamped_class(kit: Kit, service: Service) -> str:
    """The class of hose that is clamped on a line of `service`, by id: its usual one where that takes clamps,
    else the best other one that does, is made for the fluid and stands the heat; blank where none is."""
    usual = kit.hose_classes.get(service.hose_class)
    if usual is None or usual.clamps or service.duty is None:
        return service.hose_class
    return next(iter(clamped_classes(kit, service)), "")


def no_hose(kit: Kit, od_mm: float) -> Reason:
    """Why nothing is clamped on a tube of `od_mm`."""
    text = f"No hose of the usual class goes on {od_mm:g} mm: all are loose or too tight."
    return Reason(text=text, source=kit.limits["hose_warm"].source)


def clamped_hose(line: Line, kit: Kit, name: str, od_mm: float, length_mm: float | None) -> HoseSpan:
    """The hose that is clamped on a tube of a line, without a length while that is not known. Raises
    NotAChain where none goes on it."""
    hose = hose_for(kit, kit.services[line.service], od_mm)
    if hose is None:
        raise NotAChain("The catalogue has no hose of the usual class that goes on this tube.")
    return HoseSpan(
        id=name,
        hose=hose.id,
        length=Length() if length_mm is None else computed_length(length_mm, line.unit),
        clamp=best_clamp(kit, line.service, hose, od_mm),
    )


def hose_for(kit: Kit, service: Service, od_mm: float) -> Hose | None:
    """The hose of that class in the bore that goes on a tube of `od_mm` most easily; None where none is
    neither loose nor too tight on it."""
    named = clamped_class(kit, service)
    return best_bore(kit, named, (od_mm,)) if named else None
