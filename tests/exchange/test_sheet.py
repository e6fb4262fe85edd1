"""The build sheet as the bench reads it: every figure in its own column, worked by hand."""

from __future__ import annotations

import io
import re
from collections import defaultdict
from math import pi

import numpy as np
import pytest
from pypdf import PdfReader

from bendrel.core.line.document import LeftOpen
from bendrel.core.parts.calibration import Calibration
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length
from bendrel.exchange.shapes.sketch import sketch
from tests.lines import bent, end_of, in_order, replace, row, the_tube, with_tube
from tests.paper import boxes_on, crossing, sheet_of

LINE = bent(row(80, 90), row(260, 45, "3:00"), row(320, 60, "6:30"), last=200)
HEADS = ("bend", "mark", "turn the tube", "plane", "angle", "dial", "straight before", "radius")
STARTS = (80, 80 + 23.562 + 260, 80 + 23.562 + 260 + 11.781 + 320)
ARC = {angle: 15 * pi * angle / 180 for angle in (90, 45, 60)}


def words_on(line, kit):
    """(x, y, text) of every run of text on the sheet, in points, and the whole text."""
    data = sheet_of(line, kit, job="Fire tender", machine="water pump", cautions="Mind.", tube="brake")
    page = PdfReader(io.BytesIO(data)).pages[0]
    found = []

    def keep(text, _cm, tm, _font, _size):
        if text.strip():
            found.append((tm[4], tm[5], text.strip()))

    whole = page.extract_text(visitor_text=keep)
    return found, whole


def table(line, kit):
    """The bends in the order of the sheet, each cell under the head it stands below."""
    found, _ = words_on(line, kit)
    level = next(y for x, y, text in found if text == "turn the tube")
    heads = {text: x for x, y, text in found if abs(y - level) < 0.1 and text in HEADS}
    assert tuple(heads) == HEADS
    rows = defaultdict(dict)
    for x, y, text in found:
        for head, at in heads.items():
            if abs(x - at) < 0.1 and y < level - 1:
                rows[round(y, 1)][head] = text
    full = [cells for _, cells in sorted(rows.items(), reverse=True) if set(cells) == set(HEADS)]
    return full[: len(the_tube(line).readings.rows)]


def calibrated(kit, springback=0.05, zero_deg=2.0):
    """The kit with a lever bender whose test pieces told: dial = 1.05 · angle + 2."""
    told = Calibration(
        radius_mm=15.0 / (1 + springback),  # of the die; the share alone opens to 15 mm
        zero_offset_mm=0.0,
        springback=springback,
        springback_deg=zero_deg,
        doubt=(0.1, 0.1, 0.001, 0.1),
        covariance=((0.0,) * 4,) * 4,
        pieces=3,
        odd=(),
    )
    return replace(kit, calibrations={("lever_3-16in", "copper-nickel"): told})


def mm(text):
    assert text.endswith(" mm")
    return float(text[:-3])


def test_each_figure_stands_in_its_own_column(kit):
    """The straight is what the rule read, without the arc; the angle is the finished part's, the dial the
    tool's (1.05 times and 2° more here); the radius keeps the tube wound on the die of 14.29 mm; a mark is
    where the bend starts, from the rim A is flared to."""
    kit = calibrated(kit)
    rows = table(LINE, kit)
    assert [cells["bend"] for cells in rows] == ["1", "2", "3"]
    assert [cells["angle"] for cells in rows] == ["90°", "45°", "60°"]
    assert [float(cells["dial"][:-1]) for cells in rows] == pytest.approx([96.5, 49.25, 65.0], abs=0.051)
    assert [cells["plane"] for cells in rows] == ["12:00", "3:00", "6:30"]
    assert [cells["straight before"] for cells in rows] == ["80 mm", "260 mm", "320 mm"]
    assert [cells["radius"] for cells in rows] == ["15.3 mm", "15.6 mm", "15.5 mm"]
    assert [cells["turn the tube"] for cells in rows] == [
        "as it lies",
        "90° anticlockwise",
        "105° anticlockwise",
    ]


