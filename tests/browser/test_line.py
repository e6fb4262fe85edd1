"""One line, from readings to the sheet, through the screens."""

import re

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.browser


def reading(page: Page, label: str):
    return page.get_by_role("textbox", name=label, exact=True)


def saved(page: Page):
    expect(page.locator("[data-save]")).to_have_attribute("data-save", "saved")


def kept(page: Page):
    """Waits at its end until what is written within has arrived; what is read next from elsewhere has it."""
    return page.expect_response(lambda answer: answer.request.method == "PUT" and answer.ok)


def cut(page: Page):
    return page.get_by_role("region", name="Cut length").get_by_role("button").last


def strip_bend(page: Page, number: int):
    """A bend of the strip; the stage may draw it too, flat, until its own drawing has come."""
    return page.get_by_role("region", name="The strip").locator(f"[data-bend='{number}']")


def open_line(page: Page, line_id: str, stage: str = "measure"):
    page.goto(f"/lines/{line_id}/{stage}")
    expect(page.locator("svg [data-bend]").first).to_be_visible()


@pytest.mark.long("a whole line by keys")
def test_a_new_line_with_the_keyboard_alone(page: Page, api):
    """The first useful answer comes from service, tube size and readings."""
    page.goto("/")
    page.get_by_role("button", name="New job").press("Enter")
    page.get_by_label("Name of the job or machine").press_sequentially("Hand pump")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Hand pump")).to_be_visible()
    page.get_by_role("button", name="New line").press("Enter")
    page.get_by_label("Name of the line").press_sequentially("Drain")
    page.keyboard.press("Enter")
    reading(page, "Last leg, to end B").press_sequentially("4")
    page.keyboard.press("Control+Enter")
    reading(page, "Leg to bend 1").press_sequentially("3-1/2")
    page.keyboard.press("Tab")
    page.keyboard.press("Tab")
    expect(reading(page, "Angle of bend 1")).to_be_focused()
    page.keyboard.type("90")
    expect(strip_bend(page, 1)).to_be_visible()
    # 3 1/2 + 4 in to the outside corner, less 2·(15 + 4.7625/2), plus 15·π/2 mm: 179.30 mm
    expect(page.get_by_role("button", name='7 1/16"')).to_be_visible()
    saved(page)
    page.keyboard.press("Alt+5")
    expect(page.locator("[data-move='1']")).to_contain_text("as it lies")
    page.keyboard.press("Alt+6")
    expect(page.get_by_text("Flare end A, 45° double flare")).to_be_visible()
    with page.expect_popup() as popup:
        page.keyboard.press("Control+p")
    sheet = api.get(popup.value.url)
    assert sheet.headers["content-type"] == "application/pdf"
    assert sheet.body().startswith(b"%PDF")


class Hands:
    """A person with a keyboard and nothing else: every key and every word typed is one action."""

    def __init__(self, page: Page):
        self.page, self.actions = page, 0

    def press(self, *keys: str):
        for key in keys:
            self.actions += 1
            self.page.keyboard.press(key)

    def write(self, text: str):
        self.actions += 1
        self.page.keyboard.type(text)


def test_a_newcomers_first_line_takes_few_keys(page: Page, api):
    """A new job, a new fuel line, wire readings, tube and ends that suit, the sheet: at most 30 actions."""
    page.goto("/")
    expect(page.get_by_role("heading", name="Fire tender")).to_be_visible()
    hands = Hands(page)
    hands.press("Tab", "Tab", "Enter")
    hands.write("Bilge pump")
    hands.press("Enter")
    expect(page.get_by_role("button", name="New line")).to_be_focused()
    hands.press("Enter")
    hands.write("Feed")
    hands.press("Tab", "Tab")
    hands.write("fuel, low")
    hands.press("Shift+Tab", "Shift+Tab", "Enter")
    expect(page.get_by_role("region", name="What this stage asks")).to_be_focused()
    hands.press("Tab", "ArrowRight")
    expect(page.get_by_role("radio", name="wire")).to_be_checked()
    hands.press("Tab", "Tab", "Tab")
    expect(reading(page, "Whole wire, to end B")).to_be_focused()
    hands.write("36")
    hands.press("Control+Enter")
    expect(reading(page, "Start mark of bend 1")).to_be_focused()
    hands.write("10")
    hands.press("Tab", "Tab")
    hands.write("90")
    expect(strip_bend(page, 1)).to_be_visible()
    saved(page)
    hands.press("Alt+4")
    expect(page.get_by_role("region", name="What this stage asks").get_by_text("Tube").first).to_be_visible()
    expect(page.locator("aside [data-severity='stop']")).to_have_count(0)
    hands.press("Alt+6")
    expect(page.get_by_role("link", name="Print the build sheet")).to_be_visible()
    with page.expect_popup() as popup:
        hands.press("Control+p")
    assert api.get(popup.value.url).body().startswith(b"%PDF")
    assert hands.actions <= 30


