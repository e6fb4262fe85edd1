"""A part laid out on a board: its plan, the heights of its bends, a stop for the end at home, a target for
the other."""

from __future__ import annotations

from math import atan2, degrees, hypot

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import BendList, reversed_list
from bendrel.core.geometry.centreline import bend_middles, pieces, sampled
from bendrel.core.geometry.flat import lying_flat
from bendrel.core.geometry.vectors import Vector, along, cross, dot, unit
from bendrel.core.measure.landing import port_of
from bendrel.core.record import record

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
    is not trimmed."""
    shape, count = (planned if home == "A" else reversed_list(planned)), len(planned.bends)
    lands: EndName = "B" if home == "A" else "A"
    points = [point for _, point in sampled(shape)]
    lying = lying_flat(points)

    def at(point: Vector) -> Vector:
        x, y, z = lying.at(point)
        return x + margin_mm, y + margin_mm, z + od_mm / 2 + least_mm

    def plan_way(way: Vector) -> float:
        x, y, _ = lying.turned(way)
        return degrees(atan2(y, x))

    arcs = [piece for piece in pieces(shape) if piece.radius_mm is not None]
    rests = [_rest(home, None, at((0.0, 0.0, 0.0)), plan_way((1.0, 0.0, 0.0)), od_mm)]
    for k, (middle, arc) in enumerate(zip(bend_middles(shape), arcs, strict=True), start=1):
        number = k if home == "A" else count + 1 - k
        way = arc.frame(arc.length_mm / 2).way
        rests.append(_rest(str(number), number, at(middle), plan_way(way), od_mm))
    port = port_of(shape)
    way = lying.turned(port.way)
    x, y, z = at(port.point)
    rests.append(_rest(lands, None, (x, y, z), plan_way(port.way), od_mm))
    path = tuple(at(point) for point in points)
    wide, deep, high = (max(sides) for sides in zip(*path, strict=True))
    return Jig(
        path=path,
        rests=tuple(rests),
        target=Target(
            x_mm=x,
            y_mm=y,
            way_deg=plan_way(port.way),
            rise_deg=degrees(atan2(way[2], hypot(way[0], way[1]))),
            high_mm=z,
            noon_deg=_noon(way, lying.turned(port.noon)),
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


def _noon(way: Vector, noon: Vector) -> float:
    """How far 12 o'clock is turned clockwise, seen from A, from the board's up (from its y where end B stands
    up)."""
    up = (0.0, 0.0, 1.0) if abs(way[2]) < 1 - FLAT_SHARE**2 else (0.0, 1.0, 0.0)
    up = unit(along(up, way, -dot(way, up)))
    return degrees(atan2(dot(noon, cross(way, up)), dot(noon, up))) % 360.0
