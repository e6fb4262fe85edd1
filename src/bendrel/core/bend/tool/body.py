"""The room that a tool, its vise and its bench take up around the tube.

Bench frame, in mm: the clamp holds the tube along x with the held end towards −x, the tool's
tangent point is the origin, bending goes on in the plane z = 0 and swings the free side towards +y.
"""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.geometry.vectors import Vector
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.tool_kind import Bench, Mount, ToolKind
from bendrel.core.record import record


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
