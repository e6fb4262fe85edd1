"""Files that mean harm, sent to the server: one sentence, nothing kept, and the next one is answered.

`BENDREL_HOSTILE` sets how many are sent (60 as a rule); `BENDREL_HOSTILE_TIMES` names a file for what each
took.
"""

import json
import os
import random
import zipfile
from dataclasses import replace
from pathlib import Path
from resource import RUSAGE_CHILDREN, getrusage
from time import perf_counter

import pytest

from bendrel.api import beside
from bendrel.exchange.documents.documents import line_to_value
from bendrel.exchange.shapes.dxf import read_dxf
from tests.api.hostile import JOB, dxf, hostile, jpeg, png, zipped
from tests.lines import bent, row

COUNT = int(os.environ.get("BENDREL_HOSTILE", "40"))
JSON = {"content-type": "application/json"}


@pytest.fixture
def document(client):
    line = client.get("/api/jobs").json()[0]["lines"][0]["id"]
    return client.get(f"/api/lines/{line}").json()["document"]


def sent(client, document, kind, data):
    if kind == "archive":
        return client.post("/api/archives?keep=true", content=data)
    if kind == "picture":
        return client.post("/api/photos", content=data)
    if kind == "body":
        return client.post("/api/preview", content=data, headers=JSON)
    text = data.decode("utf-8", "replace")
    return client.post(
        "/api/import", json={"text": text, "document": document, "radius": "14 mm", "unit": "mm"}
    )


def test_every_hostile_file_is_refused_or_understood_and_the_server_goes_on(client, document):
    jobs = len(client.get("/api/jobs").json())
    times, kept = [], 0
    for file in hostile(COUNT):
        began = perf_counter()
        answer = sent(client, document, file.kind, file.data)
        times.append((perf_counter() - began, file.kind, len(file.data), answer.status_code))
        assert answer.status_code in (200, 201, 400, 413, 422), (file.kind, answer.text)
        if answer.status_code >= 400:
            said = answer.json()["message"]
            assert said.endswith("."), said
            assert len(said.splitlines()) == 1, said
            assert len(said) < 400, said
        elif file.kind == "archive":
            kept += 1
    assert len(client.get("/api/jobs").json()) == jobs + kept
    if named := os.environ.get("BENDREL_HOSTILE_TIMES"):
        times.sort(reverse=True)
        most = getrusage(RUSAGE_CHILDREN).ru_maxrss // 1024
        Path(named).write_text(f"most memory of a process {most} MB\n" + "\n".join(map(str, times[:40])))


STOPPED = {
    "600,000 values": ("archive", zipped({"job.json": b'{"lines":[' + b"[]," * 6_000_000 + b"[]]}"})),
    "unpacks to over 20 MB": ("archive", zipped({"job.json": b"x" * 21_000_000})),
    "A side of the photograph is over 20,000 pixels": ("picture", png(1, 60_000_000)),
    "over 25 million pixels": ("picture", png(9_000, 9_000)),
    "over 40 scans": ("picture", jpeg(random.Random(1), 300, 150)),
    "40,000 values": ("body", b'{"spans":[' + b"[]," * 600_000 + b"[]]}"),
}
"""What stopped the server once, by what is said of it now."""


@pytest.mark.parametrize("said", STOPPED)
def test_what_stopped_the_server_once(client, document, said):
    answer = sent(client, document, *STOPPED[said])
    assert answer.status_code == 422
    assert said in answer.json()["message"]


def test_a_corrupt_entry_of_any_packing_is_one_sentence(client):
    for method in (zipfile.ZIP_LZMA, zipfile.ZIP_BZIP2, zipfile.ZIP_DEFLATED):
        data = bytearray(zipped({"job.json": JOB.encode() * 40}, method))
        for at in range(45, min(len(data) - 90, 400), 7):
            data[at] ^= 0x55
        answer = client.post("/api/archives", content=bytes(data))
        assert answer.status_code == 422
        assert answer.json()["message"].endswith(".")


@pytest.mark.parametrize("bends", [201, 350, 5_000])
def test_more_bends_than_can_be_saved_are_refused_at_the_door(client, document, bends):
    head = "straight_mm,rotation_deg,angle_deg,radius_mm\n"
    text = head + "60,0,20,14\n60,180,20,14\n" * (bends // 2) + "60,0,20,14\n" * (bends % 2) + "50,,,\n"
    answer = sent(client, document, "table", text.encode()[:5_900_000])
    assert answer.status_code == 422
    assert "200 at most" in answer.json()["message"] or "5,000 rows" in answer.json()["message"]


def test_two_hundred_bends_are_understood_and_can_be_saved(client, document):
    head = "straight_mm,rotation_deg,angle_deg,radius_mm\n"
    text = head + "60,0,20,14\n60,180,20,14\n" * 100 + "50,,,\n"
    read = sent(client, document, "table", text.encode()).json()["document"]
    job = client.post("/api/jobs", json={"name": "long"}).json()
    line = client.post(f"/api/jobs/{job['id']}/lines", json={"name": "long"}).json()
    kept = client.put(f"/api/lines/{line['id']}", json={"version": 1, "document": read})
    assert kept.status_code == 200


def test_a_drawing_of_many_shuffled_lines_is_put_in_order():
    """2,000 lines in any order; their order by the way they were made."""
    places = list(range(2_000))
    random.Random(3).shuffle(places)
    drawing = read_dxf(dxf(places, 10).decode(), "mm")
    along = [round(x) for x, _, _ in drawing.points]
    assert along in (list(range(0, 20_001, 10)), list(range(20_000, -1, -10)))


def test_too_much_to_reckon_is_said(client, monkeypatch):
    """A limit that nothing keeps stands for a line that is too long."""
    short = replace(beside.RECKONING, seconds=0.01)
    monkeypatch.setitem(beside.reckoned.__kwdefaults__, "bounds", short)
    answer = client.post("/api/bench", json=line_to_value(bent(row(100, 90))))
    assert answer.status_code == 413
    assert answer.json()["message"].startswith("Too much to reckon")
    assert json.loads(answer.text).keys() == {"message"}
