"""The reading errors that the tests take for granted."""

from dataclasses import replace

from bendrel.core.measure.errors import ReadingErrors

USUAL = ReadingErrors(
    length_mm=0.5,
    angle_deg=1.0,
    gross_mm=50.0,
    gross_deg=45.0,
    place_mm=1.0,
    radius_share=0.1,
    laid_mm=0.5,
    laid_deg=1.0,
    least_slip_mm=10.0,
    least_slip_deg=5.0,
    eye_share=0.3,
    steep_deg=60.0,
)


def reading_errors(**changed: float) -> ReadingErrors:
    """As usual but for what is said."""
    return replace(USUAL, **changed)
