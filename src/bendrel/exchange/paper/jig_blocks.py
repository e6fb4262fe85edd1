"""The blocks of a jig: to print (STL) or to cut from sheet (DXF)."""

from __future__ import annotations

import io
from math import ceil
from typing import TYPE_CHECKING

from bendrel.core.bend.fitting.jig import Jig, Rest
from bendrel.exchange.paper.jig_sheet import BLOCK_MM

if TYPE_CHECKING:
    import trimesh

LOOSE_MM = 0.4
"""The slot is so much wider than the tube."""
CHEEK_MM = 6.0
"""So much of a block stands up beside the tube."""
APART_MM = 8.0
FLOOR_MM = 2.0
STOP_MM = 4.0


def write_blocks_stl(jig: Jig) -> bytes:
    """Every block of its own on the print bed, in rows in the order of the sheet: the end at home, the
    bends, the other end. Each is a solid with a slot on top for the tube; the last piece is the plate of the
    stop."""
    import trimesh

    long, wide = BLOCK_MM
    solids = [_slotted(rest, jig.od_mm) for rest in jig.rests]
    stop = jig.rests[0].high_mm + jig.od_mm + CHEEK_MM
    solids.append(trimesh.creation.box(bounds=[[0.0, 0.0, 0.0], [STOP_MM, wide, stop]]))
    across = max(1, ceil(len(solids) ** 0.5))
    for k, solid in enumerate(solids):
        solid.apply_translation([(k % across) * (long + APART_MM), (k // across) * (wide + APART_MM), 0.0])
    whole = trimesh.util.concatenate(solids)
    data = whole.export(file_type="stl") if isinstance(whole, trimesh.Trimesh) else None
    if not isinstance(data, bytes):
        raise TypeError("a mesh file is bytes")
    return data


def _slotted(rest: Rest, od_mm: float) -> trimesh.Trimesh:
    """A block with its slot: the outline of the drawing (`write_blocks_dxf`) drawn out along the tube."""
    import trimesh

    long, wide = BLOCK_MM
    base, side, top = _measures(rest, od_mm)
    # the outline once round, with the feet of the cheeks, so that the caps are rectangles corner to corner
    round_ = [
        (0, 0), (side, 0), (wide - side, 0), (wide, 0), (wide, base), (wide, top), (wide - side, top),
        (wide - side, base), (side, base), (side, top), (0, top), (0, base),
    ]  # fmt: skip
    count = len(round_)
    points = [(x, y, z) for x in (0.0, long) for y, z in round_]
    caps = [(0, 1, 8, 11), (1, 2, 7, 8), (2, 3, 4, 7), (11, 8, 9, 10), (7, 4, 5, 6)]
    faces = []
    for a, b, c, d in caps:
        faces += [(a, c, b), (a, d, c)]
        faces += [(a + count, b + count, c + count), (a + count, c + count, d + count)]
    for k in range(count):
        a, b = k, (k + 1) % count
        faces += [(a, b, b + count), (a, b + count, a + count)]
    return trimesh.Trimesh(points, faces, process=False)


def _measures(rest: Rest, od_mm: float) -> tuple[float, float, float]:
    """What the tube lies on, the width of a cheek, and the top of the cheeks."""
    base = max(FLOOR_MM, rest.high_mm)
    return base, (BLOCK_MM[1] - od_mm - LOOSE_MM) / 2, base + CHEEK_MM


def write_blocks_dxf(jig: Jig) -> str:
    """The outline of every block seen along the tube, side by side in millimetres, each with its name and
    height; two of each make a rest."""
    from ezdxf import filemanagement, units
    from ezdxf.enums import TextEntityAlignment

    document = filemanagement.new("R2010")
    document.units = units.MM
    space = document.modelspace()
    _, wide = BLOCK_MM
    for k, rest in enumerate(jig.rests):
        x = k * (wide + APART_MM)
        base, side, top = _measures(rest, jig.od_mm)
        outline = [
            (x, 0.0),
            (x + wide, 0.0),
            (x + wide, top),
            (x + wide - side, top),
            (x + wide - side, base),
            (x + side, base),
            (x + side, top),
            (x, top),
        ]
        space.add_lwpolyline(outline, close=True, dxfattribs={"layer": "CUT"})
        name = f"{'BEND' if rest.bend else 'END'} {rest.name} {base:.1f}"
        text = space.add_text(name, height=3.0, dxfattribs={"layer": "TEXT"})
        text.set_placement((x + wide / 2, base / 2), align=TextEntityAlignment.MIDDLE_CENTER)
    out = io.StringIO()
    document.write(out)
    return out.getvalue()
