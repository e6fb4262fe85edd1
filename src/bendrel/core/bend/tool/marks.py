"""Where to mark the tube for each bend.

All distances run along the tube from the held end, because that is what a person can measure.
"""

from __future__ import annotations

from math import radians, tan

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import NO_CORNER_DEG, Bend, Span
from bendrel.core.parts.bender import MarkStyle
from bendrel.core.record import record


@record
class Mark:
    """One mark in one style. `mm` is None where the style has no mark for this bend.

    `tangent_mm` is where the bend starts on the held side, `take_up_mm` what the corner style
    takes off the corner; both measured as `mm` is.
    """

    style: MarkStyle
    mm: float | None
    tangent_mm: float
    take_up_mm: float | None


def mark_bend(
    bend: Bend,
    span: Span,
    developed_mm: float,
    *,
    held: EndName,
    style: MarkStyle,
    zero_offset_mm: float = 0.0,
    allowance_mm: float = 0.0,
) -> Mark:
    """Mark for one bend, measured from the held end.

    The tool's zero goes to the tangent point on the held side: s from A, L − s − R·θ from B.
    `allowance_mm` is what an end that is not flared yet still carries. Styles: *start* is the
    tangent point; *middle* is half the arc further on, to be lined up half-way along the degree
    scale; *corner* is the corner less the take-up T + z, which is the same place as *start* by
    another sum, and has no meaning from 170° up. Every style moves by the tool's zero offset.
    Source: geometry of a rotary-draw bender.
    """
    from_held = span.start_mm if held == "A" else developed_mm - span.end_mm
    tangent = from_held + allowance_mm
    start = tangent - zero_offset_mm
    if style == "start":
        return Mark(style=style, mm=start, tangent_mm=tangent, take_up_mm=None)
    if style == "middle":
        return Mark(style=style, mm=start + bend.arc_mm / 2, tangent_mm=tangent, take_up_mm=None)
    if bend.angle_deg >= NO_CORNER_DEG:
        return Mark(style=style, mm=None, tangent_mm=tangent, take_up_mm=None)
    reach = bend.radius_mm * tan(radians(bend.angle_deg) / 2)
    take_up = reach + zero_offset_mm
    return Mark(style=style, mm=tangent + reach - take_up, tangent_mm=tangent, take_up_mm=take_up)
