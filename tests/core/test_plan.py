"""The whole plan: cut length, marks and moves of one worked line, and every finding."""

from math import pi

import pytest

from bendrel.core.bend.tool.springback import springback_prior
from bendrel.core.bend.tube.marking import turn_words
from bendrel.core.findings import Spot
from bendrel.core.line.document import SetAside, TestFlare
from bendrel.core.line.resolve import resolve
from bendrel.core.parts.fitting import double_flare_use
from bendrel.core.parts.room import end_room
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work, working_of
from bendrel.core.units.lengths import Length
from tests.lines import DOUBLE, End, bent, cornered, replace, row, the_tube

U = (row(100, 90), row(60, 90, "3:00"))


def codes(plan):
    return {finding.code for finding in plan.findings}


def found(plan, code):
    return next(finding for finding in plan.findings if finding.code == code)


def test_tube_used_by_a_double_flare():
    """Slant geometry by hand: D 4.76, F 7.0, 45° gives 2.05 mm."""
    assert double_flare_use(4.76, 7.0, 45) == pytest.approx(2.05, abs=0.005)


@pytest.mark.parametrize(
    ("material", "od", "wall", "radius", "degrees"),
    [
        ("copper-nickel", 4.7625, 0.7112, 15, 0.74),
        ("steel-double-wall", 4.7625, 0.7112, 15, 0.81),
        ("stainless-304", 9.525, 0.889, 28, 1.19),
    ],
)
def test_springback_prior(kit, material, od, wall, radius, degrees):
    """By hand, M_p·R/(E·I) on 90°, σ_y and E from memory."""
    tube = replace(next(iter(kit.tubes.values())), od_mm=od, wall_mm=wall)
    share = springback_prior(kit.materials[material], tube, radius)
    assert 90 * share == pytest.approx(degrees, abs=0.005)


def test_cut_length_term_by_term(kit):
    """Straights 100 + 60 + 100, two arcs of 15·π/2, two double flares of 2.05, spare 25."""
    plan = plan_line(bent(*U), kit)
    developed = 260 + 15 * pi
    assert plan.part.developed_mm == pytest.approx(developed)
    assert [t.id for t in plan.part.terms] == ["developed", "end-A", "end-B", "spare"]
    assert plan.part.cut_mm == pytest.approx(developed + 2 * 2.05 + 25, abs=0.01)
    assert plan.part.cut_mm == pytest.approx(sum(t.mm for t in plan.part.terms))


def test_pattern_wire_and_spare_give_the_cut(kit):
    """Common practice: pattern wire 685 mm and spare 25 mm are cut to 710 mm."""
    plain = End(fitting="plain")
    line = bent(last=685, end_a=plain, end_b=plain, service="unspecified")
    assert plan_line(line, kit).part.cut_mm == pytest.approx(710)


def test_your_own_flared_piece_wins_over_the_formula(kit):
    own = replace(DOUBLE, trial=TestFlare(used=Length(text="3.1 mm")))
    line = bent(*U, end_a=own)
    assert plan_line(line, kit).part.terms[1].mm == pytest.approx(3.1)
    derivation = next(d for d in working_of(line, kit) if d.id == "end-A")
    assert derivation.formula == "as measured"


def test_marks_from_the_flared_rim_or_the_cut_end(kit):
    """A straight of 100 mm has room to flare A first; one of 40 mm only after bending."""
    first = plan_line(bent(*U), kit).part.moves[0]
    assert (first.measured_from, first.mark_mm) == ("flared_rim", pytest.approx(100))
    close = plan_line(bent(row(41, 90), *U[1:], bender="bench_3-16in"), kit)
    move = close.part.moves[0]
    assert move.measured_from == "cut_end"
    assert move.mark_mm == pytest.approx(41 + 2.05, abs=0.01)
    assert move.strip_mm == pytest.approx(41)
    assert "flare_order" in codes(close)


def test_moves_from_end_b(kit):
    """From B: bend 2 first, 100 mm from the rim; bend 1 after the straight of 60 and one arc."""
    moves = plan_line(bent(*U, held="B"), kit).part.moves
    assert [m.bend for m in moves] == [2, 1]
    assert [m.start_mark_mm for m in moves] == pytest.approx([100, 160 + 7.5 * pi])
    assert [m.turn_deg for m in moves] == [0, -90]
    assert [m.strip_mm for m in moves] == pytest.approx([160 + 15 * pi, 100 + 7.5 * pi])


def test_turns_are_said_for_somebody_holding_that_end():
    assert turn_words(-90, "A") == "90° anticlockwise, end A towards you"
    assert turn_words(30.04, "B") == "30° clockwise, end B towards you"
    assert turn_words(180, "A") == "half a turn"
    assert turn_words(0, "A") == "no turn"
    assert turn_words(0, "A", first=True) == "as it lies"


def test_every_move_has_its_working(kit):
    told = working_of(bent(*U, marks="middle"), kit)
    ids = {d.id for d in told}
    assert {"cut", "developed", "end-A", "end-B", "mark-1", "arc-2", "dial-1"} <= ids
    for derivation in told:
        assert derivation.formula
        assert derivation.source.text


