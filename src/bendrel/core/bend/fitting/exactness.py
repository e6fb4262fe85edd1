"""How often the finished part drops into its port, with this shop's hand and tool."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from math import hypot
from typing import TYPE_CHECKING, Literal

from bendrel.core.bend.fitting.rounds import Fitting, after_rounds
from bendrel.core.bend.told.flat import Flat
from bendrel.core.bend.told.laid import laid_out
from bendrel.core.bend.told.many import end_of, one
from bendrel.core.bend.told.observed import Gauge
from bendrel.core.bend.told.standing import Reach, missed
from bendrel.core.bend.told.unknowns import TOOL, Hand, Told, ToolDoubt, Unknowns
from bendrel.core.bend.told.weighed import slopes_of
from bendrel.core.geometry.bends import BendList
from bendrel.core.line.exact_ways import ExactWays
from bendrel.core.measure.landing import Port, port_of
from bendrel.core.parts.spread import Spread
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

PARTS = 20_000
FEW = 4_000
LONG = 30
"""Bends; of a longer part fewer are made, so that the answer comes in the same time."""


@record
class Zone:
    """How far off an end may be."""

    mm: float
    deg: float


@record
class Shares:
    """Of such parts, the share that lands in the zone that a hand brings home (`hand`), and the share that
    drops in by itself (`close`)."""

    hand: float
    close: float


Exacter = Literal["bend_short", "plane_first", "fine_gauge", "fit_rounds", "other_end", "leave_long"]


@record
class WayGain:
    """One way to be more exact: whether the line is made so already, how its parts then come out, and the
    figure that it goes by (the gauge in degrees, the length left on in mm; None where it has none)."""

    way: Exacter
    on: bool
    then: Shares
    figure: float | None = None


@record
class Exactness:
    """`made` is how parts come out that are made as told, `read` how where every bend is read and the rest
    re-planned, `fitted` how after fit rounds; `now` is the one of them that the line's own ways come to,
    `ways` what may be done about it. Half of those made as told land within `half_mm`, 95 % within `most_mm`
    and `most_deg`. `worst` is the bend (from 1, None without bends) that matters most, with its share of the
    variance, `tool_share` that of the tool."""

    made: Shares
    read: Shares
    fitted: Shares
    now: Shares
    ways: tuple[WayGain, ...]
    half_mm: float
    most_mm: float
    most_deg: float
    worst: int | None
    worst_share: float
    tool_share: float
    zone: Zone
    close: Zone
    spread: Spread
    tool: ToolDoubt
    parts: int


@record
class Forecast:
    """What a forecast starts from: the part as it will be told, the tool, the hand, the zones, and how it is
    fitted. `carried` is one standard deviation, in shares of the reach, of what stays unmended of a part
    that is `read`, because inside the zone nothing is re-planned. `angle_sds` and `turn_sds` are one
    standard deviation at each bend told, where it is not the hand's."""

    planned: BendList
    told: tuple[Told, ...]
    tool: ToolDoubt
    hand: Hand
    reach: Reach
    zone: Zone
    fitting: Fitting
    carried: float
    angle_sds: tuple[float, ...] = ()
    turn_sds: tuple[float, ...] = ()
    read: bool = False


def exactness(
    of: Forecast,
    spread: Spread,
    gauge: Gauge,
    now: ExactWays,
    ways: Mapping[Exacter, tuple[bool, Forecast, Gauge, ExactWays]],
    *,
    parts: int = PARTS,
) -> Exactness:
    """Make `parts` parts with random errors and see where end B lands, rolled and trimmed as suits best.

    The errors are normal; those of the hand independent at every bend, those of the tool the same in the
    whole part. Source: Monte Carlo with a fixed seed, so that the same line always says the same.
    """
    import numpy as np

    mm, deg = landings(of, parts)
    made = Shares(hand=float(((mm <= of.zone.mm) & (deg <= of.zone.deg)).mean()), close=_close(of, mm, deg))
    shares = _variances(of)
    total = sum(shares)
    worst = max(range(1, len(shares)), key=shares.__getitem__) if len(shares) > 1 else None
    return Exactness(
        made=made,
        read=shares_made(read_back(of, gauge, now)),
        fitted=fitted(read_back(of, gauge, now)),
        now=shares_by(of, gauge, now),
        ways=_gains(ways),
        half_mm=float(np.quantile(mm, 0.5)),
        most_mm=float(np.quantile(mm, 0.95)),
        most_deg=float(np.quantile(deg, 0.95)),
        worst=worst,
        worst_share=shares[worst] / total if worst is not None and total > 0 else 0.0,
        tool_share=shares[0] / total if total > 0 else 0.0,
        zone=of.zone,
        close=Zone(mm=of.reach.mm, deg=of.reach.deg),
        spread=spread,
        tool=of.tool,
        parts=parts,
    )


def _gains(ways: Mapping[Exacter, tuple[bool, Forecast, Gauge, ExactWays]]) -> tuple[WayGain, ...]:
    """What each way brings, the best first."""
    gains = [
        WayGain(way=way, on=on, then=shares_by(of, g, by), figure=_figure(way, of, g))
        for way, (on, of, g, by) in ways.items()
    ]
    return tuple(sorted(gains, key=lambda gain: -gain.then.close))


def _figure(way: Exacter, of: Forecast, gauge: Gauge) -> float | None:
    if way == "fine_gauge":
        return gauge.angle_deg
    return of.reach.spare_mm if way == "leave_long" else None


