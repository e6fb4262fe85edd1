"""Where the end of a weighed part that lands stands against its port, and how surely it fits."""

from __future__ import annotations

from math import sqrt
from typing import TYPE_CHECKING

from bendrel.core.bend.told.many import Many, Places, end_of
from bendrel.core.bend.told.unknowns import Unknowns
from bendrel.core.bend.told.weighed import Weighed
from bendrel.core.findings import EndName
from bendrel.core.measure.landing import Port, rolled, towards
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

DRAWS = 512
TURNS = 3


@record
class Reach:
    """How near the end that `lands` must come with the other one home (`mm`, `deg`), how far the part may be
    rolled about the one at home, and how much the one that lands may be trimmed and how much tube is there to
    leave it longer."""

    mm: float
    deg: float
    roll_deg: float
    trim_mm: float
    spare_mm: float
    lands: EndName = "B"


@record
class Missed:
    """By how much end B misses once the part is rolled and trimmed as suits best, each for every part; `off`
    is the way there and back, (3, parts)."""

    off: Array
    mm: Array
    deg: Array
    roll_deg: Array
    trim_mm: Array


@record
class Standing:
    """The miss of the most likely part and towards which clock it lies, two standard deviations of it, and
    the share of the parts that agree with all readings that fit."""

    miss_mm: float
    towards_clock_deg: float
    miss_deg: float
    doubt_mm: float
    doubt_deg: float
    roll_deg: float
    trim_mm: float
    chance: float


def missed(ends: Places, port: Port, reach: Reach) -> Missed:
    """Every part rolled about end A and trimmed so that its miss is least, a `reach.mm` counting like a
    `reach.deg`. Source: least squares in the roll (Gauss and Newton), the trim in closed form."""
    import numpy as np

    goal, goal_way = np.array(port.point)[:, None], np.array(port.way)[:, None]
    roll = np.zeros(ends.point.shape[1])
    weight = np.degrees(1.0) / reach.deg

    def left(roll: Array) -> tuple[Array, Array, Array]:
        off = rolled(ends.point, roll) - goal
        way = rolled(ends.way, roll)
        trim = np.clip((off * way).sum(axis=0), -reach.spare_mm, reach.trim_mm)
        return off - way * trim, way, trim

    step = 1e-3
    for _ in range(TURNS):
        off, way, _ = left(roll)
        off2, way2, _ = left(roll + step)
        now = np.concatenate([off / reach.mm, (way - goal_way) * weight])
        slope = (np.concatenate([off2 / reach.mm, (way2 - goal_way) * weight]) - now) / step
        square = (slope * slope).sum(axis=0)
        move = np.where(square > 1e-12, -(slope * now).sum(axis=0) / np.maximum(square, 1e-12), 0.0)
        roll = np.clip(roll + move, -reach.roll_deg, reach.roll_deg)
    off, way, trim = left(roll)
    sine = np.sqrt((np.cross(way, np.broadcast_to(goal_way, way.shape), axis=0) ** 2).sum(axis=0))
    return Missed(
        off=off,
        mm=np.sqrt((off * off).sum(axis=0)),
        deg=np.degrees(np.arctan2(sine, (way * goal_way).sum(axis=0))),
        roll_deg=roll,
        trim_mm=trim,
    )


def draws(size: int, count: int = DRAWS) -> Array:
    """Standard normal figures (size, count), the same every time, each with its opposite: their mean is
    nought."""
    import numpy as np

    half = np.random.default_rng(20_000).standard_normal((size, count // 2))
    return np.hstack([half, -half])


def likely_parts(unknowns: Unknowns, weighed: Weighed, acted: int) -> Many:
    """The most likely part first, then `DRAWS` that agree with what was told and read, after `acted` acts."""
    import numpy as np

    values, vectors = np.linalg.eigh(weighed.covariance)
    root = vectors * np.sqrt(np.clip(values, 0.0, None))
    columns = weighed.values[:, None] + np.hstack([np.zeros((unknowns.size, 1)), root @ draws(unknowns.size)])
    return unknowns.parts(columns, acted)


def doubt_of(missed_by: Array) -> float:
    """Two standard deviations of a miss about that of the most likely part, which is the first."""
    import numpy as np

    return 2 * sqrt(float(np.mean((missed_by[1:] - missed_by[0]) ** 2)))


def stands(parts: Many, length_mm: float, port: Port, reach: Reach) -> Standing:
    """How the likely parts stand, the most likely one first among them."""
    found = missed(end_of(parts, length_mm, reach.lands), port, reach)
    fits = (found.mm <= reach.mm) & (found.deg <= reach.deg)
    x, y, z = (float(v) for v in found.off[:, 0])
    return Standing(
        miss_mm=float(found.mm[0]),
        towards_clock_deg=towards(port, (x, y, z))[1],
        miss_deg=float(found.deg[0]),
        doubt_mm=doubt_of(found.mm),
        doubt_deg=doubt_of(found.deg),
        roll_deg=float(found.roll_deg[0]),
        trim_mm=float(found.trim_mm[0]),
        chance=float(fits[1:].mean()),
    )
