"""At the tool over HTTP: order, swing, makings with their readings, stock."""

from __future__ import annotations

import pytest


def line_named(client, name):
    for job in client.get("/api/jobs").json():
        for line in job["lines"]:
            if line["name"] == name:
                return client.get(f"/api/lines/{line['id']}").json()
    raise AssertionError(name)


@pytest.fixture
def left(client):
    return line_named(client, "Rear axle, left")


def entry(standing, **read):
    following = standing["remade"]["next"]
    told = {key: following[key] for key in ("start_mm", "angle_deg", "clock_deg")}
    return {
        "bend": following["move"]["bend"],
        "held": following["move"]["held"],
        "unit": "in",
        **told,
        **read,
    }


def test_the_order_in_use_and_the_obvious_one(client, left):
    report = client.post("/api/bench", json=left["document"]).json()
    assert report["at"]["blocked"] is None
    assert 0 <= report["exact"]["made"]["close"] <= report["exact"]["made"]["hand"] <= 1
    assert len(report["sections"]) == 6
    left["document"]["spans"][0]["order"] = []
    obvious = client.post("/api/bench", json=left["document"]).json()
    assert obvious["at"]["blocked"] == 6
    assert "fixed handle" in obvious["at"]["reason"]
    proposed = obvious["at"]["proposal"]["order"].split()
    assert sorted(step[1:] for step in proposed) == list("123456")
    assert {step[0] for step in proposed} == {"A"}, "changing the tube over costs more than another order"
    left["document"]["spans"][0]["order"] = [{"row": f"r{w[1:]}", "held": w[0]} for w in proposed]
    assert client.post("/api/bench", json=left["document"]).json()["at"]["blocked"] is None
    finding = obvious["findings"][0]
    assert finding["severity"] == "caution", "nobody has measured this tool's body"
    assert {change["path"] for change in finding["fix"]["changes"]} >= {"/spans/s1/order"}


def test_a_swing_shows_where_it_hits(client, left):
    left["document"]["spans"][0]["order"] = []
    view = client.post("/api/bench/swing", json={"document": left["document"], "move": 6}).json()
    assert view["hit_at"]
    assert {block["name"] for block in view["blocks"]} == {"fixed handle", "lever"}
    gone = client.post("/api/bench/swing", json={"document": left["document"], "move": 9})
    assert gone.status_code == 422
    assert gone.json()["message"] == "There is no move 9; this part has 6."


def test_a_making_is_kept_and_goes_on_another_day(client, left):
    making = client.post(f"/api/lines/{left['id']}/makings").json()
    standing = client.post("/api/bench/standing", json={"document": making["document"], "made": []}).json()
    made = [entry(standing)]
    state = {"done": ["bend-1"], "made": made, "spells": [{"start": "2026-01-14T18:00:00Z"}]}
    kept = client.put(f"/api/makings/{making['id']}", json={"version": 1, "state": state}).json()
    assert kept["version"] == 2
    again = client.post(f"/api/lines/{left['id']}/makings").json()
    assert again["id"] == making["id"]
    assert again["state"]["made"][0]["bend"] == 1
    stale = client.put(f"/api/makings/{making['id']}", json={"version": 1, "state": state})
    assert stale.status_code == 409


def test_readings_widen_or_narrow_the_shops_spread(client, left):
    before = client.post("/api/bench", json=left["document"]).json()["exact"]["spread"]
    making = client.post(f"/api/lines/{left['id']}/makings").json()
    made = []
    for _ in range(3):
        body = {"document": making["document"], "made": made}
        standing = client.post("/api/bench/standing", json=body).json()
        told = standing["remade"]["next"]["angle_deg"]
        made.append(entry(standing, angle=f"{told + 2.5:.2f}"))
    state = {"made": made}
    client.put(f"/api/makings/{making['id']}", json={"version": 1, "state": state})
    after = client.post("/api/bench", json=left["document"]).json()["exact"]["spread"]
    assert after["readings"] == before["readings"] + 3
    assert after["angle_deg"] > before["angle_deg"]


def test_an_ended_making_is_closed_and_a_new_one_may_begin(client, left):
    making = client.post(f"/api/lines/{left['id']}/makings").json()
    ended = client.post(f"/api/makings/{making['id']}/end", json={"outcome": "scrap"}).json()
    assert ended["outcome"] == "scrap"
    late = client.put(f"/api/makings/{making['id']}", json={"version": 2, "state": {}})
    assert late.status_code == 422
    assert client.post(f"/api/lines/{left['id']}/makings").json()["id"] != making["id"]


def test_a_part_that_cannot_be_planned_cannot_be_begun(client):
    tender = next(job for job in client.get("/api/jobs").json() if job["name"] == "Fire tender")
    blank = client.post(f"/api/jobs/{tender['id']}/lines", json={"name": "blank"}).json()
    refused = client.post(f"/api/lines/{blank['id']}/makings")
    assert refused.status_code == 422
    assert refused.json()["message"].startswith("Not yet: ")
    assert client.get(f"/api/lines/{blank['id']}/tape.pdf").status_code == 422


