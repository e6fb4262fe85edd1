"""What leaves the program has the part's own hand and lies where the part lies, as others read it.

A part and its mirror image have one length and one volume, so both are compared point by point with a
centreline that is walked apart from the program (tests/measured.py): 12 o'clock of the first bend is +y,
the tube leaves end A along +x, and a positive rotation is clockwise seen from A (right-handed about +x).
"""

from __future__ import annotations

import io
import re
import xml.etree.ElementTree as ET
from itertools import pairwise

import numpy as np
import pytest
import trimesh
from OCP.BRepClass3d import BRepClass3d_SolidClassifier
from OCP.gp import gp_Pnt
from OCP.STEPControl import STEPControl_Reader
from OCP.TopAbs import TopAbs_IN, TopAbs_OUT
from scipy.spatial import cKDTree

from bendrel.core.bend.tube.part import shape_of
from bendrel.core.geometry.bends import BendList
from bendrel.core.plan.planner import plan_line
from bendrel.exchange.shapes.mesh import write_mesh
from bendrel.exchange.shapes.step import write_step
from bendrel.exchange.shapes.svg import draw_svg
from tests.lines import bent, end_of, replace, row
from tests.measured import shop_part, stations, walk

OD, BORE = 4.7625, 3.3405
WALL_AT = (OD + BORE) / 4  # the middle of the wall, from the centreline


def mirrored(part: BendList) -> BendList:
    return replace(part, bends=tuple(replace(bend, rotation_deg=-bend.rotation_deg) for bend in part.bends))


def around(points, ways, distance: float):
    """Four points about each station, square to its way."""
    found = []
    for point, way in zip(points, ways, strict=True):
        one = np.cross(way, [0.3, 0.5, 0.8])
        one /= np.linalg.norm(one)
        other = np.cross(way, one)
        found += [point + distance * side for side in (one, -one, other, -other)]
    return np.array(found)


@pytest.fixture(scope="module")
def solid_of(tmp_path_factory):
    def read(part: BendList):
        file = tmp_path_factory.mktemp("step") / "tube.step"
        file.write_bytes(write_step(part, OD, BORE))
        reader = STEPControl_Reader()
        reader.ReadFile(str(file))
        reader.TransferRoots()
        return reader.OneShape()

    return read


def states(solid, points):
    classified = BRepClass3d_SolidClassifier(solid)
    found = []
    for point in points:
        classified.Perform(gp_Pnt(*map(float, point)), 1e-6)
        found.append(classified.State())
    return set(found)


@pytest.mark.parametrize("seed", [1, 4])
def test_a_step_solid_lies_on_the_part_and_has_its_bore(solid_of, seed):
    """OpenCASCADE's own classifier: wall in, bore and surroundings out, all along the centreline."""
    part = shop_part(seed, bends=3)
    points, ways = stations(part, 12.0)
    points, ways = points[1:-1], ways[1:-1]  # the very ends lie on the faces
    solid = solid_of(part)
    assert states(solid, around(points, ways, WALL_AT)) == {TopAbs_IN}
    assert states(solid, points) == {TopAbs_OUT}
    assert states(solid, around(points, ways, OD / 2 + 0.2)) == {TopAbs_OUT}
    assert TopAbs_OUT in states(solid_of(mirrored(part)), around(points, ways, WALL_AT))


@pytest.mark.parametrize(("kind", "unit_mm"), [("stl", 1.0), ("glb", 1000.0)])
def test_a_mesh_lies_on_the_part(kind, unit_mm):
    """Every corner of the skin lies half an outside or half a bore from the centreline, both ends are cut
    square where the part ends, and the faces look out of the wall."""
    for seed in range(4):
        part = shop_part(seed)
        mesh = trimesh.load(io.BytesIO(write_mesh(part, OD, BORE, kind)), file_type=kind, force="mesh")
        mesh.merge_vertices()
        corners = mesh.vertices * unit_mm
        points, _ = stations(part, 0.5)
        away, _ = cKDTree(points).query(corners)
        on_outside, in_bore = abs(away - OD / 2) < 0.05, abs(away - BORE / 2) < 0.05
        assert (on_outside | in_bore).all()
        assert on_outside.sum() == in_bore.sum()
        skin, _ = cKDTree(corners[on_outside]).query(stations(part, 20.0)[0][[0, -1]])
        assert skin.max() == pytest.approx(OD / 2, abs=0.01)
        first, last = stations(part, 0.5)[0][[0, -1]]
        for end in (first, last):
            assert (np.linalg.norm(corners - end, axis=1) < OD / 2 + 0.01).sum() == 64  # two rings of 32
        assert mesh.is_winding_consistent
        assert mesh.volume > 0
        strange, _ = cKDTree(stations(mirrored(part), 0.5)[0]).query(corners)
        assert strange.max() > OD


