"""What a plan holds."""

from __future__ import annotations

from bendrel.core.chain.chosen import Chosen
from bendrel.core.findings import Finding
from bendrel.core.line.looked import Looked
from bendrel.core.line.measured import Measured
from bendrel.core.line.removed import Removed
from bendrel.core.line.resolve import Problem
from bendrel.core.record import record
from bendrel.core.rigid.part import Part
from bendrel.core.route.clips import Clips


@record
class Plan:
    """The plan of a line as typed: a part, or the problems that keep it from being one. `so_far` is then the
    part as far as it has been read, with an open end B: for looking at, not for making."""

    rules_version: str
    part: Part | None
    so_far: Part | None
    problems: tuple[Problem, ...]
    lengths_mm: dict[str, float]
    looked: Looked
    measured: Measured
    removed: Removed
    chosen: Chosen | None
    clips: Clips | None
    findings: tuple[Finding, ...]
