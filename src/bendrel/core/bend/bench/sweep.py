"""One move as it is seen at the tool, for the stage."""

from __future__ import annotations

from bendrel.core.bend.bench.bendable import bendable, told
from bendrel.core.bend.tool.body import Block, surroundings
from bendrel.core.bend.tool.order import Blocked
from bendrel.core.bend.tool.sides import swung
from bendrel.core.bend.tube.marking import order_of
from bendrel.core.bend.tube.part import Part, ids_of, shape_of
from bendrel.core.findings import EndName
from bendrel.core.geometry.vectors import Vector
from bendrel.core.line.run import Run
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record


@record
class Moment:
    """One moment of a swing: degrees made, and the free side's centreline."""

    deg: float
    free: tuple[Vector, ...]


@record
class SwingView:
    """One move as it is seen at the tool, in the bench frame (mm): the clamped side, the free side at
    every moment, what stands around, and where something is hit (None where nothing is)."""

    move: int
    bend: int
    held: EndName
    radius_mm: float
    od_mm: float
    clamped: tuple[Vector, ...]
    standings: tuple[Moment, ...]
    blocks: tuple[Block, ...]
    hit: str
    hit_deg: float | None
    hit_at: Vector | None


FRAMES = 24


def swing_view(run: Run, kit: Kit, part: Part, move: int) -> SwingView:
    """Move `move` (1 is the first) as it swings. Raises IndexError where there is no such move."""
    shape = shape_of(part)
    order = order_of(run.span, ids_of(part))[0]
    setting = order[move - 1]
    tried = bendable(run, kit, part, shape)
    made = sum(1 << s.bend for s in order[: move - 1])
    free = tried.tail(setting.bend, made, setting.held, free=True)
    clamped = tried.tail(setting.bend, made, setting.held, free=False)
    contact = tried.blocks(setting.bend, made, setting.held)
    own = tried.bend(setting.bend, setting.held)
    count = max(2, min(FRAMES, round(own.angle_deg / 5)))
    standings = []
    for k in range(count + 1):
        deg = own.angle_deg * k / count
        points = swung(free, own.radius_mm, deg)
        standings.append(Moment(deg=deg, free=tuple((float(x), float(y), float(z)) for x, y, z in points)))
    hit_at = None
    if contact is not None and not contact.thing.startswith("no straight"):
        side = clamped.points if contact.side == "clamped" else swung(free, own.radius_mm, contact.at_deg)
        along = clamped.along if contact.side == "clamped" else free.along
        nearest = int(abs(along - contact.along_mm).argmin())
        x, y, z = (float(v) for v in side[nearest])
        hit_at = (x, y, z)
    kind = kit.tool_kinds[kit.benders[run.span.bender].kind]
    span = run.span
    around = surroundings(kit.benders[span.bender], kind, kit.bench, own.radius_mm, turned=span.turned)
    blocked = Blocked(bend=setting.bend, held=setting.held, contact=contact) if contact else None
    return SwingView(
        move=move,
        bend=setting.bend + 1,
        held=setting.held,
        radius_mm=own.radius_mm,
        od_mm=part.od_mm,
        clamped=tuple((float(x), float(y), float(z)) for x, y, z in clamped.points),
        standings=tuple(standings),
        blocks=around.blocks,
        hit=told(blocked, run.line.unit) if blocked else "",
        hit_deg=contact.at_deg if contact else None,
        hit_at=hit_at,
    )
