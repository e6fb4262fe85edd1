"""Plan and Make on the real screens: orders, the swing, openings, bench mode, stock and cut lists."""

import re
from time import monotonic

import pytest
from playwright.sync_api import Page, expect

from bendrel.exchange.documents.documents import line_to_value
from tests.browser.test_choosing import finding
from tests.browser.test_line import kept, open_line, saved
from tests.browser.test_shop import by_night_and_day
from tests.services.test_gaps import between

pytestmark = pytest.mark.browser

BRAKE_TUBE = "copper-nickel_3-16in_0.711"
SOUND, HAIRPIN = "Rear axle, left", "Steering tank drop, with hairpin"


def at_tool(page: Page):
    return page.get_by_role("region", name="At the tool")


def step_on(page: Page):
    """Tick steps with the keyboard until a bend is to be made."""
    for _ in range(10):
        heading = page.get_by_role("heading", level=2)
        if (heading.text_content() or "").startswith("Bend "):
            return
        step = page.get_by_text(re.compile(r"^\d+ of \d+"))
        before = step.text_content() or ""
        page.keyboard.press("Enter")
        expect(step).not_to_have_text(before)


def to_the_first_bend(page: Page, line_id: str):
    page.goto(f"/lines/{line_id}/bench")
    page.get_by_role("button", name="Done", exact=True).click()
    expect(page.get_by_role("heading", name="Prove the nuts")).to_have_count(0)
    step_on(page)


@pytest.mark.long("orders are searched twice")
def test_the_obvious_order_fails_and_another_is_taken_with_one_click(page: Page, own_line):
    open_line(page, own_line, "plan")
    expect(at_tool(page).locator("[data-order='free']")).to_be_visible()
    page.get_by_label("Order", exact=True).fill("")
    stop = finding(page, "order_blocked")
    expect(stop).to_contain_text("fixed handle")
    swing = page.get_by_role("group", name="See the swing of a move")
    swing.get_by_role("button", name="6").click()
    expect(page.get_by_role("alert").filter(has_text="fixed handle")).to_be_visible()
    slider = page.get_by_role("slider", name="Swing")
    slider.press("End")
    expect(slider).to_have_attribute("aria-valuetext", "72 degrees")
    page.keyboard.press("Escape")
    expect(slider).to_have_count(0)
    stop.get_by_role("button", name="Take this order").click()
    expect(at_tool(page).locator("[data-order='free']")).to_be_visible()
    steps = page.get_by_label("Order", exact=True).input_value().split()
    assert sorted(step[1:] for step in steps) == list("123456")
    for place, step in enumerate(steps):
        expect(page.locator("[data-move]").nth(place)).to_have_attribute("data-move", step[1:])
    saved(page)


def test_an_order_that_names_a_bend_twice_is_refused_in_words(page: Page, own_line):
    open_line(page, own_line, "plan")
    page.get_by_label("Order", exact=True).fill("A1 A1 A2")
    expect(page.get_by_role("alert").filter(has_text="name each of the 6 bends once").first).to_be_visible()
    page.get_by_label("Order", exact=True).fill("B6 B5 B4 B3 A1 A2")
    expect(page.locator("[data-move='1']")).to_contain_text("change over to A")


def test_a_hairpin_on_the_bench_finds_its_order(page: Page, copy_of):
    open_line(page, copy_of(HAIRPIN), "plan")
    expect(at_tool(page).locator("[data-order='blocked']")).to_contain_text("bench")
    at_tool(page).get_by_role("button", name="Take this order").click()
    expect(at_tool(page).locator("[data-order='free']")).to_be_visible()


def test_a_bend_that_does_not_pass_is_left_open_and_finished_in_place(page: Page, own_line):
    open_line(page, own_line, "plan")
    page.get_by_role("button", name="Add an opening").click()
    page.get_by_label("Opening", exact=True).fill("frame rail")
    page.get_by_label("Sits at, from A").fill("nowhere")
    expect(finding(page, "opening")).to_be_visible()
    page.get_by_label("Sits at, from A").fill('20"')
    page.get_by_label("Wide").fill("22 mm")
    page.get_by_label("Deep").fill("70 mm")
    stuck = finding(page, "does_not_pass")
    expect(stuck).to_contain_text("“frame rail”")
    stuck.get_by_role("button", name=re.compile("Leave it at")).click()
    expect(page.locator("[data-left-open]")).to_have_count(1)
    expect(page.locator("[data-move='4']")).to_contain_text("then 90°")


