"""Rules of room, shape and the way in, each from both sides of its limit; figures by hand."""

from __future__ import annotations

from math import sqrt

import numpy as np
import pytest

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.geometry.passing import passages
from bendrel.core.line.document import LeftOpen, Opening
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length
from tests.core.test_both_sides import KIT, U, but, codes, found
from tests.core.test_refused import line
from tests.lines import DOUBLE, End, bent, replace, row, with_tube
from tests.measured import stations

# ---- room and shape


@pytest.mark.parametrize(
    ("end", "straight", "code"),
    [
        ("A", 36.5, "end_room"), ("A", 36.7, None), ("B", 38.7, None), ("B", 38.5, "flare_order"),
        ("B", 31.7, "flare_order"), ("B", 31.5, "end_room"),
    ],
)  # fmt: skip
def test_the_room_of_a_flare_its_nut_and_a_tool(end, straight, code):
    """3/16 in: flare 1.12 and nut 15.9 with the bender's 20 mm at the held end need 37.0 mm, at the far
    end its 15 mm 32.0; with the flaring bar 39.0. The held end is flared before bending as a rule,
    the far end after. What lies within 0.4 mm of that nobody sees."""
    assert KIT.nuts["double-45_3-16in_3-8-24"].length_mm == 15.9
    made = bent(row(100, 90), last=straight) if end == "B" else bent(row(straight, 90), last=100)
    told = {f.code for f in plan_line(made, KIT).findings if f.where.end == end}
    assert told & {"flare_order", "end_room"} == ({code} if code else set())


def test_plastic_that_does_not_flare_is_offered_an_end_without_a_flare():
    made = bent(*U, tube="nylon_8mm_1", bender="form_8mm", service="fuel-low")
    offered = [f.fix for f in plan_line(made, KIT).findings if f.code == "no_flare" and f.fix]
    chosen = [c.value for fix in offered for c in fix.changes if c.path.endswith("/fitting")]
    assert chosen
    assert not any(KIT.fittings[fitting].flared for fitting in chosen)


def test_what_is_told_where_a_flare_has_too_little_room():
    """37.0 mm at the held end, 30 there: 7 mm to move. At the far end the flare goes on first."""
    told = {f.code: f for f in plan_line(bent(row(30, 90), last=100), KIT).findings}
    assert told["end_room"].advice == "Move bend 1 7 mm away from end A."
    told = {f.code: f for f in plan_line(bent(row(100, 90), last=35), KIT).findings}
    assert "this end cannot be trimmed" in told["flare_order"].message
    told = {f.code: f for f in plan_line(bent(row(38, 90), last=100, held="B"), KIT).findings}
    assert "this end cannot be trimmed" in told["flare_order"].message


@pytest.mark.parametrize(("straight", "speaks"), [(19.5, True), (19.7, False)])
def test_the_bender_holds_an_unflared_end(straight, speaks):
    """20 mm before the first bend, less the 0.4 mm that nobody sees."""
    plain = End(fitting="plain")
    made = bent(row(straight, 90), last=100, end_a=plain, end_b=plain, service="fuel-low")
    assert ("bender_grip" in codes(made)) == speaks


def test_the_far_end_still_has_its_spare_in_the_tool():
    """15 mm after the last bend: 5 mm of straight and 9.5 mm of spare are 0.1 mm short of what is seen."""
    plain = End(fitting="plain")
    for spare, speaks in (("9.5 mm", True), ("9.7 mm", False)):
        made = bent(
            row(100, 90), last=5, end_a=plain, end_b=plain, service="fuel-low", spare=Length(text=spare)
        )
        assert ("bender_grip" in codes(made)) == speaks


