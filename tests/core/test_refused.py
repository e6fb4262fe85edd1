"""What must never pass: each line has one thing that can hurt somebody, and the same line without it is
free of that stop. What counts is common practice unless a row names a standard or a law."""

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.line.document import Carries
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from bendrel.core.work.holding import proposed
from tests.lines import Component, End, Hose, bent, end_of, replace, row, with_tube

KIT = load_kit()
GENTLE = (row(200, 45), row(200, 45, "3:00"))


def plan(line):
    return plan_line(line, KIT)


def severity(line, code):
    return next((f.severity for f in plan(line).findings if f.code == code), None)


def line(service, tube, end, *, radius=0.0, **changes):
    """A line with two gentle bends and the same end at both sides, its usual nut on it."""
    size, od = KIT.tubes[tube].size, KIT.tubes[tube].od_mm
    if radius == 0.0:
        radius = max(60, 4 * od)
    nuts = KIT.nuts_for(end, size) if KIT.fittings[end].screwed else ()
    made = End(fitting=end, nut=nuts[0].id if nuts else None)
    rows = tuple(row(250, 45, plane, radius=radius) for plane in ("12:00", "3:00"))
    start = {"tube": tube, "bender": "given_any", "end_a": made, "end_b": made}
    return bent(*rows, last=250, service=service, **(start | changes))


def hosed(service, tube, end, hose, *, clamp=None, joined="clamps", length="200 mm", **piece):
    beyond = Hose(hose=hose, clamp=clamp, joined=joined, length=Length(text=length), **piece)
    made = line(service, tube, end)
    return replace(made, end_b=replace(end_of(made, "B"), beyond=(beyond,)))


NO_RATING = [
    (line("cooler", "steel-seamless_3-4in_2.413", "compression"), "caution"),
    (line("fuel-injection", "steel-seamless_12mm_1", "quick"), "stop"),
    (line("hydraulic", "stainless-304_3-8in_1.245", "bite-light"), "stop"),
]


@pytest.mark.parametrize(("made", "word"), NO_RATING)
def test_no_rating_is_no_approval(made, word):
    """What the catalogue has no figure for is not known: a caution, a stop where people depend on it."""
    assert severity(made, "rating_unknown_end") == word


@pytest.mark.parametrize(
    "tube",
    [
        "copper-nickel_8mm_1",
        "steel-plated_8mm_0.7",
        "nylon_8mm_1",
        "aluminium-3003_8mm_1",
        "aluminium-5052_8mm_1",
    ],
)
def test_steel_sleeves_bite_thick_steel_only(tube):
    """ISO 8434-1 sleeve ends are for steel tube; soft tube is shaved through, thin brazed tube folds."""
    assert severity(line("fuel-low", tube, "bite-light"), "end_on_tube") == "stop"
    assert severity(line("fuel-low", "steel-seamless_8mm_1.5", "bite-light"), "end_on_tube") is None
    assert severity(line("hydraulic", "stainless-304_8mm_1", "bite-light"), "end_on_tube") == "caution"


def test_a_thin_wall_folds_under_a_steel_sleeve():
    """By hand: 1.5 mm on 22 mm is 0.068 of it, 2 mm 0.091."""
    thin = replace(KIT.tubes["steel-seamless_22mm_2"], id="thin", wall_mm=1.5)
    kit = replace(KIT, tubes={**KIT.tubes, "thin": thin})
    made = line("hydraulic-return", "steel-seamless_22mm_2", "bite-light")
    assert severity(made, "sleeve_wall") is None
    thin_line = with_tube(made, tube="thin")
    assert "sleeve_wall" in {f.code for f in plan_line(thin_line, kit).findings}


@pytest.mark.parametrize("end", ["banjo", "npt"])
@pytest.mark.parametrize("tube", ["nylon_10mm_1.25", "aluminium-6061_10mm_1"])
def test_brazed_ends_need_tube_that_can_be_brazed(end, tube):
    assert severity(line("fuel-low", tube, end), "end_on_tube") == "stop"
    assert severity(line("fuel-low", "copper-nickel_10mm_1", end), "end_on_tube") is None


