"""A vacuum circuit: what each actuator hangs on, what falls back to rest when something breaks, how long
it lasts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from bendrel.core.flow.circuit.joined import AtPort, Net, joint_at
from bendrel.core.flow.vacuum import held_minutes, strokes
from bendrel.core.joints.direction import faces, one_way
from bendrel.core.line.document import ComponentSpan
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_pressure, parse_volume


@record
class Link:
    """One span between two places of the net; air goes through it from `start` to `stop`, and back too
    unless it is a valve (`one_way`)."""

    line: str
    span: str
    start: str
    stop: str
    one_way: bool


@record
class Reservoir:
    """A reservoir: its volume in ml, None while not known, and the place on its consumers' side."""

    line: str
    span: str
    volume_ml: float | None
    place: str


@record
class Actuator:
    """What moves: its port, the air of one stroke in ml and the least vacuum in kPa, None while not
    known. `drawn` says that a source draws on it, `against` are parts that stand the wrong way on its way
    there. `strokes` is what its reservoir gives with the source off, `minutes` how long it keeps enough
    vacuum; None where that is not known, or where there is no reservoir."""

    line: str
    end: str
    name: str
    colour: str
    rest: str
    stroke_ml: float | None
    least_kpa: float | None
    drawn: bool
    against: tuple[tuple[str, str], ...]
    reservoir: tuple[str, str] | None
    strokes: int | None
    minutes: float | None
    wrong: str


@record
class Break:
    """One span that breaks: actuators that fall back to rest at once, and those that live on their
    reservoir."""

    line: str
    span: str
    falls: tuple[str, ...]
    lives: tuple[str, ...]


@record
class VacuumCircuit:
    """Everything of one vacuum circuit. `vacuum_kpa` is what the source draws below the air,
    `all_strokes` what the reservoirs give when all actuators on them move together."""

    lines: tuple[str, ...]
    vacuum_kpa: float
    sources: tuple[str, ...]
    actuators: tuple[Actuator, ...]
    breaks: tuple[Break, ...]
    all_strokes: int | None


def vacuum_of(net: Net, kit: Kit, lines: tuple[str, ...]) -> VacuumCircuit | None:
    """What is true of one circuit of a net; None where it carries no vacuum."""
    duty = next((c.duty for name in lines if (c := net.lines[name].carried) is not None), None)
    if duty is None or not duty.vacuum:
        return None
    ports = [at for at in net.ports if at.line in lines]
    links = _links(net, lines)
    sources = {at.joint for at in ports if at.port.role == "source" and at.port.on is None}
    reservoirs = _reservoirs(net, lines, links)
    leak = kit.limits["vacuum_leak_kpa_min"].value
    acting = [at for at in ports if at.port.unit.kind == "actuator"]
    actuators = tuple(_actuator(at, links, sources, reservoirs, duty.working_kpa, leak) for at in acting)
    return VacuumCircuit(
        lines=lines,
        vacuum_kpa=duty.working_kpa,
        sources=tuple(
            at.port.label or f"port {at.end}"
            for at in ports
            if at.joint in sources and at.port.role == "source"
        ),
        actuators=actuators,
        breaks=tuple(_break(link, links, sources, acting, actuators) for link in links),
        all_strokes=_together(reservoirs, actuators, duty.working_kpa),
    )


def _links(net: Net, lines: Sequence[str]) -> tuple[Link, ...]:
    """Every span of the lines, in the direction in which air may go through it."""
    found: list[Link] = []
    for stretch in net.stretches:
        if stretch.line not in lines:
            continue
        line = net.lines[stretch.line].line
        here = stretch.start
        for k, element in enumerate(stretch.elements):
            last = k + 1 == len(stretch.elements)
            there = stretch.stop if last else joint_at(stretch.line, f"behind {element.span}")
            span = line.span(element.span)
            valve = (
                isinstance(span, ComponentSpan)
                and span.what in ("check valve", "reservoir")
                and one_way(span, vacuum=True)
                and faces(span) != "not known"
            )
            back = valve and isinstance(span, ComponentSpan) and faces(span) == "A"
            start, stop = (there, here) if back else (here, there)
            found.append(Link(line=stretch.line, span=element.span, start=start, stop=stop, one_way=valve))
            here = there
    return tuple(found)


