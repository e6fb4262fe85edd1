"""The jig sheet and its blocks: lengths on the paper, heights, the target's clock, files read by others."""

from __future__ import annotations

import io
from dataclasses import replace

import ezdxf
import numpy as np
import pypdfium2
import pytest
import trimesh
from pypdf import PdfReader
from pypdf.generic import ContentStream
from scipy.spatial.transform import Rotation

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.fitting.jig import lay_on_board
from bendrel.core.bend.tube.part import shape_of
from bendrel.core.geometry.bends import BendList
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


def test_the_board_is_the_part_turned_and_not_mirrored():
    """One rigid motion carries the part, walked along by itself, to the board: its ends, its bends' middles,
    the way of end B and the side of its 12 o'clock. SciPy's fit of a rotation has no mirror image."""
    rng = np.random.default_rng(5)
    for _ in range(10):
        plan = some_plan(rng)
        shape, port = fit_shape(plan), Port(plan)
        jig = laid(shape)
        board = np.array([(r.x_mm, r.y_mm, r.high_mm + OD / 2) for r in jig.rests])
        there = np.array([np.zeros(3), *middles(shape), port.point])
        motion, miss = Rotation.align_vectors(board - board.mean(0), there - there.mean(0))
        assert miss < 1e-4
        target = jig.target
        ahead, rise = np.radians(target.way_deg), np.radians(target.rise_deg)
        way = np.array([np.cos(ahead) * np.cos(rise), np.sin(ahead) * np.cos(rise), np.sin(rise)])
        assert way == pytest.approx(motion.apply(port.way), abs=1e-6)
        up = np.array([0, 0, 1.0]) if abs(way[2]) < 0.91 else np.array([0, 1.0, 0])
        up -= way * (up @ way)
        up /= np.linalg.norm(up)
        # clockwise, seen along the tube from A
        noon = Rotation.from_rotvec(way * np.radians(target.noon_deg)).apply(up)
        assert noon == pytest.approx(motion.apply(port.noon), abs=1e-6)
        for rest, along in zip(jig.rests, ways_there(shape), strict=True):
            x, y, _ = motion.apply(along)
            assert np.cos(np.radians(rest.way_deg) - np.arctan2(y, x)) == pytest.approx(1)


def middles(shape):
    """The middle of every bend's arc, walked to with half of it."""
    return [walk(half_way(shape, k))[1] for k in range(len(shape.bends))]


def half_way(shape, k):
    bends = (*shape.bends[:k], replace(shape.bends[k], angle_deg=shape.bends[k].angle_deg / 2))
    return BendList(bends=bends, last_straight_mm=0.0)


def ways_there(shape):
    """Which way the tube runs at end A, in the middle of each bend, and at end B."""
    return [
        np.array([1.0, 0, 0]),
        *(walk(half_way(shape, k))[2] for k in range(len(shape.bends))),
        walk(shape)[2],
    ]