def test_a_brass_sleeve_on_nylon_needs_its_insert():
    bare = line("fuel-low", "nylon_8mm_1", "compression")
    found = next(f for f in plan(bare).findings if f.code == "end_on_tube")
    assert found.severity == "stop"
    assert found.fix.changes[0].path == "/spans/s1/end_a/insert"
    held = replace(
        bare, end_a=replace(end_of(bare, "A"), insert=True), end_b=replace(end_of(bare, "B"), insert=True)
    )
    assert severity(held, "end_on_tube") is None


@pytest.mark.parametrize(
    ("nut", "end", "size", "port"),
    [
        ("double-45_3-16in_M10x1", "double-45", "3/16 in", "G1/8"),  # ISO 228: 55° flanks
        ("npt_1-4in_1-8-27-NPT", "npt", "1/4 in", "R1/8"),  # ASME B1.20.1 60° in ISO 7-1 55°
        ("npt_1-4in_1-8-27-NPT", "npt", "1/4 in", "G1/8"),
        ("bspp_1-4in_G1-8", "bspp", "1/4 in", "R1/8"),  # parallel in tapered
    ],
)
def test_two_kinds_of_thread_never_mate(nut, end, size, port):
    tube = {"3/16 in": "copper-nickel_3-16in_0.711", "1/4 in": "copper-nickel_1-4in_0.889"}[size]
    made = End(fitting=end, nut=nut, thread=port)
    found = [f for f in plan(line("fuel-low", tube, end, end_b=made)).findings if f.code == "threads_mixed"]
    assert [f.severity for f in found] == ["stop"]
    assert "blank" not in found[0].advice


@pytest.mark.parametrize(
    ("service", "tube", "end", "nut", "word"),
    [
        ("brake", "copper-nickel_3-16in_0.711", "bubble", "bubble_3-16in_3-8-24", "stop"),
        ("fuel-low", "copper-nickel_1-4in_0.889", "single-45", "single-45_1-4in_7-16-20", "stop"),
        ("coolant", "copper_1-4in_0.762", "single-45", "single-45_1-4in_7-16-20", "caution"),
        ("brake", "copper-nickel_3-16in_0.711", "bubble", "bubble_3-16in_M10x1", None),
        ("brake", "copper-nickel_3-16in_0.711", "double-45", "double-45_3-16in_3-8-24", None),
    ],
)
def test_a_thread_that_two_seats_share_asks_for_the_seat(service, tube, end, nut, word):
    """SAE J512 and J514: a 7/16-20 nut goes home on a 45° and on a 37° cone, a 3/8-24 tube nut in an
    inverted seat; one of each seals."""
    made = End(fitting=end, nut=nut, thread=KIT.nuts[nut].thread)
    unsaid = line(service, tube, end, end_a=made, end_b=made)
    assert severity(unsaid, "seat_unsaid") == word
    seat = next(seat.id for seat in reversed(KIT.seats.values()) if end in seat.takes)
    said = replace(unsaid, end_a=replace(made, seat=seat), end_b=replace(made, seat=seat))
    assert severity(said, "seat_unsaid") is None


def test_a_brake_hose_has_ends_for_good():
    """49 CFR 571.106: ends are attached permanently."""
    own = hosed("brake", "copper-nickel_3-16in_0.711", "double-45", "brake_1-8in", joined="reusable")
    assert severity(own, "reusable_brake") == "stop"
    bought = hosed("brake", "copper-nickel_3-16in_0.711", "double-45", "brake_1-8in", joined="crimped")
    assert severity(bought, "reusable_brake") is None
    assert severity(bought, "joint_care") is None


