"""Allowed pressures against tables of working pressure as published, typed here by hand from memory.

Stainless: tables after ASME B31.3 at 20,000 psi (A269, to 100 °F). Copper: the trade association's table
for annealed coils after ASME B31 at 6,000 psi. Nylon: DIN 73378, PA 12 soft, at 23 °C, hoop stress 20 MPa
and safety 3. Seamless steel: EN 10305-4 E235 after DIN 2413-I, static, 235 MPa, safety 1.5.
"""

from __future__ import annotations

import pytest

from bendrel.core.parts.tube import Material, Tube
from bendrel.core.parts.tube_strength import barlow_kpa, tube_strength

PSI, INCH = 6.894757, 25.4

STAINLESS_PSI = {
    "stainless-316_1-4in_0.889": 5100,
    "stainless-316_5-16in_0.889": 4000,
    "stainless-316_3-8in_0.889": 3300,
    "stainless-316_3-8in_1.245": 4800,
    "stainless-316_1-2in_1.245": 3700,
}
COPPER_PSI = {
    "copper_1-8in_0.762": 3074,
    "copper_3-16in_0.762": 1935,
    "copper_1-4in_0.762": 1406,
    "copper_5-16in_0.813": 1197,
    "copper_3-8in_0.813": 984,
    "copper_1-2in_0.813": 727,
    "copper_5-8in_0.889": 618,
    "copper_3-4in_0.889": 511,
}
NYLON_BAR = {"nylon_6mm_1": 27, "nylon_8mm_1": 19, "nylon_10mm_1.25": 19, "nylon_12mm_1.5": 19}
E235_BAR = {
    "steel-seamless_10mm_1": 282,
    "steel-seamless_12mm_1": 235,
    "steel-seamless_12mm_1.5": 353,
    "steel-seamless_15mm_1.5": 282,
    "steel-seamless_16mm_2": 353,
    "steel-seamless_18mm_1.5": 235,
    "steel-seamless_20mm_2": 282,
    "steel-seamless_22mm_2": 256,
    "steel-seamless_28mm_2": 201,
}
SHARES = {"thin": (0.8, 1.0), "mean diameter": (0.7, 1.0)}
"""What thin-wall strength on the least wall and the whole diameter may fall short of a table by: the tables'
own formulas take 0.8 of the wall, or all of it, off the diameter. It is never above one."""


def allowed(tube: Tube, material: Material, *, stress_mpa: float) -> float:
    """What the straight tube is allowed in kPa where the stress is the table's."""
    told = tube_strength(
        tube, material, radius_mm=None, temperature_c=20, factor=material.ultimate_mpa / stress_mpa
    )
    assert told.allowed_kpa is not None
    return told.allowed_kpa


@pytest.mark.parametrize(
    ("table", "unit_kpa", "stress_mpa", "how"),
    [
        (STAINLESS_PSI, PSI, 20_000 * PSI / 1000, "thin"),
        (COPPER_PSI, PSI, 6_000 * PSI / 1000, "thin"),
        (NYLON_BAR, 100, 20 / 3, "mean diameter"),
    ],
)
def test_thin_walls_stay_just_below_the_published_tables(kit, table, unit_kpa, stress_mpa, how) -> None:
    low, high = SHARES[how]
    for name, published in table.items():
        tube = kit.tubes[name]
        share = allowed(tube, kit.materials[tube.material], stress_mpa=stress_mpa) / (published * unit_kpa)
        assert low <= share <= high, (name, share)


def test_hydraulic_tube_by_its_own_sum_and_below_its_static_table(kit) -> None:
    """The table's figures are 2·141 MPa·t/D; a fourth of the tensile strength stays well below them."""
    material = kit.materials["steel-seamless"]
    for name, bar in E235_BAR.items():
        tube = kit.tubes[name]
        assert barlow_kpa(235 * 0.9 / 1.5, tube.wall_mm, tube.od_mm) / 100 == pytest.approx(bar, abs=1)
        told = tube_strength(tube, material, radius_mm=3 * tube.od_mm, temperature_c=20, factor=4)
        assert 0.6 <= told.allowed_kpa / (100 * bar) <= 0.8, name
