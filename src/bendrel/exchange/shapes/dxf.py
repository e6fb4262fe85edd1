"""The centreline as DXF: lines and arcs in space, out and in."""

from __future__ import annotations

import io
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import product
from math import degrees, floor, isfinite
from typing import Any, Literal

from ezdxf import filemanagement, units
from ezdxf.math import OCS, Vec3

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.geometry.centreline import pieces
from bendrel.core.geometry.corners import Corners, turns_deg
from bendrel.core.geometry.tool_radius import ToolRadius, usual_at
from bendrel.core.geometry.vectors import (
    Vector,
    angle_between,
    cross,
    length,
    rotated,
    signed_angle,
    subtract,
    unit,
)
from bendrel.core.units.notation import Unit
from bendrel.exchange.errors import FileError

LAYER = "centreline"
MOST_BYTES = 4_000_000
MOST_ENTITIES = 2_000
JOIN_MM = 0.05  # ends that lie this close are one point: drawings are rounded
SMOOTH_DEG = 1.0  # a line meets an arc without a corner
SMALL_DRAWING = 60.0  # a line of vehicle or machine is rarely shorter than this in mm, or longer in inches
_UNITS: dict[int, float] = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}

Guessed = Literal["said", "guessed", "chosen"]


@dataclass(frozen=True)
class Drawing:
    """What a DXF was understood as: a finished shape, or corner points whose radii are missing.

    `unit_mm` is what one unit of the drawing was taken for, and `unit_from` why.
    """

    shape: BendList | None
    points: tuple[Vector, ...]
    entities: int
    unit_mm: float
    unit_from: Guessed


@dataclass(frozen=True)
class _Run:
    """A line or arc in travel order: ends, ways at both, and for an arc its radius, angle, normal."""

    start: Vector
    end: Vector
    way_in: Vector
    way_out: Vector
    radius: float | None = None
    angle_deg: float = 0.0
    normal: Vector = (0.0, 0.0, 1.0)

    def turned(self) -> _Run:
        """The same run travelled the other way."""
        back_in = tuple(-v for v in self.way_out)
        back_out = tuple(-v for v in self.way_in)
        return _Run(
            start=self.end,
            end=self.start,
            way_in=(back_in[0], back_in[1], back_in[2]),
            way_out=(back_out[0], back_out[1], back_out[2]),
            radius=self.radius,
            angle_deg=self.angle_deg,
            normal=(-self.normal[0], -self.normal[1], -self.normal[2]),
        )


def write_dxf(shape: BendList) -> str:
    """DXF R2010 in millimetres: a LINE for every straight, an ARC for every bend, end A first."""
    document = filemanagement.new("R2010", units=units.MM)
    document.layers.add(LAYER)
    space = document.modelspace()
    for piece in pieces(shape):
        start = piece.start
        if piece.radius_mm is None:
            if piece.length_mm > 0:
                space.add_line(start.point, piece.point(piece.length_mm), dxfattribs={"layer": LAYER})
            continue
        inward = cross(start.normal, start.way)
        centre = Vec3(start.point) + Vec3(inward) * piece.radius_mm
        ocs = OCS(Vec3(start.normal))
        first = ocs.from_wcs(Vec3(start.point) - centre)
        begin = degrees(first.angle)
        space.add_arc(
            ocs.from_wcs(centre),
            piece.radius_mm,
            begin,
            begin + degrees(piece.length_mm / piece.radius_mm),
            dxfattribs={"layer": LAYER, "extrusion": start.normal},
        )
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def read_dxf(text: str, chosen: Unit | None = None) -> Drawing:
    """One line from a DXF: lines and arcs that meet end to end, or one polyline of corners.

    `chosen` overrides the drawing's own unit. Raises FileError.
    """
    if len(text) > MOST_BYTES:
        raise FileError("The drawing is over 4 MB; one line as lines and arcs or a polyline is accepted.")
    try:
        document = filemanagement.read(io.StringIO(text))
        entities = list(_wanted(document.modelspace()))
    except FileError:
        raise
    except Exception as error:  # a broken drawing breaks its reader in many ways
        raise FileError("That is no DXF drawing that can be read; save it as ASCII DXF.") from error
    try:
        runs = [_run(entity) for entity in entities]
    except (AttributeError, TypeError, ValueError, ZeroDivisionError, OverflowError) as error:
        raise FileError("An entity of the drawing cannot be read; keep lines, arcs and polylines.") from error
    found = [run for run in runs if run is not None]
    if any(
        not isfinite(v) for run in found for v in (*run.start, *run.end, run.angle_deg, run.radius or 0.0)
    ):
        raise FileError("A coordinate of the drawing is no number that ends; draw the line anew.")
    if not found:
        raise FileError("The drawing has no line, arc or polyline in its model space.")
    chain = _chained(found)
    unit_mm, why = _unit(document, chain, chosen)
    arcs = any(run.radius is not None for run in chain)
    scaled = [_scaled(run, unit_mm) for run in chain]
    points = (scaled[0].start, *(run.end for run in scaled))
    _refuse_wild(points)
    return Drawing(
        shape=_shape(scaled) if arcs else None,
        points=() if arcs else points,
        entities=len(entities),
        unit_mm=unit_mm,
        unit_from=why,
    )


