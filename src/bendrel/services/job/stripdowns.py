"""Use cases on the strip-down that all lines of a job share."""

from __future__ import annotations

from typing import Any

from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.line.removal import PartToGet
from bendrel.core.line.strip_down import SharedStep, StripDown, parts_for, repeated_ids, steps_back, still_off
from bendrel.core.record import record
from bendrel.services.errors import Refused, Stale
from bendrel.services.present import present_job
from bendrel.store.database import Database
from bendrel.store.models import StripDownRow, now

_LOG: TypeAdapter[StripDown] = TypeAdapter(StripDown)


@record
class OpenStripDown:
    """A job's strip-down as kept: its version (0 before anything is written), the log, the way back, what
    is still off and what has to be bought."""

    job_id: str
    version: int
    log: StripDown
    back: tuple[SharedStep, ...]
    still_off: tuple[str, ...]
    parts: tuple[PartToGet, ...]


class StripDowns:
    """Use cases on strip-downs. Raises NotFound, Refused and Stale."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def of_job(self, job_id: str) -> OpenStripDown:
        """The strip-down of a job, empty where nothing was noted."""
        with self._database.reading() as session:
            present_job(session, job_id)
            return _opened(job_id, session.get(StripDownRow, job_id))

    def keep(self, job_id: str, version: int, log: StripDown) -> OpenStripDown:
        """Write the log down on the version that it was changed from."""
        twice = repeated_ids(log)
        if twice:
            raise Refused(f"Two things of the strip-down carry the id “{twice[0]}”; each needs its own.")
        with self._database.writing() as session:
            present_job(session, job_id)
            row = session.get(StripDownRow, job_id)
            kept = row.version if row else 0
            if kept != version:
                raise Stale(
                    "This strip-down was changed elsewhere; both are here.", kept, row.log if row else {}
                )
            return _opened(job_id, put_log(session, job_id, log))


def log_of(session: Session, job_id: str) -> StripDown:
    """The log of a job as it stands."""
    row = session.get(StripDownRow, job_id)
    return _LOG.validate_python(row.log) if row else StripDown()


def still_off_by_job(session: Session) -> dict[str, int]:
    """How much of each job's strip-down is not back on, by the job's id."""
    rows = session.scalars(select(StripDownRow))
    return {row.job_id: len(still_off(_LOG.validate_python(row.log))) for row in rows}


def put_log(session: Session, job_id: str, log: StripDown) -> StripDownRow:
    """Write a job's log, new or over the one that is there."""
    value: dict[str, Any] = _LOG.dump_python(log, mode="json")
    row = session.get(StripDownRow, job_id)
    if row is None:
        row = StripDownRow(job_id=job_id, version=1, log=value)
        session.add(row)
    else:
        row.log, row.version, row.updated_at = value, row.version + 1, now()
    return row


def _opened(job_id: str, row: StripDownRow | None) -> OpenStripDown:
    log = _LOG.validate_python(row.log) if row else StripDown()
    return OpenStripDown(
        job_id=job_id,
        version=row.version if row else 0,
        log=log,
        back=steps_back(log),
        still_off=still_off(log),
        parts=parts_for(log),
    )
