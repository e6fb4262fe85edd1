"""The shop's shelf: its own catalogue entries, stock, prices and preferences; kit lists; comparing."""

from __future__ import annotations

from typing import Annotated

from annotated_types import MaxLen

from bendrel.api.rooms import room
from bendrel.api.state import At, IfAt, Services
from bendrel.catalogue.own import FIELDS, NOTE, OwnField, ShelfName
from bendrel.core.line.document import Line
from bendrel.core.plan.compare import Choice, compare
from bendrel.core.record import record
from bendrel.services.job.kits import KitList, KitRow
from bendrel.services.shelf.shelf import Held, OwnDraft, OwnRow, ShopWays
from bendrel.services.shelf.tubes import tube_of

router = room("/api", "shelf")

Answers = dict[Annotated[str, MaxLen(40)], Annotated[str, MaxLen(40)]]


@record
class OwnShelf:
    """The form of one shelf and the rows the shop has put there."""

    shelf: ShelfName
    fields: tuple[OwnField, ...]
    rows: tuple[OwnRow, ...]


@record
class PricedChoice:
    """One complete choice with what it costs and what of it is in stock."""

    choice: Choice
    cents: int
    unpriced: int
    in_stock: tuple[str, ...]
    short: tuple[str, ...]


@record
class SupplierState:
    """Whether the simulated supplier answers."""

    answers: bool


@router.get("/own")
def own(services: Services) -> tuple[OwnShelf, ...]:
    """All of the shop's own entries with the forms for new ones."""
    rows = services.shelf.own()
    return tuple(
        OwnShelf(shelf=shelf, fields=(*fields, NOTE), rows=tuple(r for r in rows if r.shelf == shelf))
        for shelf, fields in FIELDS.items()
    )


@router.post("/own", status_code=201)
def add_own(draft: OwnDraft, services: Services) -> OwnRow:
    """A new entry of the shop's own."""
    return services.shelf.add(draft)


@router.put("/own/{entry_id}")
def change_own(entry_id: str, draft: OwnDraft, version: At, services: Services) -> OwnRow:
    """Correct an entry that was read at a version."""
    return services.shelf.change(entry_id, draft, version)


@router.delete("/own/{entry_id}", status_code=204)
def remove_own(entry_id: str, services: Services, version: IfAt = None) -> None:
    """Take an entry out; it can be put back."""
    services.shelf.remove(entry_id, version)


@router.post("/own/{entry_id}/restore", status_code=204)
def restore_own(entry_id: str, services: Services) -> None:
    """Put an entry back."""
    services.shelf.remove(entry_id, back=True)


@router.get("/holdings")
def holdings(services: Services) -> tuple[Held, ...]:
    """What the shop has, at what price."""
    return tuple(services.shelf.holdings().values())


@router.put("/holdings")
def hold(held: Held, services: Services) -> Held:
    """Set what the shop has of one row and what it pays; `version` is the one that was read."""
    return services.shelf.hold(held, held.version)


@router.put("/preferences")
def prefer(answers: Answers, version: At, services: Services) -> ShopWays:
    """The shop's answers where practitioners differ, from the version of them that was read."""
    return services.shelf.prefer(answers, version)


@router.post("/kit")
def kit_of_line(document: Line, services: Services) -> KitList:
    """The kit list of a line as typed."""
    return services.kits.of_line(document)


@router.get("/jobs/{job_id}/kit")
def kit_of_job(job_id: str, services: Services) -> KitList:
    """The kit list of a whole job."""
    return services.kits.of_job(job_id)


@router.post("/compare")
def compare_choices(document: Line, services: Services, span: str = "") -> tuple[PricedChoice, ...]:
    """Complete choices for a line side by side; taking one is a separate step."""
    return tuple(_priced(choice, services) for choice in compare(tube_of(document, span), services.kit))


@router.put("/standins/supplier")
def set_supplier(state: SupplierState, services: Services) -> SupplierState:
    """Let the simulated supplier answer or not."""
    services.supplier.answers = state.answers
    return state


@router.get("/standins/supplier")
def supplier(services: Services) -> SupplierState:
    """Whether the simulated supplier answers."""
    return SupplierState(answers=services.supplier.answers)


def _priced(choice: Choice, services: Services) -> PricedChoice:
    made = ("tube:", "nut:", "sleeve:", "eye:")  # what differs from choice to choice
    priced = services.kits.priced(need for need in choice.needs if need.ref.startswith(made))

    def names(rows: list[KitRow]) -> tuple[str, ...]:
        return tuple(row.need.what for row in rows)

    return PricedChoice(
        choice=choice,
        cents=priced.total_cents,
        unpriced=priced.unpriced,
        in_stock=names([row for row in priced.rows if row.short == 0]),
        short=names([row for row in priced.rows if row.short > 0]),
    )
