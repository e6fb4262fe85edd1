"""The application: services on a database, routers, guard, screens."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI

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
from bendrel.api.screens import add_screens
from bendrel.services.reckoned.apart import ready
from bendrel.services.startup import Shop, open_shop
from bendrel.store.sweep import sweep

ROOMS = (
    jobs,
    lines,
    plans,
    photos,
    archives,
    backups,
    instruments,
    lookups,
    shelf,
    tools,
    making,
    stock,
    proving,
    whole,
)

BACKUP_LOOK_S = 900.0
"""How often it is looked whether today's backup is there."""


async def _daily(shop: Shop) -> None:
    """Make a backup and clear leftovers each day for as long as it runs."""
    while True:
        await asyncio.sleep(BACKUP_LOOK_S)
        await asyncio.to_thread(shop.backups.if_due)
        await asyncio.to_thread(sweep, shop.database.path)


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
        routes=[route for room in ROOMS for route in room.router.routes],
    )
    app.state.shop = shop
    add_error_handlers(app)
    add_screens(app)
    app.add_middleware(Guard)
    return app
