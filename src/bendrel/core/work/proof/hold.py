"""A hold test: pressure or vacuum is set, the source shut off, and the gauge watched."""

from __future__ import annotations

from collections.abc import Sequence
from math import floor, inf, log10
from typing import Literal

import numpy as np
from scipy.special import stdtrit

from bendrel.core.errors import BendrelError
from bendrel.core.flow.nozzle import CHOKED, Floats
from bendrel.core.parts.proving import HoldKind, HoldRules
from bendrel.core.record import record
from bendrel.core.work.proof.curves import Curve, towards_air
from bendrel.core.work.proof.settling import Fitted, binned, fitted, step_of, without_steps

Verdict = Literal["holds", "leaks", "too_short", "not_steady"]

LEAST_ROWS = 5
MOST_ROWS = 200_000
KELVIN = 273.15
_COLDEST_C, _HOTTEST_C = -60.0, 400.0
_ROOM_C = 20.0

_SETTLED = 0.05
"""Share of what settles that no longer counts."""
_NEVER_S = 3.2e8
_LEAST_SAID = 0.0001


class HoldError(BendrelError, ValueError):
    """The readings are none that can be judged; the text says where and what would be accepted."""


@record
class HoldTest:
    """What was measured, and what is asked. Times in s, pressures in kPa absolute, temperatures in °C (none:
    not measured), the volume in ml, the liquid's stiffness in kPa. `threshold_kpa` is the pressure that
    must not be reached within `hold_s` (none: the run's own length)."""

    kind: HoldKind
    volume_ml: float
    times_s: Sequence[float]
    pressures_kpa: Sequence[float]
    temperatures_c: Sequence[float] | None = None
    air_kpa: float = 101.325
    threshold_kpa: float | None = None
    hold_s: float | None = None
    bulk_kpa: float = 1.6e6


@record
class HoldResult:
    """`leak_ml_per_min` is free air (of a liquid test: liquid) lost over the settled part, a vacuum's is what
    came in; negative where the pressure went the other way. `leak_doubt` holds the true figure in
    about 97 of 100, None where nothing was held. `tau_s` is None but for vacuum. `hold_s` is the time from
    the start to the threshold, extrapolated where it was not reached, None where it never is; `margin` is
    how many times the time asked for that is. `more_s` is how much longer to go on, None where no more time
    is asked for."""

    kind: HoldKind
    verdict: Verdict
    leak_ml_per_min: float
    leak_doubt: float | None
    tau_s: float | None
    settled_from_s: float
    hold_s: float | None
    margin: float | None
    more_s: float | None
    notes: tuple[str, ...]


def leak_words(result: HoldResult) -> str:
    """The leak with its doubt; where the doubt is larger, what it is less than."""
    of = "liquid" if result.kind == "liquid" else "free air"
    if result.leak_doubt is None:
        return "nothing was held"
    if abs(result.leak_ml_per_min) <= result.leak_doubt:
        most = max(result.leak_ml_per_min, 0.0) + result.leak_doubt
        return f"no leak seen, less than {_small(most)} ml/min of {of}"
    return f"{_small(result.leak_ml_per_min)} ± {_small(result.leak_doubt)} ml/min of {of}"


def _small(figure: float) -> str:
    """Two or three digits, never as a power of ten; what is under a ten-thousandth is called so."""
    if abs(figure) < _LEAST_SAID:
        return f"{_LEAST_SAID:g}"
    return f"{figure:.{max(0, 1 - floor(log10(abs(figure))))}f}"


def _are(rows: int) -> str:
    return {0: "are none", 1: "is 1"}.get(rows, f"are {rows}")


def check(test: HoldTest, rules: HoldRules) -> None:
    """Raises HoldError for what cannot be judged."""
    rows = len(test.times_s)
    if rows < LEAST_ROWS:
        raise HoldError(f"A verdict takes at least {LEAST_ROWS} readings; so far there {_are(rows)}.")
    if rows > MOST_ROWS:
        raise HoldError(f"{rows:,} readings are too many; up to {MOST_ROWS:,} are accepted.")
    for k in range(1, rows):
        if test.times_s[k] <= test.times_s[k - 1]:
            raise HoldError(
                f"Reading {k + 1}: time stands still or runs back from {test.times_s[k - 1]:g} to "
                f"{test.times_s[k]:g} s; each must be later than the one before."
            )
    for name, value in (
        ("volume", test.volume_ml),
        ("air pressure", test.air_kpa),
        ("stiffness", test.bulk_kpa),
    ):
        if not 0 < value < inf:
            raise HoldError(f"The {name} is {value:g}; a figure over 0 is accepted.")
    for k, p in enumerate(test.pressures_kpa):
        if not 0 <= p < inf:
            raise HoldError(f"Reading {k + 1}: {p:g} kPa is no absolute pressure; 0 or more is accepted.")
    way, there = (1.0, "below") if test.kind == "vacuum" else (-1.0, "above")
    if way * (test.pressures_kpa[0] - test.air_kpa) > rules.nothing_share * test.air_kpa:
        raise HoldError(
            f"Reading 1: {test.pressures_kpa[0]:g} kPa; a {test.kind} test begins {there} the air's "
            f"{test.air_kpa:g} kPa, in absolute pressure."
        )
    for k, c in enumerate(test.temperatures_c or ()):
        if not _COLDEST_C <= c <= _HOTTEST_C:
            raise HoldError(f"Reading {k + 1}: {c:g} °C is no temperature of a line; −60 to 400 is accepted.")


