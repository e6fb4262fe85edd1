"""A cooler, a filter or a valve let into a tube: where it is cut, what joins it, and which way it points."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Literal

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import EndName
from bendrel.core.geometry.bends import ShapeError, bend_spans
from bendrel.core.ids import NotAChain
from bendrel.core.joints.direction import Flows, flow_of
from bendrel.core.line.document import (
    BendReadings,
    ComponentKind,
    ComponentSpan,
    Joint,
    Line,
    TubeEnd,
)
from bendrel.core.line.edits.chain import fresh_id, insert_beside, place_of, rigid_at
from bendrel.core.line.rewrite import computed_length
from bendrel.core.line.run import ENDS, with_span
from bendrel.core.mend.allowed import NO_RATING, WORDS, allowed, worst
from bendrel.core.mend.cuts import longest_straight, straights, why_not
from bendrel.core.mend.decide import cut_out
from bendrel.core.mend.hoses import clamped_hose, hose_for, no_hose
from bendrel.core.mend.lengths import hose_lap
from bendrel.core.mend.offer import Reason, Word
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.rule_names import AdviceName
from bendrel.core.parts.service import Service
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length
from bendrel.core.units.quantities import format_pressure

Joined = Literal["hoses", "its own ends"]
Mounted = Literal["in line", "elsewhere, on hoses"]


@record
class LetIn:
    """What is let in. `length_mm` is the component's, from port to port, `room_mm` the straight that a tube
    needs beside its cut; `at_mm` the middle of the cut-out from end A, None to find one; `hose_a_mm` and
    `hose_b_mm` the hoses to a component that is mounted elsewhere, None while they are not measured.
    `mount` says what it hangs on, `rated` what its maker says that it stands, as typed, and `rated_kpa` what
    that means, None while it is not known. `old` says that the tube is on the machine: both halves stay."""

    what: ComponentKind
    length_mm: float
    at_mm: float | None
    joined: Joined = "hoses"
    mounted: Mounted = "in line"
    hose_a_mm: float | None = None
    hose_b_mm: float | None = None
    mount: str = ""
    rated: str = ""
    rated_kpa: float | None = None
    old: bool = False


@record
class LetInPlace:
    """Where it goes: both cuts in mm from end A, the hoses' lengths (None where they are not known), what is
    said of it, the worst word first, which way the line flows, and the end that is made on the tube under a
    hose (blank for none)."""

    cut_a_mm: float
    cut_b_mm: float
    hoses_mm: tuple[float | None, float | None]
    verdict: Word
    reasons: tuple[Reason, ...]
    flows: Flows
    fitting: str = ""


def place_of_component(
    line: Line, kit: Kit, rigid: Rigid, new: LetIn, clips_mm: Sequence[float] = ()
) -> LetInPlace:
    """Where `new` goes in a tube. Raises ShapeError where no straight has the room, and for a place typed
    that is in an arc, on a clip or too near to one."""
    way, weigh = kit.splicing.methods["hose"], kit.splicing.weigh
    between = weigh.let_in_gap_mm if new.joined == "hoses" else 0.0
    wide = new.length_mm + 2 * between if new.mounted == "in line" else between
    lap = hose_lap(kit, kit.services[line.service], rigid.tube.od_mm)
    hoses = max(way.room, lap)
    room = hoses if new.joined == "hoses" else kit.splicing.methods["flared_unions"].room
    middle = new.at_mm if new.at_mm is not None else _longest(rigid, wide, room)
    a, b = middle - wide / 2, middle + wide / 2
    _check(rigid, a, b, room, clips_mm, weigh.clip_mm)
    own = (between + 2 * lap,) * 2 if new.mounted == "in line" else (new.hose_a_mm, new.hose_b_mm)
    reasons: list[Reason] = []
    word: Word = "right"
    fitting = ""
    service = kit.services[line.service]
    if new.joined == "hoses":
        said = allowed(kit, way, service, rigid.tube, rigid.tube.size)
        word, reasons, fitting = said.word, list(said.reasons), said.fitting
        if hose_for(kit, service, rigid.tube.od_mm) is None:
            word = "refused"
            reasons.append(no_hose(kit, rigid.tube.od_mm))
    elif service.left_to:
        word = "refused"
        reasons.append(Reason(text=f"It is not made here: {service.left_to}.", source=service.source))
    judged = kit.verdict("component", new.what, service.id)
    if judged is not None and judged.verdict in ("caution", "refused"):
        word = worst(word, WORDS[judged.verdict])
        reasons.insert(0, Reason(text=judged.reason, source=judged.source))
    rating = _rating(service, new, line.unit)
    if rating is not None:
        word = worst(word, "refused" if service.safety_critical else "care")
        reasons.insert(0, rating)
    vacuum = service.duty is not None and service.duty.vacuum
    flows = flow_of(line, vacuum=vacuum)
    advice = kit.advice[_ADVICE.get((new.what, flows in ("not known", "contradicts")), "let_in")]
    if flows in ("not known", "contradicts"):
        word = worst(word, "care")
    reasons.append(Reason(text=advice.text, source=advice.source))
    return LetInPlace(
        fitting=fitting,
        cut_a_mm=a,
        cut_b_mm=b,
        hoses_mm=own if new.joined == "hoses" else (None, None),
        verdict=word,
        reasons=tuple(reasons),
        flows=flows,
    )


def _rating(service: Service, new: LetIn, unit: Unit) -> Reason | None:
    """What is wrong with what its maker says that it stands; None where nothing is, and where nothing
    presses on it."""
    duty = service.duty
    if duty is None or duty.vacuum or duty.open:
        return None
    if new.rated_kpa is None:
        if not service.safety_critical:
            return None
        text = f"What it is rated for is not known, and {service.a_line} can hurt somebody: type it first."
        return Reason(text=text, source=NO_RATING)
    if new.rated_kpa < duty.working_kpa:
        rated, works = (format_pressure(kpa, unit) for kpa in (new.rated_kpa, duty.working_kpa))
        text = f"It is rated for {rated}, the line works at {works}."
        return Reason(text=text, source=duty.source)
    return None


_ADVICE: dict[tuple[ComponentKind, bool], AdviceName] = {
    ("cooler", True): "let_in_unknown",
    ("filter", True): "let_in_unknown",
    ("check valve", True): "let_in_unknown",
    ("cooler", False): "let_in_cooler",
    ("filter", False): "let_in_filter",
}
"""What is said of a kind of component, by whether the way that the line flows is not known."""


def _in_unit_of(rigid: Rigid) -> Callable[[float], str]:
    """How a length is said in the line's unit."""
    unit = rigid.run.line.unit
    return lambda mm: format_length(mm, unit)


