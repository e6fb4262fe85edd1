"""What the readings are worth, and how the checks agree with them."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from functools import partial
from math import acos, degrees, hypot, sqrt
from typing import Literal, TypeVar

from bendrel.core.geometry.bends import ShapeError
from bendrel.core.geometry.corners import Corners
from bendrel.core.geometry.vectors import Vector, dot, subtract
from bendrel.core.geometry.vectors import length as length_of
from bendrel.core.line.bought import BoughtPart, compare_bought
from bendrel.core.line.checks import way_from_a
from bendrel.core.line.document import RigidSpan
from bendrel.core.line.paths import readings_path, span_path
from bendrel.core.line.resolve import Problem, slot_path
from bendrel.core.measure.adjust import Adjusted, Trust, adjust, expected
from bendrel.core.measure.doubt import Doubt
from bendrel.core.measure.errors import ReadingErrors
from bendrel.core.measure.explain import name_of
from bendrel.core.measure.legs import ReadBends
from bendrel.core.measure.observed import Given
from bendrel.core.measure.outcome import Outcome, outcome
from bendrel.core.measure.slots import Slot, SlotKind, slots, value_of
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import is_blank, length_mm
from bendrel.core.units.notation import UnitError, parse_plane, parse_tilt
from bendrel.core.units.quantities import parse_way

T = TypeVar("T")
TrustWord = Literal["", "held", "left out"]
CheckKind = Literal["wire", "tape", "way A", "way B", "place B"]


@record
class Check:
    """One check against the readings: in mm for wire, tape and place, in degrees for a way. Of a place and
    a way `given` is 0 and `computed` how far the readings are away. `allowed` is what the reading errors of
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
class TakenReading:
    """One reading where all are adjusted together: its pointer in the document, what was read and what was
    taken, and what 95 of 100 are within; in mm or degrees. `trust` is what a person says of it."""

    path: str
    name: str
    kind: SlotKind
    read: float
    taken: float
    doubt: float
    trust: TrustWord


@record
class TrustedReading:
    """One reading that a person holds or leaves out: its pointer among the readings, and its name."""

    path: str
    name: str
    trust: TrustWord


@record
class Measured:
    """The doubt of the shape as it is taken, every check, and checks that cannot be read. `taken` are the
    readings where further ones adjust them; blank while there are none, or where they contradict one another:
    nothing is bent to fit."""

    doubt: Doubt | None
    checks: tuple[Check, ...]
    disagree: bool
    bought: BoughtPart | None
    taken: tuple[TakenReading, ...]
    trusted: tuple[TrustedReading, ...]
    problems: tuple[Problem, ...]


@record
class Weighed:
    """What was measured, and the readings to plan by: as they were read, or as they are taken."""

    measured: Measured
    read: ReadBends | Corners | None


def reading_errors(kit: Kit) -> ReadingErrors:
    """The shop's reading errors from the catalogue."""
    limits = kit.limits
    return ReadingErrors(
        length_mm=limits["reading_mm"].value,
        angle_deg=limits["reading_deg"].value,
        gross_mm=limits["gross_mm"].value,
        gross_deg=limits["gross_deg"].value,
        place_mm=limits["place_mm"].value,
        radius_share=limits["old_radius_share"].value,
        laid_mm=limits["laid_mm"].value,
        laid_deg=limits["laid_deg"].value,
        least_slip_mm=limits["least_slip_mm"].value,
        least_slip_deg=limits["least_slip_deg"].value,
    )


