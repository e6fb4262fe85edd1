"""Speed, for `make bench` only: medians, and ratios against a reference doing the same work."""

import io
from contextlib import redirect_stderr
from statistics import median
from time import perf_counter

import numpy as np
import pytest
from starlette.testclient import TestClient

from bendrel.api.app import create_app
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.line.checks import Checks
from bendrel.core.line.document import Carries
from bendrel.core.plan.assemble import plan_whole
from bendrel.core.units.lengths import Length
from bendrel.services.job.jobs import JobDraft
from bendrel.services.line.measuring import look_at_checks
from bendrel.services.startup import open_shop
from tests.lines import Component, End, Hose, bent, replace, row
from tests.parts import random_part
from tests.reference.test_shape_occ import occ_wire


def thirty_bends():
    return bent(*(row(60 + k, 30 + k, "3:00" if k % 2 else "12:00") for k in range(30)))


def test_core_plan_of_30_bends(benchmark, kit):
    line = thirty_bends()
    plan = benchmark(plan_whole, line, kit).plan
    assert len(plan.part.bends) == 30


def test_verdict_of_a_line_with_everything_on_it(benchmark, kit):
    """Six bends, hose, clamps, parts, typed duty: the whole judgement of one line, to stay under 20 ms."""
    hose = Hose(hose="cooler_3-8in", length=Length(text="200 mm"), clamp="worm_12-20")
    restrictor = Component(what="restrictor", bore=Length(text="2 mm"), land=Length(text="5 mm"))
    parts = (hose, Component(what="filter", points="B", age="old"), restrictor)
    line = bent(
        *(row(60 + k, 30 + k, "3:00" if k % 2 else "12:00") for k in range(6)),
        service="cooler",
        tube="copper-nickel_3-8in_0.889",
        bender="lever_3-8in",
        end_b=End(fitting="bead", seat="spigot", body="aluminium", beyond=parts),
        carries=Carries(flow="6 L/min", old_bore=Length(text="9 mm")),
    )
    plan = benchmark(plan_whole, line, kit).plan
    assert plan.chosen.flowing.hot is not None


@pytest.fixture(scope="module")
def full_shop(tmp_path_factory):
    """200 jobs with 10 lines each, just opened again: nothing is in memory yet."""
    path = tmp_path_factory.mktemp("full") / "b.db"
    shop = open_shop(path)
    for k in range(200):
        job = shop.jobs.create(JobDraft(name=f"job {k}"))
        for n in range(10):
            shop.lines.add(job.id, bent(row(100, 90), row(60 + n, 45, "3:00"), name=f"line {n}"))
    shop.jobs.board()
    shop.close()
    return path


def test_opening_one_of_200_jobs(benchmark, full_shop):
    with TestClient(create_app(full_shop), base_url="http://127.0.0.1") as client:
        job = client.get("/api/jobs").json()[0]["id"]
        answer = benchmark(lambda: client.get(f"/api/jobs/{job}"))
    assert len(answer.json()["lines"]) == 10


def test_naming_a_misread_reading(benchmark, kit):
    line = bent(*(row(60 + 9 * k, 30 + 7 * k, "3:00" if k % 2 else "12:00") for k in range(6)))
    line = replace(line, checks=Checks(wire=Length(text="900"), tape=Length(text="300")))
    assert benchmark(look_at_checks, line, kit).named


def test_geometry_against_opencascade(benchmark):
    """The same 200 centrelines by both; prints how many times faster than the reference."""
    shapes = [random_part(seed, bends=8) for seed in range(200)]

    def ours():
        return [end_frame(shape).point for shape in shapes]

    def reference():
        return [(end.X(), end.Y(), end.Z()) for end in (occ_wire(shape)[1] for shape in shapes)]

    benchmark(ours)
    ratio = _seconds(reference) / _seconds(ours)
    print(f"\nend points of 200 parts: OpenCASCADE takes {ratio:.1f} times as long")
    assert np.allclose(ours(), reference(), atol=1e-6)


def _seconds(work) -> float:
    times = []
    with redirect_stderr(io.StringIO()):
        for _ in range(5):
            start = perf_counter()
            work()
            times.append(perf_counter() - start)
    return median(times)
