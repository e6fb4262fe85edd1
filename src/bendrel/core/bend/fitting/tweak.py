"""The one or two things to do to a finished part that bring end B nearest its port with the least."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations
from math import hypot
from typing import TYPE_CHECKING

from bendrel.core.bend.told.flat import Flat
from bendrel.core.bend.told.many import Many, end_of, place, turned
from bendrel.core.bend.told.standing import DRAWS, Missed, Reach, Standing, doubt_of, draws, missed
from bendrel.core.bend.told.unknowns import LEAST_DEG, Act, Hand
from bendrel.core.measure.landing import Port, rolled, towards
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

SHORTLIST = 6
REFINE = 2


@record
class May:
    """What a finished part takes. A bend is opened or bent on by at most so many degrees, and bends in
    `fixed` (from 1) not at all. A straight of `twist_mm` and more is twisted by `twist_deg` for each
    length of its own diameter, none where that is 0. Less than `least_deg` is not told apart. `in_tool` says
    that its bends go back into the tool. `degree_mm` is how many mm off weigh like one degree askew by hand;
    `surely` the share of likely parts that a tweak must make better to be told, `alone` the chance to fit
    from which the part is read once more before anything is done, `enough` the share by which a second
    thing must raise the chance to be asked for as well, `moves` how many times what a tweak brings the
    route may move for it."""

    open_deg: float
    more_deg: float
    twist_mm: float
    twist_deg: float
    least_deg: float
    in_tool: bool
    degree_mm: float
    surely: float
    alone: float
    enough: float
    moves: float
    fixed: tuple[int, ...] = ()


@record
class Pull:
    """A bend back in its tool: how far beyond where the tool just takes it, and what the dial then shows."""

    beyond_deg: float
    dial_deg: float


@record
class Tweak:
    """One thing to do: how far end B then moves beside its port's way and towards which clock; the miss that
    is left once this and those before it are done, with two standard deviations of it; for a bend its
    angle as it is believed to be before, and `pull` where it goes back into the tool."""

    act: Act
    end_moves_mm: float
    towards_clock_deg: float
    leaves_mm: float
    leaves_deg: float
    doubt_mm: float
    doubt_deg: float
    angle_deg: float | None
    pull: Pull | None = None


@record
class Way:
    """One thing that may be done: how far at the most (degrees), how far end B moves by one degree of it, and
    what that changes of its miss in `Flat` figures."""

    act: Act
    least: float
    most: float
    lever_mm: float
    moves: Array


def act_sd(hand: Hand, act: Act, by_deg: float, lever_mm: float, *, in_tool: bool) -> float:
    """How exactly (one standard deviation, degrees) an act is done by so much: a bend in the tool by its
    dial; by hand by how far end B moves against a rule, but never better than a tenth of a degree, and
    no worse than a third of what is done. A straight is always twisted by hand."""
    if in_tool and act.kind == "bend":
        return hand.tool_deg
    return max(0.1, min(hand.tweak_mm / max(lever_mm, 1e-6), 0.1 + abs(by_deg) / 3))


def best_tweaks(
    parts: Many,
    length_mm: float,
    port: Port,
    reach: Reach,
    may: May,
    hand: Hand,
    now: Standing,
    *,
    straights_mm: Sequence[float],
    od_mm: float,
) -> tuple[Tweak, ...]:
    """One or two things to do now, together; none where nothing is expected to help.

    `parts` are the likely parts, the most likely first. Each bend and each straight is tried alone and in
    pairs by the slopes of the miss with roll and trim taken out; the best are carried out on all likely
    parts with the hand's own error, and the one thing is told that most surely fits, or two where they
    are surer by `may.enough`. A thing is told only where at least `may.surely` of the likely parts come
    nearer by it. Source: linear least squares with bounds, checked on the parts themselves.
    """
    import numpy as np

    if now.chance >= may.alone:
        return ()
    mean = Many(
        starts=parts.starts[:, :1],
        angles=parts.angles[:, :1],
        clocks=parts.clocks[:, :1],
        arcs=parts.arcs[:, :1],
    )
    here, ways = ways_of(mean, length_mm, port, reach, may, straights_mm, od_mm)
    before = missed(end_of(parts, length_mm, reach.lands), port, reach)
    noise = draws(2, DRAWS)
    tried: list[tuple[float, float, tuple[tuple[Way, float], ...]]] = []
    for size in (1, 2):
        best: tuple[float, float, tuple[tuple[Way, float], ...]] | None = None
        for short in _shortlist(here, ways, size, may, hand):
            chosen = _refined(mean, length_mm, port, reach, short)
            after = _carried_out(parts, chosen, hand, may, noise)
            found = missed(end_of(after, length_mm, reach.lands), port, reach)
            better = _better(before, found, may, reach)
            if better < may.surely or not _helps(before, found, may, reach):
                continue
            route = _route_moves(
                _seen(mean, length_mm, reach), _seen(_after(mean, chosen), length_mm, reach), before, found
            )
            if route > may.moves * _brings(before, found, may, reach):
                continue
            chance = float(((found.mm <= reach.mm) & (found.deg <= reach.deg))[1:].mean())
            badness = float(np.mean(np.hypot(found.mm / reach.mm, found.deg / reach.deg)[1:]))
            if best is None or (round(chance, 2), -badness) > (round(best[0], 2), -best[1]):
                best = (chance, badness, chosen)
        if best is not None:
            tried.append(best)
    if not tried:
        return ()
    pick = tried[0]
    if len(tried) == 2 and (tried[1][0] > pick[0] + may.enough or tried[1][1] < 0.5 * pick[1]):
        pick = tried[1]
    if pick[0] <= now.chance and pick[1] >= hypot(now.miss_mm / reach.mm, now.miss_deg / reach.deg):
        return ()
    return _told(parts, length_mm, port, reach, now, pick[2], hand=hand, may=may)


def ways_of(
    mean: Many,
    length_mm: float,
    port: Port,
    reach: Reach,
    may: May,
    straights_mm: Sequence[float],
    od_mm: float,
) -> tuple[Array, list[Way]]:
    """The miss of a part as `Flat` figures, and every thing that may be done with what a degree of it changes
    of them."""
    import numpy as np

    count = mean.angles.shape[0]
    acts = [Act(kind="bend", at=k + 1, deg=1.0) for k in range(count) if k + 1 not in may.fixed]
    if may.twist_deg > 0:
        acts += [
            Act(kind="twist", at=k + 1, deg=1.0)
            for k in range(1, count)  # the first and the last only roll the part or nothing
            if straights_mm[k] >= may.twist_mm
        ]
    base = end_of(mean, length_mm, reach.lands)
    flat = Flat(base, port, reach)
    found = []
    for act in acts:
        end = end_of(acted(mean, act, 1.0), length_mm, reach.lands)
        moved = end.point[:, 0] - base.point[:, 0]
        if act.kind == "bend":
            low, high = -min(may.open_deg, float(mean.angles[act.at - 1, 0]) - LEAST_DEG), may.more_deg
        else:
            high = may.twist_deg * straights_mm[act.at - 1] / od_mm
            low = -high
        lever = float(np.linalg.norm(moved))
        moves = flat.of(moved, end.way[:, 0] - base.way[:, 0])
        found.append(Way(act=act, least=low, most=high, lever_mm=lever, moves=moves))
    return flat.miss(base)[:, 0], found


def _shortlist(
    here: Array, ways: Sequence[Way], size: int, may: May, hand: Hand
) -> list[tuple[tuple[Way, float], ...]]:
    """The few combinations of `size` ways that are expected to leave least, with how far each is done."""
    import numpy as np

    ranked: list[tuple[float, tuple[tuple[Way, float], ...]]] = []
    for chosen in combinations(ways, size):
        columns = np.stack([way.moves for way in chosen], axis=1)
        grid = columns.T @ columns
        # what the hand cannot set exactly costs as much as it leaves
        spread = [act_sd(hand, way.act, 1.0, way.lever_mm, in_tool=may.in_tool) for way in chosen]
        damped = grid + np.diag([1e-6 + 0.002 * float(g) for g in np.diag(grid)])
        by = np.linalg.solve(damped, -columns.T @ here)
        for i, way in enumerate(chosen):
            if not way.least <= by[i] <= way.most:
                by[i] = float(np.clip(by[i], way.least, way.most))
                for j in range(size):
                    if j != i:
                        rest = here + columns[:, i] * by[i]
                        by[j] = np.clip(
                            -float(columns[:, j] @ rest) / max(float(grid[j, j]), 1e-12),
                            chosen[j].least,
                            chosen[j].most,
                        )
        if any(abs(b) < may.least_deg for b in by):
            continue
        left = here + columns @ by
        cost = float(left @ left) + sum(
            (s * s) * float(g) for s, g in zip(spread, np.diag(grid), strict=True)
        )
        ranked.append((cost, tuple((way, float(b)) for way, b in zip(chosen, by, strict=True))))
    ranked.sort(key=lambda item: item[0])
    return [chosen for _, chosen in ranked[:SHORTLIST]]


def _refined(
    mean: Many, length_mm: float, port: Port, reach: Reach, chosen: tuple[tuple[Way, float], ...]
) -> tuple[tuple[Way, float], ...]:
    """How far each thing is done so that the miss itself is least, within its limits: large tweaks are not
    as the first slopes say."""
    import numpy as np

    ways, by = [way for way, _ in chosen], np.array([b for _, b in chosen])
    low, high = np.array([way.least for way in ways]), np.array([way.most for way in ways])

    def part(figures: Array) -> Many:
        found = mean
        for way, degrees in zip(ways, figures, strict=True):
            found = acted(found, way.act, float(degrees))
        return found

    for _ in range(REFINE):
        base = end_of(part(by), length_mm, reach.lands)
        flat = Flat(base, port, reach)
        here, step = flat.miss(base)[:, 0], 0.01
        columns = np.stack(
            [
                (flat.miss(end_of(part(by + step * unit), length_mm, reach.lands))[:, 0] - here) / step
                for unit in np.eye(len(by))
            ],
            axis=1,
        )
        grid = columns.T @ columns
        by = np.clip(
            by - np.linalg.solve(grid + np.diag(1e-9 + 1e-4 * np.diag(grid)), columns.T @ here), low, high
        )
    return tuple((way, float(b)) for way, b in zip(ways, by, strict=True))


def acted(parts: Many, act: Act, degrees: Array | float) -> Many:
    """`parts` with an act done to them by so many degrees (its own figure apart)."""
    angles, clocks = parts.angles.copy(), parts.clocks.copy()
    act.done(angles, clocks, degrees)
    return Many(starts=parts.starts, angles=angles, clocks=clocks, arcs=parts.arcs)


def _carried_out(
    parts: Many, chosen: Sequence[tuple[Way, float]], hand: Hand, may: May, noise: Array
) -> Many:
    """All likely parts after the acts, the first without the hand's error."""
    import numpy as np

    for row, (way, by) in enumerate(chosen):
        sd = act_sd(hand, way.act, by, way.lever_mm, in_tool=may.in_tool)
        parts = acted(parts, way.act, by + np.concatenate([[0.0], sd * noise[row]]))
    return parts


