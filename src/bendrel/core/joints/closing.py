"""Every joint of a line that has to be closed, from port A to port B.

A union between two tubes has two: each nut is closed by itself. A joint is named by the span and the end
that it closes, and by what that end meets; where the chain changes, it is another joint.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import assert_never

from bendrel.core.findings import EndName, Source
from bendrel.core.joints.face import Face
from bendrel.core.joints.faces import face_of, facing, port_face
from bendrel.core.joints.pieces import Pieces, PlacedHose, place_pieces
from bendrel.core.line.carried import carried
from bendrel.core.line.document import ComponentSpan, CornerReadings, HoseSpan, Line, RigidSpan, Span
from bendrel.core.line.opened import end_opened, stays
from bendrel.core.line.proving import JointWork
from bendrel.core.line.run import ENDS
from bendrel.core.parts.fitting import Fitting, Nut
from bendrel.core.parts.fluid import Fluid
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.proving import Closes
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.threads.wrench import wrenches_for
from bendrel.core.parts.torque import set_torque
from bendrel.core.parts.wetting import wetting
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_torque

STEEL = "steel-seamless"
"""What hose ends are made of."""
_IN_CASTINGS = "npt-port"
_AT_ANGLE = frozenset({"banjo stack", "elbow", "tee", "Y-piece", "manifold", "shut-off valve", "check valve"})


@record
class Aim:
    """What a joint is tightened to, in N·m, and who says so."""

    least_nm: float
    most_nm: float
    source: Source


@record
class LineJoint:
    """One joint to close. `name` is what it is, `place` where, `holds` what the second wrench is put on
    (blank: nothing). `torque` is that of the machine's manual where it was noted, else the
    catalogue's, None where neither says one; `set_nm` what to set for it
    with the shop's crowfoot in line; `by_feel` says that the shop tightens by feel. `applied` is what goes
    on it (sealant, oil, nothing), `why` the reason, `new_parts` what it takes new each time. `turns` it
    should take by hand, None where no thread is counted; `angle` says what must point the right way when
    tight. `nips` says that it settles and is tightened once more, `again` what is done then (blank: at its
    torque); `new` that it is no old joint. `height_mm` is how high it stands over the datum that it was read
    from, None where nobody measured it."""

    id: str
    span: str
    end: EndName
    meets: str
    closes: Closes
    name: str
    place: str
    thread: str
    wrench: str
    holds: str
    torque: Aim | None
    set_nm: tuple[float, float] | None
    by_feel: bool
    tight: str
    again: str
    applied: str
    why: str
    new_parts: tuple[str, ...]
    turns: float | None
    port_thread: str
    angle: str
    nips: bool
    new: bool
    height_mm: float | None


def joint_id(span: str, end: EndName) -> str:
    """The id that steps and looks know a joint by."""
    return f"{span}-{end}"


def hand_step(joint: str) -> str:
    """The id of the step in which a joint is run home by hand."""
    return f"hand-{joint}"


def joints_of(line: Line, kit: Kit) -> tuple[LineJoint, ...]:
    """All joints of `line` that are opened, in order."""
    pieces = place_pieces(line, kit, [])
    return tuple(_joints(line, kit, pieces))


def _joints(line: Line, kit: Kit, pieces: Pieces) -> Iterator[LineJoint]:
    for k in range(len(line.spans)):
        for end in ENDS:
            other = k - 1 if end == "A" else k + 1
            neighbour = line.spans[other] if 0 <= other < len(line.spans) else None
            if not end_opened(line, k, end) or not _closes(kit, line, k, end):
                continue
            yield _joint(line, kit, pieces, k, end, neighbour)


_ACTS = {"rigid": 1, "hose": 2, "component": 0}
"""Who closes a joint where faces do not say it: a hose over a tube's end, a tube's nut on a component."""


def _closes(kit: Kit, line: Line, k: int, end: EndName) -> bool:
    """The joint is closed from this side: the nut of a union's each side, else what goes into or over the
    other; of two that are alike the one nearer to port A."""
    other = k - 1 if end == "A" else k + 1
    if not 0 <= other < len(line.spans):
        return True
    span, neighbour = line.spans[k], line.spans[other]
    if isinstance(span, RigidSpan) and isinstance(neighbour, RigidSpan):
        return True
    mine, met = face_of(kit, span, end), facing(kit, line, k, end)
    if (mine.kind, met.kind) in (("plug", "socket"), ("socket", "plug")):
        return mine.kind == "plug"
    if _ACTS[span.kind] != _ACTS[neighbour.kind]:
        return _ACTS[span.kind] > _ACTS[neighbour.kind]
    if mine.kind != met.kind and "plug" in (mine.kind, met.kind):
        return mine.kind == "plug"
    return end == "B"


def _joint(line: Line, kit: Kit, pieces: Pieces, k: int, end: EndName, neighbour: Span | None) -> LineJoint:
    span = line.spans[k]
    port = line.port(end) if neighbour is None else None
    place = _place(line, k, end, neighbour)
    parts = _at_end(kit, pieces, span, end)
    if port is not None and port_face(kit, port).kind == "bore":
        parts = _Parts(closes="clamp", name="the machine's own hose and its clamps")
    thread = parts.nut.thread if parts.nut else parts.thread
    torque = _aim(line, kit, parts, thread, joint_at(line, span.id, end, neighbour.id if neighbour else ""))
    by_feel = kit.preferences["tightening"] == "feel"
    wrenches = wrenches_for(parts.nut.hex_mm, kit.wrenches, kit.wrench_band) if parts.nut else ()
    set_nm = None
    if torque is not None:
        arm = kit.proving.wrench
        least, most = (
            set_torque(nm, arm.length_mm, arm.offset_mm) for nm in (torque.least_nm, torque.most_nm)
        )
        set_nm = (least, most)
    duty = carried(line, kit, [])
    applied, why = _applied(kit, parts, duty.fluid if duty else None)
    screwed = kit.proving.closings[parts.closes].screwed
    return LineJoint(
        id=joint_id(span.id, end),
        span=span.id,
        end=end,
        meets=neighbour.id if neighbour else "",
        closes=parts.closes,
        name=parts.name,
        place=place,
        thread=thread,
        wrench=wrenches[0].wrench if wrenches else "",
        holds=_held(port.seat if port else "", neighbour) if screwed else "",
        torque=torque,
        set_nm=set_nm,
        by_feel=by_feel,
        tight=_tight(kit, parts, torque, by_feel),
        again=_settled(kit, parts),
        applied=applied,
        why=why,
        new_parts=_new_parts(parts, kit, span),
        turns=_turns(kit, parts),
        port_thread=port.thread if port else "",
        angle=_angle(kit, parts, span, neighbour),
        nips=parts.closes in ("sleeve", "clamp") or (screwed and (torque is None or by_feel)),
        new=not stays(span),
        height_mm=_height_mm(span, end),
    )


def closed_by(line: Line, kit: Kit, pieces: Pieces, end: EndName) -> tuple[Closes, str]:
    """How one end of the line closes at its port, and with what."""
    parts = _at_end(kit, pieces, line.spans[0 if end == "A" else -1], end)
    return parts.closes, parts.name


@record
class _Parts:
    """What an end closes with; `material` is the tube's, by id, or that of a hose end's own steel."""

    closes: Closes
    name: str
    fitting: Fitting | None = None
    nut: Nut | None = None
    thread: str = ""
    torque_as: str = ""
    material: str = STEEL
    hose: PlacedHose | None = None


def _at_end(kit: Kit, pieces: Pieces, span: Span, end: EndName) -> _Parts:
    if isinstance(span, RigidSpan):
        return _tube_end(kit, span, end)
    if isinstance(span, HoseSpan):
        return _hose_end(kit, pieces, span, end)
    face = face_of(kit, span, end)
    if face.kind == "plug":
        return _plug(kit, face)
    if face.kind == "spigot":
        return _Parts(closes="clamp", name="the hose that goes on it and its clamps")
    if span.what == "quick connector":
        return _Parts(closes="latch", name=span.what)
    return _Parts(closes="washer" if span.what == "banjo stack" else "maker", name=span.what)


def _plug(kit: Kit, face: Face) -> _Parts:
    """What screws or latches of a component's or a hose's own."""
    fitting = kit.fittings[face.of]
    return _Parts(
        closes=closes_of(fitting), name=face.name, fitting=fitting, thread=face.thread, torque_as=fitting.id
    )


def closes_of(fitting: Fitting) -> Closes:
    """How a tube's end type closes."""
    if fitting.closing == "sealant":
        return "taper"
    match fitting.kind:
        case "hose" | "plain":
            return "push"
        case "quick":
            return "latch"
        case "compression" | "bite":
            return "sleeve"
        case "banjo" | "stud":
            return "washer"
        case "double" | "single" | "bulb" | "nipple":
            return "nut"
        case _:
            assert_never(fitting.kind)


