"""What is not known of a tool: before its first test piece, and as its pieces told it."""

from __future__ import annotations

from bendrel.core.bend.told.unknowns import NO_DOUBT, ToolDoubt
from bendrel.core.bend.tool.calibration import CalibrationPrior
from bendrel.core.bend.tool.springback import springback_prior
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.calibration import Calibration
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.rule_names import LimitName
from bendrel.core.parts.tube import Tube


def prior_of(kit: Kit, bender: Bender, material: str) -> CalibrationPrior:
    """What is thought of a tool before its first piece."""
    tube = next(
        (t for t in kit.tubes.values() if t.material == material and t.size == bender.size),
        _near(kit, bender),
    )
    radius = bender.radius_mm or 3 * bender.od_mm
    limits = kit.limits
    return CalibrationPrior(
        radius_mm=radius,
        springback=springback_prior(kit.materials[material], tube, radius),
        spread=(
            limits["trial_radius_mm"].value,
            limits["trial_zero_mm"].value,
            limits["trial_springback"].value,
            limits["trial_springback_deg"].value,
        ),
        reading_mm=limits["reading_mm"].value,
        reading_deg=limits["trial_reading_deg"].value,
        made_mm=limits["trial_made_mm"].value,
        made_deg=limits["trial_made_deg"].value,
        odd_sd=limits["odd_sd"].value,
    )


def _near(kit: Kit, bender: Bender) -> Tube:
    return min(kit.tubes.values(), key=lambda tube: abs(tube.od_mm - bender.od_mm))


def tool_doubt(kit: Kit, bender: Bender, calibration: Calibration | None) -> ToolDoubt:
    """The covariance of a tool's figures: of its test pieces, or without any the whole of what is not known.
    A tool that takes any radius has none of its own."""
    if bender.radius_mm is None:
        return NO_DOUBT
    if calibration is not None:
        rows = calibration.covariance
        return ToolDoubt(covariance=tuple((row[0], row[1], row[2], row[3]) for row in rows))
    limits = kit.limits
    names: tuple[LimitName, ...] = (
        "trial_radius_mm", "trial_zero_mm", "trial_springback", "trial_springback_deg",
    )  # fmt: skip
    r, z, a, b = (limits[name].value ** 2 for name in names)
    return ToolDoubt(
        covariance=((r, 0.0, 0.0, 0.0), (0.0, z, 0.0, 0.0), (0.0, 0.0, a, 0.0), (0.0, 0.0, 0.0, b))
    )
