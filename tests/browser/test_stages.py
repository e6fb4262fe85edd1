"""The stages as somebody works through them: readings grow, a strip-down is shared, fitting is told."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_line import cut, open_line, saved, strip_bend
from tests.browser.test_remove import field

pytestmark = pytest.mark.browser


@pytest.fixture
def job(api, line_ids):
    """A job with two copies of the demo's sound line, as (job id, [line ids])."""
    document = api.get(f"/api/lines/{line_ids['Rear axle, left']}").json()["document"]
    made = api.post("/api/jobs", data={"name": "two lines"}).json()
    lines = []
    for name in ("left one", "right one"):
        line = api.post(f"/api/jobs/{made['id']}/lines", data={"name": name}).json()
        body = {"version": line["version"], "document": document | {"name": name}}
        api.put(f"/api/lines/{line['id']}", data=body)
        lines.append(line["id"])
    yield made["id"], lines
    api.delete(f"/api/jobs/{made['id']}")


@pytest.fixture
def blank_line(api):
    """A new line without readings, in millimetres."""
    made = api.post("/api/jobs", data={"name": "new work", "unit": "mm"}).json()
    line = api.post(f"/api/jobs/{made['id']}/lines", data={"name": "first"}).json()
    yield line["id"]
    api.delete(f"/api/jobs/{made['id']}")


def change(api, line_id, part):
    """Change a stored line, so that a test begins where it matters."""
    line = api.get(f"/api/lines/{line_id}").json()
    body = {"version": line["version"], "document": line["document"] | part}
    assert api.put(f"/api/lines/{line_id}", data=body).ok


def test_the_drawing_grows_with_every_reading(page: Page, blank_line):
    page.goto(f"/lines/{blank_line}/measure")
    expect(page.get_by_text("The line appears here from the first leg on.")).to_be_visible()
    page.get_by_role("button", name="Add a bend").click()
    field(page, "Leg to bend 1").fill("200")
    strip = page.get_by_role("region", name="The strip")
    expect(strip.locator("[data-open]")).to_be_visible()
    expect(page.get_by_text("drawn as far as it has been read")).to_be_visible()
    field(page, "Angle of bend 1").fill("90")
    expect(strip_bend(page, 1)).to_be_visible()
    expect(page.get_by_text("the line is judged as soon as every reading")).to_be_visible()
    page.get_by_role("button", name="Add a bend").click()
    field(page, "Leg to bend 2").fill("15o")
    field(page, "Angle of bend 2").fill("45")
    expect(strip_bend(page, 2)).to_have_count(0)
    expect(field(page, "Leg to bend 2")).to_have_accessible_description(
        re.compile("not read.*“15o” is not a length")
    )
    field(page, "Leg to bend 2").fill("150")
    field(page, "Plane of bend 2").fill("3:00")
    expect(strip_bend(page, 2)).to_be_visible()
    expect(strip.locator("[data-open]")).to_be_visible()
    field(page, "Last leg, to end B").fill("120")
    expect(strip.locator("[data-open]")).to_have_count(0)
    expect(cut(page)).to_contain_text("mm")


def test_a_line_is_copied_alongside_the_old_part(page: Page, blank_line):
    page.goto(f"/lines/{blank_line}/measure")
    page.get_by_role("radio", name="alongside").click()
    page.get_by_label("Length by string").fill("1240")
    expect(page.get_by_text("drawn straight: its bends are not read")).to_be_visible()
    expect(page.locator("aside [data-finding='alongside']")).to_have_attribute("data-severity", "note")
    expect(cut(page)).to_have_text("1269 mm")  # the string, 25 mm of spare and 2 mm for each bubble
    saved(page)
    page.keyboard.press("Alt+6")
    expect(page.get_by_text("Tape the new tube against the old part from end A")).to_be_visible()
    page.get_by_role("button", name="To the bench").click()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.goto(f"/lines/{blank_line}/measure")
    page.get_by_role("radio", name="bend by bend").click()
    page.locator("summary", has_text="Checks").click()
    expect(page.get_by_label("Whole wire")).to_have_value("1240")


