"""The old part laid on its jig sheet: where its end B and its bends lie beside what is drawn there."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from math import atan2, cos, degrees, pi, radians, sin, sqrt

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.centreline import Piece, sampled
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.flat import lying_flat
from bendrel.core.geometry.vectors import Vector, along, cross, dot, scale, subtract, unit
from bendrel.core.measure.landing import Port, Row, port_of, rolled
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.outcome import Outcome, by_steps, outcome
from bendrel.core.measure.spread import Spread
from bendrel.core.record import record

Array = NDArray[np.float64]

BESIDE = (1, 2)
"""The rows of a landing that say how far end B lies beside."""
ROUNDS, STILL = 4, 1e-9
LEAST_AHEAD, FARTHEST_MM = 0.2, 100.0
"""A search for a slip tries parts that lie quite otherwise: how nearly such a tube may run along the plane
in which it is looked for, and how far beyond its bend."""


@record
class SheetBend:
    """A bend as a sheet shows it: the middle of its arc and the way there, in the frame of end A, in mm; and
    how high the tube is there over its lowest place on the board."""

    point: Vector
    way: Vector
    over_mm: float


@record
class Sheet:
    """What a jig sheet shows, end A at its stop: the port of end B, the board's up, every bend."""

    port: Port
    up: Vector
    bends: tuple[SheetBend, ...]


@record
class BendOff:
    """How far the tube lies off the drawn middle of a bend (0 is the first) at `point`, in mm towards `side`,
    with one standard deviation; in the plane that is square to the tube as it is drawn there, along `way`."""

    bend: int
    point: Vector
    way: Vector
    side: Vector
    mm: float
    sd: float
    id: str = ""


@record
class OnDrawing:
    """The old part laid on a drawing: where its end B lands beside the drawn one, `port`, as rows of
    `landed`, and how far its bends lie off the drawn ones."""

    port: Port
    rows: tuple[Row, ...] = ()
    bends: tuple[BendOff, ...] = ()

    @property
    def figures(self) -> int:
        """How many rows tell it."""
        return len(self.rows) + len(self.bends)

    @property
    def sds(self) -> tuple[float, ...]:
        """One standard deviation of each row."""
        return (*(sd for _, _, sd in self.rows), *(one.sd for one in self.bends))

    @property
    def rolls(self) -> bool:
        """Whether its roll is found from it: a length along the way alone tells nothing of that."""
        return bool(self.bends) or any(row in BESIDE for row, _, _ in self.rows)


def sheet_of(read: ReadBends | Corners) -> Sheet:
    """The jig sheet of these readings. Raises ShapeError where they are no shape."""
    made = outcome(read)
    lying = lying_flat([point for _, point in sampled(made.shape)])

    def bend(k: int) -> SheetBend:
        arc = _arc(made, k)
        middle = arc.frame(arc.length_mm / 2)
        return SheetBend(point=middle.point, way=middle.way, over_mm=lying.at(middle.point)[2])

    bends = tuple(bend(k) for k in range(len(made.shape.bends)))
    return Sheet(port=port_of(made.shape), up=lying.up, bends=bends)


@record
class Sides:
    """What is read at a place of a tube on its board, both square to the tube: to its `left`, level with the
    board, and `above` it. A height is read straight up over the drawn place: `level` of it counts above."""

    left: Vector
    above: Vector
    level: float


def sides_of(way: Vector, up: Vector, steep_deg: float) -> Sides | None:
    """The sides of a tube along `way`; None where it rises from the board by more than `steep_deg`, which is
    less than 90. Raises nothing."""
    rise = dot(way, up)
    if abs(rise) > sin(radians(steep_deg)):
        return None
    level = sqrt(1 - rise**2)
    return Sides(left=unit(cross(up, way)), above=scale(along(up, way, -rise), 1 / level), level=level)


def beside(laid: OnDrawing, made: Outcome, roll_deg: float) -> list[float]:
    """The misses of all that was read there, with the part rolled by so much."""
    told, offs = as_landed(laid.port, made, roll_deg), _off_each(laid.bends, made, roll_deg)
    return [
        *(value - told[row] for row, value, _ in laid.rows),
        *(one.mm - off for one, off in zip(laid.bends, offs, strict=True)),
    ]


def as_landed(port: Port, made: Outcome, roll_deg: float) -> tuple[float, ...]:
    """`landed` for one part, written out in plain figures: the search for a slip asks for it many times."""
    end = made.end
    off = subtract(_turned(end.point, roll_deg), port.point)
    way = _turned(end.way, roll_deg)
    ahead = max(dot(port.way, way), 1e-9)
    tilts = (degrees(atan2(dot(side, way), ahead)) for side in (port.noon, port.three))
    return (dot(port.way, off), dot(port.noon, off), dot(port.three, off), *tilts)


def off_drawn(one: BendOff, made: Outcome, roll_deg: float) -> float:
    """How far the tube lies off the drawn place, in mm towards that side, with the part rolled by so much."""
    (off,) = _off_each((one,), made, roll_deg)
    return off


def _off_each(bends: tuple[BendOff, ...], made: Outcome, roll_deg: float) -> Iterator[float]:
    """`off_drawn` of each; what is read at one bend shares its crossing, which the search for a slip asks for
    many times."""
    found: dict[tuple[int, Vector], Crossing] = {}
    for one in bends:
        at = (one.bend, one.point)
        if at not in found:
            found[at] = _crossing(one, made, roll_deg)
        yield dot(_turned(one.side, -roll_deg), subtract(found[at].at, found[at].drawn))


