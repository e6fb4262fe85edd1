"""Use case of letting a cooler, a filter or a valve into a tube: one guided step."""

from __future__ import annotations

from typing import Annotated

from annotated_types import MaxLen

from bendrel.core.line.condition import HOLDING
from bendrel.core.line.document import ComponentKind, Line
from bendrel.core.mend.let_in import Joined, LetIn, LetInPlace, Mounted, let_in, place_of_component
from bendrel.core.mend.looked import look_at
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.planner import tube_of_plan
from bendrel.core.record import record
from bendrel.core.units.notation import UnitError
from bendrel.core.units.quantities import parse_pressure
from bendrel.services.errors import Refused
from bendrel.services.mend.splicing import measured, service_of
from bendrel.services.shelf.tubes import tube_of

Typed = Annotated[str, MaxLen(40)]


@record
class LetInOrder:
    """What is let into which tube, lengths as typed: `at` is the middle of the cut-out from its end A,
    blank for the longest straight; `length` the component's from port to port, blank for one of middle
    size; `old` says that the tube is on the machine."""

    span: Annotated[str, MaxLen(20)]
    what: ComponentKind = "filter"
    at: Typed = ""
    length: Typed = ""
    joined: Joined = "hoses"
    mounted: Mounted = "in line"
    hose_a: Typed = ""
    hose_b: Typed = ""
    mount: Annotated[str, MaxLen(80)] = ""
    rated: Typed = ""
    old: bool = False


@record
class LettingIn:
    """Where it goes, what is said of it, and the line that it makes (None where it is refused); `span` is
    the component's."""

    place: LetInPlace
    tube_mm: float
    document: Line | None
    span: str


def _rated(text: str) -> float | None:
    if not text.strip():
        return None
    try:
        return parse_pressure(text)
    except UnitError as error:
        raise Refused(f"Rated for: {error}") from error


def letting_in(line: Line, order: LetInOrder, kit: Kit) -> LettingIn:
    """The line with a component let into one of its tubes. Raises Refused."""
    service_of(kit, line.service)
    rigid, problems = tube_of_plan(line, kit, tube_of(line, order.span).span.id)
    if rigid is None:
        raise Refused(f"Put the readings of the tube right first: {problems[0].message}")
    unit = line.unit
    length = measured("Its length", order.length, unit)
    new = LetIn(
        what=order.what,
        old=order.old,
        length_mm=kit.limits["drawn_part_mm"].value if length is None else length,
        at_mm=measured("Where", order.at, unit),
        joined=order.joined,
        mounted=order.mounted,
        hose_a_mm=measured("Hose, A side", order.hose_a, unit),
        hose_b_mm=measured("Hose, B side", order.hose_b, unit),
        mount=order.mount,
        rated=order.rated,
        rated_kpa=_rated(order.rated),
    )
    looked = look_at(line, kit, {rigid.run.span.id: rigid.shape.developed_mm})
    clips = tuple(
        item.at_mm
        for item in looked.fixtures
        if item.kind in HOLDING and item.state == "there" and item.span in ("", rigid.run.span.id)
    )
    place = place_of_component(line, kit, rigid, new, clips)
    made = None if place.verdict == "refused" else let_in(line, kit, rigid, new, place)
    there = {span.id for span in line.spans}
    new_ones = [] if made is None else [one for one in made.spans if one.id not in there]
    part = next((one.id for one in new_ones if one.kind == "component"), "")
    return LettingIn(place=place, tube_mm=rigid.shape.developed_mm, document=made, span=part)
