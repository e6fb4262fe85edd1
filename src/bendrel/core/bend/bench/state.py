"""What a person keeps of a part while making it."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from annotated_types import MaxLen

from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.bend.told.flared import MadeFlare
from bendrel.core.bend.told.offered import MOST_OFFERS, TypedOffer
from bendrel.core.record import record
from bendrel.core.units.lengths import Text

Ended = Literal["good", "scrap", "given up"]
Outcome = Ended | Literal[""]


@record
class Spell:
    """A stretch of work, both ends in ISO 8601; `stop` is blank while it runs."""

    start: Annotated[str, MaxLen(40)]
    stop: Annotated[str, MaxLen(40)] = ""


@record
class MakingState:
    """Where the person stands: the steps that are done, the bends and flares with their readings, the trial
    fits, the work."""

    done: Annotated[tuple[Annotated[str, MaxLen(40)], ...], MaxLen(300)] = ()
    made: Annotated[tuple[MadeBend, ...], MaxLen(200)] = ()
    flares: Annotated[tuple[MadeFlare, ...], MaxLen(2)] = ()
    offers: Annotated[tuple[TypedOffer, ...], MaxLen(MOST_OFFERS)] = ()
    spells: Annotated[tuple[Spell, ...], MaxLen(500)] = ()
    booked_minutes: int = 0
    note: Text = ""


def worked_minutes(state: MakingState) -> float:
    """What was worked so far, in minutes; a spell that nobody stopped, and one that cannot be read, do not
    count."""
    return sum(_minutes(spell) for spell in state.spells)


def _minutes(spell: Spell) -> float:
    try:
        start, stop = datetime.fromisoformat(spell.start), datetime.fromisoformat(spell.stop)
        return max(0.0, (stop - start).total_seconds() / 60)
    except (ValueError, TypeError):
        return 0.0
