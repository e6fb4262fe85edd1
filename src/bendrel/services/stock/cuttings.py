"""The cut list of a job over the shop's stock; taking it from the stock, and taking that back."""

from __future__ import annotations

import hashlib
from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace
from datetime import datetime
from typing import Annotated, NamedTuple

from annotated_types import MaxLen
from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from bendrel.core.line.document import Line
from bendrel.core.line.run import runs
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.rule_names import LimitName
from bendrel.core.plan.planner import plan_line
from bendrel.core.record import record
from bendrel.core.stock.cutting import CutList, Wanted, cut_list
from bendrel.core.stock.patterns import Bar
from bendrel.services.errors import NotFound, Refused, Stale
from bendrel.services.present import present_job
from bendrel.services.readable import readable_lines
from bendrel.services.shelf.shelf import Shelf
from bendrel.services.stock.stock import tube_name
from bendrel.store.database import Database
from bendrel.store.models import CuttingRow, Job, LineRow, MakingRow, StockRow, now
from bendrel.store.stock import (
    Lying,
    cut_from,
    give_back,
    looked_at_since,
    lying,
    present_stock,
    put_in,
)

NEW_STICKS: tuple[LimitName, ...] = ("new_stick_short_mm", "new_stick_long_mm")
"""The rules that say in which lengths sticks are bought."""


@record
class TakenFor:
    """The tube that was cut for a line: how long, from what, and whether the plan takes more by now."""

    cutting_id: str
    at: datetime
    source: str
    mm: float
    short: bool


@record
class CutLine:
    """A tube of the job that is to make, of a line that is not done. `piece` names both, `mm` is the tube
    it takes, None while it cannot be planned; `stops` counts the line's open stops, `in_list` says whether
    it is in the list that is shown."""

    piece: str
    line_id: str
    span: str
    line: str
    mm: float | None
    stops: int
    taken: TakenFor | None
    in_list: bool


@record
class TubeCuts:
    """The cut list of one tube: pieces as `piece_of` names them, the names of the bars by theirs."""

    tube: str
    tube_name: str
    bars: Mapping[str, str]
    cuts: CutList


@record
class JobCuts:
    """Cut lists of a job, one a tube. `stamp` changes when what is to be cut, or from what, does."""

    lines: tuple[CutLine, ...]
    tubes: tuple[TubeCuts, ...]
    kerf_mm: float
    least_kept_mm: float
    stamp: str


@record
class CutsDone:
    """What a person has cut: the pieces ticked, and the stamp of the list they cut by."""

    pieces: Annotated[tuple[str, ...], MaxLen(2000)]
    stamp: Annotated[str, MaxLen(40)]


@record
class CutItem:
    """One bar of a cutting: the stock row (blank for a new stick), what it is called, the tube used up,
    the row of the offcut it left (blank for none), and the pieces as `piece_of` names them."""

    bar: str
    name: str
    used_mm: float
    offcut: str
    pieces: dict[str, float]


@record
class TakenBack:
    """The labels of entries that were counted since the cuts, and stay as they were counted."""

    counted: tuple[str, ...]


_ITEMS = TypeAdapter(list[CutItem])
_CUTS = TypeAdapter(JobCuts)
_TUBES = TypeAdapter(tuple[TubeCuts, ...])