def _measures(found: Missed, may: May, reach: Reach) -> tuple[Array, Array]:
    """A miss as one figure in the two ways that people weigh a degree."""
    import numpy as np

    return np.hypot(found.mm / reach.mm, found.deg / reach.deg), np.hypot(found.mm, may.degree_mm * found.deg)


def _better(before: Missed, after: Missed, may: May, reach: Reach) -> float:
    """The share of likely parts that come nearer."""
    import numpy as np

    pairs = zip(_measures(before, may, reach), _measures(after, may, reach), strict=True)
    return min(float(np.mean(now[1:] < was[1:])) for was, now in pairs)


def _helps(before: Missed, after: Missed, may: May, reach: Reach) -> bool:
    """The most likely part itself comes nearer, and is not driven off or askew for it."""
    pairs = zip(_measures(before, may, reach), _measures(after, may, reach), strict=True)
    nearer = all(float(now[0]) < float(was[0]) for was, now in pairs)
    off = float(after.mm[0]) <= max(float(before.mm[0]), reach.mm)
    return nearer and off and float(after.deg[0]) <= max(float(before.deg[0]), reach.deg)


def _brings(before: Missed, after: Missed, may: May, reach: Reach) -> float:
    """By how much the most likely part comes nearer, in mm, a degree weighed as by hand."""
    _, was = _measures(before, may, reach)
    _, now = _measures(after, may, reach)
    return float(was[0] - now[0])


