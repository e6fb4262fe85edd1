"""Checks against the readings: what agrees, what does not, and what that looks like in words."""

from math import cos, radians, sin

import pytest

from bendrel.core.line.checks import Checks, way_from_a
from bendrel.core.line.document import CornerReadings
from bendrel.core.line.resolve import resolve
from bendrel.core.measure.culprits import Suspect
from bendrel.core.measure.explain import name_of, slip_of
from bendrel.core.measure.slots import Slot
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.core.units.lengths import Angle, Length, Plane
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_way
from tests.lines import bent, cornered, end_of, replace, row, the_tube

# An L of 100 and 80 mm to the centreline corner with R 15 at 90°: along the tube 180 − 30 + 15·π/2
L_SHAPE = bent(row(100, 90, end="centre"), last=80, last_from="centre")
ALONG = 180 - 30 + 15 * radians(90)
RIM_TO_RIM = (100**2 + 80**2) ** 0.5


def checked(line, **given):
    return replace(line, checks=Checks(**given))


def mm(value):
    return Length(text=f"{value}")


def codes(plan):
    return {finding.code: finding.severity for finding in plan.findings}


def test_checks_that_agree_are_notes(kit):
    plan = plan_line(checked(L_SHAPE, wire=mm(ALONG + 0.3), tape=mm(RIM_TO_RIM - 0.4)), kit)
    assert not plan.piece().measured.disagree
    assert codes(plan)["check_wire"] == codes(plan)["check_tape"] == "note"
    assert [check.computed for check in plan.piece().measured.checks] == pytest.approx([ALONG, RIM_TO_RIM])
    titles = {finding.code: finding.title for finding in plan.findings}
    assert titles["check_wire"] == "Wire says 173.9 mm, readings say 173.6 mm"
    assert titles["check_tape"] == "Tape from rim to rim says 127.7 mm, readings say 128.1 mm"


def test_checks_that_do_not_agree_are_cautions_that_say_by_how_much(kit):
    plan = plan_line(checked(L_SHAPE, wire=mm(ALONG + 10)), kit)
    finding = next(f for f in plan.findings if f.code == "check_wire")
    assert (finding.severity, finding.safety) == ("caution", True)
    assert "differ by 10 mm" in finding.message
    assert "Measure names the readings" in finding.advice


@pytest.mark.parametrize(
    ("angle", "clock", "agrees"),
    [
        ("90", "12:00", True),
        ("91", "12:02", True),
        ("90", "6:00", False),
        ("0", "", False),
        ("80", "12:00", False),
    ],
)
def test_the_way_into_port_b_is_told_from_end_a(kit, angle, clock, agrees):
    """The L leaves at 90° towards 12 o'clock, the plane of its only bend."""
    line = checked(L_SHAPE, port_b_angle=Angle(text=angle), port_b_clock=Plane(text=clock))
    plan = plan_line(line, kit)
    assert plan.piece().measured.problems == ()
    assert plan.piece().measured.disagree is not agrees


def test_ways_of_corner_points_are_told_in_the_datums_axes(kit):
    line = cornered((0, 0, 0), (100, 0, 0), (100, 0, -80))
    assert not plan_line(checked(line, way_a="+x", way_b="-z"), kit).piece().measured.disagree
    turned = plan_line(checked(line, way_a="+x", way_b="0 1 0"), kit)
    assert codes(turned)["check_way_b"] == "caution"
    assert codes(turned)["check_way_a"] == "note"


def test_checks_that_cannot_be_read_are_told_and_keep_the_plan(kit):
    line = checked(
        L_SHAPE,
        wire=mm("long"),
        port_b_angle=Angle(text="steep"),
        port_b_clock=Plane(text="45"),
    )
    plan = plan_line(line, kit)
    assert plan.part is not None
    assert [p.path for p in plan.piece().measured.problems] == [
        "/spans/s1/checks/wire",
        "/spans/s1/checks/port_b_angle",
    ]
    clockless = plan_line(checked(L_SHAPE, port_b_angle=Angle(text="40"), port_b_clock=Plane(text="45")), kit)
    assert "not a clock time" in clockless.piece().measured.problems[0].message
    corners = plan_line(checked(cornered((0, 0, 0), (9, 0, 0)), way_a="sideways"), kit)
    assert "is not a way" in corners.piece().measured.problems[0].message


@pytest.mark.parametrize(
    ("text", "way"),
    [
        ("+x", (1, 0, 0)),
        ("Z", (0, 0, 1)),
        ("−y", (0, -1, 0)),
        ("3 0 4", (0.6, 0, 0.8)),
        ("0; -2; 0", (0, -1, 0)),
        ("0, 0, -3", (0, 0, -1)),
        ("- z", (0, 0, -1)),
        ("down", (0, 0, -1)),
    ],
)
def test_directions_as_people_write_them(text, way):
    assert parse_way(text) == pytest.approx(way)


