"""Use cases on whole jobs as files: out with everything, in again as a job of its own."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import fields, replace
from typing import Any, NamedTuple, cast

from pydantic import TypeAdapter
from sqlalchemy import select

from bendrel.core.bend.bench.state import MakingState, Outcome
from bendrel.core.line.document import Line, Port
from bendrel.core.line.removal import RemovedItem
from bendrel.core.line.signed import signed_as_before
from bendrel.core.line.strip_down import SharedItem, StripDown
from bendrel.core.record import record
from bendrel.exchange.documents.archive import (
    ArchivedBooking,
    ArchivedJob,
    ArchivedMaking,
    ArchivedSharedItem,
    read_archive,
    write_archive,
)
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from bendrel.exchange.errors import FileError
from bendrel.services.errors import NotFound
from bendrel.services.job.bookings import Account
from bendrel.services.job.photos import Photos, photos_of
from bendrel.services.job.stripdowns import log_of, put_log
from bendrel.services.kept.archived_runs import check_runs, new_run_ids, runs_in, runs_out, with_runs
from bendrel.services.present import present_job
from bendrel.services.readable import readable_lines
from bendrel.services.reckoned.apart import READING, apart
from bendrel.services.shelf.own_rows import called_here, check_own, keep_own, named_own, renamed, trials_of
from bendrel.services.shelf.shelf import Shelf
from bendrel.store.database import Database
from bendrel.store.lines import add_line, raw_document
from bendrel.store.models import BookingRow, Job, MakingRow, new_id


@record
class BroughtIn:
    """What an archive was understood as; `job_id` is set once it has been kept."""

    name: str
    machine: str
    lines: tuple[str, ...]
    photos: int
    missing_photos: int
    bookings: int
    makings: int
    own: tuple[str, ...]
    job_id: str | None


class Written(NamedTuple):
    """A job's file: its bytes, the job's name, how many photographs are missing from it, and how many lines
    could not be read and lie in it as they are kept."""

    data: bytes
    name: str
    missing_photos: int
    unreadable: int


BYTES_A_SECOND = 20_000_000
"""A large archive is given more time to be read than a small one."""


Readings = dict[str, list[tuple[float, float, float]]]


def unpacked(data: bytes) -> tuple[ArchivedJob, dict[str, bytes], Readings]:
    """A job, its photographs and the readings of its runs, checked against each other. Raises FileError."""
    job, beside = read_archive(data)
    readings = check_runs(job, beside.runs)
    check_makings(job)
    check_line_ids(job)
    return job, beside.photos, readings


class Archives:
    """Use cases on job archives. Raises NotFound and FileError."""

    def __init__(self, database: Database, photos: Photos, shelf: Shelf) -> None:
        self._database = database
        self._photos = photos
        self._shelf = shelf

    def write(self, job_id: str) -> Written:
        """A job as a zip, and what could not come with it."""
        with self._database.reading() as session:
            job = present_job(session, job_id)
            there = [row for row in job.lines if row.deleted_at is None]
            found = list(readable_lines(session, there))
            rows, lines = [row for row, _ in found], tuple(line for _, line in found)
            unreadable = {
                row.id: raw_document(session, row.id, row.head) or b"" for row in there if row not in rows
            }
            makings = tuple(
                archived_making(place, making)
                for place, row in enumerate(rows)
                for making in session.scalars(
                    select(MakingRow).where(MakingRow.line_id == row.id).order_by(MakingRow.at)
                )
            )
            runs, readings = runs_out(session, [row.id for row in rows])
            own = named_own(session, [*lines, *(making.document for making in makings)])
            archived = ArchivedJob(
                name=job.name,
                machine=job.machine,
                customer=job.customer,
                promised=job.promised,
                parked=job.parked,
                tried=job.tried,
                unit="mm" if job.unit == "mm" else "in",
                lines=lines,
                line_ids=tuple(row.id for row in rows),
                bookings=tuple(_booking(row) for row in job.bookings if row.deleted_at is None),
                makings=makings,
                own=own,
                trials=trials_of(session, own),
                strip_down=archived_strip_down(log_of(session, job_id), [row.id for row in rows]),
                runs=runs,
                unreadable=tuple(unreadable),
            )
        photos: dict[str, bytes] = {}
        missing = []
        for name in sorted(photos_in(archived)):
            try:
                photos[name] = self._photos.path(name).read_bytes()
            except NotFound:
                missing.append(name)
        archived = replace(archived, missing_photos=tuple(missing))
        return Written(
            data=write_archive(archived, photos, readings, unreadable),
            name=archived.name,
            missing_photos=len(missing),
            unreadable=len(unreadable),
        )

    def read(self, data: bytes, *, keep: bool) -> BroughtIn:
        """What an archive holds; with `keep` it becomes a job, whole or not at all."""
        bounds = replace(READING, seconds=READING.seconds + len(data) / BYTES_A_SECOND, megabytes=280)
        job, photos, readings = apart(bounds, unpacked, data)
        new = check_own(self._shelf.kit, job)
        wanted = photos_in(job)
        present = {name: photos[name] for name in wanted if name in photos}
        job_id: str | None = None
        if keep:
            read = self._photos.read_all(list(present.values()))  # all of them, before any is kept
            names = {
                name: self._photos.put_down(picture).id for name, picture in zip(present, read, strict=True)
            }
            job_id = self._keep(job, names, readings)
            self._shelf.read_anew()
        return BroughtIn(
            name=job.name,
            machine=job.machine,
            lines=tuple(line.name for line in job.lines),
            photos=len(present),
            missing_photos=len(wanted) - len(present),
            bookings=len(job.bookings),
            makings=len(job.makings),
            own=new,
            job_id=job_id,
        )

    def _keep(
        self, job: ArchivedJob, names: dict[str, str], readings: dict[str, list[tuple[float, float, float]]]
    ) -> str:
        with self._database.reading() as session:
            own = called_here(session, job)

        def here(line: Line) -> dict[str, Any]:
            value: dict[str, Any] = renamed(
                line_to_value(with_photos(line, lambda name: names.get(name, ""))), own
            )
            return line_to_value(signed_as_before(line_from_value(value), line))

        ids = {name: new_id() for name in job.line_ids}
        run_ids = new_run_ids(job)
        new = [ids.get(name) for name in job.line_ids] or [None] * len(job.lines)

        def anew(line: Line) -> Line:
            """The line with the job's other lines and its runs under their new ids."""
            return signed_as_before(with_runs(joined_anew(line, ids), run_ids), line)

        # all that takes time is done before the lock is taken
        documents = [here(anew(line)) for line in job.lines]
        made = [here(making.document) for making in job.makings]
        with self._database.writing() as session:
            row = Job(
                name=job.name,
                machine=job.machine,
                customer=job.customer,
                promised=job.promised,
                parked=job.parked,
                tried=job.tried,
                unit=job.unit,
            )
            session.add(row)
            session.flush()
            keep_own(session, job, own)
            kept = [
                add_line(session, row, document, name) for document, name in zip(documents, new, strict=True)
            ]
            log = strip_down_of(job, [line.id for line in kept], names)
            if log.items:
                put_log(session, row.id, log)
            for making, document in zip(job.makings, made, strict=True):
                session.add(making_row(kept[making.line].id, making, document))
            runs_in(session, job, [line.id for line in kept], run_ids, readings)
            for booking in job.bookings:
                row.bookings.append(
                    BookingRow(
                        account=booking.account,
                        what=booking.what,
                        minutes=booking.minutes,
                        material_cents=booking.material_cents,
                        at=booking.at.replace(tzinfo=None),
                    )
                )
            return row.id


