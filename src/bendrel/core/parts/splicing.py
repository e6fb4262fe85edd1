"""What each way of letting a piece into an old line takes: typed rows of the catalogue."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal

from annotated_types import Ge

from bendrel.core.findings import Source
from bendrel.core.record import record


@record
class Argument:
    """One reason for (weight over 0) or against (under 0) a choice, from the catalogue."""

    id: str
    choice: Choice
    weight: float
    text: str
    source: Source


DamageKind = Literal["rust", "chafe", "crush", "kink", "nick", "crack"]

Choice = Literal["replace whole", "replace from a separation point", "splice"]

Method = Literal[
    "whole",
    "replace_from_a",
    "replace_from_b",
    "sleeve_unions",
    "flared_unions",
    "bite_unions",
    "hose",
    "resleeve",
]
Mm = Annotated[float, Ge(0)]


@record
class Splice:
    """One way: the catalogue's joint and the ends that it is made with, the best known first. Lengths in mm
    as the data file tells them; `minutes` on the machine, `years` that it usually lasts, `joints` that it
    makes."""

    id: Method
    name: str
    joint: str
    ends: tuple[str, ...]
    stop: Mm
    seat: Mm
    room: Mm
    piece_room: Mm
    swing: Mm
    minutes: Mm
    years: Mm
    joints: int
    source: Source
    law: tuple[str, ...] = ()


@record
class Margin:
    """How far beyond a kind of damage the metal is clean."""

    damage: DamageKind
    mm: Mm
    source: Source


@record
class Overlap:
    """How far a hose lies on a tube for so many clamps: the greater of a least length and `diameters` of
    it, but no more than `most_mm`."""

    clamps: int
    least_mm: Mm
    diameters: Mm
    most_mm: Mm
    source: Source

    def on(self, od_mm: float) -> float:
        """The overlap on a tube of this outside diameter, in mm."""
        return min(self.most_mm, max(self.least_mm, self.diameters * od_mm))


@record
class Cutter:
    """What cuts a tube on the machine: what it needs free all round (mm), and what is done behind it."""

    id: str
    name: str
    swing: Mm
    after: str
    source: Source


@record
class Weigh:
    """What the ways are weighed by. A chance is a share of 1, everything else mm or minutes."""

    overlap_mm: Mm
    stagger_mm: Mm
    clip_mm: Mm
    let_in_gap_mm: Mm
    crimp_mm: Mm
    same_size_mm: Mm
    undone: Mm
    seized: Mm
    break_minutes: Mm
    expensive_minutes: Mm
    bend_minutes: Mm
    pace_counts: Mm
    most_bend_minutes: Mm
    year_minutes: Mm
    source: Source


@record
class Splicing:
    """Everything that a repair looks up."""

    methods: Mapping[Method, Splice]
    margins: Mapping[DamageKind, Margin]
    overlaps: Mapping[int, Overlap]
    weigh: Weigh
    cutters: tuple[Cutter, ...]
