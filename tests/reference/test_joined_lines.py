"""What is said of joined lines, against a circuit solved here: losses by the `fluids` library's Moody factor
of another author, continuity by bisection. No tee, net or finding of the program is used for it."""

from __future__ import annotations

import random
from dataclasses import replace

import numpy as np
import pytest
from fluids.friction import friction_factor
from scipy.optimize import brentq

from bendrel.core.line.document import ComponentSpan, HoseSpan, JoinedTo, Line, Port
from bendrel.core.parts.fluid import density, viscosity
from bendrel.core.units.lengths import Length
from tests.core.test_circuits import BACK, SOURCE, codes, told

SERVICE = "steering-return"
HOSES = {"steering-return_10mm": 10.0, "vacuum_4mm": 4.0}
ROUGH = 0.0015


class Pipe:
    """A hose, wide or narrow, so and so long."""

    def __init__(self, hose: str, mm: float) -> None:
        self.hose, self.mm = hose, mm

    def span(self, name: str) -> HoseSpan:
        return HoseSpan(id=name, hose=self.hose, length=Length(text=str(self.mm)), clamps_each=0)


class Fluid:
    def __init__(self, kit, temperature_c: float) -> None:
        fluid = kit.fluids[kit.services[SERVICE].duty.fluid]
        self.rho = density(fluid, temperature_c)
        self.nu = viscosity(fluid, temperature_c) * 1e-6

    def drop_kpa(self, pipe: Pipe, lpm: float) -> float:
        """Darcy and Weisbach; Moody's factor by Colebrook and White where it is turbulent."""
        bore, amount = HOSES[pipe.hose] / 1000, lpm / 60_000
        speed = amount / (np.pi / 4 * bore**2)
        re = max(speed * bore / self.nu, 1e-9)
        factor = 64 / re if re < 2040 else friction_factor(Re=re, eD=ROUGH / 1000 / bore, Method="Clamond")
        return factor * pipe.mm / 1000 / bore * self.rho * speed**2 / 2000

    def changes_over(self, pipe: Pipe, lpm: float) -> bool:
        """Between laminar and turbulent, where no two correlations agree."""
        re = lpm / 60_000 / (np.pi / 4 * HOSES[pipe.hose] / 1000) / self.nu
        return 1500 < re < 6000

    def through(self, pipe: Pipe, kpa: float) -> float:
        """What flows at that loss."""
        return brentq(lambda lpm: self.drop_kpa(pipe, lpm) - kpa, 1e-9, 500) if kpa > 1e-9 else 0.0


def split(fluid: Fluid, kpa: float, feed: Pipe, branches: list[Pipe]) -> list[float]:
    """Flow of each branch behind a tee: what comes through the feed goes through the branches."""
    at_tee = brentq(
        lambda p: fluid.through(feed, kpa - p) - sum(fluid.through(one, p) for one in branches),
        1e-6,
        kpa - 1e-6,
    )
    return [fluid.through(one, at_tee) for one in branches]


def drawn(rng: random.Random) -> tuple[Pipe, list[Pipe]]:
    names = list(HOSES)
    feed = Pipe("steering-return_10mm", rng.randint(200, 1500))
    lengths = [rng.choice([400, 1500, 4000, 12_000, 40_000]) for _ in range(2)]
    return feed, [Pipe(rng.choice(names), mm) for mm in lengths]


def lines_of(feed: Pipe, branches: list[Pipe]) -> dict[str, Line]:
    tee = ComponentSpan(id="t1", what="tee")
    main = Line(
        name="main", service=SERVICE, unit="mm", spans=(feed.span("h1"), tee, branches[0].span("h2")),
        port_a=SOURCE, port_b=BACK,
    )  # fmt: skip
    beside = Line(
        name="beside", service=SERVICE, unit="mm", spans=(branches[1].span("h1"),),
        port_a=Port(on=JoinedTo(line="m", span="t1")), port_b=BACK,
    )  # fmt: skip
    return {"m": main, "b": beside}


@pytest.mark.parametrize("seed", range(16))
def test_who_starves_behind_a_tee(kit, seed: int) -> None:
    """Every branch's flow within five per cent (two correlations of friction; a fifth where the flow changes
    over), and *starved* just where it is under what the service asks for."""
    duty = kit.services[SERVICE].duty
    feed, branches = drawn(random.Random(seed))
    _, (flow,), _, findings = told(kit, **lines_of(feed, branches))
    fluid = Fluid(kit, duty.hot_c)
    alone = split(fluid, duty.available_kpa, feed, branches)
    found = {one.line: one.flow_lpm for one in flow.hot.branches}
    pipes = ((feed, sum(alone)), *zip(branches, alone, strict=True))
    near = 0.2 if any(fluid.changes_over(pipe, lpm) for pipe, lpm in pipes) else 0.05
    for line, lpm in zip("mb", alone, strict=True):
        assert found[line] == pytest.approx(lpm, rel=near)
        if abs(lpm / duty.least_lpm - 1) > near:
            assert (("starved", line) in codes(findings)) == (lpm < duty.least_lpm)


def test_both_answers_are_among_them(kit) -> None:
    """The draw above has branches that starve and branches that do not."""
    duty, starved = kit.services[SERVICE].duty, []
    fluid = Fluid(kit, duty.hot_c)
    for seed in range(16):
        feed, branches = drawn(random.Random(seed))
        starved += [lpm < duty.least_lpm for lpm in split(fluid, duty.available_kpa, feed, branches)]
    assert 4 <= sum(starved) <= len(starved) - 4


@pytest.mark.parametrize("kpa", [5, 20, 60, 150])
def test_what_a_part_costs_the_flow(kit, kpa: int) -> None:
    """A filter that takes a fixed pressure leaves the hose what remains: said from the limit on, and with the
    share of it."""
    duty, limit = kit.services[SERVICE].duty, kit.limits["part_costs"].value
    pipe = Pipe("steering-return_10mm", 4000)
    spans = (replace(pipe.span("h1")), ComponentSpan(id="f1", what="filter", loses=f"{kpa} kPa"))
    one = Line(name="one", service=SERVICE, unit="mm", spans=spans, port_a=SOURCE, port_b=BACK)
    _, (flow,), _, findings = told(kit, m=one)
    fluid = Fluid(kit, duty.hot_c)
    free = fluid.through(pipe, duty.available_kpa)
    left = fluid.through(pipe, max(0.0, duty.available_kpa - kpa))
    share = 1 - left / free
    (cost,) = flow.costs
    assert cost.share == pytest.approx(share, abs=0.03)
    if abs(share - limit) > 0.03:
        assert (("costs", "m") in codes(findings)) == (share > limit)


@pytest.mark.parametrize("said", ["A to B", "B to A"])
@pytest.mark.parametrize("seed", range(4))
def test_a_line_said_to_flow_against_the_pressure(kit, seed: int, said: str) -> None:
    """Behind the tee everything runs towards the return at end B, whatever the sizes are."""
    lines = lines_of(*drawn(random.Random(seed)))
    beside = lines["b"]
    lines["b"] = replace(beside, port_b=Port(role="return"), carries=replace(beside.carries, flows=said))
    assert (("swapped", "b") in codes(told(kit, **lines)[3])) == (said == "B to A")
