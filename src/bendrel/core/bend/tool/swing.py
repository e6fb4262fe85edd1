"""One bend at the tool: what the two sides of the tube run into while it is made, in the bench frame."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import ceil, radians
from typing import TYPE_CHECKING

from bendrel.core.bend.tool.body import Block, Surroundings
from bendrel.core.bend.tool.sides import Tail
from bendrel.core.record import record

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Array = NDArray[np.float64]
    Mask = NDArray[np.bool_]

STEP_DEG = 3.0


@record
class Contact:
    """What the tube would run into: `thing`, at which point of the bend (degrees made so far), which
    side of the tube, and how far along that side from the tool (mm)."""

    thing: str
    at_deg: float
    side: str
    along_mm: float


def resting(
    tail: Tail, around: Surroundings, radius_mm: float, keep_mm: float, grip_mm: float
) -> Contact | None:
    """What the clamped side touches while it lies in the clamp; `keep_mm` is from its centreline."""
    import numpy as np

    far = tail.along > grip_mm
    points, along = tail.points[far], tail.along[far]
    for block in around.blocks:
        if block.swings:
            continue
        low, high = np.array(block.low) - keep_mm, np.array(block.high) + keep_mm
        # where the tool itself holds the tube is its own business
        hit = np.all((points > low) & (points < high), axis=1)
        if hit.any():
            first = int(np.argmax(hit))
            return Contact(thing=block.name, at_deg=0.0, side="clamped", along_mm=float(along[first]))
    disc = np.hypot(points[:, 0], points[:, 1] - radius_mm)
    # straight tube leaves the die at a tangent: it is clear of it only some way on
    disc[along < grip_mm + np.sqrt((radius_mm + keep_mm) ** 2 - radius_mm**2)] = np.inf
    die = (disc < radius_mm + keep_mm - SEATED_MM) & (np.abs(points[:, 2]) < around.die_half_mm + keep_mm)
    if die.any():
        first = int(np.argmax(die))
        return Contact(thing="die", at_deg=0.0, side="clamped", along_mm=float(along[first]))
    return None


SEATED_MM = 1.0
"""A tube that only leaves its groove is not running into the die."""


def swinging(
    tail: Tail, around: Surroundings, radius_mm: float, angle_deg: float, keep_mm: float, grip_mm: float
) -> Contact | None:
    """The first thing that the free side touches on its way to `angle_deg`."""
    contacts = [
        *_swept_blocks(tail, around.blocks, radius_mm, angle_deg, keep_mm),
        *_swept_die(tail, around, radius_mm, angle_deg, keep_mm, grip_mm),
        *_lever(tail, around.blocks, radius_mm, angle_deg, keep_mm, grip_mm),
    ]
    return min(contacts, key=lambda contact: contact.at_deg, default=None)


def meeting(free: Tail, clamped: Tail, radius_mm: float, angle_deg: float, keep_mm: float) -> Contact | None:
    """Where the free side comes nearer than `keep_mm` (centreline to centreline) to the clamped side.

    A point of the free side keeps its height and goes round the die's axis on a spiral until it lies on the
    die. Only pairs at one height and in one ring are looked at: the least distance of each is found in steps
    of three degrees and then between the two beside the nearest (golden section), so that it is bounded
    also near the axis, where a point has no one direction.
    """
    import numpy as np

    nearest, farthest = _reach(free.points, radius_mm, angle_deg)
    there = np.hypot(clamped.points[:, 0], clamped.points[:, 1] - radius_mm)
    pairs = np.abs(free.points[:, None, 2] - clamped.points[None, :, 2]) < keep_mm
    pairs &= (there[None] > nearest[:, None] - keep_mm) & (there[None] < farthest[:, None] + keep_mm)
    # neighbours along the tube are always near one another
    pairs &= free.along[:, None] + clamped.along[None] > np.pi * radius_mm / 2 + 2 * keep_mm
    which, other = np.nonzero(pairs)
    if not len(which):
        return None
    p, q = free.points[which], clamped.points[other]
    along = free.along[which]
    until = np.minimum(radians(angle_deg), along / radius_mm)  # from then on it lies on the die
    squared = _gaps(p, q, radius_mm)
    steps = max(2, ceil(angle_deg / STEP_DEG) + 1)
    shares = np.linspace(0.0, 1.0, steps)
    best, gap = np.zeros(len(p)), squared(np.zeros(len(p)))
    for share in shares[1:]:
        there_now = squared(until * share)
        best = np.where(there_now < gap, share, best)
        gap = np.minimum(gap, there_now)
    low, high = np.maximum(best - shares[1], 0.0), np.minimum(best + shares[1], 1.0)
    for _ in range(PASSES):
        one, two = high - GOLDEN * (high - low), low + GOLDEN * (high - low)
        left = squared(until * one) < squared(until * two)
        low, high = np.where(left, low, one), np.where(left, two, high)
    at = until * (low + high) / 2
    at = np.where(squared(at) < gap, at, until * best)
    hit = np.minimum(gap, squared(at)) < keep_mm**2
    if not hit.any():
        return None
    first = int(np.argmin(np.where(hit, at, np.inf)))
    return Contact(
        thing="the tube itself",
        at_deg=float(np.degrees(at[first])),
        side="free",
        along_mm=float(along[first]),
    )


PASSES = 14
GOLDEN = 0.6180339887498949


def _gaps(p: Array, q: Array, radius: float) -> Callable[[Array], Array]:
    """The square of the distance of each pair (a point of the free side as it starts, one of the other side)
    by how far the bend stands (radians)."""
    import numpy as np

    x, y, rise = p[:, 0], p[:, 1] - radius, p[:, 2] - q[:, 2]

    def squared(phi: Array) -> Array:
        c, s, out = np.cos(phi), np.sin(phi), x - radius * phi
        gap_x, gap_y = c * out - s * y - q[:, 0], s * out + c * y + radius - q[:, 1]
        gap: Array = gap_x**2 + gap_y**2 + rise**2
        return gap

    return squared


def _angles(angle_deg: float) -> Array:
    import numpy as np

    return np.linspace(0.0, angle_deg, max(2, ceil(angle_deg / STEP_DEG) + 1))


def _paths(points: Array, along: Array, radius: float, angles: Array) -> Array:
    import numpy as np

    wrapped = np.minimum(along[None], radius * np.radians(angles)[:, None])
    turned = wrapped / radius
    x, y = points[None, :, 0] - wrapped, points[:, 1] - radius
    c, s = np.cos(turned), np.sin(turned)
    return np.stack([c * x - s * y, s * x + c * y + radius, np.broadcast_to(points[:, 2], c.shape)], axis=-1)


def _reach(points: Array, radius: float, angle_deg: float) -> tuple[Array, Array]:
    """Least and greatest distance of each point from the die's axis while it swings."""
    import numpy as np

    slid = radius * radians(angle_deg)
    x, y = points[:, 0], points[:, 1] - radius
    nearest = np.hypot(np.maximum(0.0, x - slid) + np.minimum(0.0, x), y)
    return nearest, np.maximum(np.hypot(x, y), np.hypot(x - slid, y))


