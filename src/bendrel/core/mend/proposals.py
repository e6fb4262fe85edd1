"""Every way to mend a damaged tube, the best first: where to cut, how long the new piece is, and why."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from bendrel.core.geometry.bends import BendList, bend_spans
from bendrel.core.line.condition import EndState
from bendrel.core.line.run import ENDS
from bendrel.core.mend.allowed import Allowed, allowed, worst
from bendrel.core.mend.cuts import Room, cut_before, cut_behind, lacking, stays_beside
from bendrel.core.mend.hoses import hose_for, no_hose
from bendrel.core.mend.lengths import (
    end_takes,
    fits,
    flare_loss,
    gap_lengths,
    hose_lap,
    least_piece,
    too_short,
    working,
)
from bendrel.core.mend.offer import WORD_ORDER, Offer, Reason, Weighed, Word
from bendrel.core.mend.there import ToolThere, no_swing, tools_there
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Service
from bendrel.core.parts.splicing import DamageKind, Method, Splice
from bendrel.core.parts.tube import Tube
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length

Cuts = tuple[float | None, float | None]
UNIONS: tuple[Method, ...] = ("sleeve_unions", "flared_unions", "bite_unions")
ORDER: tuple[Method, ...] = (
    "whole", "replace_from_a", "replace_from_b", "flared_unions", "bite_unions", "sleeve_unions", "hose",
)  # fmt: skip


@record
class Damaged:
    """A tube and what is wrong with it, in mm from end A. `clips_mm` are what holds it, `end_a_mm` and
    `end_b_mm` the straight that its own ends take up, `grip_mm` the straight that the bender wants beyond a
    nut, `free_mm` what is free all round the tube at the cuts (None while not measured), `ends` how they
    come undone; reasons and working are said in `unit`."""

    shape: BendList
    tube: Tube
    from_mm: float
    to_mm: float
    kind: DamageKind = "rust"
    clips_mm: Sequence[float] = ()
    end_a_mm: float = 0.0
    end_b_mm: float = 0.0
    grip_mm: float = 0.0
    free_mm: float | None = None
    unit: Unit = "mm"
    ends: tuple[EndState, EndState] = ("comes undone", "comes undone")


def proposals(
    kit: Kit, damaged: Damaged, service: Service, cuts_mm: Cuts = (None, None)
) -> tuple[Offer, ...]:
    """Every way, best first, refused ones last. `cuts_mm` are cuts that a person has chosen themselves."""
    ways = [_offer(kit, damaged, service, kit.splicing.methods[method], cuts_mm) for method in ORDER]
    return ranked(ways)


def ranked(ways: Sequence[Offer]) -> tuple[Offer, ...]:
    """Ways by what they are allowed, then by what they weigh. Source: common practice."""
    return tuple(sorted(ways, key=lambda way: (WORD_ORDER[way.verdict], way.minutes)))


def _offer(
    kit: Kit,
    damaged: Damaged,
    service: Service,
    way: Splice,
    cuts_mm: Cuts,
) -> Offer:
    if way.id == "whole":
        return _whole(kit, damaged, service, way)
    if way.id in ("replace_from_a", "replace_from_b"):
        return _from_a_separation(kit, damaged, service, way, cuts_mm)
    said = allowed(kit, way, service, damaged.tube, damaged.tube.size)
    room = _room(kit, damaged, service, way, said.fitting)
    low, high = _with_margin(kit, damaged)
    a = cuts_mm[0] if cuts_mm[0] is not None else cut_before(damaged.shape, low, room, damaged.clips_mm)
    b = cuts_mm[1] if cuts_mm[1] is not None else cut_behind(damaged.shape, high, room, damaged.clips_mm)
    if a is None or b is None:
        return _no_room(way, said, "A" if a is None else "B", room, damaged.unit)
    a, b = _long_enough(kit, damaged, service, way, said, room, found_mm=(a, b), chosen_mm=cuts_mm)
    said = _swing(damaged, way, _with_room(damaged, way, said, room, (a, b)))
    made = _between(kit, damaged, service, way, said, (a, b))
    return replace(made, tools=_there(kit, damaged, way, said.fitting, (a, b)))


def _long_enough(
    kit: Kit,
    damaged: Damaged,
    service: Service,
    way: Splice,
    said: Allowed,
    room: Room,
    *,
    found_mm: tuple[float, float],
    chosen_mm: Cuts,
) -> tuple[float, float]:
    """The cuts so far apart that the new piece has room for its own two ends, where that can be had by moving
    one that was found; a cut that a person has chosen stays."""
    (a, b), shape, size = found_mm, damaged.shape, damaged.tube.size
    now = (
        gap_lengths(kit, way, service, said.fitting, b - a, damaged.tube.od_mm, damaged.tube).piece_mm or 0.0
    )
    short = least_piece(kit, way, said.fitting, size) - now
    if short <= 0:
        return a, b
    further = None if chosen_mm[1] is not None else cut_behind(shape, b + short, room, damaged.clips_mm)
    if further is not None:
        return a, further
    nearer = None if chosen_mm[0] is not None else cut_before(shape, a - short, room, damaged.clips_mm)
    return (a if nearer is None else nearer), b


def _room(kit: Kit, damaged: Damaged, service: Service, way: Splice, fitting: str) -> Room:
    """The straight beside a cut: what the data file tells of the way, and never less than flare, nut and
    tool take up, so that no cut is offered whose ends could not be made."""
    taken, known = end_takes(kit, fitting, damaged.tube.size), kit.fittings.get(fitting)
    flaring = known.grip_mm if known else 0.0
    stays, piece = way.room, way.piece_room
    if way.id == "hose":
        stays = max(stays, hose_lap(kit, service, damaged.tube.od_mm))
    elif way.joint and piece > 0:
        use = flare_loss(kit, way, fitting, damaged.tube)
        slack = kit.limits["hand_mm"].value
        stays = max(stays, use + taken + flaring + slack)
        piece = max(piece, way.seat + way.stop - use + taken + max(flaring, damaged.grip_mm) + slack)
    return Room(stays=stays, piece=piece, end_a=damaged.end_a_mm, end_b=damaged.end_b_mm)


def _with_room(damaged: Damaged, way: Splice, said: Allowed, room: Room, cuts_mm: Cuts) -> Allowed:
    """What is said of a way, and of cuts that a person has chosen where it has no room."""
    lacks = [
        lacking(damaged.shape, cut, end, room, damaged.unit)
        for cut, end in zip(cuts_mm, ENDS, strict=True)
        if cut is not None
    ]
    found = [text for text in lacks if text]
    if not found:
        return said
    why = tuple(Reason(text=text, source=way.source) for text in found)
    return replace(said, word="refused", reasons=(*said.reasons, *why))


def _with_margin(kit: Kit, damaged: Damaged) -> tuple[float, float]:
    margin = kit.splicing.margins[damaged.kind].mm
    return damaged.from_mm - margin, damaged.to_mm + margin


def _bends_between(shape: BendList, a_mm: float, b_mm: float) -> tuple[int, ...]:
    return tuple(
        number
        for number, span in enumerate(bend_spans(shape), start=1)
        if span.middle_mm > a_mm and span.middle_mm < b_mm
    )


def _there(kit: Kit, damaged: Damaged, way: Splice, fitting: str, cuts: Cuts) -> tuple[ToolThere, ...]:
    """The tools at the cuts of a way."""
    stays = [
        left
        for cut, end in zip(cuts, ENDS, strict=True)
        if cut is not None and (left := stays_beside(damaged.shape, cut, end)) is not None
    ]
    left = min(stays) if stays else None
    return tools_there(kit, way, fitting, damaged.tube.size, left, damaged.free_mm, damaged.unit)


def _swing(damaged: Damaged, way: Splice, said: Allowed) -> Allowed:
    """What is said of a way whose wrench or driver cannot be swung in the room that was measured."""
    text = no_swing(way, damaged.free_mm, damaged.unit)
    if not text:
        return said
    reason = Reason(text=text, source=way.source)
    return replace(said, word=worst(said.word, "care"), reasons=(*said.reasons, reason))


def _no_room(way: Splice, said: Allowed, end: str, room: Room, unit: Unit) -> Offer:
    text = (
        f"No straight on the side of {end} is clear of damage and clips and has the "
        f"{format_length(room.stays, unit)} that nut and wrench need."
    )
    return Offer(
        method=way.id,
        name=way.name,
        verdict="refused",
        joint=way.joint,
        years=way.years,
        reasons=(*said.reasons, Reason(text=text, source=way.source)),
    )


def _between(
    kit: Kit, damaged: Damaged, service: Service, way: Splice, said: Allowed, cuts_mm: tuple[float, float]
) -> Offer:
    a, b = cuts_mm
    bends = _bends_between(damaged.shape, a, b)
    tube, unit = damaged.tube, damaged.unit
    lengths = gap_lengths(kit, way, service, said.fitting, b - a, tube.od_mm, tube, unit=unit)
    reasons, word = list(said.reasons), said.word
    least = least_piece(kit, way, said.fitting, damaged.tube.size)
    if not fits(lengths.piece_mm, least):
        word = "refused"
        reasons.append(too_short(least, way.source, damaged.unit))
        lengths = replace(lengths, piece_mm=None)
    if way.id == "hose" and bends:
        word = worst(word, "care")
        text = f"It lets go of {_count(len(bends), 'bend')}: hose finds its own way there and must not kink."
        reasons.append(Reason(text=text, source=way.source))
    if way.id == "hose" and hose_for(kit, service, damaged.tube.od_mm) is None:
        word = "refused"
        reasons.append(no_hose(kit, damaged.tube.od_mm))
    return replace(
        lengths,
        verdict=word,
        cut_a_mm=a,
        cut_b_mm=b,
        piece_bends=bends if way.id != "hose" else (),
        reasons=tuple(reasons),
        cost=_cost(kit, damaged, way, len(bends)),
    )


def _whole(kit: Kit, damaged: Damaged, service: Service, way: Splice) -> Offer:
    word: Word = "refused" if service.left_to else "right"
    text = (
        f"It is not made here: {service.left_to}."
        if service.left_to
        else ("No joint that was not there before; both old ends have to come undone.")
    )
    shape = damaged.shape
    return Offer(
        method=way.id,
        name=way.name,
        verdict=word,
        piece_mm=shape.developed_mm,
        piece_bends=tuple(range(1, len(shape.bends) + 1)),
        years=way.years,
        reasons=(Reason(text=text, source=way.source),),
        cost=_cost(kit, damaged, way, len(shape.bends)),
    )


def _from_a_separation(
    kit: Kit,
    damaged: Damaged,
    service: Service,
    way: Splice,
    cuts_mm: Cuts,
) -> Offer:
    """New from one end to the nearest cut on the other side of the damage, with the best union that the
    service allows."""
    ways = [kit.splicing.methods[method] for method in UNIONS]
    told = [(union, allowed(kit, union, service, damaged.tube, damaged.tube.size)) for union in ways]
    union, said = min(told, key=lambda pair: WORD_ORDER[pair[1].word])
    room = _room(kit, damaged, service, union, said.fitting)
    low, high = _with_margin(kit, damaged)
    shape = damaged.shape
    from_a = way.id == "replace_from_a"
    # the new piece has two ends of its own, the old one's and the joint's
    least = least_piece(kit, union, said.fitting, damaged.tube.size)
    least += damaged.end_a_mm if from_a else damaged.end_b_mm
    chosen = cuts_mm[1 if from_a else 0]
    if chosen is not None:
        cut: float | None = chosen
    else:
        if from_a:
            cut = cut_behind(shape, max(high, least), room, damaged.clips_mm)
        else:
            cut = cut_before(shape, min(low, shape.developed_mm - least), room, damaged.clips_mm)
    if cut is None:
        return _no_room(way, said, "B" if from_a else "A", room, damaged.unit)
    cuts: Cuts = (None, cut) if from_a else (cut, None)
    said = _swing(damaged, union, _with_room(damaged, union, said, room, cuts))
    gap = cut if from_a else shape.developed_mm - cut
    if not fits(gap, least):
        said = replace(
            said, word="refused", reasons=(*said.reasons, too_short(least, way.source, damaged.unit))
        )
    tube, unit = damaged.tube, damaged.unit
    lengths = gap_lengths(kit, union, service, said.fitting, gap, tube.od_mm, tube, unit=unit)
    use, between = flare_loss(kit, union, said.fitting, damaged.tube), lengths.stop_mm or 0.0
    bends = _bends_between(shape, 0.0 if from_a else cut, cut if from_a else shape.developed_mm)
    overlap = kit.splicing.weigh.overlap_mm
    text = (
        f"Bend it as the old one, leave it {overlap:g} mm long at the joint, mark it against the old tube "
        f"on the machine and trim it there; {union.name.removeprefix('two ').rstrip('s')}."
    )
    return Offer(
        method=way.id,
        name=way.name,
        verdict=said.word,
        cut_a_mm=None if from_a else cut,
        cut_b_mm=cut if from_a else None,
        piece_mm=gap + use - between,
        piece_bends=bends,
        overlap_mm=overlap,
        stop_mm=between,
        spring_apart_mm=lengths.spring_apart_mm,
        fitting=said.fitting,
        joint=union.joint,
        years=min(way.years, union.years),
        tools=_there(kit, damaged, union, said.fitting, cuts),
        reasons=(*said.reasons, Reason(text=text, source=way.source)),
        cost=_cost(kit, damaged, way, len(bends)),
        working=(
            working(
                "piece = old tube to the cut + the old end's flare − the union",
                (
                    ("old tube to the cut", gap),
                    ("flare of the old end", use),
                    ("union, or its stop", between),
                ),
                gap + use - between,
                damaged.unit,
            ),
        ),
    )


def _cost(kit: Kit, damaged: Damaged, way: Splice, bends: int) -> tuple[Weighed, ...]:
    weigh, pace = kit.splicing.weigh, kit.pace
    undone = {
        "whole": damaged.ends,
        "replace_from_a": damaged.ends[:1],
        "replace_from_b": damaged.ends[1:],
    }.get(way.id, ())
    chance = 0.0
    risk = 0.0
    for state in undone:
        share = weigh.undone if state in ("comes undone", "not tried") else weigh.seized
        costs = weigh.expensive_minutes if state == "seized in an expensive part" else weigh.break_minutes
        chance = max(chance, share)
        risk += share * costs
    words = f"{bends} × {pace.bend_minutes:.1f} min"
    words += f", from {_count(pace.parts, 'part')} of this shop" if pace.parts else ""
    risky = f"chance {chance:.0%} times what it costs" if undone else "no old end is undone"
    work, life = work_and_life(kit, way)
    new = Weighed(name="bends of the new piece", minutes=bends * pace.bend_minutes, words=words)
    return work, new, Weighed(name="a seized end that breaks", minutes=risk, words=risky), life


def work_and_life(kit: Kit, way: Splice) -> tuple[Weighed, Weighed]:
    """What every way costs: its work, and how much sooner it is due again than the best."""
    best = max(row.years for row in kit.splicing.methods.values())
    minutes = (best - way.years) * kit.splicing.weigh.year_minutes
    return (
        Weighed(name="work on the machine", minutes=way.minutes, words=f"{way.minutes:g} min"),
        Weighed(name="shorter life", minutes=minutes, words=f"about {way.years:g} years"),
    )


def _count(number: int, word: str) -> str:
    return f"{number} {word}{'' if number == 1 else 's'}"
