"""A tube told from its other end: the same tube, its rows in the other order, their ids with them."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.findings import EndName
from bendrel.core.ids import NotAChain
from bendrel.core.lengths import Plane
from bendrel.core.line.document import BendReadings, BendRow, CornerReadings, HoseSpan, RigidSpan
from bendrel.core.quantities import opposite_way
from bendrel.core.units import UnitError, normalised_turn, parse_plane

_OTHER: dict[EndName, EndName] = {"A": "B", "B": "A"}


def reversed_rigid(span: RigidSpan) -> RigidSpan:
    """`span` with its ends changed over. Legs read by rule turn round as they were typed: each leg goes
    with its two references. Raises NotAChain for readings along a wire or a string, which have a beginning,
    and for planes that cannot be read."""
    return replace(
        span,
        readings=_readings(span.readings),
        end_a=span.end_b,
        end_b=span.end_a,
        held=_OTHER[span.held],
        order=tuple(replace(one, held=_OTHER[one.held]) for one in span.order),
        openings=(),
        bought=(),
    )


def reversed_hose(span: HoseSpan) -> HoseSpan:
    """`span` with its ends changed over. Where they are, how they move and how two elbows are clocked stays:
    a clock is the same from either end."""
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
        plain_a=span.plain_b,
        plain_b=span.plain_a,
        angle_a=span.angle_b,
        angle_b=span.angle_a,
        way=way,
        shape=None,
    )


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
