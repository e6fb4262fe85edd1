"""A trial fit as a person types it."""

from __future__ import annotations

from functools import partial
from typing import Annotated

from annotated_types import MaxLen

from bendrel.core.bend.told.trial import Offer
from bendrel.core.bend.told.unknowns import Act
from bendrel.core.findings import EndName
from bendrel.core.line.landed import ByHand, LandingField, TypedLanding, read_landing
from bendrel.core.record import record

MOST_OFFERS = 30


@record
class TypedOffer(TypedLanding):
    """Where the end that `lands` lies when the part is offered to its ports with the other one home, as
    typed. `then` is what was done after it."""

    lands: EndName = "B"
    then: Annotated[tuple[Act, ...], MaxLen(8)] = ()


@record
class Unreadable:
    """A field of a trial fit that cannot be read: which one of all, and one sentence."""

    index: int
    name: LandingField
    message: str


def read_offers(
    typed: tuple[TypedOffer, ...], by_hand: ByHand, od_mm: float
) -> tuple[tuple[Offer, ...], tuple[Unreadable, ...]]:
    """All trial fits as figures; what cannot be read is left out of its trial fit and comes back."""
    offers: list[Offer] = []
    wrong: list[Unreadable] = []

    def unread(index: int, name: LandingField, message: str) -> None:
        wrong.append(Unreadable(index=index, name=name, message=message))

    for index, item in enumerate(typed):
        landing = read_landing(item, by_hand, od_mm, partial(unread, index))
        offers.append(Offer(**vars(landing), lands=item.lands, then=item.then))
    return tuple(offers), tuple(wrong)
