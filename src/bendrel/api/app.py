"""The application: services on a database, routers, guard, screens."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from starlette.types import Message

from bendrel import __version__
from bendrel.api import (
    archives,
    backups,
    instruments,
    jobs,
    lines,
    lookups,
    making,
    photos,
    plans,
    proving,
    shelf,
    stock,
    tools,
    whole,
)
from bendrel.api.errors import add_error_handlers
from bendrel.api.guard import Guard
from bendrel.api.schemas import ErrorOut
from bendrel.api.screens import add_screens
from bendrel.services.apart import ready
from bendrel.services.startup import Shop, open_shop
from bendrel.store.sweep import sweep

REFUSALS: dict[int | str, dict[str, object]] = {
    code: {"model": ErrorOut} for code in (400, 403, 404, 409, 413, 422, 500, 503)
}


BACKUP_LOOK_S = 900.0
"""How often it is looked whether today's backup is there."""


async def _daily(shop: Shop) -> None:
    """Make a backup and clear leftovers each day for as long as it runs."""
    while True:
        await asyncio.sleep(BACKUP_LOOK_S)
        await asyncio.to_thread(shop.backups.if_due)
        await asyncio.to_thread(sweep, shop.database.path)


async def warm_up(app: FastAPI) -> None:
    """Answer one question of our own: the routes are built at the first one, which takes seconds, and nobody
    should wait for that."""
    headers = [(b"host", b"127.0.0.1")]
    asked = {"type": "http", "method": "GET", "path": "/api/backups", "query_string": b"", "headers": headers}

    async def nothing_more() -> Message:
        return {"type": "http.disconnect"}

    async def unheard(_: Message) -> None:
        pass

    await app({**asked, "http_version": "1.1", "scheme": "http", "root_path": ""}, nothing_more, unheard)


def create_app(database: Path) -> FastAPI:
    """The whole application on one database file."""
    shop = open_shop(database)

    @asynccontextmanager
    async def lifespan(_: FastAPI) -> AsyncIterator[None]:
        ready()
        daily = asyncio.create_task(_daily(shop))
        yield
        daily.cancel()
        shop.close()

    app = FastAPI(
        title="Bendrel",
        version=__version__,
        lifespan=lifespan,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        responses=REFUSALS,
    )
    app.state.shop = shop
    add_error_handlers(app)
    for router in (
        jobs.router,
        lines.router,
        plans.router,
        photos.router,
        archives.router,
        backups.router,
        instruments.router,
        lookups.router,
        shelf.router,
        tools.router,
        making.router,
        stock.router,
        proving.router,
        whole.router,
    ):
        app.include_router(router)
    add_screens(app)
    app.add_middleware(Guard)
    return app
