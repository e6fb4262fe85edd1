"""Requests from the schema with documents of the demo, most of them spoilt: an answer or our own sentence.

`BENDREL_REQUESTS` sets how many are sent (300 as a rule).
"""

from __future__ import annotations

import os
import random
import re
from collections import Counter
from typing import Any

import pytest

from tests.api.test_any_document import NUMBERS, TEXTS, spoilt

COUNT = int(os.environ.get("BENDREL_REQUESTS", "200"))
MACHINE = re.compile(
    r"Traceback|File \"|/src/|/home/|/tmp/|site-packages|Input should|keyword argument|validation error|"
    r"NoneType|<class|object at 0x|pydantic|sqlite|sqlalchemy|[a-z]Error:|\btuple\b|\bdict\b|›"
)
"""Words of machines: none of them is for a person."""
STRANGE: tuple[Any, ...] = (
    *(None, True, [], {}, [[]], {"unit": []}, 1e308, -1, 2**70, "", "\x00", "x" * 5_000, "🔧" * 40),
    *("../../etc", "'; drop table jobs", "<script>", [1, "a", None], {"kind": "rope"}, "2026-13-45"),
)
QUIET = {"/api/instruments/stream", "/api/shop/everything.zip", "/api/lines/{line_id}/export/{kind}"}
"""Endless, or as slow as the whole shop."""


def makings(client, line):
    """The makings of a line."""
    return client.get(f"/api/lines/{line}/makings").json()


class Sender:
    """Makes up requests from the schema of the API."""

    def __init__(self, client, rng: random.Random) -> None:
        self.client, self.rng = client, rng
        told = client.get("/api/openapi.json").json()
        self.schemas = told["components"]["schemas"]
        self.calls = [
            (method, path, call)
            for path, calls in told["paths"].items()
            for method, call in calls.items()
            if path not in QUIET
        ]
        board = client.get("/api/jobs").json()
        lines = [line["id"] for job in board for line in job["lines"]]
        self.documents = [client.get(f"/api/lines/{line}").json()["document"] for line in lines]
        self.known = {
            "job_id": [job["id"] for job in board],
            "line_id": lines,
            "line": lines,
            "source": lines,
            "stock_id": [row["id"] for row in client.get("/api/stock").json()],
            "entry_id": [row["id"] for shelf in client.get("/api/own").json() for row in shelf["rows"]],
            "making_id": [
                one["id"] for line in lines for one in client.get(f"/api/lines/{line}/makings").json()
            ],
            "span": ["s1", ""],
        }

    def send(self, number: int):
        """One request; each call of the API in turn."""
        method, path, call = self.calls[number % len(self.calls)]
        query = {}
        for one in call.get("parameters", ()):
            value = self.told(one["name"], one["schema"])
            if one["in"] == "path":
                path = path.replace(
                    f"{{{one['name']}}}", re.sub(r"[/?#\\%\x00]", "_", str(value))[:60] or "_"
                )
            elif one["in"] == "query" and (one.get("required") or self.rng.random() < 0.5):
                query[one["name"]] = value
        content = call.get("requestBody", {}).get("content", {})
        if "application/json" in content:
            body = self.value(content["application/json"]["schema"])
            return self.client.request(method, path, params=query, json=body)
        data = self.rng.randbytes(self.rng.choice([0, 20, 900])) if content else None
        return self.client.request(method, path, params=query, content=data)

    def told(self, name: str, schema: dict[str, Any]) -> Any:
        """A parameter: one that there is, or anything."""
        known = self.known.get(name)
        return self.rng.choice(known) if known and self.rng.random() < 0.8 else self.value(schema)

    def value(self, schema: dict[str, Any], depth: int = 0) -> Any:
        """Something that fits a schema, as a rule."""
        rng = self.rng
        if rng.random() < 0.03:
            return rng.choice(STRANGE)
        if "$ref" in schema:
            name = schema["$ref"].rsplit("/", 1)[-1]
            if name == "Line":
                document = rng.choice(self.documents)
                return document if rng.random() < 0.4 else spoilt(document, rng)
            return self.value(self.schemas[name], depth + 1)
        for several in ("anyOf", "oneOf"):
            if several in schema:
                return self.value(rng.choice(schema[several]), depth + 1)
        if "enum" in schema or "const" in schema:
            return rng.choice(schema.get("enum", [schema.get("const")]))
        kind = schema.get("type")
        if kind == "object":
            needed = set(schema.get("required", ()))
            return {
                key: self.told(key, inner)
                for key, inner in schema.get("properties", {}).items()
                if key in needed or (depth < 6 and rng.random() < 0.5)
            }
        if kind == "array":
            many = rng.randint(0, 2 if depth < 6 else 0)
            items = schema.get("prefixItems") or [schema.get("items", {})] * max(
                many, schema.get("minItems", 0)
            )
            return [self.value(item, depth + 1) for item in items]
        if kind == "string":
            return rng.choice((*TEXTS, "2026-11-27", "12 mm", "mm", "copper-nickel"))
        if kind == "integer":
            return rng.choice((0, 1, 2, 3, 40, 10**6, -1))
        if kind == "number":
            return rng.choice(NUMBERS)
        return rng.choice((True, False)) if kind == "boolean" else None


@pytest.mark.filterwarnings("ignore::UserWarning")
@pytest.mark.long("drawn requests to every route")
def test_any_request_gets_an_answer_or_one_sentence_of_ours(client):
    sender = Sender(client, random.Random(15))
    seen: Counter[int] = Counter()
    for number in range(COUNT):
        answer = sender.send(number)
        seen[answer.status_code] += 1
        asked = answer.request
        told = f"{asked.method} {asked.url} {asked.content[:3000]!r}: {answer.text[:400]}"
        assert answer.status_code < 500, told
        if answer.status_code >= 400:
            said = answer.json()["message"]
            assert not MACHINE.search(said), told
            assert said.strip().endswith((".", "?", "”")), told
    assert seen[200] > COUNT / 10, seen
