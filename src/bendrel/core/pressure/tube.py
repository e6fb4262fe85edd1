"""Burst and allowed pressure of a bent tube."""

from __future__ import annotations

from itertools import pairwise

from bendrel.core.record import record
from bendrel.core.tube.material import Material, Tube


@record
class TubeStrength:
    """Pressures in kPa at the governing place. `wall_mm` is the least wall of the straight tube by
    tolerance, `bend_share` what a bend leaves of its pressure (1 where it is straight), `share` the
    strength left at the temperature, None above the last temperature that the material is used at; the
    pressures are then None too."""

    wall_mm: float
    bend_share: float
    share: float | None
    burst_kpa: float | None
    allowed_kpa: float | None
    thick_wall_kpa: float | None


def barlow_kpa(stress_mpa: float, wall_mm: float, od_mm: float) -> float:
    """P = 2·S·t/D in kPa, with the outside diameter. Source: Barlow's formula."""
    return 2000 * stress_mpa * wall_mm / od_mm


def lame_kpa(stress_mpa: float, wall_mm: float, od_mm: float) -> float:
    """P = S·(D² − d²)/(D² + d²) in kPa: hoop stress at the bore of a thick wall. Source: Lamé.

    Always higher than Barlow's figure with the outside diameter; shown, never used."""
    outer, inner = od_mm**2, (od_mm - 2 * wall_mm) ** 2
    return 1000 * stress_mpa * (outer - inner) / (outer + inner)


def bend_share(od_mm: float, radius_mm: float) -> float:
    """Share of a straight tube's pressure that its bend of `radius_mm` stands: 2R/(2R + D/2).

    Source: ASME B31.3 304.2.1, the hoop stress on the outside is that of the straight tube times
    (4R/D + 1)/(4R/D + 2), on the wall that constant volume leaves there. The inside, thicker by
    R/(R − D/2) and stressed (4R/D − 1)/(4R/D − 2) times, never governs. R over D/2.
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
    tube: Tube, material: Material, *, radius_mm: float | None, temperature_c: float, factor: float
) -> TubeStrength:
    """Strength where the tube is bent to `radius_mm` (None: straight), at `temperature_c`, with the
    design `factor` on the ultimate strength.

    Source: Barlow with the least wall by tolerance; the bend by `bend_share`.
    """
    wall = tube.wall_mm * material.wall_share
    bent = 1.0 if radius_mm is None else bend_share(tube.od_mm, radius_mm)
    share = derating(material, temperature_c)
    if share is None:
        return TubeStrength(
            wall_mm=wall,
            bend_share=bent,
            share=None,
            burst_kpa=None,
            allowed_kpa=None,
            thick_wall_kpa=None,
        )
    stress = material.ultimate_mpa * share
    burst = barlow_kpa(stress, wall, tube.od_mm) * bent
    return TubeStrength(
        wall_mm=wall,
        bend_share=bent,
        share=share,
        burst_kpa=burst,
        allowed_kpa=burst / factor,
        thick_wall_kpa=lame_kpa(stress, wall, tube.od_mm) * bent,
    )
