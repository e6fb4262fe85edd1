"""Which hose goes over a cut-out."""

from __future__ import annotations

from bendrel.core.hose.hose import Hose
from bendrel.core.service import Service
from bendrel.core.shop.kit import Kit


def hose_for(kit: Kit, service: Service, od_mm: float) -> Hose | None:
    """The service's usual hose in the bore that goes on a tube of `od_mm` most easily; None where none is
    neither loose nor too tight on it."""
    loose, tight = kit.limits["hose_loose"].value, kit.limits["hose_warm"].value

    def share(hose: Hose) -> float:
        return (od_mm - hose.id_mm) / hose.id_mm

    fits = [
        hose
        for hose in kit.hoses.values()
        if hose.hose_class == service.hose_class and loose <= share(hose) <= tight
    ]
    return min(fits, key=lambda hose: abs(share(hose)), default=None)
