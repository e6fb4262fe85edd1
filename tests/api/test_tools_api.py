"""Tools as whoever calls the API sees them: test pieces, what they tell, and the plan that follows."""

from math import radians, tan

import pytest

from tests.api.told import main_piece

TOOL = "/api/tools/lever_3-16in/copper-nickel"


def piece(radius, zero, share, dial, cut=300.0, mark=120.0, od=4.7625):
    """What an exact piece reads, by hand: legs to the outside corner, and the angle."""
    angle = dial / (1 + share)
    finished = radius * dial / angle
    reach = (finished + od / 2) * tan(radians(angle) / 2)
    start = mark + zero
    return {
        "cut": f"{cut}",
        "mark": f"{mark}",
        "dial": f"{dial}",
        "leg_a": f"{start + reach:.3f}",
        "leg_b": f"{cut - start - finished * radians(angle) + reach:.3f}",
        "angle": f"{angle:.3f}",
    }


def add(client, fields, unit="mm"):
    return client.post(TOOL, json={"fields": fields, "unit": unit})


@pytest.fixture
def document(client):
    for job in client.get("/api/jobs").json():
        for line in job["lines"]:
            if line["name"] == "Rear axle, left":
                return client.get(f"/api/lines/{line['id']}").json()["document"]
    raise AssertionError


def test_a_tool_without_pieces_says_which_to_bend_first(client):
    card = client.get(TOOL).json()
    assert card["calibration"] is None
    assert card["next"]["dial_deg"] == 180
    assert card["leg_doubt_mm"] > 5  # a zero that may be 6 mm out
    assert "width" in card["next_takes"]
    assert client.get("/api/tools/none/copper-nickel").status_code == 422
    assert "nothing to calibrate" in client.get("/api/tools/given_any/copper-nickel").json()["message"]


def test_three_pieces_are_used_in_every_plan_from_then_on(client, document):
    """Exact pieces of a tool of R 15.6, zero +1.2 and 2 % spring-back."""
    before = main_piece(client.post("/api/preview", json=document).json())["part"]
    for dial in (140.0, 60.0, 100.0):
        card = add(client, piece(15.6, 1.2, 0.02, dial)).json()
    found = card["calibration"]
    assert found["pieces"] == 3
    assert found["radius_mm"] == pytest.approx(15.6, abs=0.15)
    assert found["zero_offset_mm"] == pytest.approx(1.2, abs=0.2)
    assert card["leg_doubt_mm"] < 1
    after = main_piece(client.post("/api/preview", json=document).json())["part"]
    assert after["bends"][0]["radius_mm"] == pytest.approx(15.6 * 1.02, abs=0.2)
    move = after["moves"][0]
    assert move["dial_deg"] == pytest.approx(90 * 1.02, abs=0.4)
    assert move["mark_mm"] < before["moves"][0]["mark_mm"] - 1
    told = client.post("/api/working", json=document).json()
    dial = next(d for d in told if d["id"] == "dial-1")
    assert dial["source"]["kind"] == "shop's own"
    assert {"bender": "lever_3-16in", "material": "copper-nickel", "pieces": 3} in client.get(
        "/api/tools"
    ).json()
    steel = document | {"spans": [document["spans"][0] | {"tube": "steel-coated_3-16in_0.711"}]}
    other = main_piece(client.post("/api/preview", json=steel).json())["part"]
    assert other["bends"][0]["radius_mm"] == 15  # the pieces were copper-nickel


def test_a_piece_read_wrong_is_noticed_taken_out_and_put_back(client):
    for dial in (140.0, 60.0, 100.0, 30.0):
        card = add(client, piece(15.6, 1.2, 0.02, dial)).json()
    assert not any(trial["odd"] for trial in card["trials"])
    wrong = piece(15.6, 1.2, 0.02, 80.0)
    wrong["leg_b"] = f"{float(wrong['leg_b']) + 12:.2f}"
    card = add(client, wrong).json()
    said = card["trials"][-1]["odd"]
    assert "Leg on the free side" in said[0]
    last = card["trials"][-1]["trial"]["id"]
    card = client.delete(f"/api/tools/trials/{last}").json()
    assert card["calibration"]["pieces"] == 4
    assert client.post(f"/api/tools/trials/{last}/restore").json()["calibration"]["pieces"] == 5
    assert client.delete("/api/tools/trials/none").status_code == 404


@pytest.mark.parametrize(
    ("change", "word"),
    [
        ({"cut": ""}, "Cut length"),
        ({"mark": "400"}, "short of its cut length"),
        ({"dial": "0"}, "Dial"),
        ({"leg_a": "1,5"}, "Leg on the clamped side"),
        ({"leg_a": "", "leg_b": "", "angle": ""}, "Read at least one"),
    ],
)
def test_a_piece_that_makes_no_sense_is_refused_and_not_kept(client, change, word):
    answer = add(client, piece(15, 0, 0.01, 90.0) | change)
    assert answer.status_code == 422
    assert word in answer.json()["message"]
    assert client.get(TOOL).json()["trials"] == []


def test_a_bender_of_the_shops_own_can_be_calibrated(client):
    fields = {
        "name": "old vise bender",
        "size": "3/16 in",
        "od_mm": "3/16",
        "radius_mm": "5/8",
        "greatest_angle_deg": "120",
        "least_before_first_mm": "18 mm",
        "least_between_mm": "0",
        "least_after_last_mm": "14 mm",
    }
    kept = client.post("/api/own", json={"shelf": "benders", "fields": fields}).json()
    card = client.get(f"/api/tools/{kept['row_id']}/copper-nickel").json()
    assert card["bender"]["radius_mm"] == pytest.approx(15.875)
    assert card["next"]["dial_deg"] == 120
    wrong = client.post(
        "/api/own", json={"shelf": "benders", "fields": fields | {"greatest_angle_deg": "400"}}
    )
    assert "Greatest angle" in wrong.json()["message"]


def test_pieces_in_inches_are_read_in_inches(client):
    inch = piece(15.6, 1.2, 0.02, 90.0)
    typed = {k: v if k in ("dial", "angle") else f"{float(v) / 25.4:.4f}" for k, v in inch.items()}
    found = add(client, typed, unit="in").json()["calibration"]
    assert found["radius_mm"] == pytest.approx(15.6, abs=0.6)
