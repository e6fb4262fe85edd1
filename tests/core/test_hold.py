"""Hold tests, judged against vessels that are simulated by integrating what flows through a hole.

Outside sources: isentropic nozzle flow (choked and unchoked) integrated by scipy's solve_ivp, the closed
form of an ideal gas that escapes through a choked hole, Torricelli for a liquid. None of it uses the
curves of the core.
"""

from __future__ import annotations

import os
from collections import Counter
from typing import NamedTuple

import numpy as np
import pytest
from numpy.typing import NDArray
from scipy.integrate import solve_ivp

from bendrel.catalogue.loader import load_kit
from bendrel.core.parts.proving import HoldKind
from bendrel.core.work.proof.hold import HoldError, HoldResult, HoldTest, corrected, judge_hold

AIR = 101.325
BULK = 1.6e6
RUNS = int(os.environ.get("BENDREL_HOLD_RUNS", "16"))
RULES = load_kit().proving.hold

Array = NDArray[np.float64]


def nozzle(upstream: float, downstream: float) -> float:
    """Mass flow through a hole per area, up to a constant: isentropic, kappa 1.4."""
    k = 1.4
    ratio = min(max(downstream / upstream, (2 / (k + 1)) ** (k / (k - 1))), 1.0)
    return float(upstream * np.sqrt(max(ratio ** (2 / k) - ratio ** ((k + 1) / k), 0.0)))


def vessel(kind: HoldKind, start: float, slope: float, t: Array) -> Array:
    """Pressures in a vessel whose hole gives it `slope` at first."""

    def flow(p: float) -> float:
        if kind == "liquid":
            return -float(np.sqrt(max(p - AIR, 0.0)))
        return nozzle(AIR, p) if kind == "vacuum" else -nozzle(p, AIR)

    scale = slope / flow(start)
    if scale == 0:
        return np.full_like(t, start)

    def there(_: float, p: Array) -> float:
        return float(p[0]) - (AIR * (1 - 1e-6) if kind == "vacuum" else AIR * (1 + 1e-6))

    there.terminal = True  # type: ignore[attr-defined]
    done = solve_ivp(
        lambda _, p: [scale * flow(float(p[0]))], (0, t[-1]), [start], events=there, dense_output=True,
        rtol=1e-7, atol=1e-6,
    )  # fmt: skip
    found = np.full_like(t, AIR)
    inside = t <= done.t[-1]
    found[inside] = done.sol(t[inside])[0]
    return found


class Held(NamedTuple):
    """One simulated test: what was judged, and the leak over the part that was called settled."""

    times: float
    gross: bool
    result: HoldResult
    truth: float


def simulated(kind: HoldKind, rng: np.random.Generator, times: float) -> Held:
    """A vessel of 5 ml to 50 L whose leak is `times` what reaches the threshold at the end of the run, with
    a drift of temperature, settling in the first minutes, and a noisy gauge."""
    volume = float(10 ** rng.uniform(np.log10(5), np.log10(50_000)))
    ends, every = rng.choice([600, 1200, 1800]), rng.choice([1, 2, 5])
    t = np.arange(0.0, ends + 0.1, every)
    start = float(
        {
            "vacuum": rng.uniform(15, 60),
            "gas": AIR + rng.uniform(50, 400),
            "liquid": AIR + rng.uniform(500, 15_000),
        }[kind]
    )
    over = AIR - start
    limit = start + over * float(rng.uniform(0.1, 0.3))
    leaking = vessel(kind, start, times * (limit - start) / ends, t)
    settles = -over * rng.uniform(0, 0.06) * np.exp(-t / rng.uniform(10, 80))
    warm = 20 + rng.uniform(-5, 5) * t / ends
    shown = leaking + settles
    if kind != "liquid":
        shown = shown * (warm + 273.15) / (warm[0] + 273.15)
    shown = np.maximum(shown + rng.normal(0, abs(over) * 10 ** rng.uniform(-3, -2), len(t)), 0)
    result = judge_hold(
        HoldTest(
            kind=kind, volume_ml=volume, times_s=t.tolist(), pressures_kpa=shown.tolist(),
            temperatures_c=None if kind == "liquid" else warm.tolist(), threshold_kpa=limit,
        ),
        RULES,
    )  # fmt: skip
    began = float(np.interp(result.settled_from_s, t, leaking))
    rate = (float(leaking[-1]) - began) / (t[-1] - result.settled_from_s) * np.sign(over)
    per = volume * 60 / (BULK if kind == "liquid" else AIR)
    return Held(times, times >= 30, result, float(rate) * per)


