"""The paper tape and labels, measured in the PDF's own coordinates."""

from __future__ import annotations

import io
import re
from math import pi, radians

import pypdfium2
import pytest
import zxingcpp
from pypdf import PdfReader

from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.exchange.errors import FileError
from bendrel.exchange.paper.label import build_label
from bendrel.exchange.paper.tape import (
    LEFT_MM,
    STRETCH_MM,
    TOP_MM,
    WORDS_MM,
    build_tape,
    tape_marks,
)
from tests.lines import bent, end_of, in_order, replace, row, with_tube
from tests.paper import boxes_on, crossing

POINT_MM = 25.4 / 72  # PDF 32000-1, 8.3.2.3: a user unit is 1/72 inch
LINE = bent(row(80, 90), row(260, 45, "3:00"), row(320, 60, "6:30"), last=200)
OD, R = 4.7625, 15.0
PER_PAGE = 4  # stretches of 3/16 in on A4
ANGLES = (90.0, 45.0, 60.0)
ARCS = tuple(R * radians(angle) for angle in ANGLES)
STARTS = (80.0, 80 + ARCS[0] + 260, 80 + ARCS[0] + 260 + ARCS[1] + 320)
FLARE = 2.05  # what a 45° double flare on 3/16 in takes up, see test_plan
NUMBER = r"(-?[\d.]+)"


@pytest.fixture
def part(kit):
    return plan_line(LINE, kit).part


def pages_of(line, part):
    return PdfReader(io.BytesIO(build_tape(line, part, "3/16 in"))).pages


def content(page):
    text = page.get_contents().get_data().decode("latin-1")
    assert " cm" not in re.sub(r"1 0 0 1 0 0 cm", "", text), "nothing is scaled"
    return text


def strokes(page):
    """Every straight line of a page, (x1, y1, x2, y2) in mm, read from its content stream."""
    found = re.findall(rf"{NUMBER} {NUMBER} m {NUMBER} {NUMBER} l", content(page))
    return [tuple(float(v) * POINT_MM for v in line) for line in found]


def dots(page):
    """Centres of every filled round, (x, y) in mm: the middle of its four curves' ends."""
    rounds = re.findall(rf"{NUMBER} {NUMBER} m((?:\s+(?:{NUMBER} ){{6}}c){{4}})", content(page))
    found = []
    for block in rounds:
        ends = re.findall(rf"{NUMBER} {NUMBER} c", block[2])
        xs, ys = [float(x) for x, _ in ends], [float(y) for _, y in ends]
        found.append(((min(xs) + max(xs)) / 2 * POINT_MM, (min(ys) + max(ys)) / 2 * POINT_MM))
    return found


def crossings(line, part):
    """(stretch, x from its left edge, top) of every line across the tape."""
    pages = pages_of(line, part)
    upright = [
        (page, x1, max(y1, y2))
        for page, sheet in enumerate(pages)
        for x1, y1, x2, y2 in strokes(sheet)
        if abs(x1 - x2) < 1e-6
        and abs(abs(y1 - y2) - pi * OD) < 0.2  # the tape is as wide as the tube is round
    ]
    return [
        (page * PER_PAGE + round((TOP_MM - y) / (pi * OD + WORDS_MM)), x - LEFT_MM, y)
        for page, x, y in upright
    ]


def test_marks_lie_where_they_should_within_a_tenth(part):
    """Cut end, bend starts, rim and cut end at B, by hand from the straights and arcs; nothing else. End A is
    flared first, so that its cut end is its rim; the spare lies at B."""
    rim_b = STARTS[2] + ARCS[2] + 200
    expected = [0.0, *STARTS, rim_b, rim_b + FLARE + 25]
    measured = sorted(STRETCH_MM * row + x for row, x, _ in crossings(LINE, part))
    assert measured == pytest.approx(expected, abs=0.1)


def test_the_tape_says_the_marks_of_the_plan(part):
    """Bends from A's rim in the held school, the rims and both cuts; lengths add up to the cut."""
    marks = tape_marks(part)
    assert marks[-1].at_mm == pytest.approx(part.beyond_mm["A"] + part.developed_mm + part.beyond_mm["B"])
    bends = [mark for mark in marks if mark.clock_deg is not None]
    assert [mark.at_mm for mark in bends] == pytest.approx(STARTS)
    assert [mark.clock_deg for mark in bends] == [0, 90, 195]
    words = [mark.text for mark in bends]
    for word, number, clock in zip(words, (1, 2, 3), ("12:00", "3:00", "6:30"), strict=True):
        assert word.startswith(f"bend {number} · ")
        assert f" · {clock} · A held" in word


