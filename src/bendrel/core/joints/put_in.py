"""What is put into a line comes as its neighbours and its service take it, and brings their ends along."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.findings import EndName
from bendrel.core.ids import NotAChain
from bendrel.core.joints.face import Face
from bendrel.core.joints.faces import face_of, facing
from bendrel.core.joints.mate import mate
from bendrel.core.joints.pieces import best_clamp, component_offers
from bendrel.core.line.document import (
    BendReadings,
    ComponentKind,
    ComponentSpan,
    HoseSpan,
    Line,
    RigidSpan,
    Side,
    Span,
    TubeEnd,
)
from bendrel.core.line.edits.chain import fresh_id, insert, place_of, swapped
from bendrel.core.line.opened import stays
from bendrel.core.line.rewrite import computed_length
from bendrel.core.line.run import ENDS, main_run, with_span
from bendrel.core.parts.fits import best_bore, bore_fits, nut_for_port
from bendrel.core.parts.hose import Hose
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import clamped_classes, usual_ends
from bendrel.core.parts.service import Service
from bendrel.core.units.lengths import Length

What = ComponentKind | str
"""A kind of component, `tube` or `hose`."""
_UNDER_HOSE = ("bead", "barb", "plain")
_OTHER: dict[EndName, EndName] = {"A": "B", "B": "A"}


def put_in(
    line: Line, kit: Kit, beside: str, side: EndName, what: What, like: RigidSpan | None = None
) -> tuple[Line, str]:
    """`line` with a new span of a kind beside another one, and its id. A tube is of the stock of `like`
    where the line has none of its own. Raises NotAChain."""
    next_to = place_of(line, beside)
    name = fresh_id(line, _LETTER.get(what, "c"))
    own, met = face_of(kit, line.spans[next_to], side), facing(kit, line, next_to, side)
    faces = (met, own) if side == "A" else (own, met)
    at = next_to + (0 if side == "A" else 1)
    made = insert(line, at, _blank(line, kit, at, name, what, faces, like))
    return _suited(made, kit, name), name


def put_for(line: Line, kit: Kit, gone: str, what: What, like: RigidSpan | None = None) -> tuple[Line, str]:
    """`line` with a new span of a kind in the place of another one, and its id; `like` as in `put_in`. Raises
    NotAChain."""
    at = place_of(line, gone)
    name = fresh_id(line, _LETTER.get(what, "c"))
    faces = (facing(kit, line, at, "A"), facing(kit, line, at, "B"))
    made = swapped(line, gone, _blank(line, kit, at, name, what, faces, like))
    return _suited(made, kit, name), name


_LETTER = {"tube": "s", "hose": "h"}


def rejoined(line: Line, kit: Kit, before: str, kind: str) -> Line:
    """`line` with another union behind a span: the ends of what is new there become those that it takes,
    where they can, and what lies between them is its own. Raises NotAChain for a joint that there is none
    of."""
    at = place_of(line, before)
    body = kit.joints.get(kind)
    if at >= len(line.joints) or (kind and body is None):
        raise NotAChain(f"There is no joint “{kind[:40]}” that could go there.")
    way = next((one for one in kit.splicing.methods.values() if kind and one.joint == kind), None)
    apart = Length() if way is None else computed_length(way.stop + way.seat, line.unit)
    joints = list(line.joints)
    joints[at] = replace(joints[at], kind=kind, apart=apart)
    made = replace(line, joints=tuple(joints))
    if body is None or not body.ends:
        return made
    sides: tuple[tuple[int, EndName], ...] = ((at, "B"), (at + 1, "A"))
    for name in body.ends:
        tried = made
        for place, end in sides:
            tube = tried.spans[place]
            if isinstance(tube, RigidSpan) and tube.end(end).fitting != name:
                tried = _with_end(tried, kit, tube, end, name) or line
            if tried is line:
                break
        if tried is not line:
            return tried
    return made


def _with_end(line: Line, kit: Kit, tube: RigidSpan, end: EndName, name: str) -> Line | None:
    """`line` with another end on a new tube; None where it does not go there."""
    row, choice = kit.tubes.get(tube.tube), tube.end(end)
    if (
        stays(tube)
        or row is None
        or not usual_ends(kit, line.service, row, names=[name], insert=choice.insert)
    ):
        return None
    nut = nut_for_port(kit, kit.fittings[name], row.size)
    made = replace(choice, fitting=name, nut=nut.id if nut else None)
    return with_span(line, tube.with_end(end, made))


def _suited(line: Line, kit: Kit, name: str) -> Line:
    """The ends of new tubes beside a clamped hose become such as a hose goes over, those at a port the usual
    ones of the service."""
    at = place_of(line, name)
    span = line.spans[at]
    if isinstance(span, RigidSpan):
        for end in ENDS:
            tube = line.spans[at]
            assert isinstance(tube, RigidSpan)
            if facing(kit, line, at, end).kind == "bore":
                line = _under_hose(line, kit, tube, end)
            elif at == (0 if end == "A" else len(line.spans) - 1):
                line = _at_port(line, kit, tube, end)
        return line
    if not isinstance(span, HoseSpan) or span.joined != "clamps":
        return line
    for place, end in ((at - 1, "B"), (at + 1, "A")):
        if 0 <= place < len(line.spans):
            beside = line.spans[place]
            if isinstance(beside, RigidSpan):
                line = _under_hose(line, kit, beside, "B" if end == "B" else "A")
    return line


def _at_port(line: Line, kit: Kit, tube: RigidSpan, end: EndName) -> Line:
    service = kit.services.get(line.service)
    if service is None or service.start is None or tube.end(end).fitting != TubeEnd().fitting:
        return line
    name = service.start.end_inch if line.unit == "in" else service.start.end_metric
    return _with_end(line, kit, tube, end, name) or line


def _under_hose(line: Line, kit: Kit, tube: RigidSpan, end: EndName) -> Line:
    fitting = kit.fittings.get(tube.end(end).fitting)
    if fitting is not None and fitting.takes_hose and fitting.id != "plain":
        return line
    made = (_with_end(line, kit, tube, end, name) for name in _UNDER_HOSE)
    return next((one for one in made if one is not None), line)


def _blank(
    line: Line, kit: Kit, at: int, name: str, what: What, faces: tuple[Face, Face], like: RigidSpan | None
) -> Span:
    """A new span that is going to stand at place `at` of `line`, between two `faces`."""
    if what == "tube":
        return _tube(line, name, like)
    if what == "hose":
        hose = usual_hose(line, kit, name, _sizes(line, kit, at, *faces))
        if hose.joined == "clamps":
            return hose
        own_a, own_b = (_ordered(kit, face) for face in faces)
        return replace(hose, own_a=own_a, own_b=own_b)
    made = component_between(kit, line.service, what, *faces)
    return replace(made or ComponentSpan(what=what), id=name)  # type: ignore[arg-type]


def _tube(line: Line, name: str, like: RigidSpan | None) -> RigidSpan:
    """A tube that is not read yet, of the same stock as the one that is worked on."""
    run = main_run(line)
    stock = run.span if run is not None else like
    if stock is None:
        raise NotAChain("There is no tube in this line that a new one could be like.")
    return RigidSpan(
        id=name,
        tube=stock.tube,
        bender=stock.bender,
        readings=BendReadings(last=Length(unit=line.unit)),
        spare=stock.spare,
        marks=stock.marks,
    )


def _sizes(line: Line, kit: Kit, at: int, left: Face, right: Face) -> tuple[float, ...]:
    """What a hose goes on, as far as its neighbours say it; else the size of the next tube."""
    known = tuple(face.mm for face in (left, right) if face.kind in ("spigot", "plug") and face.mm)
    if known:
        return known
    tubes = [
        (abs(k - at), row.od_mm)
        for k, span in enumerate(line.spans)
        if isinstance(span, RigidSpan) and (row := kit.tubes.get(span.tube)) is not None
    ]
    return (min(tubes)[1],) if tubes else ()


def usual_hose(line: Line, kit: Kit, name: str, sizes: tuple[float, ...]) -> HoseSpan:
    """The usual hose of the line's service in the bore that goes on diameters of some `sizes` (mm; none:
    any), held in the service's way; what the line has already comes first, so that one piece is bought."""
    service = kit.services.get(line.service)
    kind = kit.hose_classes.get(service.hose_class or "") if service is not None else None
    if (
        service is not None
        and kind is not None
        and kind.clamps
        and sizes
        and not _fitting(kit, kind.id, sizes)
    ):
        # its usual class is not made so small or so large: the best other one that is
        others = (name for name in clamped_classes(kit, service) if _strong(kit, service, name, sizes))
        kind = kit.hose_classes[next(others, kind.id)]
    rows = [row for row in kit.hoses.values() if kind is None or row.hose_class == kind.id]
    there = {span.hose for span in line.spans if isinstance(span, HoseSpan)}
    fits = (row for row in rows if row.id in there and sizes and all(bore_fits(kit, row, mm) for mm in sizes))
    best = next(fits, None) or _bore(kit, rows, sizes)
    kind = kind or kit.hose_classes[best.hose_class]
    two = kit.preferences.get("clamp-count", "two") == "two"
    if kind.clamps:
        clamp = best_clamp(kit, line.service, best, sizes[0]) if sizes else None
        return HoseSpan(
            id=name, hose=best.id, length=Length(unit=line.unit), clamp=clamp, clamps_each=2 if two else 1
        )
    return HoseSpan(id=name, hose=best.id, length=Length(unit=line.unit), joined="crimped")


