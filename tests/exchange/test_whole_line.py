"""The whole line on paper and as SVG: places worked out by hand, every kind in its own manner."""

import io
import re
import xml.etree.ElementTree as ET
from dataclasses import replace
from typing import get_args

import pytest
from pypdf import PdfReader

from bendrel.catalogue.signs import load_signs
from bendrel.core.line.condition import Fixture
from bendrel.core.line.document import ComponentKind, ComponentSpan, HoseSpan, Joint
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length
from bendrel.exchange.shapes.sketch_line import sketch_line
from bendrel.exchange.shapes.svg import draw_line_svg
from tests.lines import bent
from tests.paper import sheet_of

SVG = "{http://www.w3.org/2000/svg}"


def line_of(*spans, joints=()):
    tube = bent(last=100, service="cooler", tube="steel-seamless_8mm_1", bender="lever_8mm")
    made = [replace(tube.spans[0], id=span, state="stays") if span == "old" else span for span in spans]
    made = [replace(tube.spans[0], id=span) if isinstance(span, str) else span for span in made]
    return replace(tube, spans=tuple(made), joints=joints)


def svg_of(kit, line, look="above"):
    plan = plan_line(line, kit)
    return ET.fromstring(draw_line_svg(sketch_line(line, plan, plan.in_space, look, 760, 480, 60)))


def points(element):
    return [tuple(map(float, pair.split(","))) for pair in element.get("points").split()]


def test_an_elbow_stands_where_plane_geometry_puts_it(kit):
    """100 along, an elbow of 60 with 90° in its middle, 100 behind it: 130 across and 130 up, so the paper's
    box of 640 × 360 is filled upwards and a mm takes 360/130."""
    elbow = ComponentSpan(id="e", what="elbow", length=Length(text="60"), turn=Angle(text="90"))
    drawn = svg_of(kit, line_of("t", elbow, "u"))
    first = points(drawn.find(f"{SVG}polyline[@data-span='t']"))
    last = points(drawn.find(f"{SVG}polyline[@data-span='u']"))
    scale = 360 / 130
    assert first[-1][0] - first[0][0] == pytest.approx(100 * scale, abs=0.2)
    assert last[-1][0] - first[0][0] == pytest.approx(130 * scale, abs=0.2)
    assert first[0][1] - last[-1][1] == pytest.approx(130 * scale, abs=0.2)


def test_clips_are_bars_across_the_line_where_they_sit(kit):
    """Two tubes of 100 in one straight: 640 units for 200 mm, from 60 on; a clip of no
    named tube is on the main one."""
    line = line_of("t", "u", joints=(Joint(kind="union"),))
    clips = (Fixture(at=Length(text="25")), Fixture(at=Length(text="50"), span="u"))
    drawn = svg_of(kit, replace(line, condition=replace(line.condition, fixtures=clips)))
    bars = [points(bar) for bar in drawn.iter(f"{SVG}polyline") if bar.get("data-clip") is not None]
    assert [(a[0], b[0]) for a, b in bars] == [(140, 140), (540, 540)]
    assert all(abs(a[1] - b[1]) == 16 for a, b in bars)


def test_new_tube_old_tube_and_hose_are_drawn_in_their_own_ways(kit):
    hose = HoseSpan(id="h", hose="cooler_5-16in", length=Length(text="120"))
    drawn = svg_of(kit, line_of("t", hose, "old"))
    lines = list(drawn.iter(f"{SVG}polyline"))
    widths = {
        span: {
            line.get("stroke-width") for line in drawn.iter(f"{SVG}polyline") if line.get("data-span") == span
        }
        for span in ("t", "h", "old")
    }
    assert max(map(float, widths["t"])) > 4
    assert widths["old"] == {"1.6"}
    assert widths["h"] == {"1.6"}
    assert len([line for line in lines if line.get("stroke-width") == "1.2"]) > 3
    words = [text.text for text in drawn.iter(f"{SVG}text")]
    assert sorted(words) == ["End A", "End B", "hose", "tube 1", "tube 2, stays"]


def test_every_kind_of_component_has_a_sign_of_its_own(kit):
    assert set(load_signs()) == set(get_args(ComponentKind))
    shapes = set()
    for kind in get_args(ComponentKind):
        drawn = svg_of(kit, line_of("t", ComponentSpan(id="c", what=kind)))
        sign = drawn.find(f"{SVG}g[@data-span='c']")
        shapes.add("".join(re.sub(r"transform=\S+ \S+", "", ET.tostring(part).decode()) for part in sign))
    assert len(shapes) == len(get_args(ComponentKind))


def test_the_sheet_has_a_page_of_the_whole_line(kit):
    joint = Joint(kind="compression-union", why="sound on both sides")
    filtered = ComponentSpan(id="f", what="filter", points="B", length=Length(text="80 mm"))
    line = line_of("t", "old", filtered, joints=(joint,))
    sheet = sheet_of(line, kit)
    texts = [page.extract_text() for page in PdfReader(io.BytesIO(sheet)).pages]
    page = next(text for text in texts if ": the whole line" in text)
    assert "tube 1, 8 mm seamless steel" in page
    assert "this sheet" in page
    assert "tube 2, stays" in page
    assert "sound on both sides" in page
    assert "filter, arrow to B, 80 mm" in page


def test_a_line_of_one_tube_has_no_page_of_the_whole_line(kit):
    first, *others = PdfReader(io.BytesIO(sheet_of(line_of("t"), kit))).pages
    assert "Fit and prove" not in first.extract_text()
    assert all(": the whole line" not in page.extract_text() for page in others)
    assert any("Fit and prove" in page.extract_text() for page in others)
