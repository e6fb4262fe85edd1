"""The whole line drawn as a shop sketch: every span where it stands, in the manner of its kind.

Co-ordinates are paper units of the box asked for, y downwards.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import pairwise
from math import hypot
from typing import Literal

from bendrel.catalogue.signs import Sign, load_signs
from bendrel.core.bend.tube.part import ViewName
from bendrel.core.geometry.vectors import Vector, dot, subtract
from bendrel.core.geometry.view import Point, back_of
from bendrel.core.line.document import ComponentSpan, HoseSpan, Line, RigidSpan
from bendrel.core.plan.in_space import InSpace, SpanInSpace, seen_from
from bendrel.core.plan.model import Plan
from bendrel.core.record import record
from bendrel.exchange.shapes.clip_bars import Bar, Place, clip_bars
from bendrel.exchange.shapes.sketch import Label, apart, fitted_to, label_at

SpanLook = Literal["to make", "stays", "hose", "component"]
LEAST_WIDTH, MOST_WIDTH = 3.0, 9.0
TICK = 7.0


@record
class SpanSketch:
    """One span: its centreline on the paper, how wide it is drawn, and the sign of a component at `middle`.
    `guessed` says that nobody knows its length or the way that it lies."""

    span: str
    look: SpanLook
    name: str
    points: tuple[Point, ...]
    width: float
    middle: Point
    sign: Sign | None
    guessed: bool
    depth: float


@record
class LineSketch:
    """A drawing of the whole line in a box of `width` × `height`: spans from the farthest to the nearest,
    the two ends of the paper's ticks at every joint, bars where clips sit, and what is written beside
    them."""

    width: float
    height: float
    spans: tuple[SpanSketch, ...]
    joints: tuple[tuple[Point, Point], ...]
    clips: tuple[Bar, ...]
    labels: tuple[Label, ...]


def sketch_line(
    line: Line, plan: Plan, space: InSpace, look: ViewName, width: float, height: float, margin: float
) -> LineSketch:
    """Draw `line` to true proportion, as large as the box allows; spans are named beside it."""
    view = space.views[look]
    paths = {one.span: tuple(_path(plan, one)) for one in space.spans}
    place, scale = fitted_to(
        [point for path in paths.values() for point in path], view, width, height, margin
    )
    spans = []
    for one in space.spans:
        points = tuple(place(point) for point in paths[one.span])
        span = line.span(one.span)
        depth = sum(dot(point, view.towards) for point in paths[one.span]) / len(points)
        spans.append(
            SpanSketch(
                span=one.span,
                look=_look(span),
                name=name_of(line, one.span),
                points=points,
                width=max(LEAST_WIDTH, min(MOST_WIDTH, _od_mm(plan, span) * scale)),
                middle=at_share(points, 0.5)[0],
                sign=load_signs()[span.what] if isinstance(span, ComponentSpan) else None,
                guessed=one.guessed,
                depth=depth,
            )
        )
    named = [_beside(one, (width / 2, height / 2)) for one in spans]
    first, last = spans[0].points, spans[-1].points
    ends = [("A", first[0], first[min(1, len(first) - 1)])]
    if space.whole:
        ends.append(("B", last[-1], last[max(0, len(last) - 2)]))
    named += [label_at(letter, tip, back_of(to, tip, to), 22.0, True) for letter, tip, to in ends]
    return LineSketch(
        width=width,
        height=height,
        spans=tuple(sorted(spans, key=lambda one: one.depth)),
        joints=tuple(_joints(space, place)),
        clips=tuple(
            bar for span, path in paths.items() for bar in clip_bars(path, plan.clips_mm(span), place)
        ),
        labels=tuple(apart(named)),
    )


def alongside(points: tuple[Point, ...], by: float) -> tuple[Point, ...]:
    """The line `by` units to the side of another one, which a hollow one is drawn with twice."""
    moved = []
    for k, (x, y) in enumerate(points):
        (ax, ay), (bx, by_) = points[max(0, k - 1)], points[min(len(points) - 1, k + 1)]
        dx, dy = bx - ax, by_ - ay
        size = hypot(dx, dy)
        across = (-dy / size, dx / size) if size > 1e-9 else (0.0, 0.0)
        moved.append((x + across[0] * by, y + across[1] * by))
    return tuple(moved)


def name_of(line: Line, span_id: str) -> str:
    """What a span is called beside the drawing; tubes are numbered where there are several."""
    span = line.span(span_id)
    if isinstance(span, ComponentSpan):
        return span.what
    if isinstance(span, HoseSpan):
        return "hose"
    tubes = [one.id for one in line.spans if isinstance(one, RigidSpan)]
    number = f" {tubes.index(span_id) + 1}" if len(tubes) > 1 else ""
    return f"tube{number}" + (", stays" if span.state == "stays" else "")


def _path(plan: Plan, one: SpanInSpace) -> Iterator[Vector]:
    piece = plan.piece(one.span)
    part = (piece.part or piece.so_far) if piece else None
    if part is None:
        yield from one.path
        return
    yield from (seen_from(one.starts, point) for _, point in part.path)


def _look(span: RigidSpan | HoseSpan | ComponentSpan) -> SpanLook:
    if isinstance(span, RigidSpan):
        return span.state
    return "hose" if isinstance(span, HoseSpan) else "component"


def _od_mm(plan: Plan, span: RigidSpan | HoseSpan | ComponentSpan) -> float:
    piece = plan.piece(span.id)
    part = (piece.part or piece.so_far) if piece else None
    if part is not None:
        return part.od_mm
    hoses = plan.chosen.pieces.hoses if plan.chosen else ()
    return next((hose.hose.od_mm for hose in hoses if hose.stands.span == span.id), 0.0)


def at_share(points: Sequence[Point], share: float) -> tuple[Point, Point]:
    """The place at a share of a line's length on the paper, and the unit way across the line there."""
    steps = list(pairwise(points))
    lengths = [hypot(b[0] - a[0], b[1] - a[1]) for a, b in steps]
    left = sum(lengths) * share
    for (a, b), step in zip(steps, lengths, strict=True):
        if step > 0 and left <= step + 1e-9:
            dx, dy = (b[0] - a[0]) / step, (b[1] - a[1]) / step
            return (a[0] + dx * left, a[1] + dy * left), (-dy, dx)
        left -= step
    return points[-1], (0.0, 0.0)


