"""A hose between two ends that nobody has drawn: what the command line answers."""

from __future__ import annotations

from math import isfinite
from typing import Any

from bendrel.core.geometry.vectors import Vector, length, unit
from bendrel.core.hose.shape.laid import HoseEnd, HoseEnds, HoseError, hose_shape
from bendrel.core.hose.shape.windows import hose_windows

_FURTHEST_MM = 200_000.0
_LONGEST_SHARE = 3.0


def hose_answer(
    start: str,
    stop: str,
    radius_mm: float,
    length_mm: float | None,
    straight_mm: float,
    longest_mm: float | None,
) -> dict[str, Any]:
    """The shape of a hose and the lengths that keep its radius. Without a length the shortest of the first
    window is drawn; where no length keeps the radius, the gentlest. Raises HoseError."""
    for name, mm in (
        ("--radius", radius_mm),
        ("--length", length_mm),
        ("--straight", straight_mm),
        ("--longest", longest_mm),
    ):
        if mm is not None and not (isfinite(mm) and 0 <= mm <= _FURTHEST_MM):
            raise HoseError(f"{name} {mm:g}: a length in mm is accepted, up to {_FURTHEST_MM:g}.")
    if radius_mm == 0:
        raise HoseError("--radius 0: the least radius of the hose's centreline is needed, more than 0 mm.")
    ends = HoseEnds(a=_end("--from", start, straight_mm), b=_end("--to", stop, straight_mm))
    longest = ends.distance_mm * _LONGEST_SHARE if longest_mm is None else longest_mm
    if longest_mm is None and longest <= ends.least_mm:
        # the ends point so that even the shortest hose is longer than that
        longest = ends.least_mm * 1.5
    if length_mm is not None:
        hose_shape(ends, length_mm)
    windows = hose_windows(ends, radius_mm, longest)
    if length_mm is None:
        first = windows.windows[0].least if windows.windows else windows.gentlest
        length_mm = first.length_mm
    shape = hose_shape(ends, length_mm)
    return {
        "length_mm": shape.length_mm,
        "radius_mm": shape.radius_mm,
        "reach_mm": shape.reach_mm,
        "points": [list(point) for point in shape.points],
        "windows_mm": [[one.least.length_mm, one.most.length_mm] for one in windows.windows],
    }


def _end(name: str, text: str, straight_mm: float) -> HoseEnd:
    cells = [cell.strip() for cell in text.split(",")]
    try:
        figures = [float(cell) for cell in cells]
    except ValueError:
        figures = []
    if len(figures) != 6 or not all(isfinite(f) and abs(f) <= _FURTHEST_MM for f in figures):
        raise HoseError(
            f"{name} “{text}”: six numbers with commas between are accepted, the point in mm and the way "
            f"along "
            "the hose, such as 0,0,0,1,0,0."
        )
    way: Vector = (figures[3], figures[4], figures[5])
    if length(way) < 1e-9:
        raise HoseError(f"{name} “{text}”: its way has no length; such as 1,0,0 is accepted.")
    return HoseEnd(point=(figures[0], figures[1], figures[2]), way=unit(way), straight_mm=straight_mm)