def corrected(test: HoldTest) -> tuple[float, ...]:
    """The pressures as they would be at the first temperature; those of a liquid as they are. A thermometer
    that shows whole steps is read between the middles of them. Source: ideal gas in a constant volume,
    p·T1/T."""
    if test.kind == "liquid" or not test.temperatures_c:
        return tuple(test.pressures_kpa)
    warm = without_steps(test.times_s, test.temperatures_c)
    first = warm[0] + KELVIN
    return tuple(p * first / (c + KELVIN) for p, c in zip(test.pressures_kpa, warm, strict=True))


def _unseen_kpa(test: HoldTest, rules: HoldRules) -> float:
    """What the temperature may have moved a gas's pressure by without being seen, in kPa."""
    if test.kind == "liquid":
        return 0.0
    drift = rules.drift_c
    if test.temperatures_c:
        drift = rules.drift_share * abs(test.temperatures_c[-1] - test.temperatures_c[0])
    return float(test.pressures_kpa[-1]) * drift / (_ROOM_C + KELVIN)


def judge_hold(test: HoldTest, rules: HoldRules) -> HoldResult:
    """What a hold test says. Raises HoldError for readings that cannot be judged.

    It leaks where, over the settled part, the pressure goes towards the air's by more than the doubt and,
    where there is a threshold, reaches it in time. It holds where it does not and the doubt is small enough
    to say so. Valid for one closed volume at rest; the air's pressure is taken as steady.
    """
    check(test, rules)
    step = 0.0
    if test.kind != "liquid" and test.temperatures_c:
        step = max(test.pressures_kpa) * step_of(test.temperatures_c) / (_ROOM_C + KELVIN)
    data = binned(test.times_s, corrected(test), step)
    unseen = _unseen_kpa(test, rules)
    way = 1.0 if test.kind == "vacuum" else -1.0
    first, last, ends = float(data.p[0]), float(np.mean(data.p[-3:])), float(data.t[-1])
    notes = _said_of(test, data.left_out, rules)
    over = way * (test.air_kpa - first)
    if over < rules.nothing_share * test.air_kpa:
        notes.append("The pressure stands at the air's from the first reading on: nothing is held.")
        return _nothing_held(test, notes)
    fit = fitted(data, test.kind, test.air_kpa, rules.settle_s, rules.settle_share)
    settled = _settled_from(fit, data.noise, ends, rules.latest_share)
    asked = test.hold_s or ends
    q_both = float(stdtrit(fit.free, (1 + rules.sure) / 2))
    q_one = float(stdtrit(fit.free, rules.say_so))

    def at(when: float) -> tuple[float, float]:
        return fit.figure(lambda curve, p, slope: float(curve(np.array([when]), p, slope, test.air_kpa)[0]))

    def gone(curve: Curve, p: float, slope: float) -> float:
        there = curve(np.array([settled, ends]), p, slope, test.air_kpa)
        return way * float(there[1] - there[0])

    fall, deviation = fit.figure(gone)
    doubt = max(q_both * deviation, data.step / 2, rules.model_share * abs(fall)) + unseen
    falls = fall > doubt
    per = (
        60
        / max(ends - settled, 1e-9)
        * test.volume_ml
        / (test.bulk_kpa if test.kind == "liquid" else test.air_kpa)
    )
    then, then_deviation = at(asked)
    limit = test.threshold_kpa
    emptied = 1 - way * (test.air_kpa - last) / over > rules.emptied_share and (
        limit is None or way * (last - limit) >= 0
    )
    hold_s = _reached(test, fit, data.t, data.p, way) if falls or emptied else None
    lost = 1 - way * (test.air_kpa - last) / over
    verdict: Verdict
    more = None
    if emptied or (falls and (limit is None or way * (then - limit) >= 0 or way * (last - limit) >= 0)):
        verdict = "leaks"
    elif limit is not None and way * (last - limit) >= 0:
        verdict = "not_steady"
        notes.append("The threshold was passed while the pressure still settled: set it again and repeat.")
    elif limit is None and lost > rules.lost_share:
        verdict = "not_steady"
        notes.append(f"{lost:.0%} of it went while it settled: set it again and repeat.")
    elif fit.strays > rules.strays:
        verdict = "not_steady"
        notes.append(
            "The readings jump or wander by far more than the gauge's noise: look what moved, and repeat."
        )
    else:
        room = way * (limit - then) if limit is not None else rules.fall_share * way * (test.air_kpa - last)
        need = (
            q_one * then_deviation + unseen
            if limit is not None
            else doubt * asked / max(ends - settled, 1e-9)
        )
        if need < room:
            verdict = "holds"
        else:
            verdict = "too_short"
            more = _more(need / max(room, 1e-9), ends, asked, rules)
            notes.append("The doubt is still larger than what is asked; go on.")
    if settled > 0 and fit.settling > 0.5:
        best = next(one for one in fit.courses if one.settle_s)
        notes.append(f"{abs(best.settles):.3g} kPa settled in the first {settled:.0f} s and is no leak.")
    return HoldResult(
        kind=test.kind,
        verdict=verdict,
        leak_ml_per_min=fall * per,
        leak_doubt=doubt * per,
        tau_s=_tau(test, fit) if test.kind == "vacuum" and falls else None,
        settled_from_s=test.times_s[0] + settled,
        hold_s=hold_s,
        margin=hold_s / asked if hold_s is not None and limit is not None else None,
        more_s=more,
        notes=tuple(notes),
    )


