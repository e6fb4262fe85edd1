"""Board and job, files, two tabs, a server that goes away, and how it all looks and reads."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import cut, open_line, reading, saved

pytestmark = pytest.mark.browser

AXE = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"
VIEWS = [
    "/",
    "/jobs/{job}",
    "/jobs/{job}/kit",
    "/jobs/{job}/papers",
    *(f"/lines/{{line}}/{s}" for s in ("look", "remove", "make")),  # Fit and Prove: test_closing
    *(
        f"/lines/{{impossible}}/{s}" for s in ("measure", "choose", "plan")
    ),  # with a long name and many findings
    *(f"/lookups/{place}" for place in ("thread", "pair", "uses", "stripped")),
    "/catalogue/tubes",
    "/catalogue/ways",
    "/tools",
    "/stock",
    "/lines/{line}/bench",
]


SIZES = [(1280, 800), (1024, 768), (768, 1024), (800, 1280)]


def serious(page: Page, root: str = "document", rules: str = ""):
    """What axe calls serious or critical, shortly; by one rule where one is named."""
    only = f", runOnly: ['{rules}']" if rules else ""
    found = page.evaluate(f"axe.run({root}, {{resultTypes: ['violations']{only}}})")
    return [
        f"{v['id']}: {v['nodes'][0]['html'][:200]} {v['nodes'][0]['failureSummary'][:300]}"
        for v in found["violations"]
        if v["impact"] in ("serious", "critical")
    ]


def by_night_and_day(page: Page):
    """Serious barriers in both lights; only contrast depends on the light."""
    page.evaluate(AXE.read_text(encoding="utf-8"))
    page.get_by_role("radio", name="night").click()
    found = serious(page, rules="color-contrast")
    page.get_by_role("radio", name="day").click()
    return found + serious(page)


STAGED = pytest.param("/lines/{line}/measure", marks=pytest.mark.webgl, id="with the stage")


@pytest.mark.parametrize("view", [*VIEWS, STAGED, "/lines/nowhere"])
@pytest.mark.long("axe reads long tables twice")
def test_every_view_reads_by_day_and_night_and_fits_at_any_size(page: Page, line_ids, api, view):
    """No serious barrier by axe, and nothing that runs off the side."""
    job = api.get("/api/jobs").json()[0]["id"]
    impossible = line_ids["Front left, as sketched (cannot be made)"]
    page.goto(view.format(job=job, line=line_ids["Rear axle, left"], impossible=impossible))
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    if not view.endswith(("nowhere", "bench")) and view.startswith("/lines"):
        expect(page.locator("svg [data-bend]").first).to_be_visible()
    for width, height in reversed(SIZES):
        page.set_viewport_size({"width": width, "height": height})
        over = page.evaluate("document.documentElement.scrollWidth - window.innerWidth")
        assert over <= 0, (width, height)
    # the two hundredth row of a table has no barrier that the first ones have not
    page.evaluate("for (const body of document.querySelectorAll('tbody'))"
                  "  for (const row of [...body.rows].slice(8)) row.hidden = true")  # fmt: skip
    assert by_night_and_day(page) == []


def test_a_job_is_made_renamed_deleted_and_brought_back(page: Page):
    page.goto("/")
    page.get_by_role("button", name="New job").click()
    page.get_by_role("button", name="Make the job").click()
    expect(page.get_by_text("A name is needed.")).to_be_visible()
    page.get_by_label("Name of the job or machine").fill("x" * 130)
    expect(page.get_by_text("At most 120 characters.")).to_be_visible()
    page.get_by_label("Name of the job or machine").fill("Winch")
    page.get_by_role("button", name="Make the job").click()
    page.get_by_role("button", name="Rename…").click()
    page.get_by_label("Name of the job").fill("Anchor winch " + "very " * 15 + "long name")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Anchor winch")).to_be_visible()
    page.get_by_role("button", name="New line").click()
    page.get_by_label("Name of the line").fill("Feed")
    page.keyboard.press("Enter")
    expect(page.get_by_text("The line appears here")).to_be_visible()
    page.get_by_role("link", name="Anchor winch").click()
    page.get_by_role("button", name="Rename Feed").click()
    page.get_by_label("Name of the line").fill("Return")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Delete Return").click()
    expect(page.get_by_role("link", name="Return", exact=True)).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Return", exact=True)).to_be_visible()
    page.get_by_role("button", name="Delete job").click()
    expect(page.get_by_role("link", name="Anchor winch")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Anchor winch")).to_be_visible()


FIRST_SEEN_AND_LATER = """async (name) => {
  const found = () => [...document.querySelectorAll("button")].find((button) => button.textContent === name);
  const where = (button) => { const { x, y, width } = button.getBoundingClientRect(); return [x, y, width]; };
  while (!found()) await new Promise((next) => requestAnimationFrame(next));
  const first = where(found());
  const seen = [];
  for (let i = 0; i < 30; i++) {
    await new Promise((next) => requestAnimationFrame(next));
    seen.push(where(found()));
  }
  return [first, seen];
}"""


def test_the_way_back_stands_still_as_soon_as_it_is_seen(page: Page):
    """A button that grows into its place lets a quick hand, or a slow machine, click beside it."""
    job = page.request.post("/api/jobs", data={"name": "Capstan", "unit": "mm"}).json()["id"]
    page.goto(f"/jobs/{job}")
    page.get_by_role("button", name="Delete job").click()
    first, seen = page.evaluate(FIRST_SEEN_AND_LATER, "Undo")
    assert seen
    assert all(place == first for place in seen), (first, seen)


def keep(page: Page, field: str, side: str):
    page.get_by_role("radiogroup", name=f"Keep for {field}").get_by_text(side).click()


@pytest.mark.long("two pages settle a conflict")
def test_a_second_tab_that_saved_first(page: Page, own_line):
    """What only one side changed is proposed from that side; what both changed is asked."""
    open_line(page, own_line)
    other = page.context.new_page()
    open_line(other, own_line)
    reading(other, "Leg to bend 2").fill("7")
    reading(other, "Leg to bend 3").fill("9")
    saved(other)
    reading(page, "Leg to bend 1").fill("3")
    reading(page, "Leg to bend 3").fill("10")
    alert = page.get_by_role("alert").filter(has_text="saved elsewhere first")
    expect(alert.get_by_role("row", name="row 1 length")).to_contain_text("“3”“2 5/8”")
    expect(alert.get_by_role("row", name="row 3 length")).to_contain_text("changed by both")
    expect(reading(page, "Leg to bend 1")).to_have_value("3")
    keep(page, "row 3 length", "saved")
    page.get_by_role("button", name="Keep this choice").click()
    saved(page)
    other.reload()
    for leg, text in ((1, "3"), (2, "7"), (3, "9")):
        expect(reading(page, f"Leg to bend {leg}")).to_have_value(text)
        expect(reading(other, f"Leg to bend {leg}")).to_have_value(text)
    reading(page, "Leg to bend 1").fill("4")
    saved(page)
    reading(other, "Leg to bend 1").fill("5")
    other.get_by_role("button", name="All saved").click()
    other.get_by_role("button", name="Keep this choice").click()
    expect(reading(other, "Leg to bend 1")).to_have_value("4")


@pytest.mark.broken_server
def test_a_server_that_goes_away_and_comes_back(page: Page, own_line):
    open_line(page, own_line)
    page.route("**/api/lines/*", lambda route: route.abort())
    reading(page, "Leg to bend 1").fill("3 3/8")
    expect(page.get_by_text("not saved")).to_be_visible()
    expect(page.get_by_text("Bendrel does not answer")).to_be_visible()
    expect(reading(page, "Leg to bend 1")).to_have_value("3 3/8")
    page.unroute("**/api/lines/*")
    page.get_by_role("button", name="Try again").click()
    saved(page)


def test_undo_and_redo_after_a_reload(page: Page, own_line):
    open_line(page, own_line)
    reading(page, "Leg to bend 1").fill("3")
    saved(page)
    page.reload()
    page.get_by_role("button", name="Undo").click()
    expect(reading(page, "Leg to bend 1")).to_have_value("2 5/8")
    page.keyboard.press("Control+y")
    expect(reading(page, "Leg to bend 1")).to_have_value("3")


def pick(page: Page, name: str, text: str):
    page.get_by_label("File", exact=True).set_input_files(
        {"name": name, "mimeType": "text/csv", "buffer": text.encode()}
    )


@pytest.mark.long("five files")
def test_readings_from_a_file(page: Page, own_line):
    open_line(page, own_line)
    before = cut(page).inner_text()
    page.get_by_role("button", name="From a file…").click()
    pick(page, "p.csv", "x_mm,y_mm,z_mm\n0,0,0\n")
    expect(page.get_by_text("column radius_mm is missing")).to_be_visible()
    pick(page, "p.csv", "x_mm,y_mm,z_mm,radius_mm\n" + "1,2,3,4\n" * 100_000)
    expect(page.get_by_text("over 5,000 rows")).to_be_visible()
    pick(page, "p.csv", "x" * 4_100_000)
    expect(page.get_by_text("over 4 MB")).to_be_visible()
    expect(page.get_by_role("button", name="Take these readings")).to_be_disabled()
    pick(page, "p.csv", "x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n300,0,0,\n300,200,0,\n")
    expect(page.get_by_text('1 radius missing; 19/32" filled in')).to_be_visible()
    page.get_by_label("Radius where the file has none").fill("20 mm")
    expect(page.get_by_text('1 radius missing; 25/32" filled in')).to_be_visible()
    expect(page.get_by_text("points CSV, 1 bend, in millimetres")).to_be_visible()
    page.get_by_role("dialog").get_by_text("inches", exact=True).click()
    expect(page.get_by_text("points CSV, 1 bend, in inches")).to_be_visible()
    page.get_by_role("dialog").get_by_text("millimetres", exact=True).click()
    expect(page.get_by_text("points CSV, 1 bend, in millimetres")).to_be_visible()
    page.get_by_role("button", name="Take these readings").click()
    expect(reading(page, "x of corner 1")).to_be_visible()
    expect(cut(page)).not_to_have_text(before)
    page.keyboard.press("Control+z")
    expect(cut(page)).to_have_text(before)


@pytest.mark.parametrize("path", ["/lines/nowhere", "/jobs/nowhere", "/nowhere/at/all"])
def test_an_address_that_leads_nowhere(page: Page, path):
    page.goto(path)
    expect(page.get_by_role("alert")).to_contain_text(".")
    page.get_by_role("link", name="To the bench board").click()
    expect(page.get_by_role("link", name="Fire tender")).to_be_visible()


def test_the_list_of_keys_opens_with_a_question_mark(page: Page):
    page.goto("/")
    page.get_by_role("link", name="Fire tender").press("?")
    expect(page.get_by_role("dialog").get_by_text("Ctrl+Enter")).to_be_visible()


def test_day_and_night_and_the_unit_are_kept(page: Page, own_line):
    open_line(page, own_line)
    page.get_by_role("radio", name="night").click()
    page.get_by_role("radio", name="mm", exact=True).click()
    expect(cut(page)).to_contain_text("mm")
    saved(page)
    page.reload()
    expect(page.get_by_role("radio", name="night")).to_be_checked()
    expect(cut(page)).to_contain_text("mm")
    assert page.evaluate("getComputedStyle(document.body).backgroundColor") == "rgb(21, 25, 27)"


@pytest.mark.parametrize("opener", ["New job", "Keys"])
def test_no_serious_barrier_in_dialogs(page: Page, opener):
    page.goto("/")
    page.get_by_role("button", name=opener).click()
    expect(page.get_by_role("dialog")).to_be_visible()
    page.evaluate(AXE.read_text(encoding="utf-8"))
    assert serious(page, "'dialog'") == []


def test_the_cursor_walks_the_readings_in_reading_order(page: Page, own_line):
    open_line(page, own_line)
    reading(page, "Leg to bend 2").focus()
    walked = []
    for _ in range(5):
        walked.append(page.evaluate("document.activeElement.getAttribute('aria-label')"))
        page.keyboard.press("Tab")
    assert walked == [
        "Leg to bend 2",
        "Where row 2 is read from",
        "Where row 2 is read to",
        "Angle of bend 2",
        "Plane of bend 2",
    ]


@pytest.mark.webgl
def test_everything_to_press_is_large_enough_for_a_finger(new_context, line_ids):
    page = new_context(viewport={"width": 1024, "height": 768}, has_touch=True, is_mobile=True).new_page()
    page.goto(f"/lines/{line_ids['Rear axle, left']}")
    expect(page.locator("svg [data-bend]").first).to_be_visible()
    small = page.evaluate(
        """() => [...document.querySelectorAll('input[type=text], header button, nav button')]
            .filter(e => e.offsetParent && e.getBoundingClientRect().height < 43.5
                && !e.closest('h1'))
            .map(e => e.outerHTML.slice(0, 120))"""
    )
    assert small == []


def test_what_is_said_of_a_job_is_kept_and_can_be_taken_back(page: Page, api):
    job = api.post("/api/jobs", data={"name": "Capstan"}).json()
    page.goto(f"/jobs/{job['id']}")
    page.get_by_label("Customer").fill("museum")
    page.get_by_label("Machine").fill("steam capstan")
    page.get_by_label("Promised for").fill("2027-02-01")
    expect(page.get_by_text("Promised changed.")).to_be_visible()
    page.reload()
    expect(page.get_by_label("Customer")).to_have_value("museum")
    expect(page.get_by_label("Machine")).to_have_value("steam capstan")
    page.get_by_label("Machine").fill("diesel capstan")
    page.get_by_label("Customer").focus()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Machine")).to_have_value("steam capstan")
    page.get_by_label("Machine").fill("x" * 201)
    expect(page.get_by_text("At most 200 characters.")).to_be_visible()
    api.delete(f"/api/jobs/{job['id']}")


def test_a_parked_job_says_on_the_board_what_it_waits_for(page: Page, api):
    job = api.post("/api/jobs", data={"name": "Windlass"}).json()
    page.goto(f"/jobs/{job['id']}")
    page.get_by_label("Parked, for").fill("cylinder ordered")
    page.get_by_label("Tried so far").fill("bled twice")
    page.keyboard.press("Tab")
    expect(page.get_by_text("tried changed.")).to_be_visible()
    page.goto("/")
    expect(page.get_by_role("main").get_by_role("heading", level=2).last).to_have_text("Windlass")
    parked = page.get_by_role("region", name="Windlass")
    expect(parked).to_contain_text("Parked: cylinder ordered · tried: bled twice")
    api.delete(f"/api/jobs/{job['id']}")


def caught(page: Page, held: list):
    """The request that is held; it is seen on its way a moment before it is."""
    for _ in range(100):
        if held:
            return held.pop()
        page.wait_for_timeout(20)
    raise AssertionError("nothing was held")


@pytest.mark.broken_server
def test_the_next_booking_can_be_typed_while_one_is_on_its_way(page: Page, api):
    job = api.post("/api/jobs", data={"name": "Bilge pump"}).json()
    page.goto(f"/jobs/{job['id']}/money")
    held = []
    page.route(
        "**/bookings",
        lambda route: held.append(route) if route.request.method == "POST" else route.continue_(),
    )
    page.get_by_label("What", exact=True).fill("look and measure")
    page.get_by_label("Time", exact=True).fill("45")
    with page.expect_request(lambda request: request.method == "POST"):
        page.get_by_role("button", name="Book it").click()
    expect(page.get_by_label("What", exact=True)).to_have_value("")
    page.get_by_label("What", exact=True).fill("copper washers")
    caught(page, held).continue_()
    expect(page.get_by_text("look and measure")).to_be_visible()
    expect(page.get_by_label("What", exact=True)).to_have_value("copper washers")
    page.get_by_label("Material", exact=True).fill("1.20")
    with page.expect_request(lambda request: request.method == "POST"):
        page.get_by_role("button", name="Book it").click()
    expect(page.get_by_label("What", exact=True)).to_have_value("")
    caught(page, held).abort()
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("What", exact=True)).to_have_value("copper washers")


def test_an_answer_that_comes_late_takes_no_later_booking_from_the_screen(page: Page, api):
    """Two bookings on their way: the first is booked first and answered last."""
    job = api.post("/api/jobs", data={"name": "Anchor chain"}).json()
    page.goto(f"/jobs/{job['id']}/money")
    late = []

    def answered(route):
        if route.request.method == "POST" and not late:
            late.append((route, route.fetch()))
        else:
            route.continue_()

    page.route("**/bookings", answered)
    for what, amount in (("shackle", "3.00"), ("pin", "1.10")):
        page.get_by_label("What", exact=True).fill(what)
        page.get_by_label("Material", exact=True).fill(amount)
        with page.expect_request(lambda request: request.method == "POST"):
            page.get_by_role("button", name="Book it").click()
        expect(page.get_by_label("What", exact=True)).to_have_value("")
    total = page.locator("[data-total='customer']")
    expect(total).to_contain_text("material 4.10")
    route, answer = late.pop()
    with page.expect_response(lambda seen: seen.request.method == "POST"):
        route.fulfill(response=answer)
    page.get_by_role("button", name="Strike out pin").click()  # whatever the late answer did is done by now
    expect(total).to_contain_text("material 3.00")
    page.get_by_role("button", name="Undo").click()
    expect(total).to_contain_text("material 4.10")
    api.delete(f"/api/jobs/{job['id']}")


def test_the_shops_mistakes_are_totalled_apart(page: Page, api):
    job = api.post("/api/jobs", data={"name": "Windlass"}).json()
    page.goto(f"/jobs/{job['id']}/money")
    page.get_by_role("button", name="Book it").click()
    expect(page.get_by_text("Say what was done or used.")).to_be_visible()
    page.get_by_label("What", exact=True).fill("look and measure")
    page.get_by_label("Time", exact=True).fill("soon")
    expect(page.get_by_text("Write minutes, or hours and minutes")).to_be_visible()
    page.get_by_label("Time", exact=True).fill("1:30")
    page.get_by_role("button", name="Book it").click()
    page.get_by_label("What", exact=True).fill("nut forgotten")
    page.get_by_label("Booked as").select_option("own mistake")
    page.get_by_label("Material", exact=True).fill("4.10")
    page.get_by_role("button", name="Book it").click()
    expect(page.locator("[data-total='customer']")).to_contain_text("1 h 30 min · material 0.00")
    expect(page.locator("[data-total='shop']")).to_contain_text("0 min · material 4.10")
    page.get_by_role("button", name="Strike out nut forgotten").click()
    expect(page.locator("[data-total='shop']")).to_contain_text("material 0.00")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("[data-total='shop']")).to_contain_text("material 4.10")
    api.delete(f"/api/jobs/{job['id']}")


def test_a_job_goes_out_as_a_file_and_comes_in_again(page: Page, api):
    job = next(job for job in api.get("/api/jobs").json() if job["name"] == "Fire tender")
    data = api.get(f"/api/archives/{job['id']}").body()
    page.goto("/")
    page.get_by_role("button", name="Bring in a job…").click()
    file = page.get_by_label("Job file")
    file.set_input_files({"name": "x.zip", "mimeType": "application/zip", "buffer": b"zip"})
    expect(page.get_by_text("That is no job file")).to_be_visible()
    file.set_input_files({"name": "x.zip", "mimeType": "application/zip", "buffer": data})
    expect(page.get_by_role("dialog").get_by_text(f"{len(job['lines'])} lines")).to_be_visible()
    page.get_by_role("button", name="Bring it in").click()
    expect(page.get_by_role("heading", name="Fire tender", level=1)).to_be_visible()
    copy = page.url.rsplit("/", 1)[1]
    assert copy != job["id"]
    api.delete(f"/api/jobs/{copy}")


def test_a_job_is_worked_through_by_its_keys(page: Page, api):
    job = next(job for job in api.get("/api/jobs").json() if job["name"] == "Fire tender")
    page.goto(f"/jobs/{job['id']}")
    on = page.get_by_role("link", name=f"Go on with {job['lines'][0]['name']}")
    expect(on).to_be_focused()
    parts = page.get_by_role("navigation", name="Parts of the job")
    for key, part, shown in (
        ("3", "Strip-down", page.get_by_text("Still off:")),
        ("5", "Kit", page.locator("[data-total='kit']")),
        ("7", "Papers", page.get_by_role("link", name="One handover note for the owner")),
    ):
        page.keyboard.press(f"Alt+{key}")
        expect(parts.get_by_role("link", name=part)).to_have_attribute("aria-current", "page")
        expect(shown).to_be_visible()
    note = api.get(page.get_by_role("link", name="One handover note").get_attribute("href"))
    assert note.body().startswith(b"%PDF")
    page.keyboard.press("Alt+5")
    needs = page.locator("[data-need]")
    expect(needs).to_have_count(14)
    page.get_by_role("button", name=re.compile("^[0-9]+ more$")).click()
    expect(needs.nth(17)).to_be_visible()
    page.keyboard.press("Alt+1")
    expect(on).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1, name=job["lines"][0]["name"])).to_be_visible()
    page.goto(f"/jobs/{job['id']}/nothing")
    expect(page.get_by_text("There is nothing at this address.")).to_be_visible()
