"""A tube told from its other end: the same tube, its rows in the other order, their ids with them."""

from __future__ import annotations

from dataclasses import replace
from math import atan2, degrees, hypot

from bendrel.core.findings import EndName, Spot
from bendrel.core.geometry.bends import BendList, reversed_list
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.vectors import cross, dot, scale, subtract
from bendrel.core.ids import NotAChain
from bendrel.core.line.checks import Checks
from bendrel.core.line.condition import Damage, Fixture
from bendrel.core.line.document import (
    BendReadings,
    BendRow,
    CornerReadings,
    HoseSpan,
    Line,
    Opening,
    PartReading,
    RigidSpan,
)
from bendrel.core.line.hose_way import HosePattern
from bendrel.core.line.paths import LAST, row_path
from bendrel.core.line.rewrite import bend_ids, computed_length
from bendrel.core.units.lengths import Length, Plane, is_blank, length_mm
from bendrel.core.units.notation import Unit, UnitError, format_clock, normalised_turn, parse_plane
from bendrel.core.units.quantities import opposite_way

_OTHER: dict[EndName, EndName] = {"A": "B", "B": "A"}


def reversed_rigid(span: RigidSpan, shape: BendList | None, unit: Unit) -> RigidSpan:
    """`span` with its ends changed over. Legs read by rule turn round as they were typed: each leg goes
    with its two references; its checks, openings and the readings of a bought part go along. `shape` is
    what is read of it, None while it cannot be. Raises NotAChain for readings along a wire or a string, which
    have a beginning, for planes that cannot be read, and for places that need a shape."""
    return replace(
        span,
        readings=_readings(span.readings),
        end_a=span.end_b,
        end_b=span.end_a,
        held=_OTHER[span.held],
        order=tuple(replace(one, held=_OTHER[one.held]) for one in span.order),
        checks=_checks(span, shape, unit),
        openings=tuple(_opening(one, shape, unit) for one in span.openings),
        bought=tuple(_bought(one, bend_ids(span.readings)) for one in span.bought),
    )


def place_from_b(reading: Length, shape: BendList | None, unit: Unit) -> Length:
    """A place along a tube, read from end A, as it is read from its other end; a blank one stays. Raises
    NotAChain where it cannot be read or the tube's length is not known."""
    if is_blank(reading):
        return reading
    if shape is None:
        raise NotAChain("Put the readings right first: places along the tube are told from its ends.")
    try:
        mm = length_mm(reading, "not_negative")
    except UnitError as error:
        raise NotAChain(f"Put the places along the tube right first: {error}") from error
    if mm > shape.developed_mm + 1e-6:
        raise NotAChain(f"Put the places along the tube right first: {reading.text} lies beyond end B.")
    return computed_length(max(0.0, shape.developed_mm - mm), unit)


def damage_turned(item: Damage, shape: BendList | None, unit: Unit) -> Damage:
    """A damage told from the other end of its tube; its two places change over. Raises NotAChain."""
    if is_blank(item.to):
        return replace(item, at=place_from_b(item.at, shape, unit))
    return replace(item, at=place_from_b(item.to, shape, unit), to=place_from_b(item.at, shape, unit))


def fixture_turned(item: Fixture, shape: BendList | None, unit: Unit) -> Fixture:
    """A clip or grommet told from the other end of its tube. Raises NotAChain."""
    return replace(item, at=place_from_b(item.at, shape, unit))


def spot_turned(spot: Spot, line: Line) -> Spot:
    """What a finding is about, on a span that is told from its other end: its ends change over, and a
    straight leads to the bend that was before it."""
    end = _OTHER[spot.end] if spot.end else None
    span = line.span(spot.span)
    if spot.kind != "straight" or not isinstance(span, RigidSpan):
        return replace(spot, end=end)
    rows = ("", *bend_ids(span.readings), "")
    led_to = rows.index(spot.row, 1) if spot.row in rows[1:] else 0
    return replace(spot, row=rows[led_to - 1] if led_to else spot.row, end=end)


def _opening(item: Opening, shape: BendList | None, unit: Unit) -> Opening:
    return replace(item, at=place_from_b(item.at, shape, unit), enters=_OTHER[item.enters])


