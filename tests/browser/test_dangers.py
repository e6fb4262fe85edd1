"""What can hurt someone, on the screen: what comes back when, what a proof must be, what is asked why."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_closing import open_prove, panel
from tests.browser.test_line import saved

pytestmark = pytest.mark.browser

FUEL, VACUUM = "Fuel feed, tank to filter", "Vacuum, pump to tee"


def test_the_fuel_valve_comes_back_behind_the_last_joint(page: Page, copy_of) -> None:
    """Shut at the strip-down: lent for the proof of flow, shut again, open after the look along the line."""
    line = copy_of(FUEL)
    page.goto(f"/lines/{line}/remove")
    panel(page).get_by_role("checkbox", name="Shut the fuel valve").check()
    saved(page)
    page.goto(f"/lines/{line}/fit")
    steps = panel(page).locator("[data-step]")
    expect(steps.filter(has_text="For this step alone: fuel valve open")).to_contain_text("fuel valve shut")
    shown = steps.evaluate_all("rows => rows.map(row => row.dataset.step)")
    tight = [name for name in shown if name.startswith("tight-")]
    assert len(tight) == 2
    assert shown.index("off-fuel-valve") > shown.index("closed") > max(map(shown.index, tight))


def test_a_hold_test_that_is_less_than_was_asked_is_taken_on_with_a_reason(page: Page, copy_of) -> None:
    """A tenth of a bar where 0.6 is asked: it holds, is no proof, and is told so until there is a reason."""
    open_prove(page, copy_of(VACUUM))
    prove = panel(page)
    # the run that is there is drawn first: it moves the button
    expect(prove.get_by_role("status", name="The gauge")).to_be_visible()
    prove.get_by_role("button", name="Read it by eye").click()
    card = prove.locator("[data-hold]").last
    for k in range(1, 6):
        card.get_by_label(f"Pressure, reading {k}", exact=True).fill("0.1")
    short = card.get_by_role("group", name="Not what is asked for")
    expect(short).to_contain_text("0.60 bar is asked for")
    way = prove.get_by_text("The hold test is not the one that is asked for")
    expect(way).to_be_visible()
    short.get_by_label("Why it is taken on all the same").fill("the pump is away for repair")
    expect(way).to_have_count(0)
    expect(short).to_contain_text("taken on")
    saved(page)


def test_the_order_of_bleeding_goes_by_layout_and_what_is_not_there_is_said(page: Page, own_line) -> None:
    """Diagonal circuits: the front wheel across comes second; a machine without a servo says so."""
    open_prove(page, own_line)
    prove = panel(page)
    prove.get_by_text("Order of the wheels").click()
    prove.get_by_label("In which order").select_option("diagonal split")
    expect(prove.get_by_label("Place 2")).to_have_value("front, the wheel across from it")
    prove.get_by_label("In which order").select_option("the manual's order")
    expect(prove).to_contain_text("The maker's order comes before any other")
    servo = prove.locator("[data-check=servo]")
    servo.get_by_text("not fitted").click()
    saved(page)
    page.reload()
    expect(servo.get_by_role("radio", name="not fitted")).to_be_checked()
    expect(prove.get_by_label("Place 2")).to_have_value("front, the wheel across from it")


def test_heat_typed_far_under_the_usual_asks_why(page: Page, copy_of) -> None:
    """The field for the reason is there while it is asked, and the finding goes with the reason."""
    page.goto(f"/lines/{copy_of(FUEL)}/choose")
    choose = panel(page)
    choose.get_by_text("What it carries").click()
    choose.get_by_label("Hottest").fill("20 °C")
    findings = page.get_by_role("region", name="Findings")
    expect(findings).to_contain_text("Only 20 °C at the hottest")
    choose.get_by_label("Why that heat").fill("a launch that lies in cold water")
    expect(findings).not_to_contain_text("at the hottest")


def test_a_gap_says_what_it_assumes_and_takes_the_material(page: Page) -> None:
    """12 mm on hydraulics: steel sleeve unions for seamless steel; in copper-nickel all is refused."""
    page.goto("/lookups/gap")
    page.get_by_label("It carries").select_option("hydraulic")
    page.get_by_label("Gap", exact=True).fill("150")
    page.get_by_label("Tube, A side").fill("12")
    ways = page.get_by_role("list").filter(has_text="two 24° steel sleeve unions")
    expect(ways).to_contain_text("This is told for seamless steel")
    page.get_by_label("Tube is of").select_option("copper-nickel")
    expect(ways).to_contain_text("The tube itself is allowed")
    expect(ways).not_to_contain_text("say what the tube is of")
