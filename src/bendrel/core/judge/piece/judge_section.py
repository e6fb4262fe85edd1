"""Rules on what the bends do to the tube's section."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.bend.tool.section import Section, section_after
from bendrel.core.bend.tube.part import Part
from bendrel.core.findings import Finding
from bendrel.core.judge.case import Case
from bendrel.core.line.document import Line
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.rule_names import LimitName
from bendrel.core.parts.service import Service


def section_of(kit: Kit, chosen: Choices, radius_mm: float) -> Section | None:
    """The section in a bend of `radius_mm`; None where the radius is inside the tube."""
    try:
        return section_after(
            chosen.tube.od_mm,
            chosen.tube.wall_mm,
            radius_mm,
            flattens=kit.tool_kinds[chosen.bender.kind].flattens,
            coefficient=kit.limits["flat_coefficient"].value,
        )
    except ValueError:
        return None


def sections_of(
    line: Line, kit: Kit, chosen: Choices, part: Part
) -> tuple[tuple[Section | None, ...], float]:
    """The section in every bend, and the flattening that the service takes."""
    sections = tuple(section_of(kit, chosen, bend.radius_mm) for bend in part.bends)
    return sections, kit.limits[flat_limit(kit, kit.services[line.service])].value


def flat_limit(kit: Kit, service: Service) -> LimitName:
    """Which limit of flattening a service has, by its name in the rules."""
    duty = service.duty
    if service.flat:
        return service.flat
    if duty is not None and duty.vacuum:
        return "flat_vacuum"
    if duty is not None and duty.working_kpa >= kit.limits["flat_pressure_from_kpa"].value:
        return "flat_pressure"
    return "flat_low"


def judge_section(case: Case) -> Iterator[Finding]:
    """Flattening and kinks of every bend against what the service takes."""
    if case.material.family == "plastic":
        return
    limit = case.kit.limits[flat_limit(case.kit, case.service)]
    chosen = Choices(tube=case.tube, material=case.material, bender=case.bender, calibration=None)
    kind = case.kit.tool_kinds[case.bender.kind]
    hardest = case.kit.limits["hardest_bend"]
    for bend in case.part.bends:
        section = section_of(case.kit, chosen, bend.radius_mm)
        if section is None:
            continue
        if section.flat > limit.value:
            yield case.told(
                "flattens",
                case.at_bend(bend.number),
                source=limit.source,
                flat=section.flat,
                wall=case.say_wall(case.tube.wall_mm),
                radius=case.say(bend.radius_mm),
                kind=kind.name,
                limit=limit.value,
            )
        if section.hardness > hardest.value or section.radius_per_od < kind.kinks_below - 1e-6:
            yield case.told(
                "kinks",
                case.at_bend(bend.number),
                source=kind.source,
                radius_per_od=section.radius_per_od,
                od_mm=case.tube.od_mm / case.tube.wall_mm,
                kind=kind.name,
                kinks_below=kind.kinks_below,
            )
