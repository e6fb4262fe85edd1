"""What an answer says of the tube of a line that has one."""

from __future__ import annotations

from typing import Any


def main_piece(plan: dict[str, Any]) -> dict[str, Any]:
    """The main tube of a plan."""
    return next(one for one in plan["pieces"] if one["span"] == plan["main"])


def tube(document: dict[str, Any]) -> dict[str, Any]:
    """The tube of a document."""
    return next(span for span in document["spans"] if span["kind"] == "rigid")
