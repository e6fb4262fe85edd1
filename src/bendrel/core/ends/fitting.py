"""End types and nuts."""

from __future__ import annotations

from math import radians, sin, tan
from typing import Annotated, Literal

from annotated_types import Ge, Gt

from bendrel.core.findings import Source
from bendrel.core.record import record

FittingKind = Literal["double", "bulb", "compression", "plain"]


@record
class Fitting:
    """A way of ending a tube. Lengths in mm.

    `half_angle_deg` is half the cone of a flare; `grip_mm` is the straight tube that the flaring
    tool holds behind the flare.
    """

    id: str
    name: str
    kind: FittingKind
    half_angle_deg: float | None
    grip_mm: Annotated[float, Ge(0)]
    source: Source


@record
class FlareSize:
    """What one tube size needs for one end type. `used_mm` is given for a bulb (tube the tool
    uses up) and a compression end (insertion to the stop); a flare's is computed from
    `flare_diameter_mm`."""

    fitting: str
    size: str
    flare_diameter_mm: Annotated[float, Gt(0)] | None
    used_mm: Annotated[float, Ge(0)] | None
    length_mm: Annotated[float, Ge(0)]
    source: Source


@record
class Nut:
    """A tube nut: its thread by designation, its length and the end type it is made for."""

    id: str
    fitting: str
    size: str
    thread: str
    length_mm: Annotated[float, Gt(0)]
    hex_mm: Annotated[float, Gt(0)]
    source: Source


def double_flare_use(od_mm: float, flare_diameter_mm: float, half_angle_deg: float) -> float:
    """Tube used by one double (folded) flare, in mm: 2x/sin β − x/tan β with x = (F − D)/2.

    Source: slant geometry of the folded cone; both layers are taken from the tube, the axial
    height of the cone is given back.
    """
    x = (flare_diameter_mm - od_mm) / 2
    beta = radians(half_angle_deg)
    return 2 * x / sin(beta) - x / tan(beta)
