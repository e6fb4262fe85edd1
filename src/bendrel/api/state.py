"""What the routers work with: the shop that the application has opened."""

from __future__ import annotations

from typing import Annotated

from fastapi import Depends, Request

from bendrel.services.startup import Shop


def _shop(request: Request) -> Shop:
    shop: Shop = request.app.state.shop
    return shop


Services = Annotated[Shop, Depends(_shop)]
