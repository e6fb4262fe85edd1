"""The words of a finding on lines that are joined: its row in the catalogue."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import Severity
from bendrel.core.record import record

CircuitCode = Literal[
    "not_joined", "branch_joint", "open_branch", "dead_branch", "no_source", "swapped", "backwards",
    "to_suction", "two_fluids", "starved", "costs", "no_vacuum", "weak_vacuum", "unread",
]  # fmt: skip


@record
class CircuitRow:
    """What is said and how bad it is; `{name}` is filled with a figure of the rule. `solved`: it follows from
    the flow of the whole circuit. `code` is blank where the row's own name is its code."""

    id: str
    severity: Severity
    title: str
    message: str
    advice: str = ""
    solved: bool = False
    code: CircuitCode | Literal[""] = ""
