"""Every record of an answer holds what its own types say: nothing is missing where a type promises it."""

from __future__ import annotations

from typing import get_type_hints

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.flow.circuit.flowing import flow_of_circuit
from bendrel.core.flow.circuit.joined import Net, net_of, plan_job_line
from bendrel.core.flow.circuit.vacuum import vacuum_of
from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import Line
from bendrel.core.line.edits.twin import copied_in, twin_of
from bendrel.core.plan.model import Plan
from bendrel.core.plan.planner import plan_line
from bendrel.core.work.closing import work_of
from tests.made_lines import made_job, made_line
from tests.typed import wrong_in

KIT = load_kit()


def test_what_is_not_as_its_type_says_is_found():
    hints = get_type_hints(Line)
    assert list(wrong_in(None, hints["name"])) == ["it: NoneType for str"]
    assert not list(wrong_in((), hints["spans"]))


@pytest.mark.parametrize("block", range(5))
def test_plans_and_work(block):
    for seed in range(block, 60, 5):
        line = made_line(KIT, seed)
        assert not list(wrong_in(line, Line)), seed
        plan = plan_line(line, KIT)
        assert not list(wrong_in(plan, Plan)), seed
        work = work_of(line, KIT, joints_of(line, KIT))
        assert not list(wrong_in(work, type(work))), seed


@pytest.mark.parametrize("block", range(4))
def test_circuits(block):
    for seed in range(block, 32, 4):
        net = net_of([plan_job_line(name, line, KIT) for name, line in made_job(KIT, seed).items()], KIT)
        assert not list(wrong_in(net, Net)), seed
        for group in net.circuits():
            flow = flow_of_circuit(net, KIT, group)
            assert not list(wrong_in(flow, type(flow))), seed
            held = vacuum_of(net, KIT, group)
            assert held is None or not list(wrong_in(held, type(held))), seed


def test_lines_that_were_changed():
    """A twin of each, mirrored and its pieces copied in beside the last one."""
    for seed in range(40):
        line = made_line(KIT, seed)
        last = line.spans[-1].id
        changed = [
            twin_of(line, "the other side", mirror=True),
            copied_in(line, last, "B", line.spans, line.joints),
        ]
        for one in changed:
            assert not list(wrong_in(one, Line)), seed
