"""What is picked: the best of the catalogue's rows that go here. Every proposal, fix and start asks here.

What goes on what is `fits`; this file says which of it comes first.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from math import inf

from bendrel.core.parts.bender import Bender
from bendrel.core.parts.fits import goes_on_tube, joint_holds, nut_for_port, stands
from bendrel.core.parts.fitting import Fitting
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Service
from bendrel.core.parts.tube import Tube
from bendrel.core.parts.verdict import VERDICT_ORDER, Of, VerdictWord, preferred

NOT_REFUSED: tuple[VerdictWord, ...] = ("right", "acceptable", "caution")


def verdict_order(kit: Kit, of: Of, name: str, service: str) -> int:
    """0 right to 3 refused; what nobody has judged stands with what is acceptable."""
    verdict = kit.verdict(of, name, service)
    return VERDICT_ORDER[verdict.verdict if verdict is not None else "acceptable"]


def clamped_classes(kit: Kit, service: Service) -> tuple[str, ...]:
    """Classes of hose that are clamped on a line of `service`, by id, the best verdict first: judged there
    and not refused, made for its usual fluid, standing its heat."""
    if service.duty is None:
        return ()
    family = kit.fluids[service.duty.fluid].family
    found = [
        (verdict_order(kit, "hose", kind.id, service.id), kind.id)
        for kind in kit.hose_classes.values()
        if kit.verdict("hose", kind.id, service.id) is not None
        and verdict_order(kit, "hose", kind.id, service.id) < VERDICT_ORDER["refused"]
        and kind.clamps
        and family in kind.families
        and kind.highest_c >= service.duty.hot_c
    ]
    return tuple(name for _, name in sorted(found))


def ends_for(
    kit: Kit,
    service: str,
    tube: Tube,
    *,
    names: Iterable[str] | None = None,
    words: tuple[VerdictWord, ...] = NOT_REFUSED,
    seat: str = "",
    thread: str = "",
    insert: bool = False,
    working_kpa: float | None = None,
) -> tuple[Fitting, ...]:
    """End types for a tube, the best verdict first and else as they are listed: of `names` (None: of all),
    with a verdict of `words` or none, formed in the tube, holding `working_kpa`, in a port of this seat and
    thread (blank: not known)."""
    cone = kit.seats.get(seat)
    listed = kit.fittings.values() if names is None else [kit.fittings[n] for n in names if n in kit.fittings]
    allowed = {VERDICT_ORDER[word] for word in words} | {VERDICT_ORDER["acceptable"]}
    found = [
        fitting
        for fitting in listed
        if verdict_order(kit, "end", fitting.id, service) in allowed
        and (cone is None or fitting.id in cone.takes)
        and goes_on_tube(kit, fitting, tube, insert=insert)
        and (working_kpa is None or joint_holds(kit, fitting, tube.size, working_kpa))
        and (not fitting.screwed or nut_for_port(kit, fitting, tube.size, thread) is not None)
    ]
    return tuple(sorted(found, key=lambda fitting: verdict_order(kit, "end", fitting.id, service)))


def usual_ends(
    kit: Kit, service: str, tube: Tube, *, names: Iterable[str] | None = None, insert: bool = False
) -> tuple[Fitting, ...]:
    """The same in a port that is not known, holding what the service usually works at."""
    known = kit.services.get(service)
    duty = known.duty if known is not None else None
    working = None if duty is None or duty.vacuum or duty.open else duty.working_kpa
    return ends_for(kit, service, tube, names=names, insert=insert, working_kpa=working)


def bender_for(kit: Kit, tube: Tube, present: Bender | None = None) -> Bender | None:
    """The tool for a tube: one that stays over its least radius, of the kind of `present` unless the material
    asks for a bench bender, the shop's own, of the usual kind for the material. A tool without a radius of
    its own (bent by hand) stays. None where there is no tool."""
    material = kit.materials[tube.material]
    on_bench = material.bends == "bench bender"
    if present is not None and present.radius_mm is None and not on_bench:
        return present
    least = material.least_radius_per_od * tube.od_mm - kit.limits["hand_mm"].value

    def rank(bender: Bender) -> tuple[bool, bool, bool, bool]:
        other = present is not None and not on_bench and bender.kind != present.kind
        bench = kit.tool_kinds[bender.kind].mount == "on the bench"
        tight = bender.radius_mm is not None and bender.radius_mm < least
        return tight, other, bender.source.kind != "shop's own", bench != on_bench

    return min(kit.benders_for(tube.size, plastic=material.family == "plastic"), key=rank, default=None)


def tube_for(
    kit: Kit,
    service: Service | None,
    tubes: Iterable[Tube],
    *,
    radius_per_od: float | None = None,
    wall_mm: float | None = None,
    lying: Collection[str] = (),
) -> Tube | None:
    """The best of `tubes`: one that stands what the service usually works at (bent to `radius_per_od` outside
    diameters), by its verdict, the shop's school, what lies there, and the wall nearest to `wall_mm` (None:
    the thinnest). None of none."""
    name = service.id if service is not None else ""

    def rank(tube: Tube) -> tuple[bool, int, bool, bool, float]:
        verdict = kit.verdict("tube", tube.material, name)
        mine = verdict is not None and preferred(verdict, kit.preferences)
        radius = radius_per_od * tube.od_mm if radius_per_od is not None else None
        weak = service is not None and not stands(kit, service.duty, tube, radius)
        wall = tube.wall_mm if wall_mm is None else abs(tube.wall_mm - wall_mm)
        return weak, verdict_order(kit, "tube", tube.material, name), not mine, tube.id not in lying, wall

    return min(tubes, key=rank, default=None)


def nearest_size(tubes: Iterable[Tube], od_mm: float) -> tuple[Tube, ...]:
    """Of `tubes`, those with the outside diameter (mm) nearest to this one."""
    listed = tuple(tubes)
    off = min((abs(tube.od_mm - od_mm) for tube in listed), default=inf)
    return tuple(tube for tube in listed if abs(tube.od_mm - od_mm) <= off + 1e-9)
