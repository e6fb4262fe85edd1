"""Every figure with its aim: so many times the reference of the same run. A slow machine fails nothing,
slower code does."""

from __future__ import annotations

import tomllib
from collections.abc import Generator
from math import hypot
from pathlib import Path
from statistics import median
from time import perf_counter

import pytest

AIMS: dict[str, float] = tomllib.loads(Path(__file__).with_name("aims.toml").read_text())["times"]


def reference_s() -> float:
    """Seconds for the reference: plain sums in plain Python, which is what most of the program is made of. No
    library is in it: how fast those are differs from one kind of machine to the next by more than a half."""
    times = []
    for _ in range(5):
        start, at = perf_counter(), 0.0
        for k in range(200_000):
            at = hypot(0.5 * at, 1.0) + k % 7
        times.append(perf_counter() - start)
    return 4 * median(times)


_BESIDE: pytest.StashKey[dict[str, float]] = pytest.StashKey()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_call(item: pytest.Item) -> Generator[None, object, object]:
    """The reference is taken right before and right after each figure: a machine that is shared with others
    is not equally fast for minutes."""
    if not item.config.getoption("benchmark_only"):
        return (yield)
    before = reference_s()
    result = yield
    item.config.stash.setdefault(_BESIDE, {})[item.name] = (before + reference_s()) / 2
    return result


@pytest.hookimpl(trylast=True)
def pytest_sessionfinish(session: pytest.Session) -> None:
    """Hold what was measured against the aims; what is over one fails the run."""
    measured = getattr(getattr(session.config, "_benchmarksession", None), "benchmarks", [])
    if not measured:
        return
    beside, lines = session.config.stash[_BESIDE], []
    for one in measured:
        aim, took = AIMS.get(one.name), one.stats.median / beside[one.name]
        over = aim is not None and took > aim
        said = "no aim" if aim is None else f"aim {aim:8.3f}{'   OVER' if over else ''}"
        lines.append(f"{1000 * one.stats.median:10.2f} ms {took:9.3f} × reference, {said}   {one.name}")
        if over or aim is None:
            session.exitstatus = pytest.ExitCode.TESTS_FAILED
    whole = sorted(1000 * seconds for seconds in beside.values())
    said = f"the reference took {whole[0]:.0f} to {whole[-1]:.0f} ms beside them"
    session.config.stash[_LINES] = [said, *lines]


_LINES: pytest.StashKey[list[str]] = pytest.StashKey()


def pytest_terminal_summary(terminalreporter: pytest.TerminalReporter, config: pytest.Config) -> None:
    """Print the figures."""
    lines = config.stash.get(_LINES, [])
    if lines:
        terminalreporter.section("medians, and their aims")
        for line in lines:
            terminalreporter.line(line)
