"""What a person has taken on, and the order in which findings are told."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from bendrel.core.findings import SEVERITY_ORDER, Finding
from bendrel.core.line.document import Line, is_reason


def worst_first(line: Line, findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """Worst first; what a person has taken on comes last, with their reason. A safety finding is not
    taken on by a text that gives none."""
    reasons = {(taken.code, taken.where): taken.reason for taken in line.set_aside}
    told = []
    for finding in findings:
        reason = reasons.get((finding.code, str(finding.where)), "")
        counts = not finding.safety or is_reason(reason)
        told.append(replace(finding, set_aside=reason if counts else ""))
    return tuple(
        sorted(
            told,
            key=lambda f: (f.set_aside != "", SEVERITY_ORDER[f.severity], f.where.from_mm or 0.0, f.code),
        )
    )
