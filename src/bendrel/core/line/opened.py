"""Which joints of a line are opened for the work, and what of it is old and stays."""

from __future__ import annotations

from bendrel.core.findings import EndName
from bendrel.core.line.document import ComponentSpan, Line, Span


def stays(span: Span) -> bool:
    """It is old and stays on the machine: never cut, bought, made or handed over as new."""
    return span.age == "old" if isinstance(span, ComponentSpan) else span.state == "stays"


def port_opened(line: Line, end: EndName) -> bool:
    """The port at end A or B is opened: as said, else not where it was left shut; else where what goes to it
    is new, or it was undone when the old line came off."""
    port, span = line.port(end), line.spans[0 if end == "A" else -1]
    if port.opened:
        return port.opened == "opened"
    if any(one.end == end and one.ended == "left shut" for one in line.removal.apart):
        return False
    return not stays(span) or f"plug-{end}" in line.removal.done


def joint_opened(line: Line, at: int) -> bool:
    """The joint behind the span at place `at` is opened: as said, else where one of the two is new."""
    joint = line.joints[at]
    if joint.opened:
        return joint.opened == "opened"
    return not (stays(line.spans[at]) and stays(line.spans[at + 1]))


def end_opened(line: Line, at: int, end: EndName) -> bool:
    """What one end of the span at place `at` meets is opened."""
    if end == "A":
        return joint_opened(line, at - 1) if at > 0 else port_opened(line, "A")
    return joint_opened(line, at) if at < len(line.joints) else port_opened(line, "B")
