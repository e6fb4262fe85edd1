"""The shown working, term by term: each input as it stands there, and a result that follows from them."""

from __future__ import annotations

from math import pi, radians, tan

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.line.document import TestFlare
from bendrel.core.parts.calibration import Calibration
from bendrel.core.plan.working import working_of
from bendrel.core.units.lengths import Length
from tests.core.test_refused import line
from tests.lines import DOUBLE, End, bent, replace, row, with_tube

KIT = load_kit()
# 100 mm, 90°, 60 mm, 60°, 80 mm at R 15 on 3/16 in × 0.711 mm
LINE = bent(row(100, 90), row(60, 60, "3:00"), last=80)
ARC_1, ARC_2 = 15 * pi / 2, 15 * pi / 3
REACH = 15 * tan(radians(30))
ALONG = 240 + ARC_1 + ARC_2


def working(made, kit=KIT):
    return {d.id: d for d in working_of(made, kit)}


def said(derivation):
    return {term.name: term.value for term in derivation.inputs}


def first(text):
    return float(text.split()[0].rstrip("°").removesuffix("%").replace("×", ""))


def test_the_cut_is_the_sum_of_what_is_shown():
    told = working(LINE)["cut"]
    terms = said(told)
    assert list(terms.values()) == [f"{ALONG:.2f} mm", "2.05 mm", "2.05 mm", "25.00 mm"]
    assert sum(first(v) for v in terms.values()) == pytest.approx(first(told.result), abs=0.02)
    assert first(told.result) == pytest.approx(ALONG + 2 * 2.0456 + 25, abs=0.01)


def test_the_length_along_the_tube_is_straights_and_arcs():
    told = working(LINE)["developed"]
    assert said(told) == {"3 straights": "240.00 mm", "2 arcs": f"{ARC_1 + ARC_2:.2f} mm"}
    assert told.result == f"{ALONG:.2f} mm"


def test_inches_stand_beside_hundredths_of_a_millimetre():
    """39 mm and a bit are 1 17/32 in to the nearest 32nd."""
    told = working(replace(LINE, unit="in"))["arc-1"]
    assert told.result == f'15/16" ({ARC_1:.2f} mm)'


def test_a_flares_working_gives_the_tube_it_takes():
    told = working(LINE)["end-A"]
    terms = said(told)
    wide, od, half = (first(terms[n]) for n in ("F, flare diameter", "D, tube", "β, half the cone"))
    assert (wide, od, half) == (7.0, 4.7625, 45.0)
    x = (wide - od) / 2
    assert first(told.result) == pytest.approx(2 * x * 2**0.5 - x, abs=0.006)
    assert told.formula.startswith("2x/sin β − x/tan β")
    single = working(line("fuel-low", "copper_3-8in_0.813", "single-45"))["end-B"]
    assert single.formula.startswith("x/sin β − x/tan β")
    table = working(line("brake", "copper-nickel_4.75mm_0.7", "bubble"))["end-A"]
    assert (said(table), table.result) == ({KIT.fittings["bubble"].name: "2 mm"}, "2.00 mm")
    assert "until you flare a test piece" in table.formula
    own = working(replace(LINE, end_a=replace(DOUBLE, trial=TestFlare(used=Length(text="3.1 mm")))))["end-A"]
    assert (own.formula, own.result, own.source.text) == (
        "as measured", "3.10 mm", "your own flared test piece, before less after")  # fmt: skip
    plain = End(fitting="plain")
    bare = working(replace(LINE, service="fuel-low", end_a=plain, end_b=plain))["end-A"]
    assert (bare.formula, bare.result) == ("nothing is used up", "0.00 mm")


@pytest.mark.parametrize(
    ("changes", "bend", "inputs", "mark"),
    [
        ({}, 2, {"bend starts, from rim A": 160 + ARC_1}, 160 + ARC_1),
        ({"held": "B"}, 2, {"bend starts, from rim B": 80}, 80),
        ({"held": "B"}, 1, {"bend starts, from rim B": 140 + ARC_2}, 140 + ARC_2),
        ({"marks": "middle"}, 1, {"bend starts, from rim A": 100, "half the arc": ARC_1 / 2},
         100 + ARC_1 / 2),
        ({"marks": "corner"}, 1, {"corner": 115, "take-up": 15}, 100),
        ({"marks": "corner"}, 2, {"corner": 160 + ARC_1 + REACH, "take-up": REACH}, 160 + ARC_1),
    ],
)  # fmt: skip
def test_a_mark_follows_from_its_terms(changes, bend, inputs, mark):
    told = working(with_tube(LINE, **changes))[f"mark-{bend}"]
    assert {n: first(v) for n, v in said(told).items()} == pytest.approx(inputs, abs=0.006)
    assert first(told.result) == pytest.approx(mark, abs=0.006)