def test_a_bend_that_is_left_open_is_read_as_it_is_now(page: Page, api, own_line):
    opened = api.get(f"/api/lines/{own_line}").json()
    angle = {"text": "40", "exact_deg": None}
    span = opened["document"]["spans"][0]
    first = span["readings"]["rows"][0]["id"]
    span["left_open"] = [{"row": first, "angle": angle, "how": "by hand"}]
    api.put(f"/api/lines/{own_line}", data={"version": opened["version"], "document": opened["document"]})
    to_the_first_bend(page, own_line)
    expect(page.get_by_label("It came out at")).to_have_attribute("placeholder", "40°")
    page.get_by_label("It came out at").fill("38")
    page.get_by_role("button", name="Bent", exact=True).click()
    expect(page.get_by_text("On the plan: end B meets its port.")).to_be_visible()
    page.get_by_role("button", name="Compare with the plan").click()
    expect(page.locator("[data-compare='1']")).to_contain_text("angle −2°")


def test_ends_and_stock_change_the_cut_and_the_steps(page: Page, own_line):
    open_line(page, own_line, "plan")
    ends = page.get_by_role("region", name="Ends and stock")
    expect(ends).to_contain_text("Two nuts go on")
    ends.locator("[data-end='A']").get_by_label("Comes with its flare and nut").check()
    expect(ends).to_contain_text("One nut goes on")
    ends.get_by_label("Cut from").select_option("coil")
    expect(ends).to_contain_text("is for straightening")
    page.get_by_role("button", name="Make").first.click()
    expect(page.get_by_text("End A comes finished")).to_be_visible()


@pytest.mark.long("a forecast of many parts")
def test_how_exact_it_will_be_and_what_matters_most(page: Page, own_line):
    open_line(page, own_line, "plan")
    exact = page.get_by_role("region", name="How exact")
    expect(exact).to_contain_text("Of such parts, end B lands within")
    expect(exact).to_contain_text("What is not known of the tool matters most")
    expect(exact.locator("[data-section]")).to_contain_text("of wall on its back")
    # one click makes it the way of the line, and the forecast follows
    rounds = exact.locator("[data-way='fit_rounds']")
    expect(rounds).to_contain_text(re.compile(r"\+\d+ → \d+ %"))
    rounds.get_by_role("button", name="Do it: Fit in rounds").click()
    expect(rounds).to_contain_text("in use")
    expect(exact).to_contain_text(re.compile(r"The way of this line: (9\d|100) % drop in"))
    rounds.get_by_role("button", name="No fit rounds").click()
    expect(rounds).to_contain_text("→")


def test_bench_mode_takes_a_reading_back_and_re_plans_the_rest(page: Page, own_line):
    open_line(page, own_line, "make")
    page.get_by_role("button", name="To the bench").click()
    expect(page.get_by_role("heading", name="Prove the nuts")).to_be_visible()
    page.get_by_role("button", name="Done", exact=True).click()
    expect(page.get_by_role("heading", name="Prove the nuts")).to_have_count(0)
    step_on(page)
    expect(page.get_by_role("heading", name="Bend 1")).to_be_visible()
    # by hand: M_p = 120·(4.7625³ − 3.3405³)/6, I = π·(4.7625⁴ − 3.3405⁴)/64, a = M_p·15/(135,000·I) = 0.00821
    expect(page.locator("[data-figure='dial']")).to_have_text(f"{90 * 1.00821:.1f}°")
    page.get_by_role("button", name="Bent", exact=True).click()
    expect(page.get_by_role("heading", name="Bend 2")).to_be_visible()
    page.get_by_label("It came out at").fill("quite a lot")
    page.get_by_role("button", name="Bent", exact=True).click()
    expect(page.get_by_role("alert").filter(has_text="“quite a lot” is not an angle")).to_be_visible()
    expect(page.get_by_role("heading", name="Bend 2")).to_be_visible()
    expect(page.get_by_text("Bend 2: its angle cannot be read")).to_be_visible()
    expect(page.get_by_label("It came out at")).to_be_focused()
    page.keyboard.type("42")
    with kept(page):
        page.get_by_role("button", name="Keep these readings").click()
    expect(page.get_by_role("heading", name="Bend 3")).to_be_visible()
    stands = page.locator("[data-meets='true']")
    expect(stands).to_contain_text("re-planned, it meets its port")
    # come back another day
    page.reload()
    expect(page.get_by_role("heading", name="Bend 3")).to_be_visible()
    expect(stands).to_contain_text("re-planned")
    page.get_by_role("button", name="Compare with the plan").click()
    expect(page.locator("[data-compare='2']")).to_contain_text("angle −3°")


