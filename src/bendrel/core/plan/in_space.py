"""The whole line in space: every span where it stands, one behind the other from port A."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from math import radians, tan
from typing import assert_never

from bendrel.core.geometry.bends import NO_CORNER_DEG, Bend, BendList
from bendrel.core.geometry.centreline import Frame, end_frame, sampled
from bendrel.core.geometry.vectors import Vector, add, along, cross, dot, rotated, scale, subtract, unit
from bendrel.core.geometry.view import ABOVE, FROM_A, View, clearest, from_b
from bendrel.core.hose.laid import LaidHose, shape_or_none
from bendrel.core.joints.pieces import Pieces, PlacedComponent, PlacedHose
from bendrel.core.line.document import ComponentSpan, HoseSpan, Joint, Line, RigidSpan
from bendrel.core.line.paths import joint_path, span_path
from bendrel.core.line.resolve import Reader, resolve
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.lengths import is_blank
from bendrel.core.units.notation import normalised_turn

_IN_LINE = 1e-9
_EVERY = 4
"""Of the points of a hose so many-th are drawn."""

START = Frame(point=(0.0, 0.0, 0.0), way=(1.0, 0.0, 0.0), normal=(0.0, 0.0, 1.0))


@record
class SpanInSpace:
    """One span in the frame of the line, which starts at port A along +x with the first bend turning toward
    +y. `starts` and `ends` are its two ends, a normal being square to the plane of the last bend before
    them; the part of a tube stands in `starts`, its own x along the way and its z along the normal.
    `path` are points to draw a hose or a component by, none for a tube, which has its own. `guessed` says
    that its length or the way that it lies is not known: it is drawn straight on, as long as such a thing
    often is."""

    span: str
    starts: Frame
    ends: Frame
    path: tuple[Vector, ...]
    guessed: bool


@record
class InSpace:
    """The line in space, as far as its tubes have been read; `whole` says that nothing is missing."""

    spans: tuple[SpanInSpace, ...]
    views: Mapping[str, View]
    whole: bool

    def span(self, name: str) -> SpanInSpace | None:
        """One span; None for one beyond what has been read."""
        return next((one for one in self.spans if one.span == name), None)


def seen_from(frame: Frame, point: Vector) -> Vector:
    """A point of a part's own frame in the frame of the line, the part starting in `frame`."""
    x, y, z = point
    inward = cross(frame.normal, frame.way)
    return add(along(along(frame.point, frame.way, x), inward, y), scale(frame.normal, z))


def place_in_space(
    line: Line,
    kit: Kit,
    pieces: Pieces,
    read: Mapping[str, BendList],
    growing: Mapping[str, BendList],
    laid: Sequence[LaidHose],
    reader: Reader,
) -> InSpace | None:
    """Every span of `line` in space; `read` has the shapes of its tubes by span, `growing` those of tubes
    that have not been read to their end, where the line stops; `laid` are hoses with known
    ends; `reader` takes what cannot be read of the joints. None for a line of one tube alone, which
    stands in its own frame already.

    Rolls before the first bend of the line turn nothing: its plane is 12 o'clock.
    """
    if len(line.spans) == 1 and line.spans[0].kind == "rigid":
        return None
    hoses = {hose.stands.span: hose for hose in pieces.hoses}
    lying = {one.span: one for one in laid}
    parts = {part.stands.span: part for part in pieces.components}
    here, bent = START, False
    placed: list[SpanInSpace] = []
    for before, span in zip((None, *line.spans), line.spans, strict=False):
        if before is not None:
            here = _over(line.joints[len(placed) - 1], before.id, here, bent, reader)
        guessed = False
        lies = _lies(here, lying.get(span.id))
        if lies is not None:
            path, here_on = lies
            placed.append(SpanInSpace(span=span.id, starts=here, ends=here_on, path=path, guessed=False))
            here, bent = here_on, True
            continue
        shape: BendList | None
        match span:
            case HoseSpan():
                shape, guessed = _hose_shape(kit, span, hoses.get(span.id))
            case ComponentSpan():
                shape, guessed = _component_shape(kit, span, parts.get(span.id), reader)
            case RigidSpan():
                shape = read.get(span.id) or growing.get(span.id)
            case _:
                assert_never(span)
        if shape is None:
            break
        if not bent and shape.bends:
            here, bent = replace(here, normal=START.normal), True
        ends = _carried_on(here, end_frame(shape))
        drawn = () if span.kind == "rigid" else sampled(shape)
        path = tuple(seen_from(here, point) for _, point in drawn)
        placed.append(SpanInSpace(span=span.id, starts=here, ends=ends, path=path, guessed=guessed))
        here = ends
        if span.id in growing:
            break
    if not placed:
        return None
    whole = len(placed) == len(line.spans) and placed[-1].span not in growing
    return InSpace(spans=tuple(placed), views=_views(placed, {**growing, **read}), whole=whole)