@pytest.mark.parametrize(
    ("service", "tube", "hose", "clamp"),
    [
        ("fuel-injection", "steel-plated_5-16in_0.711", "ptfe-braided_5-16in", "pinch_11.9/9.4"),
        ("hydraulic-return", "steel-seamless_3-4in_1.651", "hydraulic_3-4in", "worm_25-40"),
        ("fuel-low", "steel-plated_5-16in_0.711", "fuel-injection_5-16in", "worm_12-20"),
        ("coolant", "copper_5-8in_0.889", "coolant_5-8in", "injection_23-25"),
    ],
)
def test_clamps_go_on_hose_that_takes_them(service, tube, hose, clamp):
    kit = replace(
        KIT,
        clamps={
            **KIT.clamps,
            "injection_23-25": replace(
                KIT.clamps["injection_19-21"], id="injection_23-25", closed_mm=22.0, open_mm=25.0
            ),
        },
    )
    found = plan_line(hosed(service, tube, "bead", hose, clamp=clamp), kit).findings
    told = [f for f in found if f.code == "clamp_on_class"]
    assert {(f.severity, f.safety) for f in told} == {("stop", True)}


def test_injection_hose_holds_behind_a_bead_only():
    held = {"clamp": "injection_14-16", "far": Length(text="8 mm")}
    bare = hosed(
        "fuel-injection", "steel-plated_5-16in_0.711", "bead", "fuel-injection_5-16in", far_plain=True, **held
    )
    assert severity(bare, "bare_refused") == "stop"
    beaded = hosed("fuel-injection", "steel-plated_5-16in_0.711", "bead", "fuel-injection_5-16in", **held)
    assert severity(beaded, "bare_refused") is None


@pytest.mark.parametrize("end", ["single-37", "double-45", "banjo"])
def test_no_hose_is_clamped_over_a_flare_or_a_nut(end):
    over = hosed(
        "fuel-injection", "steel-plated_5-16in_0.711", end, "fuel-injection_5-16in", clamp="injection_14-16"
    )
    assert severity(over, "hose_over_end") == "stop"
    spigot = replace(
        over, end_b=replace(end_of(over, "B"), beyond=(Component(what="adapter"), *end_of(over, "B").beyond))
    )
    assert severity(spigot, "hose_over_end") is None


@pytest.mark.parametrize("pressure", ["200 bar", "300 bar"])
def test_the_high_pressure_side_of_injection_is_not_made_here(pressure):
    low = line("fuel-injection", "steel-seamless_8mm_1.5", "single-37")
    high = replace(low, carries=Carries(pressure=pressure))
    found = next(f for f in plan(high).findings if f.code == "other_service")
    assert found.severity == "stop"
    assert "low-pressure side only" in found.message
    assert severity(replace(low, carries=Carries(pressure="6 bar")), "other_service") is None
    assert severity(line("fuel-high", "steel-seamless_8mm_1.5", "single-37"), "left_to_practice") == "stop"


@pytest.mark.parametrize("service", [s.id for s in KIT.services.values() if s.left_to])
def test_what_is_left_to_licensed_practice_says_so(service):
    assert severity(line(service, "steel-seamless_8mm_1.5", "single-37"), "left_to_practice") == "stop"


@pytest.mark.parametrize("hose", ["vacuum_1-4in", "coolant_3-8in", "air_1-4in"])
def test_a_tank_vent_carries_fuel_vapour(hose):
    tube = "steel-plated_3-8in_0.711" if "3-8" in hose else "steel-plated_1-4in_0.711"
    assert severity(hosed("tank-vent", tube, "bead", hose), "hose_refused") == "stop"
    assert severity(hosed("tank-vent", tube, "bead", "fuel-low_1-4in"), "hose_refused") is None


def test_vacuum_hose_has_its_heat_too():
    hot = hosed("vacuum", "steel-plated_1-4in_0.711", "bead", "vacuum_1-4in")
    assert severity(replace(hot, carries=Carries(temperature="250 C")), "too_hot_hose") == "stop"
    assert severity(hot, "too_hot_hose") is None
    assert KIT.services["vacuum"].safety_critical  # a brake servo hangs on it


