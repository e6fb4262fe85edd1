"""Ends of hose: what they add, how two elbows stand, which do not go together."""

from __future__ import annotations

import dataclasses

import numpy as np
import pytest
from scipy.spatial.transform import Rotation

from bendrel.core.hose.assembly import assembly_of, clock_text
from bendrel.core.hose.laid import lay_hose
from bendrel.core.hose.shape.laid import HoseEnd, HoseEnds, hose_shape
from bendrel.core.joints.pieces import place_pieces
from bendrel.core.line.document import HoseSpan, Line
from bendrel.core.line.edits.turned import reversed_hose
from bendrel.core.line.hose_way import EndMove, HoseEndAt, HoseWay
from bendrel.core.line.resolve import Reader
from bendrel.core.parts.hose_end import HoseEndSize, clocking_deg, elbow
from bendrel.core.plan.assemble import with_fix
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length

SIZE = HoseEndSize(dash=8, size="1/2 in", cut_off_mm=31, tail_mm=30, nose_mm=20, bend_mm=20)


@pytest.mark.parametrize("angle", [30, 45, 60, 90, 120, 150])
def test_an_angled_end_is_measured_to_where_its_axes_cross(angle):
    """Laid out point by point: the tail, an arc of straight little steps, the nose; then two lines met."""
    steps = 20_000
    turn = np.radians(angle) / steps
    ways = np.array([(np.cos((k + 0.5) * turn), np.sin((k + 0.5) * turn)) for k in range(steps)])
    start = np.array([30.0, 0.0])
    arc_end = start + (ways * (20 * turn)).sum(0)
    out = np.array([np.cos(np.radians(angle)), np.sin(np.radians(angle))])
    seat = arc_end + 20 * out
    # the nose's line met with the axis of the hose, y = 0
    crossing = seat - out * (seat[1] / out[1])
    assert SIZE.takes_mm(angle) == pytest.approx(crossing[0], abs=1e-3)
    assert SIZE.stands_out_mm(angle) == pytest.approx(np.linalg.norm(seat - crossing), abs=1e-3)


def test_a_straight_end_and_one_that_turns_back():
    assert (SIZE.takes_mm(0), SIZE.stands_out_mm(0)) == (31, 0)
    assert (SIZE.takes_mm(180), SIZE.stands_out_mm(180)) == (50, 40)


def unit(vector):
    return np.array(vector, float) / np.linalg.norm(vector)


def test_clocking_against_a_rigid_model_of_both_ends():
    """200 assemblies made by hand: a straight hose with two elbows at a known clock is held up in space
    and bent by turning it bit by bit, so that nothing ever turns about the hose. No mirror image passes."""
    rng = np.random.default_rng(4)
    for _ in range(200):
        clock = rng.uniform(0, 360)
        pieces = 80
        # in the hand: along x, the near elbow up; clockwise seen along x is a right-hand turn about x
        frames = [Rotation.identity()]
        axis, bend = rng.normal(size=3), rng.uniform(0, 2.5)
        for _ in range(pieces):
            axis = axis + 0.3 * rng.normal(size=3)
            way = frames[-1].apply([1, 0, 0])
            square = axis - (axis @ way) * way
            frames.append(Rotation.from_rotvec(square / np.linalg.norm(square) * bend / pieces) * frames[-1])
        ways = np.array([frame.apply([1, 0, 0]) for frame in frames])
        points = np.vstack([[0, 0, 0], np.cumsum(ways[1:] * 5.0, axis=0)])
        turned = Rotation.random(random_state=rng)
        up = turned.apply([0, 0, 1])
        far = (turned * frames[-1]).apply(Rotation.from_rotvec([np.radians(clock), 0, 0]).apply([0, 0, 1]))
        told = clocking_deg(
            tuple(map(tuple, turned.apply(points))),
            tuple(turned.apply(ways[0])),
            tuple(turned.apply(ways[-1])),
            tuple(up),
            tuple(far),
        )
        assert (told - clock + 180) % 360 - 180 == pytest.approx(0, abs=1e-6)


