"""Where things stand in the document: JSON pointers that name what has an id by its id.

The only place where such a pointer is put together.
"""

from __future__ import annotations

from bendrel.core.findings import EndName

Step = str | int
LAST = "/last"
"""The last leg, within readings."""


def at(*steps: Step) -> str:
    """A pointer of these steps."""
    return "".join(f"/{step}" for step in steps)


def span_path(span: str, *steps: Step) -> str:
    """Something of a span."""
    return at("spans", span, *steps)


def end_path(span: str, end: EndName, *steps: Step) -> str:
    """Something of one end of a rigid span."""
    return span_path(span, "end_a" if end == "A" else "end_b", *steps)


def joint_path(before: str, *steps: Step) -> str:
    """Something of the joint behind a span."""
    return at("joints", before, *steps)


def port_path(end: EndName, *steps: Step) -> str:
    """Something of a port of the line."""
    return at("port_a" if end == "A" else "port_b", *steps)


def row_path(row: str, *steps: Step) -> str:
    """Something of a row, within readings."""
    return at("rows", row, *steps)


def readings_path(span: str, within: str = "") -> str:
    """A pointer into the readings of a rigid span, by one within them."""
    return span_path(span, "readings") + within
