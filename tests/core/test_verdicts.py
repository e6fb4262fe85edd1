"""What may be used where: the trade's own rules as a table, each with the standard that says it, or common
practice."""

from dataclasses import replace

import pytest

from bendrel.core.line.document import Carries
from bendrel.core.parts.seat import seat_fit
from bendrel.core.plan.planner import plan_line
from tests.lines import DOUBLE, End, bent, row

REFUSED, RIGHT, CARE, GOOD = "refused", "right", "caution", "acceptable"

CASES = [
    ("tube", "copper-nickel", "brake", RIGHT, "common practice: the usual pick for brakes"),
    ("tube", "steel-coated", "brake", RIGHT, "common practice: original on most vehicles"),
    ("tube", "copper", "brake", REFUSED, "common practice: copper refused for brakes"),
    ("tube", "copper", "fuel-low", REFUSED, "common practice: refused for fuel on vibrating machinery"),
    ("tube", "copper", "fuel-injection", REFUSED, "common practice: refused for fuel on vibrating machinery"),
    ("tube", "aluminium-3003", "brake", REFUSED, "common practice: aluminium never brakes"),
    ("tube", "aluminium-5052", "brake", REFUSED, "common practice: aluminium never brakes"),
    ("tube", "aluminium-6061", "brake", REFUSED, "common practice: aluminium never brakes"),
    ("tube", "aluminium-3003", "hydraulic", REFUSED, "common practice: never high pressure"),
    ("tube", "aluminium-6061", "steering-pressure", REFUSED, "common practice: never high pressure"),
    ("tube", "aluminium-3003", "fuel-low", GOOD, "common practice: aluminium on low-pressure fuel"),
    ("tube", "stainless-304", "brake", GOOD, "common practice: lasts, hard to flare, 37° instead"),
    ("tube", "nylon", "vacuum", RIGHT, "common practice: original for vacuum"),
    ("tube", "nylon", "fuel-low", GOOD, "common practice: original for some fuel lines"),
    ("tube", "nylon", "brake", REFUSED, "common practice: not rated"),
    ("tube", "steel-seamless", "hydraulic", RIGHT, "EN 10305-4: steel tube for hydraulics"),
    ("end", "compression", "brake", REFUSED, "common practice: never compression fittings on brakes"),
    ("end", "compression", "fuel-injection", REFUSED, "common practice: no sleeve compression unions"),
    ("end", "compression", "hydraulic", REFUSED, "common practice: soft brass sleeves never rated for it"),
    ("end", "compression", "oil-cooler", REFUSED, "common practice: a joint that lets go empties the sump"),
    ("end", "compression", "oil-feed", REFUSED, "common practice: a starved bearing dies in seconds"),
    ("end", "compression", "fuel-low", GOOD, "common practice: low-pressure only"),
    ("end", "bite-light", "hydraulic", RIGHT, "ISO 8434-1: rated steel sleeve ends"),
    ("end", "bite-heavy", "hydraulic", RIGHT, "ISO 8434-1: rated steel sleeve ends"),
    ("end", "bite-light", "brake", REFUSED, "common practice: no brake joint"),
    ("end", "single-45", "brake", REFUSED, "SAE J512: 45° single is low-pressure brass"),
    ("end", "single-45", "hydraulic", REFUSED, "SAE J512: 45° single is low-pressure brass"),
    ("end", "single-37", "hydraulic", RIGHT, "SAE J514, ISO 8434-2: 37° single flare"),
    ("end", "single-37", "fuel-injection", RIGHT, "common practice: 37° ends on injection fuel"),
    ("end", "double-45", "brake", RIGHT, "SAE J533: 45° double inverted flare"),
    ("end", "bubble", "brake", RIGHT, "ISO 4038: the bubble flare of brake tube"),
    ("end", "plain", "fuel-injection", REFUSED, "common practice: no plain push-on"),
    ("end", "plain", "oil-cooler", REFUSED, "common practice: full engine-oil pressure, hot"),
    ("end", "bead", "fuel-injection", GOOD, "common practice: beaded tube with injection hose and clamps"),
    ("end", "banjo", "oil-feed", RIGHT, "common practice: banjo with a washer each side"),
    ("end", "npt", "brake", REFUSED, "common practice: no sealant on brakes, ever"),
    ("end", "quick", "fuel-injection", RIGHT, "common practice: quick connectors"),
    ("joint", "hose-and-clamps", "brake", REFUSED, "common practice: no hose splices on brakes"),
    ("joint", "hose-and-clamps", "hydraulic", REFUSED, "common practice: blows off"),
    ("joint", "hose-and-clamps", "steering-pressure", REFUSED, "common practice: never hose-and-clamp"),
    ("joint", "compression-union", "brake", REFUSED, "common practice"),
    ("joint", "compression-union", "fuel-injection", REFUSED, "common practice"),
    ("joint", "flared-union", "brake", RIGHT, "common practice: the accepted repair"),
    ("joint", "bite-union", "hydraulic", RIGHT, "common practice: rated bite-type accepted"),
    ("hose", "fuel-low", "fuel-injection", REFUSED, "common practice: different products"),
    ("hose", "vacuum", "fuel-low", REFUSED, "common practice: different products"),
    ("hose", "coolant", "cooler", REFUSED, "common practice: different products"),
    ("hose", "cooler", "brake", REFUSED, "common practice: hose refused on brakes"),
    ("hose", "ptfe-braided", "oil-feed", RIGHT, "common practice: braided feed line"),
    ("clamp", "injection", "fuel-injection", RIGHT, "common practice: injection-rated clamps"),
    ("clamp", "worm", "fuel-injection", REFUSED, "common practice: slots cut the hose"),
    ("clamp", "spring", "coolant", GOOD, "common practice: makers use them"),
]


