"""Density and viscosity of the fluids that a property library knows, at temperatures between our rows."""

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.parts.fluid import density, viscosity

FLUIDS = load_kit().fluids
KNOWN = {
    "water": ("Water", 3e5, (1, 10, 30, 50, 70, 90, 110)),
    "coolant-50": ("INCOMP::MEG[0.527]", 3e5, (-15, -5, 10, 30, 50, 70, 95)),
    "air": ("Air", 101_325, (-10, 0, 10, 40, 80, 95)),
}
CASES = [(ours, t) for ours, (_, _, temperatures) in KNOWN.items() for t in temperatures]


def theirs(name, temperature_c, what):
    from CoolProp.CoolProp import PropsSI  # three seconds, of this process alone

    fluid, pressure, _ = KNOWN[name]
    return PropsSI(what, "T", temperature_c + 273.15, "P", pressure, fluid)


@pytest.mark.parametrize(("name", "temperature_c"), CASES)
def test_viscosity_is_that_of_the_library(name, temperature_c):
    """CoolProp 8.0.0: kinematic viscosity, between our rows within 3 %."""
    kinematic = theirs(name, temperature_c, "V") / theirs(name, temperature_c, "D") * 1e6
    assert viscosity(FLUIDS[name], temperature_c) == pytest.approx(kinematic, rel=0.03)


@pytest.mark.parametrize(("name", "temperature_c"), CASES)
def test_density_is_that_of_the_library(name, temperature_c):
    """CoolProp 8.0.0; liquids fall along a straight line with us: within 1 %."""
    assert density(FLUIDS[name], temperature_c) == pytest.approx(theirs(name, temperature_c, "D"), rel=0.01)


def test_every_row_that_names_the_library_is_held_against_it():
    named = {fluid.id for fluid in FLUIDS.values() if "CoolProp" in fluid.source.text}
    assert named == set(KNOWN)
