"""The line as a chain: mending a damage, and the strip as the editor of its pieces."""

import json
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import open_line, saved

pytestmark = pytest.mark.browser

V1 = Path(__file__).parents[1] / "kept" / "v1" / "rear-axle-left.bendrel.json"
RETURN, HOSE = "Steering return, through cooler and filter", "Header tank to engine"


def strip(page: Page):
    return page.get_by_role("region", name="The strip")


@pytest.mark.long("three rewritings, each saved")
def test_a_damage_is_mended_and_undo_brings_the_old_line_back(page: Page, own_line, api):
    open_line(page, own_line, "look")
    ways = page.get_by_role("region", name="How to mend it")
    expect(ways.locator("[data-way]")).to_have_count(7)
    expect(ways.locator("[data-way='hose']")).to_have_attribute("data-verdict", "refused")
    ways.locator("[data-way='hose'] button").click()
    expect(ways.locator("[data-way='hose']")).to_contain_text("common practice")
    ways.locator("[data-way='flared_unions'] button").click()
    expect(ways.locator("[data-way='flared_unions']")).to_contain_text("Local law")
    expect(ways.locator("[data-working='splice']")).to_contain_text("one union, seat to seat")
    cut = page.get_by_role("slider", name="Cut on the side of A")
    before = cut.get_attribute("aria-valuenow")
    cut.press("Shift+ArrowLeft")
    expect(cut).not_to_have_attribute("aria-valuenow", before)
    ways.get_by_label("Cut, A side").fill('9"')
    expect(ways.get_by_role("status")).to_contain_text("that is in the arc of bend 2")
    ways.get_by_label("Cut, A side").fill("")
    mend = ways.get_by_role("button", name="Mend it: two flared unions")
    mend.click()
    expect(ways.get_by_role("alert")).to_contain_text("Say in a few words why")
    ways.get_by_label("Why this way").fill("the inspector allows one section")
    mend.click()
    expect(strip(page).locator("[data-state='stays']")).to_have_count(2)
    expect(strip(page).locator("[data-joint]")).to_have_count(2)
    expect(ways).to_contain_text("cut out")
    saved(page)
    spans = api.get(f"/api/lines/{own_line}").json()["document"]["spans"]
    assert [span["state"] for span in spans] == ["stays", "to make", "stays"]
    page.get_by_role("button", name="Undo").click()
    expect(strip(page).locator("[data-state='stays']")).to_have_count(0)


def test_pieces_are_put_in_moved_split_and_taken_out_on_the_strip(page: Page, copy_of):
    open_line(page, copy_of(RETURN), "choose")
    strip(page).locator("[data-part='c1']").click()
    asked = page.get_by_role("region", name="The chosen place")
    expect(asked.get_by_label("Rated for")).to_have_value("10 bar")
    tools = page.get_by_role("toolbar", name="The chosen piece")
    tools.get_by_role("button", name="Put in behind").click()
    page.get_by_role("menuitem", name="shut-off valve").click()
    expect(strip(page).locator("[data-part]")).to_have_count(3)
    expect(asked).to_contain_text("Shut-off valve")
    tools.get_by_role("button", name="Move to B").click()
    tools.get_by_role("button", name="Take out").click()
    expect(strip(page).locator("[data-part]")).to_have_count(2)
    page.get_by_role("button", name="Undo").click()
    expect(strip(page).locator("[data-part]")).to_have_count(3)
    strip(page).locator("[data-tube='s2']").click()
    tools.get_by_label("Split at, from its end A").fill("5 m")
    tools.get_by_role("button", name="Split at").click()
    expect(page.get_by_text("lies beyond the tube")).to_be_visible()
    tools.get_by_label("Split at, from its end A").fill("")
    tools.get_by_role("button", name="Split at").click()
    expect(strip(page).locator("[data-tube]")).to_have_count(3)
    expect(page.locator("aside [data-finding='joint_missing']")).to_be_visible()
    tools.get_by_role("button", name="Join with the next").click()
    expect(strip(page).locator("[data-tube]")).to_have_count(2)
    tools.get_by_role("button", name="Put in behind").click()
    page.get_by_role("menuitem", name="tube").click()
    expect(strip(page).locator("[data-tube]")).to_have_count(3)
    tools.get_by_role("textbox", name="Straight for").fill("125 mm")
    expect(strip(page).get_by_role("group", name="The tube unrolled, 125 mm from A to B")).to_be_visible()


