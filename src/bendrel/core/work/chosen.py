"""Everything that follows from what was chosen: strength, flow, hoses, tools and the kit list."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import pi

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.flow.along import Flowing, flow_of_line
from bendrel.core.flow.strength import Strength, strength_of
from bendrel.core.joints.direction import Flows, flow_of
from bendrel.core.joints.pieces import Pieces
from bendrel.core.line.carried import Carried, carried
from bendrel.core.line.document import Line
from bendrel.core.line.removed import Removed
from bendrel.core.line.resolve import Problem
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.work.clip_words import holes_to_drill
from bendrel.core.work.shopping import Need, NewClips, needs_of
from bendrel.core.work.tools import Tool, tools_for


@record
class Chosen:
    """The consequences of the choices. `carried`, `strength` and `flowing` are None while nobody has
    said what the line carries. Its problems do not keep the line from being planned."""

    carried: Carried | None
    pieces: Pieces
    strength: Strength | None
    flowing: Flowing | None
    flows: Flows
    tools: tuple[Tool, ...]
    needs: tuple[Need, ...]
    mass_g: float
    problems: tuple[Problem, ...]


def choose(
    line: Line,
    kit: Kit,
    rigids: Sequence[Rigid],
    pieces: Pieces,
    removed: Removed,
    clips: Mapping[str, NewClips],
) -> Chosen:
    """Work out what follows for the line of these planned pieces; `clips` are those of each tube."""
    problems: list[Problem] = []
    duty = carried(line, kit, problems)
    strength: Strength | None = None
    flowing: Flowing | None = None
    if duty is not None:
        strength = strength_of(kit, rigids, pieces, duty, line.unit)
        flowing = flow_of_line(line, kit, rigids, pieces, duty)
    decision = line.condition.decision
    return Chosen(
        carried=duty,
        pieces=pieces,
        strength=strength,
        flowing=flowing,
        flows=flow_of(line, vacuum=duty is not None and duty.duty.vacuum),
        tools=tools_for(kit, rigids, pieces, line.unit, holes_to_drill(line)),
        needs=needs_of(
            kit,
            rigids,
            pieces,
            removed,
            duty,
            flowing.volume_ml if flowing else 0.0,
            decided=decision.choice if decision else None,
            clips=clips,
        ),
        mass_g=sum(tube_mass_g(rigid.choices, rigid.part.developed_mm) for rigid in rigids),
        problems=tuple(problems),
    )


def tube_mass_g(chosen: Choices, length_mm: float) -> float:
    """Mass of the finished tube in grams. Source: plane geometry and the material's density."""
    section = pi / 4 * (chosen.tube.od_mm**2 - chosen.tube.bore_mm**2)
    return section * length_mm * chosen.material.density_kg_m3 * 1e-6
