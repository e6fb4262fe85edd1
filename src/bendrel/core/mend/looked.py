"""What was found on the old line, placed along the tube, and what to do about it."""

from __future__ import annotations

from collections.abc import Mapping

from bendrel.core.line.apart import end_state
from bendrel.core.line.condition import Depth, FixtureKind, FixtureState
from bendrel.core.line.document import Line
from bendrel.core.line.paths import at
from bendrel.core.line.resolve import Problem
from bendrel.core.line.run import main_run
from bendrel.core.mend.recommend import Facts, Recommendation, recommend
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.splicing import DamageKind
from bendrel.core.record import record
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.notation import UnitError


@record
class PlacedDamage:
    """One damaged place, in mm from end A's finished end of its span (blank: the whole line's)."""

    id: str
    span: str
    kind: DamageKind
    depth: Depth
    from_mm: float
    to_mm: float


@record
class PlacedFixture:
    """One clip, sleeve, grommet or retainer, in mm from end A's finished end of its span. `drills`
    says that its hole is still to be made, `behind` what lies behind that."""

    id: str
    span: str
    kind: FixtureKind
    state: FixtureState
    at_mm: float
    drills: bool = False
    behind: str = ""


@record
class Looked:
    """The old line's condition in figures. Its problems do not keep the line from being planned."""

    damage: tuple[PlacedDamage, ...]
    fixtures: tuple[PlacedFixture, ...]
    recommendation: Recommendation | None
    problems: tuple[Problem, ...]


def look_at(line: Line, kit: Kit, lengths_mm: Mapping[str, float]) -> Looked:
    """Place damage and fixtures, and weigh what to do once anything has been found. `lengths_mm` is how long
    each tube and hose is, by its span; what is noted of no span is noted of the main tube."""
    condition = line.condition
    problems: list[Problem] = []
    run = main_run(line)
    main = run.span.id if run else ""

    def place(path: str, span: str, reading: Length) -> float | None:
        if is_blank(reading):
            return None
        try:
            mm = length_mm(reading, "not_negative")
        except UnitError as error:
            problems.append(Problem(path=path, message=str(error)))
            return None
        longest = lengths_mm.get(span or main)
        if longest is not None and mm > longest:
            problems.append(Problem(path=path, message="This lies beyond end B; positions run from end A."))
            return None
        return mm

    damage = []
    for found in condition.damage:
        start = place(at("condition", "damage", found.id, "at"), found.span, found.at)
        end = place(at("condition", "damage", found.id, "to"), found.span, found.to)
        if start is not None:
            low, high = sorted((start, end if end is not None else start))
            damage.append(
                PlacedDamage(
                    id=found.id, span=found.span, kind=found.kind, depth=found.depth, from_mm=low, to_mm=high
                )
            )
    fixtures = []
    for fixture in condition.fixtures:
        where = place(at("condition", "fixtures", fixture.id, "at"), fixture.span, fixture.at)
        try:
            _ = None if is_blank(fixture.drill) else length_mm(fixture.drill)
        except UnitError as error:
            path = at("condition", "fixtures", fixture.id, "drill")
            problems.append(Problem(path=path, message=str(error)))
        if where is not None:
            fixtures.append(
                PlacedFixture(
                    id=fixture.id,
                    span=fixture.span,
                    kind=fixture.kind,
                    state=fixture.state,
                    at_mm=where,
                    drills=fixture.fixed_to == "a hole to drill",
                    behind=fixture.behind.strip(),
                )
            )
    service = kit.services.get(line.service)
    recommendation = None
    if condition.damage or condition.reasons:
        facts = Facts(
            safety_critical=service is not None and service.safety_critical,
            condition=condition,
            ends=(end_state(line, kit, "A"), end_state(line, kit, "B")),
            places_mm=tuple((d.from_mm, d.to_mm) for d in damage),
            developed_mm=lengths_mm.get(main),
            apart_mm=kit.limits["damage_apart_mm"].value,
        )
        recommendation = recommend(facts, kit.arguments)
    return Looked(
        damage=tuple(damage),
        fixtures=tuple(fixtures),
        recommendation=recommendation,
        problems=tuple(problems),
    )
