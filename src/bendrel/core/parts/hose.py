"""Hose by class and size, and clamps by kind and range."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Gt

from bendrel.core.findings import Source
from bendrel.core.record import record

RadiusAt = Literal["inside", "centreline"]
ClampKindId = Literal["worm", "spring", "pinch", "injection"]


@record
class HoseClass:
    """A kind of hose: its liner, the temperatures in °C and fluid families it is made for, and the
    clamps that suit it; none where its ends are crimped or `reusable`, put on by hand. `law` is what a
    made-up one is sold under where that is no working pressure. `radius_at` says where the least bend radius
    of its sizes is measured; `cover` is what is seen of it: rubber, or the bare braid."""

    id: str
    name: str
    liner: str
    lowest_c: float
    highest_c: float
    families: tuple[str, ...]
    clamps: tuple[ClampKindId, ...]
    source: Source
    law: str = ""
    reusable: bool = False
    radius_at: RadiusAt = "inside"
    cover: Literal["rubber", "braid"] = "rubber"

    def least_radius_mm(self, hose: Hose) -> float:
        """Least radius of the centreline of one of its sizes, in mm."""
        return hose.least_radius_mm + (hose.od_mm / 2 if self.radius_at == "inside" else 0.0)


@record
class Hose:
    """One size of one class. Lengths in mm, working pressure in kPa, None where none is published.
    `overlap_mm` is how far its maker wants it pushed on, None where nobody says."""

    id: str
    hose_class: str
    size: str
    id_mm: Annotated[float, Gt(0)]
    od_mm: Annotated[float, Gt(0)]
    pressure_kpa: Annotated[float, Gt(0)] | None
    least_radius_mm: Annotated[float, Gt(0)]
    overlap_mm: Annotated[float, Gt(0)] | None
    source: Source


@record
class ClampKind:
    """A kind of clamp, what its people say of it, what closes it, how far, and what is done about it `again`
    once the hose has settled."""

    id: ClampKindId
    name: str
    text: str
    driver: str
    tight: str
    again: str
    source: Source


@record
class Clamp:
    """One clamp: the diameters it grips, from closed to open, and its width, in mm."""

    id: str
    kind: ClampKindId
    name: str
    closed_mm: Annotated[float, Gt(0)]
    open_mm: Annotated[float, Gt(0)]
    width_mm: Annotated[float, Gt(0)]
    source: Source