@pytest.mark.parametrize("end", ["A", "B"])
def test_an_end_left_long_has_that_in_the_tool_too(end):
    """Of 20 mm (A) or 15 mm (B) that the bender holds, 3 mm of straight are there and 30 are left long."""
    plain, none = End(fitting="plain"), {"service": "fuel-low", "spare": Length(text="0 mm")}
    long = End(fitting="plain", leave_long=Length(text="30 mm"))
    line = (
        bent(row(3, 90), last=100, end_a=long, end_b=plain, **none)
        if end == "A"
        else bent(row(100, 90), last=3, end_a=plain, end_b=long, **none)
    )
    assert "bender_grip" not in codes(line)
    assert "bender_grip" in codes(replace(line, end_a=plain, end_b=plain))


@pytest.mark.parametrize(("straight", "speaks"), [(11.5, True), (11.7, False)])
def test_straight_between_two_bends(straight, speaks):
    """The lever bender needs 12 mm between, less the 0.4 mm that nobody sees."""
    made = bent(row(100, 90), row(straight, 90, "3:00"), last=100)
    assert ("bends_too_close" in codes(made)) == speaks


@pytest.mark.parametrize(("leg", "code"), [(30.1, "bends_too_close"), (29.9, "straight_missing")])
def test_a_leg_that_its_two_bends_do_not_leave(leg, code):
    """Read from corner to corner of two right angles of R 15, 30 mm of the leg belong to the bends."""
    made = bent(row(100, 90), row(leg, 90, "3:00", start="centre", end="centre"), last=100)
    assert codes(made) & {"bends_too_close", "straight_missing"} == {code}


@pytest.mark.parametrize(("dial", "code"), [(180.04, False), (180.06, True)])
def test_what_springs_back_over_the_tools_stop(dial, code):
    """The lever bender's scale ends at 180°; 0.05° are not seen."""
    share = plan_line(bent(row(100, 90), last=100), KIT).part.moves[0].dial_deg / 90
    made = bent(row(100, round(dial / share, 6)), last=100)
    assert ("angle_over_limit" in codes(made)) == code


@pytest.mark.parametrize(("radius", "speaks"), [("15.04", False), ("15.06", True), ("14.94", True)])
def test_another_radius_than_the_tools(radius, speaks):
    made = bent(row(100, 90, radius=radius), last=100)
    assert ("radius_not_the_tools" in codes(made)) == speaks


@pytest.mark.parametrize(("radius", "speaks"), [("9.12", True), ("9.14", False)])
def test_the_least_radius_less_what_a_hand_sees(radius, speaks):
    """Copper-nickel two diameters: 9.525 mm, less 0.4."""
    made = bent(row(100, 90, radius=radius), last=100, bender="given_any")
    assert ("radius_too_tight" in codes(made)) == speaks


@pytest.mark.parametrize(("wall", "speaks"), [(0.5990, True), (0.6010, False)])
def test_flattening_up_to_the_services_limit(wall, speaks):
    """0.02·(D/t)/(R/D)·1 over 5 % for brakes: D²/(t·R) = 2.5 at t = 0.6 mm on R = D²/1.5."""
    od = 4.7625
    radius = od**2 / 1.5
    tube = replace(KIT.tubes["copper-nickel_3-16in_0.711"], id="own", wall_mm=wall)
    flat = replace(KIT.tool_kinds["lever"], flattens=1.0, kinks_below=0.0)
    kit = replace(
        but(hardest_bend=99.0), tubes={**KIT.tubes, "own": tube}, tool_kinds={**KIT.tool_kinds, "lever": flat}
    )
    made = bent(row(100, 90, radius=f"{radius:.6f}"), last=100, tube="own")
    assert ("flattens" in codes(made, kit)) == speaks


@pytest.mark.parametrize(
    ("service", "limit"),
    [
        ("brake", "flat_brake"),
        ("vacuum", "flat_vacuum"),
        ("hydraulic", "flat_pressure"),
        ("fuel-low", "flat_low"),
    ],
)
def test_which_flattening_a_service_takes(service, limit):
    """5 % on brakes, 3 % on vacuum, 8 % from 10 bar up, 12 % below: from memory, by kind of line."""
    expected = {"flat_brake": 0.05, "flat_vacuum": 0.03, "flat_pressure": 0.08, "flat_low": 0.12}[limit]
    made = bent(row(100, 90, radius="9.6"), last=100, bender="given_any", service=service)
    kit = replace(but(**{limit: 0.0001}), tool_kinds=KIT.tool_kinds)
    assert "flattens" in codes(made, kit)
    assert KIT.limits[limit].value == expected


