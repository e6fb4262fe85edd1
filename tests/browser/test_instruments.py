"""Gauges: readings drop into the field in hand; lost, mended and raving ones are told."""

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import open_line, reading

pytestmark = pytest.mark.browser


@pytest.fixture
def bench(page: Page, own_line, api):
    """A line with its gauges on, and a second window to work them from."""
    page.add_init_script("localStorage.setItem('bendrel.instruments', 'on')")
    open_line(page, own_line)
    other = page.context.new_page()
    other.goto("/standins")
    yield other
    for kind in ("caliper", "gauge", "probe"):
        api.post(f"/api/instruments/{kind}/simulated", data={"act": "off"})


def work(other: Page, gauge: str, button: str, **figures: str):
    box = other.get_by_role("region", name=gauge)
    for label, text in figures.items():
        box.get_by_label(label).fill(text)
    box.get_by_role("button", name=button, exact=True).click()


def test_a_reading_drops_into_the_field_in_hand(page: Page, bench):
    work(bench, "caliper", "Switch on")
    expect(page.get_by_role("button", name="Gauges 1 on")).to_be_visible()
    reading(page, "Leg to bend 2").focus()
    work(bench, "caliper", "Send", **{"reads, mm": "173.5"})
    expect(reading(page, "Leg to bend 2")).to_have_value("173.5 mm")
    work(bench, "caliper", "Send nonsense")
    expect(page.get_by_text("The last good reading stays: 173.5 mm.")).to_be_visible()
    expect(reading(page, "Leg to bend 2")).to_have_value("173.5 mm")
    reading(page, "Angle of bend 2").focus()
    work(bench, "caliper", "Send")
    expect(page.get_by_text("The cursor is in an angle")).to_be_visible()
    work(bench, "angle gauge", "Switch on")
    work(bench, "angle gauge", "Send", reads="43.5")
    expect(reading(page, "Angle of bend 2")).to_have_value("43.5")


def test_a_lost_gauge_is_told_and_comes_back(page: Page, bench):
    work(bench, "caliper", "Switch on")
    reading(page, "Leg to bend 1").focus()
    work(bench, "caliper", "Cut the connection")
    expect(page.get_by_text("The connection to the caliper is lost")).to_be_visible()
    expect(page.get_by_role("button", name="Gauges lost")).to_be_visible()
    work(bench, "caliper", "Send", **{"reads, mm": "50"})
    expect(reading(page, "Leg to bend 1")).to_have_value("2 5/8")
    work(bench, "caliper", "Mend it")
    work(bench, "caliper", "Send")
    expect(reading(page, "Leg to bend 1")).to_have_value("50 mm")


def test_the_probe_fills_a_corner_point(page: Page, bench):
    page.get_by_role("radio", name="corner points").click()
    work(bench, "point probe", "Switch on")
    reading(page, "y of corner 2").focus()
    work(bench, "point probe", "Send", **{"x, mm": "210", "y, mm": "-15.5", "z, mm": "40"})
    for axis, text in (("x", "210 mm"), ("y", "-15.5 mm"), ("z", "40 mm")):
        expect(reading(page, f"{axis} of corner 2")).to_have_value(text)
