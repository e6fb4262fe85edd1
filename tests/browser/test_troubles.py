"""When something else fails: the server, the browser's store, the graphics card, another tab."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import cut, kept, open_line, reading, saved

pytestmark = pytest.mark.browser


def failing(page: Page, pattern: str, status: int = 500, method: str | None = None, body=None):
    """Let what matches fail with a status, with or without a sentence of the server's own."""

    def answer(route):
        if method and route.request.method != method:
            return route.continue_()
        return route.fulfill(status=status, json=body or {})

    page.route(pattern, answer)


@pytest.mark.broken_server
def test_a_save_that_the_server_fails_at_is_said_and_kept(page: Page, own_line):
    open_line(page, own_line)
    failing(page, "**/api/lines/*", method="PUT")
    reading(page, "Leg to bend 1").fill("3 3/8")
    expect(page.locator("[data-save]")).to_have_attribute(
        "data-save", re.compile("failed|unsaved|lost|trouble")
    )
    expect(page.get_by_text("Bendrel answered with error 500")).to_be_visible()
    expect(reading(page, "Leg to bend 1")).to_have_value("3 3/8")
    page.unroute("**/api/lines/*")
    page.reload()
    expect(reading(page, "Leg to bend 1")).to_have_value("3 3/8")
    saved(page)


@pytest.mark.broken_server
def test_a_plan_that_fails_is_said_and_the_last_one_stays(page: Page, own_line):
    open_line(page, own_line)
    before = cut(page).inner_text()
    failing(page, "**/api/preview")
    reading(page, "Leg to bend 2").fill("9")
    expect(page.get_by_text("Bendrel answered with error 500")).to_be_visible()
    expect(cut(page)).to_have_text(before)
    expect(reading(page, "Leg to bend 2")).to_have_value("9")
    page.unroute("**/api/preview")
    reading(page, "Leg to bend 2").fill("9 1/2")
    expect(cut(page)).not_to_have_text(before)
    expect(page.get_by_text("Bendrel answered with error 500")).to_have_count(0)


@pytest.mark.broken_server
@pytest.mark.parametrize(
    "path",
    [
        "/", "/lines/{line}", "/lines/{line}/bench", "/catalogue/tubes",
    ],
)  # fmt: skip
def test_a_server_that_is_away_at_the_start_is_said(page: Page, own_line, api, path):
    """One sentence instead of an empty page; with the server back, a reload shows it all."""
    job = api.get("/api/jobs").json()[0]["id"]
    page.route("**/api/**", lambda route: route.abort())
    page.goto(path.format(job=job, line=own_line))
    expect(page.get_by_text("Bendrel does not answer").first).to_be_visible()
    page.unroute("**/api/**")
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.get_by_text("Bendrel does not answer")).to_have_count(0)


FORBIDDEN = """Object.defineProperty(window, "localStorage", {
  get() { throw new DOMException("The operation is insecure.", "SecurityError"); },
});"""


def test_a_browser_that_keeps_nothing_still_works(page: Page, own_line):
    """Cookies and site data forbidden: only what a reload would have kept is lost."""
    page.add_init_script(FORBIDDEN)
    open_line(page, own_line)
    page.get_by_role("radio", name="night").click()
    reading(page, "Leg to bend 1").fill("3")
    saved(page)
    page.reload()
    expect(reading(page, "Leg to bend 1")).to_have_value("3")


@pytest.mark.webgl
def test_a_graphics_card_that_gives_up_leaves_the_drawing(page: Page, own_line):
    open_line(page, own_line)
    canvas = page.get_by_role("img", name="The line in three dimensions").locator("canvas").first
    expect(canvas).to_be_visible()
    # the labels have their places once the first picture is drawn
    expect(page.locator("[data-label]").first).to_have_attribute("style", re.compile("translate"))
    canvas.evaluate("canvas => canvas.getContext('webgl2').getExtension('WEBGL_lose_context').loseContext()")
    stage = page.locator("[data-webgl='false']")
    expect(stage.get_by_role("img", name="Drawing of the line, 6 bends")).to_be_visible()
    reading(page, "Leg to bend 2").fill("9")
    saved(page)


@pytest.fixture
def other(page: Page):
    """A second tab of the same browser."""
    return page.context.new_page()


