"""The one planner: whoever asks for a line as it was just asked for gets the plan that is there."""

from __future__ import annotations

from collections import OrderedDict
from concurrent.futures import Future
from threading import Lock

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.line.document import Line
from bendrel.core.line.resolve import Problem
from bendrel.core.line.run import main_run
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.assemble import WholePlan, plan_whole
from bendrel.core.plan.model import Plan

KEEPS = 8


class Planner:
    """Keeps the plans of the last `keeps` documents. A document is known by its value, a kit by being the
    same one: a shelf that changes makes another. Two who ask for one document at once share one plan."""

    def __init__(self, keeps: int = KEEPS) -> None:
        self._keeps = keeps
        self._kept: OrderedDict[tuple[int, Line], tuple[Kit, Future[WholePlan]]] = OrderedDict()
        self._lock = Lock()

    def whole(self, line: Line, kit: Kit) -> WholePlan:
        """The plan with what it was made of. Raises nothing that planning does not."""
        key = (id(kit), line)  # the kit is kept beside the plan: no other one gets its number meanwhile
        with self._lock:
            found = self._kept.get(key)
            mine: Future[WholePlan] = Future()
            if found is None:
                self._kept[key] = (kit, mine)
                if len(self._kept) > self._keeps:
                    self._kept.popitem(last=False)
            else:
                self._kept.move_to_end(key)
        if found is not None:
            return found[1].result()
        try:
            mine.set_result(plan_whole(line, kit))
        except BaseException as error:
            mine.set_exception(error)
            with self._lock:
                self._kept.pop(key, None)
            raise
        return mine.result()


_PLANNER = Planner()


def planned(line: Line, kit: Kit) -> WholePlan:
    """The plan of `line` with what it was made of, kept for the next who asks."""
    return _PLANNER.whole(line, kit)


def plan_line(line: Line, kit: Kit) -> Plan:
    """The whole plan of `line` with the tools and tables of `kit`. Raises nothing: what cannot be
    read comes back as problems, what cannot be made as findings. No fix that chooses something else
    brings up anything as bad as what it mends: each is tried first."""
    return planned(line, kit).plan


def tube_of_plan(line: Line, kit: Kit, span: str = "") -> tuple[Rigid | None, tuple[Problem, ...]]:
    """One tube of a line (the main one unless another is asked for), and what keeps it from being planned."""
    main = main_run(line)
    name = span or (main.span.id if main else "")
    one = next((tube for tube in planned(line, kit).tubes if tube.run.span.id == name), None)
    return (one.rigid, one.problems) if one is not None else (None, ())
