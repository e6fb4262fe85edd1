"""What benders of one kind are like, and the bench that they stand on."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Gt

from bendrel.core.findings import Source
from bendrel.core.record import record

Mount = Literal["in the hands", "in the vise", "on the bench"]


@record
class ToolKind:
    """What benders of one kind are like. Lengths as multiples of the die's radius.

    `behind` is how far the body or fixed handle runs back beside the clamped tube, `gap` how far it
    keeps from the tube's centreline, `wide` and `thick` its section; `lever` and `lever_wide` the
    same of what swings along on the tube's outside, 0 where nothing does, and `lever_gap_mm` from the
    tube to its near side, for the forming shoe between them. `die_thick` is the die's whole height,
    `post` the half-width of what carries a tool on the bench. `above_bench_mm` is how high the tube
    lies above the bench. `by_feel` is a tool without a scale; its bends are checked against the pattern.
    """

    id: str
    name: str
    mount: Mount
    behind: Annotated[float, Ge(0)]
    gap: Annotated[float, Ge(0)]
    wide: Annotated[float, Ge(0)]
    thick: Annotated[float, Ge(0)]
    lever: Annotated[float, Ge(0)]
    lever_wide: Annotated[float, Ge(0)]
    lever_gap_mm: Annotated[float, Ge(0)]
    die_thick: Annotated[float, Ge(0)]
    post: Annotated[float, Ge(0)]
    above_bench_mm: Annotated[float, Ge(0)]
    by_feel: bool
    flattens: Annotated[float, Ge(0)]
    kinks_below: Annotated[float, Ge(0)]
    words: str
    source: Source


@record
class Bench:
    """The shop's bench around the tool's zero, in mm: how far its top runs ahead (where the free end
    points), behind, and to the side away from the person and towards them; the wall beyond the far
    edge (None where there is none); the height of the top above the floor and its thickness; the vise
    with jaws and slide: along the tube, across it, and how far it stands above the top."""

    id: str
    name: str
    ahead_mm: Annotated[float, Ge(0)]
    behind_mm: Annotated[float, Ge(0)]
    far_mm: Annotated[float, Ge(0)]
    near_mm: Annotated[float, Ge(0)]
    wall_mm: Annotated[float, Gt(0)] | None
    floor_mm: Annotated[float, Gt(0)]
    thick_mm: Annotated[float, Gt(0)]
    vise_long_mm: Annotated[float, Gt(0)]
    vise_wide_mm: Annotated[float, Gt(0)]
    vise_tall_mm: Annotated[float, Gt(0)]
    source: Source
