"""Flow through the line as chosen, against the old size, cold and hot; what it holds."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.flow.flow import (
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
from bendrel.core.joints.pieces import Pieces, PlacedComponent, Stands
from bendrel.core.line.carried import Carried
from bendrel.core.line.document import ComponentKind, Line
from bendrel.core.line.run import runs
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record

SHORT_COMPONENTS: tuple[ComponentKind, ...] = (
    "adapter", "shut-off valve", "union", "reducer", "elbow", "quick connector",
)  # fmt: skip
"""Components that only step the bore; what filters, coolers and check valves lose, their makers know."""


@record
class RestrictorFlow:
    """What passes a restrictor at the working pressure, cold and hot, in L/min, and the share of the loss
    that its land takes."""

    stands: Stands
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
    line: Line,
    kit: Kit,
    rigids: Sequence[Rigid],
    pieces: Pieces,
    carried: Carried,
) -> Flowing | None:
    """Flow and volume of everything between the ports, one after the other. Bores always count; where a
    length is not known the total is not known. None where not one bore is known."""
    duty, rough = carried.duty, kit.limits["roughness_mm"].value
    bores = [*(rigid.tube.bore_mm for rigid in rigids), *(hose.hose.id_mm for hose in pieces.hoses)]
    if not bores:
        return None
    drilled = [one for one in pieces.components if one.bore_mm is not None]
    way = way_of(line, kit, rigids, pieces)
    unknown = unknown_on_the_way(line, rigids, pieces)
    old = None
    if carried.old_bore_mm is not None:
        old = replace(way, stretches=_stretches(line, rigids, pieces, carried.old_bore_mm))

    def run(taken: Way | None, temperature_c: float) -> Flow | None:
        if taken is None or duty.flow_lpm <= 0 or unknown:
            return None
        return flow_through(carried.fluid, temperature_c, duty.flow_lpm, taken, rough)

    def arrives(temperature_c: float) -> float | None:
        if not duty.available_kpa or unknown:
            return None
        return solved_flow_lpm(carried.fluid, temperature_c, duty.available_kpa, way, rough)

    narrowest = min(bores)
    return Flowing(
        flow_lpm=duty.flow_lpm,
        velocity_mps=velocity_mps(duty.flow_lpm, narrowest),
        volume_ml=volume_ml(way.stretches) + sum(one.holds_ml or 0.0 for one in pieces.components),
        cold=run(way, duty.cold_c),
        hot=run(way, duty.hot_c),
        old_cold=run(old, duty.cold_c),
        old_hot=run(old, duty.hot_c),
        arrives_cold_lpm=arrives(duty.cold_c),
        arrives_hot_lpm=arrives(duty.hot_c),
        narrowest_mm=narrowest,
        unknown=unknown,
        not_counted=tuple(
            f"the {one.piece.what} {one.stands.told}"
            for one in pieces.components
            if one.piece.what != "restrictor"
            and one.piece.what not in SHORT_COMPONENTS
            and one.loses_kpa is None
        ),
        restrictors=tuple(_restrictor_flow(kit, one, carried) for one in drilled),
    )


def way_of(
    line: Line, kit: Kit, rigids: Sequence[Rigid], pieces: Pieces, bore_mm: float | None = None
) -> Way:
    """Everything of known length that the fluid goes through, one after the other; `bore_mm` is that of
    what lies beside it where it has none of its own."""
    bores = [*(rigid.tube.bore_mm for rigid in rigids), *(hose.hose.id_mm for hose in pieces.hoses)]
    if not bores and bore_mm is not None:
        bores = [bore_mm]
    return Way(
        stretches=_stretches(line, rigids, pieces, None),
        losses=_losses(kit, rigids, pieces, min(bores)) if bores else (),
        restrictors=tuple(_restrictor(kit, one) for one in pieces.components if one.bore_mm is not None),
        fixed_kpa=sum(one.loses_kpa or 0.0 for one in pieces.components),
    )


def unknown_on_the_way(line: Line, rigids: Sequence[Rigid], pieces: Pieces) -> tuple[str, ...]:
    """What keeps the flow from being known."""
    read = {rigid.run.span.id for rigid in rigids}
    return (
        *(f"the length of the hose {hose.stands.told}" for hose in pieces.hoses if hose.length_mm is None),
        *(
            f"the bore of the restrictor {one.stands.told}"
            for one in pieces.components
            if one.piece.what == "restrictor" and one.bore_mm is None
        ),
        *(f"the readings of tube {k}" for k, run in enumerate(runs(line), 1) if run.span.id not in read),
    )


def _stretches(
    line: Line, rigids: Sequence[Rigid], pieces: Pieces, old_mm: float | None
) -> tuple[Stretch, ...]:
    """Hoses and tubes in their order from port A to port B, tubes of the `old_mm` bore where it is given; a
    hose of unknown length is left out."""
    tubes = {rigid.run.span.id: rigid for rigid in rigids}
    hoses = {hose.piece.id: hose for hose in pieces.hoses}
    found = []
    for span in line.spans:
        if (rigid := tubes.get(span.id)) is not None:
            found.append(
                Stretch(
                    bore_mm=old_mm or rigid.tube.bore_mm,
                    straight_mm=sum(max(0.0, straight) for straight in rigid.shape.straights_mm),
                    bends=tuple((bend.angle_deg, bend.radius_mm) for bend in rigid.shape.bends),
                )
            )
        elif (hose := hoses.get(span.id)) is not None and hose.length_mm is not None:
            found.append(Stretch(bore_mm=hose.hose.id_mm, straight_mm=hose.length_mm))
    return tuple(found)


def _losses(kit: Kit, rigids: Sequence[Rigid], pieces: Pieces, narrowest_mm: float) -> tuple[Loss, ...]:
    banjo, adapter = kit.limits["banjo_loss"].value, kit.limits["adapter_loss"].value
    step_mm = rigids[0].tube.bore_mm if rigids else narrowest_mm
    return (
        *(
            Loss(bore_mm=rigid.tube.bore_mm, heads=banjo)
            for rigid in rigids
            for end in rigid.ends
            if end.fitting.kind == "banjo"
        ),
        *(
            Loss(bore_mm=step_mm, heads=adapter)
            for one in pieces.components
            if one.piece.what in SHORT_COMPONENTS
        ),
    )


def _restrictor(kit: Kit, part: PlacedComponent) -> Restrictor:
    cd = kit.limits["orifice_cd"].value
    return Restrictor(bore_mm=part.bore_mm or 0.0, land_mm=part.land_mm, cd=cd)


def _restrictor_flow(kit: Kit, part: PlacedComponent, carried: Carried) -> RestrictorFlow:
    duty, restrictor = carried.duty, _restrictor(kit, part)

    def passes(temperature_c: float) -> tuple[float, float]:
        return restrictor_flow_lpm(
            carried.fluid, temperature_c, restrictor=restrictor, drop_kpa=duty.working_kpa
        )

    (cold, cold_share), (hot, hot_share) = passes(duty.cold_c), passes(duty.hot_c)
    return RestrictorFlow(
        stands=part.stands,
        bore_mm=restrictor.bore_mm,
        cold_lpm=cold,
        hot_lpm=hot,
        cold_viscous=cold_share,
        hot_viscous=hot_share,
    )
