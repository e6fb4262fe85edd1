"""Lines: open, save as typed, undo and redo, delete and take that back, plan, convert, import."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from typing import TYPE_CHECKING, cast

from sqlalchemy.orm import Session

from bendrel.core.geometry.bends import BendList
from bendrel.core.line.condition import Condition
from bendrel.core.line.document import BendReadings, CornerReadings, CornerRow, Line, RigidSpan
from bendrel.core.line.edits.twin import twin_of
from bendrel.core.line.measured import measure
from bendrel.core.line.resolve import Resolved, resolve, taken_as
from bendrel.core.line.rewrite import Entry, with_shape
from bendrel.core.line.run import with_span
from bendrel.core.measure.legs import By
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.beginning import Beginning, begun
from bendrel.core.plan.model import Plan
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.starting import starting_line
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, is_blank
from bendrel.core.units.notation import Unit
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from bendrel.exchange.errors import FileError
from bendrel.services.errors import NotFound, Refused, Stale, check_name
from bendrel.services.present import present_job
from bendrel.services.readable import present_line, readable_lines
from bendrel.services.shelf.shelf import Shelf
from bendrel.services.shelf.tubes import tube_of
from bendrel.store.database import Database
from bendrel.store.lines import (
    add_line,
    find_line,
    kept_document,
    last_step,
    move_head,
    push_step,
    raw_document,
)
from bendrel.store.models import LineRow, now
from bendrel.store.stock import lying_mm

if TYPE_CHECKING:
    from bendrel.core.parts.bender import MarkStyle


@record
class OpenLine:
    """A stored line as opened: its document and what may be done next."""

    id: str
    job_id: str
    job_name: str
    version: int
    document: Line
    can_undo: bool
    can_redo: bool
    updated_at: datetime


LIKE_THE_OLD_ONE = Beginning()


class Lines:
    """Use cases on lines. Raises NotFound, Stale and Refused."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf

    @property
    def _kit(self) -> Kit:
        return self._shelf.kit

    def create(
        self,
        job_id: str,
        name: str,
        *,
        service: str = "brake",
        taken_in: Condition | None = None,
        begins: Beginning = LIKE_THE_OLD_ONE,
    ) -> OpenLine:
        """A new line with the usual choices and no readings yet, in the job's unit, as it begins; one like
        another takes that one's service, unit and readings."""
        check_name(name)
        if begins.like:
            source = self.open(begins.like).document
            return self.add(job_id, twin_of(source, name, mirror=begins.mirror))
        if service not in self._kit.services:
            raise Refused(f"The catalogue has no service “{service[:40]}”; choose one that is listed.")
        with self._database.reading() as session:
            unit: Unit = "mm" if present_job(session, job_id).unit == "mm" else "in"
            lying = set(lying_mm(session))
        marks = cast("MarkStyle", self._kit.preferences["marks"])
        line = starting_line(self._kit, name, service, unit, marks=marks, lying=lying)
        line = replace(begun(line, self._kit, begins), condition=taken_in or Condition())
        with self._database.writing() as session:
            job = present_job(session, job_id)
            return _opened(session, add_line(session, job, line_to_value(line)))

    def add(self, job_id: str, line: Line) -> OpenLine:
        """A line from a document, such as an imported file."""
        with self._database.writing() as session:
            job = present_job(session, job_id)
            return _opened(session, add_line(session, job, line_to_value(line)))

    def open(self, line_id: str) -> OpenLine:
        """One line."""
        with self._database.reading() as session:
            return _opened(session, _line(session, line_id))

    def of_same_job(self, line_id: str) -> tuple[Line, ...]:
        """The other lines of a line's job."""
        with self._database.reading() as session:
            row = _line(session, line_id)
            others = [other for other in row.job.lines if other.deleted_at is None and other.id != line_id]
            return tuple(line for _, line in readable_lines(session, others))

    def save(self, line_id: str, version: int, document: Line, *, signing: bool = False) -> OpenLine:
        """Keep `document` as the next step. A sign-off that is not there yet is given only in `signing`,
        where it was asked what stands in its way. Raises Stale when another save came first."""
        check_name(document.name)
        with self._database.writing() as session:
            row = _line(session, line_id)
            _check(session, row, version)
            value = line_to_value(document)
            stored = present_line(session, row)
            signed = document.proving.signed
            if not signing and signed is not None and signed != stored.proving.signed:
                raise Refused(
                    "A line is signed off in its stage Prove, where what is in the way is looked at."
                )
            if value != line_to_value(stored):
                push_step(session, row, value)
            return _opened(session, row)

    def undo(self, line_id: str, version: int) -> OpenLine:
        """Go one step back."""
        return self._step(line_id, version, -1)

    def redo(self, line_id: str, version: int) -> OpenLine:
        """Go one step forward again."""
        return self._step(line_id, version, 1)

    def delete(self, line_id: str, version: int | None = None) -> None:
        """Take a line off its job; `restore` brings it back. Raises Stale where it was saved since the
        `version` that was read."""
        with self._database.writing() as session:
            row = _line(session, line_id)
            if version is not None:
                _check(session, row, version)
            row.deleted_at = now()

    def restore(self, line_id: str) -> OpenLine:
        """Bring a deleted line back."""
        with self._database.writing() as session:
            row = find_line(session, line_id, deleted=True)
            if row is None:
                raise NotFound(f"There is no line “{line_id[:40]}”.")
            row.deleted_at = None
            return _opened(session, row)

    def as_kept(self, line_id: str) -> tuple[bytes, str]:
        """(what is kept of a line, as it is, readable or not; a name for the file)."""
        with self._database.reading() as session:
            row = _line(session, line_id)
            told = raw_document(session, line_id, row.head) or b""
        return told, f"line {line_id[:8]} as it is kept.json"

    def last_good(self, line_id: str) -> OpenLine:
        """Make the newest step that can be read the present one; what came after it stays to be redone.
        Raises Refused where there is none."""
        with self._database.writing() as session:
            row = _line(session, line_id)
            for seq in range(row.head, 0, -1):
                try:
                    line_from_value(kept_document(session, line_id, seq))
                except FileError:
                    continue
                move_head(row, seq)
                return _opened(session, row)
        raise Refused("No step of this line can be read; export it as it is, and restore a backup.")

    def plan(self, document: Line) -> Plan:
        """The plan of a document as typed; nothing is stored."""
        return plan_line(document, self._kit)

    def convert(self, document: Line, kind: Entry, span: str = "") -> Line:
        """The same shape of one tube in the other way of entry, blank for blank.

        Raises Refused while readings are unusable.
        """
        tube = tube_of(document, span).span
        readings = tube.readings
        if _is_blank(readings):
            return with_blank_readings(document, tube, kind)
        if isinstance(readings, BendReadings) and readings.copied:
            # the string's length says no shape: it stays as a check of the readings that follow
            wire = tube.checks.wire
            checks = replace(tube.checks, wire=readings.last if is_blank(wire) else wire)
            return with_blank_readings(document, replace(tube, checks=checks), kind)
        # what was read further goes on adjusting it: it must not be counted twice
        as_read = shape_or_refused(self._read(document, span)[1])
        return with_readings(document, tube, as_read, kind, self._kit)

    def shape(self, document: Line, name: str = "") -> BendList:
        """The shape that one tube of a document is made to: its readings as they are taken together. Raises
        Refused with the first problem."""
        span, read = self._read(document, name)
        taken = measure(span, self._kit, read.read).read
        return shape_or_refused(read if taken is None else taken_as(read, span.readings, taken))

    def _read(self, document: Line, name: str) -> tuple[RigidSpan, Resolved]:
        span = tube_of(document, name).span
        tube, bender = self._kit.tubes.get(span.tube), self._kit.tool(span.bender, span.tube)
        if tube is None or bender is None:
            raise Refused("Choose a tube and a bender first.")
        if _is_blank(span.readings):
            raise Refused("There are no readings yet.")
        return span, resolve(span.readings, od_mm=tube.od_mm, radius_mm=bender.radius)

    def _step(self, line_id: str, version: int, by: int) -> OpenLine:
        with self._database.writing() as session:
            row = _line(session, line_id)
            _check(session, row, version)
            wanted = row.head + by
            if not 1 <= wanted <= last_step(session, row):
                raise Refused("There is nothing to undo." if by < 0 else "There is nothing to redo.")
            move_head(row, wanted)
            return _opened(session, row)


