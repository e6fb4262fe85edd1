"""What may be read further: every kind that was not read yet, and what a line would be read as."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from itertools import combinations
from typing import Literal

from bendrel.core.geometry.corners import Corners
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Across, Corner, Given
from bendrel.core.measure.outcome import Outcome
from bendrel.core.measure.sheet import (
    BendOff,
    OnDrawing,
    Sheet,
    as_landed,
    off_drawn,
    sides_of,
)
from bendrel.core.measure.spots import TapePlace, across, held_at
from bendrel.core.record import record

FurtherKind = Literal[
    "sheet", "bend on sheet", "place B", "way A", "way B", "tape", "wire", "across", "corner"
]

LANDING_ROWS = 5
"""What a whole landing tells: along, beside towards two sides, leaning towards two sides."""
MANY_BENDS = 10
"""From here on tapes from corner to corner are not gone through: those from the ends tell as much."""


@record
class Further:
    """A reading that may be taken, or was (`id` in the document): which, of a tape across between which
    spots, of a corner and of a bend on the sheet at which bend (`start`)."""

    kind: FurtherKind
    start: TapePlace = "A"
    end: TapePlace = "B"
    id: str = ""


def not_read(
    read: ReadBends | Corners, given: Given, sheet: Sheet, errors: ReadingErrors
) -> Iterator[Further]:
    """Every further reading that was not taken yet, the easier ones first; bends on the sheet once the part
    lies there. Corner points have no frame that a rule could be laid along, and their tapes are read from
    point to point."""
    bends = isinstance(read, ReadBends)
    count = len(read.bends) if isinstance(read, ReadBends) else len(read.radii_mm)
    if given.tape_mm is None:
        yield Further(kind="tape")
    if given.wire_mm is None:
        yield Further(kind="wire")
    if given.way_b is None:
        yield Further(kind="way B")
    if given.place_b is None and bends:
        yield Further(kind="place B")
    if given.laid is None or len(given.laid.rows) < LANDING_ROWS:
        yield Further(kind="sheet")
    if given.laid is not None:
        told = {one.bend for one in given.laid.bends}
        for k, bend in enumerate(sheet.bends):
            if k not in told and sides_of(bend.way, sheet.up, errors.steep_deg):
                yield Further(kind="bend on sheet", start=k)
    taken = {frozenset((one.start, one.end)) for one in given.across}
    for start, end in _pairs(count):
        if frozenset((start, end)) not in taken:
            yield Further(kind="across", start=start, end=end)


def _pairs(bends: int) -> Iterator[tuple[TapePlace, TapePlace]]:
    """Pairs of spots whose distance is not a leg already."""
    yield from (("A", bend) for bend in range(1, bends))
    yield from ((bend, "B") for bend in range(bends - 1))
    if bends < MANY_BENDS:
        yield from ((one, other) for one, other in combinations(range(bends), 2) if other > one + 1)


def as_read(one: Further, made: Outcome, sheet: Sheet, od_mm: float, errors: ReadingErrors) -> Given:
    """This reading alone, taken without an error of a line that comes out as `made`, laid on `sheet`."""
    if one.kind == "tape":
        return Given(tape_mm=made.tape_mm)
    if one.kind == "wire":
        return Given(wire_mm=made.developed_mm)
    if one.kind == "way B":
        return Given(way_b=made.way_b)
    if one.kind == "place B":
        return Given(place_b=made.point)
    if one.kind == "across":
        apart, _, _ = across(made, one.start, one.end, od_mm, over=False)
        return Given(across=(Across(start=one.start, end=one.end, mm=apart),))
    # the roll is an unknown of its own
    if one.kind == "bend on sheet" and isinstance(one.start, int):
        blank = on_sheet(sheet, one.start, errors)
        bends = tuple(replace(off, mm=off_drawn(off, made, 0.0)) for off in blank)
        return Given(laid=OnDrawing(port=sheet.port, bends=bends))
    told = as_landed(sheet.port, made, 0.0)
    sds = (errors.laid_sd_mm,) * 3 + (errors.laid_sd_deg,) * 2
    rows = tuple((row, value, sd) for row, (value, sd) in enumerate(zip(told, sds, strict=True)))
    return Given(laid=OnDrawing(rows=rows, port=sheet.port))


def on_sheet(sheet: Sheet, bend: int, errors: ReadingErrors) -> tuple[BendOff, ...]:
    """A bend beside its drawing to its left and in its height, both as drawn; nothing where it stands too
    steep."""
    drawn = sheet.bends[bend]
    sides = sides_of(drawn.way, sheet.up, errors.steep_deg)
    if sides is None:
        return ()
    return tuple(
        BendOff(bend=bend, point=drawn.point, way=drawn.way, side=side, mm=0.0, sd=errors.laid_sd_mm * share)
        for side, share in ((sides.left, 1.0), (sides.above, sides.level))
    )


def one_by_one(given: Given) -> Iterator[tuple[Further, Given]]:
    """Each further reading that was taken, alone."""
    if given.wire_mm is not None:
        yield Further(kind="wire"), Given(wire_mm=given.wire_mm)
    if given.tape_mm is not None:
        yield Further(kind="tape"), Given(tape_mm=given.tape_mm)
    for tape in given.across:
        one = Further(kind="across", start=tape.start, end=tape.end, id=tape.id)
        yield one, Given(across=(tape,))
    if given.place_b is not None:
        yield Further(kind="place B"), Given(place_b=given.place_b)
    for corner in given.corners:
        yield Further(kind="corner", start=corner.bend, id=corner.id), Given(corners=(corner,))
    if given.laid is not None:
        if given.laid.rows:
            yield Further(kind="sheet"), Given(laid=replace(given.laid, bends=()))
        for bend in dict.fromkeys(one.bend for one in given.laid.bends):
            off = tuple(one for one in given.laid.bends if one.bend == bend)
            yield (
                Further(kind="bend on sheet", start=bend, id=off[0].id),
                Given(laid=replace(given.laid, rows=(), bends=off)),
            )
    if given.way_a is not None:
        yield Further(kind="way A"), Given(way_a=given.way_a)
    if given.way_b is not None:
        yield Further(kind="way B"), Given(way_b=given.way_b)


def figure(one: Given) -> float | None:
    """The length in mm that one further reading says; None where it says several figures."""
    lengths = (one.wire_mm, one.tape_mm, *(tape.mm for tape in one.across))
    return next((mm for mm in lengths if mm is not None), None)


def without(given: Given, one: Given) -> Given:
    """All that is given but `one`, which `one_by_one` told."""
    return replace(
        given,
        wire_mm=None if one.wire_mm is not None else given.wire_mm,
        tape_mm=None if one.tape_mm is not None else given.tape_mm,
        way_a=None if one.way_a is not None else given.way_a,
        way_b=None if one.way_b is not None else given.way_b,
        place_b=None if one.place_b is not None else given.place_b,
        across=tuple(tape for tape in given.across if tape not in one.across),
        corners=tuple(corner for corner in given.corners if corner not in one.corners),
        laid=_laid_without(given.laid, one.laid),
    )


def with_more(given: Given, more: Given) -> Given:
    """Both together; where both have a figure, that of `more`."""
    return replace(
        given,
        wire_mm=more.wire_mm if more.wire_mm is not None else given.wire_mm,
        tape_mm=more.tape_mm if more.tape_mm is not None else given.tape_mm,
        way_a=more.way_a or given.way_a,
        way_b=more.way_b or given.way_b,
        place_b=more.place_b or given.place_b,
        across=given.across + more.across,
        corners=given.corners + more.corners,
        laid=_laid_both(given.laid, more.laid),
    )


def _laid_without(laid: OnDrawing | None, one: OnDrawing | None) -> OnDrawing | None:
    if laid is None or one is None:
        return laid
    rows = () if one.rows else laid.rows
    bends = tuple(off for off in laid.bends if off not in one.bends)
    return replace(laid, rows=rows, bends=bends) if rows or bends else None


def _laid_both(laid: OnDrawing | None, more: OnDrawing | None) -> OnDrawing | None:
    if laid is None or more is None:
        return more or laid
    return replace(laid, rows=more.rows or laid.rows, bends=laid.bends + more.bends)


def retaken(given: Given, made: Outcome, od_mm: float) -> Given:
    """All that is given, as it would be read without an error of a line that comes out as `made`."""
    return replace(
        given,
        wire_mm=None if given.wire_mm is None else made.developed_mm,
        tape_mm=None if given.tape_mm is None else made.tape_mm,
        way_a=None if given.way_a is None else made.way_a,
        way_b=None if given.way_b is None else made.way_b,
        place_b=None if given.place_b is None else made.point,
        across=tuple(
            replace(one, mm=across(made, one.start, one.end, od_mm, over=one.over)[0]) for one in given.across
        ),
        corners=tuple(_seen(corner, made) for corner in given.corners),
        laid=given.laid and _landed(given.laid, made),
    )


def _landed(laid: OnDrawing, made: Outcome) -> OnDrawing:
    told = as_landed(laid.port, made, 0.0)
    return replace(
        laid,
        rows=tuple((row, told[row], sd) for row, _, sd in laid.rows),
        bends=tuple(replace(one, mm=off_drawn(one, made, 0.0)) for one in laid.bends),
    )


def _seen(corner: Corner, made: Outcome) -> Corner:
    ahead, up, right = (
        None if side is None else at
        for side, at in zip(corner.sides, held_at(made, corner.bend).place, strict=True)
    )
    return replace(corner, sides=(ahead, up, right))
