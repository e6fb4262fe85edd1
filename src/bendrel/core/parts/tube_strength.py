"""Burst and allowed pressure of a bent tube."""

from __future__ import annotations

from itertools import pairwise
from typing import Literal

from bendrel.core.parts.tube import Material, Tube
from bendrel.core.record import record

_SLACK_KPA = 1e-6
_WHOLE_FROM_OD = 3.0
"""The radius, in diameters, from which a standard's rating of straight tube holds for its bends."""

RatedBy = Literal["piping", "tube standard", "law"]


@record
class TubeStrength:
    """Pressures in kPa at the governing place, by one of three ways (`by`). `wall_mm` is the wall that was
    reckoned with, `bend_share` what a bend leaves of its pressure (1 where it is straight), `share` the
    strength left at the temperature, None above the last temperature that the material is used at; the
    pressures are then None too. `other_kpa` is what the formula that is not used allows, for information;
    None where a law rates it, which says no burst pressure either."""

    by: RatedBy
    wall_mm: float
    bend_share: float
    share: float | None
    burst_kpa: float | None
    allowed_kpa: float | None
    other_kpa: float | None

    def holds(self, working_kpa: float, test_kpa: float) -> bool:
        """It stands the working pressure, and does not burst at its test."""
        if self.allowed_kpa is None or self.allowed_kpa < working_kpa - _SLACK_KPA:
            return False
        return self.by == "law" or (self.burst_kpa is not None and self.burst_kpa >= test_kpa)


def barlow_kpa(stress_mpa: float, wall_mm: float, od_mm: float) -> float:
    """P = 2·S·t/D in kPa, with the outside diameter. Source: Barlow's formula.

    >>> barlow_kpa(100, 1, 10)
    20000.0
    """
    return 2000 * stress_mpa * wall_mm / od_mm


def lame_kpa(stress_mpa: float, wall_mm: float, od_mm: float) -> float:
    """P = S·(D² − d²)/(D² + d²) in kPa: hoop stress at the bore of a thick wall. Source: Lamé.

    Always higher than Barlow's figure with the outside diameter.

    >>> round(lame_kpa(100, 1, 10))  # 36/164 of the stress
    21951
    """
    outer, inner = od_mm**2, (od_mm - 2 * wall_mm) ** 2
    return 1000 * stress_mpa * (outer - inner) / (outer + inner)


def bend_share(od_mm: float, radius_mm: float) -> float:
    """Share of a straight tube's pressure that its bend of `radius_mm` stands: 2R/(2R + D/2).

    Source: ASME B31.3 304.2.1, the hoop stress on the outside is that of the straight tube times
    (4R/D + 1)/(4R/D + 2), on the wall that constant volume leaves there. The inside, thicker by
    R/(R − D/2) and stressed (4R/D − 1)/(4R/D − 2) times, never governs. R over D/2.

    >>> round(bend_share(10, 30), 3)  # 60/65
    0.923
    """
    return 2 * radius_mm / (2 * radius_mm + od_mm / 2)


def derating(material: Material, temperature_c: float) -> float | None:
    """Share of the strength left at `temperature_c`; None above the last one given. Source: the
    material's own row, straight lines between its figures."""
    points = material.derating
    if temperature_c <= points[0][0]:
        return points[0][1]
    for (low, first), (high, last) in pairwise(points):
        if temperature_c <= high:
            return first + (last - first) * (temperature_c - low) / (high - low)
    return None


def tube_strength(
    tube: Tube,
    material: Material,
    *,
    radius_mm: float | None,
    temperature_c: float,
    factor: float,
    family: str = "",
) -> TubeStrength:
    """Strength where the tube is bent to `radius_mm` (None: straight), at `temperature_c`, with the
    design `factor` on the ultimate strength, carrying a fluid of `family`.

    Source: the law that the tube is sold under for that fluid; else, for tube that has a standard of its own,
    Lamé on the nominal wall, which a bend of three diameters and more leaves whole (common practice); else
    Barlow with the least wall by tolerance, and the bend by `bend_share`.
    """
    bent = 1.0 if radius_mm is None else bend_share(tube.od_mm, radius_mm)
    if tube.law is not None and tube.law.family == family:
        cool = temperature_c <= tube.law.highest_c
        return TubeStrength(
            by="law",
            wall_mm=tube.wall_mm,
            bend_share=1.0,
            share=1.0 if cool else None,
            burst_kpa=None,
            allowed_kpa=tube.law.kpa if cool else None,
            other_kpa=None,
        )
    share = derating(material, temperature_c)
    least = tube.wall_mm * material.wall_share
    rated = material.tube_standard is not None
    if share is None:
        return TubeStrength(
            by="tube standard" if rated else "piping",
            wall_mm=tube.wall_mm if rated else least,
            bend_share=bent,
            share=None,
            burst_kpa=None,
            allowed_kpa=None,
            other_kpa=None,
        )
    stress = material.ultimate_mpa * share
    piping = barlow_kpa(stress, least, tube.od_mm) * bent
    if not rated:
        return TubeStrength(
            by="piping",
            wall_mm=least,
            bend_share=bent,
            share=share,
            burst_kpa=piping,
            allowed_kpa=piping / factor,
            other_kpa=lame_kpa(stress, least, tube.od_mm) * bent / factor,
        )
    tighter = min(1.0, bent / bend_share(tube.od_mm, _WHOLE_FROM_OD * tube.od_mm))
    burst = lame_kpa(stress, tube.wall_mm, tube.od_mm) * tighter
    return TubeStrength(
        by="tube standard",
        wall_mm=tube.wall_mm,
        bend_share=tighter,
        share=share,
        burst_kpa=burst,
        allowed_kpa=burst / factor,
        other_kpa=piping / factor,
    )
