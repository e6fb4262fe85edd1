"""How getting the old ends apart ended, and what that makes of them."""

from __future__ import annotations

from bendrel.core.findings import EndName
from bendrel.core.line.condition import EndState
from bendrel.core.line.document import Line
from bendrel.core.line.removal import TakenApart
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.removal import RemovalStep


def taken_apart(line: Line, end: EndName) -> TakenApart:
    """What was noted of one end; blank where nobody noted anything."""
    return next((one for one in line.removal.apart if one.end == end), TakenApart(end=end))


def end_state(line: Line, kit: Kit, end: EndName) -> EndState:
    """What one old end is: as it ended where it was worked on, else as it was thought when it was looked at.
    That it sits in an expensive part stays true of one that did not come."""
    thought = line.condition.end_a if end == "A" else line.condition.end_b
    ended = taken_apart(line, end).ended
    known = next((one.is_ for one in kit.apart.ended if one.id == ended), None)
    if known is None or (known == "seized" and thought == "seized in an expensive part"):
        return thought
    return known


def removal_steps(line: Line, kit: Kit) -> tuple[RemovalStep, ...]:
    """Everything before the first joint is opened: clean, as the service asks, and what shuts a hose."""
    rule = kit.removal.get(line.service)
    own = rule.steps if rule is not None else ()
    return (kit.apart.clean, *own, *(kit.apart.shut if line.removal.hose_shut else ()))
