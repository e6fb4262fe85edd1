"""Pipes that join: balance, closed forms, and the `fluids` library on single pipes."""

from __future__ import annotations

import numpy as np
import pytest
from fluids.fittings import bend_rounded
from fluids.friction import friction_factor
from scipy.optimize import brentq, fsolve

from bendrel.core.flow.flow import Loss, Restrictor, Stretch, Way, flow_through
from bendrel.core.flow.network import Losses, Pipe, solve
from bendrel.core.parts.fluid import density, viscosity

ROUGH = 0.0015


def pipe(name, start, stop, bore, long, opens=0, **more):
    way = Way(stretches=(Stretch(bore_mm=bore, straight_mm=long),), **more)
    return Pipe(id=name, start=start, stop=stop, way=way, opens=opens)


@pytest.fixture
def oil(kit):
    return kit.fluids["hydraulic-46"]


@pytest.mark.parametrize("temperature", [-10, 20, 80])
@pytest.mark.parametrize("flow", [0.05, 2, 14, 60])
def test_one_pipe_loses_what_the_library_says(oil, temperature, flow):
    """Friction and bends by the `fluids` library, restrictor by the sum of both its losses."""
    bends = ((90.0, 30.0), (35.0, 30.0))
    way = Way(
        stretches=(Stretch(bore_mm=8, straight_mm=1800, bends=bends),),
        losses=(Loss(bore_mm=6, heads=1.5),),
        restrictors=(Restrictor(bore_mm=2.5, land_mm=4, cd=0.61),),
        fixed_kpa=12,
    )
    rho, nu = density(oil, temperature), viscosity(oil, temperature) * 1e-6
    bore, amount = 0.008, flow / 60_000
    speed = amount / (np.pi / 4 * bore**2)
    re = speed * bore / nu
    f = friction_factor(Re=re, eD=ROUGH / 8, Method="Churchill_1977")
    heads = f * 1.8 / bore + sum(bend_rounded(Di=bore, angle=a, rc=r / 1000, fd=f, Re=re) for a, r in bends)
    lost = heads * rho * speed**2 / 2 + 1.5 * rho * (amount / (np.pi / 4 * 0.006**2)) ** 2 / 2
    lost += rho * (amount / (0.61 * np.pi / 4 * 0.0025**2)) ** 2 / 2
    lost += 128 * nu * rho * 0.004 * amount / (np.pi * 0.0025**4)
    told = Losses([way], oil, temperature, ROUGH)
    assert told.drops_kpa(np.array([flow]))[0] == pytest.approx(lost / 1000 + 12, rel=1e-4)
    assert told.drops_kpa(np.array([-flow]))[0] == pytest.approx(-(lost / 1000 + 12), rel=1e-4)
    assert flow_through(oil, temperature, flow, way, ROUGH).drop_kpa == pytest.approx(
        lost / 1000 + 12, rel=1e-4
    )


def test_two_equal_branches_share_equally_and_a_long_one_carries_half(oil):
    """Cold oil is laminar: the flow goes with 1/length."""
    feed = pipe("feed", "s", "t", 12, 500)
    for long, share in ((2000, 1.0), (4000, 0.5)):
        found = solve(
            [feed, pipe("a", "t", "r", 6, 2000), pipe("b", "t", "r", 6, long)],
            {"s": 300, "r": 0},
            oil,
            10,
            ROUGH,
        )
        assert found.flows_lpm["b"] / found.flows_lpm["a"] == pytest.approx(share, rel=1e-4)
        assert found.flows_lpm["feed"] == pytest.approx(found.flows_lpm["a"] + found.flows_lpm["b"], rel=1e-9)


@pytest.mark.parametrize("temperature", [0, 60])
def test_a_single_line_by_bisection(oil, temperature):
    way = Way(stretches=(Stretch(bore_mm=8, straight_mm=3000),))
    found = solve([Pipe(id="p", start="s", stop="r", way=way)], {"s": 250, "r": 0}, oil, temperature, ROUGH)
    flow = brentq(lambda q: flow_through(oil, temperature, q, way, ROUGH).drop_kpa - 250, 0.01, 200)
    assert found.flows_lpm["p"] == pytest.approx(flow, rel=1e-6)


