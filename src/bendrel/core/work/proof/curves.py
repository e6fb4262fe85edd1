"""How the pressure in a closed volume goes towards that of the air, by the kind of leak.

Every curve takes times (s, from the first reading), the pressure at time 0 (kPa, absolute), the slope there
(kPa/s, either sign) and the air's pressure (kPa), and gives pressures of the same shape as the times.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from bendrel.core.flow.nozzle import CHOKED, Floats, inflow, outflow
from bendrel.core.parts.proving import HoldKind

Curve = Callable[[Floats, float, float, float], Floats]

_EXPONENT_LIMIT = 60.0


def steady(t: Floats, start: float, slope: float, air: float) -> Floats:
    """A loss that does not depend on the pressure, until there is none left."""
    return _not_beyond_air(start + slope * t, start, air)


def towards_air(t: Floats, start: float, slope: float, air: float) -> Floats:
    """Laminar flow through a fine path, p = p_air − (p_air − p_0)·e^(−t/τ) with τ = (p_air − p_0)/slope.
    Source: first-order leak."""
    left = air - start
    if abs(left) < 1e-9:
        return np.full_like(t, start)
    return air - left * np.exp(np.clip(-slope * t / left, -_EXPONENT_LIMIT, _EXPONENT_LIMIT))


def choked_then_air(t: Floats, start: float, slope: float, air: float) -> Floats:
    """A vacuum that rises steadily while the inflow is choked, then exponentially with the same slope where
    the two meet. Source: first-order leak, choked below 0.528 of the air's pressure."""
    meets = CHOKED * air
    if start >= meets or slope <= 0:
        return towards_air(t, start, slope, air) if start >= meets else start + slope * t
    when = (meets - start) / slope
    return np.where(t <= when, start + slope * t, towards_air(t - when, meets, slope, air))


def orifice_in(t: Floats, start: float, slope: float, air: float) -> Floats:
    """Air through a sharp hole into a vacuum, choked below 0.528 of the air's pressure, isothermal inside.
    Source: isentropic nozzle flow, κ 1.4, integrated."""
    if start >= air:
        return towards_air(t, start, slope, air)
    return air * _along(*inflow(), t, start / air, slope / air)


def orifice_out(t: Floats, start: float, slope: float, air: float) -> Floats:
    """Gas through a sharp hole into the air, choked above 1.89 of the air's pressure, isothermal inside.
    Source: isentropic nozzle flow, κ 1.4, integrated."""
    if start <= air:
        return towards_air(t, start, slope, air)
    return air * _along(*outflow(), t, start / air, slope / air)


def orifice_liquid(t: Floats, start: float, slope: float, air: float) -> Floats:
    """Liquid through a sharp hole, flow with the root of what stands above the air. Source: Torricelli on a
    volume of constant stiffness."""
    over = start - air
    if over <= 0:
        return np.full_like(t, start)
    root = np.maximum(1 + slope * t / (2 * over), 0.0)
    return air + over * root**2


FAMILIES: dict[HoldKind, tuple[Curve, ...]] = {
    "vacuum": (orifice_in, towards_air, choked_then_air),
    "gas": (orifice_out, towards_air, steady),
    "liquid": (orifice_liquid, towards_air, steady),
}
"""Kinds of leak, the one first that is taken where nothing tells them apart."""


def _not_beyond_air(pressures: Floats, start: float, air: float) -> Floats:
    return np.maximum(pressures, air) if start > air else np.minimum(pressures, air)


def _along(time: Floats, x: Floats, slopes: Floats, t: Floats, start: float, slope: float) -> Floats:
    """The standard curve gone through from `start` at the speed that gives it `slope` there."""
    order = slice(None) if x[-1] > x[0] else slice(None, None, -1)
    begin = float(np.interp(start, x[order], time[order]))
    here = float(np.interp(start, x[order], slopes[order]))
    speed = slope / here if abs(here) > 1e-9 else 0.0
    if speed < 0:
        return start + slope * t  # a pressure that goes the other way is no leak; any curve will do
    return np.interp(begin + speed * t, time, x)
