"""What the rooms of the API have in common."""

from __future__ import annotations

from fastapi import APIRouter

from bendrel.api.schemas import ErrorOut
from bendrel.exchange.documents.adapters import adapter

adapter(ErrorOut)  # every route speaks of it eight times
REFUSALS: dict[int | str, dict[str, object]] = {
    code: {"model": ErrorOut} for code in (400, 403, 404, 409, 413, 422, 500, 503)
}


def room(prefix: str, tag: str) -> APIRouter:
    """A router whose routes may refuse, each with its sentence. The application takes its routes as they are:
    including a router would build every one of them a second time."""
    return APIRouter(prefix=prefix, tags=[tag], responses=REFUSALS)
