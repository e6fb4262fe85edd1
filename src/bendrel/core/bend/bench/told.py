"""What is told of each bend on the tube as it lies in the hands: of the next, and of those that are made."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from bendrel.core.bend.told.figures import MadeBend, as_open, leg_mm
from bendrel.core.bend.told.laid import Laid, laid_out, shape_from
from bendrel.core.bend.tool.moves import Setting
from bendrel.core.bend.tube.marking import Origin, order_of, plan_moves
from bendrel.core.bend.tube.opened import open_bends
from bendrel.core.bend.tube.part import Move, Part, ids_of, shape_of
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList, bend_spans
from bendrel.core.line.run import Run
from bendrel.core.parts.choices import Choices
from bendrel.core.record import record


@record
class NextBend:
    """The next bend to make: its move, and what it is to be along the tube; `leg_mm` is what its leg
    will read; `beyond_deg` is by how much its clock is to lie beyond that of the bend made before it, as
    that is believed to lie. Its move bends it less than `angle_deg` where it is left open."""

    move: Move
    start_mm: float
    angle_deg: float
    clock_deg: float
    beyond_deg: float
    leg_mm: float


def on_tube(shape: BendList, laid: Laid, done: Sequence[int]) -> Laid:
    """`shape` along the tube, its clocks counted as those of `laid`. A shape counts from its own first bend,
    which may still move; a bend that is made stays where it is on the tube."""
    now = laid_out(shape)
    by = laid.clocks_deg[done[0]] - now.clocks_deg[done[0]] if done else 0.0
    return replace(now, clocks_deg=tuple(clock + by for clock in now.clocks_deg))


def moves_on(
    run: Run,
    chosen: Choices,
    part: Part,
    laid: Laid,
    done: Sequence[int],
    beyond_mm: Mapping[EndName, float],
) -> tuple[Move, ...]:
    """The moves of all bends, those of `done` first as they were made. `beyond_mm` is what lies beyond the
    rims as they will be."""
    span, shape = run.span, shape_from(laid)
    order, _ = order_of(span, ids_of(part))
    at = {
        end.end: Origin(flared=end.order == "before", beyond_mm=beyond_mm[end.end])
        for end in (part.end_a, part.end_b)
    }
    in_hand = [Setting(bend=k, held=_held_of(order, k)) for k in done]
    whole = (*in_hand, *(setting for setting in order if setting.bend not in done))
    opened = open_bends(span, ids_of(part), shape)
    moves = plan_moves(whole, chosen, shape, bend_spans(shape), at, span.marks, opened)
    return tuple(
        replace(move, clock_deg=laid.clocks_deg[setting.bend] % 360.0)
        for move, setting in zip(moves, whole, strict=True)
    )


def told_of(run: Run, chosen: Choices, part: Part, laid: Laid, made: Sequence[MadeBend]) -> tuple[Move, ...]:
    """The move of each made bend as it was told: where the others are now, and what it was to be."""
    done = [item.bend - 1 for item in made]
    told = []
    for place, item in enumerate(made):
        then = as_told(laid, [item], shape_of(part))
        if place and item.beyond_deg is not None:  # the bend before may be thought of otherwise since
            clocks = list(then.clocks_deg)
            clocks[done[place - 1]] = item.clock_deg - item.beyond_deg
            then = replace(then, clocks_deg=tuple(clocks))
        told.append(moves_on(run, chosen, part, then, done, part.beyond_mm)[place])
    return tuple(told)


def as_told(laid: Laid, items: Sequence[MadeBend], planned: BendList) -> Laid:
    """`laid` with the bends of `items` as they were to be, on the radii planned."""
    starts, angles, clocks = list(laid.starts_mm), list(laid.angles_deg), list(laid.clocks_deg)
    radii = list(laid.radii_mm)
    for item in items:
        k = item.bend - 1
        starts[k], angles[k], clocks[k] = item.start_mm, item.angle_deg, item.clock_deg
        radii[k] = planned.bends[k].radius_mm
    return Laid(
        starts_mm=tuple(starts),
        angles_deg=tuple(angles),
        clocks_deg=tuple(clocks),
        radii_mm=tuple(radii),
        length_mm=laid.length_mm,
    )


def _held_of(order: Sequence[Setting], bend: int) -> EndName:
    return next(setting.held for setting in order if setting.bend == bend)


def next_bend(
    rest: Sequence[Setting],
    moves: Sequence[Move],
    laid: Laid,
    made: Sequence[MadeBend],
    part: Part,
    ahead_mm: float,
    opened: Mapping[int, float],
) -> NextBend | None:
    """The next bend on the tube as it was laid out: `ahead_mm` is how far rim A has moved outwards."""
    if not rest:
        return None
    k = rest[0].bend
    starts = tuple(start - ahead_mm for start in laid.starts_mm)
    held = {item.bend - 1: item.held for item in made} | {k: rest[0].held}
    now = as_open(replace(laid, starts_mm=starts, length_mm=part.developed_mm), opened, held)
    leg = leg_mm(k, rest[0].held, list(held)[:-1], now, part.beyond_mm, part.od_mm)
    return NextBend(
        move=moves[0],
        start_mm=starts[k],
        angle_deg=laid.angles_deg[k],
        clock_deg=laid.clocks_deg[k],
        beyond_deg=laid.clocks_deg[k] - laid.clocks_deg[made[-1].bend - 1] if made else 0.0,
        leg_mm=leg,
    )