def test_a_reading_that_stands_alone_is_read_again_before_it_moves_anything(page: Page, own_line):
    """Bend 2 is to be 45°; 135 is the other side of the gauge. Typed again it counts; read so once more it is
    believed, and what the hand did is named."""
    to_the_first_bend(page, own_line)
    page.get_by_role("button", name="Bent", exact=True).click()
    expect(page.get_by_role("heading", name="Bend 2")).to_be_visible()
    page.get_by_label("It came out at").fill("135")
    page.get_by_role("button", name="Bent", exact=True).click()
    asked = page.get_by_role("alert").filter(has_text="Read its angle once more")
    expect(asked).to_contain_text("All else says near 45°; it looks as if the gauge was read")
    expect(page.get_by_role("heading", name="Bend 2")).to_be_visible()
    expect(page.get_by_label("It came out at")).to_be_focused()
    expect(page.locator("[data-meets]")).to_contain_text("On the plan")
    with kept(page):
        page.get_by_role("button", name="It does read 135").click()
    expect(page.get_by_role("heading", name="Bend 3")).to_be_visible()
    expect(page.locator("[data-slip='2 angle']")).to_contain_text("Bend 2 was pulled 90° too far")
    page.get_by_role("button", name="Compare with the plan").click()
    second = page.locator("[data-compare='2']")
    second.get_by_label("It came out at").fill("45.3")
    with kept(page):
        second.get_by_role("button", name="Keep these readings").click()
    expect(page.locator("[data-slip]")).to_have_count(0)


def test_what_is_ticked_as_the_page_is_left_is_kept(page: Page, api, own_line):
    """The page is gone in the same moment, and the step before is still on its way."""
    to_the_first_bend(page, own_line)
    heading = page.get_by_role("heading", level=2)
    bend = heading.inner_text()
    page.evaluate(
        """[...document.querySelectorAll("button")].find((one) => one.textContent === "Bent").click();
        window.location.href = "/icon.svg";"""
    )
    page.wait_for_url("**/icon.svg")
    page.goto(f"/lines/{own_line}/bench")
    expect(heading).to_be_visible()
    expect(heading).not_to_have_text(bend)
    # and it comes to be kept, not only here
    until = monotonic() + 30
    while not (made := api.get(f"/api/lines/{own_line}/makings").json()[0]["state"]["made"]):
        assert monotonic() < until
    assert len(made) == 1


def tab_to(page: Page, what):
    for _ in range(60):
        page.keyboard.press("Tab")
        if what.evaluate("element => element === document.activeElement"):
            return
    raise AssertionError("the Tab key does not come there")


@pytest.mark.long("a whole part by keys")
def test_the_bench_with_the_keyboard_alone(page: Page, own_line):
    open_line(page, own_line, "make")
    tab_to(page, page.get_by_role("button", name="To the bench"))
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Prove the nuts")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_role("button", name="Stop the time")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_role("button", name="Start the time")).to_be_visible()
    step_on(page)
    expect(page.get_by_role("heading", name="Bend 1")).to_be_visible()
    tab_to(page, page.get_by_label("It came out at"))
    page.keyboard.type("90.5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Bend 2")).to_be_visible()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_role("heading", name="Bend 1")).to_be_visible()
    expect(page.get_by_label("It came out at")).to_have_value("90.5")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("heading", name="Bend 2")).to_be_visible()
    expect(page.locator("[data-tells]")).to_contain_text("End B is then known in")
    tab_to(page, page.get_by_label("It lies at, from A"))
    page.keyboard.type("half")
    page.keyboard.press("Escape")  # out of the field, and what is typed stays
    expect(page.get_by_label("It lies at, from A")).to_have_value("half")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Go on at the bench")).to_be_visible()


