"""Whatever people edit names the version that they read: an older one is refused with what is there."""

import pytest

STICK = {"tube": "copper-nickel_3-16in_0.711", "length": "1.5 m"}
CLAMP = {"shelf": "clamps", "fields": {"kind": "worm", "closed_mm": "9", "open_mm": "12", "width_mm": "8"}}


def other(fields, **changes):
    return CLAMP | {"fields": fields | changes}


def stock(client):
    kept = client.post("/api/stock", json=STICK).json()

    def put(version, text):
        return client.put(f"/api/stock/{kept['id']}?version={version}", json=STICK | {"note": text})

    def there():
        return next(row for row in client.get("/api/stock").json() if row["id"] == kept["id"])

    return put, lambda: (there()["version"], there()["note"]), lambda current: current["note"]


def own(client):
    kept = client.post("/api/own", json=CLAMP).json()

    def put(version, text):
        body = other(CLAMP["fields"], note=text)
        return client.put(f"/api/own/{kept['id']}?version={version}", json=body)

    def there():
        (row,) = [
            row for shelf in client.get("/api/own").json() for row in shelf["rows"] if row["id"] == kept["id"]
        ]
        return row["version"], row["fields"].get("note", "")

    return put, there, lambda current: current["fields"]["note"]


def holdings(client):
    ref = "nut:double-45_3-16in_3-8-24"

    def put(version, text):
        return client.put("/api/holdings", json={"ref": ref, "have": len(text), "version": version})

    def there():
        (row,) = [row for row in client.get("/api/holdings").json() if row["ref"] == ref]
        return row["version"], "x" * int(row["have"])

    return put, there, lambda current: "x" * int(current["have"])


def jobs(client):
    kept = client.post("/api/jobs", json={"name": "first"}).json()

    def put(version, text):
        body = {"version": version, "job": {"name": text, "unit": "mm", "promised": "2026-12-01"}}
        return client.put(f"/api/jobs/{kept['id']}", json=body)

    def there():
        row = client.get(f"/api/jobs/{kept['id']}").json()
        return row["version"], row["name"]

    return put, there, lambda current: current["name"] if current["promised"] == "2026-12-01" else None


EDITED = {"stock": stock, "own": own, "holdings": holdings, "jobs": jobs}


@pytest.mark.parametrize("what", EDITED)
def test_of_two_stale_changes_the_second_is_refused_with_the_first(client, what):
    put, there, told = EDITED[what](client)
    version, _ = there()
    assert put(version, "xx").status_code == 200
    second = put(version, "xxxxx")
    assert second.status_code == 409
    assert second.json()["version"] == there()[0] != version
    assert told(second.json()["current"]) == "xx" == there()[1]
    assert put(second.json()["version"], "xxxxx").status_code == 200  # knowingly
    assert there()[1] == "xxxxx"


@pytest.mark.parametrize("what", ["stock", "own"])
def test_a_change_without_a_version_is_none(client, what):
    put, there, _ = EDITED[what](client)
    assert put("", "x").status_code == 422
    assert there()[1] == ""


def test_a_delete_of_what_was_changed_since_is_refused(client):
    job = client.post("/api/jobs", json={"name": "first"}).json()
    line = client.post(f"/api/jobs/{job['id']}/lines", json={"name": "line"}).json()
    body = {"version": 1, "document": line["document"] | {"notes": "mine"}}
    client.put(f"/api/lines/{line['id']}", json=body)
    refused = client.delete(f"/api/lines/{line['id']}?version=1")
    assert (refused.status_code, refused.json()["current"]["notes"]) == (409, "mine")
    client.put(f"/api/jobs/{job['id']}", json={"version": job["version"], "job": {"name": "second"}})
    refused = client.delete(f"/api/jobs/{job['id']}?version={job['version']}")
    assert (refused.status_code, refused.json()["current"]["name"]) == (409, "second")
    stick = client.post("/api/stock", json=STICK).json()
    client.put(f"/api/stock/{stick['id']}?version=1", json=STICK | {"note": "rack"})
    assert client.delete(f"/api/stock/{stick['id']}?version=1").status_code == 409
    entry = client.post("/api/own", json=CLAMP).json()
    client.put(f"/api/own/{entry['id']}?version=1", json=other(CLAMP["fields"], note="x"))
    assert client.delete(f"/api/own/{entry['id']}?version=1").status_code == 409
    assert client.get(f"/api/lines/{line['id']}").status_code == 200  # nothing was lost by any of it


def test_the_shops_ways_and_wrench_too(client):
    version = client.get("/api/catalogue").json()["ways_version"]
    first = client.put(f"/api/preferences?version={version}", json={"clamps": "spring"}).json()
    assert first["version"] > version
    stale = client.put(f"/api/preferences?version={version}", json={"clamps": "worm"})
    assert (stale.status_code, stale.json()["current"]["clamps"]) == (409, "spring")
    wrench = {"length": "300 mm", "offset": "0"}
    stale = client.put(f"/api/shop/wrench?version={version}", json=wrench)
    assert (stale.status_code, "offset_mm" in stale.json()["current"]) == (409, True)
    kept = client.put(f"/api/shop/wrench?version={first['version']}", json=wrench)
    assert (kept.status_code, kept.json()["length_mm"]) == (200, 300.0)


def test_a_stale_cut_list_comes_back_as_it_is_now(client):
    tender = next(job for job in client.get("/api/jobs").json() if job["name"] == "Fire tender")
    cuts = client.get(f"/api/jobs/{tender['id']}/cuts").json()
    pieces = [line["piece"] for line in cuts["lines"] if line["in_list"]]
    client.post("/api/stock", json=STICK | {"tube": cuts["tubes"][0]["tube"]})
    stale = client.post(f"/api/jobs/{tender['id']}/cuts", json={"pieces": pieces, "stamp": "old"})
    assert stale.status_code == 409
    now_is = stale.json()["current"]
    assert [line["piece"] for line in now_is["lines"] if line["in_list"]] == pieces
    taken = client.post(f"/api/jobs/{tender['id']}/cuts", json={"pieces": pieces, "stamp": now_is["stamp"]})
    assert taken.status_code == 201
