"""One whole job by Tab, Enter and typing, one by taps; every file, redo, and what the old line showed."""

import io
import json
import re
from contextlib import suppress

import ezdxf
import pytest
import trimesh
from playwright.sync_api import Page, TimeoutError, expect

from tests.browser.test_line import cut, open_line, reading, saved, strip_bend
from tests.browser.test_remove import field

pytestmark = pytest.mark.browser

NAMED = """() => {
  const at = document.activeElement;
  const label = at.getAttribute("aria-label") || at.labels?.[0]?.innerText || at.innerText || "";
  return [at.getAttribute("role") || at.tagName.toLowerCase(), label.trim()];
}"""


class Keys:
    """A person with a keyboard who looks at where the focus is; nothing is focused by a script."""

    def __init__(self, page: Page):
        self.page = page

    def to(self, name: str, *, back: bool = False, most: int = 120):
        """Tab until something of that name (or beginning so) has the focus."""
        seen = []
        for _ in range(most):
            self.page.keyboard.press("Shift+Tab" if back else "Tab")
            _, label = self.page.evaluate(NAMED)
            if label == name or label.startswith(f"{name}\n"):
                return
            seen.append(label[:30])
        raise AssertionError(f"Tab does not come to {name}: {seen}")

    def enter(self):
        self.page.keyboard.press("Enter")

    def write(self, text: str):
        self.page.keyboard.type(text)


@pytest.mark.long("a whole job by keys")
def test_a_whole_job_by_tab_and_enter_alone(page: Page, api):
    """From the board to a finished part: job, line, readings, tube, plan, bench, the end. Tab, Enter, letters
    and digits."""
    page.goto("/")
    expect(page.get_by_role("heading", name="Fire tender")).to_be_visible()
    keys = Keys(page)
    keys.to("New job")
    keys.enter()
    keys.write("Fish hold")
    keys.enter()
    expect(page.get_by_role("heading", name="Fish hold", level=1)).to_be_visible()
    keys.to("New line")
    keys.enter()
    keys.write("Vent")
    keys.enter()
    expect(page.get_by_role("region", name="What this stage asks")).to_be_visible()
    keys.to("Add a bend")
    keys.enter()
    keys.to("Leg to bend 1", back=True)
    keys.write("6")
    keys.to("Angle of bend 1")
    keys.write("90")
    keys.to("Last leg, to end B")
    keys.write("5")
    expect(strip_bend(page, 1)).to_be_visible()
    saved(page)
    keys.to("Choose", back=True)
    keys.enter()
    expect(page).to_have_url(re.compile("/choose$"))
    # the address changes before the stage does; a person looks up before going on
    expect(page.get_by_label("Size")).to_be_visible()
    keys.to("Size")
    keys.write("1/4")
    expect(page.get_by_label("Bender")).to_have_value("lever_1-4in")
    saved(page)
    keys.to("Plan", back=True)
    keys.enter()
    expect(page.locator("[data-move='1']")).to_contain_text("as it lies")
    keys.to("1")
    keys.enter()
    expect(strip_bend(page, 1)).to_have_attribute("data-chosen", "true")
    keys.to("Make", back=True)
    keys.enter()
    keys.to("To the bench")
    keys.enter()
    expect(page.get_by_role("button", name="Done")).to_be_visible()
    step = page.locator("[aria-current='step']")
    while "Bend 1" not in (before := step.get_attribute("aria-label") or ""):
        keys.to("Done")
        keys.enter()
        expect(step).not_to_have_attribute("aria-label", before)
    keys.to("It came out at")
    keys.write("90")
    keys.to("Bent")
    keys.enter()
    expect(page.get_by_role("heading", name="Bend 1")).to_have_count(0)
    good = page.get_by_role("button", name="The part is good")
    while good.count() == 0:
        keys.to("Done")
        keys.enter()
        expect(page.get_by_text("Reckoning the rest…")).to_have_count(0)
    keys.to("The part is good")
    keys.enter()
    job = next(job for job in api.get("/api/jobs").json() if job["name"] == "Fish hold")
    line = job["lines"][0]["id"]
    expect(page.get_by_role("heading", name="The part is good")).to_be_visible()
    assert api.get(f"/api/lines/{line}/makings").json()[0]["outcome"] == "good"
    api.delete(f"/api/jobs/{job['id']}")


