"""What is wrong with lines that are joined, and what a part in them costs."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from typing import cast

from bendrel.core.findings import SEVERITY_ORDER, Severity, Source
from bendrel.core.flow.circuit.flowing import CircuitFlow, Flows
from bendrel.core.flow.circuit.joined import AtPort, Net
from bendrel.core.flow.circuit.vacuum import VacuumCircuit
from bendrel.core.joints.direction import faces, flow_of, one_way
from bendrel.core.joints.faces import branch_face, face_of
from bendrel.core.joints.mate import mate
from bendrel.core.line.document import ComponentSpan, Line
from bendrel.core.line.run import ENDS
from bendrel.core.parts.circuit_row import CircuitCode
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record

SOLVED = Source(kind="derived", text="continuity at every joint and the loss of every line, solved together")
_STILL = 1e-6


@record
class CircuitFinding:
    """Something wrong or risky in a circuit: the line that it leads to, and the span or port there."""

    severity: Severity
    code: CircuitCode
    line: str
    span: str
    end: str
    title: str
    message: str
    advice: str
    source: Source


@record
class _Judged:
    """The circuits of a job, and how something is said of them."""

    net: Net
    kit: Kit

    def told(
        self, kind: str, at: str, /, *, span: str = "", end: str = "", **figures: object
    ) -> CircuitFinding:
        """The finding of the catalogue's row `kind` that leads to the line with the id `at`."""
        row, words = self.kit.circuit_findings[kind], {"line": self.name(at), **figures}
        return CircuitFinding(
            severity=row.severity,
            code=row.code or cast(CircuitCode, row.id),
            line=at,
            span=span,
            end=end,
            title=row.title.format(**words),
            message=row.message.format(**words),
            advice=row.advice.format(**words),
            source=SOLVED if row.solved else self.kit.circuit_source,
        )

    def line(self, line: str) -> Line:
        """A line by its id."""
        return self.net.lines[line].line

    def name(self, line: str) -> str:
        """A line's name in quotes."""
        return f"“{self.line(line).name[:60]}”"

    def names(self, lines: tuple[str, ...]) -> str:
        """The names of the first four."""
        return ", ".join(self.name(one) for one in lines[:4])


def judge_net(
    net: Net, kit: Kit, flows: tuple[CircuitFlow, ...], vacua: tuple[VacuumCircuit, ...]
) -> tuple[CircuitFinding, ...]:
    """Every finding on the circuits of a job, the worst first."""
    of = _Judged(net=net, kit=kit)
    found = [*_joining(of)]
    for flow in flows:
        joined = len(flow.lines) > 1
        if joined:
            found += _sources(of, flow)
        if flow.hot is not None:
            found += _directions(of, flow.hot)
            if joined:
                found += _still(of, flow.hot)
            found += _starved(of, flow, flow.hot)
    for vacuum in vacua:
        found += _vacuum(of, vacuum)
    return tuple(sorted(found, key=lambda one: SEVERITY_ORDER[one.severity]))


def _joining(of: _Judged) -> Iterator[CircuitFinding]:
    for wrong in of.net.wrong:
        yield of.told("not_joined", wrong.line, end=wrong.end, why=wrong.message)
    for branch in of.net.open_branches:
        what = of.line(branch.line).span(branch.span)
        kind = what.what if isinstance(what, ComponentSpan) else "tee"
        yield of.told("open_branch", branch.line, span=branch.span, what=kind, branch=branch.branch)
    apart = {(wrong.line, wrong.end) for wrong in of.net.wrong}
    for at in of.net.ports:
        if (at.line, at.end) not in apart:
            yield from _on_branch(of, at)
    yield from _meeting(of)


def _on_branch(of: _Judged, at: AtPort) -> Iterator[CircuitFinding]:
    """What does not go together where a line stands on a branch of another one's component."""
    on = at.port.on
    other = of.net.lines.get(on.line) if on is not None else None
    span = other.line.span(on.span) if on is not None and other is not None and on.span else None
    if not isinstance(span, ComponentSpan):
        return
    line = of.line(at.line)
    mine = face_of(of.kit, line.spans[0 if at.end == "A" else -1], at.end)
    for remark in mate(of.kit, mine, branch_face(of.kit, span)):
        said = f"{remark.title}. {remark.message}"
        yield of.told("branch_joint", at.line, end=at.end, what=span.what, why=said, way_out=remark.advice)


def _meeting(of: _Judged) -> Iterator[CircuitFinding]:
    """What meets at one joint."""
    net = of.net
    at_joint: dict[str, set[str]] = defaultdict(set)
    for one in net.stretches:
        at_joint[one.start].add(one.line)
        at_joint[one.stop].add(one.line)
    told: set[tuple[str, str]] = set()
    for at in net.ports:
        for other in sorted(at_joint[at.joint] - {at.line}):
            pair = (min(at.line, other), max(at.line, other))
            if pair in told or at.port.on is None:
                continue
            told.add(pair)
            yield from _pair(of, at.line, other, at.end)
    ends: dict[str, list[tuple[str, str, str]]] = defaultdict(list)
    for at in net.ports:
        ends[at.joint].append((at.line, at.end, at.port.role))
    for crowd in ends.values():
        roles = [role for _, _, role in crowd]
        outward, inward = sum(role in ("source", "feed") for role in roles), roles.count("return")
        if len(crowd) == 2 and (outward == 2 or inward == 2):
            (line, end, _), (other, _, _) = crowd
            do = "come from there" if outward == 2 else "go back there"
            yield of.told("swapped", line, end=end, other=of.name(other), do=do)


