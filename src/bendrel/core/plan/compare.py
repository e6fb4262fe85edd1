"""Complete choices for one line, side by side: tube, ends and nuts, each planned and weighed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from bendrel.core.chain.put_in import component_between
from bendrel.core.chain.shopping import Need
from bendrel.core.edits.chain import fresh_id, insert_beside
from bendrel.core.ends.fitting import Fitting, Nut
from bendrel.core.findings import EndName, Finding, Severity
from bendrel.core.joints.face import Face
from bendrel.core.joints.faces import port_face
from bendrel.core.line.document import ComponentSpan, Line, Port, Side, TubeEnd
from bendrel.core.line.run import ENDS, Run, RunEnd, run_of, with_span
from bendrel.core.parts.verdict import VERDICT_ORDER, VerdictWord, preferred
from bendrel.core.plan.assemble import plan_line
from bendrel.core.plan.model import Plan
from bendrel.core.record import record
from bendrel.core.shop.fits import goes_on_tube
from bendrel.core.shop.kit import Kit
from bendrel.core.tube.material import Bending, Flaring, Tube

MOST = 4
MOST_BEYOND = 6


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
    word = VERDICT_ORDER[choice.verdict] if choice.verdict else 1
    return stops, word, not choice.school, len(choice.against), choice.material


def _others(run: Run, kit: Kit) -> Iterator[Choice]:
    now = kit.tubes.get(run.span.tube)
    if now is None:
        return
    for material in kit.materials:
        verdict = kit.verdict("tube", material, run.line.service)
        if material != now.material and (verdict is None or verdict.verdict != "refused"):
            changed = (_with_tube(run, kit, tube) for tube in _walls(kit, material, now))
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


def _with_tube(run: Run, kit: Kit, tube: Tube) -> Run | None:
    span, material = run.span, kit.materials[tube.material]
    benders = kit.benders_for(tube.size, plastic=material.family == "plastic")
    slack = kit.limits["hand_mm"].value
    bender = kit.benders.get(span.bender)
    bench = material.bends == "bench bender"
    if bender is None or bender.radius_mm is not None or bench:
        able = [b for b in benders if (b.radius_mm or 0) >= material.least_radius_per_od * tube.od_mm - slack]
        same = [b for b in able if bender is not None and b.kind == bender.kind and not bench]
        wanted = [b for b in able if (kit.tool_kinds[b.kind].mount == "on the bench") == bench]
        bender = next(iter((*same, *wanted, *able, *benders)), None)
    if bender is None:
        return None
    line, ends = run.line, {end: _end(run, kit, tube, end) for end in ENDS}
    for end, made in ends.items():
        line = replace(line, port_a=made.port) if end == "A" else replace(line, port_b=made.port)
        if made.adapter is not None and len(run.end(end).beyond) < MOST_BEYOND:
            line = insert_beside(line, span.id, end, made.adapter)
    changed = replace(span, tube=tube.id, bender=bender.id, end_a=ends["A"].tube, end_b=ends["B"].tube)
    return run_of(with_span(line, changed), span.id)


@record
class _End:
    """An end as it is with another tube: the tube's end, the port, and an adapter that comes between."""

    tube: TubeEnd
    port: Port
    adapter: ComponentSpan | None = None


def _end(run: Run, kit: Kit, tube: Tube, end: EndName) -> _End:
    """The present end where it can stay, else the best that service and material allow: one that
    suits the port, or one with an adapter in the port."""
    at = run.end(end)
    now, port = at.tube, run.line.port(end)
    seat = kit.seats.get(at.port.seat)
    able = [f for f in kit.fittings.values() if goes_on_tube(kit, f, tube, insert=now.insert)]

    def rank(fitting: Fitting) -> tuple[int, bool, bool]:
        verdict = kit.verdict("end", fitting.id, run.line.service)
        word = VERDICT_ORDER[verdict.verdict] if verdict else 1
        fits = _fitting_nut(kit, fitting, tube, at) is not None or not fitting.screwed
        seats = seat is None or fitting.id in seat.takes
        flared = kit.fittings[now.fitting].flared
        return max(word, 1), fitting.flared != flared, not (fits and seats)

    kept = next((f for f in able if f.id == now.fitting and rank(f)[0] <= 1), None)
    if kept is None and not able:
        return _End(tube=now, port=port)
    best = kept or min(able, key=rank)
    nut = _fitting_nut(kit, best, tube, at)
    same = best.id == now.fitting
    if nut is None and best.screwed and not same and at.at_port:
        return _adapted(run, kit, best, tube, at)
    usual = next(iter(kit.nuts_for(best.id, tube.size)), None)
    chosen = nut or usual
    name = chosen.id if chosen else None
    proved = port.proved and (not at.at_port or name == now.nut)
    return _End(tube=replace(now, fitting=best.id, nut=name), port=replace(port, proved=proved))


def _fitting_nut(kit: Kit, fitting: Fitting, tube: Tube, end: RunEnd) -> Nut | None:
    """A nut for this end type and tube that goes into the port: the present one, or one with the port's
    thread; the usual one where the port's thread is not known."""
    nuts = kit.nuts_for(fitting.id, tube.size)
    present = next((n for n in nuts if n.id == end.tube.nut), None)
    if present is not None:
        return present
    if not end.port.thread.strip():
        return nuts[0] if nuts else None
    if fitting.thread != kit.fittings[end.tube.fitting].thread != "none":
        return None  # a nut that goes over does not suit a port that takes one in
    return next((n for n in nuts if n.thread == end.port.thread.strip()), None)


def _adapted(run: Run, kit: Kit, fitting: Fitting, tube: Tube, at: RunEnd) -> _End:
    """The end with an adapter in its port, so that another end type screws on: as it is sold, else one of
    the person's own. What a port without a seat seals on is taken from the end that is in it now."""
    nut = kit.nuts_for(fitting.id, tube.size)[0]
    now = at.tube.fitting
    seat = at.port.seat or next((s.id for s in kit.seats.values() if now in s.takes), "")
    port = port_face(kit, replace(at.port, seat=seat))
    end = replace(at.tube, fitting=fitting.id, nut=nut.id)
    plug = Face(kind="plug", name=fitting.name, of=fitting.id, thread=nut.thread, size=tube.size)
    left, right = (port, plug) if at.end == "A" else (plug, port)
    made = component_between(kit, run.line.service, "adapter", left, right)
    if made is None:
        cone = next((s.id for s in kit.seats.values() if fitting.id in s.takes), "")
        inner = Side(kind="socket", of=cone, thread=nut.thread)
        outer = Side(kind="plug", of=now, thread=at.port.thread.strip())
        sides = (outer, inner) if at.end == "A" else (inner, outer)
        made = ComponentSpan(what="adapter", side_a=sides[0], side_b=sides[1])
    name = fresh_id(run.line, f"adapter-{at.end.lower()}")
    return _End(tube=end, port=replace(at.port, proved=False), adapter=replace(made, id=name))


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