@pytest.mark.long("a whole job by taps")
def test_a_whole_job_by_taps(new_context, api):
    """The same on a tablet: nothing but taps, and the keyboard that comes up for a field."""
    page = new_context(viewport={"width": 1024, "height": 768}, has_touch=True, is_mobile=True).new_page()
    page.goto("/")
    name = page.get_by_label("Name of the job or machine")
    for _ in range(3):  # while a busy page starts, a tap may last so long that it is a long press
        page.get_by_role("button", name="New job").tap()
        with suppress(TimeoutError):
            name.wait_for(timeout=10_000)
            break
    name.fill("Wheelhouse")
    page.get_by_role("button", name="Make the job").tap()
    page.get_by_role("button", name="New line").tap()
    page.get_by_label("Name of the line").fill("Heater")
    page.get_by_role("button", name="Make the line").tap()
    page.get_by_role("button", name="Add a bend").tap()
    reading(page, "Leg to bend 1").tap()
    reading(page, "Leg to bend 1").fill("7")
    reading(page, "Angle of bend 1").fill("45")
    reading(page, "Last leg, to end B").fill("6")
    strip_bend(page, 1).tap()
    expect(strip_bend(page, 1)).to_have_attribute("data-chosen", "true")
    saved(page)
    tabs = page.get_by_role("navigation", name="Stages")
    tabs.get_by_role("button", name="Plan").tap()
    page.locator("[data-move='1'] td button").first.tap()
    expect(page.locator("[data-working='mark-1']")).to_be_visible()
    tabs.get_by_role("button", name="Make").tap()
    page.get_by_role("button", name="To the bench").tap()
    step = page.locator("[aria-current='step']")
    while "Bend 1" not in (before := step.get_attribute("aria-label") or ""):
        page.get_by_role("button", name="Done", exact=True).tap()
        expect(step).not_to_have_attribute("aria-label", before)
    page.get_by_role("button", name="Bent", exact=True).tap()
    expect(page.get_by_role("heading", name="Bend 1")).to_have_count(0)
    page.get_by_role("link", name="Leave the bench").tap()
    expect(page.get_by_role("button", name="Go on at the bench")).to_be_visible()
    job = next(job for job in api.get("/api/jobs").json() if job["name"] == "Wheelhouse")
    api.delete(f"/api/jobs/{job['id']}")


LOW = """() => [...document.querySelectorAll('main button, main a, main select, main input, main summary,'
    + ' [role=region] button, [role=region] select, [role=region] input, aside button, footer button')]
  .filter(e => e.offsetParent && !e.closest('svg') && !e.closest('p, li, td, th, [data-inline]'))
  .map(e => [e, (e.matches('input[type=checkbox], input[type=radio]') ? e.closest('label') ?? e : e)
    .getBoundingClientRect()])
  .filter(([e, box]) => box.height > 1 && box.height < 43.5)
  .map(([e, box]) => `${Math.round(box.height)} ${e.outerHTML.slice(0, 110)}`)"""


@pytest.mark.long("seven stages")
def test_what_is_pressed_inside_a_panel_is_high_enough_for_a_finger(new_context, line_ids):
    """44 px, as guidelines for touch ask; a word in a sentence or a figure in a table is as high as its
    line."""
    page = new_context(viewport={"width": 1024, "height": 768}, has_touch=True, is_mobile=True).new_page()
    for stage in ("look", "remove", "measure", "choose", "plan", "make", "fit"):
        page.goto(f"/lines/{line_ids['Rear axle, left']}/{stage}")
        expect(page.locator("svg [data-bend]").first).to_be_visible()
        for summary in page.locator("main summary").all():
            summary.tap()
        assert page.evaluate(LOW) == [], stage


COVERED = """() => {
  const box = (one) => one.getBoundingClientRect();
  const over = box(document.querySelector("[data-over-stage]"));
  return [...document.querySelectorAll("[data-label]")].filter((one) => {
    const at = box(one);
    return at.left < over.right && over.left < at.right && at.top < over.bottom && over.top < at.bottom;
  }).map((one) => one.innerText);
}"""


@pytest.mark.webgl
@pytest.mark.long("draws in three dimensions")
def test_the_choice_of_view_covers_no_label_on_an_upright_tablet(new_context, line_ids):
    page = new_context(viewport={"width": 820, "height": 1180}, has_touch=True, is_mobile=True).new_page()
    for name in ("Rear axle, left", "Rear axle, right", "Pump gearbox to cooler"):
        page.goto(f"/lines/{line_ids[name]}/measure")
        expect(page.locator("[data-label='A']")).to_be_visible()
        expect(page.locator("[data-label='A']")).to_have_attribute("style", re.compile(r"translate\("))
        assert page.evaluate(COVERED) == []


