"""A connection that says nothing, or never comes to the end of its question, is given up."""

import socket
import threading

import pytest
import uvicorn
from fastapi import FastAPI

from bendrel import patience
from bendrel.api import guard


@pytest.fixture
def port(monkeypatch):
    """A small application behind the protocol and the guard, both short of patience."""
    monkeypatch.setattr(patience, "UNSPOKEN_S", 0.3)
    monkeypatch.setattr(guard, "BODY_SILENT_S", 0.3)
    app = FastAPI()

    @app.get("/api/here")
    def here() -> str:
        return "here"

    @app.post("/api/here")
    def said(body: dict[str, str]) -> dict[str, str]:
        return body

    app.add_middleware(guard.Guard)
    listening = socket.create_server(("127.0.0.1", 0))
    server = uvicorn.Server(uvicorn.Config(app, http=patience.PatientProtocol, log_level="critical"))
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listening]})
    thread.start()
    yield listening.getsockname()[1]
    server.should_exit = True
    thread.join()
    listening.close()


def heard(port, *parts):
    """What comes back until the server closes."""
    with socket.create_connection(("127.0.0.1", port), timeout=20) as line:
        for part in parts:
            line.sendall(part)
        found = b""
        while data := line.recv(4096):
            found += data
        return found


def test_who_says_nothing_is_let_go(port):
    assert heard(port) == b""


def test_half_a_head_is_given_up(port):
    assert heard(port, b"GET /api/here HTTP/1.1\r\nhost: 127.0.0.1\r\nx-slow: ") == b""


def test_half_a_body_is_said_to_have_stayed_away(port):
    head = b"POST /api/here HTTP/1.1\r\nhost: 127.0.0.1\r\nconnection: close\r\n"
    said = heard(port, head + b"content-type: application/json\r\ncontent-length: 90\r\n\r\n", b'{"a": ')
    assert said.startswith(b"HTTP/1.1 408")
    assert b"did not come; send it again" in said


@pytest.mark.long("waits for a connection to be given up")
def test_a_second_question_on_the_same_line_must_come_whole_too(port):
    question = b"GET /api/here HTTP/1.1\r\nhost: 127.0.0.1\r\n\r\n"
    said = heard(port, question, b"GET /api/he")
    assert said.count(b"HTTP/1.1 200") == 1
