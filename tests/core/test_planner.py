"""One planner: what was just planned is not planned again, and nobody gets another's plan."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from threading import Barrier

import pytest

import bendrel.core.plan.planner as planner
from bendrel.catalogue.loader import load_kit
from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.assemble import WholePlan, plan_whole
from bendrel.core.plan.planner import Planner
from tests.made_lines import made_line

KIT = load_kit()


@pytest.fixture
def counted(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """The names of the lines that were worked out."""
    worked: list[str] = []

    def count(line: Line, kit: Kit) -> WholePlan:
        worked.append(line.name)
        return plan_whole(line, kit)

    monkeypatch.setattr(planner, "plan_whole", count)
    return worked


def test_the_same_document_is_planned_once(counted: list[str]) -> None:
    line, kept = made_line(KIT, 1), Planner()
    first = kept.whole(line, KIT)
    assert kept.whole(replace(line), KIT) is first
    assert len(counted) == 1


def test_another_word_or_another_shelf_is_another_plan(counted: list[str]) -> None:
    line, kept = made_line(KIT, 2), Planner()
    kept.whole(line, KIT)
    kept.whole(replace(line, name="other"), KIT)
    kept.whole(line, replace(KIT))
    assert len(counted) == 3


def test_only_the_last_are_kept(counted: list[str]) -> None:
    lines, kept = [replace(made_line(KIT, 3), name=str(k)) for k in range(3)], Planner(keeps=2)
    for line in (*lines, lines[0]):
        kept.whole(line, KIT)
    assert counted == ["0", "1", "2", "0"]


def test_two_who_ask_at_once_share_one_plan(counted: list[str]) -> None:
    line, kept, start = made_line(KIT, 4), Planner(), Barrier(2)

    def ask() -> WholePlan:
        start.wait(timeout=60)
        return kept.whole(line, KIT)

    with ThreadPoolExecutor(2) as both:
        asked = [both.submit(ask) for _ in range(2)]
        first, second = (one.result(timeout=120) for one in asked)
    assert first is second
    assert len(counted) == 1


def test_what_went_wrong_is_not_kept(monkeypatch: pytest.MonkeyPatch) -> None:
    line, kept = made_line(KIT, 5), Planner()

    def fail(_line: Line, _kit: Kit) -> WholePlan:
        raise MemoryError

    with monkeypatch.context() as patch:
        patch.setattr(planner, "plan_whole", fail)
        with pytest.raises(MemoryError):
            kept.whole(line, KIT)
    assert kept.whole(line, KIT).plan == plan_whole(line, KIT).plan
