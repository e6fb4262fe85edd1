"""Use cases on readings: who is to blame for a check, copies of other lines, another radius."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from annotated_types import MaxLen

from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.copies import extended, neighbour
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.reradius import Reradius, reradius
from bendrel.core.geometry.tool_radius import ToolRadius
from bendrel.core.line.advised import ToTake, advised, pointer_to, to_take
from bendrel.core.line.document import BendReadings, CornerReadings, HoseSpan, Line, RigidSpan
from bendrel.core.line.edits.mirror import mirrored
from bendrel.core.line.paths import LAST, row_path
from bendrel.core.line.references import without_bends
from bendrel.core.line.resolve import Resolved, resolve
from bendrel.core.line.rewrite import computed_length
from bendrel.core.line.run import with_span
from bendrel.core.measure.ask import Ask
from bendrel.core.measure.culprits import Suspect
from bendrel.core.measure.explain import name_of, slip_of
from bendrel.core.measure.further import Further, FurtherKind
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.slots import Slot
from bendrel.core.measure.worth import NextReadings
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import Length
from bendrel.core.units.notation import UnitError, format_angle, format_length, parse_length, parse_plane
from bendrel.services.errors import Refused
from bendrel.services.line.lines import with_readings
from bendrel.services.shelf.tubes import tube_of

How = Literal["mirror", "neighbour", "same"]
Short = Annotated[str, MaxLen(40)]


@record
class Named:
    """A reading that may be wrong: its place as a JSON pointer into the document, its name, the
    change that would reconcile the checks, and the slip that this looks like."""

    path: str
    name: str
    change: str
    slip: str


@record
class CopyOrder:
    """How another line is copied: as its mirror image, as a neighbour at `spacing` on the side
    `clock` as seen from A (`nested`: bends about the same centres), or as it is; then one end made
    longer by `longer`. `choices` takes its tube, bender and ends too."""

    how: How = "mirror"
    spacing: Short = ""
    clock: Short = "12:00"
    nested: bool = False
    end: EndName = "B"
    longer: Short = ""
    choices: bool = True


@record
class Rebuilt:
    """A line with another radius, before anything is saved."""

    document: Line
    result: Reradius


@record
class NextCheck:
    """A reading to take next: which, its name, and the readings that it decides between, by name. `why` says
    whether readings contradict one another or a slip in one of them would go unnoticed."""

    take: ToTake
    name: str
    between: tuple[str, ...]
    why: Literal["which is wrong", "unnoticed"]


@record
class NextReading:
    """A reading to take, its name, and how near end B then comes to its port: 95 of 100, mm and degrees."""

    take: ToTake
    name: str
    meets_mm: float
    meets_deg: float


@record
class KnownEnd:
    """How near end B comes to its port as it is known now, whether that is enough, and what would bring it
    nearer, the most first."""

    meets_mm: float
    meets_deg: float
    enough: bool
    worth: tuple[NextReading, ...]


@record
class CheckAdvice:
    """What checks say of the readings: those to read again first, the reading to take next, and what would
    bring end B nearest; None while something contradicts."""

    named: tuple[Named, ...]
    ask: NextCheck | None
    next: KnownEnd | None


def look_at_checks(document: Line, kit: Kit, name: str = "") -> CheckAdvice:
    """The readings to read again first (nothing while all checks agree), and the one more reading that would
    tell most."""
    span = tube_of(document, name).span
    resolved = _resolved(span, kit)
    if resolved is None or resolved.read is None:
        return CheckAdvice(named=(), ask=None, next=None)
    read = resolved.read
    try:
        found = advised(span, kit, read, zone_of(document, kit, span))
    except ShapeError:
        return CheckAdvice(named=(), ask=None, next=None)
    return CheckAdvice(
        named=tuple(
            Named(
                path=pointer_to(span, suspect.what),
                name=name_of(read, suspect.what),
                change=_change(suspect, document),
                slip=slip_of(read, suspect, kit.limits["slip_mm"].value, kit.limits["slip_deg"].value),
            )
            for suspect in found.suspects
        ),
        ask=None if found.ask is None else _asked(span, read, found.ask, bool(found.suspects)),
        next=None if found.next is None else _known(span, read, found.next),
    )


def _asked(span: RigidSpan, read: ReadBends | Corners, ask: Ask, wrong: bool) -> NextCheck:
    return NextCheck(
        take=to_take(span, ask.reading),
        name=name_of(read, ask.reading),
        between=tuple(name_of(read, what) for what in ask.between),
        why="which is wrong" if wrong else "unnoticed",
    )


def _known(span: RigidSpan, read: ReadBends | Corners, told: NextReadings) -> KnownEnd:
    return KnownEnd(
        meets_mm=told.meets_mm,
        meets_deg=told.meets_deg,
        enough=told.enough,
        worth=tuple(
            NextReading(
                take=to_take(span, one.reading),
                name=name_of(read, one.reading),
                meets_mm=one.meets_mm,
                meets_deg=one.meets_deg,
            )
            for one in told.worth
        ),
    )


def zone_of(document: Line, kit: Kit, span: RigidSpan) -> tuple[float, float]:
    """How near end B must surely come to its port, in mm and degrees: more where a hose behind it gives."""
    at = next(k for k, one in enumerate(document.spans) if one.id == span.id)
    if any(isinstance(one, HoseSpan) for one in document.spans[max(0, at - 1) : at + 2]):
        return kit.limits["zone_hose_mm"].value, kit.limits["zone_hose_deg"].value
    return kit.limits["known_mm"].value, kit.limits["known_deg"].value


ELSEWHERE: frozenset[FurtherKind] = frozenset(("place B", "corner", "sheet", "bend on sheet"))
"""What has several figures, or a side."""


def _change(suspect: Suspect, document: Line) -> str:
    """The change in words; of a reading with several figures only how far it is off."""
    angle = isinstance(suspect.what, Slot) and suspect.what.kind != "length"
    if isinstance(suspect.what, Further) and suspect.what.kind in ("way A", "way B"):
        return "another way"
    size = format_angle(abs(suspect.change)) if angle else format_length(abs(suspect.change), document.unit)
    if isinstance(suspect.what, Further) and suspect.what.kind in ELSEWHERE:
        return f"{size} elsewhere"
    return f"{size} {'more' if suspect.change > 0 else 'less'}"


def copy_line(document: Line, source: Line, order: CopyOrder, kit: Kit, name: str = "") -> tuple[Line, str]:
    """`document` with the readings of `source` copied as ordered, and what was done in words.
    Raises Refused."""
    own, theirs = tube_of(document, name).span, tube_of(source).span
    made = without_bends(document, own)
    if order.choices:
        cleared = tube_of(made, own.id).span
        taken = replace(
            theirs,
            id=own.id,
            state=own.state,
            readings=own.readings,
            checks=cleared.checks,
            bought=cleared.bought,
            openings=cleared.openings,
            order=(),
            left_open=(),
        )
        made = with_span(replace(made, service=source.service), taken)
        if len(made.spans) == 1:
            made = _with_surroundings(made, source, own.id)
    words = {"mirror": "mirror image", "neighbour": "neighbour", "same": "copy"}[order.how]
    said = f"{words} of “{source.name}”"
    if order.how == "neighbour":
        made = _beside(made, own.id, source, order, kit)
        said += f", {order.spacing.strip()} beside it at {order.clock.strip()}"
    else:
        readings = mirrored(theirs.readings) if order.how == "mirror" else theirs.readings
        made = with_span(made, replace(tube_of(made, own.id).span, readings=readings))
    made = _held_as(made, own.id, source)
    if order.longer.strip():
        made = _longer(made, own.id, order, kit)
        said += f", end {order.end} {order.longer.strip()} longer"
    return made, said


def _held_as(made: Line, span: str, source: Line) -> Line:
    """What holds the other line is to be fitted here too, at the same lengths from A; a line that has clips
    of its own keeps those."""
    if made.condition.fixtures:
        return made
    theirs = tube_of(source).span.id
    carried = tuple(
        replace(item, span=span, state="to fit", photo="", shared="")
        for item in source.condition.fixtures
        if item.span in ("", theirs)
    )
    return replace(made, condition=replace(made.condition, fixtures=carried))


def _with_surroundings(made: Line, source: Line, span: str) -> Line:
    """A line of one tube takes the ports of the other line too, and what lies between them and the tube."""
    own = tube_of(made, span).span
    spans = tuple(own if one.id == tube_of(source).span.id else one for one in source.spans)
    return replace(
        made,
        port_a=replace(source.port_a, proved=False),
        port_b=replace(source.port_b, proved=False),
        spans=spans if len({one.id for one in spans}) == len(spans) else made.spans,
        joints=source.joints if len({one.id for one in spans}) == len(spans) else made.joints,
    )


def _beside(made: Line, name: str, source: Line, order: CopyOrder, kit: Kit) -> Line:
    read = _resolved(tube_of(source).span, kit)
    if read is None or read.shape is None:
        raise Refused(f"The readings of “{source.name}” are not finished.")
    try:
        spacing = parse_length(order.spacing, made.unit)
        kind, clock = parse_plane(order.clock, "clock")
        if kind != "clock":
            raise Refused("Side: write a clock time as seen from end A, such as 3:00.")
        shape = neighbour(read.shape, spacing, clock, nested=order.nested)
    except UnitError as error:
        raise Refused(f"Neighbour: {error}") from error
    except ShapeError as error:
        raise Refused(error.said(made.unit)) from error
    return with_readings(made, tube_of(made, name).span, shape, "bends", kit)


def _longer(made: Line, name: str, order: CopyOrder, kit: Kit) -> Line:
    """The end leg alone is changed, so that every other reading stays as it was typed."""
    try:
        by = parse_length(order.longer, made.unit, "any")
    except UnitError as error:
        raise Refused(f"Longer: {error}") from error
    span = tube_of(made, name).span
    read = _resolved(span, kit)
    if read is None or read.shape is None:
        raise Refused("The copied readings cannot be read; put the other line right first.")
    shape = extended(read.shape, order.end, by)
    readings = span.readings
    simple = isinstance(readings, BendReadings) and all(row.by == "leg" for row in readings.rows)
    if not simple or isinstance(readings, CornerReadings) or readings.last_by == "wire":
        return with_readings(made, span, shape, "bends", kit)
    if order.end == "A" and readings.rows:
        first = replace(
            readings.rows[0], length=_added(read, row_path(readings.rows[0].id, "length"), by, made)
        )
        changed = replace(readings, rows=(first, *readings.rows[1:]))
    else:
        changed = replace(readings, last=_added(read, LAST, by, made))
    return with_span(made, replace(span, readings=changed))


def _added(read: Resolved, path: str, by: float, line: Line) -> Length:
    return computed_length(read.lengths_mm[path] + by, line.unit)


def rebuild(document: Line, radius: str, kit: Kit, name: str = "") -> Rebuilt:
    """The line with `radius`, or with its bender's own where that is blank. Raises Refused."""
    span = tube_of(document, name).span
    read = _resolved(span, kit)
    if read is None or read.shape is None:
        raise Refused("Put the readings right first; the old line is not known yet.")
    bender = kit.tool(span.bender, span.tube)
    if bender is None:
        raise Refused("Choose a bender first.")
    wanted: float | ToolRadius | None = bender.radius
    if radius.strip():
        try:
            wanted = parse_length(radius, document.unit)
        except UnitError as error:
            raise Refused(f"Radius: {error}") from error
    if wanted is None:
        raise Refused("This bender makes any radius; say which one.")
    if not read.shape.bends:
        raise Refused("A straight tube has no radius.")
    result = reradius(
        read.shape,
        wanted,
        least_between_mm=bender.least_between_mm,
        least_ends_mm=(bender.least_before_first_mm, bender.least_after_last_mm),
    )
    same = len(result.shape.bends) == len(read.shape.bends)
    kept = document if same else without_bends(document, span)
    own = tube_of(kept, span.id).span
    return Rebuilt(document=with_readings(kept, own, result.shape, "bends", kit), result=result)


def _resolved(span: RigidSpan, kit: Kit) -> Resolved | None:
    tube, bender = kit.tubes.get(span.tube), kit.tool(span.bender, span.tube)
    if tube is None or bender is None:
        return None
    return resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius)
