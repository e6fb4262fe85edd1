"""Files read into a line: drawings made by ezdxf, and what is said of them before anything is kept."""

import io
from math import pi

import ezdxf
import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.errors import BendrelError
from bendrel.core.plan.planner import plan_line
from bendrel.services.line.importing import import_text
from tests.lines import bent, row, with_tube

KIT = load_kit()
LINE = bent(row(100, 90), last=100)
NO_RADIUS = with_tube(LINE, bender="given_any")
CORNERS = [(0, 0, 0), (200, 0, 0), (200, 150, 0)]


def drawing(draw, insunits=0):
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = insunits
    draw(document.modelspace())
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def polyline(points):
    return lambda space: space.add_polyline3d(points)


def developed(understood):
    return plan_line(understood.document, KIT).part.developed_mm


def test_a_polyline_takes_the_benders_own_radius_and_says_so():
    """200 + 150 to the corner, less 2·15·tan 45°, plus a quarter circle of 15 mm."""
    told = import_text(drawing(polyline(CORNERS), 4), LINE, "", None, KIT)
    assert told.understood.startswith("DXF drawing, 2 entities, 1 bend, in millimetres")
    assert "15 mm put into every corner" in told.notes[0]
    assert developed(told) == pytest.approx(350 - 30 + 15 * pi / 2)
    assert told.document.name == LINE.name


def test_a_typed_radius_wins_and_a_bad_one_is_refused():
    told = import_text(drawing(polyline(CORNERS), 4), LINE, "20", None, KIT)
    assert developed(told) == pytest.approx(350 - 40 + 20 * pi / 2)
    with pytest.raises(BendrelError, match="Radius"):
        import_text(drawing(polyline(CORNERS), 4), LINE, "round", None, KIT)


def test_corners_without_any_radius_ask_for_one():
    with pytest.raises(BendrelError, match="give one radius"):
        import_text(drawing(polyline(CORNERS), 4), NO_RADIUS, "", None, KIT)
    straight = import_text(drawing(polyline(CORNERS[:2]), 4), NO_RADIUS, "", None, KIT)
    assert developed(straight) == pytest.approx(200)


@pytest.mark.parametrize(
    ("insunits", "chosen", "factor", "said"),
    [
        (4, None, 1.0, None),
        (1, None, 25.4, None),
        (5, None, 10.0, "one unit of the drawing is 10 mm"),  # centimetres, DXF reference: $INSUNITS 5
        (0, None, 1.0, "does not say its unit"),
        (4, "in", 25.4, None),
    ],
)
def test_the_unit_is_said_where_it_is_not_plain(insunits, chosen, factor, said):
    told = import_text(drawing(polyline(CORNERS[:2]), insunits), LINE, "", chosen, KIT)
    assert developed(told) == pytest.approx(200 * factor)
    assert [said in note for note in told.notes] == ([True] if said else [])


def test_flat_corners_are_merged_and_counted():
    points = [(0, 0, 0), (100, 0, 0), (200, 0.01, 0), (300, 0, 0), (300, 200, 0)]
    told = import_text(drawing(polyline(points), 4), LINE, "", None, KIT)
    assert "2 corners merged" in told.notes[-1]
    assert len(plan_line(told.document, KIT).part.bends) == 1


def test_inch_figures_of_a_csv_are_taken_when_asked():
    text = "straight_mm,rotation_deg,angle_deg,radius_mm\n4,0,90,0.6\n5,,,\n"
    told = import_text(text, LINE, "", "in", KIT)
    assert told.understood.startswith("bend CSV, 1 bend, in inches")
    assert developed(told) == pytest.approx((9 + 0.6 * pi / 2) * 25.4)


def test_a_blank_radius_of_a_csv_is_filled_and_counted():
    text = "x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n200,0,0,\n200,150,0,15\n200,150,90,\n"
    told = import_text(text, LINE, "20", None, KIT)
    assert told.notes == ("1 radius missing; 20 mm filled in",)
    assert [bend.radius_mm for bend in plan_line(told.document, KIT).part.bends] == pytest.approx([20, 15])


def test_corners_too_near_for_their_radius_are_refused_in_words():
    with pytest.raises(BendrelError, match="from end A to corner 1 is 395"):
        import_text(
            drawing(polyline([(0, 0, 0), (5, 0, 0), (5, 5, 0), (10, 5, 5)]), 4), LINE, "400", None, KIT
        )