def shares_by(of: Forecast, gauge: Gauge, ways: ExactWays) -> Shares:
    """The shares of parts that are read and re-planned, and fitted where the ways say so."""
    read = read_back(of, gauge, ways)
    return fitted(read) if ways.fit_rounds else shares_made(read)


def shares_made(of: Forecast, parts: int = FEW) -> Shares:
    """The shares of parts made as told."""
    mm, deg = landings(of, parts)
    return Shares(hand=float(((mm <= of.zone.mm) & (deg <= of.zone.deg)).mean()), close=_close(of, mm, deg))


def _close(of: Forecast, mm: Array, deg: Array) -> float:
    return float(((mm <= of.reach.mm) & (deg <= of.reach.deg)).mean())


def landings(of: Forecast, parts: int) -> tuple[Array, Array]:
    """The miss of each of so many parts: mm and degrees."""
    import numpy as np

    unknowns = _unknowns(of)
    parts = min(parts, parts * LONG // max(1, len(of.told)))
    normal = np.random.default_rng(20_000).standard_normal((unknowns.size, parts))
    ends = end_of(unknowns.parts(unknowns.spread() @ normal), unknowns.planned.length_mm, of.reach.lands)
    found = missed(ends, port_of(of.planned, of.reach.lands), of.reach)
    if not of.read:
        return found.mm, found.deg
    left = of.carried * np.random.default_rng(20_002).standard_normal((4, parts))
    return (
        np.hypot(found.mm + left[0] * of.reach.mm, left[1] * of.reach.mm),
        np.hypot(found.deg + left[2] * of.reach.deg, left[3] * of.reach.deg),
    )


def fitted(of: Forecast) -> Shares:
    """The shares after fit rounds: every part offered, read, tweaked as told, and offered again."""
    unknowns, port = _unknowns(of), port_of(of.planned, of.reach.lands)
    if not of.told:
        return shares_made(of)
    flat, slopes = _flat_slopes(of, unknowns, port)
    figures = after_rounds(
        one(laid_out(of.planned)), of.planned, port, flat, slopes, of.reach, hand=of.hand, fitting=of.fitting
    )
    wide = replace(of.reach, mm=of.zone.mm, deg=of.zone.deg)
    scale = [of.reach.mm / wide.mm] * 2 + [of.reach.deg / wide.deg] * 2
    in_hand = (figures.T * scale).T
    return Shares(hand=float(flat.fits(in_hand).mean()), close=float(flat.fits(figures).mean()))


def read_back(of: Forecast, gauge: Gauge, ways: ExactWays) -> Forecast:
    """The same where every bend is read with `gauge` as it is made and the rest re-planned, by the `ways` of
    the line. What is read of a bend is made up for by those after it, so that only the reading's error stays;
    the last one keeps what the hand does to it, unless it is finished by its reading. Source: the variance
    after a reading, σ²·g²/(σ² + g²); what cannot be made up for is left out."""
    _, _, share, fixed = of.tool.sds
    back = [hypot(share * told.angle_deg, fixed) for told in of.told]
    angles, turns = [], []
    for index, _ in enumerate(of.told):
        last = index == len(of.told) - 1
        angle = hypot(of.hand.angle_deg, back[index])
        angles.append(angle if last and not ways.bend_short else _after(angle, gauge.angle_deg))
        turn = of.hand.turn_deg
        turns.append(turn if last and not ways.plane_first else _after(turn, gauge.plane_deg))
    kept = of.tool.covariance
    tool = ToolDoubt(
        covariance=tuple(
            tuple(v if i < 2 and j < 2 else 0.0 for j, v in enumerate(row))  # type: ignore[misc]
            for i, row in enumerate(kept)
        )
    )
    return replace(of, tool=tool, angle_sds=tuple(angles), turn_sds=tuple(turns), read=True)


def _after(sd: float, reading: float) -> float:
    return sd * reading / hypot(sd, reading) if sd > 0 else 0.0


def _unknowns(of: Forecast) -> Unknowns:
    unknowns = Unknowns(laid_out(of.planned), of.told, of.tool, of.hand, (), 0, of.reach.roll_deg)
    n = len(of.told)
    if of.angle_sds:
        unknowns.sds[n : 2 * n] = of.angle_sds
    if of.turn_sds:
        unknowns.sds[2 * n + 1 : 3 * n] = of.turn_sds[1:]
    return unknowns


def _flat_slopes(of: Forecast, unknowns: Unknowns, port: Port) -> tuple[Flat, Array]:
    """What one standard deviation of every unknown changes of a miss, (4, unknowns)."""
    import numpy as np

    length = unknowns.planned.length_mm
    flat = Flat(end_of(one(laid_out(of.planned)), length, of.reach.lands), port, of.reach)

    def figure(row: int):  # type: ignore[no-untyped-def]
        def read(values: Array) -> Array:
            told: Array = flat.miss(end_of(unknowns.parts(values), length, of.reach.lands))[row]
            return told

        return read

    _, slopes = slopes_of([figure(row) for row in range(4)], unknowns.spread(), np.zeros(unknowns.size))
    return flat, slopes


def _variances(of: Forecast) -> list[float]:
    """The variance of the miss that comes from the tool, then that of each bend from end A."""
    if not of.told:
        return [0.0]
    unknowns = _unknowns(of)
    _, slopes = _flat_slopes(of, unknowns, port_of(of.planned, of.reach.lands))
    each = (slopes**2).sum(axis=0)
    n = len(of.told)
    found = [float(each[:TOOL].sum()), *([0.0] * len(of.planned.bends))]
    for i, told in enumerate(of.told):
        found[told.bend + 1] = float(each[TOOL + i] + each[TOOL + n + i] + each[TOOL + 2 * n + i])
    return found
