"""Calls that take long, beside the event loop and beside the threads that answer keystrokes."""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from typing import Any, TypeVar

from anyio import CapacityLimiter, to_thread
from fastapi import Request, Response

from bendrel.services.reckoned.apart import RECKONING, Apart, Bounds

T = TypeVar("T")

MOST_BESIDE = 12
LOOKS_S = 0.1
"""How often it is looked whether somebody still waits."""
_limiters: dict[int, CapacityLimiter] = {}


async def beside(call: Callable[..., T], *args: Any) -> T:
    """Call a use case that waits for work done apart."""
    return await to_thread.run_sync(lambda: call(*args), limiter=_limiter())


async def reckoned(request: Request, task: Callable[..., Any], *args: Any, bounds: Bounds = RECKONING) -> Any:
    """What `task` gives, worked out apart; given up as soon as the asker has gone, as a screen does when it
    asks anew."""
    work = await beside(Apart, bounds, task, *args)
    watch = asyncio.create_task(_give_up_with(request, work))
    try:
        return await beside(work.result)
    finally:
        watch.cancel()


async def answered(request: Request, task: Callable[..., bytes], *args: Any) -> Response:
    """The answer to a screen of a task that gives JSON."""
    return Response(await reckoned(request, task, *args), media_type="application/json")


async def _give_up_with(request: Request, work: Apart) -> None:
    while not await request.is_disconnected():
        await asyncio.sleep(LOOKS_S)
    work.give_up()


def _limiter() -> CapacityLimiter:
    """One for each event loop; there is one, but in tests."""
    return _limiters.setdefault(id(asyncio.get_running_loop()), CapacityLimiter(MOST_BESIDE))
