"""Closing and proving a line: the order of the steps, what is counted out, how a joint stands, sign-off.

Source of the order: the trade's own rules. What must happen with a joint open stands before its closing;
every joint is tightened and looked at once a round; what was put on is taken off again.
"""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from itertools import product

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import (
    Carries,
    ComponentSpan,
    CornerReadings,
    CornerRow,
    HoseSpan,
    Joint,
    Line,
    Port,
    RigidSpan,
    Span,
)
from bendrel.core.line.proving import (
    Counted,
    Done,
    FillRow,
    FunctionCheck,
    Hold,
    JointEvent,
    JointWork,
    Proving,
    Seen,
    SignOff,
)
from bendrel.core.line.removal import OpenItem, Removal
from bendrel.core.line.signed import signed_stands, stamp_of
from bendrel.core.parts.torque import set_torque
from bendrel.core.units.lengths import Length
from bendrel.core.work.asked import HoldProof
from bendrel.core.work.closing import Work, work_of
from bendrel.core.work.proof.balance import balance
from bendrel.core.work.sign_off import in_the_way, places_of, step_done
from bendrel.core.work.standing import rounds_dry, standing_of
from bendrel.core.work.words import step_words
from bendrel.services.hose.hose_ways import study_hose
from tests.lines import bent

KIT = load_kit()
TUBE = bent().spans[0]
assert isinstance(TUBE, RigidSpan)
HOSE = HoseSpan(id="h1", hose="cooler_3-8in", length=Length(text="300 mm"), clamp=None)
FILTER = ComponentSpan(id="k1", what="filter", points="B")


def tube(name: str, state: str = "to make") -> RigidSpan:
    return replace(TUBE, id=name, state=state)  # type: ignore[arg-type]


def line(service: str, spans: tuple[Span, ...], union: str = "", **more: object) -> Line:
    joints = tuple(Joint(kind=union) for _ in spans[1:]) if union else ()
    return replace(bent(), service=service, spans=spans, joints=joints, **more)  # type: ignore[arg-type]


CHAINS: dict[str, tuple[tuple[Span, ...], str]] = {
    "one tube": ((tube("s1"),), ""),
    "two tubes and a union": ((tube("s1"), tube("s2")), "flared-union"),
    "old tube mended": ((tube("s1", "stays"), tube("s2"), tube("s3", "stays")), "compression-union"),
    "tube, hose, filter, hose, tube": (
        (tube("s1"), HOSE, FILTER, replace(HOSE, id="h2"), tube("s2")),
        "",
    ),
    "hose alone": ((HOSE,), ""),
    "tube into a filter at the port": ((tube("s1"), FILTER), ""),
}
EVERY = list(product(sorted(KIT.services), CHAINS))


def whole(service: str, chain: str, *, stripped: bool = True) -> tuple[Line, Work]:
    spans, union = CHAINS[chain]
    rule = KIT.removal.get(service)
    ticked = tuple(step.id for step in rule.steps) if rule and stripped else ()
    plugs = ("plug-A", "plug-B") if stripped else ()
    made = line(
        service, spans, union,
        removal=Removal(done=(*ticked, *plugs)), proving=Proving(counted=(Counted(what="padded clamp"),)),
    )  # fmt: skip
    return made, work_of(made, KIT, joints_of(made, KIT))


HELD = {"vacuum", "vacuum-actuator"}
"""Where air leaks in: common practice pulls down, shuts the source off and watches the gauge."""
FLOW_FIRST = {"fuel-injection", "fuel-low", "oil-feed"}
"""Where what arrives is seen at the open end before it is closed: common practice."""


