"""The words of a finding: its row in the catalogue, with places for what is found."""

from __future__ import annotations

from typing import Literal

from bendrel.core.codes import Code
from bendrel.core.findings import Severity
from bendrel.core.parts.rule_names import AdviceName, LimitName
from bendrel.core.record import record


@record
class FindingRow:
    """What is said, how bad it is and why. `{name}` in title, message and advice is filled with a figure
    of the rule, `{rule}` with the text of the advice that `rule` names; a row without a message says that
    text alone. Its source is that of `limit`, else of `rule`. `critical` is how bad it is in a service that
    can hurt somebody. `safety`: it takes a reason to set it aside, there (`service`) or everywhere. What is
    left out is given by the rule. `code` is blank where the row's own name is its code."""

    id: str
    code: Code | Literal[""] = ""
    severity: Severity | Literal[""] = ""
    critical: Severity | Literal[""] = ""
    safety: Literal["", "service", "always"] = ""
    rule: AdviceName | Literal[""] = ""
    limit: LimitName | Literal[""] = ""
    title: str = ""
    message: str = ""
    advice: str = ""
