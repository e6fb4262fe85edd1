"""A vacuum that is kept in a reservoir: how many strokes it gives, and how long it holds."""

from __future__ import annotations

from math import inf

import numpy as np

from bendrel.core.flow.nozzle import inflow
from bendrel.core.parts.fluid import ATMOSPHERE_KPA

_MOST_STROKES = 10_000


def strokes(
    volume_ml: float, vacuum_kpa: float, stroke_ml: float, least_kpa: float, dead_ml: float = 0.0
) -> int:
    """Strokes of an actuator that a reservoir of `volume_ml` gives with its source off, beginning at
    `vacuum_kpa` below the air: a stroke is complete while `least_kpa` of vacuum is left behind it.
    `dead_ml` is the air in hose and actuator that each stroke takes besides. At most 10,000.

    Source: isothermal air, p(n+1) = (p(n)·V + p_air·(v + v_d)) / (V + v_d).

    >>> strokes(1000, 60, 100, 40)  # each takes 10.13 kPa of the vacuum: 49.9, then 39.7
    1
    """
    pressure, count = ATMOSPHERE_KPA - vacuum_kpa, 0
    while count < _MOST_STROKES:
        pressure = (pressure * volume_ml + ATMOSPHERE_KPA * (stroke_ml + dead_ml)) / (volume_ml + dead_ml)
        if ATMOSPHERE_KPA - pressure < least_kpa:
            break
        count += 1
    return count


def held_minutes(vacuum_kpa: float, least_kpa: float, leak_kpa_min: float) -> float:
    """Minutes until a vacuum has fallen from `vacuum_kpa` to `least_kpa`, losing `leak_kpa_min` kPa a
    minute while the inflow is choked; inf without a leak, 0 where it is not there to begin with.

    Source: air through a sharp hole, the leak that lets the most in where the flow is no longer choked: of
    what is known of a leak, the least time.

    >>> held_minutes(60, 40, 0.0)
    inf
    """
    if vacuum_kpa <= least_kpa:
        return 0.0
    if leak_kpa_min <= 0 or least_kpa <= 0:
        return inf
    time, share, _ = inflow()
    begins, ends = (1 - below / ATMOSPHERE_KPA for below in (vacuum_kpa, least_kpa))
    took = float(np.interp(ends, share, time) - np.interp(begins, share, time))
    return took * ATMOSPHERE_KPA / leak_kpa_min
