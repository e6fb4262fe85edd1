"""Lines that are joined: what flows where, what is wrong, what falls back to rest."""

from __future__ import annotations

import dataclasses

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from bendrel.core.flow.circuit.flowing import flow_of_circuit
from bendrel.core.flow.circuit.joined import net_of, plan_job_line
from bendrel.core.flow.circuit.judged import judge_net
from bendrel.core.flow.circuit.vacuum import vacuum_of
from bendrel.core.flow.flow import Stretch, Way, flow_through
from bendrel.core.flow.nozzle import flow_share
from bendrel.core.flow.vacuum import held_minutes, strokes
from bendrel.core.line.document import (
    BendReadings,
    ComponentSpan,
    HoseSpan,
    JoinedTo,
    Line,
    Port,
    PortUnit,
    RigidSpan,
    TubeEnd,
)
from bendrel.core.parts.fluid import ATMOSPHERE_KPA
from bendrel.core.units.lengths import Length

HOSE = "steering-return_10mm"


def hose(span, mm):
    return HoseSpan(id=span, hose=HOSE, length=Length(text=str(mm)), clamps_each=0)


def part(span, what, **more):
    return ComponentSpan(id=span, what=what, **more)


def line(name, *spans, a=None, b=None, service="steering-return"):
    return Line(name=name, service=service, unit="mm", spans=spans, port_a=a or Port(), port_b=b or Port())


SOURCE, BACK = Port(label="pump", role="source"), Port(label="tank", role="return")


def told(kit, **lines):
    net = net_of([plan_job_line(name, one, kit) for name, one in lines.items()], kit)
    flows = tuple(flow_of_circuit(net, kit, group) for group in net.circuits())
    vacua = tuple(v for group in net.circuits() if (v := vacuum_of(net, kit, group)) is not None)
    return net, flows, vacua, judge_net(net, kit, flows, vacua)


def codes(findings):
    return [(one.code, one.line) for one in findings]


def two_branches(long):
    main = line("main", hose("h1", 500), part("t1", "tee"), hose("h2", 2000), a=SOURCE, b=BACK)
    branch = line("branch", hose("h1", long), a=Port(on=JoinedTo(line="m", span="t1")), b=BACK)
    return {"m": main, "b": branch}


def test_two_branches_share_by_their_length(kit):
    """Cold oil is laminar, where the flow goes with 1/length."""
    for long, share in ((2000, 1 / 2), (4000, 1 / 3)):
        _, (flow,), _, _ = told(kit, **two_branches(long))
        branch = next(one for one in flow.cold.branches if one.line == "b")
        assert branch.share == pytest.approx(share, rel=1e-3)
        assert sum(one.share for one in flow.cold.branches) == pytest.approx(1)


def test_a_single_line_flows_as_the_library_says(kit):
    _, (flow,), _, findings = told(kit, m=line("one", hose("h1", 3000), a=SOURCE, b=BACK))
    duty = kit.services["steering-return"].duty
    fluid, way = kit.fluids[duty.fluid], Way(stretches=(Stretch(bore_mm=10, straight_mm=3000),))
    rough = kit.limits["roughness_mm"].value
    for at in (flow.cold, flow.hot):
        drop = flow_through(fluid, at.temperature_c, at.total_lpm, way, rough).drop_kpa
        assert drop == pytest.approx(flow.available_kpa, rel=1e-4)
    assert flow.available_kpa == duty.available_kpa
    assert flow.volume_ml == pytest.approx(3.14159 / 4 * 10**2 * 3000 / 1000, rel=1e-4)
    assert not findings


def test_pressures_fall_along_every_line_and_meet_at_the_tee(kit):
    _, (flow,), _, _ = told(kit, **two_branches(3000))
    main, branch = flow.hot.lines
    assert main.elements[0].from_kpa == flow.available_kpa
    assert main.elements[0].to_kpa == pytest.approx(branch.elements[0].from_kpa)
    assert main.elements[0].to_kpa == pytest.approx(main.elements[1].from_kpa)
    assert branch.elements[0].to_kpa == pytest.approx(0, abs=1e-6 * flow.available_kpa)
    assert flow.hot.weakest.span in ("h2", "h1")


