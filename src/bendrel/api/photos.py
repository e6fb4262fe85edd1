"""Photographs in and out."""

from __future__ import annotations

from fastapi.responses import FileResponse

from bendrel.api.beside import beside
from bendrel.api.files import BINARY_BODY, Raw
from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.services.job.photos import Photo

router = room("/api/photos", "photos")


@router.post("", status_code=201, openapi_extra=BINARY_BODY)
async def keep_photo(data: Raw, services: Services) -> Photo:
    """Keep a photograph: the bytes of a JPEG, PNG or WebP file."""
    return await beside(services.photos.keep, data)


@router.get("/{photo_id}", response_class=FileResponse)
def get_photo(photo_id: str, services: Services) -> FileResponse:
    """The photograph as JPEG; it never changes under its name."""
    path = services.photos.path(photo_id)
    headers = {"cache-control": "private, max-age=31536000, immutable"}
    return FileResponse(path, media_type="image/jpeg", headers=headers)