@pytest.mark.parametrize("kind", ["vacuum", "gas", "liquid"])
def test_the_verdict_is_right_and_the_doubt_is_honest(kind: HoldKind) -> None:
    """Verdict right in 98 % at twice the threshold's leak and at half of it; the doubt covers 90 to 99 %."""
    rng = np.random.default_rng(["vacuum", "gas", "liquid"].index(kind) + 11)
    held = [simulated(kind, rng, float(rng.choice([0, 0.1, 0.5, 2, 4, 40]))) for _ in range(RUNS)]
    wrong = Counter(
        (one.times, one.result.verdict)
        for one in held
        if one.result.verdict != ("leaks" if one.times >= 2 else "holds")
    )
    assert sum(wrong.values()) <= max(1, 0.02 * RUNS), wrong
    assert not any(one.gross and one.result.verdict == "holds" for one in held)
    covered = [abs(one.result.leak_ml_per_min - one.truth) <= (one.result.leak_doubt or 0.0) for one in held]
    # of 24 runs, 19 is what 90 % may give by chance
    assert np.mean(covered) >= (0.9 if RUNS >= 200 else 0.8)


def test_vacuum_against_the_integrated_hole() -> None:
    """Time to a threshold beyond the choked part, from a run that ends in it."""
    t = np.arange(0.0, 3000, 5)
    shown = vessel("vacuum", 20.0, 0.02, t)
    half = t <= 1000
    result = judge_hold(
        HoldTest(
            kind="vacuum", volume_ml=2000, times_s=t[half].tolist(), pressures_kpa=shown[half].tolist(),
            threshold_kpa=70.0, hold_s=1000,
        ),
        RULES,
    )  # fmt: skip
    reached = float(np.interp(70.0, shown, t))
    assert result.hold_s == pytest.approx(reached, rel=0.03)
    assert result.leak_ml_per_min == pytest.approx(0.02 * 60 * 2000 / AIR, rel=0.01)


def test_a_fine_path_is_exponential() -> None:
    """p = p_air − (p_air − p0)·e^(−t/τ): τ is found to 2 %."""
    t = np.arange(0.0, 1200, 4)
    shown = AIR - (AIR - 60) * np.exp(-t / 900) + np.random.default_rng(3).normal(0, 0.05, len(t))
    test = HoldTest(kind="vacuum", volume_ml=500, times_s=t.tolist(), pressures_kpa=shown.tolist())
    assert judge_hold(test, RULES).tau_s == pytest.approx(900, rel=0.02)


def test_gas_through_a_choked_hole() -> None:
    """Isothermal and choked, p = p0·e^(−t/τ): the mean loss over the run is V·Δp/Δt by the ideal gas."""
    t = np.arange(0.0, 901, 3)
    shown = 500 * np.exp(-t / 2000)
    result = judge_hold(
        HoldTest(
            kind="gas", volume_ml=3000, times_s=t.tolist(), pressures_kpa=shown.tolist(),
            temperatures_c=[20.0] * len(t),
        ),
        RULES,
    )  # fmt: skip
    assert result.verdict == "leaks"
    assert result.leak_ml_per_min == pytest.approx(
        3000 * 500 * (1 - np.exp(-900 / 2000)) / 900 * 60 / AIR, rel=0.01
    )


def test_a_gas_that_only_cools_holds() -> None:
    """p·T1/T: 5 °C of cooling takes 1.7 % of the pressure and nothing of the gas."""
    t = np.arange(0.0, 1201, 5)
    cool = 20 - 5 * t / 1200
    shown = 400 * (cool + 273.15) / 293.15 + np.random.default_rng(1).normal(0, 0.2, len(t))
    test = HoldTest(
        kind="gas", volume_ml=800, times_s=t.tolist(), pressures_kpa=shown.tolist(),
        temperatures_c=cool.tolist(), threshold_kpa=395,
    )  # fmt: skip
    assert corrected(test)[-1] == pytest.approx(400, abs=1)
    assert judge_hold(test, RULES).verdict == "holds"


@pytest.mark.parametrize("step", [0.1, 0.5, 1.0])
def test_cooling_read_in_whole_steps_is_no_unsteadiness(step: float) -> None:
    """A thermometer of whole steps: air at 10 bar that cools by 5 °C in ten minutes and loses nothing holds;
    with a leak of 0.6 bar it leaks. By the ideal gas."""
    t = np.arange(0.0, 601, 2)
    cool = 25 - 5 * (1 - np.exp(-t / 300)) / (1 - np.exp(-2))
    noise = np.random.default_rng(4).normal(0, 1.0, len(t))
    for lost, verdict in ((0.0, "holds"), (60.0, "leaks")):
        shown = (1101.3 - lost * t / 600) * (cool + 273.15) / 298.15 + noise
        test = HoldTest(
            kind="gas", volume_ml=3000, times_s=t.tolist(), pressures_kpa=shown.tolist(),
            temperatures_c=(np.round(cool / step) * step).tolist(), threshold_kpa=AIR + 950, hold_s=600,
        )  # fmt: skip
        result = judge_hold(test, RULES)
        assert result.verdict == verdict
        assert abs(result.leak_ml_per_min - lost / 10 * 3000 / AIR) <= (result.leak_doubt or 0)


