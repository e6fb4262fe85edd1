"""Trial fits as a file: what was read of the bends and of end B, and what was done."""

from __future__ import annotations

from typing import Annotated

from annotated_types import Ge, Gt, Le, MaxLen
from pydantic import TypeAdapter, ValidationError
from pydantic_core import from_json

from bendrel.core.bend.told.offered import MOST_OFFERS
from bendrel.core.bend.told.trial import Offer
from bendrel.core.record import record
from bendrel.exchange.documents.wrong import first_error
from bendrel.exchange.errors import FileError


@record
class ReadBend:
    """One bend as it came out: its angle, and its clock from the plane of bend 1; None was not read."""

    bend: Annotated[int, Ge(1), Le(1000)]
    angle_deg: Annotated[float, Gt(0), Le(360)] | None = None
    plane_deg: Annotated[float, Ge(-3600), Le(3600)] | None = None


@record
class FitFile:
    """`made` are the bends that were read, `rounds` the trial fits in the order they were made."""

    made: Annotated[tuple[ReadBend, ...], MaxLen(1000)] = ()
    rounds: Annotated[tuple[Offer, ...], MaxLen(1000)] = ()


_FILE = TypeAdapter(FitFile)


def read_fit(data: bytes, bends: int) -> FitFile:
    """A fit of a part with so many bends. Raises FileError with one sentence."""
    try:
        value = from_json(data, allow_inf_nan=False)
    except ValueError as error:
        raise FileError("This is no fit: the text is not valid JSON.") from error
    if not isinstance(value, dict):
        raise FileError('This is no fit: an object with "made" and "rounds" is accepted.')
    try:
        found = _FILE.validate_python(value)
    except ValidationError as error:
        raise FileError(first_error(error, "a fit")) from error
    if len(found.rounds) > MOST_OFFERS:
        raise FileError(f"rounds: there are {len(found.rounds)}; up to {MOST_OFFERS} are accepted.")
    numbers = [item.bend for item in found.made]
    for number in numbers:
        if number > bends:
            raise FileError(f"made: there is no bend {number}; this part has {bends}.")
        if numbers.count(number) > 1:
            raise FileError(f"made: bend {number} stands there twice; give its last reading.")
    for place, offer in enumerate(found.rounds, start=1):
        for act in offer.then:
            if act.at > (bends if act.kind == "bend" else bends + 1):
                raise FileError(
                    f"rounds › {place}: there is no {act.kind} at {act.at}; the part has {bends} bends."
                )
    return found
