"""Bytes in and out, the same way everywhere."""

from __future__ import annotations

from typing import Annotated, Any
from urllib.parse import quote

from fastapi import Depends, Request, Response

BINARY_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


async def _raw(request: Request) -> bytes:
    return await request.body()


Raw = Annotated[bytes, Depends(_raw)]
"""The bytes that were sent, for a call that must not hold the event loop."""


def as_file(data: bytes, media: str, name: str, *, inline: bool = False) -> Response:
    """A file to open (`inline`) or to keep under `name`."""
    kind = "inline" if inline else "attachment"
    headers = {"content-disposition": f"{kind}; filename*=UTF-8''{quote(name, safe='')}"}
    return Response(data, media_type=media, headers=headers)
