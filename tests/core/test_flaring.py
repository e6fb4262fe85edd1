"""How an end is flared, and what a flare is that came out."""

from __future__ import annotations

from math import hypot, radians, sin, tan

import pytest

from bendrel.core.bend.told.flared import MadeFlare
from bendrel.core.bend.tube.ends import flare_use
from bendrel.core.geometry.flare import flare_profile, folded_layer
from bendrel.core.work.flared import flare_stands
from bendrel.core.work.flaring import ToFlare, flaring_of
from tests.lines import known_kit

KIT = known_kit()


def end(fitting="double-45", tube="copper-nickel_4.75mm_0.7", **more):
    tubed = next(row for row in KIT.tubes.values() if row.id == tube)
    told = {"tool": KIT.flarers["bar"], "nut": None, "unit": "mm", "uses_mm": 2.0, "grip_mm": 22.0} | more
    return ToFlare(end="A", tube=tubed, fitting=KIT.fittings[fitting], **told)


def tube_of(material, size):
    return next(row.id for row in KIT.tubes.values() if row.material == material and row.size == size)


def steps(fitting, material="copper-nickel", size="4.75 mm"):
    return [step.id for step in flaring_of(KIT, end(fitting, tube_of(material, size))).steps]


def test_it_is_clamped_before_anything_is_oiled_and_looked_at_between_the_two_forms():
    double = steps("double-45")
    assert double.index("clamp") < double.index("oil") < double.index("first") < double.index("second")
    assert double[-1] == "measure"
    told = {step.id: step for step in flaring_of(KIT, end()).steps}
    assert {picture.right for picture in told["first"].pictures} == {True, False}


def test_each_kind_stands_out_in_its_own_way_and_a_bulb_never_meets_the_cone():
    assert "out-shoulder" in steps("double-45")
    bulb, single = steps("bubble"), steps("single-37", "steel-seamless", "3/8 in")
    assert {"out-stop", "bulb"} <= set(bulb)
    assert not {"second", "cone"} & set(bulb)
    assert {"out-level", "cone"} <= set(single)
    assert "first" not in single


def test_stainless_is_told_to_be_stubborn_and_copper_is_not():
    assert "stubborn" in steps("single-37", "stainless-304", "3/8 in")
    assert "stubborn" not in steps("single-37", "steel-seamless", "3/8 in")


def test_a_tube_that_two_sets_have_a_die_for_says_so():
    first = flaring_of(KIT, end()).steps[0].text
    assert "4.75 mm" in first
    assert "3/16 in is the same tube" in first
    assert (
        "same tube"
        not in flaring_of(KIT, end("single-37", tube_of("steel-seamless", "3/8 in"))).steps[0].text
    )


@pytest.mark.parametrize(
    ("size", "least_in", "most_in"),
    # the makers' table of 37° flares by tube size, across the rim, in inches
    [("1/4 in", 0.340, 0.360), ("3/8 in", 0.460, 0.490), ("1/2 in", 0.630, 0.660), ("3/4 in", 0.920, 0.950)],
)
def test_how_wide_a_37_degree_flare_is(size, least_in, most_in):
    told = flaring_of(KIT, end("single-37", tube_of("steel-seamless", size)))
    assert told.least_mm == pytest.approx(least_in * 25.4, abs=0.01)
    assert told.most_mm == pytest.approx(most_in * 25.4, abs=0.01)


def test_every_range_holds_the_diameter_that_the_flare_is_reckoned_with():
    ranges = KIT.flaring.ranges.values()
    reckoned = [(row, KIT.end_size(row.fitting, row.size)) for row in ranges]
    assert len(reckoned) > 40
    for row, size in reckoned:
        assert size is not None, row
        if size.flare_diameter_mm is not None:
            assert row.least_mm <= size.flare_diameter_mm <= row.most_mm, row


def read(across, failed=0, **more):
    return flare_stands(flaring_of(KIT, end(**more)), MadeFlare(end="A", across=across, failed=failed), "mm")


@pytest.mark.parametrize(
    ("across", "verdict"),
    [("", ""), ("6.8", "right"), ("7.2", "right"), ("6.79", "too small"), ("7.21", "too wide"),
     ("4.7", "cannot be read"), ("72", "cannot be read"), ("wide", "cannot be read"), ('0.276"', "right")],
)  # fmt: skip
def test_what_was_measured_is_held_against_the_range_from_both_sides(across, verdict):
    assert read(across).verdict == verdict


def test_where_no_range_is_known_that_is_said_and_nothing_is_allowed():
    told = flaring_of(KIT, end("bubble", tube_of("copper-nickel", "8 mm")))
    assert told.least_mm is None
    stands = flare_stands(told, MadeFlare(end="A", across="11"), "mm")
    assert stands.verdict == "no range is known"
    assert "against the old end" in stands.text


def test_a_flare_that_fails_costs_its_cone_what_it_used_and_the_cutters_room():
    """4.75 to 7.0 at 45°: the cone is 1.125 deep; 2 mm used, 2 mm behind it for the cutter."""
    told = flaring_of(KIT, end(spare_mm=12.0))
    assert told.lost_mm == pytest.approx(1.125 + 2.0 + 2.0, abs=0.01)
    assert "the spare of 12 mm is enough for 2" in read("", spare_mm=12.0).lost
    assert "the spare has 1.8 mm left" in read("", failed=2, spare_mm=12.0).lost
    assert "the part is 3.4 mm short" in read("", failed=3, spare_mm=12.0).lost


@pytest.mark.parametrize("straight", [30.0, 33.3, 33.4, 38.0, 55.0])
def test_it_may_fail_as_often_as_the_tool_still_finds_straight_tube(straight):
    """Cut off one after the other, as a hand would, until tool and cone have no straight tube."""
    left, often = straight, 0
    while left - (1.12 + 2.0 + 2.0) >= 1.12 + 22.0:
        left -= 1.12 + 2.0 + 2.0
        often += 1
    assert flaring_of(KIT, end(straight_mm=straight)).failures == often
    if often == 0:
        assert "the bend is in the way" in read("", straight_mm=straight).lost


@pytest.mark.parametrize(("shape", "angle"), [("cone", 37.0), ("folded", 45.0), ("cone", 45.0)])
def test_a_cut_through_a_flare_has_its_diameter_its_angle_and_its_wall(shape, angle):
    profile = flare_profile(shape, 9.525, 0.89, 12.2, angle)
    (x0, y0), (x1, y1) = profile[-2:]
    assert 2 * y1 + 0.89 == pytest.approx(12.2), "over the outside, half a wall beyond its middle"
    assert (y1 - y0) / (x1 - x0) == pytest.approx(tan(radians(angle)))
    inner = folded_layer(profile, 0.89)
    ax, ay = inner[0]
    slanted = ((x1 - x0) * (ay - y0) - (y1 - y0) * (ax - x0)) / hypot(x1 - x0, y1 - y0)
    assert abs(slanted) == pytest.approx(0.89), "one wall from the layer outside it"
    assert ay < y1, "folded inwards"


def test_a_double_flare_stands_out_by_what_it_is_folded_from():
    """Both layers of the cone less its depth: 2·1.125/sin 45° − 1.125."""
    tube = KIT.tubes[tube_of("copper-nickel", "4.75 mm")]
    out = 2 * 1.125 / sin(radians(45)) - 1.125
    assert flare_use(KIT, "double-45", tube) == pytest.approx(out, abs=1e-6)