def test_the_cursor_is_in_the_new_row_before_the_next_key(page: Page, own_line):
    """A browser with much to do serves keys before timers; what is typed next must not go astray."""
    open_line(page, own_line)
    page.evaluate("window.setTimeout = () => 0")
    reading(page, "Leg to bend 2").press("Control+Enter")
    assert page.evaluate("document.activeElement.ariaLabel") == "Leg to bend 3"
    reading(page, "Leg to bend 3").press("Control+Backspace")
    assert page.evaluate("document.activeElement.ariaLabel") == "Leg to bend 3"
    reading(page, "Leg to bend 3").press("Alt+ArrowUp")
    assert page.evaluate("document.activeElement.ariaLabel") == "Leg to bend 2"


def test_typing_redraws_and_keeps_what_was_typed(page: Page, own_line):
    open_line(page, own_line)
    before = cut(page).inner_text()
    reading(page, "Leg to bend 2").fill("1' 2 3/16\"")
    expect(cut(page)).not_to_have_text(before)
    row = page.get_by_role("row").filter(has=reading(page, "Leg to bend 2"))
    expect(row).to_contain_text("360.4 mm")
    saved(page)
    page.reload()
    expect(reading(page, "Leg to bend 2")).to_have_value("1' 2 3/16\"")


def test_a_reload_right_after_a_key_loses_nothing(page: Page, own_line):
    open_line(page, own_line)
    reading(page, "Leg to bend 3").fill("450mm")
    page.reload()
    expect(reading(page, "Leg to bend 3")).to_have_value("450mm")
    saved(page)


@pytest.mark.parametrize(
    ("label", "text", "words"),
    [
        ("Leg to bend 2", "nine", "is not a length"),
        ("Angle of bend 2", "400", "up to 360°"),
        ("Plane of bend 2", "25:00", "12:00 to 11:59"),
    ],
)
def test_bad_readings_get_one_sentence_and_stay(page: Page, own_line, label, text, words):
    open_line(page, own_line)
    reading(page, label).fill(text)
    expect(page.get_by_role("alert").filter(has_text=words)).to_be_visible()
    expect(page.get_by_text("drawn as it was before")).to_be_visible()
    expect(reading(page, label)).to_have_value(text)
    expect(reading(page, label)).to_have_attribute("aria-invalid", "true")
    saved(page)


def test_a_bend_of_200_degrees_is_a_stop(page: Page, own_line):
    open_line(page, own_line)
    page.get_by_label("Where row 6 is read to").select_option("back")
    page.get_by_label("Where the last leg is read from").select_option("back")
    reading(page, "Angle of bend 6").fill("200")
    finding = page.locator("aside [data-finding='angle_over_limit']")
    expect(finding).to_contain_text("200° is asked; shop lever bender stops at 180°")
    expect(finding).to_have_attribute("data-severity", "stop")


def test_switching_the_way_of_entry_keeps_the_shape(page: Page, own_line):
    open_line(page, own_line)
    before = cut(page).inner_text()
    page.get_by_role("radio", name="corner points").click()
    expect(reading(page, "x of corner 1")).to_be_visible()
    expect(cut(page)).to_have_text(before)
    saved(page)
    page.get_by_role("radio", name="bend by bend").click()
    expect(reading(page, "Leg to bend 1")).to_be_visible()
    expect(cut(page)).to_have_text(before)
    page.keyboard.press("Control+z")
    expect(reading(page, "x of corner 1")).to_be_visible()