@pytest.mark.parametrize(("left", "origin", "beyond"), [("", "flared rim", 0.0), ("12 mm", "cut end", 14.05)])
def test_marks_say_where_they_are_measured_from(kit, left, origin, beyond):
    """Flared before bending, marks run from the rim; left long and flared after the trial fit, from the cut
    end that still carries the 12 mm and the flare's 2.05 mm."""
    line = replace(LINE, end_a=replace(end_of(LINE, "A"), leave_long=Length(text=left)))
    _, text = words_on(line, kit)
    assert f"Marks from the {origin} at end A (start of bend)" in text
    marks = [mm(cells["mark"]) for cells in table(line, kit)]
    assert marks == pytest.approx([start + beyond for start in STARTS], abs=0.06)


def test_held_at_b_the_rows_and_their_marks_run_from_b(kit):
    line = with_tube(LINE, held="B")
    rows = table(line, kit)
    assert [cells["bend"] for cells in rows] == ["3", "2", "1"]
    _, text = words_on(line, kit)
    assert "Marks from the flared rim at end B" in text
    expected = [200, 200 + ARC[60] + 320, 200 + ARC[60] + 320 + ARC[45] + 260]
    assert [mm(cells["mark"]) for cells in rows] == pytest.approx(expected, abs=0.06)
    assert "end B towards you" in text
    assert [cells["turn the tube"] for cells in rows] == [
        "as it lies",
        "105° anticlockwise",
        "90° anticlockwise",
    ]


def test_a_bend_left_open_shows_both_angles(kit):
    span = replace(the_tube(LINE), left_open=(LeftOpen(row="r2", angle=Angle(text="20")),))
    cells = next(c for c in table(replace(LINE, spans=(span,)), kit) if c["bend"] == "2")
    assert cells["angle"] == "20° › 45°"
    assert float(cells["dial"][:-1]) < 25


def test_the_cut_length_is_the_sum_of_what_stands_above_it(kit):
    """Straights of 80, 260, 320 and 200 mm, arcs of 23.56, 11.78 and 15.71 mm, two flares of 2.05 mm and
    25 mm spare: 940.1 mm."""
    found, text = words_on(LINE, kit)
    assert "940.1 mm" in text
    cut = next(y for _, y, word in found if word == "cut")
    terms = [float(word[:-3]) for x, y, word in found if word.endswith(" mm") and x > 350 and y > cut + 1]
    assert sum(terms) == pytest.approx(940.1, abs=0.2)
    _, text = words_on(replace(LINE, unit="in"), kit)
    assert '37"' in text
    assert "940.1 mm" in text, "millimetres stand beside the inches"


def test_an_order_from_both_ends_is_announced(kit):
    line = with_tube(LINE, order=in_order("A1 B3 B2"))
    _, text = words_on(line, kit)
    assert "until it is changed over" in text
    _, plain = words_on(LINE, kit)
    assert "until it is changed over" not in plain


def test_a_corner_that_does_not_exist_has_no_mark(kit):
    """From 170° up there is no corner to mark from."""
    line = bent(row(80, 175), row(400, 45, "3:00"), last=200, marks="corner")
    assert next(cells["mark"] for cells in table(line, kit)) == "none"
    assert "corner less take-up" in words_on(line, kit)[1]


def test_a_sheet_without_a_part_is_refused(kit):
    with pytest.raises(ValueError, match="nothing to print"):
        words_on(bent(row("", 90)), kit)


@pytest.mark.parametrize("count", [0, 3, 12, 30])
@pytest.mark.parametrize("unit", ["mm", "in"])
def test_nothing_on_the_sheet_lies_on_anything_else_or_over_the_edge(kit, count, unit):
    """A margin of 14 mm (39.7 points) all round, as printers want it."""
    rows = [row(100, 45, "3:00" if k % 2 else "12:00") for k in range(count)]
    line = replace(bent(*rows), name="Rear axle, left, from the hose bracket", unit=unit)
    cautions = " ".join(caution.text for caution in kit.cautions_at("brake"))
    data = sheet_of(
        line,
        kit,
        job="Fire tender",
        machine="water pump",
        cautions=cautions,
        tube="brake · 3/16 in × 0.711 mm copper-nickel",
    )
    for page in (0, 1):  # that of the making, that of the flares
        boxes, (wide, high) = boxes_on(data, page)
        assert len(boxes) > 20
        assert crossing(boxes) == []
        for left, bottom, right, top in boxes:
            assert left >= 39
            assert right <= wide - 39
            assert bottom >= 20
            assert top <= high - 30


