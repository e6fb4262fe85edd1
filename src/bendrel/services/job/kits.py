"""Kit lists of a line and of a job, with what is in stock, what is short, and what it costs."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from bendrel.core.line.document import Line
from bendrel.core.line.run import runs
from bendrel.core.line.strip_down import parts_for
from bendrel.core.plan.planner import plan_line
from bendrel.core.record import record
from bendrel.core.work.shopping import Need, parts_needed
from bendrel.services.job.stripdowns import log_of
from bendrel.services.present import present_job
from bendrel.services.readable import readable_lines
from bendrel.services.shelf.shelf import Held, Shelf
from bendrel.services.stock.cuttings import piece_of, taken_for
from bendrel.standins.supplier import Supplier, SupplierAway
from bendrel.store.database import Database

PER_UNIT = {"mm": 1000.0, "each": 1.0, "l": 1.0}
"""How much of a need's measure one price is for: tube and hose are sold by the metre."""


@record
class KitRow:
    """One need with what the shop has, what is short, and its price in cents for a metre, piece or litre
    and for the whole amount; None where nobody knows it."""

    need: Need
    have: float
    short: float
    unit_cents: int | None
    own_price: bool
    cents: int | None


@record
class KitList:
    """All needs, their sum in cents, how many have no price, and whether the supplier answered."""

    rows: tuple[KitRow, ...]
    total_cents: int
    unpriced: int
    supplier_answers: bool


class KitLists:
    """Use cases on kit lists. Raises NotFound."""

    def __init__(self, database: Database, shelf: Shelf, supplier: Supplier) -> None:
        self._database = database
        self._shelf = shelf
        self._supplier = supplier

    def of_line(self, document: Line) -> KitList:
        """The kit list of a line as typed; empty while it cannot be planned. Of a chain like things are
        added up, of one tube they stand with the end that asks for them."""
        chosen = plan_line(document, self._shelf.kit).chosen
        needs = chosen.needs if chosen else ()
        return self.priced(needs if len(document.spans) == 1 else added_up(needs))

    def of_job(self, job_id: str) -> KitList:
        """The kit list of all lines of a job that are not done yet, like things added up. Tube that is cut
        for a line already is not asked for again."""
        with self._database.reading() as session:
            job = present_job(session, job_id)
            cut = taken_for(session, job)
            shared = log_of(session, job_id)
            there = [row for row in job.lines if row.deleted_at is None]
            lines = [(line, row.id) for row, line in readable_lines(session, there)]
        needs: list[Need] = []
        for line, line_id in lines:
            plan = plan_line(line, self._shelf.kit)
            if plan.removed.done:
                continue
            wanted = plan.chosen.needs if plan.chosen else parts_needed(plan.removed.parts)
            has = {run.span.id for run in runs(line) if piece_of(line_id, run.span.id) in cut}
            needs += [replace(need, why=line.name) for need in wanted if not (need.span and need.span in has)]
        needs += [replace(need, why="strip-down of the job") for need in parts_needed(parts_for(shared))]
        return self.priced(added_up(needs))

    def priced(self, needs: Iterable[Need]) -> KitList:
        """`needs` against stock and prices; the shop's own price wins over the supplier's."""
        held = self._shelf.holdings()
        answers = True
        rows = []
        for need in needs:
            try:
                row = self._row(need, held.get(need.ref))
            except SupplierAway:
                answers = False
                row = _without_price(need, held.get(need.ref))
            rows.append(row)
        return KitList(
            rows=tuple(rows),
            total_cents=sum(row.cents or 0 for row in rows),
            unpriced=sum(1 for row in rows if row.cents is None),
            supplier_answers=answers,
        )

    def _row(self, need: Need, held: Held | None) -> KitRow:
        own = held is not None and held.unit_cents is not None
        unit = held.unit_cents if held and own else self._supplier.quote(self._shelf.kit, need.ref)
        cents = None if unit is None else round(unit * need.amount / PER_UNIT[need.unit])
        return replace(_without_price(need, held), unit_cents=unit, own_price=own, cents=cents)


def _without_price(need: Need, held: Held | None) -> KitRow:
    have = held.have if held else 0.0
    return KitRow(
        need=need,
        have=have,
        short=max(0.0, need.amount - have),
        unit_cents=None,
        own_price=False,
        cents=None,
    )


def added_up(needs: Iterable[Need]) -> tuple[Need, ...]:
    """Needs of the same thing as one, with every line that asks for it. A fluid is not added up: the
    lines of a machine share one filling."""
    found: dict[str, Need] = {}
    for need in needs:
        was = found.get(need.ref)
        if was is None:
            found[need.ref] = need
        elif was.what == need.what:
            why = was.why if need.why in was.why.split("; ") else f"{was.why}; {need.why}"
            amount = max(was.amount, need.amount) if need.unit == "l" else was.amount + need.amount
            found[need.ref] = replace(was, amount=amount, why=why)
        else:
            found[f"{need.ref} {need.what}"] = need
    return tuple(found.values())