def _reservoirs(net: Net, lines: Sequence[str], links: Sequence[Link]) -> tuple[Reservoir, ...]:
    found: list[Reservoir] = []
    for link in links:
        span = net.lines[link.line].line.span(link.span)
        if isinstance(span, ComponentSpan) and span.what == "reservoir" and link.line in lines:
            placed = next(
                part for part in net.lines[link.line].pieces.components if part.piece.id == link.span
            )
            found.append(
                Reservoir(line=link.line, span=link.span, volume_ml=placed.holds_ml, place=link.start)
            )
    return tuple(found)


def _reached(starts: set[str], links: Sequence[Link], *, free: bool = False) -> set[str]:
    """Places that air comes to from `starts`; `free` passes valves either way."""
    known = set(starts)
    while True:
        more = {link.stop for link in links if link.start in known} | {
            link.start for link in links if link.stop in known and (free or not link.one_way)
        }
        if more <= known:
            return known
        known |= more


def _actuator(
    at: AtPort,
    links: Sequence[Link],
    sources: set[str],
    reservoirs: Sequence[Reservoir],
    vacuum_kpa: float,
    leak: float,
) -> Actuator:
    unit = at.port.unit
    wrong = ""
    stroke = least = None
    try:
        stroke = parse_volume(unit.stroke) * 1000 if unit.stroke.strip() else None
        least = parse_pressure(unit.least) if unit.least.strip() else None
    except UnitError as error:
        wrong = str(error)
    drawn = bool(_reached({at.joint}, links) & sources)
    against: tuple[tuple[str, str], ...] = ()
    if not drawn and _reached({at.joint}, links, free=True) & sources:
        against = tuple(
            (link.line, link.span)
            for link in links
            if link.one_way and _mends(link, links, at.joint, sources)
        )
    # what is joined to it without a valve between is its own store
    own = _reached({at.joint}, [link for link in links if not link.one_way])
    store = next((one for one in reservoirs if one.place in own), None)
    count = minutes = None
    if store is not None and store.volume_ml and stroke and least:
        count = strokes(store.volume_ml, vacuum_kpa, stroke, least)
    if store is not None and least:
        minutes = held_minutes(vacuum_kpa, least, leak)
    return Actuator(
        line=at.line,
        end=at.end,
        name=at.port.label or f"port {at.end}",
        colour=at.port.tag,
        rest=unit.rest,
        stroke_ml=stroke,
        least_kpa=least,
        drawn=drawn,
        against=against,
        reservoir=(store.line, store.span) if store else None,
        strokes=count,
        minutes=minutes,
        wrong=wrong,
    )


def _mends(link: Link, links: Sequence[Link], joint: str, sources: set[str]) -> bool:
    """Turned round, this valve lets the source draw."""
    turned = [
        Link(line=one.line, span=one.span, start=one.stop, stop=one.start, one_way=True)
        if one == link
        else one
        for one in links
    ]
    return bool(_reached({joint}, turned) & sources)


def _break(
    broken: Link, links: Sequence[Link], sources: set[str], acting: Sequence[AtPort], told: Sequence[Actuator]
) -> Break:
    left = [link for link in links if link != broken]
    aired = _reached({broken.start, broken.stop}, left)
    falls: list[str] = []
    lives: list[str] = []
    for at, actuator in zip(acting, told, strict=True):
        if at.joint in aired:
            falls.append(actuator.name)
        elif actuator.drawn and not _reached({at.joint}, left) & (sources - aired):
            (lives if actuator.reservoir else falls).append(actuator.name)
    return Break(line=broken.line, span=broken.span, falls=tuple(falls), lives=tuple(lives))


def _together(
    reservoirs: Sequence[Reservoir], actuators: Sequence[Actuator], vacuum_kpa: float
) -> int | None:
    """Strokes of all actuators at once on the reservoirs that they hang on, None while a figure is
    missing."""
    stores: Mapping[tuple[str, str], Reservoir] = {(one.line, one.span): one for one in reservoirs}
    found: list[int] = []
    for key in dict.fromkeys(one.reservoir for one in actuators if one.reservoir):
        mine = [one for one in actuators if one.reservoir == key]
        volume = stores[key].volume_ml
        taken = [one.stroke_ml for one in mine if one.stroke_ml]
        least = [one.least_kpa for one in mine if one.least_kpa]
        if not volume or len(taken) < len(mine) or len(least) < len(mine):
            return None
        found.append(strokes(volume, vacuum_kpa, sum(taken), max(least)))
    return min(found) if found else None