class Cuttings:
    """Use cases on cut lists. Raises NotFound, Refused and Stale."""

    def __init__(self, database: Database, shelf: Shelf) -> None:
        self._database = database
        self._shelf = shelf

    def of(self, job_id: str, pieces: Collection[str] | None = None) -> JobCuts:
        """What is cut from what for these pieces of a job; without a choice for all that can be made as
        planned, have no open stop and are not cut yet."""
        with self._database.reading() as session:
            there = _there(session, job_id)
        return self._told(there, pieces)

    def take(self, job_id: str, done: CutsDone) -> str:
        """Take the cuts out of the stock: bars become their labelled offcuts or are gone. Returns the id
        by which it is taken back. Stale when the list is no longer the one that was shown."""
        with self._database.reading() as session:
            there = _there(session, job_id)
        told = self._told(there, done.pieces)
        with self._database.writing() as session:
            if told.stamp == done.stamp and _there(session, job_id).state == there.state:
                row = CuttingRow(job_id=job_id, items=[])
                session.add(row)
                session.flush()
                mm = {line.piece: line.mm or 0.0 for line in told.lines}
                items = [item for tube in told.tubes for item in _taken(session, tube, mm, row.id)]
                if not items:
                    raise Refused("Nothing in this list can be cut; tick a line that has a plan.")
                row.items = _ITEMS.dump_python(items, mode="json")
                return row.id
        raise Stale(
            "The stock or a line has changed since this list was drawn up; look at it again.",
            0,
            _CUTS.dump_python(self.of(job_id, done.pieces), mode="json"),
        )

    def take_back(self, cutting_id: str) -> TakenBack:
        """As if it had not been cut: what was used lies in the stock again, its offcuts are gone. An entry
        that somebody has counted since stays as it was counted: what lay there then is known. Refused when an
        offcut has been used since."""
        with self._database.writing() as session:
            row = session.get(CuttingRow, cutting_id)
            if row is None or row.undone_at is not None:
                raise NotFound("These cuts are not in the book, or were taken back already.")
            items = _ITEMS.validate_python(row.items)
            ids = [found for item in items for found in (item.bar, item.offcut) if found]
            entries = [found for one in dict.fromkeys(ids) if (found := lying(session, one)) is not None]
            offcuts = {item.offcut for item in items}
            used = next((one.label for one in entries if one.id in offcuts and one.count <= 0), None)
            if used is not None:
                raise Refused(
                    f"Offcut {used} of these cuts has been used or taken out since; correct the stock itself."
                )
            counted = [one for one in entries if looked_at_since(session, one.id, cutting_id)]
            for one in entries:
                if one not in counted:
                    give_back(session, one.id, cutting_id, _moved_by(items, one))
            row.undone_at = now()
            return TakenBack(counted=tuple(one.label for one in counted))

    def _told(self, there: _There, ticked: Collection[str] | None) -> JobCuts:
        kit = self._shelf.kit
        least = kit.limits["say_mm"].value
        lines: list[CutLine] = []
        wanted: dict[str, list[Wanted]] = {}
        for line_id, line in there.lines.items():
            plan = plan_line(line, kit)
            if plan.removed.done:
                continue
            stops = sum(found.severity == "stop" and not found.set_aside for found in plan.findings)
            tubes_to_make = [run for run in runs(line) if run.span.state == "to make"]
            for number, run in enumerate(tubes_to_make, start=1):
                found = plan.piece(run.span.id)
                mm = found.part.take_mm if found is not None and found.part is not None else None
                piece = piece_of(line_id, run.span.id)
                before = there.taken.get(piece)
                fresh = before is None and not stops if ticked is None else piece in ticked
                told = CutLine(
                    piece=piece,
                    line_id=line_id,
                    span=run.span.id,
                    line=line.name if len(tubes_to_make) == 1 else f"{line.name}, piece {number}",
                    mm=mm,
                    stops=stops,
                    taken=before and replace(before, short=mm is not None and mm > before.mm + least),
                    in_list=mm is not None and fresh,
                )
                lines.append(told)
                if told.in_list and mm is not None:
                    curved = kit.limits["straighten_mm"].value if run.span.stock_form == "stick" else 0.0
                    wanted.setdefault(run.span.tube, []).append(Wanted(id=piece, mm=mm, from_coil_mm=curved))
        tubes = tuple(_cuts(kit, tube, pieces, there.stock) for tube, pieces in wanted.items())
        return JobCuts(
            lines=tuple(lines),
            tubes=tubes,
            kerf_mm=kit.limits["kerf_mm"].value,
            least_kept_mm=kit.limits["useful_offcut_mm"].value,
            stamp=hashlib.sha256(_TUBES.dump_json(tubes)).hexdigest()[:16],
        )


class _There(NamedTuple):
    """What lies there at one moment: the lines, the tube cut for them, and the stock; `state`
    is another one as soon as any of them changes."""

    lines: dict[str, Line]
    taken: dict[str, TakenFor]
    stock: list[Lying]
    state: tuple[object, ...]


