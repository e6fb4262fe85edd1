"""The whole way: an old part is read, made anew by what was taken, and offered to the true port."""

from __future__ import annotations

from random import Random

import pytest

from bendrel.core.measure.adjust import adjust
from bendrel.core.measure.outcome import outcome
from tests.core.fit_bench import Plan
from tests.core.test_adjust import hidden, read_off
from tests.core.test_fit import benched
from tests.core.test_further import ERRORS, as_asked
from tests.often import often


def plan_of(read) -> Plan:
    shape = outcome(read).shape
    return Plan(
        straights=[*(bend.straight_mm for bend in shape.bends), shape.last_straight_mm],
        turns=[bend.rotation_deg for bend in shape.bends],
        angles=[bend.angle_deg for bend in shape.bends],
    )


def read_from_old(rng):
    """A hidden part, and the plan made of its readings and what the program asked for besides."""
    draw = Random(int(rng.integers(1 << 30)))
    true = hidden(draw, draw.randint(3, 8))
    read = read_off(draw, true)
    return plan_of(true), plan_of(adjust(read, as_asked(draw, true, read), ERRORS).read)


@pytest.mark.long("parts read, made and offered in rounds")
def test_a_part_made_by_its_readings_comes_home_at_the_true_port():
    """Soft tube: 95 of 100 within 1 mm and 1° of the true port, and said to fit only where it does
    (`make soak`: 100 parts; a sample allows for its size)."""
    parts = often(10, 100)
    came = benched(parts, 0.3, 0.3, seed=29, drawn=read_from_old)
    assert came.close / parts >= 0.95 - 2 * (0.05 * 0.95 / parts) ** 0.5
    assert came.told_fit >= 0.9 * parts
    assert came.wrongly <= max(1, 0.02 * came.told_fit)
