"""Start the application on this machine and say where."""

from __future__ import annotations

import gc
import os
import socket
from pathlib import Path
from types import FrameType

import uvicorn

from bendrel.api.app import create_app
from bendrel.logs import log_beside
from bendrel.patience import PatientProtocol
from bendrel.services.demo.demo import fill_demo
from bendrel.services.reckoned.apart import give_all_up
from bendrel.services.startup import open_shop
from bendrel.store.opening import make_folder, served_alone
from bendrel.store.sweep import sweep

HOST = "127.0.0.1"
PORTS_TRIED = 20


def run(database: Path, port: int, *, demo: bool = False, fresh: bool = False) -> None:
    """Serve `database` on 127.0.0.1 until interrupted; prints the address.

    Raises UnusableShop when the data cannot be worked with or is served already, and OSError when no port is
    free.
    """
    os.umask(0o077)  # whatever is made here is for its owner alone
    make_folder(database.parent)
    listening = _listen(port)
    address = f"http://{HOST}:{listening.getsockname()[1]}/"
    with served_alone(database, address):
        if fresh:
            for part in ("", "-wal", "-shm"):
                database.with_name(database.name + part).unlink(missing_ok=True)
        log_beside(database)
        if demo:
            shop = open_shop(database, backups=False, new=fresh)
            fill_demo(shop)
            shop.close()
        sweep(database)
        app = create_app(database)
        gc.freeze()  # what is loaded stays: looking through it for rubbish would hold up a keystroke
        print(f"Bendrel is open at {address}  (Ctrl+C stops it)", flush=True)
        config = uvicorn.Config(
            app,
            http=PatientProtocol,
            log_level="warning",
            server_header=False,
            timeout_keep_alive=30,
            timeout_graceful_shutdown=2,
        )
        Server(config).run(sockets=[listening])


class Server(uvicorn.Server):
    """A server that gives up at once what takes long when it is told to end."""

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        """It is told to end."""
        give_all_up()
        super().handle_exit(sig, frame)


def _listen(first: int) -> socket.socket:
    """A bound socket on the first free port from `first` on."""
    for port in range(first, min(first + PORTS_TRIED, 65536)):
        # the protocol is named, or answers would wait 40 ms for the other side's acknowledgement:
        # asyncio switches that off only for sockets that say they are TCP
        attempt = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        attempt.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            attempt.bind((HOST, port))
        except OSError:
            attempt.close()
            continue
        attempt.listen(128)
        return attempt
    raise OSError(None, f"no free port from {first} on; name another with --port")
