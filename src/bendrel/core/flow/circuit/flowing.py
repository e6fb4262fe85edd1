"""Flow over a whole circuit, from the pressure that is available: every branch's share, and what each
part costs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from bendrel.core.findings import EndName
from bendrel.core.flow.circuit.joined import AtPort, Net, Stretched
from bendrel.core.flow.flow import Way
from bendrel.core.flow.network import Losses, Pipe, Solved, solve
from bendrel.core.line.carried import Carried
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record

COUNTED = ("filter", "cooler", "restrictor", "check valve", "shut-off valve")
"""Parts whose cost to the flow is told one by one."""
_NOTHING_LPM = 1e-6


@record
class ElementFlow:
    """One span of a line in the circuit, what is lost in it, and the pressures before and behind it, in
    kPa."""

    span: str
    what: str
    flow_lpm: float
    drop_kpa: float
    from_kpa: float | None
    to_kpa: float | None


@record
class LineFlow:
    """One line of the circuit from end A on; flow positive from A to B, at its end A where a tee splits
    it."""

    line: str
    flow_lpm: float
    elements: tuple[ElementFlow, ...]


@record
class BranchFlow:
    """A port where the circuit gives back what it took: how much arrives, and its share of the whole."""

    line: str
    end: EndName
    flow_lpm: float
    share: float


@record
class Costs:
    """What one part takes: the share of what would flow hot without it."""

    line: str
    span: str
    what: str
    share: float


@record
class Flows:
    """One circuit at one temperature. `weakest` is where most of the pressure is lost."""

    temperature_c: float
    total_lpm: float
    lines: tuple[LineFlow, ...]
    branches: tuple[BranchFlow, ...]
    weakest: ElementFlow | None
    weakest_line: str
    shut: tuple[str, ...]


@record
class CircuitFlow:
    """One circuit: its lines, what it holds, its pressure, and its flow cold and hot; None while it
    cannot be solved, for the reasons in `unknown`. `no_source` and `no_return` say which port of a liquid is
    missing."""

    lines: tuple[str, ...]
    fluid: str
    volume_ml: float
    available_kpa: float
    cold: Flows | None
    hot: Flows | None
    costs: tuple[Costs, ...]
    unknown: tuple[str, ...]
    no_source: bool = False
    no_return: bool = False


def flow_of_circuit(net: Net, kit: Kit, lines: tuple[str, ...], *, costs: bool = True) -> CircuitFlow:
    """Solve one circuit of a net, cold and hot by the duty of its first line that has one. A source or
    feed is held at the pressure that may be lost between source and sink (what the line works at, where
    nobody says), a return at none; a port whose role is not known passes nothing."""
    stretches = tuple(one for one in net.stretches if one.line in lines)
    ports = tuple(at for at in net.ports if at.line in lines)
    duty = next((one.carried for name in lines if (one := net.lines[name]).carried is not None), None)
    volume = sum(one.volume_ml for one in stretches) + sum(
        part.holds_ml or 0.0 for name in lines for part in net.lines[name].pieces.components
    )
    held = held_kpa(net, ports)
    liquid = duty is not None and not duty.fluid.gas
    no_source = liquid and not any(kpa > 0 for kpa in held.values())
    no_return = liquid and not any(kpa == 0 for kpa in held.values())
    unknown = (*_unknown(net, stretches, duty), *_ends_missing(no_source, no_return))
    empty = CircuitFlow(
        lines=lines,
        fluid=duty.fluid.name if duty else "",
        volume_ml=volume,
        available_kpa=max(held.values(), default=0.0),
        cold=None,
        hot=None,
        costs=(),
        unknown=unknown,
        no_source=no_source,
        no_return=no_return,
    )
    if unknown or duty is None:
        return empty
    cold, hot = (_flows(kit, stretches, ports, held, duty, at) for at in (duty.duty.cold_c, duty.duty.hot_c))
    told = _costs(kit, stretches, held, duty, hot) if costs else ()
    return replace(empty, cold=cold, hot=hot, costs=told)


def held_kpa(net: Net, ports: Sequence[AtPort]) -> dict[str, float]:
    """Joints whose pressure is known, by the roles of ports that stand alone."""
    crowd: dict[str, int] = {}
    for at in ports:
        crowd[at.joint] = crowd.get(at.joint, 0) + 1
    held: dict[str, float] = {}
    for at in ports:
        if at.port.on is not None or crowd[at.joint] > 1:
            continue
        carried = net.lines[at.line].carried
        if at.port.role in ("source", "feed") and carried is not None:
            held[at.joint] = carried.duty.available_kpa or carried.duty.working_kpa
        elif at.port.role == "return":
            held[at.joint] = 0.0
    return held


def _unknown(
    net: Net,
    stretches: Sequence[Stretched],
    duty: Carried | None,
) -> tuple[str, ...]:
    if duty is None:
        return ("what it carries",)
    if duty.fluid.gas:
        return ("the flow of a gas through a circuit, which is not worked out here",)
    return tuple(
        f"{what} in “{net.lines[one.line].line.name}”"
        for one in stretches
        for what in dict.fromkeys(one.unknown)
    )


def _ends_missing(no_source: bool, no_return: bool) -> tuple[str, ...]:
    return (
        *(("where it comes from: no port is a source",) if no_source else ()),
        *(("where it goes: no port is a return",) if no_return else ()),
    )


def _flows(
    kit: Kit,
    stretches: Sequence[Stretched],
    ports: Sequence[AtPort],
    held: Mapping[str, float],
    duty: Carried,
    temperature_c: float,
) -> Flows:
    solved = _solved(kit, stretches, held, duty, temperature_c)
    elements = [element for one in stretches for element in one.elements]
    flows = [solved.flows_lpm[one.id] for one in stretches for _ in one.elements]
    losses = Losses(
        [one.way for one in elements], duty.fluid, temperature_c, kit.limits["roughness_mm"].value
    )
    drops = losses.drops_kpa(np.array(flows)).tolist() if flows else []
    told: dict[str, list[ElementFlow]] = {}
    first: dict[str, float] = {}
    at = 0
    for one in stretches:
        here = solved.pressures_kpa.get(one.start)
        first.setdefault(one.line, solved.flows_lpm[one.id])
        for element in one.elements:
            behind = None if here is None else here - drops[at]
            told.setdefault(one.line, []).append(
                ElementFlow(
                    span=element.span,
                    what=element.what,
                    flow_lpm=flows[at],
                    drop_kpa=drops[at],
                    from_kpa=here,
                    to_kpa=behind,
                )
            )
            here, at = behind, at + 1
    total = sum(max(0.0, _leaves(stretches, solved, joint)) for joint in held)
    branches = [
        BranchFlow(
            line=port.line,
            end=port.end,
            flow_lpm=-_leaves(stretches, solved, port.joint),
            share=-_leaves(stretches, solved, port.joint) / total if total > _NOTHING_LPM else 0.0,
        )
        for port in ports
        if held.get(port.joint) == 0.0 and port.port.on is None
    ]
    worst = max(
        ((one, line) for line, elements_ in told.items() for one in elements_),
        key=lambda pair: abs(pair[0].drop_kpa),
        default=None,
    )
    return Flows(
        temperature_c=temperature_c,
        total_lpm=total,
        lines=tuple(
            LineFlow(line=line, flow_lpm=first[line], elements=tuple(each)) for line, each in told.items()
        ),
        branches=tuple(branches),
        weakest=worst[0] if worst else None,
        weakest_line=worst[1] if worst else "",
        shut=tuple(sorted(solved.shut)),
    )


def _solved(
    kit: Kit, stretches: Sequence[Stretched], held: Mapping[str, float], duty: Carried, temperature_c: float
) -> Solved:
    pipes = [
        Pipe(id=one.id, start=one.start, stop=one.stop, way=one.way, opens=one.opens) for one in stretches
    ]
    return solve(pipes, held, duty.fluid, temperature_c, kit.limits["roughness_mm"].value)


def _leaves(stretches: Sequence[Stretched], solved: Solved, joint: str) -> float:
    """What flows out of a joint into the circuit."""
    return sum(solved.flows_lpm[one.id] * ((one.start == joint) - (one.stop == joint)) for one in stretches)


def _costs(
    kit: Kit,
    stretches: Sequence[Stretched],
    held: Mapping[str, float],
    duty: Carried,
    hot: Flows,
) -> tuple[Costs, ...]:
    """What every filter, cooler, restrictor and valve costs the flow, hot."""
    if hot.total_lpm < _NOTHING_LPM:
        return ()
    found: list[Costs] = []
    for k, one in enumerate(stretches):
        for element in one.elements:
            if element.what not in COUNTED or not element.loses:
                continue
            without = replace(
                one,
                elements=tuple(
                    replace(e, way=Way(stretches=())) if e.span == element.span else e for e in one.elements
                ),
            )
            changed = [*stretches[:k], without, *stretches[k + 1 :]]
            freed = _solved(kit, changed, held, duty, hot.temperature_c)
            total = sum(max(0.0, _leaves(changed, freed, joint)) for joint in held)
            found.append(
                Costs(line=one.line, span=element.span, what=element.what, share=1.0 - hot.total_lpm / total)
            )
    return tuple(found)
