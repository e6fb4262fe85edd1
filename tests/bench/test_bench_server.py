"""What needs a server, through the real one: the board of 2,000 lines while they are worked out anew."""

import json
import re
import subprocess
import sys
import urllib.request
from contextlib import closing
from itertools import count
from pathlib import Path
from statistics import median
from time import perf_counter, sleep

import pytest

from bendrel.exchange.documents.documents import line_to_value
from bendrel.services.job.jobs import JobDraft
from bendrel.services.startup import open_shop
from tests.bench.test_bench import thirty_bends
from tests.lines import bent, row

BENDREL = Path(sys.executable).with_name("bendrel")
LOOK_MS = 300
"""A look at the board while everything is worked out anew, 95 of a hundred."""
OWN = {
    "shelf": "clamps",
    "fields": {"kind": "worm", "closed_mm": "9", "open_mm": "12", "width_mm": "8", "note": "x"},
}


@pytest.fixture(scope="module")
def served(tmp_path_factory):
    """The address of a server on 200 jobs with ten lines each."""
    folder = tmp_path_factory.mktemp("served")
    shop = open_shop(folder / "bendrel.db")
    for k in range(200):
        job = shop.jobs.create(JobDraft(name=f"job {k}"))
        for n in range(10):
            shop.lines.add(job.id, bent(row(100, 90), row(60 + n, 45, "3:00"), name=f"line {n}"))
    shop.close()
    process = subprocess.Popen(
        [BENDREL, "serve", "--data", folder, "--port", "48611"], stdout=subprocess.PIPE, text=True
    )
    yield re.search(r"http://127\.0\.0\.1:\d+/", process.stdout.readline())[0]
    process.terminate()
    process.wait(timeout=20)


def asked(address, body=None):
    head = {"content-type": "application/json"}
    data = None if body is None else json.dumps(body).encode()
    with closing(urllib.request.urlopen(urllib.request.Request(address, data, head), timeout=60)) as answer:
        return answer.read()


def waiting(address):
    return sum(
        not line["reckoned"] for job in json.loads(asked(f"{address}api/jobs")) for line in job["lines"]
    )


def test_the_board_while_2000_lines_are_worked_out_anew(benchmark, served):
    """After a change of the catalogue; the board is looked at four times a second."""
    while waiting(served):
        sleep(1)
    asked(f"{served}api/own", OWN)
    start = perf_counter()

    def look():
        begun = perf_counter()
        asked(f"{served}api/jobs")
        times.append(1000 * (perf_counter() - begun))
        sleep(0.25 - min(0.25, perf_counter() - begun))

    times: list[float] = []
    while perf_counter() - start < 20:
        look()
    left = waiting(served)
    rate = (2000 - left) / (perf_counter() - start)
    late = sorted(times)[len(times) * 95 // 100]
    print(f"\nfirst look {times[0]:.0f} ms, median {median(times):.0f}, 95 of a hundred {late:.0f}")
    print(f"reckoned meanwhile: {rate:.0f} lines a second, {left} left")
    assert left > 0
    assert late < LOOK_MS
    benchmark(lambda: asked(f"{served}api/jobs"))


def test_a_preview_of_30_bends_through_the_server(benchmark, served):
    body, keys = line_to_value(thirty_bends()), count()
    benchmark(lambda: asked(f"{served}api/preview", {**body, "name": f"line {next(keys)}"}))
