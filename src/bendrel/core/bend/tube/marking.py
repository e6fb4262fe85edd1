"""The moves at the bench: marks, turns and dials of every bend, in the order they are made."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from bendrel.core.bend.tool.marks import mark_bend
from bendrel.core.bend.tool.moves import OrderError, Setting, parse_order, tube_turns, usual_order
from bendrel.core.bend.tool.springback import springback_prior
from bendrel.core.bend.tube.ends import EndParts
from bendrel.core.bend.tube.part import Move
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import Bend, BendList, Span
from bendrel.core.line.document import RigidSpan
from bendrel.core.parts.bender import MarkStyle
from bendrel.core.parts.choices import Choices
from bendrel.core.record import record


@record
class Origin:
    """Where marks are measured from at one end: `beyond_mm` of tube lies between there and the finished
    rim, which is 0 where the end is flared already, or comes finished."""

    flared: bool
    beyond_mm: float


def origins(ends: tuple[EndParts, EndParts], held: EndName, spare_mm: float) -> dict[EndName, Origin]:
    """Both ends as they are while the bends are made. The spare lies at the end that is not held at
    first, unless it was cut off (`spare_mm` 0)."""
    found: dict[EndName, Origin] = {}
    for parts in ends:
        flared = parts.order == "before" or parts.ready
        beyond = parts.allowance_mm + parts.leave_long_mm + (spare_mm if parts.end != held else 0.0)
        found[parts.end] = Origin(flared=flared, beyond_mm=0.0 if flared else beyond)
    return found


def order_of(span: RigidSpan, ids: tuple[str, ...]) -> tuple[tuple[Setting, ...], str]:
    """The order of the bends of the rows `ids` that the span asks for, and "" ; where it cannot be
    followed, one after the other away from the held end, and why."""
    count = len(ids)
    if not span.order:
        return usual_order(count, span.held), ""
    written = " ".join(f"{one.held}{ids.index(one.row) + 1}" for one in span.order if one.row in ids)
    try:
        return parse_order(written, count), ""
    except OrderError as error:
        return usual_order(count, span.held), str(error)


def plan_moves(
    order: tuple[Setting, ...],
    chosen: Choices,
    shape: BendList,
    spans: tuple[Span, ...],
    at: Mapping[EndName, Origin],
    style: MarkStyle,
    left_open: Mapping[int, float] | None = None,
) -> tuple[Move, ...]:
    """One move a bend, in `order`. Lengths in mm, angles in degrees. `left_open` has the bends (by number
    from 1) that are bent only so far for now."""
    clocks = shape.clocks_deg
    made: list[Move] = []
    for setting, turn in zip(order, tube_turns(clocks, order), strict=True):
        bend, place, held = shape.bends[setting.bend], spans[setting.bend], setting.held
        allowance = at[held].beyond_mm
        mark = _mark_mm(bend, place, shape, chosen, style, held, allowance)
        start = _mark_mm(bend, place, shape, chosen, "start", held, allowance) or 0.0
        from_rim = None if mark is None else mark - allowance
        if from_rim is not None and held == "B":
            from_rim = shape.developed_mm - from_rim
        open_to = (left_open or {}).get(setting.bend + 1)
        now = bend if open_to is None else replace(bend, angle_deg=open_to)
        before = made[-1] if made and made[-1].held == held else None
        made.append(
            Move(
                bend=setting.bend + 1,
                held=held,
                feed_mm=None if before is None else start - before.start_mark_mm,
                mark_mm=mark,
                measured_from="flared_rim" if at[held].flared else "cut_end",
                strip_mm=from_rim,
                start_mark_mm=start,
                turn_deg=turn,
                turn_words=turn_words(turn, held, first=not made, over=bool(made) and before is None),
                clock_deg=clocks[setting.bend] % 360.0,
                angle_deg=now.angle_deg,
                dial_deg=dial_for(chosen, now),
                finish_deg=None if now is bend else bend.angle_deg,
            )
        )
    return tuple(made)


def _mark_mm(
    bend: Bend,
    place: Span,
    shape: BendList,
    chosen: Choices,
    style: MarkStyle,
    held: EndName,
    allowance_mm: float,
) -> float | None:
    return mark_bend(
        bend,
        place,
        shape.developed_mm,
        held=held,
        style=style,
        zero_offset_mm=chosen.bender.zero_offset_mm,
        allowance_mm=allowance_mm,
    ).mm


def dial_for(chosen: Choices, bend: Bend) -> float:
    """What the dial must show: as the tool's test pieces told, else by the tube's own properties. Plastic
    is formed warm and keeps the angle it cools at."""
    if chosen.calibration is not None:
        return chosen.calibration.dial_deg(bend.angle_deg)
    if chosen.material.family == "plastic":
        return bend.angle_deg
    return bend.angle_deg * (1 + springback_prior(chosen.material, chosen.tube, bend.radius_mm))


def turn_words(turn_deg: float, held: EndName, *, first: bool = False, over: bool = False) -> str:
    """Say a turn of the tube for someone with end `held` towards them. `over` says that the other end
    was in the clamp before: the tube is swung end for end, flat in the plane of bending."""
    if first:
        return "as it lies"
    size = round(abs(turn_deg), 1)
    change = f"change over to {held}, " if over else ""
    if size == 0:
        return f"{change}no turn"
    if size == 180:
        return f"{change}half a turn"
    way = "clockwise" if turn_deg > 0 else "anticlockwise"
    return f"{change}{size:g}° {way}, end {held} towards you"
