"""The leak and the settling in a row of pressures, told apart: every likely course fitted, and weighed.

A pressure that has just been set goes on moving for minutes without any leak: air cools, hoses stretch,
seals take up their place. It is taken as A·e^(−t/τ) beside the leak. Which τ and which kind of leak is not
known, so all are fitted and weighed by how well they fit; the doubt holds both the noise and what the
courses disagree about. Source: least squares, models weighed by the Bayesian information criterion.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from itertools import product

import numpy as np
from scipy.optimize import least_squares

from bendrel.core.flow.nozzle import Floats
from bendrel.core.parts.proving import HoldKind
from bendrel.core.record import record
from bendrel.core.work.proof.curves import FAMILIES, Curve

_BINS = 400
_OUTLIER = 8.0
_WINDOW = 11
_LEAST_WEIGHT = 1e-3
_FEW = 30
_NEARLY = 0.2
_ALIKE = 0.03
_FINEST = 1e-7


@record
class Binned:
    """Readings averaged over short stretches: times from the first reading (s), pressures (kPa), how many
    readings each holds, the noise of one reading and the gauge's step (kPa, 0 where it is fine), and how
    many readings stood so far from their neighbours that they were left out."""

    t: Floats
    p: Floats
    count: Floats
    noise: float
    step: float
    left_out: int


@record
class Course:
    """One way in which the pressures can have come about: the leak with its pressure and slope at the first
    reading, what settles (kPa, 0 without) in which time (s), its weight among all, and the covariance of
    pressure and slope."""

    curve: Curve
    start: float
    slope: float
    settles: float
    settle_s: float
    weight: float
    covariance: Floats

    def moment(self, of: Callable[[Curve, float, float], float]) -> tuple[float, float]:
        """A figure of this course's leak and its variance, by how it changes with pressure and slope."""
        value = of(self.curve, self.start, self.slope)
        steps = np.sqrt(np.maximum(np.diag(self.covariance), 1e-18)) / 2
        rate = np.array(
            [
                (of(self.curve, self.start + steps[0], self.slope) - value) / steps[0],
                (of(self.curve, self.start, self.slope + steps[1]) - value) / steps[1],
            ]
        )
        return value, float(rate @ self.covariance @ rate)


@record
class Fitted:
    """All courses, the likeliest first, their weights adding up to 1, and the kinds of leak; how many
    readings are free to tell the noise, and how many times larger than the gauge's own noise the readings
    stray from the best course."""

    courses: tuple[Course, ...]
    kinds: tuple[Curve, ...]
    free: float
    strays: float

    def figure(self, of: Callable[[Curve, float, float], float]) -> tuple[float, float]:
        """A figure of the leak over all courses, and its standard deviation: the noise and what the courses
        disagree about."""
        told = [(one.weight, *one.moment(of)) for one in self.courses]
        mean = sum(w * value for w, value, _ in told)
        variance = sum(w * (var + (value - mean) ** 2) for w, value, var in told)
        return mean, float(np.sqrt(variance))

    @property
    def likeliest(self) -> Course:
        """The course to go on with: the first kind of leak among those that fit nearly as well."""
        near = [one for one in self.courses if one.weight >= _NEARLY * self.courses[0].weight]
        return min(near, key=lambda one: self.kinds.index(one.curve))

    @property
    def settling(self) -> float:
        """How likely it is that anything settles at all."""
        return sum(one.weight for one in self.courses if one.settle_s)


def binned(times: Sequence[float], pressures: Sequence[float], also_step: float = 0.0) -> Binned:
    """Readings, at least 5, as at most 400 averages. `also_step` is what another instrument's smallest step
    moves them by."""
    t, p = np.asarray(times, dtype=float), np.asarray(pressures, dtype=float)
    good = np.ones(len(p), dtype=bool)
    if len(p) >= _FEW:
        off = np.abs(p - _running_median(p))
        good = off <= _OUTLIER * max(_noise(p), 1e-6 * float(np.max(np.abs(p))))
    t, p, count_out = t[good] - t[0], p[good], int(np.sum(~good))
    edges = np.unique(np.linspace(0, len(t), min(_BINS, len(t)) + 1).astype(int))
    count = np.diff(edges).astype(float)
    return Binned(
        t=np.add.reduceat(t, edges[:-1]) / count,
        p=np.add.reduceat(p, edges[:-1]) / count,
        count=count,
        noise=_noise(p),
        step=max(step_of(p), also_step),
        left_out=count_out,
    )


