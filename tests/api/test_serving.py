"""The real server as a process: what broke off, whose it is, and how it ends."""

import json
import os
import re
import signal
import socket
import subprocess
import sys
import threading
import urllib.error
import urllib.request
from pathlib import Path
from time import monotonic, sleep

import pytest

from bendrel.exchange.documents.documents import line_to_value
from bendrel.patience import belongs_to_another
from tests.lines import bent, row

BENDREL = Path(sys.executable).with_name("bendrel")
NOBODY = 65534
SHORT, LONG = (
    json.dumps(line_to_value(bent(*(row(100 + k, 60) for k in range(bends)), last=200))).encode()
    for bends in (1, 20)
)


def started(folder):
    """A server on an empty shop: its process and its address."""
    command = [BENDREL, "serve", "--data", folder, "--port", "48411"]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True)
    return process, re.search(r"http://127\.0\.0\.1:\d+/", process.stdout.readline())[0]


@pytest.fixture(scope="module")
def served(tmp_path_factory):
    """The address of one server for all tests that do not end it, and its folder."""
    folder = tmp_path_factory.mktemp("served")
    process, address = started(folder)
    yield address, folder
    process.terminate()
    process.communicate(timeout=20)


def log_of(folder, words):
    """The log, once it holds the words."""
    until = monotonic() + 20
    while monotonic() < until:
        if words in (told := (folder / "bendrel.log").read_text()):
            return told
        sleep(0.05)
    raise AssertionError(f"{words} is not in the log:\n{told}")


def asked_by(user, port):
    """What a process of that user hears of the board."""
    ours, theirs = os.pipe()
    child = os.fork()
    if child == 0:  # nothing of the tests' own goes on in it
        os.setuid(user)
        with socket.create_connection(("127.0.0.1", port), timeout=20) as line:
            line.sendall(
                f"GET /api/jobs HTTP/1.1\r\nhost: 127.0.0.1:{port}\r\nconnection: close\r\n\r\n".encode()
            )
            while data := line.recv(4096):
                os.write(theirs, data)
        os._exit(0)
    os.waitpid(child, 0)
    os.close(theirs)
    with os.fdopen(ours, "rb") as told:
        return told.read().decode()


def test_an_upload_that_breaks_off_is_no_fault(served):
    address, folder = served
    port = int(address.rstrip("/").rsplit(":", 1)[1])
    with socket.create_connection(("127.0.0.1", port)) as line:
        line.sendall(
            f"POST /api/shop/everything HTTP/1.1\r\nhost: 127.0.0.1:{port}\r\n".encode()
            + b"content-length: 5000\r\n\r\nPK"
        )
    told = log_of(folder, "broken off POST /api/shop/everything")
    assert "ERROR" not in told
    assert list(folder.glob("shop-sent-*")) == []


def test_another_user_of_the_machine_is_refused(served):
    address, _ = served
    port = int(address.rstrip("/").rsplit(":", 1)[1])
    assert asked_by(os.getuid(), port).startswith("HTTP/1.1 200")
    if os.getuid() == 0:
        refused = asked_by(NOBODY, port)
        assert refused.startswith("HTTP/1.1 403")
        assert "the one who started it" in refused


def test_whose_a_connection_is_as_the_system_lists_it(tmp_path, monkeypatch):
    """Rows as proc(5) prints them: addresses in hexadecimal, the owner in the eighth column."""
    listed = tmp_path / "tcp"
    listed.write_text(
        "  sl  local_address rem_address   st tx_queue rx_queue tr tm->when retrnsmt   uid  timeout inode\n"
        "   0: 0100007F:2116 0100007F:C350 01 00000000:00000000 00:00000000 00000000  1000        0 1\n"
        "   1: 0100007F:C350 0100007F:2116 01 00000000:00000000 00:00000000 00000000  1001        0 2\n"
        "   2: 0100007F:C351 0100007F:2116 01 00000000:00000000 00:00000000 00000000     0        0 3\n"
        "   3: 0100007F:C352 0100007F:2116 01 00000000:00000000 00:00000000 00000000  1000        0 4\n"
    )
    monkeypatch.setattr("bendrel.patience.SOCKETS", listed)
    monkeypatch.setattr("bendrel.patience.os.getuid", lambda: 1000)
    assert belongs_to_another(50000, 8470)  # 0xC350, 0x2116
    assert not belongs_to_another(50001, 8470)  # the administrator's
    assert not belongs_to_another(50002, 8470)  # our own
    assert not belongs_to_another(50009, 8470)  # not told
    monkeypatch.setattr("bendrel.patience.SOCKETS", tmp_path / "none")
    assert not belongs_to_another(50000, 8470)


@pytest.mark.long("a server starts and loads all that it forks")
def test_told_to_end_while_it_reckons_it_ends_without_a_trace(tmp_path):
    process, address = started(tmp_path)
    begun = threading.Semaphore(0)

    def bench(document):
        head = {"content-type": "application/json"}
        request = urllib.request.Request(f"{address}api/bench", document, head, method="POST")
        return urllib.request.urlopen(request, timeout=60).status

    def ask():
        begun.release()
        try:
            bench(LONG)
        except (OSError, urllib.error.URLError):
            return

    assert bench(SHORT) == 200  # everything is loaded
    asking = [threading.Thread(target=ask) for _ in range(4)]
    for thread in asking:
        thread.start()
        begun.acquire()
    sleep(0.5)
    process.send_signal(signal.SIGTERM)
    _, said = process.communicate(timeout=20)
    for thread in asking:
        thread.join()
    assert "Traceback" not in said
    assert said == ""