_STATE: TypeAdapter[MakingState] = TypeAdapter(MakingState)


def archived_making(place: int, row: MakingRow) -> ArchivedMaking:
    """A making as it is written."""
    return ArchivedMaking(
        line=place,
        span=row.span,
        document=line_from_value(row.document),
        state=_STATE.validate_python(row.state),
        outcome=cast(Outcome, row.outcome),
        at=row.at,
        ended_at=row.ended_at,
    )


def making_row(line_id: str, making: ArchivedMaking, document: dict[str, Any]) -> MakingRow:
    """A making brought in. Its readings are another hand's: they are kept beside the plan and do not
    count for this shop's spread."""
    return MakingRow(
        line_id=line_id,
        span=making.span,
        document=document,
        state=_STATE.dump_python(making.state, mode="json"),
        departures=[],
        outcome=making.outcome,
        at=making.at.replace(tzinfo=None),
        ended_at=None if making.ended_at is None else making.ended_at.replace(tzinfo=None),
    )


def check_makings(job: ArchivedJob) -> None:
    """Raises FileError for a making of a line that is not in the archive."""
    for making in job.makings:
        if making.line >= len(job.lines):
            raise FileError(f"A making belongs to line {making.line + 1}, and the job has {len(job.lines)}.")


def check_line_ids(job: ArchivedJob) -> None:
    """Raises FileError where the names of the lines are not one for each."""
    if job.line_ids and (len(job.line_ids) != len(job.lines) or len(set(job.line_ids)) != len(job.line_ids)):
        raise FileError(f"The job has {len(job.lines)} lines and {len(set(job.line_ids))} names for them.")


