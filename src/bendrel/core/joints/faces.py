"""The faces of a line: what every end of its spans, and its two ports, offer to what meets them."""

from __future__ import annotations

from typing import assert_never

from bendrel.core.findings import EndName
from bendrel.core.joints.face import Face
from bendrel.core.line.document import ComponentSpan, HoseSpan, Line, Port, RigidSpan, Side, Span
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem
from bendrel.core.parts.component import SPIGOT_FORMS, Component, ComponentSide
from bendrel.core.parts.hose import Hose
from bendrel.core.parts.hose_end import HoseEndKind
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.units.lengths import length_if_read

USUAL_NUT = "single-37"
"""The end type that a hose end with a dash nut seals as."""


def face_of(kit: Kit, span: Span, end: EndName) -> Face:
    """What one end of a span is; unknown where it is not said or the catalogue lacks it."""
    if isinstance(span, RigidSpan):
        return _tube(kit, span, end)
    if isinstance(span, HoseSpan):
        return _hose(kit, span, end)
    return _component(kit, span, end)


def port_face(kit: Kit, port: Port) -> Face:
    """What a port is, as measured."""
    seat, thread = kit.seats.get(port.seat), port.thread.strip()
    if port.seat == "spigot":
        return Face(kind="spigot", name="a hose spigot", of="barb")
    if port.seat == "hose":
        return Face(kind="bore", name="the machine's own hose")
    if seat is None and not thread:
        return Face(kind="unknown", name="a port that nobody has measured")
    name = " ".join(word for word in (thread, seat.name if seat else "port") if word)
    return Face(kind="socket", name=f"a {name}", of=seat.id if seat else "", thread=thread)


def facing(kit: Kit, line: Line, at: int, end: EndName) -> Face:
    """What stands opposite one end of the span at place `at`: the neighbour's face, or the port's."""
    if end == "A":
        return face_of(kit, line.spans[at - 1], "B") if at > 0 else port_face(kit, line.port_a)
    if at + 1 < len(line.spans):
        return face_of(kit, line.spans[at + 1], "A")
    return port_face(kit, line.port_b)


def row_of(kit: Kit, span: ComponentSpan) -> Component | None:
    """The catalogue's row of a component, where it is of one and of its kind."""
    row = kit.components.get(span.row) if span.row else None
    return row if row is not None and row.what == span.what else None


def side_of(kit: Kit, span: ComponentSpan, end: EndName) -> ComponentSide | None:
    """The side of a component's row that looks to one end; None without a row."""
    row = row_of(kit, span)
    if row is None:
        return None
    return row.a if (end == "A") != span.turned else row.b


def end_kind(kit: Kit, piece: HoseSpan, hose: Hose) -> HoseEndKind | None:
    """The kind of end that a hose has; None where nobody makes one for its class."""
    if piece.joined == "clamps":
        return kit.hose_ends["push-on" if piece.clamps_each == 0 else "clamped"]
    if piece.joined == "crimped":
        return kit.hose_ends["made-up" if kit.hose_classes[hose.hose_class].law else "crimped"]
    return next(
        (
            kind
            for kind in kit.hose_ends.values()
            if kind.joined == "reusable" and hose.hose_class in kind.hose_classes
        ),
        None,
    )


def _tube(kit: Kit, span: RigidSpan, end: EndName) -> Face:
    choice, tube = span.end(end), kit.tubes.get(span.tube)
    fitting = kit.fittings.get(choice.fitting)
    if fitting is None or tube is None:
        return Face(kind="unknown", name="a tube end that the catalogue does not know")
    if fitting.takes_hose:
        form = "bead" if fitting.beaded else "plain" if fitting.kind == "plain" else "barb"
        name = {"bead": "a beaded tube end", "plain": "a bare tube end", "barb": "a barb on the tube"}[form]
        return Face(kind="spigot", name=name, of=form, mm=tube.od_mm)
    nut = kit.nuts.get(choice.nut) if choice.nut else None
    thread = nut.thread if nut is not None else ""
    name = f"{fitting.name}, {thread}" if thread else fitting.name
    return Face(kind="plug", name=name, of=fitting.id, thread=thread, mm=tube.od_mm)


