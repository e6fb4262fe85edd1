"""Flow through pipes that join: pressures at the joints and flows between them, solved for all at once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import pi

import numpy as np
from numpy.typing import NDArray

from bendrel.core.flow.flow import Way, area_mm2
from bendrel.core.parts.fluid import Fluid, density, viscosity
from bendrel.core.record import record

Array = NDArray[np.float64]

_MOST_PASSES = 80
_SETTLED = 1e-10
_LEAST_RE = 1e-6
_SMOOTH_LPM = 1e-4
"""Below this flow a fixed loss fades away, so that it does not jump where the flow turns round."""
_MOST_VALVES = 30
_LEAST_LOSS = 1e4
"""Pa for a m³/s: 2 Pa at 10 L/min."""


@record
class Pipe:
    """One way between two joints; `opens` says that a valve lets it flow only from start to stop (1) or
    from stop to start (-1)."""

    id: str
    start: str
    stop: str
    way: Way
    opens: int = 0


@record
class Solved:
    """Flows in L/min by pipe, positive from start to stop, pressures in kPa by joint, and pipes whose
    valve is shut. A joint that no pressure reaches has none."""

    flows_lpm: Mapping[str, float]
    pressures_kpa: Mapping[str, float]
    shut: frozenset[str]


class Losses:
    """What many pipes lose at many flows at once.

    Source: Darcy-Weisbach with Churchill's friction factor of 1977 (laminar flow included), rounded bends
    by Rennels (2012), restrictors by orifice and land in series.
    """

    def __init__(self, ways: Sequence[Way], fluid: Fluid, temperature_c: float, roughness_mm: float) -> None:
        self.count = len(ways)
        self.rho = density(fluid, temperature_c)
        self.nu = viscosity(fluid, temperature_c) * 1e-6
        stretches = [(k, one) for k, way in enumerate(ways) for one in way.stretches]
        self.pipe = np.array([k for k, _ in stretches], dtype=np.intp)
        self.bore = np.array([one.bore_mm for _, one in stretches]) / 1000
        self.long = np.array([max(one.straight_mm, 0.0) for _, one in stretches]) / 1000
        self.rough = roughness_mm / 1000 / np.maximum(self.bore, 1e-9)
        bends = [(k, bend) for k, (_, one) in enumerate(stretches) for bend in one.bends]
        self.bent = np.array([k for k, _ in bends], dtype=np.intp)
        angle = np.radians([degrees for _, (degrees, _) in bends])
        ratio = np.array([radius for _, (_, radius) in bends]) / 1000 / self.bore[self.bent]
        half = np.sin(angle / 2)
        # Rennels: K = f·α·r/d + (0.10 + 2.4 f)·sin(α/2) + 6.6 f·(√sin(α/2) + sin(α/2)) / (r/d)^(4α/π)
        self.bend_f = (
            angle * ratio + 2.4 * half + 6.6 * (np.sqrt(np.abs(half)) + half) / ratio ** (4 * angle / pi)
        )
        self.bend_0 = 0.10 * half
        self.square = np.zeros(self.count)
        self.linear = np.zeros(self.count)
        self.fixed = np.array([way.fixed_kpa for way in ways])
        for k, way in enumerate(ways):
            for loss in way.losses:
                self.square[k] += loss.heads * self.rho / 2 / (area_mm2(loss.bore_mm) * 1e-6) ** 2
            for one in way.restrictors:
                self.square[k] += self.rho / (2 * (one.cd * area_mm2(one.bore_mm) * 1e-6) ** 2)
                self.linear[k] += (
                    128 * self.nu * self.rho * one.land_mm / 1000 / (pi * (one.bore_mm / 1000) ** 4)
                )

        # two joints with nothing between still need a slope
        self.linear[
            (self.linear == 0) & (self.square == 0) & (np.bincount(self.pipe, minlength=self.count) == 0)
        ] = _LEAST_LOSS

    def drops_kpa(self, flows_lpm: Array) -> Array:
        """Drop over every pipe at its own flow, with the sign of the flow; (pipes,)."""
        flow = flows_lpm / 60_000
        each = np.abs(flow)[self.pipe]
        velocity = each / (pi / 4 * self.bore**2)
        reynolds = np.maximum(velocity * self.bore / self.nu, _LEAST_RE)
        friction = churchill(reynolds, self.rough)
        heads = friction * self.long / self.bore
        np.add.at(heads, self.bent, friction[self.bent] * self.bend_f + self.bend_0)
        lost = np.zeros(self.count)
        np.add.at(lost, self.pipe, heads * self.rho * velocity**2 / 2)
        amount = np.abs(flow)
        lost += self.square * amount**2 + self.linear * amount
        fixed = self.fixed * np.abs(flows_lpm) / np.hypot(flows_lpm, _SMOOTH_LPM)
        return np.asarray(np.sign(flow) * (lost / 1000 + fixed))


def churchill(reynolds: Array, rough: Array) -> Array:
    """Darcy friction factor for any Reynolds number over 0 and relative roughness. Source: Churchill
    (1977)."""
    turbulent = (-2.457 * np.log((7.0 / reynolds) ** 0.9 + 0.27 * rough)) ** 16
    transition = (37530.0 / reynolds) ** 16
    return np.asarray(8.0 * ((8.0 / reynolds) ** 12 + (turbulent + transition) ** -1.5) ** (1 / 12))


def solve(
    pipes: Sequence[Pipe],
    fixed_kpa: Mapping[str, float],
    fluid: Fluid,
    temperature_c: float,
    roughness_mm: float,
) -> Solved:
    """Flows and pressures where the joints of `fixed_kpa` are held at their pressures. What no fixed joint
    reaches stands still and has no pressure. Valves shut against the flow; liquids only.

    Source: continuity at every joint and the loss of every pipe, by the global gradient method (E. Todini,
    S. Pilati, 1988); a valve is shut while the flow would run against it.
    """
    losses = Losses([pipe.way for pipe in pipes], fluid, temperature_c, roughness_mm)
    shut: set[int] = set()
    seen: set[frozenset[int]] = set()
    flows, pressures = _balanced(pipes, losses, fixed_kpa, shut)
    for _ in range(_MOST_VALVES):
        seen.add(frozenset(shut))
        biggest = max(np.abs(flows).max(initial=0.0), 1e-12)
        closing = {
            k for k, pipe in enumerate(pipes) if pipe.opens and flows[k] * pipe.opens < -1e-9 * biggest
        }
        opening = {
            k
            for k in shut
            if (a := pressures.get(pipes[k].start)) is not None
            and (b := pressures.get(pipes[k].stop)) is not None
            and (a - b) * pipes[k].opens > 1e-6
        }
        after = (shut | closing) - opening
        if after == shut or frozenset(after) in seen:
            break
        shut = after
        flows, pressures = _balanced(pipes, losses, fixed_kpa, shut)
    return Solved(
        flows_lpm={pipe.id: float(flow) for pipe, flow in zip(pipes, flows, strict=True)},
        pressures_kpa=pressures,
        shut=frozenset(pipes[k].id for k in shut),
    )


def _balanced(
    pipes: Sequence[Pipe], losses: Losses, fixed_kpa: Mapping[str, float], shut: set[int]
) -> tuple[Array, dict[str, float]]:
    known = _reached(pipes, fixed_kpa, shut)
    used = [k for k, pipe in enumerate(pipes) if k not in shut and pipe.start in known]
    free = sorted(known - set(fixed_kpa))
    at = {name: n for n, name in enumerate(free)}
    flows = np.zeros(len(pipes))
    pressures = dict(fixed_kpa)
    if not used:
        return flows, pressures
    inside = np.zeros((len(used), len(free)))
    ends = np.zeros(len(used))
    for row, k in enumerate(used):
        for name, sign in ((pipes[k].start, 1.0), (pipes[k].stop, -1.0)):
            if name in at:
                inside[row, at[name]] += sign
            else:
                ends[row] += sign * fixed_kpa[name]
    now = np.full(len(used), 1.0)
    heads = np.zeros(len(free))
    whole = np.zeros(len(pipes))
    for k in range(_MOST_PASSES):
        step = np.maximum(np.abs(now) * 1e-5, 1e-7)
        before, behind = whole.copy(), whole.copy()
        before[used], behind[used] = now - step, now + step
        slope = (losses.drops_kpa(behind)[used] - losses.drops_kpa(before)[used]) / (2 * step)
        slope = np.maximum(slope, 1e-12)
        whole[used] = now
        drop = losses.drops_kpa(whole)[used]
        # drop + slope·(q - now) = start - stop at every pipe, and the flows into every free joint add up
        # to 0
        give = 1 / slope
        if free:
            weighed = inside.T * give
            heads = np.linalg.solve(weighed @ inside, weighed @ (drop - slope * now - ends))
            reached = now + give * (inside @ heads + ends - drop)
        else:
            reached = now + give * (ends - drop)
        share = 1.0 if k < _MOST_PASSES // 3 else 0.5
        moved = np.abs(reached - now).max()
        now = reached if share == 1.0 else now + share * (reached - now)
        if moved < _SETTLED * max(np.abs(now).max(), 1e-9):
            break
    flows[used] = now
    pressures.update({name: float(heads[n]) for name, n in at.items()})
    return flows, pressures


def _reached(pipes: Sequence[Pipe], fixed_kpa: Mapping[str, float], shut: set[int]) -> set[str]:
    """Joints that hang together with one whose pressure is known."""
    known = {name for pipe in pipes for name in (pipe.start, pipe.stop) if name in fixed_kpa}
    while True:
        more = {
            name
            for k, pipe in enumerate(pipes)
            if k not in shut and (pipe.start in known or pipe.stop in known)
            for name in (pipe.start, pipe.stop)
        } - known
        if not more:
            return known
        known |= more
