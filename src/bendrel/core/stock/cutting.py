"""Which piece is cut from which stick, coil or offcut: one-dimensional cutting with kerf."""

from __future__ import annotations

from collections.abc import Sequence
from math import ceil, floor
from typing import TYPE_CHECKING

from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

UNIT_MM = 0.5
"""Lengths are reckoned in half millimetres: pieces rounded up, bars down."""
ROUNDS = 60


@record
class Wanted:
    """One piece to cut: whose it is, and its length in mm."""

    id: str
    mm: float


@record
class Bar:
    """Stock of one length: `count` of them, None for as many as can be bought. `own` is what the shop
    has lying there already. What is left of a `coil` is a coil still, so that it wastes nothing."""

    id: str
    mm: float
    count: int | None
    own: bool
    coil: bool = False


@record
class Cut:
    """One bar and what is cut from it, the longest first. `left_mm` is what remains after all kerfs;
    `kept` says that it is long enough to be labelled and kept."""

    bar: str
    bar_mm: float
    pieces: tuple[str, ...]
    left_mm: float
    kept: bool


@record
class CutList:
    """All cuts. `opened_mm` is the length of all bars that are begun, `bound_mm` the least that any cut
    list of these pieces can begin, `waste_mm` kerf and ends too short to keep. `missing` are pieces
    that no bar is long enough for, or that the stock has run out for."""

    cuts: tuple[Cut, ...]
    opened_mm: float
    bound_mm: float
    waste_mm: float
    missing: tuple[str, ...]


def cut_list(
    pieces: Sequence[Wanted], bars: Sequence[Bar], *, kerf_mm: float, least_kept_mm: float
) -> CutList:
    """Cut all `pieces` from `bars` so that as little stock as possible is begun; offcuts first where it
    comes to the same.

    A kerf goes with every piece and is given back once a bar, because the last cut may fall on its end.
    Source: pattern generation for the relaxation after Gilmore and Gomory (1961).
    """
    coils = [bar for bar in bars if bar.coil]
    if coils:
        return _with_coils(pieces, bars, coils, kerf_mm=kerf_mm, least_kept_mm=least_kept_mm)
    longest = max((bar.mm for bar in bars), default=0.0)
    missing = [piece for piece in pieces if piece.mm > longest + 1e-9]
    asked = [piece for piece in pieces if piece.mm <= longest + 1e-9]
    if not asked:
        return CutList(
            cuts=(), opened_mm=0.0, bound_mm=0.0, waste_mm=0.0, missing=tuple(p.id for p in missing)
        )
    kinds: dict[int, list[Wanted]] = {}
    for piece in asked:
        kinds.setdefault(ceil((piece.mm + kerf_mm) / UNIT_MM - 1e-9), []).append(piece)
    sizes = sorted(kinds, reverse=True)
    rooms = [floor((bar.mm + kerf_mm) / UNIT_MM + 1e-9) for bar in bars]
    chosen, bound, short = _choose(sizes, [len(kinds[s]) for s in sizes], bars, rooms)
    left = {size: list(kinds[size]) for size in sizes}
    cuts: list[Cut] = []
    for bar, pattern in chosen:
        taken = [
            left[size].pop(0) for size, n in zip(sizes, pattern, strict=True) for _ in range(n) if left[size]
        ]
        if not taken:
            continue
        used = sum(piece.mm for piece in taken)
        rest = bar.mm - used - kerf_mm * len(taken)
        remains = max(0.0, rest)
        cuts.append(
            Cut(
                bar=bar.id,
                bar_mm=bar.mm,
                pieces=tuple(p.id for p in taken),
                left_mm=remains,
                kept=remains >= least_kept_mm,
            )
        )
    missing += [piece for size in sizes for piece in left[size]]
    opened = sum(cut.bar_mm for cut in cuts)
    made = {name for cut in cuts for name in cut.pieces}
    used = sum(piece.mm for piece in asked if piece.id in made)
    kept = sum(cut.left_mm for cut in cuts if cut.kept)
    return CutList(
        cuts=tuple(sorted(cuts, key=lambda cut: (-len(cut.pieces), cut.bar))),
        opened_mm=opened,
        bound_mm=0.0 if short else bound,
        waste_mm=opened - used - kept,
        missing=tuple(piece.id for piece in missing),
    )