def test_a_mark_from_a_cut_end_on_a_tool_with_an_offset():
    """12 mm left long and a flare of 2.05 mm still to come at A; the zero lies 3 mm before the tangent."""
    bender = replace(KIT.benders["lever_3-16in"], zero_offset_mm=3.0)
    kit = replace(KIT, benders={**KIT.benders, bender.id: bender})
    long = replace(LINE, end_a=replace(DOUBLE, leave_long=Length(text="12 mm")))
    told = working(long, kit)["mark-1"]
    assert [first(v) for v in said(told).values()] == [100.0, 14.05, 3.0]
    assert told.formula == "mark = start of bend + allowance − zero offset"
    assert first(told.result) == pytest.approx(111.05)
    corner = working(with_tube(long, marks="corner"), kit)["mark-1"]
    assert {n: first(v) for n, v in said(corner).items()} == {"corner": 129.05, "take-up": 18.0}
    assert first(corner.result) == pytest.approx(111.05)
    none = working(bent(row(100, 172), last=200, marks="corner"))["mark-1"]
    assert none.result == "no corner mark from 170° up"


def test_a_dial_follows_from_angle_and_spring_back():
    """M_p = σ·(D³ − d³)/6, I = π·(D⁴ − d⁴)/64: a = M_p·R/(E·I), by hand with 120 MPa and 135 GPa."""
    outside, bore = 4.7625, 4.7625 - 2 * 0.711
    moment = 120 * (outside**3 - bore**3) / 6
    share = moment * 15 / (135_000 * pi * (outside**4 - bore**4) / 64)
    told = working(LINE)["dial-2"]
    terms = said(told)
    assert terms["θ"] == "60.00°"
    assert first(next(v for n, v in terms.items() if n.startswith("a, "))) == pytest.approx(share, abs=6e-6)
    assert told.result == f"{60 * (1 + share):.1f}°"
    own = Calibration(
        radius_mm=14.5,
        zero_offset_mm=0.0,
        springback=0.04,
        springback_deg=-0.5,
        doubt=(0.1, 0.1, 0.002, 0.3),
        covariance=((0.0,) * 4,) * 4,
        pieces=1,
        odd=(),
    )
    kit = replace(KIT, calibrations={("lever_3-16in", "copper-nickel"): own})
    told = working(LINE, kit)["dial-2"]
    assert said(told) == {"θ": "60.00°", "a": "0.0400 ± 0.0020", "b": "-0.50° ± 0.30°"}
    assert told.result == f"{60 * 1.04 - 0.5:.1f}°"
    assert told.source.text == "calibration from 1 test piece"
    assert (
        "from 3 test pieces"
        in working(
            LINE, replace(KIT, calibrations={("lever_3-16in", "copper-nickel"): replace(own, pieces=3)})
        )["dial-1"].source.text
    )


def test_plastic_has_a_form_and_no_dial():
    plain = End(fitting="plain")
    tube = next(t for t in KIT.tubes.values() if t.material == "nylon" and t.size == "6 mm")
    made = bent(row(200, 60), last=200, service="vacuum-actuator", tube=tube.id, end_a=plain, end_b=plain,
                bender=KIT.benders_for("6 mm", plastic=True)[0].id)  # fmt: skip
    told = working(made)["dial-1"]
    assert (told.title, told.result) == ("Form for bend 1", "60.0°")


def test_the_allowed_pressure_follows_from_its_terms():
    told = working(LINE)["strength"]
    terms = said(told)
    stress = first(terms["S, least strength"])
    share = next(first(v) for n, v in terms.items() if n.startswith("share left"))
    wall, tolerance = first(terms["wall, nominal"]), float(terms["wall, least by tolerance"].split()[1])
    least, bend, od = (first(terms[n]) for n in ("t, least wall", "b, the tightest bend", "D, outside"))
    factor = first(terms["design factor"])
    assert (stress, wall, tolerance, od, factor) == (262, 0.711, 0.9, 4.7625, 2.5)
    assert least == pytest.approx(wall * tolerance, abs=5e-4)
    assert bend == pytest.approx(30 / (30 + od / 2), abs=5e-4)
    burst = 2 * stress * share * least / od * bend * 10  # MPa to bar
    assert first(terms["bursts at"]) == pytest.approx(burst, rel=0.01)
    assert first(told.result) == pytest.approx(burst / factor, rel=0.01)
    outer, inner = od**2, (od - 2 * least) ** 2
    thick = stress * share * (outer - inner) / (outer + inner) * bend * 10
    assert first(terms["thick-wall formula, not used"]) == pytest.approx(thick / factor, rel=0.01)


def test_what_the_line_holds_follows_from_bore_and_length():
    told = working(LINE)["volume"]
    bore, along = (first(v) for v in said(told).values())
    assert (bore, along) == (pytest.approx(3.3405, abs=6e-4), pytest.approx(ALONG, abs=0.06))
    assert first(told.result) == pytest.approx(pi / 4 * bore**2 * along / 1000, abs=0.06)


@pytest.mark.parametrize("when", ["cold", "hot"])
def test_the_pressure_lost_shows_how_it_flows(when):
    """v = Q/A and Re = v·d/ν from the figures beside it."""
    told = working(replace(LINE, service="fuel-low"))[f"drop-{when}"]
    terms = said(told)
    flow, speed, bore = (first(terms[n]) for n in ("flow", "v, where it is fastest", "narrowest bore"))
    nu = next(first(v) for n, v in terms.items() if n.startswith("ν, "))
    assert speed == pytest.approx(flow / 60_000 / (pi / 4 * (bore / 1000) ** 2), rel=0.01)
    reynolds, word = terms["Re"].split(", ")
    assert float(reynolds) == pytest.approx(speed * bore / 1000 / (nu * 1e-6), rel=0.02)
    assert word == ("laminar" if float(reynolds) < 2040 else "turbulent")
