"""Ids inside a document are letters, digits, - and _ alone; nothing else comes in or becomes HTML."""

import json

import pytest
from starlette.testclient import TestClient

from bendrel.api.app import create_app
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from bendrel.exchange.errors import FileError
from bendrel.exchange.shapes.sketch_line import SpanSketch
from bendrel.exchange.shapes.svg import _span
from tests.lines import bent, row

HOSTILE = '"><a href=//e.x>'


def with_id(*way, value=HOSTILE):
    told = line_to_value(bent(row(100, 90), row(60, 45, "3:00")))
    told["condition"]["damage"] = [{"id": "d1", "kind": "rust"}]
    at = told
    for step in way[:-1]:
        at = at[step]
    at[way[-1]] = value
    return told


WAYS = [
    ("spans", 0, "id"),
    ("spans", 0, "readings", "rows", 0, "id"),
    ("condition", "damage", 0, "id"),
    ("condition", "damage", 0, "span"),
]


@pytest.mark.parametrize("way", WAYS, ids=lambda way: str(way[-2]) + "/" + str(way[-1]))
def test_a_hostile_id_is_refused_in_a_sentence(way, tmp_path):
    with pytest.raises(FileError, match="letters, digits, - and _ alone"):
        line_from_value(with_id(*way))
    with TestClient(create_app(tmp_path / "b.db"), base_url="http://127.0.0.1") as client:
        answer = client.post("/api/preview", json=with_id(*way))
    assert answer.status_code == 422
    assert "letters, digits, - and _ alone" in json.dumps(answer.json(), ensure_ascii=False)


def test_a_drawing_quotes_what_it_is_given():
    points = ((0.0, 0.0), (10.0, 0.0))
    sketch = SpanSketch(
        span=HOSTILE,
        look="hose",
        name="hose",
        points=points,
        middle=points[0],
        width=4.0,
        sign=None,
        guessed=False,
        depth=0.0,
    )
    assert "<a " not in "".join(_span(sketch))
