"""The API: what works, and one clear sentence for what does not."""

import io
import json

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from pypdf import PdfReader
from starlette.testclient import TestClient

from bendrel.api.app import create_app
from tests.api.told import main_piece


def line_named(client, name):
    for job in client.get("/api/jobs").json():
        for line in job["lines"]:
            if line["name"] == name:
                return client.get(f"/api/lines/{line['id']}").json()
    raise AssertionError(name)


@pytest.fixture
def line(client):
    return line_named(client, "Rear axle, left")


def test_the_demo_has_a_sound_line_and_an_impossible_one(client, line):
    jobs = {job["name"]: job for job in client.get("/api/jobs").json()}
    assert set(jobs) == {"Fire tender", "Harbour launch", "Slipway crane"}
    summary = {entry["name"]: entry for entry in jobs["Fire tender"]["lines"]}
    sound = summary["Rear axle, left"]
    assert sound["bends"] >= 5
    assert sound["tube"] == "3/16 in copper-nickel"
    assert "stop" not in sound["findings"]
    impossible = next(entry for name, entry in summary.items() if "cannot be made" in name)
    assert impossible["findings"]["stop"] >= 4
    planes = main_piece(client.post("/api/preview", json=line["document"]).json())["part"]["bends"]
    assert len({bend["clock_deg"] % 180 for bend in planes}) > 1


def test_a_line_from_nothing_to_its_sheet(client):
    job = client.post("/api/jobs", json={"name": "Pump", "unit": "mm"}).json()
    made = client.post(f"/api/jobs/{job['id']}/lines", json={"name": "Drain"})
    assert made.status_code == 201
    line = made.json()
    document = line["document"]
    readings = document["spans"][0]["readings"]
    readings["rows"] = [
        {"length": {"text": "4 in", "unit": "mm"}, "read_to": "outside", "angle": {"text": "90"}}
    ]
    readings["last"] = {"text": "120", "unit": "mm"}
    plan = client.post("/api/preview", json=document).json()
    assert plan["lengths_mm"]["/spans/s1/readings/rows/r1/length"] == pytest.approx(101.6)
    saved = client.put(f"/api/lines/{line['id']}", json={"version": 1, "document": document})
    assert saved.json()["version"] == 2
    sheet = client.get(f"/api/lines/{line['id']}/sheet.pdf")
    assert sheet.headers["content-type"] == "application/pdf"
    made, flared, closed = PdfReader(io.BytesIO(sheet.content)).pages
    assert "Fit and prove" not in made.extract_text()
    assert "Flaring" in flared.extract_text()
    assert "Fit and prove" in closed.extract_text()


def test_conversion_keeps_the_length(client, line):
    document = line["document"]
    before = main_piece(client.post("/api/preview", json=document).json())["part"]["developed_mm"]
    for kind in ("corners", "bends"):
        document = client.post("/api/convert", json={"document": document, "to": kind}).json()
        after = main_piece(client.post("/api/preview", json=document).json())["part"]["developed_mm"]
        assert after == pytest.approx(before, abs=1e-6)


def test_exports_come_back_in(client, line):
    for kind in ("document", "points", "bends"):
        file = client.get(f"/api/lines/{line['id']}/export/{kind}")
        assert "attachment" in file.headers["content-disposition"]
        body = {"text": file.text, "document": line["document"]}
        read = client.post("/api/import", json=body).json()
        a = main_piece(client.post("/api/preview", json=read["document"]).json())["part"]
        b = main_piece(client.post("/api/preview", json=line["document"]).json())["part"]
        assert a["developed_mm"] == pytest.approx(b["developed_mm"], abs=1e-6)
    assert client.get(f"/api/lines/{line['id']}/export/doc").status_code == 422


def test_undo_and_redo(client, line):
    path = f"/api/lines/{line['id']}"
    document = line["document"] | {"name": "other"}
    client.put(path, json={"version": 1, "document": document})
    undone = client.post(f"{path}/undo", json={"version": 2}).json()
    assert (undone["document"]["name"], undone["can_redo"]) == ("Rear axle, left", True)
    assert client.post(f"{path}/redo", json={"version": 3}).json()["document"]["name"] == "other"


def test_a_second_tab_gets_both_versions(client, line):
    path = f"/api/lines/{line['id']}"
    client.put(path, json={"version": 1, "document": line["document"] | {"name": "first"}})
    late = client.put(path, json={"version": 1, "document": line["document"] | {"name": "second"}})
    assert late.status_code == 409
    assert late.json()["current"]["name"] == "first"
    assert late.json()["version"] == 2
    assert late.json()["message"].endswith(".")


@pytest.mark.parametrize(
    "path",
    ["/api/lines/nowhere", "/api/jobs/nowhere", "/api/lines/nowhere/sheet.pdf", "/api/nothing", "/x.js"],
)
def test_what_does_not_exist_is_a_404_with_a_sentence(client, path):
    answer = client.get(path)
    assert answer.status_code == 404
    assert answer.json()["message"].endswith(".")