def test_what_a_new_filter_costs(kit):
    """The same circuit without it, solved for itself."""
    with_it = two_branches(2000)
    main = with_it["m"]
    spans = (main.spans[0], part("f1", "filter", loses="0.6 bar"), *main.spans[1:])
    filtered = {**with_it, "m": dataclasses.replace(main, spans=spans, joints=())}
    (_, (free,), _, _), (_, (slow,), _, findings) = told(kit, **with_it), told(kit, **filtered)
    (cost,) = slow.costs
    assert cost.share == pytest.approx(1 - slow.hot.total_lpm / free.hot.total_lpm, rel=1e-4)
    (found,) = [one for one in findings if one.code == "costs"]
    assert (found.span, f"{cost.share:.0%}" in found.title) == ("f1", True)


def test_a_branch_that_gets_too_little(kit):
    starving = two_branches(2000)
    tight = part("r1", "restrictor", bore=Length(text="0.8"))
    branch = starving["b"]
    starving["b"] = dataclasses.replace(branch, spans=(*branch.spans, tight), joints=())
    _, (flow,), _, findings = told(kit, **starving)
    least = kit.services["steering-return"].duty.least_lpm
    got = next(one for one in flow.hot.branches if one.line == "b").flow_lpm
    assert (("starved", "b") in codes(findings)) == (got < least)
    assert got < least
    assert any(one.code == "costs" and one.severity == "caution" for one in findings)


def test_a_check_valve_against_the_flow(kit):
    main = line(
        "m", hose("h1", 500), part("v1", "check valve", points="A"), hose("h2", 500), a=SOURCE, b=BACK
    )
    _, _, _, findings = told(kit, m=main)
    assert ("backwards", "m") in codes(findings)
    right = dataclasses.replace(main.spans[1], points="B")
    turned = dataclasses.replace(main, spans=(main.spans[0], right, main.spans[2]))
    assert ("backwards", "m") not in codes(told(kit, m=turned)[3])


def test_feed_and_return_swapped(kit):
    """Two lines meet end to end, and both say that they come from there."""
    first = line("first", hose("h1", 500), a=SOURCE, b=Port(label="block", role="source"))
    second = line("second", hose("h1", 500), a=Port(role="source", on=JoinedTo(line="f", branch="B")), b=BACK)
    (found,) = [one for one in told(kit, f=first, s=second)[3] if one.code == "swapped"]
    assert "both come from there" in found.message
    away = Port(label="block", role="return")
    back = dataclasses.replace(first, port_a=SOURCE, port_b=away)
    other = dataclasses.replace(
        second, port_a=Port(role="return", on=JoinedTo(line="f", branch="B")), port_b=SOURCE
    )
    (found,) = [
        one for one in told(kit, f=back, s=other)[3] if one.code == "swapped" and "meet" in one.message
    ]
    assert "both go back there" in found.message
    right = dataclasses.replace(first, port_b=Port(label="block", role="return"))
    assert not any(code == "swapped" for code, _ in codes(told(kit, f=right, s=second)[3]))


def test_a_branch_said_to_feed_flows_back(kit):
    wrong = two_branches(2000)
    branch = dataclasses.replace(wrong["b"].port_b, role="return")
    wrong["b"] = dataclasses.replace(
        wrong["b"], port_b=branch, carries=dataclasses.replace(wrong["b"].carries, flows="B to A")
    )
    assert ("swapped", "b") in codes(told(kit, **wrong)[3])


def test_an_open_branch_a_dead_one_and_no_source(kit):
    alone = line("m", hose("h1", 500), part("t1", "tee"), hose("h2", 500), a=SOURCE, b=BACK)
    assert ("open_branch", "m") in codes(told(kit, m=alone)[3])
    blind = line("blind", hose("h1", 300), a=Port(on=JoinedTo(line="m", span="t1")))
    findings = codes(told(kit, m=alone, b=blind)[3])
    assert ("dead_branch", "b") in findings
    assert ("open_branch", "m") not in findings
    no_pump = dataclasses.replace(alone, port_a=Port())
    lacking = [one for one in told(kit, m=no_pump, b=blind)[3] if one.code == "no_source"]
    assert ["source" in one.message for one in lacking] == [True]
    no_tank = dataclasses.replace(alone, port_b=Port())
    _, (flow,), _, findings = told(kit, m=no_tank, b=blind)
    assert (flow.no_source, flow.no_return, flow.hot) == (False, True, None)
    assert any("return" in one.message for one in findings if one.code == "no_source")


