"""A hose's way as typed, in figures: its ends, how they move, what stands beside it."""

from __future__ import annotations

from bendrel.core.geometry.obstacles import Ball, Bar, Box, Obstacle, Wall
from bendrel.core.geometry.vectors import Vector, scale
from bendrel.core.hose.shape.laid import HoseEnd, HoseEnds, HoseError
from bendrel.core.hose.shape.moving import Hinge, Move, Slide
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.line.hose_way import Beside, EndMove, HoseEndAt, HoseWay
from bendrel.core.line.paths import span_path
from bendrel.core.line.resolve import Problem, Reader
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.lengths_error import said_in
from bendrel.core.units.notation import UnitError


@record
class BesideHose:
    """One thing beside a hose as measured; `item` is its id in the document."""

    item: str
    what: str
    kind: str
    shape: Obstacle


def ends_of(kit: Kit, hose: PlacedHose, way: HoseWay, reader: Reader) -> HoseEnds | None:
    """Both ends as typed; None while a way is not said. A blank coordinate is 0."""
    if not way.a.way.strip() or not way.b.way.strip():
        return None

    stiff = kit.limits["stiff_per_od"].value * hose.hose.od_mm
    if not is_blank(way.straight):
        typed = reader.length(span_path(hose.piece.id, "way", "straight"), way.straight, "not_negative")
        if typed is None:
            return None
        stiff = typed

    def end(name: str, at: HoseEndAt, own_mm: float) -> HoseEnd | None:
        path = span_path(hose.piece.id, "way", name)
        point = _point(reader, path, (at.x, at.y, at.z))
        along = reader.way(f"{path}/way", at.way)
        if point is None or along is None:
            return None
        return HoseEnd(point=point, way=along, straight_mm=stiff + own_mm)

    own_a, own_b = hose.takes_mm
    a, b = end("a", way.a, own_a or 0.0), end("b", way.b, own_b or 0.0)
    if a is None or b is None:
        return None
    try:
        return HoseEnds(a=a, b=b)
    except HoseError as error:
        at = span_path(hose.piece.id, "way", "b")
        reader.problems.append(Problem(path=at, message=said_in(error, reader.unit)))
        return None


def seat_of(hose: PlacedHose, name: str, at: HoseEndAt, reader: Reader) -> Vector | None:
    """The way from the hose to the seat: into the port."""
    if not at.seat.strip():
        return None
    out = reader.way(span_path(hose.piece.id, "way", name, "seat"), at.seat)
    return None if out is None else scale(out, -1.0)


def _point(
    reader: Reader, path: str, typed: tuple[Length, Length, Length], prefix: str = ""
) -> Vector | None:
    found: list[float] = []
    for name, length in zip("xyz", typed, strict=True):
        value = 0.0 if is_blank(length) else reader.length(f"{path}/{prefix}{name}", length, "any")
        if value is None:
            return None
        found.append(value)
    return (found[0], found[1], found[2])


def moves_of(hose: PlacedHose, way: HoseWay, reader: Reader) -> tuple[tuple[str, Move], ...]:
    """Every move that is whole, with its name."""
    found: list[tuple[str, Move]] = []
    for move in way.moves:
        whole = _move(span_path(hose.piece.id, "way", "moves", move.id), move, reader)
        if whole is not None:
            found.append((move.what.strip() or ("swung" if move.how == "hinge" else "moved"), whole))
    return tuple(found)


def _move(path: str, move: EndMove, reader: Reader) -> Move | None:
    """One move; None while it is not whole."""
    if not (move.axis.strip() and move.least.strip() and move.most.strip()):
        return None
    axis = reader.way(f"{path}/axis", move.axis)
    if move.how == "slide":
        least, most = (_slid(reader, f"{path}/{name}", text, move) for name, text in _bounds(move))
        if axis is None or least is None or most is None:
            return None
        return Slide(end=move.end, way=axis, least_mm=least, most_mm=most)
    point = _point(reader, path, (move.x, move.y, move.z))
    least, most = (reader.degrees(f"{path}/{name}", text) for name, text in _bounds(move))
    if axis is None or point is None or least is None or most is None:
        return None
    return Hinge(end=move.end, point=point, axis=axis, least_deg=least, most_deg=most)


def _bounds(move: EndMove) -> tuple[tuple[str, str], tuple[str, str]]:
    return ("least", move.least), ("most", move.most)


def _slid(reader: Reader, path: str, text: str, move: EndMove) -> float | None:
    try:
        return length_mm(Length(text=text, unit=move.x.unit), "any")
    except UnitError as error:
        reader.problems.append(Problem(path=path, message=str(error)))
        return None


def beside_hose(kit: Kit, hose: PlacedHose, way: HoseWay, reader: Reader) -> tuple[BesideHose, ...]:
    """What stands beside the hose, as far as it is measured."""
    found: list[BesideHose] = []
    for item in way.beside:
        path = span_path(hose.piece.id, "way", "beside", item.id)
        if item.kind not in kit.clearances:
            message = f"The catalogue has no clearance “{item.kind}”; choose one that is listed."
            reader.problems.append(Problem(path=f"{path}/kind", message=message))
            continue
        shape = _obstacle(path, item, reader)
        if shape is not None:
            found.append(BesideHose(item=item.id, what=item.what, kind=item.kind, shape=shape))
    return tuple(found)


def _obstacle(path: str, item: Beside, reader: Reader) -> Obstacle | None:
    first = _point(reader, path, (item.x, item.y, item.z))
    if first is None:
        return None
    if item.form == "wall":
        out = reader.way(f"{path}/out", item.out) if item.out.strip() else None
        return None if out is None else Wall(point=first, out=out)
    if item.form == "box":
        last = _point(reader, path, (item.to_x, item.to_y, item.to_z), "to_")
        if last is None:
            return None
        pairs = [*zip(first, last, strict=True)]
        low, high = ([*map(pick, pairs)] for pick in (min, max))
        return Box(least=(low[0], low[1], low[2]), most=(high[0], high[1], high[2]))
    across = None if is_blank(item.across) else reader.length(f"{path}/across", item.across)
    if across is None:
        return None
    if item.form == "ball":
        return Ball(middle=first, radius_mm=across / 2)
    last = _point(reader, path, (item.to_x, item.to_y, item.to_z), "to_")
    return None if last is None else Bar(start=first, stop=last, radius_mm=across / 2)
