"""What a flare is that came out: its width against the range, and what those that failed have cost."""

from __future__ import annotations

from math import floor
from typing import Literal

from bendrel.core.bend.told.flared import MadeFlare
from bendrel.core.findings import EndName
from bendrel.core.parts.flaring import Flaring
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, UnitError, format_length, format_small, parse_length

FlareVerdict = Literal["", "right", "too small", "too wide", "no range is known", "cannot be read"]
_WIDEST = 3.0
"""No flare is so many times as wide as its tube: what reads more was misread. Source: common practice."""
_EXACT_MM = 1e-9


@record
class FlareStands:
    """What a flare is that was read: its verdict ("" while nothing was read), in words, and what its failures
    have cost."""

    end: EndName
    verdict: FlareVerdict
    text: str
    lost: str


def flare_stands(flaring: Flaring, made: MadeFlare, unit: Unit) -> FlareStands:
    """What was noted of a flare, against how it is to be."""
    verdict, text = _across(flaring, made, unit)
    return FlareStands(end=flaring.end, verdict=verdict, text=text, lost=_lost(flaring, made.failed, unit))


def _across(flaring: Flaring, made: MadeFlare, unit: Unit) -> tuple[FlareVerdict, str]:
    if not made.across.strip():
        return "", ""
    try:
        across = parse_length(made.across, made.unit)
    except UnitError as error:
        return "cannot be read", str(error)
    said, tube = format_small(across, unit), format_small(flaring.od_mm, unit)
    if not flaring.od_mm < across < _WIDEST * flaring.od_mm:
        return "cannot be read", f"{said} is no flare on a tube of {tube}: measure across its rim."
    least, most = flaring.least_mm, flaring.most_mm
    if least is None or most is None:
        known = f"No range is known for this size: hold its {said} against the old end and its seat."
        return "no range is known", known
    limits = f"{format_small(least, unit)} to {format_small(most, unit)} is right"
    if across < least - _EXACT_MM:
        return "too small", f"{said} is too small to hold and seal, {limits}: press it home, or cut it off."
    if across > most + _EXACT_MM:
        return (
            "too wide",
            f"{said} is too wide, {limits}: its rim is thin and catches in the nut. Cut it off.",
        )
    return "right", f"{said}: {limits}."


def _lost(flaring: Flaring, failed: int, unit: Unit) -> str:
    one, spare = flaring.lost_mm, flaring.spare_mm
    short = failed * one - spare

    def said(mm: float) -> str:
        return format_length(mm, unit)

    if not failed and spare > 0:
        often = floor(spare / one + 1e-9)
        has = "is less than that" if not often else f"is enough for {'one' if often == 1 else often}"
        return f"One that fails is cut off and costs {said(one)}: the spare of {said(spare)} {has}."
    if not failed:
        return f"One that fails is cut off: the part is {said(one)} short then.{_room(flaring, 0)}"
    times = {1: "Once", 2: "Twice"}.get(failed, f"{failed} times")
    if short <= 0:
        return f"{times} cut off: {said(failed * one)} are gone, the spare has {said(-short)} left."
    return f"{times} cut off: the part is {said(short)} short.{_room(flaring, failed)}"


def _room(flaring: Flaring, failed: int) -> str:
    """Whether the bend is in the way of another try."""
    if flaring.failures is None:
        return ""
    more = flaring.failures - failed
    if more <= 0:
        return " There is no straight for another: the bend is in the way."
    return f" The straight has room for {'one' if more == 1 else more} more before the bend is in the way."