def test_what_is_printed_lies_where_the_part_does():
    """Strokes read back from the PDF, in mm on the board: the centreline, the blocks, the stop across end A,
    and the rings of the target."""
    shape = shape_of(plan_line(LINE, KIT).part)
    jig = laid(shape)
    card, *tiles = PdfReader(io.BytesIO(build_jig(LINE, jig, "3/16 in"))).pages
    columns = int(np.ceil(jig.wide_mm / 260))
    drawn = []
    for number, tile in enumerate(tiles):
        shift = np.array([18 - number % columns * 260, 18 - number // columns * 160])
        drawn.append([(np.array(p) - shift, np.array(q) - shift) for p, q in strokes(tile)])
    a, b = jig.rests[0], jig.rests[-1]
    stop = square_to(a.way_deg, np.array([a.x_mm, a.y_mm]), 15)
    rim = square_to(b.way_deg, np.array([b.x_mm, b.y_mm]), 10)
    centre = [(*p[:2], *q[:2]) for p, q in zip(jig.path, jig.path[1:], strict=False)]
    # every tile carries the whole plan, clipped: joined cross on cross they are one
    for tile in drawn:
        printed = np.array([(*p, *q) for p, q in tile])
        for wanted in (stop, rim, *centre):
            assert np.abs(printed - wanted).max(axis=1).min() < 0.02
    radii = sorted(round(r, 2) for r in circles(card))
    assert radii == pytest.approx(sorted([OD / 2, *(OD / 2 + ring for ring in range(1, 11))]), abs=0.02)


def square_to(way_deg, at, reach):
    """A stroke across the tube, from its right side to its left."""
    left = np.array([-np.sin(np.radians(way_deg)), np.cos(np.radians(way_deg))])
    return (*(at - left * reach), *(at + left * reach))


def strokes(page):
    """Straight lines of a page in mm, each with the motion that stood for it in the content stream."""
    found, now, kept, start = [], np.eye(3), [], None
    for values, name in ContentStream(page.get_contents(), page.pdf).operations:
        figures = [float(v) for v in values] if name in (b"cm", b"m", b"l") else []
        if name == b"q":
            kept.append(now)
        elif name == b"Q":
            now = kept.pop()
        elif name == b"cm":
            a, b, c, d, e, f = figures
            now = now @ np.array([[a, c, e], [b, d, f], [0, 0, 1]])
        elif name == b"m":
            start = now @ [*figures, 1]
        elif name == b"l" and start is not None:
            stop = now @ [*figures, 1]
            found.append((start[:2] * 25.4 / 72, stop[:2] * 25.4 / 72))
            start = stop
    return found


def circles(page):
    """Radii in mm of the rings of a page: of every closed curve of four arcs half its width."""
    found, across = [], []
    for values, name in ContentStream(page.get_contents(), page.pdf).operations:
        if name == b"m":
            across = [float(values[0])]
        elif name == b"c":
            across.append(float(values[4]))
        elif name in (b"S", b"s") and len(across) >= 5:
            found.append((max(across) - min(across)) / 2 * 25.4 / 72)
    return found


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


def test_a_part_held_at_b_has_its_stop_there_and_its_target_at_a():
    """The spare tube stands at A: with it against the stop every bend would lie beside its block."""
    shape = shape_of(plan_line(LINE, KIT).part)
    from_a = laid(shape)
    from_b = lay_on_board(shape, OD, least_mm=8.0, margin_mm=35.0, home="B")
    assert [rest.name for rest in from_b.rests] == [rest.name for rest in from_a.rests][::-1]
    there, here = (
        {rest.name: np.array([rest.x_mm, rest.y_mm, rest.high_mm]) for rest in jig.rests}
        for jig in (from_a, from_b)
    )
    for one in there:
        for other in there:
            apart = np.linalg.norm(there[one] - there[other])
            assert np.linalg.norm(here[one] - here[other]) == pytest.approx(apart, abs=1e-6)
    at_a = here["A"] + [0, 0, OD / 2]
    assert (from_b.target.x_mm, from_b.target.y_mm, from_b.target.high_mm) == pytest.approx(tuple(at_a))
    # the way out of end A is where its last leg, towards the first bend, comes from
    way = np.array(from_b.path[-1]) - np.array(from_b.path[-2])
    assert np.degrees(np.arctan2(way[1], way[0])) == pytest.approx(from_b.target.way_deg, abs=1e-6)
    document = pypdfium2.PdfDocument(build_jig(LINE, from_b, "3/16 in"))
    words = document[0].get_textpage().get_text_bounded()
    assert "Target for end A, seen from B" in words
    assert "bend 4 at 12" in words
    assert "End B against its stop" in words


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


def test_blocks_lie_apart_on_the_print_bed():
    jig = laid(shape_of(plan_line(LINE, KIT).part))
    mesh = trimesh.load(io.BytesIO(write_blocks_stl(jig)), file_type="stl")
    solids = mesh.split()
    assert len(solids) == len(jig.rests) + 1
    for k, one in enumerate(solids):
        for other in solids[k + 1 :]:
            (low, high), (low2, high2) = one.bounds, other.bounds
            gap = np.maximum(low - high2, low2 - high)[:2].max()
            assert gap >= 2
