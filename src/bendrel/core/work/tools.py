"""The tools that the line asks for: wrenches of either system, flaring tool, bender, and the rest."""

from __future__ import annotations

from collections.abc import Sequence

from bendrel.core.bend.tube.ends import EndParts
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.joints.pieces import Pieces
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.threads.wrench import wrenches_for
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length


@record
class Tool:
    """One tool and what for. `also` are wrenches of another size or system that can stand in."""

    what: str
    why: str
    also: tuple[str, ...] = ()
    note: str = ""


def tools_for(
    kit: Kit, rigids: Sequence[Rigid], pieces: Pieces, unit: Unit, drills: Sequence[str]
) -> tuple[Tool, ...]:
    """All tools of the line, wrenches first; `drills` are the sizes of the holes that its clips take.
    Source: hexes of the catalogue, the wrench band."""
    found: list[Tool] = []
    for rigid in rigids:
        found += [tool for parts in rigid.ends for tool in _wrenches(kit, parts, unit)]
        if not rigid.new:
            continue
        found.append(Tool(what="tube cutter, deburring tool and a fine file", why="square ends, clean bore"))
        formed: dict[str, list[EndParts]] = {}
        for parts in rigid.ends:
            if parts.fitting.flared or parts.fitting.grip_mm > 0:
                formed.setdefault(parts.fitting.id, []).append(parts)
        size, bender = rigid.tube.size, rigid.choices.bender
        for alike in formed.values():
            what = "flaring tool" if alike[0].fitting.flared else "beading tool"
            where = " and ".join(parts.end for parts in alike)
            found.append(Tool(what=f"{what} for {alike[0].fitting.name}, {size}", why=f"end {where}"))
        found.append(Tool(what=f"{bender.name}, {bender.size}", why="the bends"))
    kinds = {hose.clamp.kind for hose in pieces.hoses if hose.clamp is not None}
    found += [Tool(what=kit.clamp_kinds[kind].driver, why="hose ends") for kind in sorted(kinds)]
    for hole in dict.fromkeys(drills):
        size = f"drill {hole}" if hole else "drill as large as the clip's screw"
        found.append(Tool(what=f"{size}, centre punch, deburring tool, paint", why="holes for the clips"))
    return tuple(dict.fromkeys(found))


def _wrenches(kit: Kit, parts: EndParts, unit: Unit) -> list[Tool]:
    if parts.nut is None:
        return []
    fits = wrenches_for(parts.nut.hex_mm, kit.wrenches, kit.wrench_band)
    hexed = format_length(parts.nut.hex_mm, unit)
    kind = "flare-nut wrench" if parts.fitting.flared else "open-end wrench"
    if not fits:
        what = f"{kind} for a hex of {parts.nut.hex_mm:.1f} mm"
        return [Tool(what=what, why=f"nut at end {parts.end}", note="no wrench of the list fits")]
    little = parts.room.straight_mm < kit.limits["little_room_mm"].value
    note = "little room to swing: crowfoot of the same size" if little else ""
    tools = [
        Tool(
            what=f"{kind} {fits[0].wrench}",
            why=f"nut at end {parts.end}, hex {hexed}",
            also=tuple(fit.wrench for fit in fits[1:]),
            note=note,
        )
    ]
    if parts.choice.port.seat not in ("npt-port",):
        tools.append(
            Tool(
                what="second wrench to hold the other part",
                why=f"end {parts.end}: a hose, union or valve must not turn with the nut",
                note="a port in a casting needs none",
            )
        )
    return tools
