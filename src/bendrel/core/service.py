"""What a line carries, and what is refused there."""

from __future__ import annotations

from bendrel.core.findings import Source
from bendrel.core.record import record


@record
class Refusal:
    """A material or an end type that must not be used in a service, and why."""

    id: str
    reason: str
    source: Source


@record
class Service:
    """A service with its refusals, the cautions that always go with it, and how it is proved."""

    id: str
    name: str
    safety_critical: bool
    refused_materials: tuple[Refusal, ...]
    refused_fittings: tuple[Refusal, ...]
    cautions: tuple[str, ...]
    tests: tuple[str, ...]
    source: Source
