"""What every request passes: known host, same origin, a body of sane size, safe headers on every answer."""

from __future__ import annotations

import asyncio
import logging
import re
import secrets
import traceback
from collections.abc import MutableMapping
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.requests import ClientDisconnect
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from bendrel.exchange.documents.elements import MOST_IN_A_LINE, holds_over
from bendrel.patience import ANOTHERS

log = logging.getLogger("bendrel.refused")
faults = logging.getLogger("bendrel.fault")

MOST_BODY_BYTES = 2_500_000
TOO_LARGE = "That is over 2.5 MB; a line or a CSV is much smaller."
# what may be larger, by where it is sent
LARGER: dict[str, tuple[int, str]] = {
    "/api/photos": (15_000_000, "That is over 15 MB; take a smaller photograph."),
    "/api/archives": (60_000_000, "That is over 60 MB; a job with its photographs is smaller."),
    "/api/import": (6_000_000, "That is over 6 MB; a CSV or a drawing of one line is smaller."),
}
STREAMED: dict[str, tuple[int, str]] = {
    "/api/shop/everything": (1_000_000_000, "That is over 1 GB; a whole shop is smaller."),
}
"""What goes to the disk as it comes, not into memory."""
MOST_ADDRESS = 2_000
MOST_PATH = 200
BODY_SILENT_S = 20.0
"""For so long a body may say nothing before it is given up."""
_LOCAL = re.compile(r"(?:127\.0\.0\.1|localhost|\[::1\])(?::[0-9]{1,5})?", re.IGNORECASE)


class Guard:
    """Refuses foreign hosts (400), foreign origins (403), addresses and bodies that are too long (414, 413),
    bodies that stay away (408) and bodies of too many values (422)."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        nonce = secrets.token_urlsafe(16)
        scope.setdefault("state", {})["nonce"] = nonce

        begun = False

        async def guarded_send(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                _add_headers(message, nonce, scope["path"])
                if message["status"] >= 400:
                    log.info("%s %s %s", message["status"], scope["method"], scope["path"][:MOST_PATH])
            await send(message)

        refusal = _refusal(scope, Headers(scope=scope))
        if scope["path"] in STREAMED:
            receive = _counted(receive, *STREAMED[scope["path"]])
        elif refusal is None and scope["method"] not in ("GET", "HEAD", "OPTIONS"):
            read = await _body(scope, receive)
            if isinstance(read, JSONResponse):
                refusal = read
            else:
                receive = _again(read, receive)
        try:
            await (refusal or self._app)(scope, receive, guarded_send)
        except ClientDisconnect:
            log.info("broken off %s %s", scope["method"], scope["path"][:MOST_PATH])
        except asyncio.CancelledError:
            # only a server that is being closed does that, and after it nobody tells anything any more
            if not begun:
                await _message(503, "Bendrel is being closed; open it and do it again.")(
                    scope, receive, guarded_send
                )
        except Exception as error:
            faults.error("%s %s: %s", scope["method"], scope["path"][:MOST_PATH], where_of(error))
            if begun:
                raise
            await _message(500, "Bendrel failed at this; nothing was changed. The log says where.")(
                scope, receive, guarded_send
            )


def where_of(error: BaseException) -> str:
    """The kind of a fault and the places in the code that led to it, without a word of what was sent."""
    frames = traceback.extract_tb(error.__traceback__)[-6:]
    way = " > ".join(f"{Path(frame.filename).name}:{frame.lineno} {frame.name}" for frame in frames)
    return f"{type(error).__name__} at {way}"


def _refusal(scope: Scope, headers: Headers) -> JSONResponse | None:
    host, method = headers.get("host", ""), scope["method"]
    if scope["state"].get(ANOTHERS):
        return _message(403, "Bendrel is open to the one who started it, not to other users of this machine.")
    if not _LOCAL.fullmatch(host):
        return _message(400, "Bendrel answers on this machine only; open it as 127.0.0.1.")
    origin = headers.get("origin")
    foreign = headers.get("sec-fetch-site") in ("cross-site", "same-site")
    if method not in ("GET", "HEAD", "OPTIONS") and (
        foreign or (origin is not None and urlsplit(origin).netloc != host)
    ):
        return _message(403, "Another site tried to change something here; that is refused.")
    if len(scope["path"]) > MOST_PATH or len(scope["query_string"]) > MOST_ADDRESS:
        return _message(414, "That address is longer than any here.")
    return None


async def _body(scope: Scope, receive: Receive) -> bytes | JSONResponse:
    """The whole body, or why it is refused."""
    headers = Headers(scope=scope)
    most, told = LARGER.get(scope["path"], (MOST_BODY_BYTES, TOO_LARGE))
    length = headers.get("content-length", "")
    if length.isdigit() and int(length) > most:
        return _message(413, told)
    parts, taken, more = [], 0, True
    while more:
        try:
            async with asyncio.timeout(BODY_SILENT_S):
                message = await receive()
        except TimeoutError:
            return _message(408, "The rest of what was sent did not come; send it again.")
        if message["type"] == "http.disconnect":
            return _message(408, "What was sent broke off; send it again.")
        parts.append(message.get("body", b""))
        taken, more = taken + len(parts[-1]), message.get("more_body", False)
        if taken > most:
            return _message(413, told)
    body = b"".join(parts)
    if "json" in headers.get("content-type", "") and holds_over(body, MOST_IN_A_LINE):
        return _message(422, f"That holds over {MOST_IN_A_LINE:,} values; a line of 200 bends has far fewer.")
    return body


def _counted(receive: Receive, most: int, told: str) -> Receive:
    """Pass on what comes, as far as it is sane."""
    taken = 0

    async def passed() -> Message:
        nonlocal taken
        try:
            async with asyncio.timeout(BODY_SILENT_S):
                message = await receive()
        except TimeoutError as error:
            raise HTTPException(408, "The rest of what was sent did not come; send it again.") from error
        taken += len(message.get("body", b""))
        if taken > most:
            raise HTTPException(413, told)
        return message

    return passed


def _again(body: bytes, receive: Receive) -> Receive:
    """Hand on a body that has been read; after it, only that the other side has gone."""
    given = False

    async def handed() -> Message:
        nonlocal given
        if given:
            return await receive()
        given = True
        return {"type": "http.request", "body": body, "more_body": False}

    return handed


def _add_headers(message: MutableMapping[str, Any], nonce: str, path: str) -> None:
    headers = MutableHeaders(scope=message)
    headers["content-security-policy"] = (
        "default-src 'self'; script-src 'self'; "
        f"style-src 'self' 'nonce-{nonce}'; style-src-attr 'unsafe-inline'; "
        "img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; worker-src 'self' blob:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    )
    headers["x-content-type-options"] = "nosniff"
    headers["x-frame-options"] = "DENY"
    headers["referrer-policy"] = "no-referrer"
    headers["cross-origin-opener-policy"] = "same-origin"
    headers["cross-origin-resource-policy"] = "same-origin"
    if path.startswith("/api/"):
        headers.setdefault("cache-control", "no-store")


def _message(status: int, text: str) -> JSONResponse:
    return JSONResponse({"message": text}, status_code=status)
