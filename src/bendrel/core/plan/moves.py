"""The moves at the bench: marks, turns and dials of every bend, in the order they are made."""

from __future__ import annotations

from bendrel.core.bending.marks import mark_bend
from bendrel.core.bending.moves import tube_turns, usual_order
from bendrel.core.bending.springback import springback_prior
from bendrel.core.findings import EndName
from bendrel.core.line.document import RigidSpan
from bendrel.core.plan.choices import Choices
from bendrel.core.plan.ends import EndParts
from bendrel.core.plan.model import MeasuredFrom, Move
from bendrel.core.shape.bends import Bend, BendList, Span


def plan_moves(
    span: RigidSpan,
    chosen: Choices,
    shape: BendList,
    spans: tuple[Span, ...],
    held: EndParts,
) -> tuple[Move, ...]:
    """One move a bend, working away from the held end. Lengths in mm, angles in degrees."""
    order = usual_order(len(shape.bends), span.held)
    clocks = shape.clocks_deg
    unflared = held.order != "before"
    allowance = held.allowance_mm + held.leave_long_mm if unflared else 0.0
    measured: MeasuredFrom = "cut_end" if unflared else "flared_rim"
    made: list[Move] = []
    for setting, turn in zip(order, tube_turns(clocks, order), strict=True):
        bend, place = shape.bends[setting.bend], spans[setting.bend]
        start, middle, corner = (
            mark_bend(
                bend,
                place,
                shape.developed_mm,
                held=span.held,
                style=style,
                zero_offset_mm=chosen.bender.zero_offset_mm,
                allowance_mm=allowance,
            ).mm
            for style in ("start", "middle", "corner")
        )
        mark = {"start": start, "middle": middle, "corner": corner}[span.marks]
        from_rim = None if mark is None else mark - allowance
        if from_rim is not None and span.held == "B":
            from_rim = shape.developed_mm - from_rim
        made.append(
            Move(
                bend=setting.bend + 1,
                mark_mm=mark,
                measured_from=measured,
                strip_mm=from_rim,
                start_mark_mm=start or 0.0,
                middle_mark_mm=middle or 0.0,
                corner_mark_mm=corner,
                turn_deg=turn,
                turn_words=turn_words(turn, span.held, first=not made),
                clock_deg=clocks[setting.bend] % 360.0,
                angle_deg=bend.angle_deg,
                dial_deg=_dial(chosen, bend),
            )
        )
    return tuple(made)


def _dial(chosen: Choices, bend: Bend) -> float:
    """What the dial must show: as the tool's test pieces told, else by the tube's own properties."""
    if chosen.calibration is not None:
        return chosen.calibration.dial_deg(bend.angle_deg)
    return bend.angle_deg * (1 + springback_prior(chosen.material, chosen.tube, bend.radius_mm))


def turn_words(turn_deg: float, held: EndName, *, first: bool = False) -> str:
    """Say a turn of the tube for someone with end `held` towards them."""
    if first:
        return "as it lies"
    size = round(abs(turn_deg), 1)
    if size == 0:
        return "no turn"
    if size == 180:
        return "half a turn"
    way = "clockwise" if turn_deg > 0 else "anticlockwise"
    return f"{size:g}° {way}, end {held} towards you"
