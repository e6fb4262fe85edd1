"""The radius that a tool leaves, bend by bend."""

from __future__ import annotations

from math import copysign, degrees, radians

from bendrel.core.record import record

MOST_SHARE = 0.5
"""The constant part is told from test pieces of 20° and more: at smaller angles it is taken to add no more
than this share of the radius."""


@record
class ToolRadius:
    """Centreline radius after spring-back. A bend keeps the tube that was wound on the die: with a part of
    spring-back that is the same at every angle a small bend opens more, for its size, than a large one.

    `mm` is the radius with the share of spring-back alone, above nought; `unwinds_mm_deg` the radius of the
    die times the constant part of spring-back in degrees, as the angle of a bend takes it: R = mm + this/θ.
    Source: R = R_die·dial/θ with dial = (1 + a)·θ + b.
    """

    mm: float
    unwinds_mm_deg: float = 0.0

    def at(self, angle_deg: float) -> float:
        """Radius in mm of a bend of so many degrees, 0 to 360. Raises nothing.

        A die of 38 mm and 1.2° of constant spring-back, at a right angle:

        >>> round(ToolRadius(mm=38.5, unwinds_mm_deg=38 * 1.2).at(90), 3)
        39.007
        """
        most = MOST_SHARE * self.mm
        if abs(self.unwinds_mm_deg) >= most * angle_deg:
            return self.mm + (copysign(most, self.unwinds_mm_deg) if self.unwinds_mm_deg else 0.0)
        return self.mm + self.unwinds_mm_deg / angle_deg

    def of_arc(self, arc_mm: float) -> float:
        """Radius in mm of the bend that takes so much tube, above nought. Raises nothing.

        >>> tool = ToolRadius(mm=38.5, unwinds_mm_deg=38 * 1.2)
        >>> round(tool.of_arc(radians(90) * tool.at(90)) - tool.at(90), 6)
        0.0
        """
        wound = arc_mm - radians(self.unwinds_mm_deg)
        angle = degrees(wound / self.mm)
        least = abs(self.unwinds_mm_deg) / (MOST_SHARE * self.mm)
        return self.at(max(angle, least))


UsualRadius = float | ToolRadius | None
"""A radius that is the same at every bend, that of a tool, or None for a tool that takes any."""


def usual_at(radius: UsualRadius, angle_deg: float) -> float | None:
    """The usual radius at a bend of so many degrees. Raises nothing."""
    return radius.at(angle_deg) if isinstance(radius, ToolRadius) else radius


def usual_of_arc(radius: UsualRadius, arc_mm: float) -> float | None:
    """The usual radius of a bend that takes so much tube. Raises nothing."""
    return radius.of_arc(arc_mm) if isinstance(radius, ToolRadius) else radius
