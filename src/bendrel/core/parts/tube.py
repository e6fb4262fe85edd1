"""Tube materials and sizes."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Gt, Le

from bendrel.core.findings import Source
from bendrel.core.record import record

Bending = Literal["by hand", "hand bender", "bench bender", "over a form, warm"]
Flaring = Literal["easy", "with care", "hard", "not at all"]


@record
class Material:
    """A tube material. Stresses in MPa; `elongation` as a fraction at break; density in kg/m³.

    `wall_share` is the least wall by tolerance as a share of the nominal one. `derating` are pairs
    of temperature in °C and the share of the strength left there. `anodic_v` is the anodic index.
    `bends` and `flares` say how it is worked.

    `least_radius_per_od` is the tightest centreline radius by hand tools, as a multiple of the
    outside diameter. `tweaks_in_place` says whether a fitted line can still be bent a little; one that
    cannot may still be closed by hand over bends of `closes_from_radius_per_od` diameters and more
    (0: never), and twisted by hand up to an outside diameter of `twists_up_to_mm` (0: never) where the
    shop does so. `beads` says that a bead can be formed in it. `tube_standard` is the standard of tube
    that is rated as a whole by the thick-wall formula, none where it is reckoned as piping.
    """

    id: str
    name: str
    family: str
    yield_mpa: Annotated[float, Gt(0)]
    ultimate_mpa: Annotated[float, Gt(0)]
    modulus_mpa: Annotated[float, Gt(0)]
    elongation: Annotated[float, Gt(0)]
    density_kg_m3: Annotated[float, Gt(0)]
    wall_share: Annotated[float, Gt(0), Le(1)]
    derating: tuple[tuple[float, float], ...]
    anodic_v: float
    least_radius_per_od: Annotated[float, Gt(0)]
    bends: Bending
    flares: Flaring
    tweaks_in_place: bool
    double_flare: bool
    source: Source
    strength_source: Source
    limits_source: Source
    closes_from_radius_per_od: float = 0.0
    twists_up_to_mm: float = 0.0
    beads: bool = True
    tube_standard: Source | None = None


@record
class TubeLaw:
    """What a tube is sold for in one use, carrying a fluid of `family`: to which working pressure in kPa and
    which heat in °C."""

    family: str
    kpa: Annotated[float, Gt(0)]
    highest_c: float
    source: Source


@record
class Tube:
    """One size of one material. `size` is the name the trade says, such as 3/16 in; `law` is the one that it
    is sold under for one use, where there is one."""

    id: str
    material: str
    size: str
    od_mm: Annotated[float, Gt(0)]
    wall_mm: Annotated[float, Gt(0)]
    source: Source
    law: TubeLaw | None = None

    @property
    def bore_mm(self) -> float:
        """Inside diameter."""
        return self.od_mm - 2 * self.wall_mm


def outer_strain(od_mm: float, radius_mm: float) -> float:
    """Strain of the outermost fibre after bending: (D/2)/R. Source: beam theory, neutral axis
    on the centreline.

    >>> outer_strain(10, 20)
    0.25
    """
    return od_mm / 2 / radius_mm