def test_bad_bodies_name_the_field(client, line):
    document = json.loads(json.dumps(line["document"]))
    document["spans"][0]["held"] = "C"
    answer = client.post("/api/preview", json=document)
    assert answer.status_code == 422
    assert "held" in answer.json()["message"]
    broken = client.post("/api/preview", content=b"{", headers={"content-type": "application/json"})
    assert (broken.status_code, broken.json()["message"]) == (422, "The request is not valid JSON.")
    assert client.post("/api/jobs", json={"name": ""}).status_code == 422


def test_a_reading_that_cannot_be_read_is_no_error_of_the_request(client, line):
    document = json.loads(json.dumps(line["document"]))
    document["spans"][0]["readings"]["rows"][2]["length"]["text"] = "9 furlongs"
    plan = client.post("/api/preview", json=document).json()
    assert main_piece(plan)["part"] is None
    assert plan["problems"][0]["path"] == "/spans/s1/readings/rows/r3/length"
    saved = client.put(f"/api/lines/{line['id']}", json={"version": 1, "document": document})
    assert saved.status_code == 200
    assert client.get(f"/api/lines/{line['id']}/sheet.pdf").status_code == 422


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("x_mm,y_mm,z_mm\n0,0,0\n", "radius_mm is missing"),
        ("x_mm,y_mm,z_mm,radius_mm\n" + "1,2,3,\n" * 100_000, "5,000 rows"),
        ("hello", "header"),
        ("{", "JSON"),
    ],
)
def test_a_bad_file_is_refused_with_a_sentence(client, line, text, word):
    answer = client.post("/api/import", json={"text": text, "document": line["document"]})
    assert answer.status_code == 422
    assert word in answer.json()["message"]


def test_a_body_over_the_limit(client):
    big = {"name": "x" * 3_000_000}
    answer = client.post("/api/jobs", json=big)
    assert answer.status_code == 413
    assert "2.5 MB" in answer.json()["message"]

    def drip():
        for _ in range(40):
            yield b"x" * 100_000

    assert client.post("/api/jobs", content=drip()).status_code == 413


def test_only_this_machine_and_this_site(client):
    assert client.get("/api/jobs", headers={"host": "elsewhere.example"}).status_code == 400
    foreign = client.post("/api/jobs", json={"name": "x"}, headers={"origin": "http://elsewhere.example"})
    assert foreign.status_code == 403
    policy = client.get("/api/jobs").headers["content-security-policy"]
    assert "default-src 'self'" in policy
    assert "'unsafe-eval'" not in policy


def test_a_failure_of_ours_is_one_sentence(tmp_path):
    app = create_app(tmp_path / "x.db")

    @app.get("/api/boom")
    def boom():
        raise RuntimeError("secret detail")

    app.router.routes.insert(0, app.router.routes.pop())
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        answer = client.get("/api/boom")
    assert answer.status_code == 500
    assert "secret" not in answer.text
    assert answer.json()["message"].endswith(".")


@pytest.mark.long("drawn requests to every route")
def test_nothing_that_fits_the_schema_breaks_the_server(tmp_path):
    app = create_app(tmp_path / "fuzz.db")
    here = {"host": "127.0.0.1"}
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app, headers=here)

    def check(operation):
        @given(case=operation.as_strategy())
        @settings(max_examples=1, deadline=None, suppress_health_check=list(HealthCheck), database=None)
        def inner(case):
            assert case.call(headers=here).status_code < 500, case.as_curl_command()

        inner()

    tried = [check(result.ok()) for result in schema.get_all_operations()]
    assert len(tried) >= 20


def test_a_line_begins_as_the_mirror_image_or_a_copy_of_another(client):
    jobs = client.get("/api/jobs").json()
    source = next(line for job in jobs for line in job["lines"] if line["name"] == "Cooler return, spliced")
    job = jobs[0]["id"]
    for mirror in (False, True):
        body = {"name": "again", "begins": {"like": source["id"], "mirror": mirror}}
        made = client.post(f"/api/jobs/{job}/lines", json=body).json()["document"]
        assert [span["state"] for span in made["spans"]] == ["stays", "to make", "stays"]
        assert made["proving"]["holds"] == []
        assert made["service"] == "cooler"
    gone = client.post(f"/api/jobs/{job}/lines", json={"name": "again", "begins": {"like": "gone"}})
    assert gone.status_code == 404
    assert "no line" in gone.json()["message"]


def test_nothing_is_put_in_that_was_not_copied(client):
    jobs = client.get("/api/jobs").json()
    line = next(line for job in jobs for line in job["lines"] if line["name"] == "Cooler return, spliced")
    document = client.get(f"/api/lines/{line['id']}").json()["document"]
    spans = document["spans"]
    order = {"kind": "copy", "span": spans[0]["id"], "side": "A"}
    empty = client.post("/api/chain", json={"document": document, "edit": order})
    assert empty.status_code == 422
    assert "Nothing was copied yet" in empty.json()["message"]
    copied = {"spans": spans[:2], "joints": document["joints"][:1]}
    made = client.post("/api/chain", json={"document": document, "edit": order | {"copied": copied}}).json()
    assert len(made["document"]["spans"]) == 5
    assert made["document"]["spans"][0]["id"] == made["span"]
