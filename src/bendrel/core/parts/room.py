"""Whether an end can be flared before the bends, after them, or not at all."""

from __future__ import annotations

from typing import Literal

from bendrel.core.record import record

FlareOrder = Literal["before", "after"]


@record
class EndRoom:
    """Straight tube at one end against what it needs, in mm.

    `before_mm`: flare, nut, and the grip of the bender. `after_mm`: flare, nut pushed clear, and
    the grip of the flaring tool. `slack_mm` is what a hand cannot see.
    """

    straight_mm: float
    before_mm: float
    after_mm: float
    slack_mm: float = 0.0

    @property
    def orders(self) -> tuple[FlareOrder, ...]:
        """The orders that the straight has room for."""
        fits: list[FlareOrder] = []
        if self.straight_mm >= self.before_mm - self.slack_mm - 1e-9:
            fits.append("before")
        if self.straight_mm >= self.after_mm - self.slack_mm - 1e-9:
            fits.append("after")
        return tuple(fits)


def end_room(
    straight_mm: float,
    *,
    flare_mm: float,
    nut_mm: float,
    bender_grip_mm: float,
    flaring_grip_mm: float,
    slack_mm: float = 0.0,
) -> EndRoom:
    """Room at one end, from rim to the first arc. Source: common practice, sums of the parts."""
    return EndRoom(
        straight_mm=straight_mm,
        before_mm=flare_mm + nut_mm + bender_grip_mm,
        after_mm=flare_mm + nut_mm + flaring_grip_mm,
        slack_mm=slack_mm,
    )
