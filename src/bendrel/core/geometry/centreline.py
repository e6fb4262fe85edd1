"""The centreline in space: a frame at any developed position, and points to draw it by."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from math import ceil, cos, degrees, radians, sin

from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.vectors import Vector, add, along, cross, rotated, scale
from bendrel.core.record import record

ORIGIN: Vector = (0.0, 0.0, 0.0)


@record
class Frame:
    """A place on the tube: point in mm, unit direction of travel, unit normal of the plane."""

    point: Vector
    way: Vector
    normal: Vector


@record
class Piece:
    """A straight (`radius_mm` None) or an arc, from `at_mm` on over `length_mm`."""

    at_mm: float
    length_mm: float
    radius_mm: float | None
    start: Frame

    def point(self, distance_mm: float) -> Vector:
        """The point `distance_mm` into this piece."""
        here = self.start
        if self.radius_mm is None:
            return along(here.point, here.way, distance_mm)
        turned = distance_mm / self.radius_mm
        forward = along(here.point, here.way, self.radius_mm * sin(turned))
        return along(forward, cross(here.normal, here.way), self.radius_mm * (1.0 - cos(turned)))

    def frame(self, distance_mm: float) -> Frame:
        """The frame `distance_mm` into this piece."""
        here, way = self.start, self.start.way
        if self.radius_mm is not None:
            turned = distance_mm / self.radius_mm
            way = add(scale(way, cos(turned)), scale(cross(here.normal, way), sin(turned)))
        return Frame(point=self.point(distance_mm), way=way, normal=here.normal)


@lru_cache(maxsize=4)  # one plan asks three times
def pieces(shape: BendList) -> tuple[Piece, ...]:
    """Every straight and arc from end A, in the frame that starts at the origin along +x."""
    return tuple(_pieces(shape))


def _pieces(shape: BendList) -> Iterator[Piece]:
    frame = Frame(point=ORIGIN, way=(1.0, 0.0, 0.0), normal=(0.0, 0.0, 1.0))
    at = 0.0
    for bend in shape.bends:
        straight = Piece(at_mm=at, length_mm=bend.straight_mm, radius_mm=None, start=frame)
        yield straight
        at += bend.straight_mm
        frame = straight.frame(bend.straight_mm)
        normal = rotated(frame.normal, frame.way, bend.rotation_deg)
        frame = Frame(point=frame.point, way=frame.way, normal=normal)
        arc = Piece(at_mm=at, length_mm=bend.arc_mm, radius_mm=bend.radius_mm, start=frame)
        yield arc
        at += bend.arc_mm
        frame = arc.frame(bend.arc_mm)
    yield Piece(at_mm=at, length_mm=shape.last_straight_mm, radius_mm=None, start=frame)


def end_frame(shape: BendList) -> Frame:
    """The frame at end B. Written out in plain figures: the search for a misreading asks for it
    thousands of times."""
    x = y = z = 0.0
    ux, uy, uz = 1.0, 0.0, 0.0  # the way
    nx, ny, nz = 0.0, 0.0, 1.0  # the normal of the bend's plane
    for bend in shape.bends:
        turn, over = radians(bend.rotation_deg), radians(bend.angle_deg)
        c, s = cos(turn), sin(turn)
        # the normal is square to the way, so turning it about the way is n·cos + (u × n)·sin
        nx, ny, nz = (
            nx * c + (uy * nz - uz * ny) * s,
            ny * c + (uz * nx - ux * nz) * s,
            nz * c + (ux * ny - uy * nx) * s,
        )
        ix, iy, iz = ny * uz - nz * uy, nz * ux - nx * uz, nx * uy - ny * ux  # to the bend's centre
        c, s = cos(over), sin(over)
        ahead, aside = bend.straight_mm + bend.radius_mm * s, bend.radius_mm * (1.0 - c)
        x, y, z = x + ux * ahead + ix * aside, y + uy * ahead + iy * aside, z + uz * ahead + iz * aside
        ux, uy, uz = ux * c + ix * s, uy * c + iy * s, uz * c + iz * s
    last = shape.last_straight_mm
    return Frame(point=(x + ux * last, y + uy * last, z + uz * last), way=(ux, uy, uz), normal=(nx, ny, nz))


def bend_middles(shape: BendList) -> tuple[Vector, ...]:
    """The middle of every bend's arc."""
    arcs = (piece for piece in pieces(shape) if piece.radius_mm is not None)
    return tuple(arc.point(arc.length_mm / 2) for arc in arcs)


def sampled(shape: BendList, step_deg: float = 6.0) -> tuple[tuple[float, Vector], ...]:
    """Points to draw the tube by: (developed position, point), arcs cut every `step_deg`."""
    drawn: list[tuple[float, Vector]] = [(0.0, ORIGIN)]
    for piece in pieces(shape):
        count = 1
        if piece.radius_mm is not None:
            count = max(1, ceil(degrees(piece.length_mm / piece.radius_mm) / step_deg))
        for k in range(1, count + 1):
            part = piece.length_mm * k / count
            drawn.append((piece.at_mm + part, piece.point(part)))
    return tuple(drawn)