@pytest.mark.parametrize(("service", "chain"), EVERY)
def test_nothing_that_needs_a_joint_open_comes_after_its_closing(service: str, chain: str) -> None:
    """A joint is open until it is started, and started before it is tightened."""
    _, work = whole(service, chain)
    started: set[str] = set()
    tight: set[str] = set()
    for step in work.steps:
        assert not started & set(step.opens), step.id
        if step.does == "starts":
            started.add(step.joint)
        if step.does == "tightens":
            assert step.joint in started
            tight.add(step.joint)
        if step.does == "looks":
            assert step.joint in tight
        if step.kind in ("fill", "hold"):
            assert tight >= {joint.id for joint in joints_of(whole(service, chain)[0], KIT)}
    assert bool(work.last_open) == (service in FLOW_FIRST and bool(started))


@pytest.mark.parametrize(("service", "chain"), EVERY)
def test_every_joint_once_a_round_and_everything_counted_out(service: str, chain: str) -> None:
    """Tightened and looked at exactly once in every round; what is on comes off once, after it was on."""
    made, work = whole(service, chain)
    names = {joint.id for joint in joints_of(made, KIT)}
    each = KIT.proving.watch(service).each
    assert each == (service not in HELD), "air that leaks in shows at no joint, the gauge alone tells"
    for does in ("tightens", "looks") if each else ("tightens",):
        rounds = Counter((step.round, step.joint) for step in work.steps if step.does == does)
        per_round = {n: {joint for r, joint in rounds if r == n} for n in {r for r, _ in rounds}}
        assert set(rounds.values()) <= {1}
        assert per_round
        assert all(found == names for found in per_round.values())
        assert not names or 1 in per_round
    on = {thing.id for thing in work.put_on}
    off = [name for step in work.steps for name in step.off]
    assert Counter(off) == Counter(on)
    put = {name: k for k, step in enumerate(work.steps) for name in step.on}
    gone = {name: k for k, step in enumerate(work.steps) for name in step.off}
    assert put
    assert all(gone[name] > k for name, k in put.items())
    assert len({step.id for step in work.steps}) == len(work.steps)


def test_a_prop_is_off_before_the_pedal_is_pumped() -> None:
    """The pedal prop and the fuse come off before anything is filled or run, chocks only at the end."""
    _, work = whole("brake", "one tube")
    order = [step.id for step in work.steps]
    assert order.index("off-brake-pedal") < order.index("run-wheel")
    assert order.index("look-s1-A-1") < order.index("covers") < order.index("off-own-c1")


def test_every_joint_kind_has_a_torque_or_says_that_none_is_published() -> None:
    """And no torque from memory without that word."""
    for fitting in KIT.fittings.values():
        for nut in [n for n in KIT.nuts.values() if n.fitting == fitting.id]:
            end = replace(TUBE.end_a, fitting=fitting.id, nut=nut.id)
            joint = joints_of(line("unspecified", (replace(TUBE, end_a=end),)), KIT)[0]
            published = KIT.torque_for(fitting.id, nut.thread, KIT.tubes[TUBE.tube].material)
            assert (joint.torque is None) == (published is None)
            if joint.torque is not None and published is not None:
                told = (joint.torque.least_nm, joint.torque.most_nm, joint.torque.source)
                assert told == (published.least_nm, published.most_nm, published.source)
            assert published is not None or "None published" in joint.tight
    for row in KIT.torques.values():
        assert row.source.kind in ("standard", "from memory", "common practice")


def test_how_high_a_joint_stands_where_it_was_measured() -> None:
    """By corner points from a datum; of a tube read bend by bend nobody knows it."""
    rows = tuple(
        CornerRow(x=Length(text=x), y=Length(text="0"), z=Length(text=z))
        for x, z in (("0", "40"), ("900", "310"))
    )
    made = line("brake", (replace(TUBE, id="s1", readings=CornerReadings(rows=rows)),))
    assert [joint.height_mm for joint in joints_of(made, KIT)] == [40.0, 310.0]
    assert [joint.height_mm for joint in joints_of(line("brake", (tube("s1"),)), KIT)] == [None, None]


