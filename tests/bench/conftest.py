"""Every figure with its aim: so many times the reference of the same run. A slow machine fails nothing,
slower code does."""

from __future__ import annotations

import tomllib
from pathlib import Path
from statistics import median
from time import perf_counter

import pytest

from tests.measured import walk
from tests.parts import random_part

AIMS: dict[str, float] = tomllib.loads(Path(__file__).with_name("aims.toml").read_text())["times"]


def reference_s() -> float:
    """Seconds for the reference: the walk that the tests hold the geometry against, along 200 parts of eight
    bends."""
    parts = [random_part(seed, bends=8) for seed in range(200)]
    times = []
    for _ in range(5):
        start = perf_counter()
        for part in parts:
            walk(part)
        times.append(perf_counter() - start)
    return median(times)


@pytest.hookimpl(trylast=True)
def pytest_sessionfinish(session: pytest.Session) -> None:
    """Hold what was measured against the aims; what is over one fails the run."""
    measured = getattr(getattr(session.config, "_benchmarksession", None), "benchmarks", [])
    if not measured:
        return
    whole, lines = reference_s(), []
    for one in measured:
        aim, took = AIMS.get(one.name), one.stats.median / whole
        over = aim is not None and took > aim
        said = "no aim" if aim is None else f"aim {aim:8.3f}{'   OVER' if over else ''}"
        lines.append(f"{1000 * one.stats.median:10.2f} ms {took:9.3f} × reference, {said}   {one.name}")
        if over or aim is None:
            session.exitstatus = pytest.ExitCode.TESTS_FAILED
    session.config.stash[_LINES] = [f"the reference took {1000 * whole:.1f} ms", *lines]


_LINES: pytest.StashKey[list[str]] = pytest.StashKey()


def pytest_terminal_summary(terminalreporter: pytest.TerminalReporter, config: pytest.Config) -> None:
    """Print the figures."""
    lines = config.stash.get(_LINES, [])
    if lines:
        terminalreporter.section("medians, and their aims")
        for line in lines:
            terminalreporter.line(line)
