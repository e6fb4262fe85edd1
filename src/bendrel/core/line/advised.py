"""What the further readings say to do: what may be wrong, what to read next, in the document's own ids."""

from __future__ import annotations

from bendrel.core.geometry.corners import Corners
from bendrel.core.ids import Id
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.given import given_checks, reading_errors
from bendrel.core.line.measured import measure, trust_of
from bendrel.core.line.paths import readings_path, span_path
from bendrel.core.line.resolve import slot_path
from bendrel.core.line.rewrite import bend_ids
from bendrel.core.measure.adjust import as_left, expected
from bendrel.core.measure.ask import Ask, separating, unnoticed
from bendrel.core.measure.culprits import MOST_NAMED, Suspect, ranked
from bendrel.core.measure.doubt import Doubt
from bendrel.core.measure.further import Further, FurtherKind, as_read, with_more
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given, od_of
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.sheet import sheet_of
from bendrel.core.measure.slots import Slot
from bendrel.core.measure.spots import TapePlace
from bendrel.core.measure.worth import NextReadings, next_readings
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record


@record
class ToTake:
    """A further reading to take: of a tape across from which spot to which, an end (`A`, `B`) or a row; of a
    bend on the sheet its row (`start`)."""

    kind: FurtherKind
    start: Id
    end: Id


@record
class Advised:
    """What may be wrong, likeliest first (nothing while all agree); the reading that would decide it, or
    notice a slip that nothing would notice now; what brings end B nearest (None while something
    contradicts)."""

    suspects: tuple[Suspect, ...]
    ask: Ask | None
    next: NextReadings | None


def advised(span: RigidSpan, kit: Kit, read: ReadBends | Corners, zone: tuple[float, float]) -> Advised:
    """What to do about the readings of one rigid span, until end B surely lies within `zone` (mm, degrees).
    Raises ShapeError where they are no shape."""
    errors = reading_errors(kit)
    given, trust = given_checks(span, read, kit)[0], trust_of(span, read)
    if given != Given() and measure(span, kit, read).measured.disagree:
        read = as_left(read, given, errors, trust)  # what is left out already is not suspected again
        found = ranked(read, given, errors)
        suspects = tuple(suspect for _, suspect in found[:MOST_NAMED])
        return Advised(suspects=suspects, ask=separating(read, given, found, errors), next=None)
    told = next_readings(read, given, errors, trust, zone)
    first = told.worth[0].reading if told.worth else None
    if first is not None:  # what it will notice need not be asked for beside it
        given = with_more(given, as_read(first, outcome(read), sheet_of(read), od_of(read), errors))
    return Advised(suspects=(), ask=unnoticed(read, given, errors), next=told)


def with_reading(span: RigidSpan, kit: Kit, read: ReadBends | Corners, one: Further) -> Doubt:
    """The doubt of the readings where this one is read as well. Raises ShapeError."""
    errors = reading_errors(kit)
    more = as_read(one, outcome(read), sheet_of(read), od_of(read), errors)
    return expected(read, more, errors, trust_of(span, read))


def to_take(span: RigidSpan, one: Further) -> ToTake:
    """A further reading by the document's ids."""
    return ToTake(kind=one.kind, start=_spot_id(span, one.start), end=_spot_id(span, one.end))


def _spot_id(span: RigidSpan, spot: TapePlace) -> Id:
    return bend_ids(span.readings)[spot] if isinstance(spot, int) else spot


def pointer_to(span: RigidSpan, what: Slot | Further) -> str:
    """Where a reading stands in the document; of one with several figures the first."""
    if isinstance(what, Slot):
        return readings_path(span.id, slot_path(span.readings, what))
    if what.kind == "across":
        return span_path(span.id, "checks", "across", what.id, "length")
    if what.kind == "corner":
        return span_path(span.id, "checks", "corners", what.id, "ahead")
    if what.kind == "bend on sheet":
        read = next((one for one in span.checks.sheet.bends if one.id == what.id), None)
        field = "height" if read and not read.beside.strip() else "beside"
        return span_path(span.id, "checks", "sheet", "bends", what.id, field)
    if what.kind == "sheet":
        return span_path(span.id, "checks", "sheet", "along")
    way_b = "port_b_angle" if span.readings.kind == "bends" else "way_b"
    fields = {"wire": "wire", "tape": "tape", "place B": "ahead", "way A": "way_a", "way B": way_b}
    return span_path(span.id, "checks", fields[what.kind])
