"""Jobs: the bench board, creating, renaming, deleting and taking that back."""

from __future__ import annotations

import logging
from datetime import date, datetime
from threading import Event, Lock, Thread
from time import monotonic
from typing import Annotated, NamedTuple

from annotated_types import MaxLen, MinLen
from pydantic import TypeAdapter
from sqlalchemy.exc import SQLAlchemyError

from bendrel.core.line.condition import Urgency
from bendrel.core.line.document import Name
from bendrel.core.line.strip_down import still_off
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.services.errors import Busy, NoRoom, NotFound, Stale, check_name
from bendrel.services.job.stripdowns import log_of, still_off_by_job
from bendrel.services.present import present_job
from bendrel.services.reckoned.reckoner import Reckoner
from bendrel.services.reckoned.summaries import Summaries, unsaid_of
from bendrel.services.reckoned.summarising import LineSummary, Unsaid, said_of
from bendrel.services.shelf.shelf import Shelf
from bendrel.store.database import Database
from bendrel.store.jobs import find_job, present_jobs
from bendrel.store.lines import LineAt, lines_at
from bendrel.store.models import Job, now

log = logging.getLogger("bendrel")

PATIENCE_S = 0.25
"""So long the board is held up to say what it does not know yet."""
MOST_SOON = 40
"""With more lines than that lacking, none is worked out while somebody waits."""
EVERY_S = 0.5
"""So often the board is written anew while lines are worked out behind."""


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


_BOARD = TypeAdapter(tuple[JobSummary, ...])


class _Written(NamedTuple):
    """The board as JSON: at which change and by which rules, with how much said, and when."""

    at: tuple[int, str]
    said: int
    when: float
    data: bytes


class Jobs:
    """Use cases on jobs. Raises NotFound, Refused and Stale."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf
        self._summaries = Summaries(database, shelf)
        self._reckoner = Reckoner(database, shelf, self._summaries)
        self._written = _Written((-1, ""), -1, 0.0, b"")
        self._writing = Lock()
        self._anew = Event()
        self.patience_s = PATIENCE_S

    def board(self) -> tuple[JobSummary, ...]:
        """All jobs by what happens next: a line off the road first, then the nearest promise, then
        the one touched last; the parked ones after them. What is not known yet is worked out while somebody
        waits as far as that is soon done, and else in the background: the line says so."""
        with self._database.reading() as session:
            jobs = present_jobs(session)
            there = {job.id for job in jobs}
            lines = [line for line in lines_at(session) if line.job_id in there]
            off = still_off_by_job(session)
        told = self._told(lines)
        summaries = (_summary(job, told.get(job.id, []), off.get(job.id, 0)) for job in jobs)
        return tuple(sorted(summaries, key=_turn))

    def written_board(self) -> bytes:
        """The board as JSON, written once for all who look, until something changes. What is worked out
        behind comes line by line: who looks need not see each, and does not wait for it to be written."""
        was = self._written
        if was.at == self._at():
            if (
                was.said != self._summaries.count
                and monotonic() - was.when >= EVERY_S
                and not self._anew.is_set()
            ):
                self._anew.set()
                Thread(target=self._write_anew, name="board", daemon=True).start()
            return was.data
        with self._writing:
            if self._written.at != self._at():
                self._write()
            return self._written.data

    def _at(self) -> tuple[int, str]:
        """What the board is of: the changes that were kept, and the rules."""
        return self._database.changes, self._summaries.stamp

    def _write(self) -> None:
        at, said = self._at(), self._summaries.count
        self._written = _Written(at, said, monotonic(), _BOARD.dump_json(self.board()))

    def _write_anew(self) -> None:
        try:
            with self._writing:
                self._write()
        except (Busy, NoRoom, SQLAlchemyError) as error:
            log.info("The board was not written anew: %s", type(error).__name__)
        finally:
            self._anew.clear()

    def one(self, job_id: str) -> JobSummary:
        """One job with its lines."""
        with self._database.reading() as session:
            job = present_job(session, job_id)
            lines = lines_at(session, job_id)
            off = len(still_off(log_of(session, job_id)))
        return _summary(job, self._told(lines).get(job_id, []), off)

    def end(self) -> None:
        """Work out no more in the background."""
        self._reckoner.end()

    def _told(self, lines: list[LineAt]) -> dict[str, list[LineSummary]]:
        """What is said of some lines, by job."""
        with self._database.reading() as session:
            lacking = self._summaries.lacking(session, lines)
            lacking.sort(key=lambda line: line.updated_at, reverse=True)
            few = lacking if len(lacking) <= MOST_SOON else []
            soon = [unsaid_of(session, line) for line in few]
        if lacking:
            done = self._say({one.id: one for one in soon if not one.long})
            self._reckoner.want([line for line in lacking if line.id not in done])
        found: dict[str, list[LineSummary]] = {}
        stamp = self._summaries.stamp
        with self._database.reading() as session:
            for line in lines:
                found.setdefault(line.job_id, []).append(self._summaries.told(line, stamp, session))
        return found

    def _say(self, soon: dict[str, Unsaid]) -> set[str]:
        """Work out what patience allows, outside any transaction; returns the lines that it was enough
        for. That they cannot be written down costs only the next start its time."""
        until, stamp = monotonic() + self.patience_s, self._summaries.stamp
        said: dict[str, LineSummary] = {}
        for line_id, unsaid in soon.items():
            if monotonic() >= until:
                break
            said[line_id] = said_of(unsaid, self._shelf.kit)
        try:
            self._summaries.keep(stamp, [soon[line_id] for line_id in said], list(said.values()))
        except (Busy, NoRoom) as error:
            log.info("The board's summaries were not written down: %s", error)
        return set(said)

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
            _check(job, version)
            job.name, job.machine, job.unit = draft.name, draft.machine, draft.unit
            job.customer, job.promised = draft.customer, draft.promised
            job.parked, job.tried = draft.parked.strip(), draft.tried.strip()
            job.version += 1
            job.updated_at = now()
        return self.one(job_id)

    def delete(self, job_id: str, version: int | None = None) -> None:
        """Take a job off the board; `restore` brings it back with its lines. Raises Stale where it was
        changed since the `version` that was read."""
        with self._database.writing() as session:
            job = present_job(session, job_id)
            if version is not None:
                _check(job, version)
            job.deleted_at = now()

    def restore(self, job_id: str) -> JobSummary:
        """Bring a deleted job back."""
        with self._database.writing() as session:
            job = find_job(session, job_id, deleted=True)
            if job is None:
                raise NotFound(f"There is no job “{job_id}”.")
            job.deleted_at = None
        return self.one(job_id)


def _check(job: Job, version: int) -> None:
    if job.version == version:
        return
    raise Stale(
        "This job was changed elsewhere; your text is still here, look at both.",
        job.version,
        {
            "name": job.name,
            "machine": job.machine,
            "unit": job.unit,
            "customer": job.customer,
            "promised": job.promised and job.promised.isoformat(),
            "parked": job.parked,
            "tried": job.tried,
        },
    )


def _summary(job: Job, told: list[LineSummary], off: int) -> JobSummary:
    lines = sorted(told, key=lambda line: (line.done, _URGENCIES.index(line.urgency), line.rank))
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
