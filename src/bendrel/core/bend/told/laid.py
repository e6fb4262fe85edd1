"""A part as it lies along its tube: what is bent keeps its place there, whatever is done to the rest."""

from __future__ import annotations

from math import radians

from bendrel.core.geometry.bends import Bend, BendList, bend_spans
from bendrel.core.record import record


@record
class Laid:
    """Where each bend starts from end A's rim (mm), its angle, its clock and its radius, and the whole
    length. What is bent keeps its place and its clock on the tube, whatever is done to the rest."""

    starts_mm: tuple[float, ...]
    angles_deg: tuple[float, ...]
    clocks_deg: tuple[float, ...]
    radii_mm: tuple[float, ...]
    length_mm: float


def laid_out(shape: BendList) -> Laid:
    """`shape` along its tube."""
    return Laid(
        starts_mm=tuple(span.start_mm for span in bend_spans(shape)),
        angles_deg=tuple(bend.angle_deg for bend in shape.bends),
        clocks_deg=shape.clocks_deg,
        radii_mm=tuple(bend.radius_mm for bend in shape.bends),
        length_mm=shape.developed_mm,
    )


def shape_from(laid: Laid, trim_a_mm: float = 0.0) -> BendList:
    """The bend list that lies so; `trim_a_mm` is cut off at end A (negative: left on)."""
    bends, at, clock = [], trim_a_mm, 0.0
    for k, start in enumerate(laid.starts_mm):
        turn = laid.clocks_deg[k] - clock if k else 0.0
        angle, radius = laid.angles_deg[k], laid.radii_mm[k]
        bends.append(Bend(straight_mm=start - at, rotation_deg=turn, angle_deg=angle, radius_mm=radius))
        at, clock = start + radius * radians(angle), laid.clocks_deg[k]
    return BendList(bends=tuple(bends), last_straight_mm=laid.length_mm - at)
