"""One rigid span where it stands in its line: its two ends with what each of them meets."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property

from bendrel.core.findings import EndName
from bendrel.core.line.document import (
    ComponentSpan,
    HoseSpan,
    Joint,
    Line,
    Port,
    RigidSpan,
    TubeEnd,
)
from bendrel.core.line.opened import end_opened
from bendrel.core.line.paths import end_path, port_path, span_path
from bendrel.core.record import record

Between = HoseSpan | ComponentSpan
ENDS: tuple[EndName, EndName] = ("A", "B")


@record
class RunEnd:
    """One end of a rigid span: how its tube is finished, and what it meets. `beyond` is what lies between
    it and the next rigid span or the port, from the tube outwards; `at_port` says that it ends in a port of
    the line, which is blank otherwise. `joint` is the one that closes this end, `opened` whether it is opened
    for this work."""

    end: EndName
    span: str
    tube: TubeEnd
    port: Port
    at_port: bool
    beyond: tuple[Between, ...]
    joint: Joint | None
    opened: bool

    @property
    def meets(self) -> Port:
        """The port that this end itself meets; a blank one where something lies between."""
        return self.port if self.at_port and not self.beyond else Port()

    def tube_at(self, *steps: str) -> str:
        """Pointer to something of this end of the tube."""
        return end_path(self.span, self.end, *steps)

    def port_at(self, *steps: str) -> str:
        """Pointer to something of the port."""
        return port_path(self.end, *steps)


@record
class Run:
    """One rigid span in its line; `index` counts all spans from port A."""

    line: Line
    span: RigidSpan
    index: int

    @cached_property
    def ends(self) -> dict[EndName, RunEnd]:
        """Both ends."""
        return {end: self._end(end) for end in ENDS}

    def end(self, name: EndName) -> RunEnd:
        """End A or end B."""
        return self.ends[name]

    def at(self, *steps: str) -> str:
        """Pointer to something of this span."""
        return span_path(self.span.id, *steps)

    def _end(self, end: EndName) -> RunEnd:
        spans, step = self.line.spans, -1 if end == "A" else 1
        beyond: list[Between] = []
        k = self.index + step
        while 0 <= k < len(spans):
            span = spans[k]
            if isinstance(span, RigidSpan):
                break
            beyond.append(span)
            k += step
        at_port = not 0 <= k < len(spans)
        joint = min(self.index, self.index + step)
        return RunEnd(
            end=end,
            span=self.span.id,
            tube=self.span.end(end),
            port=self.line.port(end) if at_port else Port(),
            at_port=at_port,
            beyond=tuple(beyond),
            joint=self.line.joints[joint] if 0 <= joint < len(self.line.joints) else None,
            opened=end_opened(self.line, self.index, end),
        )


def runs(line: Line) -> tuple[Run, ...]:
    """Every rigid span of a line, from port A on."""
    return tuple(
        Run(line=line, span=span, index=k) for k, span in enumerate(line.spans) if isinstance(span, RigidSpan)
    )


def run_of(line: Line, span_id: str) -> Run | None:
    """The rigid span with an id; None where there is none."""
    return next((run for run in runs(line) if run.span.id == span_id), None)


def main_run(line: Line) -> Run | None:
    """The rigid span that is worked on unless another one is asked for: the first that is to make, else the
    first."""
    found = runs(line)
    return next((run for run in found if run.span.state == "to make"), found[0] if found else None)


def with_span(line: Line, span: RigidSpan | HoseSpan | ComponentSpan) -> Line:
    """`line` with one of its spans as it is now."""
    return replace(line, spans=tuple(span if one.id == span.id else one for one in line.spans))