def _pair(of: _Judged, line: str, other: str, end: str) -> Iterator[CircuitFinding]:
    one, two = of.net.lines[line], of.net.lines[other]
    if one.carried is None or two.carried is None:
        return
    fluid, beside = one.carried.fluid, two.carried.fluid
    if fluid.family != beside.family:
        named = {"fluid": fluid.name, "other": of.name(other), "other_fluid": beside.name}
        yield of.told("two_fluids", line, end=end, **named)
        return
    draws = [
        item.carried is not None and (item.carried.duty.vacuum or of.kit.services[item.line.service].suction)
        for item in (one, two)
    ]
    if draws[0] != draws[1]:
        pressed, drawn = (other, line) if draws[0] else (line, other)
        yield of.told("to_suction", line, end=end, pressed=of.name(pressed), drawn=of.name(drawn))


def _sources(of: _Judged, flow: CircuitFlow) -> Iterator[CircuitFinding]:
    for missing, what, role in (
        (flow.no_source, "source", "source"),
        (flow.no_return, "way back", "return"),
    ):
        if missing:
            yield of.told("no_source", flow.lines[0], what=what, lines=of.names(flow.lines), role=role)


def _directions(of: _Judged, hot: Flows) -> Iterator[CircuitFinding]:
    """What stands against the flow that the whole circuit has."""
    shut, least = set(hot.shut), _STILL * max(hot.total_lpm, 1e-9)
    for told in hot.lines:
        line = of.line(told.line)
        said, way = flow_of(line, vacuum=False), "A to B" if told.flow_lpm > 0 else "B to A"
        if abs(told.flow_lpm) > least and said in ("A to B", "B to A") and said != way:
            yield of.told("flows_back", told.line, said=said, way=way)
        for element in told.elements:
            span = line.span(element.span)
            if not isinstance(span, ComponentSpan) or not one_way(span, vacuum=False):
                continue
            if faces(span) == "not known":
                continue
            closed = any(
                one.id in shut and any(part.span == span.id for part in one.elements)
                for one in of.net.stretches
                if one.line == told.line
            )
            against = (element.flow_lpm > _STILL and faces(span) == "A") or (
                element.flow_lpm < -_STILL and faces(span) == "B"
            )
            if against or closed:
                does = "shuts against" if closed else "points against"
                yield of.told("backwards", told.line, span=span.id, what=span.what, does=does)


def _still(of: _Judged, hot: Flows) -> Iterator[CircuitFinding]:
    shut = set(hot.shut)
    ends = {at.line for at in of.net.ports if at.port.unit.kind in ("actuator", "switch", "consumer")}
    for told in hot.lines:
        closed = any(one.id in shut for one in of.net.stretches if one.line == told.line)
        if abs(told.flow_lpm) > _STILL * max(hot.total_lpm, 1e-9) or closed or told.line in ends:
            continue
        if all(of.line(told.line).port(end).role != "signal" for end in ENDS):
            yield of.told("dead_branch", told.line)


def _starved(of: _Judged, flow: CircuitFlow, hot: Flows) -> Iterator[CircuitFinding]:
    starved = False
    for branch in hot.branches if len(flow.lines) > 1 else ():
        carried = of.net.lines[branch.line].carried
        least = carried.duty.least_lpm if carried else 0.0
        if least and branch.flow_lpm < least:
            starved = True
            flow_lpm, share = branch.flow_lpm, branch.share
            yield of.told("starved", branch.line, end=branch.end, flow=flow_lpm, least=least, share=share)
    for cost in flow.costs:
        if cost.share < of.kit.limits["part_costs"].value:
            continue
        before = hot.total_lpm / (1 - cost.share) if cost.share < 1 else 0.0
        kind = "costs_a_branch" if starved else "costs"
        what, share, total = cost.what, cost.share, hot.total_lpm
        yield of.told(kind, cost.line, span=cost.span, what=what, share=share, before=before, total=total)


def _vacuum(of: _Judged, vacuum: VacuumCircuit) -> Iterator[CircuitFinding]:
    if vacuum.actuators and not vacuum.sources:
        yield of.told("no_pump", vacuum.lines[0], lines=of.names(vacuum.lines))
        return
    for one in vacuum.actuators:
        if one.wrong:
            yield of.told("unread", one.line, end=one.end, name=one.name, why=one.wrong)
        if not one.drawn:
            for line, span in one.against:
                part = of.line(line).span(span)
                what = part.what if isinstance(part, ComponentSpan) else "valve"
                yield of.told("shuts_off", line, span=span, what=what, name=one.name)
            if not one.against:
                rest = f" ({one.rest})" if one.rest else ""
                yield of.told("no_vacuum", one.line, end=one.end, name=one.name, rest=rest)
        if one.least_kpa is not None and one.least_kpa > vacuum.vacuum_kpa:
            least, most = one.least_kpa, vacuum.vacuum_kpa
            yield of.told("weak_vacuum", one.line, end=one.end, name=one.name, least=least, vacuum=most)
