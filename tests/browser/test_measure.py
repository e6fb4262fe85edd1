"""Ways of measuring, their checks, and copies of other lines, through the screens."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import cut, open_line, reading, saved
from tests.browser.test_shop import by_night_and_day

pytestmark = pytest.mark.browser


def fold(page: Page, title: str):
    page.locator("summary", has_text=title).click()


def test_the_wire_says_the_same_line_and_back(page: Page, own_line):
    """By hand: 2 5/8 less 17.38 mm of reach is where bend 1 starts, its arc is 23.56 mm; of 6 13/16
    outside to outside 17.38 and 7.20 mm belong to the bends: bend 2 starts at 221.31 mm, 8 23/32 in."""
    open_line(page, own_line)
    before = cut(page).inner_text()
    page.get_by_role("radio", name="wire").click()
    expect(reading(page, "Start mark of bend 2")).to_have_value('8 23/32"')
    expect(cut(page)).to_have_text(before)
    page.get_by_role("radio", name="bend by bend").click()
    expect(reading(page, "Leg to bend 2")).to_be_visible()
    expect(cut(page)).to_have_text(before)


def test_methods_are_mixed_row_by_row(page: Page, own_line):
    """Bend 2 starts 8 23/32 from A on the wire: saying so changes nothing, saying more lengthens the leg."""
    open_line(page, own_line)
    before = cut(page).inner_text()
    page.get_by_label("How bend 2 is placed").select_option("middle")
    reading(page, "Middle mark of bend 2").fill("240 mm")  # half an inch on: no rounding hides it
    expect(cut(page)).not_to_have_text(before)
    page.get_by_label("How end B is placed").select_option("string")
    reading(page, "String around the rest, to end B").fill("6")
    expect(page.locator("aside [data-finding='length_only']")).to_be_visible()
    saved(page)


def test_a_misread_leg_is_named_and_found(page: Page, own_line):
    open_line(page, own_line)
    fold(page, "Checks")
    page.get_by_label("Whole wire").fill("36 5/16")
    page.get_by_label("Rim to rim").fill("18 25/32")
    expect(page.locator("[data-check='wire']")).to_have_attribute("data-agrees", "true")
    reading(page, "Leg to bend 4").fill("5 15/16")
    expect(page.locator("aside [data-finding='check_wire']")).to_be_visible()
    named = page.locator("[data-suspect='/spans/s1/readings/rows/r4/length']")
    expect(named).to_contain_text("as if an inch was counted wrong")
    named.get_by_role("button", name="Go to").click()
    expect(reading(page, "Leg to bend 4")).to_be_focused()
    page.get_by_label("Rim to rim").fill("about a foot")
    expect(page.get_by_role("alert").filter(has_text="is not a length")).to_be_visible()


def test_a_bare_plane_waits_until_the_shop_has_said_how_it_reads_them(page: Page, own_line, api):
    """Common practice: some say 3 for three o'clock, others for three degrees; both cannot be guessed at."""
    open_line(page, own_line)
    plane = reading(page, "Plane of bend 3")
    plane.fill("3")
    problem = page.get_by_role("alert").filter(has_text="3")
    expect(problem).to_be_visible()
    head = page.get_by_label("How planes are read")
    head.select_option("clock")
    expect(problem).to_have_count(0)
    saved(page)
    read = api.get(f"/api/lines/{own_line}").json()["document"]["spans"][0]["readings"]["rows"][2]["plane"]
    assert (read["text"], read["by"]) == ("3", "clock")
    head.select_option("degrees")  # what was read by the clock stays what it was
    expect(plane).to_have_value("3:00")
    saved(page)


def test_left_long_is_part_of_the_cut(page: Page, own_line):
    open_line(page, own_line)
    expect(cut(page)).to_have_text('37 15/32"')
    fold(page, "Left long")
    page.get_by_label("Long at B by").fill("1")
    expect(cut(page)).to_have_text('38 15/32"')
    page.get_by_label("Long at B by").fill("-1")
    expect(page.get_by_role("alert").filter(has_text="below 0").first).to_be_visible()


