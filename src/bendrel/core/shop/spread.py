"""How exactly this shop bends: what is common, and what it read off its own parts."""

from __future__ import annotations

from collections.abc import Iterable
from math import sqrt

from bendrel.core.fitup.exactness import Spread
from bendrel.core.shop.kit import Kit


def spread_of(kit: Kit, departures: Iterable[tuple[str, float]]) -> Spread:
    """The shop's spread: what is common, as if it were a few readings, and its own readings.

    A reading that is far off is a slip and no spread; `departures` are (angle, plane or leg, mm or degrees).
    Source: pooled variance, the common values weighing `spread_counts`.
    """
    common, slip = kit.limits["spread_counts"].value, kit.limits["slip_off"].value
    usual = {"leg": "straight_mm", "angle": "angle_deg", "plane": "rotation_deg"}
    start = {name: kit.limits[f"spread_{field}"].value for name, field in usual.items()}
    told: dict[str, list[float]] = {name: [] for name in usual}
    for name, off in departures:
        if name in told and abs(off) <= slip:
            told[name].append(off)
    sd = {
        name: sqrt((common * start[name] ** 2 + sum(v * v for v in own)) / (common + len(own)))
        for name, own in told.items()
    }
    return Spread(
        straight_mm=sd["leg"],
        angle_deg=sd["angle"],
        rotation_deg=sd["plane"],
        radius_mm=0.0,
        readings=sum(len(own) for own in told.values()),
    )