def test_what_could_not_be_read_of_a_scrapped_piece_does_not_hold_the_next(page: Page, api, own_line):
    to_the_first_bend(page, own_line)
    page.get_by_label("It came out at").fill("so so")
    page.get_by_role("button", name="Bent", exact=True).click()
    expect(page.get_by_role("alert").filter(has_text="“so so” is not an angle")).to_be_visible()
    page.get_by_role("button", name="Next", exact=True).click()  # it may be left as it is
    expect(page.get_by_role("heading", name="Bend 2")).to_be_visible()
    making = api.get(f"/api/lines/{own_line}/makings").json()[0]
    api.post(f"/api/makings/{making['id']}/end", data={"outcome": "scrap"})
    page.reload()
    expect(page.get_by_role("heading", name="Prove the nuts")).to_be_visible()


def test_a_correction_that_moves_the_route_far_shows_the_other_ways(page: Page, own_line):
    to_the_first_bend(page, own_line)
    for number in range(1, 4):
        expect(page.get_by_role("heading", name=f"Bend {number}")).to_be_visible()
        if number == 3:
            page.get_by_label("It came out at").fill("20")
        page.get_by_role("button", name="Bent", exact=True).click()
    page.get_by_role("button", name="It does read 20").click()
    stands = page.locator("[data-meets='true']")
    expect(stands).to_contain_text("look whether it has that room")
    stands.get_by_text("Other ways").click()
    expect(stands).to_contain_text("Start again: Start again from new tube")
    # the foot of the screen stays in reach, whatever is said above it
    expect(page.get_by_role("button", name="Bent", exact=True)).to_be_in_viewport(ratio=1)


def test_nothing_is_worked_by_while_the_rest_is_reckoned(page: Page, own_line):
    to_the_first_bend(page, own_line)
    expect(page.get_by_role("heading", name="Bend 1")).to_be_visible()
    held, holding = [], [True]
    page.route("**/api/bench/standing", lambda route: held.append(route) if holding else route.continue_())
    page.get_by_role("button", name="Bent", exact=True).click()
    expect(page.get_by_text("Reckoning the rest…")).to_be_visible()
    expect(page.get_by_role("button", name="Bent", exact=True)).to_have_count(0)
    expect(page.get_by_label("It came out at")).to_have_count(0)
    holding.clear()
    for route in held:
        route.continue_()
    expect(page.get_by_text("Reckoning the rest…")).to_have_count(0)
    expect(page.get_by_role("button", name="Bent", exact=True)).to_be_visible()


@pytest.mark.long("every bend made and read")
def test_a_finished_part_that_is_off_is_told_which_bend_to_tweak(page: Page, own_line):
    to_the_first_bend(page, own_line)
    for number in range(1, 7):
        expect(page.locator("[data-figure='dial']")).to_be_visible()
        if number == 6:
            page.get_by_label("It came out at").fill("52")
        page.get_by_role("button", name="Bent", exact=True).click()
        if number < 6:
            expect(page.get_by_role("heading", level=2)).to_have_text(re.compile(r"Bend \d"))
            expect(page.get_by_label("It came out at")).to_have_value("")
    page.get_by_role("button", name="It does read 52").click()
    expect(page.get_by_role("heading", name="Trial fit")).to_be_visible()
    # said before anybody tries it, with the ways on
    expect(page.locator("[data-meets='false']")).to_contain_text("End B will miss its port")
    expect(page.locator("[data-meets='false']")).to_contain_text("Start again")
    page.get_by_role("button", name="Compare with the plan").click()
    compared = page.get_by_role("region", name="Compared with the plan")
    expect(compared).to_contain_text("End B will miss its port")
    expect(compared).to_contain_text("Start again")