def test_a_joint_and_a_port_are_chosen_with_the_keyboard(page: Page, copy_of):
    page.goto(f"/lines/{copy_of('Cooler return, spliced')}/choose")
    unrolled = strip(page).get_by_role("group")
    unrolled.focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowRight")
    asked = page.get_by_role("region", name="The chosen place")
    expect(asked.get_by_label("Joined by")).to_have_value("flared-union")
    expect(asked.get_by_label("Because")).to_have_value("sound on both sides, the cooler's end is seized")
    unrolled.focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowLeft")
    expect(asked.get_by_label("Goes to")).to_have_value("oil cooler")


def test_a_component_is_chosen_by_what_it_is_and_held_against_what_it_meets(page: Page, copy_of):
    """A 37° end in a pipe thread is a stop; the adapter that goes there comes by itself."""
    page.goto(f"/lines/{copy_of('Oil cooler, feed, braided')}/choose")
    unrolled = strip(page).get_by_role("group")
    unrolled.focus()
    page.keyboard.press("Shift+ArrowRight")
    asked = page.get_by_role("region", name="The chosen place")
    asked.get_by_label("Port thread").fill("1/2-14 NPT")
    asked.get_by_label("Port’s seat").select_option("npt-port")
    expect(page.locator("aside [data-finding='wrong_seat']")).to_be_visible()
    strip(page).locator("[data-hose], [data-part]").first.click()
    tools = page.get_by_role("toolbar", name="The chosen piece")
    tools.get_by_role("button", name="Put in behind").click()
    page.get_by_role("menuitem", name="adapter").click()
    expect(asked.get_by_label("Which one")).to_have_value("adapter-37-8-to-1-2-npt-steel")
    expect(asked).to_contain_text("37° cone 3/4-16")
    expect(page.locator("aside [data-finding='wrong_seat']")).to_have_count(0)
    asked.get_by_label("Which one").select_option("")
    expect(page.locator("aside [data-finding='rating_unknown_component']")).to_be_visible()
    asked.get_by_label("End B").select_option("plug")
    asked.get_by_label("Its thread").fill("as long as it is")
    expect(asked.get_by_text("as long as it is")).to_be_visible()
    asked.get_by_label("Rated for").fill("200 bar")
    expect(page.locator("aside [data-finding='rating_unknown_component']")).to_have_count(0)


def test_what_stays_closed_is_not_fitted(page: Page, copy_of):
    line = copy_of("Tank drop, with the old end saved")
    open_line(page, line, "choose")
    strip(page).locator("[data-tube='s2'] rect").first.click()
    expect(page.get_by_role("toolbar", name="The chosen piece")).to_contain_text("Old tube")
    page.get_by_label("This tube is").select_option("to make")
    expect(
        page.get_by_role("toolbar", name="The chosen piece").get_by_text("Tube", exact=True)
    ).to_be_visible()
    page.get_by_label("This tube is").select_option("stays")
    saved(page)
    page.goto(f"/lines/{line}/fit")
    steps = page.locator("main, body").first
    expect(steps).to_contain_text("Old tube 2, end A: cut it square")
    expect(steps).not_to_contain_text("port B, tank, moulded end")


def test_a_line_of_hose_alone_opens_at_every_stage(page: Page, copy_of):
    line = copy_of(HOSE)
    for stage in ("look", "remove", "measure", "choose", "plan", "make", "fit"):
        page.goto(f"/lines/{line}/{stage}")
        expect(strip(page).locator("[data-hose='h1']")).to_be_visible()
    page.goto(f"/lines/{line}/measure")
    expect(page.get_by_text("This line has no tube")).to_be_visible()
    page.goto(f"/lines/{line}/choose")
    # the only piece is chosen
    expect(page.get_by_role("region", name="The chosen place").get_by_label("Length")).to_have_value("640")