@pytest.mark.long("two lines and a job")
def test_a_cover_comes_off_once_for_both_lines(page: Page, job, api):
    job_id, (left, right) = job
    open_line(page, left, "remove")
    page.get_by_role("button", name="Next thing off, for the job").click()
    field(page, "What came off, shared 1").fill("tunnel cover")
    page.get_by_label("Kind of thing shared 1").select_option("shield")
    count = page.locator("[data-item]").count()
    page.get_by_role("button", name="Off for the whole job: 1", exact=True).click()
    expect(field(page, "What came off, shared 2")).to_have_value("wheel, left rear")
    expect(page.locator("[data-item]")).to_have_count(count)
    lines = page.get_by_role("group", name="Lines that shared 2 is off for")
    lines.get_by_text("for every line").click()
    with page.expect_response(lambda answer: answer.url.endswith("/strip-down") and answer.ok):
        lines.get_by_role("checkbox", name="left one").check()
    saved(page)
    page.goto("/")
    section = page.get_by_role("region", name="two lines")
    expect(section).to_contain_text("2 things of the strip-down still off")
    open_line(page, right, "fit")
    back = page.get_by_role("region", name="Back on for the whole job")
    expect(back.get_by_role("checkbox")).to_have_count(1)
    back.get_by_role("checkbox", name="shield tunnel cover").check()
    open_line(page, left, "fit")
    expect(back.get_by_role("checkbox", name="shield tunnel cover")).to_be_checked()
    expect(back.get_by_role("checkbox")).to_have_count(2)
    page.goto(f"/jobs/{job_id}/strip-down")
    expect(page.get_by_text("Still off: 8 × nut wheel, left rear.")).to_be_visible()
    assert [item["what"] for item in api.get(f"/api/jobs/{job_id}/strip-down").json()["log"]["items"]] == [
        "tunnel cover",
        "wheel, left rear",
    ]


def test_fitting_says_where_the_clips_go_and_how_tight_the_joints(page: Page, own_line):
    open_line(page, own_line, "fit")
    clips = page.get_by_role("region", name="Clips")
    expect(clips).to_contain_text("At the places noted")
    clips.get_by_role("button").nth(1).click()
    expect(page.locator("svg [data-lit='note']")).to_be_visible()
    tight = page.get_by_role("region", name="Tight, in order")
    expect(tight).to_contain_text("port A, hose bracket: Tighten with the 3/8 in wrench to its torque")
    expect(tight).to_contain_text("10 to 13 lbf·ft")
    page.keyboard.press("Alt+4")
    expect(page.locator("[data-torque]").first).to_contain_text("Goes to 10 to 13 lbf·ft")


CAUTIONS = [
    ("brake", "remove", "Brake fluid strips paint"),
    ("brake", "make", "Eye protection"),
    ("fuel-injection", "remove", "no flame"),
    ("hydraulic", "remove", "accumulator"),
    ("steering-pressure", "fit", "pinhole"),
    ("vacuum", "prove", "servo"),
]


@pytest.mark.parametrize(("service", "stage", "said"), CAUTIONS)
def test_what_can_hurt_is_said_at_its_step(page: Page, own_line, api, service, stage, said):
    change(api, own_line, {"service": service})
    open_line(page, own_line, stage)
    note = page.get_by_role("note", name="Cautions").filter(has_text=said)
    expect(note.first).to_be_visible()


def test_a_reason_that_says_nothing_sets_nothing_aside(page: Page, own_line):
    open_line(page, own_line)
    field(page, "Leg to bend 1").fill("1 1/2")
    finding = page.locator("aside [data-finding='end_room']")
    finding.get_by_role("button", name="Set aside…").click()
    reason = page.get_by_label("Reason, kept in the record")
    for said in ("x", "because", "no no no", "a b c d e f g h"):
        reason.fill(said)
        page.get_by_role("button", name="Set aside", exact=True).click()
        expect(page.get_by_role("dialog")).to_contain_text("two words")
    page.keyboard.press("Escape")
    expect(finding).to_be_visible()


def test_a_sleeve_on_nylon_needs_its_insert(page: Page, own_line, api):
    document = api.get(f"/api/lines/{own_line}").json()["document"]
    tube = document["spans"][0]
    end = tube["end_a"] | {"fitting": "compression", "nut": None}
    tube = tube | {"tube": "nylon_8mm_1", "end_a": end, "end_b": end}
    port = document["port_a"] | {"thread": ""}
    change(api, own_line, {"service": "fuel-low", "spans": [tube], "port_a": port, "port_b": port})
    open_line(page, own_line, "choose")
    stop = page.locator("aside [data-finding^='end_']").filter(has_text="without an insert")
    expect(stop).to_have_count(2)
    page.get_by_label("An insert is in the tube").first.check()
    expect(stop).to_have_count(1)
    page.locator("summary", has_text="Kit list").click()
    expect(page.locator("[data-need^='insert:']")).to_be_visible()