def _with_coils(
    pieces: Sequence[Wanted],
    bars: Sequence[Bar],
    coils: Sequence[Bar],
    *,
    kerf_mm: float,
    least_kept_mm: float,
) -> CutList:
    """Own sticks and offcuts first where little of them is lost, then the coils, then what is bought."""
    rest = list(pieces)
    cuts: list[Cut] = []
    single = sorted(
        (bar for bar in bars if bar.own and not bar.coil for _ in range(bar.count or 1)),
        key=lambda bar: bar.mm,
    )
    for bar in [*single, *sorted(coils, key=lambda bar: bar.mm)]:
        taken, left = _fullest(rest, bar.mm, kerf_mm)
        kept = bar.coil or left >= least_kept_mm
        if not taken or (not kept and left > LITTLE * bar.mm):
            continue
        names = {piece.id for piece in taken}
        rest = [piece for piece in rest if piece.id not in names]
        order = sorted(taken, key=lambda piece: -piece.mm)
        cuts.append(
            Cut(bar=bar.id, bar_mm=bar.mm, pieces=tuple(p.id for p in order), left_mm=left, kept=kept)
        )
    others = [bar for bar in bars if not bar.own]
    bought = cut_list(rest, others, kerf_mm=kerf_mm, least_kept_mm=least_kept_mm)
    coil_ids = {bar.id for bar in coils}
    used = sum(cut.bar_mm - (cut.left_mm if cut.bar in coil_ids else 0.0) for cut in cuts)
    length = {piece.id: piece.mm for piece in pieces}
    lost = sum(
        cut.bar_mm - sum(length[name] for name in cut.pieces) - (cut.left_mm if cut.kept else 0.0)
        for cut in cuts
    )
    return CutList(
        cuts=(*cuts, *bought.cuts),
        opened_mm=used + bought.opened_mm,
        bound_mm=0.0,
        waste_mm=lost + bought.waste_mm,
        missing=bought.missing,
    )


LITTLE = 0.1
"""An offcut of which less than this share becomes scrap is used up rather than kept beside a coil."""


def _fullest(pieces: Sequence[Wanted], room_mm: float, kerf_mm: float) -> tuple[list[Wanted], float]:
    """The pieces that fill `room_mm` best, and what is left of it."""
    if not pieces:
        return [], room_mm
    sizes = [ceil((piece.mm + kerf_mm) / UNIT_MM - 1e-9) for piece in pieces]
    room = floor((room_mm + kerf_mm) / UNIT_MM + 1e-9)
    _, pattern = _knapsacks(sizes, [1] * len(sizes), [float(size) for size in sizes], [room])[0]
    taken = [piece for piece, n in zip(pieces, pattern, strict=True) if n]
    left = room_mm - sum(piece.mm for piece in taken) - kerf_mm * len(taken)
    return taken, max(0.0, left)


Pattern = tuple[int, ...]
Column = tuple[int, Pattern]


def _choose(
    sizes: Sequence[int], counts: Sequence[int], bars: Sequence[Bar], rooms: Sequence[int]
) -> tuple[list[tuple[Bar, Pattern]], float, bool]:
    """Bars with their patterns; the bound; whether the stock runs short.

    First the sets of bars that could just hold everything are filled one after the other; the first that
    does is the best there is. Where none does within a hundredth, patterns are generated for the
    relaxation, whose value is the better bound; from there one pattern after the other is taken for good
    and the rest solved again, and at the end branch and bound chooses among all patterns.
    """
    need = sum(size * n for size, n in zip(sizes, counts, strict=True))
    sets = bar_sets(need, bars, rooms)
    bound = sets[0][0] if sets else 0.0
    filled: list[Column] | None = None
    for total, chosen in sets:
        if total > bound * NEAR:
            break
        filled = fill(sizes, counts, chosen, rooms)
        if filled is not None:
            return [(bars[bar], pattern) for bar, pattern in filled], bound, False
    master = _Master(sizes, bars, rooms)
    stock = [bar.count for bar in bars]
    bound = max(bound, master.relax(counts, stock)[0] * (1 - 1e-9))
    if len(bars) == 1 and bars[0].count is None:  # only whole sticks can be begun
        bound = ceil(bound / bars[0].mm - 1e-6) * bars[0].mm
    found, short = master.dive(counts, stock)
    cost = sum(bars[bar].mm for bar, _ in found)
    for total, chosen in sets:
        if total >= cost and not short:
            break
        filled = fill(sizes, counts, chosen, rooms)
        if filled is not None:
            found, cost, short = filled, total, False
            break
    if short or cost > bound * NEAR:
        whole = master.integers(counts, stock)
        if whole is not None and (short or sum(bars[bar].mm for bar, _ in whole) < cost - 1e-6):
            found, short = whole, False
    return [(bars[bar], pattern) for bar, pattern in found], bound, short


