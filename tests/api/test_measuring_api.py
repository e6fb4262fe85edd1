"""What measuring, copying and files look like to whoever calls the API."""

import jsonschema_rs
import pytest

from tests.api.told import main_piece, tube


@pytest.fixture
def lines(client):
    """Documents and ids of the demo's lines by name."""
    found = {}
    for job in client.get("/api/jobs").json():
        for line in job["lines"]:
            found[line["name"]] = client.get(f"/api/lines/{line['id']}").json()
    return found


@pytest.fixture
def left(lines):
    return lines["Rear axle, left"]


ORDER = {"how": "mirror", "spacing": "", "clock": "12:00", "nested": False, "end": "B", "longer": ""}


def test_a_copy_is_shown_and_nothing_is_kept(client, lines, left):
    target = lines["Rear axle, right"]
    body = {"document": target["document"], "source": left["id"], "order": ORDER}
    answer = client.post("/api/copy", json=body).json()
    assert answer["understood"] == "mirror image of “Rear axle, left”"
    assert answer["document"]["name"] == "Rear axle, right"
    assert client.get(f"/api/lines/{target['id']}").json()["version"] == target["version"]
    gone = client.post("/api/copy", json=body | {"source": "nowhere"})
    assert (gone.status_code, "message" in gone.json()) == (404, True)
    wrong = client.post("/api/copy", json=body | {"order": ORDER | {"how": "neighbour", "spacing": "x"}})
    assert wrong.status_code == 422
    assert wrong.json()["message"].startswith("Neighbour")


def test_the_plan_carries_doubt_and_checks(client, left):
    document = left["document"]
    tube(document)["checks"] = {
        "wire": {"text": "36 5/16", "unit": "in"},
        "tape": {"text": "25", "unit": "in"},
    }
    plan = client.post("/api/preview", json=document).json()
    measured = main_piece(plan)["measured"]
    assert measured["doubt"]["end_b_mm"] > measured["doubt"]["developed_mm"] > 0
    assert {check["kind"] for check in measured["checks"]} == {"wire", "tape"}
    assert measured["disagree"] is True
    named = client.post("/api/suspects", json=document).json()["named"]
    assert 1 <= len(named) <= 3
    assert named
    assert all(item["path"].startswith("/spans/s1/") for item in named)


def test_another_radius_tells_where_it_strays(client, left):
    body = {"document": left["document"], "radius": "1 1/4"}
    result = client.post("/api/reradius", json=body).json()["result"]
    assert result["meets_ports"] is True
    assert result["departure_mm"] > 0
    assert client.post("/api/reradius", json=body | {"radius": "-3"}).status_code == 422


KINDS = {
    "document": "application/json",
    "points": "text/csv; charset=utf-8",
    "bends": "text/csv; charset=utf-8",
    "dxf": "image/vnd.dxf",
    "svg": "image/svg+xml",
    "step": "model/step",
    "stl": "model/stl",
    "glb": "model/gltf-binary",
}


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_of_file_has_its_type_and_name(client, left, kind):
    answer = client.get(f"/api/lines/{left['id']}/export/{kind}")
    assert answer.status_code == 200
    assert answer.headers["content-type"] == KINDS[kind]
    assert "filename*=UTF-8''Rear%20axle%2C%20left" in answer.headers["content-disposition"]
    assert len(answer.content) > 100


@pytest.mark.parametrize("kind", ["dxf", "step", "stl", "glb"])
def test_a_line_that_cannot_be_made_has_no_solid(client, lines, kind):
    line = lines["Front left, as sketched (cannot be made)"]
    answer = client.get(f"/api/lines/{line['id']}/export/{kind}")
    assert answer.status_code == 422
    assert "A straight is missing" in answer.json()["message"]


def test_what_goes_out_as_dxf_comes_in_as_the_same_line(client, left):
    text = client.get(f"/api/lines/{left['id']}/export/dxf").text
    body = {"text": text, "document": left["document"], "radius": "", "unit": None}
    read = client.post("/api/import", json=body).json()
    assert (read["unit"], read["notes"]) == ("mm", [])
    before = main_piece(client.post("/api/preview", json=left["document"]).json())["part"]
    after = main_piece(client.post("/api/preview", json=read["document"]).json())["part"]
    assert after["cut_mm"] == pytest.approx(before["cut_mm"], abs=1e-6)
    for old, new in zip(before["bends"], after["bends"], strict=True):
        assert new["clock_deg"] == pytest.approx(old["clock_deg"], abs=1e-4)


def test_the_schema_of_a_line_document_is_published_and_fits(client, left):
    schema = client.get("/api/schema/line").json()
    jsonschema_rs.validator_for(schema).validate(left["document"])
    assert not jsonschema_rs.is_valid(schema, left["document"] | {"unheard_of": 1})


def test_a_line_that_is_done_says_so_on_the_board(client, left):
    document = left["document"]
    for item in document["removal"]["items"]:
        item["refitted"] = True
    for item in document["open_items"]:
        item["closed"] = True
    body = {"version": left["version"], "document": document | {"finished": True}}
    assert client.put(f"/api/lines/{left['id']}", json=body).status_code == 200
    job = client.get(f"/api/jobs/{left['job_id']}").json()
    assert [line["name"] for line in job["lines"] if line["done"]] == ["Rear axle, left"]
    assert job["lines"][-1]["next_step"] == "Done"
