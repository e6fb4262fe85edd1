"""Where the time of a run goes: by room, and every long test with its reason."""

from __future__ import annotations

from collections import Counter

import pytest

LONG_S = 5.0
"""A test over this says why: `@pytest.mark.long("…")`."""
REASON = "reason"


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """The reason goes with the report, which may come from another process."""
    for item in items:
        mark = item.get_closest_marker("long")
        if mark is not None:
            item.user_properties.append((REASON, mark.args[0]))


def pytest_terminal_summary(terminalreporter: pytest.TerminalReporter) -> None:
    """Print the seconds by room, and the long tests."""
    reports = [r for kind in ("passed", "failed") for r in terminalreporter.getreports(kind)]
    reports += terminalreporter.getreports("")  # setting up and clearing away
    rooms: Counter[str] = Counter()
    long = []
    for report in reports:
        rooms[report.nodeid.split("/")[1]] += report.duration
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
