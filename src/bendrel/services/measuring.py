"""Use cases on readings: who is to blame for a check, copies of other lines, another radius."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from annotated_types import MaxLen

from bendrel.core.findings import EndName
from bendrel.core.lengths import Length
from bendrel.core.line.document import BendReadings, CornerReadings, Line
from bendrel.core.line.measured import given_checks, measure, reading_errors
from bendrel.core.line.mirror import mirrored
from bendrel.core.line.references import without_bends
from bendrel.core.line.resolve import Resolved, resolve
from bendrel.core.line.rewrite import computed_length
from bendrel.core.measuring.culprits import Given, suspects
from bendrel.core.measuring.explain import name_of, slip_of
from bendrel.core.record import record
from bendrel.core.shape.bends import ShapeError
from bendrel.core.shape.copies import extended, neighbour
from bendrel.core.shape.reradius import Reradius, reradius
from bendrel.core.shop.kit import Kit
from bendrel.core.units import UnitError, format_angle, format_length, parse_length, parse_plane
from bendrel.services.errors import Refused
from bendrel.services.lines import with_readings

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


def name_suspects(document: Line, kit: Kit) -> tuple[Named, ...]:
    """The readings to read again first; nothing while all checks agree."""
    read = _resolved(document, kit)
    if read is None or read.read is None or not measure(document, kit, read.read).disagree:
        return ()
    given, _ = given_checks(document)
    if given == Given():
        return ()
    try:
        found = suspects(read.read, given, reading_errors(kit))
    except ShapeError:
        return ()
    return tuple(
        Named(
            path=f"/spans/0/readings{suspect.slot.path}",
            name=name_of(read.read, suspect.slot),
            change=_change(suspect.change, suspect.slot.kind, document),
            slip=slip_of(read.read, suspect, kit.limits["slip_mm"].value, kit.limits["slip_deg"].value),
        )
        for suspect in found
    )


def _change(change: float, kind: str, document: Line) -> str:
    size = format_length(abs(change), document.unit) if kind == "length" else format_angle(abs(change))
    return f"{size} {'more' if change > 0 else 'less'}"


def copy_line(document: Line, source: Line, order: CopyOrder, kit: Kit) -> tuple[Line, str]:
    """`document` with the readings of `source` copied as ordered, and what was done in words.
    Raises Refused."""
    made = without_bends(document)
    if order.choices:
        span = replace(source.spans[0], readings=document.spans[0].readings)
        made = replace(
            made,
            service=source.service,
            end_a=replace(source.end_a, proved=False),
            end_b=replace(source.end_b, proved=False),
            spans=(span,),
        )
    words = {"mirror": "mirror image", "neighbour": "neighbour", "same": "copy"}[order.how]
    said = f"{words} of “{source.name}”"
    if order.how == "neighbour":
        made = _beside(made, source, order, kit)
        said += f", {order.spacing.strip()} beside it at {order.clock.strip()}"
    else:
        readings = source.spans[0].readings
        readings = mirrored(readings) if order.how == "mirror" else readings
        made = replace(made, spans=(replace(made.spans[0], readings=readings),))
    if order.longer.strip():
        made = _longer(made, order, kit)
        said += f", end {order.end} {order.longer.strip()} longer"
    return made, said


def _beside(made: Line, source: Line, order: CopyOrder, kit: Kit) -> Line:
    read = _resolved(source, kit)
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
        raise Refused(str(error)) from error
    return with_readings(made, shape, "bends", kit)


def _longer(made: Line, order: CopyOrder, kit: Kit) -> Line:
    """The end leg alone is changed, so that every other reading stays as it was typed."""
    try:
        by = parse_length(order.longer, made.unit, "any")
    except UnitError as error:
        raise Refused(f"Longer: {error}") from error
    read = _resolved(made, kit)
    if read is None or read.shape is None:
        raise Refused("The copied readings cannot be read; put the other line right first.")
    try:
        shape = extended(read.shape, order.end, by)
    except ShapeError as error:
        raise Refused(str(error)) from error
    readings = made.spans[0].readings
    simple = isinstance(readings, BendReadings) and all(row.by == "leg" for row in readings.rows)
    if not simple or isinstance(readings, CornerReadings) or readings.last_by == "wire":
        return with_readings(made, shape, "bends", kit)
    if order.end == "A" and readings.rows:
        first = replace(readings.rows[0], length=_added(read, "/rows/0/length", by, made))
        changed = replace(readings, rows=(first, *readings.rows[1:]))
    else:
        changed = replace(readings, last=_added(read, "/last", by, made))
    return replace(made, spans=(replace(made.spans[0], readings=changed),))


def _added(read: Resolved, path: str, by: float, line: Line) -> Length:
    return computed_length(read.lengths_mm[path] + by, line.unit)


def rebuild(document: Line, radius: str, kit: Kit) -> Rebuilt:
    """The line with `radius`, or with its bender's own where that is blank. Raises Refused."""
    read = _resolved(document, kit)
    if read is None or read.shape is None:
        raise Refused("Put the readings right first; the old line is not known yet.")
    bender = kit.tool(document.spans[0].bender, document.spans[0].tube)
    if bender is None:
        raise Refused("Choose a bender first.")
    wanted = bender.radius_mm
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
    kept = document if same else without_bends(document)
    return Rebuilt(document=with_readings(kept, result.shape, "bends", kit), result=result)


def _resolved(document: Line, kit: Kit) -> Resolved | None:
    span = document.spans[0]
    tube, bender = kit.tubes.get(span.tube), kit.tool(span.bender, span.tube)
    if tube is None or bender is None:
        return None
    return resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius_mm)
