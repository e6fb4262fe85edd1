"""Use cases on a gap in a line that nobody has drawn: every way over it, from the gap and two diameters."""

from __future__ import annotations

from typing import Annotated, Any

from annotated_types import MaxLen

from bendrel.catalogue.loader import load_kit
from bendrel.core.mend.gap import OVER_A_GAP, over_gap, tubes_of
from bendrel.core.mend.offer import Offer
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Service
from bendrel.core.parts.splicing import Splice
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.services.errors import Refused
from bendrel.services.mend.splicing import measured, service_of, told


def gap_answer(
    gap_mm: float,
    tube_mm: float,
    other_mm: float | None,
    method: str | None,
    service: str | None,
    *,
    between_bodies: bool = False,
    material: str | None = None,
) -> dict[str, Any]:
    """What `bendrel gap` answers. Raises Refused."""
    kit = load_kit()
    known = service_of(kit, service or "unspecified")
    if method is not None and method not in OVER_A_GAP:
        raise Refused(f"There is no method “{method[:30]}” over a gap; {', '.join(OVER_A_GAP)} are known.")
    tubes = _tubes(kit, tube_mm, known, material or "")
    other = tube_mm if other_mm is None else other_mm
    found = over_gap(kit, gap_mm, tube_mm, other, known, tubes, between_bodies=between_bodies)
    asked = [offer for offer in found if method in (None, offer.method)]
    return {
        "developed_mm": None,
        "damage": None,
        "gap_mm": gap_mm,
        "tube_mm": tube_mm,
        "tube_b_mm": other,
        "proposals": [told(offer) | {"assumes": offer.assumes} for offer in asked],
    }


@record
class GapOrder:
    """A gap in a line that nobody has drawn: as typed, `gap` between cut faces or with `bodies` between the
    bodies of the two unions; `tube_b` blank is the same tube on both sides, `material` blank where nobody has
    said what the tube is of."""

    gap: Annotated[str, MaxLen(40)]
    tube_a: Annotated[str, MaxLen(40)]
    tube_b: Annotated[str, MaxLen(40)] = ""
    bodies: bool = False
    material: Annotated[str, MaxLen(40)] = ""
    service: Annotated[str, MaxLen(40)] = "unspecified"
    room: Annotated[str, MaxLen(40)] = ""
    unit: Unit = "mm"


@record
class GapWays:
    """Every way over a gap, the best first; `materials` are those that a tube of this size may be of."""

    offers: tuple[Offer, ...]
    methods: tuple[Splice, ...]
    materials: tuple[str, ...]


def ways_over_gap(order: GapOrder, kit: Kit) -> GapWays:
    """The same without any shape. Raises Refused."""
    service = service_of(kit, order.service)
    gap = measured("Gap", order.gap, order.unit)
    one = measured("Tube, A side", order.tube_a, order.unit)
    if gap is None or one is None:
        raise Refused("Type the gap and the outside diameter of the tube.")
    other = measured("Tube, B side", order.tube_b, order.unit)
    free = measured("Room round the tube", order.room, order.unit)
    tubes = _tubes(kit, one, service, order.material)
    offers = over_gap(
        kit,
        gap,
        one,
        one if other is None else other,
        service,
        tubes,
        between_bodies=order.bodies,
        free_mm=free,
        unit=order.unit,
    )
    methods = tuple(kit.splicing.methods[offer.method] for offer in offers)
    of_it = tuple(tube.material for tube in tubes_of(kit, one, service))
    return GapWays(offers=offers, methods=methods, materials=of_it)


def _tubes(kit: Kit, od_mm: float, service: Service, material: str) -> tuple[Tube, ...]:
    """What the tube may be. Raises Refused for a material that is none, or has no tube of this size."""
    if material and material not in kit.materials:
        known = ", ".join(kit.materials)
        raise Refused(f"There is no material “{material[:30]}”; {known} are known.")
    found = tubes_of(kit, od_mm, service, material)
    if material and not found:
        sizes = dict.fromkeys(t.size for t in kit.tubes.values() if t.material == material)
        name = kit.materials[material].name
        raise Refused(f"The catalogue has no {name} tube of {od_mm:g} mm; it has {', '.join(sizes)}.")
    return found
