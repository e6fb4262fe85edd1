"""The part while it is being made: what is bent, what that means at end B, and what is still to do."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from math import sqrt

from bendrel.core.bend.bench.believed import believed, trimmed_end
from bendrel.core.bend.bench.told import NextBend, as_told, moves_on, next_bend, on_tube, told_of
from bendrel.core.bend.bench.ways_out import Standing, WayOut, ways_out
from bendrel.core.bend.bench.weighing import known_now, lone_of, weighed_of
from bendrel.core.bend.fitting.correction import Freedom, correct
from bendrel.core.bend.fitting.exactness import Zone
from bendrel.core.bend.fitting.fit import Fit
from bendrel.core.bend.fitting.landing import Landing
from bendrel.core.bend.fitting.tweak import Pull
from bendrel.core.bend.told.figures import Departure, MadeBend, Misread, as_built
from bendrel.core.bend.told.laid import Laid, laid_out, shape_from
from bendrel.core.bend.told.lone import Lone, Slip
from bendrel.core.bend.told.offered import TypedOffer, Unreadable
from bendrel.core.bend.told.tells import Known
from bendrel.core.bend.tool.moves import Setting
from bendrel.core.bend.tube.marking import dial_for, order_of
from bendrel.core.bend.tube.opened import open_bends
from bendrel.core.bend.tube.part import Move, Part, ids_of, shape_of
from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import sampled
from bendrel.core.geometry.vectors import rotated
from bendrel.core.line.run import Run
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length


@record
class Remade:
    """How the part stands. `as_it_is` is where end B lands when the rest is made as planned, `then` where
    it lands as re-planned; `near` says that roll and trim alone bring it home as it is, `meets` that it will
    meet. `moves` are the bends still to make, as re-planned; `told` those that are made, as they were told;
    `departs_mm` is the most that the route moves. `fit` is how the finished part stands at its ports and
    what to do to it, None while bends are left to make; `known` what would tell most now;
    `short_deg` how far short of its dial a bend is stopped that is read and finished; `unreadable` what of
    the trial fits cannot be read. `lone` are the readings that are to be read again and count for nothing
    until then, `slips` what the hand did otherwise than told by the readings that count."""

    departures: tuple[Departure, ...]
    misread: tuple[Misread, ...]
    legs_mm: tuple[float, ...]
    as_it_is: Landing
    then: Landing
    near: bool
    meets: bool
    changed: bool
    roll_deg: float
    moves: tuple[Move, ...]
    told: tuple[Move, ...]
    next: NextBend | None
    changes: tuple[str, ...]
    departs_mm: float
    ways: tuple[WayOut, ...]
    zone: Zone
    fit: Fit | None
    known: Known
    short_deg: float
    unreadable: tuple[Unreadable, ...]
    lone: tuple[Lone, ...]
    slips: tuple[Slip, ...]


def remake(
    run: Run,
    kit: Kit,
    part: Part,
    chosen: Choices,
    made: Sequence[MadeBend],
    offers: tuple[TypedOffer, ...] = (),
) -> Remade:
    """Weigh what was told, the readings of the made bends and the trial fits, and re-plan the rest so that
    end B meets its port. The bends of `made` are those of this part, each once."""
    planned = shape_of(part)
    span, line = run.span, run.line
    count = len(planned.bends)
    order, _ = order_of(span, ids_of(part))
    opened = {number - 1: angle for number, angle in open_bends(span, ids_of(part), planned).items()}
    trust = believed(run, kit, chosen, part)
    read = as_built(laid_out(planned), made, part.beyond_mm, part.od_mm, opened)
    lone = lone_of(kit, part, planned, read, made, trust)
    made = [item.without({one.name for one in lone if one.index == k}) for k, item in enumerate(made)]
    built = as_built(laid_out(planned), made, part.beyond_mm, part.od_mm, opened) if lone else read
    stands, weighed, unreadable, slips = weighed_of(kit, part, planned, built, made, offers, trust)
    laid = weighed.laid
    done = [item.bend - 1 for item in made]
    now = shape_from(laid)
    freedom = _freedom(kit, chosen, part, planned)
    # the nut at A lets the part be rolled, and its last end is trimmed: that much is free in any case
    fitted = correct(laid, planned, range(count), freedom)
    as_it_is = fitted.left
    near = fitted.meets
    found = fitted if near or not done else correct(laid, planned, done, freedom)
    meets = found.meets
    shape = found.shape
    rest = [setting for setting in order if setting.bend not in done]
    changed = not near and bool(done) and bool(rest)
    departs = _departs(planned, shape, found.roll_deg) if changed else 0.0
    # the cut ends stay where they are: what becomes longer has so much less beyond its rim
    beyond = dict(part.beyond_mm)
    beyond[freedom.trimmed] -= found.longer_mm
    ahead = found.longer_mm if freedom.trimmed == "A" else 0.0
    replanned = on_tube(shape, laid, done)
    moves = moves_on(run, chosen, part, replanned, done, beyond)[len(done) :]
    following = next_bend(rest, moves, replanned, made, part, ahead, opened)
    return Remade(
        departures=built.departures,
        misread=read.misread,
        legs_mm=built.legs_mm,
        as_it_is=as_it_is,
        then=found.left,
        near=near,
        meets=meets,
        changed=changed,
        roll_deg=found.roll_deg,
        moves=moves,
        told=told_of(run, chosen, part, laid, made),
        next=following,
        changes=tuple(_changes(kit, line.unit, laid, replanned, rest, ahead, found.longer_mm)),
        departs_mm=departs,
        ways=ways_out(
            Standing(
                now=now,
                planned=planned,
                built=laid,
                told=as_told(laid, made, planned),
                left=found.left if rest else as_it_is,
                meets=meets,
                near=near,
                zone=trust.zone,
                departs_mm=departs,
                made=tuple(done),
                tweaks=stands.tweaks if done and not near else (),
            ),
            kit,
            run,
            part,
        ),
        zone=trust.zone,
        fit=None if rest else _with_pulls(stands, chosen, planned),
        known=known_now(part, planned, built, made, following, trust),
        short_deg=kit.limits["bend_short_deg"].value,
        unreadable=unreadable,
        lone=lone,
        slips=slips,
    )


def _with_pulls(stands: Fit, chosen: Choices, planned: BendList) -> Fit:
    """What the dial is to show where a bend goes back into the tool: it was pulled otherwise than told, so
    the dial of the plan is no measure."""
    tweaks = []
    for tweak in stands.tweaks:
        if stands.in_tool and tweak.angle_deg is not None:
            bend = replace(planned.bends[tweak.act.at - 1], angle_deg=tweak.angle_deg + tweak.act.deg)
            dial = dial_for(chosen, bend)
            tweak = replace(tweak, pull=Pull(beyond_deg=dial - tweak.angle_deg, dial_deg=dial))
        tweaks.append(tweak)
    return replace(stands, tweaks=tuple(tweaks))


def _freedom(kit: Kit, chosen: Choices, part: Part, planned: BendList) -> Freedom:
    tool, count = chosen.bender, len(planned.bends)
    straights = planned.straights_mm
    ends = (part.end_a, part.end_b)
    rooms = [
        min(straight, end.flare_length_mm + end.nut_length_mm + tool.least_after_last_mm)
        for straight, end in zip((straights[0], straights[-1]), ends, strict=True)
    ]
    least = (rooms[0], *[tool.least_between_mm] * (count - 1), rooms[1])
    trimmed = trimmed_end(part)
    end = part.end_b if trimmed == "B" else part.end_a
    flared = end.order == "before"
    loose = 0.0 if flared else part.beyond_mm[trimmed] - end.allowance_mm
    return Freedom(
        least_mm=least if count else (0.0,),
        greatest_deg=tool.greatest_angle_deg,
        trimmed=trimmed,
        spare_mm=max(0.0, loose),
        shorter_mm=0.0 if flared else kit.limits["trim_mm"].value,
        place_mm=kit.limits["shift_mm"].value,
        angle_deg=kit.limits["change_deg"].value,
        clock_deg=kit.limits["turn_deg"].value,
        roll_deg=kit.limits["roll_deg"].value,
        meets_mm=kit.limits["meets_mm"].value,
        meets_deg=kit.limits["meets_deg"].value,
    )


def _changes(
    kit: Kit, unit: Unit, was: Laid, now: Laid, rest: Sequence[Setting], ahead_mm: float, longer_mm: float
) -> list[str]:
    """What is new of the bends in `rest` and of the trimmed end, where a hand could set the difference."""
    least = {
        "mm": kit.limits["say_mm"].value,
        "deg": kit.limits["say_deg"].value,
        "turn_deg": kit.limits["say_turn_deg"].value,
    }

    def length(mm: float) -> str | None:
        text = format_length(abs(mm), unit)
        return text if abs(mm) >= least["mm"] and text != format_length(0.0, unit) else None

    said = []
    for setting in rest:
        k = setting.bend
        parts = []
        angle = now.angles_deg[k] - was.angles_deg[k]
        turn = now.clocks_deg[k] - was.clocks_deg[k]
        along = now.starts_mm[k] - ahead_mm - was.starts_mm[k]
        if abs(angle) >= least["deg"]:
            parts.append(f"{now.angles_deg[k]:.1f}° instead of {was.angles_deg[k]:.1f}°")
        if abs(turn) >= least["turn_deg"]:
            way = "clockwise" if turn > 0 else "anticlockwise"
            parts.append(f"lies {abs(turn):.1f}° more {way} from A")
        if (far := length(along)) is not None:
            parts.append(f"{far} {'further from' if along > 0 else 'nearer to'} A")
        if parts:
            said.append(f"Bend {k + 1}: {', '.join(parts)}.")
    if (by := length(longer_mm)) is not None:
        said.append(f"The end is trimmed {by} {'longer' if longer_mm > 0 else 'shorter'}.")
    return said


def _departs(planned: BendList, shape: BendList, roll_deg: float) -> float:
    """The most that the new route is away from the old one: vertex to nearest stretch."""
    old = [point for _, point in sampled(planned, 15.0)]
    most = 0.0
    for _, point in sampled(shape, 15.0):
        p = rotated(point, (1.0, 0.0, 0.0), roll_deg)
        least = float("inf")
        for a, b in pairwise(old):
            way = [b[i] - a[i] for i in range(3)]
            size = sum(w * w for w in way) or 1e-12
            t = min(1.0, max(0.0, sum((p[i] - a[i]) * way[i] for i in range(3)) / size))
            least = min(least, sum((a[i] + t * way[i] - p[i]) ** 2 for i in range(3)))
        most = max(most, least)
    return sqrt(most)
