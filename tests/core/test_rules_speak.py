"""Each rule speaks where it should, and is silent one step on this side of it.

Rows of pairs: a line that has the fault, and the same line with the one thing put right. What counts as
a fault is common practice, unless a row says more.
"""

from __future__ import annotations

import re

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.bench.exact import how_exact
from bendrel.core.bend.tube.choosing import choose_rows
from bendrel.core.line.document import Carries, LeftOpen
from bendrel.core.line.run import main_run
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Angle, Length
from tests.lines import DOUBLE, Component, End, Hose, bent, replace, row, the_tube, with_tube

KIT = load_kit()
U = (row(100, 90), row(60, 90, "3:00"))
THREE_EIGHTHS = {"tube": "copper-nickel_3-8in_0.889", "bender": "lever_3-8in"}
PLAIN = End(fitting="plain")
BEAD = End(fitting="bead")


def hosed(hose="cooler_3-8in", clamp="worm_12-20", **line):
    piece = Hose(hose=hose, clamp=clamp, length=Length(text="200 mm"))
    end = End(fitting="bead", beyond=(piece,))
    return bent(*U, **{"service": "cooler", **THREE_EIGHTHS, "end_b": end, **line})


def opened(angle):
    line = bent(*U, last=100)
    left = LeftOpen(row="r1", angle=Angle(text=angle))
    return with_tube(line, left_open=(left,))


def carrying(service, line=None, **carries):
    return replace(line or bent(*U, last=100), service=service, carries=Carries(**carries))


VACUUM = bent(row(2000, 90), last=2000, tube="steel-double-wall_3-16in_0.711", end_a=PLAIN, end_b=PLAIN)
RESTRICTED = bent(
    *U, service="vacuum", end_a=PLAIN, end_b=End(fitting="plain", beyond=(Component(what="restrictor"),))
)

PAIRS = {
    # tube, end, hose and clamp that are only used with care, and the usual choice of the service
    "material_care": (bent(*U, service="hydraulic"), bent(*U, service="fuel-low")),
    "end_care": (bent(*U, service="hydraulic"), bent(*U, service="brake")),
    "hose_care": (hosed(service="oil-cooler"), hosed()),
    "clamp_care": (
        hosed(service="oil-cooler"),
        hosed(service="cooler"),
    ),
    "no_clamp": (hosed(clamp=None), hosed()),
    # a flare does not form in plastic
    "no_flare": (
        bent(*U, tube="nylon_4mm_0.85", bender="form_4mm", service="fuel-low"),
        bent(*U, tube="nylon_4mm_0.85", bender="form_4mm", service="fuel-low", end_a=PLAIN, end_b=PLAIN),
    ),
    # the bender holds 20 mm before a bend (benders.csv)
    "bender_grip": (
        bent(row(18, 90), last=100, end_a=PLAIN, end_b=PLAIN),
        bent(row(21, 90), last=100, end_a=PLAIN, end_b=PLAIN),
    ),
    # a radius of 9 mm on 4.76 mm tube is under twice its outside
    "kinks": (
        bent(row(100, 90, radius=9), last=100, bender="given_any"),
        bent(row(100, 90, radius=15), last=100, bender="given_any"),
    ),
    # diesel and copper: the copper takes part in its ageing
    "fluid_tube": (
        carrying("fuel-low", bent(*U, tube="copper_3-16in_0.762"), fluid="diesel"),
        carrying("fuel-low", bent(*U, tube="copper_3-16in_0.762"), fluid="petrol"),
    ),
    # air at the speed of sound in 3.3 mm carries some 150 L/min at the very most
    "gas_choked": (
        carrying("vacuum", VACUUM, flow="900 L/min"),
        carrying("vacuum", VACUUM, flow="2 L/min"),
    ),
    "restrictor_bore": (
        RESTRICTED,
        replace(
            RESTRICTED,
            end_b=End(fitting="plain", beyond=(Component(what="restrictor", bore=Length(text="0.8 mm")),)),
        ),
    ),
    "left_open_unread": (opened("half"), opened("45")),
    "left_open_whole": (opened("90"), opened("89")),
}


@pytest.mark.parametrize("code", PAIRS)
def test_the_rule_speaks_and_is_silent(code):
    wrong, right = PAIRS[code]
    said = [finding for finding in plan_line(wrong, KIT).findings if finding.code == code]
    assert said, f"{code} should speak"
    assert said
    assert all(finding.source.text and finding.title and finding.message for finding in said)
    assert code not in {finding.code for finding in plan_line(right, KIT).findings}


@pytest.mark.parametrize(("unit", "other"), [("in", r"\d bar\b"), ("mm", r"\d psi\b")])
def test_pressures_are_told_in_the_lines_own_system(unit, other):
    told = 0
    for wrong in (*(wrong for wrong, _ in PAIRS.values()), carrying("brake", pressure="20 bar")):
        for finding in plan_line(replace(wrong, unit=unit), KIT).findings:
            said = f"{finding.title} {finding.message} {finding.advice}"
            assert not re.search(other, said), said
            told += bool(re.search(r"\d (psi|bar)\b", said))
    assert told > 5


def test_a_tube_that_holds_the_work_and_bursts_at_the_test_is_a_stop():
    """Factor 1 and a test at four times the working pressure: only the test is too much."""
    brake = KIT.services["brake"]
    duty = replace(brake.duty, working_kpa=14_000.0, test_kpa=90_000.0, design_factor=1.0)
    kit = replace(KIT, services={**KIT.services, "brake": replace(brake, duty=duty)})
    found = [f for f in plan_line(bent(*U, unit="in"), kit).findings if f.code == "test_tube"]
    assert [f.severity for f in found] == ["stop"]
    assert re.search(r"bursts at [\d,]+ psi and is tested at 13,050 psi", found[0].message)
    assert "test_tube" not in {f.code for f in plan_line(bent(*U), KIT).findings}


def test_a_part_that_seldom_fits_is_a_note_in_soft_tube_and_a_caution_in_stiff():
    """A hand of two degrees and two millimetres over five bends; with a steady hand nothing is said."""
    rows = [row(150, 90), row(150, 90, "3:00"), row(150, 90, "6:00"), row(150, 45, "9:00"), row(200, 60)]
    shaky = replace(KIT.spread, straight_mm=2.0, angle_deg=2.0, rotation_deg=2.0)
    steady = replace(KIT.spread, straight_mm=0.05, angle_deg=0.05, rotation_deg=0.05)
    for tube, severity in (
        ("copper-nickel_3-16in_0.711", "note"),
        ("stainless-304_3-16in_0.711", "caution"),
    ):
        line = bent(*rows, last=300, tube=tube, end_a=DOUBLE, bender="given_any")
        readings = replace(
            the_tube(line).readings, rows=tuple(replace(r, radius=Length(text="15 mm")) for r in rows)
        )
        line = with_tube(line, readings=readings)
        part, chosen = plan_line(line, KIT).part, choose_rows(main_run(line), KIT, [])
        (said,) = how_exact(main_run(line), replace(KIT, spread=shaky), chosen, part)[1]
        assert (said.code, said.severity) == ("seldom_fits", severity)
        assert how_exact(main_run(line), replace(KIT, spread=steady), chosen, part)[1] == ()
