"""Density and viscosity of a fluid over temperature, and what it harms."""

from __future__ import annotations

from itertools import pairwise
from math import exp, log, log10
from typing import Annotated, Literal

from annotated_types import Ge, Gt, MinLen

from bendrel.core.findings import Source
from bendrel.core.record import record

KELVIN = 273.15
ATMOSPHERE_KPA = 101.325
"""The standard atmosphere. Source: ISO 2533."""


Wets = Literal["own", "oil", "dry"]


@record
class Attack:
    """A liner or material that the fluid harms, and how."""

    id: str
    reason: str


@record
class Fluid:
    """A fluid. Density in kg/m³ at `density_c` °C, `expansion` its fall for each °C as a share;
    `viscosities` are pairs of °C and mm²/s, the coldest first. `goes_back` says whether what was drained
    clean may go back in, `wets` what a hose is wetted with before it is pushed on (the fluid itself, engine
    oil, nothing), `seals` which seals it wants where that must not be mixed,
    `freezes_c` where it turns to ice (None: it does not in any line here)."""

    id: str
    name: str
    family: str
    density_kg_m3: Annotated[float, Gt(0)]
    density_c: float
    expansion: Annotated[float, Ge(0)]
    law: Literal["walther", "andrade"]
    viscosities: Annotated[tuple[tuple[float, float], ...], MinLen(2)]
    attacks: tuple[Attack, ...]
    source: Source
    gas: bool = False
    goes_back: bool = True
    wets: Wets = "own"
    freezes_c: float | None = None
    seals: Literal["", "glycol", "mineral", "silicone"] = ""


STANDARD_GRAVITY = 9.80665
"""In m/s². Source: ISO 80000-3, standard acceleration of free fall."""


def head_kpa(fluid: Fluid, head_mm: float) -> float:
    """What a column of a fluid presses at its foot, in kPa, at the temperature that its density is given for.

    Source: hydrostatics, ρ g h.
    """
    return fluid.density_kg_m3 * STANDARD_GRAVITY * head_mm * 1e-6


def density(fluid: Fluid, temperature_c: float) -> float:
    """kg/m³ at `temperature_c`; a gas by the gas law at the pressure of the air."""
    if fluid.gas:
        return fluid.density_kg_m3 * (fluid.density_c + KELVIN) / (temperature_c + KELVIN)
    return fluid.density_kg_m3 * (1 - fluid.expansion * (temperature_c - fluid.density_c))


def viscosity(fluid: Fluid, temperature_c: float) -> float:
    """Kinematic viscosity in mm²/s (cSt), carried on beyond the last given temperatures.

    Source: ASTM D341 (Walther): log log(ν + 0.7) falls straight over log T; for thin liquids
    Andrade's equation: ln ν runs straight over 1/T.
    """
    pairs = list(pairwise(fluid.viscosities))
    (cold_c, cold), (hot_c, hot) = next((p for p in pairs if temperature_c <= p[1][0]), pairs[-1])
    t, low, high = temperature_c + KELVIN, cold_c + KELVIN, hot_c + KELVIN
    if fluid.law == "andrade":
        share = (1 / t - 1 / low) / (1 / high - 1 / low)
        return exp(log(cold) + share * (log(hot) - log(cold)))
    share = (log10(t) - log10(low)) / (log10(high) - log10(low))
    first, last = log10(log10(cold + 0.7)), log10(log10(hot + 0.7))
    return float(10 ** (10 ** (first + share * (last - first))) - 0.7)
