"""End types and nuts."""

from __future__ import annotations

from dataclasses import replace
from math import radians, sin, tan
from typing import Annotated, Literal

from annotated_types import Ge, Gt

from bendrel.core.findings import Source
from bendrel.core.parts.single_use import ItemKind
from bendrel.core.record import record

FittingKind = Literal[
    "double", "single", "bulb", "compression", "bite", "nipple", "hose", "quick", "banjo", "stud", "plain"
]


@record
class NewPart:
    """Something that an end takes new each time. `ref` (what stock and prices call it) and `what` (its name
    in words) hold {thread}, {size}, {end}, {id} and {nut} for those of the end; `kind` is the removal log's
    word for the old one, None where it has none."""

    ref: str
    what: str
    count: Annotated[int, Ge(1)] = 1
    kind: ItemKind | None = None


@record
class Rating:
    """What a joint stands in every size that it is made in, in kPa."""

    kpa: Annotated[float, Gt(0)]
    source: Source


@record
class Fitting:
    """A way of ending a tube. Lengths in mm.

    `thread` is that of its nut, bolt or stud: a male one goes into the port, a female one over it.
    `half_angle_deg` is half the cone of a flare; `grip_mm` is the straight tube that the flaring
    tool holds behind the flare. `new_parts` are what each such end takes new; `closing` is the school that
    says how it is closed, "" where nobody disagrees. `strong_as_tube` says that the joint is as strong as
    the tube where the catalogue has its size; `beaded` that the tube itself is pressed out to a bead;
    `rated` is what one that uses no tube stands whatever its size;
    `highest_c` is what its seals stand, None where they stand what the tube does; `formed` is how an end on
    which a hose goes is finished at the bench, `formed_there` on a tube that stays on the machine.
    """

    id: str
    name: str
    kind: FittingKind
    thread: Literal["male", "female", "none"]
    half_angle_deg: float | None
    grip_mm: Annotated[float, Ge(0)]
    seals: str
    source: Source
    new_parts: tuple[NewPart, ...] = ()
    closing: Literal["", "sleeve", "sealant"] = ""
    strong_as_tube: bool = False
    beaded: bool = False
    rated: Rating | None = None
    highest_c: float | None = None
    formed: str = ""
    formed_there: str = ""

    def renewed(self, nut: Nut | None, size: str, thread: str = "") -> tuple[NewPart, ...]:
        """What the end takes new each time, named for its `nut` (or `thread`) and tube `size`."""
        words = {
            "thread": nut.thread if nut is not None else thread or "its thread",
            "nut": nut.id if nut is not None else self.id,
            "size": size or "its size",
            "end": self.name,
            "id": self.id,
        }
        return tuple(
            replace(part, ref=part.ref.format(**words), what=part.what.format(**words))
            for part in self.new_parts
        )

    @property
    def flared(self) -> bool:
        """The tube itself is formed to a flare."""
        return self.kind in ("double", "single", "bulb")

    @property
    def comes_finished(self) -> bool:
        """Tube is sold with this end on it: flared, beaded, or with a latch, an eye or a stud."""
        return self.kind not in ("plain", "compression", "bite")

    @property
    def takes_hose(self) -> bool:
        """A hose goes over it and is clamped there."""
        return self.kind in ("hose", "plain")

    @property
    def loose_nut(self) -> bool:
        """A nut slides on the tube and must be on before the end is finished."""
        return self.flared or self.kind in ("compression", "bite", "nipple")

    @property
    def brazed(self) -> bool:
        """A part is brazed to the tube: an eye, a stud or a nipple."""
        return self.kind in ("banjo", "stud", "nipple")

    @property
    def screwed(self) -> bool:
        """The end has a thread of its own: a nut, a banjo bolt or a stud."""
        return self.thread != "none"


@record
class Flarer:
    """A flaring tool: where it is used, which kinds of end it forms, and the straight tube (mm) that it
    holds behind the flare."""

    id: str
    name: str
    use: Literal["bench", "on the machine"]
    forms: tuple[FittingKind, ...]
    grip_mm: Annotated[float, Ge(0)]
    source: Source


@record
class EndSize:
    """What one tube size needs for one end type. `used_mm` is given for a bulb or bead (tube the tool
    uses up) and a sleeve end (insertion to the stop); a flare's is computed from
    `flare_diameter_mm`. `rated_kpa` is the allowed pressure of the joint, None where it is not known."""

    fitting: str
    size: str
    flare_diameter_mm: Annotated[float, Gt(0)] | None
    used_mm: Annotated[float, Ge(0)] | None
    length_mm: Annotated[float, Ge(0)]
    rated_kpa: Annotated[float, Gt(0)] | None
    source: Source


@record
class Nut:
    """A tube nut, banjo bolt or stud: its thread by designation, its length, its hex across flats
    and the end type it is made for."""

    id: str
    fitting: str
    size: str
    thread: str
    length_mm: Annotated[float, Gt(0)]
    hex_mm: Annotated[float, Gt(0)]
    source: Source


@record
class Torque:
    """How far a joint is tightened, in N·m, by its end type, its thread and what its tube is of: materials or
    their families, by id, in one cell; None where the tube is not what is squeezed."""

    id: str
    fitting: str
    thread: str
    tubes: str | None
    least_nm: Annotated[float, Gt(0)]
    most_nm: Annotated[float, Gt(0)]
    source: Source


def single_flare_use(od_mm: float, flare_diameter_mm: float, half_angle_deg: float) -> float:
    """Tube used by one single flare, in mm: x/sin β − x/tan β with x = (F − D)/2.

    Source: slant geometry of the cone.

    >>> round(single_flare_use(6, 10, 45), 3)  # 2·√2 − 2
    0.828
    """
    x = (flare_diameter_mm - od_mm) / 2
    beta = radians(half_angle_deg)
    return x / sin(beta) - x / tan(beta)


def double_flare_use(od_mm: float, flare_diameter_mm: float, half_angle_deg: float) -> float:
    """Tube used by one double (folded) flare, in mm: 2x/sin β − x/tan β with x = (F − D)/2.

    Source: slant geometry of the folded cone; both layers are taken from the tube, the axial
    height of the cone is given back.

    >>> round(double_flare_use(6, 10, 45), 3)  # 4·√2 − 2
    3.657
    """
    x = (flare_diameter_mm - od_mm) / 2
    beta = radians(half_angle_deg)
    return 2 * x / sin(beta) - x / tan(beta)