def test_a_gap_is_answered_without_any_drawing(page: Page):
    page.goto("/lookups/gap")
    page.get_by_label("It carries").select_option("cooler")
    page.get_by_label("Gap").fill("90")
    page.get_by_label("Tube, A side").fill("8")
    answer = page.get_by_role("region", name="Answer")
    expect(answer.locator("[data-way]")).to_have_count(4)
    answer.locator("[data-way='sleeve_unions'] button").click()
    # 90 less the stop of 2 mm in either union
    expect(answer.locator("[data-way='sleeve_unions']")).to_contain_text("86 mm")
    page.get_by_label("Free round it").fill("15")
    expect(answer.locator("[data-way='sleeve_unions']")).to_contain_text("15 mm are free")
    expect(answer.locator("[data-there='does not fit']").first).to_be_visible()
    page.get_by_label("Gap").fill("soon")
    expect(page.get_by_role("alert")).to_contain_text("Gap")


@pytest.mark.webgl
def test_the_whole_line_stands_on_the_stage_and_its_pieces_can_be_chosen_there(page: Page, copy_of):
    open_line(page, copy_of(RETURN), "plan")
    stage = page.get_by_role("region", name="The line")
    stage.get_by_role("button", name="Choose the cooler").click()
    expect(page.get_by_role("toolbar", name="The chosen piece")).to_contain_text("Cooler")
    expect(stage).to_contain_text("steering tank")
    expect(stage).to_contain_text("a hose is drawn straight on")


def test_without_webgl_the_core_draws_the_whole_line(page: Page, copy_of):
    open_line(page, copy_of(RETURN), "plan")
    drawing = page.locator("[data-webgl='false'] svg")
    expect(drawing.locator("g[data-span]")).to_have_count(2)
    drawing.locator("g[data-span='c1']").click()
    expect(page.get_by_role("toolbar", name="The chosen piece")).to_contain_text("Cooler")
    expect(drawing.locator("g[data-span='c2']")).to_have_attribute("opacity", "0.45")


def test_a_draft_of_an_earlier_bendrel_becomes_one_of_today(page: Page, own_line, api):
    document = json.loads(V1.read_text(encoding="utf-8")) | {"name": "Typed before the upgrade"}
    version = api.get(f"/api/lines/{own_line}").json()["version"]
    page.goto("/")
    keep = "([key, draft]) => localStorage.setItem(key, draft)"
    draft = json.dumps({"version": version, "document": document, "base": None})
    page.evaluate(keep, [f"bendrel.draft.{own_line}", draft])
    open_line(page, own_line, "measure")
    expect(page.get_by_role("banner")).to_contain_text("Typed before the upgrade")
    saved(page)
    assert api.get(f"/api/lines/{own_line}").json()["document"]["name"] == "Typed before the upgrade"


def test_a_draft_that_cannot_be_read_is_put_aside_and_the_line_opens(page: Page, own_line):
    page.goto("/")
    keep = "([key, draft]) => localStorage.setItem(key, draft)"
    page.evaluate(
        keep, [f"bendrel.draft.{own_line}", '{"version": 1, "document": {"version": 1, "end_a": 3}}']
    )
    open_line(page, own_line, "measure")
    expect(strip(page).get_by_role("group")).to_be_visible()
    aside = "key => localStorage.getItem(key)"
    assert "end_a" in page.evaluate(aside, f"bendrel.draft.{own_line}.unreadable")


def test_a_filter_is_let_in_as_one_step_and_undone(page: Page, copy_of, api):
    line = copy_of("Pump gearbox to cooler")
    open_line(page, line, "choose")
    strip(page).locator("[data-state]").first.click()
    tools = page.get_by_role("toolbar", name="The chosen piece")
    tools.get_by_role("button", name="Let in a cooler, filter").click()
    step = page.get_by_role("region", name="Let in a component")
    step.get_by_label("Its length").fill("90 mm")
    expect(step).to_contain_text("It flows from A to B")
    expect(strip(page).get_by_role("slider")).to_have_count(2)
    step.get_by_label("Middle at").fill("20 in")
    expect(step).to_contain_text("Bend 2 lies in the cut-out")
    step.get_by_label("Middle at").fill("")
    step.get_by_label("Hangs on").fill("rubber-lined clip")
    step.get_by_role("button", name="Let it in").click()
    expect(strip(page).locator("[data-part]")).to_have_count(1)
    expect(page.get_by_role("region", name="The chosen place").get_by_label("Hangs on")).to_have_value(
        "rubber-lined clip"
    )
    saved(page)
    kinds = [span["kind"] for span in api.get(f"/api/lines/{line}").json()["document"]["spans"]]
    assert kinds == ["rigid", "hose", "component", "hose", "rigid", "hose"]
    page.get_by_role("button", name="Undo").click()
    expect(strip(page).locator("[data-part]")).to_have_count(0)


