"""Where clips go, and what is said of a stretch without one. Expected places by hand from common practice:
one near each end (100 mm), no more than a foot (300 mm) apart on brake tube."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bendrel.core.geometry.bends import Span
from bendrel.core.geometry.clips import clip_for, clip_places, spacing_for
from bendrel.core.line.condition import Condition, Fixture
from bendrel.core.line.document import Length
from bendrel.core.plan.planner import plan_line
from tests.lines import bent, row


def arc(start, end):
    return Span(start_mm=start, middle_mm=(start + end) / 2, end_mm=end)


@pytest.mark.parametrize(
    ("developed", "arcs", "places"),
    [
        (1000, (), (100, 1100 / 3, 1900 / 3, 900)),
        (500, (), (100, 400)),
        (150, (), (75,)),
        (1000, (arc(350, 380),), (100, 380, 640, 900)),
        (500, (arc(90, 120),), (90, 245, 400)),
    ],
)
def test_clips_stand_near_each_end_and_regularly_between_beside_the_bends(developed, arcs, places):
    assert clip_places(developed, arcs, 300, 100) == pytest.approx(places)


@given(
    st.floats(20, 6000),
    st.lists(st.tuples(st.floats(0, 6000), st.floats(5, 200)), max_size=8),
    st.sampled_from([150, 300, 450, 900]),
)
def test_no_two_clips_stand_further_apart_than_allowed(developed, bends, apart):
    ordered, free = [], 0.0
    for start, length in sorted(bends):
        if start >= free and start + length < developed:
            ordered.append(arc(start, start + length))
            free = start + length
    places = clip_places(developed, tuple(ordered), apart, 100)
    assert places
    assert all(0 <= place <= developed for place in places)
    assert len(places) > 1 or developed <= apart + 2 * 100
    assert all(0 < b - a <= apart + 1e-6 for a, b in pairwise(places))
    if developed > 2 * 100:
        assert places[0] <= 100 + 200
        assert developed - places[-1] <= 100 + 200


def test_spacing_goes_by_the_tube(kit):
    rows = kit.clip_spacing
    assert spacing_for(rows, 4.76).apart_mm < spacing_for(rows, 12).apart_mm < spacing_for(rows, 28).apart_mm
    assert spacing_for(rows, 80) == spacing_for(rows, 28)


@pytest.mark.parametrize(("od", "inside"), [(4.7625, 5), (6.35, 6), (9.525, 10), (12, 12), (25.4, 25)])
def test_a_p_clip_is_the_nearest_that_its_lining_makes_good(kit, od, inside):
    """DIN 3016: the inside diameter is the designation."""
    assert clip_for(kit.clips, od, 0.8).inside_mm == inside


def test_no_p_clip_goes_round_everything(kit):
    assert clip_for(kit.clips, 70, 0.8) is None


def line_with(*fixtures):
    found = tuple(Fixture(kind=kind, state=state, at=Length(text=f"{at} mm")) for kind, state, at in fixtures)
    return bent(row(400, 90), row(400, 90), last=400, condition=Condition(fixtures=found))


def codes(plan):
    return {finding.code for finding in plan.findings}


def test_the_old_lines_places_are_used_again(kit):
    plan = plan_line(
        line_with(("clip", "there", 100), ("retainer", "missing", 380), ("sleeve", "there", 600)), kit
    )
    assert plan.piece().clips.old
    assert plan.piece().clips.places_mm == pytest.approx((100, 380))
    needs = {n.ref: n.amount for n in plan.chosen.needs}
    assert needs["clip:pclip_5"] == 1


def test_a_long_stretch_without_a_clip_is_said(kit):
    plan = plan_line(line_with(("clip", "there", 100), ("clip", "there", 380)), kit)
    gap = next(f for f in plan.findings if f.code == "clip_gap")
    assert gap.severity == "note"
    assert gap.where.from_mm == pytest.approx(380)
    assert gap.where.to_mm == pytest.approx(plan.part.developed_mm)


def test_the_longest_stretch_is_named_not_the_last(kit):
    """Noted at 40, 440 and from there every 200 mm: the stretch between the first two is the one."""
    far = (440, 640, 840, 1040)
    plan = plan_line(line_with(("clip", "there", 40), *(("clip", "there", at) for at in far)), kit)
    gap = next(f for f in plan.findings if f.code == "clip_gap")
    assert plan.part.developed_mm - 1040 < 400
    assert (gap.where.from_mm, gap.where.to_mm) == pytest.approx((40, 440))


def test_one_noted_clip_or_none_says_nothing_of_the_others(kit):
    assert "clip_gap" not in codes(plan_line(line_with(("clip", "there", 100)), kit))
    assert "clip_gap" not in codes(plan_line(line_with(), kit))


def test_a_new_line_buys_its_clips(kit):
    plan = plan_line(line_with(), kit)
    needs = {n.ref: n.amount for n in plan.chosen.needs}
    assert needs["clip:pclip_5"] == len(plan.piece().clips.places_mm) >= 4


def test_plastic_is_held_twice_as_often(kit):
    steel = plan_line(bent(row(400, 45), last=400, tube="steel-plated_8mm_0.7", service="vent"), kit)
    nylon = plan_line(bent(row(400, 45), last=400, tube="nylon_8mm_1", service="vent"), kit)
    assert nylon.piece().clips.apart_mm == pytest.approx(steel.piece().clips.apart_mm / 2)