def test_end_room_says_which_order_works():
    """By hand: 1.1 + 16 + 20 before, 1.1 + 16 + 22 after."""
    room = {"flare_mm": 1.1, "nut_mm": 16, "bender_grip_mm": 20, "flaring_grip_mm": 22}
    assert end_room(40, **room).orders == ("before", "after")
    assert end_room(38, **room).orders == ("before",)
    assert end_room(37, **room).orders == ()


def test_a_sound_line_has_nothing_against_it(kit):
    assert codes(plan_line(bent(*U), kit)) == set()


def test_missing_straight_is_a_stop_with_a_fix_that_mends_it(kit):
    tight = bent(row(100, 90), row(20, 90, "3:00", start="centre", end="centre"))
    plan = plan_line(tight, kit)
    finding = found(plan, "straight_missing")
    assert finding.severity == "stop"
    assert str(finding.where) == "straight 2"
    assert "10 mm more" in finding.message
    assert {c.path for c in finding.fix.changes} == {
        "/spans/s1/readings/rows/r2/length/text",
        "/spans/s1/readings/rows/r2/length/exact_mm",
    }
    # 10 mm more, and the 12 mm that the tool holds on to between two bends
    assert finding.fix.label == "Make this leg 42 mm"


def test_bends_too_close_for_the_die(kit):
    finding = found(plan_line(bent(row(100, 90), row(8, 90, "3:00")), kit), "bends_too_close")
    assert "8 mm of straight" in finding.message
    assert "12 mm" in finding.message
    assert finding.fix.label == "Make this leg 12 mm"


def test_a_trapped_nut(kit):
    finding = found(plan_line(bent(row(25, 90), *U[1:]), kit), "end_room")
    assert (finding.severity, str(finding.where)) == ("stop", "end A")
    assert finding.source.kind == "common practice"


def test_an_angle_beyond_the_bender(kit):
    """200° in a hand bender, and 180° that springs back over a limit of 180° on the dial."""
    far = found(plan_line(bent(row(100, 200)), kit), "angle_over_limit")
    assert "200° is asked" in far.message
    near = found(plan_line(bent(row(100, 180)), kit), "angle_over_limit")
    assert "springs back" in near.message


def test_radius_rules(kit):
    plan = plan_line(bent(row(100, 90, radius=9), *U[1:]), kit)
    assert found(plan, "radius_not_the_tools").fix.changes[0].value is None
    tight = found(plan, "radius_too_tight")
    assert (tight.severity, tight.safety) == ("stop", True)
    assert tight.fix.label == "Use the tool’s radius"  # the typed one is the tight one
    gentle = (row(100, 90), row(60, 90, "3:00"))
    coated = plan_line(bent(*gentle, tube="steel-coated_3-16in_0.711", bender="pliers_3-16in"), kit)
    assert found(coated, "radius_too_tight").fix.changes[0].path == "/spans/s1/bender"
    loose = plan_line(bent(row(100, 90, radius=9), *U[1:], service="cooler"), kit)
    assert found(loose, "radius_too_tight").severity == "caution"


def test_a_back_that_stretches_too_far(kit):
    plan = plan_line(bent(row(100, 90, radius=7), *U[1:]), kit)
    assert "34%" in found(plan, "strain_over_elongation").message  # 4.7625 / 2 / 7


def test_bender_of_another_size(kit):
    finding = found(plan_line(bent(*U, bender="lever_3-8in"), kit), "bender_size")
    assert finding.fix.changes[0].value == "lever_3-16in"


def test_what_brakes_refuse(kit):
    """Common practice: no aluminium, no compression, no unflared end."""
    plan = plan_line(bent(*U, tube="aluminium-3003_3-16in_0.889"), kit)
    refused = found(plan, "material_refused")
    assert (refused.severity, refused.safety) == ("stop", True)
    assert refused.fix.label == "Use copper-nickel"
    for fitting in ("compression", "plain"):
        ended = plan_line(bent(*U, end_b=End(fitting=fitting)), kit)
        assert found(ended, "end_refused").fix.label == "Change it to 45° double flare"
    cooler = plan_line(bent(*U, end_b=End(fitting="compression"), service="cooler"), kit)
    assert "end_refused" not in codes(cooler)


def test_double_flare_on_stainless(kit):
    plan = plan_line(bent(*U, tube="stainless-304_3-16in_0.711"), kit)
    assert found(plan, "double_flare_hard").severity == "caution"