LINE = bent(row(90, 90), row(160, 60, "3:00"), row(150, 90, "7:00"), row(90, 45, "10:00"), last=110)


def drawn_strokes(svg: str):
    """(bend number or None, points) of every coloured stroke, in the order they are painted."""
    root = ET.fromstring(svg)
    name = "{http://www.w3.org/2000/svg}"
    lines = root.findall(f"{name}polyline")
    strokes = []
    for line in lines[1::2]:  # each is painted twice: its edge, then its colour
        points = [tuple(map(float, pair.split(","))) for pair in line.get("points").split()]
        number = line.get("data-bend")
        strokes.append((int(number) if number else None, np.array(points)))
    texts = {text.text: (float(text.get("x")), float(text.get("y"))) for text in root.findall(f"{name}text")}
    bars = [[float(line.get(k)) for k in ("x1", "y1", "x2", "y2")] for line in root.findall(f"{name}line")]
    return strokes, texts, np.array(bars)


def paper_axes(shape: BendList, strokes):
    """The map from space to paper that fits the drawn bends best: rows right and down, and an offset."""
    spans, at = [], 0.0
    for bend in shape.bends:
        start = at + bend.straight_mm
        at = start + bend.arc_mm
        spans.append((start, at))
    space, _ = stations(shape, 0.5)
    far = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(space, axis=0), axis=1))])
    there, here = [], []
    for number, points in strokes:
        if number is None:
            continue
        for end, point in zip(spans[number - 1], (points[0], points[-1]), strict=True):
            there.append([*space[np.argmin(abs(far - end))], 1.0])
            here.append(point)
    found, *_ = np.linalg.lstsq(np.array(there), np.array(here), rcond=None)
    assert np.abs(np.array(there) @ found - here).max() < 1.5, "one straight projection draws it all"
    return found[:3, 0], found[:3, 1], found[3]


@pytest.mark.parametrize("view", ["free", "from A", "from B", "above"])
def test_the_drawing_is_the_part_and_not_its_mirror_image(kit, view):
    """Where two runs cross on paper the one painted last must be nearer to the eye; with the paper's axes
    as they come out of the drawing (right, up, right × up towards the eye) a mirrored drawing would need
    the far one on top."""
    part = plan_line(LINE, kit).part
    shape = shape_of(part)
    strokes, texts, bars = drawn_strokes(draw_svg(part, part.views[view]))
    right, down, offset = paper_axes(shape, strokes)
    scale = np.linalg.norm(right)
    assert np.linalg.norm(down) == pytest.approx(scale, rel=0.02), "not stretched"
    assert right @ down == pytest.approx(0, abs=0.02 * scale**2), "not skewed"
    towards = np.cross(right, -down)
    depth = []
    space, _ = stations(shape, 0.5)
    far = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(space, axis=0), axis=1))])
    at = 0.0
    for number, bend in enumerate(shape.bends, start=1):
        start, end = at + bend.straight_mm, at + bend.straight_mm + bend.arc_mm
        inside = space[(far >= start) & (far <= end)]
        depth.append((number, float((inside @ towards).mean())))
        at = end
    painted = [number for number, _ in strokes if number is not None]
    nearer_last = [number for number, _ in sorted(depth, key=lambda pair: pair[1])]
    assert painted == nearer_last
    for name, point in (("End A", space[0]), ("End B", space[-1])):
        tip = np.array([point @ right, point @ down]) + offset
        others = [np.linalg.norm(np.array(texts[n]) - tip) for n in ("End A", "End B")]
        assert np.linalg.norm(np.array(texts[name]) - tip) == min(others)
        assert min(np.linalg.norm(bar[:2] - tip) for bar in bars) < 0.5, "a nut is drawn at its end"


