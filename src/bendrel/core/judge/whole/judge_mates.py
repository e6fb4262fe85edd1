"""Rules on what meets: every joint and port that is opened, its two faces held against each other."""

from __future__ import annotations

from collections.abc import Iterator
from typing import cast

from bendrel.core.codes import Code
from bendrel.core.findings import EndName, Finding, Fix, Place
from bendrel.core.joints.face import Face
from bendrel.core.joints.faces import face_of, facing, port_face
from bendrel.core.joints.mate import Remark, mate
from bendrel.core.judge.case import Case, Whole, choose, set_value
from bendrel.core.judge.ends_for import end_fix, ends_that_go, fits_on
from bendrel.core.line.document import ComponentSpan, RigidSpan
from bendrel.core.line.opened import end_opened
from bendrel.core.line.paths import joint_path, port_path
from bendrel.core.parts.fits import nut_for_port
from bendrel.core.parts.picking import verdict_order
from bendrel.core.parts.verdict import VERDICT_ORDER

Values = list[tuple[str, str | float | bool | None]]


def judge_mates(whole: Whole) -> Iterator[Finding]:
    """Findings on every two faces that meet, from port A to port B."""
    last = len(whole.line.spans) - 1
    for at in range(last + 1):
        if at == 0:
            yield from _met(whole, 0, "A")
        yield from _met(whole, at, "B")


def _met(whole: Whole, at: int, end: EndName) -> Iterator[Finding]:
    line, kit = whole.line, whole.kit
    if not end_opened(line, at, end):
        return
    span = line.spans[at]
    neighbour = line.spans[at + 1] if end == "B" and at + 1 < len(line.spans) else None
    one, other = face_of(kit, span, end), facing(kit, line, at, end)
    body = kit.joints.get(line.joints[at].kind) if neighbour is not None else None
    for remark in mate(kit, one, other, body):
        if _told_elsewhere(remark, span.kind, neighbour.kind if neighbour is not None else "port"):
            continue
        yield _finding(whole, remark, at, end)
    if neighbour is None:
        yield from _open_end(whole, at, end, one)
    yield from _unsaid(whole, at, end, one, other)
    if neighbour is not None:
        yield from _unsaid(whole, at + 1, "A", other, one)


def _told_elsewhere(remark: Remark, kind: str, other: str) -> bool:
    """Two tubes or two hoses with nothing between them, a hose over a tube's own end, and a tube's nut in the
    port have findings that know the way out."""
    if remark.code == "joint_threads":
        return (kind, other) == ("rigid", "port")
    if remark.code == "nothing_between":
        return kind == other and kind != "component"
    return remark.code == "hose_on_what" and {kind, other} == {"hose", "rigid"}


def _place(whole: Whole, at: int, end: EndName) -> Place:
    """A joint is said at the span before it, a port at the straight that goes to it."""
    span = whole.line.spans[at]
    inner = end == "B" and at + 1 < len(whole.line.spans)
    case = None if inner else _case(whole, span.id)
    return case.at_end(end) if case is not None else whole.at_span(span.id, end)


def _case(whole: Whole, span: str) -> Case | None:
    return next((case for case in whole.cases if case.part.span == span), None)


def _finding(whole: Whole, remark: Remark, at: int, end: EndName) -> Finding:
    span = whole.line.spans[at]
    at_port = at == 0 if end == "A" else at + 1 == len(whole.line.spans)
    lead = f"End {end}: " if at_port and isinstance(span, RigidSpan) else ""
    return Finding(
        severity="stop",
        code=cast(Code, remark.code),
        where=_place(whole, at, end),
        title=lead + remark.title,
        message=remark.message,
        source=remark.source,
        advice=remark.advice,
        fix=_fix(whole, remark, at, end),
        safety=whole.service.safety_critical,
    )


def _fix(whole: Whole, remark: Remark, at: int, end: EndName) -> Fix | None:
    case = _case(whole, whole.line.spans[at].id)
    at_port = at + 1 == len(whole.line.spans) if end == "B" else at == 0
    if remark.code == "union_ends":
        return _ends_for_union(whole, at) or _union_for_ends(whole, at)
    if remark.code == "wrong_seat" and case is not None and at_port and case.rigid.new:
        return next((end_fix(case, end, other) for other in ends_that_go(case, end)), None)
    return None


def _union_for_ends(whole: Whole, at: int) -> Fix | None:
    """The best union that takes both ends as they are."""
    line, kit = whole.line, whole.kit
    ends = {face_of(kit, line.spans[at], "B").of, face_of(kit, line.spans[at + 1], "A").of}
    able = [
        (verdict_order(kit, "joint", joint.id, whole.service.id), joint)
        for joint in kit.joints.values()
        if len(ends) == 1 and ends <= set(joint.ends)
    ]
    order, best = min(able, key=lambda pair: pair[0], default=(VERDICT_ORDER["refused"], None))
    if best is None or order == VERDICT_ORDER["refused"]:
        return None
    return choose(f"Take a {best.name}", (joint_path(line.spans[at].id, "kind"), best.id))


def _ends_for_union(whole: Whole, at: int) -> Fix | None:
    """The ends that this union takes, on both tubes: both are new, and the service allows the union."""
    line, kit = whole.line, whole.kit
    body = kit.joints[line.joints[at].kind]
    sides = ((_case(whole, line.spans[at].id), "B"), (_case(whole, line.spans[at + 1].id), "A"))
    verdict = kit.verdict("joint", body.id, whole.service.id)
    if verdict is not None and verdict.verdict == "refused":
        return None
    for name in body.ends:
        values: Values = []
        for case, side in sides:
            end = cast(EndName, side)
            if case is None:
                return None
            if case.fittings[end].id == name:
                continue
            if not case.rigid.new or not fits_on(case, end, kit.fittings[name]):
                break
            nut = nut_for_port(kit, kit.fittings[name], case.tube.size, "")
            at_end = case.run.end(end)
            values += [(at_end.tube_at("fitting"), name), (at_end.tube_at("nut"), nut.id if nut else None)]
        else:
            return choose(f"Change the ends to {kit.fittings[name].name}", *values)
    return None


def _open_end(whole: Whole, at: int, end: EndName, one: Face) -> Iterator[Finding]:
    """A bead or a barb at a port that nobody has measured: what holds there is a hose, and there is none."""
    port = whole.line.port(end)
    if one.kind != "spigot" or one.of == "plain" or port.on is not None:
        return
    if port_face(whole.kit, port).kind != "unknown":
        return
    yield whole.told(
        "end_open",
        _place(whole, at, end),
        fix=set_value("The machine's own hose goes on it", port_path(end, "seat"), "hose"),
        of=one.of,
        end=end,
    )


def _unsaid(whole: Whole, at: int, end: EndName, one: Face, other: Face) -> Iterator[Finding]:
    """A side of a component, or a hose's own end, that nobody has said, where what it meets is known."""
    span = whole.line.spans[at]
    if one.kind != "unknown" or isinstance(span, RigidSpan) or not other.known or other.kind == "bore":
        return
    if isinstance(span, ComponentSpan) and span.age == "old":
        return
    what = f"the {span.what}" if isinstance(span, ComponentSpan) else "the hose"
    yield whole.told(
        "side_unsaid",
        whole.at_span(span.id, end),
        advice="Say it in Choose: which one it is, or its seat and thread."
        if isinstance(span, ComponentSpan)
        else "Say it in Choose, as it is ordered: the end and its thread.",
        end=end,
        what=what,
        other=other.name,
    )