NEAR, MOST_SETS, MOST_SINGLE = 1.01, 40, 10
"""Within a hundredth of the bound is good enough; how many sets of bars are filled, and how many single
bars are combined in them."""


def bar_sets(need: int, bars: Sequence[Bar], rooms: Sequence[int]) -> list[tuple[float, tuple[int, ...]]]:
    """Sets of bars (indices, the shortest first) with room for `need` units, the least length first."""
    single = [i for i, bar in enumerate(bars) if bar.count is not None for _ in range(bar.count)]
    single = sorted(single, key=lambda i: rooms[i])[-MOST_SINGLE:]
    bought = [i for i, bar in enumerate(bars) if bar.count is None]
    found: dict[tuple[int, ...], float] = {}
    for mask in range(1 << len(single)):
        held = [i for k, i in enumerate(single) if mask >> k & 1]
        rest = need - sum(rooms[i] for i in held)
        ways = [[]] if rest <= 0 else [[i] * ceil(rest / rooms[i]) for i in bought]
        if rest > 0 and len(bought) == 2:
            one, two = bought
            for n in range(1, ceil(rest / rooms[one])):
                ways.append([one] * n + [two] * ceil((rest - n * rooms[one]) / rooms[two]))
        for way in ways:
            chosen = tuple(sorted([*held, *way], key=lambda i: (rooms[i], i)))
            found[chosen] = sum(bars[i].mm for i in chosen)
    ranked = sorted(((total, chosen) for chosen, total in found.items()), key=lambda item: item[0])
    return ranked[:MOST_SETS]


def fill(
    sizes: Sequence[int], counts: Sequence[int], chosen: Sequence[int], rooms: Sequence[int]
) -> list[Column] | None:
    """Fill the chosen bars one after the other as full as they go; None where something is left over.

    Longer pieces count for a little more than their length, because they are harder to place later.
    """
    longest = max(sizes)
    for eager in (0.05, 0.3, 0.0):
        worth = [size * (1 + eager * size / longest) for size in sizes]
        left, made = list(counts), []
        for bar in chosen:
            _, pattern = _knapsacks(sizes, left, worth, [rooms[bar]])[0]
            made.append((bar, pattern))
            left = [n - taken for n, taken in zip(left, pattern, strict=True)]
        if not any(left):
            return made
    return None


def _firmest(columns: Sequence[Column], values: Sequence[float]) -> tuple[Column | None, int]:
    """The pattern that the relaxation is surest of, and how often it is taken."""
    best, share, times = None, 1e-6, 1
    for column, value in zip(columns, values, strict=False):
        if value >= 1 - 1e-6:
            return column, int(value + 1e-6)
        if value > share:
            best, share = column, float(value)
    return best, times


