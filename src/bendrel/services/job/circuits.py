"""Use case of a job's circuits: its lines where they are joined, from the shop's data or from a job
file."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from typing import Any, Literal

from bendrel.catalogue.loader import load_kit
from bendrel.core.flow.circuit.flowing import CircuitFlow, Flows, flow_of_circuit
from bendrel.core.flow.circuit.joined import Net, net_of, plan_job_line
from bendrel.core.flow.circuit.judged import CircuitFinding, judge_net
from bendrel.core.flow.circuit.vacuum import VacuumCircuit, vacuum_of
from bendrel.core.line.document import BRANCHES, ComponentSpan, Line
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.exchange.documents.archive import read_archive
from bendrel.services.present import present_job
from bendrel.services.readable import readable_lines
from bendrel.store.database import Database

At = Literal["hot", "cold"]


@record
class LineAt:
    """One line of a job by its id."""

    id: str
    line: Line


@record
class DrawnSpan:
    """One span of a line in the plan of the circuit."""

    span: str
    what: str
    branches: tuple[str, ...]


@record
class DrawnLine:
    """One line in the plan: its spans from port A on, what its ports are called and do, and the joints
    that they stand on."""

    id: str
    name: str
    service: str
    colour_a: str
    colour_b: str
    label_a: str
    label_b: str
    role_a: str
    role_b: str
    unit_a: str
    unit_b: str
    joint_a: str
    joint_b: str
    on_a: str
    on_b: str
    spans: tuple[DrawnSpan, ...]


@record
class JobCircuits:
    """All circuits of a job: the plan of lines and components, flows, vacua, findings. `groups` are lines
    that hang together."""

    lines: tuple[DrawnLine, ...]
    groups: tuple[tuple[str, ...], ...]
    flows: tuple[CircuitFlow, ...]
    vacua: tuple[VacuumCircuit, ...]
    findings: tuple[CircuitFinding, ...]


class Circuits:
    """Use cases on circuits. Raises NotFound."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def of_job(self, job_id: str, kit: Kit) -> JobCircuits:
        """The circuits of one job."""
        with self._database.reading() as session:
            job = present_job(session, job_id)
            there = [row for row in job.lines if row.deleted_at is None]
            lines = [LineAt(id=row.id, line=line) for row, line in readable_lines(session, there)]
        return circuits_of(lines, kit)


def circuits_of(lines: Sequence[LineAt], kit: Kit) -> JobCircuits:
    """The circuits of lines that belong together."""
    net = net_of([plan_job_line(one.id, one.line, kit) for one in lines], kit)
    groups = net.circuits()
    flows = tuple(flow_of_circuit(net, kit, group) for group in groups)
    vacua = tuple(found for group in groups if (found := vacuum_of(net, kit, group)) is not None)
    return JobCircuits(
        lines=tuple(_drawn(net, one) for one in lines),
        groups=groups,
        flows=flows,
        vacua=vacua,
        findings=judge_net(net, kit, flows, vacua),
    )


def circuit_file(data: bytes, at: At) -> dict[str, Any]:
    """The circuits of a job file, hot or cold, for the command line. Raises FileError."""
    job, _ = read_archive(data)
    ids = (
        job.line_ids
        if len(job.line_ids) == len(job.lines)
        else tuple(f"line-{k}" for k in range(len(job.lines)))
    )
    found = circuits_of(
        [LineAt(id=name, line=line) for name, line in zip(ids, job.lines, strict=True)], load_kit()
    )
    names = {one.id: one.name for one in found.lines}
    return {
        "job": job.name,
        "at": at,
        "circuits": [_told(flow, flow.hot if at == "hot" else flow.cold, names) for flow in found.flows],
        "vacuum": [_told_vacuum(one, names) for one in found.vacua],
        "findings": [
            {
                "severity": one.severity,
                "code": one.code,
                "line": names.get(one.line, ""),
                "span": one.span,
                "message": f"{one.title}. {one.message}",
                "source": one.source.text,
            }
            for one in found.findings
        ],
    }


def _told_vacuum(one: VacuumCircuit, names: dict[str, str]) -> dict[str, Any]:
    """With the names of the lines in place of their ids."""
    told: dict[str, Any] = asdict(one)
    told["lines"] = [names[name] for name in one.lines]
    for row in (*told["actuators"], *told["breaks"]):
        row["line"] = names[row["line"]]
    return told


def _told(flow: CircuitFlow, at: Flows | None, names: dict[str, str]) -> dict[str, Any]:
    return {
        "lines": [names[name] for name in flow.lines],
        "fluid": flow.fluid,
        "volume_ml": flow.volume_ml,
        "available_kpa": flow.available_kpa,
        "temperature_c": at.temperature_c if at else None,
        "flow_lpm": at.total_lpm if at else None,
        "unknown": list(flow.unknown),
        "branches": [
            {"line": names[one.line], "end": one.end, "flow_lpm": one.flow_lpm, "share": one.share}
            for one in (at.branches if at else ())
        ],
        "elements": [
            {
                "line": names[line.line],
                "span": one.span,
                "what": one.what,
                "flow_lpm": one.flow_lpm,
                "drop_kpa": one.drop_kpa,
                "from_kpa": one.from_kpa,
                "to_kpa": one.to_kpa,
            }
            for line in (at.lines if at else ())
            for one in line.elements
        ],
        "costs": [
            {"line": names[one.line], "span": one.span, "what": one.what, "share": one.share}
            for one in flow.costs
        ],
    }


def _drawn(net: Net, one: LineAt) -> DrawnLine:
    joints = {(at.line, at.end): at.joint for at in net.ports}
    line = one.line
    return DrawnLine(
        id=one.id,
        name=line.name,
        service=line.service,
        colour_a=line.port_a.tag,
        colour_b=line.port_b.tag,
        label_a=line.port_a.label,
        label_b=line.port_b.label,
        role_a=line.port_a.role,
        role_b=line.port_b.role,
        unit_a=line.port_a.unit.kind,
        unit_b=line.port_b.unit.kind,
        joint_a=joints[(one.id, "A")],
        joint_b=joints[(one.id, "B")],
        on_a=_on(line, "A"),
        on_b=_on(line, "B"),
        spans=tuple(
            DrawnSpan(
                span=span.id,
                what=span.what
                if isinstance(span, ComponentSpan)
                else "hose"
                if span.kind == "hose"
                else "tube",
                branches=BRANCHES.get(span.what, ()) if isinstance(span, ComponentSpan) else (),
            )
            for span in line.spans
        ),
    )


def _on(line: Line, end: str) -> str:
    on = (line.port_a if end == "A" else line.port_b).on
    return "" if on is None else f"{on.line}:{on.span or on.branch}"