def test_nut_and_port(kit):
    jam = plan_line(bent(*U, end_b=replace(DOUBLE, thread="M10x1")), kit)
    finding = found(jam, "nut_port")
    assert "6.6 turns" in finding.message
    assert finding.fix.changes[0].value == "double-45_3-16in_M10x1"
    tapered = plan_line(bent(*U, end_b=replace(DOUBLE, thread="1/8 NPT")), kit)
    mixed = found(tapered, "threads_mixed")
    assert "taper" in mixed.message
    assert (mixed.severity, mixed.safety) == ("stop", True)
    unread = found(plan_line(bent(*U, end_b=replace(DOUBLE, thread="about 10")), kit), "port_thread_unread")
    assert unread.severity == "caution"
    unproved = plan_line(bent(*U, end_a=replace(DOUBLE, proved=False)), kit)
    assert found(unproved, "prove_nut").severity == "note"
    other = plan_line(bent(*U, end_a=replace(DOUBLE, nut="bubble_3-16in_3-8-24")), kit)
    assert found(other, "nut_mismatch").severity == "stop"
    none = plan_line(bent(*U, end_a=replace(DOUBLE, nut=None)), kit)
    assert found(none, "no_nut").fix is not None


def test_no_spare_is_worth_a_note(kit):
    assert "no_spare" in codes(plan_line(bent(*U, spare=Length(text="")), kit))


def test_stops_come_first_and_what_was_set_aside_last(kit):
    line = bent(row(100, 200), row(8, 90, "3:00"), spare=Length(text="0"))
    plan = plan_line(line, kit)
    assert [f.severity for f in plan.findings] == sorted(
        (f.severity for f in plan.findings), key=["stop", "caution", "note"].index
    )
    taken = SetAside(
        code="angle_over_limit", at=Spot(kind="bend", span="s1", row="r1"), reason="two bites on the old tool"
    )
    again = plan_line(replace(line, set_aside=(taken,)), kit)
    assert again.findings[-1].code == "angle_over_limit"
    assert again.findings[-1].set_aside == "two bites on the old tool"


def test_unknown_choices_are_problems_not_crashes(kit):
    plan = plan_line(bent(*U, tube="unobtainium", service="magic"), kit)
    assert plan.part is None
    assert {p.path for p in plan.problems} == {"/spans/s1/tube", "/service"}


def test_steps_put_nuts_on_before_flare_and_bend(kit):
    """Common practice: the classic mistake costs the whole piece."""
    kinds = [step.kind for step in order_of_work(bent(*U), kit)]
    assert kinds.index("prove") < kinds.index("cut") < kinds.index("nuts")
    assert kinds.index("nuts") < kinds.index("flare") < kinds.index("bend")
    assert kinds.index("bend") < kinds.index("trim") < len(kinds) - kinds[::-1].index("flare") - 1
    blow = kinds.index("blow")
    behind = [step.stage for step in order_of_work(bent(*U), kit)][blow + 1 :]
    assert behind == sorted(behind)  # fit before prove: the line is fitted before it is proved
    assert set(behind) == {"fit", "prove"}


def test_an_end_without_room_after_bending_is_flared_first_and_not_trimmed(kit):
    steps = order_of_work(bent(*U, last=38, bender="pliers_3-16in"), kit)
    kinds = [step.kind for step in steps]
    assert kinds.index("trim") < kinds.index("bend")
    assert kinds.count("flare") == 2
    assert max(k for k, kind in enumerate(kinds) if kind == "flare") < kinds.index("bend")


def test_corner_points_and_bends_plan_the_same(kit):
    corners = cornered((0, 0, 0), (115, 0, 0), (115, 90, 0), (115, 90, 115))
    by_points = plan_line(corners, kit).part
    by_bends = plan_line(bent(*U), kit).part
    assert by_points.developed_mm == pytest.approx(by_bends.developed_mm)
    assert [m.mark_mm for m in by_points.moves] == pytest.approx([m.mark_mm for m in by_bends.moves])


def test_readings_may_be_wild_but_the_plan_never_raises(kit):
    for text in ("0", "-5", "100 m", "1e99", "９", "\x00", "½ ½"):
        line = bent(row(text, "90"), row("50", text, text), last=text)
        plan = plan_line(line, kit)
        assert plan.part is None
        assert plan.problems


def test_the_part_of_a_plan_ends_where_its_shape_ends(kit):
    line = bent(*U)
    part = plan_line(line, kit).part
    assert part.path[0][0] == 0
    assert part.path[-1][0] == pytest.approx(part.developed_mm)
    assert part.path[-1][1] == pytest.approx(part.end_b.point)
    read = resolve(the_tube(line).readings, od_mm=part.od_mm, radius_mm=15)
    assert read.shape.developed_mm == part.developed_mm


@pytest.mark.parametrize("reason", ["x..", "...", "ok fine", "because", "a b c d e f g h i"])
def test_a_safety_finding_is_not_set_aside_by_a_text_that_says_nothing(kit, reason):
    """Common practice: whoever works on it next must understand why it was taken on."""
    weak = bent(row(100, 90), service="hydraulic")
    stop = next(f for f in plan_line(weak, kit).findings if f.code == "pressure_tube")
    taken = SetAside(code=stop.code, at=stop.where.spot, reason=reason)
    told = next(f for f in plan_line(replace(weak, set_aside=(taken,)), kit).findings if f.code == stop.code)
    assert told.set_aside == ""
    real = replace(taken, reason="return side only, gauge never over 40 bar")
    told = next(f for f in plan_line(replace(weak, set_aside=(real,)), kit).findings if f.code == stop.code)
    assert told.set_aside == real.reason
