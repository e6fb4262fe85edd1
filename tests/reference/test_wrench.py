"""The torque wrench with something on it, against a published example and against statics."""

from __future__ import annotations

import numpy as np
import pytest

from bendrel.core.parts.torque import set_torque


@pytest.mark.parametrize(("offset", "shown"), [(1.5, 117), (-1.5, 159)])
def test_the_published_examples(offset: float, shown: int) -> None:
    """FAA AC 43.13-1B figure 7-2: 135 in·lb wanted, lever 10 in, an adapter of 1.5 in outwards or back."""
    assert round(set_torque(135, 10, offset)) == shown


def test_forces_on_the_wrench() -> None:
    """A hand pulls square to the handle. What the wrench shows is that force times its own length; what the
    nut gets is the force crossed with the way from the nut to the hand."""
    rng = np.random.default_rng(4)
    for _ in range(200):
        length, offset = rng.uniform(200, 600), rng.uniform(15, 90)
        angle, force = rng.uniform(-180, 180), rng.uniform(10, 400)
        square = np.array([0.0, 0.0])
        hand = np.array([length, 0.0])
        # in line, the crowfoot carries the handle on beyond the square
        nut = square - offset * np.array([np.cos(np.radians(angle)), np.sin(np.radians(angle))])
        pull = force * np.array([0.0, 1.0])
        arm = hand - nut
        at_nut = arm[0] * pull[1] - arm[1] * pull[0]
        assert set_torque(at_nut, length, offset, angle) == pytest.approx(force * length)
