"""Every rule with a limit, from a hair on either side of it.

Each limit is worked out beside its test, from the row's own figures by hand arithmetic or from the standard
that is named; common practice where nothing is said.
"""

from __future__ import annotations

from math import pi, sqrt

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.flow.strength import clamped_joint
from bendrel.core.joints.direction import backwards, flow_of
from bendrel.core.line.document import Carries, Port, PortUnit
from bendrel.core.parts.push_fit import PushBands, clamp_holds, clamps_for, hose_fit, overlap_needed_mm
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.core.test_refused import hosed, line
from tests.lines import DOUBLE, Component, End, bent, replace, row

KIT = load_kit()
U = (row(100, 90), row(60, 90, "3:00"))


def codes(made, kit=KIT):
    return {finding.code for finding in plan_line(made, kit).findings}


def found(made, code, kit=KIT):
    return next(f for f in plan_line(made, kit).findings if f.code == code)


def but(kit=KIT, **limits):
    """The kit with other figures in its limits."""
    own = {name: replace(kit.limits[name], value=value) for name, value in limits.items()}
    return replace(kit, limits={**kit.limits, **own})


def duty_of(service, **changes):
    one = KIT.services[service]
    return replace(KIT, services={**KIT.services, service: replace(one, duty=replace(one.duty, **changes))})


def at(kpa):
    return Carries(pressure=f"{kpa:.3f} kPa")


HAIR = 1e-3

# ---- pressure


def test_a_tube_up_to_what_it_is_allowed():
    """12 × 1.5 mm E235+N by the thick-wall formula: 340·(144 − 81)/(144 + 81) = 95.2 MPa burst, at five
    diameters too; a quarter of it allowed."""
    allowed = 340_000 * (144 - 81) / (144 + 81) / 4
    made = line("hydraulic", "steel-seamless_12mm_1.5", "bite-light", radius=60)
    assert "pressure_tube" not in codes(replace(made, carries=at(allowed * (1 - HAIR))))
    weak = found(replace(made, carries=at(allowed * (1 + HAIR))), "pressure_tube")
    assert (weak.severity, weak.safety) == ("stop", True)
    assert "factor 4" in weak.message


def test_a_tube_at_its_test():
    """The same tube bursts at 95.2 MPa; tested at that it just holds."""
    burst = 340_000 * (144 - 81) / (144 + 81)
    made = line("hydraulic", "steel-seamless_12mm_1.5", "bite-light", radius=60)
    for tested, bursts in ((burst * (1 - HAIR), False), (burst * (1 + HAIR), True)):
        kit = duty_of("hydraulic", test_kpa=tested, working_kpa=10_000.0)
        assert ("test_tube" in codes(made, kit)) == bursts


@pytest.mark.parametrize(
    ("tube", "end", "kpa"),
    [
        ("steel-seamless_8mm_1.5", "bite-light", 25_000),  # ISO 8434-1, series L, 6 to 15 mm
        ("steel-seamless_22mm_2.5", "bite-light", 16_000),  # series L, 18 and 22 mm
        ("steel-seamless_28mm_3", "bite-light", 10_000),  # series L, 28 to 42 mm
    ],
)
def test_an_end_up_to_its_rating(tube, end, kpa):
    tube = tube if tube in KIT.tubes else next(t.id for t in KIT.tubes.values() if t.id.startswith(tube[:20]))
    made = line("hydraulic", tube, end)
    assert "pressure_end" not in codes(replace(made, carries=at(kpa * (1 - HAIR))))
    assert found(replace(made, carries=at(kpa * (1 + HAIR))), "pressure_end").severity == "stop"


def test_a_hose_up_to_its_working_pressure():
    kpa = KIT.hoses["hydraulic_3-8in"].pressure_kpa
    made = hosed("hydraulic", "steel-seamless_3-8in_1.245", "single-37", "hydraulic_3-8in", joined="crimped")
    assert "pressure_hose" not in codes(replace(made, carries=at(kpa * (1 - HAIR))))
    assert "pressure_hose" in codes(replace(made, carries=at(kpa * (1 + HAIR))))


@pytest.mark.parametrize(
    ("bare", "clamps", "bore", "kpa"),
    [
        # 260 N over the bore's area, 180 N bare; at most 1,000 and 700 kPa; one clamp 0.8 and 0.5 of it
        (False, 2, 25.4, 260 / (pi * 25.4**2 / 4) * 1000),
        (False, 2, 8.0, 1000),
        (True, 2, 25.4, 180 / (pi * 25.4**2 / 4) * 1000),
        (True, 2, 8.0, 700),
        (False, 1, 8.0, 800),
        (True, 1, 8.0, 350),
        (True, 0, 8.0, 0),
    ],
)
def test_what_clamps_hold(bare, clamps, bore, kpa):
    assert clamped_joint(KIT, bore, bare=bare, clamps=clamps).kpa == pytest.approx(kpa)