@pytest.mark.long("rounds of a trial fit, each reckoned apart")
def test_a_part_is_offered_read_tweaked_and_offered_again_until_it_fits(page: Page, api, own_line):
    to_the_first_bend(page, own_line)
    heading = page.get_by_role("heading", level=2)
    for _ in range(6):
        expect(heading).to_have_text(re.compile(r"Bend \d"))
        bend = heading.inner_text()
        page.get_by_role("button", name="Bent", exact=True).click()
        expect(heading).not_to_have_text(bend)
    fitting = page.get_by_role("region", name="Trial fit")
    expect(fitting).to_contain_text("end B not trimmed")
    fitting.get_by_label("Beside by").fill("far off")
    fitting.get_by_role("button", name="Weigh it").click()
    expect(fitting.get_by_role("alert")).to_contain_text("“far off” is not a length")
    fitting.get_by_label("Too long by").fill("1.5 mm")
    fitting.get_by_label("Beside by").fill("5 mm")
    fitting.get_by_label("Towards", exact=True).fill("4:00")
    fitting.get_by_label("Leans by").fill("1.2")
    fitting.get_by_label("Leans towards").fill("2:00")
    fitting.get_by_role("button", name="Weigh it").click()
    told = fitting.locator("[data-tweak]").first
    expect(told).to_contain_text(re.compile("until end B has moved|by the angle"))
    with kept(page):
        fitting.get_by_role("button", name="Done: offer it again").click()
    expect(fitting).to_contain_text("Offer the part again.")
    page.reload()  # it is kept
    expect(fitting).to_contain_text("Offer the part again.")
    for _ in range(3):
        if fitting.locator("[data-fits='true']").count():
            break
        for label in ("Too long by", "Beside by"):
            fitting.get_by_label(label).fill("touches")
        fitting.get_by_label("Leans by").fill("square")
        before = len(api.get(f"/api/lines/{own_line}/makings").json()[0]["state"]["offers"])
        with kept(page):
            fitting.get_by_role("button", name="Weigh it with the rest").click()
        expect(fitting.get_by_text(str(before + 1), exact=True)).to_be_visible()
        expect(fitting.locator("[data-fits]")).to_be_visible()
    expect(fitting.locator("[data-fits='true']")).to_contain_text("It fits")
    # the same stands beside the order of work
    open_line(page, own_line, "make")
    expect(page.get_by_role("region", name="Trial fit")).to_contain_text("It fits")
    with page.expect_download() as blocks:
        page.get_by_role("link", name="Blocks, STL").click()
    assert blocks.value.suggested_filename.endswith("jig blocks.stl")
    assert api.get(f"/api/lines/{own_line}/jig.pdf").body().startswith(b"%PDF")


def test_the_time_is_kept_and_booked_and_the_part_ends(page: Page, api, own_line):
    making = api.post(f"/api/lines/{own_line}/makings").json()
    steps = api.post("/api/bench/standing", data={"document": making["document"], "made": []}).json()["steps"]
    spell = {"start": "2026-01-14T18:00:00Z", "stop": "2026-01-14T18:30:00Z"}
    state = {"done": [step["id"] for step in steps], "made": [], "spells": [spell]}
    api.put(f"/api/makings/{making['id']}", data={"version": 1, "state": state})
    page.goto(f"/lines/{own_line}/bench")
    expect(page.get_by_text("30 min are not booked yet.")).to_be_visible()
    page.get_by_role("button", name="Start the time").click()
    expect(page.get_by_role("button", name="Stop the time")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_role("button", name="Start the time")).to_be_visible()
    page.get_by_role("button", name="To the customer").click()
    expect(page.get_by_text("are not booked yet")).to_have_count(0)
    page.get_by_role("button", name="The part is good").click()
    expect(page.get_by_role("heading", name="The part is good")).to_be_visible()
    bookings = api.get(f"/api/jobs/{making['job_id']}/bookings").json()["bookings"]
    assert bookings[0]["minutes"] == 30
    page.get_by_role("button", name="On to fitting").click()
    page.get_by_role("button", name="Make").first.click()
    expect(page.get_by_role("region", name="Bench mode")).to_contain_text("good")