def random_net(rng):
    """A random tree of joints with some loops, one source and two sinks."""
    joints = int(rng.integers(4, 20))
    pairs = [(int(rng.integers(0, k)), k) for k in range(1, joints)]
    for _ in range(int(rng.integers(0, min(8, 31 - joints)))):
        a, b = rng.choice(joints, 2, replace=False)
        pairs.append((int(a), int(b)))
    pipes = [
        pipe(f"p{n}", f"j{a}", f"j{b}", rng.uniform(4, 16), rng.uniform(100, 3000))
        for n, (a, b) in enumerate(pairs)
    ]
    return pipes, {"j0": float(rng.uniform(50, 500)), f"j{joints - 1}": 0.0, f"j{joints // 2}": 0.0}, joints


def test_random_nets_balance_and_agree_with_another_solver(oil):
    rng = np.random.default_rng(3)
    for case in range(24):
        pipes, fixed, joints = random_net(rng)
        temperature = float(rng.uniform(-10, 90))
        found = solve(pipes, fixed, oil, temperature, ROUGH)
        greatest = max(map(abs, found.flows_lpm.values()))
        for k in range(joints):
            if f"j{k}" not in fixed:
                into = sum(
                    found.flows_lpm[p.id] * ((p.stop == f"j{k}") - (p.start == f"j{k}")) for p in pipes
                )
                assert abs(into) < 1e-6 * greatest
        told = Losses([p.way for p in pipes], oil, temperature, ROUGH)
        drops = told.drops_kpa(np.array([found.flows_lpm[p.id] for p in pipes]))
        for p, drop in zip(pipes, drops, strict=True):
            asked = found.pressures_kpa[p.start] - found.pressures_kpa[p.stop]
            assert drop == pytest.approx(asked, abs=1e-6 * max(fixed.values()))
        if case % 10 == 0:
            _against_root_finding(pipes, fixed, oil, temperature, found)


def _against_root_finding(pipes, fixed, oil, temperature, found):
    """Every loss turned round by bisection with the library, then Powell's method over the joints."""
    free = sorted({name for p in pipes for name in (p.start, p.stop)} - set(fixed))

    def flow(p, drop):
        if abs(drop) < 1e-9:
            return 0.0
        q = brentq(
            lambda x: flow_through(oil, temperature, x, p.way, ROUGH).drop_kpa - abs(drop), 1e-12, 5000
        )
        return float(np.sign(drop) * q)

    def missing(heads):
        at = {**fixed, **dict(zip(free, heads, strict=True))}
        return [
            sum(flow(p, at[p.start] - at[p.stop]) * ((p.stop == n) - (p.start == n)) for p in pipes)
            for n in free
        ]

    start = [found.pressures_kpa[n] * 1.02 + 0.1 for n in free]
    heads = fsolve(missing, start, xtol=1e-10)
    assert heads == pytest.approx([found.pressures_kpa[n] for n in free], abs=1e-3 * max(fixed.values()))


def test_a_check_valve_shuts_against_the_flow_and_opens_with_it(oil):
    net = [pipe("a", "s", "t", 8, 1000), pipe("b", "t", "r", 8, 1000, opens=-1), pipe("c", "t", "r", 6, 1000)]
    shut = solve(net, {"s": 100, "r": 0}, oil, 40, ROUGH)
    assert (shut.shut, shut.flows_lpm["b"]) == ({"b"}, 0)
    assert shut.flows_lpm["a"] == pytest.approx(shut.flows_lpm["c"])
    opened = solve(net, {"s": 0, "r": 100}, oil, 40, ROUGH)
    assert not opened.shut
    assert opened.flows_lpm["b"] < opened.flows_lpm["c"] < 0


def test_what_nothing_feeds_stands_still_and_has_no_pressure(oil):
    net = [pipe("a", "s", "r", 8, 1000), pipe("blind", "r", "end", 8, 500), pipe("loose", "x", "y", 8, 500)]
    found = solve(net, {"s": 100, "r": 0}, oil, 40, ROUGH)
    assert found.flows_lpm["blind"] == pytest.approx(0, abs=1e-9)
    assert found.pressures_kpa["end"] == pytest.approx(0, abs=1e-9)
    assert (found.flows_lpm["loose"], found.pressures_kpa.get("x")) == (0, None)
