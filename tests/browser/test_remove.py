"""Taking a line off, putting it back, and what is left for later, through the screens."""

import io

import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.test_line import open_line, saved

pytestmark = pytest.mark.browser


def field(page: Page, label: str):
    return page.get_by_role("textbox", name=label, exact=True)


@pytest.mark.long("three stages")
def test_the_log_turns_round_and_feeds_the_parts(page: Page, own_line):
    open_line(page, own_line, "remove")
    expect(page.get_by_text("Prop the pedal")).to_be_visible()
    count = page.locator("[data-item]").count()
    page.get_by_role("button", name="Next thing off", exact=True).click()
    n = count + 1
    expect(field(page, f"What came off, {n}")).to_be_focused()
    page.keyboard.type("banjo")
    page.get_by_label(f"Kind of thing {n}").select_option("washer")
    expect(page.get_by_label(f"What becomes of {n}")).to_have_value("replace")
    field(page, f"How many of {n}").fill("2")
    expect(page.get_by_role("region", name="Parts to get")).to_contain_text("washer banjo")
    field(page, "In the system").fill("a bucket")
    expect(page.get_by_text("“a bucket” is not a volume")).to_be_visible()
    field(page, "In the system").fill("2 L")
    expect(page.get_by_text("2.6 L")).to_be_visible()
    saved(page)
    page.keyboard.press("Alt+7")
    page.get_by_role("checkbox", name="2 × new washer banjo").check()
    expect(page.get_by_role("status", name="Left over")).not_to_contain_text("washer banjo")


@pytest.mark.long("three places, each saved")
def test_what_is_left_for_later_stays_in_the_way_until_it_is_closed(page: Page, own_line):
    open_line(page, own_line, "fit")
    panel = page.get_by_role("region", name="What this stage asks")
    expect(panel.locator("[data-step]").first).to_be_visible()
    expect(page.get_by_role("status", name="Left over")).to_be_visible()
    for box in panel.get_by_role("checkbox").all():
        box.check()
    expect(page.get_by_text("Nothing left over.")).to_be_visible()
    page.get_by_role("button", name="Leave something for later").click()
    field(page, "Open item 2").fill("tray on again")
    field(page, "Who closes 2").fill("Ada")
    page.get_by_label("By when, 2").fill("2026-12-03")
    saved(page)
    page.goto("/")
    expect(page.get_by_role("link", name="temporary tie: tray on again")).to_be_visible()
    page.get_by_role("link", name="temporary tie: tray on again").click()
    expect(panel.locator("[data-step]").first).to_be_visible()
    page.keyboard.press("Alt+8")
    sign_off = page.get_by_role("region", name="Sign-off")
    expect(sign_off).to_contain_text("Left for later: tray on again")
    page.keyboard.press("Alt+7")
    for _ in range(2):
        page.get_by_role("button", name="Close it").first.click()
    page.keyboard.press("Alt+8")
    expect(sign_off).to_contain_text("in the way")
    expect(sign_off).not_to_contain_text("Left for later")


@pytest.mark.long("a photograph is read apart")
def test_a_photograph_of_the_damage(page: Page, own_line):
    open_line(page, own_line, "look")
    out = io.BytesIO()
    Image.new("RGB", (200, 120), (150, 70, 30)).save(out, "PNG")
    file = page.get_by_label("Photograph of damage 1", exact=True)
    file.set_input_files({"name": "x.png", "mimeType": "image/png", "buffer": b"nothing"})
    expect(page.get_by_text("That is no photograph that can be read")).to_be_visible()
    file.set_input_files({"name": "x.png", "mimeType": "image/png", "buffer": out.getvalue()})
    thumb = page.get_by_role("button", name="Photograph of damage 1", exact=True)
    expect(thumb).to_be_visible()
    saved(page)
    page.reload()
    thumb.click()
    page.get_by_role("button", name="Take it off").click()
    expect(thumb).to_have_count(0)


def test_which_port_is_which(page: Page, own_line):
    open_line(page, own_line, "look")
    page.get_by_label("Port B is").select_option("return")
    field(page, "How port B was established").fill("colder of the two, running")
    saved(page)
    page.reload()
    expect(page.get_by_label("Port B is")).to_have_value("return")


def test_an_end_that_will_not_come_is_noted_and_counts_when_it_is_mended(page: Page, own_line):
    open_line(page, own_line, "remove")
    expect(page.get_by_label("Brush, wipe and blow every joint")).to_be_visible()
    end = page.get_by_role("group", name="End B, apart")
    end.get_by_text("It will not come").click()
    end.get_by_label("Penetrating oil from both sides").check()
    field(page, "How long").last.fill("soaked overnight")
    end.get_by_label("It", exact=True).select_option("left shut, mended behind it")
    expect(page.get_by_text("Prove that it is shut")).to_have_count(0)
    page.get_by_label("a hose is clamped shut instead").check()
    expect(page.get_by_text("Prove that it is shut")).to_be_visible()
    saved(page)
    page.keyboard.press("Alt+1")
    expect(page.get_by_text("End B counts as “seized”: so it ended in Remove.")).to_be_visible()
    page.keyboard.press("Alt+2")
    expect(end.get_by_label("Penetrating oil from both sides")).to_be_checked()