def test_a_line_that_was_changed_says_so_at_the_bench(page: Page, api, own_line):
    api.post(f"/api/lines/{own_line}/makings")
    open_line(page, own_line, "plan")
    page.get_by_label("Cut the spare off before bending").check()
    saved(page)
    page.get_by_role("button", name="Make").first.click()
    bench = page.get_by_role("region", name="Bench mode")
    expect(bench).to_contain_text("goes on with the plan it was begun with")
    bench.get_by_role("button", name="Begin again with this plan").click()
    expect(page.get_by_role("heading", name="Prove the nuts")).to_be_visible()


@pytest.mark.long("a whole cut list, from the stock to taking it back")
def test_stock_is_kept_and_cut_lists_take_from_it(page: Page, api):
    page.goto("/stock")
    page.get_by_role("button", name="Put in stock…").click()
    page.get_by_label("Tube").select_option(label="1/4 in × 0.889 mm copper-nickel")
    page.get_by_label("Length").fill("very long")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Length: ")
    page.get_by_label("Length").fill("2 m")
    page.get_by_label("Pieces").fill("0")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("whole number")
    page.get_by_label("Pieces").fill("3")
    page.keyboard.press("Enter")
    row = page.get_by_role("region", name="1/4 in × 0.889 mm copper-nickel").locator("[data-stock]")
    expect(row).to_contain_text("3 × 2000 mm")
    with page.expect_popup() as label:
        row.get_by_role("link", name=re.compile("Label")).click()
    assert "/label.pdf" in label.value.url
    label.value.close()  # or the page behind it is drawn once a second
    row.get_by_role("button", name=re.compile("Take out")).click()
    expect(row).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(row).to_have_count(1)
    jobs = {job["name"]: job["id"] for job in api.get("/api/jobs").json()}
    page.goto(f"/jobs/{jobs['Harbour launch']}/cuts")
    cuts = page.get_by_role("region", name="Cut list")
    fuel = cuts.locator("[data-cuts='copper-nickel_8mm_1']")
    expect(fuel).to_contain_text("S3 stick, 1500 mm")
    expect(fuel).to_contain_text("nothing to buy")
    cuts.get_by_role("checkbox", name="Steering tank drop").uncheck()
    cuts.get_by_role("checkbox", name="Fuel feed").uncheck()
    expect(fuel).to_have_count(0)
    expect(cuts).to_contain_text("Tick a line to see what it is cut from.")
    expect(cuts.get_by_role("button", name="These are cut")).to_have_count(0)
    cuts.get_by_role("checkbox", name="Fuel feed").check()
    cuts.get_by_role("button", name="These are cut").click()
    feed = cuts.get_by_role("listitem").filter(has_text="Fuel feed")
    expect(feed).to_contain_text("cut from S3 stick")
    expect(cuts.get_by_role("checkbox", name="Fuel feed")).not_to_be_checked()
    page.reload()
    cuts.get_by_role("button", name="Not cut after all: Fuel feed").click()
    expect(page.get_by_text("The cuts are taken back")).to_be_visible()
    expect(page.get_by_role("button", name="Undo")).to_have_count(0)
    expect(fuel).to_contain_text("S3 stick, 1500 mm")
    page.goto("/stock")
    sticks = page.locator("[data-stock='S3']")
    expect(sticks).to_contain_text("2 × 1500 mm")


def test_stock_that_changed_meanwhile_is_not_cut_by_the_old_list(page: Page, api):
    jobs = {job["name"]: job["id"] for job in api.get("/api/jobs").json()}
    page.goto(f"/jobs/{jobs['Harbour launch']}/cuts")
    cuts = page.get_by_role("region", name="Cut list")
    expect(cuts).to_contain_text("S3 stick, 1500 mm")
    stick = next(row for row in api.get("/api/stock").json() if row["label"] == "S3")
    api.delete(f"/api/stock/{stick['id']}")
    cuts.get_by_role("button", name="These are cut").click()
    expect(page.get_by_text("look at it again")).to_be_visible()
    expect(cuts).to_contain_text("new stick of 1500 mm")
    api.post(f"/api/stock/{stick['id']}/restore")