class _Master:
    """All patterns made so far, and the programs over them."""

    def __init__(self, sizes: Sequence[int], bars: Sequence[Bar], rooms: Sequence[int]) -> None:
        self.sizes, self.bars, self.rooms = sizes, bars, rooms
        # of equal length the shop's own first
        self.cost = [bar.mm * (0.9995 if bar.own else 1.0) for bar in bars]
        self.dear = 10.0 * max(bar.mm for bar in bars)  # a piece that is not cut
        self.columns: list[Column] = []
        self._seen: set[Column] = set()

    def add(self, bar: int, pattern: Pattern) -> bool:
        """Keep a pattern; False where it is there already."""
        if (bar, pattern) in self._seen or not any(pattern):
            return False
        self._seen.add((bar, pattern))
        self.columns.append((bar, pattern))
        return True

    def relax(self, counts: Sequence[int], stock: Sequence[int | None]) -> tuple[float, list[float]]:
        """The linear relaxation for `counts` of each size: its value in mm, and how often each pattern is
        used. New patterns are made until none is worth more than its bar."""
        from scipy.optimize import linprog

        for bar, room in enumerate(self.rooms):
            for pattern in _fills(self.sizes, counts, room):
                self.add(bar, pattern)
        for _ in range(ROUNDS):
            prices, whole, upper, most = self._program(stock)
            solved = linprog(
                prices,
                A_ub=[*(-row for row in whole), *upper],
                b_ub=[*(-float(c) for c in counts), *most],
                method="highs",
            )
            duals = [-float(d) for d in solved.ineqlin.marginals]
            rents = iter(duals[len(self.sizes) :])
            rent = [next(rents) if n is not None else 0.0 for n in stock]
            found = _knapsacks(self.sizes, counts, duals[: len(self.sizes)], self.rooms)
            better = [
                self.add(i, pattern)
                for i, (value, pattern) in enumerate(found)
                if value > self.cost[i] + rent[i] + 1e-6 and stock[i] != 0
            ]
            if not any(better):
                break
        return float(solved.fun), [float(x) for x in solved.x[: len(prices) - len(self.sizes)]]

    def dive(self, counts: Sequence[int], stock: Sequence[int | None]) -> tuple[list[Column], bool]:
        """Take the pattern that the relaxation is surest of, and solve the rest again; whether the stock
        runs short."""
        asked, have, taken = list(counts), list(stock), list[Column]()
        while any(asked):
            _, values = self.relax(asked, have)
            best, times = _firmest(self.columns, values)
            if best is None:
                return taken, True
            bar, pattern = best
            for _ in range(times):
                some = tuple(min(n, left) for n, left in zip(pattern, asked, strict=True))
                if not any(some) or have[bar] == 0:
                    break
                taken.append((bar, some))
                asked = [left - n for left, n in zip(asked, some, strict=True)]
                have = [None if n is None else n - (i == bar) for i, n in enumerate(have)]
        return taken, False

    def integers(self, counts: Sequence[int], stock: Sequence[int | None]) -> list[Column] | None:
        """The best whole choice among the patterns; None where not every piece is cut."""
        import numpy as np
        from scipy.optimize import Bounds, LinearConstraint, milp

        prices, whole, upper, most = self._program(stock)
        limits = [LinearConstraint(np.array(whole), lb=np.array(counts, dtype=float))]
        if most:
            limits.append(LinearConstraint(np.array(upper), ub=np.array(most)))
        options = {"time_limit": 0.7, "mip_rel_gap": 1e-4}
        found = milp(
            prices, constraints=limits, integrality=np.ones(len(prices)), bounds=Bounds(0), options=options
        )
        if found.x is None or (found.x[len(self.columns) :] > 0.5).any():
            return None
        return [
            column
            for column, times in zip(self.columns, found.x, strict=False)
            for _ in range(round(float(times)))
        ]

    def _program(
        self, stock: Sequence[int | None]
    ) -> tuple[list[float], list[Array], list[Array], list[float]]:
        """Prices, one row a size, one row a bar that is limited, and those limits. The last columns are
        pieces that are not cut."""
        import numpy as np

        blank = np.eye(len(self.sizes))
        patterns = np.array([pattern for _, pattern in self.columns], dtype=float)
        used = np.array([bar for bar, _ in self.columns])
        none = np.zeros(len(self.sizes))
        whole = [np.concatenate([patterns[:, k], blank[k]]) for k in range(len(self.sizes))]
        limited = [(i, n) for i, n in enumerate(stock) if n is not None]
        upper = [np.concatenate([(used == i).astype(float), none]) for i, _ in limited]
        prices = [self.cost[bar] for bar, _ in self.columns] + [self.dear] * len(self.sizes)
        return prices, whole, upper, [float(n) for _, n in limited]


def _fills(sizes: Sequence[int], counts: Sequence[int], room: int) -> list[Pattern]:
    """Patterns to start from: each size first, the rest filled with the longest that still fits."""
    found = []
    for first in range(len(sizes)):
        pattern, left = [0] * len(sizes), room
        for k in [first, *range(len(sizes))]:
            n = min(counts[k] - pattern[k], left // sizes[k])
            pattern[k] += n
            left -= n * sizes[k]
        found.append(tuple(pattern))
    return found


def _knapsacks(
    sizes: Sequence[int], counts: Sequence[int], worth: Sequence[float], rooms: Sequence[int]
) -> list[tuple[float, Pattern]]:
    """For each room the pattern of greatest worth that fits, every piece once (exact)."""
    import numpy as np

    most = max(rooms)
    items = [k for k, n in enumerate(counts) for _ in range(n) if worth[k] > 1e-9 and sizes[k] <= most]
    best = np.zeros(most + 1)
    took = np.zeros((len(items), most + 1), dtype=bool)
    for i, k in enumerate(items):
        size = sizes[k]
        more = best[: most + 1 - size] + worth[k]
        better = more > best[size:] + 1e-12
        took[i, size:] = better
        np.copyto(best[size:], more, where=better)
    found = []
    for room in rooms:
        at, pattern = room, [0] * len(sizes)
        for i in range(len(items) - 1, -1, -1):
            if took[i, at]:
                pattern[items[i]] += 1
                at -= sizes[items[i]]
        found.append((float(best[room]), tuple(pattern)))
    return found
