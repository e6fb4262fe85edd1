"""Under fault: what cannot be read, saved or shown has a way out, and two people are both heard."""

import json
import sqlite3
from contextlib import closing

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import kept, open_line, reading, saved
from tests.browser.test_shop import pick

pytestmark = pytest.mark.browser

KEEP = "([key, draft]) => localStorage.setItem(key, draft)"


def spoil(database, line_id, seq):
    """What is kept of a step is no document any more."""
    with closing(sqlite3.connect(database, timeout=10)) as opened:
        opened.execute("update line_steps set document = '{' where line_id = ? and seq = ?", (line_id, seq))
        opened.execute("update lines set version = version + 1 where id = ?", (line_id,))
        opened.commit()


def test_a_line_that_cannot_be_read_is_one_bad_row_with_two_ways_out(page: Page, own_line, api, database):
    opened = api.get(f"/api/lines/{own_line}").json()
    changed = opened["document"] | {"name": "copy, changed"}
    api.put(f"/api/lines/{own_line}", data={"version": opened["version"], "document": changed})
    spoil(database, own_line, 3)
    api.post("/api/jobs", data={"name": "so that the board looks again"})
    page.goto("/")
    row = page.get_by_role("row").filter(has_text="cannot be read").first
    expect(row).to_contain_text("no document any more")
    expect(page.get_by_role("heading", name="Fire tender")).to_be_visible()  # it hides nothing else
    page.goto(f"/lines/{own_line}")
    expect(page.get_by_role("alert")).to_contain_text("cannot be read")
    with page.expect_download() as download:
        page.get_by_role("button", name="Export it as it is").click()
    assert download.value.path().read_text() == "{"
    page.get_by_role("button", name="Back to its last good step").click()
    expect(page.get_by_role("heading", name="copy", exact=True)).to_be_visible()
    expect(page.get_by_role("region", name="What this stage asks")).to_be_visible()


@pytest.mark.parametrize("draft", ['{"version": 1, "document": {}, "base": null}', "null null"])
def test_a_draft_of_any_shape_never_blanks_the_page(page: Page, own_line, draft):
    page.goto("/stock")
    page.evaluate(KEEP, [f"bendrel.draft.{own_line}", draft])
    open_line(page, own_line)
    expect(page.get_by_role("link", name="Keep it as a file")).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name="Keep it as a file").click()
    assert download.value.path().read_text() == draft
    page.get_by_role("button", name="Throw it away").click()
    page.reload()
    expect(reading(page, "Leg to bend 1")).to_be_visible()
    expect(page.get_by_role("link", name="Keep it as a file")).to_have_count(0)


def test_a_page_that_fails_keeps_what_was_saved_and_says_so(page: Page, own_line, troubles):
    open_line(page, own_line)
    page.route("**/api/preview", lambda route: route.fulfill(json={"pieces": 3, "findings": 5}))
    reading(page, "Leg to bend 1").fill("7")
    expect(page.get_by_role("alert")).to_contain_text("Everything that was saved is there")
    page.unroute("**/api/preview")
    page.get_by_role("button", name="Show it again").click()
    expect(reading(page, "Leg to bend 1")).to_have_value("7")
    troubles.clear()  # the failure was ours to make


def test_more_bends_than_a_line_has_are_refused_in_the_import(page: Page, own_line):
    open_line(page, own_line)
    page.get_by_role("button", name="From a file…").click()
    head = "straight_mm,rotation_deg,angle_deg,radius_mm\n"
    pick(page, "b.csv", head + "60,0,20,14\n60,180,20,14\n" * 110 + "50,,,\n")
    expect(page.get_by_text("The file has 220 bends; a tube here has 200 at most")).to_be_visible()
    expect(page.get_by_role("button", name="Take these readings")).to_be_disabled()