@pytest.mark.parametrize("text", ["", "w", "0 0 0", "1 2", "sideways", "1e9 0 0", "nan 0 0"])
def test_no_directions(text):
    with pytest.raises(UnitError, match="is not a way"):
        parse_way(text)


def test_three_o_clock_is_plus_z_seen_from_a():
    """Looking along +x with +y up, +z is on the right: right-handed axes."""
    assert way_from_a(90, 90) == pytest.approx((0, 0, 1), abs=1e-12)
    assert way_from_a(30, 0) == pytest.approx((cos(radians(30)), sin(radians(30)), 0))


def test_the_doubt_grows_along_the_line(kit):
    """A wire's whole length is one reading, so its doubt stays below that of a sum of legs."""
    short = plan_line(L_SHAPE, kit).piece().measured.doubt
    legs = bent(*(row(100, 60, "3:00" if k % 2 else "12:00") for k in range(8)))
    long = plan_line(legs, kit).piece().measured.doubt
    assert long.developed_mm > short.developed_mm
    assert long.end_b_mm > short.end_b_mm


def test_a_string_to_end_b_is_a_length_without_a_shape(kit):
    span = the_tube(L_SHAPE)
    line = replace(
        L_SHAPE, spans=(replace(span, readings=replace(span.readings, last=mm(300), last_by="string")),)
    )
    plan = plan_line(line, kit)
    assert codes(plan)["length_only"] == "note"
    assert plan.part.last_straight_mm == pytest.approx(300 - 15 * radians(90))


def test_an_end_left_long_is_cut_marked_and_trimmed(kit):
    """Held at A and left 30 mm long there: every mark is 30 mm and the flare's allowance further on."""
    usual = plan_line(L_SHAPE, kit).part
    line = replace(L_SHAPE, end_a=replace(end_of(L_SHAPE, "A"), leave_long=mm(30)))
    plan = plan_line(line, kit)
    part = plan.part
    assert part.cut_mm == pytest.approx(usual.cut_mm + 30)
    assert part.moves[0].measured_from == "cut_end"
    assert part.moves[0].mark_mm == pytest.approx(usual.moves[0].mark_mm + part.end_a.allowance_mm + 30)
    assert part.moves[0].strip_mm == pytest.approx(usual.moves[0].strip_mm)
    assert codes(plan)["left_long"] == "note"
    assert any("Trim the 30 mm left long off end A" in step.text for step in order_of_work(line, kit))


def test_an_end_without_room_to_flare_after_bending_cannot_be_left_long(kit):
    """3/16 in: flare 1.12, nut 15.9 and a grip of 22 mm need 39 mm; the bender only 37."""
    tight = bent(row(38, 90), last=100)
    line = replace(tight, end_a=replace(end_of(tight, "A"), leave_long=mm(10)))
    assert codes(plan_line(line, kit))["left_long_no_room"] == "stop"


def test_a_blank_table_of_corners_has_nothing_to_check(kit):
    span = the_tube(L_SHAPE)
    line = replace(L_SHAPE, spans=(replace(span, readings=CornerReadings()),))
    assert plan_line(checked(line, wire=mm(5)), kit).piece().measured.checks == ()


@pytest.fixture
def read():
    line = bent(row(100, 90, end="outside"), row(90, 60, "3:00", start="outside", end="outside"))
    return resolve(the_tube(line).readings, od_mm=4.7625, radius_mm=15).read


@pytest.mark.parametrize(
    ("slot", "change", "said"),
    [
        (Slot(row=1, field="plane"), -180, "wrong side"),
        (Slot(row=0, field="length"), 25.4, "an inch"),
        (Slot(row=0, field="length"), -50.8, "an inch"),
        (Slot(row=2, field="last"), 10.0, "a centimetre"),
        (Slot(row=0, field="length"), 4.7625, "inside and outside"),
        (Slot(row=1, field="angle"), 60, "its other side"),
        (Slot(row=0, field="length"), 16, ""),
    ],
)
def test_the_usual_slips_are_recognised(read, slot, change, said):
    """A plane at 3:00 read from the other side is 9:00; inside and outside at 90° are one diameter apart."""
    slip = slip_of(read, Suspect(what=slot, change=change, misfit=0), near_mm=1.0, near_deg=6.0)
    assert said in slip
    assert bool(slip) == bool(said)


def test_readings_have_the_names_that_the_table_gives_them(read):
    fields = [(0, "length"), (1, "angle"), (1, "plane"), (2, "last")]
    names = [name_of(read, Slot(row=row, field=field)) for row, field in fields]
    assert names == ["leg to bend 1", "angle of bend 2", "plane of bend 2", "last leg, to end B"]
    corners = resolve(
        cornered((0, 0, 0), (50, 0, 0), (50, 60, 0)).spans[0].readings, od_mm=5, radius_mm=15
    ).read
    assert name_of(corners, Slot(row=1, field="y")) == "y of corner 1"
    assert name_of(corners, Slot(row=2, field="x")) == "x of end B"
