"""Which tube of a line is meant."""

from __future__ import annotations

from bendrel.core.line.document import Line
from bendrel.core.line.run import Run, main_run, run_of
from bendrel.services.errors import Refused


def tube_of(line: Line, span: str = "") -> Run:
    """The tube with this id; the one that is worked on where none is named. Raises Refused."""
    run = run_of(line, span) if span else main_run(line)
    if run is None:
        raise Refused("This line has no such tube." if span else "This line has no tube of its own.")
    return run
