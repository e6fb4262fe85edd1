"""What is not known of a part that was made as it was told: the tool's own figures, and the hand at every
bend, tweak and fitting."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property
from math import pi
from typing import TYPE_CHECKING, Annotated, Literal, assert_never

from annotated_types import Ge, Le

from bendrel.core.bend.told.laid import Laid
from bendrel.core.bend.told.many import Many
from bendrel.core.findings import EndName
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

TOOL = 4
LEAST_DEG = 0.1
"""A bend that is opened never becomes straight: it stays the same bend."""


@record
class ToolDoubt:
    """What is not known of a bender: the covariance of its radius (mm), its zero (mm), its spring-back's
    share and its spring-back's angle (degrees). All of them are the same in every bend of a part."""

    covariance: tuple[tuple[float, float, float, float], ...]

    @property
    def sds(self) -> tuple[float, float, float, float]:
        """One standard deviation of each."""
        r, z, a, b = (self.covariance[k][k] ** 0.5 for k in range(TOOL))
        return r, z, a, b


NO_DOUBT = ToolDoubt(covariance=((0.0,) * 4,) * 4)


@record
class Told:
    """One bend as it was told: which (from 0), the end in the clamp, where it was to start, its angle and
    clock, and by how much its clock was to lie beyond that of the bend made before it."""

    bend: int
    held: EndName
    start_mm: float
    angle_deg: float
    clock_deg: float
    beyond_deg: float


ActKind = Literal["bend", "twist"]


@record
class Act:
    """Something done to a finished part: bend `at` (from 1) further by `deg`, or the straight `at` (from 1
    at end A) twisted so that the side of B goes clockwise seen from A. A bend keeps its length of tube
    and turns the side of B about its middle, as a hand does it."""

    kind: ActKind
    at: Annotated[int, Ge(1), Le(1000)]
    deg: Annotated[float, Ge(-90), Le(90)]

    def done(self, angles: Array, clocks: Array, degrees: Array | float) -> None:
        """Do it by so many degrees (its own figure apart): `angles` and `clocks` of every bend (rows) of
        every part (columns) are changed in place."""
        import numpy as np

        match self.kind:
            case "bend":
                angles[self.at - 1] = np.maximum(LEAST_DEG, angles[self.at - 1] + degrees)
            case "twist":
                clocks[self.at - 1 :] = clocks[self.at - 1 :] + degrees
            case _:
                assert_never(self.kind)


@record
class Hand:
    """One standard deviation of what a hand does: where a bend lands (mm), its angle, its turn from the
    bend made before (degrees); how far from what was told end B comes to rest at a tweak (mm) and how
    exactly a bend is pulled in the tool (degrees)."""

    place_mm: float
    angle_deg: float
    turn_deg: float
    tweak_mm: float
    tool_deg: float


class Unknowns:
    """The unknowns of one part in one column, in this order: the tool's four; place, angle and turn of
    every bend told; the error of every act; the roll at every offer. `sds` of the last three kinds may be
    widened where the readings say that the hand slipped."""

    def __init__(
        self,
        planned: Laid,
        told: Sequence[Told],
        tool: ToolDoubt,
        hand: Hand,
        acts: Sequence[tuple[Act, float]],
        offers: int,
        roll_deg: float,
        *,
        first_turns: bool = False,
    ) -> None:
        import numpy as np

        self.planned, self.told, self.acts, self.offers = planned, tuple(told), tuple(acts), offers
        n = len(self.told)
        turns = np.full(n, hand.turn_deg)
        if not first_turns:  # a part has no plane of its own before its first bend
            turns[:1] = 0.0
        self.sds = np.concatenate(
            [
                np.full(n, hand.place_mm),
                np.full(n, hand.angle_deg),
                turns,
                [sd for _, sd in self.acts],
                np.full(offers, roll_deg),
            ]
        )
        values, vectors = np.linalg.eigh(np.array(tool.covariance))
        self._tool = vectors * np.sqrt(np.clip(values, 0.0, None))
        self.size = TOOL + len(self.sds)

    @cached_property
    def _n(self) -> int:
        return len(self.told)

    def spread(self) -> Array:
        """What turns standard normal figures into unknowns, (size, size)."""
        import numpy as np

        found = np.zeros((self.size, self.size))
        found[:TOOL, :TOOL] = self._tool
        found[TOOL:, TOOL:] = np.diag(self.sds)
        return found

    def turn_of(self, index: int) -> int:
        """The row of the turn of the bend told at `index`."""
        return TOOL + 2 * self._n + index

    def roll(self, values: Array, offer: int) -> Array:
        """The roll at one offer, for every column."""
        row: Array = values[TOOL + 3 * self._n + len(self.acts) + offer]
        return row

    def parts(self, values: Array, acted: int = 0) -> Many:
        """The parts whose unknowns are the columns of `values`, after the first `acted` acts. Source: a
        rotary-draw bender: the arc is wound on the die, the angle springs back, the mark lies at the zero."""
        import numpy as np

        n, laid = self._n, self.planned
        count = values.shape[1]

        def column(figures: Sequence[float]) -> Array:
            return np.repeat(np.array(figures, dtype=float)[:, None], count, axis=1)

        starts, angles, clocks = column(laid.starts_mm), column(laid.angles_deg), column(laid.clocks_deg)
        arcs = angles * column(laid.radii_mm) * pi / 180
        radius, zero, share, fixed = values[:TOOL]
        before: Array | None = None
        for i, told in enumerate(self.told):
            k = told.bend
            place, hand, turn = values[TOOL + i], values[TOOL + n + i], values[self.turn_of(i)]
            pulled = told.angle_deg + hand
            planned_arc = told.angle_deg * laid.radii_mm[k] * pi / 180
            arcs[k] = pulled * (laid.radii_mm[k] + radius) * pi / 180
            angles[k] = np.maximum(LEAST_DEG, pulled - share * told.angle_deg - fixed)
            if told.held == "A":
                starts[k] = told.start_mm + place + zero
            else:
                starts[k] = told.start_mm + planned_arc - place - zero - arcs[k]
            clocks[k] = (told.clock_deg if before is None else before + told.beyond_deg) + turn
            before = clocks[k]
        for j, (act, _) in enumerate(self.acts[:acted]):
            act.done(angles, clocks, act.deg + values[TOOL + 3 * n + j])
        return Many(starts=starts, angles=angles, clocks=clocks, arcs=arcs)