@record
class Crossing:
    """Where a part crosses the plane of a drawn place, in the part's own frame: the `drawn` place and its
    `way`, the crossing `at` and the way `ahead` there, and how many bends lie `before` it."""

    drawn: Vector
    way: Vector
    at: Vector
    ahead: Vector
    before: int


def _crossing(one: BendOff, made: Outcome, roll_deg: float) -> Crossing:
    """The drawing is rolled back instead of the part."""
    drawn, way = _turned(one.point, -roll_deg), _turned(one.way, -roll_deg)
    arc = _arc(made, one.bend)
    s = arc.length_mm / 2
    at, ahead = _on(arc, s)
    for _ in range(ROUNDS):
        past = dot(subtract(at, drawn), way)
        if abs(past) < STILL:
            break
        s -= past / max(dot(ahead, way), LEAST_AHEAD)
        s = max(-arc.length_mm - FARTHEST_MM, min(2 * arc.length_mm + FARTHEST_MM, s))
        at, ahead = _on(arc, s)
    return Crossing(drawn=drawn, way=way, at=at, ahead=ahead, before=one.bend + (s > arc.length_mm))


def _on(arc: Piece, s: float) -> tuple[Vector, Vector]:
    """The place and the way `s` mm after an arc begins; beyond its ends straight on."""
    inside = max(0.0, min(arc.length_mm, s))
    here = arc.frame(inside)
    return along(here.point, here.way, s - inside), here.way


def _turned(vector: Vector, roll_deg: float) -> Vector:
    x, y, z = vector
    c, s = cos(radians(roll_deg)), sin(radians(roll_deg))
    return x, y * c - z * s, y * s + z * c


def sheet_rows(read: ReadBends | Corners, laid: OnDrawing, spread: Spread, roll_deg: float) -> Array:
    """How every reading, and the roll last, moves what was read on the sheet."""
    made, motion = outcome(read), spread.motion
    landing = _landing_rows(read, made, laid.port, spread, roll_deg)[[row for row, _, _ in laid.rows]]
    rows = [landing]
    for one in laid.bends:
        here, side = _crossing(one, made, roll_deg), _turned(one.side, -roll_deg)
        slides = -dot(side, here.ahead) / max(dot(here.way, here.ahead), LEAST_AHEAD)
        across = np.array(along(side, here.way, slides))  # the place slides along the tube to the plane
        if motion is None:
            by_readings = by_steps(read, partial(_off_row, one, roll_deg=roll_deg))
        else:
            by_readings = (across @ motion.point(here.at, here.before))[None, :]
        by_roll = across @ np.array(cross((1.0, 0.0, 0.0), here.at)) * radians(1)
        rows.append(np.hstack([by_readings, [[by_roll]]]))
    return np.vstack(rows)


def curved(read: ReadBends | Corners, laid: OnDrawing, spread: Spread) -> Array:
    """What the roundness of each bend adds to the spread of what is read beside it, in mm, root of its mean
    square: pushed along itself by s, an arc of radius R lies s²/2R beside, which no slope tells. Corner
    points push a bend too little to count. Raises ShapeError where `read` is no shape."""
    made, motion = outcome(read), spread.motion
    if motion is None:
        return np.zeros(len(laid.bends))

    def one(off: BendOff) -> float:
        arc, here = _arc(made, off.bend), _crossing(off, made, 0.0)
        inward = cross(arc.start.normal, here.ahead)
        pushed = np.array(here.way) @ motion.point(here.at, here.before) * spread.sigmas
        return float(pushed @ pushed) * sqrt(3) / 2 / (arc.radius_mm or 1.0) * abs(dot(off.side, inward))

    return np.array([one(off) for off in laid.bends])


def _off_row(one: BendOff, made: Outcome, roll_deg: float) -> Array:
    return np.array([off_drawn(one, made, roll_deg)])


def _landing_rows(
    read: ReadBends | Corners, made: Outcome, port: Port, spread: Spread, roll_deg: float
) -> Array:
    """How every reading, and the roll last, moves the five figures of a landing."""
    end = made.end
    if spread.motion is None:
        by_readings = by_steps(read, lambda there: np.array(as_landed(port, there, roll_deg)))
    else:
        by_readings = _tilted(
            port, rolled(spread.point, roll_deg), rolled(spread.way, roll_deg), end.way, roll_deg
        )
    about = np.array([[0.0, 0.0, 0.0], [0.0, 0.0, -1.0], [0.0, 1.0, 0.0]]) * radians(1)
    point, way = (rolled(np.array(one)[:, None], roll_deg) for one in (end.point, end.way))
    by_roll = _tilted(port, about @ point, about @ way, end.way, roll_deg)
    return np.hstack([by_readings, by_roll])


def _tilted(port: Port, points: Array, ways: Array, way: Vector, roll_deg: float) -> Array:
    """The derivatives of a landing by those of end B's place and way, which stand at `way`."""
    here = rolled(np.array(way)[:, None], roll_deg)[:, 0]
    sides, ahead = np.array([port.noon, port.three]), np.array(port.way)
    x, y = float(ahead @ here), sides @ here
    tilts = [
        (x * (side @ ways) - y[k] * (ahead @ ways)) / (x**2 + y[k] ** 2) * 180 / pi
        for k, side in enumerate(sides)
    ]
    return np.vstack([ahead @ points, sides @ points, *tilts])


def _arc(made: Outcome, bend: int) -> Piece:
    return made.pieces[2 * bend + 1]
