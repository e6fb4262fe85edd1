"""Rules on straights, angles and radii: can this shape be bent in this tube on this tool?"""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil

from bendrel.core.findings import DERIVED, Change, Finding, Fix
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
            yield Finding(
                severity="stop",
                code="straight_missing",
                where=case.at_straight(number),
                title=f"No straight between {first} and {second}",
                message=(
                    f"The bends need {case.say(-straight)} more than this leg has. "
                    "Read it again, or use a smaller radius."
                ),
                source=DERIVED,
                advice="Lengthen the leg or move a bend.",
                # no less than the tool holds on to between two bends, or the next finding is as bad
                fix=_lengthen(
                    case,
                    number,
                    (case.bender.least_between_mm if 1 < number < len(straights) else 0.0) - straight,
                ),
            )
        elif 1 < number < len(straights) and straight < case.bender.least_between_mm - case.hand_mm:
            least = case.bender.least_between_mm
            told, needed = case.say_apart(straight, least)
            yield Finding(
                severity="stop",
                code="bends_too_close",
                where=case.at_straight(number),
                title=f"{first} and {second} are too close",
                message=(
                    f"{told} of straight between them; {case.bender.name} needs {needed} to hold the tube."
                ),
                source=case.bender.source,
                advice="Lengthen the leg or use a bender with a shorter grip.",
                fix=_lengthen(case, number, least - straight),
            )


def _lengthen(case: Case, number: int, missing_mm: float) -> Fix | None:
    """Set the leg's reading to the next mark of the rule that is long enough."""
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
        yield Finding(
            severity="stop",
            code="angle_over_limit",
            where=case.at_bend(bend.number),
            title=f"Bend {bend.number} is beyond the bender",
            message=f"{told}; {case.bender.name} stops at {most:g}°.",
            source=case.bender.source,
            advice="Split it into two bends with the tool's grip between them, or use another tool.",
        )


def _radii(case: Case) -> Iterator[Finding]:
    tool = case.bender.radius_mm
    least = case.material.least_radius_per_od * case.tube.od_mm
    safety = case.service.safety_critical
    for bend in case.part.bends:
        if tool is not None and abs(bend.radius_mm - tool) > 0.05:
            yield Finding(
                severity="caution",
                code="radius_not_the_tools",
                where=case.at_bend(bend.number),
                title=f"Bend {bend.number} has another radius than the tool",
                message=(
                    f"Drawn with {case.say(bend.radius_mm)}; {case.bender.name} makes "
                    f"{case.say(tool)}. The marks are only right for the radius drawn."
                ),
                source=case.bender.source,
                advice="Use the tool's radius, or choose the tool that makes this one.",
                fix=_tool_radius(case, bend.id),
            )
        tight = bend.radius_mm < least - case.hand_mm
        if tight:
            told, needed = case.say_apart(bend.radius_mm, least)
            yield Finding(
                severity="stop" if safety else "caution",
                code="radius_too_tight",
                where=case.at_bend(bend.number),
                title=f"Bend {bend.number} is too tight for {case.material.name}",
                message=(
                    f"Radius {told} is "
                    f"{bend.radius_mm / case.tube.od_mm:.1f} × the outside diameter; by hand "
                    f"{case.material.least_radius_per_od:g} × ({needed}) is the least "
                    "before it wrinkles or flattens."
                ),
                source=case.material.limits_source,
                advice="Use a larger radius.",
                fix=_wider(case, bend.id, least),
                safety=safety,
            )
        # within the radius that hand tools make every day the tube does not crack, whatever a test bar
        # breaks at
        strain = outer_strain(case.tube.od_mm, bend.radius_mm)
        if tight and strain > case.material.elongation:
            yield Finding(
                severity="caution",
                code="strain_over_elongation",
                where=case.at_bend(bend.number),
                title=f"Bend {bend.number} may crack on its back",
                message=(
                    f"The back stretches by {strain:.0%}; {case.material.name} breaks at "
                    f"{case.material.elongation:.0%}."
                ),
                source=case.material.source,
                advice="Use a larger radius.",
                safety=safety,
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
    yield Finding(
        severity="stop",
        code="bender_size",
        where=case.this(),
        title="The bender is for another size",
        message=(
            f"{case.bender.name} takes {case.bender.size} tube; this is {case.tube.size}. "
            "A loose groove flattens the tube, a tight one scores it."
        ),
        source=case.bender.source,
        advice="Choose a bender for this size.",
        fix=choose(f"Use {fitting[0].name}", (case.run.at("bender"), fitting[0].id)) if fitting else None,
    )
