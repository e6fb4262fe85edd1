"""What the readings are worth, and how the checks agree with them."""

from __future__ import annotations

from collections.abc import Callable
from math import acos, degrees, hypot
from typing import Literal, TypeVar

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector, dot
from bendrel.core.line.bought import BoughtPart, compare_bought
from bendrel.core.line.checks import way_from_a
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem
from bendrel.core.measure.doubt import Doubt, ReadingErrors, doubt_of, spread_of
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import Outcome, outcome
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import is_blank, length_mm
from bendrel.core.units.notation import UnitError, parse_plane, parse_tilt
from bendrel.core.units.quantities import parse_way

T = TypeVar("T")
CheckKind = Literal["wire", "tape", "way A", "way B"]


@record
class Check:
    """One check against the readings: in mm for wire and tape, in degrees for a way, where `given`
    is 0 and `computed` how far the readings point away. `allowed` is what the reading errors of
    both can do in 95 of 100 cases."""

    kind: CheckKind
    given: float
    computed: float
    allowed: float

    @property
    def agrees(self) -> bool:
        """Within what tape and gauge can tell."""
        return abs(self.given - self.computed) <= self.allowed


@record
class Measured:
    """The doubt of the shape, every check that was taken, and checks that cannot be read."""

    doubt: Doubt | None
    checks: tuple[Check, ...]
    disagree: bool
    bought: BoughtPart | None
    problems: tuple[Problem, ...]


def reading_errors(kit: Kit) -> ReadingErrors:
    """The shop's reading errors from the catalogue."""
    limits = kit.limits
    return ReadingErrors(
        length_mm=limits["reading_mm"].value,
        angle_deg=limits["reading_deg"].value,
        gross_mm=limits["gross_mm"].value,
        gross_deg=limits["gross_deg"].value,
    )


def measure(span: RigidSpan, kit: Kit, read: ReadBends | Corners | None) -> Measured:
    """Judge the readings of one rigid span; `read` is None while they cannot be read."""
    given, problems = given_checks(span)
    if read is None:
        return Measured(doubt=None, checks=(), disagree=False, bought=None, problems=problems)
    errors = reading_errors(kit)
    bought: BoughtPart | None = None
    if span.bought and isinstance(read, ReadBends):
        bought = compare_bought(span, read, errors)
    try:
        made, doubt = outcome(read), doubt_of(spread_of(read, errors))
    except ShapeError:
        return Measured(doubt=None, checks=(), disagree=False, bought=None, problems=problems)
    checks = tuple(_compared(given, made, doubt, errors))
    return Measured(
        doubt=doubt,
        checks=checks,
        disagree=any(not check.agrees for check in checks),
        bought=bought,
        problems=problems,
    )


def _compared(given: Given, made: Outcome, doubt: Doubt, errors: ReadingErrors) -> list[Check]:
    length = errors.length_mm
    found = []
    if given.wire_mm is not None:
        allowed = hypot(doubt.developed_mm, length)
        found.append(Check(kind="wire", given=given.wire_mm, computed=made.developed_mm, allowed=allowed))
    if given.tape_mm is not None:
        allowed = hypot(doubt.tape_mm, length)
        found.append(Check(kind="tape", given=given.tape_mm, computed=made.tape_mm, allowed=allowed))
    ways: tuple[tuple[CheckKind, Vector | None, Vector], ...] = (
        ("way A", given.way_a, made.way_a),
        ("way B", given.way_b, made.way_b),
    )
    for kind, wanted, got in ways:
        if wanted is not None:
            off = degrees(acos(max(-1.0, min(1.0, dot(wanted, got)))))
            allowed = hypot(doubt.way_b_deg, 2 * errors.angle_deg)
            found.append(Check(kind=kind, given=0.0, computed=off, allowed=allowed))
    return found


def given_checks(span: RigidSpan) -> tuple[Given, tuple[Problem, ...]]:
    """The checks as numbers, and those that cannot be read."""
    checks = span.checks
    problems: list[Problem] = []

    def read(path: str, blank: bool, parse: Callable[[], T]) -> T | None:
        if blank:
            return None
        try:
            return parse()
        except UnitError as error:
            problems.append(Problem(path=span_path(span.id, "checks", path), message=str(error)))
            return None

    wire = read("wire", is_blank(checks.wire), lambda: length_mm(checks.wire))
    tape = read("tape", is_blank(checks.tape), lambda: length_mm(checks.tape))
    way_a: Vector | None = None
    way_b: Vector | None = None
    if span.readings.kind == "corners":
        way_a = read("way_a", not checks.way_a.strip(), lambda: parse_way(checks.way_a))
        way_b = read("way_b", not checks.way_b.strip(), lambda: parse_way(checks.way_b))
    elif checks.port_b_angle.text.strip():
        tilt = read("port_b_angle", False, lambda: parse_tilt(checks.port_b_angle.text))
        text = checks.port_b_clock.text
        clock = read("port_b_clock", tilt in (None, 0.0, 180.0), lambda: _clock(text))
        if tilt is not None and (clock is not None or tilt in (0.0, 180.0)):
            way_b = way_from_a(tilt, clock or 0.0)
    return Given(wire_mm=wire, tape_mm=tape, way_a=way_a, way_b=way_b), tuple(problems)


def _clock(text: str) -> float:
    kind, value = parse_plane(text, "clock")
    if kind != "clock":
        raise UnitError(f"“{text[:25]}” is not a clock time; write it as seen from end A, such as 3:00.")
    return value
