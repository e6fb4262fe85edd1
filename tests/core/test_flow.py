"""Flow and volume against exact laminar theory, published correlations and the fluids library."""

from dataclasses import replace
from math import pi

import pytest
from fluids import friction_factor
from fluids.piping import nearest_pipe

from bendrel.core.flow.flow import (
    Loss,
    Restrictor,
    Stretch,
    Way,
    flow_through,
    restrictor_flow_lpm,
    solved_flow_lpm,
    volume_ml,
)
from bendrel.core.line.carried import carried
from bendrel.core.line.document import Carries
from bendrel.core.parts.fluid import density, viscosity
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.lines import Component, End, bent, row

SMOOTH = 0.0015
METRE = Way(stretches=(Stretch(bore_mm=8.0, straight_mm=1000.0),))


def test_cold_oil_is_laminar_and_follows_poiseuille(kit):
    """Exact: Δp = 128·µ·L·Q/(π·d⁴), Hagen–Poiseuille."""
    oil = kit.fluids["hydraulic-46"]
    flow = flow_through(oil, 0, 6.0, METRE, SMOOTH)
    mu = viscosity(oil, 0) * 1e-6 * density(oil, 0)
    exact = 128 * mu * 1.0 * (6 / 60_000) / (pi * 0.008**4) / 1000
    assert flow.laminar
    assert flow.drop_kpa == pytest.approx(exact, rel=2e-3)


def test_petrol_is_turbulent_and_follows_darcy_with_the_librarys_friction(kit):
    """Colebrook by the fluids library, another correlation than the one used, within 3 %."""
    petrol = kit.fluids["petrol"]
    flow = flow_through(petrol, 20, 6.0, METRE, SMOOTH)
    speed = 6 / 60_000 / (pi / 4 * 0.008**2)
    reynolds = speed * 0.008 / 0.62e-6
    colebrook = friction_factor(Re=reynolds, eD=SMOOTH / 8, Method="Colebrook")
    expected = colebrook / 0.008 * density(petrol, 20) * speed**2 / 2 / 1000
    assert not flow.laminar
    assert flow.velocity_mps == pytest.approx(speed)
    assert flow.drop_kpa == pytest.approx(expected, rel=0.03)


def test_bends_add_and_a_smaller_bore_chokes(kit):
    petrol = kit.fluids["petrol"]
    plain = flow_through(petrol, 20, 6, METRE, SMOOTH).drop_kpa
    bend = Stretch(bore_mm=8.0, straight_mm=1000.0, bends=((90.0, 24.0),) * 4)
    assert flow_through(petrol, 20, 6, Way(stretches=(bend,)), SMOOTH).drop_kpa > plain
    six = Way(stretches=(Stretch(bore_mm=6.0, straight_mm=1000.0),))
    narrow = flow_through(petrol, 20, 6, six, SMOOTH).drop_kpa
    assert narrow / plain == pytest.approx((8 / 6) ** 4.75, rel=0.1)  # Blasius: Δp ~ d^-4.75


def test_air_is_compressible_and_chokes(kit):
    """For a small drop the gas behaves like a liquid; too much of it does not pass at any vacuum."""
    air = kit.fluids["air"]
    way = Way(stretches=(Stretch(bore_mm=4.0, straight_mm=1000.0),))
    little = flow_through(air, 20, 2.0, way, SMOOTH)
    mu = viscosity(air, 20) * 1e-6 * density(air, 20)
    exact = 128 * mu * (2 / 60_000) / (pi * 0.004**4) / 1000
    assert little.drop_kpa == pytest.approx(exact, rel=0.02)
    assert flow_through(air, 20, 900.0, way, SMOOTH).drop_kpa is None


