"""What a verdict of the catalogue says against a choice, as one finding."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Literal

from bendrel.core.findings import Finding, Fix, Severity, Where
from bendrel.core.joints.verdict import Verdict
from bendrel.core.rules.case import Case


def against(verdict: Verdict | None) -> Severity | None:
    """How bad it is; None where nothing stands against it."""
    if verdict is None or verdict.verdict in ("right", "acceptable"):
        return None
    return "stop" if verdict.verdict == "refused" else "caution"


def said_against(
    case: Case,
    verdict: Verdict | None,
    *,
    code: Literal["material", "end", "hose", "joint", "clamp"],
    where: Where,
    what: str,
    lead: str = "",
    advice: str = "",
    fix: Callable[[], Fix | None] | None = None,
    safety: bool = False,
) -> Iterator[Finding]:
    """The finding on `what` in this service where its verdict stands against it: `<code>_refused` is a
    stop, `<code>_care` a caution. `fix` is asked for only where it is refused. What is refused, what stands
    in a service that can hurt somebody and what is said to be of `safety` takes a reason to set aside."""
    severity = against(verdict)
    if verdict is None or severity is None:
        return
    refused = severity == "stop"
    word = "no" if refused else "care with"
    yield Finding(
        severity=severity,
        code=f"{code}_refused" if refused else f"{code}_care",
        where=where,
        title=f"{lead}{word if lead else word.capitalize()} {what} on a {case.service.name} line",
        message=verdict.reason,
        source=verdict.source,
        advice=advice,
        fix=fix() if fix is not None and refused else None,
        safety=safety or refused or case.service.safety_critical,
    )