def test_named_views_look_from_where_they_say(kit):
    """From A one looks along the tube, 12 o'clock up and three o'clock on the right (clockwise seen from A);
    above looks square on to the first bend's plane, end A on the left."""
    part = plan_line(LINE, kit).part
    shape = shape_of(part)
    right, down, _ = paper_axes(shape, drawn_strokes(draw_svg(part, part.views["from A"]))[0])
    assert np.cross(right, -down) / np.linalg.norm(right) ** 2 == pytest.approx([-1, 0, 0], abs=0.03)
    three = np.array([0.0, 0.0, 1.0])  # +y is 12 o'clock; clockwise about +x it turns to +z
    assert right / np.linalg.norm(right) == pytest.approx(three, abs=0.03)
    assert -down / np.linalg.norm(down) == pytest.approx([0, 1, 0], abs=0.03)
    right, down, _ = paper_axes(shape, drawn_strokes(draw_svg(part, part.views["above"]))[0])
    assert right / np.linalg.norm(right) == pytest.approx([1, 0, 0], abs=0.03)
    assert -down / np.linalg.norm(down) == pytest.approx([0, 1, 0], abs=0.03)
    _, way = walk(shape)[1:]
    right, down, _ = paper_axes(shape, drawn_strokes(draw_svg(part, part.views["from B"]))[0])
    assert np.cross(right, -down) / np.linalg.norm(right) ** 2 == pytest.approx(way, abs=0.03)


def test_a_bare_end_has_no_nut_and_numbers_stand_at_their_bends(kit):
    bare = replace(LINE, end_b=replace(end_of(LINE, "B"), fitting="plain", nut=None))
    part = plan_line(bare, kit).part
    strokes, texts, bars = drawn_strokes(draw_svg(part, part.views["free"]))
    right, down, offset = paper_axes(shape_of(part), strokes)
    assert len(bars) == 1
    first = stations(shape_of(part))[0][0]
    tip = np.array([first @ right, first @ down]) + offset
    assert np.linalg.norm(bars[0][:2] - tip) < 0.5
    # the bar runs from the rim towards the tube, the length of a nut, no less than 12 mm
    ahead = np.array([right[0], down[0]])
    run = (bars[0][2:] - bars[0][:2]) @ ahead / (ahead @ ahead)
    assert 11.9 <= run <= 40
    for number, corner in enumerate(walk(shape_of(part))[0], start=1):
        spot = np.array([corner @ right, corner @ down]) + offset
        assert np.linalg.norm(np.array(texts[str(number)]) - spot) < 60


def test_strokes_join_from_a_to_b_and_the_box_holds_them(kit):
    part = plan_line(LINE, kit).part
    svg = draw_svg(part, part.views["free"], 760, 480)
    strokes, texts, _ = drawn_strokes(svg)
    ends = sorted(
        (tuple(points[k]) for _, points in strokes for k in (0, -1)), key=lambda p: (round(p[0]), round(p[1]))
    )
    alone = [p for p in ends if sum(np.hypot(p[0] - q[0], p[1] - q[1]) < 0.3 for q in ends) == 1]
    assert len(alone) == 2, "one line with two ends"
    for x, y in [*(tuple(p) for _, points in strokes for p in points), *texts.values()]:
        assert 0 <= x <= 760
        assert 0 <= y <= 480
    spread = np.concatenate([points for _, points in strokes])
    wide, tall = np.ptp(spread, axis=0)
    assert wide == pytest.approx(760 - 112, abs=1) or tall == pytest.approx(480 - 112, abs=1)
    assert re.search(r'aria-label="Drawing of the line, 4 bends"', svg)


def test_labels_of_bends_that_lie_on_each_other_are_pushed_apart(kit):
    tight = bent(row(60, 90), row(50, 90, "6:00"), row(50, 90, "12:00"), row(50, 90, "6:00"), last=60)
    part = plan_line(tight, kit).part
    _, texts, _ = drawn_strokes(draw_svg(part, part.views["from A"]))
    places = list(texts.values())
    assert len(places) == 6
    for one, other in [(a, b) for k, a in enumerate(places) for b in places[k + 1 :]]:
        assert abs(one[0] - other[0]) > 16.9 or abs(one[1] - other[1]) > 16.9
    assert len(places) > 1
    assert all(a != b for a, b in pairwise(places))