def _noise(p: Floats) -> float:
    """Spread of one reading from second differences, of variance 6σ², so that a trend is no noise."""
    second = np.abs(p[:-2] - 2 * p[1:-1] + p[2:])
    spread = 1.4826 * np.median(second) if len(p) >= _FEW else np.sqrt(np.mean(second**2))
    return float(spread / np.sqrt(6))


def without_steps(times: Sequence[float], shown: Sequence[float]) -> Floats:
    """What an instrument of whole steps would have shown between them: straight from the middle of one stay
    to the middle of the next. Readings that come one by one stay as they are."""
    t, seen = np.asarray(times, dtype=float), np.asarray(shown, dtype=float)
    starts = np.concatenate([[0], np.nonzero(np.diff(seen))[0] + 1])
    ends = np.concatenate([starts[1:] - 1, [len(seen) - 1]])
    return np.asarray(np.interp(t, (t[starts] + t[ends]) / 2, seen[starts]))


def step_of(readings: Floats | Sequence[float]) -> float:
    """The smallest step of an instrument that shows few different figures; 0 of one that shows many."""
    p = np.asarray(readings, dtype=float)
    shown = np.unique(np.round(p, 9))
    if len(shown) > len(p) / 2:
        return 0.0
    return float(np.min(np.diff(shown))) if len(shown) > 1 else 0.0


