"""Bends, fittings and restrictors against other published figures than those the program uses."""

from math import pi, sqrt

import pytest
from fluids.fittings import bend_rounded_Crane, entrance_sharp, exit_normal
from fluids.flow_meter import flow_meter_discharge
from fluids.friction import ft_Crane

from bendrel.catalogue.loader import load_kit
from bendrel.core.flow.flow import (
    Restrictor,
    Stretch,
    Way,
    flow_through,
    restrictor_drop_kpa,
    restrictor_flow_lpm,
)
from bendrel.core.parts.fluid import density

KIT = load_kit()
SMOOTH = 0.0015


@pytest.mark.parametrize("angle", [45.0, 90.0])
@pytest.mark.parametrize("ratio", [2.0, 3.0, 5.0])
def test_a_bend_loses_what_crane_says(angle, ratio):
    """Crane TP 410 by the fluids library, another correlation than the program's (Rennels): petrol at
    turbulent flow, within 40 % of each other and never the wrong way round."""
    petrol, bore, lpm = KIT.fluids["petrol"], 8.0, 6.0
    straight = Way(stretches=(Stretch(bore_mm=bore, straight_mm=500.0),))
    bent = Way(stretches=(Stretch(bore_mm=bore, straight_mm=500.0, bends=((angle, ratio * bore),)),))
    more = (flow_through(petrol, 20, lpm, bent, SMOOTH).drop_kpa
            - flow_through(petrol, 20, lpm, straight, SMOOTH).drop_kpa)  # fmt: skip
    speed = lpm / 60_000 / (pi / 4 * (bore / 1000) ** 2)
    heads = more * 1000 / (density(petrol, 20) * speed**2 / 2)
    crane = bend_rounded_Crane(Di=bore / 1000, angle=angle, bend_diameters=ratio)
    assert heads == pytest.approx(crane, rel=0.4)


def test_two_bends_lose_twice_as_much_as_one():
    petrol = KIT.fluids["petrol"]

    def drop(*bends):
        return flow_through(
            petrol, 20, 6.0, Way(stretches=(Stretch(bore_mm=8.0, straight_mm=500.0, bends=bends),)), SMOOTH
        ).drop_kpa

    one = drop((90.0, 24.0)) - drop()
    assert drop((90.0, 24.0), (90.0, 24.0)) - drop() == pytest.approx(2 * one)
    mixed = drop((90.0, 24.0), (45.0, 24.0)) - drop()
    assert mixed == pytest.approx(one + drop((45.0, 24.0)) - drop())


def test_the_heads_of_fittings_lie_in_the_published_range():
    """Crane TP 410: a tee through its branch is 60·f_T, a flow that must turn twice so; a sharp entrance and
    an exit are 0.5 and 1 velocity heads, what a step in the bore never exceeds together."""
    tee = 60 * ft_Crane(0.006)
    assert tee <= KIT.limits["banjo_loss"].value <= 3 * tee
    assert 0.2 <= KIT.limits["adapter_loss"].value <= entrance_sharp() + exit_normal()


@pytest.mark.parametrize("bore", [0.6, 1.0, 2.0])
def test_an_orifice_passes_what_the_flow_meter_equation_says(bore):
    """ISO 5167's mass flow through an orifice in a very wide pipe (fluids library); no land, so that nothing
    viscous is lost."""
    petrol = KIT.fluids["petrol"]
    rho = density(petrol, 20)
    hole = Restrictor(bore_mm=bore, land_mm=0.0, cd=KIT.limits["orifice_cd"].value)
    mass = flow_meter_discharge(D=1.0, Do=bore / 1000, P1=5e5, P2=2e5, rho=rho, C=hole.cd, expansibility=1.0)
    lpm, share = restrictor_flow_lpm(petrol, 20, restrictor=hole, drop_kpa=300)
    assert lpm == pytest.approx(mass / rho * 60_000, rel=1e-4)
    assert share == 0
    assert restrictor_drop_kpa(rho, 0.6e-6, lpm, hole) == pytest.approx(300)


def test_the_discharge_of_a_sharp_edge_is_the_handbooks():
    """A sharp edge in a wide wall: Kirchhoff's π/(π + 2) = 0.611; handbooks say 0.60 to 0.62."""
    assert KIT.limits["orifice_cd"].value == pytest.approx(pi / (pi + 2), abs=0.015)


def test_a_land_alone_is_poiseuilles():
    """With no loss at the edge (a huge coefficient) only 128·µ·L·Q/(π·d⁴) is left."""
    oil = KIT.fluids["hydraulic-46"]
    from bendrel.core.parts.fluid import viscosity

    land = Restrictor(bore_mm=1.0, land_mm=10.0, cd=1e6)
    mu = viscosity(oil, 20) * 1e-6 * density(oil, 20)
    lpm, share = restrictor_flow_lpm(oil, 20, restrictor=land, drop_kpa=100)
    assert lpm == pytest.approx(100_000 * pi * 0.001**4 / (128 * mu * 0.010) * 60_000)
    assert share == pytest.approx(1)
    assert sqrt(share) <= 1 + 1e-12
