"""Fitting, filling, proving and signing off a line through the screens, and at the bench."""

import io
import re
from datetime import datetime, timedelta

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser.test_line import open_line, saved
from tests.browser.test_shop import SIZES, by_night_and_day

pytestmark = pytest.mark.browser

FAILED = "Cooler return, spliced"
COOLANT = "Header tank to engine"
FEED = "Oil cooler, feed, braided"


def panel(page: Page):
    return page.get_by_role("region", name="What this stage asks")


def watch(page: Page):
    return page.get_by_role("region", name="Leak watch")


def open_prove(page: Page, line, stage="prove"):
    page.goto(f"/lines/{line}/{stage}")
    expect(panel(page).locator("[data-step]").first).to_be_visible()


def later(page: Page, minutes: int):
    """The page's clock stands so many minutes from now; the server has its own. Only in a context of the
    test's own: there is no way to let it go again."""
    page.clock.set_fixed_time(datetime.now() + timedelta(minutes=minutes))


def pages_of(data: bytes) -> list[str]:
    return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(data)).pages]


@pytest.mark.parametrize("view", ["fit", "prove", "closing/fit", "closing/prove"])
@pytest.mark.long("axe reads twice")
def test_the_stages_read_by_day_and_night_and_fit_at_any_size(page: Page, line_ids, view):
    page.goto(f"/lines/{line_ids[FAILED]}/{view}")
    expect(page.get_by_role("checkbox" if "/" not in view else "heading").first).to_be_visible()
    assert by_night_and_day(page) == []
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        over = page.evaluate("document.documentElement.scrollWidth - window.innerWidth")
        assert over <= 0, (width, height)


def test_joints_are_started_tightened_and_noted(page: Page, own_line):
    open_line(page, own_line, "fit")
    fit = panel(page)
    # M10x1 in the wheel cylinder: it stops early, and the thread tables know where
    hand = fit.get_by_role("region", name="Each joint by hand")
    hand.locator("[data-step]").filter(has_text="wheel cylinder").get_by_text("Otherwise than told").click()
    fit.get_by_label("Turns by hand, port B, wheel cylinder").fill("2")
    alert = fit.get_by_role("alert")
    expect(alert).to_contain_text("It stopped after 2 turns")
    expect(alert).to_contain_text("cross-threaded")
    expect(page.get_by_role("region", name="Findings")).to_contain_text("The nut binds")
    # all as told, but the one that binds
    expect(hand.get_by_role("button", name="of these as told")).to_have_count(0)
    fit.get_by_label("Turns by hand, port B, wheel cylinder").fill("7")
    expect(alert).to_have_count(0)
    fit.get_by_label("Done by").fill("Ada")
    hand.get_by_role("button", name="All 2 of these as told").click()
    expect(hand).to_contain_text("2 of 2")
    expect(hand.locator("[data-step]").first).to_contain_text(re.compile(r"\d\d:\d\d Ada"))
    expect(fit).to_contain_text("crowfoot in line: set")
    fit.get_by_text("Torque wrench with a crowfoot").click()
    fit.get_by_label("Wrench, grip to square").fill("long")
    fit.get_by_role("button", name="Keep for this shop").click()
    expect(fit.get_by_role("alert")).to_contain_text("long")
    fit.get_by_label("Wrench, grip to square").fill("450 mm")
    fit.get_by_role("button", name="Keep for this shop").click()
    expect(fit.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_role("region", name="Counted in and out")).to_contain_text("still on")
    saved(page)
    page.reload()
    expect(hand).to_contain_text("2 of 2")
    expect(fit.get_by_label("Turns by hand, port B, wheel cylinder")).to_have_value("7")
    expect(fit.get_by_label("Done by")).to_have_value("Ada")