def test_tube_is_counted_piece_by_piece_and_only_its_price_is_set(page: Page, api):
    lying = sum(r["length_mm"] * r["count"] for r in api.get("/api/stock").json() if r["tube"] == BRAKE_TUBE)
    page.goto("/catalogue")
    row = page.locator(f"[data-row='{BRAKE_TUBE}']")
    row.get_by_role("button", name=re.compile("stock and price of")).click()
    asked = page.get_by_role("dialog")
    expect(asked).to_contain_text(f"{round(lying / 1000, 2):g} m lie in the shop")
    expect(asked.get_by_label("In stock")).to_have_count(0)
    asked.get_by_label("Price a metre").fill("a lot")
    page.keyboard.press("Enter")
    expect(asked.get_by_role("alert")).to_contain_text("Price: write an amount such as 12.50")
    asked.get_by_label("Price a metre").fill("5.20")
    page.keyboard.press("Enter")
    expect(row).to_contain_text("5.20 a metre")
    held = next(row for row in api.get("/api/holdings").json() if row["ref"] == f"tube:{BRAKE_TUBE}")
    api.put("/api/holdings", data={"ref": held["ref"], "unit_cents": 507, "version": held["version"]})
    row.get_by_role("button", name=re.compile("stock and price of")).click()
    asked.get_by_role("link", name="Stock").click()
    expect(page.get_by_role("heading", name="Stock")).to_be_visible()


def test_nothing_is_set_over_what_is_not_read_yet(page: Page):
    """What was opened before the stock was read was kept as if there were none: refused as a late change."""
    waiting = []
    page.route("**/api/holdings", lambda route: waiting.append(route))
    page.goto("/catalogue")
    row = page.locator(f"[data-row='{BRAKE_TUBE}']")
    of = row.get_by_role("button", name=re.compile("stock and price of"))
    expect(of).to_be_disabled()
    for route in waiting:
        route.continue_()
    page.unroute("**/api/holdings")
    of.click()
    expect(page.get_by_role("dialog")).to_contain_text(re.compile(r"\d m lie in the shop"))
    page.get_by_role("dialog").get_by_label("Price a metre").fill("5.07")
    with kept(page):
        page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)


def test_an_own_flaring_tool_is_added_on_the_tools_page(page: Page):
    page.goto("/tools")
    expect(page.get_by_role("region", name="Body and bench")).to_contain_text("used in the hands")
    tools = page.get_by_role("region", name="Flaring tools")
    tools.get_by_role("button", name="Add a flaring tool of our own…").click()
    page.get_by_label("Name of the tool").fill("pocket press")
    page.get_by_label("Forms").select_option("every flare")
    page.get_by_label("Grip behind the flare").fill("wide")
    page.get_by_label("Used").select_option("bench")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("alert")).to_contain_text("Grip behind the flare")
    page.get_by_label("Grip behind the flare").fill("11 mm")
    page.get_by_role("button", name="Keep it").click()
    expect(tools).to_contain_text("holds 11 mm")


def test_a_flare_is_guided_and_one_that_failed_is_counted(page: Page, own_line):
    open_line(page, own_line, "make")
    page.get_by_text("Flaring end A, step by step").click()
    told = page.get_by_role("list", name="Flaring end A")
    expect(told.locator("[data-flaring='clamp']")).to_contain_text("it must not move")
    expect(told.get_by_role("img", name="Wrong: lopsided")).to_be_visible()
    page.get_by_role("button", name="To the bench").click()
    page.get_by_role("button", name="4, Flare", exact=True).click()
    across = page.get_by_label("Across the rim")
    across.fill("0.25")
    expect(page.locator("[data-flare='too small']")).to_contain_text("press it home, or cut it off")
    page.get_by_role("button", name="It failed: cut off").click()
    expect(page.get_by_text("Once cut off")).to_be_visible()
    expect(across).to_have_value("")
    across.fill("wide")
    expect(page.get_by_role("alert")).to_contain_text("“wide” is not a length")
    across.fill("0.275")
    expect(page.locator("[data-flare='right']")).to_be_visible()
    assert by_night_and_day(page) == []
    page.reload()
    page.get_by_role("button", name="4, Flare", exact=True).click()
    expect(across).to_have_value("0.275")
    expect(page.get_by_text("Once cut off")).to_be_visible()
    page.get_by_role("button", name="Not cut off after all").click()
    expect(page.get_by_text("One that fails is cut off")).to_be_visible()