def _running_median(p: Floats) -> Floats:
    padded = np.pad(p, _WINDOW // 2, mode="edge")
    return np.asarray(np.median(np.lib.stride_tricks.sliding_window_view(padded, _WINDOW), axis=1))


def fitted(data: Binned, kind: HoldKind, air: float, settle_s: Sequence[float], most_share: float) -> Fitted:
    """Every course that can have led to `data`. What settles may be no more than `most_share` of what stood
    above (below) the air at first: more of it is a loss. `settle_s` are the settling times looked at."""
    over = abs(float(data.p[0]) - air)
    straight = [_straight(data, settle, len(settle_s)) for settle in (0.0, *settle_s)]
    likely = min(straight, key=lambda fit: fit.spread)
    if abs(likely.slope) * float(data.t[-1]) < _ALIKE * over and abs(likely.settles) <= most_share * over:
        # so near its beginning every kind of leak is straight
        tried = [(curve, fit) for curve in FAMILIES[kind] for fit in straight]
    else:
        tried = [
            (curve, fit) for curve in FAMILIES[kind] for fit in _bent(data, curve, air, straight[0], settle_s)
        ]
    tried = [one for one in tried if abs(one[1].settles) <= most_share * over]
    free = max(len(data.t) - 3.0, 1.0)
    best = min(fit.spread for _, fit in tried)
    own = max(data.noise, data.step / np.sqrt(12), _FINEST * air) ** 2
    variance = max(best / free, own)
    # no settling counts as much beforehand as all settling times together
    scores = [
        fit.spread / variance + 2 * np.log(fit.among) + (np.log(len(data.t)) if fit.settle_s else 0.0)
        for _, fit in tried
    ]
    weights = np.exp(-(np.array(scores) - min(scores)) / 2)
    weights /= weights.sum()
    likeliest = tried[int(np.argmax(weights))][1]
    inflated = variance * _inflation(likeliest.residuals)
    total = float(weights[weights >= _LEAST_WEIGHT].sum())
    told = [
        Course(
            curve=curve,
            start=fit.start,
            slope=fit.slope,
            settles=fit.settles,
            settle_s=fit.settle_s,
            weight=float(weight) / total,
            covariance=fit.covariance * inflated,
        )
        for (curve, fit), weight in zip(tried, weights, strict=True)
        if weight >= _LEAST_WEIGHT
    ]
    return Fitted(
        courses=tuple(sorted(told, key=lambda one: -one.weight)),
        kinds=FAMILIES[kind],
        free=free,
        strays=float(np.sqrt(best / free / own)),
    )


def _inflation(residuals: Floats) -> float:
    """By how much readings that stray together tell less. Source: variance of the mean of a first-order
    autoregressive row, (1 + ρ)/(1 − ρ)."""
    if len(residuals) < _FEW:
        return 1.0
    total = float(residuals @ residuals)
    rho = float(residuals[1:] @ residuals[:-1]) / total if total > 0 else 0.0
    if rho < 2 / np.sqrt(len(residuals)):
        return 1.0
    rho = min(rho, 0.95)
    return (1 + rho) / (1 - rho)


@record
class _Fit:
    """One fit; `among` is over how many settling times its part of the weight is spread."""

    start: float
    slope: float
    settles: float
    settle_s: float
    among: int
    spread: float
    covariance: Floats
    residuals: Floats


def _straight(data: Binned, settle: float, among: int) -> _Fit:
    """The best straight line, with what settles beside it."""
    root = np.sqrt(data.count)
    span = max(float(data.t[-1]), 1e-9)
    columns = [np.ones_like(data.t), data.t / span]
    if settle:
        columns.append(np.exp(-data.t / settle))
    design = np.stack(columns, axis=1) * root[:, None]
    x = np.linalg.lstsq(design, data.p * root, rcond=None)[0]
    residuals = data.p * root - design @ x
    return _Fit(
        start=float(x[0]),
        slope=float(x[1]) / span,
        settles=float(x[2]) if settle else 0.0,
        settle_s=settle,
        among=among if settle else 1,
        spread=float(residuals @ residuals),
        covariance=_covariance(design, span),
        residuals=residuals,
    )


def _covariance(slopes: Floats, span: float) -> Floats:
    """Covariance of pressure and slope per noise squared, from how the model changes with both; the slope is
    fitted over the whole span."""
    unit = np.array([1.0, 1.0 / span])
    return np.asarray(np.linalg.pinv(slopes.T @ slopes)[:2, :2] * np.outer(unit, unit), dtype=np.float64)


def _bent(data: Binned, curve: Curve, air: float, line: _Fit, settle_s: Sequence[float]) -> Iterator[_Fit]:
    """The best courses of one kind of leak, without and with settling in any time between the first and the
    last of `settle_s`."""
    root = np.sqrt(data.count)
    size = max(abs(float(data.p[0]) - air), float(np.ptp(data.p)), 1e-6)
    span = max(float(data.t[-1]), 1e-9)
    low, high = np.log(settle_s[0]), np.log(settle_s[-1])

    def time_of(x: Floats) -> float:
        return float(np.exp((low + high) / 2 + (high - low) / 2 * np.tanh(x[3])))

    def off(x: Floats) -> Floats:
        model = curve(data.t, x[0] * size, x[1] * size / span, air)
        if len(x) == 4:
            model = model + x[2] * size * np.exp(-data.t / time_of(x))
        return np.asarray((data.p - model) * root / size)

    first = float(data.p[0])
    # a gross leak is over before a straight line over the run says anything of how it began
    early = [(float(data.p[k]) - first) / float(data.t[k]) for k in (1, max(2, len(data.t) // 10))]
    leaks = (
        [line.start / size, line.slope * span / size],
        *([first / size, slope * span / size] for slope in early),
    )
    for begins in (leaks, [[*leak, 0.0, 0.5 * way] for leak, way in product(leaks, (-1, 1))]):
        fits = [least_squares(off, begin, method="lm", max_nfev=80) for begin in begins]
        best = min(fits, key=lambda fit: float(fit.cost))
        settles = len(best.x) == 4
        yield _Fit(
            start=float(best.x[0]) * size,
            slope=float(best.x[1]) * size / span,
            settles=float(best.x[2]) * size if settles else 0.0,
            settle_s=time_of(best.x) if settles else 0.0,
            among=1,
            spread=2 * float(best.cost) * size**2,
            covariance=_covariance(best.jac, span),
            residuals=best.fun,
        )
