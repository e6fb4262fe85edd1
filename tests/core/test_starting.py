"""What a new line begins with raises no stop, in any service, and follows what the shop has."""

from typing import get_args

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.findings import Source
from bendrel.core.line.document import BendReadings
from bendrel.core.plan.beginning import Beginning, Begins, begun
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.starting import starting_line
from bendrel.core.units.lengths import Length
from tests.lines import Hose, end_of, replace, row, the_tube, with_tube

KIT = load_kit()
MADE_HERE = [s.id for s in KIT.services.values() if not s.left_to]


def read(line):
    """Some readings that any shop could make with the tool that came with it: long legs, two bends."""
    rows = (row(400, 90), row(400, 45, "3:00"))
    readings = BendReadings(rows=rows, last=Length(text="400 mm"), last_read_from="start")
    return with_tube(line, readings=readings)


def stops(line):
    return [(f.code, str(f.where)) for f in plan_line(line, KIT).findings if f.severity == "stop"]


@pytest.mark.parametrize("unit", ["in", "mm"])
@pytest.mark.parametrize("service", MADE_HERE)
def test_no_default_raises_a_stop(service, unit):
    line = read(starting_line(KIT, "new", service, unit))
    assert stops(line) == []


@pytest.mark.parametrize("unit", ["in", "mm"])
@pytest.mark.parametrize("service", [s for s in MADE_HERE if KIT.services[s].hose_class])
def test_no_default_hose_raises_a_stop(service, unit):
    """The hose that a new piece starts with, in the bore and with the clamp that the plan offers for it."""
    line = read(starting_line(KIT, "new", service, unit))
    hose_class = KIT.hose_classes[KIT.services[service].hose_class]
    od = KIT.tubes[the_tube(line).tube].od_mm
    sizes = [h for h in KIT.hoses.values() if h.hose_class == hose_class.id]
    hose = min(
        sizes, key=lambda h: abs(h.id_mm - od) + (100 if h.id_mm > od * 1.01 and hose_class.clamps else 0)
    )
    joined = "clamps" if hose_class.clamps else "crimped"
    allowed = KIT.verdict("joint", "hose-and-clamps", service)
    if allowed.verdict == "refused":
        joined = (
            "reusable"
            if hose_class.reusable and KIT.verdict("joint", "reusable-hose", service).verdict != "refused"
            else "crimped"
        )
    piece = Hose(hose=hose.id, length=Length(text="300 mm"), joined=joined)
    fitting = "bead" if joined == "clamps" else end_of(line, "B").fitting
    end = replace(
        end_of(line, "B"), fitting=fitting, nut=end_of(line, "B").nut if joined != "clamps" else None
    )
    if joined == "clamps" and KIT.materials[KIT.tubes[the_tube(line).tube].material].family == "plastic":
        end = replace(end, fitting="plain")
    line = replace(line, end_b=replace(end, beyond=(piece,)))
    offered = next((f for f in plan_line(line, KIT).findings if f.code == "no_clamp"), None)
    if offered is not None and offered.fix is not None:
        clamp = offered.fix.changes[0].value
        line = replace(line, end_b=replace(end, beyond=(replace(piece, clamp=clamp),)))
    assert stops(line) == []


def test_a_new_line_takes_what_the_shop_has():
    usual = starting_line(KIT, "new", "brake", "in")
    assert KIT.tubes[the_tube(usual).tube].material == "copper-nickel"
    steel = replace(KIT, preferences={**KIT.preferences, "material": "original steel"})
    assert KIT.tubes[the_tube(starting_line(steel, "new", "brake", "in")).tube].material == "steel-plated"
    lying = starting_line(steel, "new", "brake", "in", lying={"steel-coated_3-16in_0.711"})
    assert the_tube(lying).tube == "steel-coated_3-16in_0.711"
    own = replace(KIT.benders["vise_3-16in"], id="own_1", source=Source(kind="shop's own", text="ours"))
    tools = replace(KIT, benders={**KIT.benders, "own_1": own})
    assert the_tube(starting_line(tools, "new", "brake", "in")).bender == "own_1"
    assert the_tube(starting_line(KIT, "new", "fuel-low", "mm")).tube.startswith("copper-nickel_8mm")
    assert the_tube(starting_line(KIT, "new", "hydraulic", "in")).end_a.fitting == "single-37"


@pytest.mark.parametrize("service", [s.id for s in KIT.services.values() if s.left_to])
def test_what_is_left_to_others_says_so_from_the_start(service):
    assert ("left_to_practice", "tube") in stops(read(starting_line(KIT, "new", service, "mm")))


@pytest.mark.parametrize("unit", ["in", "mm"])
@pytest.mark.parametrize("begins", get_args(Begins))
@pytest.mark.parametrize("service", MADE_HERE)
def test_no_beginning_raises_a_stop(service, unit, begins):
    """Whatever a line is begun with, the first figures of it leave nothing to put right. A hose is of the
    service's class, in the bore that goes on what was said."""
    said = Beginning(begins=begins, length="600 mm")
    line = begun(starting_line(KIT, "new", service, unit), KIT, said)
    assert stops(line) == []
    assert len(line.spans) == 1
    span = line.spans[0]
    if begins == "hose":
        hose, kind = KIT.hoses[span.hose], KIT.services[service].hose_class
        assert kind in ("", hose.hose_class)
    else:
        assert span.state == ("stays" if begins == "old tube" else "to make")


@pytest.mark.parametrize(("service", "goes_on", "bore"), [
    ("cooler", "8 mm", 8.0), ("fuel-low", "6 mm", 6.0), ("vacuum-actuator", "4 mm", 4.0),
    ("cooler", '3/8"', 9.5), ("coolant", "32 mm", 32.0),
])  # fmt: skip
def test_a_hose_begins_in_the_bore_that_goes_on_what_was_said(service, goes_on, bore):
    """Hoses are sold by the spigot that they go on: nothing loose, and at most half a millimetre tight."""
    line = begun(starting_line(KIT, "new", service, "mm"), KIT, Beginning(begins="hose", goes_on=goes_on))
    assert bore - 0.6 <= KIT.hoses[line.spans[0].hose].id_mm <= bore + 0.1


def test_a_line_by_points_begins_with_its_two_ends_and_asks_for_both():
    """Six lengths are still to be read, and nothing is called wrong before anything is typed."""
    line = begun(starting_line(KIT, "new", "fuel-low", "mm"), KIT, Beginning(begins="corners"))
    problems = [one.path for one in plan_line(line, KIT).problems]
    assert [path.split("/")[-1] for path in problems] == ["x", "y", "z"] * 2


def test_what_cannot_be_read_is_kept_as_typed():
    said = Beginning(begins="hose", length="a cubit", goes_on="thumb")
    hose = begun(starting_line(KIT, "new", "coolant", "mm"), KIT, said).spans[0]
    assert (hose.length.text, hose.on_a.text, hose.on_b.text) == ("a cubit", "thumb", "thumb")
