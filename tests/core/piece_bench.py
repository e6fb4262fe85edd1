"""A bench for test pieces that shares nothing with the calibration: a tube of points is wound on a die and
read with a straight-edge, a protractor and a caliper, by intersecting lines and taking extents."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np


@dataclass(frozen=True)
class Tool:
    """A bender as it really is: the die's radius, where its zero truly lies (mm past the mark), and how the
    tube comes back: dial = (1 + share) · angle + fixed."""

    die_mm: float
    zero_mm: float
    share: float
    fixed_deg: float


def bent_piece(tool: Tool, cut_mm: float, mark_mm: float, dial_deg: float):
    """Centreline points of the piece and (corner-free) its two straight ways. The arc that the die wound,
    die · dial, keeps its length when it springs back to fewer degrees."""
    angle = (dial_deg - tool.fixed_deg) / (1 + tool.share)
    arc = tool.die_mm * np.radians(dial_deg)
    radius = arc / np.radians(angle)
    start = mark_mm + tool.zero_mm
    turned = np.radians(np.linspace(0, angle, 721))
    round_ = np.column_stack([start + radius * np.sin(turned), radius * (1 - np.cos(turned))])
    way = np.array([np.cos(turned[-1]), np.sin(turned[-1])])
    end = round_[-1] + way * (cut_mm - start - arc)
    return np.array([[0.0, 0.0], *round_, end]), way, radius, angle


def meet(p, u, q, v):
    """Where the line through `p` along `u` meets the line through `q` along `v`."""
    t, _ = np.linalg.solve(np.column_stack([u, -v]), np.subtract(q, p))
    return np.asarray(p) + t * np.asarray(u)


def readings(
    tool: Tool, od_mm: float, cut_mm: float, mark_mm: float, dial_deg: float, told_deg: float | None = None
) -> dict[str, float]:
    """Legs to the outside corner, or hooked over the back of a bend that was told 150° and more (`told_deg`,
    else what it was pulled to); the angle between the legs; the width over the bend."""
    points, way, radius, angle = bent_piece(tool, cut_mm, mark_mm, dial_deg)
    ahead = np.array([1.0, 0.0])
    out_a, out_b = np.array([0.0, -1.0]), np.array([way[1], -way[0]])  # square to each leg, outwards
    end = points[-1]
    if (dial_deg if told_deg is None else told_deg) < 150:
        corner = meet(out_a * od_mm / 2, ahead, end + out_b * od_mm / 2, way)
        leg_a, leg_b = corner[0], float((end - corner) @ way)
    else:
        leg_a = float(points[:, 0].max()) + od_mm / 2
        leg_b = float((end @ way) - (points @ way).min()) + od_mm / 2
    return {"leg A": float(leg_a), "leg B": float(leg_b), "angle": float(angle), "width": 2 * radius + od_mm}
