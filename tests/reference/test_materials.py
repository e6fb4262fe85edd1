"""Strengths and densities of the catalogue against the standards' own figures, typed from the standard."""

import pytest

from bendrel.catalogue.loader import load_kit

KIT = load_kit()
KSI = 6.894757  # NIST SP 811

LEAST_TENSILE = [
    ("copper-nickel", 38 * KSI, "ASTM B466, C70600 annealed"),
    ("steel-double-wall", 42 * KSI, "ASTM A254 and SAE J527, brazed double-wall"),
    ("steel-plated", 42 * KSI, "the same"),
    ("steel-coated", 42 * KSI, "the same"),
    ("steel-seamless", 340, "EN 10305-4, E235+N"),
    ("stainless-304", 75 * KSI, "ASTM A213, TP304"),
    ("stainless-316", 75 * KSI, "ASTM A213, TP316"),
    ("aluminium-3003", 14 * KSI, "ASTM B210, 3003-O"),
    ("aluminium-5052", 25 * KSI, "ASTM B210, 5052-O"),
    ("aluminium-6061", 42 * KSI, "ASTM B210, 6061-T6"),
    ("copper", 30 * KSI, "ASTM B75, C12200 annealed"),
    ("nylon", 27, "DIN 73378, PA 12 at 23 °C"),
]


@pytest.mark.parametrize(("material", "mpa", "standard"), LEAST_TENSILE)
def test_tensile_strength_is_the_least_of_its_standard(material, mpa, standard):
    """Never more than the standard promises; conversions from ksi are rounded."""
    told = KIT.materials[material].ultimate_mpa
    assert 0.985 * mpa <= told <= mpa * 1.006, standard


def test_every_other_strength_is_marked_as_from_memory():
    known = {material for material, _, _ in LEAST_TENSILE}
    for material in KIT.materials.values():
        if material.id not in known:
            assert material.strength_source.kind == "from memory", material.id


@pytest.mark.parametrize(
    ("material", "mpa"),
    [
        ("steel-seamless", 235),
        ("aluminium-6061", 35 * KSI),
        ("aluminium-5052", 10 * KSI),
        ("aluminium-3003", 5 * KSI),
    ],
)
def test_yield_is_not_below_its_standard(material, mpa):
    """EN 10305-4 and ASTM B210, least yield."""
    assert KIT.materials[material].yield_mpa >= mpa * 0.98


def test_yield_lies_below_tensile_strength_and_stretch_is_that_of_ductile_tube():
    for material in KIT.materials.values():
        assert material.yield_mpa < material.ultimate_mpa
        assert 0.05 <= material.elongation <= 3


DENSITIES = [  # kg/m³, annealed metal at 20 °C: handbooks of metals
    ("copper-nickel", 8940), ("copper", 8940), ("steel-seamless", 7850), ("steel-double-wall", 7850),
    ("stainless-304", 7930), ("stainless-316", 7980), ("aluminium-3003", 2730), ("aluminium-5052", 2680),
    ("aluminium-6061", 2700), ("nylon", 1020),
]  # fmt: skip


@pytest.mark.parametrize(("material", "density"), DENSITIES)
def test_density(material, density):
    assert KIT.materials[material].density_kg_m3 == pytest.approx(density, rel=0.015)


MODULI = [  # GPa, handbooks of metals
    ("copper-nickel", 135), ("copper", 117), ("steel-seamless", 206), ("steel-double-wall", 206),
    ("stainless-304", 193), ("aluminium-6061", 69),
]  # fmt: skip


@pytest.mark.parametrize(("material", "gpa"), MODULI)
def test_modulus(material, gpa):
    assert KIT.materials[material].modulus_mpa / 1000 == pytest.approx(gpa, rel=0.03)


LIQUIDS = [  # kg/m³ at 15 °C and mm²/s at (40, 100) °C: the bands of the standards
    ("petrol", (720, 775), None, None, "EN 228"),
    ("petrol-ethanol", (720, 775), None, None, "EN 228"),
    ("diesel", (820, 845), (2.0, 4.5), None, "EN 590"),
    ("biodiesel", (860, 900), (3.5, 5.0), None, "EN 14214"),
    ("hydraulic-46", (840, 900), (41.4, 50.6), None, "ISO 3448, VG 46"),
    ("hydraulic-32", (840, 900), (28.8, 35.2), None, "ISO 3448, VG 32"),
    ("engine-15w40", (860, 900), None, (12.5, 16.3), "SAE J300, grade 40"),
    ("engine-30", (860, 900), None, (9.3, 12.5), "SAE J300, grade 30"),
    ("dot4", (1030, 1090), None, (1.5, 5), "FMVSS 116, DOT 4"),
    ("dot3", (1010, 1080), None, (1.5, 5), "FMVSS 116, DOT 3"),
]


@pytest.mark.parametrize(("fluid", "density", "at_40", "at_100", "standard"), LIQUIDS)
def test_a_liquid_lies_in_the_band_of_its_standard(fluid, density, at_40, at_100, standard):
    from bendrel.core.parts.fluid import density as at
    from bendrel.core.parts.fluid import viscosity

    one = KIT.fluids[fluid]
    assert density[0] <= at(one, 15) <= density[1], standard
    if at_40:
        assert at_40[0] <= viscosity(one, 40) <= at_40[1], standard
    if at_100:
        assert at_100[0] <= viscosity(one, 100) <= at_100[1], standard


@pytest.mark.parametrize(
    ("fluid", "per_c"), [("petrol", 0.0012), ("diesel", 0.00083), ("hydraulic-46", 0.0007)]
)
def test_a_liquid_gets_lighter_with_heat_as_the_petroleum_tables_say(fluid, per_c):
    """ASTM D1250 (API tables): expansion at 15 °C of gasoline, diesel and lubricating oil, within 15 %."""
    from bendrel.core.parts.fluid import density as at

    one = KIT.fluids[fluid]
    fall = (at(one, 15) - at(one, 65)) / 50 / at(one, 15)
    assert fall == pytest.approx(per_c, rel=0.15)
