"""A shape cut across on a straight, and parts put together again."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from bendrel.core.geometry.bends import BendList, ShapeError, bend_spans
from bendrel.core.record import record
from bendrel.core.units.notation import normalised_turn

SLACK_MM = 1e-9


@record
class Parts:
    """Two parts of a shape. `roll_deg` is how far the plane of the second's first bend is turned from that
    of the first's last bend, as a rotation is; `first_bend` the place of the second's first bend in the
    whole."""

    before: BendList
    behind: BendList
    roll_deg: float
    first_bend: int


def cut_across(shape: BendList, at_mm: float) -> Parts:
    """`shape` cut at a developed position in mm from end A.

    Raises ShapeError for a place beyond the ends, and for one in an arc.
    """
    if not -SLACK_MM <= at_mm <= shape.developed_mm + SLACK_MM:
        whole = shape.developed_mm
        raise ShapeError("{at} lies beyond the tube, which is {whole} long.", at=at_mm, whole=whole)
    spans = bend_spans(shape)
    for number, span in enumerate(spans, start=1):
        if span.start_mm + SLACK_MM < at_mm < span.end_mm - SLACK_MM:
            raise ShapeError(
                f"{{at}} lies in the arc of bend {number}, {{start}} to {{end}}; a tube is cut on a "
                "straight.",
                at=at_mm,
                start=span.start_mm,
                end=span.end_mm,
            )
    k = sum(span.end_mm <= at_mm + SLACK_MM for span in spans)
    reached = spans[k - 1].end_mm if k else 0.0
    before = BendList(bends=shape.bends[:k], last_straight_mm=at_mm - reached)
    rest = shape.bends[k:]
    if not rest:
        behind = BendList(bends=(), last_straight_mm=shape.last_straight_mm - (at_mm - reached))
        return Parts(before=before, behind=behind, roll_deg=0.0, first_bend=k)
    left = rest[0].straight_mm - (at_mm - reached)
    first = replace(rest[0], straight_mm=left, rotation_deg=0.0)
    return Parts(
        before=before,
        behind=BendList(bends=(first, *rest[1:]), last_straight_mm=shape.last_straight_mm),
        roll_deg=rest[0].rotation_deg,
        first_bend=k,
    )


def put_together(
    parts: Sequence[BendList], between_mm: Sequence[float], rolls_deg: Sequence[float]
) -> BendList:
    """One shape of several: straight on over `between_mm` from each to the next, whose first bend is turned
    by the roll from the last bend before it. A roll before a part without bends goes on to the next one."""
    whole, turned = parts[0], 0.0
    for part, between, roll in zip(parts[1:], between_mm, rolls_deg, strict=True):
        turned += roll
        gap = whole.last_straight_mm + between
        if not part.bends:
            whole = replace(whole, last_straight_mm=gap + part.last_straight_mm)
            continue
        rotation = normalised_turn(turned) if whole.bends else 0.0
        first = replace(part.bends[0], straight_mm=part.bends[0].straight_mm + gap, rotation_deg=rotation)
        whole = BendList(bends=(*whole.bends, first, *part.bends[1:]), last_straight_mm=part.last_straight_mm)
        turned = 0.0
    return whole