def test_crowfoot() -> None:
    """16 N·m with 300 mm and 30 mm: 14.5 in line, 16.0 at a right angle (worked by hand)."""
    assert set_torque(16, 300, 30) == pytest.approx(16 * 300 / 330)
    assert set_torque(16, 300, 30, 90) == pytest.approx(16)
    with pytest.raises(ValueError, match="wrench"):
        set_torque(16, 20, 30, 180)


def at(*events: str, turns: str = "") -> JointWork:
    """What was noted at end A of the tube."""
    return JointWork(
        span="s1", end="A", turns=turns,
        events=tuple(
            JointEvent(what=what, at=f"2026-11-20T{10 + k // 4}:{11 * (k % 4):02d}")  # type: ignore[arg-type]
            for k, what in enumerate(events)
        ),
    )  # fmt: skip


@pytest.mark.parametrize(("events", "state", "rung"), [
    ((), "open", None),
    (("dried",), "drying", None),
    (("dried", "dry"), "dry", None),
    (("dried", "next door"), "dry", None),
    (("dried", "wet"), "wet", "nip"),
    (("dried", "wet", "nip"), "mended", None),
    (("dried", "wet", "nip", "dried", "wet"), "wet", "re-seat"),
    (("wet", "nip", "wet", "re-seat", "wet", "re-make", "wet"), "wet", "re-make"),
])  # fmt: skip
def test_the_ladder_of_a_weep(events: tuple[str, ...], state: str, rung: str | None) -> None:
    """Nip, re-seat, re-make; a drip from next door is not chased in the joint."""
    made = replace(line("brake", (tube("s1"),)), proving=Proving(joints=(at(*events),)))
    found = standing_of(made, KIT, joints_of(made, KIT)[0])
    assert (found.state, found.rung) == (state, rung)
    if state == "drying":
        assert found.until == "2026-11-20T10:10:00"


@pytest.mark.parametrize(("service", "times", "first_look", "rounds"), [
    ("brake", (("dried", "10:00"), ("dry", "10:09")), True, 0),
    ("brake", (("dried", "10:00"), ("dry", "10:10")), False, 1),
    ("brake", (("dried", "10:00"), ("dry", "10:00"), ("dry", "10:12")), False, 1),
    # the second round has a wait of its own
    ("brake", (("dried", "10:00"), ("dry", "10:12"), ("dry", "10:30")), False, 1),
    ("brake", (("dried", "10:00"), ("dry", "10:12"), ("dried", "10:30"), ("dry", "10:41")), False, 2),
    # without a time nobody knows whether it waited
    ("brake", (("dried", ""), ("dry", "")), True, 0),
    # soap water shows at once
    ("air", (("dry", "10:00"),), False, 1),
])  # fmt: skip
def test_dry_counts_after_the_wait_alone(
    service: str, times: tuple[tuple[Seen, str], ...], first_look: bool, rounds: int
) -> None:
    """Dry it, leave it ten minutes under pressure, look: a look before is a first look. Common practice."""
    events = tuple(JointEvent(what=what, at=f"2026-11-20T{at}" if at else "") for what, at in times)
    made = replace(
        line(service, (tube("s1"),)),
        proving=Proving(joints=(JointWork(span="s1", end="A", events=events),)),
    )
    joint = joints_of(made, KIT)[0]
    assert standing_of(made, KIT, joint).first_look is first_look
    assert rounds_dry(made, KIT, joint) == rounds


def test_a_vacuum_joint_that_leaks_is_in_the_way_until_it_holds_again() -> None:
    """Nothing is wiped there: it is marked as the one that leaks, mended, pulled down again."""

    def told(*events: str, held: tuple[str, ...] = ()) -> list[str]:
        holds = tuple(Hold(kind="vacuum", at=f"2026-11-20T{time}") for time in held)
        made = replace(line("vacuum", (tube("s1"),)), proving=Proving(joints=(at(*events),), holds=holds))
        return [
            text for text in ways(made) if (text.startswith("port A") and "leak" in text) or "mended" in text
        ]

    assert told("wet") == ["port A: leaks"]
    assert told("wet", "re-seat") == ["port A: mended, to be pulled down again"]
    # at 10:00 it leaked, at 10:11 it was seated anew, at 10:22 somebody says that it holds
    mended = ["port A: mended, to be pulled down again"]
    assert told("wet", "re-seat", "dry") == mended
    assert told("wet", "re-seat", "dry", held=("10:05", "")) == mended
    assert told("wet", "re-seat", "dry", held=("10:05", "10:20")) == []


