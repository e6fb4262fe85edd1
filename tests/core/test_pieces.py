"""Hose and clamp fit, parts with a direction, and ports that are stripped."""

import pytest

from bendrel.core.joints.direction import flow_of
from bendrel.core.line.document import Carries
from bendrel.core.parts.push_fit import PushBands, clamp_holds, clamps_for, hose_fit, overlap_needed_mm
from bendrel.core.parts.stripped import StrippedLimits, rescues
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.services.shelf.lookups import PortOrder, save_port
from tests.lines import Component, End, Hose, bent, end_of, replace, row

BANDS = PushBands(loose=-0.01, slides=0.06, warm=0.16)
U = (row(100, 90), row(60, 90, "3:00"))
COOLER = {"service": "cooler", "tube": "copper-nickel_3-8in_0.889", "bender": "lever_3-8in"}


def codes(plan):
    return {finding.code for finding in plan.findings}


def found(plan, code):
    return next(finding for finding in plan.findings if finding.code == code)


def with_hose(**piece):
    hose = Hose(**({"hose": "cooler_3-8in", "clamp": "worm_12-20", "length": Length(text="200 mm")} | piece))
    return bent(*U, **COOLER, end_b=End(fitting="bead", beyond=(hose,)))


def test_eleven_millimetres_in_three_eighths_goes_on_warm(kit):
    """Common practice: +15 %, on warm, with fluid and force."""
    hose = replace(kit.hoses["cooler_3-8in"], id_mm=9.525)
    fit = hose_fit(hose, 11.0, BANDS)
    assert fit.interference == pytest.approx(0.155, abs=0.001)
    assert fit.push == "warm"


def test_a_hose_grows_when_pushed_on(kit):
    """The wall keeps its section: √(OD² − ID² + tube²); by hand for 16.7/9.5 on 11: 17.6 mm."""
    fit = hose_fit(kit.hoses["cooler_3-8in"], 11.0, BANDS)
    assert fit.over_mm == pytest.approx(17.6, abs=0.05)
    assert hose_fit(kit.hoses["cooler_3-8in"], 9.0, BANDS).over_mm == pytest.approx(16.7)


@pytest.mark.parametrize(
    ("on", "word"), [(9.0, "loose"), (9.525, "slides on"), (10.8, "warm"), (11.5, "too tight")]
)
def test_push_words(kit, on, word):
    assert hose_fit(kit.hoses["cooler_3-8in"], on, BANDS).push == word


def test_pinch_clamps_come_as_open_and_closed_pairs(kit):
    """Common practice: 25.6 mm open and 22.4 mm closed; at 22.41 mm nothing is left to squeeze."""
    pinch = kit.clamps["pinch_25.6/22.4"]
    assert clamp_holds(pinch, 25.0, 0.1)
    assert not clamp_holds(pinch, 22.41, 0.1)
    assert not clamp_holds(pinch, 22.0, 0.1)
    assert not clamp_holds(pinch, 26.0, 0.1)
    both = clamps_for((25.0, 24.0), ("worm", "pinch"), kit.clamps.values(), 0.1)
    assert [c.kind for c in both] == sorted((c.kind for c in both), key=("worm", "pinch").index)
    assert {c.kind for c in both} == {"worm", "pinch"}


def test_room_for_two_clamps():
    """By hand: two of 9 mm and three gaps of 3 mm."""
    assert overlap_needed_mm(9, 2, 3) == 27


def test_a_clamp_outside_its_range_is_a_stop_with_one_that_suits(kit):
    wrong = found(plan_line(with_hose(clamp="worm_25-40"), kit), "clamp_range")
    assert wrong.severity == "stop"
    offered = kit.clamps[wrong.fix.changes[0].value]
    assert clamp_holds(offered, 16.71, 0.1)
    assert "clamp_range" not in codes(plan_line(with_hose(), kit))


def test_the_wrong_bore_is_a_stop_with_the_bore_that_fits(kit):
    tight = found(plan_line(with_hose(hose="cooler_5-16in"), kit), "hose_tight")
    assert kit.hoses[tight.fix.changes[0].value].size == "3/8 in"
    assert "hose_loose" in codes(plan_line(with_hose(hose="cooler_1-2in"), kit))


