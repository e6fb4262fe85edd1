"""Further readings of a tube that is told from its other end."""

from __future__ import annotations

from dataclasses import replace

import pytest

from bendrel.core.geometry.bends import reversed_list
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.ids import NotAChain
from bendrel.core.line.checks import Checks, CornerPlace, TapeAcross
from bendrel.core.line.edits.turned import reversed_rigid
from bendrel.core.line.resolve import resolve
from bendrel.core.units.lengths import Length, length_mm
from tests.lines import bent, row

LINE = bent(row(100, 90), row(60, 45, "3:00"), row(80, 30, "5:00"), last=70)
(TUBE,) = LINE.spans
SHAPE = resolve(TUBE.readings, od_mm=4.75, radius_mm=15).shape


def turned(checks):
    return reversed_rigid(replace(TUBE, checks=checks), SHAPE, "mm").checks


def test_a_place_that_agrees_with_the_readings_agrees_from_the_other_end():
    """Where end A stands, seen from B, is the end of the part read backwards."""
    sides = (Length(text=f"{side:.4f}") for side in end_frame(SHAPE).point)
    ahead, up, right = sides
    found = turned(Checks(ahead=ahead, up=up, right=right))
    there = [length_mm(side, "any") for side in (found.ahead, found.up, found.right)]
    assert there == pytest.approx(end_frame(reversed_list(SHAPE)).point, abs=1e-3)


def test_tapes_change_their_ends_over_and_keep_their_bends():
    (tape,) = turned(Checks(across=(TapeAcross(start="A", end="r2", length=Length(text="150")),))).across
    assert (tape.start, tape.end, tape.length.text) == ("r2", "B", "150")


def test_what_is_held_goes_along_with_its_reading():
    """The first leg is the last one then, a leg between two bends leads to the other, a plane belongs to the
    other bend."""
    held = ("/rows/r1/length", "/rows/r2/length", "/last", "/rows/r3/plane", "/rows/r2/angle")
    assert turned(Checks(held=held)).held == (
        "/last", "/rows/r1/length", "/rows/r3/length", "/rows/r2/plane", "/rows/r2/angle",
    )  # fmt: skip


def test_what_was_read_from_end_a_alone_is_to_be_taken_out_first():
    corner = CornerPlace(row="r1", up=Length(text="3"))
    with pytest.raises(NotAChain, match="take those readings out first"):
        turned(Checks(corners=(corner,)))
