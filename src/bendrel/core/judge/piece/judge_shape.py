"""Rules on straights, angles and radii: can this shape be bent in this tube on this tool?"""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil

from bendrel.core.findings import DERIVED, Change, EndName, Finding, Fix
from bendrel.core.geometry.tool_radius import usual_at
from bendrel.core.judge.case import Case, choose
from bendrel.core.line.document import BendReadings
from bendrel.core.line.paths import LAST, at, readings_path, row_path
from bendrel.core.parts.tube import outer_strain
from bendrel.core.units.notation import MM_PER_INCH, format_length


def judge_shape(case: Case) -> Iterator[Finding]:
    """Findings on the shape itself and on what the bender can do of it."""
    yield from _straights(case)
    yield from _angles(case)
    yield from _radii(case)
    yield from _tool(case)


def _straights(case: Case) -> Iterator[Finding]:
    bends = case.part.bends
    straights = [*(bend.straight_mm for bend in bends), case.part.last_straight_mm]
    for number, straight in enumerate(straights, start=1):
        first = "end A" if number == 1 else f"bend {number - 1}"
        second = "end B" if number == len(straights) else f"bend {number}"
        if straight < 0:
            yield case.told(
                "straight_missing",
                case.at_straight(number),
                source=DERIVED,
                fix=_lengthen(case, number, _least(case, number, len(straights)) - straight),
                first=first,
                second=second,
                straight=case.say(-straight),
            )
        elif 1 < number < len(straights) and straight < case.bender.least_between_mm - case.hand_mm:
            least = case.bender.least_between_mm
            told, needed = case.say_apart(straight, least)
            yield case.told(
                "bends_too_close",
                case.at_straight(number),
                source=case.bender.source,
                fix=_lengthen(case, number, least - straight),
                first=first,
                second=second,
                told=told,
                needed=needed,
            )


def _least(case: Case, number: int, straights: int) -> float:
    """The straight that a leg must have: what the tool holds between two bends, or what an end takes."""
    if 1 < number < straights:
        return case.bender.least_between_mm
    end: EndName = "A" if number == 1 else "B"
    if case.fittings[end].flared:
        return min(case.rooms[end].before_mm, case.rooms[end].after_mm)
    held = case.part.held_end == end
    return case.bender.least_before_first_mm if held else case.bender.least_after_last_mm


def _lengthen(case: Case, number: int, missing_mm: float) -> Fix | None:
    """Set the leg's reading to the next mark of the rule that is long enough; tried before it is offered, for
    a leg may be read from the next one's corner."""
    readings = case.run.span.readings
    if not isinstance(readings, BendReadings):
        return None
    last = number > len(readings.rows)
    path = LAST if last else row_path(readings.rows[number - 1].id, "length")
    step = MM_PER_INCH / 32 if case.line.unit == "in" else 0.5
    wanted = ceil((case.lengths_mm[path] + missing_mm) / step - 1e-6) * step
    text = format_length(wanted, case.line.unit)
    pointer = readings_path(case.part.span, path)
    return Fix(
        label=f"Make this leg {text}",
        changes=(
            Change(path=pointer + at("exact_mm"), value=None),
            Change(path=pointer + at("text"), value=text),
        ),
        choice=True,
    )


def _angles(case: Case) -> Iterator[Finding]:
    dials = {move.bend: move.dial_deg for move in case.part.moves}
    most = case.bender.greatest_angle_deg
    for bend in case.part.bends:
        if bend.angle_deg > most:
            told = f"{bend.angle_deg:g}° is asked"
        elif dials[bend.number] > most + 0.05:
            told = f"{bend.angle_deg:g}° springs back and needs {dials[bend.number]:.1f}° on the dial"
        else:
            continue
        yield case.told(
            "angle_over_limit", case.at_bend(bend.number), source=case.bender.source, told=told, most=most
        )


def _radii(case: Case) -> Iterator[Finding]:
    least = case.material.least_radius_per_od * case.tube.od_mm
    for bend in case.part.bends:
        tool = usual_at(case.bender.radius, bend.angle_deg)
        if tool is not None and abs(bend.radius_mm - tool) > 0.05:
            yield case.told(
                "radius_not_the_tools",
                case.at_bend(bend.number),
                source=case.bender.source,
                fix=_tool_radius(case, bend.id),
                radius=case.say(bend.radius_mm),
                tool=case.say(tool),
            )
        tight = bend.radius_mm < least - case.hand_mm
        if tight:
            told, needed = case.say_apart(bend.radius_mm, least)
            yield case.told(
                "radius_too_tight",
                case.at_bend(bend.number),
                source=case.material.limits_source,
                fix=_wider(case, bend.id, least),
                told=told,
                radius_mm=bend.radius_mm / case.tube.od_mm,
                needed=needed,
            )
        # within the radius that hand tools make every day the tube does not crack, whatever a test bar
        # breaks at
        strain = outer_strain(case.tube.od_mm, bend.radius_mm)
        if tight and strain > case.material.elongation:
            yield case.told(
                "strain_over_elongation",
                case.at_bend(bend.number),
                source=case.material.source,
                strain=strain,
            )


def _tool_radius(case: Case, row: str) -> Fix | None:
    readings = case.run.span.readings
    if not isinstance(readings, BendReadings):
        return None
    return choose("Use the tool’s radius", (_radius_at(case, row), None))


def _radius_at(case: Case, row: str) -> str:
    return readings_path(case.part.span, row_path(row, "radius"))


def _wider(case: Case, row: str, least_mm: float) -> Fix | None:
    """The tool's own radius where that is wide enough, else another tool that makes one that is."""
    own = case.bender.radius_mm
    readings = case.run.span.readings
    typed = isinstance(readings, BendReadings) and any(
        one.id == row and one.radius is not None for one in readings.rows
    )
    if own is not None and own >= least_mm - case.hand_mm:
        return _tool_radius(case, row)
    for bender in case.kit.benders_for(case.tube.size, plastic=case.plastic):
        if bender.radius_mm is not None and bender.radius_mm >= least_mm - case.hand_mm:
            values: list[tuple[str, str | None]] = [(case.run.at("bender"), bender.id)]
            if typed:
                values.append((_radius_at(case, row), None))
            return choose(f"Use {bender.name}", *values)
    return None


def _tool(case: Case) -> Iterator[Finding]:
    if case.kit.takes(case.bender, case.tube.size):
        return
    fitting = case.kit.benders_for(case.tube.size, plastic=case.plastic)
    yield case.told(
        "bender_size",
        case.this(),
        source=case.bender.source,
        fix=choose(f"Use {fitting[0].name}", (case.run.at("bender"), fitting[0].id)) if fitting else None,
    )