def test_marks_of_a_bend_made_from_b_lie_at_its_far_end(kit):
    """With end B in the clamp the tool's zero meets the bend at its end B, and a tool whose zero lies 3 mm
    before its tangent is met 3 mm nearer to B."""
    bender = replace(kit.benders["lever_3-16in"], zero_offset_mm=3.0)
    own = replace(kit, benders={**kit.benders, bender.id: bender})
    line = with_tube(LINE, order=in_order("A1 B3 B2"))
    part = plan_line(line, own).part
    ends = [start + arc for start, arc in zip(STARTS, ARCS, strict=True)]
    expected = {1: STARTS[0] - 3.0, 2: ends[1] + 3.0, 3: ends[2] + 3.0}
    bends = {int(m.text.split()[1]): m for m in tape_marks(part) if m.clock_deg is not None}
    for number, at in expected.items():
        assert bends[number].at_mm == pytest.approx(at), number
        assert bends[number].text.endswith("A held" if number == 1 else "B held")


@pytest.mark.parametrize(
    ("left_at", "rims"), [("A", {"rim A": 14.05, "rim B": 27.05}), ("B", {"rim B": 39.05})]
)
def test_rims_are_marked_where_an_end_is_flared_afterwards(kit, left_at, rims):
    """12 mm left long and 2.05 mm for the flare beyond a rim, at B the spare of 25 mm too; an end flared
    first has no tube beyond its rim."""
    field = f"end_{left_at.lower()}"
    long = replace(end_of(LINE, "A"), leave_long=Length(text="12 mm"))
    marks = tape_marks(plan_line(replace(LINE, **{field: long}), kit).part)
    whole = marks[-1].at_mm
    found = {m.text: m.at_mm if m.text == "rim A" else whole - m.at_mm for m in marks if "rim" in m.text}
    assert found == pytest.approx(rims, abs=0.01)
    assert [m.text for m in marks if m.cut] == ["end A, cut", "end B, cut"]


