"""The tube as a mesh, for STL and glTF: a closed skin of outside, bore and two end faces."""

from __future__ import annotations

from math import ceil, degrees, pi
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import pieces
from bendrel.core.geometry.vectors import rotated

AROUND = 32
STEP_DEG = 4.0

Array = NDArray[np.float64]


def write_mesh(shape: BendList, od_mm: float, bore_mm: float, kind: Literal["stl", "glb"]) -> bytes:
    """Binary STL in millimetres, or glTF in metres as that format wants it."""
    import trimesh  # heavy, and only files need it

    points, faces = tube_mesh(shape, od_mm, bore_mm)
    mesh = trimesh.Trimesh(points if kind == "stl" else points / 1000.0, faces, process=False)
    data = mesh.export(file_type=kind)
    if not isinstance(data, bytes):
        raise TypeError("a mesh file is bytes")
    return data


def tube_mesh(shape: BendList, od_mm: float, bore_mm: float) -> tuple[Array, NDArray[np.int64]]:
    """Points in mm and triangles of a tube with `od_mm` outside and `bore_mm` inside.

    The rings follow the tube's own untwisted frame, so that no facet is wrung.
    """
    centres, ups, sides = _rings(shape)
    angles = np.arange(AROUND) * 2 * pi / AROUND
    around = np.stack([np.cos(angles), np.sin(angles)])
    skins = []
    for radius in (od_mm / 2, bore_mm / 2):
        offset = radius * (
            around[0][None, :, None] * ups[:, None, :] + around[1][None, :, None] * sides[:, None, :]
        )
        skins.append((centres[:, None, :] + offset).reshape(-1, 3))
    rings = len(centres)
    faces = [
        *_skin(rings, 0, outward=True),
        *_skin(rings, rings * AROUND, outward=False),
        *_cap(0, rings * AROUND, outward=False),
        *_cap((rings - 1) * AROUND, (2 * rings - 1) * AROUND, outward=True),
    ]
    return np.concatenate(skins), np.array(faces, dtype=np.int64)


def _rings(shape: BendList) -> tuple[Array, Array, Array]:
    """Centre and two square directions of every ring from end A."""
    up, side = (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)
    rows = [((0.0, 0.0, 0.0), up, side)]
    for piece in pieces(shape):
        if piece.length_mm <= 1e-9:
            continue
        count, angle = 1, 0.0
        if piece.radius_mm is not None:
            angle = degrees(piece.length_mm / piece.radius_mm)
            count = max(2, ceil(angle / STEP_DEG))
        first_up, first_side = up, side
        for k in range(1, count + 1):
            part = k / count
            up = rotated(first_up, piece.start.normal, angle * part)
            side = rotated(first_side, piece.start.normal, angle * part)
            rows.append((piece.point(piece.length_mm * part), up, side))
    columns = [np.array([row[k] for row in rows]) for k in range(3)]
    return columns[0], columns[1], columns[2]


def _skin(rings: int, first: int, *, outward: bool) -> list[tuple[int, int, int]]:
    faces = []
    for ring in range(rings - 1):
        for k in range(AROUND):
            a, b = first + ring * AROUND + k, first + ring * AROUND + (k + 1) % AROUND
            c, d = a + AROUND, b + AROUND
            pair = [(a, b, c), (b, d, c)] if outward else [(a, c, b), (b, c, d)]
            faces += pair
    return faces


def _cap(outer: int, inner: int, *, outward: bool) -> list[tuple[int, int, int]]:
    faces = []
    for k in range(AROUND):
        n = (k + 1) % AROUND
        a, b, c, d = outer + k, outer + n, inner + k, inner + n
        faces += [(a, b, c), (b, d, c)] if outward else [(a, c, b), (b, c, d)]
    return faces
