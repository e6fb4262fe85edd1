"""What a person has taken on, and the order in which findings are told."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from bendrel.core.codes import STAGE_OF
from bendrel.core.findings import SEVERITY_ORDER, Finding
from bendrel.core.line.document import Line, is_reason


def worst_first(line: Line, findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """Worst first; what a person has taken on comes last, with their reason. A safety finding is not
    taken on by a text that gives none."""
    reasons = {(taken.code, taken.at): taken.reason for taken in line.set_aside}
    places = {span.id: k for k, span in enumerate(line.spans)}
    told = []
    for finding in findings:
        reason = reasons.get((finding.code, finding.where.spot), "")
        counts = not finding.safety or is_reason(reason)
        told.append(replace(finding, set_aside=reason if counts else "", stage=STAGE_OF[finding.code]))
    return tuple(
        sorted(
            told,
            key=lambda f: (
                f.set_aside != "",
                SEVERITY_ORDER[f.severity],
                places.get(f.where.span, 0),
                f.where.from_mm or 0.0,
                f.code,
            ),
        )
    )
