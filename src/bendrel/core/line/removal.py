"""What came off, in the order it came off, and what the machine had to be set to for it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal, TypeVar

from annotated_types import Ge, Le, MaxLen

from bendrel.core.findings import EndName
from bendrel.core.ids import Id
from bendrel.core.parts.apart import ApartEnd
from bendrel.core.parts.single_use import ItemKind
from bendrel.core.record import record
from bendrel.core.units.lengths import PhotoId, Text

Fate = Literal["reuse", "replace", "should be here and is not", "out for good"]
"""What becomes of a thing; what is out for good is neither refitted nor bought."""
OldFluid = Literal["not looked at", "clean, goes back", "dirty or burnt", "changed on purpose"]
OpenKind = Literal["temporary tie", "better clamp", "tray left off", "missing hold-down", "other"]

Note = Annotated[str, MaxLen(400)]


@record
class RemovedItem:
    """One thing that came off, or that should have been there; `wrench` as stamped on it."""

    kind: ItemKind = "bolt"
    what: Text = ""
    wrench: Annotated[str, MaxLen(30)] = ""
    count: Annotated[int, Ge(1), Le(999)] = 1
    where: Text = ""
    fate: Fate = "reuse"
    note: Note = ""
    photo: PhotoId = ""
    refitted: bool = False


@record
class TakenApart:
    """One old end that was worked on: what was `tried` (ids of the catalogue), how long, and how it ended."""

    end: EndName
    tried: Annotated[tuple[Id, ...], MaxLen(20)] = ()
    how_long: Text = ""
    ended: Literal[ApartEnd, ""] = ""


@record
class Removal:
    """The log. `done` holds the ids of the steps and plugs that have been ticked off; `fluid` says what
    becomes of the fluid that was drained; `hose_shut` that a hose is clamped shut, `apart` how the old
    ends came off."""

    items: Annotated[tuple[RemovedItem, ...], MaxLen(200)] = ()
    machine_state: Annotated[tuple[Text, ...], MaxLen(20)] = ()
    two_people: bool = False
    went_out: Text = ""
    volume: Annotated[str, MaxLen(20)] = ""
    fluid: OldFluid = "not looked at"
    done: Annotated[tuple[Annotated[str, MaxLen(40)], ...], MaxLen(60)] = ()
    hose_shut: bool = False
    apart: Annotated[tuple[TakenApart, ...], MaxLen(2)] = ()


@record
class OpenItem:
    """Something left for later, with who does it and by when (an ISO date, or blank)."""

    kind: OpenKind = "other"
    what: Text = ""
    person: Annotated[str, MaxLen(60)] = ""
    due: Annotated[str, MaxLen(10)] = ""
    closed: bool = False


@record
class RefitStep:
    """One step of putting it back: the item's place in the removal log, and the words for it."""

    item: int
    text: str
    done: bool


@record
class PartToGet:
    """A part that has to be bought: what, how many, and why. `kind` is its kind in the log, None of a
    clip or sleeve that was found wanting on the line."""

    what: str
    count: int
    because: str
    kind: ItemKind | None = None


Item = TypeVar("Item", bound=RemovedItem)


def goes_back(items: Iterable[Item]) -> list[Item]:
    """What is not out for good."""
    return [item for item in items if item.fate != "out for good"]


def not_back(items: Iterable[Item]) -> list[Item]:
    """What is still on the bench."""
    return [item for item in goes_back(items) if not item.refitted]


def refit_steps(removal: Removal) -> tuple[RefitStep, ...]:
    """The log backwards: what came off last goes on first; what is out for good stays out."""
    steps = []
    for index in range(len(removal.items) - 1, -1, -1):
        item = removal.items[index]
        if item.fate == "out for good":
            continue
        steps.append(RefitStep(item=index, text=refit_words(item), done=item.refitted))
    return tuple(steps)


def refit_words(item: RemovedItem) -> str:
    """How a thing goes back: how many, new or not, where, and with which wrench; what was only moved aside is
    looked at again."""
    new = "" if item.fate == "reuse" else "new "
    wrench = f", {item.wrench} wrench" if item.wrench.strip() else ""
    where = f", {item.where.strip()}" if item.where.strip() else ""
    if item.kind == "moved aside":
        what = item.what.strip() or "what was moved aside"
        return f"look again at {what}{where}: seated, held, nothing pinched"
    return f"{counted(item, new)}{where}{wrench}"


def left_over(removal: Removal) -> tuple[str, ...]:
    """What is still on the bench once refitting is under way."""
    return tuple(counted(item, "") for item in not_back(removal.items))


def parts_to_get(removal: Removal) -> tuple[PartToGet, ...]:
    """Everything in the log that is not fit for use again or was not there."""
    return parts_of(removal.items)


def parts_of(items: Iterable[RemovedItem]) -> tuple[PartToGet, ...]:
    """What has to be bought of `items`."""
    reasons: dict[Fate, str] = {"replace": "not to be used again", "should be here and is not": "not there"}
    return tuple(
        PartToGet(what=_name(item), count=item.count, because=reasons[item.fate], kind=item.kind)
        for item in items
        if item.fate in reasons
    )


def counted(item: RemovedItem, new: str) -> str:
    """A thing with how many of it, `new` ("new " or "") before its name."""
    return f"{item.count} × {new}{_name(item)}" if item.count > 1 else f"{new}{_name(item)}"


def _name(item: RemovedItem) -> str:
    what = item.what.strip()
    return f"{item.kind} {what}" if what else item.kind
