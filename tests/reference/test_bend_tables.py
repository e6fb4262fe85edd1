"""The bend itself against tables that every shop handbook prints (common practice).

Set-back factors tan(θ/2) and arc factors θ·π/180 per unit of radius, to the table's own places.
"""

import pytest

from bendrel.core.bend.tool.marks import mark_bend
from bendrel.core.geometry.bends import Bend, BendList, bend_spans

TABLE = [
    # angle, set-back factor, arc factor
    (15, 0.1317, 0.2618),
    (22.5, 0.1989, 0.3927),
    (30, 0.2679, 0.5236),
    (45, 0.4142, 0.7854),
    (60, 0.5774, 1.0472),
    (75, 0.7673, 1.3090),
    (90, 1.0000, 1.5708),
    (120, 1.7321, 2.0944),
    (135, 2.4142, 2.3562),
]


@pytest.mark.parametrize(("angle", "setback", "arc"), TABLE)
def test_set_back_and_arc(angle, setback, arc):
    bend = Bend(straight_mm=0, rotation_deg=0, angle_deg=angle, radius_mm=1.0)
    assert bend.tangent_mm == pytest.approx(setback, abs=0.00006)
    assert bend.arc_mm == pytest.approx(arc, abs=0.00006)


def test_gain_at_a_right_angle():
    """Plane geometry: a test piece gains 2·R·tan(θ/2) − R·θ, at 90° only 0.43·R."""
    bend = Bend(straight_mm=100, rotation_deg=0, angle_deg=90, radius_mm=20)
    shape = BendList(bends=(bend,), last_straight_mm=80)
    legs = (100 + bend.tangent_mm) + (80 + bend.tangent_mm)
    assert (legs - shape.developed_mm) / 20 == pytest.approx(0.43, abs=0.005)


@pytest.mark.parametrize(("angle", "setback", "arc"), TABLE)
def test_take_up_of_the_corner_school(angle, setback, arc):
    """Corner 200 mm from the end: the mark lies the set-back before it, whatever the angle."""
    radius = 24.0
    bend = Bend(straight_mm=200 - setback * radius, rotation_deg=0, angle_deg=angle, radius_mm=radius)
    shape = BendList(bends=(bend,), last_straight_mm=100)
    mark = mark_bend(bend, bend_spans(shape)[0], shape.developed_mm, held="A", style="corner")
    assert mark.take_up_mm == pytest.approx(setback * radius, abs=0.002)
    assert mark.mm == pytest.approx(200 - setback * radius, abs=0.002)
    middle = mark_bend(bend, bend_spans(shape)[0], shape.developed_mm, held="A", style="middle")
    assert middle.mm - mark.mm == pytest.approx(arc * radius / 2, abs=0.002)