def test_stops_that_are_longer_than_their_bar_are_cut_with_a_sign(kit):
    line = bent(*(row(12, 90, "3:00" if k % 2 else "12:00", radius=4) for k in range(6)))
    line = with_tube(line, tube="steel-coated_3-16in_0.711")
    _, whole = words_on(line, kit)
    told = next(text for text in whole.splitlines() if text.startswith("DO NOT MAKE YET"))
    assert told.endswith("…")
    data = sheet_of(line, kit)
    boxes, (wide, _) = boxes_on(data)
    assert max(right for _, _, right, _ in boxes) <= wide - 39


def drawn_on(line, kit):
    """The sheet's drawing as the PDF has it: broken lines, short bars, rounds (centre, radius) in points."""
    data = sheet_of(line, kit)
    content = PdfReader(io.BytesIO(data)).pages[0].get_contents().get_data().decode("latin-1")
    paths = []
    for found in re.finditer(r"(-?[\d.]+) (-?[\d.]+) m((?:\s+-?[\d.]+ -?[\d.]+ l)+)", content):
        pairs = re.findall(r"(-?[\d.]+) (-?[\d.]+) l", found[3])
        paths.append([(float(found[1]), float(found[2])), *((float(x), float(y)) for x, y in pairs)])
    rounds = []
    for found in re.finditer(r"(-?[\d.]+) (-?[\d.]+) m((?:\s+(?:-?[\d.]+ ){6}c){4})", content):
        ends = [(float(x), float(y)) for x, y in re.findall(r"(-?[\d.]+) (-?[\d.]+) c", found[3])]
        xs, ys = [x for x, _ in ends], [y for _, y in ends]
        rounds.append((((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2), (max(xs) - min(xs)) / 2))
    return paths, rounds


def test_the_drawing_on_the_sheet_is_the_lines_own(kit):
    """Every run of the tube as one broken line, a bar at each nut, each number in the middle of its round:
    the places of the sketch (which is held against the part in space), moved to one corner of the paper."""
    part = plan_line(LINE, kit).part
    told = sketch(part, part.views["free"], 118 * 72 / 25.4, 78 * 72 / 25.4, 11 * 72 / 25.4)
    paths, rounds = drawn_on(LINE, kit)
    words, _ = words_on(LINE, kit)
    numbers = {label.text: label.at for label in told.labels if not label.end}
    first = next(iter(numbers.values()))
    corner = np.array(rounds[0][0]) - [first[0], -first[1]]
    placed = {text: np.array([x, -y]) + corner for text, (x, y) in numbers.items()}
    assert len(rounds) == len(numbers) == 3
    for (centre, radius), place in zip(rounds, placed.values(), strict=True):
        assert np.array(centre) == pytest.approx(place, abs=0.02)
        assert radius == pytest.approx(6.5, abs=0.01)
    for text, place in placed.items():
        at = min((np.hypot(x - place[0], y - place[1]) for x, y, word in words if word == text), default=99)
        assert at < 6.5, "the number stands in its round"
    for stroke in told.strokes:
        wanted = np.array(stroke.points) * [1, -1] + corner
        assert any(
            len(path) == len(wanted) and np.abs(np.array(path) - wanted).max() < 0.02 for path in paths
        ), stroke.number
    for a, b in told.ends:
        bar = np.array([a, b]) * [1, -1] + corner
        assert any(len(path) == 2 and np.abs(np.array(path) - bar).max() < 0.02 for path in paths)
    for end in ("A", "B"):
        label = next(label for label in told.labels if label.text == end)
        place = np.array(label.at) * [1, -1] + corner
        assert any(word == end and np.hypot(x - place[0], y - place[1]) < 8 for x, y, word in words)
