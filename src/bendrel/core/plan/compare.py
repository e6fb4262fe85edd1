"""Complete choices for one line, side by side: tube, ends and nuts, each planned and weighed."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from bendrel.core.findings import Finding, Severity
from bendrel.core.line.document import Line
from bendrel.core.line.run import Run
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.tube import Bending, Flaring, Tube
from bendrel.core.parts.verdict import VERDICT_ORDER, VerdictWord, preferred
from bendrel.core.plan.model import Plan
from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.retube import with_tube
from bendrel.core.record import record
from bendrel.core.work.shopping import Need

MOST = 4


@record
class Choice:
    """One complete choice. `document` is the line with it taken. `margin` is allowed over working
    pressure, None where no pressure is known; `school` says that the shop prefers this material."""

    present: bool
    material: str
    material_name: str
    size: str
    wall_mm: float
    ends: tuple[str, str]
    adapters: int
    verdict: VerdictWord | None
    worst: Severity | None
    against: tuple[str, ...]
    bends: Bending
    flares: Flaring | Literal["nothing to flare"]
    tweaks: bool
    margin: float | None
    mass_g: float
    bender_name: str
    school: bool
    needs: tuple[Need, ...]
    document: Line


def compare(run: Run, kit: Kit) -> tuple[Choice, ...]:
    """The present choice and up to three others for one tube of a line, the best first.

    The best tube of each family of materials, in the present size or the nearest to its bore; the
    wall that is strong enough, else the strongest; ends that are not refused, suit the port and can
    be formed in it.
    Ranked by what stands against it, the verdict, the shop's school, and the pressure margin.
    """
    present = _weigh(run, kit, present=True)
    if present is None:
        return ()
    families: dict[str, Choice] = {}
    for choice in sorted(_others(run, kit), key=_rank):
        families.setdefault(kit.materials[choice.material].family, choice)
    return (present, *list(families.values())[: MOST - 1])


def _rank(choice: Choice) -> tuple[int, int, bool, int, str]:
    stops = {"stop": 2, "caution": 1, "note": 0, None: 0}[choice.worst]
    word = VERDICT_ORDER[choice.verdict or "acceptable"]
    return stops, word, not choice.school, len(choice.against), choice.material


def _others(run: Run, kit: Kit) -> Iterator[Choice]:
    now = kit.tubes.get(run.span.tube)
    if now is None:
        return
    for material in kit.materials:
        verdict = kit.verdict("tube", material, run.line.service)
        if material != now.material and (verdict is None or verdict.verdict != "refused"):
            changed = (with_tube(run, kit, tube) for tube in _walls(kit, material, now))
            weighed = [c for c in (_weigh(other, kit, present=False) for other in changed if other) if c]
            strong = next((c for c in weighed if c.margin is None or c.margin >= 1), None)
            if weighed:
                yield strong or max(weighed, key=lambda c: c.margin or 0)


def _walls(kit: Kit, material: str, now: Tube) -> list[Tube]:
    """Tubes of one material in the present size, the wall nearest to the present one first; without
    that size, the one with the nearest diameter, within a tenth."""
    own = [t for t in kit.tubes.values() if t.material == material]
    same = [t for t in own if t.size == now.size]
    near = same or [t for t in own if abs(t.od_mm - now.od_mm) <= now.od_mm / 10]
    return sorted(near, key=lambda t: (abs(t.od_mm - now.od_mm), abs(t.wall_mm - now.wall_mm)))


def _weigh(run: Run, kit: Kit, *, present: bool) -> Choice | None:
    line, span = run.line, run.span
    plan = plan_line(line, kit)
    piece = plan.piece(span.id)
    tube, bender = kit.tubes.get(span.tube), kit.benders.get(span.bender)
    if piece is None or piece.part is None or plan.chosen is None or tube is None or bender is None:
        return None
    material = kit.materials[tube.material]
    verdict = kit.verdict("tube", material.id, line.service)
    ends = (kit.fittings[span.end_a.fitting], kit.fittings[span.end_b.fitting])
    adapters = sum(one.kind == "component" and one.what == "adapter" for one in line.spans)
    against = [f for f in plan.findings if f.stage == "choose" and f.severity != "note"]
    worst: Severity | None = None
    if against:
        worst = "stop" if any(f.severity == "stop" for f in against) else "caution"
    return Choice(
        present=present,
        material=material.id,
        material_name=material.name,
        size=tube.size,
        wall_mm=tube.wall_mm,
        ends=(ends[0].name, ends[1].name),
        adapters=adapters,
        verdict=verdict.verdict if verdict else None,
        worst=worst,
        against=_titles(against),
        bends=material.bends,
        flares=material.flares if any(e.flared for e in ends) else "nothing to flare",
        tweaks=material.tweaks_in_place,
        margin=_margin(plan, span.id),
        mass_g=plan.chosen.mass_g,
        bender_name=bender.name,
        school=verdict is not None and preferred(verdict, kit.preferences),
        needs=plan.chosen.needs,
        document=line,
    )


def _titles(findings: list[Finding]) -> tuple[str, ...]:
    """One title a kind; the same at several bends is said once."""
    found: dict[str, list[str]] = {}
    for finding in findings:
        found.setdefault(finding.code, []).append(finding.title)
    return tuple(f"{t[0]}, and {len(t) - 1} more" if len(t) > 1 else t[0] for t in found.values())


def _margin(plan: Plan, span: str) -> float | None:
    chosen = plan.chosen
    if chosen is None or chosen.strength is None or chosen.carried is None or chosen.carried.duty.vacuum:
        return None
    tube = next(one for one in chosen.strength.elements if one.kind == "tube" and one.where.span == span)
    if tube.allowed_kpa is None:
        return None
    return tube.allowed_kpa / chosen.carried.duty.working_kpa