def to_bend_1(page: Page):
    done = page.get_by_role("button", name="Done", exact=True)
    step = page.locator("[aria-current='step']")
    while "Bend" not in (before := step.get_attribute("aria-label") or ""):
        done.click()
        expect(step).not_to_have_attribute("aria-label", before)


def test_two_tabs_at_one_bench(page: Page, other: Page, own_line):
    """One part is made once: the tab that is behind is told so, and shows how far it is."""
    page.goto(f"/lines/{own_line}/bench")
    expect(page.get_by_role("heading", name="Prove the nuts")).to_be_visible()
    other.goto(f"/lines/{own_line}/bench")
    expect(other.get_by_role("heading", name="Prove the nuts")).to_be_visible()
    with kept(page):
        page.get_by_role("button", name="Done", exact=True).click()
    ahead = page.get_by_role("heading", level=2)
    expect(ahead).not_to_have_text("Prove the nuts")
    other.get_by_role("button", name="Done", exact=True).click()
    expect(other.get_by_text("Somebody else has gone on with this part")).to_be_visible()
    expect(other.get_by_role("heading", level=2)).to_have_text(ahead.inner_text())
    other.get_by_role("button", name="Done", exact=True).click()
    expect(other.get_by_text("Somebody else has gone on with this part")).to_have_count(0)


def test_two_tabs_on_one_job(page: Page, other: Page, api):
    """What the other tab has said is neither lost nor written over unseen."""
    job = api.post("/api/jobs", data={"name": "Windlass"}).json()
    for tab in (page, other):
        tab.goto(f"/jobs/{job['id']}")
        expect(tab.get_by_label("Customer")).to_be_visible()
    page.get_by_label("Customer").fill("museum")
    page.keyboard.press("Tab")
    expect(page.get_by_text("Customer changed.")).to_be_visible()
    other.get_by_label("Customer").fill("harbour office")
    other.keyboard.press("Tab")
    expect(other.get_by_text("changed elsewhere")).to_be_visible()
    assert api.get(f"/api/jobs/{job['id']}").json()["customer"] == "museum"
    expect(other.get_by_label("Customer")).to_have_value("harbour office")
    api.delete(f"/api/jobs/{job['id']}")


def test_two_tabs_on_the_stock(page: Page, other: Page, api):
    """A stick that one tab took out is gone for the other: one sentence, and the list is as it is."""
    made = api.post(
        "/api/stock", data={"tube": "copper-nickel_3-16in_0.711", "form": "offcut", "length": "777 mm"}
    ).json()
    for tab in (page, other):
        tab.goto("/stock")
        expect(tab.locator("[data-stock]").filter(has_text=made["label"])).to_be_visible()
    page.get_by_role("button", name=f"Take out {made['label']}", exact=True).click()
    expect(page.locator("[data-stock]").filter(has_text=made["label"])).to_have_count(0)
    other.get_by_role("button", name=f"Take out {made['label']}", exact=True).click()
    expect(other.get_by_text(re.compile(r"is not there|gone|taken out"))).to_be_visible()
    expect(other.locator("[data-stock]").filter(has_text=made["label"])).to_have_count(0)


def test_findings_say_that_they_are_being_worked_out(page: Page, own_line):
    """With the server slow, the place where the findings come does not stand empty."""
    held = []
    page.route("**/api/preview", lambda route: held.append(route))
    page.goto(f"/lines/{own_line}/measure")
    said = page.get_by_role("status", name="Being worked out")
    expect(said).to_have_text("The line is being worked out…")
    expect(said.locator("span")).to_be_visible()
    for route in held:
        route.continue_()
    held.clear()
    page.unroute("**/api/preview")
    expect(said).to_have_text("")


@pytest.mark.broken_server
def test_a_place_whose_script_is_gone_says_so_and_comes_with_the_next_try(page: Page, troubles):
    """As after an upgrade, with a page open from before it: the file has another name now."""
    page.goto("/")
    expect(page.get_by_role("heading", name="Fire tender")).to_be_visible()
    page.route("**/assets/StockPage-*", lambda route: route.fulfill(status=404))
    page.get_by_role("link", name="Stock").click()
    expect(page.get_by_role("heading", name="This page failed")).to_be_visible()
    page.unroute("**/assets/StockPage-*")
    page.get_by_role("button", name="Show it again").click()
    expect(page.get_by_role("button", name="Put in stock")).to_be_visible()
    troubles.clear()  # the browser tells of the script that was not there
