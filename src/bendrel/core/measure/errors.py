"""How well a tape and a gauge can be read."""

from __future__ import annotations

from math import sqrt

from bendrel.core.measure.slots import Slot
from bendrel.core.record import record


@record
class ReadingErrors:
    """The most that one reading is off: a length in mm, an angle or plane in degrees, each length that says
    where end B stands; `gross_mm` and `gross_deg` how far people misread a length and a bend's angle at their
    worst, `radius_share` what the radius of an old bend is off, in one standard deviation; `laid_mm` and
    `laid_deg` the most that is off where an old part is laid on its sheet; `least_slip_mm` and
    `least_slip_deg` the least slip that is looked for; `eye_share` one standard deviation of a length that is
    told by eye, as a share of it; on a tube that rises from its sheet by more than `steep_deg` nothing is
    read."""

    length_mm: float
    angle_deg: float
    gross_mm: float
    gross_deg: float
    place_mm: float
    radius_share: float
    laid_mm: float
    laid_deg: float
    least_slip_mm: float
    least_slip_deg: float
    eye_share: float
    steep_deg: float

    def sigma(self, slot: Slot) -> float:
        """Standard deviation of one reading, in mm or degrees."""
        return (self.length_mm if slot.kind == "length" else self.angle_deg) / sqrt(3)

    @property
    def laid_sd_mm(self) -> float:
        """Standard deviation of a length read beside the sheet."""
        return self.laid_mm / sqrt(3)

    @property
    def laid_sd_deg(self) -> float:
        """Standard deviation of a lean read there."""
        return self.laid_deg / sqrt(3)