def test_the_far_spigot_is_looked_at_too(kit):
    assert "hose_tight" in codes(plan_line(with_hose(far=Length(text="12 mm")), kit))
    assert "hose_warm" in codes(plan_line(with_hose(far=Length(text="11 mm")), kit))


def test_hose_of_the_wrong_class_or_liner(kit):
    assert found(plan_line(with_hose(hose="coolant_3-8in"), kit), "hose_refused").severity == "stop"
    fuel = bent(*U, service="fuel-low", end_b=End(fitting="bead", beyond=(Hose(hose="coolant_3-8in"),)))
    assert "swells" in found(plan_line(fuel, kit), "hose_fluid").message


def test_injection_hose_wants_its_own_clamps(kit):
    hose = Hose(hose="fuel-injection_5-16in", clamp="worm_12-20")
    line = bent(
        *U,
        service="fuel-injection",
        tube="copper-nickel_5-16in_0.889",
        bender="lever_5-16in",
        end_b=End(fitting="bead", beyond=(hose,)),
    )
    refused = found(plan_line(line, kit), "clamp_refused")
    assert kit.clamps[refused.fix.changes[0].value].kind in ("injection", "pinch")


def test_bare_tube_wants_two_clamps_or_a_bead(kit):
    line = with_hose(clamps_each=1)
    bare = replace(line, end_b=replace(end_of(line, "B"), fitting="plain"))
    assert found(plan_line(bare, kit), "one_clamp").severity == "caution"
    shop = replace(kit, preferences={**kit.preferences, "clamp-count": "one"})
    assert found(plan_line(bare, shop), "one_clamp").severity == "note"
    two = replace(bare, end_b=replace(end_of(bare, "B"), beyond=end_of(with_hose(), "B").beyond))
    assert found(plan_line(two, kit), "no_bead").fix.changes[0].value == "bead"


def test_a_hose_that_rubs_wants_a_sleeve(kit):
    assert "hose_rubs" in codes(plan_line(with_hose(rubs=True), kit))
    assert "hose_rubs" not in codes(plan_line(with_hose(rubs=True, sleeved=True), kit))


def test_no_hose_and_clamps_on_brakes(kit):
    end = End(fitting="bead", beyond=(Hose(hose="fuel-low_3-16in", clamp="worm_8-16"),))
    assert {"joint_refused", "hose_refused", "clamp_refused", "end_refused"} <= codes(
        plan_line(bent(*U, end_b=end), kit)
    )


VACUUM = {"service": "vacuum", "tube": "nylon_4mm_0.85", "bender": "form_4mm"}


def vacuum(part, **changes):
    a = End(fitting="plain", role="source", beyond=(part,))
    return bent(*U, **(VACUUM | {"end_a": a, "end_b": End(fitting="plain")} | changes))


def test_air_flows_towards_the_source_of_a_vacuum():
    check = Component(what="check valve", points="B")
    assert flow_of(vacuum(check), vacuum=True) == "B to A"
    assert flow_of(vacuum(check), vacuum=False) == "A to B"
    assert flow_of(vacuum(check, carries=Carries(flows="both ways")), vacuum=True) == "both ways"
    both = replace(vacuum(check), end_b=End(fitting="plain", role="source"))
    assert flow_of(both, vacuum=True) == "contradicts"


def test_a_check_valve_the_wrong_way_round_is_a_stop(kit):
    """Common practice: looks connected and does nothing."""
    wrong = found(plan_line(vacuum(Component(what="check valve", points="B")), kit), "backwards")
    assert (wrong.severity, wrong.fix.changes[0].value) == ("stop", "A")
    right = plan_line(vacuum(Component(what="check valve", points="A")), kit)
    assert not {"backwards", "direction_unknown"} & codes(right)
    unmarked = plan_line(vacuum(Component(what="check valve")), kit)
    assert "direction_unknown" in codes(unmarked)


def test_an_old_filter_beside_a_new_restrictor_is_a_stop(kit):
    parts = (
        Component(what="filter", age="old", points="B"),
        Component(what="restrictor", bore=Length(text="1 mm")),
    )
    end = End(fitting="banjo", nut="banjo_3-16in_M10x1", beyond=parts)
    assert "old_filter" in codes(plan_line(bent(*U, service="oil-feed", end_b=end), kit))


LIMITS = StrippedLimits(wall_share=0.25, engagement=1.0, drill_room_mm=130)