@pytest.mark.parametrize("metres", [10.0, 25.0, 60.0])
def test_air_in_a_long_narrow_pipe(kit, metres):
    """Exact for slow gas: p₁² − p₂² = 2·p₁·128·µ·L·Q₁/(π·d⁴), the compressible Hagen–Poiseuille."""
    air = kit.fluids["air"]
    way = Way(stretches=(Stretch(bore_mm=4.0, straight_mm=metres * 1000),))
    mu = viscosity(air, 20) * 1e-6 * density(air, 20)
    liquid = 128 * mu * metres * (2.5 / 60_000) / (pi * 0.004**4)
    told = flow_through(air, 20, 2.5, way, SMOOTH).drop_kpa
    p1 = 101_325.0
    squared = p1**2 - 2 * p1 * liquid
    assert told == pytest.approx((p1 - squared**0.5) / 1000, rel=0.01)


def test_a_pipe_that_is_too_long_lets_no_more_through(kit):
    way = Way(stretches=(Stretch(bore_mm=1.0, straight_mm=90_000.0),))
    assert flow_through(kit.fluids["air"], 20, 2.0, way, SMOOTH).drop_kpa is None


def test_volume_of_a_pipe():
    """NPS 1 schedule 40: 0.864 in² of bore, pipe handbooks; a metre holds 0.557 l."""
    bore = nearest_pipe(NPS=1, schedule="40")[1] * 1000
    assert volume_ml((Stretch(bore_mm=bore, straight_mm=1000.0),)) == pytest.approx(557, rel=0.005)


@pytest.mark.parametrize(
    ("fluid", "celsius", "cst", "within"),
    [
        ("water", 30, 0.801, 0.03),  # IAPWS, handbook table
        ("water", 80, 0.365, 0.05),  # IAPWS, handbook table
        ("hydraulic-46", 40, 46.0, 0.001),  # ISO 3448
        ("hydraulic-46", 70, 15.6, 0.1),  # ASTM D341 chart, viscosity index about 100
        ("air", 60, 18.9, 0.03),  # handbook table of dry air
    ],
)
def test_viscosity_over_temperature(kit, fluid, celsius, cst, within):
    assert viscosity(kit.fluids[fluid], celsius) == pytest.approx(cst, rel=within)


ROUND = Restrictor(bore_mm=1.0, land_mm=3.0, cd=0.62)


def test_a_restrictors_two_losses_lie_in_series(kit):
    """By hand: what the orifice loses, ρQ²/(2·(Cd·A)²), and what the land loses by Hagen–Poiseuille,
    128·µ·L·Q/(π·d⁴), add up to the drop; the smaller of the two flows alone says too much."""
    oil = kit.fluids["engine-15w40"]
    for celsius in (20, 130):
        lpm, share = restrictor_flow_lpm(oil, celsius, restrictor=ROUND, drop_kpa=400)
        rho, flow, area = density(oil, celsius), lpm / 60_000, pi / 4 * 0.001**2
        mu = viscosity(oil, celsius) * 1e-6 * rho
        orifice = rho * flow**2 / (2 * (0.62 * area) ** 2)
        land = 128 * mu * 0.003 * flow / (pi * 0.001**4)
        assert orifice + land == pytest.approx(400_000)
        assert share == pytest.approx(land / 400_000)
        alone = min(0.62 * area * (2 * 400_000 / rho) ** 0.5, 400_000 * pi * 0.001**4 / (128 * mu * 0.003))
        assert flow < alone * 60_000
    cold, _ = restrictor_flow_lpm(oil, 20, restrictor=ROUND, drop_kpa=400)
    rho = density(oil, 20)
    orifice_alone = 0.62 * pi / 4 * 0.001**2 * (2 * 400_000 / rho) ** 0.5 * 60_000
    assert orifice_alone / cold > 1.5


