"""What is wrong with lines that are joined, and what a part in them costs."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from typing import Literal

from bendrel.core.findings import SEVERITY_ORDER, Severity, Source
from bendrel.core.flow.circuit.flowing import CircuitFlow, Flows
from bendrel.core.flow.circuit.joined import Net
from bendrel.core.flow.circuit.vacuum import VacuumCircuit
from bendrel.core.joints.direction import faces, flow_of, one_way
from bendrel.core.line.document import ComponentSpan
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record

CircuitCode = Literal[
    "not_joined", "open_branch", "dead_branch", "no_source", "swapped", "backwards", "to_suction",
    "two_fluids", "starved", "costs", "no_vacuum", "weak_vacuum", "unread",
]  # fmt: skip

COMMON = Source(
    kind="common practice", text="lines joined by tees: every branch fed, every valve with the flow"
)
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


def judge_net(
    net: Net, kit: Kit, flows: tuple[CircuitFlow, ...], vacua: tuple[VacuumCircuit, ...]
) -> tuple[CircuitFinding, ...]:
    """Every finding on the circuits of a job, the worst first."""
    found = [*_joining(net, kit)]
    for flow in flows:
        joined = len(flow.lines) > 1
        if joined:
            found += _sources(net, flow)
        if flow.hot is not None:
            found += _directions(net, flow.hot)
            if joined:
                found += _still(net, flow.hot)
            found += _starved(net, kit, flow, flow.hot)
    for vacuum in vacua:
        found += _vacuum(net, vacuum)
    return tuple(sorted(found, key=lambda one: SEVERITY_ORDER[one.severity]))


def _finding(
    severity: Severity,
    code: CircuitCode,
    line: str,
    title: str,
    message: str,
    advice: str = "",
    *,
    span: str = "",
    end: str = "",
    source: Source = COMMON,
) -> CircuitFinding:
    return CircuitFinding(
        severity=severity,
        code=code,
        line=line,
        span=span,
        end=end,
        title=title,
        message=message,
        advice=advice,
        source=source,
    )


def _name(net: Net, line: str) -> str:
    return f"“{net.lines[line].line.name[:60]}”"


def _joining(net: Net, kit: Kit) -> Iterator[CircuitFinding]:
    for wrong in net.wrong:
        yield _finding(
            "stop", "not_joined", wrong.line, "It cannot be joined so", wrong.message, end=wrong.end
        )
    for branch in net.open_branches:
        what = net.lines[branch.line].line.span(branch.span)
        kind = what.what if isinstance(what, ComponentSpan) else "tee"
        yield _finding(
            "caution",
            "open_branch",
            branch.line,
            f"A port of the {kind} is open",
            f"Nothing stands on port {branch.branch} of the {kind} in {_name(net, branch.line)}: what is "
            f"open runs "
            "out, or draws air.",
            "Join a line to it (at that line’s port), or plug it and take a union instead.",
            span=branch.span,
        )
    yield from _meeting(net, kit)


def _meeting(net: Net, kit: Kit) -> Iterator[CircuitFinding]:
    """What meets at one joint."""
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
            yield from _pair(net, kit, at.line, other, at.end)
    ends: dict[str, list[tuple[str, str, str]]] = defaultdict(list)
    for at in net.ports:
        ends[at.joint].append((at.line, at.end, at.port.role))
    for crowd in ends.values():
        roles = [role for _, _, role in crowd]
        outward, inward = sum(role in ("source", "feed") for role in roles), roles.count("return")
        if len(crowd) == 2 and (outward == 2 or inward == 2):
            line, end, _ = crowd[0]
            yield _finding(
                "stop",
                "swapped",
                line,
                "Feed and return are swapped",
                f"{_name(net, line)} and {_name(net, crowd[1][0])} meet, and both "
                f"{'come from there' if outward == 2 else 'go back there'}: one of their ports is read the "
                f"wrong way.",
                "Establish again which port feeds: by a push of fluid, a colour, the manual.",
                end=end,
            )


def _pair(net: Net, kit: Kit, line: str, other: str, end: str) -> Iterator[CircuitFinding]:
    one, two = net.lines[line], net.lines[other]
    if one.carried is None or two.carried is None:
        return
    if one.carried.fluid.family != two.carried.fluid.family:
        yield _finding(
            "stop",
            "two_fluids",
            line,
            "Two fluids meet",
            f"{_name(net, line)} carries {one.carried.fluid.name}, {_name(net, other)} "
            f"{two.carried.fluid.name}.",
            "They do not belong in one circuit; look at where this port stands.",
            end=end,
        )
        return
    draws = [
        item.carried is not None and (item.carried.duty.vacuum or kit.services[item.line.service].suction)
        for item in (one, two)
    ]
    if draws[0] != draws[1]:
        pressed = two if draws[0] else one
        drawn = one if draws[0] else two
        yield _finding(
            "stop",
            "to_suction",
            line,
            "Pressure is joined to a suction side",
            f"“{pressed.line.name[:60]}” is under pressure, “{drawn.line.name[:60]}” is drawn from: seals "
            f"on the "
            "suction side are pressed out, or the pump is fed by its own pressure.",
            "Join it on the other side of the pump.",
            end=end,
        )


def _sources(net: Net, flow: CircuitFlow) -> Iterator[CircuitFinding]:
    lines = ", ".join(_name(net, one) for one in flow.lines[:4])
    for missing, what in ((flow.no_source, "source"), (flow.no_return, "way back")):
        if missing:
            yield _finding(
                "caution",
                "no_source",
                flow.lines[0],
                f"The circuit has no {what}",
                f"{lines}: no port is a {'source' if what == 'source' else 'return'}.",
                "Say at a port what it is, in its line under Look.",
            )


def _directions(net: Net, hot: Flows) -> Iterator[CircuitFinding]:
    """What stands against the flow that the whole circuit has."""
    shut = set(hot.shut)
    for told in hot.lines:
        line = net.lines[told.line].line
        said = flow_of(line, vacuum=False)
        way = "A to B" if told.flow_lpm > 0 else "B to A"
        if (
            abs(told.flow_lpm) > _STILL * max(hot.total_lpm, 1e-9)
            and said in ("A to B", "B to A")
            and said != way
        ):
            yield _finding(
                "stop",
                "swapped",
                told.line,
                "It flows the other way",
                f"{_name(net, told.line)} is said to flow from {said}; joined so, it flows from {way}.",
                "Feed and return are swapped, or it stands on the wrong port.",
                source=SOLVED,
            )
        for element in told.elements:
            span = line.span(element.span)
            if (
                not isinstance(span, ComponentSpan)
                or not one_way(span, vacuum=False)
                or faces(span) == "not known"
            ):
                continue
            closed = any(
                one.id in shut and any(part.span == span.id for part in one.elements)
                for one in net.stretches
                if one.line == told.line
            )
            against = (element.flow_lpm > _STILL and faces(span) == "A") or (
                element.flow_lpm < -_STILL and faces(span) == "B"
            )
            if against or closed:
                yield _finding(
                    "stop",
                    "backwards",
                    told.line,
                    f"The {span.what} stands the wrong way round",
                    f"In {_name(net, told.line)} it {'shuts against' if closed else 'points against'} the "
                    f"flow.",
                    "Turn it round.",
                    span=span.id,
                    source=SOLVED,
                )


def _still(net: Net, hot: Flows) -> Iterator[CircuitFinding]:
    shut = set(hot.shut)
    ends = {at.line: at for at in net.ports if at.port.unit.kind in ("actuator", "switch", "consumer")}
    for told in hot.lines:
        closed = any(one.id in shut for one in net.stretches if one.line == told.line)
        if abs(told.flow_lpm) > _STILL * max(hot.total_lpm, 1e-9) or closed or told.line in ends:
            continue
        if any(net.lines[told.line].line.port(end).role == "signal" for end in ("A", "B")):
            continue
        yield _finding(
            "caution",
            "dead_branch",
            told.line,
            "Nothing flows in this branch",
            f"{_name(net, told.line)} is joined at one end only, or both its ends stand at the same "
            f"pressure.",
            "Say what its far port is, or take the branch out: in a dead end dirt and air settle.",
            source=SOLVED,
        )


def _starved(net: Net, kit: Kit, flow: CircuitFlow, hot: Flows) -> Iterator[CircuitFinding]:
    least_cost = kit.limits["part_costs"].value
    starved: list[tuple[str, float, float]] = []
    if len(flow.lines) > 1:
        for branch in hot.branches:
            carried = net.lines[branch.line].carried
            least = carried.duty.least_lpm if carried else 0.0
            if least and branch.flow_lpm < least:
                starved.append((branch.line, branch.flow_lpm, least))
                yield _finding(
                    "caution",
                    "starved",
                    branch.line,
                    "This branch is starved",
                    f"{branch.flow_lpm:.1f} L/min arrive hot through {_name(net, branch.line)}, {least:.1f} "
                    f"are needed; "
                    f"it gets {branch.share:.0%} of what flows.",
                    "A larger bore, a shorter way, or a restrictor in the branches that take too much.",
                    end=branch.end,
                    source=SOLVED,
                )
    for cost in flow.costs:
        if cost.share < least_cost:
            continue
        before = hot.total_lpm / (1 - cost.share) if cost.share < 1 else 0.0
        yield _finding(
            "caution" if starved else "note",
            "costs",
            cost.line,
            f"The {cost.what} costs {cost.share:.0%} of the flow",
            f"Hot {before:.1f} L/min without it, {hot.total_lpm:.1f} with it."
            + (" A branch is starved with it." if starved else ""),
            "Choose one with less loss, or put it into the return." if starved else "",
            span=cost.span,
            source=SOLVED,
        )


def _vacuum(net: Net, vacuum: VacuumCircuit) -> Iterator[CircuitFinding]:
    if vacuum.actuators and not vacuum.sources:
        yield _finding(
            "caution",
            "no_source",
            vacuum.lines[0],
            "The circuit has no source",
            f"{', '.join(_name(net, one) for one in vacuum.lines[:4])}: no port is a pump or a manifold.",
            "Say at a port that it is the source.",
        )
        return
    for one in vacuum.actuators:
        if one.wrong:
            yield _finding("note", "unread", one.line, f"{one.name}: not read", one.wrong, end=one.end)
        if not one.drawn:
            for line, span in one.against:
                part = net.lines[line].line.span(span)
                what = part.what if isinstance(part, ComponentSpan) else "valve"
                yield _finding(
                    "stop",
                    "backwards",
                    line,
                    f"The {what} stands the wrong way round",
                    f"It looks connected and does nothing: the source cannot draw on {one.name} through it.",
                    "The port that goes to the source has the valve behind it; turn it round.",
                    span=span,
                )
            if not one.against:
                yield _finding(
                    "stop",
                    "no_vacuum",
                    one.line,
                    f"Nothing draws on {one.name}",
                    f"No way leads from {one.name} to the source: it stays at rest"
                    f"{f' ({one.rest})' if one.rest else ''}.",
                    "Join its line to a tee of the circuit.",
                    end=one.end,
                )
        if one.least_kpa is not None and one.least_kpa > vacuum.vacuum_kpa:
            yield _finding(
                "caution",
                "weak_vacuum",
                one.line,
                f"{one.name} needs more vacuum than there is",
                f"It moves from {one.least_kpa:.0f} kPa on; the source draws {vacuum.vacuum_kpa:.0f} kPa "
                f"below the air.",
                "A pump instead of the engine’s manifold, or a larger actuator.",
                end=one.end,
            )
