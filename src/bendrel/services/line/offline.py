"""The plan of a file, without a database: what `bendrel plan` answers."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from bendrel.catalogue.loader import GIVEN_RADII, load_kit
from bendrel.core.bend.bench.order_report import order_findings
from bendrel.core.findings import EndName
from bendrel.core.line.document import BendReadings, Line, RigidSpan
from bendrel.core.line.run import main_run, run_of, with_span
from bendrel.core.parts.bender import MarkStyle
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.exchange.documents.documents import read_line
from bendrel.exchange.errors import FileError
from bendrel.exchange.shapes.tables import read_shape
from bendrel.services.line.lines import with_readings

FILE_TUBE = "copper-nickel_3-16in_0.711"
"""What a points or bend file is planned as."""


def plan_file(
    data: bytes, *, held: EndName | None, marks: MarkStyle | None, radius_mm: float | None
) -> dict[str, Any]:
    """The plan of a line document, or of a points or bend CSV.

    A CSV is planned as 3/16 in copper-nickel on a bender of the given radii with unflared ends.
    Raises FileError.
    """
    line = line_of_file(data, radius_mm)
    run = main_run(line)
    if run is None:
        raise FileError("The line has no tube of its own; there is nothing to bend.")
    span = replace(run.span, held=held or run.span.held, marks=marks or run.span.marks)
    line = with_span(line, span)
    plan = plan_line(line, load_kit())
    if plan.part is None:
        problem = plan.problems[0]
        raise FileError(f"{problem.path}: {problem.message}")
    tube = run_of(line, span.id) or run
    part = plan.part
    return {
        "developed_mm": part.developed_mm,
        "cut_mm": part.cut_mm,
        "terms": [{"label": term.label, "mm": term.mm} for term in part.terms],
        "held_end": part.held_end,
        "moves": [
            {
                "bend": move.bend,
                "mark_mm": move.mark_mm,
                "measured_from": move.measured_from,
                "turn_deg": move.turn_deg,
                "angle_deg": move.angle_deg,
                "dial_deg": move.dial_deg,
            }
            for move in part.moves
        ],
        "findings": [
            {
                "severity": finding.severity,
                "code": finding.code,
                "where": str(finding.where),
                "message": finding.message,
                "source": f"{finding.source.kind}: {finding.source.text}",
            }
            for finding in (*plan.findings, *order_findings(tube, load_kit(), part))
        ],
        "rules_version": plan.rules_version,
    }


def line_of_file(data: bytes, radius_mm: float | None) -> Line:
    """The line of a document, or of a points or bend CSV. Raises FileError."""
    return read_line(data) if is_document(data) else _line_of_shape(data, radius_mm)


def is_document(data: bytes) -> bool:
    """A line document and no CSV."""
    return data.lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"{")


def _line_of_shape(data: bytes, radius_mm: float | None) -> Line:
    kit = load_kit()
    shape = read_shape(data, radius_mm)
    span = RigidSpan(
        id="s1", tube=FILE_TUBE, bender=GIVEN_RADII, readings=BendReadings(), spare=Length(text="0")
    )
    blank = Line(name="file", service="unspecified", unit="mm", spans=(span,))
    return with_readings(blank, span, shape, "bends", kit)