def shape_or_refused(read: Resolved) -> BendList:
    """The shape of what was read. Raises Refused with the first problem where there is none."""
    if read.shape is None:
        raise Refused(f"Put the readings right first: {read.problems[0].message}")
    return read.shape


def with_blank_readings(line: Line, span: RigidSpan, kind: Entry) -> Line:
    """`line` with one tube ready for its first readings of one kind."""
    blank = Length(unit=line.unit)
    corner = CornerRow(x=blank, y=blank, z=blank)
    ways: dict[Entry, By] = {"wire": "wire", "alongside": "string"}
    bends = BendReadings(last=blank, last_by=ways.get(kind, "leg"), alongside=kind == "alongside")
    empty = CornerReadings(rows=(corner, corner)) if kind == "corners" else bends
    return with_span(line, replace(span, readings=empty))


def with_readings(line: Line, span: RigidSpan, shape: BendList, kind: Entry, kit: Kit) -> Line:
    """`line` with readings of one kind in one tube that say `shape`. Raises Refused."""
    bender = kit.tool(span.bender, span.tube)
    return with_shape(line, span, shape, kind, bender.radius if bender else None)


def _is_blank(readings: BendReadings | CornerReadings) -> bool:
    """Nothing has been typed yet."""
    if isinstance(readings, BendReadings):
        return not readings.rows and is_blank(readings.last)
    return all(is_blank(axis) for row in readings.rows for axis in (row.x, row.y, row.z))


def _opened(session: Session, row: LineRow) -> OpenLine:
    return OpenLine(
        id=row.id,
        job_id=row.job_id,
        job_name=row.job.name,
        version=row.version,
        document=present_line(session, row),
        can_undo=row.head > 1,
        can_redo=row.head < last_step(session, row),
        updated_at=row.updated_at,
    )


def _check(session: Session, row: LineRow, version: int) -> None:
    if row.version != version:
        raise Stale(
            "This line was saved elsewhere first; what you typed is still here.",
            row.version,
            line_to_value(present_line(session, row)),
        )


def _line(session: Session, line_id: str) -> LineRow:
    row = find_line(session, line_id)
    if row is None:
        raise NotFound(f"There is no line “{line_id[:40]}”; it may have been deleted.")
    return row
