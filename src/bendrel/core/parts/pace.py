"""How fast this shop bends: what is common, and the time that it took for its own parts."""

from __future__ import annotations

from collections.abc import Iterable

from bendrel.core.record import record


@record
class Pace:
    """Minutes of one bend with everything about it, and how many parts of the shop's own it is told from."""

    bend_minutes: float
    parts: int = 0


def pace_of(
    common_minutes: float, counts: float, most_minutes: float, parts: Iterable[tuple[int, float]]
) -> Pace:
    """The shop's pace: what is common as if it were `counts` bends, and its own good parts, told as (bends,
    minutes). Parts without a bend or a time are left out, and those of over `most_minutes` a bend: a clock
    that nobody stopped. Source: mean, the common value weighing as those bends."""
    own = [(bends, minutes) for bends, minutes in parts if bends > 0 and 0 < minutes <= most_minutes * bends]
    bends, minutes = sum(b for b, _ in own), sum(m for _, m in own)
    return Pace(bend_minutes=(counts * common_minutes + minutes) / (counts + bends), parts=len(own))
