"""Parts with a direction: which way the line flows, and which part stands the wrong way round."""

from __future__ import annotations

from typing import Literal, assert_never

from bendrel.core.findings import EndName
from bendrel.core.line.document import ComponentSpan, Line, Port, PortRole

Flows = Literal["A to B", "B to A", "both ways", "not known", "contradicts"]
Faces = Literal["A", "B", "not known"]


def flow_of(line: Line, *, vacuum: bool) -> Flows:
    """The way the fluid goes, as said, or by the roles of the ports, or by what stands there.

    Fluid leaves a source or feed and goes into a return. In a vacuum line the air goes towards the
    source. Source: common practice.
    """
    if line.carries.flows != "by the ports":
        return line.carries.flows
    out: dict[EndName, Flows] = {"A": "A to B", "B": "B to A"}
    into: dict[EndName, Flows] = {"A": "B to A", "B": "A to B"}
    said: set[Flows] = set()
    for end in out:
        port = line.port(end)
        role = _by_what_stands_there(port, vacuum=vacuum) if port.role == "not known" else port.role
        if role == "source":
            said.add(into[end] if vacuum else out[end])
        elif role == "feed":
            said.add(out[end])
        elif role == "return":
            said.add(into[end])
    if not said:
        return "not known"
    return said.pop() if len(said) == 1 else "contradicts"


def _by_what_stands_there(port: Port, *, vacuum: bool) -> PortRole:
    """A pump drives, an engine's manifold draws, a consumer takes; what moves both ways says nothing."""
    match port.unit.kind:
        case "pump":
            return "source"
        case "engine manifold":
            return "source" if vacuum else "not known"
        case "consumer":
            return "feed" if vacuum else "return"
        case "actuator" | "switch":
            return "feed" if vacuum else "not known"
        case "":
            return "not known"
        case _:
            assert_never(port.unit.kind)


def one_way(component: ComponentSpan, *, vacuum: bool) -> bool:
    """It works in one direction only. A restrictor is marked and works both ways; a reservoir has a
    direction only on a vacuum, where the port to the source has the valve behind it."""
    return component.what in ("check valve", "filter") or (component.what == "reservoir" and vacuum)


def faces(component: ComponentSpan) -> Faces:
    """The end that the flow leaves it towards: its arrow, or a vacuum reservoir's port to the source,
    which the air goes to."""
    if component.what == "reservoir":
        return component.source_port
    return "not known" if component.points == "not marked" else component.points


def backwards(component: ComponentSpan, flows: Flows, *, vacuum: bool) -> bool:
    """It stands against the flow."""
    if not one_way(component, vacuum=vacuum) and component.what != "restrictor":
        return False
    return (flows == "A to B" and faces(component) == "A") or (flows == "B to A" and faces(component) == "B")