def test_kinks_from_hardness_and_from_radius():
    """(D/t)/(R/D) over 10: 4.7625²/(0.711·R) is 10 at R 3.190 mm; a tool that kinks under three diameters."""
    lever = KIT.tool_kinds["lever"]
    for radius, least, speaks in (
        ("3.18", 0.0, True),
        ("3.20", 0.0, False),
        ("14.28", 3.0, True),
        ("14.29", 3.0, False),
    ):
        kit = replace(KIT, tool_kinds={**KIT.tool_kinds, "lever": replace(lever, kinks_below=least)})
        made = bent(row(100, 90, radius=radius), last=100)
        assert ("kinks" in codes(made, kit)) == speaks, radius


@pytest.mark.parametrize(("wall", "speaks"), [(1.649, True), (1.651, False)])
def test_a_sleeve_on_a_thin_wall(wall, speaks):
    """1 mm on 12, 1.5 on 20: a wall of 0.075 of the outside, 1.65 mm on 22."""
    tube = replace(KIT.tubes["steel-seamless_22mm_2"], id="own", wall_mm=wall)
    kit = replace(KIT, tubes={**KIT.tubes, "own": tube})
    made = line("hydraulic-return", "steel-seamless_22mm_2", "bite-light")
    assert ("sleeve_wall" in codes(with_tube(made, tube="own"), kit)) == speaks


@pytest.mark.parametrize(("apart", "speaks"), [(0.149, False), (0.151, True), (-0.151, True)])
def test_metals_far_apart(apart, speaks):
    """0.15 V outdoors (anodic index, from memory); whichever of the two is the lesser is eaten."""
    body = replace(KIT.bodies["brass"], id="own", name="own metal", anodic_v=0.35 + apart)
    kit = replace(KIT, bodies={**KIT.bodies, "own": body})
    made = bent(*U, end_b=replace(DOUBLE, body="own"))
    assert ("galvanic" in codes(made, kit)) == speaks
    if speaks:
        eaten = "own metal" if apart > 0 else "copper-nickel"
        assert f"{eaten} is eaten" in found(made, "galvanic", kit).message


# ---- the way in


def hole(**given):
    return Opening(what="rail", at=Length(text="60"), **{k: Length(text=f"{v}") for k, v in given.items()})


@pytest.mark.parametrize(("across", "speaks"), [(12.83, True), (12.85, False)])
def test_the_nut_over_its_corners(across, speaks):
    """A hexagon of 11.113 mm (7/16 in) is 2/√3 times as wide over its corners: 12.83 mm."""
    nut = replace(KIT.nuts["double-45_3-16in_3-8-24"], hex_mm=11.1125)
    kit = replace(KIT, nuts={**KIT.nuts, nut.id: nut})
    wide = 11.1125 * 2 / sqrt(3)
    assert wide == pytest.approx(12.832, abs=1e-3)
    told = codes(bent(row(100, 10), last=100, openings=(hole(across=across),)), kit)
    assert ("end_does_not_pass" in told) == speaks


def test_a_bare_end_goes_through_what_is_as_wide_as_the_tube():
    plain = End(fitting="plain")
    for across, speaks in ((4.75, True), (4.77, False)):
        made = bent(
            row(100, 10),
            last=100,
            end_a=plain,
            end_b=plain,
            service="fuel-low",
            openings=(hole(across=across),),
        )
        assert ("end_does_not_pass" in codes(made)) == speaks


