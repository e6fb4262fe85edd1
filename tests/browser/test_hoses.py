"""Hoses and circuits: how a hose lies, how it is made, the lines of a job where they are joined."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import saved
from tests.browser.test_shop import SIZES, by_night_and_day

pytestmark = pytest.mark.browser

AXLE, FEED = "Chassis to second axle, hose", "Oil cooler, feed, braided"


def asked(page: Page):
    return page.get_by_role("region", name="The chosen place")


def open_hose(page: Page, line, hose="h1"):
    page.goto(f"/lines/{line}/choose?piece={hose}")
    expect(asked(page)).to_be_visible()


@pytest.mark.long("a hose is studied at every position")
def test_a_moving_hose_is_looked_at_and_mended(page: Page, copy_of):
    open_hose(page, copy_of(AXLE))
    findings = page.get_by_role("region", name="Findings")
    expect(findings).to_contain_text("The hose is bent too tightly")
    expect(asked(page)).to_contain_text("Right lengths:")
    travel = asked(page).get_by_label("Travel")
    travel.press("Home")
    expect(travel).to_have_attribute("aria-valuetext", "the axle −90 mm, axle roll −6°")
    findings.get_by_role("button", name="Make it 550 mm long").click()
    expect(findings).not_to_contain_text("bent too tightly")
    length = asked(page).get_by_label("Length", exact=True)
    expect(length).to_have_value("550 mm")
    asked(page).get_by_label("Length of the hose").press("ArrowRight")
    expect(length).to_have_value("551")
    asked(page).get_by_label("Swivel").select_option("B")
    expect(findings).not_to_contain_text("twists the hose")
    expect(asked(page).get_by_role("list", name="Where it is held")).to_contain_text(
        "Free between its two ends"
    )
    saved(page)
    page.reload()
    expect(length).to_have_value("551")


@pytest.mark.long("a hose is studied at every word")
def test_what_is_typed_wrong_is_said_where_it_stands_and_nothing_is_lost(page: Page, copy_of):
    open_hose(page, copy_of(AXLE))
    arrives = asked(page).get_by_label("B, it arrives")
    arrives.fill("sideways")
    expect(asked(page).get_by_role("alert")).to_contain_text("“sideways” is not a way; write ahead, back")
    expect(arrives).to_have_attribute("aria-invalid", "true")
    arrives.fill("left")
    expect(asked(page).get_by_role("alert")).to_have_count(0)
    asked(page).get_by_label("End B is at, x").fill("0")
    asked(page).get_by_label("End B is at, y").fill("0")
    asked(page).get_by_label("End B is at, z").fill("0")
    expect(asked(page).get_by_role("alert")).to_contain_text("Both ends of the hose are at the same point")
    asked(page).get_by_label("End B is at, z").fill("-250")
    expect(asked(page)).to_contain_text("Right lengths:")


def test_two_elbows_are_clocked_and_the_hose_is_made_at_the_bench(page: Page, copy_of, api):
    line = copy_of(FEED)
    open_hose(page, line)
    made = page.get_by_role("region", name="How it is made")
    expect(made).to_contain_text("416.7 mm")
    expect(made.get_by_role("img", name="Far elbow 90° clockwise")).to_be_visible()
    expect(made).to_contain_text("points to 3:00 (90° clockwise)")
    made.get_by_role("link", name="Step by step at the bench").click()
    expect(page.get_by_role("heading", name="Wrap the hose")).to_be_visible()
    page.keyboard.press("Enter")
    cut = page.get_by_role("heading", name="Cut it square through the tape: 416.7 mm")
    expect(cut).to_be_visible()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_text("1 of 10, done")).to_be_visible()
    page.keyboard.press("Escape")
    expect(made.get_by_role("checkbox", name="Wrap the hose")).to_be_checked()
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Make").click()
    hoses = page.get_by_role("region", name="Hoses")
    expect(hoses).to_contain_text("505 mm")
    hoses.get_by_role("link", name="at the bench").click()
    expect(cut).to_be_visible()
    sheet = api.get(f"/api/lines/{line}/sheet.pdf?span=h1")
    assert sheet.body()[:5] == b"%PDF-"


def test_a_branch_is_joined_and_the_plan_leads_into_its_line(page: Page, api, copy_of):
    main = copy_of("Vacuum, pump to tee")
    job = api.get(f"/api/lines/{main}").json()["job_id"]
    branch = copy_of("Vacuum, tee to primer")
    page.goto(f"/jobs/{job}/circuits")
    circuits = page.get_by_role("region", name="Circuits")
    expect(circuits).to_contain_text("is joined to a line that is not in this job")
    expect(circuits).to_contain_text("A port of the tee is open")
    page.goto(f"/lines/{branch}/choose?port=A")
    asked(page).get_by_label("Stands on").select_option(label="tee of Vacuum, pump to tee")
    saved(page)
    page.goto(f"/jobs/{job}/circuits")
    expect(circuits).to_contain_text("With the source off all together move 7 times.")
    expect(circuits.get_by_role("row", name="primer valve")).to_contain_text("primer open")
    circuits.get_by_text("When one of them breaks").click()
    expect(circuits.get_by_role("row", name="reservoir of Vacuum, pump to tee")).to_contain_text("drain flap")
    way = circuits.get_by_role("link", name="switch of Vacuum, tee to primer")
    way.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Switch")).to_be_visible()


def test_a_liquid_circuit_tells_what_each_element_costs(page: Page, api):
    job = next(one["id"] for one in api.get("/api/jobs").json() if one["name"] == "Harbour launch")
    page.goto(f"/jobs/{job}/circuits")
    circuits = page.get_by_role("region", name="Circuits")
    expect(circuits).to_contain_text("The cooler costs 12% of the flow")
    circuits.get_by_text("Pressure, element by element").click()
    hot = circuits.get_by_role("row", name="Oil cooler, return, braided cooler").inner_text()
    circuits.get_by_role("radio", name="Cold").click()
    expect(circuits.get_by_role("row", name="Oil cooler, return, braided cooler")).not_to_have_text(hot)


@pytest.mark.parametrize("view", ["hose", "bench", "circuits"])
@pytest.mark.long("axe reads twice")
def test_hoses_and_circuits_read_by_day_and_night_at_any_size(page: Page, line_ids, api, view):
    job = next(one["id"] for one in api.get("/api/jobs").json() if one["name"] == "Fire tender")
    line = line_ids[AXLE]
    page.goto(
        {
            "hose": f"/lines/{line}/choose?piece=h1",
            "bench": f"/lines/{line}/hose/h1",
            "circuits": f"/jobs/{job}/circuits",
        }[view]
    )
    shown = {"hose": "Right lengths:", "bench": "Choose it by overall length", "circuits": "drain flap"}[view]
    expect(page.get_by_text(shown).first).to_be_visible()
    assert by_night_and_day(page) == []
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        assert page.evaluate("document.documentElement.scrollWidth - window.innerWidth") <= 0, (width, height)


def test_a_hose_alone_still_opens_with_the_strip(page: Page, copy_of):
    page.goto(f"/lines/{copy_of('Header tank to engine')}/choose")
    expect(page.locator("[data-hose='h1']")).to_have_attribute("data-chosen", "true")
    expect(asked(page)).to_contain_text("Say by tape where both ends are")
    expect(page.get_by_role("region", name="How it is made")).to_contain_text("Clamps on the hose first")
    expect(asked(page).get_by_role("img", name="The hose on its end, to scale").first).to_be_visible()


def test_the_strip_shows_a_hose_with_its_ends_cuts_clock_and_tightest_place(page: Page, line_ids):
    page.goto(f"/lines/{line_ids['Oil cooler, feed, braided']}/choose")
    hose = page.locator("[data-hose='h1']")
    expect(hose.locator("[data-hose-end='90']")).to_have_count(1)
    expect(hose.locator("[data-hose-end='45']")).to_have_count(1)
    expect(hose.locator("[data-hose-cut]")).to_have_count(2)
    expect(hose.locator("[data-hose-body]")).to_have_attribute("fill", "url(#weave)")
    expect(hose.locator("[data-tightest] title")).to_contain_text("Tightest here: radius")
    body, cut = (
        hose.locator("[data-hose-body]").bounding_box(),
        page.locator("[data-name='h1']").text_content(),
    )
    assert re.fullmatch(r"hose -8, cut [\d.]+", cut)
    # what is cut of the whole stands to scale between the two cuts: 416.7 of 505 mm on the ruler below
    whole = hose.locator("> rect").first.bounding_box()
    assert body["width"] / (whole["width"] - 8) == pytest.approx(float(cut.split()[-1]) / 505, abs=0.02)
    page.goto(f"/lines/{line_ids['Steering return, through cooler and filter']}/choose")
    expect(page.locator("[data-hose='h1'] [data-clamp]")).to_have_count(4)
    expect(page.locator("[data-name]")).to_have_count(6)


def test_a_hose_is_known_by_a_wire_laid_in(page: Page, copy_of):
    """Nothing by tape: the wire's length is taken with one press, its tightest place judges the hose."""
    open_hose(page, copy_of("Steering return, through cooler and filter"))
    panel, findings = asked(page), page.get_by_role("region", name="Findings")
    panel.get_by_text("by a wire", exact=True).click()
    panel.get_by_label("Tightest radius").fill("20")
    panel.get_by_label("That is at").fill("61")
    expect(findings).to_contain_text("The wire lay too tightly for this hose")
    panel.get_by_label("That is at").fill("400")
    panel.get_by_label("Over all").fill("205")
    expect(panel.get_by_role("alert")).to_contain_text("This lies beyond end B: the wire is 205 long.")
    expect(panel.get_by_label("Over all")).to_have_value("205")
    panel.get_by_label("That is at").fill("61")
    findings.get_by_role("button", name="Make it 205 mm long").click()
    expect(panel.get_by_role("region", name="What it comes to")).to_contain_text("cut the hose at205 mm")
    panel.get_by_text("old hose", exact=True).click()
    expect(panel.get_by_label("Over all")).to_have_value("")
    panel.get_by_text("cut in place", exact=True).click()
    expect(panel).to_contain_text("Type the length that was cut")
    saved(page)


def test_a_bought_hose_is_held_against_what_is_wanted(page: Page, copy_of):
    page.goto(f"/lines/{copy_of('Chassis to second axle, hose')}/choose?piece=h1")
    page.locator("summary", has_text="Check a bought hose").click()
    field = page.get_by_label("The bought one measures")
    field.fill("much")
    expect(page.get_by_role("alert").filter(has_text="“much” is not a length")).to_be_visible()
    field.fill("300 mm")
    short = page.locator("aside [data-finding='bought_hose']")
    expect(short).to_contain_text("The bought hose is too short")
    field.fill("430 mm")
    expect(short).to_have_count(0)
    field.fill("")
    saved(page)
    page.reload()
    expect(page.locator("details", has_text="Check a bought hose")).not_to_have_attribute("open", "")
