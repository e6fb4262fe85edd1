"""A crimped hose on a damaged end cut off, and hose with clamps in its place."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import EndName
from bendrel.core.ids import NotAChain
from bendrel.core.line.condition import Decision
from bendrel.core.line.document import HoseSpan, Joint, Line, RigidSpan, TubeEnd
from bendrel.core.line.edits.chain import fresh_id, joined_to, place_of, remove, rigid_at
from bendrel.core.line.edits.split import split
from bendrel.core.line.run import ENDS, Run, with_span
from bendrel.core.mend.allowed import allowed, worst
from bendrel.core.mend.cuts import Room, cut_before, cut_behind
from bendrel.core.mend.hoses import clamped_hose, hose_for, no_hose
from bendrel.core.mend.lengths import hose_lap, working
from bendrel.core.mend.offer import Offer, Reason
from bendrel.core.mend.proposals import Damaged, work_and_life
from bendrel.core.mend.there import tools_there
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Service


def crimped_end(run: Run, kit: Kit, damaged: Damaged) -> tuple[EndName, HoseSpan] | None:
    """The end of the tube that the damage is at and the crimped hose on it; None where there is none."""
    for end in ENDS:
        beyond = run.end(end).beyond
        near = damaged.from_mm if end == "A" else damaged.shape.developed_mm - damaged.to_mm
        hose = beyond[0] if beyond else None
        if isinstance(hose, HoseSpan) and hose.joined == "crimped" and near <= kit.splicing.weigh.crimp_mm:
            return end, hose
    return None


def resleeve(kit: Kit, damaged: Damaged, service: Service, end: EndName, hose_mm: float | None) -> Offer:
    """The offer to cut the crimped hose off at end `end` with the damaged end of its tube. `hose_mm` is the
    old hose's length, None where nobody knows it: then the new one is measured when the tube is cut."""
    way = kit.splicing.methods["resleeve"]
    said = allowed(kit, way, service, damaged.tube, damaged.tube.size)
    margin = kit.splicing.margins[damaged.kind].mm
    lap = hose_lap(kit, service, damaged.tube.od_mm)
    room = Room(
        stays=max(way.room, lap), piece=way.piece_room, end_a=damaged.end_a_mm, end_b=damaged.end_b_mm
    )
    shape = damaged.shape
    if end == "B":
        cut = cut_before(shape, damaged.from_mm - margin, room, damaged.clips_mm)
    else:
        cut = cut_behind(shape, damaged.to_mm + margin, room, damaged.clips_mm)
    word, reasons = said.word, list(said.reasons)
    text = (
        "Cut the rubber along the ferrule and peel it off, then the ferrule: never saw round it, the tube "
        "under it is what the new hose goes on. Two clamps, the first a clamp's width from the end."
    )
    reasons.append(Reason(text=text, source=way.source))
    if hose_for(kit, service, damaged.tube.od_mm) is None:
        word = "refused"
        reasons.append(no_hose(kit, damaged.tube.od_mm))
    if cut is None:
        word = "refused"
        reasons.append(Reason(text="No straight beside the crimp holds the clamps.", source=way.source))
        return Offer(
            method="resleeve", name=way.name, verdict=word, joint=way.joint, years=way.years,
            reasons=tuple(reasons),
        )  # fmt: skip
    gone = shape.developed_mm - cut if end == "B" else cut
    piece = None if hose_mm is None else hose_mm + gone + lap
    stays = cut if end == "B" else shape.developed_mm - cut
    return Offer(
        method="resleeve",
        name=way.name,
        verdict=worst(word, "right"),
        cut_a_mm=cut if end == "B" else None,
        cut_b_mm=cut if end == "A" else None,
        gap_mm=gone,
        piece_mm=piece,
        overlap_mm=lap,
        fitting=said.fitting,
        joint=way.joint,
        years=way.years,
        reasons=tuple(reasons),
        cost=work_and_life(kit, way),
        working=()
        if piece is None
        else (
            working(
                "hose = old hose + tube cut off + overlap",
                (("old hose", hose_mm or 0.0), ("tube cut off", gone), ("overlap, two clamps", lap)),
                piece,
                damaged.unit,
            ),
        ),
        tools=tools_there(kit, way, said.fitting, damaged.tube.size, stays, damaged.free_mm, damaged.unit),
    )


def resleeved(line: Line, kit: Kit, rigid: Rigid, offer: Offer, reason: str) -> Line:
    """`line` with the tube cut and hose and clamps where the crimped hose was. Raises NotAChain for a way
    without a cut."""
    at_b = offer.cut_a_mm is not None
    cut = offer.cut_a_mm if at_b else offer.cut_b_mm
    if cut is None:
        raise NotAChain("This way has no cut; choose one that has.")
    tube = rigid.run.span.id
    hose = rigid.run.end("B" if at_b else "A").beyond[0]
    if not isinstance(hose, HoseSpan):
        raise NotAChain("There is no hose on this end of the tube.")
    clamped = clamped_hose(line, kit, hose.id, rigid.tube.od_mm, offer.piece_mm)
    ids = tuple(bend.id for bend in rigid.part.bends)
    other = fresh_id(line, "s")
    made = split(line, tube, rigid.shape, ids, cut, Joint(), other)
    gone, kept = (other, tube) if at_b else (tube, other)
    # what was cut off stays in the record, where the hose is now
    damage = tuple(replace(one, span=hose.id) if one.span == gone else one for one in made.condition.damage)
    made = remove(replace(made, condition=replace(made.condition, damage=damage)), gone)
    side: EndName = "B" if at_b else "A"
    end = TubeEnd(fitting=offer.fitting or "plain")
    span = replace(rigid_at(made, kept), state="stays").with_end(side, end)
    new = replace(
        hose,
        hose=clamped.hose,
        joined="clamps",
        clamp=clamped.clamp,
        clamps_each=2,
        length=clamped.length,
        shape=None,
    )
    made = with_span(with_span(made, span), new)
    far = place_of(made, hose.id) + (1 if at_b else -1)
    beyond = made.spans[far] if 0 <= far < len(made.spans) else None
    if isinstance(beyond, RigidSpan):  # the ferrule comes off there too, and the tube stays
        other_side: EndName = "A" if at_b else "B"
        bare = replace(end, ready=True)
        made = with_span(made, replace(beyond, state="stays").with_end(other_side, bare))
    at = min(place_of(made, kept), place_of(made, hose.id))
    made = joined_to(made, at, replace(made.joints[at], why=reason[:400]))
    decision = Decision(choice="splice", reason=reason[:400])
    return replace(made, condition=replace(made.condition, decision=decision))