def test_a_wet_joint_leads_its_ladder_and_keeps_its_history(new_context, copy_of):
    page = new_context().new_page()
    open_prove(page, copy_of(FAILED))
    wet = watch(page).locator("[data-state=wet]")
    expect(wet).to_have_count(1)
    expect(wet).to_contain_text("nip")
    name = wet.get_attribute("data-joint-watch")
    expect(page.locator(f"[data-watched='{name}'][data-state=wet]")).to_be_visible()
    wet.get_by_role("button", name="Done: re-seat").click()
    own = watch(page).locator(f"[data-joint-watch='{name}']")
    expect(own).to_contain_text("mended, to be dried")
    own.get_by_role("button", name="Dried").click()
    expect(own).to_contain_text("wait ")
    # by keyboard: the next button has the focus; before the wait is over dry is a first look
    expect(own.get_by_role("button", name="Dry at a first look")).to_be_focused()
    page.keyboard.press("Enter")
    expect(own.get_by_role("status")).to_have_text(re.compile(r"a first look, wait \d:\d\d"))
    later(page, 11)
    expect(watch(page).get_by_role("alert")).to_contain_text("The wait is over: look at the joint now.")
    own.get_by_role("button", name="It is dry").click()
    expect(own.get_by_role("status")).to_have_text("dry")
    own.get_by_role("button", name="union").click()
    expect(own).to_contain_text("re-seat")
    own.get_by_role("button", name="Take that back").click()
    expect(own).to_contain_text("to be looked at")
    own.get_by_role("button", name="union").click()
    # chosen on the strip, seen in the list
    page.locator(f"[data-watched='{name}']").click()
    expect(own.get_by_role("button", pressed=True)).to_be_visible()


@pytest.mark.long("a whole proof")
def test_a_line_is_proved_and_signed_off(new_context, copy_of, api):
    page = new_context().new_page()
    line = copy_of(FEED)
    open_prove(page, line, "fit")
    # one press for all of a kind, then what stands alone
    told = panel(page).get_by_role("button", name=re.compile(r"All \d+ of these as told"))
    expect(told.first).to_be_visible()
    while told.count():
        told.first.click()
    for box in panel(page).get_by_role("checkbox", checked=False).all():
        box.check()
    page.keyboard.press("Alt+8")
    sign_off = page.get_by_role("region", name="Sign-off")
    expect(sign_off).to_contain_text("in the way")
    log = panel(page)
    log.get_by_role("button", name="Log it").first.click()
    log.get_by_label("Fluid in, turn 1").fill("much")
    expect(page.get_by_role("status", name="Fluid balance")).to_contain_text("“much” is not")
    log.get_by_label("Fluid in, turn 1").fill("700 ml")
    log.get_by_label("Had run empty").fill("400 ml")
    expect(page.get_by_role("status", name="Fluid balance")).to_contain_text("300 ml went in and is nowhere")
    expect(page.get_by_role("region", name="Findings")).to_contain_text(
        "300 ml of fluid went in and is nowhere"
    )
    log.get_by_label("Had run empty").fill("690 ml")
    expect(page.get_by_role("status", name="Fluid balance")).to_contain_text("It balances")
    for box in log.get_by_role("checkbox").all():
        box.check()
    for number in range(2):
        later(page, 20 * number)
        watch(page).get_by_role("button", name="All 2: Dried").click()
        expect(watch(page).locator("[data-state=drying]")).to_have_count(2)
        later(page, 20 * number + 11)
        expect(watch(page).get_by_role("alert")).to_contain_text("look at 2 joints now")
        watch(page).get_by_role("button", name="All 2: It is dry").click()
        expect(watch(page).locator("[data-state=dry]")).to_have_count(2)
    works = page.get_by_role("region", name="Does it work")
    for check in works.locator("[data-check]").all():
        check.get_by_text("yes", exact=True).click()
    expect(sign_off).to_contain_text("Nothing is in the way.")
    sign_off.get_by_role("button", name="Sign the line off").click()
    expect(sign_off.get_by_role("alert")).to_contain_text("A sign-off needs a name")
    sign_off.get_by_label("Signed by").fill("Ada")
    sign_off.get_by_label("Day").fill("2020-01-01")
    sign_off.get_by_role("button", name="Sign the line off").click()
    expect(sign_off.get_by_role("alert")).to_contain_text("before what was last done")
    # the day of the page, whose clock may have gone past midnight
    today = (datetime.now() + timedelta(minutes=31)).date().isoformat()
    sign_off.get_by_label("Day").fill(today)
    sign_off.get_by_role("button", name="Sign the line off").click()
    expect(sign_off).to_contain_text(f"Signed off by Ada on {today}.")
    expect(page.get_by_role("region", name="Come back")).to_contain_text("Due after 50 km")
    record = pages_of(api.get(f"/api/lines/{line}/record.pdf").body())
    assert 1 <= len(record) <= 3
    assert f"Signed off Ada, {today}" in record[0]
    handover = pages_of(api.get(f"/api/lines/{line}/handover.pdf").body())
    assert "Every joint was watched and found dry" in handover[0]
    assert b"BEGIN:VEVENT" in api.get(f"/api/lines/{line}/follow-ups.ics").body()
    page.goto("/")
    expect(page.get_by_role("region", name="To come back to")).to_contain_text("second look")
    # what is changed after it is not signed off any more
    open_prove(page, line)
    log.get_by_label("Fluid in, turn 1").fill("710 ml")
    expect(sign_off).to_contain_text("it is not signed off any more")
    expect(page.get_by_role("region", name="Findings")).to_contain_text("changed since it was signed off")
    page.get_by_role("button", name="Undo").click()
    expect(sign_off).to_contain_text("Signed off by Ada")