@pytest.mark.parametrize("fluid", ["dot5", "brake-mineral", "atf"])
def test_brakes_made_for_glycol_take_glycol(fluid):
    """FMVSS 116: DOT 3, 4 and 5.1 are glycol, DOT 5 silicone; the seals of one swell in another."""
    made = line("brake", "copper-nickel_3-16in_0.711", "double-45")
    wrong = next(
        f for f in plan(replace(made, carries=Carries(fluid=fluid))).findings if f.code == "wrong_fluid"
    )
    assert wrong.severity == "stop"
    assert "swells every seal" in wrong.message
    said = replace(made, carries=Carries(fluid=fluid, made_for=fluid))
    assert severity(said, "wrong_fluid") is None
    assert severity(replace(made, carries=Carries(fluid="dot51")), "wrong_fluid") is None


@pytest.mark.parametrize(
    ("service", "fluid", "made_for", "offered"),
    [
        ("brake", "dot5", None, True),
        ("brake", "dot5", "dot4", False),  # the cap was read: it is told, and this is another
        ("fuel-low", "water", None, False),  # no fuel system is made for water
    ],
)
def test_only_a_fluid_whose_seals_there_may_be_is_offered_as_the_right_one(service, fluid, made_for, offered):
    made = line(service, "copper-nickel_3-16in_0.711", "double-45")
    carried = Carries(fluid=fluid, **({"made_for": made_for} if made_for else {}))
    wrong = next(f for f in plan(replace(made, carries=carried)).findings if f.code == "wrong_fluid")
    assert (wrong.fix is not None) == offered


def test_a_pressure_far_under_the_usual_needs_a_word_of_why():
    made = line("brake", "copper-nickel_1-2in_0.889", "double-45")
    low = replace(made, carries=Carries(pressure="20 bar"))
    assert severity(low, "low_pressure") == "stop"
    assert (
        severity(
            replace(low, carries=Carries(pressure="20 bar", why_low="cable-over-hydraulic parking brake")),
            "low_pressure",
        )
        is None
    )
    assert severity(replace(made, carries=Carries(pressure="80 bar")), "low_pressure") is None
    gravity = replace(
        line("fuel-low", "copper-nickel_8mm_1", "double-45"), carries=Carries(pressure="0.1 bar")
    )
    assert severity(gravity, "low_pressure") == "caution"


def test_a_clamp_keeps_something_to_squeeze():
    """25.6/22.4 on 22.41 mm: closed at once."""
    hose = replace(KIT.hoses["coolant_5-8in"], id="thin", od_mm=22.41)
    kit = replace(KIT, hoses={**KIT.hoses, "thin": hose})
    end = hosed("coolant", "copper_5-8in_0.889", "bead", "thin", clamp="pinch_25.6/22.4")
    found = next(f for f in plan_line(end, kit).findings if f.code == "clamp_range")
    assert found.severity == "stop"
    assert "left to squeeze" in found.message


@pytest.mark.parametrize(("length", "word"), [("20 mm", "stop"), ("57 mm", "stop"), ("90 mm", None)])
def test_a_hose_is_longer_than_its_two_overlaps(length, word):
    """By hand: three diameters of 9.5 mm lie on each end."""
    made = hosed(
        "cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="worm_12-20", length=length
    )
    assert severity(made, "hose_short") == word


def test_what_nobody_has_said_is_asked():
    assert severity(line("unspecified", "copper-nickel_8mm_1", "double-45"), "service_unsaid") == "caution"


def test_a_flared_union_on_hydraulics_needs_a_rating():
    assert KIT.verdict("joint", "flared-union", "hydraulic").verdict == "caution"
    assert KIT.verdict("joint", "flared-union", "brake").verdict == "right"


