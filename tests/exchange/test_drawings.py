"""DXF, STEP, STL and glTF against the libraries that read them elsewhere."""

import io
import random
from dataclasses import replace
from math import pi

import ezdxf
import numpy as np
import pytest
import trimesh
from OCP.BRepGProp import BRepGProp
from OCP.GProp import GProp_GProps
from OCP.IFSelect import IFSelect_RetDone
from OCP.STEPControl import STEPControl_Reader
from OCP.TopAbs import TopAbs_SOLID

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.exchange.errors import FileError
from bendrel.exchange.shapes.dxf import corners_of, read_dxf, write_dxf
from bendrel.exchange.shapes.mesh import write_mesh
from bendrel.exchange.shapes.step import NOT_INSTALLED, write_step
from tests.measured import marks, shop_part
from tests.parts import random_part

OD, BORE = 4.7625, 3.3405


def same(a: BendList, b: BendList, tolerance: float = 1e-6):
    for left, right in zip(a.bends, b.bends, strict=True):
        assert left.straight_mm == pytest.approx(right.straight_mm, abs=tolerance)
        assert left.angle_deg == pytest.approx(right.angle_deg, abs=tolerance)
        assert left.radius_mm == pytest.approx(right.radius_mm, abs=tolerance)
        assert (left.rotation_deg - right.rotation_deg + 180) % 360 - 180 == pytest.approx(0, abs=1e-5)
    assert a.last_straight_mm == pytest.approx(b.last_straight_mm, abs=tolerance)


def test_dxf_passes_the_audit_and_comes_back_the_same():
    for seed in range(40):
        part = random_part(seed, bends=1 + seed % 9)
        text = write_dxf(part)
        audit = ezdxf.read(io.StringIO(text)).audit()
        assert audit.errors == []
        drawing = read_dxf(text)
        assert (drawing.unit_mm, drawing.unit_from) == (1.0, "said")
        same(drawing.shape, part)


def test_dxf_curves_have_the_planned_length():
    """Lengths added up by ezdxf's own arcs and lines."""
    part = shop_part(11)
    space = ezdxf.read(io.StringIO(write_dxf(part))).modelspace()
    total = sum(
        e.dxf.start.distance(e.dxf.end)
        if e.dxftype() == "LINE"
        else e.dxf.radius * np.radians((e.dxf.end_angle - e.dxf.start_angle) % 360)
        for e in space
    )
    assert total == pytest.approx(marks(part)[1], abs=1e-6)


def drawn(draw, units=0):
    document = ezdxf.new("R2010")
    document.units = units
    draw(document.modelspace())
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def test_runs_drawn_in_any_order_and_direction_make_one_line():
    part = shop_part(5, bends=3)
    source = ezdxf.read(io.StringIO(write_dxf(part)))
    entities = list(source.modelspace())

    def draw(space):
        first = entities[0]
        space.add_line(first.dxf.start, first.dxf.end)
        for entity in reversed(entities[1:]):
            if entity.dxftype() == "LINE":
                space.add_line(entity.dxf.end, entity.dxf.start)
            else:
                space.add_foreign_entity(entity)

    same(read_dxf(drawn(draw, 4)).shape, part)


def backwards(part: BendList) -> BendList:
    """The same part from its other end: straights and bends in reverse, each rotation with the bend it leads
    to (plane to plane, seen either way, clockwise stays clockwise)."""
    turns = [0.0, *(bend.rotation_deg for bend in part.bends[1:])][::-1]
    straights = part.straights_mm[::-1]
    bends = tuple(
        replace(bend, straight_mm=straight, rotation_deg=turn if k else 0.0)
        for k, (bend, straight, turn) in enumerate(
            zip(part.bends[::-1], straights, [0.0, *turns[:-1]], strict=False)
        )
    )
    return BendList(bends=bends, last_straight_mm=straights[-1])