def test_a_bought_part_is_held_against_the_old_line(page: Page, own_line):
    open_line(page, own_line)
    fold(page, "Check a bought part")
    page.get_by_role("button", name="Add a reading of the part").click()
    page.get_by_label("Kind of part reading 1").select_option("leg")
    page.get_by_label("Which one, part reading 1").fill("2")
    reading(page, "Part reading 1").fill("7 13/16")
    expect(page.locator("[data-off='yes']")).to_have_text('1" more')
    expect(page.get_by_text("from the port and point")).to_contain_text('1"')


def test_the_mirror_image_and_a_neighbour(page: Page, own_line, line_ids):
    open_line(page, own_line)
    page.get_by_role("button", name="From another line…").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Line", exact=True).select_option(line_ids["Rear axle, right"])
    expect(dialog.get_by_text("mirror image of “Rear axle, right”")).to_be_visible()
    dialog.get_by_role("button", name="Take these readings").click()
    expect(reading(page, "Plane of bend 3")).to_have_value("3:00")
    expect(reading(page, "Leg to bend 2")).to_have_value("11 3/4")
    page.get_by_role("button", name="From another line…").click()
    dialog.get_by_label("Line", exact=True).select_option(line_ids["Rear axle, right"])
    dialog.get_by_text("neighbour", exact=True).click()
    dialog.get_by_label("Spacing").fill("a bit")
    expect(dialog.get_by_role("alert")).to_contain_text("is not a length")
    dialog.get_by_label("Spacing").fill("1/2")
    dialog.get_by_label("On its side").fill("3:00")
    expect(dialog.get_by_text("1/2 beside it at 3:00")).to_be_visible()
    dialog.get_by_role("button", name="Take these readings").click()
    saved(page)


def test_another_radius_between_the_same_ports(page: Page, own_line):
    open_line(page, own_line)
    before = cut(page).inner_text()
    page.get_by_role("button", name="Another radius…").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Radius").fill("1 1/4")
    expect(dialog.get_by_text("from the old path, near bend")).to_be_visible()
    dialog.get_by_label("Radius").fill("20")
    expect(dialog.get_by_text("No line with this radius")).to_be_visible()
    expect(dialog.get_by_role("button", name="Take this line")).to_be_disabled()
    dialog.get_by_label("Radius").fill("1 1/4")
    dialog.get_by_role("button", name="Take this line").click()
    expect(cut(page)).not_to_have_text(before)
    page.keyboard.press("Control+z")
    expect(cut(page)).to_have_text(before)


def test_the_twin_starts_as_the_mirror_image(page: Page, api):
    job = next(job for job in api.get("/api/jobs").json() if job["name"] == "Fire tender")
    page.goto(f"/jobs/{job['id']}")
    page.get_by_role("button", name="New line").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name of the line").fill("Rear axle, right, new")
    dialog.get_by_label("It is").select_option(label="the mirror image of another line")
    dialog.get_by_label("Line", exact=True).select_option(label="Rear axle, left")
    dialog.get_by_role("button", name="Make the line").click()
    expect(reading(page, "Plane of bend 2")).to_have_value("9:00")
    expect(reading(page, "Leg to bend 2")).to_have_value("6 13/16")
    line = page.url.split("/lines/")[1].split("/")[0]
    api.delete(f"/api/lines/{line}")