def corners_of(drawing: Drawing, radius_mm: float | ToolRadius) -> Corners:
    """Corner points of a polyline drawing, with one radius, or what one tool leaves, at all its corners."""
    radii = tuple(usual_at(radius_mm, turn) or 0.0 for turn in turns_deg(drawing.points))
    return Corners(points=drawing.points, radii_mm=radii)


def _wanted(space: Iterable[Any]) -> Iterable[Any]:
    count = 0
    for entity in space:
        kind = entity.dxftype()
        if kind in ("LINE", "ARC"):
            parts = [entity]
        elif kind in ("LWPOLYLINE", "POLYLINE"):
            parts = [part for part in entity.virtual_entities() if part.dxftype() in ("LINE", "ARC")]
        else:
            continue
        for part in parts:
            count += 1
            if count > MOST_ENTITIES:
                raise FileError(f"The drawing has over {MOST_ENTITIES:,} lines and arcs; keep one line.")
            yield part


def _run(entity: Any) -> _Run | None:
    if entity.dxftype() == "LINE":
        start, end = _vector(entity.dxf.start), _vector(entity.dxf.end)
        gap = subtract(end, start)
        if length(gap) < 1e-9:
            return None
        way = unit(gap)
        return _Run(start=start, end=end, way_in=way, way_out=way)
    ocs = entity.ocs()
    centre = ocs.to_wcs(entity.dxf.center)
    radius = float(entity.dxf.radius)
    angle = (float(entity.dxf.end_angle) - float(entity.dxf.start_angle)) % 360.0 or 360.0
    normal = _vector(ocs.to_wcs(Vec3(0, 0, 1)))
    if not 1e-9 < radius < 1e9:
        raise FileError("An arc of the drawing has no radius.")
    outward = _vector(ocs.to_wcs(Vec3.from_deg_angle(float(entity.dxf.start_angle))))
    start = _vector(centre + Vec3(outward) * radius)
    way_in = unit(cross(normal, outward))
    turned = rotated(outward, normal, angle)
    end = _vector(centre + Vec3(turned) * radius)
    return _Run(
        start=start,
        end=end,
        way_in=way_in,
        way_out=unit(cross(normal, turned)),
        radius=radius,
        angle_deg=angle,
        normal=normal,
    )


def _vector(value: Any) -> Vector:
    return (float(value.x), float(value.y), float(value.z))


def _chained(runs: list[_Run]) -> list[_Run]:
    """Put the runs end to end, turning those drawn the other way; the first end is where the file
    begins. Raises FileError where they do not make one line."""
    near = max(JOIN_MM, 1e-6 * max(abs(v) for run in runs for v in (*run.start, *run.end)))
    ends = _Ends(runs, near)
    ends.take(0)
    after = list(ends.follow(runs[0]))
    before = [run.turned() for run in ends.follow(runs[0].turned())]
    chain = [*reversed(before), runs[0], *after]
    if len(chain) < len(runs):
        raise FileError("The drawing is not one line: some of its lines and arcs do not meet end to end.")
    if len(chain) > 1 and length(subtract(chain[0].start, chain[-1].end)) <= near:
        raise FileError("The drawing closes on itself; a tube has two ends.")
    return chain