def _bought(item: PartReading, rows: tuple[str, ...]) -> PartReading:
    """A leg is named by the bend that it leads to, a plane by the second of its two bends."""
    if item.kind == "leg":
        led_to = rows.index(item.row) if item.row in rows else len(rows)
        return replace(item, row=rows[led_to - 1] if led_to else "")
    if item.kind == "plane" and item.row in rows[1:]:
        try:
            kind, _ = parse_plane(item.text, item.by)
        except UnitError as error:
            raise NotAChain(f"Put the bought part's planes right first: {error}") from error
        if kind == "clock":
            raise NotAChain("Read the bought part's planes from bend to bend first, then turn it round.")
        return replace(item, row=rows[rows.index(item.row) - 1])
    return item


def _checks(span: RigidSpan, shape: BendList | None, unit: Unit) -> Checks:
    """Both ways are told against the other end: the angle between them stays, and a clock is as far from the
    readings' own as before, as is where an end stands. Tapes change their ends over. Raises NotAChain for
    what was read from end A alone and has no other side: corners, and the old part on its sheet."""
    checks = span.checks
    if checks.corners or not checks.sheet.blank:
        raise NotAChain(
            "Where corners stand and how the old part lies on its sheet were read from end A: take those "
            "readings out first, then turn it round."
        )
    way_a, way_b = checks.way_a.strip(), checks.way_b.strip()
    turned = replace(
        checks,
        way_a=opposite_way(way_b) if way_b else "",
        way_b=opposite_way(way_a) if way_a else "",
        across=tuple(
            replace(tape, start=_other_spot(tape.end), end=_other_spot(tape.start)) for tape in checks.across
        ),
        held=tuple(_reading_turned(path, span.readings) for path in checks.held),
        left_out=tuple(_reading_turned(path, span.readings) for path in checks.left_out),
    )
    turned = _place_turned(turned, shape, unit)
    clock = checks.port_b_clock
    if not clock.text.strip() or shape is None:
        return turned
    here, there = _clock_of(shape), _clock_of(reversed_list(shape))
    try:
        kind, read = parse_plane(clock.text, "clock")
    except UnitError as error:
        raise NotAChain(f"Put the check of port B right first: {error}") from error
    if kind != "clock" or here is None or there is None:
        return turned
    return replace(turned, port_b_clock=Plane(text=format_clock(read - here + there), by=clock.by))


def _other_spot(name: str) -> str:
    return {"A": "B", "B": "A"}.get(name, name)


def _reading_turned(path: str, readings: BendReadings | CornerReadings) -> str:
    """Where a reading stands once its tube is told from its other end: a leg leads to the bend that was
    before it, a plane belongs to the other of its two bends."""
    if isinstance(readings, CornerReadings):
        return path
    ids = tuple(row.id for row in readings.rows)
    if path == LAST:
        return row_path(ids[-1], "length") if ids else LAST
    _, _, row, field = path.split("/")
    if row not in ids or field not in ("length", "plane"):
        return path
    before = ids.index(row) - 1
    if field == "length":
        return row_path(ids[before], field) if before >= 0 else LAST
    return row_path(ids[max(before, 0)], field)


def _place_turned(checks: Checks, shape: BendList | None, unit: Unit) -> Checks:
    """Where the far end stands, seen from the other end: off from the readings by as much as before, in the
    frame there."""
    sides = (checks.ahead, checks.up, checks.right)
    if all(is_blank(side) for side in sides):
        return checks
    if shape is None or any(is_blank(side) for side in sides):
        raise NotAChain("Put where end B stands right first: it is told from end A.")
    try:
        stands = [length_mm(side, "any") for side in sides]
    except UnitError as error:
        raise NotAChain(f"Put where end B stands right first: {error}") from error
    end, back = end_frame(shape), end_frame(reversed_list(shape))
    # the frame at B, looking back into the tube: its first bend turns it towards its 12 o'clock
    ahead = scale(end.way, -1.0)
    up = cross(scale(end.normal, -1.0), ahead) if shape.bends else (0.0, 1.0, 0.0)
    aside = cross(ahead, up)
    off = subtract((stands[0], stands[1], stands[2]), end.point)
    found = [
        computed_length(at - dot(off, axis), unit)
        for at, axis in zip(back.point, (ahead, up, aside), strict=True)
    ]
    return replace(checks, ahead=found[0], up=found[1], right=found[2])