def _hose(kit: Kit, span: HoseSpan, end: EndName) -> Face:
    hose = kit.hoses.get(span.hose)
    if hose is None:
        return Face(kind="unknown", name="a hose that the catalogue does not know")
    if span.joined == "clamps":
        return Face(kind="bore", name="a hose", of=hose.id, mm=hose.id_mm)
    own = span.own_a if end == "A" else span.own_b
    if own.kind:
        return _said(kit, own, None, "the hose")
    kind = end_kind(kit, span, hose)
    size = kind.size_for(hose.size) if kind else None
    if kind is None or size is None or not kind.nut:
        return Face(kind="unknown", name="a hose end that nobody has said")
    thread = kit.nut_by_dash(size.dash)
    return Face(kind="plug", name=f"a 37° hose end, {thread}", of=USUAL_NUT, thread=thread)


def _component(kit: Kit, span: ComponentSpan, end: EndName) -> Face:
    own, side = span.side_a if end == "A" else span.side_b, side_of(kit, span, end)
    typed = span.on_a if end == "A" else span.on_b
    mm = length_if_read(typed)
    if side is not None:
        return _said(
            kit, Side(kind=side.kind, of=side.of, thread=side.thread), mm or side.on_mm, f"the {span.what}"
        )
    if own.kind:
        return _said(kit, own, mm, f"the {span.what}")
    return Face(kind="unknown", name=f"a side of the {span.what} that nobody has said", mm=mm)


def branch_face(kit: Kit, span: ComponentSpan) -> Face:
    """The face of a tee's, Y-piece's or manifold's ports beside its own line: a body is sold alike on all
    sides. Unknown where its two sides differ or nobody has said them."""
    a, b = _component(kit, span, "A"), _component(kit, span, "B")
    return a if a == b else Face(kind="unknown", name=f"a branch of the {span.what} that nobody has said")


def _said(kit: Kit, side: Side, mm: float | None, whose: str) -> Face:
    """A side as it was said, in the words of the catalogue."""
    thread = side.thread.strip()
    behind = f" {thread}" if thread else ""
    match side.kind:
        case "spigot":
            form = side.of if side.of in SPIGOT_FORMS else "barb"
            return Face(kind="spigot", name=f"{whose}’s spigot", of=form, mm=mm)
        case "socket":
            seat = kit.seats.get(side.of)
            name = f"{whose}’s {seat.name if seat is not None else 'port'}{behind}"
            return Face(kind="socket", name=name, of=side.of if seat else "", thread=thread, mm=mm)
        case "plug" | "":
            fitting = kit.fittings.get(side.of)
            if fitting is None:
                return Face(kind="unknown", name=f"{whose}’s end that nobody has said")
            name = f"{whose}’s {fitting.name}{behind}"
            return Face(kind="plug", name=name, of=side.of, thread=thread, mm=mm)
        case _:
            assert_never(side.kind)


def unread_sides(kit: Kit, line: Line) -> list[Problem]:
    """What cannot be: a side of a kind that does not exist, a thread that nobody makes, a row that the
    catalogue lacks."""
    problems: list[Problem] = []

    def said(path: str, message: str) -> None:
        problems.append(Problem(path=path, message=message))

    def one(path: str, side: Side) -> None:
        if side.kind == "spigot" and side.of not in SPIGOT_FORMS:
            said(f"{path}/of", "A spigot is plain, beaded or barbed: say which.")
        elif side.kind == "socket" and side.of and side.of not in kit.seats:
            said(f"{path}/of", f"The catalogue has no seat “{side.of}”; choose one that is listed.")
        elif side.kind == "plug" and (side.of not in kit.fittings or kit.fittings[side.of].takes_hose):
            said(f"{path}/of", "Say which end it seals as: one of the end types that go into a seat.")
        if side.kind in ("plug", "socket") and side.thread.strip():
            try:
                kit.thread(side.thread)
            except ThreadError as error:
                said(f"{path}/thread", str(error))

    for span in line.spans:
        if isinstance(span, ComponentSpan):
            if span.row and row_of(kit, span) is None:
                text = f"The catalogue has no {span.what} “{span.row}”; choose one that is listed."
                said(span_path(span.id, "row"), text)
            one(span_path(span.id, "side_a"), span.side_a)
            one(span_path(span.id, "side_b"), span.side_b)
        elif isinstance(span, HoseSpan) and span.joined != "clamps":
            one(span_path(span.id, "own_a"), span.own_a)
            one(span_path(span.id, "own_b"), span.own_b)
    return problems
