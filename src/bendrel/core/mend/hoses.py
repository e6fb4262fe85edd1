"""Which hose goes over a cut-out with clamps."""

from __future__ import annotations

from bendrel.core.parts.fits import best_bore
from bendrel.core.parts.hose import Hose
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import verdict_order
from bendrel.core.parts.service import Service
from bendrel.core.parts.verdict import VERDICT_ORDER


def clamped_class(kit: Kit, service: Service) -> str:
    """The class of hose that is clamped on a line of `service`, by id: its usual one where that takes clamps,
    else the best other one that does, is made for the fluid and stands the heat; blank where none is."""
    usual = kit.hose_classes.get(service.hose_class)
    if usual is None or usual.clamps or service.duty is None:
        return service.hose_class
    family = kit.fluids[service.duty.fluid].family
    found = [
        (verdict_order(kit, "hose", kind.id, service.id), kind.id)
        for kind in kit.hose_classes.values()
        if kit.verdict("hose", kind.id, service.id) is not None
        and verdict_order(kit, "hose", kind.id, service.id) < VERDICT_ORDER["refused"]
        and kind.clamps
        and family in kind.families
        and kind.highest_c >= service.duty.hot_c
    ]
    return min(found)[1] if found else ""


def hose_for(kit: Kit, service: Service, od_mm: float) -> Hose | None:
    """The hose of that class in the bore that goes on a tube of `od_mm` most easily; None where none is
    neither loose nor too tight on it."""
    named = clamped_class(kit, service)
    return best_bore(kit, named, (od_mm,)) if named else None
