"""Choosing with reasons: what the line carries, hoses and parts, comparing, look-ups, the catalogue."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import kept, open_line, saved
from tests.browser.test_shop import by_night_and_day

pytestmark = pytest.mark.browser

COOLER, VACUUM = "Pump gearbox to cooler", "Priming vacuum, with check valve"


def finding(page: Page, code: str):
    return page.locator(f"aside [data-finding='{code}']").first


def test_a_clamp_that_does_not_suit_is_put_right_with_one_click(page: Page, copy_of):
    open_line(page, copy_of(COOLER), "choose")
    expect(page.locator("[data-hose='b1']")).to_be_visible()
    expect(finding(page, "clamp_range")).to_contain_text('0.984" to 1.575"')
    finding(page, "clamp_range").get_by_role("button", name="Use a worm-drive clamp 12-20 mm").click()
    expect(finding(page, "clamp_range")).to_have_count(0)
    expect(page.get_by_label("Clamp", exact=True)).to_have_value("worm_12-20")
    finding(page, "hose_rubs").get_by_role("button", name="A sleeve is on").click()
    expect(finding(page, "hose_rubs")).to_have_count(0)
    saved(page)
    page.reload()
    expect(page.get_by_label("Clamp", exact=True)).to_have_value("worm_12-20")


def test_pressure_governs_and_shows_its_place_and_working(page: Page, copy_of):
    open_line(page, copy_of("Rear axle, left"), "choose")
    expect(page.locator("[data-weakest='tube-s1']")).to_be_visible()
    page.locator("summary", has_text="What it carries").click()
    page.get_by_label("Pressure", exact=True).fill("lots")
    expect(page.get_by_text("write it like 5 bar")).to_be_visible()
    page.get_by_label("Pressure", exact=True).fill("260 bar")
    stop = finding(page, "pressure_tube")
    expect(stop).to_have_attribute("data-severity", "stop")
    stop.get_by_title("Show where").click()
    expect(page.locator("svg [data-lit='stop']")).to_be_visible()
    page.locator("summary", has_text="Stands").click()
    page.get_by_role("button", name="Show the working").click()
    expect(page.locator("[data-working='strength']")).to_contain_text("2·S·t/D")
    page.get_by_label("Pressure", exact=True).fill("")
    page.keyboard.press("Escape")
    expect(finding(page, "pressure_tube")).to_have_count(0)
    expect(page.get_by_label("Pressure", exact=True)).to_be_visible()


def test_a_check_valve_is_turned_round(page: Page, copy_of):
    open_line(page, copy_of(VACUUM), "choose")
    expect(page.locator("[data-part='a1']")).to_be_visible()
    finding(page, "backwards").get_by_role("button", name="Turn it round").click()
    expect(finding(page, "backwards")).to_have_count(0)
    page.get_by_role("button", name="+ part beyond B").click()
    expect(page.locator("[data-part]")).to_have_count(2)
    page.get_by_label("Take out piece 1 beyond B").click()
    expect(page.locator("[data-part]")).to_have_count(1)


def test_another_complete_choice_is_taken_and_taken_back(page: Page, copy_of):
    open_line(page, copy_of("Rear axle, left"), "choose")
    page.get_by_role("button", name="Compare choices…").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("columnheader")).to_have_count(3)  # one for each family not refused
    expect(dialog).to_contain_text("as chosen now")
    expect(dialog).to_contain_text("× working")
    dialog.get_by_role("button", name="Take double-wall steel").first.click()
    expect(page.get_by_label("Material", exact=True)).to_have_value("steel-coated")
    saved(page)
    page.keyboard.press("Control+z")
    expect(page.get_by_label("Material", exact=True)).to_have_value("copper-nickel")


def test_the_wrong_seat_is_found_and_the_right_end_taken(page: Page, copy_of):
    open_line(page, copy_of("Rear axle, left"), "choose")
    end = page.get_by_role("group", name="End B")
    end.get_by_label("Port’s seat").select_option("bubble-seat")
    wrong = finding(page, "wrong_seat")
    expect(wrong).to_contain_text("closes on itself")
    wrong.get_by_role("button", name="Change it to ISO bubble flare").click()
    expect(end.get_by_label("End type")).to_have_value("bubble")


def test_kit_and_tools_of_a_line(page: Page, copy_of):
    open_line(page, copy_of(COOLER), "choose")
    page.locator("summary", has_text="Tools for this line").click()
    expect(page.get_by_text("flare-nut wrench 5/8 in")).to_be_visible()
    page.locator("summary", has_text="Kit list").click()
    expect(page.locator("[data-need='hose:cooler_3-8in']")).to_contain_text("transmission cooler hose")
    expect(page.locator("[data-total='kit']")).not_to_have_text("0.00")


def test_a_thread_is_found_and_its_trap_drawn(page: Page):
    page.goto("/lookups/thread")
    page.get_by_label("Over crests").fill("nine")
    expect(page.get_by_role("alert")).to_contain_text("The diameter")
    page.get_by_label("Over crests").fill("9.42")
    page.get_by_label("Pitch", exact=True).fill("24 tpi")
    first = page.locator("[data-candidate]").first
    expect(first).to_have_attribute("data-candidate", "3/8-24")
    first.locator("[data-alike='M10x1']").get_by_role("link").click()
    expect(page.locator("[data-verdict='binds']")).to_have_text("It starts, and jams.")
    expect(page.get_by_role("img", name="3/8-24 in M10x1, drawn to scale")).to_be_visible()
    page.get_by_label("Female").fill("G1/8")
    expect(page.locator("[data-verdict='refused']")).to_be_visible()


def test_the_other_look_ups_answer(page: Page):
    page.goto("/lookups/wrench")
    expect(page.locator("[data-wrench='35 mm']")).to_contain_text("usable")
    page.goto("/lookups/stripped")
    expect(page.get_by_text("Say what the port carries first.")).to_be_visible()
    page.get_by_label("It carries").select_option("brake")
    expect(page.get_by_text("A brake part with a stripped port is replaced")).to_be_visible()
    page.get_by_label("It carries").select_option("coolant")
    page.get_by_label("Its seat").select_option("o-ring-port")
    expect(page.locator("[data-rescue]").first).to_contain_text("measure first")
    page.get_by_label("Metal across").fill("12 mm")
    expect(page.locator("[data-rescue]").first).to_contain_text("not here")
    page.goto("/lookups/strength")
    page.get_by_label("At", exact=True).fill("boiling")
    expect(page.get_by_role("alert")).to_contain_text("not a temperature")
    page.goto("/lookups/uses")
    page.get_by_role("button", name="copper, brake: refused").click()
    expect(page.get_by_role("status").first).to_contain_text("work-hardens")
    page.goto("/lookups/nothing")
    expect(page.get_by_text("There is no look-up “nothing”.")).to_be_visible()


def test_the_catalogue_is_searched_and_added_to(page: Page):
    page.goto("/catalogue/clamps")
    page.get_by_label("Search").fill("pinch 25.6")
    expect(page.locator("tr[data-row]")).to_have_count(1)
    page.get_by_label("Search").fill("")
    page.get_by_role("button", name="Add a clamp of our own…").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("Kind is missing")
    dialog.get_by_label("Kind").select_option("worm")
    dialog.get_by_label("Closed").fill("11")
    dialog.get_by_label("Open").fill("17")
    dialog.get_by_label("Width").fill("9")
    dialog.get_by_label("Where the figures come from").fill("drawer three")
    dialog.get_by_role("button", name="Keep it").click()
    expect(page.locator("tr[data-row]", has_text="shop's own: drawer three")).to_be_visible()
    page.get_by_role("button", name="Take out worm 11 17").click()
    expect(page.locator("tr[data-row]", has_text="drawer three")).to_have_count(0)


def test_stock_and_price_are_set_in_the_catalogue(page: Page):
    page.goto("/catalogue/fluids")
    page.get_by_role("button", name=re.compile("stock and price of engine oil SAE 30")).click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("In stock, litres").fill("some")
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("plain number")
    dialog.get_by_label("In stock, litres").fill("2.5")
    dialog.get_by_label("Price a litre").fill("6.40")
    dialog.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("2.5 L, 6.40 a litre")).to_be_visible()


def test_the_shops_way_changes_the_matrix(page: Page, api):
    page.goto("/catalogue/ways")
    with kept(page):
        page.get_by_label("spring Follows heat").check()
    page.goto("/lookups/uses")
    dots = page.locator("[data-row='clamp spring'] [aria-label='this shop’s way']")
    expect(dots.first).to_be_attached()
    version = api.get("/api/catalogue").json()["ways_version"]
    api.put(f"/api/preferences?version={version}", data={"clamps": "worm"})


def test_how_far_scrap_stood_a_twist_is_typed_for_the_shop(page: Page, api):
    page.goto("/catalogue/ways")
    stood = page.get_by_label("It stayed turned by, without a ripple")
    expect(page.get_by_text("also twisted, up to half")).to_be_visible()
    expect(stood).to_have_count(0)
    with kept(page):
        page.get_by_label("as far as this shop’s own scrap stood it").check()
    expect(page.get_by_text("Not measured yet")).to_be_visible()
    stood.fill("45")
    stood.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("type 1° to 10°; “45” is not used")
    stood.fill("7.5")
    with kept(page):
        stood.press("Enter")
    expect(stood).to_have_value("7.5°")
    expect(page.get_by_text("Not measured yet")).to_have_count(0)
    assert by_night_and_day(page) == []
    page.reload()
    expect(stood).to_have_value("7.5°")
    version = api.get("/api/catalogue").json()["ways_version"]
    api.put(f"/api/preferences?version={version}", data={"stiff-twist": "never"})


@pytest.mark.long("test pieces, then a plan")
def test_a_bender_is_calibrated_and_the_plan_follows(page: Page, copy_of, api):
    """By hand, for a die of R 15.6, zero +1.2 and 2 % spring-back, from 300 mm marked at 120: dial 90 is
    88.2° of R 15.91, legs of 121.2 + 18.29·tan 44.1° and 300 − 121.2 − 24.5 + 17.7 mm."""
    line = copy_of("Rear axle, left")
    page.goto("/tools?bender=lever_3-16in&material=copper-nickel")
    page.get_by_label("Cut", exact=True).fill("300")
    page.get_by_label("Mark at").fill("120")
    page.get_by_label("Dial").fill("90")
    page.get_by_role("button", name="Reckon with it").click()
    expect(page.get_by_role("alert")).to_contain_text("Read at least one")
    page.get_by_label("Clamped leg").fill("138.9")
    page.get_by_label("Free leg").fill("172.0")
    page.get_by_label("Angle", exact=True).fill("88.2")
    page.get_by_role("button", name="Reckon with it").click()
    expect(page.locator("[data-trial='1']")).to_be_visible()
    expect(page.locator("[data-told='Finished radius on 90°']")).to_contain_text("±")
    page.goto(f"/lines/{line}/plan")
    page.locator("[data-move='1'] button").last.click()
    expect(page.locator("[data-working='dial-1']")).to_contain_text("calibration from 1 test piece")
    page.goto("/tools?bender=lever_3-16in&material=copper-nickel")
    page.get_by_role("button", name="Take out piece 1").click()
    expect(page.get_by_text("None yet.")).to_be_visible()
    assert api.get("/api/tools").ok


def test_an_old_tube_of_any_diameter_and_a_head_of_fuel_can_be_said(page: Page, api, copy_of):
    line = copy_of("Fuel feed, tank to filter")
    page.goto(f"/lines/{line}/choose")
    page.get_by_role("button", name="Another diameter, as measured…").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Size, as you say it").fill("11.1 old")
    dialog.get_by_label("Outside diameter").fill("11.1 mm")
    dialog.get_by_label("Wall").fill("6 mm")
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog.get_by_role("alert")).to_be_visible()
    dialog.get_by_label("Wall").fill("0.9 mm")
    dialog.get_by_role("button", name="Keep").click()
    expect(page.get_by_label("Size", exact=True)).to_have_value("11.1 old")
    page.get_by_text("What it carries").click()
    driven = page.get_by_label("Driven by")
    driven.fill("the pump")
    expect(page.get_by_text("“the pump” drives nothing: write a pressure like 20 kPa")).to_be_visible()
    driven.fill("400 mm")
    expect(page.get_by_text("drives nothing")).to_have_count(0)
    saved(page)
    own = next(one for one in api.get("/api/own").json() if one["shelf"] == "tubes")["rows"][-1]
    api.delete(f"/api/own/{own['id']}")
