"""In which order, and from which end, the bends of a part can be made at a tool."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from heapq import heappop, heappush
from itertools import count

from bendrel.core.bend.tool.body import Surroundings
from bendrel.core.bend.tool.moves import Setting
from bendrel.core.bend.tool.sides import Tail, side_points
from bendrel.core.bend.tool.swing import Contact, levered, meeting, resting, swinging
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import Bend, BendList, reversed_list
from bendrel.core.parts.bender import Bender
from bendrel.core.record import record

ENDS: tuple[EndName, EndName] = ("A", "B")
Settings = Sequence[Setting]


@record
class Blocked:
    """A bend that cannot be made from one end as the part stands, and what is in the way."""

    bend: int
    held: EndName
    contact: Contact


@record
class OrderFound:
    """The best order, or None with the furthest state that was reached: the bends made so far and
    what blocks each of the others. `whole` says that every order was looked at."""

    order: tuple[Setting, ...] | None
    made: tuple[int, ...]
    blocked: tuple[Blocked, ...]
    whole: bool


class Bendable:
    """One part at one tool: may this bend be made now? Answers are remembered by what they depend
    on, which is the bends already made on either side.

    `around` gives the surroundings for a radius; `extra_mm` is tube beyond the finished ends
    (allowance, spare, the rest of a stick); `clear_mm` is kept between tube and things. `opened` are
    the bends (from 0) that are only bent so far for now; what is not bent of them lies straight behind
    them, seen from the end in the clamp.
    """

    def __init__(
        self,
        shape: BendList,
        bender: Bender,
        around: Callable[[float], Surroundings],
        extra_mm: dict[EndName, float],
        clear_mm: float,
        od_mm: float,
        opened: Mapping[int, float] | None = None,
    ) -> None:
        last = len(shape.bends) - 1
        there = {last - k: angle for k, angle in (opened or {}).items()}
        self._shapes: dict[EndName, BendList] = {
            "A": left_open(shape, opened or {}),
            "B": left_open(reversed_list(shape), there),
        }
        self._bender, self._extra = bender, extra_mm
        self._around = {bend.radius_mm: around(bend.radius_mm) for bend in shape.bends}
        self._keep, self._apart = od_mm / 2 + clear_mm, od_mm + clear_mm
        self._tails: dict[tuple[EndName, int, int, bool], Tail] = {}
        self._sides: dict[tuple[EndName, int, int, bool], Contact | None] = {}
        self._meets: dict[tuple[EndName, int, int], Contact | None] = {}
        self.count = len(shape.bends)

    @property
    def swings(self) -> int:
        """How many sides have been carried out so far."""
        return len(self._sides)

    def bend(self, bend: int, held: EndName) -> Bend:
        """A bend as it is made with `held` in the clamp."""
        shape, here, _ = self._seen(bend, 0, held)
        return shape.bends[here]

    def tail(self, bend: int, made: int, held: EndName, *, free: bool) -> Tail:
        """One side of `bend`; `made` is a bit mask of the bends that are there, seen from end A."""
        shape, here, mask = self._seen(bend, made, held)
        side = mask >> (here + 1) if free else mask & ((1 << here) - 1)
        key = (held, here, side, free)
        if key not in self._tails:
            there = frozenset(k for k in range(self.count) if mask >> k & 1)
            end: EndName = held if not free else ("B" if held == "A" else "A")
            self._tails[key] = side_points(shape, here, there, self._extra[end], free=free)
        return self._tails[key]

    def blocks(self, bend: int, made: int, held: EndName) -> Contact | None:
        """What keeps `bend` from being made now with `held` in the clamp; None when nothing does."""
        shape, here, mask = self._seen(bend, made, held)
        return (
            self._grip(shape, here, mask, held)
            or self._side(bend, made, held, free=False)
            or self._side(bend, made, held, free=True)
            or self._meet(bend, made, held)
        )

    def _seen(self, bend: int, made: int, held: EndName) -> tuple[BendList, int, int]:
        if held == "A":
            return self._shapes["A"], bend, made
        mask = sum(1 << (self.count - 1 - k) for k in range(self.count) if made >> k & 1)
        return self._shapes["B"], self.count - 1 - bend, mask

    def _grip(self, shape: BendList, here: int, mask: int, held: EndName) -> Contact | None:
        """Straight tube for the clamp and for the shoe, from the bends that are there already."""
        tool, straights = self._bender, shape.straights_mm
        other: EndName = "B" if held == "A" else "A"
        if here == 0:
            before, need = straights[0] + self._extra[held], tool.least_before_first_mm
        else:
            before, need = straights[here], tool.least_between_mm if mask >> (here - 1) & 1 else 0.0
        if before < need - SLACK_MM:
            return Contact(thing="no straight to clamp", at_deg=0.0, side="clamped", along_mm=before)
        if here == self.count - 1:
            after, need = straights[-1] + self._extra[other], tool.least_after_last_mm
        else:
            after, need = straights[here + 1], tool.least_between_mm if mask >> (here + 1) & 1 else 0.0
        if after < need - SLACK_MM:
            return Contact(thing="no straight to pull on", at_deg=0.0, side="free", along_mm=after)
        return None

    def _side(self, bend: int, made: int, held: EndName, *, free: bool) -> Contact | None:
        shape, here, mask = self._seen(bend, made, held)
        key = (held, here, mask >> (here + 1) if free else mask & ((1 << here) - 1), free)
        if key not in self._sides:
            tail = self.tail(bend, made, held, free=free)
            own: Bend = shape.bends[here]
            around, grip = self._around[own.radius_mm], self._bender.least_between_mm
            self._sides[key] = (
                swinging(tail, around, own.radius_mm, own.angle_deg, self._keep, grip)
                if free
                else resting(tail, around, own.radius_mm, self._keep, grip)
                or levered(tail, around.blocks, own.radius_mm, own.angle_deg, self._keep, grip)
            )
        return self._sides[key]

    def _meet(self, bend: int, made: int, held: EndName) -> Contact | None:
        shape, here, mask = self._seen(bend, made, held)
        key = (held, here, mask)
        if key not in self._meets:
            own = shape.bends[here]
            free, clamped = (self.tail(bend, made, held, free=side) for side in (True, False))
            self._meets[key] = meeting(free, clamped, own.radius_mm, own.angle_deg, self._apart)
        return self._meets[key]


SLACK_MM = 0.005
CHANGE, OTHER_END = 100, 30
"""What an order costs: changing the tube over; not starting from the end that was asked for; 1 for
every bend that is made before a nearer one."""
EXACT_UP_TO, HURRY = 8, 40


def find_order(part: Bendable, start: EndName, most_swings: int) -> OrderFound:
    """The cheapest order in which every bend can be made, over all orders and both held ends; from nine
    bends on a good one that is found soon. None is only said when there is none (`whole`).

    A bend's own freedom depends only on which bends are there already, so that a state is the set of
    bends made and the end in the clamp: 2·2ⁿ states hold all n!·2ⁿ orders, and the search over them
    is exact (uniform cost up to eight bends). It gives up honestly (`whole` False) after `most_swings` sides.
    """
    full = (1 << part.count) - 1
    tie = count()
    # of equal cost the fuller one first; from nine bends on, the fuller one counts for more than the cost
    hurry = HURRY if part.count > EXACT_UP_TO else 0
    heap: list[tuple[int, int, int, int, int, EndName | None, tuple[Setting, ...]]] = [
        (0, 0, next(tie), 0, 0, None, ())
    ]
    done: set[tuple[int, EndName | None]] = set()
    furthest: tuple[int, ...] = ()
    while heap:
        _, _, _, cost, made, held, path = heappop(heap)
        if (made, held) in done:
            continue
        done.add((made, held))
        if made == full:
            return OrderFound(order=path, made=tuple(range(part.count)), blocked=(), whole=True)
        if len(path) > len(furthest):
            furthest = tuple(setting.bend for setting in path)
        if part.swings > most_swings:
            return _refused(part, furthest, whole=False)
        for end in ENDS:
            step = (OTHER_END if end != start else 0) if held is None else (CHANGE if end != held else 0)
            for bend in range(part.count):
                now = made | 1 << bend
                if made >> bend & 1 or (now, end) in done or part.blocks(bend, made, end):
                    continue
                more = cost + step + _skipped(part.count, bend, made, end)
                after = (*path, Setting(bend=bend, held=end))
                rank = more - hurry * len(after)
                heappush(heap, (rank, -len(after), next(tie), more, now, end, after))
    return _refused(part, furthest, whole=True)


def _skipped(total: int, bend: int, made: int, held: EndName) -> int:
    nearer = range(bend) if held == "A" else range(bend + 1, total)
    return int(any(not made >> k & 1 for k in nearer))


def _refused(part: Bendable, made: tuple[int, ...], *, whole: bool) -> OrderFound:
    mask = sum(1 << bend for bend in made)
    blocked = [
        Blocked(bend=bend, held=end, contact=contact)
        for bend in range(part.count)
        if not mask >> bend & 1
        for end in ENDS
        if (contact := part.blocks(bend, mask, end))
    ]
    return OrderFound(order=None, made=made, blocked=tuple(blocked), whole=whole)


def follow(part: Bendable, order: Settings) -> Blocked | None:
    """The first bend of an order that cannot be made; None when all can."""
    made = 0
    for setting in order:
        contact = part.blocks(setting.bend, made, setting.held)
        if contact:
            return Blocked(bend=setting.bend, held=setting.held, contact=contact)
        made |= 1 << setting.bend
    return None


def left_open(shape: BendList, opened: Mapping[int, float]) -> BendList:
    """`shape` with the bends of `opened` (from 0) bent only so far, in degrees; the rest of each arc is
    straight tube behind it."""
    bends, spare, last = list(shape.bends), 0.0, shape.last_straight_mm
    for k, bend in enumerate(bends):
        angle = opened.get(k, bend.angle_deg)
        bends[k] = replace(bend, straight_mm=bend.straight_mm + spare, angle_deg=angle)
        spare = bend.arc_mm - bends[k].arc_mm
    return BendList(bends=tuple(bends), last_straight_mm=last + spare)
