"""A bought, ready-bent part held against the old line by a few readings."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace
from math import acos, degrees

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.centreline import Frame, end_frame
from bendrel.core.geometry.vectors import dot, length, subtract
from bendrel.core.line.document import PartReading, RigidSpan
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem
from bendrel.core.measure.adjust import Trust, adjust
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.legs import ReadBends, shape_of
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import outcome
from bendrel.core.measure.slots import Slot, changed, value_of
from bendrel.core.record import record
from bendrel.core.units.lengths_error import said_in
from bendrel.core.units.notation import UnitError, normalised_turn, parse_angle, parse_length, parse_plane


@record
class Compared:
    """One reading of the part against the old line's, in mm or degrees; `allowed` is what two
    readings of one thing can differ by."""

    index: int
    part: float
    line: float
    off: float
    allowed: float
    degrees: bool


@record
class BoughtPart:
    """Every comparison, and where end B of the part lies against the old line's: mm and degrees.
    `end_b_mm` is None while nothing that moves it has been read."""

    compared: tuple[Compared, ...]
    end_b_mm: float | None
    way_b_deg: float | None
    problems: tuple[Problem, ...]


def compare_bought(span: RigidSpan, read: ReadBends, errors: ReadingErrors) -> BoughtPart:
    """Hold the readings of a bought part against the same readings of the old line.

    What was not read of it is the old line's, as far as what was read across it lets it be: the part is
    adjusted as a line is (`core/measure/adjust`), with its own readings held. Raises nothing.
    """
    problems: list[Problem] = []
    compared: list[Compared] = []
    part, given, own = read, Given(), set[Slot]()
    rows = tuple(row.id for row in span.readings.rows)
    for index, reading in enumerate(span.bought):
        if not reading.text.strip():
            continue
        try:
            found, slot = _one(reading, index, rows, read, errors)
        except (UnitError, ShapeError) as error:
            problems.append(
                Problem(path=span_path(span.id, "bought", index), message=said_in(error, reading.unit))
            )
            continue
        compared.append(found)
        if reading.kind == "rim to rim":
            given = replace(given, tape_mm=found.part)
        elif reading.kind == "whole length":
            given = replace(given, wire_mm=found.part)
        elif slot is not None:
            moved = changed(part, slot, found.off)
            part = moved if isinstance(moved, ReadBends) else part
            own.add(slot)
    end_mm, way_deg = _end(read, part, given, own, errors) if own or given != Given() else (None, None)
    return BoughtPart(compared=tuple(compared), end_b_mm=end_mm, way_b_deg=way_deg, problems=tuple(problems))


def _one(
    reading: PartReading, index: int, rows: tuple[str, ...], read: ReadBends, errors: ReadingErrors
) -> tuple[Compared, Slot | None]:
    made = outcome(read)
    slot: Slot | None = None
    if reading.kind in ("rim to rim", "whole length"):
        line = made.tape_mm if reading.kind == "rim to rim" else made.developed_mm
        return _compared(index, parse_length(reading.text, reading.unit), line, errors, angle=False), None
    count = len(read.bends)
    k = rows.index(reading.row) if reading.row in rows else count
    if (reading.row or reading.kind != "leg") and k == count:
        raise UnitError(f"The line has no such {reading.kind} any more; say which one was read.")
    if reading.kind == "leg":
        slot = Slot(row=k, field="last" if k == count else "length")
        found = _compared(
            index, parse_length(reading.text, reading.unit), value_of(read, slot), errors, angle=False
        )
    elif reading.kind == "bend":
        slot = Slot(row=k, field="angle")
        angle = shape_of(read).bends[k].angle_deg
        found = _compared(index, parse_angle(reading.text), angle, errors, angle=True)
        if read.bends[k].angle_deg is None:
            slot = None
    else:
        if k == 0:
            raise UnitError("The plane of bend 1 is 12:00 by itself; read another bend's.")
        slot = Slot(row=k, field="plane")
        kind, value = parse_plane(reading.text, reading.by)
        shape = shape_of(read)
        line = shape.clocks_deg[k] if kind == "clock" else shape.bends[k].rotation_deg
        off = normalised_turn(value - line)
        found = _compared(index, line + off, line, errors, angle=True)
    return found, slot


def _compared(index: int, part: float, line: float, errors: ReadingErrors, *, angle: bool) -> Compared:
    error = errors.angle_deg if angle else errors.length_mm
    return Compared(index=index, part=part, line=line, off=part - line, allowed=2 * error, degrees=angle)


def _end(
    read: ReadBends, part: ReadBends, given: Given, own: Collection[Slot], errors: ReadingErrors
) -> tuple[float | None, float | None]:
    try:
        found = adjust(part, given, errors, Trust(held=frozenset(own))).read
        old, new = end_frame(outcome(read).shape), end_frame(outcome(found).shape)
    except ShapeError:
        return None, None
    return length(subtract(new.point, old.point)), _between(old, new)


def _between(a: Frame, b: Frame) -> float:
    return degrees(acos(max(-1.0, min(1.0, dot(a.way, b.way)))))
