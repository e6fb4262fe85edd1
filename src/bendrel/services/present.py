"""The job that a request names, which must be there."""

from __future__ import annotations

from sqlalchemy.orm import Session

from bendrel.services.errors import NotFound
from bendrel.store.jobs import find_job
from bendrel.store.models import Job


def present_job(session: Session, job_id: str) -> Job:
    """A job that is not deleted. Raises NotFound."""
    job = find_job(session, job_id)
    if job is None:
        raise NotFound(f"There is no job “{job_id[:40]}”; it may have been deleted.")
    return job
