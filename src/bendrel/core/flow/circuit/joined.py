"""The lines of a job as one net: joints between them, and the stretches of line between two joints."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from bendrel.core.bend.tube.planned import Rigid, plan_rigid
from bendrel.core.findings import EndName
from bendrel.core.flow.along import unknown_on_the_way, way_of
from bendrel.core.flow.flow import Way, volume_ml
from bendrel.core.joints.pieces import Pieces, place_pieces
from bendrel.core.line.carried import Carried, carried
from bendrel.core.line.document import BRANCHES, ComponentSpan, JoinedTo, Line, Port
from bendrel.core.line.run import ENDS, runs
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record


@record
class JobLine:
    """One line of the job, planned: its tubes, its hoses and components, and what it carries."""

    id: str
    line: Line
    rigids: tuple[Rigid, ...]
    pieces: Pieces
    carried: Carried | None


@record
class Element:
    """One span of a line, as the net flows through it; `loses` says that it is known what it costs."""

    span: str
    what: str
    way: Way
    loses: bool


@record
class Stretched:
    """A stretch of one line between two joints, from end A towards end B. `opens` is 1 where a check
    valve in it opens towards B, -1 towards A, 0 without one; `unknown` is what keeps its loss from being
    known."""

    id: str
    line: str
    start: str
    stop: str
    elements: tuple[Element, ...]
    opens: int
    volume_ml: float
    unknown: tuple[str, ...]

    @property
    def way(self) -> Way:
        """Everything of it, one after the other."""
        ways = [one.way for one in self.elements]
        return Way(
            stretches=tuple(piece for way in ways for piece in way.stretches),
            losses=tuple(loss for way in ways for loss in way.losses),
            restrictors=tuple(one for way in ways for one in way.restrictors),
            fixed_kpa=sum(way.fixed_kpa for way in ways),
        )


@record
class AtPort:
    """A port of a line, and the joint that it stands on."""

    line: str
    end: EndName
    port: Port
    joint: str


@record
class OpenBranch:
    """A port of a component that nothing stands on."""

    line: str
    span: str
    branch: str


@record
class Wrong:
    """A joint that cannot be, in one sentence, and the port that asks for it."""

    line: str
    end: EndName
    message: str


@record
class Net:
    """The lines of a job and how they hang together. `ports` stand alone or are joined: several may stand
    on one joint."""

    lines: Mapping[str, JobLine]
    stretches: tuple[Stretched, ...]
    ports: tuple[AtPort, ...]
    open_branches: tuple[OpenBranch, ...]
    wrong: tuple[Wrong, ...]

    def circuits(self) -> tuple[tuple[str, ...], ...]:
        """Lines that hang together, each group in the order of the job."""
        joints: dict[str, set[str]] = {name: set() for name in self.lines}
        for one in self.stretches:
            joints[one.line] |= {one.start, one.stop}
        for at in self.ports:
            joints[at.line].add(at.joint)
        groups: list[tuple[set[str], list[str]]] = []
        for name in self.lines:
            mine, lines = set(joints[name]), [name]
            apart: list[tuple[set[str], list[str]]] = []
            for theirs, others in groups:
                if theirs & mine:
                    mine, lines = mine | theirs, others + lines
                else:
                    apart.append((theirs, others))
            groups = [*apart, (mine, lines)]
        order = list(self.lines)
        return tuple(
            sorted(
                (tuple(sorted(lines, key=order.index)) for _, lines in groups),
                key=lambda group: order.index(group[0]),
            )
        )


def plan_job_line(name: str, line: Line, kit: Kit) -> JobLine:
    """One line planned for the net."""
    planned = [plan_rigid(run, kit).rigid for run in runs(line)]
    return JobLine(
        id=name,
        line=line,
        rigids=tuple(rigid for rigid in planned if rigid is not None),
        pieces=place_pieces(line, kit, []),
        carried=carried(line, kit, []),
    )


def net_of(lines: Sequence[JobLine], kit: Kit) -> Net:
    """The net of a job's lines. What cannot be joined is told and left apart."""
    by_id = {one.id: one for one in lines}
    wrong: list[Wrong] = []
    same: dict[str, str] = {}
    taken: dict[tuple[str, str, str], str] = {}
    for one in lines:
        for end in ENDS:
            on = one.line.port(end).on
            if on is None:
                continue
            message = _cannot(by_id, one, end, on, taken)
            if message:
                wrong.append(Wrong(line=one.id, end=end, message=message))
                continue
            taken[(on.line, on.span, on.branch)] = one.id
            other = joint_at(on.line, on.span) if on.span else joint_at(on.line, on.branch)
            _unite(same, joint_at(one.id, end), other)
    stretches = [piece for one in lines for piece in _stretches(one, kit)]
    # a port right on a component has nothing between: they are one joint
    for piece in stretches:
        if not piece.elements:
            _unite(same, piece.start, piece.stop)
    open_branches = [
        OpenBranch(line=one.id, span=span.id, branch=branches[0])
        for one in lines
        for span in one.line.spans
        if isinstance(span, ComponentSpan) and (branches := BRANCHES.get(span.what, ()))
        # of a manifold what is not used is plugged
        if not any((one.id, span.id, branch) in taken for branch in branches)
    ]
    return Net(
        lines=by_id,
        stretches=tuple(
            replace(piece, start=_root(same, piece.start), stop=_root(same, piece.stop))
            for piece in stretches
            if piece.elements
        ),
        ports=tuple(
            AtPort(line=one.id, end=end, port=one.line.port(end), joint=_root(same, joint_at(one.id, end)))
            for one in lines
            for end in ENDS
        ),
        open_branches=tuple(open_branches),
        wrong=tuple(wrong),
    )


