"""What the rooms of the API have in common."""

from __future__ import annotations

from fastapi import APIRouter

from bendrel.api.schemas import ErrorOut
from bendrel.exchange.documents.adapters import adapter

adapter(ErrorOut)  # every route speaks of it
REFUSAL: dict[int | str, dict[str, object]] = {"default": {"model": ErrorOut}}
"""Whatever a route refuses with, it is one sentence."""


def room(prefix: str, tag: str) -> APIRouter:
    """A router whose routes may refuse, each with its sentence. The application takes its routes as they are:
    including a router would build every one of them a second time."""
    return APIRouter(prefix=prefix, tags=[tag], responses=REFUSAL)