@pytest.mark.parametrize(
    ("tee", "said"), [("37° -6 on three sides, steel", False), ("5/16 in inverted flare", True)]
)
def test_what_stands_on_a_branch_has_its_seat(kit, tee, said):
    """Seat on seat: a 37° flare goes on a 37° cone (SAE J514), not into an inverted-flare seat (SAE J512)."""
    row = next(one for one in kit.components.values() if one.what == "tee" and one.name.startswith(tee))
    end = TubeEnd(fitting="single-37", nut="single-37_3-8in_9-16-18")
    tube = RigidSpan(
        id="s1", end_a=end, end_b=end, tube="steel-plated_3-8in_0.889", bender="lever_3-8in",
        readings=BendReadings(last=Length(text="300 mm")),
    )  # fmt: skip
    assert end.nut in kit.nuts
    main = line("main", hose("h1", 500), part("t1", "tee", row=row.id), hose("h2", 500), a=SOURCE, b=BACK)
    branch = line("branch", tube, a=Port(on=JoinedTo(line="m", span="t1")), b=BACK)
    *_, findings = told(kit, m=main, b=branch)
    assert (("branch_joint", "b") in codes(findings)) is said


def test_pressure_on_a_suction_side_and_two_fluids(kit):
    suction = line(
        "suction", hose("h1", 300), part("t1", "tee"), hose("h2", 300), service="hydraulic-suction"
    )
    press = line("press", hose("h1", 300), a=Port(on=JoinedTo(line="x", span="t1")), service="hydraulic")
    assert ("to_suction", "p") in codes(told(kit, x=suction, p=press)[3])
    brake = dataclasses.replace(press, service="brake")
    assert ("two_fluids", "p") in codes(told(kit, x=suction, p=brake)[3])


@pytest.mark.parametrize(
    ("on", "said"),
    [
        (JoinedTo(line="b", span="t1"), "joined to its own line"),
        (JoinedTo(line="gone", span="t1"), "not in this job"),
        (JoinedTo(line="m", span="h1"), "no port C"),
        (JoinedTo(line="m", span="t1", branch="D"), "no port D"),
    ],
)
def test_what_cannot_be_joined_is_one_sentence(kit, on, said):
    lines = two_branches(2000)
    lines["b"] = dataclasses.replace(lines["b"], port_a=Port(on=on))
    found = [one for one in told(kit, **lines)[3] if one.code == "not_joined"]
    assert (len(found), said in found[0].message) == (1, True)


def test_two_lines_on_one_branch(kit):
    lines = two_branches(2000)
    found = told(kit, **lines, c=lines["b"])[3]
    assert any("another line stands already" in one.message for one in found)


# vacuum


def vacuum_lines(*, source_port="A"):
    small = {"on_a": Length(text="4"), "on_b": Length(text="4")}
    pipe = HoseSpan(hose="vacuum_4mm", length=Length(text="300"), clamps_each=0)
    main = line(
        "main",
        dataclasses.replace(pipe, id="h1"),
        part("c1", "reservoir", source_port=source_port, holds="1 L", **small),
        dataclasses.replace(pipe, id="h2"),
        part("t1", "tee", **small),
        dataclasses.replace(pipe, id="h3"),
        a=Port(label="pump", role="source"),
        b=Port(label="flap", unit=PortUnit(kind="actuator", stroke="60 ml", least="30 kPa", rest="shut")),
        service="vacuum-actuator",
    )
    branch = line(
        "branch",
        dataclasses.replace(pipe, id="h1"),
        a=Port(on=JoinedTo(line="m", span="t1")),
        b=Port(label="valve", unit=PortUnit(kind="actuator", stroke="35 ml", least="25 kPa", rest="open")),
        service="vacuum-actuator",
    )
    return {"m": main, "b": branch}


