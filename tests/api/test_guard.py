"""What every request passes and every answer carries, refusals and faults too."""

import json

import pytest

from bendrel.api.guard import MOST_PATH
from bendrel.exchange.documents.elements import MOST_IN_A_LINE, holds_over

JSON = {"content-type": "application/json"}
ANSWERS = {
    200: lambda c: c.get("/api/jobs"),
    400: lambda c: c.get("/api/jobs", headers={"host": "bendrel.example"}),
    403: lambda c: c.post("/api/jobs", json={"name": "x"}, headers={"origin": "http://other.example"}),
    404: lambda c: c.get("/api/lines/none"),
    405: lambda c: c.delete("/api/jobs"),
    413: lambda c: c.post("/api/preview", content=b" " * 2_600_000, headers=JSON),
    414: lambda c: c.get(f"/api/photos/{'a' * 300}"),
    422: lambda c: c.post("/api/preview", json={"name": 3}),
}


def carries_all(answer):
    headers = answer.headers
    assert "default-src 'self'" in headers["content-security-policy"]
    assert headers["x-content-type-options"] == "nosniff"
    assert headers["x-frame-options"] == "DENY"
    assert headers["cross-origin-resource-policy"] == "same-origin"
    assert headers["cache-control"] == "no-store"


@pytest.mark.parametrize("status", ANSWERS)
def test_every_answer_carries_the_headers(client, status):
    answer = ANSWERS[status](client)
    assert answer.status_code == status
    carries_all(answer)


def test_a_fault_of_ours_too_and_it_says_nothing_of_what_was_sent(client, application, monkeypatch, caplog):
    def broken(_document):
        raise KeyError("a secret name")

    monkeypatch.setattr(application.state.shop.lines, "plan", broken)
    line = client.get("/api/jobs").json()[0]["lines"][0]["id"]
    document = client.get(f"/api/lines/{line}").json()["document"]
    with caplog.at_level("INFO"):
        answer = client.post("/api/preview", json=document)
    assert answer.status_code == 500
    carries_all(answer)
    assert "secret" not in answer.text + caplog.text
    assert "KeyError at" in caplog.text


@pytest.mark.parametrize(
    "host",
    ["127.0.0.1", "127.0.0.1:8470", "localhost:1", "[::1]:8470", "LOCALHOST"],
)
def test_this_machine_by_its_own_names(client, host):
    assert client.get("/api/backups", headers={"host": host}).status_code == 200


@pytest.mark.parametrize(
    "host",
    [
        "127.0.0.1.evil.example",
        "127.0.0.1:8470:80",
        "localhost.",
        "127.0.0.1:x",
        "evil.example",
        "[::1]x",
        "",
        "127.1",
    ],
)
def test_no_other_name_is_answered(client, host):
    assert client.get("/api/backups", headers={"host": host}).status_code == 400


def test_no_more_values_than_a_line_can_have(client):
    body = b'{"spans":[' + b"[]," * MOST_IN_A_LINE + b"[]]}"
    answer = client.post("/api/preview", content=body, headers=JSON)
    assert answer.status_code == 422
    assert "40,000 values" in answer.json()["message"]


@pytest.mark.parametrize(
    ("text", "count"),
    [
        (b"[1,2,3]", 3),
        (b'{"a":"b,c,d,[[[","e":2}', 2),
        (b'["a\\",b",2]', 2),
        (b'["\\\\",2,3]', 3),
        (b'["never ends, [[[', 1),
        (b'"\\' * 9, 0),
    ],
)
def test_marks_within_text_are_text(text, count):
    assert not holds_over(text, count)
    assert count == 0 or holds_over(text, count - 1)


@pytest.mark.parametrize("body", [b"[" * 30_000, b'{"a":' * 9_000, b"{", b"", b"\xff\xfe", b"nul"])
def test_what_is_no_json_gets_one_sentence(client, body):
    answer = client.post("/api/preview", content=body, headers=JSON)
    assert answer.status_code in (400, 422)
    assert json.loads(answer.text)["message"].endswith(".")


def test_an_address_is_no_longer_than_any_here(client):
    assert client.get("/api/lines/" + "x" * MOST_PATH).status_code == 414
    assert client.get("/api/jobs?x=" + "y" * 3000).status_code == 414
