"""Use cases on a gap in a line that nobody has drawn: every way over it, from the gap and two diameters."""

from __future__ import annotations

from typing import Annotated, Any

from annotated_types import MaxLen

from bendrel.catalogue.loader import load_kit
from bendrel.core.record import record
from bendrel.core.repair.splicing import Splice
from bendrel.core.shop.kit import Kit
from bendrel.core.splice.gap import OVER_A_GAP, over_gap
from bendrel.core.splice.offer import Offer
from bendrel.core.tube.material import Tube
from bendrel.core.units import Unit
from bendrel.services.errors import Refused
from bendrel.services.offline import FILE_TUBE
from bendrel.services.splicing import measured, service_of, told


def gap_answer(
    gap_mm: float,
    tube_mm: float,
    other_mm: float | None,
    method: str | None,
    service: str | None,
    *,
    between_bodies: bool = False,
) -> dict[str, Any]:
    """What `bendrel gap` answers. Raises Refused."""
    kit = load_kit()
    known = service_of(kit, service or "unspecified")
    if method is not None and method not in OVER_A_GAP:
        raise Refused(f"There is no method “{method[:30]}” over a gap; {', '.join(OVER_A_GAP)} are known.")
    tube = _tube_of(kit, tube_mm)
    other = tube_mm if other_mm is None else other_mm
    found = over_gap(kit, gap_mm, tube_mm, other, known, tube, between_bodies)
    return {
        "developed_mm": None,
        "damage": None,
        "gap_mm": gap_mm,
        "tube_mm": tube_mm,
        "tube_b_mm": other,
        "proposals": [told(offer) for offer in found if method in (None, offer.method)],
    }


@record
class GapOrder:
    """A gap in a line that nobody has drawn: as typed, `gap` between cut faces or with `bodies` between the
    bodies of the two unions; `tube_b` blank is the same tube on both sides."""

    gap: Annotated[str, MaxLen(40)]
    tube_a: Annotated[str, MaxLen(40)]
    tube_b: Annotated[str, MaxLen(40)] = ""
    bodies: bool = False
    service: Annotated[str, MaxLen(40)] = "unspecified"
    room: Annotated[str, MaxLen(40)] = ""
    unit: Unit = "mm"


@record
class GapWays:
    """Every way over a gap, the best first; `tube` is the catalogue's tube of that size, blank without."""

    offers: tuple[Offer, ...]
    methods: tuple[Splice, ...]
    tube: str


def ways_over_gap(order: GapOrder, kit: Kit) -> GapWays:
    """The same without any shape. Raises Refused."""
    service = service_of(kit, order.service)
    gap = measured("Gap", order.gap, order.unit)
    one = measured("Tube, A side", order.tube_a, order.unit)
    if gap is None or one is None:
        raise Refused("Type the gap and the outside diameter of the tube.")
    other = measured("Tube, B side", order.tube_b, order.unit)
    free = measured("Room round the tube", order.room, order.unit)
    tube = _tube_of(kit, one)
    offers = over_gap(kit, gap, one, one if other is None else other, service, tube, order.bodies, free)
    methods = tuple(kit.splicing.methods[offer.method] for offer in offers)
    return GapWays(offers=offers, methods=methods, tube=tube.id if tube else "")


def _tube_of(kit: Kit, od_mm: float) -> Tube | None:
    """A tube of this outside diameter, of the material that files are read as where it is there."""
    same = kit.splicing.weigh.same_size_mm
    near = [tube for tube in kit.tubes.values() if abs(tube.od_mm - od_mm) <= same]
    usual = kit.tubes[FILE_TUBE].material
    return next((tube for tube in near if tube.material == usual), near[0] if near else None)
