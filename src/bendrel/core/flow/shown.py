"""Shown working for what follows from the choices: strength of the tube, volume, and the drop."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import DERIVED, Derivation, Source, given, shown
from bendrel.core.flow.along import Flowing
from bendrel.core.flow.flow import Flow
from bendrel.core.flow.strength import Strength
from bendrel.core.line.carried import Carried
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
    title, result = "Allowed pressure of the tube", format_pressure(own.allowed_kpa or 0.0, unit)
    if own.by == "law" and tube.law is not None:
        law = tube.law
        sold = [
            given("sold for", format_pressure(law.kpa, unit), law.source),
            given("up to", f"{law.highest_c:.0f} °C", law.source),
        ]
        return shown("strength", title, "as it is sold for this use", sold, result, law.source)
    share = 1.0 if own.share is None else own.share
    standard = material.tube_standard if own.by == "tube standard" else None
    wall = [
        given("wall, least by tolerance", f"× {material.wall_share:g}", material.source),
        given("t, least wall", f"{own.wall_mm:.3f} mm"),
    ]
    formula = "P = 2·S·t/D × b ÷ factor,  t = wall × tolerance,  b = 2R/(2R + D/2)"
    if standard:
        formula = "P = S·(D² − d²)/(D² + d²) × b ÷ factor,  d = D − 2·wall"
    whole = ", whole from three diameters on" if standard else ""
    other = f"{'piping' if standard else 'thick-wall'} formula, not used"
    inputs = [
        given("S, least strength", f"{material.ultimate_mpa:g} MPa", material.strength_source),
        given(f"share left at {duty.hot_c:.0f} °C", f"{share:.2f}", material.source),
        given("wall, nominal", f"{tube.wall_mm:g} mm", tube.source),
        *([] if standard else wall),
        given("b, the tightest bend", f"{own.bend_share:.3f}{whole}", B31),
        given("D, outside", f"{tube.od_mm:g} mm", tube.source),
        given("design factor", f"{duty.design_factor:g}", duty.source),
        given("bursts at", format_pressure(own.burst_kpa or 0.0, unit)),
        given(other, format_pressure(own.other_kpa or 0.0, unit)),
    ]
    return shown("strength", title, formula, inputs, result, standard or BARLOW)


def _volume(rigids: Sequence[Rigid], flowing: Flowing) -> Derivation:
    inputs = [
        one
        for rigid in rigids
        for one in (
            given("d, bore of the tube", f"{rigid.tube.bore_mm:.3f} mm", rigid.tube.source),
            given("L, along the tube", f"{rigid.part.developed_mm:.1f} mm"),
        )
    ]
    formula, result = "V = π/4·d²·L, tube and hoses added", f"{flowing.volume_ml:.1f} ml"
    return shown("volume", "What the line holds", formula, inputs, result, DERIVED)


def _drop(name: str, carried: Carried, flowing: Flowing, flow: Flow, unit: Unit) -> Derivation:
    fluid, duty = carried.fluid, carried.duty
    own = carried.duty.source if "flow" not in carried.own else None
    thick = f"ν, {fluid.name} at {flow.temperature_c:.0f} °C"
    inputs = [
        given("flow", f"{duty.flow_lpm:g} L/min", own),
        given(thick, f"{flow.viscosity_mm2s:.3g} mm²/s", fluid.source),
        given("v, where it is fastest", f"{flow.velocity_mps:.2f} m/s"),
        given("Re", f"{flow.reynolds:.0f}, {'laminar' if flow.laminar else 'turbulent'}"),
        given("narrowest bore", f"{flowing.narrowest_mm:.2f} mm"),
    ]
    formula, result = (
        "Δp = (f·L/d + Σ bends)·ρ·v²/2,  Re = v·d/ν",
        format_pressure(flow.drop_kpa or 0.0, unit),
    )
    return shown(f"drop-{name}", f"Pressure lost, {name}", formula, inputs, result, DARCY)
