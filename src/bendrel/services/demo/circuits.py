"""The demo shop's lines that are joined: a cooler feed with a tee, a vacuum circuit with two actuators."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.line.document import (
    ComponentSpan,
    HoseSpan,
    JoinedTo,
    Line,
    Port,
    PortUnit,
)
from bendrel.core.units.lengths import Length

_HOSE = HoseSpan(hose="vacuum_4mm", length=Length(text="300"), clamps_each=0)


def vacuum_main() -> Line:
    """From the pump to the reservoir and on to a tee."""
    return Line(
        name="Vacuum, pump to tee",
        service="vacuum-actuator",
        unit="mm",
        port_a=Port(label="vacuum pump", role="source", tag="black", unit=PortUnit(kind="pump")),
        port_b=Port(
            label="drain flap",
            role="signal",
            tag="red",
            unit=PortUnit(kind="actuator", stroke="60 ml", least="30 kPa", rest="drain shut"),
        ),
        spans=(
            replace(_HOSE, id="h1", length=Length(text="250")),
            ComponentSpan(
                id="c1",
                what="reservoir",
                source_port="A",
                holds="1.2 L",
                on_a=Length(text="4"),
                on_b=Length(text="4"),
            ),
            replace(_HOSE, id="h2", length=Length(text="400")),
            ComponentSpan(id="t1", what="tee", on_a=Length(text="4"), on_b=Length(text="4")),
            replace(_HOSE, id="h3", length=Length(text="350")),
        ),
    )


def vacuum_branch(main: str) -> Line:
    """From the tee to the second actuator, through its switch."""
    return Line(
        name="Vacuum, tee to primer",
        service="vacuum-actuator",
        unit="mm",
        port_a=Port(label="tee", tag="blue", on=JoinedTo(line=main, span="t1")),
        port_b=Port(
            label="primer valve",
            role="signal",
            tag="blue",
            unit=PortUnit(kind="actuator", stroke="35 ml", least="25 kPa", rest="primer open"),
        ),
        spans=(
            replace(_HOSE, id="h1", length=Length(text="300")),
            ComponentSpan(id="s1", what="switch", on_a=Length(text="4"), on_b=Length(text="4")),
            replace(_HOSE, id="h2", length=Length(text="200")),
        ),
    )
