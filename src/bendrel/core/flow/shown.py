"""Shown working for what follows from the choices: strength of the tube, volume, and the drop."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import DERIVED, Derivation, Input, Source
from bendrel.core.flow.along import Flowing
from bendrel.core.flow.carried import Carried
from bendrel.core.flow.flow import Flow
from bendrel.core.flow.strength import Strength
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.tube_strength import TubeStrength
from bendrel.core.units.notation import Unit
from bendrel.core.units.quantities import format_pressure

B31 = Source(kind="standard", text="ASME B31.3 304.2.1, stress in a bend, on the wall of constant volume")
BARLOW = Source(kind="derived", text="Barlow’s formula on the outside diameter, thin wall")
DARCY = Source(kind="derived", text="Darcy–Weisbach, friction by Churchill, rounded bends by Rennels")


def chosen_derivations(
    rigids: Sequence[Rigid], carried: Carried, strength: Strength, flowing: Flowing | None, unit: Unit
) -> tuple[Derivation, ...]:
    """The working of every figure of one line's strength and flow."""
    return tuple(_all(rigids, carried, strength, flowing, unit))


def _all(
    rigids: Sequence[Rigid], carried: Carried, strength: Strength, flowing: Flowing | None, unit: Unit
) -> Iterator[Derivation]:
    own, governs = strength.tube, [r for r in rigids if f"tube-{r.run.span.id}" == strength.governs]
    if own is not None and own.allowed_kpa is not None and not carried.duty.vacuum:
        yield _strength(governs[0].choices, carried, own, unit)
    if flowing is None:
        return
    yield _volume(rigids, flowing)
    for name, flow in (("cold", flowing.cold), ("hot", flowing.hot)):
        if flow is not None and flow.drop_kpa is not None:
            yield _drop(name, carried, flowing, flow, unit)


def _strength(chosen: Choices, carried: Carried, own: TubeStrength, unit: Unit) -> Derivation:
    tube, material, duty = chosen.tube, chosen.material, carried.duty
    if own.by == "law" and tube.law is not None:
        law = tube.law
        return Derivation(
            id="strength",
            title="Allowed pressure of the tube",
            formula="as it is sold for this use",
            inputs=(
                Input(name="sold for", value=format_pressure(law.kpa, unit), source=law.source),
                Input(name="up to", value=f"{law.highest_c:.0f} °C", source=law.source),
            ),
            result=format_pressure(own.allowed_kpa or 0.0, unit),
            source=law.source,
        )
    share = 1.0 if own.share is None else own.share
    standard = material.tube_standard if own.by == "tube standard" else None
    wall = (
        Input(name="wall, least by tolerance", value=f"× {material.wall_share:g}", source=material.source),
        Input(name="t, least wall", value=f"{own.wall_mm:.3f} mm"),
    )
    return Derivation(
        id="strength",
        title="Allowed pressure of the tube",
        formula="P = S·(D² − d²)/(D² + d²) × b ÷ factor,  d = D − 2·wall"
        if standard
        else "P = 2·S·t/D × b ÷ factor,  t = wall × tolerance,  b = 2R/(2R + D/2)",
        inputs=(
            Input(
                name="S, least strength",
                value=f"{material.ultimate_mpa:g} MPa",
                source=material.strength_source,
            ),
            Input(name=f"share left at {duty.hot_c:.0f} °C", value=f"{share:.2f}", source=material.source),
            Input(name="wall, nominal", value=f"{tube.wall_mm:g} mm", source=tube.source),
            *(() if standard else wall),
            Input(
                name="b, the tightest bend",
                value=f"{own.bend_share:.3f}{', whole from three diameters on' if standard else ''}",
                source=B31,
            ),
            Input(name="D, outside", value=f"{tube.od_mm:g} mm", source=tube.source),
            Input(name="design factor", value=f"{duty.design_factor:g}", source=duty.source),
            Input(name="bursts at", value=format_pressure(own.burst_kpa or 0.0, unit)),
            Input(
                name=f"{'piping' if standard else 'thick-wall'} formula, not used",
                value=format_pressure(own.other_kpa or 0.0, unit),
            ),
        ),
        result=format_pressure(own.allowed_kpa or 0.0, unit),
        source=standard or BARLOW,
    )


def _volume(rigids: Sequence[Rigid], flowing: Flowing) -> Derivation:
    return Derivation(
        id="volume",
        title="What the line holds",
        formula="V = π/4·d²·L, tube and hoses added",
        inputs=tuple(
            one
            for rigid in rigids
            for one in (
                Input(
                    name="d, bore of the tube", value=f"{rigid.tube.bore_mm:.3f} mm", source=rigid.tube.source
                ),
                Input(name="L, along the tube", value=f"{rigid.part.developed_mm:.1f} mm"),
            )
        ),
        result=f"{flowing.volume_ml:.1f} ml",
        source=DERIVED,
    )


def _drop(name: str, carried: Carried, flowing: Flowing, flow: Flow, unit: Unit) -> Derivation:
    fluid, duty = carried.fluid, carried.duty
    own = carried.duty.source if "flow" not in carried.own else None
    return Derivation(
        id=f"drop-{name}",
        title=f"Pressure lost, {name}",
        formula="Δp = (f·L/d + Σ bends)·ρ·v²/2,  Re = v·d/ν",
        inputs=(
            Input(name="flow", value=f"{duty.flow_lpm:g} L/min", source=own),
            Input(
                name=f"ν, {fluid.name} at {flow.temperature_c:.0f} °C",
                value=f"{flow.viscosity_mm2s:.3g} mm²/s",
                source=fluid.source,
            ),
            Input(name="v, where it is fastest", value=f"{flow.velocity_mps:.2f} m/s"),
            Input(name="Re", value=f"{flow.reynolds:.0f}, {'laminar' if flow.laminar else 'turbulent'}"),
            Input(name="narrowest bore", value=f"{flowing.narrowest_mm:.2f} mm"),
        ),
        result=format_pressure(flow.drop_kpa or 0.0, unit),
        source=DARCY,
    )