def _tube_end(kit: Kit, span: RigidSpan, end: EndName) -> _Parts:
    choice = span.end(end)
    fitting = kit.fittings.get(choice.fitting)
    nut = kit.nuts.get(choice.nut) if choice.nut else None
    if fitting is None:
        return _Parts(closes="push", name="an end that the catalogue does not know")
    name = f"{fitting.name}, {nut.thread}" if nut else fitting.name
    tube = kit.tubes.get(span.tube)
    return _Parts(
        closes=closes_of(fitting),
        name=name,
        fitting=fitting,
        nut=nut,
        torque_as=fitting.id,
        material=tube.material if tube else "",
    )


def _hose_end(kit: Kit, pieces: Pieces, span: HoseSpan, end: EndName) -> _Parts:
    placed = next((one for one in pieces.hoses if one.stands.span == span.id), None)
    if span.joined == "clamps":
        clamp = kit.clamps.get(span.clamp) if span.clamp else None
        if clamp is None:
            return _Parts(closes="push", name="hose without a clamp", hose=placed)
        many = "" if span.clamps_each == 1 else "two "
        kind = kit.clamp_kinds[clamp.kind].name
        return _Parts(closes="clamp", name=f"{many}{kind}{'s' if many else ''} {clamp.name}", hose=placed)
    face = face_of(kit, span, end)
    if face.kind == "plug":
        return replace(_plug(kit, face), hose=placed)
    kind = "crimped" if span.joined == "crimped" else "reusable"
    return _Parts(closes="crimp", name=f"{kind} hose end", hose=placed)


