"""A reading of a made bend that stands alone against all others is read again before it moves anything; and
what the hand did wrong, once it is believed, has a name."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from math import radians, sqrt
from typing import TYPE_CHECKING, Literal

from bendrel.core.bend.told.figures import READ_NAMES, Figure, ReadName
from bendrel.core.bend.told.observed import Gauge, observed
from bendrel.core.bend.told.tells import columns_about
from bendrel.core.bend.told.unknowns import TOOL, Hand, Unknowns
from bendrel.core.bend.told.weighed import Weighed, weigh
from bendrel.core.findings import EndName
from bendrel.core.measure.explain import counted_wrong, other_unit
from bendrel.core.record import record
from bendrel.core.units.notation import normalised_turn

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

MOST = 4
"""So many readings of a part are asked for again at once: with more of them the part is read anew anyway."""
SlipKind = Literal["place", "angle", "turn"]


@record
class Lone:
    """A reading that only it says: of the bend made at `index`, what was read and what all others say it
    would read (mm or degrees), and what kind of slip that looks like, blank where like none."""

    index: int
    bend: int
    name: ReadName
    read: float
    would_read: float
    slip: str


@record
class SlipSizes:
    """From how far on something is spoken of as a slip (`least`), and how near a change must come to a
    usual one to be taken for it (`near`)."""

    least_mm: float
    least_deg: float
    near_mm: float
    near_deg: float

    def least(self, name: ReadName | SlipKind) -> float:
        """That of one kind of reading or setting."""
        return self.least_deg if name in ("angle", "plane", "turn") else self.least_mm


def lone_readings(
    unknowns: Callable[[], Unknowns],
    figures: Sequence[Figure],
    sure: Callable[[Figure], bool],
    gauge: Gauge,
    *,
    slip_sd: float,
    alone_sd: float,
    sizes: SlipSizes,
    beyond_mm: Mapping[EndName, float],
    od_mm: float,
) -> tuple[Lone, ...]:
    """The readings that lie further than `alone_sd` standard deviations, and as far as slips are spoken of,
    from what the part would read by all others: the worst first, each left out before the next is looked
    for. Without it the hand must have slipped less often: what another reading bears out is no such
    reading, and none of which the person is `sure`. `unknowns` gives new unknowns of the part each time.

    Source: innovations of a linear filter, each figure left out in turn.
    """
    kept = list(figures)
    found: list[Lone] = []
    first = unknowns()
    usual = first.sds.copy()
    weigh(first, observed(first, kept, gauge, beyond_mm, od_mm), slip_sd=slip_sd)
    while len(found) < MOST and _slipped(first, usual):
        worst: tuple[float, int, float] | None = None
        for k in _touched(first, usual, kept):
            if sure(kept[k]):
                continue
            others = unknowns()
            rest = observed(others, [*kept[:k], *kept[k + 1 :]], gauge, beyond_mm, od_mm)
            without = weigh(others, rest, slip_sd=slip_sd)
            would, sd = _would_read(others, without, kept[k], gauge, beyond_mm, od_mm)
            if _slipped(others, usual) >= _slipped(first, usual):
                continue
            off = abs(kept[k].value - would)
            far = off / sd
            if off < sizes.least(READ_NAMES[kept[k].kind]) - 2 * sd:
                continue
            if far > alone_sd and (worst is None or far > worst[0]):
                worst = (far, k, would)
        if worst is None:
            break
        _, k, would = worst
        found.append(_lone(first, kept.pop(k), would, sizes))
        first = unknowns()
        weigh(first, observed(first, kept, gauge, beyond_mm, od_mm), slip_sd=slip_sd)
    return tuple(found)


def _slipped(unknowns: Unknowns, usual: Array) -> int:
    """How often the hand slipped, by the readings that were weighed."""
    return int((unknowns.sds > usual).sum())


def _touched(unknowns: Unknowns, usual: Array, figures: Sequence[Figure]) -> list[int]:
    """The figures of bends of which the hand seems to have slipped, and of those made after them, which are
    read against them."""
    n = len(unknowns.told)
    slipped = {i % n for i in range(3 * n) if unknowns.sds[i] > usual[i]}
    return [k for k, one in enumerate(figures) if one.index in slipped or one.index - 1 in slipped]


def _would_read(
    unknowns: Unknowns,
    weighed: Weighed,
    figure: Figure,
    gauge: Gauge,
    beyond_mm: Mapping[EndName, float],
    od_mm: float,
) -> tuple[float, float]:
    """What a figure would be by all others, and the standard deviation of its difference from that."""
    (reading,) = observed(unknowns, [figure], gauge, beyond_mm, od_mm)
    columns, step = columns_about(unknowns, weighed)
    told = reading.of(columns)
    slope = (told[1:] - told[0]) / step
    return float(told[0]), sqrt(float(slope @ weighed.covariance @ slope) + reading.sd**2)


def _lone(unknowns: Unknowns, figure: Figure, would: float, sizes: SlipSizes) -> Lone:
    name = READ_NAMES[figure.kind]
    off = figure.value - would
    match name:
        case "angle":
            other = abs(180 - figure.value - would) < sizes.near_deg
            slip = "as if the gauge was read on its other side" if other else ""
        case "plane":
            slip = "as if the line lay the other way up" if abs(abs(off) - 180) < sizes.near_deg else ""
            if abs(normalised_turn(figure.value + would)) < sizes.near_deg:
                slip = "as if it was read from the other end"
        case _:
            slip = other_unit(figure.value, would, sizes.near_mm) or counted_wrong(off, sizes.near_mm)
    return Lone(
        index=figure.index,
        bend=unknowns.told[figure.index].bend + 1,
        name=name,
        read=figure.value,
        would_read=would,
        slip=slip,
    )


@record
class Slip:
    """What the hand did otherwise at one bend than it usually does: how far off (mm or degrees), and what
    that looks like, blank where like none."""

    bend: int
    kind: SlipKind
    off: float
    like: str


def slips_of(
    unknowns: Unknowns, weighed: Weighed, hand: Hand, slip_sd: float, sizes: SlipSizes
) -> tuple[Slip, ...]:
    """The slips that the readings, all believed, show: in the order of making."""
    n, laid = len(unknowns.told), weighed.laid
    found = []
    for index, told in enumerate(unknowns.told):
        place, angle, turn = (float(weighed.values[TOOL + k * n + index]) for k in range(3))
        if abs(place) > max(slip_sd * hand.place_mm, sizes.least("place") - 2 * hand.place_mm):
            arc = laid.radii_mm[told.bend] * radians(told.angle_deg)
            from_other = laid.length_mm - 2 * told.start_mm - arc
            wrong_end = abs(from_other) > sizes.near_mm and abs(place - from_other) < 3 * sizes.near_mm
            like = (
                "as if it was marked from the other end" if wrong_end else counted_wrong(place, sizes.near_mm)
            )
            found.append(Slip(bend=told.bend + 1, kind="place", off=place, like=like))
        if abs(angle) > max(slip_sd * hand.angle_deg, sizes.least("angle") - 2 * hand.angle_deg):
            others = [
                t.angle_deg for t in unknowns.told if abs(t.angle_deg - told.angle_deg) > sizes.near_deg
            ]
            as_other = any(abs(told.angle_deg + angle - other) < sizes.near_deg / 2 for other in others)
            like = "as if it was pulled to another bend's dial" if as_other else ""
            found.append(Slip(bend=told.bend + 1, kind="angle", off=angle, like=like))
        if abs(turn) > max(slip_sd * hand.turn_deg, sizes.least("turn") - 2 * hand.turn_deg):
            if (
                abs(normalised_turn(turn + 2 * told.beyond_deg)) < sizes.near_deg
                and abs(told.beyond_deg) > sizes.near_deg
            ):
                like = "as if the tube was turned the wrong way"
            elif abs(abs(normalised_turn(turn)) - 180) < sizes.near_deg:
                like = "as if it was bent to the other side"
            else:
                like = ""
            found.append(Slip(bend=told.bend + 1, kind="turn", off=turn, like=like))
    return tuple(found)
