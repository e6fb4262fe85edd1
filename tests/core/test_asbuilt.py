"""A part while it is made, against tube that is really bent: readings from either end, and what is told next.

The literal bender of `bench_simulation` carries out each instruction as it is told, off by what the hand is
off; where end B of that tube lies, rolled and trimmed as a person would, is what the program must say.
"""

from __future__ import annotations

from math import radians, tan

import numpy as np
import pytest
from scipy.optimize import minimize
from scipy.spatial.transform import Rotation

from bendrel.core.bend.bench.remade import remake
from bendrel.core.bend.told.figures import MadeBend, as_built
from bendrel.core.bend.told.laid import Laid
from bendrel.core.bend.tube.choosing import choose_rows
from bendrel.core.bend.tube.part import shape_of
from bendrel.core.line.exact_ways import ExactWays
from bendrel.core.line.run import main_run
from bendrel.core.plan.planner import plan_line
from tests.core.bench_simulation import Tube
from tests.lines import bent, in_order, known_kit, row, the_tube, with_tube
from tests.measured import walk

KIT = known_kit()
LINE = bent(row(80, 90), row(150, 45, "3:00"), row(120, 60, "6:00"), row(140, 90, "9:00"), last=120)
R, OD = 15.0, 4.7625
OUT = R + OD / 2

# ---- single readings, by hand: straights of 100, 60, 80 and 90 mm, bends of 90°, 45° and 60°
ARCS = [R * radians(angle) for angle in (90, 45, 60)]
PLANNED = Laid(
    starts_mm=(100.0, 160 + ARCS[0], 240 + ARCS[0] + ARCS[1]),
    angles_deg=(90.0, 45.0, 60.0),
    clocks_deg=(0.0, 90.0, 210.0),
    radii_mm=(R, R, R),
    length_mm=330 + sum(ARCS),
)
BEYOND = {"A": 2.0, "B": 27.0}


def corner(angle):
    return OUT * tan(radians(angle) / 2)


def item(number, held, **read):
    k = number - 1
    return MadeBend(bend=number, held=held, start_mm=PLANNED.starts_mm[k], angle_deg=PLANNED.angles_deg[k],
                    clock_deg=PLANNED.clocks_deg[k], **read)  # fmt: skip


@pytest.mark.parametrize(
    ("order", "legs"),
    [
        ("A1 A2 A3", [102 + corner(90), 60 + corner(90) + corner(45), 80 + corner(45) + corner(60)]),
        ("B3 B2 B1", [117 + corner(60), 80 + corner(60) + corner(45), 60 + corner(45) + corner(90)]),
        # bend 2 is still straight tube: over it from bend 1 to bend 3, and then from bend 3 back
        (
            "A1 A3 B2",
            [102 + corner(90), 140 + ARCS[1] + corner(90) + corner(60), 80 + corner(60) + corner(45)],
        ),
        (
            "B3 B1 A2",
            [117 + corner(60), 140 + ARCS[1] + corner(90) + corner(60), 60 + corner(90) + corner(45)],
        ),
    ],
)
def test_a_leg_is_read_from_the_nearest_made_bend_on_the_held_side(order, legs):
    made = [item(int(word[1]), word[0]) for word in order.split()]
    assert as_built(PLANNED, made, BEYOND, OD).legs_mm == pytest.approx(legs)


@pytest.mark.parametrize(("held", "start"), [("A", 0.0), ("B", R * radians(4))])
def test_a_bend_that_came_out_short_keeps_the_side_that_lay_in_the_clamp(held, start):
    """56° for 60°: held at B its far end stays, so that it starts 4° of arc further from A."""
    told = as_built(PLANNED, [item(3, held, angle="56")], BEYOND, OD)
    assert told.laid.angles_deg == (90, 45, 56)
    assert told.laid.starts_mm[2] - PLANNED.starts_mm[2] == pytest.approx(start)
    assert [(d.bend, d.name, d.off) for d in told.departures] == [(3, "angle", pytest.approx(-4))]


def test_the_leg_after_a_bend_that_came_out_otherwise_is_read_over_it_as_it_is():
    """Bend 1 came out at 80°: its corner lies nearer to it, and bend 2 starts 10° of arc further on."""
    told = as_built(PLANNED, [item(1, "A", angle="80"), item(2, "A")], BEYOND, OD)
    assert told.legs_mm[1] == pytest.approx(60 + R * radians(10) + corner(80) + corner(45))


