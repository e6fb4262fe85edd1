"""What the board says of one line, worked out from its document."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import datetime
from typing import Any

from bendrel.core.bend.bench.order_report import order_findings
from bendrel.core.findings import Severity
from bendrel.core.judge.set_aside import worst_first
from bendrel.core.line.condition import Reason, Urgency
from bendrel.core.line.proving import FollowUp
from bendrel.core.line.removal import OpenItem, PartToGet
from bendrel.core.line.run import main_run, runs
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.next_step import next_step
from bendrel.core.plan.planner import plan_line
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.core.work.learnt import Met, WatchedJoint, met_of, watched_of
from bendrel.exchange.documents.documents import line_from_value
from bendrel.exchange.errors import FileError


@record
class LineSummary:
    """A line on the board: what it is and what happens next. `reckoned` says that it is of the line and the
    catalogue as they are, else it is being worked out anew; `unreadable` why its document cannot be read."""

    id: str
    name: str
    service: str
    tube: str
    bends: int
    cut_mm: float | None
    unit: Unit
    worst: Severity | None
    findings: dict[str, int]
    next_step: str
    rank: int
    reasons: tuple[Reason, ...]
    urgency: Urgency
    twin_open: bool
    done: bool
    open_items: tuple[OpenItem, ...]
    follow_ups: tuple[FollowUp, ...]
    watched: tuple[WatchedJoint, ...]
    met: Met
    parts: tuple[PartToGet, ...]
    updated_at: datetime
    version: int
    reckoned: bool = True
    unreadable: str = ""


@record
class Unsaid:
    """A line of which nothing is said yet that holds: its version and its document, None where what is kept
    is no document at all."""

    id: str
    version: int
    updated_at: datetime
    document: dict[str, Any] | None

    @property
    def long(self) -> bool:
        """It is not worked out while somebody waits."""
        spans = self.document.get("spans", ()) if self.document else ()
        readings = (span.get("readings") for span in spans if isinstance(span, Mapping))
        return sum(len(r.get("rows", ())) for r in readings if isinstance(r, Mapping)) > MOST_WHILE_WAITING


MOST_WHILE_WAITING = 40
"""Bends."""


def said_of(unsaid: Unsaid, kit: Kit) -> LineSummary:
    """What the board says of a line, whatever state its document is in."""
    if unsaid.document is None:
        return bare(unsaid, "What is kept of this line is no document any more.")
    try:
        return summarise(unsaid, unsaid.document, kit)
    except FileError as error:
        return bare(unsaid, str(error))


def all_said(unsaid: Sequence[Unsaid], kit: Kit) -> list[LineSummary]:
    """The same for several, apart."""
    return [said_of(one, kit) for one in unsaid]


def bare(unsaid: Unsaid, unreadable: str = "", step: str = "") -> LineSummary:
    """A line of which no more is said than its name."""
    document = unsaid.document or {}
    name, unit = document.get("name"), document.get("unit")
    return LineSummary(
        id=unsaid.id,
        name=name[:120] if isinstance(name, str) and name else "a line without a name",
        service="",
        tube="",
        bends=0,
        cut_mm=None,
        unit="mm" if unit == "mm" else "in",
        worst="stop" if unreadable else None,
        findings={},
        next_step="cannot be read" if unreadable else step,
        rank=0,
        reasons=(),
        urgency="soon",
        twin_open=False,
        done=False,
        open_items=(),
        follow_ups=(),
        watched=(),
        met=Met(missed_mm=None, tweaks=None),
        parts=(),
        updated_at=unsaid.updated_at,
        version=unsaid.version,
        unreadable=unreadable,
    )


def summarise(at: Unsaid, document: dict[str, Any], kit: Kit) -> LineSummary:
    """What the board says of a stored line."""
    line = line_from_value(document)
    plan = plan_line(line, kit)
    stopped = any(finding.severity == "stop" and not finding.set_aside for finding in plan.findings)
    if not stopped and not plan.removed.done:
        said = [
            found
            for run in runs(line)
            if run.span.state == "to make"
            and (piece := plan.piece(run.span.id)) is not None
            and piece.part is not None
            for found in order_findings(run, kit, piece.part)
        ]
        plan = replace(plan, findings=(*worst_first(line, said), *plan.findings))
    main = main_run(line)
    tube = kit.tubes.get(main.span.tube) if main else None
    parts = [piece.part for piece in plan.pieces if piece.part and piece.state == "to make"]
    counts: dict[str, int] = {}
    pending = [finding for finding in plan.findings if not finding.set_aside]
    for finding in pending:
        counts[finding.severity] = counts.get(finding.severity, 0) + 1
    step = next_step(line, plan)
    return LineSummary(
        id=at.id,
        name=line.name,
        service=kit.services[line.service].name if line.service in kit.services else line.service,
        tube=f"{tube.size} {kit.materials[tube.material].name}"
        if tube
        else ("no tube chosen" if main else "hose only"),
        bends=sum(len(part.bends) for part in parts),
        cut_mm=sum(part.cut_mm for part in parts) if parts else None,
        unit=line.unit,
        worst=pending[0].severity if pending else None,
        findings=counts,
        next_step=step.text,
        rank=step.rank,
        reasons=line.condition.reasons,
        urgency=line.condition.urgency,
        twin_open=any(finding.code == "twin" for finding in pending),
        done=plan.removed.done,
        open_items=plan.removed.open_items,
        follow_ups=tuple(one for one in line.proving.follow_ups if not one.done.strip()),
        watched=watched_of(line, kit),
        met=met_of(line),
        parts=plan.removed.parts,
        updated_at=at.updated_at,
        version=at.version,
    )