@pytest.mark.long("a gauge is recorded for some seconds")
def test_the_gauge_is_recorded_live_and_may_be_lost(page: Page, copy_of, api):
    open_prove(page, copy_of(COOLANT))
    hold = page.get_by_role("region", name="Does it hold")
    hold.get_by_role("button", name="Take out this hold test").click()
    api.post("/api/standins/vessel", data={"start_kpa": 100, "per_second": 20, "noise_kpa": 0.2})
    hold.get_by_role("button", name="Record the gauge").click()
    gauge = hold.get_by_role("status", name="The gauge")
    expect(gauge).to_contain_text("recording")
    chart = hold.get_by_role("img")
    expect(chart).to_be_visible()
    hold.get_by_label("Mark", exact=True).fill("valve shut")
    hold.get_by_role("button", name="Mark it").click()
    expect(chart).to_contain_text("valve shut")
    expect(hold.get_by_role("status", name="What it says")).to_contain_text(
        "Not long enough yet. Go on until"
    )
    api.post("/api/standins/vessel/nonsense")
    api.post("/api/standins/vessel/lose")
    expect(gauge).to_contain_text("The gauge is lost; what was recorded is kept.")
    hold.get_by_role("button", name="End the run").click()
    expect(gauge).not_to_contain_text("recording")
    expect(chart).to_contain_text("gauge lost")
    api.post("/api/standins/vessel/off")
    saved(page)
    page.reload()
    expect(gauge).to_contain_text("readings")
    expect(hold.get_by_role("link", name="Readings as CSV")).to_be_visible()


def test_readings_by_eye_and_from_a_file(page: Page, copy_of):
    open_prove(page, copy_of(FEED))
    hold = page.get_by_role("region", name="Does it hold")
    hold.get_by_role("button", name="Read it by eye").click()
    for k, bar in enumerate(("3.0", "2.6", "2.2", "1.8", "1.0"), start=1):
        hold.get_by_label(f"Pressure, reading {k}").fill(f"{bar} bar")
    said = hold.get_by_role("status", name="What it says")
    expect(said).to_contain_text("It leaks.")
    hold.get_by_label("Pressure, reading 3").fill("a lot")
    expect(hold.get_by_role("alert")).to_contain_text("“a lot” is not a pressure")
    hold.get_by_label("Held with").select_option("gas")
    hold.get_by_label("Pressure, reading 3").fill("8 bar")
    expect(hold.get_by_role("alert")).to_contain_text("refused as a proof")
    hold.get_by_role("button", name="Take out this hold test").click()
    file = hold.get_by_label("File of readings")
    file.set_input_files({"name": "r.csv", "mimeType": "text/csv", "buffer": b"time_s,pressure_kpa\n0,low\n"})
    expect(hold.get_by_role("alert")).to_contain_text("“low” is not a number")
    rows = "".join(f"{t},{400 + 0.01 * (t % 3):.3f}\n" for t in range(0, 600, 5))
    good = f"time_s,pressure_kpa\n{rows}".encode()
    file.set_input_files({"name": "r.csv", "mimeType": "text/csv", "buffer": good})
    expect(said).to_contain_text("It holds.")
    expect(hold).to_contain_text("120 readings")


