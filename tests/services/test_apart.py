"""Work in a process of its own: its limits, its end, and what it may hand back."""

import os
import pickle
import threading
from dataclasses import replace
from datetime import datetime, timedelta, timezone
from pathlib import Path

import pytest

from bendrel.exchange.errors import FileError
from bendrel.services.errors import Crowded, GivenUp, Refused, TooMuch
from bendrel.services.reckoned import apart as room
from bendrel.services.reckoned.apart import READING, Apart, apart

SHORT = replace(READING, seconds=0.4)


def endless():
    while True:
        pass


def greedy():
    return len([bytes(10_000_000) for _ in range(100)])


def refusing(kind, text):
    raise kind(text)


def crashing():
    os.abort()


class Evil:
    def __reduce__(self):
        return os.system, ("true",)


def evil():
    return Evil()


def process_of():
    return os.getpid()


def test_it_is_another_process_and_a_new_one_each_time():
    assert len({os.getpid(), apart(READING, process_of), apart(READING, process_of)}) == 3


@pytest.mark.parametrize("task", [endless, greedy, crashing])
def test_what_goes_beyond_its_limits_is_refused_with_the_sentence(task):
    with pytest.raises(TooMuch, match="too much time or memory"):
        apart(SHORT if task is endless else READING, task)
    assert apart(READING, process_of) != os.getpid()  # the next one finds a place


@pytest.mark.parametrize("kind", [FileError, Refused])
def test_a_refusal_comes_back_as_it_was_said(kind):
    with pytest.raises(kind, match="row 3 is short"):
        apart(READING, refusing, kind, "row 3 is short")


def test_a_fault_of_ours_is_none_of_the_persons():
    with pytest.raises(RuntimeError, match="KeyError"):
        apart(READING, refusing, KeyError, "x")


def test_nothing_but_records_is_built_from_what_comes_back():
    with pytest.raises(pickle.UnpicklingError, match="no record of ours"):
        apart(READING, evil)


def test_what_nobody_waits_for_ends_at_once():
    work = Apart(replace(READING, seconds=60), endless)
    threading.Timer(0.1, work.give_up).start()
    with pytest.raises(GivenUp):
        work.result()


def test_too_many_at_once_are_sent_away_with_a_sentence(monkeypatch):
    monkeypatch.setattr(room, "WAITS_S", 0.05)
    going = [Apart(replace(READING, seconds=60), endless) for _ in range(room.AT_ONCE)]
    try:
        with pytest.raises(Crowded, match="in a moment"):
            apart(READING, process_of)
    finally:
        for work in going:
            work.give_up()
            with pytest.raises(GivenUp):
                work.result()


def zoned():
    return datetime(2026, 11, 27, 8, 30, tzinfo=timezone(timedelta(hours=1)))


def test_a_moment_with_its_zone_comes_back():
    assert apart(READING, zoned) == zoned()


def without_proc():
    """As on a system that has no /proc."""
    real = Path.read_text

    def read_text(self, *args, **kwargs):
        if str(self).startswith("/proc"):
            raise FileNotFoundError(self)
        return real(self, *args, **kwargs)

    Path.read_text = read_text
    room._limit(READING)
    return "done"


def test_it_works_where_there_is_no_proc():
    assert apart(READING, without_proc) == "done"
