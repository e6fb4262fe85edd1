"""Where a line is held: how far clips may stand apart, and where they go."""

from __future__ import annotations

from itertools import pairwise
from math import ceil
from typing import Annotated

from annotated_types import Gt

from bendrel.core.findings import Source
from bendrel.core.geometry.bends import Span
from bendrel.core.record import record

SAME_MM = 0.5
"""Two places nearer than a hand can set a clip are one."""


@record
class Clip:
    """A lined P-clip, by the diameter (mm) that it closes round."""

    id: str
    name: str
    inside_mm: Annotated[float, Gt(0)]
    source: Source


@record
class ClipSpacing:
    """How far apart the clips of a tube up to `up_to_mm` outside may stand, in mm."""

    up_to_mm: Annotated[float, Gt(0)]
    apart_mm: Annotated[float, Gt(0)]
    source: Source


@record
class Clips:
    """Where a line is held, in mm from end A's finished end. `old` says that the old line's own places were
    noted and are used again; `clip` is the P-clip that goes round the tube, None where none is listed."""

    apart_mm: float
    places_mm: tuple[float, ...]
    old: bool
    clip: Clip | None
    source: Source


def clip_places(
    developed_mm: float, arcs: tuple[Span, ...], apart_mm: float, from_end_mm: float
) -> tuple[float, ...]:
    """Places for clips along a tube: one near each end, the rest evenly between, never more than `apart_mm`
    from the one before, and beside a bend rather than on it where that is possible. One in the middle of a
    tube that is shorter than two ends. Source: common practice."""
    if developed_mm <= 2 * from_end_mm:
        return (developed_mm / 2,)
    last = developed_mm - from_end_mm
    places = [_off_bend(from_end_mm, arcs, 0.0, developed_mm)]
    while (rest := last - places[-1]) > SAME_MM:
        # spread anew after each: a clip that made way for a bend would leave a scrap at the end
        place = places[-1] + rest / ceil(rest / apart_mm)
        places.append(_off_bend(place, arcs, places[-1], places[-1] + apart_mm))
        if place >= last - SAME_MM:
            break
    return tuple(places)


def gaps_between(places_mm: tuple[float, ...], developed_mm: float) -> tuple[tuple[float, float], ...]:
    """Every stretch between an end or a clip and the next, from end A."""
    return tuple(pairwise((0.0, *sorted(places_mm), developed_mm)))


def clip_for(clips: tuple[Clip, ...], od_mm: float, give_mm: float) -> Clip | None:
    """The P-clip that closes round a tube: the smallest that is no tighter than its lining gives."""
    fits = [clip for clip in clips if -give_mm <= clip.inside_mm - od_mm <= give_mm]
    return min(fits, key=lambda clip: abs(clip.inside_mm - od_mm), default=None)


def spacing_for(rows: tuple[ClipSpacing, ...], od_mm: float) -> ClipSpacing:
    """The row of a tube; the last one for anything thicker."""
    ordered = sorted(rows, key=lambda row: row.up_to_mm)
    return next((row for row in ordered if od_mm <= row.up_to_mm), ordered[-1])


def _off_bend(place: float, arcs: tuple[Span, ...], after: float, before: float) -> float:
    """The nearest place on a straight between `after` and `before`; the place itself where there is none."""
    for arc in arcs:
        if arc.start_mm < place < arc.end_mm:
            free = [at for at in (arc.start_mm, arc.end_mm) if after + SAME_MM < at <= before]
            return min(free, key=lambda at: abs(at - place), default=place)
    return place