def test_rows_from_the_keyboard(page: Page, own_line):
    open_line(page, own_line)
    reading(page, "Angle of bend 2").press("Control+Enter")
    expect(reading(page, "Leg to bend 3")).to_be_focused()
    expect(reading(page, "Leg to bend 7")).to_be_visible()
    page.keyboard.press("Control+Backspace")
    expect(reading(page, "Leg to bend 7")).to_have_count(0)
    expect(reading(page, "Leg to bend 3")).to_be_focused()
    reading(page, "Angle of bend 1").press("Alt+ArrowDown")
    expect(reading(page, "Leg to bend 2")).to_have_value("2 5/8")
    expect(reading(page, "Leg to bend 2")).to_be_focused()
    reading(page, "Angle of bend 2").press("Enter")
    expect(reading(page, "Angle of bend 3")).to_be_focused()
    page.keyboard.press("ArrowUp")
    expect(reading(page, "Angle of bend 2")).to_be_focused()


@pytest.mark.webgl
def test_one_selection_on_strip_stage_and_readings(page: Page, own_line):
    open_line(page, own_line)
    strip_bend(page, 4).click()
    expect(page.get_by_text(re.compile("^bend 4 · 90° · 1:00 from A"))).to_be_visible()
    expect(page.locator("tr.hand")).to_have_count(1)
    page.get_by_role("button", name="Choose bend 2").click()
    expect(strip_bend(page, 2)).to_have_attribute("data-chosen", "true")
    page.get_by_role("group", name=re.compile("The tube unrolled")).press("ArrowRight")
    expect(strip_bend(page, 3)).to_have_attribute("data-chosen", "true")
    reading(page, "Angle of bend 6").focus()
    expect(strip_bend(page, 6)).to_have_attribute("data-chosen", "true")
    page.keyboard.press("Escape")
    expect(page.locator("[data-chosen='true']")).to_have_count(0)


def test_a_finding_lights_up_and_its_fix_mends_it(page: Page, line_ids, own_line, api):
    wrong = api.get(f"/api/lines/{line_ids['Rear axle, right']}").json()["document"]
    line = api.get(f"/api/lines/{own_line}").json()
    api.put(f"/api/lines/{own_line}", data={"version": line["version"], "document": wrong})
    open_line(page, own_line)
    finding = page.locator("aside [data-finding='nut_port']")
    expect(finding).to_contain_text("binds after about 6.6 turns")
    finding.get_by_title("Show where").click()
    expect(page.locator("[data-lit='stop']")).to_be_visible()
    finding.get_by_role("button", name="Use the M10x1 nut").click()
    expect(finding).to_have_count(0)
    saved(page)
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("aside [data-finding='nut_port']")).to_be_visible()


def test_setting_aside_needs_a_reason_that_stays(page: Page, own_line):
    open_line(page, own_line)
    reading(page, "Leg to bend 1").fill("1 1/2")
    finding = page.locator("aside [data-finding='end_room']")
    finding.get_by_role("button", name="Set aside…").click()
    page.get_by_role("button", name="Set aside", exact=True).click()
    expect(page.get_by_text("A name is needed.")).to_have_count(0)
    expect(page.get_by_text("A reason is needed.")).to_be_visible()
    page.get_by_label("Reason, kept in the record").fill("short nut from the old line")
    page.get_by_role("button", name="Set aside", exact=True).click()
    expect(page.locator("aside").get_by_text("“short nut from the old line”")).to_be_visible()
    expect(finding).to_have_count(0)


def test_every_figure_opens_its_working(page: Page, own_line):
    open_line(page, own_line, "plan")
    cut(page).click()
    working = page.locator("aside [data-working='cut']")
    expect(working).to_contain_text("along the tube + allowance A + allowance B + spare")
    page.locator("[data-move='4'] button").nth(1).click()
    expect(page.locator("aside [data-working='mark-4']")).to_contain_text("start of bend")
    page.locator("[data-move='4'] button").nth(2).click()
    expect(page.locator("aside [data-working='dial-4']")).to_contain_text("M_p·R/(E·I)")
    page.locator("[data-move='4'] button").first.click()
    page.get_by_text("Tube in bend 4").locator("..").get_by_role("button").click()
    expect(page.locator("aside [data-working='arc-4']")).to_contain_text("R·θ")


def test_marks_from_the_other_end_and_in_the_other_schools(page: Page, own_line):
    open_line(page, own_line, "plan")
    first = page.locator("[data-move] th button").first
    expect(first).to_have_text("1")
    page.get_by_role("radio", name="B", exact=True).click()
    expect(first).to_have_text("6")
    expect(page.get_by_text("with end B towards you")).to_be_visible()
    start = page.locator("[data-move='3'] button").nth(1).inner_text()
    page.get_by_role("radio", name="middle").click()
    expect(page.locator("[data-move='3'] button").nth(1)).not_to_have_text(start)
    page.get_by_role("radio", name="corner less take-up").click()
    expect(page.locator("[data-move='3'] button").nth(1)).to_have_text(start)


