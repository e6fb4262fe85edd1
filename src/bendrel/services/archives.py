"""Use cases on whole jobs as files: out with everything, in again as a job of its own."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import cast

from bendrel.core.line.document import Line
from bendrel.core.record import record
from bendrel.exchange.archive import ArchivedBooking, ArchivedJob, read_archive, write_archive
from bendrel.exchange.documents import line_from_value, line_to_value
from bendrel.services.bookings import Account
from bendrel.services.errors import NotFound
from bendrel.services.photos import Photos, photos_of
from bendrel.store.database import Database
from bendrel.store.jobs import find_job
from bendrel.store.lines import add_line, document_at
from bendrel.store.models import BookingRow, Job


@record
class BroughtIn:
    """What an archive was understood as; `job_id` is set once it has been kept."""

    name: str
    machine: str
    lines: tuple[str, ...]
    photos: int
    missing_photos: int
    bookings: int
    job_id: str | None


class Archives:
    """Use cases on job archives. Raises NotFound and FileError."""

    def __init__(self, database: Database, photos: Photos) -> None:
        self._database = database
        self._photos = photos

    def write(self, job_id: str) -> tuple[bytes, str]:
        """(zip, name of the job)."""
        with self._database.session() as session:
            job = find_job(session, job_id)
            if job is None:
                raise NotFound(f"There is no job “{job_id[:40]}”; it may have been deleted.")
            lines = tuple(
                line_from_value(document_at(session, row, row.head))
                for row in job.lines
                if row.deleted_at is None
            )
            archived = ArchivedJob(
                name=job.name,
                machine=job.machine,
                customer=job.customer,
                promised=job.promised,
                unit="mm" if job.unit == "mm" else "in",
                lines=lines,
                bookings=tuple(_booking(row) for row in job.bookings if row.deleted_at is None),
            )
        photos: dict[str, bytes] = {}
        for line in lines:
            for name in photos_of(line):
                try:
                    photos[name] = self._photos.path(name).read_bytes()
                except NotFound:
                    continue
        return write_archive(archived, photos), archived.name

    def read(self, data: bytes, *, keep: bool) -> BroughtIn:
        """What an archive holds; with `keep` it becomes a job, whole or not at all."""
        job, photos = read_archive(data)
        wanted = {name for line in job.lines for name in photos_of(line)}
        present = {name: photos[name] for name in wanted if name in photos}
        job_id: str | None = None
        if keep:
            names = {name: self._photos.keep(picture).id for name, picture in present.items()}
            job_id = self._keep(job, names)
        return BroughtIn(
            name=job.name,
            machine=job.machine,
            lines=tuple(line.name for line in job.lines),
            photos=len(present),
            missing_photos=len(wanted) - len(present),
            bookings=len(job.bookings),
            job_id=job_id,
        )

    def _keep(self, job: ArchivedJob, names: dict[str, str]) -> str:
        with self._database.session() as session:
            row = Job(
                name=job.name,
                machine=job.machine,
                customer=job.customer,
                promised=job.promised,
                unit=job.unit,
            )
            session.add(row)
            session.flush()
            for line in job.lines:
                named = with_photos(line, lambda name: names.get(name, ""))
                add_line(session, row, line_to_value(named))
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


def with_photos(line: Line, name: Callable[[str], str]) -> Line:
    """`line` with every photograph renamed."""
    condition = replace(
        line.condition,
        damage=tuple(replace(item, photo=name(item.photo)) for item in line.condition.damage),
        fixtures=tuple(replace(item, photo=name(item.photo)) for item in line.condition.fixtures),
    )
    items = tuple(replace(item, photo=name(item.photo)) for item in line.removal.items)
    return replace(line, condition=condition, removal=replace(line.removal, items=items))


def _booking(row: BookingRow) -> ArchivedBooking:
    return ArchivedBooking(
        account=cast(Account, row.account),
        what=row.what,
        minutes=row.minutes,
        material_cents=row.material_cents,
        at=row.at,
    )