def _fitting(kit: Kit, hose_class: str, sizes: tuple[float, ...]) -> Hose | None:
    """The bore of a class that goes on all, else on the first."""
    return best_bore(kit, hose_class, sizes) or best_bore(kit, hose_class, sizes[:1])


def _strong(kit: Kit, service: Service, hose_class: str, sizes: tuple[float, ...]) -> bool:
    """The bore of a class that fits is rated for what the service usually works at."""
    hose = _fitting(kit, hose_class, sizes)
    working = service.duty.working_kpa if service.duty is not None else 0.0
    return hose is not None and hose.pressure_kpa is not None and hose.pressure_kpa >= working


def _bore(kit: Kit, rows: list[Hose], sizes: tuple[float, ...]) -> Hose:
    if not sizes:
        return rows[0]
    on_all = _fitting(kit, rows[0].hose_class, sizes)
    return on_all or min(rows, key=lambda row: abs(row.id_mm - sizes[0]))


def _ordered(kit: Kit, met: Face) -> Side:
    """The end of a hose that is crimped to order: what goes with the face that it meets."""
    if met.kind == "plug":
        seat = next((seat for seat in kit.seats.values() if met.of in seat.takes and seat.id != "hose"), None)
        return Side() if seat is None else Side(kind="socket", of=seat.id, thread=met.thread)
    if met.kind == "socket" and met.of:
        takes = [name for name in kit.seats[met.of].takes if not kit.fittings[name].takes_hose]
        return Side(kind="plug", of=takes[0], thread=met.thread) if takes else Side()
    return Side()


def component_between(kit: Kit, service: str, what: str, left: Face, right: Face) -> ComponentSpan | None:
    """The first component of a kind, as it is sold, that goes with both faces; None where none does."""
    for row in component_offers(kit, service, what):
        for turned in (False, True):
            made = ComponentSpan(what=what, row=row, turned=turned)  # type: ignore[arg-type]
            if _goes(kit, left, face_of(kit, made, "A")) and _goes(kit, face_of(kit, made, "B"), right):
                return made
    return None


def _goes(kit: Kit, one: Face, other: Face) -> bool:
    """Two faces are known to go together, the hose neither loose nor tight; what is not said goes."""
    if not one.known or not other.known:
        return True
    if {one.kind, other.kind} == {"spigot", "bore"}:
        spigot, bore = (one, other) if one.kind == "spigot" else (other, one)
        return spigot.mm is None or bore.of not in kit.hoses or bore_fits(kit, kit.hoses[bore.of], spigot.mm)
    return not mate(kit, one, other)
