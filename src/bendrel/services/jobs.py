"""Jobs: the bench board, creating, renaming, deleting and taking that back."""

from __future__ import annotations

import logging
from datetime import date, datetime
from typing import Annotated

from annotated_types import MaxLen, MinLen
from sqlalchemy import select

from bendrel.core.line.document import Name
from bendrel.core.record import record
from bendrel.core.removal.stripdown import still_off
from bendrel.core.repair.condition import Urgency
from bendrel.core.units import Unit
from bendrel.services.errors import Busy, NotFound, Stale, check_name
from bendrel.services.present import present_job
from bendrel.services.shelf import Shelf
from bendrel.services.stripdowns import log_of, still_off_by_job
from bendrel.services.summaries import LineSummary, Summaries, Unsaid
from bendrel.store.database import Database
from bendrel.store.jobs import find_job, present_jobs
from bendrel.store.models import Job, LineRow, now

log = logging.getLogger("bendrel")


@record
class JobDraft:
    """What a person says of a job. `parked` is what it waits for, blank while it is worked on; `tried` what
    was done about it until then."""

    name: Name
    machine: Annotated[str, MaxLen(200)] = ""
    unit: Unit = "in"
    customer: Annotated[str, MaxLen(200)] = ""
    promised: date | None = None
    parked: Annotated[str, MaxLen(200)] = ""
    tried: Annotated[str, MaxLen(500)] = ""


@record
class JobSummary:
    """A job with its lines; `still_off` counts what of its strip-down is not back on."""

    id: str
    name: Annotated[str, MinLen(1)]
    machine: str
    customer: str
    promised: date | None
    parked: str
    tried: str
    unit: Unit
    version: int
    lines: tuple[LineSummary, ...]
    still_off: int
    updated_at: datetime


class Jobs:
    """Use cases on jobs. Raises NotFound, Refused and Stale."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._summaries = Summaries(shelf)

    def board(self) -> tuple[JobSummary, ...]:
        """All jobs by what happens next: a line off the road first, then the nearest promise, then
        the one touched last; the parked ones after them."""
        with self._database.reading() as session:
            present = present_jobs(session)
            unsaid = self._summaries.lacking(session, (row for job in present for row in _lines(job)))
            off = still_off_by_job(session)
        self._say(unsaid)
        return tuple(sorted((self._summary(job, off.get(job.id, 0)) for job in present), key=_turn))

    def one(self, job_id: str) -> JobSummary:
        """One job with its lines."""
        with self._database.reading() as session:
            job = present_job(session, job_id)
            unsaid = self._summaries.lacking(session, _lines(job))
            off = len(still_off(log_of(session, job_id)))
        self._say(unsaid)
        return self._summary(job, off)

    def _say(self, unsaid: list[Unsaid]) -> None:
        """Work out what the board lacks, then write it down; that it cannot be written down costs only the
        next start its time."""
        rows = self._summaries.work_out(unsaid)
        if not rows:
            return
        try:
            with self._database.writing() as session:
                present = set(session.scalars(select(LineRow.id)))
                for row in rows:
                    if row.line_id in present:
                        session.merge(row)
        except Busy as error:
            log.info("The board's summaries were not written down: %s", error)

    def create(self, draft: JobDraft) -> JobSummary:
        """A new job without lines."""
        check_name(draft.name)
        with self._database.writing() as session:
            job = Job(
                name=draft.name,
                machine=draft.machine,
                unit=draft.unit,
                customer=draft.customer,
                promised=draft.promised,
                parked=draft.parked.strip(),
                tried=draft.tried.strip(),
            )
            session.add(job)
            session.flush()
            job_id = job.id
        return self.one(job_id)

    def change(self, job_id: str, version: int, draft: JobDraft) -> JobSummary:
        """Rename a job or change its machine or unit."""
        check_name(draft.name)
        with self._database.writing() as session:
            job = present_job(session, job_id)
            if job.version != version:
                raise Stale(
                    "This job was changed elsewhere; your text is still here, look at both.",
                    job.version,
                    {
                        "name": job.name,
                        "machine": job.machine,
                        "customer": job.customer,
                        "parked": job.parked,
                        "tried": job.tried,
                    },
                )
            job.name, job.machine, job.unit = draft.name, draft.machine, draft.unit
            job.customer, job.promised = draft.customer, draft.promised
            job.parked, job.tried = draft.parked.strip(), draft.tried.strip()
            job.version += 1
            job.updated_at = now()
        return self.one(job_id)

    def delete(self, job_id: str) -> None:
        """Take a job off the board; `restore` brings it back with its lines."""
        with self._database.writing() as session:
            present_job(session, job_id).deleted_at = now()

    def restore(self, job_id: str) -> JobSummary:
        """Bring a deleted job back."""
        with self._database.writing() as session:
            job = find_job(session, job_id, deleted=True)
            if job is None:
                raise NotFound(f"There is no job “{job_id}”.")
            job.deleted_at = None
        return self.one(job_id)

    def _summary(self, job: Job, off: int) -> JobSummary:
        return _summary(job, {row.id: self._summaries.told(row.id) for row in _lines(job)}, off)


def _lines(job: Job) -> list[LineRow]:
    return [row for row in job.lines if row.deleted_at is None]


def _summary(job: Job, told: dict[str, LineSummary], off: int) -> JobSummary:
    lines = [told[row.id] for row in _lines(job)]
    lines.sort(key=lambda line: (line.done, _URGENCIES.index(line.urgency), line.rank))
    return JobSummary(
        id=job.id,
        name=job.name,
        machine=job.machine,
        customer=job.customer,
        promised=job.promised,
        parked=job.parked,
        tried=job.tried,
        unit="mm" if job.unit == "mm" else "in",
        version=job.version,
        lines=tuple(lines),
        still_off=off,
        updated_at=job.updated_at,
    )


_URGENCIES: tuple[Urgency, ...] = ("off the road", "soon", "can wait")


def _turn(job: JobSummary) -> tuple[bool, bool, date]:
    waiting = any(line.urgency == "off the road" and not line.done for line in job.lines)
    return bool(job.parked), not waiting, job.promised or date.max
