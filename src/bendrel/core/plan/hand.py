"""How exactly this shop bends: what is common, and what it read off its own parts."""

from __future__ import annotations

from collections.abc import Iterable
from math import sqrt

from bendrel.core.fitup.exactness import Spread
from bendrel.core.plan.kit import Kit

COMMON, SLIP = 6, 10.0
"""What is common counts as so many readings; a reading further off than this is a slip and no spread."""


def spread_of(kit: Kit, departures: Iterable[tuple[str, float]]) -> Spread:
    """The shop's spread: what is common, as if it were six readings, and its own readings.

    A reading more than ten millimetres or degrees off is a slip and no spread.
    """
    usual = {"leg": "straight_mm", "angle": "angle_deg", "plane": "rotation_deg"}
    start = {name: kit.limits[f"spread_{field}"].value for name, field in usual.items()}
    told: dict[str, list[float]] = {name: [] for name in usual}
    for name, off in departures:
        if name in told and abs(off) <= SLIP:
            told[name].append(off)
    sd = {
        name: sqrt((COMMON * start[name] ** 2 + sum(v * v for v in own)) / (COMMON + len(own)))
        for name, own in told.items()
    }
    return Spread(
        straight_mm=sd["leg"],
        angle_deg=sd["angle"],
        rotation_deg=sd["plane"],
        radius_mm=0.0,
        readings=sum(len(own) for own in told.values()),
    )