def _swept_blocks(
    tail: Tail, blocks: Sequence[Block], radius: float, angle_deg: float, keep: float
) -> list[Contact]:
    """Contacts with what stands still. The height of a point never changes while it swings, so that
    only points at a block's height and within its reach are followed."""
    import numpy as np

    found: list[Contact] = []
    points = tail.points
    nearest, farthest = _reach(points, radius, angle_deg)
    for block in blocks:
        if block.swings:
            continue
        low, high = np.array(block.low) - keep, np.array(block.high) + keep
        level = (points[:, 2] > low[2]) & (points[:, 2] < high[2])
        if not level.any():
            continue
        x = max(low[0], min(high[0], 0.0))
        y = max(low[1], min(high[1], radius)) - radius
        corner = max(abs(low[0]), abs(high[0])), max(abs(low[1] - radius), abs(high[1] - radius))
        picked = level & (farthest > np.hypot(x, y)) & (nearest < np.hypot(*corner))
        if not picked.any():
            continue
        angles = _angles(angle_deg)
        paths = _paths(points[picked], tail.along[picked], radius, angles)[..., :2]
        bulge = farthest[picked].max() * radians(STEP_DEG) ** 2 / 8
        hit = _segments_in(paths[:-1], paths[1:], low[:2] - bulge, high[:2] + bulge)
        # what has gone on to the die does not move any more
        hit &= tail.along[picked][None] > radius * np.radians(angles[:-1])[:, None]
        if hit.any():
            k, which = (int(i) for i in np.argwhere(hit)[0])
            along = float(tail.along[picked][which])
            found.append(Contact(thing=block.name, at_deg=float(angles[k]), side="free", along_mm=along))
    return found


def _segments_in(start: Array, end: Array, low: Array, high: Array) -> Mask:
    """Which segments (…, 2) pass through the rectangle; slabs."""
    import numpy as np

    way = end - start
    with np.errstate(divide="ignore", invalid="ignore"):
        one, two = (low - start) / way, (high - start) / way
    still = np.abs(way) < 1e-12
    inside = (start > low) & (start < high)
    enter = np.where(still, np.where(inside, -np.inf, np.inf), np.minimum(one, two)).max(axis=-1)
    leave = np.where(still, np.where(inside, np.inf, -np.inf), np.maximum(one, two)).min(axis=-1)
    through: Mask = (enter < np.minimum(leave, 1.0)) & (leave > 0.0)
    return through


