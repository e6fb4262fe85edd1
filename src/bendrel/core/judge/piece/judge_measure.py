"""Rules on the readings themselves: do the checks agree, and is anything only a length?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from bendrel.core.codes import Code
from bendrel.core.findings import Finding
from bendrel.core.judge.case import Case
from bendrel.core.line.compared import Check, CheckKind
from bendrel.core.line.document import BendReadings
from bendrel.core.line.measured import Measured
from bendrel.core.line.rewrite import bend_ids
from bendrel.core.units.notation import format_angle

CODES: Mapping[CheckKind, Code] = {
    "wire": "check_wire",
    "tape": "check_tape",
    "way A": "check_way_a",
    "way B": "check_way_b",
    "place B": "check_place_b",
    "across": "check_across",
    "corner": "check_corner",
    "sheet": "check_sheet",
    "lean": "check_sheet",
    "bend on sheet": "check_sheet",
}


def judge_measure(case: Case, measured: Measured) -> Iterator[Finding]:
    """Findings on checks and on lengths without a shape."""
    for check in measured.checks:
        yield _check(case, check)
    if measured.disagree and all(check.agrees for check in measured.checks):
        yield case.told("check_together", case.this())
    yield from _string(case)
    yield from _left_long(case)


def _check(case: Case, check: Check) -> Finding:
    code = CODES[check.kind]
    if check.kind in ("wire", "tape", "across"):
        title = f"{_name(case, check)} says {case.say(check.given)}, readings say {case.say(check.computed)}"
        off, allowed = case.say(abs(check.given - check.computed)), case.say(check.allowed)
    elif check.kind == "place B":
        title = f"End B stands {case.say(check.computed)} from where the readings say"
        off, allowed = case.say(check.computed), case.say(check.allowed)
    elif check.kind in ("corner", "sheet", "bend on sheet"):
        title = f"{_name(case, check)} {case.say(check.computed)} from where the readings say"
        off, allowed = case.say(check.computed), case.say(check.allowed)
    elif check.kind == "lean":
        title = f"On its sheet the old part leans {format_angle(check.computed)} from what the readings say"
        off, allowed = format_angle(check.computed), format_angle(check.allowed)
    else:
        title = f"Port {check.kind[-1]} points {format_angle(check.computed)} away from the readings"
        off, allowed = format_angle(check.computed), format_angle(check.allowed)
    kind = "check_agrees" if check.agrees else "check_differs"
    if not check.agrees and off == allowed:
        allowed = "a little less"
    return case.told(kind, case.this(), code=code, title=title, off=off, allowed=allowed)


def _name(case: Case, check: Check) -> str:
    """What was read, as a sentence begins with it."""
    span = case.run.span
    ids = bend_ids(span.readings)

    def spot(name: str) -> str:
        return f"end {name}" if name in ("A", "B") else f"bend {ids.index(name) + 1}"

    if check.kind == "across":
        tape = next(one for one in span.checks.across if one.id == check.of)
        return f"Tape from {spot(tape.start)} to {spot(tape.end)}"
    if check.kind == "corner":
        corner = next(one for one in span.checks.corners if one.id == check.of)
        return f"The corner of {spot(corner.row)} stands"
    if check.kind == "bend on sheet":
        bend = next(one for one in span.checks.sheet.bends if one.id == check.of)
        return f"{spot(bend.row).capitalize()} of the old part lies on its sheet"
    if check.kind == "sheet":
        return "End B of the old part lands on its sheet"
    return "Wire" if check.kind == "wire" else "Tape from rim to rim"


def _string(case: Case) -> Iterator[Finding]:
    readings = case.run.span.readings
    if not isinstance(readings, BendReadings) or readings.last_by != "string":
        return
    if readings.copied:
        rule = case.kit.advice["alongside"]
        yield case.told("alongside", case.this(), message=rule.text, source=rule.source)
        return
    rule = case.kit.advice["string"]
    yield case.told(
        "length_only",
        case.at_straight(len(readings.rows) + 1),
        message=rule.text,
        source=rule.source,
        last_straight=case.say(case.part.last_straight_mm),
    )


def _left_long(case: Case) -> Iterator[Finding]:
    for end in (case.part.end_a, case.part.end_b):
        if end.leave_long_mm > 0 and end.order is None and end.possible_orders == ("before",):
            yield case.told("left_long_no_room", case.at_end(end.end))
        elif end.leave_long_mm > 0:
            yield case.told("left_long", case.at_end(end.end), leave_long=case.say(end.leave_long_mm))