def test_a_stripped_port_is_saved_by_an_insert_or_the_next_thread(kit):
    """Insert tap for M10x1.5, ISO 68-1 height on both sides: 11.95 mm, drilled 10.3 to 10.4 (handbooks
    of wire inserts, from memory)."""
    threads = [kit.thread(name) for name in kit.threads]
    insert, *larger = rescues(kit.thread("M10x1.5"), threads, boss_mm=20, room_mm=200, limits=LIMITS)
    assert insert.way == "wire insert"
    assert insert.tap.startswith("11.95 mm")
    assert insert.drill_mm == pytest.approx(10.35, abs=0.1)
    assert insert.ok
    assert larger[0].thread == "M11x1.5"  # pitch diameter 10.026 mm, ISO 724: just outside the old 10
    assert larger
    assert all(rescue.drill_mm > insert.drill_mm - 1 for rescue in larger)


def test_little_metal_or_little_room_refuses_the_rescue(kit):
    threads = [kit.thread(name) for name in kit.threads]
    thin = rescues(kit.thread("M10x1"), threads, boss_mm=13, room_mm=None, limits=LIMITS)
    assert not any(rescue.ok for rescue in thin)
    assert "would be left" in thin[0].reason
    tight = rescues(kit.thread("M10x1"), threads, boss_mm=30, room_mm=80, limits=LIMITS)
    assert "A drill needs" in tight[0].reason
    unknown = rescues(kit.thread("M10x1"), threads, boss_mm=None, room_mm=None, limits=LIMITS)
    assert unknown[0].ok is None


def test_the_kit_list_has_two_washers_a_banjo_and_a_cap_a_port(kit):
    end = End(fitting="banjo", nut="banjo_3-16in_M10x1")
    needs = {n.ref: n for n in plan_line(bent(*U, service="oil-feed", end_b=end), kit).chosen.needs}
    assert needs["washer:M10x1"].amount == 2
    assert needs["cap:M10x1"].amount == 1
    assert needs["tube:copper-nickel_3-16in_0.711"].unit == "mm"


def test_the_tool_list_names_wrenches_of_both_systems(kit):
    """By hand: a 3/8 in hex is 9.525 mm; a 10 mm wrench would slip."""
    tools = plan_line(bent(*U), kit).chosen.tools
    wrench = next(t for t in tools if "flare-nut wrench" in t.what)
    assert "3/8 in" in wrench.what
    assert "10 mm" not in wrench.also
    assert any("second wrench" in tool.what for tool in tools)
    assert any("flaring tool" in tool.what for tool in tools)


def save(kit, **order):
    return save_port(PortOrder(**({"thread": "M10x1", "service": "cooler", "boss": "24 mm"} | order)), kit)


def test_drilling_takes_an_inverted_seat_away(kit):
    """Common practice: the cone lies at the bottom of the bore."""
    for seat in ("inverted-45", "bubble-seat"):
        ways = save(kit, seat=seat).ways
        assert {way.ok for way in ways} == {False}
        assert "takes the" in ways[0].reason
    assert any(way.ok for way in save(kit, seat="banjo-face").ways)
    assert {way.ok for way in save(kit).ways if way.ok is not False} == {None}  # nobody has said the seat


def test_a_tapered_port_goes_to_the_next_taper_or_a_bushing(kit):
    """ASME B1.20.1: after 1/8 comes 1/4, drilled 7/16 in by tap tables; an insert does not seal."""
    ways = save(kit, thread="1/8 NPT", seat="npt-port").ways
    assert [(way.way, way.thread) for way in ways] == [
        ("next taper", "1/4-18 NPT"),
        ("bushing", "1/4-18 NPT"),
    ]
    assert ways[0].drill_mm == pytest.approx(7 / 16 * 25.4, abs=0.4)
    assert ways
    assert all("chip" in way.reason for way in ways)
    thin = save(kit, thread="1/8 NPT", seat="npt-port", boss="16 mm").ways
    assert not any(way.ok for way in thin)


def test_what_a_stripped_port_carries_is_asked_first(kit):
    assert save(kit, service="").refused == "Say what the port carries first."
    for service in ("brake", "clutch"):
        assert "replaced" in save(kit, service=service).refused
        assert save(kit, service=service).ways == ()
    assert "licensed" in save(kit, service="gas").refused
