"""Flow through the line as chosen, against the old size, cold and hot; what it holds."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.chain.carried import Carried
from bendrel.core.chain.pieces import Pieces, PlacedPart
from bendrel.core.ends.fitting import Fitting
from bendrel.core.findings import EndName
from bendrel.core.fluids.flow import (
    Flow,
    Loss,
    Restrictor,
    Stretch,
    Way,
    flow_through,
    restrictor_flow_lpm,
    solved_flow_lpm,
    velocity_mps,
    volume_ml,
)
from bendrel.core.line.document import PartInLine
from bendrel.core.record import record
from bendrel.core.shape.bends import BendList
from bendrel.core.shop.kit import Kit
from bendrel.core.tube.material import Tube

SHORT_PARTS: tuple[PartInLine, ...] = ("adapter", "shut-off valve")
"""Parts that only step the bore; what filters, coolers and check valves lose, their makers know."""


@record
class RestrictorFlow:
    """What passes a restrictor at the working pressure, cold and hot, in L/min, and the share of the loss
    that its land takes."""

    end: EndName
    index: int
    bore_mm: float
    cold_lpm: float
    hot_lpm: float
    cold_viscous: float
    hot_viscous: float


@record
class Flowing:
    """The flow asked for, through the new line and through the old bore, and the volume of the line.

    `cold` and `hot` are None where no flow is asked of this service, or where something `unknown` lies on
    the way. `arrives_cold_lpm` and `arrives_hot_lpm` are what the pressure that may be lost drives
    through it, None where that is not asked. `not_counted` are parts whose loss only their maker knows.
    """

    flow_lpm: float
    velocity_mps: float
    volume_ml: float
    cold: Flow | None
    hot: Flow | None
    old_cold: Flow | None
    old_hot: Flow | None
    arrives_cold_lpm: float | None
    arrives_hot_lpm: float | None
    narrowest_mm: float
    unknown: tuple[str, ...]
    not_counted: tuple[str, ...]
    restrictors: tuple[RestrictorFlow, ...]


def flow_of_line(
    kit: Kit,
    tube: Tube,
    shape: BendList,
    pieces: Pieces,
    carried: Carried,
    fittings: tuple[tuple[EndName, Fitting], ...],
) -> Flowing:
    """Flow and volume of tube, hoses, ends and parts, one after the other. Bores always count; where a
    length is not known the total is not known."""
    duty, rough = carried.duty, kit.limits["roughness_mm"].value
    way = Way(
        stretches=_stretches(tube.bore_mm, shape, pieces),
        losses=_losses(kit, tube, pieces, fittings),
        restrictors=tuple(_restrictor(kit, part) for part in pieces.parts if part.bore_mm is not None),
    )
    unknown = tuple(
        f"the length of the hose beyond {hose.end}" for hose in pieces.hoses if hose.length_mm is None
    ) + tuple(
        f"the bore of the restrictor beyond {part.end}"
        for part in pieces.parts
        if part.piece.part == "restrictor" and part.bore_mm is None
    )
    old = None
    if carried.old_bore_mm is not None:
        old = replace(way, stretches=_stretches(carried.old_bore_mm, shape, pieces))

    def run(taken: Way | None, temperature_c: float) -> Flow | None:
        if taken is None or duty.flow_lpm <= 0 or unknown:
            return None
        return flow_through(carried.fluid, temperature_c, duty.flow_lpm, taken, rough)

    def arrives(temperature_c: float) -> float | None:
        if not duty.available_kpa or unknown:
            return None
        return solved_flow_lpm(carried.fluid, temperature_c, duty.available_kpa, way, rough)

    narrowest = min([tube.bore_mm, *(hose.hose.id_mm for hose in pieces.hoses)])
    return Flowing(
        flow_lpm=duty.flow_lpm,
        velocity_mps=velocity_mps(duty.flow_lpm, narrowest),
        volume_ml=volume_ml(way.stretches),
        cold=run(way, duty.cold_c),
        hot=run(way, duty.hot_c),
        old_cold=run(old, duty.cold_c),
        old_hot=run(old, duty.hot_c),
        arrives_cold_lpm=arrives(duty.cold_c),
        arrives_hot_lpm=arrives(duty.hot_c),
        narrowest_mm=narrowest,
        unknown=unknown,
        not_counted=tuple(
            f"the {part.piece.part} beyond {part.end}"
            for part in pieces.parts
            if part.piece.part != "restrictor" and part.piece.part not in SHORT_PARTS
        ),
        restrictors=tuple(
            _restrictor_flow(kit, part, carried) for part in pieces.parts if part.bore_mm is not None
        ),
    )


def _stretches(bore_mm: float, shape: BendList, pieces: Pieces) -> tuple[Stretch, ...]:
    """Hoses and tube in their order from port A to port B; a hose of unknown length counts as none."""
    hoses: dict[EndName, list[Stretch]] = {"A": [], "B": []}
    for hose in pieces.hoses:
        if hose.length_mm is not None:
            hoses[hose.end].append(Stretch(bore_mm=hose.hose.id_mm, straight_mm=hose.length_mm))
    tube = Stretch(
        bore_mm=bore_mm,
        straight_mm=sum(max(0.0, straight) for straight in shape.straights_mm),
        bends=tuple((bend.angle_deg, bend.radius_mm) for bend in shape.bends),
    )
    return (*reversed(hoses["A"]), tube, *hoses["B"])


def _losses(
    kit: Kit, tube: Tube, pieces: Pieces, fittings: tuple[tuple[EndName, Fitting], ...]
) -> tuple[Loss, ...]:
    banjo = Loss(bore_mm=tube.bore_mm, heads=kit.limits["banjo_loss"].value)
    adapter = Loss(bore_mm=tube.bore_mm, heads=kit.limits["adapter_loss"].value)
    return (
        *(banjo for _, fitting in fittings if fitting.kind == "banjo"),
        *(adapter for part in pieces.parts if part.piece.part in SHORT_PARTS),
    )


def _restrictor(kit: Kit, part: PlacedPart) -> Restrictor:
    cd = kit.limits["orifice_cd"].value
    return Restrictor(bore_mm=part.bore_mm or 0.0, land_mm=part.land_mm, cd=cd)


def _restrictor_flow(kit: Kit, part: PlacedPart, carried: Carried) -> RestrictorFlow:
    duty, restrictor = carried.duty, _restrictor(kit, part)

    def passes(temperature_c: float) -> tuple[float, float]:
        return restrictor_flow_lpm(
            carried.fluid, temperature_c, restrictor=restrictor, drop_kpa=duty.working_kpa
        )

    (cold, cold_share), (hot, hot_share) = passes(duty.cold_c), passes(duty.hot_c)
    return RestrictorFlow(
        end=part.end,
        index=part.index,
        bore_mm=restrictor.bore_mm,
        cold_lpm=cold,
        hot_lpm=hot,
        cold_viscous=cold_share,
        hot_viscous=hot_share,
    )
