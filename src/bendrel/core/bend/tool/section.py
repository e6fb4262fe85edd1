"""What a bend does to the tube's section: walls, flattening, and whether it kinks."""

from __future__ import annotations

from bendrel.core.record import record


@record
class Section:
    """The section in the middle of a bend. Walls in mm; `flat` is (greatest − least outside) over the
    nominal outside diameter; `hardness` is (D/t)/(R/D), by which hand bending without a filling gets
    difficult."""

    back_mm: float
    inside_mm: float
    strain: float
    flat: float
    hardness: float
    radius_per_od: float


def section_after(
    od_mm: float, wall_mm: float, radius_mm: float, *, flattens: float, coefficient: float
) -> Section:
    """Section after a bend of `radius_mm` in a tool that flattens `flattens` times as much as a closed
    die does.

    Back wall t·R/(R + D/2), inside wall t·R/(R − D/2), strain of the back (D/2)/R: the neutral axis
    on the centreline. Flattening = coefficient · (D/t)/(R/D) · flattens. Source: walls and strain
    derived; flattening from memory of how it goes with wall and radius, its coefficient in the rules.
    Raises ValueError where the radius is not more than half the outside diameter.

    >>> bent = section_after(10, 1, 30, flattens=1, coefficient=0.01)
    >>> round(bent.back_mm, 3), bent.inside_mm, round(bent.strain, 3)  # 30/35, 30/25, 5/30
    (0.857, 1.2, 0.167)
    """
    half = od_mm / 2
    if radius_mm <= half:
        raise ValueError(f"A radius of {radius_mm:g} mm is inside the tube itself ({half:g} mm).")
    hardness = (od_mm / wall_mm) / (radius_mm / od_mm)
    return Section(
        back_mm=wall_mm * radius_mm / (radius_mm + half),
        inside_mm=wall_mm * radius_mm / (radius_mm - half),
        strain=half / radius_mm,
        flat=coefficient * hardness * flattens,
        hardness=hardness,
        radius_per_od=radius_mm / od_mm,
    )