def test_the_dots_lie_on_the_side_where_each_bend_closes(part):
    """Down the paper is clockwise seen from A: the scribed line on the upper edge is 12 o'clock, three
    o'clock a quarter of the way around the tube below it, half past six 195/360."""
    told = [dot for sheet in pages_of(LINE, part) for dot in dots(sheet)]
    assert len(told) == 3
    tops = {(row, round(x, 2)): top for row, x, top in crossings(LINE, part)}
    for start, clock, (x, y) in zip(STARTS, (0, 90, 195), told, strict=True):
        across = (start % STRETCH_MM, int(start // STRETCH_MM))
        assert x - LEFT_MM == pytest.approx(across[0], abs=0.1)
        top = next(t for (row, mx), t in tops.items() if row == across[1] and abs(mx - across[0]) < 0.1)
        assert top - y == pytest.approx(clock / 360 * pi * OD, abs=0.05)


def test_the_check_ruler_is_a_hundred_millimetres(part):
    level = [
        abs(x2 - x1) for x1, y1, x2, y2 in strokes(pages_of(LINE, part)[0]) if abs(y1 - y2) < 1e-6 and y1 < 12
    ]
    assert any(abs(length - 100) < 0.1 for length in level)
    assert any(abs(length - 101.6) < 0.1 for length in level)


def test_stretches_meet_at_registration_crosses(part):
    """Both edges of every stretch carry a cross above and below, so that the next is laid on square."""
    page = pages_of(LINE, part)[0]
    crosses = [
        (round((x1 + x2) / 2 - LEFT_MM, 2), round(y1, 2))
        for x1, y1, x2, y2 in strokes(page)
        if abs(y1 - y2) < 1e-6 and abs(abs(x1 - x2) - 4) < 0.01
    ]
    stretches = -(-tape_marks(part)[-1].at_mm // STRETCH_MM)
    assert len(crosses) == 4 * stretches
    assert sum(abs(x) < 0.1 for x, _ in crosses) == 2 * stretches
    assert sum(abs(x - STRETCH_MM) < 0.1 for x, _ in crosses) == 2 * (stretches - 1)
    assert "Print at 100 %" in page.extract_text()


def test_a_long_line_goes_on_over_further_pages(kit):
    long = bent(row(900, 90), row(900, 45, "3:00"), last=700)
    part = plan_line(long, kit).part
    pages = pages_of(long, part)
    stretches = -(-tape_marks(part)[-1].at_mm // STRETCH_MM)
    assert len(pages) == -(-stretches // PER_PAGE) == 3
    for number, page in enumerate(pages, start=1):
        assert f"page {number} of 3" in page.extract_text()
    measured = sorted(STRETCH_MM * row + x for row, x, _ in crossings(long, part))
    assert measured == pytest.approx([mark.at_mm for mark in tape_marks(part)], abs=0.1)


def test_thick_tube_takes_more_room_and_what_is_wider_around_than_the_paper_is_refused(kit):
    """A4 on its side is 210 mm high; 22 mm across is 69 mm around, 60 mm across 188."""
    part = replace(plan_line(LINE, kit).part, od_mm=22.0)
    stretches = -(-tape_marks(part)[-1].at_mm // STRETCH_MM)
    pages = PdfReader(io.BytesIO(build_tape(LINE, part, "22 mm"))).pages
    assert len(pages) == stretches
    with pytest.raises(FileError, match="wider around than this paper is high"):
        build_tape(LINE, replace(part, od_mm=60.0), "60 mm")


def test_each_stretch_is_outlined_as_long_as_it_is_and_as_wide_as_the_tube_is_round(part):
    found = re.findall(rf"{NUMBER} {NUMBER} {NUMBER} {NUMBER} re", content(pages_of(LINE, part)[0]))
    outlines = sorted(
        ((float(x) * POINT_MM, float(w) * POINT_MM, float(h) * POINT_MM) for x, _, w, h in found),
        reverse=True,
    )
    length = tape_marks(part)[-1].at_mm
    whole, rest = divmod(length, STRETCH_MM)
    assert sorted((w for _, w, _ in outlines), reverse=True) == pytest.approx(
        [STRETCH_MM] * int(whole) + [rest], abs=0.1
    )
    for x, _, high in outlines:
        assert (x, high) == pytest.approx((LEFT_MM, pi * OD), abs=0.1)


def test_every_page_lies_on_its_side_and_says_what_it_is_of(kit):
    """A4 across (ISO 216), the size of the tube on each; no word lies on another or beyond the margin, not
    even where bends follow each other closely."""
    line = bent(*(row(30, 20, "3:00" if k % 2 else "12:00") for k in range(9)), row(700, 45), last=700)
    part = plan_line(line, kit).part
    data = build_tape(line, part, "3/16 in")
    pages = PdfReader(io.BytesIO(data)).pages
    assert len(pages) == 2
    for number, page in enumerate(pages):
        boxes, (wide, high) = boxes_on(data, number)
        assert (wide * POINT_MM, high * POINT_MM) == pytest.approx((297, 210), abs=0.2)
        assert "3/16 in · paper tape at full size" in page.extract_text()
        assert crossing(boxes) == []
        assert min(left for left, *_ in boxes) >= 20
        assert max(right for _, _, right, _ in boxes) <= wide - 20


LABELS = [
    ("O12", "3/16 in × 0.711 mm copper-nickel", "790 mm", "end A 45° double flare"),
    ("S3", "8 × 1 mm Stahl, Öl", "6000 mm", ""),
]


@pytest.mark.parametrize("words", LABELS)
def test_a_labels_code_is_read_back_by_a_camera(words):
    """Rendered at 300 dots per inch and read by ZXing: the same words as are printed beside it."""
    pdf = build_label(*words)
    page = pypdfium2.PdfDocument(pdf)[0]
    codes = zxingcpp.read_barcodes(page.render(scale=300 / 72).to_pil())
    assert [code.text for code in codes] == ["\n".join(["Bendrel " + words[0], *(w for w in words[1:] if w)])]
    paper = PdfReader(io.BytesIO(pdf)).pages[0]
    assert float(paper.mediabox.width) * POINT_MM == pytest.approx(70, abs=0.1)
    assert float(paper.mediabox.height) * POINT_MM == pytest.approx(25, abs=0.1)
    text = paper.extract_text()
    for word in (*words[:3], words[3] or "both ends plain"):
        assert word in text
    assert crossing(boxes_on(pdf)[0]) == []


def test_what_is_too_long_for_a_label_is_cut_with_a_sign_and_stays_whole_in_the_code():
    long = "3/16 in × 0.711 mm copper-nickel, bought at the chandler's in the spring, soft"
    pdf = build_label("O12", long, "790 mm", "")
    text = PdfReader(io.BytesIO(pdf)).pages[0].extract_text()
    assert long not in text
    assert "…" in text
    image = pypdfium2.PdfDocument(pdf)[0].render(scale=300 / 72).to_pil()
    assert long in zxingcpp.read_barcodes(image)[0].text
