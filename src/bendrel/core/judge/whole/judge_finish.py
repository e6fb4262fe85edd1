"""Rules on being done: nothing left open, nothing left over."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding
from bendrel.core.judge.case import Whole, set_value
from bendrel.core.line.paths import at
from bendrel.core.line.removed import Removed


def judge_finish(case: Whole, removed: Removed) -> Iterator[Finding]:
    """Findings on a line that is called finished and is not."""
    if not case.line.finished or removed.done:
        return
    waiting = [item.what.strip() or item.kind for item in removed.open_items]
    told = []
    if waiting:
        told.append(f"still open: {', '.join(waiting)}")
    if removed.left_over:
        told.append(f"not refitted: {', '.join(removed.left_over)}")
    yield case.told(
        "not_done",
        case.whole(),
        fix=set_value("It is not finished", at("finished"), False),
        told="; ".join(told),
    )
