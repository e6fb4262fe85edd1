"""Which hose goes over a cut-out."""

from __future__ import annotations

from bendrel.core.hose.hose import Hose
from bendrel.core.service import Service
from bendrel.core.shop.fits import best_bore
from bendrel.core.shop.kit import Kit


def hose_for(kit: Kit, service: Service, od_mm: float) -> Hose | None:
    """The service's usual hose in the bore that goes on a tube of `od_mm` most easily; None where none is
    neither loose nor too tight on it."""
    return best_bore(kit, service.hose_class, (od_mm,)) if service.hose_class else None