@pytest.mark.parametrize(("of", "item", "service", "word", "source"), CASES)
def test_verdict(kit, of, item, service, word, source):
    verdict = kit.verdict(of, item, service)
    assert verdict.verdict == word, source
    assert len(verdict.reason) > 10


def test_every_pressure_is_in_numbers(kit):
    """Common practice: a few bar for coolers, 3 to 6 for injection, about 140 for
    brakes; engine oil is treated as pressure."""
    kpa = {s.id: s.duty.working_kpa for s in kit.services.values() if s.duty}
    assert 300 <= kpa["fuel-injection"] <= 600
    assert 200 <= kpa["cooler"] <= 1000
    assert kpa["brake"] >= 10_000
    assert kpa["oil-cooler"] >= 500
    assert kpa["fuel-low"] < 100


@pytest.mark.parametrize(
    ("seat", "end", "word"),
    [
        ("inverted-45", "double-45", "seals"),
        ("inverted-45", "bubble", "wrong"),  # common practice: looks right and leaks
        ("bubble-seat", "double-45", "wrong"),  # ISO 4038: its seat is a bulb's
        ("cone-37", "double-45", "wrong"),  # common practice: a 45° flare on a 37° cone
        ("cone-37", "single-45", "wrong"),
        ("cone-37", "single-37", "seals"),
        ("npt-port", "bspt", "wrong"),
        ("o-ring-port", "npt", "wrong"),
        ("spigot", "double-45", "no pair"),
    ],
)
def test_ends_in_seats(kit, seat, end, word):
    assert seat_fit(kit.seats[seat], end).fits == word


U = (row(100, 90), row(60, 90, "3:00"))


def codes(plan):
    return {finding.code for finding in plan.findings}


def found(plan, code):
    return next(finding for finding in plan.findings if finding.code == code)


def test_a_double_flare_in_stainless_is_warned_and_37_offered(kit):
    """common practice: 45° double flares crack or will not form in stainless."""
    plan = plan_line(bent(*U, tube="stainless-304_3-16in_0.711"), kit)
    warned = found(plan, "double_flare_hard")
    assert warned.severity == "caution"
    assert [change.value for change in warned.fix.changes[:2]] == ["single-37", "single-37_3-16in_3-8-24"]


def test_a_bubble_in_an_inverted_seat_is_a_stop_with_the_right_end_to_take(kit):
    end = End(fitting="bubble", nut="bubble_3-16in_M10x1", seat="inverted-45")
    wrong = found(plan_line(bent(*U, end_b=end), kit), "wrong_seat")
    assert (wrong.severity, wrong.safety) == ("stop", True)
    assert wrong.fix.changes[0].value == "double-45"
    assert "wrong_seat" not in codes(plan_line(bent(*U, end_b=replace(DOUBLE, seat="inverted-45")), kit))


def test_a_refused_end_offers_one_that_suits_seat_and_material(kit):
    end = End(fitting="compression", seat="bubble-seat")
    refused = found(plan_line(bent(*U, end_b=end), kit), "end_refused")
    assert refused.fix.changes[0].value == "bubble"


def test_glycol_does_not_go_where_mineral_oil_belongs(kit):
    """common practice: do not mix glycol and mineral fluids."""
    line = bent(*U, service="cooler", carries=Carries(fluid="dot4"))
    assert found(plan_line(line, kit), "wrong_fluid").severity == "stop"


def test_unlike_metals_are_noted(kit):
    """From memory: anodic index, copper against aluminium 0.55 V."""
    noted = found(plan_line(bent(*U, end_b=replace(DOUBLE, body="aluminium")), kit), "galvanic")
    assert noted.severity == "note"
    assert "aluminium is eaten" in noted.message
    assert "galvanic" not in codes(plan_line(bent(*U, end_b=replace(DOUBLE, body="brass")), kit))


def test_a_female_nut_goes_over_the_port(kit):
    """SAE J514: the 37° nut is the female one; a metric port in its inch nut starts and jams."""
    end = End(fitting="single-37", nut="single-37_3-16in_3-8-24", thread="M10x1")
    jammed = found(plan_line(bent(*U, service="fuel-low", end_b=end), kit), "nut_port")
    assert "3/8-24 nut over the M10x1 port does not start" in jammed.message
