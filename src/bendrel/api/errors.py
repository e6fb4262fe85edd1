"""Every refusal as one readable sentence; no stack trace reaches a person."""

from __future__ import annotations

import logging

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from bendrel.exchange.documents import spoken_path, telling
from bendrel.exchange.errors import FileError
from bendrel.services.errors import Busy, NotFound, Refused, Stale

log = logging.getLogger("bendrel")


def add_error_handlers(app: FastAPI) -> None:
    """Turn exceptions into {"message": …} with 404, 409, 413, 422, 503 or 500."""

    @app.exception_handler(NotFound)
    async def _not_found(_: Request, error: NotFound) -> JSONResponse:
        return JSONResponse({"message": str(error.args[0])}, status_code=404)

    @app.exception_handler(Stale)
    async def _stale(_: Request, error: Stale) -> JSONResponse:
        body = {"message": str(error), "version": error.version, "current": error.current}
        return JSONResponse(body, status_code=409)

    @app.exception_handler(Refused)
    @app.exception_handler(FileError)
    async def _refused(_: Request, error: ValueError) -> JSONResponse:
        return JSONResponse({"message": str(error)}, status_code=422)

    @app.exception_handler(Busy)
    async def _busy(_: Request, error: Busy) -> JSONResponse:
        return JSONResponse({"message": str(error)}, status_code=503, headers={"retry-after": "1"})

    @app.exception_handler(RequestValidationError)
    async def _invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        found = telling(error.errors())
        steps = spoken_path(found["loc"])
        said = str(found["msg"]).rstrip(".")
        if found["type"] == "json_invalid":
            return JSONResponse({"message": "The request is not valid JSON."}, status_code=422)
        field = " › ".join(steps)
        message = f"{field}: {said}." if field else f"{said}."
        return JSONResponse({"message": message, "field": "/" + "/".join(steps)}, status_code=422)

    @app.exception_handler(HTTPException)
    async def _http(_: Request, error: HTTPException) -> JSONResponse:
        text = "There is nothing at this address." if error.status_code == 404 else str(error.detail)
        return JSONResponse({"message": text}, status_code=error.status_code, headers=error.headers)

    @app.exception_handler(Exception)
    async def _unexpected(request: Request, error: Exception) -> JSONResponse:
        log.exception("%s %s failed", request.method, request.url.path, exc_info=error)
        return JSONResponse(
            {"message": "Bendrel failed at this; nothing was changed. The log says more."},
            status_code=500,
        )
