"""The bends that are left open for now."""

from __future__ import annotations

from bendrel.core.geometry.bends import BendList
from bendrel.core.line.document import RigidSpan
from bendrel.core.units.notation import UnitError, parse_angle


def open_bends(span: RigidSpan, ids: tuple[str, ...], shape: BendList) -> dict[int, float]:
    """The bends that are left open for now, by number (`ids` are their rows), and how far they are bent;
    what cannot be read or is no less than the bend itself is left out."""
    found: dict[int, float] = {}
    for item in span.left_open:
        if item.row not in ids:
            continue
        bend = ids.index(item.row)
        try:
            angle = item.angle.exact_deg or parse_angle(item.angle.text)
        except UnitError:
            continue
        if angle < shape.bends[bend].angle_deg:
            found[bend + 1] = angle
    return found
