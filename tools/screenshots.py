"""Take the pictures in docs/screenshots from the demo data: one of each main view."""

from __future__ import annotations

import re
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from pypdfium2 import PdfDocument

ROOT = Path(__file__).parents[1]
FOLDER = ROOT / "docs" / "screenshots"
sys.path.insert(0, str(ROOT))

from tests.browser.conftest import CHROMIUM_FLAGS, free_port  # noqa: E402

SOUND, MOVING = "Rear axle, left", "Chassis to second axle, hose"
RETURN = "Steering return, through cooler and filter"
PROVED = "Vacuum, pump to tee"
HALF_MADE = "Rear axle, right"


def open_line(page: Page, name: str, stage: str) -> None:
    page.goto("/")
    page.get_by_role("link", name=name).click()
    page.wait_for_selector("canvas")
    page.goto(f"{page.url.rstrip('/')}/{stage}")
    page.wait_for_selector("canvas")
    page.wait_for_selector("svg [data-bend]")
    page.wait_for_load_state("networkidle")


def shoot(page: Page, name: str) -> None:
    page.evaluate("() => new Promise(done => requestAnimationFrame(() => setTimeout(done, 250)))")
    page.screenshot(path=FOLDER / f"{name}.png")


def take(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="Fire tender").wait_for()
    shoot(page, "board")
    page.get_by_role("link", name="Fire tender").click()
    page.get_by_role("button", name="New line").wait_for()
    shoot(page, "job")
    open_line(page, SOUND, "look")
    shoot(page, "look")
    open_line(page, SOUND, "remove")
    scroll(page, 560)
    shoot(page, "remove")
    open_line(page, SOUND, "fit")
    shoot(page, "fit")
    open_line(page, SOUND, "measure")
    page.get_by_role("textbox", name="Angle of bend 4", exact=True).focus()
    shoot(page, "measure")
    hoses(page)
    open_line(page, RETURN, "choose")
    shoot(page, "choose")
    look_up(page)
    page.goto("/tools?bender=lever_8mm")
    page.get_by_role("button", name="Reckon with it").wait_for()
    shoot(page, "tools")
    open_line(page, SOUND, "plan")
    page.locator("[data-move='4'] button").nth(1).click()
    shoot(page, "plan")
    open_line(page, SOUND, "make")
    shoot(page, "make")
    proved(page)
    page.goto("/stock")
    page.locator("[data-stock]").first.wait_for()
    shoot(page, "stock")
    mended(page)


def look_up(page: Page) -> None:
    page.goto("/lookups/uses")
    page.get_by_role("button", name="copper, brake: refused").click()
    shoot(page, "matrix")
    page.goto("/catalogue/tubes")
    page.get_by_label("Search").fill("copper-nickel 3/16")
    page.locator("tr[data-row]").first.wait_for()
    shoot(page, "catalogue")


def hoses(page: Page) -> None:
    """A hose that moves, and the plan of a circuit on its job's page."""
    page.goto("/")
    page.get_by_role("link", name=MOVING).click()
    page.wait_for_selector("canvas")
    page.goto(f"{page.url.rstrip('/')}/choose?piece=h1")
    page.get_by_text("Right lengths:").wait_for()
    page.wait_for_selector("canvas")
    shoot(page, "hose")
    page.goto("/")
    page.get_by_role("link", name="Fire tender").click()
    page.get_by_role("link", name="Circuits").click()
    circuits = page.get_by_role("region", name="Circuits")
    circuits.get_by_text("When one of them breaks").click()
    circuits.evaluate("region => region.scrollIntoView()")
    shoot(page, "circuit")


def proved(page: Page) -> None:
    """A line half-way through its proof, with the run of the gauge."""
    page.goto("/")
    page.get_by_role("link", name=PROVED).click()
    page.wait_for_selector("canvas")
    page.goto(f"{page.url.rstrip('/')}/prove")
    page.get_by_role("status", name="What it says").wait_for()
    scroll(page, 190)
    shoot(page, "prove")


def scroll(page: Page, by: int) -> None:
    page.get_by_role("region", name="What this stage asks").evaluate(f"panel => panel.scrollTop = {by}")


def mended(page: Page) -> None:
    """The ways to mend a damage, with the cuts of one of them on the strip."""
    open_line(page, SOUND, "look")
    page.locator("[data-way='flared_unions'] button").click()
    page.get_by_role("region", name="How to mend it").evaluate("ways => ways.scrollIntoView()")
    page.get_by_role("slider", name="Cut on the side of A").wait_for()
    shoot(page, "mend")


def main() -> None:
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, sync_playwright() as playwright:
        command = [Path(sys.executable).with_name("bendrel"), "demo", "--data", data]
        server = subprocess.Popen([*command, "--port", str(free_port())], stdout=subprocess.PIPE, text=True)
        try:
            assert server.stdout is not None
            found = re.search(r"http://[^/]+", server.stdout.readline())
            assert found is not None
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM_FLAGS)
            sheet(browser.new_context(base_url=found[0]).new_page())
            for mode, work in (("day", take), ("night", take_night)):
                context = browser.new_context(viewport={"width": 1280, "height": 800}, base_url=found[0])
                context.add_init_script(f"localStorage.setItem('bendrel.mode', '{mode}')")
                work(context.new_page())
            browser.close()
        finally:
            server.terminate()
            server.wait()


def take_night(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name=HALF_MADE).click()
    page.wait_for_selector("svg [data-bend]")
    page.goto(f"{page.url.split('/lines/')[0]}/lines/{page.url.split('/lines/')[1].split('/')[0]}/bench")
    page.locator("[data-meets]").wait_for()
    shoot(page, "bench-night")


def sheet(page: Page) -> None:
    """The first page of the printed sheet as a picture."""
    page.goto("/")
    page.get_by_role("link", name=SOUND).click()
    page.wait_for_selector("svg [data-bend]")
    line = page.url.rstrip("/").split("/lines/")[1].split("/")[0]
    data = page.request.get(f"/api/lines/{line}/sheet.pdf").body()
    PdfDocument(data)[0].render(scale=90 / 72).to_pil().save(FOLDER / "sheet.png")


if __name__ == "__main__":
    main()
