"""How long a connection may say nothing, and whose it is."""

from __future__ import annotations

import asyncio
import os
from pathlib import Path
from typing import Any

from uvicorn.protocols.http.h11_impl import H11Protocol

UNSPOKEN_S = 20.0
"""A request whose head has not come whole by then is given up, and so is a connection that never asks."""
ANOTHERS = "of another user"
"""What the state of a request says that comes from another user of this machine."""
SOCKETS = Path("/proc/net/tcp")
"""Whose sockets are whose, as Linux says it: proc(5), /proc/net/tcp. Other systems do not say it here."""


def belongs_to_another(client: int, server: int) -> bool:
    """Whether the connection from one port of this machine to another was opened by somebody else than the
    one who runs Bendrel or the machine's administrator; False where the system does not tell."""
    try:
        rows = [line.split() for line in SOCKETS.read_text().splitlines()[1:]]
    except OSError:
        return False
    ends = f":{client:04X}", f":{server:04X}"
    owners = {
        int(row[7])
        for row in rows
        if len(row) > 7 and (row[1].endswith(ends[0]) and row[2].endswith(ends[1]))
    }
    return bool(owners) and not owners & {0, os.getuid()}


class PatientProtocol(H11Protocol):
    """HTTP as the server speaks it, which waits for a request's head, but not for ever."""

    _head: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        """A connection is open: its first request has to come."""
        super().connection_made(transport)
        if self.client and self.server and belongs_to_another(self.client[1], self.server[1] or 0):
            self.app_state = {**self.app_state, ANOTHERS: True}
        self._await_head()

    def data_received(self, data: bytes) -> None:
        """Bytes have come; once they make a request, its answer is what is waited for."""
        if self._head is None and self._between():
            self._await_head()
        super().data_received(data)
        if not self._between():
            self._stop_waiting()

    def connection_lost(self, exc: Exception | None) -> None:
        """It is closed."""
        self._stop_waiting()
        super().connection_lost(exc)

    def _between(self) -> bool:
        return self.cycle is None or self.cycle.response_complete

    def _await_head(self) -> None:
        self._head = self.loop.call_later(UNSPOKEN_S, self._give_up)

    def _stop_waiting(self) -> None:
        if self._head is not None:
            self._head.cancel()
            self._head = None

    def _give_up(self) -> None:
        self._head = None
        if self._between() and not self.transport.is_closing():
            self.transport.close()
