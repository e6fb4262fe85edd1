"""Whole jobs as files."""

from __future__ import annotations

from fastapi import Response

from bendrel.api.beside import beside
from bendrel.api.files import BINARY_BODY, Raw, as_file
from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.services.kept.archives import BroughtIn

router = room("/api/archives", "archives")


@router.get("/{job_id}", response_class=Response)
def write_job(job_id: str, services: Services) -> Response:
    """A job with its lines, bookings and photographs as a zip."""
    written = services.archives.write(job_id)
    answer = as_file(written.data, "application/zip", f"{written.name}.bendrel.zip")
    answer.headers["x-missing-photos"] = str(written.missing_photos)
    answer.headers["x-unreadable-lines"] = str(written.unreadable)
    return answer


@router.post("", openapi_extra=BINARY_BODY)
async def read_job(data: Raw, services: Services, keep: bool = False) -> BroughtIn:
    """What a job file holds; with `keep` it becomes a job."""
    return await beside(lambda: services.archives.read(data, keep=keep))
