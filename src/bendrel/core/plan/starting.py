"""What a new line begins with: the service's usual size and end, in the tube and with the tool that the shop
has."""

from __future__ import annotations

from collections.abc import Collection

from bendrel.core.ids import NotAChain
from bendrel.core.line.document import BendReadings, Line, RigidSpan, TubeEnd
from bendrel.core.parts.bender import MarkStyle
from bendrel.core.parts.fits import goes_on_tube, nut_for_port
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import bender_for, tube_for
from bendrel.core.parts.tube import Tube
from bendrel.core.units.lengths import Length
from bendrel.core.units.notation import Unit

USUAL_RADIUS_PER_OD = 3.0
"""The radius, in outside diameters, at which a starting tube must hold: what most dies make."""


def starting_line(
    kit: Kit, name: str, service: str, unit: Unit, *, marks: MarkStyle = "start", lying: Collection[str] = ()
) -> Line:
    """A line of `service` without readings. `lying` are the tubes that the shop has in stock: one of them
    is taken where it suits. A service that has no usual size, or is not known, starts as unflared tube.
    Raises NotAChain where no tool of the catalogue bends that size.
    """
    known = kit.services.get(service)
    start = known.start if known else None
    size, fitting = "3/16 in" if unit == "in" else "4.75 mm", "plain"
    if start is not None:
        size, fitting = (start.inch, start.end_inch) if unit == "in" else (start.metric, start.end_metric)
    sized, end_row = [t for t in kit.tubes.values() if t.size == size], kit.fittings[fitting]
    able = [t for t in sized if goes_on_tube(kit, end_row, t, insert=end_row.kind == "compression")]
    tube = tube_for(kit, known, able or sized, radius_per_od=USUAL_RADIUS_PER_OD, lying=lying)
    bender = bender_for(kit, tube) if tube is not None else None
    if tube is None or bender is None:
        raise NotAChain(
            f"The catalogue has no tube of {size} with a tool that bends it; add the shop's own first."
        )
    end = _end(kit, fitting, tube)
    span = RigidSpan(
        id="s1",
        end_a=end,
        end_b=end,
        tube=tube.id,
        bender=bender.id,
        readings=BendReadings(last=Length(unit=unit)),
        spare=Length(text='1"' if unit == "in" else "25 mm", unit=unit),
        marks=marks,
    )
    return Line(name=name, service=service, unit=unit, spans=(span,))


def _end(kit: Kit, fitting: str, tube: Tube) -> TubeEnd:
    nut = nut_for_port(kit, kit.fittings[fitting], tube.size)
    plastic = kit.materials[tube.material].family == "plastic"
    return TubeEnd(
        fitting=fitting,
        nut=nut.id if nut else None,
        insert=plastic and kit.fittings[fitting].kind == "compression",
    )
