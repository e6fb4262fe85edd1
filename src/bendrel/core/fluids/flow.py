"""Pressure drop, velocity and volume of a line. The friction itself comes from the `fluids` library."""

from __future__ import annotations

from collections.abc import Sequence
from math import pi, sqrt

from bendrel.core.fluids.fluid import Fluid, density, viscosity
from bendrel.core.record import record

ATMOSPHERE_PA = 101_325.0  # ISO 2533
LAMINAR_RE = 2040.0
"""Reynolds number up to which flow in a round pipe stays laminar: the library's own figure."""


@record
class Stretch:
    """One piece of the way: its bore and straight length in mm, and its bends as (degrees, mm radius)."""

    bore_mm: float
    straight_mm: float
    bends: tuple[tuple[float, float], ...] = ()


@record
class Flow:
    """Flow through a line at one temperature. Velocity in m/s, drop in kPa; `laminar` where the flow is
    fastest. `drop_kpa` is None where a gas can not pass in that amount."""

    temperature_c: float
    velocity_mps: float
    reynolds: float
    laminar: bool
    viscosity_mm2s: float
    drop_kpa: float | None


def area_mm2(bore_mm: float) -> float:
    """Cross-section of a round bore."""
    return pi * bore_mm**2 / 4


def volume_ml(stretches: Sequence[Stretch]) -> float:
    """What the line holds, in ml. Source: plane geometry."""
    return sum(area_mm2(s.bore_mm) * _length_mm(s) for s in stretches) / 1000


def flow_through(
    fluid: Fluid, temperature_c: float, flow_lpm: float, stretches: Sequence[Stretch], roughness_mm: float
) -> Flow:
    """Drop over all stretches, one after the other.

    Source: Darcy–Weisbach with Churchill's friction factor (laminar flow included) and rounded bends
    by Rennels, as in the `fluids` library; gases by its isothermal pipe equation from the pressure
    of the air downwards.
    """
    rho, nu = density(fluid, temperature_c), viscosity(fluid, temperature_c) * 1e-6
    narrowest = min(stretches, key=lambda s: s.bore_mm)
    velocity = _velocity(flow_lpm, narrowest.bore_mm)
    reynolds = velocity * narrowest.bore_mm / 1000 / nu
    drop: float | None = 0.0
    for stretch in stretches:
        if fluid.family == "air":
            drop = _gas_drop(rho, nu, flow_lpm, stretch, roughness_mm, drop)
        elif drop is not None:
            drop += _liquid_drop(rho, nu, flow_lpm, stretch, roughness_mm)
    return Flow(
        temperature_c=temperature_c,
        velocity_mps=velocity,
        reynolds=reynolds,
        laminar=reynolds < LAMINAR_RE,
        viscosity_mm2s=nu * 1e6,
        drop_kpa=None if drop is None else drop / 1000,
    )


def restrictor_flow_lpm(
    fluid: Fluid, temperature_c: float, *, bore_mm: float, land_mm: float, drop_kpa: float, cd: float
) -> tuple[float, float]:
    """(orifice, viscous) flow through a restrictor in L/min; the smaller of the two passes.

    Source: orifice equation Q = Cd·A·√(2Δp/ρ); Hagen–Poiseuille Q = π·d⁴·Δp/(128·µ·L). Cold oil is
    viscous: the orifice alone can be several times too high.
    """
    rho, nu = density(fluid, temperature_c), viscosity(fluid, temperature_c) * 1e-6
    d, length, drop = bore_mm / 1000, land_mm / 1000, drop_kpa * 1000
    orifice = cd * pi * d**2 / 4 * sqrt(2 * drop / rho)
    viscous = pi * d**4 * drop / (128 * nu * rho * length)
    return orifice * 60_000, viscous * 60_000


def _velocity(flow_lpm: float, bore_mm: float) -> float:
    return flow_lpm / 60_000 / (area_mm2(bore_mm) * 1e-6)


def _length_mm(stretch: Stretch) -> float:
    return stretch.straight_mm + sum(pi / 180 * angle * radius for angle, radius in stretch.bends)


def _liquid_drop(rho: float, nu: float, flow_lpm: float, stretch: Stretch, roughness_mm: float) -> float:
    from fluids.fittings import bend_rounded  # heavy, and the command line does without
    from fluids.friction import friction_factor

    bore = stretch.bore_mm / 1000
    velocity = _velocity(flow_lpm, stretch.bore_mm)
    reynolds = velocity * bore / nu
    friction = friction_factor(Re=reynolds, eD=roughness_mm / stretch.bore_mm, Method="Churchill_1977")
    loss = friction * stretch.straight_mm / stretch.bore_mm
    for angle, radius in stretch.bends:
        loss += bend_rounded(Di=bore, angle=angle, rc=radius / 1000, fd=friction, Re=reynolds)
    return float(loss * rho * velocity**2 / 2)


def _gas_drop(
    rho: float, nu: float, flow_lpm: float, stretch: Stretch, roughness_mm: float, before: float | None
) -> float | None:
    """Drop in Pa up to the end of this stretch, None where the gas is choked."""
    from fluids.compressible import isothermal_gas
    from fluids.friction import friction_factor

    if before is None or before >= ATMOSPHERE_PA:
        return None
    bore = stretch.bore_mm / 1000
    start = ATMOSPHERE_PA - before
    thinner = rho * start / ATMOSPHERE_PA
    reynolds = _velocity(flow_lpm, stretch.bore_mm) * bore / nu
    friction = friction_factor(Re=reynolds, eD=roughness_mm / stretch.bore_mm, Method="Churchill_1977")
    length, mass = _length_mm(stretch) / 1000, rho * flow_lpm / 60_000
    if friction * length / bore > LONG:
        end = _end_of_long(thinner, friction, start, length, bore, mass)
        return None if end is None else ATMOSPHERE_PA - end
    try:
        end = isothermal_gas(rho=thinner, fd=friction, P1=start, L=length, D=bore, m=mass)
    except ValueError:  # the library's word for a choked pipe
        return None
    return ATMOSPHERE_PA - float(end)


LONG = 500.0
"""Friction × length / bore from which the library's choking pressure runs out of digits, and the gas
speeding up along the pipe is within a hundredth of its friction."""


def _end_of_long(
    rho: float, friction: float, start_pa: float, length_m: float, bore_m: float, mass_kgps: float
) -> float | None:
    """Pressure in Pa at the end of a long pipe, None where it does not get through.

    Source: isothermal pipe flow, p₁² − p₂² = f·(L/D)·p₁·m²/(A²·ρ₁), its speeding up left out.
    """
    area = pi * bore_m**2 / 4
    left = start_pa**2 - friction * length_m / bore_m * start_pa * mass_kgps**2 / (area**2 * rho)
    return sqrt(left) if left > 0 else None
