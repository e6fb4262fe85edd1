"""What was shut, pulled or taken off for the work comes back when no joint is open any more.

Source: the trade's own order of work. The list of sources is written down here once more, by hand, from what
each service is fed by, not from the program's own data.
"""

from __future__ import annotations

from dataclasses import replace
from itertools import product
from random import Random

import pytest

from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import Line
from bendrel.core.line.proving import Counted, JointEvent, JointWork, Proving
from bendrel.core.line.removal import Removal
from bendrel.core.parts.proving import Closes
from bendrel.core.work.closing import work_of
from bendrel.core.work.standing import standing_of
from tests.core.test_closing import CHAINS, KIT, TUBE, line, tube

SOURCES = {
    "fuel-low": {"fuel-valve": "valve"},
    "fuel-injection": {"efi-pump": "fuse", "efi-battery": "battery"},
    "oil-feed": {"feed-battery": "battery"},
    "tank-vent": {"vent-cap": "cap"},
    "hydraulic-suction": {"suck-tank": "valve"},
    "air": {"air-drain": "cock"},
    "air-brake": {"airbrake-drain": "cocks"},
}
"""What holds fuel, current, oil or air back, by service: the id of its step, and its word."""

GROUPS = ("ready", "loose", "hand", "tight", "open", "fill", "hold", "look", "works", "again", "after")
PRESSED_OR_HOT = sorted(set(KIT.services) - {"vent"})


def stripped(seed: int, service: str) -> Line:
    """A line of any chain after a strip-down of any part of its steps, in any order."""
    rng = Random(seed)
    spans, union = CHAINS[rng.choice(sorted(CHAINS))]
    ids = [step.id for step in KIT.removal[service].steps] if service in KIT.removal else []
    ids += ["plug-A", "plug-B"]
    done = rng.sample(ids, rng.randint(0, len(ids)))
    counted = tuple(Counted(what="padded clamp") for _ in range(rng.randint(0, 2)))
    return line(service, spans, union, removal=Removal(done=tuple(done)), proving=Proving(counted=counted))


@pytest.mark.parametrize("service", sorted(KIT.services))
def test_no_source_comes_back_with_a_joint_open(service: str) -> None:
    """Over 30 strip-downs of every service (750 and more in all), walked step by step: a source comes back
    when every joint is tight and was looked at since; lent for one step, it is shut within it."""
    lent_ever = back_ever = 0
    for seed in range(30):
        made = stripped(seed, service)
        joints = joints_of(made, KIT)
        work = work_of(made, KIT, joints)
        # the screen and the bench show them group by group: in the same order
        shown = [GROUPS.index(step.kind) for step in work.steps]
        assert shown == sorted(shown), f"{seed}: {[step.id for step in work.steps]}"
        sources = {name for name in SOURCES.get(service, {}) if name in made.removal.done}
        shut, tight, looked = set(sources), set[str](), False
        for step in work.steps:
            if step.does == "tightens" and step.round == 1:
                tight.add(step.joint)
                looked = False
            if step.id == "closed":
                looked = True
            for name in step.lends:
                assert name in shut
                word = SOURCES[service][name]
                lets, stops = step.text.split("Before the joint is closed:")
                assert word in lets, step.text
                assert word in stops, step.text
                lent_ever += 1
            for name in set(step.off) & sources:
                assert tight == {joint.id for joint in joints}, f"{seed}: {step.text}"
                assert looked, f"{seed}: {step.text}"
                shut.discard(name)
                back_ever += 1
            if step.kind in ("fill", "hold", "look", "works"):
                assert not shut, f"{seed}: {step.id} with {shut} still shut"
        assert not shut
    assert bool(back_ever) == (service in SOURCES)
    assert bool(lent_ever) == (service in ("fuel-low", "fuel-injection", "oil-feed"))


@pytest.mark.parametrize("service", ["fuel-low", "fuel-injection", "oil-feed"])
def test_what_comes_with_a_joint_open_is_stopped_in_the_same_step(service: str) -> None:
    """Also where nothing was noted as shut: the step says how it is let come and how it is stopped."""
    made = line(service, (tube("s1"),))
    opened = [
        step for step in work_of(made, KIT, joints_of(made, KIT)).steps if step.kind == "open" and step.run
    ]
    assert opened
    for step in opened:
        assert "Before the joint is closed:" in step.text
        assert step.must


def nothing_stands(text: str) -> bool:
    """Engine off or its like, and pressure or vacuum let off, said before anything is touched."""
    said = text.lower()
    off = ("engine off", "source shut", "left to licensed practice", "loads down")
    gone = (
        "nothing press", "at nothing", "reads nothing", "without a hiss", "vacuum let in", "cap opened",
        "nothing helps", "below the joint", "nothing standing", "nothing is tightened", "nothing moves",
    )  # fmt: skip
    return any(word in said for word in off) and any(word in said for word in gone)


@pytest.mark.parametrize(("service", "closes"), list(product(PRESSED_OR_HOT, KIT.proving.ladders)))
def test_pressure_is_off_before_a_weeping_joint_is_touched(service: str, closes: Closes) -> None:
    """Every rung of every ladder, by the service's own way; and never behind a rag."""
    ladder = KIT.proving.ladders[closes]
    made = line(service, (tube("s1"),))
    joint = next(iter(joints_of(made, KIT)))
    for tried in range(len(ladder.rungs)):
        # wet as often as rungs were tried: the next one is told
        events = [JointEvent(what="wet")]
        for rung in ladder.rungs[:tried]:
            events += [JointEvent(what=rung), JointEvent(what="wet")]
        work = JointWork(span="s1", end="A", events=tuple(events))
        at = line(service, (tube("s1"),), proving=Proving(joints=(work,)))
        told = standing_of(at, KIT, joint).rung_text
        assert nothing_stands(told), told
        assert "rag" not in told.lower().split()


@pytest.mark.parametrize("service", PRESSED_OR_HOT)
def test_pressure_is_off_before_the_second_tightening(service: str) -> None:
    """It is a step of its own, before the first joint is touched again and after the line was at work."""
    nut = KIT.nuts_for("compression", KIT.tubes[TUBE.tube].size)[0]
    sleeve = replace(TUBE.end_a, fitting="compression", nut=nut.id)
    made = line(service, (replace(TUBE, id="s1", end_a=sleeve),))
    steps = work_of(made, KIT, joints_of(made, KIT)).steps
    again = [k for k, step in enumerate(steps) if step.does == "tightens" and step.round == 2]
    assert again
    off = [k for k, step in enumerate(steps) if step.id == "relieve"]
    assert off
    assert off[0] < again[0]
    assert nothing_stands(steps[off[0]].text), steps[off[0]].text
    assert steps[off[0]].must
    for k in again:
        assert steps[k].text.startswith("With nothing standing behind it")


def test_no_joint_is_cracked_under_a_rag() -> None:
    """A rag is no shield against a jet."""
    for rule in KIT.removal.values():
        for step in rule.steps:
            words = step.text.lower().replace(",", " ").replace(".", " ").split()
            assert "rag" not in words, step.text


def test_under_pressure_a_line_comes_apart_behind_a_shield() -> None:
    """Hydraulics and injection fuel: a gauge at nothing, something between, hand away."""
    for service in ("hydraulic", "fuel-injection"):
        told = " ".join(step.text for step in KIT.removal[service].steps).lower()
        assert "nothing" in told
        assert "gauge" in told
        assert "hand" in told
        assert "shield" in told or "sheet" in told