SHAPE = BendList(
    bends=(
        Bend(straight_mm=100, rotation_deg=0, angle_deg=60, radius_mm=15),
        Bend(straight_mm=200, rotation_deg=90, angle_deg=40, radius_mm=15),
    ),
    last_straight_mm=150,
)


@pytest.mark.parametrize(("enters", "at_mm", "bends"), [
    ("B", 50, [1, 2]), ("B", 99, [1, 2]), ("B", 101, [2]), ("B", 400, []),
    ("A", 50, []), ("A", 116, [1]), ("A", 114, []), ("A", 400, [1, 2]),
])  # fmt: skip
def test_which_bends_go_through(enters, at_mm, bends):
    """Bend 1 lies from 100 to 115.7 mm, bend 2 from 315.7 to 326.2: with B first all that lie beyond the
    opening go through it, with A first all on this side."""
    told = passages(SHAPE, 4.76, at_mm, enters, 50.0, 10.0, None)
    assert [passage.bend for passage in told] == bends


@pytest.mark.parametrize("enters", ["A", "B"])
def test_how_far_what_is_through_swings_out(enters):
    """Its greatest distance from the middle of the bend, by an own walk, times the sine of the angle."""
    points, _ = stations(SHAPE, 0.25)
    far = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(points, axis=0), axis=1))])
    middles = {1: 100 + 15 * np.radians(30), 2: 100 + 15 * np.radians(60) + 200 + 15 * np.radians(20)}
    for passage in passages(SHAPE, 4.76, 0 if enters == "B" else 1e6, enters, None, 0.0, 1.0):
        middle = middles[passage.bend]
        here = points[np.argmin(abs(far - middle))]
        through = points[far > middle] if enters == "B" else points[far < middle]
        reach = np.linalg.norm(through - here, axis=1).max()
        angle = {1: 60, 2: 40}[passage.bend]
        # the program looks every few degrees of arc: within a per cent
        assert passage.sweep_mm == pytest.approx(reach * np.sin(np.radians(angle)), rel=0.02)
        assert not passage.passes


def test_the_greatest_angle_that_still_passes():
    """To a tenth of a degree: that much passes, a tenth more does not."""
    (first, _) = passages(SHAPE, 4.76, 0, "B", 9.0, 40.0, None)
    assert not first.passes
    for angle, passes in ((first.most_deg, True), (first.most_deg + 0.1, False)):
        bends = (replace(SHAPE.bends[0], angle_deg=angle), SHAPE.bends[1])
        told = passages(replace(SHAPE, bends=bends), 4.76, 0, "B", 9.0, 40.0, None)[0]
        assert told.passes == passes
    assert passages(SHAPE, 4.76, 0, "B", 4.0, 40.0, None)[0].most_deg is None


@pytest.mark.parametrize(("radius", "speaks"), [(37.6, True), (37.8, False)])
def test_thin_tube_is_closed_by_hand_over_a_gentle_bend(radius, speaks):
    """Brazed steel from eight diameters up: 38.1 mm on 3/16 in, less what a hand sees."""
    made = line("fuel-low", "steel-double-wall_3-16in_0.711", "double-45", radius=radius)
    left = LeftOpen(row="r1", angle=Angle(text="20"))
    made = with_tube(made, left_open=(left,))
    assert ("left_open_stiff" in codes(made)) == speaks


def test_what_a_half_open_bend_needs_is_its_own_angle():
    """A bend left at the greatest angle that passes goes through; a degree more is stuck."""
    opening = hole(across=9, deep=40)
    made = bent(row(100, 60), last=150, openings=(opening,))
    (first,) = passages(SHAPE, 4.7625, 60, "B", 9.0, 40.0, None)[:1]
    for angle, speaks in ((first.most_deg, False), (first.most_deg + 1, True)):
        left = LeftOpen(row="r1", angle=Angle(text=f"{angle:.2f}"))
        told = codes(with_tube(made, left_open=(left,)))
        assert ("does_not_pass" in told) == speaks
