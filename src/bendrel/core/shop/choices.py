"""The catalogue rows that a line's choices mean."""

from __future__ import annotations

from bendrel.core.bending.bender import Bender
from bendrel.core.bending.calibration import Calibration
from bendrel.core.record import record
from bendrel.core.tube.material import Material, Tube


@record
class Choices:
    """Tube, its material, and the bender as it really works, with what its test pieces told."""

    tube: Tube
    material: Material
    bender: Bender
    calibration: Calibration | None
