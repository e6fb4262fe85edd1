"""Cut lists over HTTP: which lines are in them, taking them from the stock and taking that back."""

from __future__ import annotations

import pytest

from tests.api.told import tube

BRAKE = "copper-nickel_3-16in_0.711"


@pytest.fixture
def tender(client):
    return next(job for job in client.get("/api/jobs").json() if job["name"] == "Fire tender")


def cuts_of(client, job, lines=None):
    query = {} if lines is None else {"pieces": ",".join(lines)}
    return client.get(f"/api/jobs/{job['id']}/cuts", params=query).json()


def told(cuts, name):
    return next(line for line in cuts["lines"] if line["line"] == name)


def take(client, job, cuts):
    pieces = [line["piece"] for line in cuts["lines"] if line["in_list"]]
    return client.post(f"/api/jobs/{job['id']}/cuts", json={"pieces": pieces, "stamp": cuts["stamp"]})


def stock(client):
    return {row["label"]: row for row in client.get("/api/stock").json()}


def bare(entries):
    """What lies there, without how often it was changed."""
    return {label: row | {"version": 0} for label, row in entries.items()}


def change(client, line_id, changed):
    line = client.get(f"/api/lines/{line_id}").json()
    changed(line["document"])
    body = {"version": line["version"], "document": line["document"]}
    assert client.put(f"/api/lines/{line_id}", json=body).status_code == 200


def test_only_what_is_ready_is_in_the_list_unless_it_is_ticked(client, tender):
    cuts = cuts_of(client, tender)
    assert [line["line"] for line in cuts["lines"] if line["in_list"]] == ["Rear axle, left"]
    assert told(cuts, "Front left, as sketched (cannot be made)")["stops"] > 0
    right = told(cuts, "Rear axle, right")
    assert right["taken"]["source"] == "C1 coil"
    ticked = [told(cuts, name)["piece"] for name in ("Rear axle, left", "Pump gearbox to cooler")]
    both = cuts_of(client, tender, ticked)
    assert {tube["tube"] for tube in both["tubes"]} == {BRAKE, "steel-coated_3-8in_0.711"}
    assert cuts_of(client, tender, [])["tubes"] == []


def test_what_is_cut_leaves_the_list_and_the_stock_and_comes_back(client, tender):
    before, cuts = stock(client), cuts_of(client, tender)
    done = take(client, tender, cuts)
    assert done.status_code == 201
    after = stock(client)
    assert "O2" not in after
    left = next(row for row in after.values() if row["note"] == "from O2")
    # 1160 mm less the piece and one kerf of 1 mm
    piece = told(cuts, "Rear axle, left")["mm"]
    assert left["length_mm"] == pytest.approx(1160 - piece - 1)
    again = cuts_of(client, tender)
    assert told(again, "Rear axle, left")["taken"]["source"] == "O2 offcut"
    assert not any(line["in_list"] for line in again["lines"])
    assert client.delete(f"/api/cuts/{done.json()['id']}").json() == {"counted": []}
    assert bare(stock(client)) == bare(before)
    assert told(cuts_of(client, tender), "Rear axle, left")["taken"] is None
    assert client.delete(f"/api/cuts/{done.json()['id']}").status_code == 404


def test_a_coil_gets_its_length_back(client, tender):
    coil = stock(client)["C1"]["length_mm"]
    right = told(cuts_of(client, tender), "Rear axle, right")
    client.delete(f"/api/cuts/{right['taken']['cutting_id']}")
    assert stock(client)["C1"]["length_mm"] == pytest.approx(
        coil + right["mm"] + 60 + 1
    )  # 60 of it for the ends that curve


def test_cuts_whose_offcut_is_used_are_not_taken_back(client, tender):
    done = take(client, tender, cuts_of(client, tender)).json()
    left = next(row for row in stock(client).values() if row["note"] == "from O2")
    client.delete(f"/api/stock/{left['id']}")
    before = stock(client)
    refused = client.delete(f"/api/cuts/{done['id']}")
    assert refused.status_code == 422
    assert left["label"] in refused.json()["message"]
    assert bare(stock(client)) == bare(before)


def test_a_list_that_is_out_of_date_is_not_taken_from_the_stock(client, tender):
    """Somebody else has used the offcut: what was cut is no longer what the list would say."""
    cuts = cuts_of(client, tender)
    client.delete(f"/api/stock/{stock(client)['O2']['id']}")
    before = stock(client)
    refused = take(client, tender, cuts)
    assert refused.status_code == 409
    assert "look at it again" in refused.json()["message"]
    assert bare(stock(client)) == bare(before)


def test_an_empty_list_is_refused(client, tender):
    refused = take(client, tender, cuts_of(client, tender, []))
    assert refused.status_code == 422
    assert refused.json()["message"].startswith("Nothing in this list can be cut")


def test_a_line_that_grew_since_says_that_its_tube_is_too_short(client, tender):
    take(client, tender, cuts_of(client, tender))
    line = told(cuts_of(client, tender), "Rear axle, left")
    assert not line["taken"]["short"]

    def longer(document):
        tube(document)["end_b"]["leave_long"] = {"text": "1", "unit": "in"}

    change(client, line["line_id"], longer)
    assert told(cuts_of(client, tender), "Rear axle, left")["taken"]["short"]


def test_a_scrapped_part_is_cut_anew(client, tender):
    right = told(cuts_of(client, tender), "Rear axle, right")
    making = client.get(f"/api/lines/{right['line_id']}/makings").json()[0]
    client.post(f"/api/makings/{making['id']}/end", json={"outcome": "scrap"})
    assert told(cuts_of(client, tender), "Rear axle, right")["taken"] is None
