"""Many slightly different parts carried through at once: what a filter and a forecast need."""

from __future__ import annotations

from collections.abc import Collection
from typing import TYPE_CHECKING

from bendrel.core.bend.told.laid import Laid
from bendrel.core.findings import EndName
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]


@record
class Many:
    """Parts in columns: where each bend starts, its angle, its clock and its arc (bends, parts); mm and
    degrees, from end A's rim."""

    starts: Array
    angles: Array
    clocks: Array
    arcs: Array


@record
class Places:
    """One place on each of many parts: points and ways, each (3, parts). `middles` are those of the bends
    before it, (bends, 3, parts)."""

    point: Array
    way: Array
    middles: Array


def one(laid: Laid) -> Many:
    """A single part in one column."""
    import numpy as np

    starts, angles, clocks, radii = (
        np.array(figures, dtype=float).reshape(-1, 1)
        for figures in (laid.starts_mm, laid.angles_deg, laid.clocks_deg, laid.radii_mm)
    )
    return Many(starts=starts, angles=angles, clocks=clocks, arcs=np.radians(angles) * radii)


def end_of(many: Many, length_mm: float, lands: EndName) -> Places:
    """Where the end that `lands` is with the other one home; `length_mm` from rim to rim."""
    return place(many if lands == "B" else turned(many, length_mm), length_mm)


def turned(many: Many, length_mm: float) -> Many:
    """The same parts told from the other rim: a clock is then from the plane of the bend that was last, and
    the turn from bend to bend keeps its sign."""
    return Many(
        starts=(length_mm - many.starts - many.arcs)[::-1],
        angles=many.angles[::-1],
        clocks=(many.clocks[-1:] - many.clocks)[::-1],
        arcs=many.arcs[::-1],
    )


def place(many: Many, until: Array | float, bent: Collection[int] | None = None) -> Places:
    """Where the tube is at the developed length `until`; only the bends of `bent` (from 0; None: all) are
    bent, the others are straight tube still. In the frame of `end_frame`: rim A at the origin along +x, the
    plane of a bend of clock 0 turning towards +y. Source: the recursion of `end_frame`, column by column.
    """
    import numpy as np

    count, parts = many.angles.shape
    point = np.zeros((3, parts))
    way = np.repeat([[1.0], [0.0], [0.0]], parts, axis=1)
    normal = np.repeat([[0.0], [0.0], [1.0]], parts, axis=1)
    at = np.zeros(parts)
    clock = np.zeros(parts)
    middles = []
    for k in range(count):
        if bent is not None and k not in bent:
            continue
        start = many.starts[k]
        arc = np.clip(until - start, 0.0, many.arcs[k])  # nothing is bent beyond the place asked for
        ahead = np.minimum(start, until) - at
        turn = np.radians(many.clocks[k] - clock)
        over = np.radians(many.angles[k]) * arc / many.arcs[k]
        radius = many.arcs[k] / np.radians(many.angles[k])
        normal = normal * np.cos(turn) + crossed(way, normal) * np.sin(turn)
        inward = crossed(normal, way)
        c, s = np.cos(over / 2), np.sin(over / 2)
        middles.append(point + way * (ahead + radius * s) + inward * (radius * (1 - c)))
        c, s = np.cos(over), np.sin(over)
        point = point + way * (ahead + radius * s) + inward * (radius * (1 - c))
        way = way * c + inward * s
        at, clock = np.minimum(start + many.arcs[k], until), many.clocks[k]
    bends = np.array(middles) if middles else np.zeros((0, 3, parts))
    return Places(point=point + way * (until - at), way=way, middles=bends)


def crossed(a: Array, b: Array) -> Array:
    """The vector product column by column."""
    import numpy as np

    return np.stack([a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]])
