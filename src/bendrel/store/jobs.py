"""Reading and writing jobs."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.store.models import BookingRow, Job


def present_jobs(session: Session) -> list[Job]:
    """All jobs that are not deleted, the one touched last first."""
    found = session.scalars(
        select(Job).where(Job.deleted_at.is_(None)).order_by(Job.updated_at.desc(), Job.name)
    )
    return list(found)


def find_job(session: Session, job_id: str, *, deleted: bool = False) -> Job | None:
    """One job by id; a deleted one only when asked for."""
    job = session.get(Job, job_id)
    return job if job is not None and (job.deleted_at is None or deleted) else None


def find_booking(session: Session, booking_id: str) -> BookingRow | None:
    """One booking by id, deleted or not."""
    return session.get(BookingRow, booking_id)
