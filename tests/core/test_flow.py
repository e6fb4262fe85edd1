"""Flow and volume against exact laminar theory, published correlations and the fluids library."""

from math import pi

import pytest
from fluids import friction_factor
from fluids.piping import nearest_pipe

from bendrel.core.fluids.flow import Stretch, flow_through, restrictor_flow_lpm, volume_ml
from bendrel.core.fluids.fluid import density, viscosity
from bendrel.core.lengths import Length
from bendrel.core.line.document import Carries, LineEnd, PartPiece
from bendrel.core.plan.assemble import plan_line
from tests.lines import bent, row

SMOOTH = 0.0015
METRE = (Stretch(bore_mm=8.0, straight_mm=1000.0),)


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
    assert flow_through(petrol, 20, 6, (bend,), SMOOTH).drop_kpa > plain
    narrow = flow_through(petrol, 20, 6, (Stretch(bore_mm=6.0, straight_mm=1000.0),), SMOOTH).drop_kpa
    assert narrow / plain == pytest.approx((8 / 6) ** 4.75, rel=0.1)  # Blasius: Δp ~ d^-4.75


def test_air_is_compressible_and_chokes(kit):
    """For a small drop the gas behaves like a liquid; too much of it does not pass at any vacuum."""
    air = kit.fluids["air"]
    way = (Stretch(bore_mm=4.0, straight_mm=1000.0),)
    little = flow_through(air, 20, 2.0, way, SMOOTH)
    mu = viscosity(air, 20) * 1e-6 * density(air, 20)
    exact = 128 * mu * (2 / 60_000) / (pi * 0.004**4) / 1000
    assert little.drop_kpa == pytest.approx(exact, rel=0.02)
    assert flow_through(air, 20, 900.0, way, SMOOTH).drop_kpa is None


@pytest.mark.parametrize("metres", [10.0, 25.0, 60.0])
def test_air_in_a_long_narrow_pipe(kit, metres):
    """Exact for slow gas: p₁² − p₂² = 2·p₁·128·µ·L·Q₁/(π·d⁴), the compressible Hagen–Poiseuille."""
    air = kit.fluids["air"]
    way = (Stretch(bore_mm=4.0, straight_mm=metres * 1000),)
    mu = viscosity(air, 20) * 1e-6 * density(air, 20)
    liquid = 128 * mu * metres * (2.5 / 60_000) / (pi * 0.004**4)
    told = flow_through(air, 20, 2.5, way, SMOOTH).drop_kpa
    p1 = 101_325.0
    squared = p1**2 - 2 * p1 * liquid
    assert told == pytest.approx((p1 - squared**0.5) / 1000, rel=0.01)


def test_a_pipe_that_is_too_long_lets_no_more_through(kit):
    way = (Stretch(bore_mm=1.0, straight_mm=90_000.0),)
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


def test_the_smaller_of_orifice_and_viscous_flow_passes(kit):
    """computation.md 7: with cold oil the orifice equation alone is several times too high."""
    oil = kit.fluids["engine-15w40"]
    cold = restrictor_flow_lpm(oil, -10, bore_mm=0.8, land_mm=3, drop_kpa=400, cd=0.62)
    hot = restrictor_flow_lpm(oil, 130, bore_mm=0.8, land_mm=3, drop_kpa=400, cd=0.62)
    assert cold[0] / cold[1] > 3
    assert hot[0] < hot[1]
    by_hand = 0.62 * pi / 4 * 0.0008**2 * (2 * 400_000 / density(oil, 130)) ** 0.5 * 60_000
    assert hot[0] == pytest.approx(by_hand)


U = (row(100, 90), row(60, 90, "3:00"))


def test_a_smaller_repair_chokes_the_line(kit):
    line = bent(*U, service="fuel-low", carries=Carries(old_bore=Length(text="6 mm"), flow="2 L/min"))
    plan = plan_line(line, kit)
    choked = next(f for f in plan.findings if f.code == "choked")
    assert "times the old one" in choked.message
    assert plan.chosen.flowing.hot.drop_kpa > plan.chosen.flowing.old_hot.drop_kpa


def test_a_restrictor_in_the_line_says_what_it_passes(kit):
    part = PartPiece(part="restrictor", bore=Length(text="0.8 mm"))
    end = LineEnd(fitting="banjo", nut="banjo_3-16in_M10x1", beyond=(part,))
    flowing = plan_line(bent(*U, service="oil-feed", end_b=end), kit).chosen.flowing
    assert flowing.restrictors[0].cold_lpm < flowing.restrictors[0].hot_lpm
    assert flowing.restrictors[0].cold_viscous