def begin(page: Page, name: str, what: str, service: str, **first: str):
    """A new line in a job of its own, by what it is and the first that is known of it."""
    page.goto("/")
    page.get_by_role("button", name="New job").click()
    page.get_by_label("Name of the job or machine").fill(name)
    page.keyboard.press("Enter")
    page.get_by_role("button", name="New line").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name of the line").fill(name)
    dialog.get_by_label("It is").select_option(label=what)
    dialog.get_by_label("Service").select_option(label=service)
    for label, text in first.items():
        dialog.get_by_label(label.replace("_", " ")).fill(text)
    page.keyboard.press("Enter")


def test_a_line_of_hose_is_there_and_judged_after_four_facts(page: Page):
    """Name, what it is, service, what it goes on: it is drawn, chosen, and its panel asks the rest."""
    begin(page, "Heater return", "a hose", "coolant", Goes_on="16 mm")
    panel = page.get_by_role("region", name="The chosen place")
    expect(panel.get_by_role("heading", name="Hose")).to_be_visible()
    expect(panel.get_by_label("Near spigot")).to_have_value("16 mm")
    expect(panel.get_by_label("Bore").locator("option:checked")).to_contain_text("16")
    expect(strip(page).locator("[data-hose='h1']")).to_be_visible()
    page.get_by_label("Length", exact=True).fill("a yard")
    expect(panel.get_by_role("alert")).to_contain_text("“a yard” is not a length")
    page.get_by_label("Length", exact=True).fill("620 mm")
    expect(page.get_by_role("region", name="Findings")).not_to_contain_text("Stop")
    saved(page)


def test_an_old_tube_is_mended_by_its_length_alone(page: Page):
    begin(
        page, "Cooler line", "an old tube with a bad place", "transmission cooler", Its_whole_length="1400 mm"
    )
    look = page.get_by_role("region", name="What this stage asks")
    look.get_by_role("button", name="Add damage").click()
    look.get_by_label("Damage 1 from").fill("700 mm")
    ways = page.get_by_role("region", name="How to mend it")
    expect(strip(page)).not_to_contain_text("trim last")
    ways.locator("[data-way='hose'] button").click()
    ways.get_by_label("Why this way").fill("low pressure, and room for it")
    ways.get_by_role("button", name="Mend it").click()
    expect(strip(page).locator("[data-state='stays']")).to_have_count(2)
    expect(strip(page).locator("[data-hose]")).to_have_count(1)
    expect(ways).to_contain_text("cut out")
    saved(page)


def test_something_is_let_in_where_a_line_begins_so(page: Page):
    begin(
        page, "Oil return", "an old tube, something let in", "transmission cooler", Its_whole_length="1400 mm"
    )
    expect(page.get_by_role("button", name="Let in a cooler, filter…")).to_have_attribute(
        "aria-expanded", "true"
    )
    expect(page.get_by_label("Let in", exact=True)).to_be_visible()


def test_pieces_that_were_copied_are_put_into_another_line(page: Page, copy_of):
    open_line(page, copy_of(RETURN), "choose")
    strip(page).locator("[data-part='c1']").click()
    tools = page.get_by_role("toolbar", name="The chosen piece")
    tools.get_by_role("button", name="Copy", exact=True).click()
    expect(page.get_by_text("Copied: put it in before or behind any piece")).to_be_visible()
    page.goto(f"/lines/{copy_of('Cooler return, spliced')}/choose")
    expect(strip(page).locator("[data-part]")).to_have_count(0)
    strip(page).locator("[data-tube]").first.click()
    tools.get_by_role("button", name="Put in behind").click()
    page.get_by_role("menuitem", name="as copied: ").click()
    expect(strip(page).locator("[data-part]")).to_have_count(1)
    expect(page.get_by_role("region", name="The chosen place").get_by_label("Rated for")).to_have_value(
        "10 bar"
    )