def test_the_elbow_is_what_turns_off_the_hose():
    assert elbow((1, 0, 0), (0.5, 0, -0.5)) == pytest.approx((0, 0, -1))
    assert elbow((1, 0, 0), (1, 0, 0)) is None


@pytest.mark.parametrize(
    ("clock", "said"),
    [
        (90, "to 3:00 (90° clockwise)"),
        (270, "to 9:00 (90° anticlockwise)"),
        (359.9, "up too"),
        (45, "to 1:30"),
        (15, "to 12:30"),
        (29.9, "to 1:00"),  # 59.8 minutes past twelve
        (89.9, "to 3:00"),
        (180, "to 6:00 (180° clockwise)"),
        (181, "(179° anticlockwise)"),
    ],
)
def test_the_words_for_a_person_holding_it(clock, said):
    assert said in clock_text(True, clock)


def at(x, y, z, way, seat=""):
    return HoseEndAt(x=Length(text=str(x)), y=Length(text=str(y)), z=Length(text=str(z)), way=way, seat=seat)


def cooler_hose(**changes):
    """Two ports that look at each other from a frame and a gearbox, both elbows 90°."""
    way = HoseWay(a=at(0, 0, 0, "ahead", "up"), b=at(300, 80, 40, "ahead", "right"))
    hose = HoseSpan(
        hose="oil-cooler_dash8", joined="reusable", length=Length(text="420"), way=way, angle_a=90, angle_b=90
    )
    return Line(name="cooler", service="oil-cooler", unit="mm", spans=(dataclasses.replace(hose, **changes),))


def made(line, kit):
    reader = Reader()
    (hose,) = place_pieces(line, kit, reader.problems).hoses
    laid = lay_hose(kit, hose, reader)
    return assembly_of(kit, hose, laid, line.unit, wets="oil"), reader.problems


@pytest.fixture
def oil_hose(kit):
    return next(h for h in kit.hoses.values() if h.hose_class == "oil-cooler" and h.size == "-8")


def test_lengths_of_a_hose_with_reusable_ends(kit, oil_hose):
    line = cooler_hose(hose=oil_hose.id)
    told, problems = made(line, kit)
    size = kit.hose_ends["reusable-rubber"].size_for(oil_hose.size)
    assert (problems, told.dash, told.nut) == ([], 8, "3/4-16")
    assert told.overall_mm == 420
    # by hand: tail 30 and the bend's radius of 20 at each end
    assert told.cut_mm == pytest.approx(420 - 2 * (size.tail_mm + size.bend_mm)) == 320
    assert told.shorter_mm == pytest.approx(0.04 * 320)
    assert any("320 mm" in step.text for step in told.steps)
    assert any("left-handed" in step.text for step in told.steps)


def test_two_elbows_are_clocked_from_their_ports(kit, oil_hose):
    """The near elbow goes down into its port, the far one to the left; carried along a hose that is nearly
    straight, left is a quarter turn clockwise from down, seen ahead."""
    told, _ = made(cooler_hose(hose=oil_hose.id), kit)
    assert told.clocked
    assert told.clock_deg == pytest.approx(90, abs=15)
    assert [one.turned_deg for one in told.ends] == pytest.approx([90, 90])
    assert any("clockwise" in step.text for step in told.steps)


def test_one_elbow_is_not_clocked(kit, oil_hose):
    told, _ = made(cooler_hose(hose=oil_hose.id, angle_b=0), kit)
    assert (told.clocked, told.clock_deg) == (False, None)
    assert not any(step.id == "clock" for step in told.steps)


def test_the_wrong_angle_is_said_and_mended(kit, oil_hose):
    line = cooler_hose(hose=oil_hose.id, angle_b=45)
    (found,) = [one for one in plan_line(line, kit).findings if one.code == "hose_end_angle"]
    assert "stand at 90°" in found.message
    assert with_fix(line, kit, found.fix).spans[0].angle_b == 90