def test_a_reservoir_is_asked_which_port_goes_to_the_source(page: Page, line_ids, own_line, api):
    vacuum = api.get(f"/api/lines/{line_ids['Priming vacuum, with check valve']}").json()["document"]
    up_to_the_tube = vacuum["spans"][: [span["kind"] for span in vacuum["spans"]].index("rigid") + 1]
    change(api, own_line, {**vacuum, "name": "copy", "spans": up_to_the_tube})
    open_line(page, own_line, "choose")
    page.get_by_role("button", name="+ part beyond B").click()
    page.get_by_label("Part", exact=True).last.select_option("reservoir")
    asked = page.locator("aside [data-finding^='direction_']")
    expect(asked.first).to_be_visible()
    port = page.get_by_label("Source port")
    expect(port).to_have_value("not known")
    words = page.locator("aside [data-finding='backwards']").filter(has_text="reservoir")
    # the demo's vacuum is drawn at A: the manifold is there
    port.select_option("B")
    expect(words).to_have_count(1)
    port.select_option("A")
    expect(words).to_have_count(0)


def test_a_backup_that_failed_is_said_on_the_board(page: Page):
    state = {"newest": "2026-11-20", "count": 3, "problem": "No backup could be made: the disk is full."}
    page.route("**/api/backups", lambda route: route.fulfill(json=state))
    page.goto("/")
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("The last good backup is of 20 Nov")
    expect(alert).to_contain_text("the disk is full")


def test_the_stock_shows_what_a_cut_list_would_take(page: Page, api):
    page.goto("/stock")
    bars = page.locator("[data-stock] [role=img]")
    expect(bars.first).to_be_visible()
    expect(page.locator("[data-stock]").filter(has_text="coil").get_by_role("img")).to_have_accessible_name(
        "C1: a coil of 5.14 m"
    )
    jobs = {job["name"]: job["id"] for job in api.get("/api/jobs").json()}
    cuts = api.get(f"/api/jobs/{jobs['Fire tender']}/cuts").json()
    ready = [line["line"] for line in cuts["lines"] if line["in_list"]]
    assert ready, "the demo has a line that is ready"
    page.get_by_label("Cut list of").select_option(label="Fire tender")
    expect(page.get_by_role("status").filter(has_text="to cut")).to_be_visible()
    for name in ready:
        expect(page.get_by_role("img", name=f"for {name}")).to_be_visible()


def test_the_drawing_of_the_test_piece_follows_the_dial(page: Page):
    page.goto("/tools?bender=lever_8mm")
    dial = page.get_by_label("Dial", exact=True)
    dial.fill("90")
    expect(
        page.get_by_role("img", name="Test piece bent to 90°: both legs are read to the outside corner")
    ).to_be_visible()
    dial.fill("180")
    expect(page.get_by_role("img", name="across its outside")).to_be_visible()


def test_what_holds_a_line_is_put_in_looked_behind_and_ticked_loose_and_tight(page: Page, copy_of):
    page.goto(f"/lines/{copy_of('Fuel feed, tank to filter')}/fit")
    panel = page.get_by_role("region", name="What this stage asks")
    holds, findings = (
        panel.get_by_role("region", name="What holds it"),
        page.get_by_role("region", name="Findings"),
    )
    holds.get_by_role("button", name="Put these 4 in").click()
    expect(holds.locator("[data-clip-row]")).to_have_count(4)
    holds.get_by_label("Goes on 1").select_option("a hole to drill")
    expect(findings).to_contain_text("A hole is to be drilled at 100 mm: what is behind it?")
    holds.get_by_label("Drill 1").fill("wide")
    expect(holds.get_by_role("alert")).to_be_visible()
    holds.get_by_label("Drill 1").fill("6.5")
    expect(holds.get_by_role("alert")).to_have_count(0)
    holds.get_by_label("Behind it 1").fill("tank")
    expect(findings).not_to_contain_text("what is behind it")
    holds.get_by_label("Place 4").fill("4000")
    expect(holds.get_by_role("alert")).to_contain_text("This lies beyond end B")
    holds.get_by_role("button", name="Take out what holds it 4").click()
    loose = panel.get_by_role("region", name="Into its place, all loose")
    expect(loose).to_contain_text("drill 6.5 mm, deburr, paint. Behind it: tank; guard it.")
    loose.get_by_role("button", name="All 4 of these as told").click()
    expect(loose).to_contain_text("4 of 4")
    tight = panel.get_by_role("region", name="Tight, in order")
    tight.get_by_label("Lined P-clip 8 mm at 450 mm: snug").check()
    expect(page.locator("[data-fixture]")).to_have_count(3)
