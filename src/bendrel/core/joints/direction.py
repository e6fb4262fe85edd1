"""Parts with a direction: which way the line flows, and which part stands the wrong way round."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import EndName
from bendrel.core.line.document import Line, PartPiece

Flows = Literal["A to B", "B to A", "both ways", "not known", "contradicts"]

DIRECTED = {"check valve", "reservoir", "filter", "restrictor"}
ONE_WAY = {"check valve", "reservoir", "filter"}
"""Parts that work in one direction only; a restrictor is marked, and works both ways."""


def flow_of(line: Line, *, vacuum: bool) -> Flows:
    """The way the fluid goes, as said, or by the roles of the ports.

    Fluid leaves a source or feed and goes into a return. In a vacuum line the air goes towards the
    source. Source: common practice.
    """
    if line.carries.flows != "by the ports":
        return line.carries.flows
    out: dict[EndName, Flows] = {"A": "A to B", "B": "B to A"}
    into: dict[EndName, Flows] = {"A": "B to A", "B": "A to B"}
    said: set[Flows] = set()
    for end in out:
        role = line.end(end).role
        if role == "source":
            said.add(into[end] if vacuum else out[end])
        elif role == "feed":
            said.add(out[end])
        elif role == "return":
            said.add(into[end])
    if not said:
        return "not known"
    return said.pop() if len(said) == 1 else "contradicts"


def backwards(part: PartPiece, flows: Flows) -> bool:
    """The part's arrow points against the flow."""
    if part.part not in DIRECTED or part.points == "not marked":
        return False
    return (flows == "A to B" and part.points == "A") or (flows == "B to A" and part.points == "B")
