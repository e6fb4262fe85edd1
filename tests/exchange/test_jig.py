"""The jig sheet and its blocks: lengths on the paper, heights, the target's clock, files read by others."""

from __future__ import annotations

import io

import ezdxf
import numpy as np
import pypdfium2
import pytest
import trimesh
from scipy.spatial.distance import pdist

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.fitting.jig import lay_on_board
from bendrel.core.bend.tube.part import shape_of
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.notation import format_length
from bendrel.exchange.errors import FileError
from bendrel.exchange.paper.jig_blocks import write_blocks_dxf, write_blocks_stl
from bendrel.exchange.paper.jig_sheet import build_jig
from tests.core.fit_bench import Port, some_plan
from tests.core.test_fit import shape_of as fit_shape
from tests.lines import bent, row
from tests.measured import walk

KIT = load_kit()
LINE = bent(row(80, 90), row(150, 45, "3:00"), row(120, 60, "6:00"), row(140, 90, "9:00"), last=120)
OD = 4.7625


def laid(shape):
    return lay_on_board(shape, OD, least_mm=8.0, margin_mm=35.0)


def test_the_part_on_its_board_is_the_part():
    """Every distance between its ends and bends is that of a walk along it."""
    rng = np.random.default_rng(3)
    for _ in range(10):
        plan = some_plan(rng)
        shape = fit_shape(plan)
        jig = laid(shape)
        there = np.array([(r.x_mm, r.y_mm, r.high_mm + OD / 2) for r in jig.rests])
        _, end, _ = walk(shape)
        assert np.linalg.norm(there[-1] - there[0]) == pytest.approx(np.linalg.norm(end), abs=1e-6)
        assert min(h for _, _, h in jig.path) == pytest.approx(8.0 + OD / 2)
        assert jig.path
        assert all(35 - 1e-6 <= x <= jig.wide_mm - 35 + 1e-6 for x, _, _ in jig.path)


def test_the_target_shows_the_lines_own_clock():
    """A rigid part with its end moved towards 3 o'clock at the port moves the same way on the board."""
    rng = np.random.default_rng(5)
    for _ in range(10):
        plan = some_plan(rng)
        shape, port = fit_shape(plan), Port(plan)
        jig = laid(shape)
        target = jig.target
        ahead, rise = np.radians(target.way_deg), np.radians(target.rise_deg)
        way = np.array([np.cos(ahead) * np.cos(rise), np.sin(ahead) * np.cos(rise), np.sin(rise)])
        up = np.array([0, 0, 1.0]) if abs(way[2]) < 0.91 else np.array([0, 1.0, 0])
        up -= way * (up @ way)
        up /= np.linalg.norm(up)
        noon = np.cos(np.radians(target.noon_deg)) * up + np.sin(np.radians(target.noon_deg)) * np.cross(
            way, up
        )
        # the same motion carries the port of the plan to the board: three points fix it
        plan_points = np.array([[0, 0, 0], port.point, port.point + 10 * port.noon])
        rest = {r.name: np.array([r.x_mm, r.y_mm, r.high_mm + OD / 2]) for r in jig.rests}
        board = np.array([rest["A"], rest["B"], rest["B"] + 10 * noon])
        assert pdist(board) == pytest.approx(pdist(plan_points), abs=1e-6)


def test_the_sheet_names_every_block_and_its_ruler_is_true():
    jig = laid(shape_of(plan_line(LINE, KIT).part))
    document = pypdfium2.PdfDocument(build_jig(LINE, jig, "3/16 in"))
    assert len(document) == 1 + 3 * 2
    words = " ".join(page.get_textpage().get_text_bounded() for page in document)
    for rest in jig.rests:
        name = "bend" if rest.bend else "end"
        assert f"{name} {rest.name} · {format_length(rest.high_mm, 'mm')}" in words
    assert "must measure 100 mm" in words
    # the tile's frame is 260 by 160 mm, in points of 1/72 in
    frames = [obj.get_bounds() for obj in document[1].get_objects()]
    assert any(
        (right - left, top - low) == pytest.approx((260 * 72 / 25.4, 160 * 72 / 25.4), abs=1.5)
        for left, low, right, top in frames
    )


def test_a_part_too_large_for_paper_is_refused_with_the_number_of_sheets():
    long = bent(row(4000, 90), row(3000, 90, "3:00"), last=2000)
    jig = laid(shape_of(plan_line(long, KIT).part))
    with pytest.raises(FileError, match=r"needs \d+ sheets of paper; a jig sheet has up to 40"):
        build_jig(long, jig, "3/16 in")


def test_blocks_are_solids_of_the_heights_of_the_sheet():
    jig = laid(shape_of(plan_line(LINE, KIT).part))
    mesh = trimesh.load(io.BytesIO(write_blocks_stl(jig)), file_type="stl")
    assert mesh.is_watertight
    tops = {round(float(z), 3) for z in mesh.vertices[:, 2]}
    for rest in jig.rests:
        assert any(abs(z - rest.high_mm) < 2e-3 for z in tops)
    drawing = ezdxf.read(io.StringIO(write_blocks_dxf(jig)))
    outlines = [entity for entity in drawing.modelspace() if entity.dxftype() == "LWPOLYLINE"]
    assert len(outlines) == len(jig.rests)
    for outline, rest in zip(outlines, jig.rests, strict=True):
        heights = sorted({round(y, 6) for _, y, *_ in outline.get_points()})
        assert heights[1] == pytest.approx(rest.high_mm, abs=1e-5)
        assert outline.closed
