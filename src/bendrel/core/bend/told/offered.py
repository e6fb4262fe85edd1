"""A trial fit as a person types it."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import MaxLen

from bendrel.core.bend.told.trial import Offer
from bendrel.core.bend.told.unknowns import Act
from bendrel.core.record import record
from bendrel.core.units.lengths import Text
from bendrel.core.units.notation import PlaneSchool, Unit, UnitError, parse_length, parse_plane, parse_tilt

OfferField = Literal["along", "off", "off_clock", "tilt", "tilt_clock"]
TOUCHES = ("touches", "touch", "home")
MOST_OFFERS = 30


@record
class TypedOffer:
    """Where end B lies when the part is offered to its ports, as typed; blank where nothing was read. A
    length may be `touches`, or so many `tubes` (tube's thicknesses, told by eye). `along` is too long, or
    too short where `short` says so. Clocks are seen from A. `then` is what was done after it."""

    along: Text = ""
    short: bool = False
    off: Text = ""
    off_clock: Text = ""
    tilt: Text = ""
    tilt_clock: Text = ""
    plane_by: PlaneSchool = ""
    unit: Unit = "mm"
    then: Annotated[tuple[Act, ...], MaxLen(8)] = ()


@record
class Unreadable:
    """A field of a trial fit that cannot be read: which one of all, and one sentence."""

    index: int
    name: OfferField
    message: str


@record
class ByHand:
    """One standard deviation of a trial fit's readings: of a length (mm), of a lean (degrees), and of a
    length told by eye as a share of it."""

    mm: float
    deg: float
    eye_share: float


def read_offers(
    typed: tuple[TypedOffer, ...], by_hand: ByHand, od_mm: float
) -> tuple[tuple[Offer, ...], tuple[Unreadable, ...]]:
    """All trial fits as figures; what cannot be read is left out of its trial fit and comes back."""
    offers: list[Offer] = []
    wrong: list[Unreadable] = []
    for index, item in enumerate(typed):
        offer, unread = _read(index, item, by_hand, od_mm)
        offers.append(offer)
        wrong += unread
    return tuple(offers), tuple(wrong)


def _read(
    index: int, item: TypedOffer, by_hand: ByHand, od_mm: float
) -> tuple[Offer, tuple[Unreadable, ...]]:
    wrong: list[Unreadable] = []
    error = by_hand.mm

    def length(name: OfferField, text: str) -> float | None:
        nonlocal error
        if not text.strip():
            return None
        try:
            value, by_eye = _length(text, item.unit, od_mm)
        except UnitError as problem:
            wrong.append(Unreadable(index=index, name=name, message=str(problem)))
            return None
        if by_eye:
            error = max(error, by_hand.eye_share * value)
        return value

    def clock(name: OfferField, text: str) -> float | None:
        if not text.strip():
            return None
        try:
            kind, turn = parse_plane(text, item.plane_by)
            if kind == "rotation" and item.plane_by != "degrees":
                raise UnitError(f"“{text.strip()}” is no clock; write it as seen from A, such as 3:00.")
            return turn
        except UnitError as problem:
            wrong.append(Unreadable(index=index, name=name, message=str(problem)))
            return None

    along = length("along", item.along)
    off = length("off", item.off)
    tilt: float | None = None
    try:
        if item.tilt.strip():
            tilt = 0.0 if item.tilt.strip().lower() in (*TOUCHES, "square") else parse_tilt(item.tilt)
            if tilt > 80:
                raise UnitError(
                    f"“{item.tilt.strip()}”: more than 80° is another part; write how far it leans."
                )
    except UnitError as problem:
        tilt = None
        wrong.append(Unreadable(index=index, name="tilt", message=str(problem)))
    return Offer(
        along_mm=None if along is None else (-along if item.short else along),
        off_mm=off,
        off_clock_deg=0.0 if off == 0 else clock("off_clock", item.off_clock),
        tilt_deg=tilt,
        tilt_clock_deg=0.0 if tilt == 0 else clock("tilt_clock", item.tilt_clock),
        mm_error=error,
        deg_error=by_hand.deg,
        then=item.then,
    ), tuple(wrong)


def _length(text: str, unit: Unit, od_mm: float) -> tuple[float, bool]:
    """(mm, told by eye)."""
    said = text.strip().lower()
    if said in TOUCHES:
        return 0.0, False
    number, _, word = said.partition(" ")
    if word in ("tube", "tubes"):
        return parse_length(number, "mm") * od_mm, True
    return parse_length(text, unit, "not_negative"), False
