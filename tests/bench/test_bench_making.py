"""Speed of what is done at the tool, for `make bench` only."""

import random
from time import perf_counter

import pytest

from bendrel.core.bend.fitting.correction import correct
from bendrel.core.bend.fitting.exactness import fitted, landings
from bendrel.core.bend.told.laid import laid_out
from bendrel.core.bend.told.trial import Offer
from bendrel.core.bend.tool.order import find_order
from bendrel.core.stock.cutting import Wanted, cut_list
from bendrel.core.stock.patterns import Bar
from tests.core.test_cutting import sat_bound
from tests.core.test_fit import CALIBRATED, forecast, judged
from tests.core.test_fitup import freedom, off
from tests.core.test_order import KIT, at, part_for


@pytest.mark.parametrize("bender", ["lever_3-16in", "bench_3-16in", "vise_3-16in"])
def test_an_order_for_12_bends(benchmark, bender):
    """Ten parts at each tool; the slowest is to stay under two seconds."""
    shapes = [part_for(seed, 12, KIT.benders[bender].radius_mm) for seed in range(10)]
    most = int(KIT.limits["most_swings"].value)
    slowest, found = 0.0, 0

    def all_of_them():
        nonlocal slowest, found
        found = 0
        for shape in shapes:
            start = perf_counter()
            found += find_order(at(bender, shape), "A", most).order is not None
            slowest = max(slowest, perf_counter() - start)

    benchmark.pedantic(all_of_them, rounds=1)
    print(f"\n{bender}: {found} of 10 parts have an order, the slowest took {slowest:.2f} s")
    assert found > 0


def test_20000_parts_on_paper(benchmark):
    mm, _ = benchmark(landings, forecast(part_for(3, 12, 15.0), CALIBRATED), 20_000)
    assert len(mm) == 20_000


def test_fit_rounds_of_400_parts_on_paper(benchmark):
    assert benchmark(fitted, forecast(part_for(3, 12, 15.0), CALIBRATED)).close > 0.8


def test_a_trial_fit_of_twelve_bends(benchmark):
    """What a person waits for after an offer: aim 150 ms."""
    read = Offer(along_mm=1.0, off_mm=6.0, off_clock_deg=120.0, tilt_deg=1.0, tilt_clock_deg=30.0)
    assert not benchmark(judged, part_for(3, 12, 15.0), [read]).fits


def test_a_correction_of_six_bends(benchmark):
    shape = part_for(1, 6, 15.0)
    as_built = laid_out(off(shape, 0, 3.0))
    assert benchmark(correct, as_built, shape, {0, 1}, freedom(shape)).meets


@pytest.mark.parametrize("stick", [1500.0, 3000.0, 6000.0])
def test_a_cut_list_of_60_pieces_against_cp_sat(benchmark, stick):
    rng = random.Random(2)
    pieces = [Wanted(id=str(k), mm=rng.uniform(180, 1250)) for k in range(60)]
    bars = [Bar(id="stick", mm=stick, count=None, own=False), Bar(id="offcut", mm=900.0, count=2, own=True)]
    found = benchmark.pedantic(cut_list, (pieces, bars), {"kerf_mm": 1.0, "least_kept_mm": 150.0}, rounds=2)
    bound, best = sat_bound(pieces, bars, 1.0, 10.0)
    print(
        f"\n60 pieces from {stick:.0f} mm: {found.opened_mm / found.bound_mm:.4f} of its own bound; "
        f"CP-SAT in 10 s: found {best:.0f} mm, bound {bound:.0f} mm, here {found.opened_mm:.0f} mm"
    )
    assert found.missing == ()