def joint_at(line: str, where: str) -> str:
    """The joint at an end (A or B) of a line, or at one of its components."""
    return f"{line}:{where}"


def _cannot(
    lines: Mapping[str, JobLine],
    one: JobLine,
    end: EndName,
    on: JoinedTo,
    taken: Mapping[tuple[str, str, str], str],
) -> str:
    name = f"Port {end} of “{one.line.name[:40]}”"
    if on.line == one.id:
        return f"{name} is joined to its own line; a tee takes another line."
    other = lines.get(on.line)
    if other is None:
        return f"{name} is joined to a line that is not in this job; choose one that is."
    if (on.line, on.span, on.branch) in taken:
        return f"{name} is joined where another line stands already; choose a port that is free."
    if not on.span:
        return "" if on.branch in ENDS else f"{name} is joined to no port; choose A or B of the other line."
    span = next((span for span in other.line.spans if span.id == on.span), None)
    if not isinstance(span, ComponentSpan) or on.branch not in BRANCHES.get(span.what, ()):
        return f"{name} is joined to what has no port {on.branch}; choose a tee, a Y-piece or a manifold."
    return ""


def _stretches(one: JobLine, kit: Kit) -> list[Stretched]:
    """One line cut at its components with branches."""
    found: list[Stretched] = []
    start, spans = joint_at(one.id, "A"), []
    for span in (*one.line.spans, None):
        branched = isinstance(span, ComponentSpan) and span.what in BRANCHES
        if span is not None and not branched:
            spans.append(span)
            continue
        stop = joint_at(one.id, "B" if span is None else span.id)
        names = {item.id for item in spans}
        rigids = tuple(rigid for rigid in one.rigids if rigid.run.span.id in names)
        pieces = _of(one.pieces, names)
        part = replace(one.line, spans=tuple(spans), joints=()) if spans else None
        found.append(
            Stretched(
                id=f"{one.id}:{spans[0].id}" if spans else f"{start}-{stop}",
                line=one.id,
                start=start,
                stop=stop,
                elements=tuple(_element(one, kit, item.id) for item in spans),
                opens=_opens(pieces),
                volume_ml=volume_ml(way_of(part, kit, rigids, pieces).stretches) if part else 0.0,
                unknown=unknown_on_the_way(part, rigids, pieces) if part else (),
            )
        )
        start, spans = stop, []
    return found


def _of(pieces: Pieces, names: set[str]) -> Pieces:
    return Pieces(
        hoses=tuple(one for one in pieces.hoses if one.piece.id in names),
        components=tuple(one for one in pieces.components if one.piece.id in names),
    )


def _element(one: JobLine, kit: Kit, name: str) -> Element:
    span = one.line.span(name)
    alone = replace(one.line, spans=(span,), joints=())
    rigids = tuple(rigid for rigid in one.rigids if rigid.run.span.id == name)
    pieces = _of(one.pieces, {name})
    bores = [*(rigid.tube.bore_mm for rigid in one.rigids), *(hose.hose.id_mm for hose in one.pieces.hoses)]
    way = way_of(alone, kit, rigids, pieces, bore_mm=bores[0] if bores else None)
    what = span.what if isinstance(span, ComponentSpan) else "hose" if span.kind == "hose" else "tube"
    return Element(
        span=name,
        what=what,
        way=way,
        loses=bool(way.stretches or way.losses or way.restrictors or way.fixed_kpa),
    )


def _opens(pieces: Pieces) -> int:
    for one in pieces.components:
        if one.piece.what == "check valve" and one.piece.points != "not marked":
            return 1 if one.piece.points == "B" else -1
    return 0


def _root(same: Mapping[str, str], name: str) -> str:
    while name in same:
        name = same[name]
    return name


def _unite(same: dict[str, str], one: str, other: str) -> None:
    first, second = _root(same, one), _root(same, other)
    if first != second:
        same[first] = second