@pytest.mark.parametrize(("clamps", "kpa"), [(2, 1000.0), (1, 800.0)])
def test_clamps_up_to_what_they_hold(clamps, kpa):
    made = hosed(
        "cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="worm_12-20", clamps_each=clamps
    )
    assert "pressure_clamps" not in codes(replace(made, carries=at(kpa * (1 - HAIR))))
    assert "pressure_clamps" in codes(replace(made, carries=at(kpa * (1 + HAIR))))


def test_a_pressure_under_half_the_usual_needs_a_reason():
    usual = KIT.services["brake"].duty.working_kpa
    assert "low_pressure" not in codes(bent(*U, carries=at(usual / 2 + 1)))
    assert found(bent(*U, carries=at(usual / 2 - 1)), "low_pressure").severity == "stop"


def test_low_on_a_low_pressure_line_is_a_caution():
    """What usually works at 2.5 MPa and more is high pressure."""
    low = bent(*U, carries=at(100))
    for usual, severity in ((2500.0, "stop"), (2499.0, "caution")):
        assert found(low, "low_pressure", duty_of("brake", working_kpa=usual)).severity == severity


def test_over_what_the_service_is():
    most = KIT.services["fuel-injection"].duty.most_kpa
    made = line("fuel-injection", "steel-seamless_8mm_1.5", "single-37")
    assert "other_service" not in codes(replace(made, carries=at(most)))
    assert "other_service" in codes(replace(made, carries=at(most + 1)))


def test_heat_up_to_the_last_figure():
    """Copper-nickel's row ends at 200 °C; between its figures at 65 and 150 °C a straight line."""
    assert "too_hot_tube" not in codes(bent(*U, carries=Carries(temperature="200")))
    assert "too_hot_tube" in codes(bent(*U, carries=Carries(temperature="200.5")))
    share = plan_line(bent(*U, carries=Carries(temperature="107.5")), KIT).chosen.strength.tube.share
    assert share == pytest.approx((1.0 + 0.9) / 2)


