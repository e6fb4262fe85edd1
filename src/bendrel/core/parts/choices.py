"""The catalogue rows that a line's choices mean."""

from __future__ import annotations

from bendrel.core.parts.bender import Bender
from bendrel.core.parts.calibration import Calibration
from bendrel.core.parts.tube import Material, Tube
from bendrel.core.record import record


@record
class Choices:
    """Tube, its material, and the bender as it really works, with what its test pieces told."""

    tube: Tube
    material: Material
    bender: Bender
    calibration: Calibration | None
