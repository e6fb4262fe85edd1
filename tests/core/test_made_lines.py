"""The generator of lines reaches what people make: the shares are held, and printed with -s. And what must
be true of every line is true of these: a strip-down's way back, joined lines that say whole things."""

from __future__ import annotations

from functools import cache

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.flow.circuit.flowing import flow_of_circuit
from bendrel.core.flow.circuit.joined import net_of, plan_job_line
from bendrel.core.flow.circuit.judged import judge_net
from bendrel.core.flow.circuit.vacuum import vacuum_of
from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import Line
from bendrel.core.plan.planner import plan_line
from bendrel.core.work.closing import work_of
from bendrel.exchange.documents.documents import line_from_value, line_to_value
from tests.made_lines import KINDS, made_job, made_line, share_of

KIT = load_kit()
MANY = 250
LEAST = {
    "several spans": 0.6, "six or more spans": 0.05, "two tubes": 0.25, "two materials": 0.1, "mended": 0.12,
    "let in": 0.05, "union": 0.15, "hose": 0.4, "hose with a way": 0.2, "reusable ends": 0.08,
    "component": 0.3, "inch": 0.2, "three or more bends": 0.45, "six or more bends": 0.15,
    "corner points": 0.06, "wire": 0.04, "damage": 0.2, "clips": 0.2, "opening": 0.06, "left open": 0.04,
    "held at B": 0.2, "own order": 0.06, "strip-down": 0.25, "log of joints": 0.2, "hold test": 0.1,
    "old tube": 0.2,
}  # fmt: skip


@cache
def lines() -> tuple[Line, ...]:
    return tuple(made_line(KIT, seed) for seed in range(MANY))


def test_the_generator_reaches_what_people_make() -> None:
    """Every kind that there is has its share."""
    found = share_of(KIT, lines())
    for name in KINDS:
        print(f"{name:22}{found[name] / MANY:6.1%}")
    assert set(LEAST) == set(KINDS)
    assert {name: found[name] / MANY for name in KINDS if found[name] / MANY < LEAST[name]} == {}
    assert {line.service for line in lines()} == {
        s.id for s in KIT.services.values() if s.duty and not s.left_to
    }
    assert max(len(line.spans) for line in lines()) == 8


def test_they_are_documents_and_can_be_planned() -> None:
    """Written and read back they are the same; a good part of them has a plan."""
    some = lines()[::10]
    for line in some:
        assert line_from_value(line_to_value(line)) == line
    assert sum(plan_line(line, KIT).chosen is not None for line in some) > 0.9 * len(some)


@pytest.mark.parametrize("block", range(5))
def test_their_work_opens_nothing_that_is_closed_and_ends_with_nothing_on(block: int) -> None:
    """Over every chain: a source comes back behind the last joint; every joint once a round; what is on the
    machine comes off once."""
    sources = 0
    for line in lines()[block::5]:
        joints = joints_of(line, KIT)
        work = work_of(line, KIT, joints)
        shut = {thing.id for thing in work.put_on if thing.source is not None}
        sources += len(shut)
        tight, gone = set[str](), list[str]()
        for step in work.steps:
            if step.does == "tightens" and step.round == 1:
                assert step.joint not in tight
                tight.add(step.joint)
            if shut & set(step.off):
                assert tight == {joint.id for joint in joints}, step.text
            if step.lends:
                assert "Before the joint is closed:" in step.text
            gone += step.off
        assert sorted(gone) == sorted(thing.id for thing in work.put_on)
        assert len({step.id for step in work.steps}) == len(work.steps)
    assert sources > 0


@pytest.mark.parametrize("block", range(5))
def test_joined_lines_say_whole_things(block: int) -> None:
    """What flows in flows out, and every finding of a circuit has words, a place and a source."""
    joined = said = 0
    for seed in range(block * 12, block * 12 + 12):
        job = made_job(KIT, seed)
        net = net_of([plan_job_line(name, line, KIT) for name, line in job.items()], KIT)
        groups = list(net.circuits())
        joined += sum(len(group) > 1 for group in groups)
        flows = tuple(flow_of_circuit(net, KIT, group) for group in groups)
        vacua = tuple(v for group in groups if (v := vacuum_of(net, KIT, group)) is not None)
        for finding in judge_net(net, KIT, flows, vacua):
            said += 1
            assert finding.title.strip()
            assert finding.message.strip()
            assert finding.source.text
    assert joined == 12
    assert said > 0