def _longest(rigid: Rigid, wide_mm: float, room_mm: float) -> float:
    """The middle of the longest straight that has the room, clear of the tube's own ends."""
    best = longest_straight(rigid.shape)
    said = _in_unit_of(rigid)
    if best.long_mm < wide_mm + 2 * room_mm:
        raise ShapeError(
            f"No straight has room: {said(wide_mm + 2 * room_mm)} are needed, the longest is "
            f"{said(best.long_mm)}. Mount it elsewhere, on hoses."
        )
    return best.middle_mm


def _check(
    rigid: Rigid, a_mm: float, b_mm: float, room_mm: float, clips_mm: Sequence[float], clip_mm: float
) -> None:
    whole, said = rigid.shape.developed_mm, _in_unit_of(rigid)
    if a_mm < 0 or b_mm > whole:
        raise ShapeError(
            f"The cut-out from {said(a_mm)} to {said(b_mm)} lies beyond the tube of {said(whole)}."
        )
    for number, bend in enumerate(bend_spans(rigid.shape), start=1):
        if a_mm < bend.middle_mm < b_mm:
            raise ShapeError(f"Bend {number} lies in the cut-out; what is let in goes on one straight.")
    for cut, end in ((a_mm, "A"), (b_mm, "B")):
        why = why_not(rigid.shape, cut, clips_mm, clip_mm)
        if why:
            raise ShapeError(f"The cut at {said(cut)} cannot be made: {why}.")
        own = next(one for one in straights(rigid.shape) if one.start_mm - 1e-9 <= cut <= one.stop_mm + 1e-9)
        left = cut - own.start_mm if end == "A" else own.stop_mm - cut
        if left < room_mm - 1e-9:
            raise ShapeError(
                f"The cut at {said(cut)} leaves {said(left)} straight on the side of {end}; {said(room_mm)} "
                "are needed for what joins it."
            )


def let_in(line: Line, kit: Kit, rigid: Rigid, new: LetIn, place: LetInPlace) -> Line:
    """`line` with the component in its tube: cut twice, the cut-out gone, hoses on either side where it is
    joined by hoses. Raises NotAChain for a refused place."""
    if place.verdict == "refused":
        raise NotAChain(f"This is refused: {place.reasons[0].text}")
    made, first, gone, last = cut_out(line, rigid, place.cut_a_mm, place.cut_b_mm, Joint())
    part, between = fresh_id(line, "c"), place.cut_b_mm - place.cut_a_mm
    at = place_of(made, gone)
    roll = made.joints[at].roll
    component = ComponentSpan(
        id=part,
        what=new.what,
        points="B" if place.flows == "A to B" else "A" if place.flows == "B to A" else "not marked",
        length=computed_length(new.length_mm, line.unit),
        on_a=computed_length(rigid.tube.od_mm, line.unit),
        on_b=computed_length(rigid.tube.od_mm, line.unit),
        note=new.mount[:80],
        rated=new.rated,
    )
    spans = (*made.spans[:at], component, *made.spans[at + 1 :])
    joints = (
        *made.joints[: at - 1],
        Joint(roll=made.joints[at - 1].roll),
        Joint(roll=roll),
        *made.joints[at + 1 :],
    )
    made = replace(made, spans=spans, joints=joints)
    end = TubeEnd(fitting=place.fitting or "plain") if new.joined == "hoses" else rigid.run.span.end_b
    sides: tuple[tuple[str, EndName], ...] = ((first, "B"), (last, "A"))
    for span, side in sides:
        half = rigid_at(made, span).with_end(side, end)
        made = with_span(made, replace(half, state="stays") if new.old else half)
    if new.joined == "hoses":
        for side, length in zip(ENDS, place.hoses_mm, strict=True):
            hose = clamped_hose(made, kit, fresh_id(made, "h"), rigid.tube.od_mm, length)
            if new.mounted == "in line":
                straight = (between - new.length_mm) / 2
                hose = replace(hose, shape=BendReadings(last=computed_length(straight, line.unit)))
            made = insert_beside(made, part, side, hose)
    return made
