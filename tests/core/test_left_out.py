"""A reading that is left out settles what it contradicted, and is found from the others."""

from __future__ import annotations

from dataclasses import replace

import pytest

from bendrel.core.line.paths import LAST, row_path
from bendrel.core.plan.planner import plan_line
from tests.core.test_adjust import line, stands


def with_first_leg(made, text):
    (span,) = made.spans
    first = span.readings.rows[0]
    rows = (replace(first, length=replace(first.length, text=text)), *span.readings.rows[1:])
    return replace(made, spans=(replace(span, readings=replace(span.readings, rows=rows)),))


def leaving_out(made, *paths):
    (span,) = made.spans
    return replace(made, spans=(replace(span, checks=replace(span.checks, left_out=paths)),))


def test_a_slip_that_is_left_out_is_found_from_where_end_b_stands(kit):
    """The first leg of 100 mm is typed as 110; end B was read where the true line ends."""
    checks = stands(kit, line(), 0.0, 0.0, 0.0)
    slip = with_first_leg(line(checks), "110 mm")
    assert plan_line(slip, kit).pieces[0].measured.disagree
    leg = row_path(slip.spans[0].readings.rows[0].id, "length")
    plan = plan_line(leaving_out(slip, leg), kit)
    (piece,) = plan.pieces
    assert not piece.measured.disagree
    assert {found.severity for found in plan.findings if found.code == "check_place_b"} <= {"good", "note"}
    (taken,) = [one for one in piece.measured.taken if one.path.endswith(leg)]
    assert taken.taken == pytest.approx(100, abs=0.1)
    assert piece.part.end_b.point == pytest.approx(plan_line(line(), kit).part.end_b.point, abs=0.1)


def test_leaving_out_what_is_right_does_not_hide_the_slip(kit):
    """End B read 40 mm off towards 3 o'clock: no length of the last leg brings it there."""
    wrong = line(stands(kit, line(), 0.0, 0.0, 40.0))
    assert plan_line(leaving_out(wrong, LAST), kit).pieces[0].measured.disagree
