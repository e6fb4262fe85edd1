"""What a verdict of the catalogue says against a choice, as one finding."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from bendrel.core.codes import Code
from bendrel.core.findings import Finding, Fix, Place, Severity
from bendrel.core.judge.case import Whole
from bendrel.core.parts.verdict import Verdict


def against(verdict: Verdict | None) -> Severity | None:
    """How bad it is; None where nothing stands against it."""
    if verdict is None or verdict.verdict in ("right", "acceptable"):
        return None
    return "stop" if verdict.verdict == "refused" else "caution"


def said_against(
    case: Whole,
    verdict: Verdict | None,
    *,
    refused: Code,
    care: Code,
    where: Place,
    what: str,
    lead: str = "",
    advice: str = "",
    fix: Callable[[], Fix | None] | None = None,
    safety: bool = False,
) -> Iterator[Finding]:
    """The finding on `what` in this service where its verdict stands against it: `refused` is the code of a
    stop, `care` of a caution. `fix` is asked for only where it is refused. What is refused, what stands
    in a service that can hurt somebody and what is said to be of `safety` takes a reason to set aside."""
    severity = against(verdict)
    if verdict is None or severity is None:
        return
    stops = severity == "stop"
    word = "no" if stops else "care with"
    yield Finding(
        severity=severity,
        code=refused if stops else care,
        where=where,
        title=f"{lead}{word if lead else word.capitalize()} {what} on {case.service.a_line}",
        message=verdict.reason,
        source=verdict.source,
        advice=advice,
        fix=fix() if fix is not None and stops else None,
        safety=safety or stops or case.service.safety_critical,
    )