def _after(mean: Many, chosen: Sequence[tuple[Way, float]]) -> Many:
    for way, by in chosen:
        mean = acted(mean, way.act, by)
    return mean


def _seen(parts: Many, length_mm: float, reach: Reach) -> Many:
    """The parts told from the end at home."""
    return parts if reach.lands == "B" else turned(parts, length_mm)


def _route_moves(mean: Many, then: Many, before: Missed, after: Missed) -> float:
    """The most that the middle of a bend of the most likely part moves (mm), rolled to its best each time;
    both told from the end at home."""
    import numpy as np

    def middles(part: Many, roll_deg: float) -> Array:
        at = part.starts[:, 0] + part.arcs[:, 0] / 2
        found = [rolled(place(part, float(mm)).point, np.array([roll_deg]))[:, 0] for mm in at]
        return np.array(found)

    off = middles(then, float(after.roll_deg[0])) - middles(mean, float(before.roll_deg[0]))
    return float(np.sqrt((off * off).sum(axis=1)).max())


def _told(
    parts: Many,
    length_mm: float,
    port: Port,
    reach: Reach,
    now: Standing,
    chosen: Sequence[tuple[Way, float]],
    *,
    hand: Hand,
    may: May,
) -> tuple[Tweak, ...]:
    noise = draws(len(chosen), DRAWS)
    told = []
    at = end_of(parts, length_mm, reach.lands).point[:, 0]
    for row, (way, by) in enumerate(chosen):
        angle = float(parts.angles[way.act.at - 1, 0]) if way.act.kind == "bend" else None
        parts = _carried_out(parts, [(way, by)], hand, may, noise[row : row + 1])
        ends = end_of(parts, length_mm, reach.lands)
        then = ends.point[:, 0]
        x, y, z = (float(v) for v in rolled((then - at)[:, None], now.roll_deg)[:, 0])  # as it lies there
        size, clock = towards(port, (x, y, z))
        left = missed(ends, port, reach)
        told.append(
            Tweak(
                act=Act(kind=way.act.kind, at=way.act.at, deg=by),
                end_moves_mm=size,
                towards_clock_deg=clock,
                leaves_mm=float(left.mm[0]),
                leaves_deg=float(left.deg[0]),
                doubt_mm=doubt_of(left.mm),
                doubt_deg=doubt_of(left.deg),
                angle_deg=angle,
            )
        )
        at = then
    return tuple(told)