def _clock_of(shape: BendList) -> float | None:
    """Where port B points as a clock seen from A; None where it points straight on."""
    _, up, aside = end_frame(shape).way
    return None if hypot(up, aside) < 1e-6 else degrees(atan2(aside, up))


def reversed_hose(span: HoseSpan) -> HoseSpan:
    """`span` with its ends changed over. Where they are, how they move and how two elbows are clocked stays:
    a clock is the same from either end. Raises NotAChain for a shape that cannot be told from there."""
    shape = _readings(span.shape) if span.shape is not None else None
    pattern = span.pattern and _pattern(span.pattern)
    way = span.way
    if way is not None:
        way = replace(
            way,
            a=replace(way.b, way=opposite_way(way.b.way)),
            b=replace(way.a, way=opposite_way(way.a.way)),
            moves=tuple(replace(move, end=_OTHER[move.end]) for move in way.moves),
            swivel=_OTHER[way.swivel] if way.swivel else "",
        )
    return replace(
        span,
        on_a=span.on_b,
        on_b=span.on_a,
        lap_a=span.lap_b,
        lap_b=span.lap_a,
        plain_a=span.plain_b,
        plain_b=span.plain_a,
        angle_a=span.angle_b,
        angle_b=span.angle_a,
        own_a=span.own_b,
        own_b=span.own_a,
        way=way,
        pattern=pattern,
        shape=shape if isinstance(shape, BendReadings) else None,
    )


def _pattern(pattern: HosePattern) -> HosePattern:
    """The tightest place is told from the other end; without the length nobody knows where that is."""
    if is_blank(pattern.at):
        return pattern
    if is_blank(pattern.length):
        raise NotAChain(f"Read the length of the {pattern.by} first, then turn it round.")
    try:
        left = length_mm(pattern.length) - length_mm(pattern.at)
    except UnitError as error:
        raise NotAChain(f"Put the readings of the {pattern.by} right first: {error}") from error
    return replace(pattern, at=computed_length(max(0.0, left), pattern.at.unit))


def _turns(rows: tuple[BendRow, ...]) -> list[Plane]:
    """Every plane as a turn from the bend before, which has the same sign from either end."""
    turns, clock = [Plane()], 0.0
    for row in rows[1:]:
        if row.plane.exact_deg is not None:
            turn = row.plane.exact_deg
        else:
            try:
                kind, value = parse_plane(row.plane.text, row.plane.by)
            except UnitError as error:
                raise NotAChain(f"Put the planes right first: {error}") from error
            turn = normalised_turn(value - clock) if kind == "clock" else value
        clock += turn
        turns.append(Plane(text=f"{turn:+g}°", exact_deg=turn))
    return turns


def _readings(readings: BendReadings | CornerReadings) -> BendReadings | CornerReadings:
    if isinstance(readings, CornerReadings):
        return replace(readings, rows=readings.rows[::-1])
    rows = readings.rows
    if any(row.by != "leg" for row in rows) or readings.last_by != "leg":
        raise NotAChain(
            "Readings along a wire or string begin at end A; switch to legs first, then turn it round."
        )
    turns = _turns(rows)
    # the leg behind a bend becomes the leg before it, its two references changed over
    legs = [(row.length, row.read_from, row.read_to) for row in rows]
    legs.append((readings.last, readings.last_read_from, rows[-1].read_to if rows else "centre"))
    turned: list[BendRow] = []
    for k in range(len(rows) - 1, -1, -1):
        length, start, _ = legs[k + 1]
        before = legs[k + 1][2] if k < len(rows) - 1 else start
        plane = turns[k + 1] if k < len(rows) - 1 else Plane()
        turned.append(replace(rows[k], length=length, read_from=before, read_to=start, plane=plane))
    first = legs[0]
    return replace(
        readings,
        rows=tuple(turned),
        last=first[0],
        last_read_from=first[2] if rows else readings.last_read_from,
    )