def cross_ticks(span: SpanSketch) -> list[tuple[Point, Point]]:
    """Thin lines across a hose, a dozen units apart."""
    length = sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(span.points))
    count = max(2, min(24, int(length / 12)))
    half = span.width / 2 + 1.6
    ticks = []
    for k in range(1, count):
        (x, y), (dx, dy) = at_share(span.points, k / count)
        ticks.append(((x - dx * half, y - dy * half), (x + dx * half, y + dy * half)))
    return ticks


def _beside(span: SpanSketch, centre: Point) -> Label:
    """Its name across from its middle, away from the middle of the whole drawing, clear of its own line."""
    (x, y), (dx, dy) = at_share(span.points, 0.5)
    side = 1.0 if (x - centre[0]) * dx + (y - centre[1]) * dy >= 0 else -1.0
    reach = (22.0 if span.look == "component" else 15.0) + abs(dx) * 3.2 * len(span.name)
    return label_at(span.name, span.middle, (dx * side, dy * side), reach, False)


def _joints(space: InSpace, place: Place) -> Iterator[tuple[Point, Point]]:
    """A short tick across the line wherever two spans meet."""
    for before, behind in pairwise(space.spans):
        (x, y), (to_x, to_y) = place(before.ends.point), place(behind.starts.point)
        back_x, back_y = place(subtract(before.ends.point, before.ends.way))
        size = hypot(back_x - x, back_y - y) or 1.0
        dx, dy = (y - back_y) / size * TICK, (back_x - x) / size * TICK
        x, y = (x + to_x) / 2, (y + to_y) / 2
        yield (x - dx, y - dy), (x + dx, y + dy)