def test_warming_that_nobody_measured_hides_a_leak_within_the_doubt() -> None:
    """2 % lost in ten minutes while it warmed by 1.5 °C: the true leak lies within what is said, and the note
    names both ways. What warmed by 5 °C before a thermometer's eyes is asked to be looked at once more."""
    t = np.arange(0.0, 601, 5)
    warm = 15 + 1.5 * t / 600
    lost = 400 * (1 - 0.02 * t / 600)
    shown = lost * (warm + 273.15) / 288.15 + np.random.default_rng(6).normal(0, 0.05, len(t))
    unmeasured = HoldTest(
        kind="gas", volume_ml=800, times_s=t.tolist(), pressures_kpa=shown.tolist(), threshold_kpa=380
    )
    result = judge_hold(unmeasured, RULES)
    truth = 400 * 0.02 / 10 * 800 / AIR
    assert abs(result.leak_ml_per_min - truth) <= (result.leak_doubt or 0)
    assert any("hides one" in note and "looks like a leak" in note for note in result.notes)
    warm = 15 + 5 * t / 600
    shown = lost * (warm + 273.15) / 288.15
    seen = HoldTest(
        kind="gas", volume_ml=800, times_s=t.tolist(), pressures_kpa=shown.tolist(),
        temperatures_c=warm.tolist(), threshold_kpa=380,
    )  # fmt: skip
    result = judge_hold(seen, RULES)
    assert abs(result.leak_ml_per_min - truth) <= (result.leak_doubt or 0)
    assert any("look once more" in note and "hides a leak" in note for note in result.notes)


def test_liquid_by_its_stiffness() -> None:
    """V/K·Δp: 200 ml lose 10 kPa/s, which is 0.075 ml/min."""
    t = np.arange(0.0, 121, 1)
    test = HoldTest(
        kind="liquid", volume_ml=200, times_s=t.tolist(), pressures_kpa=(10_000 - 10 * t).tolist()
    )
    assert judge_hold(test, RULES).leak_ml_per_min == pytest.approx(200 / 1.6e6 * 600, rel=1e-3)


def test_too_short_a_run_says_how_long_to_go_on() -> None:
    """Twenty noisy readings of a sound vessel cannot tell; the answer is no pass."""
    t = np.arange(0.0, 100, 5)
    shown = 300 + np.random.default_rng(2).normal(0, 3, len(t))
    result = judge_hold(
        HoldTest(
            kind="gas", volume_ml=800, times_s=t.tolist(), pressures_kpa=shown.tolist(),
            threshold_kpa=297, hold_s=600,
        ),
        RULES,
    )  # fmt: skip
    assert result.verdict == "too_short"
    assert result.more_s is not None
    assert result.more_s > 0


def test_a_jump_is_no_hold() -> None:
    """A valve touched half-way: a fall that no leak explains."""
    t = np.arange(0.0, 600, 2)
    shown = np.where(t < 300, 5000.0, 4600.0) + np.random.default_rng(5).normal(0, 5, len(t))
    result = judge_hold(
        HoldTest(kind="liquid", volume_ml=80, times_s=t.tolist(), pressures_kpa=shown.tolist()), RULES
    )
    assert result.verdict in ("not_steady", "leaks")


@pytest.mark.parametrize(("kind", "pressures"), [
    ("gas", [102.0] * 9),
    ("liquid", [4000.0, *[101.4] * 99]),
    ("vacuum", [20.0, *[101.3] * 99]),
])  # fmt: skip
def test_what_is_empty_at_once_never_holds(kind: HoldKind, pressures: list[float]) -> None:
    """A joint left off: the first reading may still show something."""
    test = HoldTest(
        kind=kind, volume_ml=500, times_s=[float(k) for k in range(len(pressures))], pressures_kpa=pressures
    )
    assert judge_hold(test, RULES).verdict == "leaks"


@pytest.mark.parametrize(("times", "pressures", "said"), [
    ([0, 1, 2], [300, 300, 300], "at least 5"),
    ([0, 1, 2, 2, 3], [300] * 5, "stands still or runs back"),
    ([0, 1, 2, 3, 4], [300, 300, -1, 300, 300], "no absolute pressure"),
    ([0, 1, 2, 3, 4], [20, 20, 20, 20, 20], "begins above the air"),
])  # fmt: skip
def test_readings_that_cannot_be_judged(times: list[float], pressures: list[float], said: str) -> None:
    """One sentence: which reading, and what would be accepted."""
    with pytest.raises(HoldError, match=said):
        judge_hold(HoldTest(kind="gas", volume_ml=100, times_s=times, pressures_kpa=pressures), RULES)
