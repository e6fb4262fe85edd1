"""What was read of a hose by hand: a pattern, how its elbows stand, a bought one that is held against it."""

from __future__ import annotations

from typing import Literal

from bendrel.core.line.document import HoseSpan
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_degrees


@record
class PatternRead:
    """What a wire or the old hose said, in mm: length, tightest radius of its middle and how far that is
    from end A; None while not read."""

    by: Literal["wire", "old hose"]
    was: str
    length_mm: float | None
    radius_mm: float | None
    at_mm: float | None


@record
class BoughtRead:
    """What was read of a bought hose: over all in mm, how its elbows stand in degrees; None while blank."""

    length_mm: float | None
    clock_deg: float | None


def pattern_of(piece: HoseSpan, problems: list[Problem]) -> PatternRead | None:
    """The readings of a wire or the old hose."""
    read = piece.pattern
    if read is None:
        return None

    def mm(name: str, reading: Length) -> float | None:
        return read_mm(reading, span_path(piece.id, "pattern", name), problems)

    length, radius, at = mm("length", read.length), mm("radius", read.radius), mm("at", read.at)
    if length is not None and at is not None and at > length:
        message = f"This lies beyond end B: the {read.by} is {read.length.text} long."
        problems.append(Problem(path=span_path(piece.id, "pattern", "at"), message=message))
        at = None
    return PatternRead(by=read.by, was=read.was, length_mm=length, radius_mm=radius, at_mm=at)


def clock_of(piece: HoseSpan, problems: list[Problem]) -> float | None:
    """How two elbows stand to each other as it was typed, in degrees."""
    return _degrees(piece, piece.clock, "clock", problems=problems)


def _degrees(piece: HoseSpan, text: str, *steps: str, problems: list[Problem]) -> float | None:
    if not text.strip():
        return None
    try:
        return parse_degrees(text) % 360.0
    except UnitError as error:
        problems.append(Problem(path=span_path(piece.id, *steps), message=str(error)))
        return None


def bought_of(piece: HoseSpan, problems: list[Problem]) -> BoughtRead | None:
    """The readings of a bought hose."""
    read = piece.bought
    if read is None:
        return None
    length = read_mm(read.length, span_path(piece.id, "bought", "length"), problems)
    return BoughtRead(
        length_mm=length, clock_deg=_degrees(piece, read.clock, "bought", "clock", problems=problems)
    )


def read_mm(reading: Length, path: str, problems: list[Problem]) -> float | None:
    """A length as typed, in mm; None where it is blank, and where it cannot be read: that is a problem at
    `path`."""
    if is_blank(reading):
        return None
    try:
        return length_mm(reading)
    except UnitError as error:
        problems.append(Problem(path=path, message=str(error)))
        return None
