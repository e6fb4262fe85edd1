"""The profile of a thread in axial section, for a drawing to scale."""

from __future__ import annotations

from math import ceil, radians, tan
from typing import Literal

from bendrel.core.parts.threads.designation import Thread
from bendrel.core.parts.threads.tolerance import female_limits, male_limits
from bendrel.core.record import record

Point = tuple[float, float]
TAPER = 1 / 16  # on diameter: ISO 7-1, ASME B1.20.1


@record
class Profile:
    """One flank line in mm: along the axis from the thread's start, and out from the axis."""

    designation: str
    gender: Literal["male", "female"]
    points: tuple[Point, ...]


def thread_profile(
    thread: Thread, gender: Literal["male", "female"], length_mm: float, shift_mm: float = 0.0
) -> Profile:
    """The flank line over `length_mm`, at mid-tolerance, its first tooth (male) or groove (female)
    centred at `shift_mm`. Crests and roots are drawn flat where the limits cut them.

    Source: ISO 68-1, ASME B1.1 and B1.20.1, ISO 228-1: flanks through the pitch line, half a
    pitch apart.
    """
    slope = tan(radians(thread.flank_deg / 2))
    if gender == "male":
        limits = male_limits(thread)
        pitch_r, crest_r = limits.pitch.middle / 2, limits.major.middle / 2
        root_r = pitch_r - (crest_r - pitch_r)
        high, low = crest_r, root_r
    else:
        bounds = female_limits(thread)
        pitch_r, low = bounds.pitch.middle / 2, bounds.minor.middle / 2
        high = pitch_r + (pitch_r - low)
    p, points = thread.pitch_mm, []
    top = max(0.0, p / 4 - (high - pitch_r) * slope)
    foot = max(0.0, p / 4 - (pitch_r - low) * slope)
    for k in range(-1, ceil(length_mm / p) + 2):
        middle = shift_mm + k * p
        for at, r in (
            (middle - p / 2 + foot, low),
            (middle - top, high),
            (middle + top, high),
            (middle + p / 2 - foot, low),
        ):
            if 0 <= at <= length_mm:
                points.append((at, r + (at * TAPER / 2 if thread.taper else 0.0)))
    return Profile(designation=thread.designation, gender=gender, points=tuple(points))