def test_every_verdict_of_every_joint_in_the_line_is_told():
    """Whatever the matrix says against a joint reaches the plan: cautions as well as refusals."""
    tube = {True: "steel-plated_3-8in_0.711", False: "steel-plated_3-8in_0.711"}
    for service in KIT.services.values():
        if service.duty is None or service.left_to:
            continue
        for joined, joint in (
            ("clamps", "hose-and-clamps"),
            ("crimped", "crimped-hose"),
            ("reusable", "reusable-hose"),
            ("none", "push-on"),
        ):
            piece = {"joined": "clamps", "clamps_each": 0} if joined == "none" else {"joined": joined}
            made = hosed(service.id, tube[True], "bead", "cooler_3-8in", **piece)
            told = {f.code: f.severity for f in plan(made).findings if f.code.startswith("joint_")}
            verdict = KIT.verdict("joint", joint, service.id)
            expected = {"refused": {"joint_refused": "stop"}, "caution": {"joint_care": "caution"}}.get(
                verdict.verdict, {}
            )
            if verdict.unless == "two clamps" and joined == "clamps":
                expected = {}
            assert told == expected, (service.id, joint)


def test_a_starved_bearing_is_a_stop():
    """By Hagen–Poiseuille in 1.75 mm of bore at 130 °C: 15W-40 is some 7 mm²/s there, 2 bar over 4 m drive
    π·d⁴·Δp/(128·µ·L) = 0.2 L/min, under the half litre that a turbocharger wants."""
    rows = tuple(row(1000, 45, plane, radius=60) for plane in ("12:00", "3:00", "6:00"))
    end = End(fitting="banjo", nut="banjo_3-16in_M10x1")
    thin = bent(
        *rows,
        last=1000,
        service="oil-feed",
        tube="copper-nickel_1-8in_0.711",
        bender="given_any",
        end_a=end,
        end_b=end,
    )
    starved = next(f for f in plan(thin).findings if f.code == "starved")
    assert (starved.severity, starved.safety) == ("stop", True)
    wide = with_tube(thin, tube="copper-nickel_1-4in_0.889")
    assert severity(wide, "starved") is None


def test_a_bore_counts_whatever_its_length():
    """3.2 mm of hose of unknown length is the narrowest place, and the total is not known."""
    made = hosed("cooler", "steel-plated_3-8in_0.711", "bead", "brake_1-8in", joined="crimped", length="")
    made = replace(made, carries=Carries(old_bore=Length(text="8 mm")))
    planned = plan(made)
    assert planned.chosen.flowing.narrowest_mm == 3.2
    assert planned.chosen.flowing.hot is None
    assert severity(made, "choked") == "caution"
    assert severity(made, "flow_unknown") == "note"


def test_words_fit_what_they_are_said_of():
    """Petrol hose is never wetted with petrol; hoses and clamps are not thinned by a bend; diesel is not
    told of glycol."""
    warm = hosed("fuel-low", "copper-nickel_8mm_1", "bead", "fuel-low_5-16in", far=Length(text="8.6 mm"))
    told = next(f for f in plan(warm).findings if f.code == "hose_warm")
    assert "own fluid" not in told.message
    assert "never petrol" in told.message
    weak = hosed("cooler", "steel-plated_3-8in_0.711", "bead", "cooler_3-8in", clamp="worm_12-20")
    pressed = plan(replace(weak, carries=Carries(pressure="15 bar"))).findings
    clamps = next(f for f in pressed if f.code == "pressure_clamps")
    assert "wall" not in clamps.message
    diesel = line("cooler", "steel-plated_3-8in_0.711", "double-45")
    wrong = next(
        f for f in plan(replace(diesel, carries=Carries(fluid="diesel"))).findings if f.code == "wrong_fluid"
    )
    assert "lycol" not in wrong.message


