"""What is replaced unless somebody decides otherwise."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import Source
from bendrel.core.record import record

ItemKind = Literal[
    "bolt", "nut", "screw", "clip", "hose clamp", "washer",
    "O-ring", "bracket", "shield", "connector", "part", "moved aside",
]  # fmt: skip


@record
class SingleUse:
    """Kinds of things that are replaced unless somebody decides otherwise, and why."""

    kinds: tuple[ItemKind, ...]
    source: Source