def measure(span: RigidSpan, kit: Kit, read: ReadBends | Corners | None) -> Weighed:
    """Judge the readings of one rigid span, and adjust them to what was read further; `read` is None while
    they cannot be read."""
    given, problems = given_checks(span)
    nothing = Measured(
        doubt=None, checks=(), disagree=False, bought=None, taken=(), trusted=(), problems=problems
    )
    if read is None:
        return Weighed(measured=nothing, read=None)
    errors, trust = reading_errors(kit), trust_of(span, read)
    bought: BoughtPart | None = None
    if span.bought and isinstance(read, ReadBends):
        bought = compare_bought(span, read, errors)
    try:
        made, doubt = outcome(read), expected(read, Given(), errors, trust)
    except ShapeError:
        return Weighed(measured=nothing, read=read)
    checks = tuple(_compared(given, made, doubt, errors))
    fit: Adjusted | None = None
    if (checks or trust != Trust()) and all(check.agrees for check in checks):
        with suppress(ShapeError):
            fit = adjust(read, given, errors, trust)
    measured = Measured(
        doubt=fit.doubt if fit else doubt,
        checks=checks,
        disagree=any(not check.agrees for check in checks),
        bought=bought,
        taken=_taken(span, read, fit, trust) if fit else (),
        trusted=_trusted(span, read, trust),
        problems=problems,
    )
    return Weighed(measured=measured, read=fit.read if fit else read)


def trust_of(span: RigidSpan, read: ReadBends | Corners) -> Trust:
    """What a person says of the readings of `read`; pointers to rows that are gone say nothing."""
    if not span.checks.held and not span.checks.left_out:
        return Trust()
    at = {slot_path(span.readings, slot): slot for slot in slots(read)}

    def found(paths: tuple[str, ...]) -> frozenset[Slot]:
        return frozenset(at[path] for path in paths if path in at)

    return Trust(held=found(span.checks.held), left_out=found(span.checks.left_out))


def _word(slot: Slot, trust: Trust) -> TrustWord:
    return "held" if slot in trust.held else "left out" if slot in trust.left_out else ""


def _trusted(span: RigidSpan, read: ReadBends | Corners, trust: Trust) -> tuple[TrustedReading, ...]:
    return tuple(
        TrustedReading(
            path=slot_path(span.readings, slot), name=name_of(read, slot), trust=_word(slot, trust)
        )
        for slot in slots(read)
        if slot in trust.held | trust.left_out
    )


def _taken(
    span: RigidSpan, read: ReadBends | Corners, fit: Adjusted, trust: Trust
) -> tuple[TakenReading, ...]:
    return tuple(
        TakenReading(
            path=readings_path(span.id, slot_path(span.readings, one.slot)),
            name=name_of(read, one.slot),
            kind=one.slot.kind,
            read=value_of(read, one.slot),
            taken=value_of(read, one.slot) + one.change,
            doubt=one.doubt,
            trust=_word(one.slot, trust),
        )
        for one in fit.taken
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
    if given.place_b is not None:
        off_mm = length_of(subtract(given.place_b, made.point))
        allowed = hypot(doubt.end_b_mm, sqrt(3) * errors.place_mm)
        found.append(Check(kind="place B", given=0.0, computed=off_mm, allowed=allowed))
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
    place_b = _place_b(span, read, problems) if span.readings.kind == "bends" else None
    given = Given(wire_mm=wire, tape_mm=tape, way_a=way_a, way_b=way_b, place_b=place_b)
    return given, tuple(problems)


def _place_b(
    span: RigidSpan, read: Callable[[str, bool, Callable[[], float]], float | None], problems: list[Problem]
) -> Vector | None:
    """Where end B stands from A; all three sides are asked for, or a blank one would stand for none."""
    checks = span.checks
    sides = (("ahead", checks.ahead), ("up", checks.up), ("right", checks.right))
    if all(is_blank(side) for _, side in sides):
        return None
    found = []
    for name, side in sides:
        found.append(read(name, is_blank(side), partial(length_mm, side, "any")))
        if is_blank(side):
            said = f"Say all three: how far end B stands {SIDES[name]}, 0 for none."
            problems.append(Problem(path=span_path(span.id, "checks", name), message=said))
    ahead, up, right = found
    return None if ahead is None or up is None or right is None else (ahead, up, right)


SIDES = {"ahead": "ahead of end A", "up": "towards 12 o’clock", "right": "towards 3 o’clock"}


def _clock(text: str) -> float:
    kind, value = parse_plane(text, "clock")
    if kind != "clock":
        raise UnitError(f"“{text[:25]}” is not a clock time; write it as seen from end A, such as 3:00.")
    return value