@pytest.mark.long("every bend made, a trial fit reckoned apart")
def test_held_at_b_it_is_end_a_that_is_read_and_trimmed(page: Page, api, own_line):
    opened = api.get(f"/api/lines/{own_line}").json()
    document = opened["document"]
    tube = next(span for span in document["spans"] if span["kind"] == "rigid")
    tube.update(held="B", order=[])
    tube["readings"]["rows"] = tube["readings"]["rows"][:2]
    assert api.put(f"/api/lines/{own_line}", data={"document": document, "version": opened["version"]}).ok
    to_the_first_bend(page, own_line)
    for bend in ("Bend 2", "Bend 1"):
        expect(page.get_by_role("heading", level=2)).to_have_text(bend)
        page.get_by_role("button", name="Bent", exact=True).click()
    fitting = page.get_by_role("region", name="Trial fit")
    expect(fitting).to_contain_text("End B home, the part rolled to its best, end A not trimmed.")
    expect(fitting).to_contain_text("Clocks are as seen from B; 12:00 is the plane of bend 2.")
    fitting.get_by_label("Too long by").fill("1.5 mm")
    fitting.get_by_label("Beside by").fill("5 mm")
    fitting.get_by_label("Towards", exact=True).fill("4:00")
    fitting.get_by_label("Leans by").fill("1.2")
    fitting.get_by_label("Leans towards").fill("2:00")
    with kept(page):
        fitting.get_by_role("button", name="Weigh it").click()
    expect(fitting.get_by_role("img", name="Port A seen from B")).to_be_visible()
    expect(fitting).to_contain_text("end A: 1.5 mm too long")
    told = fitting.locator("[data-tweak]").first
    expect(told).to_contain_text("its side of B")
    expect(told).to_contain_text(re.compile("until end A has moved|by the angle: end A"))
    with kept(page):
        fitting.get_by_role("button", name="Take the last offer back").click()
    fitting.get_by_role("button", name="Read at end B").click()
    expect(fitting).to_contain_text("End A home, the part rolled to its best, end B not trimmed.")
    fitting.get_by_label("Beside by").fill("touches")
    fitting.get_by_label("Leans by").fill("square")
    with kept(page):
        fitting.get_by_role("button", name="Weigh it").click()
    expect(fitting).to_contain_text("end B: touches beside")
    expect(fitting.locator("[data-fits]")).to_be_visible()


@pytest.mark.long("a line of three pieces, planned twice")
def test_the_gap_after_the_cuts_plans_the_piece_between_two_old_tubes(page: Page, api, own_line):
    opened = api.get(f"/api/lines/{own_line}").json()
    body = {"version": opened["version"], "document": line_to_value(between())}
    assert api.put(f"/api/lines/{own_line}", data=body).ok
    page.goto(f"/lines/{own_line}/bench?tube=s1")
    heading = page.get_by_role("heading", level=2)
    expect(heading).to_be_visible()
    at = page.locator("[aria-current=step]")
    while heading.inner_text() != "The gap":
        before = at.get_attribute("aria-label")
        page.get_by_role("button", name="Done", exact=True).click()
        expect(at).not_to_have_attribute("aria-label", before)
    main = page.get_by_role("main")
    expect(main).to_contain_text("253.3 mm is planned")
    gap = page.get_by_label("Straight across it reads")
    gap.fill("wide")
    gap.press("Enter")
    expect(main.get_by_role("alert")).to_contain_text("“wide” is not a length")
    expect(gap).to_be_focused()
    gap.fill("257 mm")
    gap.press("Enter")
    expect(main.get_by_role("status")).to_contain_text("The piece is planned for 257 mm.")
    expect(main).to_contain_text("257 mm is planned")
    page.reload()
    expect(page.get_by_label("Straight across it reads")).to_have_value("257 mm")
