"""A part laid out on a board: its plan, the heights of its bends, a stop for the end at home, a target for
the other."""

from __future__ import annotations

from math import atan2, degrees
from typing import TYPE_CHECKING

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList, reversed_list
from bendrel.core.geometry.centreline import bend_middles, pieces, sampled
from bendrel.core.geometry.vectors import Vector
from bendrel.core.measure.landing import port_of
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

FLAT_SHARE = 0.3
"""A part whose end that lands stands up more steeply than this (sine) has its target lying on the board."""


@record
class Rest:
    """A block under the tube: of which bend (None: an end), where on the board, which way the tube runs there
    (degrees from the board's x), and how high the tube's underside is."""

    name: str
    bend: int | None
    x_mm: float
    y_mm: float
    way_deg: float
    high_mm: float


@record
class Target:
    """The end that lands on the board: where, which way it runs (degrees in the plan), how much it rises
    (degrees), how high its middle is, and by how much 12 o'clock (seen from the end at home) is turned
    clockwise from the board's up."""

    x_mm: float
    y_mm: float
    way_deg: float
    rise_deg: float
    high_mm: float
    noon_deg: float


@record
class Jig:
    """A part on its board: the centreline as (x, y, height of the middle), every block, and the target. The
    plan starts at (0, 0) in its lower left corner and is `wide_mm` by `deep_mm`. `home` is the end at the
    stop."""

    path: tuple[Vector, ...]
    rests: tuple[Rest, ...]
    target: Target
    wide_mm: float
    deep_mm: float
    high_mm: float
    od_mm: float
    home: EndName = "A"

    @property
    def lands(self) -> EndName:
        """The end at the target."""
        return "B" if self.home == "A" else "A"


def lay_on_board(
    planned: BendList, od_mm: float, *, least_mm: float, margin_mm: float, home: EndName = "A"
) -> Jig:
    """The part turned so that it lies as flat as it can, its lowest point `least_mm` above the board
    (underside of the tube), with `margin_mm` of board about it; `home` is the end at its stop, the one that
    is not trimmed. Source: plane of least squares."""
    import numpy as np

    shape, count = (planned if home == "A" else reversed_list(planned)), len(planned.bends)
    lands: EndName = "B" if home == "A" else "A"
    points = np.array([point for _, point in sampled(shape, 6.0)])
    turn = _flat(points)
    flat = points @ turn.T
    low = flat.min(axis=0) - [margin_mm, margin_mm, od_mm / 2 + least_mm]
    placed = flat - low

    def at(point: Vector) -> tuple[float, float, float]:
        x, y, z = (float(v) for v in turn @ np.array(point) - low)
        return x, y, z

    def plan_way(way: Vector) -> float:
        x, y, _ = (float(v) for v in turn @ np.array(way))
        return degrees(atan2(y, x))

    arcs = [piece for piece in pieces(shape) if piece.radius_mm is not None]
    rests = [_rest(home, None, at((0.0, 0.0, 0.0)), plan_way((1.0, 0.0, 0.0)), od_mm)]
    for k, (middle, arc) in enumerate(zip(bend_middles(shape), arcs, strict=True), start=1):
        number = k if home == "A" else count + 1 - k
        way = arc.frame(arc.length_mm / 2).way
        rests.append(_rest(str(number), number, at(middle), plan_way(way), od_mm))
    port = port_of(shape)
    way = turn @ np.array(port.way)
    x, y, z = at(port.point)
    rests.append(_rest(lands, None, (x, y, z), plan_way(port.way), od_mm))
    wide, deep, high = (float(v) for v in placed.max(axis=0))
    return Jig(
        path=tuple((float(p[0]), float(p[1]), float(p[2])) for p in placed),
        rests=tuple(rests),
        target=Target(
            x_mm=x,
            y_mm=y,
            way_deg=plan_way(port.way),
            rise_deg=degrees(atan2(float(way[2]), float(np.hypot(way[0], way[1])))),
            high_mm=z,
            noon_deg=_noon(way, turn @ np.array(port.noon)),
        ),
        wide_mm=wide + margin_mm,
        deep_mm=deep + margin_mm,
        high_mm=high + od_mm / 2,
        od_mm=od_mm,
        home=home,
    )


def _rest(name: str, bend: int | None, at: tuple[float, float, float], way_deg: float, od_mm: float) -> Rest:
    x, y, z = at
    return Rest(name=name, bend=bend, x_mm=x, y_mm=y, way_deg=way_deg, high_mm=z - od_mm / 2)


def _flat(points: Array) -> Array:
    """The turn that lays the part flat, its longest side along x, right-handed."""
    import numpy as np

    centred = points - points.mean(axis=0)
    _, _, axes = np.linalg.svd(centred, full_matrices=True)
    x, z = axes[0], axes[2]
    # the side of the end at home shows to the left
    if (points[-1] - points[0]) @ x < 0:
        x = -x
    turned: Array = np.array([x, np.cross(z, x), z])
    return turned


def _noon(way: Array, noon: Array) -> float:
    """How far 12 o'clock is turned clockwise, seen from A, from the board's up (from its y where end B stands
    up)."""
    import numpy as np

    up = np.array([0.0, 0.0, 1.0]) if abs(way[2]) < 1 - FLAT_SHARE**2 else np.array([0.0, 1.0, 0.0])
    up = up - way * (up @ way)
    up = up / np.linalg.norm(up)
    right = np.cross(way, up)
    return degrees(atan2(float(noon @ right), float(noon @ up))) % 360.0
