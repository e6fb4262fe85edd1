"""Which piece is cut from which stick, coil or offcut: one-dimensional cutting with kerf."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from math import ceil, floor

from bendrel.core.record import record
from bendrel.core.stock.patterns import Bar, Column, Master, Pattern, knapsacks

UNIT_MM = 0.5
"""Lengths are reckoned in half millimetres: pieces rounded up, bars down."""


@record
class Wanted:
    """One piece to cut: whose it is, and its length in mm; `from_coil_mm` is how much more it takes of a
    coil, because it is straightened first."""

    id: str
    mm: float
    from_coil_mm: float = 0.0


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
    """All cuts. `opened_mm` is the length of all bars that are begun, `bought_mm` what of it has to be
    bought, `waste_mm` kerf and ends too short to keep. `weighed_mm` is what is begun as the bars weigh,
    `bound_mm` the least that any cut list of these pieces comes to (0 where none is known). `missing`
    are pieces that no bar is long enough for, or that the stock has run out for."""

    cuts: tuple[Cut, ...]
    opened_mm: float
    bought_mm: float
    weighed_mm: float
    bound_mm: float
    waste_mm: float
    missing: tuple[str, ...]


def cut_list(
    pieces: Sequence[Wanted], bars: Sequence[Bar], *, kerf_mm: float, least_kept_mm: float
) -> CutList:
    """Cut all `pieces` from `bars` so that as little stock as possible is begun, as the bars weigh; the
    shop's own first where it comes to the same.

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
            cuts=(),
            opened_mm=0.0,
            bought_mm=0.0,
            weighed_mm=0.0,
            bound_mm=0.0,
            waste_mm=0.0,
            missing=tuple(p.id for p in missing),
        )
    kinds: dict[int, list[Wanted]] = {}
    for piece in asked:
        kinds.setdefault(ceil((piece.mm + kerf_mm) / UNIT_MM - 1e-9), []).append(piece)
    sizes = sorted(kinds, reverse=True)
    rooms = [floor((bar.mm + kerf_mm) / UNIT_MM + 1e-9) for bar in bars]
    chosen, short = _choose(sizes, [len(kinds[s]) for s in sizes], bars, rooms)
    left = {size: list(kinds[size]) for size in sizes}
    cuts: list[Cut] = []
    weighed = bought = 0.0
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
        weighed += bar.price_mm
        bought += 0.0 if bar.own else bar.mm
    missing += [piece for size in sizes for piece in left[size]]
    opened = sum(cut.bar_mm for cut in cuts)
    made = {name for cut in cuts for name in cut.pieces}
    used = sum(piece.mm for piece in asked if piece.id in made)
    kept = sum(cut.left_mm for cut in cuts if cut.kept)
    return CutList(
        cuts=tuple(sorted(cuts, key=lambda cut: (-len(cut.pieces), cut.bar))),
        opened_mm=opened,
        bought_mm=bought,
        weighed_mm=weighed,
        bound_mm=0.0 if short else _least(asked, bars, kerf_mm, weighed),
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
        straight = [replace(piece, mm=piece.mm + piece.from_coil_mm) for piece in rest] if bar.coil else rest
        taken, left = _fullest(straight, bar.mm, kerf_mm)
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
    length = {piece.id: piece for piece in pieces}
    lost = sum(
        cut.bar_mm
        - sum(
            length[name].mm + (length[name].from_coil_mm if cut.bar in coil_ids else 0.0)
            for name in cut.pieces
        )
        - (cut.left_mm if cut.kept else 0.0)
        for cut in cuts
    )
    return CutList(
        cuts=(*cuts, *bought.cuts),
        opened_mm=used + bought.opened_mm,
        bought_mm=bought.bought_mm,
        weighed_mm=used + bought.weighed_mm,
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
    _, pattern = knapsacks(sizes, [1] * len(sizes), [float(size) for size in sizes], [room])[0]
    taken = [piece for piece, n in zip(pieces, pattern, strict=True) if n]
    left = room_mm - sum(piece.mm for piece in taken) - kerf_mm * len(taken)
    return taken, max(0.0, left)


def _choose(
    sizes: Sequence[int], counts: Sequence[int], bars: Sequence[Bar], rooms: Sequence[int]
) -> tuple[list[tuple[Bar, Pattern]], bool]:
    """Bars with their patterns; whether the stock runs short.

    First the sets of bars that could just hold everything are filled one after the other; the first that
    does is the best there is. Where none does within a hundredth, patterns are generated for the
    relaxation, whose value is the better bound; from there one pattern after the other is taken for good
    and the rest solved again, and at the end branch and bound chooses among all patterns.
    """
    need = sum(size * n for size, n in zip(sizes, counts, strict=True))
    sets = bar_sets(need, bars, rooms)
    bound = sets[0][0] if sets else 0.0
    filled: list[Column] | None = None
    master = Master(sizes, bars, rooms)
    for total, chosen in sets:
        if total > bound * NEAR:
            break
        filled = fill(sizes, counts, chosen, rooms, master)
        if filled is not None:
            return [(bars[bar], pattern) for bar, pattern in filled], False
    stock = [bar.count for bar in bars]
    bound = max(bound, master.relax(counts, stock)[0] * (1 - 1e-9))
    found, short = master.dive(counts, stock)
    cost = sum(bars[bar].price_mm for bar, _ in found)
    for total, chosen in sets:
        if total >= cost and not short:
            break
        filled = fill(sizes, counts, chosen, rooms, master)
        if filled is not None:
            found, cost, short = filled, total, False
            break
    if short or cost > bound * NEAR:
        whole = master.integers(counts, stock)
        if whole is not None and (short or sum(bars[bar].price_mm for bar, _ in whole) < cost - 1e-6):
            found, short = whole, False
    return [(bars[bar], pattern) for bar, pattern in found], short


def _least(pieces: Sequence[Wanted], bars: Sequence[Bar], kerf_mm: float, weighed_mm: float) -> float:
    """What any cut list of these pieces comes to at least: pieces rounded down and bars up, so that it holds
    for the lengths themselves. The relaxation is only solved where the lightest set of bars with room for
    all of it is not what was found."""
    kinds: dict[int, int] = {}
    for piece in pieces:
        size = floor((piece.mm + kerf_mm) / UNIT_MM + 1e-9)
        kinds[size] = kinds.get(size, 0) + 1
    sizes = sorted(kinds, reverse=True)
    rooms = [ceil((bar.mm + kerf_mm) / UNIT_MM - 1e-9) for bar in bars]
    sets = bar_sets(sum(size * n for size, n in kinds.items()), bars, rooms)
    bound = sets[0][0] if sets else 0.0
    if weighed_mm <= bound * (1 + 1e-9):
        return bound
    relaxed = Master(sizes, bars, rooms).relax([kinds[s] for s in sizes], [bar.count for bar in bars])[0]
    bound = max(bound, relaxed * (1 - 1e-9))
    if len(bars) == 1 and bars[0].count is None:  # only whole sticks can be begun
        bound = ceil(bound / bars[0].price_mm - 1e-6) * bars[0].price_mm
    return bound


NEAR, MOST_SETS, MOST_SINGLE = 1.004, 80, 10
"""Within four thousandths of the bound is good enough; how many sets of bars are filled, and how many single
bars are combined in them."""


def bar_sets(need: int, bars: Sequence[Bar], rooms: Sequence[int]) -> list[tuple[float, tuple[int, ...]]]:
    """Sets of bars (indices, the shortest first) with room for `need` units: what weighs least first, and
    of those the one of which least has to be bought. The first of them is the lightest that there is."""
    single = [i for i, bar in enumerate(bars) if bar.count is not None for _ in range(bar.count)]
    found: dict[tuple[int, ...], float] = {}
    few = len(single) <= MOST_SINGLE
    for held in _every_set(single) if few else _fullest_sets(need, single, bars, rooms):
        for way in _bought(need - sum(rooms[i] for i in held), bars, rooms):
            chosen = tuple(sorted([*held, *way], key=lambda i: (rooms[i], i)))
            found[chosen] = sum(bars[i].price_mm for i in chosen)

    def bought_mm(chosen: tuple[int, ...]) -> float:
        return sum(bars[i].mm for i in chosen if not bars[i].own)

    ranked = sorted(found.items(), key=lambda item: (item[1], bought_mm(item[0])))
    return [(total, chosen) for chosen, total in ranked[:MOST_SETS]]


def _bought(rest: int, bars: Sequence[Bar], rooms: Sequence[int]) -> list[list[int]]:
    """What may be bought to hold `rest` units."""
    if rest <= 0:
        return [[]]
    bought = [i for i, bar in enumerate(bars) if bar.count is None]
    ways = [[i] * ceil(rest / rooms[i]) for i in bought]
    if len(bought) == 2:
        one, two = bought
        for n in range(1, ceil(rest / rooms[one])):
            ways.append([one] * n + [two] * ceil((rest - n * rooms[one]) / rooms[two]))
    return ways


def _every_set(single: Sequence[int]) -> Iterator[list[int]]:
    for mask in range(1 << len(single)):
        yield [i for k, i in enumerate(single) if mask >> k & 1]


def _fullest_sets(
    need: int, single: Sequence[int], bars: Sequence[Bar], rooms: Sequence[int]
) -> Iterator[list[int]]:
    """Of more single bars than can be tried in every combination: for each amount that may be bought beside
    them the lightest set with room for the rest, and those with a little more room. Exact by weight
    (dynamic program over the room, in half millimetres); long bars first, because they are filled better."""
    import numpy as np

    order = sorted(single, key=lambda i: -rooms[i])
    whole = sum(rooms[i] for i in order)
    price = np.full(whole + 1, np.inf)
    price[0] = 0.0
    took = np.zeros((len(order), whole + 1), dtype=bool)
    for k, i in enumerate(order):
        with_it = np.full(whole + 1, np.inf)
        with_it[rooms[i] :] = price[: whole + 1 - rooms[i]] + bars[i].price_mm
        took[k] = with_it < price - 1e-9
        price = np.minimum(price, with_it)
    asked = {0, max(0, need)}
    for way in _bought(need, bars, rooms):
        held = 0
        for i in way:
            held += rooms[i]
            asked.add(max(0, need - held))
    for rest in asked:
        for slack in SLACKS:
            least = rest + round(slack * need)
            if least > whole or not np.isfinite(price[least:]).any():
                continue
            at = least + int(np.argmin(price[least:]))
            chosen = []
            for k in range(len(order) - 1, -1, -1):
                if took[k, at]:
                    chosen.append(order[k])
                    at -= rooms[order[k]]
            yield chosen


SLACKS = (0.0, 0.0005, 0.001, 0.002, 0.003, 0.005, 0.0075, 0.01, 0.015, 0.02)
"""Sets of bars with so much more room than the pieces need are tried too, as a share of it."""


def fill(
    sizes: Sequence[int],
    counts: Sequence[int],
    chosen: Sequence[int],
    rooms: Sequence[int],
    master: Master,
) -> list[Column] | None:
    """Fill the chosen bars one after the other as full as they go; None where something is left over. The
    patterns that are tried are kept in `master`: together with others they may serve.

    Longer pieces count for a little more than their length, because they are harder to place later.
    """
    longest = max(sizes)
    ways = [
        (bars, [size * (1 + eager * size / longest) for size in sizes])
        for eager, bars in ((0.05, chosen), (0.3, chosen), (0.0, chosen), (0.05, chosen[::-1]))
    ]
    for bars, worth in ways:
        left, made = list(counts), []
        for bar in bars:
            _, pattern = knapsacks(sizes, left, worth, [rooms[bar]])[0]
            made.append((bar, pattern))
            master.add(bar, pattern)
            left = [n - taken for n, taken in zip(left, pattern, strict=True)]
        if not any(left):
            return made
    return None
