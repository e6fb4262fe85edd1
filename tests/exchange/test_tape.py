"""The paper tape and labels, measured in the PDF's own coordinates."""

from __future__ import annotations

import io
import re

import pytest
from pypdf import PdfReader

from bendrel.catalogue.loader import load_kit
from bendrel.core.plan.assemble import plan_line
from bendrel.exchange.label import build_label, label_text
from bendrel.exchange.tape import LEFT_MM, STRETCH_MM, build_tape, tape_marks
from tests.lines import bent, row

POINT_MM = 25.4 / 72  # PDF 32000-1, 8.3.2.3: a user unit is 1/72 inch
LINE = bent(row(80, 90), row(260, 45, "3:00"), row(320, 60, "6:30"), last=200)
PART = plan_line(LINE, load_kit()).part


def strokes(page):
    """Every straight line of a page, (x1, y1, x2, y2) in mm, read from its content stream."""
    text = page.get_contents().get_data().decode("latin-1")
    assert " cm" not in re.sub(r"1 0 0 1 0 0 cm", "", text), "nothing is scaled"
    number = r"(-?[\d.]+)"
    found = re.findall(rf"{number} {number} m {number} {number} l", text)
    return [tuple(float(v) * POINT_MM for v in line) for line in found]


def test_marks_lie_where_they_should_within_a_tenth():
    pages = PdfReader(io.BytesIO(build_tape(LINE, PART, "3/16 in"))).pages
    upright = [
        (page, x1, y1)
        for page, sheet in enumerate(pages)
        for x1, y1, x2, y2 in strokes(sheet)
        if abs(x1 - x2) < 1e-6 and abs(abs(y1 - y2) - 14.96) < 0.2  # the tape's width, π · 4.7625
    ]
    assert len(upright) >= len(tape_marks(PART))
    rows = sorted({(page, -round(y, 3)) for page, _, y in upright})
    measured = [STRETCH_MM * rows.index((page, -round(y, 3))) + x - LEFT_MM for page, x, y in upright]
    for mark in tape_marks(PART):
        assert min(abs(at - mark.at_mm) for at in measured) < 0.1, mark.text


def test_the_tape_says_the_marks_of_the_plan():
    """Bends from A's rim in the held school, the rims and both cuts; lengths add up to the cut."""
    marks = tape_marks(PART)
    assert marks[-1].at_mm == pytest.approx(PART.beyond_mm["A"] + PART.developed_mm + PART.beyond_mm["B"])
    bends = [mark for mark in marks if mark.clock_deg is not None]
    assert [mark.at_mm for mark in bends] == pytest.approx([move.mark_mm for move in PART.moves])
    assert [mark.clock_deg for mark in bends] == [0, 90, 195]


def test_the_check_ruler_is_a_hundred_millimetres():
    pages = PdfReader(io.BytesIO(build_tape(LINE, PART, "3/16 in"))).pages
    level = [abs(x2 - x1) for x1, y1, x2, y2 in strokes(pages[0]) if abs(y1 - y2) < 1e-6 and y1 < 12]
    assert any(abs(length - 100) < 0.1 for length in level)
    assert any(abs(length - 101.6) < 0.1 for length in level)


def test_stretches_meet_at_registration_crosses():
    pages = PdfReader(io.BytesIO(build_tape(LINE, PART, "3/16 in"))).pages
    crosses = [
        (x1 + x2) / 2
        for x1, y1, x2, y2 in strokes(pages[0])
        if abs(y1 - y2) < 1e-6 and abs(abs(x1 - x2) - 4) < 0.01
    ]
    assert any(abs(x - LEFT_MM) < 0.1 for x in crosses)
    assert any(abs(x - LEFT_MM - STRETCH_MM) < 0.1 for x in crosses)
    text = pages[0].extract_text()
    assert "Print at 100 %" in text


def test_a_label_says_what_it_is_in_words_and_in_its_code():
    pdf = build_label("O12", "3/16 in × 0.711 mm copper-nickel", "790 mm", "end A 45° double flare")
    page = PdfReader(io.BytesIO(pdf)).pages[0]
    text = page.extract_text()
    assert "O12" in text
    assert "790 mm" in text
    assert float(page.mediabox.width) * POINT_MM == pytest.approx(70, abs=0.1)
    assert label_text("O12", "tube", "790 mm", "") == "Bendrel O12\ntube\n790 mm"
