"""What the routers work with: the shop that the application has opened."""

from __future__ import annotations

from typing import Annotated

from fastapi import Depends, Query, Request

from bendrel.services.startup import Shop


async def _shop(request: Request) -> Shop:  # not in a thread: every answer would wait for one more
    shop: Shop = request.app.state.shop
    return shop


Services = Annotated[Shop, Depends(_shop)]

At = Annotated[int, Query(alias="version", ge=0)]
"""The version that was read: a change from an older one is refused with both."""
IfAt = Annotated[int | None, Query(alias="version", ge=0)]
"""The same where what is done can be taken back; without it, it is done to whatever is there."""
