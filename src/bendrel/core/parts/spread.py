"""How exactly a hand works at every bend."""

from __future__ import annotations

from bendrel.core.record import record


@record
class Spread:
    """One standard deviation of what a hand does at every bend: `straight_mm` of where it lands,
    `angle_deg` and `rotation_deg`. `readings` is how many as-built readings of this shop are in it
    (0: common practice)."""

    straight_mm: float
    angle_deg: float
    rotation_deg: float
    readings: int