@pytest.mark.long("three readings, each adjusted and asked for again")
def test_end_b_is_read_by_rule_and_square_and_all_is_taken_together(page: Page, own_line, api):
    """What to read next is said; what is read so moves the readings a little, and each says so."""
    open_line(page, own_line, "measure")
    page.locator("summary", has_text="Checks").click()
    known = page.get_by_role("status", name="How well end B is known")
    expect(known).to_contain_text("where end B stands")
    fold(page, "Where end B stands")
    line = api.get(f"/api/lines/{own_line}").json()["document"]
    part = api.post("/api/preview", data=line).json()["pieces"][0]["part"]
    ahead, up, across = part["end_b"]["point"]
    page.get_by_label("B, ahead of A").fill(f"{ahead + 2:.1f} mm")
    expect(page.get_by_text("Say all three: how far end B stands towards 3")).to_be_visible()
    page.get_by_label("B, up").fill(f"{up:.1f} mm")
    page.get_by_label("B, across").fill(f"{across:.1f} mm")
    expect(page.locator("[data-check='place B']")).to_contain_text("agrees within")
    expect(page.locator("table", has_text="→").first).to_be_visible()
    expect(known).not_to_contain_text("where end B stands")
    page.locator("summary", has_text="How every reading was taken").click()
    page.get_by_role("button", name="Hold: leg to bend 2").click()
    expect(page.get_by_text("leg to bend 2: held")).to_be_visible()
    page.get_by_role("button", name="Count it again: leg to bend 2").click()
    expect(page.get_by_text("leg to bend 2: held")).to_have_count(0)
    assert by_night_and_day(page) == []
    # far off it is a contradiction: said, and nothing is bent to fit
    page.get_by_label("B, ahead of A").fill(f"{ahead + 300:.1f} mm")
    expect(page.locator("[data-check='place B']")).to_contain_text("off by")
    expect(page.locator("table", has_text="→")).to_have_count(0)
    expect(page.get_by_role("status", name="Read these again")).to_be_visible()


@pytest.mark.long("the advice is reckoned apart, twice")
def test_what_is_to_be_read_next_is_opened_and_read(page: Page, own_line):
    """The old part on its sheet by keyboard, then a tape that is put in; what contradicts is named, and one
    press leads there."""
    open_line(page, own_line, "measure")
    known = page.get_by_role("status", name="How well end B is known")
    page.get_by_role("button", name="Read it: the old part on its sheet").press("Enter")
    sheet = page.locator("[data-at='sheet']")
    expect(sheet.get_by_label("Too long by")).to_be_focused()
    for text in ("1/16", "", "3/16", "3:00", "1.5", "6:00"):  # the second stop is the button “too short”
        page.keyboard.type(text)
        page.keyboard.press("Tab")
    expect(page.locator("[data-check='sheet']")).to_contain_text("agrees within")
    expect(page.locator("[data-check='lean']")).to_contain_text("agrees within")
    expect(page.locator("table", has_text="→").first).to_be_visible()
    expect(known).not_to_contain_text("the old part on its sheet")
    expect(sheet.get_by_role("link", name="Print its sheet")).to_have_attribute("href", re.compile("jig.pdf"))
    page.get_by_role("button", name="+ bend on the sheet").press("Enter")
    bend = page.get_by_role("group", name="bend 1 on its sheet")
    bend.get_by_label("Right of its drawing by").fill("touches")
    expect(page.locator("[data-check='bend on sheet']")).to_contain_text("agrees within")
    bend.get_by_label("Its underside over the board").fill("high")
    expect(bend.get_by_role("alert")).to_contain_text("“high” is not a length")
    bend.get_by_label("Its underside over the board").fill("20")
    wrong = page.get_by_role("status", name="Read these again")
    wrong.get_by_role("button", name="Go to how bend 1 lies on the sheet").press("Enter")
    expect(bend.get_by_label("Right of its drawing by")).to_be_focused()
    bend.get_by_role("button", name="Take out: bend 1 on its sheet").click()
    expect(wrong).to_have_count(0)
    fold(page, "Tapes to corners")
    page.get_by_role("button", name="+ tape").click()
    tape = page.get_by_role("group", name="Tape, end A to bend 1")
    tape.get_by_label("To", exact=True).select_option("bend 3")
    page.get_by_label("It reads").fill("a foot or so")
    expect(page.get_by_role("alert").filter(has_text="“a foot or so” is not a length")).to_be_visible()
    page.get_by_label("It reads").fill("30")
    expect(wrong.get_by_text("the tape from end A to bend 3")).to_be_visible()
    wrong.get_by_role("button", name="Go to the tape from end A to bend 3").click()
    expect(page.get_by_label("It reads")).to_be_focused()
    page.get_by_role("button", name="Take out: tape, end A to bend 3").click()
    expect(wrong).to_have_count(0)
    fold(page, "Where corners stand")
    page.get_by_role("button", name="+ corner").click()
    page.get_by_label("It stands up").fill("0")
    expect(page.locator("[data-check='corner']")).to_contain_text("agrees within")
    assert by_night_and_day(page) == []
    saved(page)
