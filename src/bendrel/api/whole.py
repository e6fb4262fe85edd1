"""The whole shop out and in."""

from __future__ import annotations

from datetime import date
from uuid import uuid4

from fastapi import Request
from fastapi.responses import FileResponse
from starlette.background import BackgroundTask

from bendrel.api.beside import beside
from bendrel.api.files import BINARY_BODY
from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.services.kept.whole_shop import WholeShop

router = room("/api/shop", "shop")


@router.get("/everything.zip", response_class=FileResponse)
async def export_everything(services: Services) -> FileResponse:
    """All jobs with their undo, the stock, own rows, tools, preferences and photographs as a zip."""
    path = await beside(services.whole.write)
    return FileResponse(
        path,
        media_type="application/zip",
        filename=f"shop {date.today().isoformat()}.bendrel-shop.zip",
        background=BackgroundTask(path.unlink, missing_ok=True),
    )


@router.post("/everything", openapi_extra=BINARY_BODY)
async def bring_everything_in(request: Request, services: Services) -> WholeShop:
    """A whole shop into this one, which must be empty."""
    path = services.database.path.parent / f"shop-sent-{uuid4().hex[:8]}.part"
    try:
        with path.open("wb") as file:
            async for chunk in request.stream():
                file.write(chunk)
        return await beside(services.whole.bring_in, path)
    finally:
        path.unlink(missing_ok=True)