def test_a_nut_that_binds_is_told_with_its_cause() -> None:
    """M10x1 in a 3/8-24 port starts and binds: the thread tables know after how many turns."""
    end = replace(TUBE.end_a, fitting="bubble", nut="bubble_3-16in_M10x1")
    made = line("brake", (replace(TUBE, id="s1", end_a=end),), port_a=Port(thread="3/8-24"))
    made = replace(made, proving=Proving(joints=(at(turns="4"),)))
    found = standing_of(made, KIT, joints_of(made, KIT)[0])
    assert "4 turns" in found.binds
    assert any("cross-threaded" in cause for cause in found.causes)
    enough = replace(made, proving=Proving(joints=(at(turns="7"),)))
    assert standing_of(enough, KIT, joints_of(enough, KIT)[0]).binds == ""


def test_work_at_a_joint_that_is_another_one_now_does_not_count() -> None:
    """The tube's end B was at the port; now a hose is there."""
    made = line("cooler", (tube("s1"),))
    done = replace(
        made, proving=Proving(joints=(JointWork(span="s1", end="B", events=at("dried", "dry").events),))
    )
    assert standing_of(done, KIT, joints_of(done, KIT)[1]).state == "dry"
    longer = replace(done, spans=(tube("s1"), tube("s2")), joints=(Joint(kind="flared-union"),))
    states = {one.id: standing_of(longer, KIT, one).state for one in joints_of(longer, KIT)}
    assert states["s1-B"] == "open"


def test_bleed_balance() -> None:
    """In − out − level = what it holds; beyond 5 % or 30 ml it is told, with likely reasons."""
    rows = (FillRow(step="wheel", into="400 ml", out="330 ml"), FillRow(step="level", level="+20 ml"))
    rule = KIT.proving.balance
    fits = balance(rows, 40.0, rule)
    assert (fits.unexplained_ml, fits.off) == (pytest.approx(10.0), False)
    lost = balance(rows, 5.0, rule)
    assert (lost.unexplained_ml, lost.off) == (pytest.approx(45.0), True)
    assert "leaks" in lost.reasons[0]
    air = balance(rows, 120.0, rule)
    assert (air.unexplained_ml, air.off) == (pytest.approx(-70.0), True)
    assert "air" in air.reasons[0]
    assert balance(rows, None, rule).unexplained_ml is None
    assert balance((FillRow(step="wheel", into="some"),), 40.0, rule).problems


def test_steering_that_has_stopped_taking_fluid() -> None:
    """Again until the level stays and no bubbles are seen."""
    rule = KIT.proving.balance
    turns = [FillRow(step="settle", into=ml, air="none") for ml in ("200", "60", "0")]
    assert balance(turns[:2], None, rule).taking is True
    assert balance(turns, None, rule).taking is False
    # it is the last turn that counts: air that was seen before it is gone, air that comes is not
    gone = [FillRow(step="settle", air="much"), FillRow(step="settle", air="none")]
    assert balance(gone, None, rule).taking is False
    assert balance(gone[::-1], None, rule).taking is True
    assert balance(gone[:1], None, rule).taking is None


def signed_line() -> Line:
    """A brake line with everything done."""
    made = line("brake", (tube("s1"),), proving=Proving())
    joints = joints_of(made, KIT)
    work = work_of(made, KIT, joints)
    events = at("dried", "dry", "dried", "dry").events

    return replace(
        made,
        proving=Proving(
            done=tuple(Done(step=step.id) for step in work.steps),
            joints=tuple(JointWork(span=j.span, end=j.end, meets=j.meets, events=events) for j in joints),
            checks=tuple(FunctionCheck(step=s.run, works="yes") for s in work.steps if s.kind == "works"),
        ),
    )


