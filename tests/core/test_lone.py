"""A reading of the bench that stands alone is read again before it moves anything, and what the hand did
wrong is named once it is believed. The parts are those of a bench that shares nothing with the program."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from bendrel.core.bend.bench.remade import remake
from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.bend.tube.choosing import choose_rows
from bendrel.core.line.run import main_run
from bendrel.core.plan.planner import plan_line
from tests.core.fit_bench import some_plan
from tests.core.test_making import KIT, LINE, made_of
from tests.core.test_weighed import line_of


def as_read(plan, rng, wrong=None, slipped=None):
    """Every bend made with a hand's error and read with a gauge's, the reading `wrong` (bend, name) mistyped;
    at bend `slipped` the tube lay 10 mm off."""
    line = line_of(plan)
    run = main_run(line)
    part, chosen = plan_line(line, KIT).part, choose_rows(run, KIT, [])
    made, before = [], 0.0
    for k in range(len(plan.angles)):
        stands = remake(run, KIT, part, chosen, made)
        told = stands.next
        off = rng.normal(0, 0.3) + (10.0 if k == slipped else 0.0)
        read = {
            "angle": told.angle_deg + rng.normal(0, 0.3),
            "leg": told.leg_mm + off - before + rng.normal(0, 0.5),
        }
        before = off
        if wrong is not None and wrong[0] == k:
            read[wrong[1]] = wrong[2](read[wrong[1]])
        made.append(
            MadeBend(
                bend=told.move.bend, held="A", start_mm=told.start_mm, angle_deg=told.angle_deg,
                clock_deg=told.clock_deg, beyond_deg=told.beyond_deg, unit="mm",
                angle=f"{read['angle']:.3f}", leg=f"{read['leg']:.3f}",
            )
        )  # fmt: skip
    return made, lambda made: remake(run, KIT, part, chosen, made)


def test_a_leg_typed_in_inches_is_asked_for_again_and_counts_for_nothing():
    leg = made_of(LINE, [{"angle": "90"}, {}]).legs_mm[1]
    told = made_of(LINE, [{"angle": "90"}, {"leg": f"{leg / 25.4:.2f}"}], sure=())
    (lone,) = told.lone
    assert (lone.bend, lone.name) == (2, "leg")
    assert lone.slip == "as if inches were typed for millimetres"
    assert lone.would_read == pytest.approx(25.4 * lone.read, abs=2)
    assert told.near
    assert not told.changed
    assert not told.slips
    assert [one.name for one in told.departures] == ["angle"]


@pytest.mark.parametrize(
    ("reads", "slip"),
    [
        ([{}, {"angle": "135"}], "as if the gauge was read on its other side"),
        ([{}, {"plane": "9:00"}], "as if it was read from the other end"),
        ([{}, {"plane": "2:00"}], ""),
        ([{}, {}, {"plane": "12:00"}], "as if the line lay the other way up"),
    ],
)
def test_what_a_lone_reading_looks_like(reads, slip):
    """Bend 2 of the line is to come out at 45° and at 3:00, bend 3 at 6:00."""
    (lone,) = made_of(LINE, reads, sure=()).lone
    assert lone.slip == slip


def test_what_was_read_again_is_believed_and_named():
    told = made_of(LINE, [{}, {"plane": "9:00"}])
    assert told.lone == ()
    (slip,) = told.slips
    assert (slip.bend, slip.kind, slip.like) == (2, "turn", "as if the tube was turned the wrong way")
    assert not told.near
    assert told.ways


def test_what_another_reading_bears_out_is_believed_at_once():
    """The tube lay 10 mm off at bend 2: its leg says so, and so does the tape across from end A."""
    far = 10.0
    plain = made_of(LINE, [{}, {}])
    across = next(one for one in plain.known.readings if (one.bend, one.name) == (2, "from_a")).would_read
    leg = plain.legs_mm[1] + far
    alone = made_of(LINE, [{}, {"leg": f"{leg:.2f}"}], sure=())
    assert [one.name for one in alone.lone] == ["leg"]
    both = made_of(LINE, [{}, {"leg": f"{leg:.2f}", "from_a": f"{_moved(across, far):.2f}"}], sure=())
    assert both.lone == ()
    assert [(one.bend, one.like) for one in both.slips] == [(2, "as if a centimetre was counted wrong")]


def _moved(across, far):
    """From end A straight across to bend 2: behind a bend of 90° the way on is square to the first leg,
    which is about 80 mm and the radius long."""
    first = 80 + 15 + 2
    return float(np.hypot(np.sqrt(across**2 - first**2) + far, first))


@pytest.mark.long("36 parts made bend by bend, each planned anew after every reading")
def test_of_many_parts_no_good_reading_is_asked_for_again_and_every_wrong_one_is():
    """And a bend that lay 10 mm off is named once its readings are believed; one of twelve may be missed."""
    rng = np.random.default_rng(4)
    wrongs = [
        ("leg", lambda mm: mm / 25.4), ("leg", lambda mm: mm + 25.4), ("angle", lambda deg: 180 - deg + 30),
    ]  # fmt: skip
    false = found = named = tried = 0
    for k in range(12):
        plan = some_plan(rng)
        made, stands = as_read(plan, rng)
        false += len(stands(made).lone)
        name, mistyped = wrongs[k % 3]
        at = int(rng.integers(len(plan.angles)))
        made, stands = as_read(plan, rng, wrong=(at, name, mistyped))
        lone = stands(made).lone
        tried += 1
        found += [(one.index, one.name) for one in lone] == [(at, name)]
        made, stands = as_read(plan, rng, slipped=at)
        again = stands([replace(one, sure=("leg", "angle")) for one in made])
        named += [(one.bend, one.kind) for one in again.slips] == [(at + 1, "place")]
    assert false == 0
    assert found >= tried - 1
    assert named >= tried - 1
