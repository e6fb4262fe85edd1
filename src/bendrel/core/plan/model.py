"""What a plan holds."""

from __future__ import annotations

from bendrel.core.bend.tube.part import Part
from bendrel.core.findings import Finding
from bendrel.core.geometry.clips import Clips
from bendrel.core.hose.laid import LaidHose
from bendrel.core.joints.apart import ComesApart
from bendrel.core.line.document import SpanState
from bendrel.core.line.measured import Measured
from bendrel.core.line.removed import Removed
from bendrel.core.line.resolve import Problem
from bendrel.core.mend.looked import Looked
from bendrel.core.plan.in_space import InSpace
from bendrel.core.record import record
from bendrel.core.work.chosen import Chosen


@record
class PlannedPiece:
    """One tube of the line: its part, or the problems that keep it from being one. `so_far` is then the
    part as far as it has been read, with an open end B: for looking at, not for making."""

    span: str
    state: SpanState
    part: Part | None
    so_far: Part | None
    measured: Measured
    clips: Clips | None


@record
class Plan:
    """The plan of a line as typed: every tube, and what follows for the whole. `main` is the tube that is
    worked on unless another one is asked for; blank for a line without one. `in_space` is the whole line,
    None where one tube is all of it, `hoses` how those with known ends lie. `chosen` is None while a tube
    cannot be planned."""

    rules_version: str
    main: str
    pieces: tuple[PlannedPiece, ...]
    in_space: InSpace | None
    hoses: tuple[LaidHose, ...]
    problems: tuple[Problem, ...]
    lengths_mm: dict[str, float]
    looked: Looked
    removed: Removed
    apart: tuple[ComesApart, ...]
    chosen: Chosen | None
    findings: tuple[Finding, ...]

    def piece(self, span: str = "") -> PlannedPiece | None:
        """One tube; the main one unless another is asked for."""
        return next((piece for piece in self.pieces if piece.span == (span or self.main)), None)

    def clips_mm(self, span: str) -> tuple[float, ...]:
        """Where one span is held, in mm from its end A; what is noted of no span is of the main tube."""
        return tuple(one.at_mm for one in self.looked.fixtures if (one.span or self.main) == span)

    @property
    def part(self) -> Part | None:
        """The main tube's part."""
        found = self.piece()
        return found.part if found else None