@pytest.mark.parametrize("seed", range(12))
def test_runs_in_any_order_are_chained_from_the_end_that_was_drawn_first(seed):
    """Lines turned round at random, everything shuffled; arcs have only one direction in a drawing. Either
    end may come first; the part is the same and never its mirror image."""
    rng = random.Random(seed)
    part = shop_part(seed, bends=3)
    entities = list(ezdxf.read(io.StringIO(write_dxf(part))).modelspace())
    rng.shuffle(entities)

    def draw(space):
        for entity in entities:
            if entity.dxftype() == "LINE" and rng.random() < 0.5:
                space.add_line(entity.dxf.end, entity.dxf.start)
            else:
                space.add_foreign_entity(entity)

    told = read_dxf(drawn(draw, 4)).shape
    ahead = abs(told.bends[0].straight_mm - part.bends[0].straight_mm) < 1e-6
    same(told, part if ahead else backwards(part))


def test_planes_that_lie_opposite_are_half_a_turn_and_never_minus_half():
    bends = tuple(Bend(straight_mm=60, rotation_deg=t, angle_deg=50, radius_mm=15) for t in (0, 180, 180))
    read = read_dxf(write_dxf(BendList(bends=bends, last_straight_mm=60))).shape
    assert [bend.rotation_deg for bend in read.bends] == pytest.approx([0, 180, 180])


def test_an_arc_drawn_in_two_pieces_is_one_bend():
    """30° and 60° about the same centre, drawn one after the other, are a bend of 90°."""

    def draw(space):
        space.add_line((0, 0), (100, 0))
        space.add_arc((100, 20), 20, 270, 300)
        space.add_arc((100, 20), 20, 300, 360)
        space.add_line((120, 20), (120, 90))

    told = read_dxf(drawn(draw, 4)).shape
    assert [(bend.straight_mm, bend.angle_deg, bend.radius_mm) for bend in told.bends] == [
        pytest.approx((100, 90, 20))
    ]
    assert told.last_straight_mm == pytest.approx(70)


def test_a_polyline_gives_corners_and_asks_for_a_radius():
    points = [(0, 0, 0), (100, 0, 0), (100, 80, 0), (100, 80, 60)]
    drawing = read_dxf(drawn(lambda space: space.add_polyline3d(points), 4))
    assert drawing.shape is None
    assert np.allclose(drawing.points, points)
    assert corners_of(drawing, 15).radii_mm == (15, 15)


def test_a_light_polyline_with_bulges_has_its_arcs():
    """A bulge of tan(90°/4) is a quarter circle (DXF reference): radius 20 between (80,0) and (100,20)."""
    bulge = np.tan(np.radians(90) / 4)
    points = [(0, 0, 0), (80, 0, bulge), (100, 20, 0), (100, 90, 0)]
    drawing = read_dxf(drawn(lambda space: space.add_lwpolyline(points, format="xyb"), 4))
    bend = drawing.shape.bends[0]
    assert (bend.angle_deg, bend.radius_mm, bend.straight_mm) == pytest.approx((90, 20, 80))


@pytest.mark.parametrize(
    ("units", "size", "chosen", "taken"),
    [(0, 10, None, (25.4, "guessed")), (0, 500, None, (1.0, "guessed")), (1, 500, None, (25.4, "said")),
     (0, 10, "mm", (1.0, "chosen")), (5, 10, None, (10.0, "said"))],
)  # fmt: skip
def test_the_unit_is_taken_from_the_file_guessed_or_chosen(units, size, chosen, taken):
    text = drawn(lambda space: space.add_line((0, 0, 0), (size, 0, 0)), units)
    drawing = read_dxf(text, chosen)
    assert (drawing.unit_mm, drawing.unit_from) == taken
    assert drawing.points[1][0] == pytest.approx(size * taken[0])


@pytest.mark.parametrize(
    ("draw", "said"),
    [
        (lambda space: space.add_text("note"), "no line, arc or polyline"),
        (lambda space: (space.add_line((0, 0), (10, 0)), space.add_line((50, 50), (60, 50))), "not one line"),
        (lambda space: space.add_polyline3d([(0, 0), (50, 0), (50, 50), (0, 0)]), "two ends"),
        (
            lambda space: (space.add_line((0, 0), (50, 0)), space.add_arc((60, 0), 10, 180, 270)),
            "corner without an arc",
        ),
        (lambda space: space.add_line((0, 0), (1e7, 0)), "over 100 m"),
    ],
)
def test_drawings_that_are_no_line(draw, said):
    with pytest.raises(FileError, match=said):
        read_dxf(drawn(draw, 4))