def test_made_bends_of_another_plan_are_refused(client, left):
    wrong = {"bend": 40, "held": "A", "start_mm": 1, "angle_deg": 9, "clock_deg": 0}
    body = {"document": left["document"], "made": [wrong]}
    assert client.post("/api/bench/standing", json=body).status_code == 422


def test_the_tape_is_a_pdf(client, left):
    tape = client.get(f"/api/lines/{left['id']}/tape.pdf")
    assert tape.headers["content-type"] == "application/pdf"
    assert tape.content.startswith(b"%PDF")


STICK = {"tube": "copper-nickel_3-16in_0.711", "form": "stick", "length": "3 m", "count": 2}


def test_stock_is_put_in_corrected_taken_out_and_put_back(client):
    kept = client.post("/api/stock", json=STICK).json()
    assert kept["label"].startswith("S")
    assert kept["length_mm"] == 3000
    changed = client.put(f"/api/stock/{kept['id']}?version=1", json={**STICK, "length": '118"'}).json()
    assert changed["length_mm"] == pytest.approx(2997.2)
    assert client.get(f"/api/stock/{kept['id']}/label.pdf").content.startswith(b"%PDF")
    client.delete(f"/api/stock/{kept['id']}")
    assert kept["id"] not in {row["id"] for row in client.get("/api/stock").json()}
    client.post(f"/api/stock/{kept['id']}/restore")
    assert kept["id"] in {row["id"] for row in client.get("/api/stock").json()}


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"length": "long"}, "Length: "),
        ({"length": "0"}, "Length: "),
        ({"tube": "no such tube"}, "The catalogue has no tube"),
        ({"form": "coil"}, "A coil is one piece"),
    ],
)
def test_stock_that_makes_no_sense_is_refused(client, change, says):
    before = len(client.get("/api/stock").json())
    refused = client.post("/api/stock", json={**STICK, **change})
    assert refused.status_code == 422
    assert refused.json()["message"].startswith(says)
    assert len(client.get("/api/stock").json()) == before


def test_own_flaring_tools_and_the_own_bench_are_used(client, left):
    fields = {"name": "short press", "forms": "every flare", "grip_mm": "12", "use": "on the machine"}
    kept = client.post("/api/own", json={"shelf": "flarers", "fields": fields}).json()
    catalogue = client.get("/api/catalogue").json()
    assert kept["row_id"] in {row["id"] for row in catalogue["flarers"]}
    usual = catalogue["bench"]
    bench = {"name": "bench by the door", "ahead_mm": "400", "behind_mm": "300", "far_mm": "300"}
    bench |= {"near_mm": "0", "floor_mm": "850", "wall_mm": ""}
    client.post("/api/own", json={"shelf": "benches", "fields": bench})
    own_bench = client.get("/api/catalogue").json()["bench"]
    assert own_bench["name"] == "bench by the door"
    assert own_bench["vise_wide_mm"] == usual["vise_wide_mm"]  # what was not measured is as usual
    wide = client.post("/api/own", json={"shelf": "benches", "fields": bench | {"vise_wide_mm": "8 in"}})
    assert wide.status_code == 201
    assert client.get("/api/catalogue").json()["bench"]["vise_wide_mm"] == pytest.approx(203.2)
    tool = {
        "name": "short vise bender",
        "kind": "vise",
        "size": "3/16 in",
        "od_mm": "4.76",
        "radius_mm": "15",
    }
    tool |= {"greatest_angle_deg": "180", "least_before_first_mm": "20", "least_between_mm": "12"}
    tool |= {"least_after_last_mm": "15", "behind_mm": "40", "above_bench_mm": "200"}
    own = client.post("/api/own", json={"shelf": "benders", "fields": tool}).json()
    left["document"]["spans"][0]["bender"] = own["row_id"]
    report = client.post("/api/bench", json=left["document"]).json()
    assert report["at"]["mount"] == "in the vise"


def test_a_flare_is_held_against_its_range_and_what_failed_is_counted(client, left):
    making = client.post(f"/api/lines/{left['id']}/makings").json()
    steps = client.post("/api/bench/standing", json={"document": making["document"], "made": []}).json()[
        "steps"
    ]
    guided = [step["flaring"]["end"] for step in steps if step["kind"] == "flare"]
    assert sorted(guided) == ["A", "B"]
    state = {"flares": [{"end": "A", "across": "0.25", "unit": "in", "failed": 1}]}
    kept = client.put(f"/api/makings/{making['id']}", json={"version": 1, "state": state}).json()
    body = {"document": making["document"], "flares": kept["state"]["flares"]}
    stands = {one["end"]: one for one in client.post("/api/bench/flares", json=body).json()}
    assert stands["A"]["verdict"] == "too small"
    assert "Once cut off" in stands["A"]["lost"]
    assert stands["B"]["verdict"] == ""
    too_many = {"flares": [{"end": "A", "failed": 21}]}
    refused = client.put(f"/api/makings/{making['id']}", json={"version": 2, "state": too_many})
    assert refused.status_code == 422
