"""What a new line begins with: the service's usual size and end, in the tube and with the tool that the shop
has."""

from __future__ import annotations

from collections.abc import Collection

from bendrel.core.line.document import BendReadings, Line, RigidSpan, TubeEnd
from bendrel.core.parts.bender import Bender, MarkStyle
from bendrel.core.parts.fits import goes_on_tube, usual_strength
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.tube import Tube
from bendrel.core.parts.verdict import VERDICT_ORDER, preferred
from bendrel.core.units.lengths import Length
from bendrel.core.units.notation import Unit

USUAL_RADIUS_PER_OD = 3.0
"""The radius, in outside diameters, at which a starting tube must hold: what most dies make."""


def starting_line(
    kit: Kit, name: str, service: str, unit: Unit, *, marks: MarkStyle = "start", lying: Collection[str] = ()
) -> Line:
    """A line of `service` without readings. `lying` are the tubes that the shop has in stock: one of them
    is taken where it suits. A service that has no usual size, or is not known, starts as unflared tube.
    """
    known = kit.services.get(service)
    start = known.start if known else None
    size, fitting = "3/16 in" if unit == "in" else "4.75 mm", "plain"
    if start is not None:
        size, fitting = (start.inch, start.end_inch) if unit == "in" else (start.metric, start.end_metric)
    tube = _tube(kit, service, size, fitting, lying)
    end = _end(kit, fitting, tube)
    span = RigidSpan(
        id="s1",
        end_a=end,
        end_b=end,
        tube=tube.id,
        bender=_bender(kit, tube).id,
        readings=BendReadings(last=Length(unit=unit)),
        spare=Length(text='1"' if unit == "in" else "25 mm", unit=unit),
        marks=marks,
    )
    return Line(name=name, service=service, unit=unit, spans=(span,))


def _tube(kit: Kit, service: str, size: str, fitting: str, lying: Collection[str]) -> Tube:
    """The best tube of a size: by the service's verdict, the shop's school, what lies there, and the
    thinnest wall that holds."""
    end = kit.fittings[fitting]
    insert = end.kind == "compression"
    able = [t for t in kit.tubes.values() if t.size == size and goes_on_tube(kit, end, t, insert=insert)]

    def rank(tube: Tube) -> tuple[bool, int, bool, bool, float]:
        verdict = kit.verdict("tube", tube.material, service)
        word = VERDICT_ORDER[verdict.verdict] if verdict else 1
        mine = verdict is not None and preferred(verdict, kit.preferences)
        return not _holds(kit, service, tube), word, not mine, tube.id not in lying, tube.wall_mm

    return min(able or [t for t in kit.tubes.values() if t.size == size], key=rank)


def _holds(kit: Kit, service: str, tube: Tube) -> bool:
    duty = kit.services[service].duty if service in kit.services else None
    if duty is None or duty.vacuum:
        return True
    return usual_strength(kit, duty, tube, USUAL_RADIUS_PER_OD * tube.od_mm).holds(duty.working_kpa, 0.0)


def _end(kit: Kit, fitting: str, tube: Tube) -> TubeEnd:
    nut = next(iter(kit.nuts_for(fitting, tube.size)), None) if kit.fittings[fitting].screwed else None
    plastic = kit.materials[tube.material].family == "plastic"
    return TubeEnd(
        fitting=fitting,
        nut=nut.id if nut else None,
        insert=plastic and kit.fittings[fitting].kind == "compression",
    )


def _bender(kit: Kit, tube: Tube) -> Bender:
    """A tool of the shop's own for this tube, else the usual kind for its material."""
    material = kit.materials[tube.material]
    least = material.least_radius_per_od * tube.od_mm - kit.limits["hand_mm"].value
    on_bench = material.bends == "bench bender"

    def rank(bender: Bender) -> tuple[bool, bool, bool]:
        small = bender.radius_mm is not None and bender.radius_mm < least
        bench = kit.tool_kinds[bender.kind].mount == "on the bench"
        return small, bender.source.kind != "shop's own", bench != on_bench

    there = kit.benders_for(tube.size, plastic=material.family == "plastic")
    return min(there or tuple(kit.benders.values()), key=rank)
