"""Cut lists against OR-Tools' CP-SAT, which solves the same cutting on its own."""

from __future__ import annotations

import random
from math import inf

import pytest
from ortools.sat.python import cp_model

from bendrel.core.stock.cutting import Wanted, cut_list
from bendrel.core.stock.patterns import Bar


def sat_bound(pieces, bars, kerf, seconds):
    """Least length of bars begun, as they weigh, by CP-SAT: (bound, best found), in mm; the best is
    infinite where a slow machine finds none in its time."""
    model = cp_model.CpModel()
    tenth = lambda mm: round(mm * 10)  # noqa: E731
    need = sum(p.mm + kerf for p in pieces)
    # no more bars of one length than half fill them
    most = [bar.count if bar.count is not None else int(2 * need / bar.mm) + 2 for bar in bars]
    all_bars = [bar for bar, count in zip(bars, most, strict=True) for _ in range(count)]
    used = [model.new_bool_var(f"u{j}") for j in range(len(all_bars))]
    rows = []
    for piece in pieces:
        row = [model.new_bool_var(f"{piece.id}_{j}") for j in range(len(all_bars))]
        model.add_exactly_one(row)
        rows.append(row)
    for j, bar in enumerate(all_bars):
        load = sum(tenth(p.mm + kerf) * rows[i][j] for i, p in enumerate(pieces))
        model.add(load <= tenth(bar.mm + kerf) * used[j])
    for j in range(1, len(all_bars)):
        if all_bars[j] is all_bars[j - 1]:
            model.add_implication(used[j], used[j - 1])
    model.minimize(sum(tenth(bar.mm * bar.weighs) * used[j] for j, bar in enumerate(all_bars)))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = 2
    status = solver.solve(model)
    best = solver.objective_value / 10 if status in (cp_model.OPTIMAL, cp_model.FEASIBLE) else inf
    return solver.best_objective_bound / 10, best


def check(found, pieces, bars, kerf):
    """Every piece once, no bar over-filled, no more bars than there are."""
    length = {p.id: p.mm for p in pieces}
    cut = [name for c in found.cuts for name in c.pieces]
    assert sorted(cut) == sorted(length)
    for c in found.cuts:
        total = sum(length[name] for name in c.pieces) + kerf * (len(c.pieces) - 1)
        assert total <= c.bar_mm + 1e-6
    for bar in bars:
        if bar.count is not None:
            assert sum(c.bar == bar.id for c in found.cuts) <= bar.count


@pytest.mark.parametrize("weighs", [1.0, 2.0])
@pytest.mark.parametrize("seed", range(6))
def test_small_lists_begin_as_little_as_cp_sat(seed, weighs):
    rng = random.Random(seed)
    pieces = [Wanted(id=str(k), mm=rng.randint(150, 1100)) for k in range(10)]
    bars = [
        Bar(id="stick", mm=1500.0, count=None, own=False, weighs=weighs),
        Bar(id="offcut-1", mm=790.0, count=1, own=True),
        Bar(id="offcut-2", mm=430.0, count=1, own=True),
    ]
    found = cut_list(pieces, bars, kerf_mm=1.0, least_kept_mm=150.0)
    check(found, pieces, bars, 1.0)
    bound, best = sat_bound(pieces, bars, 1.0, 8.0)
    assert found.weighed_mm <= best + 0.5 or found.weighed_mm <= bound * 1.01
    bought = sum(c.bar_mm for c in found.cuts if c.bar == "stick")
    assert found.bound_mm <= best + 0.5  # nothing that can be cut is below what is said to be the least
    assert found.bought_mm == bought
    assert found.weighed_mm == pytest.approx(found.opened_mm + (weighs - 1) * bought)


@pytest.mark.parametrize(
    ("own", "wanted", "used"),
    [
        ([1500.0], [1280], ["own-0"]),  # as long as what could be bought: a tie
        ([3000.0], [1400], ["own-0"]),
        ([1700.0], [1400, 1350], ["new-1500", "own-0"]),  # not one new stick of 3 m
        ([1700.0, 800.0], [1400, 790], ["own-0", "own-1"]),
    ],
)
def test_what_lies_there_is_cut_before_anything_is_bought(own, wanted, used):
    """common practice: what lies in the shop is paid for."""
    lying = [Bar(id=f"own-{k}", mm=mm, count=1, own=True) for k, mm in enumerate(own)]
    new = [Bar(id=f"new-{mm}", mm=float(mm), count=None, own=False, weighs=2.0) for mm in (1500, 3000)]
    pieces = [Wanted(id=str(k), mm=mm) for k, mm in enumerate(wanted)]
    found = cut_list(pieces, [*new, *lying], kerf_mm=1.0, least_kept_mm=150.0)
    assert sorted(c.bar for c in found.cuts) == used


def test_sixty_pieces_are_within_one_per_cent_of_the_bound():
    for seed in range(3):
        rng = random.Random(seed)
        pieces = [Wanted(id=str(k), mm=rng.uniform(180, 1250)) for k in range(60)]
        bars = [
            Bar(id="long", mm=3000.0, count=None, own=False),
            Bar(id="offcut", mm=900.0, count=2, own=True),
        ]
        found = cut_list(pieces, bars, kerf_mm=1.0, least_kept_mm=150.0)
        check(found, pieces, bars, 1.0)
        assert found.bound_mm >= sum(p.mm for p in pieces)  # a bound that needs no solver
        bound, best = sat_bound(pieces, bars, 1.0, 2.0)
        assert found.bound_mm <= best + 0.5
        assert found.opened_mm <= bound * 1.01 or found.opened_mm <= found.bound_mm * 1.01
        assert found.opened_mm <= best + 0.5


def test_the_worked_example():
    """computation.md 4: a 710 mm piece from a 1.5 m stick leaves 790 mm less the kerf."""
    found = cut_list(
        [Wanted(id="a", mm=710)],
        [Bar(id="s", mm=1500, count=None, own=False)],
        kerf_mm=1.5,
        least_kept_mm=150,
    )
    assert found.cuts[0].left_mm == pytest.approx(788.5)
    assert found.cuts[0].kept


def test_what_does_not_fit_is_named():
    bars = [Bar(id="s", mm=1000, count=1, own=True)]
    pieces = [Wanted(id="long", mm=1200), Wanted(id="a", mm=700), Wanted(id="b", mm=700)]
    found = cut_list(pieces, bars, kerf_mm=1, least_kept_mm=100)
    assert len(found.missing) == 2
    assert "long" in found.missing
    assert len(found.cuts) == 1
    assert cut_list([], bars, kerf_mm=1, least_kept_mm=100).cuts == ()


def test_an_exact_fit_needs_no_last_kerf():
    found = cut_list(
        [Wanted(id="a", mm=500), Wanted(id="b", mm=499)],
        [Bar(id="s", mm=1000, count=1, own=True)],
        kerf_mm=1,
        least_kept_mm=50,
    )
    assert found.missing == ()
    assert found.cuts[0].left_mm == 0
