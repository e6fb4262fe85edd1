"""What a bender really does, from test pieces: radius, zero offset and spring-back, with their doubt."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from math import radians, sqrt
from typing import TYPE_CHECKING, Annotated, Any

from annotated_types import Ge, Gt

from bendrel.core.measure.legs import setback_mm, usual_reference
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.calibration import Calibration, Odd, ReadingName
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

U_DEG = 175.0
"""A piece bent this far is a U, and its width can be read."""


@record
class Trial:
    """One bent piece of straight tube. Lengths in mm, angles in degrees.

    `mark_mm` is where the tool's zero was set, from the clamped end; `dial_deg` what the dial showed.
    `leg_a_mm` and `leg_b_mm` run from the clamped and the free end to the outside corner (over the back
    from 150° on); `angle_deg` is the bend as measured; `width_mm` the outside width of a U. What was
    not read is None.
    """

    cut_mm: Annotated[float, Gt(0)]
    mark_mm: Annotated[float, Ge(0)]
    dial_deg: Annotated[float, Gt(0)]
    leg_a_mm: float | None
    leg_b_mm: float | None
    angle_deg: float | None
    width_mm: float | None = None


@record
class CalibrationPrior:
    """What is thought of a tool before its first piece: the middle and, in `spread`, one standard
    deviation of radius (mm), zero offset (mm), spring-back share and spring-back angle (degrees);
    `reading_mm` and `reading_deg` are the most that one reading is off, `made_mm` and `made_deg` one
    standard deviation of how exactly a piece was set to its mark and pulled to its dial, `odd_sd` the
    standard deviations from which a reading is called odd."""

    radius_mm: float
    springback: float
    spread: tuple[float, float, float, float]
    reading_mm: float
    reading_deg: float
    made_mm: float
    made_deg: float
    odd_sd: float


Figures = tuple[float, float, float, float]


def finished_angle(figures: Sequence[float], dial_deg: float) -> float:
    """θ = (dial − b)/(1 + a), in degrees."""
    _, _, a, b = figures
    return (dial_deg - b) / (1 + a)


def predict(
    figures: Sequence[float], piece: Trial, od_mm: float, told_deg: float | None = None
) -> dict[ReadingName, float]:
    """What each reading of `piece` would be with a tool of these figures (radius, zero, a, b). `told_deg`
    is the dial that it was told (None: the piece's own): by that a person reads over the back or not.

    The arc starts at mark + z on the clamped side with the finished radius R·dial/θ. Source: geometry
    of a rotary-draw bender; readings as in `setback_mm`.
    """
    radius, zero, _, _ = figures
    angle = finished_angle(figures, piece.dial_deg)
    finished = radius * piece.dial_deg / angle
    start = piece.mark_mm + zero
    reach = setback_mm(
        usual_reference(piece.dial_deg if told_deg is None else told_deg), angle, finished, od_mm
    )
    return {
        "leg A": start + reach,
        "leg B": piece.cut_mm - start - finished * radians(angle) + reach,
        "angle": angle,
        "width": 2 * finished + od_mm,
    }


def calibrate(pieces: Sequence[Trial], od_mm: float, prior: CalibrationPrior) -> Calibration:
    """Radius, zero offset and spring-back from the readings and what was thought before.

    Weighted least squares with the prior as readings of its own; one piece is enough to start, three
    tell well. Each reading's error is taken as even within its limit (limit/√3); how far a piece was set
    beside its mark and pulled beside its dial is solved for with it, so that the readings of one piece
    share their doubt. Source: derived (maximum of the posterior, linearised covariance); odd readings by
    their studentised residual.
    """
    import numpy as np
    from scipy.optimize import least_squares

    made = np.array([prior.made_mm, prior.made_deg])
    start = np.array([prior.radius_mm, 0.0, prior.springback, 0.0, *np.zeros(2 * len(pieces))])
    middle, spread = start.copy(), np.array([*prior.spread, *np.tile(made, len(pieces))])
    rows = _rows(pieces, prior)

    def residuals(unknown: Array) -> Array:
        figures = [float(f) for f in unknown[:4]]
        told = [
            predict(
                figures,
                _as_made(piece, *(float(e) for e in unknown[4 + 2 * k : 6 + 2 * k])),
                od_mm,
                piece.dial_deg,
            )
            for k, piece in enumerate(pieces)
        ]
        read = [(told[k][name] - value) / sigma for k, name, value, sigma in rows]
        return np.concatenate([np.array(read), (unknown - middle) / spread])

    # a wrong reading must not drive the radius below half the tube
    low = np.array([0.55 * od_mm, -np.inf, -0.05, -np.inf, *np.full(2 * len(pieces), -np.inf)])
    found = least_squares(residuals, start, x_scale=spread, bounds=(low, np.inf))
    whole = np.linalg.inv(found.jac.T @ found.jac)
    covariance = whole[:4, :4]
    sds = np.sqrt(np.diag(covariance))
    radius, zero, a, b = (float(value) for value in found.x[:4])
    return Calibration(
        radius_mm=radius,
        zero_offset_mm=zero,
        springback=a,
        springback_deg=b,
        doubt=(2 * float(sds[0]), 2 * float(sds[1]), 2 * float(sds[2]), 2 * float(sds[3])),
        covariance=tuple(tuple(float(v) for v in row) for row in covariance),
        pieces=len(pieces),
        odd=_odd(found, whole, rows, prior.odd_sd),
    )


def _as_made(piece: Trial, beside_mm: float, beside_deg: float) -> Trial:
    """`piece` as the hand really set and pulled it."""
    return replace(piece, mark_mm=piece.mark_mm + beside_mm, dial_deg=piece.dial_deg + beside_deg)


def prediction_sd(
    calibration: Calibration, piece: Trial, od_mm: float
) -> dict[ReadingName, tuple[float, float]]:
    """(figure, one standard deviation) of every reading of a piece that is still to be made."""
    import numpy as np

    figures = figures_of(calibration)
    covariance = np.array(calibration.covariance)
    told = predict(figures, piece, od_mm)
    slopes = _slopes(figures, piece, od_mm)
    return {name: (told[name], sqrt(float(slopes[name] @ covariance @ slopes[name]))) for name in told}


def next_piece(
    bender: Bender, calibration: Calibration, tried: Sequence[Trial], prior: CalibrationPrior
) -> Trial:
    """The piece that would tell most now: of the angles that the tool makes, the one that leaves the
    least doubt of legs and angle at 45°, 90° and 135°. A U is among them where the tool makes one."""
    import numpy as np

    now = np.array(calibration.covariance)
    goals = [
        _slopes(figures_of(calibration), blank_piece(bender, angle), bender.od_mm) for angle in (45, 90, 135)
    ]

    def doubt_after(piece: Trial) -> float:
        slopes = _slopes(figures_of(calibration), piece, bender.od_mm)
        told = np.stack([slopes[name] for name in names_of(piece)])
        own = _hand_slopes(figures_of(calibration), piece, bender.od_mm)
        hand = np.stack([own[name] for name in names_of(piece)]) * [prior.made_mm, prior.made_deg]
        doubt = hand @ hand.T + np.diag([_sigma(name, prior) ** 2 for name in names_of(piece)])
        after = np.linalg.inv(np.linalg.inv(now) + told.T @ np.linalg.solve(doubt, told))
        return sum(float(g[n] @ after @ g[n]) for g in goals for n in ("leg A", "leg B", "angle"))

    dials = [d for d in (30.0, 60.0, 90.0, 120.0, 150.0) if d < bender.greatest_angle_deg]
    dials.append(180.0 if bender.greatest_angle_deg >= 180 else bender.greatest_angle_deg)
    fresh = [d for d in dials if d not in {piece.dial_deg for piece in tried}] or dials
    return min((blank_piece(bender, dial) for dial in fresh), key=doubt_after)


def blank_piece(bender: Bender, dial_deg: float) -> Trial:
    """A piece long enough for the tool to hold, the mark in its middle third, nothing read yet."""
    radius = bender.radius_mm or 3 * bender.od_mm
    before = max(100.0, bender.least_before_first_mm + 60)
    cut = before + radius * radians(dial_deg) + before
    return Trial(
        cut_mm=float(round(cut, -1)),
        mark_mm=float(round(before, -1)),
        dial_deg=dial_deg,
        leg_a_mm=None,
        leg_b_mm=None,
        angle_deg=None,
    )


def names_of(piece: Trial) -> tuple[ReadingName, ...]:
    """What can be read off a piece: the width only of a U."""
    names: tuple[ReadingName, ...] = ("leg A", "leg B", "angle")
    return (*names, "width") if piece.dial_deg >= U_DEG else names


def figures_of(calibration: Calibration) -> Figures:
    """Radius, zero, a and b as the sums take them."""
    c = calibration
    return c.radius_mm, c.zero_offset_mm, c.springback, c.springback_deg


Row = tuple[int, ReadingName, float, float]


def _rows(pieces: Sequence[Trial], prior: CalibrationPrior) -> list[Row]:
    rows: list[Row] = []
    for k, piece in enumerate(pieces):
        values: tuple[tuple[ReadingName, float | None], ...] = (
            ("leg A", piece.leg_a_mm),
            ("leg B", piece.leg_b_mm),
            ("angle", piece.angle_deg),
            ("width", piece.width_mm),
        )
        rows += [(k, n, v, _sigma(n, prior)) for n, v in values if v is not None and n in names_of(piece)]
    return rows


def _sigma(name: ReadingName, prior: CalibrationPrior) -> float:
    return (prior.reading_deg if name == "angle" else prior.reading_mm) / sqrt(3)


def _slopes(figures: Figures, piece: Trial, od_mm: float) -> dict[ReadingName, Array]:
    import numpy as np

    steps = (1e-3, 1e-3, 1e-5, 1e-3)
    found: dict[ReadingName, list[float]] = {name: [] for name in ("leg A", "leg B", "angle", "width")}
    for k, step in enumerate(steps):
        more, less = list(figures), list(figures)
        more[k] += step
        less[k] -= step
        high, low = predict(more, piece, od_mm), predict(less, piece, od_mm)
        for name in found:
            found[name].append((high[name] - low[name]) / (2 * step))
    return {name: np.array(values) for name, values in found.items()}


def _hand_slopes(figures: Figures, piece: Trial, od_mm: float) -> dict[ReadingName, Array]:
    """What a millimetre beside the mark and a degree beside the dial change of every reading."""
    import numpy as np

    step = 1e-3
    at = predict(figures, piece, od_mm)
    more = [
        predict(figures, _as_made(piece, *by), od_mm, piece.dial_deg) for by in ((step, 0.0), (0.0, step))
    ]
    return {name: np.array([(told[name] - at[name]) / step for told in more]) for name in at}


def _odd(found: Any, covariance: Array, rows: list[Row], odd_sd: float) -> tuple[Odd, ...]:
    odd = []
    for i, (k, name, _, sigma) in enumerate(rows):
        leverage = float(found.jac[i] @ covariance @ found.jac[i])
        left = max(1e-9, 1 - leverage)
        student = float(found.fun[i]) / sqrt(left)
        if abs(student) > odd_sd:
            # how far it is from what all the others say
            odd.append((abs(student), Odd(piece=k, reading=name, off=-float(found.fun[i]) / left * sigma)))
    return tuple(item for _, item in sorted(odd, key=lambda pair: -pair[0]))
