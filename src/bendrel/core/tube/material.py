"""Tube materials and sizes."""

from __future__ import annotations

from typing import Annotated

from annotated_types import Gt

from bendrel.core.findings import Source
from bendrel.core.record import record


@record
class Material:
    """A tube material. Stresses in MPa; `elongation` as a fraction at break.

    `least_radius_per_od` is the tightest centreline radius by hand tools, as a multiple of the
    outside diameter. `tweaks_in_place` says whether a fitted line can still be bent a little.
    """

    id: str
    name: str
    yield_mpa: Annotated[float, Gt(0)]
    modulus_mpa: Annotated[float, Gt(0)]
    elongation: Annotated[float, Gt(0)]
    least_radius_per_od: Annotated[float, Gt(0)]
    tweaks_in_place: bool
    double_flare: bool
    source: Source
    limits_source: Source


@record
class Tube:
    """One size of one material. `size` is the name the trade says, such as 3/16 in."""

    id: str
    material: str
    size: str
    od_mm: Annotated[float, Gt(0)]
    wall_mm: Annotated[float, Gt(0)]
    source: Source

    @property
    def bore_mm(self) -> float:
        """Inside diameter."""
        return self.od_mm - 2 * self.wall_mm


def outer_strain(od_mm: float, radius_mm: float) -> float:
    """Strain of the outermost fibre after bending: (D/2)/R. Source: beam theory, neutral axis
    on the centreline."""
    return od_mm / 2 / radius_mm
