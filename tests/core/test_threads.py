"""Finding out which thread it is, what it is taken for, and which wrench goes on its hex."""

import random
from itertools import pairwise, permutations
from math import exp, sqrt

import pytest

from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.threads.fit import thread_fit
from bendrel.core.parts.threads.identify import ThreadReading, expected_diameter, identify
from bendrel.core.parts.threads.lookalikes import look_alikes
from bendrel.core.parts.threads.profile import thread_profile
from bendrel.core.parts.threads.tolerance import basic_pitch_diameter
from bendrel.core.parts.threads.wrench import Wrench, wrench_fit, wrenches_for


@pytest.fixture(scope="module")
def threads(kit):
    return [kit.thread(name) for name in kit.threads]


def read(gender, diameter, pitch, *, error=0.1, share=0.02, taper="not sure"):
    return ThreadReading(
        gender=gender,
        diameter_mm=diameter,
        diameter_error_mm=error,
        pitch_mm=pitch,
        pitch_error_mm=(pitch or 1) * share,
        taper=taper,
    )


def test_simulated_readings_find_the_thread(threads):
    """400 threads drawn from the whole catalogue, made anywhere within their own tolerance and read
    with errors of up to 0.1 mm and 2 %: the true one is among the first three."""
    rng = random.Random(2026)
    hits = 0
    for _ in range(400):
        thread, gender = rng.choice(threads), rng.choice(("male", "female"))
        band = expected_diameter(thread, gender)
        diameter = rng.uniform(band.least, band.most) + rng.uniform(-0.1, 0.1)
        pitch = thread.pitch_mm * (1 + rng.uniform(-0.02, 0.02))
        first = [c.designation for c in identify(read(gender, diameter, pitch), threads)[:3]]
        hits += thread.designation in first
    assert hits / 400 >= 0.95


def test_every_pair_that_starts_and_binds_is_listed(kit, threads):
    alike = {
        t.designation: {x.designation for x in look_alikes(t, threads, kit.likeness, kit.least_engagement)}
        for t in threads
    }
    binding = 0
    for male, female in permutations(threads, 2):
        try:
            fit = thread_fit(male, female, kit.least_engagement)
        except ThreadError:
            continue
        if fit.verdict == "binds":
            binding += 1
            assert female.designation in alike[male.designation]
            assert male.designation in alike[female.designation]
    assert binding > 50


@pytest.mark.parametrize(
    ("one", "other", "test"),
    [
        ("3/8-24", "M10x1", "Pitch gauge: 24 per inch"),
        ("G1/8", "R1/8", "straight-edge"),
        ("1/8 NPT", "R1/8", "Pitch gauge: 27 per inch"),
        ("1/2-20", "M12x1.25", "Caliper over the crests"),
    ],
)
def test_the_telling_test(kit, threads, one, other, test):
    """Common practice: pitch first, then the crests, then the flanks."""
    thread = kit.thread(one)
    found = {x.designation: x for x in look_alikes(thread, threads, kit.likeness, kit.least_engagement)}
    assert test in found[kit.thread(other).designation].test


def test_taper_seen_leaves_the_parallel_ones_out(threads):
    found = identify(read("male", 9.7, 0.907, taper="tapered"), threads)
    assert found[0].designation == "R1/8"
    assert identify(read("male", 9.7, 0.907, taper="parallel"), threads)[0].designation == "G1/8"


def test_a_diameter_alone_gives_candidates_and_nonsense_says_so(threads):
    assert {c.designation for c in identify(read("male", 9.45, None), threads)} >= {"3/8-24", "3/8-16"}
    far = identify(read("male", 70.0, 1.0), threads)
    assert far
    assert not any(candidate.within for candidate in far)


def test_the_doubt_of_the_caliper_is_half_of_what_it_may_be_off(threads):
    """Gauss by hand: two threads of one pitch, a diameter between them; the log of how much likelier the
    nearer one is. The tolerance counts as evenly spread (width / sqrt 12), the error as two deviations."""
    one, other = (next(t for t in threads if t.designation == name) for name in ("M12x1.5", "M14x1.5"))
    for error in (0.4, 3.0):
        told = {c.designation: c.share for c in identify(read("male", 12.9, None, error=error), [one, other])}
        weights = []
        for thread in (one, other):
            band = expected_diameter(thread, "male")
            spread = (error / 2) ** 2 + (band.most - band.least) ** 2 / 12
            weights.append(exp(-((12.9 - band.middle) ** 2) / (2 * spread)) / sqrt(spread))
        share = weights[1] / sum(weights)
        assert told.get("M14x1.5", 0.0) == pytest.approx(share, abs=0.001)
    assert 0.25 < share < 0.75


def test_profile_crosses_the_pitch_line_half_a_pitch_apart(kit):
    """ISO 68-1: on the pitch line, thread and groove are of equal width."""
    thread = kit.thread("M10x1")
    profile = thread_profile(thread, "male", 3.0)
    assert max(x for x, _ in profile.points) <= 3.0
    crossings = []
    line = basic_pitch_diameter(thread) / 2 - 0.035  # 6g lies a little under the basic size
    for (x0, r0), (x1, r1) in pairwise(profile.points):
        if (r0 - line) * (r1 - line) < 0:
            crossings.append(x0 + (line - r0) / (r1 - r0) * (x1 - x0))
    widths = [b - a for a, b in pairwise(crossings)]
    assert widths == pytest.approx([0.5] * len(widths), abs=0.05)
    assert len(widths) >= 4


@pytest.mark.parametrize(
    ("hex_mm", "wrench", "word"),
    [
        (34.925, "35 mm", "usable"),  # common practice: 35 mm on 1 3/8 in
        (19.05, "19 mm", "usable"),  # common practice: 19 mm on 3/4 in
        (10.0, "10 mm", "exact"),
        (9.525, "10 mm", "slips"),
        (11.0, "7/16 in", "usable"),
        (12.7, "13 mm", "slips"),
        (13.0, "1/2 in", "too small"),
    ],
)
def test_wrenches_across_systems(kit, hex_mm, wrench, word):
    one = next(w for w in kit.wrenches if w.name == wrench)
    assert wrench_fit(hex_mm, one, kit.wrench_band).fit == word


def test_the_best_wrench_comes_first(kit):
    source = kit.wrenches[0].source
    offered = (Wrench(name="loose", mm=10.1, source=source), *kit.wrenches)
    assert [w.wrench for w in wrenches_for(10.0, offered, kit.wrench_band)][:2] == ["10 mm", "loose"]
