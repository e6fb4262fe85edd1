"""Serve a shop in a child, write to it over HTTP, kill the child at any moment, and look what is there.

Run as `python -m tests.api.killing FOLDER CYCLES SEED`; prints one JSON object. It forks its servers from
what is loaded once.
"""

from __future__ import annotations

import http.client
import io
import json
import os
import random
import shutil
import signal
import socket
import sqlite3
import sys
import threading
import time
from contextlib import closing
from importlib import import_module
from pathlib import Path
from typing import Any

import uvicorn
from fastapi import FastAPI
from PIL import Image
from starlette.testclient import TestClient

from bendrel.api import app
from bendrel.services.job import photos
from bendrel.services.startup import open_shop
from bendrel.store.sweep import sweep

HEADERS = {"host": "127.0.0.1", "content-type": "application/json"}


def serve(application: FastAPI, database: Path, listening: socket.socket) -> int:
    """A child that serves; returns its process."""
    child = os.fork()
    if child:
        return child
    application.state.shop = open_shop(database)
    uvicorn.Server(uvicorn.Config(application, log_level="critical")).run(sockets=[listening])
    os._exit(0)


def call(connection: http.client.HTTPConnection, method: str, path: str, body: Any = None) -> Any:
    """One request that must be acknowledged; OSError or HTTPException when the server is gone."""
    data = body if isinstance(body, bytes) else json.dumps(body).encode()
    connection.request(method, path, data, HEADERS)
    answer = connection.getresponse()
    told = answer.read()
    if answer.status >= 400:
        raise AssertionError(f"{method} {path}: {answer.status} {told[:200]!r}")
    return json.loads(told) if told else None


def photograph(rng: random.Random) -> bytes:
    """A small picture like no other."""
    out = io.BytesIO()
    Image.frombytes("RGB", (24, 24), rng.randbytes(24 * 24 * 3)).save(out, "PNG")
    return out.getvalue()


class Writer:
    """Writes as fast as it is answered, and remembers what was acknowledged."""

    def __init__(self) -> None:
        self.names: dict[str, int] = {}
        self.photos: set[str] = set()
        self.labels: set[str] = set()
        self.count = 0

    def work(self, port: int, rng: random.Random) -> None:
        """Until the server is gone."""
        connection = http.client.HTTPConnection("127.0.0.1", port, timeout=20)
        try:
            job = call(connection, "POST", "/api/jobs", {"name": "killed"})
            line = call(connection, "POST", f"/api/jobs/{job['id']}/lines", {"name": "0"})
            self.names[line["id"]] = 0
            step = 0
            while True:
                step += 1
                document = line["document"] | {"name": str(step)}
                line = call(
                    connection,
                    "PUT",
                    f"/api/lines/{line['id']}",
                    {"version": line["version"], "document": document},
                )
                self.names[line["id"]] = step
                self.count += 1
                if step % 5 == 1:
                    photo = call(connection, "POST", "/api/photos", photograph(rng))
                    self.photos.add(photo["id"])
                    self.count += 1
                if step % 3 == 0:
                    draft = {"tube": document["spans"][0]["tube"], "length": "1.5 m"}
                    self.labels.add(call(connection, "POST", "/api/stock", draft)["label"])
                    self.count += 1
        except (OSError, http.client.HTTPException):
            return
        finally:
            connection.close()


def lost(database: Path, writer: Writer) -> list[str]:
    """What was acknowledged and is not there, and what is not sound."""
    found = []
    with closing(sqlite3.connect(database)) as opened:
        if opened.execute("pragma integrity_check").fetchone()[0] != "ok":
            found.append("integrity")
        if opened.execute("pragma foreign_key_check").fetchone() is not None:
            found.append("foreign keys")
        for line, name in writer.names.items():
            row = opened.execute(
                "select json_extract(document, '$.name') from line_steps s join lines l on l.id = s.line_id "
                "where l.id = ? and s.seq = l.head",
                (line,),
            ).fetchone()
            if row is None or int(row[0]) < name:
                found.append(f"line {line} at {name}: {row}")
        labels = {row[0] for row in opened.execute("select label from stock")}
        photos = {row[0] for row in opened.execute("select id from photos")}
    found += [f"stock {label}" for label in writer.labels - labels]
    folder = database.parent / f"{database.stem}-photos"
    found += [f"photograph {photo}" for photo in writer.photos if photo not in photos]
    found += [f"file of {photo}" for photo in writer.photos if not (folder / f"{photo}.jpg").is_file()]
    return found


def left_over(database: Path) -> list[str]:
    """Files that nothing needs, after the sweep of a day later."""
    sweep(database, time.time() + 86_400)
    folder = database.parent / f"{database.stem}-photos"
    with closing(sqlite3.connect(database)) as opened:
        known = {row[0] for row in opened.execute("select id from photos")}
    return [
        path.name
        for path in [*database.parent.rglob("*.part"), *folder.glob("*.jpg")]
        if path.suffix == ".part" or path.stem not in known
    ]


def loaded(scratch: Path) -> FastAPI:
    """The application with everything loaded that a server loads, so that its copies start at once. The
    process that reads files takes longer to load than most of these servers live: they read themselves."""
    import_module("uvicorn.protocols.http.h11_impl")
    import_module("uvicorn.lifespan.on")
    photos.apart = lambda _bounds, task, *args: task(*args)
    app.ready = lambda: None
    application = app.create_app(scratch)
    client = TestClient(application, base_url="http://127.0.0.1")
    job = client.post("/api/jobs", json={"name": "loaded"}).json()
    client.post(f"/api/jobs/{job['id']}/lines", json={"name": "loaded"})
    client.post("/api/photos", content=photograph(random.Random(0)))
    application.state.shop.close()
    return application


def main(folder: Path, cycles: int, seed: int) -> dict[str, Any]:
    """Kill as often as asked."""
    database, rng, writer = folder / "shop.db", random.Random(seed), Writer()
    application = loaded(folder / "loaded" / "shop.db")
    shutil.rmtree(folder / "loaded")
    wrong: list[str] = []
    for cycle in range(cycles):
        with socket.create_server(("127.0.0.1", 0)) as listening:
            port = listening.getsockname()[1]
            child = serve(application, database, listening)
        # the threads end before the next child is made
        thread = threading.Thread(target=writer.work, args=(port, random.Random(rng.random())))
        thread.start()
        # a kill may also come while it starts; else not before it has acknowledged something, however slow
        if cycle % 5:
            before, until = writer.count, time.monotonic() + 20
            while writer.count == before and time.monotonic() < until:
                time.sleep(0.01)
        time.sleep(rng.uniform(0.01, 0.5))
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        thread.join()
        wrong += lost(database, writer) if database.exists() else []
    return {"cycles": cycles, "acknowledged": writer.count, "lost": wrong, "left": left_over(database)}


if __name__ == "__main__":
    print(json.dumps(main(Path(sys.argv[1]), int(sys.argv[2]), int(sys.argv[3]))))
