"""Documents that no screen would send, at every place that plans from one: an answer or one sentence.

`BENDREL_FUZZ` sets how many are tried (a thirtieth of it, 600 as a rule).
"""

from __future__ import annotations

import copy
import os
import random

import pytest

COUNT = int(os.environ.get("BENDREL_FUZZ", "240")) // 30
TEXTS = (
    *("", "  ", "x", "-5", "0", "1e9", "99999", "1/0", "90°", "½", "181", "3:00", "no_such_row"),
    *('12" 3/4', "0.0001", "90 m", "<b>", "9" * 60, "²"),
)
NUMBERS = (-1, 0, 1e-9, 0.1, 181, 99_999, 1e12)


def places(value, at=()):
    """Where every text, number, choice and list of a document stands."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from places(inner, (*at, key))
        return
    yield at
    if isinstance(value, list):
        for k, inner in enumerate(value):
            yield from places(inner, (*at, k))


def other(value, rng):
    """Something else of the same kind, so that it gets past the door."""
    if isinstance(value, bool):
        return not value
    if isinstance(value, str):
        return rng.choice(TEXTS)
    if isinstance(value, list):
        return []
    return rng.choice(NUMBERS)


def spoilt(document, rng):
    """The document with one to three values changed."""
    document = copy.deepcopy(document)
    for _ in range(rng.choice((1, 1, 2, 3))):
        *way, last = rng.choice(list(places(document)))
        inner = document
        for key in way:
            inner = inner[key]
        inner[last] = other(inner[last], rng)
    return document


@pytest.fixture
def every_document(client):
    lines = [line["id"] for job in client.get("/api/jobs").json() for line in job["lines"]]
    return [client.get(f"/api/lines/{line}").json()["document"] for line in lines]


@pytest.mark.long("drawn documents to every route")
def test_whatever_is_sent_gets_a_plan_or_one_sentence(client, every_document):
    rng = random.Random(7)
    planned = 0
    for _ in range(COUNT):
        document = spoilt(rng.choice(every_document), rng)
        asked = {
            "/api/preview": document,
            "/api/kit": document,
            "/api/suspects": document,
            "/api/bench": document,
            "/api/bench/standing": {"document": document, "made": []},
            "/api/bench/swing": {"document": document, "move": rng.randint(1, 7)},
        }
        for path, body in asked.items():
            answer = client.post(path, json=body)
            assert answer.status_code in (200, 422), (path, answer.text)
            if answer.status_code == 422:
                message = answer.json()["message"]
                assert message.endswith("."), message
                assert "Traceback" not in message
            else:
                planned += path == "/api/preview"
    assert planned > COUNT / 5  # enough of them came past the door


def test_a_computed_length_below_nought_is_no_length(client, every_document):
    document = every_document[0]
    document["carries"]["old_bore"] = {"text": "", "unit": "mm", "exact_mm": 0.0}
    told = client.post("/api/preview", json=document)
    assert "type it again" in told.text
