"""Where the time of a run goes: by room, every long test with its reason, and which are the quick ones."""

from __future__ import annotations

from collections import Counter
from pathlib import Path

import pytest

SLOWER = Path(__file__).with_name("slower.txt")
"""What `--quick` leaves out; `--note-slower` writes it anew from the run that it is given to."""
ONE_S, ALL_S = 0.1, 0.5
"""A test is quick where each of its cases takes less than the first, and all of them less than the second."""

LONG_S = 5.0
"""A test over this says why: `@pytest.mark.long("…")`."""
REASON = "reason"


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--quick", action="store_true", help="leave out what stands in tests/slower.txt")
    parser.addoption("--note-slower", action="store_true", help="write tests/slower.txt anew")


def _name(nodeid: str) -> str:
    """A test without its case."""
    return nodeid.split("[")[0]


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """The reason goes with the report, which may come from another process."""
    if config.getoption("--quick"):
        slower = set(SLOWER.read_text(encoding="utf-8").split())
        left_out = [item for item in items if _name(item.nodeid) in slower]
        config.hook.pytest_deselected(items=left_out)
        items[:] = [item for item in items if _name(item.nodeid) not in slower]
    for item in items:
        mark = item.get_closest_marker("long")
        if mark is not None:
            item.user_properties.append((REASON, mark.args[0]))


def pytest_terminal_summary(terminalreporter: pytest.TerminalReporter) -> None:
    """Print the seconds by room, and the long tests."""
    reports = [r for kind in ("passed", "failed") for r in terminalreporter.getreports(kind)]
    reports += terminalreporter.getreports("")  # setting up and clearing away
    if terminalreporter.config.getoption("--note-slower"):
        _note_slower(reports)
    rooms: Counter[str] = Counter()
    long = []
    for report in reports:
        rooms[report.nodeid.split("::")[0].split("/")[1]] += report.duration
        if report.when == "call" and report.duration > LONG_S:
            reason = dict(report.user_properties).get(REASON, "no reason is given")
            long.append(f"{report.duration:5.1f} s  {report.nodeid.removeprefix('tests/')}: {reason}")
    if sum(rooms.values()) < 60:
        return
    terminalreporter.section("time by room, of all processes together")
    for room, seconds in rooms.most_common():
        terminalreporter.line(f"{seconds:5.0f} s  {room}")
    for line in sorted(long, reverse=True):
        terminalreporter.line(line)


def _note_slower(reports: list[pytest.TestReport]) -> None:
    cases: Counter[str] = Counter()
    for report in reports:
        cases[report.nodeid] += report.duration
    every: Counter[str] = Counter()
    for nodeid, seconds in cases.items():
        every[_name(nodeid)] += seconds
    slower = {_name(nodeid) for nodeid, seconds in cases.items() if seconds > ONE_S}
    slower |= {name for name, seconds in every.items() if seconds > ALL_S}
    SLOWER.write_text("\n".join(sorted(slower)) + "\n", encoding="utf-8")