def _swept_die(
    tail: Tail, around: Surroundings, radius: float, angle_deg: float, keep: float, grip: float
) -> list[Contact]:
    """Contacts with the die: tube that comes back to it beyond the grip."""
    import numpy as np

    x, y = tail.points[:, 0], tail.points[:, 1] - radius
    slid = np.clip(x, 0.0, radius * radians(angle_deg))
    near = np.hypot(x - slid, y) < radius + keep - SEATED_MM
    near &= np.abs(tail.points[:, 2]) < around.die_half_mm + keep
    near &= tail.along > slid + grip + np.sqrt((radius + keep) ** 2 - radius**2)
    if not near.any():
        return []
    which = int(np.argmax(near))
    at = float(np.degrees(slid[which] / radius))
    return [Contact(thing="die", at_deg=at, side="free", along_mm=float(tail.along[which]))]


def _lever(
    tail: Tail, blocks: Sequence[Block], radius: float, angle_deg: float, keep: float, grip: float
) -> list[Contact]:
    """Contacts with what swings along: seen from it, the free side only slides by R·φ."""
    import numpy as np

    found = []
    slid = radius * radians(angle_deg)
    far = tail.along > slid + grip
    for block in blocks:
        if not block.swings:
            continue
        low, high = np.array(block.low) - keep, np.array(block.high) + keep
        p = tail.points[far]
        hit = (p[:, 1] > low[1]) & (p[:, 1] < high[1]) & (p[:, 2] > low[2]) & (p[:, 2] < high[2])
        hit &= (p[:, 0] > low[0]) & (p[:, 0] - slid < high[0])
        if hit.any():
            which = int(np.argmax(hit))
            start = max(0.0, float(p[which, 0]) - float(high[0]))
            along = float(tail.along[far][which])
            at = float(np.degrees(start / radius))
            found.append(Contact(thing=block.name, at_deg=at, side="free", along_mm=along))
    return found


def levered(
    tail: Tail, blocks: Sequence[Block], radius_mm: float, angle_deg: float, keep_mm: float, grip_mm: float
) -> Contact | None:
    """Where what swings along comes round against the clamped side; seen from it, the clamped side goes
    backwards round the die's axis."""
    import numpy as np

    found: list[Contact] = []
    x, y, z = tail.points[:, 0], tail.points[:, 1] - radius_mm, tail.points[:, 2]
    out, at = np.hypot(x, y), np.arctan2(y, x)
    for block in blocks:
        if not block.swings:
            continue
        low, high = np.array(block.low) - keep_mm, np.array(block.high) + keep_mm
        near, far, first, last = _seen_from_axis(low, high, radius_mm)
        # only what lies at its height, in its ring and in the sector that it sweeps is followed
        picked = (tail.along > grip_mm) & (z > low[2]) & (z < high[2]) & (out > near) & (out < far)
        picked &= np.mod(at - first, 2 * np.pi) < last - first + radians(angle_deg)
        if not picked.any():
            continue
        angles = _angles(angle_deg)
        c, s = np.cos(np.radians(angles))[:, None], np.sin(np.radians(angles))[:, None]
        px, py, along = x[picked], y[picked], tail.along[picked]
        paths = np.stack([c * px + s * py, c * py - s * px + radius_mm], axis=-1)
        bulge = out[picked].max() * radians(STEP_DEG) ** 2 / 8
        hit = _segments_in(paths[:-1], paths[1:], low[:2] - bulge, high[:2] + bulge)
        if hit.any():
            k, which = (int(i) for i in np.argwhere(hit)[0])
            found.append(
                Contact(
                    thing=block.name,
                    at_deg=float(angles[k]),
                    side="clamped",
                    along_mm=float(along[which]),
                )
            )
    return min(found, key=lambda contact: contact.at_deg, default=None)


def _seen_from_axis(low: Array, high: Array, radius: float) -> tuple[float, float, float, float]:
    """A rectangle that does not hold the die's axis: its ring (mm) and its sector (radians)."""
    import numpy as np

    xs, ys = np.array([low[0], high[0]]), np.array([low[1], high[1]]) - radius
    corners = np.array([(a, b) for a in xs for b in ys])
    angles = np.arctan2(corners[:, 1], corners[:, 0])
    beside = np.hypot(max(xs[0], min(xs[1], 0.0)), max(ys[0], min(ys[1], 0.0)))
    return float(beside), float(np.hypot(*corners.T).max()), float(angles.min()), float(angles.max())