def _place(line: Line, k: int, end: EndName, neighbour: Span | None) -> str:
    span = line.spans[k]
    if neighbour is None:
        label = line.port(end).label.strip()
        return f"port {end}, {label}" if label else f"port {end}"
    joint = line.joints[min(k, k + (-1 if end == "A" else 1))]
    if isinstance(span, RigidSpan) and isinstance(neighbour, RigidSpan) and joint.kind:
        return f"union between {_said(line, span)} and {_said(line, neighbour)}, side {end}"
    return f"{_said(line, span)}, end {end}, on {_said(line, neighbour)}"


def _said(line: Line, span: Span) -> str:
    """A span in words: with its number where there are several of its kind."""
    old = "old " if stays(span) else ""
    word = span.what if isinstance(span, ComponentSpan) else "tube" if isinstance(span, RigidSpan) else "hose"
    alike = [one for one in line.spans if one.kind == span.kind and getattr(one, "what", word) == word]
    return f"{old}{word} {alike.index(span) + 1}" if len(alike) > 1 else f"the {old}{word}"


def joint_at(line: Line, span: str, end: EndName, meets: str) -> JointWork | None:
    """What was noted of a joint; None where nothing was, or it met something else then."""
    return next(
        (one for one in line.proving.joints if (one.span, one.end, one.meets) == (span, end, meets)), None
    )


MANUAL = Source(kind="shop's own", text="the machine's manual, as noted here")


def _aim(line: Line, kit: Kit, parts: _Parts, thread: str, work: JointWork | None) -> Aim | None:
    """The manual's figure comes first; one that cannot be read counts as none."""
    if work is not None and work.aim.strip():
        try:
            least, most = parse_torque(work.aim, line.unit)
            return Aim(least_nm=least, most_nm=most, source=MANUAL)
        except UnitError:
            pass
    row = kit.torque_for(parts.torque_as, thread, parts.material) if thread else None
    return None if row is None else Aim(least_nm=row.least_nm, most_nm=row.most_nm, source=row.source)


