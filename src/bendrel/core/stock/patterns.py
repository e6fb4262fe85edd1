"""Cutting patterns: which pieces go on one bar, and the programs over all patterns made so far."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]

ROUNDS = 60


@record
class Bar:
    """Stock of one length: `count` of them, None for as many as can be bought. `own` is what the shop
    has lying there already. What is left of a `coil` is a coil still, so that it wastes nothing. A
    millimetre of it counts `weighs` times: more where it has to be bought."""

    id: str
    mm: float
    count: int | None
    own: bool
    coil: bool = False
    weighs: float = 1.0

    @property
    def price_mm(self) -> float:
        """The length that beginning this bar counts as."""
        return self.mm * self.weighs


Pattern = tuple[int, ...]
Column = tuple[int, Pattern]


def firmest(columns: Sequence[Column], values: Sequence[float]) -> tuple[Column | None, int]:
    """The pattern that the relaxation is surest of, and how often it is taken."""
    best, share, times = None, 1e-6, 1
    for column, value in zip(columns, values, strict=False):
        if value >= 1 - 1e-6:
            return column, int(value + 1e-6)
        if value > share:
            best, share = column, float(value)
    return best, times


class Master:
    """All patterns made so far, and the programs over them."""

    def __init__(self, sizes: Sequence[int], bars: Sequence[Bar], rooms: Sequence[int]) -> None:
        self.sizes, self.bars, self.rooms = sizes, bars, rooms
        # where it comes to the same the shop's own first
        self.cost = [bar.price_mm * (0.9995 if bar.own else 1.0) for bar in bars]
        self.dear = 10.0 * max(bar.price_mm for bar in bars)  # a piece that is not cut
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
        """The linear relaxation for `counts` of each size: its value in weighed mm, and how often each
        pattern is used. New patterns are made until none is worth more than its bar."""
        from scipy.optimize import linprog

        for bar, room in enumerate(self.rooms):
            for pattern in fills(self.sizes, counts, room):
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
            found = knapsacks(self.sizes, counts, duals[: len(self.sizes)], self.rooms)
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
            best, times = firmest(self.columns, values)
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


def fills(sizes: Sequence[int], counts: Sequence[int], room: int) -> list[Pattern]:
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


def knapsacks(
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
