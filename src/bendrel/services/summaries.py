"""What the board says of every line: worked out once for each version, and kept between starts."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from datetime import datetime
from functools import cache
from hashlib import sha256
from importlib.resources import files
from importlib.resources.abc import Traversable
from typing import Any, NamedTuple

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.attool.order_report import order_findings
from bendrel.core.closing.learnt import Met, WatchedJoint, met_of, watched_of
from bendrel.core.findings import Severity
from bendrel.core.line.run import main_run, runs
from bendrel.core.plan.assemble import plan_line
from bendrel.core.plan.next_step import next_step
from bendrel.core.proof.log import FollowUp
from bendrel.core.record import record
from bendrel.core.removal.log import OpenItem, PartToGet
from bendrel.core.repair.condition import Reason, Urgency
from bendrel.core.rules.set_aside import worst_first
from bendrel.core.shop.kit import Kit
from bendrel.core.units import Unit
from bendrel.exchange.documents import line_from_value
from bendrel.services.shelf import Shelf
from bendrel.store.lines import document_at
from bendrel.store.models import LineRow, SummaryRow


@record
class LineSummary:
    """A line on the board: what it is and what happens next."""

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


class Unsaid(NamedTuple):
    """A line that nothing is said of yet: its version and its document."""

    id: str
    version: int
    updated_at: datetime
    document: dict[str, Any]


_SUMMARY = TypeAdapter(LineSummary)
Kept = tuple[int, dict[str, Any]]


class Summaries:
    """Summaries by line. A version of a line never changes, so neither does what is said of it by the
    same rules and shelf."""

    def __init__(self, shelf: Shelf) -> None:
        self._shelf = shelf
        self._stamp = ""
        self._told: dict[str, tuple[int, LineSummary]] = {}

    def lacking(self, session: Session, rows: Iterable[LineRow]) -> list[Unsaid]:
        """Of `rows` those that nothing is known of yet, with what it takes to say it. What was written down
        by the present rules is taken over."""
        wanted = list(rows)
        stamp = sha256(f"{rules_stamp()} {self._shelf.stamp}".encode()).hexdigest()
        if stamp != self._stamp:
            self._stamp, self._told = stamp, {}
        missing = [row for row in wanted if self._told.get(row.id, (0, None))[0] != row.version]
        kept = self._kept(session, [row.id for row in missing]) if missing else {}
        unsaid = []
        for row in missing:
            summary = _read(kept.get(row.id), row.version)
            if summary is None:
                document = document_at(session, row, row.head)
                unsaid.append(Unsaid(row.id, row.version, row.updated_at, document))
            else:
                self._told[row.id] = (row.version, summary)
        return unsaid

    def work_out(self, unsaid: list[Unsaid]) -> list[SummaryRow]:
        """Say what is lacking, outside any transaction; returns the rows to write down."""
        rows = []
        for line in unsaid:
            summary = summarise(line.id, line.document, line.updated_at, self._shelf.kit)
            self._told[line.id] = (line.version, summary)
            value = _SUMMARY.dump_python(summary, mode="json")
            rows.append(SummaryRow(line_id=line.id, version=line.version, stamp=self._stamp, summary=value))
        return rows

    def told(self, line_id: str) -> LineSummary:
        """What is said of a line whose lack has been worked out."""
        return self._told[line_id][1]

    def _kept(self, session: Session, ids: list[str]) -> dict[str, Kept]:
        """(version, summary) of what was written down by the present rules."""
        query = select(SummaryRow.line_id, SummaryRow.version, SummaryRow.summary).where(
            SummaryRow.stamp == self._stamp
        )
        if len(ids) <= 100:
            query = query.where(SummaryRow.line_id.in_(ids))
        return {line_id: (version, summary) for line_id, version, summary in session.execute(query)}


@cache
def rules_stamp() -> str:
    """A fingerprint of the core and the catalogue: any change to a rule makes another."""
    digest = sha256()
    for folder in ("core", "catalogue"):
        _add(digest, files("bendrel") / folder)
    return digest.hexdigest()


def _add(digest: Any, place: Traversable) -> None:
    for item in sorted(place.iterdir(), key=lambda entry: entry.name):
        if item.is_dir():
            if item.name != "__pycache__":
                _add(digest, item)
        else:
            digest.update(item.name.encode() + item.read_bytes())


def _read(kept: Kept | None, version: int) -> LineSummary | None:
    if kept is None or kept[0] != version:
        return None
    try:
        return _SUMMARY.validate_python(kept[1])
    except ValidationError:
        return None


def summarise(line_id: str, document: dict[str, Any], updated_at: datetime, kit: Kit) -> LineSummary:
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
        id=line_id,
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
        updated_at=updated_at,
    )