def _lies(here: Frame, laid: LaidHose | None) -> tuple[tuple[Vector, ...], Frame] | None:
    """A hose between its own ends, put where the line has come to: it leaves along the way of the line,
    and in the plane of its far end, as a tube does in that of its first bend."""
    shape = None if laid is None or laid.length_mm is None else shape_or_none(laid.ends, laid.length_mm)
    if laid is None or shape is None:
        return None
    a, b = laid.ends.a, laid.ends.b
    over = subtract(b.point, a.point)
    plane = cross(a.way, over)
    if dot(plane, plane) < _IN_LINE:
        plane = cross(a.way, b.way)
    if dot(plane, plane) < _IN_LINE:
        plane = cross(a.way, (0.0, 0.0, 1.0) if abs(a.way[2]) < 0.9 else (0.0, 1.0, 0.0))
    normal = unit(plane)
    inward = cross(normal, a.way)

    def own(way: Vector) -> Vector:
        return (dot(way, a.way), dot(way, inward), dot(way, normal))

    turned = replace(here, point=(0.0, 0.0, 0.0))
    every = [*shape.points[::_EVERY], shape.points[-1]]
    path = tuple(seen_from(here, own(subtract(point, a.point))) for point in every)
    leaves = cross(over, b.way)
    if dot(leaves, leaves) < _IN_LINE:
        leaves = normal
    square = unit(subtract(leaves, scale(b.way, dot(leaves, b.way))))
    ends = Frame(point=path[-1], way=seen_from(turned, own(b.way)), normal=seen_from(turned, own(square)))
    return path, ends


def _over(joint: Joint, before: str, here: Frame, bent: bool, reader: Reader) -> Frame:
    apart, roll = 0.0, 0.0
    if not is_blank(joint.apart):
        apart = reader.length(joint_path(before, "apart"), joint.apart, "not_negative") or 0.0
    if bent and (joint.roll.text.strip() or joint.roll.exact_deg is not None):
        clock, turned = reader.plane(joint_path(before, "roll"), joint.roll)
        roll = normalised_turn((clock or 0.0) + (turned or 0.0))
    point = along(here.point, here.way, apart)
    return Frame(point=point, way=here.way, normal=rotated(here.normal, here.way, roll))


def _carried_on(here: Frame, end: Frame) -> Frame:
    """The end of a shape that starts in `here`."""
    turned = replace(here, point=(0.0, 0.0, 0.0))
    return Frame(
        point=seen_from(here, end.point), way=seen_from(turned, end.way), normal=seen_from(turned, end.normal)
    )


def _straight(length: float) -> BendList:
    return BendList(bends=(), last_straight_mm=length)


def _hose_shape(kit: Kit, span: HoseSpan, placed: PlacedHose | None) -> tuple[BendList, bool]:
    if span.shape is not None:
        od, least = (placed.hose.od_mm, placed.hose.least_radius_mm) if placed else (0.0, None)
        shape = resolve(span.shape, od_mm=od, radius_mm=least).shape
        if shape is not None:
            return shape, False
    if placed is None or placed.length_mm is None:
        return _straight(kit.limits["drawn_hose_mm"].value), True
    return _straight(max(placed.length_mm - placed.on_ends_mm, 1.0)), True


def _component_shape(
    kit: Kit, span: ComponentSpan, placed: PlacedComponent | None, reader: Reader
) -> tuple[BendList, bool]:
    known = placed is not None and placed.length_mm is not None
    length = placed.length_mm if placed and placed.length_mm else kit.limits["drawn_part_mm"].value
    turned = span.turn.text.strip() or span.turn.exact_deg is not None
    angle = reader.angle(span_path(span.id, "turn"), span.turn) if turned else None
    if not angle:
        return _straight(length), not known
    # its way goes round one corner in the middle; the arc only keeps the drawing smooth
    sharp = min(angle, NO_CORNER_DEG)
    corner = tan(radians(sharp) / 2)
    radius = min(length / 4, length / 2 / corner)
    leg = length / 2 - radius * corner
    bend = Bend(straight_mm=leg, rotation_deg=0.0, angle_deg=sharp, radius_mm=radius)
    return BendList(bends=(bend,), last_straight_mm=leg), not known


def _views(placed: list[SpanInSpace], shapes: Mapping[str, BendList]) -> dict[str, View]:
    points: list[Vector] = [placed[0].starts.point]
    for one in placed:
        if one.span in shapes:
            points += [seen_from(one.starts, point) for _, point in sampled(shapes[one.span], step_deg=45.0)]
        else:
            points += [*one.path[::8], *one.path[-1:]]
    points.append(placed[-1].ends.point)
    return {
        "free": clearest(tuple(points)),
        "from A": FROM_A,
        "from B": from_b(placed[-1].ends.way),
        "above": ABOVE,
    }
