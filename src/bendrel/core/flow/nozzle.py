"""Air through a sharp hole, and how the pressure in a closed volume behind it changes.

Source: isentropic nozzle flow, κ 1.4, choked below 0.528 of the pressure before the hole; isothermal inside.
"""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

CHOKED = 0.528
"""Share of the pressure before a hole below which the flow is as fast as it ever can be."""
_KAPPA = 1.4


def flow_share(ratio: Floats) -> Floats:
    """Mass flow as a share of the choked one, by the ratio of the pressure behind the hole to the one before
    it (0 to 1)."""
    ratio = np.clip(ratio, CHOKED, 1.0)
    psi = np.sqrt(np.maximum(ratio ** (2 / _KAPPA) - ratio ** ((_KAPPA + 1) / _KAPPA), 0.0))
    most = np.sqrt(CHOKED ** (2 / _KAPPA) - CHOKED ** ((_KAPPA + 1) / _KAPPA))
    return np.asarray(np.minimum(psi / most, 1.0))


@cache
def inflow() -> tuple[Floats, Floats, Floats]:
    """Time, pressure as a share of the air's and its slope, of a volume that air flows into from nothing on;
    time runs so that the choked slope is 1."""
    # the last bit is walked in ever smaller steps: the slope goes to nothing at the air's pressure
    x = np.concatenate([np.linspace(0.0, CHOKED, 50), 1 - np.geomspace(1 - CHOKED, 1e-9, 4000)[1:]])
    slope = flow_share(x)
    return _timed(x, slope), x, slope


@cache
def outflow() -> tuple[Floats, Floats, Floats]:
    """The same of a volume that is let go from 2,000 times the air's pressure."""
    x = np.concatenate(
        [np.geomspace(2000.0, 1 / CHOKED, 2000), 1 + np.geomspace(1 / CHOKED - 1, 1e-9, 4000)[1:]]
    )
    slope = -x * flow_share(1 / x)
    return _timed(x, slope), x, slope


def _timed(x: Floats, slope: Floats) -> Floats:
    middle = (slope[1:] + slope[:-1]) / 2
    return np.concatenate([[0.0], np.cumsum(np.diff(x) / middle)])