def archived_strip_down(log: StripDown, lines: list[str]) -> tuple[ArchivedSharedItem, ...]:
    """A job's strip-down as it is written: its lines by their place, those that are gone left out."""
    return tuple(
        ArchivedSharedItem(
            item=RemovedItem(**{field.name: getattr(item, field.name) for field in fields(RemovedItem)}),
            lines=tuple(lines.index(line) for line in item.lines if line in lines),
        )
        for item in log.items
    )


def strip_down_of(job: ArchivedJob, lines: list[str], photos: dict[str, str]) -> StripDown:
    """The strip-down of a job that was brought in, for the lines that it has here. Raises FileError for one
    of a line that is not in the archive."""
    found = []
    for number, shared in enumerate(job.strip_down, start=1):
        if any(place >= len(lines) for place in shared.lines):
            raise FileError(f"Thing {number} of the strip-down belongs to a line that the job does not have.")
        own = {field.name: getattr(shared.item, field.name) for field in fields(RemovedItem)}
        own["photo"] = photos.get(shared.item.photo, "")
        found.append(SharedItem(id=new_id(), lines=tuple(lines[place] for place in shared.lines), **own))
    return StripDown(items=tuple(found))


def photos_in(job: ArchivedJob) -> set[str]:
    """The photographs that a job speaks of."""
    named = {name for line in job.lines for name in photos_of(line)}
    return named | {shared.item.photo for shared in job.strip_down if shared.item.photo}


def with_photos(line: Line, name: Callable[[str], str]) -> Line:
    """`line` with every photograph renamed."""
    condition = replace(
        line.condition,
        damage=tuple(replace(item, photo=name(item.photo)) for item in line.condition.damage),
        fixtures=tuple(replace(item, photo=name(item.photo)) for item in line.condition.fixtures),
    )
    items = tuple(replace(item, photo=name(item.photo)) for item in line.removal.items)
    photos = tuple(found for one in line.proving.photos if (found := name(one)))
    return replace(
        line,
        condition=condition,
        removal=replace(line.removal, items=items),
        proving=replace(line.proving, photos=photos),
    )


def joined_anew(line: Line, ids: Mapping[str, str]) -> Line:
    """`line` with the other lines of its job under their new ids; one that is not there keeps its name,
    and the circuit says so."""

    def port(at: Port) -> Port:
        return at if at.on is None else replace(at, on=replace(at.on, line=ids.get(at.on.line, at.on.line)))

    return replace(line, port_a=port(line.port_a), port_b=port(line.port_b))


def _booking(row: BookingRow) -> ArchivedBooking:
    return ArchivedBooking(
        account=cast(Account, row.account),
        what=row.what,
        minutes=row.minutes,
        material_cents=row.material_cents,
        at=row.at,
    )
