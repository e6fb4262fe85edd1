"""How a flare is made: its steps by kind of end, how right and wrong ones look, how wide it ought to be."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal

from annotated_types import Gt

from bendrel.core.findings import EndName, Source
from bendrel.core.geometry.flare import FlareShape, Stroke
from bendrel.core.parts.fitting import FittingKind
from bendrel.core.record import record

FlaringStep = Literal[
    "tool", "nut", "ready", "out-shoulder", "out-stop", "out-level", "clamp", "oil",
    "first", "second", "cone", "bulb", "stubborn", "measure",
]  # fmt: skip


@record
class FlaringRow:
    """One step of flaring, for some kinds of end and some families of material (all where there are none)."""

    id: FlaringStep
    forms: tuple[FittingKind, ...]
    text: str
    why: str
    source: Source
    families: tuple[str, ...] = ()


@record
class FlarePictureRow:
    """What is seen after one of some steps: `right` or not. `size` is the share of its widening that it has,
    `other_side` the share of that on its worse side, `split` that the rim is torn."""

    id: str
    forms: tuple[FittingKind, ...]
    after: tuple[FlaringStep, ...]
    right: bool
    shape: FlareShape
    text: str
    source: Source
    size: Annotated[float, Gt(0)] = 1.0
    other_side: Annotated[float, Gt(0)] = 1.0
    split: bool = False


@record
class FlareRange:
    """How wide a flare is to be across its rim, in mm, for one end type and tube size."""

    fitting: str
    size: str
    least_mm: Annotated[float, Gt(0)]
    most_mm: Annotated[float, Gt(0)]
    source: Source


@record
class FlaringRules:
    """All of it. `behind_mm` is what is cut off behind a flare that failed. A bulb is drawn `bulb_per_od`
    times as wide as its tube, a fold without a cone of its own with half a cone of `cone_deg`."""

    steps: tuple[FlaringRow, ...]
    pictures: tuple[FlarePictureRow, ...]
    ranges: Mapping[tuple[str, str], FlareRange]
    behind_mm: float
    bulb_per_od: float
    cone_deg: float


@record
class FlarePicture:
    """A cut through an end, in mm: the middle of its wall above and below the axis, the rim at x = 0 and the
    tube towards −x; `cracks` are short strokes across the wall."""

    id: str
    right: bool
    text: str
    strokes: tuple[Stroke, ...]
    cracks: tuple[Stroke, ...]


@record
class FlaringTold:
    """One step in words, with what it ought to look like after it."""

    id: FlaringStep
    text: str
    why: str
    pictures: tuple[FlarePicture, ...]


@record
class Flaring:
    """How one end is flared. `least_mm` and `most_mm` are how wide it is to be across, None where no range is
    known; `lost_mm` is what one that fails costs of the tube's length, `spare_mm` what is on the tube for it
    and `failures` how often it may fail before there is no straight left to hold (None where nothing bends
    behind it). `od_mm` and `wall_mm` are those of the tube."""

    end: EndName
    steps: tuple[FlaringTold, ...]
    od_mm: float
    wall_mm: float
    least_mm: float | None
    most_mm: float | None
    lost_mm: float
    spare_mm: float
    failures: int | None
