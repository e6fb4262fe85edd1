"""What every request passes: known host, same origin, a body of sane size, safe headers."""

from __future__ import annotations

import secrets
from collections.abc import MutableMapping
from typing import Any
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

MOST_BODY_BYTES = 2_500_000
TOO_LARGE = "That is over 2.5 MB; a line or a CSV is much smaller."
# what may be larger, by where it is sent
LARGER: dict[str, tuple[int, str]] = {
    "/api/photos": (15_000_000, "That is over 15 MB; take a smaller photograph."),
    "/api/archives": (60_000_000, "That is over 60 MB; a job with its photographs is smaller."),
    "/api/import": (6_000_000, "That is over 6 MB; a CSV or a drawing of one line is smaller."),
}
LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]"})


class Guard:
    """Refuses foreign hosts (400), foreign origins (403) and large bodies (413)."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        most, told = LARGER.get(scope["path"], (MOST_BODY_BYTES, TOO_LARGE))
        refusal = _refusal(scope["method"], headers, most, told)
        if refusal is not None:
            await refusal(scope, receive, send)
            return
        nonce = secrets.token_urlsafe(16)
        scope.setdefault("state", {})["nonce"] = nonce

        async def guarded_send(message: Message) -> None:
            if message["type"] == "http.response.start":
                _add_headers(message, nonce)
            await send(message)

        await self._app(scope, _limited(receive, most, told), guarded_send)


def _refusal(method: str, headers: Headers, most: int, told: str) -> JSONResponse | None:
    host = headers.get("host", "")
    name = host.rsplit(":", 1)[0] if not host.endswith("]") else host
    if name.lower() not in LOCAL_HOSTS:
        return _message(400, "Bendrel answers on this machine only; open it as 127.0.0.1.")
    origin = headers.get("origin")
    foreign = headers.get("sec-fetch-site") in ("cross-site", "same-site")
    if method not in ("GET", "HEAD", "OPTIONS") and (
        foreign or (origin is not None and urlsplit(origin).netloc != host)
    ):
        return _message(403, "Another site tried to change something here; that is refused.")
    length = headers.get("content-length", "")
    if length.isdigit() and int(length) > most:
        return _message(413, told)
    return None


def _limited(receive: Receive, most: int, told: str) -> Receive:
    taken = 0

    async def counted() -> Message:
        nonlocal taken
        message = await receive()
        taken += len(message.get("body", b""))
        if taken > most:
            raise HTTPException(413, told)
        return message

    return counted


def _add_headers(message: MutableMapping[str, Any], nonce: str) -> None:
    headers = MutableHeaders(scope=message)
    headers["content-security-policy"] = (
        "default-src 'self'; script-src 'self'; "
        f"style-src 'self' 'nonce-{nonce}'; style-src-attr 'unsafe-inline'; "
        "img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; worker-src 'self' blob:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    )
    headers["x-content-type-options"] = "nosniff"
    headers["referrer-policy"] = "no-referrer"
    headers["cross-origin-opener-policy"] = "same-origin"


def _message(status: int, text: str) -> JSONResponse:
    return JSONResponse({"message": text}, status_code=status)
