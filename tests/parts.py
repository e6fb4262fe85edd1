"""Random parts for tests: shapes a shop could meet, and some it would rather not."""

from __future__ import annotations

import random

from bendrel.core.geometry.bends import Bend, BendList


def random_part(seed: int, *, bends: int | None = None, hairpins: bool = True) -> BendList:
    """A part with up to 12 bends of 1° to 169°, or to 350° where `hairpins`."""
    rng = random.Random(seed)
    count = rng.randint(0, 12) if bends is None else bends
    made = []
    for k in range(count):
        wide = hairpins and rng.random() < 0.2
        made.append(
            Bend(
                straight_mm=rng.uniform(5, 400),
                rotation_deg=0.0 if k == 0 else rng.uniform(-179.9, 180),
                angle_deg=rng.uniform(170.5, 350) if wide else rng.uniform(1, 169),
                radius_mm=rng.uniform(8, 60),
            )
        )
    return BendList(bends=tuple(made), last_straight_mm=rng.uniform(5, 400))
