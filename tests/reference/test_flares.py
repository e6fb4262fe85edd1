"""Flares by the metal in them, and their sizes against the published cones."""

from __future__ import annotations

from math import pi, radians, tan

import numpy as np
import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.parts.fitting import double_flare_use, single_flare_use
from bendrel.core.plan.planner import plan_line
from tests.core.test_refused import line

KIT = load_kit()


def slant_by_steps(od, flare, half_angle):
    """(slant, height) of the cone from the tube to the flare's rim, added up over many small rings."""
    radii = np.linspace(od / 2, flare / 2, 2001)
    heights = (radii - od / 2) / tan(radians(half_angle))
    return float(np.hypot(np.diff(radii), np.diff(heights)).sum()), float(heights[-1])


@pytest.mark.parametrize("half_angle", [37, 45])
@pytest.mark.parametrize(("od", "flare"), [(4.7625, 7.0), (6.35, 9.1), (9.525, 12.2), (12.7, 16.4)])
def test_what_a_flare_takes_is_its_slants_less_its_height(od, flare, half_angle):
    """The tube that lies in the cone runs along its slant, once or folded back twice; the part gets no longer
    than the cone is high."""
    slant, height = slant_by_steps(od, flare, half_angle)
    assert single_flare_use(od, flare, half_angle) == pytest.approx(slant - height, abs=1e-6)
    assert double_flare_use(od, flare, half_angle) == pytest.approx(2 * slant - height, abs=1e-6)


@pytest.mark.parametrize(
    ("fitting", "tube", "uses"),
    [
        # x = (F - D)/2; single x·(1/sin - 1/tan), double x·(2/sin - 1/tan), by hand
        ("single-37", "steel-seamless_3-8in_1.245", 1.3375 * (1.66164 - 1.32704)),
        ("single-45", "copper_3-8in_0.813", 1.4375 * (1.41421 - 1.0)),
        ("double-45", "copper-nickel_1-4in_0.889", 1.375 * (2 * 1.41421 - 1.0)),
        ("bubble", "copper-nickel_4.75mm_0.7", 2.0),  # by its own row: a bulb has no cone
    ],
)
def test_each_kind_of_flare_takes_its_own_from_the_cut(fitting, tube, uses):
    part = plan_line(line("fuel-low", tube, fitting), KIT).part
    assert [part.end_a.allowance_mm, part.end_b.allowance_mm] == pytest.approx([uses, uses], abs=2e-3)
    terms = {term.id: term.mm for term in part.terms}
    assert terms["end-A"] == pytest.approx(uses, abs=2e-3)


J533_INCH = {
    "1/8 in": (0.180, 0.200), "1/4 in": (0.340, 0.360), "5/16 in": (0.400, 0.430), "3/8 in": (0.460, 0.490),
    "1/2 in": (0.630, 0.660), "5/8 in": (0.760, 0.790), "3/4 in": (0.920, 0.950), "1 in": (1.170, 1.200),
}  # fmt: skip


@pytest.mark.parametrize("size", J533_INCH)
def test_37_degree_flares_have_the_standards_diameter(size):
    """SAE J533, table of 37° single flares, diameter A."""
    least, most = J533_INCH[size]
    flare = KIT.end_size("single-37", size).flare_diameter_mm
    assert least * 25.4 - 0.05 <= flare <= most * 25.4 + 0.05


def test_every_flare_is_as_long_as_its_cone_is_high_and_covers_its_tube():
    """The length of a flare's row is (F − D)/2 over tan β, and its cone is wider than its tube."""
    for (fitting, size), row in KIT.end_sizes.items():
        end = KIT.fittings[fitting]
        if row.flare_diameter_mm is None:
            continue
        od = next(tube.od_mm for tube in KIT.tubes.values() if tube.size == size)
        height = (row.flare_diameter_mm - od) / 2 / tan(radians(end.half_angle_deg))
        assert row.length_mm == pytest.approx(height, abs=0.03), (fitting, size)
        assert 1.15 < row.flare_diameter_mm / od < 1.7, (fitting, size)


def test_a_folded_flares_metal_is_there():
    """Volume: the double cone holds two layers of wall, so what is taken from the tube is at least their
    metal, thinned by being spread to a wider ring."""
    od, wall = 4.7625, 0.711
    flare = KIT.end_size("double-45", "3/16 in").flare_diameter_mm
    slant, height = slant_by_steps(od, flare, 45)
    ring = pi * ((od + flare) / 2 - wall) * wall  # section of one layer, half-way out
    straight = pi * (od - wall) * wall
    taken = (double_flare_use(od, flare, 45) + height) * straight
    assert taken <= 2 * slant * ring
    assert taken >= 2 * slant * straight * 0.99