def test_choosing_another_size_brings_its_bender_and_nuts(page: Page, own_line):
    open_line(page, own_line, "choose")
    page.get_by_label("Size").select_option("1/4 in")
    expect(page.get_by_label("Bender")).to_have_value("lever_1-4in")
    expect(page.get_by_label("Nut", exact=True).first).to_have_value("double-45_1-4in_7-16-24")
    page.get_by_label("Material").select_option("stainless-304")
    expect(page.locator("aside [data-finding='double_flare_hard']")).to_have_count(2)
    page.get_by_label("Material").select_option("aluminium-3003")
    expect(page.locator("aside [data-finding='material_refused']")).to_be_visible()


MIDDLE = """stroke => {
  const middle = stroke.getPointAtLength(stroke.getTotalLength() / 2);
  const { x, y } = middle.matrixTransform(stroke.getScreenCTM());
  return [x, y];
}"""
"""Where to press a bent stroke: the middle of its box lies beside it."""


def test_the_core_draws_where_there_is_no_webgl(page: Page, own_line):
    page.goto(f"/lines/{own_line}")
    stage = page.locator("[data-webgl='false']")
    expect(stage.get_by_role("img", name="Drawing of the line, 6 bends")).to_be_visible()
    page.mouse.click(*stage.locator("[data-bend='5']").first.evaluate(MIDDLE))
    expect(page.locator("section svg [data-bend='5'][data-chosen='true']")).to_be_visible()


@pytest.mark.long("a whole stage, saved")
def test_looking_at_the_old_line(page: Page, own_line):
    open_line(page, own_line, "look")
    expect(page.locator("[data-damage='rust']")).to_be_visible()
    expect(page.locator("[data-fixture='missing']")).to_have_count(1)
    expect(page.locator("[data-advice]")).to_have_attribute("data-advice", "replace whole")
    page.get_by_role("button", name="Add damage").click()
    page.get_by_label("Kind of damage 2").select_option("chafe")
    page.get_by_label("Damage 2 from").fill("30")
    expect(page.locator("[data-damage='chafe']")).to_be_visible()
    page.get_by_label("Damage 2 to").fill("90")
    expect(page.get_by_text("This lies beyond end B")).to_be_visible()
    page.get_by_label("Not again by").fill("")
    expect(page.locator("aside [data-finding='old_contact']")).to_be_visible()
    page.get_by_role("radio", name="splice").click()
    page.get_by_label("Because").fill("")
    expect(page.locator("aside [data-finding='decision_without_reason']")).to_be_visible()
    page.get_by_label("Because").fill("flared union, agreed with the inspector")
    expect(page.locator("aside [data-finding='decision_without_reason']")).to_have_count(0)
    page.get_by_label("dangerous route").check()
    saved(page)
    page.reload()
    expect(page.get_by_label("dangerous route")).to_be_checked()
    page.get_by_role("button", name="Take out damage 2").click()
    expect(page.locator("[data-damage]")).to_have_count(1)


def test_one_finding_of_several_bends_is_settled_once(page: Page, api, own_line):
    """The line beside it, bent about the same centres: every radius is another than the tool's."""
    opened = api.get(f"/api/lines/{own_line}").json()
    for row in opened["document"]["spans"][0]["readings"]["rows"][:3]:
        row["radius"] = {"text": "22 mm", "unit": "mm"}
    api.put(f"/api/lines/{own_line}", data={"version": opened["version"], "document": opened["document"]})
    open_line(page, own_line, "plan")
    alike = page.locator("aside [data-alike='radius_not_the_tools']")
    expect(alike).to_contain_text("The same holds at bends 1, 2, 3.")
    expect(alike.get_by_role("button", name="At all 3: ")).to_be_visible()
    alike.get_by_role("button", name="Set all 3 aside…").click()
    asked = page.get_by_role("dialog")
    expect(asked).to_contain_text("and the same at 2 other bends")
    asked.get_by_label("Reason, kept in the record").fill("only a sketch")
    asked.get_by_role("button", name="Set aside").click()
    expect(alike).to_have_count(0)
    saved(page)
    aside = api.get(f"/api/lines/{own_line}").json()["document"]["set_aside"]
    assert [one["code"] for one in aside] == ["radius_not_the_tools"] * 3