@pytest.mark.parametrize(("held", "moved"), [("A", 1.5), ("B", -1.5)])
def test_a_leg_read_long_lies_further_from_the_end_that_was_held(held, moved):
    usual = as_built(PLANNED, [item(2, held)], BEYOND, OD).legs_mm[0]
    told = as_built(PLANNED, [item(2, held, leg=f"{usual + 1.5:.6f}")], BEYOND, OD)
    assert told.laid.starts_mm[1] - PLANNED.starts_mm[1] == pytest.approx(moved)
    assert told.laid.starts_mm[0] == PLANNED.starts_mm[0]
    assert told.departures[0].off == pytest.approx(1.5)


def test_planes_are_read_from_end_a_or_from_the_bend_before():
    clock = as_built(PLANNED, [item(2, "B", plane="3:10")], BEYOND, OD)
    assert clock.laid.clocks_deg == pytest.approx((0, 95, 210))
    turned = as_built(PLANNED, [item(1, "A"), item(2, "A", plane="85", plane_by="degrees")], BEYOND, OD)
    assert turned.laid.clocks_deg == pytest.approx((0, 85, 210))
    assert turned.departures[0].off == pytest.approx(-5)
    third = item(3, "A", plane="125", plane_by="degrees")
    last = as_built(PLANNED, [item(1, "A"), item(2, "A"), third], BEYOND, OD)
    assert last.laid.clocks_deg == pytest.approx((0, 90, 215))
    beyond_half = as_built(
        PLANNED, [item(1, "A"), item(2, "A", plane="-175", plane_by="degrees")], BEYOND, OD
    )
    assert beyond_half.departures[0].off == pytest.approx(95)
    missing = as_built(PLANNED, [item(3, "A", plane="120", plane_by="degrees")], BEYOND, OD)
    assert "counts from bend 2, which is not made yet" in missing.misread[0].message
    assert missing.laid == PLANNED


def test_a_bend_left_open_is_read_as_it_is_now_and_counts_as_planned():
    told = as_built(PLANNED, [item(2, "A", angle="23")], BEYOND, OD, {1: 20.0})
    assert told.laid.angles_deg[1] == 45
    assert told.departures[0].off == pytest.approx(3)


def test_what_cannot_be_read_is_named_with_its_bend_and_left_out():
    made = [item(1, "A", angle="steep", plane="25:00", leg="far"), item(2, "A")]
    told = as_built(PLANNED, made, BEYOND, OD)
    assert [(m.index, m.name) for m in told.misread] == [(0, "angle"), (0, "plane"), (0, "leg")]
    assert told.laid == PLANNED


# ---- the whole part, really bent


def in_hand(line, errors, *, read=True):
    """Bend the line as it is told, each bend off by (degrees of angle, degrees of turn) of `errors`, and read
    angle and plane back. The readings, what the program says at the end, and end B of the literal tube in the
    frame of end A: point and way."""
    part, chosen = plan_line(line, KIT).part, choose_rows(main_run(line), KIT, [])
    made, moves = [], []
    for off, turned in errors:
        told = remake(main_run(line), KIT, part, chosen, made).next
        move = told.move
        clock = told.clock_deg + turned * (-1 if move.held == "A" else 1)
        minutes = round(clock * 2) % 720
        given = {"angle": f"{told.angle_deg + off:.6f}", "plane": f"{minutes // 60 or 12}:{minutes % 60:02d}"}
        made.append(
            MadeBend(bend=move.bend, held=move.held, start_mm=told.start_mm, angle_deg=told.angle_deg,
                     clock_deg=told.clock_deg, beyond_deg=told.beyond_deg, sure=("angle", "plane"),
                     **(given if read else {}))
        )  # fmt: skip
        # what can be read of a clock is half a degree: the hand is off by what is read
        actual = (minutes / 2 - told.clock_deg + 180) % 360 - 180
        moves.append((move, off, actual * (-1 if move.held == "A" else 1)))
    # an end flared before bending has used its tube up already
    cut = part.beyond_mm["A"] + part.developed_mm + part.beyond_mm["B"]
    rim_a, rim_b = part.beyond_mm["A"], cut - part.beyond_mm["B"]
    stations = {0.0, rim_a, rim_a + 1, rim_b - 1, rim_b, cut}
    stations |= {m.start_mark_mm if m.held == "A" else cut - m.start_mark_mm for m, _, _ in moves}
    order = sorted(stations)
    tube = Tube(cut, order)
    for move, off, turned in moves:
        tube.bend(held=move.held, mark_mm=move.start_mark_mm, zero_mm=0, turn_deg=move.turn_deg + turned,
                  angle_deg=move.angle_deg + off, radius_mm=R, sense="left")  # fmt: skip
    here = {at: tube.points[k] for k, at in enumerate(order)}
    way = here[rim_a + 1] - here[rim_a]
    first = next(m for m, _, _ in moves if m.bend == 1)
    tangent = first.start_mark_mm if first.held == "A" else cut - first.start_mark_mm
    # the first bend closes towards where its tube goes: its side, square to the way
    after = tube.ways[
        min(k for k, at in enumerate(order) if at > tangent + (R * 1.4 if first.held == "A" else -1))
    ]
    side = after - (after @ way) * way
    side /= np.linalg.norm(side)
    frame = np.array([way, side, np.cross(way, side)])
    return (
        made,
        remake(main_run(line), KIT, part, chosen, made),
        frame @ (here[rim_b] - here[rim_a]),
        frame @ (here[rim_b] - here[rim_b - 1]),
    )