class _Ends:
    """Which runs begin or end at a place, found by the cell of space that it lies in."""

    def __init__(self, runs: list[_Run], near: float) -> None:
        self._runs, self._near, self._cell = runs, near, 2 * near
        self._free = [True] * len(runs)
        self._at: dict[tuple[int, ...], list[int]] = {}
        for k, run in enumerate(runs):
            for point in (run.start, run.end):
                self._at.setdefault(tuple(floor(v / self._cell) for v in point), []).append(k)

    def take(self, k: int) -> None:
        """The run is in the chain."""
        self._free[k] = False

    def follow(self, run: _Run) -> Iterator[_Run]:
        """The runs that come after one, each turned so that it starts where the one before ends."""
        while (found := self._next(run.end)) is not None:
            yield found
            run = found

    def _next(self, point: Vector) -> _Run | None:
        low, high = ([floor((v + way * self._near) / self._cell) for v in point] for way in (-1, 1))
        cells = product(*(range(a, b + 1) for a, b in zip(low, high, strict=True)))
        for k in sorted({k for cell in cells for k in self._at.get(cell, ()) if self._free[k]}):
            for option in (self._runs[k], self._runs[k].turned()):
                if length(subtract(option.start, point)) <= self._near:
                    self.take(k)
                    return option
        return None


def _unit(document: Any, chain: list[_Run], chosen: Unit | None) -> tuple[float, Guessed]:
    if chosen is not None:
        return (25.4 if chosen == "in" else 1.0), "chosen"
    said = _UNITS.get(int(document.units or 0))
    if said is not None:
        return said, "said"
    reach = sum(length(subtract(run.end, run.start)) for run in chain)
    return (25.4 if reach < SMALL_DRAWING else 1.0), "guessed"


def _scaled(run: _Run, factor: float) -> _Run:
    def scale(v: Vector) -> Vector:
        return (v[0] * factor, v[1] * factor, v[2] * factor)

    return _Run(
        start=scale(run.start),
        end=scale(run.end),
        way_in=run.way_in,
        way_out=run.way_out,
        radius=None if run.radius is None else run.radius * factor,
        angle_deg=run.angle_deg,
        normal=run.normal,
    )


def _refuse_wild(points: tuple[Vector, ...]) -> None:
    for point in points:
        if not all(abs(v) < 1e5 for v in point):
            raise FileError("The drawing reaches over 100 m, or is not made of numbers; check its unit.")


def _shape(chain: list[_Run]) -> BendList:
    """Straights and bends of a chain of lines and arcs. Raises FileError at a corner without an arc."""
    bends: list[Bend] = []
    straight = 0.0
    normal: Vector | None = None
    before: _Run | None = None
    for run in chain:
        if before is not None and angle_between(before.way_out, run.way_in) > SMOOTH_DEG:
            raise FileError(
                "The drawing has a corner without an arc beside arcs; draw an arc at every corner, "
                "or corners alone."
            )
        if run.radius is None:
            straight += length(subtract(run.end, run.start))
        else:
            turn = 0.0 if normal is None else signed_angle(normal, run.normal, run.way_in)
            joined = bends and straight < JOIN_MM and abs(turn) < SMOOTH_DEG
            if joined and abs(bends[-1].radius_mm - run.radius) < JOIN_MM:
                last = bends.pop()
                bends.append(
                    Bend(
                        straight_mm=last.straight_mm,
                        rotation_deg=last.rotation_deg,
                        angle_deg=min(360.0, last.angle_deg + run.angle_deg),
                        radius_mm=last.radius_mm,
                    )
                )
            else:
                bends.append(
                    Bend(
                        straight_mm=straight,
                        rotation_deg=180.0 if turn <= -180.0 else turn,
                        angle_deg=run.angle_deg,
                        radius_mm=run.radius,
                    )
                )
            straight, normal = 0.0, run.normal
        before = run
    return BendList(bends=tuple(bends), last_straight_mm=straight)