def test_a_size_that_nobody_makes_is_one_sentence(kit, oil_hose, monkeypatch):
    odd = dataclasses.replace(oil_hose, id="odd", size="-7")
    monkeypatch.setitem(kit.hoses, "odd", odd)
    (found,) = [
        one for one in plan_line(cooler_hose(hose="odd"), kit).findings if one.code == "hose_end_none"
    ]
    assert (found.severity, found.title) == ("stop", "Nobody makes that end")
    assert "for -7 hose; sizes are -4 (dash 4), -6 (dash 6)" in found.message


def test_ends_that_the_catalogue_does_not_have_are_not_known(kit):
    """No default raises a stop: hydraulic hose is made with reusable ends, whose figures are not here."""
    hydraulic = next(h for h in kit.hoses.values() if h.hose_class == "hydraulic")
    line = cooler_hose(hose=hydraulic.id)
    (found,) = [one for one in plan_line(line, kit).findings if one.code == "hose_end_unknown"]
    assert found.severity == "note"
    assert made(line, kit)[0].cut_mm is None


def test_a_typed_clock_wins_and_nonsense_is_said(kit, oil_hose):
    told, _ = made(cooler_hose(hose=oil_hose.id, clock="210°"), kit)
    assert told.clock_deg == 210
    _, problems = made(cooler_hose(hose=oil_hose.id, clock="left"), kit)
    assert "is not an angle" in problems[0].message


def test_rubber_and_ptfe_have_ends_of_their_own(kit):
    """No hose class is in two kinds of reusable end."""
    reusable = [kind for kind in kit.hose_ends.values() if kind.joined == "reusable"]
    classes = [name for kind in reusable for name in kind.hose_classes]
    assert len(classes) == len(set(classes)) == 3
    full = {0, 30, 45, 60, 90, 120, 150, 180}
    assert [set(kind.angles) for kind in reusable] == [full, full, {0}]


def test_the_shape_runs_from_crossing_to_crossing(kit, oil_hose):
    line = cooler_hose(hose=oil_hose.id)
    (laid,) = plan_line(line, kit).hoses
    stiff = 50 + 1.5 * oil_hose.od_mm
    same = HoseEnds(
        a=HoseEnd(point=(0, 0, 0), way=(1, 0, 0), straight_mm=stiff),
        b=HoseEnd(point=(300, 80, 40), way=(1, 0, 0), straight_mm=stiff),
    )
    assert laid.radius_mm == pytest.approx(hose_shape(same, 420).radius_mm, rel=5e-3)


def test_a_hose_turned_round_lies_and_is_clocked_as_before(kit, oil_hose):
    """The same hose told from its other end."""
    span = cooler_hose(hose=oil_hose.id, angle_b=45).spans[0]
    move = EndMove(how="slide", axis="up", least="-5", most="5")
    way = dataclasses.replace(span.way, b=at(300, 80, 40, "1 0.2 0", "right"), moves=(move,))
    line = cooler_hose(hose=oil_hose.id, angle_b=45, way=way)
    turned = dataclasses.replace(line, spans=(reversed_hose(line.spans[0]),))
    (one,), (other,) = plan_line(line, kit).hoses, plan_line(turned, kit).hoses
    assert other.radius_mm == pytest.approx(one.radius_mm, rel=1e-3)
    assert other.ends.a.point == one.ends.b.point
    assert np.allclose(other.ends.a.way, -np.array(one.ends.b.way), atol=1e-5)
    assert (other.moves[0].end, one.moves[0].end) == ("A", "B")
    assert made(turned, kit)[0].clock_deg == pytest.approx(made(line, kit)[0].clock_deg, abs=1e-2)
    assert made(turned, kit)[0].overall_mm == made(line, kit)[0].overall_mm
