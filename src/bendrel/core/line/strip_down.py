"""What comes off once for all lines of a job: covers, wheels, brackets, and what each line needs of it."""

from __future__ import annotations

from collections import Counter
from typing import Annotated

from annotated_types import MaxLen, MinLen

from bendrel.core.line.removal import (
    PartToGet,
    RemovedItem,
    counted,
    goes_back,
    not_back,
    parts_of,
    refit_words,
)
from bendrel.core.record import record

ItemId = Annotated[str, MinLen(1), MaxLen(40)]
LineId = Annotated[str, MaxLen(40)]


@record
class SharedItem(RemovedItem):
    """One thing of the job's strip-down. `lines` are the ids of the lines that it had to come off for; none
    means every line of the job."""

    id: ItemId
    lines: Annotated[tuple[LineId, ...], MaxLen(100)] = ()


@record
class StripDown:
    """The one log of a job, in the order things came off."""

    items: Annotated[tuple[SharedItem, ...], MaxLen(200)] = ()


@record
class SharedStep:
    """One step of putting it back, by the item's id."""

    item: str
    text: str
    lines: tuple[str, ...]
    done: bool


def steps_back(log: StripDown) -> tuple[SharedStep, ...]:
    """The log backwards: what came off last goes on first; what is out for good stays out."""
    return tuple(
        SharedStep(item=item.id, text=refit_words(item), lines=item.lines, done=item.refitted)
        for item in reversed(goes_back(log.items))
    )


def still_off(log: StripDown) -> tuple[str, ...]:
    """What is still on the bench."""
    return tuple(counted(item, "") for item in not_back(log.items))


def parts_for(log: StripDown) -> tuple[PartToGet, ...]:
    """Everything in the log that is not fit for use again or was not there: bought once for the job."""
    return parts_of(log.items)


def repeated_ids(log: StripDown) -> tuple[str, ...]:
    """Ids that more than one thing carries; a log that has any is refused."""
    return tuple(name for name, times in Counter(item.id for item in log.items).items() if times > 1)