def test_heat_and_cold_of_a_hose():
    made = hosed("cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="worm_12-20")
    kind = KIT.hose_classes["cooler"]
    for hot, code in ((kind.highest_c, False), (kind.highest_c + 0.5, True)):
        assert ("too_hot_hose" in codes(replace(made, carries=Carries(temperature=f"{hot}")))) == code
    for cold, code in ((kind.lowest_c, False), (kind.lowest_c - 0.5, True)):
        assert ("too_cold_hose" in codes(made, duty_of("cooler", cold_c=cold))) == code


def test_the_seals_of_an_end_have_their_heat():
    end = next(f for f in KIT.fittings.values() if f.highest_c is not None)
    size = next(size for fitting, size in KIT.end_sizes if fitting == end.id)
    tube = next(t.id for t in KIT.tubes.values() if t.size == size and t.material == "steel-seamless")
    made = line("hydraulic-return", tube, end.id)
    assert "too_hot_end" not in codes(replace(made, carries=Carries(temperature=f"{end.highest_c}")))
    assert "too_hot_end" in codes(replace(made, carries=Carries(temperature=f"{end.highest_c + 0.5}")))


# ---- clamps and hose


@pytest.mark.parametrize(
    ("over", "holds"), [(13.19, False), (13.21, True), (23.99, True), (24.01, False), (12.5, False)]
)
def test_a_clamp_keeps_a_tenth_of_its_range_to_squeeze(over, holds):
    """12 to 24 mm: from 12 + 0.1·12 = 13.2 mm up to 24 mm."""
    clamp = replace(KIT.clamps["worm_12-20"], closed_mm=12.0, open_mm=24.0)
    assert clamp_holds(clamp, over, 0.1) == holds
    hose = replace(
        KIT.hoses["cooler_3-8in"], id="own", id_mm=9.525, od_mm=over
    )  # on 9.525 mm it keeps its outside
    kit = replace(
        KIT, hoses={**KIT.hoses, "own": hose}, clamps={**KIT.clamps, "own": replace(clamp, id="own")}
    )
    made = hosed("cooler", "steel-plated_3-8in_0.711", "bead", "own", clamp="own")
    assert ("clamp_range" not in codes(made, kit)) == holds
    if not holds:
        said = found(made, "clamp_range", kit).message
        assert ("left to squeeze" in said) == (12 < over <= 24)


def test_the_narrowest_clamp_of_the_wanted_kind_comes_first():
    fits = clamps_for((18.0,), ("worm", "spring"), KIT.clamps.values(), 0.1)
    kinds = [clamp.kind for clamp in fits]
    assert kinds == sorted(kinds, key=("worm", "spring").index)
    worms = [clamp.open_mm - clamp.closed_mm for clamp in fits if clamp.kind == "worm"]
    assert worms == sorted(worms)
    assert clamps_for((18.0, 60.0), ("worm",), KIT.clamps.values(), 0.1) == ()


BANDS = PushBands(loose=-0.01, slides=0.06, warm=0.16)


@pytest.mark.parametrize(
    ("share", "push"),
    [
        (-0.0101, "loose"), (-0.0099, "slides on"), (0.0599, "slides on"), (0.0601, "warm"), (0.1599, "warm"),
        (0.1601, "too tight"),
    ],
)  # fmt: skip
def test_how_a_hose_goes_on(share, push):
    """1 % loose, 6 % slid on, 16 % warm. Its wall keeps its section: √(OD² − ID² + tube²)."""
    hose = replace(KIT.hoses["cooler_3-8in"], id_mm=10.0, od_mm=16.0)
    fit = hose_fit(hose, 10.0 * (1 + share), BANDS)
    assert fit.push == push
    assert fit.interference == pytest.approx(share)
    on = max(10.0, 10.0 * (1 + share))
    assert fit.over_mm == pytest.approx(sqrt(16.0**2 - 10.0**2 + on**2))


@pytest.mark.parametrize(
    ("bore", "code"),
    [
        (9.525 / 0.9795, "hose_loose"), (9.525 / 0.9805, None), (9.525 / 1.0595, None),
        (9.525 / 1.0605, "hose_warm"), (9.525 / 1.1595, "hose_warm"),
        (9.525 / 1.1605, "hose_tight"),
    ],
)  # fmt: skip
def test_the_push_reaches_the_line(bore, code):
    hose = replace(KIT.hoses["cooler_3-8in"], id="own", id_mm=bore, od_mm=bore + 6)
    kit = replace(KIT, hoses={**KIT.hoses, "own": hose})
    told = codes(hosed("cooler", "steel-plated_3-8in_0.711", "bead", "own", clamp="worm_12-20"), kit)
    assert {c for c in told if c.startswith(("hose_loose", "hose_warm", "hose_tight"))} == (
        {code} if code else set()
    )


@pytest.mark.parametrize(("lap", "speaks"), [("29.9 mm", True), ("30 mm", False), ("", False)])
def test_room_for_two_clamps(lap, speaks):
    """Two of 12 mm, a gap of 2 mm beside each and at both ends: 30 mm. Where nobody measured how far it lies
    on, it lies on far enough."""
    assert overlap_needed_mm(12.0, 2, 2.0) == 30.0
    assert overlap_needed_mm(12.0, 1, 2.0) == 16.0
    clamp = replace(KIT.clamps["worm_12-20"], id="own", width_mm=12.0)
    kit = replace(KIT, clamps={**KIT.clamps, "own": clamp})
    made = hosed("cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="own")
    at = next(k for k, span in enumerate(made.spans) if span.kind == "hose")
    hose = replace(made.spans[at], lap_a=Length(text=lap), lap_b=Length(text=lap))
    made = replace(made, spans=(*made.spans[:at], hose, *made.spans[at + 1 :]))
    assert ("clamp_room" in codes(made, kit)) == speaks


@pytest.mark.parametrize(("length", "speaks"), [("57.4 mm", True), ("57.7 mm", False)])
def test_a_hose_longer_than_its_overlaps_by_more_than_a_hand_sees(length, speaks):
    """Three times 9.525 mm on the tube and three times its own bore of 9.5 mm, and 0.4 mm."""
    made = hosed(
        "cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="worm_12-20", length=length
    )
    assert ("hose_short" in codes(made)) == speaks
    crimped = hosed(
        "hydraulic",
        "steel-seamless_3-8in_1.245",
        "single-37",
        "hydraulic_3-8in",
        joined="crimped",
        length="20 mm",
    )
    assert "hose_short" not in codes(crimped)


def test_a_hose_that_rubs_wants_its_sleeve():
    rubs = hosed("cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="worm_12-20", rubs=True)
    assert "hose_rubs" in codes(rubs)
    sleeved = hosed(
        "cooler",
        "steel-plated_3-8in_0.711",
        "bead",
        "cooler_3-8in",
        clamp="worm_12-20",
        rubs=True,
        sleeved=True,
    )
    assert "hose_rubs" not in codes(sleeved)


@pytest.mark.parametrize(("clamps", "code"), [(1, "one_clamp"), (2, "no_bead")])
def test_bare_tube_takes_two_clamps_and_would_rather_have_a_bead(clamps, code):
    bare = hosed(
        "fuel-low",
        "steel-plated_5-16in_0.711",
        "plain",
        "fuel-low_5-16in",
        clamp="worm_12-20",
        clamps_each=clamps,
    )
    assert code in codes(bare)
    beaded = hosed(
        "fuel-low",
        "steel-plated_5-16in_0.711",
        "bead",
        "fuel-low_5-16in",
        clamp="worm_12-20",
        clamps_each=clamps,
    )
    assert code not in codes(beaded)
    vacuum = hosed(
        "vacuum", "steel-plated_1-4in_0.711", "plain", "vacuum_1-4in", clamp="worm_8-16", clamps_each=clamps
    )
    assert code not in codes(vacuum)


def test_one_clamp_by_this_shops_way_is_a_note():
    bare = hosed(
        "fuel-low", "steel-plated_5-16in_0.711", "plain", "fuel-low_5-16in", clamp="worm_12-20", clamps_each=1
    )
    assert found(bare, "one_clamp").severity == "caution"
    own = replace(KIT, preferences={**KIT.preferences, "clamp-count": "one"})
    assert found(bare, "one_clamp", own).severity == "note"


# ---- feed and return

WAYS = [
    # role at A, role at B, in a pressure line, in a vacuum line; common practice
    ("source", "not known", "A to B", "B to A"),
    ("not known", "source", "B to A", "A to B"),
    ("feed", "not known", "A to B", "A to B"),
    ("not known", "feed", "B to A", "B to A"),
    ("return", "not known", "B to A", "B to A"),
    ("not known", "return", "A to B", "A to B"),
    ("feed", "return", "A to B", "A to B"),
    ("return", "feed", "B to A", "B to A"),
    ("feed", "feed", "contradicts", "contradicts"),
    ("return", "return", "contradicts", "contradicts"),
    ("source", "return", "A to B", "contradicts"),
    ("signal", "not known", "not known", "not known"),
    ("not known", "not known", "not known", "not known"),
]


@pytest.mark.parametrize(("a", "b", "pressure", "vacuum"), WAYS)
def test_which_way_it_flows_by_the_ports(a, b, pressure, vacuum):
    made = bent(*U, end_a=replace(DOUBLE, role=a), end_b=replace(DOUBLE, role=b))
    assert flow_of(made, vacuum=False) == pressure
    assert flow_of(made, vacuum=True) == vacuum
    said = replace(made, carries=Carries(flows="B to A"))
    assert flow_of(said, vacuum=False) == "B to A"


@pytest.mark.parametrize(
    ("unit", "vacuum", "flows"),
    # a pump drives and draws, a manifold draws, what is fed takes; a flap's air goes to the source
    [
        ("pump", False, "A to B"),
        ("pump", True, "B to A"),
        ("engine manifold", True, "B to A"),
        ("engine manifold", False, "not known"),
        ("consumer", False, "B to A"),
        ("actuator", True, "A to B"),
        ("actuator", False, "not known"),
        ("switch", True, "A to B"),
    ],
)
def test_which_way_it_flows_by_what_stands_at_a_port(unit, vacuum, flows):
    made = bent(*U)
    made = replace(made, port_a=Port(unit=PortUnit(kind=unit)))
    assert flow_of(made, vacuum=vacuum) == flows
    # what was said of a port comes first
    said = replace(made, port_a=Port(unit=PortUnit(kind=unit), role="return"))
    assert flow_of(said, vacuum=vacuum) == "B to A"


@pytest.mark.parametrize("part", ["check valve", "filter", "restrictor", "valve", "reservoir", "adapter"])
@pytest.mark.parametrize(("flows", "points", "wrong"), [
    ("A to B", "A", True), ("A to B", "B", False), ("B to A", "B", True), ("B to A", "A", False),
    ("both ways", "A", False), ("not known", "A", False), ("A to B", "not marked", False),
])  # fmt: skip
def test_what_stands_against_the_flow(part, flows, points, wrong):
    piece = Component(what=part, points=points)
    directed = part in ("check valve", "filter", "restrictor")
    assert backwards(piece, flows, vacuum=False) == (wrong and directed)


def fed(part, role="source", **piece):
    end = End(fitting="plain", role="not known", beyond=(Component(what=part, **piece),))
    return bent(*U, service="fuel-low", end_a=End(fitting="plain", role=role), end_b=end)


def test_a_valve_against_the_flow_is_a_stop_and_a_restrictor_a_caution():
    assert found(fed("check valve", points="A"), "backwards").severity == "stop"
    assert "backwards" not in codes(fed("check valve", points="B"))
    turned = found(fed("check valve", points="A"), "backwards").fix.changes[0]
    assert (turned.path, turned.value) == ("/spans/b1/points", "B")
    assert found(fed("restrictor", points="A"), "backwards").severity == "caution"
    assert "which end its arrow points to" in found(fed("check valve"), "direction_unknown").message
    assert (
        "which way the line flows"
        in found(fed("filter", role="not known", points="B"), "direction_unknown").message
    )
    assert "direction_unknown" not in codes(fed("filter", points="B"))
    assert "direction_unknown" not in codes(fed("restrictor"))


@pytest.mark.parametrize(("restrictor", "filter_", "speaks"), [
    ("new", "old", True), ("new", "new", False), ("old", "old", False), ("new", "not known", False),
])  # fmt: skip
def test_an_old_filter_beside_a_new_restrictor(restrictor, filter_, speaks):
    ages = {"old": "old", "new": "new"}
    parts = tuple(
        Component(what=p, points="B", **({"age": ages[a]} if a in ages else {}))
        for p, a in (("restrictor", restrictor), ("filter", filter_))
    )
    made = bent(*U, service="fuel-low", end_a=End(fitting="plain", role="source"),
                end_b=End(fitting="plain", beyond=parts))  # fmt: skip
    said = [f.where for f in plan_line(made, KIT).findings if f.code == "old_filter"]
    assert [where.span for where in said] == (["b2"] if speaks else [])


# ---- flow


@pytest.mark.parametrize(("old", "speaks"), [(3.709, False), (3.713, True)])
def test_a_bore_under_nine_tenths_of_the_old_one(old, speaks):
    """3/16 in × 0.711 mm has 3.3405 mm of bore: nine tenths of 3.7117 mm."""
    made = bent(*U, service="fuel-low", carries=Carries(old_bore=Length(text=f"{old} mm")))
    assert ("choked" in codes(made)) == speaks


@pytest.mark.parametrize(("share", "speaks"), [(0.999, False), (1.001, True)])
def test_faster_than_usual(share, speaks):
    """Through 3.3405 mm at the service's usual speed: Q = v·π·d²/4."""
    speed = KIT.services["fuel-low"].duty.velocity_mps
    lpm = speed * pi * 0.0033405**2 / 4 * 60_000 * share
    made = bent(*U, service="fuel-low", carries=Carries(flow=f"{lpm:.6f} L/min"))
    assert ("fast" in codes(made)) == speaks
    if speaks:
        assert found(made, "fast").severity == "caution"


def test_what_arrives_against_what_is_needed():
    """The flow that the pressure in hand drives hot is what is needed, or a hair less."""
    made = line("fuel-low", "copper-nickel_8mm_1", "double-45")
    arrives = plan_line(made, KIT).chosen.flowing.arrives_hot_lpm
    assert "starved" not in codes(made, duty_of("fuel-low", least_lpm=arrives * 0.99))
    assert found(made, "starved", duty_of("fuel-low", least_lpm=arrives * 1.01)).severity == "stop"
    cold = plan_line(made, KIT).chosen.flowing.arrives_cold_lpm
    if cold < arrives * 0.98:
        assert "slow_cold" in codes(made, duty_of("fuel-low", least_lpm=cold * 1.01))
        assert "slow_cold" not in codes(made, duty_of("fuel-low", least_lpm=cold * 0.99))


def test_a_flow_that_the_pressure_in_hand_does_not_drive():
    """With so little behind it that only half of it goes through; what is said counts, not what is usual."""
    made = line("oil-cooler", "steel-seamless_3-4in_1.651", "single-37")
    made = replace(made, carries=Carries(flow="20 L/min"))
    drop = plan_line(made, KIT).chosen.flowing.hot.drop_kpa
    for available, speaks in ((drop * 1.02, False), (drop * 0.98, True)):
        kit = duty_of("oil-cooler", available_kpa=available, least_lpm=0.1)
        assert ("drop_over_available" in codes(made, kit)) == speaks