def test_undo_drops_what_cannot_be_saved(page: Page, own_line, troubles):
    open_line(page, own_line)
    before = reading(page, "Leg to bend 1").input_value()
    refusal = {"message": "Rows: may have 200 entries at most."}
    page.route(f"**/api/lines/{own_line}", lambda route: refused(route, refusal))
    reading(page, "Leg to bend 1").fill("9")
    expect(page.get_by_text("may have 200 entries at most")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(reading(page, "Leg to bend 1")).to_have_value(before)
    page.unroute(f"**/api/lines/{own_line}")
    page.reload()
    expect(reading(page, "Leg to bend 1")).to_have_value(before)
    troubles.clear()  # the refusal was ours to make


def refused(route, message):
    if route.request.method == "PUT":
        route.fulfill(status=422, json=message)
    else:
        route.continue_()


def test_two_people_correct_one_entry_of_the_stock_and_both_are_heard(page: Page, api):
    tube = "copper-nickel_3-16in_0.711"
    stick = api.post("/api/stock", data={"tube": tube, "length": "1.5 m", "count": 3}).json()
    page.goto("/stock")
    page.get_by_role("button", name=f"Correct {stick['label']}").click()
    asked = page.get_by_role("dialog")
    expect(asked.get_by_role("region", name="What came and went")).to_contain_text("put in")
    theirs = {"tube": tube, "length": "1.5 m", "count": 2, "note": "rack 2"}
    api.put(f"/api/stock/{stick['id']}?version={stick['version']}", data=theirs)
    asked.get_by_label("Pieces").fill("5")
    asked.get_by_role("button", name="Keep it").click()
    expect(asked.get_by_role("alert")).to_contain_text("2 × 1500 mm, rack 2")
    expect(asked.get_by_label("Pieces")).to_have_value("5")
    asked.get_by_role("button", name="Put mine in its place").click()
    expect(asked).to_have_count(0)
    expect(page.locator(f"[data-stock='{stick['label']}']")).to_contain_text("5 ×")
    moves = api.get(f"/api/stock/{stick['id']}/moves").json()
    assert [(move["kind"], move["pieces"]) for move in moves] == [
        ("counted", 3),
        ("counted", -1),
        ("put in", 3),
    ]
    now = next(row for row in api.get("/api/stock").json() if row["id"] == stick["id"])
    api.delete(f"/api/stock/{stick['id']}?version={now['version']}")


def test_the_shops_ways_chosen_from_an_old_page_are_asked_again(page: Page, api):
    page.goto("/catalogue/ways")
    before = api.get("/api/catalogue").json()
    was = before["preferences"]
    group = page.locator("fieldset").first
    expect(group).to_be_visible()
    named = group.locator("input:not(:checked)").first.evaluate(
        "box => box.parentElement.innerText.slice(0, 12)"
    )
    other = group.get_by_role("radio", name=named)
    api.put(f"/api/preferences?version={before['ways_version']}", data={"clamps": was["clamps"]})
    other.click()
    expect(page.get_by_role("alert")).to_contain_text("changed elsewhere first")
    expect(other).not_to_be_checked()
    with kept(page):
        other.click()
    expect(other).to_be_checked()
    expect(page.get_by_role("alert")).to_have_count(0)
    version = api.get("/api/catalogue").json()["ways_version"]
    api.put(f"/api/preferences?version={version}", data=was)


def test_the_whole_shop_is_exported_from_the_board(page: Page):
    page.goto("/")
    with page.expect_download() as download:
        page.get_by_role("link", name="Export everything").click()
    assert download.value.suggested_filename.endswith(".bendrel-shop.zip")
    assert download.value.path().read_bytes()[:2] == b"PK"
    expect(page.get_by_role("button", name="Bring in a whole shop…")).to_have_count(0)  # not over this one


@pytest.mark.long("waits until it is tried again")
def test_saving_goes_on_after_a_disk_that_was_full(page: Page, own_line, troubles):
    open_line(page, own_line)
    said = {"message": "The disk is full: this was not kept. Make room on it and save again."}
    tries = []

    def full(route):
        if route.request.method == "PUT" and not tries:
            tries.append(1)
            route.fulfill(status=507, body=json.dumps(said), content_type="application/json")
        else:
            route.continue_()

    page.route(f"**/api/lines/{own_line}", full)
    reading(page, "Leg to bend 1").fill("8")
    expect(page.get_by_text("The disk is full")).to_be_visible()
    saved(page)
    page.reload()
    expect(reading(page, "Leg to bend 1")).to_have_value("8")
    troubles.clear()  # the full disk was ours to make