@pytest.mark.long("every kind of file")
def test_every_file_of_a_line_is_saved_and_is_what_it_says(page: Page, own_line):
    open_line(page, own_line, "make")

    def take(name: str) -> tuple[str, bytes]:
        with page.expect_download() as saved_file:
            page.get_by_role("button", name=name, exact=True).click()
        return saved_file.value.suggested_filename, saved_file.value.path().read_bytes()

    name, data = take("Line document")
    assert name.endswith(".bendrel.json")
    assert json.loads(data)["name"] == "copy"
    name, data = take("Points CSV")
    assert name.endswith(".points.csv")
    assert data.startswith(b"x_mm,y_mm,z_mm,radius_mm")
    name, data = take("Bend CSV")
    assert data.count(b"\n") == 8  # a head, six bends, the last straight
    name, data = take("DXF")
    assert len(list(ezdxf.read(io.StringIO(data.decode())).modelspace())) == 13
    name, data = take("SVG drawing")
    assert data.lstrip().startswith(b"<svg")
    name, data = take("STEP")
    assert data.startswith(b"ISO-10303-21")
    for kind, text in (("stl", "STL"), ("glb", "glTF")):
        name, data = take(text)
        assert name.endswith(f".{kind}")
        assert trimesh.load(io.BytesIO(data), file_type=kind, force="mesh").faces.shape[0] > 1000
    for link in ("Print the build sheet", "Paper tape at full size"):
        page.goto(f"/lines/{own_line}/{'make' if 'sheet' in link else 'plan'}")
        with page.expect_popup() as popup:
            page.get_by_role("link", name=link).click()
        assert page.request.get(popup.value.url).body().startswith(b"%PDF")


def test_a_job_is_saved_as_one_file(page: Page, api):
    job = next(job for job in api.get("/api/jobs").json() if job["name"] == "Fire tender")
    page.goto(f"/jobs/{job['id']}")
    with page.expect_download() as saved_file:
        page.get_by_role("button", name="As a file").click()
    assert saved_file.value.path().read_bytes()[:2] == b"PK"


@pytest.mark.long("several stages, each saved")
def test_undo_and_redo_from_the_buttons_across_stages(page: Page, own_line):
    open_line(page, own_line)
    undo, redo = (page.get_by_role("button", name=name, exact=True) for name in ("Undo", "Redo"))
    expect(redo).to_be_disabled()
    untouched = cut(page).inner_text()
    reading(page, "Leg to bend 1").fill("3")
    expect(cut(page)).not_to_have_text(untouched)
    saved(page)
    first = cut(page).inner_text()
    page.keyboard.press("Alt+4")
    page.get_by_label("Size").select_option("1/4 in")
    expect(page.get_by_label("Bender")).to_have_value("lever_1-4in")
    saved(page)
    undo.click()
    expect(page.get_by_label("Size")).to_have_value("3/16 in")
    page.keyboard.press("Alt+3")
    expect(cut(page)).to_have_text(first)
    undo.click()
    expect(reading(page, "Leg to bend 1")).to_have_value("2 5/8")
    expect(cut(page)).to_have_text(untouched)
    redo.click()
    expect(reading(page, "Leg to bend 1")).to_have_value("3")
    expect(cut(page)).to_have_text(first)
    page.keyboard.press("Alt+4")
    redo.click()
    expect(page.get_by_label("Size")).to_have_value("1/4 in")
    expect(redo).to_be_disabled()
    undo.click()
    page.keyboard.press("Alt+3")
    reading(page, "Leg to bend 1").fill("3 1/4")
    expect(redo).to_be_disabled()
    saved(page)
    page.keyboard.press("Control+z")
    expect(reading(page, "Leg to bend 1")).to_have_value("3")
    page.keyboard.press("Control+Shift+z")
    expect(reading(page, "Leg to bend 1")).to_have_value("3 1/4")


def test_wet_points_and_clips_of_the_old_line(page: Page, own_line, api):
    open_line(page, own_line, "look")
    wet = field(page, "Wet point 1")
    expect(wet).to_have_value("under the second clip")
    page.get_by_role("button", name="Add a wet point").click()
    field(page, "Wet point 3").fill("union at the bracket")
    field(page, "Wet point 3 came from next door").fill("gland, dry after it was nipped")
    page.get_by_role("button", name="Take out wet points 1").click()
    expect(wet).to_have_value("axle tube")
    count = page.locator("[data-fixture]").count()
    page.get_by_role("button", name="Add a clip or sleeve").click()
    place = count + 1
    page.get_by_label(f"Kind of clip {place}").select_option("grommet")
    page.get_by_label(f"State of clip {place}").select_option("missing")
    field(page, f"Clip {place} at").fill("15")
    expect(page.locator("[data-fixture='missing']")).to_have_count(2)
    said = page.locator("aside [data-finding='fixture']")
    expect(said.filter(has_text="grommet missing at 15")).to_be_visible()
    saved(page)
    page.reload()
    expect(field(page, "Wet point 2")).to_have_value("union at the bracket")
    condition = api.get(f"/api/lines/{own_line}").json()["document"]["condition"]
    assert [point["place"] for point in condition["wet"]] == ["axle tube", "union at the bracket"]
    assert condition["fixtures"][-1]["kind"] == "grommet"
