"""Every refusal as one readable sentence; no stack trace reaches a person."""

from __future__ import annotations

import errno
from collections.abc import Callable

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from bendrel.core.errors import BendrelError
from bendrel.exchange.documents.wrong import sentence, spoken_steps, telling
from bendrel.services.errors import (
    Busy,
    Crowded,
    GivenUp,
    NoRoom,
    NotFound,
    Stale,
    TooMuch,
    Unreadable,
)
from bendrel.store.database import NO_ROOM

STATUSES: dict[type[Exception], int] = {
    NotFound: 404,
    TooMuch: 413,
    Crowded: 429,
    GivenUp: 499,
    Busy: 503,
    NoRoom: 507,
}
"""What a refusal is in HTTP where it is not 422; 499 is heard by nobody: the asker has gone."""
AGAIN = {"retry-after": "1"}


def add_error_handlers(app: FastAPI) -> None:
    """Turn exceptions into {"message": …}. What is none of these is a fault; the guard tells it."""

    def telling_of(status: int) -> Callable[[Request, Exception], JSONResponse]:
        def told(_: Request, error: Exception) -> JSONResponse:
            headers = AGAIN if status in (429, 503) else None
            return JSONResponse({"message": str(error.args[0])}, status_code=status, headers=headers)

        return told

    @app.exception_handler(Unreadable)
    async def _unreadable(_: Request, error: Unreadable) -> JSONResponse:
        return JSONResponse({"message": str(error), "unreadable": True}, status_code=422)

    app.add_exception_handler(BendrelError, telling_of(422))
    for kind, status in STATUSES.items():
        app.add_exception_handler(kind, telling_of(status))

    @app.exception_handler(Stale)
    async def _stale(_: Request, error: Stale) -> JSONResponse:
        body = {"message": str(error), "version": error.version, "current": error.current}
        return JSONResponse(body, status_code=409)

    @app.exception_handler(OSError)
    async def _full(_: Request, error: OSError) -> JSONResponse:
        if error.errno not in (errno.ENOSPC, errno.EDQUOT):
            raise error
        return JSONResponse({"message": NO_ROOM}, status_code=STATUSES[NoRoom])

    @app.exception_handler(RequestValidationError)
    async def _invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        errors = error.errors()
        if telling(errors)["type"] == "json_invalid":
            return JSONResponse({"message": "The request is not valid JSON."}, status_code=422)
        steps = spoken_steps(telling(errors)["loc"])
        body = {"message": sentence(errors, "what is expected here"), "field": "/" + "/".join(steps)}
        return JSONResponse(body, status_code=422)

    @app.exception_handler(HTTPException)
    async def _http(_: Request, error: HTTPException) -> JSONResponse:
        text = _HTTP.get(error.status_code, str(error.detail))
        return JSONResponse({"message": text}, status_code=error.status_code, headers=error.headers)


_HTTP = {
    400: "What was sent cannot be read; it must be JSON.",
    404: "There is nothing at this address.",
    405: "That cannot be done at this address.",
}