def test_flow_is_solved_from_the_pressure_in_hand(kit):
    """Exact for cold oil: Q = π·d⁴·Δp/(128·µ·L); and what is solved loses what was given, in any flow."""
    oil, petrol = kit.fluids["hydraulic-46"], kit.fluids["petrol"]
    mu = viscosity(oil, 0) * 1e-6 * density(oil, 0)
    exact = pi * 0.008**4 * 100_000 / (128 * mu * 1.0) * 60_000
    assert solved_flow_lpm(oil, 0, 100, METRE, SMOOTH) == pytest.approx(exact, rel=0.02)
    bent_way = Way(
        stretches=(Stretch(bore_mm=6.5, straight_mm=2000.0, bends=((90.0, 22.0),) * 5),),
        losses=(Loss(bore_mm=6.5, heads=3.0),),
        restrictors=(ROUND,),
    )
    solved = solved_flow_lpm(petrol, 20, 20, bent_way, SMOOTH)
    assert flow_through(petrol, 20, solved, bent_way, SMOOTH).drop_kpa == pytest.approx(20, rel=0.02)


def test_something_short_loses_its_velocity_heads(kit):
    """By hand: 3·ρ·v²/2 at 6 L/min through 8 mm."""
    petrol = kit.fluids["petrol"]
    with_banjo = Way(stretches=METRE.stretches, losses=(Loss(bore_mm=8.0, heads=3.0),))
    more = (
        flow_through(petrol, 20, 6, with_banjo, SMOOTH).drop_kpa
        - flow_through(petrol, 20, 6, METRE, SMOOTH).drop_kpa
    )
    speed = 6 / 60_000 / (pi / 4 * 0.008**2)
    assert more == pytest.approx(3 * density(petrol, 20) * speed**2 / 2 / 1000)


U = (row(100, 90), row(60, 90, "3:00"))


def test_a_smaller_repair_chokes_the_line(kit):
    line = bent(*U, service="fuel-low", carries=Carries(old_bore=Length(text="6 mm"), flow="2 L/min"))
    plan = plan_line(line, kit)
    choked = next(f for f in plan.findings if f.code == "choked")
    assert "times the old one" in choked.message
    assert plan.chosen.flowing.hot.drop_kpa > plan.chosen.flowing.old_hot.drop_kpa


def test_a_restrictor_in_the_line_says_what_it_passes(kit):
    part = Component(what="restrictor", bore=Length(text="0.8 mm"))
    end = End(fitting="banjo", nut="banjo_3-16in_M10x1", beyond=(part,))
    flowing = plan_line(bent(*U, service="oil-feed", end_b=end), kit).chosen.flowing
    assert flowing.restrictors[0].cold_lpm < flowing.restrictors[0].hot_lpm
    assert flowing.restrictors[0].cold_viscous > 0.9 > flowing.restrictors[0].hot_viscous


@pytest.mark.parametrize(
    ("drives", "unit", "kpa"),
    [
        ("400 mm", "mm", 2.92),  # by hand: 745 kg/m³ of petrol x 9.80665 m/s² x 0.4 m
        ("400", "mm", 2.92),
        ("16", "in", 2.97),
        ("3 psi", "in", 20.68),
    ],
)
def test_a_head_of_fuel_drives_the_flow(kit, drives, unit, kpa):
    line = replace(bent(*U, service="fuel-low"), unit=unit, carries=Carries(drives=drives))
    problems: list = []
    assert carried(line, kit, problems).duty.available_kpa == pytest.approx(kpa, abs=0.01)
    assert not problems


def test_less_head_brings_less_and_what_drives_nothing_is_said(kit):
    usual, low = (
        bent(*U, service="fuel-low"),
        replace(bent(*U, service="fuel-low"), carries=Carries(drives="100 mm")),
    )
    brings = [plan_line(line, kit).chosen.flowing.arrives_hot_lpm for line in (usual, low)]
    assert brings[1] < brings[0] / 2
    wrong = plan_line(replace(usual, carries=Carries(drives="the pump")), kit)
    assert [p.message for p in wrong.problems if p.path == "/carries/drives"] == [
        "“the pump” drives nothing: write a pressure like 20 kPa, or a head like 400 mm."
    ]