def _held(seat: str, neighbour: Span | None) -> str:
    if neighbour is None:
        return "" if seat == _IN_CASTINGS else "the part with the port, unless it is a casting"
    if isinstance(neighbour, ComponentSpan):
        return f"the {neighbour.what}"
    return "the union's body" if isinstance(neighbour, RigidSpan) else "the hose's own hex"


def _tight(kit: Kit, parts: _Parts, torque: Aim | None, by_feel: bool) -> str:
    """How far it is tightened, in words; blank where its torque says it."""
    closing, hose = kit.proving.closings[parts.closes], parts.hose
    if parts.closes == "clamp" and hose is not None and hose.clamp is not None:
        return kit.clamp_kinds[hose.clamp.kind].tight
    return closing.tight if closing.always or torque is None or by_feel else ""


def _settled(kit: Kit, parts: _Parts) -> str:
    """What is done about it once more, when it has settled; blank for a wrench at its torque."""
    hose = parts.hose
    if parts.closes == "clamp" and hose is not None and hose.clamp is not None:
        return kit.clamp_kinds[hose.clamp.kind].again
    return kit.proving.closings[parts.closes].again


def _applied(kit: Kit, parts: _Parts, fluid: Fluid | None) -> tuple[str, str]:
    """What goes on the joint, by its kind, the shop's school and what the line carries, and why."""
    closing = kit.proving.closings[parts.closes]
    if closing.wets:
        wet = wetting(fluid)
        return (wet.smear if wet.dry else f"{wet.smear}, in the hose"), wet.why
    if not closing.school:
        return closing.applied, closing.why
    school = kit.schools[closing.school]
    answer = next(one for one in school.options if one.id == kit.preferences[school.id])
    return closing.applied.format(school=answer.name), answer.reason


def _new_parts(parts: _Parts, kit: Kit, span: Span) -> tuple[str, ...]:
    fitting = parts.fitting
    if fitting is None:
        return ()
    tube = kit.tubes.get(span.tube) if isinstance(span, RigidSpan) else None
    # only what seals is renewed each time it is closed: washers, rings, sleeves
    return tuple(
        f"{part.count} × {part.what}" if part.count > 1 else part.what
        for part in fitting.renewed(parts.nut, tube.size if tube else "", parts.thread)
        if part.kind is not None
    )


def _turns(kit: Kit, parts: _Parts) -> float | None:
    """Turns that a nut takes by hand until it meets the flare. Source: the catalogue's share of thread."""
    if parts.nut is None:
        return None
    try:
        thread = kit.thread(parts.nut.thread)
    except ThreadError:
        return None
    return parts.nut.length_mm * kit.proving.thread.share / thread.pitch_mm


def _height_mm(span: Span, end: EndName) -> float | None:
    """Of a tube read by corner points, and of a hose whose ends are known."""
    z: Length | None = None
    if isinstance(span, RigidSpan) and isinstance(span.readings, CornerReadings) and span.readings.rows:
        z = (span.readings.rows[0] if end == "A" else span.readings.rows[-1]).z
    elif isinstance(span, HoseSpan) and span.way is not None:
        z = (span.way.a if end == "A" else span.way.b).z
    if z is None or is_blank(z):
        return None
    try:
        return length_mm(z)
    except UnitError:
        return None


def _angle(kit: Kit, parts: _Parts, span: Span, neighbour: Span | None) -> str:
    fitting = parts.fitting
    if fitting is not None and fitting.kind == "banjo":
        return "Hold the eye at its angle while the bolt is tightened."
    screwed = kit.proving.closings[parts.closes].screwed
    for one in (span, neighbour) if screwed else ():
        if isinstance(one, ComponentSpan) and one.what in _AT_ANGLE:
            which = "only one that may be backed off is turned back to get there"
            return f"The {one.what} points its way when it is tight; {which}."
    if isinstance(span, HoseSpan) and (span.angle_a or span.angle_b):
        return "Hold the hose's elbow at its angle; the hose must not take any twist."
    return ""