def ways(made: Line, **holds: HoldProof) -> list[str]:
    joints = joints_of(made, KIT)
    standing = tuple(standing_of(made, KIT, joint) for joint in joints)
    return [
        one.text for one in in_the_way(made, KIT, joints, standing, work_of(made, KIT, joints), (), holds)
    ]


def test_nothing_is_in_the_way_of_a_proved_line() -> None:
    """And every single thing that is taken away again is named."""
    made = signed_line()
    assert ways(made) == []
    for step in work_of(made, KIT, joints_of(made, KIT)).steps:
        if step.must and step.does == "tightens":
            undone = replace(made.proving, done=tuple(d for d in made.proving.done if d.step != step.id))
            assert len(ways(replace(made, proving=undone))) == 1
    # wet in both rounds, told once
    wet = replace(made.proving.joints[0], events=(*made.proving.joints[0].events, JointEvent(what="wet")))
    told = ways(replace(made, proving=replace(made.proving, joints=(wet, *made.proving.joints[1:]))))
    assert len(told) == 1
    assert "wet" in told[0]
    unlooked = replace(made, proving=replace(made.proving, joints=made.proving.joints[1:]))
    assert any("look" in text for text in ways(unlooked))


def test_a_torque_is_told_where_a_joint_is_tightened_for_the_first_time() -> None:
    made, work = whole("brake", "one tube")
    joints = {joint.id: joint for joint in joints_of(made, KIT) if joint.torque is not None}
    assert joints
    told = {
        (step.does, step.round): "N·m" in step_words(step, joints[step.joint], "mm")
        for step in work.steps
        if step.joint in joints
    }
    assert {what for what, said in told.items() if said} == {("tightens", 1)}
    assert len(told) > 2


def test_what_was_left_for_later_is_in_the_way_until_it_is_closed() -> None:
    made = signed_line()
    later = OpenItem(kind="missing hold-down", what="second clip at the frame")
    assert ways(replace(made, open_items=(later,))) == ["Left for later: second clip at the frame"]
    assert ways(replace(made, open_items=(replace(later, closed=True),))) == []


def test_a_cap_that_was_put_on_must_come_off() -> None:
    """Ticked on, and its joint never started: it is still in there."""
    made = signed_line()
    on = tuple(one for one in made.proving.done if not one.step.startswith("hand-"))
    told = ways(replace(made, proving=replace(made.proving, done=on)))
    assert len(told) == 2
    assert told
    assert all(text.startswith("Still on: the cap or wrap") for text in told)
    never = tuple(one for one in on if one.step != "cap")
    assert ways(replace(made, proving=replace(made.proving, done=never))) == []


def test_a_joint_that_is_only_noted_is_not_looked_at() -> None:
    """Turns and a name say nothing of dry."""
    made = replace(line("brake", (tube("s1"),)), proving=Proving(joints=(at(turns="7"),)))
    assert any("Dry it" in text for text in ways(made))


def test_a_sign_off_is_of_what_was_signed() -> None:
    """Notes and follow-ups may change after it; what was made may not."""
    made = signed_line()
    signed = replace(
        made, proving=replace(made.proving, signed=SignOff(by="Ada", at="2026-11-20", stamp=stamp_of(made)))
    )
    assert signed_stands(made) is None
    assert signed_stands(signed) is True
    assert signed_stands(replace(signed, notes="second look in May")) is True
    assert signed_stands(replace(signed, spans=(tube("s1"), tube("s2")))) is False


def test_a_step_of_the_guided_run_is_done_at_every_place() -> None:
    """Three wheels of four are not the brake bled."""
    made = line("brake", (tube("s1"),))
    work = work_of(made, KIT, joints_of(made, KIT))
    wheel = next(step for step in work.steps if step.run == "wheel")
    places = places_of(made, KIT)
    rows = tuple(FillRow(step="wheel", place=place, into="100 ml") for place in places)
    three = replace(made, proving=Proving(fills=rows[:3]))
    assert step_done(three, KIT, wheel, None, False) is False
    assert step_done(replace(made, proving=Proving(fills=rows)), KIT, wheel, None, False) is True