@pytest.mark.parametrize(("service", "typed", "code", "word"), [
    # a hose made for 100 °C on an oil cooler that gets 130 °C: passes only because of what was typed
    ("oil-cooler", {"temperature": "60 °C"}, "low_heat", "stop"),
    ("oil-cooler", {"temperature": "106 °C"}, "low_heat", None),
    ("oil-cooler", {"temperature": "104 °C"}, "low_heat", "stop"),
    ("coolant", {"temperature": "60 °C"}, "low_heat", "caution"),
    ("oil-cooler", {"temperature": "189 °C"}, "over_heat", None),
    ("oil-cooler", {"temperature": "191 °C"}, "over_heat", "caution"),
    ("cooler", {"pressure": "17.4 bar"}, "over_pressure", None),
    ("cooler", {"pressure": "17.6 bar"}, "over_pressure", "caution"),
    ("air", {"pressure": "16 bar"}, "other_service", None),
    ("air", {"pressure": "200 bar"}, "other_service", "stop"),
    ("air-brake", {"pressure": "13.1 bar"}, "other_service", "stop"),
    ("brake", {"made_for": "petrol", "fluid": "petrol"}, "made_for", "stop"),
    ("brake", {"made_for": "petrol", "fluid": "petrol"}, "wrong_fluid", "stop"),
    ("brake", {"made_for": "dot5", "fluid": "dot5"}, "made_for", None),
])  # fmt: skip
def test_what_is_typed_far_from_the_usual_is_questioned(service, typed, code, word):
    """From both sides of each limit; a reason answers what is not refused."""
    tube, end, hose = "steel-plated_1-2in_0.889", "single-37", "hydraulic-one-wire_1-2in"
    made = hosed(service, tube, end, hose, joined="crimped", clamp=None)
    made = replace(made, carries=Carries(**typed))
    assert severity(made, code) == word
    reason = {"low_heat": "why_heat", "over_heat": "why_heat", "over_pressure": "why_high"}.get(code)
    if reason and word:
        assert (
            severity(replace(made, carries=Carries(**typed, **{reason: "read with a probe"})), code) is None
        )


def test_a_vacuum_of_five_bar_is_none():
    """What was typed is told at its field; the usual stands in, and no gas is proposed at such a pressure."""
    made = replace(line("vacuum", "steel-plated_3-8in_0.711", "bead"), carries=Carries(pressure="5 bar"))
    plan = plan_line(made, KIT)
    told = [p.message for p in plan.problems if p.path == "/carries/pressure"]
    assert len(told) == 1
    assert "no vacuum" in told[0]
    assert plan.chosen.carried.duty.working_kpa == KIT.services["vacuum"].duty.working_kpa
    fine = plan_line(replace(made, carries=Carries(pressure="0.9 bar")), KIT)
    assert not [p for p in fine.problems if p.path == "/carries/pressure"]


def test_air_is_never_proposed_above_what_the_service_is():
    """200 bar typed on workshop air: the hold test stays under the service's own limit."""
    made = replace(line("air", "copper_1-4in_0.762", "compression"), carries=Carries(pressure="200 bar"))
    duty = plan_line(made, KIT).chosen.carried.duty
    offer = proposed(made, KIT, duty, None)
    assert offer.kpa <= KIT.services["air"].duty.most_kpa


@pytest.mark.parametrize(
    "hose", ["fuel-low_8mm", "fuel-injection_8mm", "cooler_3-8in", "hydraulic-return_3-4in"]
)
def test_no_reusable_ends_on_hose_that_has_none(hose):
    """R7, R9, J1532 and suction hose: nobody makes ends to screw into them. With ends of its own, none."""
    kind = KIT.hoses[hose].hose_class
    service = {"fuel-low": "fuel-low", "fuel-injection": "fuel-injection", "cooler": "cooler"}.get(
        kind, "hydraulic-return"
    )
    made = hosed(service, "steel-plated_3-8in_0.711", "single-37", hose, joined="reusable")
    word = "stop" if KIT.services[service].safety_critical else "caution"
    assert severity(made, "hose_end_none") == word
    own = hosed("oil-feed", "steel-plated_3-8in_0.711", "single-37", "ptfe-braided_5-16in", joined="reusable")
    assert severity(own, "hose_end_none") is None


def test_shop_air_hose_is_no_air_brake_hose():
    """It looks the same and is marked for nothing; marked hose passes, crimped and with its own ends."""
    for joined in ("crimped", "reusable"):
        shop = hosed("air-brake", "copper_3-8in_0.813", "single-45", "air_3-8in", joined=joined)
        assert severity(shop, "hose_refused") == "stop"
        marked = hosed("air-brake", "copper_3-8in_0.813", "single-45", "air-brake_3-8in", joined=joined)
        assert severity(marked, "hose_refused") is None
        assert severity(marked, "hose_end_none") is None
