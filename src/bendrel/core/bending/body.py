"""The room that a tool, its vise and its bench take up around the tube.

Bench frame, in mm: the clamp holds the tube along x with the held end towards −x, the tool's
tangent point is the origin, bending goes on in the plane z = 0 and swings the free side towards +y.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from annotated_types import Ge, Gt

from bendrel.core.bending.bender import Bender
from bendrel.core.findings import Source
from bendrel.core.record import record
from bendrel.core.shape.vectors import Vector

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


@record
class Block:
    """A box in the bench frame. One that `swings` is given as it stands before the bend and goes
    round with the free side; the free side slides along it."""

    name: str
    low: Vector
    high: Vector
    swings: bool = False


@record
class Surroundings:
    """Everything around the tube at one tool: its blocks, and the die as a disc of half-height
    `die_half_mm` about (0, R, 0)."""

    blocks: tuple[Block, ...]
    die_half_mm: float
    mount: Mount


FAR = 10_000.0
"""Beyond all tube, in mm: floor and wall have no far side."""


def surroundings(
    bender: Bender, kind: ToolKind, bench: Bench, radius_mm: float, *, turned: bool = False
) -> Surroundings:
    """What stands around the tube when `bender` makes a bend of `radius_mm`. A tool that is `turned`
    round on its bench is fed from the other side: bench and wall then lie half a turn about its die.

    The tool's own measures win over those usual for its kind. Source: the kind's row; boxes are drawn
    round each body on the safe side.
    """
    blocks: list[Block] = []
    gap, half = kind.gap * radius_mm, kind.thick * radius_mm / 2
    behind = kind.behind * radius_mm if bender.behind_mm is None else bender.behind_mm
    wide = kind.wide * radius_mm if bender.beside_mm is None else bender.beside_mm
    lever = kind.lever * radius_mm if bender.lever_mm is None else bender.lever_mm
    if behind > 0 and wide > 0:
        name = "fixed handle" if kind.mount == "in the hands" else "tool body"
        blocks.append(Block(name=name, low=(-behind, gap, -half), high=(-gap, gap + wide, half)))
    if lever > 0:
        outside = bender.od_mm / 2 + kind.lever_gap_mm
        low, high = (gap, -outside - kind.lever_wide * radius_mm, -half), (lever, -outside, half)
        blocks.append(Block(name="lever", low=low, high=high, swings=True))
    if kind.mount != "in the hands":
        above = kind.above_bench_mm if bender.above_bench_mm is None else bender.above_bench_mm
        standing = _standing(kind, bench, above, radius_mm)
        blocks += [_turned(block, radius_mm) for block in standing] if turned else standing
    return Surroundings(blocks=tuple(blocks), die_half_mm=kind.die_thick * radius_mm / 2, mount=kind.mount)


def _standing(kind: ToolKind, bench: Bench, above_mm: float, radius_mm: float) -> list[Block]:
    """The bench and what carries the tool on it."""
    blocks = [
        Block(
            name="bench",
            low=(-bench.behind_mm, -bench.near_mm, -above_mm - bench.thick_mm),
            high=(bench.ahead_mm, bench.far_mm, -above_mm),
        ),
        Block(
            name="floor",
            low=(-FAR, -FAR, -above_mm - bench.floor_mm - FAR),
            high=(FAR, FAR, -above_mm - bench.floor_mm),
        ),
    ]
    if bench.wall_mm is not None:
        low = (-FAR, bench.wall_mm, -above_mm - bench.floor_mm)
        blocks.append(Block(name="wall", low=low, high=(FAR, bench.wall_mm + FAR, FAR)))
    under = -kind.die_thick * radius_mm / 2
    if kind.mount == "in the vise":
        long, wide = bench.vise_long_mm / 2, bench.vise_wide_mm / 2
        top = min(under, bench.vise_tall_mm - above_mm)
        low, high = (-long, radius_mm - wide, -above_mm), (long, radius_mm + wide, top)
        blocks.append(Block(name="vise", low=low, high=high))
    else:
        half = kind.post * radius_mm
        low, high = (-half, radius_mm - half, -above_mm), (half, radius_mm + half, under)
        blocks.append(Block(name="tool body", low=low, high=high))
    return blocks


def _turned(block: Block, radius_mm: float) -> Block:
    """The block half a turn about the die's axis."""
    (x0, y0, z0), (x1, y1, z1) = block.low, block.high
    return replace(block, low=(-x1, 2 * radius_mm - y1, z0), high=(-x0, 2 * radius_mm - y0, z1))
