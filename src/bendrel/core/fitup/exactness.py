"""How often the finished part drops into its port, with this shop's spread."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from bendrel.core.fitup.landing import sensitivities
from bendrel.core.record import record
from bendrel.core.shape.bends import BendList

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

PARTS = 20_000


@record
class Spread:
    """One standard deviation of what a hand does at every bend: `straight_mm` of where it lands,
    `angle_deg` and `rotation_deg`. `radius_mm` is the doubt of the tool's radius, the same in every bend
    of a part. `readings` is how many as-built readings of this shop are in it (0: common practice)."""

    straight_mm: float
    angle_deg: float
    rotation_deg: float
    radius_mm: float
    readings: int


@record
class Zone:
    """How far off an end may be to be brought home by hand."""

    mm: float
    deg: float


@record
class Gain:
    """What halving one error would do: the share of parts that then fit."""

    of: str
    share: float


@record
class Exactness:
    """`share` of parts whose end B lands in the zone; half of them land within `half_mm` and 95 % within
    `most_mm`. `worst` is the bend (from 1, None without bends) that matters most, with its share of the
    variance. `gains` says what a better gauge would bring, the best first."""

    share: float
    half_mm: float
    most_mm: float
    most_deg: float
    worst: int | None
    worst_share: float
    gains: tuple[Gain, ...]
    zone: Zone
    spread: Spread
    parts: int


def exactness(shape: BendList, spread: Spread, zone: Zone, *, parts: int = PARTS) -> Exactness:
    """Make `parts` parts with random errors and see where end B lands.

    The errors are normal and independent but for the radius, which is the tool's. Source: Monte Carlo
    with a fixed seed, so that the same line always says the same.
    """
    import numpy as np

    draws = draw(len(shape.bends), parts)
    off, askew = landings(shape, spread, draws)
    fits = (off <= zone.mm) & (askew <= zone.deg)
    gains = []
    for name, better in (
        ("angles", replace(spread, angle_deg=spread.angle_deg / 2)),
        ("planes", replace(spread, rotation_deg=spread.rotation_deg / 2)),
        ("marks", replace(spread, straight_mm=spread.straight_mm / 2)),
        ("the radius", replace(spread, radius_mm=spread.radius_mm / 2)),
    ):
        some = _first(draws, parts // 4)
        less_off, less_askew = landings(shape, better, some)
        gains.append(Gain(of=name, share=float(((less_off <= zone.mm) & (less_askew <= zone.deg)).mean())))
    variances = [
        (s.per_angle_mm * spread.angle_deg) ** 2
        + (s.per_rotation_mm * spread.rotation_deg) ** 2
        + (s.per_straight_mm * spread.straight_mm) ** 2
        for s in sensitivities(shape)
    ]
    total = sum(variances)
    worst = max(range(len(variances)), key=variances.__getitem__) if variances else None
    return Exactness(
        share=float(fits.mean()),
        half_mm=float(np.quantile(off, 0.5)),
        most_mm=float(np.quantile(off, 0.95)),
        most_deg=float(np.quantile(askew, 0.95)),
        worst=None if worst is None else worst + 1,
        worst_share=variances[worst] / total if worst is not None and total > 0 else 0.0,
        gains=tuple(sorted(gains, key=lambda gain: -gain.share)),
        zone=zone,
        spread=spread,
        parts=parts,
    )


Draws = tuple["Array", "Array", "Array", "Array"]


def draw(bends: int, parts: int) -> Draws:
    """Standard normal errors (parts, bends): of straight, angle, rotation; and (parts,) of the radius."""
    import numpy as np

    rng = np.random.default_rng(20_000)
    size = (parts, bends)
    return (
        rng.standard_normal((parts, bends + 1)),
        rng.standard_normal(size),
        rng.standard_normal(size),
        rng.standard_normal(parts),
    )


def _first(draws: Draws, parts: int) -> Draws:
    straights, angles, rotations, radii = draws
    return straights[:parts], angles[:parts], rotations[:parts], radii[:parts]


def landings(shape: BendList, spread: Spread, draws: Draws) -> tuple[Array, Array]:
    """Distance (mm) and angle (degrees) by which end B of each part misses that of the plan.

    The first bend's rotation has no error: the part is rolled to it when it is fitted.
    """
    import numpy as np

    straights, angles, rotations, radii = draws
    count = len(radii)
    ends, ways = _ends(shape, spread, straights, angles, rotations, radii)
    point, way = _ends(
        shape,
        Spread(straight_mm=0, angle_deg=0, rotation_deg=0, radius_mm=0, readings=0),
        *_first(draws, 1),
    )
    off = np.sqrt(((ends - point) ** 2).sum(axis=0))
    sine = np.sqrt((np.cross(ways, np.broadcast_to(way, (3, count)), axis=0) ** 2).sum(axis=0))
    askew = np.degrees(np.arctan2(sine, (ways * way).sum(axis=0)))
    return off, askew


def _ends(
    shape: BendList, spread: Spread, straights: Array, angles: Array, rotations: Array, radii: Array
) -> tuple[Array, Array]:
    """End points and directions, each (3, parts): the recursion of `end_frame`, many parts at once."""
    import numpy as np

    count = len(radii)
    point = np.zeros((3, count))
    way = np.repeat([[1.0], [0.0], [0.0]], count, axis=1)
    normal = np.repeat([[0.0], [0.0], [1.0]], count, axis=1)
    for k, bend in enumerate(shape.bends):
        turn = np.radians(bend.rotation_deg + (rotations[:, k] * spread.rotation_deg if k else 0.0))
        normal = normal * np.cos(turn) + _cross(way, normal) * np.sin(turn)
        over = np.radians(bend.angle_deg + angles[:, k] * spread.angle_deg)
        radius = bend.radius_mm + radii * spread.radius_mm
        inward = _cross(normal, way)
        c, s = np.cos(over), np.sin(over)
        ahead = bend.straight_mm + straights[:, k] * spread.straight_mm + radius * s
        point = point + way * ahead + inward * (radius * (1 - c))
        way = way * c + inward * s
    last = shape.last_straight_mm + straights[:, -1] * spread.straight_mm
    return point + way * last, way


def _cross(a: Array, b: Array) -> Array:
    import numpy as np

    return np.stack([a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]])