ON_ALUMINIUM = {"9/16-18": (75, 125), "7/16-20": (40, 65), "3/4-16": (150, 250)}
"""In·lb on flared aluminium tube, typed from the standard practice of aircraft repair (AC 43.13-1B 9-2)."""


@pytest.mark.parametrize(("thread", "in_lb"), ON_ALUMINIUM.items())
def test_a_flare_in_soft_tube_is_not_tightened_like_one_in_steel(thread: str, in_lb: tuple[int, int]) -> None:
    """About half of the steel figure; copper and copper-nickel on 37° have none published."""
    soft = KIT.torque_for("single-37", thread, "aluminium-5052")
    hard = KIT.torque_for("single-37", thread, "steel-seamless")
    assert soft is not None
    assert hard is not None
    assert soft.least_nm == pytest.approx(in_lb[0] * 0.11298, abs=0.06)
    assert soft.most_nm == pytest.approx(in_lb[1] * 0.11298, abs=0.06)
    assert soft.most_nm < 0.65 * hard.most_nm
    for material in ("copper", "copper-nickel", "aluminium-6061", "nylon"):
        assert KIT.torque_for("single-37", thread, material) is None
    for material in ("copper", "aluminium-3003"):
        assert KIT.torque_for("double-45", "3/8-24", material) is None
    assert KIT.torque_for("double-45", "3/8-24", "copper-nickel") is not None
    assert KIT.torque_for("banjo", "M10x1", "copper") is not None  # the eye is squeezed, not the tube


def test_a_soft_tube_says_its_own_torque_at_the_joint() -> None:
    """The same nut on two tubes: the line's joint says another figure, or none."""
    said = {}
    for tube_id in ("aluminium-5052_3-8in_0.889", "steel-seamless_3-8in_1.245", "copper-nickel_3-8in_0.889"):
        nut = KIT.nuts_for("single-37", "3/8 in")[0]
        end = replace(TUBE.end_a, fitting="single-37", nut=nut.id)
        joint = joints_of(line("fuel-low", (replace(TUBE, id="s1", tube=tube_id, end_a=end),)), KIT)[0]
        said[tube_id.split("_")[0]] = joint
    assert said["aluminium-5052"].torque.most_nm == pytest.approx(14.1, abs=0.1)
    assert said["steel-seamless"].torque.most_nm == 28
    assert said["copper-nickel"].torque is None
    assert "None published" in said["copper-nickel"].tight


@pytest.mark.parametrize(("service", "fluid", "smear"), [
    ("fuel-low", "petrol", "engine oil, never petrol"), ("fuel-injection", "", "engine oil, never petrol"),
    ("fuel-low", "diesel", "system's own fluid"), ("coolant", "", "system's own fluid"),
    ("cooler", "", "system's own fluid"), ("vacuum", "", "pushed on dry"), ("air", "", "pushed on dry"),
    ("tank-vent", "", "pushed on dry"), ("unspecified", "", "until it is said"),
])  # fmt: skip
def test_what_wets_a_hose_is_one_answer(service: str, fluid: str, smear: str) -> None:
    """At the joint, on the hose's sheet, and where a stiff hose is told of: never petrol, none in air."""
    hose = replace(HOSE, clamp="worm_12-20")
    made = line(service, (tube("s1"), hose), carries=Carries(fluid=fluid))
    joint = next(one for one in joints_of(made, KIT) if one.closes in ("clamp", "push") and one.span == "h1")
    assert smear in joint.applied
    sheet = study_hose(made, KIT, "h1").assembly
    wet = [step.text for step in sheet.steps if step.id == "wet"]
    assert len(wet) == 1
    assert smear in wet[0]
