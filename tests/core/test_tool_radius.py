"""A tool whose spring-back has a part that is the same at every angle: a bend keeps the tube that was wound
on the die, whatever it opens. Each arc is reckoned here from the die and the dial alone."""

from __future__ import annotations

from dataclasses import replace
from math import radians

import numpy as np
import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.reradius import reradius
from bendrel.core.line.resolve import resolve
from bendrel.core.line.rewrite import with_shape
from bendrel.core.parts.calibration import Calibration
from bendrel.core.plan.planner import plan_line
from bendrel.exchange.shapes.tables import read_points
from bendrel.services.line.importing import import_text
from tests.lines import bent, cornered, row, the_tube
from tests.measured import walk

DIE, SHARE, FIXED = 14.6, 0.02, 1.5
KNOWN = Calibration(
    radius_mm=DIE, zero_offset_mm=0.0, springback=SHARE, springback_deg=FIXED,
    doubt=(0.02, 0.02, 0.0002, 0.02), pieces=8, odd=(),
    covariance=((1e-4, 0, 0, 0), (0, 1e-4, 0, 0), (0, 0, 1e-8, 0), (0, 0, 0, 1e-4)),
)  # fmt: skip
KIT = replace(load_kit(), calibrations={("lever_3-16in", "copper-nickel"): KNOWN})
TOOL = KIT.tool("lever_3-16in", the_tube(bent(row(1, 1))).tube)
ANGLES = (90, 30, 135)
LINE = bent(row(100, 90, end="centre"), row(90, 30, "3:00", start="centre", end="centre"),
            row(120, 135, "8:00", start="centre", end="centre"), last=110, last_from="centre")  # fmt: skip


def wound(angle: float) -> float:
    """The tube that the die takes up until the dial shows what leaves this angle."""
    return DIE * radians((1 + SHARE) * angle + FIXED)


def test_a_bend_keeps_the_tube_that_was_wound_on_the_die():
    part = plan_line(LINE, KIT).pieces[0].part
    assert [bend.arc_mm for bend in part.bends] == pytest.approx([wound(a) for a in ANGLES])
    assert [move.dial_deg for move in part.moves] == pytest.approx(
        [(1 + SHARE) * part.bends[move.bend - 1].angle_deg + FIXED for move in part.moves]
    )


def test_the_corners_stay_where_they_were_read():
    """Legs from corner to corner: another radius cuts the corners otherwise and moves no end."""
    plain = replace(KIT, calibrations={})
    with_it, without = (plan_line(LINE, kit).pieces[0].part for kit in (KIT, plain))
    assert with_it.bends[1].radius_mm != pytest.approx(without.bends[1].radius_mm, abs=0.3)
    assert with_it.end_b.point == pytest.approx(without.end_b.point, abs=1e-6)


def test_no_bend_of_the_tool_is_said_to_have_another_radius():
    codes = {found.code for found in plan_line(LINE, KIT).findings}
    assert "radius_not_the_tools" not in codes
    typed = bent(row(100, 90, radius=15), row(60, 30, "3:00"), last=80)
    assert "radius_not_the_tools" in {found.code for found in plan_line(typed, KIT).findings}


@pytest.mark.parametrize("kind", ["bends", "wire", "corners"])
def test_readings_written_anew_leave_the_radius_to_the_tool(kind):
    """Between bend table, wire marks and corner points nothing is typed that nobody read."""
    tube = the_tube(LINE)
    shape = resolve(tube.readings, od_mm=4.7625, radius_mm=TOOL.radius).shape
    again = the_tube(with_shape(LINE, tube, shape, kind, TOOL.radius))
    assert all(one.radius is None for one in again.readings.rows)
    back = resolve(again.readings, od_mm=4.7625, radius_mm=TOOL.radius).shape
    assert [bend.arc_mm for bend in back.bends] == pytest.approx([wound(a) for a in ANGLES])
    assert np.allclose(walk(back)[1], walk(shape)[1], atol=1e-6)


def test_points_from_a_file_take_what_the_tool_leaves():
    text = "x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n100,0,0,\n100,120,0,\n220,120,0,20\n220,120,90,\n"
    radii = read_points(text.encode(), TOOL.radius).radii_mm
    assert radii == pytest.approx((wound(90) / radians(90), wound(90) / radians(90), 20))
    told = import_text(text, cornered((0, 0, 0), (1, 0, 0)), "", None, KIT)
    assert [one.radius is None for one in the_tube(told.document).readings.rows[1:-1]] == [True, True, False]
    assert told.notes == ("2 radii missing; what the tool leaves, near 14.9 mm, filled in",)


def test_a_line_made_again_has_what_the_tool_leaves_at_every_bend():
    tube = the_tube(LINE)
    old = resolve(tube.readings, od_mm=4.7625, radius_mm=18.0).shape
    made = reradius(old, TOOL.radius, least_between_mm=5, least_ends_mm=(5, 5)).shape
    assert [bend.arc_mm for bend in made.bends] == pytest.approx([wound(a) for a in ANGLES])
    assert end_frame(made).point == pytest.approx(end_frame(old).point, abs=1e-6)


def test_a_bend_of_next_to_nothing_is_not_told_from_far_away():
    """The constant part was told by pieces of 20° and more: below, it is no more than half of the radius."""
    tool = TOOL.radius
    assert tool.at(0.1) == tool.at(0) == pytest.approx(1.5 * tool.mm)
    assert replace(tool, unwinds_mm_deg=-tool.unwinds_mm_deg).at(0) == pytest.approx(0.5 * tool.mm)
    assert replace(tool, unwinds_mm_deg=0.0).at(0) == tool.mm