@pytest.mark.parametrize(
    "text", ["0", "0\nSECTION", "999\nx\n0\nEOF\n", "0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nNaN\n", "hello"]
)
def test_what_is_no_dxf(text):
    with pytest.raises(FileError):
        read_dxf(text)


def test_step_has_the_planned_length_and_volume(tmp_path):
    """Re-read by OpenCASCADE: one solid whose volume is the section times the developed length
    (Pappus: the centroid of the ring lies on the centreline)."""
    for seed in (0, 3, 8):
        part = shop_part(seed)
        file = tmp_path / "tube.step"
        file.write_bytes(write_step(part, OD, BORE))
        reader = STEPControl_Reader()
        assert reader.ReadFile(str(file)) == IFSelect_RetDone
        reader.TransferRoots()
        solid = reader.OneShape()
        assert solid.ShapeType() == TopAbs_SOLID
        properties = GProp_GProps()
        BRepGProp.VolumeProperties_s(solid, properties)
        section = pi * (OD**2 - BORE**2) / 4
        assert properties.Mass() / section == pytest.approx(marks(part)[1], rel=1e-6)


def test_step_without_its_optional_part_says_how_to_get_it(monkeypatch):
    monkeypatch.setitem(__import__("sys").modules, "OCP.BRepBuilderAPI", None)
    with pytest.raises(FileError) as refused:
        write_step(shop_part(0), OD, BORE)
    assert str(refused.value) == NOT_INSTALLED


@pytest.mark.parametrize("kind", ["stl", "glb"])
def test_meshes_are_watertight_and_the_right_size(kind):
    """A 32-sided ring has 32/2·sin(2π/32)/π of the area of the round one."""
    for seed in range(6):
        part = shop_part(seed)
        mesh = trimesh.load(io.BytesIO(write_mesh(part, OD, BORE, kind)), file_type=kind, force="mesh")
        mesh.merge_vertices()
        assert mesh.is_watertight
        unit = 1.0 if kind == "stl" else 1000.0
        section = 16 * np.sin(pi / 16) * (OD**2 - BORE**2) / 4
        assert mesh.volume * unit**3 == pytest.approx(section * marks(part)[1], rel=3e-3)


def test_a_hairpin_survives_every_format():
    bends = (
        Bend(straight_mm=60, rotation_deg=0, angle_deg=90, radius_mm=15),
        Bend(straight_mm=40, rotation_deg=90, angle_deg=200, radius_mm=20),
    )
    part = BendList(bends=bends, last_straight_mm=50)
    same(read_dxf(write_dxf(part)).shape, part)
    assert trimesh.load(io.BytesIO(write_mesh(part, OD, BORE, "stl")), file_type="stl").is_watertight
    assert write_step(part, OD, BORE).startswith(b"ISO-10303-21")


@pytest.mark.parametrize("value", ["nan", "inf", "-inf"])
def test_a_coordinate_that_is_no_number_is_one_sentence(value):
    text = write_dxf(BendList(bends=(), last_straight_mm=100))
    lines = text.splitlines()
    at = max(k for k, line in enumerate(lines) if line.strip() == "100.0")
    lines[at] = value
    with pytest.raises(FileError, match=r"\.$"):
        read_dxf("\n".join(lines))


@pytest.mark.parametrize("angle", [360.0, 1e-6, 1e-4])
def test_a_full_turn_and_a_bend_that_is_hardly_one_become_a_solid(angle):
    pytest.importorskip("OCP")
    bend = Bend(straight_mm=50, rotation_deg=0, angle_deg=angle, radius_mm=30)
    solid = write_step(BendList(bends=(bend,), last_straight_mm=50), 10, 8)
    assert solid.startswith(b"ISO-10303-21")