def test_at_the_bench_one_step_a_screen(new_context, copy_of):
    page = new_context().new_page()
    line = copy_of(FEED)
    page.set_viewport_size({"width": 820, "height": 1180})
    page.goto(f"/lines/{line}/closing/fit")
    expect(page.get_by_text(re.compile(r"^1 of "))).to_be_visible()
    expect(page.get_by_role("heading", level=2)).to_contain_text("Blow every new piece")
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile(r"^2 of "))).to_be_visible()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_text(", done")).to_be_visible()
    page.keyboard.press("Escape")
    expect(panel(page).get_by_role("checkbox").first).to_be_checked()
    page.goto(f"/lines/{line}/closing/prove")
    joint = page.locator("[data-joint-watch]")
    step = page.get_by_text(re.compile(r"^\d+ of \d+"))
    for _ in range(30):
        was = step.text_content() or ""
        if joint.count():
            break
        page.keyboard.press("ArrowRight")
        expect(step).not_to_have_text(was)
    # Enter does the step of a joint that is watched too
    expect(page.get_by_role("button", name="Dried")).to_be_visible()
    page.keyboard.press("Enter")
    expect(joint.get_by_role("status")).to_contain_text(":")
    later(page, 11)
    expect(joint.get_by_role("status")).to_have_text("to be looked at")
    page.keyboard.press("Enter")
    expect(joint.get_by_role("status")).to_have_text("dry")
    page.get_by_role("link", name="Leave the bench").click()
    expect(watch(page)).to_contain_text("dry")


def test_what_was_learnt_stands_where_the_next_joint_is_chosen(page: Page, own_line):
    open_line(page, own_line, "choose")
    expect(panel(page)).to_contain_text("Nut joints here: 1 nipped again")


def test_another_clamp_goes_into_the_line_and_a_torque_is_held_against_the_manual(page: Page, api, copy_of):
    line = copy_of(COOLANT)
    held = api.get(f"/api/lines/{line}").json()
    events = [
        {"id": f"e{k}", "what": what, "at": "2026-11-20T10:00", "by": "", "note": ""}
        for k, what in enumerate(("wet", "nip", "dried", "wet", "re-seat", "wet"), 1)
    ]
    work = {"span": "h1", "end": "A", "meets": "", "events": events}
    held["document"]["proving"] |= {"joints": [work], "done": []}
    body = {"version": held["version"], "document": held["document"]}
    assert api.put(f"/api/lines/{line}", data=body).ok
    was = held["document"]["spans"][0]["clamp"]
    open_prove(page, line)
    wet = watch(page).locator("[data-state=wet]")
    clamps = wet.get_by_label("Which clamp")
    expect(clamps.locator("option")).not_to_have_count(1)
    clamps.select_option(index=1)
    expect(watch(page).locator("[data-joint-watch='h1-A']")).to_contain_text("mended")
    saved(page)
    assert api.get(f"/api/lines/{line}").json()["document"]["spans"][0]["clamp"] != was
    page.keyboard.press("Alt+7")
    tight = panel(page).get_by_role("region", name="Tight, in order").locator("[data-step]").first
    tight.get_by_text("Otherwise than told").click()
    manual = tight.get_by_placeholder("manual's own torque")
    manual.fill("4000")
    expect(tight.get_by_role("alert")).to_contain_text("“4000” is not a torque; write it like 16 N·m")
    manual.fill("5 N·m")
    expect(tight.get_by_role("alert")).to_have_count(0)
    expect(tight).to_contain_text("5 N·m")
    tight.get_by_placeholder("torque set").fill("9 N·m")
    expect(tight).to_contain_text("9 N·m is too tight.")
    expect(page.get_by_role("region", name="Findings")).to_contain_text("Tighter than it may be")


def test_a_circuit_is_proved_once_for_both_of_its_lines(page: Page, line_ids):
    page.goto(f"/lines/{line_ids['Vacuum, tee to primer']}/prove")
    holds = page.get_by_role("region", name="Does it hold")
    holds.get_by_role("button", name="Proved together with Vacuum, pump to tee").click()
    expect(holds.get_by_text("It holds")).to_be_visible()
    expect(holds.get_by_role("button", name="Proved together with")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(holds.get_by_role("button", name="Proved together with")).to_be_visible()
    saved(page)
