"""The bender as the plan needs it."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Gt, Le

from bendrel.core.findings import Source
from bendrel.core.geometry.tool_radius import ToolRadius
from bendrel.core.record import record

MarkStyle = Literal["start", "middle", "corner"]


@record
class Bender:
    """One bender set up for one tube size. Lengths in mm.

    `radius_mm` is the finished centreline radius; None is a tool that takes any radius asked.
    `unwinds_mm_deg` is what the constant part of spring-back adds to it, as `ToolRadius` tells; only test
    pieces tell that.
    `zero_offset_mm` > 0 means that the tool's zero lies from the tangent point towards the clamp.
    `plastic` says that it forms warm plastic tube and no metal.
    The three least straights are what the clamp and the die need to grip. `kind` is a tool kind's id.
    The last four measures are the tool's own where somebody took them, None for what is usual in its
    kind: its body behind the zero, that body's width, the swinging lever, the tube above the bench.
    """

    id: str
    name: str
    size: str
    od_mm: Annotated[float, Gt(0)]
    radius_mm: Annotated[float, Gt(0)] | None
    greatest_angle_deg: Annotated[float, Gt(0), Le(360)]
    least_before_first_mm: Annotated[float, Ge(0)]
    least_between_mm: Annotated[float, Ge(0)]
    least_after_last_mm: Annotated[float, Ge(0)]
    zero_offset_mm: float
    plastic: bool
    kind: str
    source: Source
    behind_mm: Annotated[float, Ge(0)] | None = None
    beside_mm: Annotated[float, Ge(0)] | None = None
    lever_mm: Annotated[float, Ge(0)] | None = None
    above_bench_mm: Annotated[float, Ge(0)] | None = None
    unwinds_mm_deg: float = 0.0

    @property
    def radius(self) -> ToolRadius | None:
        """The radius that it leaves at a bend; None where it takes any."""
        if self.radius_mm is None:
            return None
        return ToolRadius(mm=self.radius_mm, unwinds_mm_deg=self.unwinds_mm_deg)
