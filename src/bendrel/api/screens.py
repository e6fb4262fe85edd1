"""The built screens. Any address that is no file and no API is the application itself."""

from __future__ import annotations

from importlib.resources import files
from pathlib import Path
from typing import Any

from fastapi import APIRouter, FastAPI, Request
from fastapi.responses import FileResponse, HTMLResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware

INTERFACE = Path(str(files("bendrel"))) / "interface"

NOT_BUILT = (
    "<!doctype html><title>Bendrel</title><p>The screens have not been built here. "
    "Run <code>make web</code>, or use the command line and the API.</p>"
)


class Assets(StaticFiles):
    """Files whose names change with what is in them: whoever has one need not ask for it again."""

    def file_response(self, *args: Any, **kwargs: Any) -> Response:
        """The file, to be kept for a year, which is as long as HTTP knows: RFC 9111, 5.2.2.1 and RFC 8246."""
        answer = super().file_response(*args, **kwargs)
        answer.headers["cache-control"] = "public, max-age=31536000, immutable"
        return answer


def add_screens(app: FastAPI, folder: Path = INTERFACE) -> None:
    """Serve the built interface from `folder`, or say how to build it."""
    router = APIRouter(include_in_schema=False)
    index = folder / "index.html"

    @router.get("/{path:path}")
    def screen(path: str, request: Request) -> Response:
        if path.startswith("api/") or "." in path.rsplit("/", 1)[-1]:
            wanted = folder / Path(path).name
            if path == wanted.name and wanted.is_file():
                return FileResponse(wanted)
            raise HTTPException(404)
        if not index.is_file():
            return HTMLResponse(NOT_BUILT, status_code=503)
        page = index.read_text(encoding="utf-8").replace("NONCE", request.state.nonce)
        return HTMLResponse(page, headers={"cache-control": "no-store"})

    if (folder / "assets").is_dir():
        app.mount(
            "/assets", GZipMiddleware(Assets(directory=folder / "assets"), compresslevel=6), name="assets"
        )
    app.include_router(router)
