"""The line drawn as a dimensioned shop sketch: primitives that both SVG and PDF can draw.

Co-ordinates are paper units of the box asked for, y downwards.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from bendrel.core.bend.tube.part import Part
from bendrel.core.geometry.vectors import Vector, dot
from bendrel.core.geometry.view import Point, View, back_of
from bendrel.core.record import record
from bendrel.exchange.shapes.clip_bars import Bar, Place, clip_bars

Role = Literal["straight", "bend"]


@record
class Stroke:
    """A run of the tube: straight, or bend `number`."""

    role: Role
    number: int
    points: tuple[Point, ...]
    depth: float


@record
class Label:
    """A bend number or an end letter beside the tube."""

    text: str
    at: Point
    tip: Point
    end: bool


@record
class Sketch:
    """A drawing of one part in a box of `width` × `height`."""

    width: float
    height: float
    tube_width: float
    strokes: tuple[Stroke, ...]
    labels: tuple[Label, ...]
    ends: tuple[tuple[Point, Point], ...]
    clips: tuple[Bar, ...]


def sketch(
    part: Part, view: View, width: float, height: float, margin: float, clips_mm: Sequence[float] = ()
) -> Sketch:
    """Draw `part` as seen in `view`, to true proportion, as large as the box allows, held at `clips_mm` from
    end A."""
    place, scale = fitted_to([point for _, point in part.path], view, width, height, margin)
    strokes = [_stroke(part, run, view, place) for run in _runs(part)]
    corners = [place(p) for p in (part.end_a.point, *part.bend_points, part.end_b.point)]
    labels = [
        label_at(str(bend.number), corners[bend.number], back_of(*corners[k : k + 3]), 20.0, False)
        for k, bend in enumerate(part.bends)
    ]
    ends = []
    for end in (part.end_a, part.end_b):
        tip = place(end.point)
        nut = max(end.nut_length_mm, 12.0)
        x, y, z = (p - o * nut for p, o in zip(end.point, end.outward, strict=True))
        inward = place((x, y, z))
        labels.append(label_at(end.end, tip, back_of(inward, tip, inward), 22.0, True))
        if end.nut is not None:
            ends.append((tip, inward))
    return Sketch(
        width=width,
        height=height,
        tube_width=max(3.0, min(9.0, part.od_mm * scale)),
        strokes=tuple(sorted(strokes, key=lambda s: s.depth)),
        labels=tuple(apart(labels)),
        ends=tuple(ends),
        clips=clip_bars([point for _, point in part.path], clips_mm, place),
    )


def fitted_to(
    points: Sequence[Vector], view: View, width: float, height: float, margin: float
) -> tuple[Place, float]:
    """How places in space come on to the paper, as large as the box allows, and how many units a mm takes."""
    flat = [view.flat(point) for point in points]
    low = (min(p[0] for p in flat), min(p[1] for p in flat))
    high = (max(p[0] for p in flat), max(p[1] for p in flat))
    size = (max(high[0] - low[0], 1.0), max(high[1] - low[1], 1.0))
    scale = min((width - 2 * margin) / size[0], (height - 2 * margin) / size[1])
    middle = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2)

    def place(point: Vector) -> Point:
        x, y = view.flat(point)
        return (width / 2 + (x - middle[0]) * scale, height / 2 - (y - middle[1]) * scale)

    return place, scale


def _runs(part: Part) -> list[tuple[Role, int, float, float]]:
    """(role, number, from, to) along the developed length; straight k lies before bend k."""
    runs: list[tuple[Role, int, float, float]] = []
    at = 0.0
    for bend in part.bends:
        runs.append(("straight", bend.number, at, bend.start_mm))
        runs.append(("bend", bend.number, bend.start_mm, bend.end_mm))
        at = bend.end_mm
    runs.append(("straight", len(part.bends) + 1, at, part.developed_mm))
    return runs


def _stroke(part: Part, run: tuple[Role, int, float, float], view: View, place: Place) -> Stroke:
    role, number, start, end = run
    low, high = min(start, end), max(start, end)
    inside = [point for at, point in part.path if low - 1e-6 <= at <= high + 1e-6]
    depth = sum(dot(point, view.towards) for point in inside) / max(1, len(inside))
    return Stroke(role=role, number=number, points=tuple(place(p) for p in inside), depth=depth)


def label_at(text: str, tip: Point, way: Point, reach: float, end: bool) -> Label:
    """A label `reach` off its tip."""
    at = (tip[0] + way[0] * reach, tip[1] + way[1] * reach)
    return Label(text=text, at=at, tip=tip, end=end)


def apart(labels: list[Label]) -> list[Label]:
    """Push labels that lie on each other apart: numbers along the paper's width, words down it."""
    placed: list[Label] = []
    for label in labels:
        x, y = label.at
        for _ in range(6):
            if all(abs(x - p.at[0]) > _half(label) + _half(p) or abs(y - p.at[1]) > 17 for p in placed):
                break
            x, y = (x + 18, y) if len(label.text) < 3 else (x, y + 18)
        placed.append(Label(text=label.text, at=(x, y), tip=label.tip, end=label.end))
    return placed


def _half(label: Label) -> float:
    """Half of what a label takes across."""
    return max(8.5, 3.2 * len(label.text))
