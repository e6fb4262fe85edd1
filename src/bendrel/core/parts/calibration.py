"""A bender as its test pieces tell it."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from bendrel.core.parts.bender import Bender
from bendrel.core.record import record

ReadingName = Literal["leg A", "leg B", "angle", "width"]


@record
class Odd:
    """A reading that does not agree with the rest: `off` is how far, in its own unit."""

    piece: int
    reading: ReadingName
    off: float


@record
class Calibration:
    """A tool as its pieces tell it. `radius_mm` is that of the die: the finished radius is R·dial/θ.
    Spring-back: dial = (1 + a)·θ + b. `doubt` holds two standard deviations of radius, zero, a and b;
    `covariance` the whole of it."""

    radius_mm: float
    zero_offset_mm: float
    springback: float
    springback_deg: float
    doubt: tuple[float, float, float, float]
    covariance: tuple[tuple[float, ...], ...]
    pieces: int
    odd: tuple[Odd, ...]

    @property
    def finished_radius_mm(self) -> float:
        """Centreline radius after spring-back, its constant part left out."""
        return self.radius_mm * (1 + self.springback)

    def dial_deg(self, angle_deg: float) -> float:
        """What the dial must show for a finished angle."""
        return (1 + self.springback) * angle_deg + self.springback_deg


def calibrated(bender: Bender, calibration: Calibration | None) -> Bender:
    """`bender` with the radius it leaves behind and the zero that its pieces told."""
    if calibration is None:
        return bender
    return replace(
        bender,
        radius_mm=calibration.finished_radius_mm,
        unwinds_mm_deg=calibration.radius_mm * calibration.springback_deg,
        zero_offset_mm=calibration.zero_offset_mm,
    )
