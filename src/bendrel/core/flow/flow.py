"""Pressure drop, velocity and volume of a line. The friction itself comes from the `fluids` library."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from math import log, pi, sqrt

from bendrel.core.parts.fluid import ATMOSPHERE_KPA, Fluid, density, viscosity
from bendrel.core.record import record

ATMOSPHERE_PA = 1000 * ATMOSPHERE_KPA
LAMINAR_RE = 2040.0
"""Reynolds number up to which flow in a round pipe stays laminar: the library's own figure."""


@record
class Stretch:
    """One piece of the way: its bore and straight length in mm, and its bends as (degrees, mm radius)."""

    bore_mm: float
    straight_mm: float
    bends: tuple[tuple[float, float], ...] = ()


@record
class Loss:
    """Something short in the way: `heads` velocity heads at its `bore_mm`."""

    bore_mm: float
    heads: float


@record
class Restrictor:
    """A drilled restrictor: its bore and the length of its land in mm, and its discharge coefficient."""

    bore_mm: float
    land_mm: float
    cd: float


@record
class Way:
    """Everything that the fluid goes through, one after the other. `fixed_kpa` is what is lost in components
    whatever flows, as their makers say."""

    stretches: tuple[Stretch, ...]
    losses: tuple[Loss, ...] = ()
    restrictors: tuple[Restrictor, ...] = ()
    fixed_kpa: float = 0.0


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


def flow_through(fluid: Fluid, temperature_c: float, flow_lpm: float, way: Way, roughness_mm: float) -> Flow:
    """Drop over everything on the way, one after the other.

    Source: Darcy–Weisbach with Churchill's friction factor (laminar flow included) and rounded bends
    by Rennels, as in the `fluids` library; gases by its isothermal pipe equation from the pressure
    of the air downwards; restrictors by `restrictor_drop_kpa`.
    """
    rho, nu = density(fluid, temperature_c), viscosity(fluid, temperature_c) * 1e-6
    bores = [one.bore_mm for one in way.stretches] or [one.bore_mm for one in way.losses]
    narrowest = min(bores)
    velocity = velocity_mps(flow_lpm, narrowest)
    reynolds = velocity * narrowest / 1000 / nu
    return Flow(
        temperature_c=temperature_c,
        velocity_mps=velocity,
        reynolds=reynolds,
        laminar=reynolds < LAMINAR_RE,
        viscosity_mm2s=nu * 1e6,
        drop_kpa=_drop_kpa(fluid, rho, nu, flow_lpm, way, roughness_mm),
    )


def _drop_kpa(
    fluid: Fluid, rho: float, nu: float, flow_lpm: float, way: Way, roughness_mm: float
) -> float | None:
    if fluid.gas:
        fallen: float | None = 0.0
        for stretch in way.stretches:
            fallen = _gas_drop(rho, nu, flow_lpm, stretch, roughness_mm, fallen)
        return None if fallen is None else fallen / 1000
    drop = sum(_liquid_drop(rho, nu, flow_lpm, stretch, roughness_mm) for stretch in way.stretches)
    for loss in way.losses:
        drop += loss.heads * rho * velocity_mps(flow_lpm, loss.bore_mm) ** 2 / 2
    drop += 1000 * sum(restrictor_drop_kpa(rho, nu, flow_lpm, one) for one in way.restrictors)
    return drop / 1000 + way.fixed_kpa


def solved_flow_lpm(
    fluid: Fluid, temperature_c: float, available_kpa: float, way: Way, roughness_mm: float
) -> float | None:
    """What flows when `available_kpa` is lost on the way, in L/min, to a hundredth; None for a gas.

    The drop grows with a power of the flow between 1 (laminar) and 2: the flow is stepped along that
    power until the drop is what is available. Source: derived.
    """
    if fluid.gas:
        return None
    rho, nu = density(fluid, temperature_c), viscosity(fluid, temperature_c) * 1e-6
    flow, power, before = 1.0, 1.5, None
    for _ in range(SOLVING_STEPS):
        drop = _drop_kpa(fluid, rho, nu, flow, way, roughness_mm) or 0.0
        if abs(drop / available_kpa - 1) < 0.01:
            break
        if before is not None and drop != before[1] and flow != before[0]:
            power = log(drop / before[1]) / log(flow / before[0])
        before = (flow, drop)
        flow *= (available_kpa / drop) ** (1 / min(2.0, max(1.0, power)))
    return flow


SOLVING_STEPS = 12
"""More than any line takes: the power is known from the second step on."""


def restrictor_drop_kpa(rho: float, nu: float, flow_lpm: float, restrictor: Restrictor) -> float:
    """Pressure lost in a restrictor, in kPa, for a density in kg/m³ and a viscosity in m²/s.

    Source: the orifice, ρQ²/(2·(Cd·A)²), and the viscous loss of its land, 128·µ·L·Q/(π·d⁴)
    (Hagen–Poiseuille), lie in series. Cold oil is viscous: the orifice alone says several times
    too much flow.
    """
    flow, d = flow_lpm / 60_000, restrictor.bore_mm / 1000
    orifice = rho * flow**2 / (2 * (restrictor.cd * pi * d**2 / 4) ** 2)
    return (orifice + _viscous_pa(rho, nu, flow, restrictor)) / 1000


def _viscous_pa(rho: float, nu: float, flow_m3s: float, restrictor: Restrictor) -> float:
    return 128 * nu * rho * restrictor.land_mm / 1000 * flow_m3s / (pi * (restrictor.bore_mm / 1000) ** 4)


def restrictor_flow_lpm(
    fluid: Fluid, temperature_c: float, *, restrictor: Restrictor, drop_kpa: float
) -> tuple[float, float]:
    """(flow in L/min, share of the drop that the land takes) at `drop_kpa` over a restrictor.

    Source: the quadratic of the two losses in series, see `restrictor_drop_kpa`.
    """
    rho, nu = density(fluid, temperature_c), viscosity(fluid, temperature_c) * 1e-6
    square = rho / (2 * (restrictor.cd * area_mm2(restrictor.bore_mm) * 1e-6) ** 2)
    linear = _viscous_pa(rho, nu, 1.0, restrictor)
    drop = drop_kpa * 1000
    flow = 2 * drop / (linear + sqrt(linear**2 + 4 * square * drop))
    return flow * 60_000, linear * flow / drop


def velocity_mps(flow_lpm: float, bore_mm: float) -> float:
    """Mean velocity in a round bore."""
    return flow_lpm / 60_000 / (area_mm2(bore_mm) * 1e-6)


def _length_mm(stretch: Stretch) -> float:
    return stretch.straight_mm + sum(pi / 180 * angle * radius for angle, radius in stretch.bends)


def _liquid_drop(rho: float, nu: float, flow_lpm: float, stretch: Stretch, roughness_mm: float) -> float:
    from fluids.fittings import bend_rounded  # heavy, and the command line does without
    from fluids.friction import friction_factor

    bore = stretch.bore_mm / 1000
    velocity = velocity_mps(flow_lpm, stretch.bore_mm)
    reynolds = velocity * bore / nu
    friction = friction_factor(Re=reynolds, eD=roughness_mm / stretch.bore_mm, Method="Churchill_1977")
    loss = friction * stretch.straight_mm / stretch.bore_mm
    for (angle, radius), count in Counter(stretch.bends).items():  # most bends of a line are alike
        loss += count * bend_rounded(Di=bore, angle=angle, rc=radius / 1000, fd=friction, Re=reynolds)
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
    reynolds = velocity_mps(flow_lpm, stretch.bore_mm) * bore / nu
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
