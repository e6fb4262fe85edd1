"""Jobs and the bench board."""

from __future__ import annotations

from fastapi import Response

from bendrel.api.rooms import room
from bendrel.api.schemas import JobChange, NewLine, StripDownChange
from bendrel.api.state import IfAt, Services
from bendrel.core.line.condition import Condition
from bendrel.services.job.bookings import BookingDraft, Ledger
from bendrel.services.job.circuits import JobCircuits
from bendrel.services.job.jobs import JobDraft, JobSummary
from bendrel.services.job.stripdowns import OpenStripDown
from bendrel.services.line.lines import OpenLine

router = room("/api/jobs", "jobs")


@router.get("", response_model=tuple[JobSummary, ...])
def board(services: Services) -> Response:
    """All jobs with their lines, by what happens next."""
    return Response(services.jobs.written_board(), media_type="application/json")


@router.post("", status_code=201)
def create_job(draft: JobDraft, services: Services) -> JobSummary:
    """A new job."""
    return services.jobs.create(draft)


@router.get("/{job_id}")
def get_job(job_id: str, services: Services) -> JobSummary:
    """One job with its lines."""
    return services.jobs.one(job_id)


@router.put("/{job_id}")
def change_job(job_id: str, change: JobChange, services: Services) -> JobSummary:
    """Rename a job, or change its machine or unit."""
    return services.jobs.change(job_id, change.version, change.job)


@router.delete("/{job_id}", status_code=204)
def delete_job(job_id: str, services: Services, version: IfAt = None) -> None:
    """Take a job off the board; it can be restored."""
    services.jobs.delete(job_id, version)


@router.post("/{job_id}/restore")
def restore_job(job_id: str, services: Services) -> JobSummary:
    """Bring a deleted job back."""
    return services.jobs.restore(job_id)


@router.post("/{job_id}/lines", status_code=201)
def create_line(job_id: str, body: NewLine, services: Services) -> OpenLine:
    """A new line with the usual choices."""
    taken_in = Condition(reasons=body.reasons, urgency=body.urgency)
    return services.lines.create(
        job_id, body.name, service=body.service, taken_in=taken_in, begins=body.begins
    )


@router.get("/{job_id}/circuits")
def circuits(job_id: str, services: Services) -> JobCircuits:
    """The lines of a job where they are joined: what flows where, and what is wrong with it."""
    return services.circuits.of_job(job_id, services.kit)


@router.get("/{job_id}/strip-down")
def strip_down(job_id: str, services: Services) -> OpenStripDown:
    """What comes off once for all lines of a job."""
    return services.strip_downs.of_job(job_id)


@router.put("/{job_id}/strip-down")
def keep_strip_down(job_id: str, change: StripDownChange, services: Services) -> OpenStripDown:
    """Write the strip-down of a job down."""
    return services.strip_downs.keep(job_id, change.version, change.log)


@router.get("/{job_id}/bookings")
def ledger(job_id: str, services: Services) -> Ledger:
    """Time and material of a job, one total a payer."""
    return services.bookings.ledger(job_id)


@router.post("/{job_id}/bookings", status_code=201)
def book(job_id: str, draft: BookingDraft, services: Services) -> Ledger:
    """Book time or material."""
    return services.bookings.book(job_id, draft)


@router.delete("/{job_id}/bookings/{booking_id}")
def strike(job_id: str, booking_id: str, services: Services) -> Ledger:
    """Strike a booking out; it can be put back."""
    services.bookings.strike(booking_id)
    return services.bookings.ledger(job_id)


@router.post("/{job_id}/bookings/{booking_id}/restore")
def unstrike(job_id: str, booking_id: str, services: Services) -> Ledger:
    """Put a struck booking back."""
    services.bookings.strike(booking_id, back=True)
    return services.bookings.ledger(job_id)