def best_fit(line, point, way):
    """(mm, degrees) by which end B misses when the part is rolled about A and its last end (the one that was
    not held at first) trimmed as suits best."""
    at_b = the_tube(line).held == "A"
    _, goal, goal_way = walk(shape_of(plan_line(line, KIT).part))

    def there(x):
        roll = Rotation.from_euler("x", x[0], degrees=True)
        off = roll.apply(point + (way if at_b else [1.0, 0.0, 0.0]) * np.array(x[1])) - goal
        return np.linalg.norm(off), np.degrees(np.arccos(np.clip(roll.apply(way) @ goal_way, -1, 1)))

    def squared(x):
        return sum(v**2 for v in there(x))

    found = minimize(squared, [0, 0], bounds=[(-20, 20), (-60, 25)], method="Powell", tol=1e-8)
    return there(found.x)


def held_at(end, order=""):
    return with_tube(LINE, held=end, order=in_order(order), ways=ExactWays(fine_gauge=True))


WAYS = [("A", ""), ("B", ""), ("A", "A1 A2 B4 B3"), ("B", "B4 A1 A2 A3")]


@pytest.mark.parametrize(("end", "order"), WAYS)
def test_a_part_bent_as_told_meets_its_port(end, order):
    line = held_at(end, order)
    _, told, point, way = in_hand(line, [(0, 0)] * 4)
    assert best_fit(line, point, way) == pytest.approx((0, 0), abs=0.02)
    assert told.meets


@pytest.mark.parametrize(("end", "order"), WAYS)
@pytest.mark.parametrize("errors", [[(-3, 0)], [(0, 5)], [(2, -4), (0, 0)], [(0, 0), (-4, 3)]])
def test_what_is_told_after_a_bend_came_out_otherwise_brings_the_real_tube_home(end, order, errors):
    """One or two bends off in angle or plane and read; the rest bent as re-planned. The literal tube then
    meets the port within a millimetre and a degree, and lies where the program says it lies."""
    line = held_at(end, order)
    _, told, point, way = in_hand(line, [*errors, *[(0, 0)] * (4 - len(errors))])
    off, askew = best_fit(line, point, way)
    assert off < 1.0
    assert askew < 1.0
    assert told.meets


@pytest.mark.parametrize(("end", "order"), WAYS)
def test_a_part_that_cannot_be_saved_lies_where_the_program_says(end, order):
    """Every bend off, the last ones most: no freedom is left, and the miss is the literal tube's own."""
    line = held_at(end, order)
    _, told, point, way = in_hand(line, [(0, 0), (0, 0), (3, 4), (-5, -6)])
    off, askew = best_fit(line, point, way)
    assert off > 3
    assert told.as_it_is.off_mm == pytest.approx(off, abs=0.15)
    assert told.as_it_is.askew_deg == pytest.approx(askew, abs=0.1)
    assert not told.near


def test_errors_that_nobody_read_are_not_known_of():
    line = held_at("B")
    _, told, point, way = in_hand(line, [(-3, 0), (0, 0), (0, 0), (0, 0)], read=False)
    assert told.as_it_is.off_mm < 0.01
    assert best_fit(line, point, way)[0] > 1
