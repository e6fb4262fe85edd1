"""A bought, ready-bent part held against the old line: each comparison by hand, end B by an own walk."""

from __future__ import annotations

import numpy as np
import pytest

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.line.bought import compare_bought
from bendrel.core.line.document import PartReading
from bendrel.core.line.resolve import resolve
from tests.lines import bent, replace, row, the_tube
from tests.measured import OD, R, marks, walk
from tests.reading_errors import USUAL

ERRORS = USUAL
LINE = bent(row(100, 90), row(60, 45, "3:00"), row(80, 60, "8:00"), last=90)


def part(angles=(90, 45, 60), clocks=(0, 90, 240), legs=(100, 60, 80), last=90) -> BendList:
    bends, before = [], 0.0
    for leg, angle, clock in zip(legs, angles, clocks, strict=True):
        bends.append(Bend(straight_mm=leg, rotation_deg=clock - before, angle_deg=angle, radius_mm=R))
        before = clock
    return BendList(bends=tuple(bends), last_straight_mm=last)


OLD = part()


def compared(*readings):
    read = resolve(the_tube(LINE).readings, od_mm=OD, radius_mm=R).read
    return compare_bought(the_tube(replace(LINE, bought=readings)), read, ERRORS)


def told(kind, text, number=1, **more):
    return PartReading(kind=kind, row=f"r{number}" if number < 4 else "", text=text, **more)


def moved(other: BendList):
    """How far end B of another part lies from the old one's, and by how much its way differs."""
    (_, there, way), (_, here, old) = walk(other), walk(OLD)
    return np.linalg.norm(there - here), np.degrees(np.arccos(np.clip(way @ old, -1, 1)))


@pytest.mark.parametrize(
    ("reading", "line", "off", "other"),
    [
        (told("leg", "61.5", 2), 60, 1.5, part(legs=(100, 61.5, 80))),
        (told("leg", "88", 4), 90, -2, part(last=88)),
        (told("bend", "47", 2), 45, 2, part(angles=(90, 47, 60))),
        (told("plane", "3:20", 2), 90, 10, part(clocks=(0, 100, 240))),
        (told("plane", "7:40", 3), 240, -10, part(clocks=(0, 90, 230))),
        # as degrees from the bend before: 150° on the old line
        (told("plane", "155", 3, by="degrees"), 150, 5, part(clocks=(0, 90, 245))),
    ],
)
def test_one_reading_and_where_it_puts_end_b(reading, line, off, other):
    """What was not read is as on the old line: a plane as a clock moves its own bend only, and the bends
    behind it keep the clocks that were read off the old line."""
    found = compared(reading)
    assert found.problems == ()
    (one,) = found.compared
    assert (one.line, one.off) == pytest.approx((line, off))
    assert one.part == pytest.approx(line + off)
    assert one.degrees == (reading.kind in ("bend", "plane"))
    assert one.allowed == (2.0 if one.degrees else 1.0)
    assert (found.end_b_mm, found.way_b_deg) == pytest.approx(moved(other), abs=1e-5)


def test_rim_to_rim_and_the_whole_length_are_held_against_the_lines():
    """The straight line between the rims and the length along the tube."""
    rims = np.linalg.norm(walk(OLD)[1])
    whole = marks(OLD)[1]
    found = compared(told("rim to rim", f"{rims + 3:.6f}"), told("whole length", f"{whole - 4:.6f}"))
    assert [c.line for c in found.compared] == pytest.approx([rims, whole])
    assert [c.off for c in found.compared] == pytest.approx([3, -4], abs=1e-5)
    same = compared(told("rim to rim", f"{rims:.6f}"))
    assert (same.end_b_mm, same.way_b_deg) == pytest.approx((0, 0), abs=1e-4)


def test_a_tape_across_moves_what_was_not_read_of_the_part():
    """A part whose last leg is 6 mm long: read, the tape agrees with it and nothing moves; where the tape
    alone was read, end B lies at least as far away as the tape is off."""
    long = part(last=96)
    rims = np.linalg.norm(walk(long)[1])
    both = compared(told("leg", "96", 4), told("rim to rim", f"{rims:.6f}"))
    assert (both.end_b_mm, both.way_b_deg) == pytest.approx(moved(long), abs=1e-3)
    alone = compared(told("rim to rim", f"{rims:.6f}"))
    off = rims - np.linalg.norm(walk(OLD)[1])
    assert alone.end_b_mm > abs(off) - 0.05


def test_a_tape_against_a_part_that_is_read_everywhere_moves_nothing():
    """What was read of the part stands; the tape that does not go with it is only said to be off."""
    legs = [told("leg", str(mm), k) for k, mm in enumerate((100, 60, 80, 90), start=1)]
    turns = [told("bend", str(deg), k) for k, deg in enumerate((90, 45, 60), start=1)]
    planes = [told("plane", "3:00", 2), told("plane", "8:00", 3)]
    rims = np.linalg.norm(walk(OLD)[1])
    found = compared(*legs, *turns, *planes, told("rim to rim", f"{rims + 5:.6f}"))
    assert found.compared[-1].off == pytest.approx(5, abs=1e-5)
    assert found.end_b_mm == pytest.approx(0, abs=1e-6)


def test_several_readings_add_up():
    found = compared(told("leg", "102", 1), told("bend", "88", 1), told("bend", "", 2))
    assert [c.index for c in found.compared] == [0, 1]
    assert found.end_b_mm == pytest.approx(moved(part(legs=(102, 60, 80), angles=(88, 45, 60)))[0], abs=1e-6)


@pytest.mark.parametrize(
    ("reading", "said"),
    [
        (PartReading(kind="leg", row="gone5", text="10"), "no such leg any more"),
        (told("bend", "10", 4), "no such bend any more"),
        (told("plane", "3:00", 1), "12:00 by itself"),
        (told("bend", "steep", 1), "steep"),
        (told("rim to rim", "far"), "far"),
    ],
)
def test_a_reading_that_cannot_be_is_named_and_the_others_stand(reading, said):
    found = compared(told("leg", "101", 1), reading)
    assert [problem.path for problem in found.problems] == ["/spans/s1/bought/1"]
    assert said in found.problems[0].message
    assert len(found.compared) == 1
