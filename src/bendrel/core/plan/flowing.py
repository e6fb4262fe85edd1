"""Flow through the line as chosen, against the old size, cold and hot; what it holds."""

from __future__ import annotations

from bendrel.core.fluids.flow import Flow, Stretch, flow_through, restrictor_flow_lpm, volume_ml
from bendrel.core.plan.carried import Carried
from bendrel.core.plan.kit import Kit
from bendrel.core.plan.pieces import Pieces, PlacedPart
from bendrel.core.record import record
from bendrel.core.shape.bends import BendList
from bendrel.core.tube.material import Tube


@record
class RestrictorFlow:
    """What passes a restrictor at the working pressure, cold and hot, in L/min, and which law decides."""

    end: str
    index: int
    bore_mm: float
    cold_lpm: float
    hot_lpm: float
    cold_viscous: bool
    hot_viscous: bool


@record
class Flowing:
    """The flow asked for, through the new line and through the old bore, and the volume of the line.

    `cold` and `hot` are None where no flow is asked of this service."""

    flow_lpm: float
    volume_ml: float
    cold: Flow | None
    hot: Flow | None
    old_cold: Flow | None
    old_hot: Flow | None
    narrowest_mm: float
    restrictors: tuple[RestrictorFlow, ...]


def flow_of_line(kit: Kit, tube: Tube, shape: BendList, pieces: Pieces, carried: Carried) -> Flowing:
    """Flow and volume of tube and hoses, one after the other."""
    stretches = [_tube(tube.bore_mm, shape)]
    stretches += [
        Stretch(bore_mm=hose.hose.id_mm, straight_mm=hose.length_mm)
        for hose in pieces.hoses
        if hose.length_mm is not None
    ]
    old = None if carried.old_bore_mm is None else [_tube(carried.old_bore_mm, shape), *stretches[1:]]
    duty, rough = carried.duty, kit.limits["roughness_mm"].value

    def run(way: list[Stretch] | None, temperature_c: float) -> Flow | None:
        if way is None or duty.flow_lpm <= 0:
            return None
        return flow_through(carried.fluid, temperature_c, duty.flow_lpm, way, rough)

    return Flowing(
        flow_lpm=duty.flow_lpm,
        volume_ml=volume_ml(stretches),
        cold=run(stretches, duty.cold_c),
        hot=run(stretches, duty.hot_c),
        old_cold=run(old, duty.cold_c),
        old_hot=run(old, duty.hot_c),
        narrowest_mm=min(s.bore_mm for s in stretches),
        restrictors=tuple(_restrictor(kit, part, carried) for part in pieces.parts if _is_restrictor(part)),
    )


def _tube(bore_mm: float, shape: BendList) -> Stretch:
    bends = tuple((bend.angle_deg, bend.radius_mm) for bend in shape.bends)
    return Stretch(bore_mm=bore_mm, straight_mm=sum(max(0.0, s) for s in shape.straights_mm), bends=bends)


def _is_restrictor(part: PlacedPart) -> bool:
    return part.piece.part == "restrictor" and part.bore_mm is not None


def _restrictor(kit: Kit, part: PlacedPart, carried: Carried) -> RestrictorFlow:
    bore, duty = part.bore_mm or 0.0, carried.duty

    def both(temperature_c: float) -> tuple[float, float]:
        return restrictor_flow_lpm(
            carried.fluid,
            temperature_c,
            bore_mm=bore,
            land_mm=part.land_mm,
            drop_kpa=duty.working_kpa,
            cd=kit.limits["orifice_cd"].value,
        )

    (cold_orifice, cold_viscous), (hot_orifice, hot_viscous) = both(duty.cold_c), both(duty.hot_c)
    return RestrictorFlow(
        end=part.end,
        index=part.index,
        bore_mm=bore,
        cold_lpm=min(cold_orifice, cold_viscous),
        hot_lpm=min(hot_orifice, hot_viscous),
        cold_viscous=cold_viscous < cold_orifice,
        hot_viscous=hot_viscous < hot_orifice,
    )
