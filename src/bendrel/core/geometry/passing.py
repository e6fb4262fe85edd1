"""Getting a bent tube through an opening."""

from __future__ import annotations

from collections.abc import Callable
from math import cos, radians, sin, sqrt, tan

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList, bend_spans
from bendrel.core.geometry.centreline import sampled
from bendrel.core.record import record


@record
class Passage:
    """One bend on its way through an opening: the width it needs and has (mm, None where that was not
    said), the room that the part already through sweeps and has, and the greatest angle that would
    pass (None where even straight tube does not)."""

    bend: int
    width_mm: float
    across_mm: float | None
    sweep_mm: float
    room_mm: float | None
    passes: bool
    most_deg: float | None


def width_needed(radius_mm: float, angle_deg: float, od_mm: float, deep_mm: float) -> float:
    """Clear width that a bend needs to slide through a straight passage `deep_mm` long, in mm.

    In the worst place the bend lies in the middle of it: outside at R + d/2, inside at the two mouths.
    With r = R − d/2 and half the depth h: r − √(r² − h²) more than the tube while the mouths lie on the
    arc, and along its legs beyond that. Source: plane geometry.

    >>> width_needed(30, 90, 10, 0)  # a hole in thin sheet: the tube alone
    10.0
    """
    inside, half, angle = radius_mm - od_mm / 2, deep_mm / 2, radians(min(angle_deg, 179.0)) / 2
    reach = inside * sin(angle)
    if half <= reach:
        low = sqrt(max(0.0, inside**2 - half**2))
    else:
        low = inside * cos(angle) - (half - reach) * tan(angle)
    return radius_mm + od_mm / 2 - low


def sweep_of(shape: BendList, bend: int, enters: EndName) -> float:
    """How far the part that is through already reaches out sideways when `bend` (from 0) passes: its
    greatest distance from the bend times the sine of the angle it turns by."""
    spans, path = bend_spans(shape), sampled(shape, 15.0)
    middle = spans[bend].middle_mm
    here = min(path, key=lambda item: abs(item[0] - middle))[1]
    ahead = [p for at, p in path if (at > middle if enters == "B" else at < middle)]
    reach = max((sqrt(sum((a - b) ** 2 for a, b in zip(p, here, strict=True))) for p in ahead), default=0.0)
    return reach * sin(radians(min(shape.bends[bend].angle_deg, 90.0)))


def passages(
    shape: BendList,
    od_mm: float,
    at_mm: float,
    enters: EndName,
    across_mm: float | None,
    deep_mm: float,
    room_mm: float | None,
) -> tuple[Passage, ...]:
    """Every bend that has to go through an opening which sits at `at_mm` of the fitted line when end
    `enters` goes in first."""
    found = []
    for k, (bend, span) in enumerate(zip(shape.bends, bend_spans(shape), strict=True)):
        through = span.start_mm >= at_mm if enters == "B" else span.end_mm <= at_mm
        if not through:
            continue
        width = width_needed(bend.radius_mm, bend.angle_deg, od_mm, deep_mm)
        sweep = sweep_of(shape, k, enters)
        reach = sweep / sin(radians(min(bend.angle_deg, 90.0)))

        def fits(angle: float, radius: float = bend.radius_mm, reach: float = reach) -> bool:
            wide = across_mm is None or width_needed(radius, angle, od_mm, deep_mm) <= across_mm
            return wide and (room_mm is None or reach * sin(radians(min(angle, 90.0))) <= room_mm)

        passes = fits(bend.angle_deg)
        found.append(
            Passage(
                bend=k + 1,
                width_mm=width,
                across_mm=across_mm,
                sweep_mm=sweep,
                room_mm=room_mm,
                passes=passes,
                most_deg=bend.angle_deg if passes else _most(fits, bend.angle_deg),
            )
        )
    return tuple(found)


def _most(fits: Callable[[float], bool], angle_deg: float) -> float | None:
    """The greatest angle under `angle_deg` that fits, to a tenth of a degree."""
    if not fits(0.5):
        return None
    low, high = 0.5, angle_deg
    while high - low > 0.05:
        middle = (low + high) / 2
        low, high = (middle, high) if fits(middle) else (low, middle)
    return low