def test_what_falls_back_to_rest_when_one_line_breaks(kit):
    """By hand: before the reservoir its valve keeps both; behind it the one air comes to all."""
    _, _, (vacuum,), findings = told(kit, **vacuum_lines())
    breaks = {(one.line, one.span): (set(one.falls), set(one.lives)) for one in vacuum.breaks}
    assert breaks["m", "h1"] == (set(), {"flap", "valve"})
    for place in (("m", "h2"), ("m", "h3"), ("b", "h1")):
        assert breaks[place] == ({"flap", "valve"}, set())
    assert not [one for one in findings if one.severity == "stop"]


def test_a_reservoir_the_wrong_way_round_does_nothing(kit):
    _, _, (vacuum,), findings = told(kit, **vacuum_lines(source_port="B"))
    assert [one.drawn for one in vacuum.actuators] == [False, False]
    assert ("backwards", "m") in codes(findings)


def test_an_actuator_that_nothing_draws_on(kit):
    lines = vacuum_lines()
    lines["b"] = dataclasses.replace(lines["b"], port_a=Port(label="nowhere"))
    findings = told(kit, **lines)[3]
    assert any(code in ("no_vacuum", "no_source") and name == "b" for code, name in codes(findings))


def test_strokes_by_adding_up_air():
    """A simulation in small steps of air: the chamber's air is let into the reservoir bit by bit,
    isothermal."""
    for volume, vacuum, stroke, least, dead in (
        (1000, 90, 60, 30, 0),
        (500, 60, 40, 25, 8),
        (2000, 80, 15, 50, 3),
    ):
        pressure, count = ATMOSPHERE_KPA - vacuum, 0
        while True:
            air = pressure * volume
            for _ in range(1000):  # amounts of air, in kPa·ml
                air += ATMOSPHERE_KPA * (stroke + dead) / 1000
            pressure = air / (volume + dead)
            if ATMOSPHERE_KPA - pressure < least:
                break
            count += 1
        assert strokes(volume, vacuum, stroke, least, dead) == count > 0


def test_how_long_a_reservoir_holds_against_an_integrated_hole():
    """Isentropic flow through a hole into the reservoir, integrated by scipy."""

    def into(share: float) -> float:
        ratio = min(1.0, max(share, (2 / 2.4) ** 3.5))
        return (ratio ** (2 / 1.4) - ratio ** (2.4 / 1.4)) ** 0.5

    for vacuum, least, leak in ((90, 60, 2.0), (80, 20, 2.0), (60, 10, 2.0), (40, 10, 1.0), (90, 5, 1.0)):
        scale = leak / 60 / into(0.0)

        def there(_, p, least=least):
            return ATMOSPHERE_KPA - p[0] - least

        there.terminal = True
        done = solve_ivp(
            lambda _, p, scale=scale: [scale * into(p[0] / ATMOSPHERE_KPA)], (0, 1e5),
            [ATMOSPHERE_KPA - vacuum], events=there, rtol=1e-8, atol=1e-8,
        )  # fmt: skip
        assert held_minutes(vacuum, least, leak) * 60 == pytest.approx(done.t[-1], rel=1e-3)
    assert held_minutes(80, 20, 2.0) == pytest.approx(30.9, abs=0.1)
    assert held_minutes(60, 10, 2.0) == pytest.approx(27.9, abs=0.1)
    assert held_minutes(20, 30, 1) == 0
    assert held_minutes(80, 20, 0) == held_minutes(80, 0, 1) == float("inf")


def test_air_through_a_hole_as_the_tables_of_gas_flow_have_it():
    """Isentropic flow, κ 1.4: at nine tenths of the pressure before the hole 0.617 of the choked flow."""
    assert flow_share(np.array([0.0, 0.528, 0.9, 1.0])) == pytest.approx([1, 1, 0.617, 0], abs=1e-3)


def test_what_a_sound_circuit_may_lose_is_one_figure(kit):
    """The hold test of a vacuum passes what the circuit's sums allow for, to a per cent."""
    most = kit.limits["vacuum_leak_kpa_min"].value
    for service in ("vacuum", "vacuum-actuator"):
        offer = kit.proving.by_service[service].hold
        assert offer.kpa * (1 - offer.share) / offer.minutes == pytest.approx(most, rel=0.01)