def _said_of(test: HoldTest, left_out: int, rules: HoldRules) -> list[str]:
    notes = []
    if left_out:
        notes.append(f"{left_out} readings stood far from their neighbours and were left out.")
    if test.temperatures_c:
        warmer = test.temperatures_c[-1] - test.temperatures_c[0]
        if test.kind == "liquid" and abs(warmer) > rules.warm_c:
            notes.append(
                f"The liquid changed by {warmer:+.1f} °C: shut in, that moves the pressure more than a leak "
                "does. Let it come to one temperature and repeat before a joint is blamed or trusted."
            )
        elif test.kind != "liquid" and abs(warmer) > rules.warm_gas_c:
            hides = (warmer > 0) == (test.kind == "gas")
            does = "hides a leak" if hides else "looks like one"
            notes.append(
                f"It {'warmed' if warmer > 0 else 'cooled'} by {abs(warmer):.1f} °C while it was watched, "
                f"which {does}. That is taken out; the gas may not have followed the thermometer: look "
                "once more when it stands at one temperature."
            )
    elif test.kind == "gas":
        notes.append(
            "The temperature was not measured: a gas that cools by 3 °C loses a hundredth by itself and "
            "looks like a leak; one that warms by 3 °C gains as much and hides one. The doubt allows for "
            f"{rules.drift_c:g} °C; look once more when it stands at one temperature."
        )
    return notes


def _nothing_held(test: HoldTest, notes: list[str]) -> HoldResult:
    return HoldResult(
        kind=test.kind,
        verdict="leaks",
        leak_ml_per_min=0.0,
        leak_doubt=None,
        tau_s=None,
        settled_from_s=test.times_s[0],
        hold_s=0.0 if test.threshold_kpa is not None else None,
        margin=None,
        more_s=None,
        notes=tuple(notes),
    )


def _settled_from(fit: Fitted, noise: float, ends: float, latest: float) -> float:
    """When what settles is lost in the gauge's noise; 0 where nothing does."""
    if fit.settling <= 0.5:
        return 0.0
    best = next(one for one in fit.courses if one.settle_s)
    floor = max(noise, _SETTLED * abs(best.settles))
    return float(min(best.settle_s * np.log(max(abs(best.settles) / floor, 1.0)), latest * ends))


def _tau(test: HoldTest, fit: Fitted) -> float | None:
    """The time constant towards the air; of a choked rise that of the exponential that goes on with its
    slope."""
    best = fit.courses[0]
    if best.slope <= 0:
        return None
    meets = test.air_kpa - min(max(best.start, CHOKED * test.air_kpa), test.air_kpa)
    if best.curve is towards_air and best.weight > 0.5:
        meets = test.air_kpa - best.start
    return meets / best.slope


def _reached(test: HoldTest, fit: Fitted, t: Floats, p: Floats, way: float) -> float | None:
    """Seconds from the first reading until the threshold: read where it was reached, else as the likeliest
    leak goes on; None where it never comes there."""
    limit = test.threshold_kpa
    if limit is None:
        return None
    there = np.nonzero(way * (p - limit) >= 0)[0]
    if len(there):
        k = int(there[0])
        if k == 0:
            return 0.0
        share = (limit - p[k - 1]) / (p[k] - p[k - 1])
        return float(t[k - 1] + share * (t[k] - t[k - 1]))
    best, when = fit.likeliest, float(t[-1])

    def past(seconds: float) -> float:
        return way * (float(best.curve(np.array([seconds]), best.start, best.slope, test.air_kpa)[0]) - limit)

    low, high = when, when * 2
    while past(high) < 0:
        low, high = high, high * 2
        if high > _NEVER_S:
            return None
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if past(middle) < 0 else (low, middle)
    return high


def _more(ratio: float, ends: float, asked: float, rules: HoldRules) -> float:
    """How much longer to go on: the doubt of a slope falls with the time to the power 1.5."""
    longer = max(ends * (max(ratio, 1.05) ** (2 / 3)), min(asked, rules.most_wait * ends))
    return float(min(longer, rules.most_wait * ends) - ends) or ends