def _there(session: Session, job_id: str) -> _There:
    job = present_job(session, job_id)
    rows = [row for row in job.lines if row.deleted_at is None]
    stock, taken = present_stock(session), taken_for(session, job)
    return _There(
        lines={row.id: line for row, line in readable_lines(session, rows)},
        taken=taken,
        stock=stock,
        state=(
            tuple((row.id, row.version) for row in rows),
            tuple(sorted((line, cut.cutting_id) for line, cut in taken.items())),
            tuple((row.id, row.tube, row.length_mm, row.count) for row in stock),
        ),
    )


def _cuts(kit: Kit, tube: str, pieces: list[Wanted], there: list[Lying]) -> TubeCuts:
    held = [row for row in there if row.tube == tube]
    lengths = [kit.limits[name].value for name in NEW_STICKS]
    own = [Bar(id=r.id, mm=r.length_mm, count=r.count, own=True, coil=r.form == "coil") for r in held]
    weighs = kit.limits["bought_weighs"].value
    new = [Bar(id=f"new {mm:.0f}", mm=mm, count=None, own=False, weighs=weighs) for mm in lengths]
    return TubeCuts(
        tube=tube,
        tube_name=tube_name(kit, tube),
        bars={row.id: f"{row.label} {row.form}" for row in held}
        | {bar.id: f"new stick of {bar.mm:.0f} mm" for bar in new},
        cuts=cut_list(
            pieces,
            [*own, *new],
            kerf_mm=kit.limits["kerf_mm"].value,
            least_kept_mm=kit.limits["useful_offcut_mm"].value,
        ),
    )


def _moved_by(items: Sequence[CutItem], one: Lying) -> tuple[int, float]:
    """What cuts took of an entry (less than 0) or made of it, pieces and mm of a coil, by their own book."""
    made = sum(item.offcut == one.id for item in items)
    taken = [item.used_mm for item in items if item.bar == one.id]
    return (made, -sum(taken)) if one.form == "coil" else (made - len(taken), 0.0)


def piece_of(line_id: str, span: str) -> str:
    """The name of one tube of one line in cut lists and cuttings."""
    return f"{line_id}/{span}"


def _taken(session: Session, tube: TubeCuts, mm: Mapping[str, float], cutting_id: str) -> list[CutItem]:
    """Cut one tube's list from the stock. A finished end goes with the first piece of its bar."""
    items = []
    for cut in tube.cuts.cuts:
        source = lying(session, cut.bar)
        used, offcut = cut.bar_mm - cut.left_mm, ""
        if source is not None:
            cut_from(session, source, used, cutting_id)
        if cut.kept and (source is None or source.form != "coil"):
            note = f"from {source.label}" if source is not None else "from a new stick"
            kept = StockRow(tube=tube.tube, form="offcut", length_mm=cut.left_mm, note=note)
            offcut = put_in(session, kept, cutting_id=cutting_id)
        items.append(
            CutItem(
                bar=source.id if source is not None else "",
                name=tube.bars[cut.bar],
                used_mm=used,
                offcut=offcut,
                pieces={key: mm[key] for key in cut.pieces},
            )
        )
    return items


def taken_for(session: Session, job: Job) -> dict[str, TakenFor]:
    """The newest tube that was cut for each piece and has not been spoiled since in a scrapped part."""
    scrapped: dict[str, datetime] = {}
    ended = (
        select(MakingRow.line_id, MakingRow.span, MakingRow.ended_at)
        .join(LineRow, LineRow.id == MakingRow.line_id)
        .where(LineRow.job_id == job.id, MakingRow.outcome == "scrap")
        .order_by(MakingRow.ended_at)
    )
    for line_id, span, at in session.execute(ended):
        if at is not None:
            scrapped[piece_of(line_id, span)] = at
    rows = (
        select(CuttingRow)
        .where(CuttingRow.job_id == job.id, CuttingRow.undone_at.is_(None))
        .order_by(CuttingRow.at)
    )
    found = {}
    for row in session.scalars(rows):
        for item in _ITEMS.validate_python(row.items):
            for piece, mm in item.pieces.items():
                if piece not in scrapped or scrapped[piece] < row.at:
                    found[piece] = TakenFor(
                        cutting_id=row.id, at=row.at, source=item.name, mm=mm, short=False
                    )
    return found
