"""Deciding on a way rewrites the line into its chain: what stays, the joints, and the new piece."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.geometry.parts import cut_across
from bendrel.core.ids import NotAChain
from bendrel.core.line.condition import Decision
from bendrel.core.line.document import BendReadings, Joint, Line, RigidSpan, TubeEnd
from bendrel.core.line.edits.chain import fresh_id, place_of, rigid_at
from bendrel.core.line.edits.split import split
from bendrel.core.line.rewrite import computed_length
from bendrel.core.line.run import with_span
from bendrel.core.mend.hoses import clamped_hose
from bendrel.core.mend.lengths import flare_loss
from bendrel.core.mend.offer import Offer
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.splicing import Choice
from bendrel.core.parts.tube import Tube


def mended(line: Line, kit: Kit, rigid: Rigid, offer: Offer, reason: str) -> Line:
    """`line` with one of its tubes mended as offered; `reason` stays with every joint and with the decision.

    Raises NotAChain for a way that is refused or has no cut, ShapeError for a cut that is not on a straight.
    """
    if offer.verdict == "refused":
        said = offer.reasons[-1].text if offer.reasons else "it is refused here."
        raise NotAChain(f"This way is refused: {said}")
    choice: Choice = "splice"
    if offer.method == "whole":
        choice, made = "replace whole", line
    elif offer.method in ("replace_from_a", "replace_from_b"):
        choice = "replace from a separation point"
        made = _from_a_separation(line, kit, rigid, offer, reason)
    elif offer.method == "hose":
        made = _with_hose(line, kit, rigid, offer, reason)
    else:
        made = _with_piece(line, kit, rigid, offer, reason)
    decision = Decision(choice=choice, reason=reason[:400])
    return replace(made, condition=replace(made.condition, decision=decision))


def _end(kit: Kit, offer: Offer, tube: Tube) -> TubeEnd:
    """The end that a way is made with, and the insert where the tube takes it only with one."""
    nuts = kit.nuts_for(offer.fitting, tube.size)
    pair = kit.pairs.get((offer.fitting, tube.material))
    insert = pair is not None and pair.needs == "insert"
    return TubeEnd(fitting=offer.fitting, nut=nuts[0].id if nuts else None, insert=insert)


def _joint(line: Line, offer: Offer, reason: str) -> Joint:
    apart = computed_length(offer.stop_mm or 0.0, line.unit)
    return Joint(kind=offer.joint, apart=apart, why=reason[:400])


def _cuts(offer: Offer) -> tuple[float, float]:
    if offer.cut_a_mm is None or offer.cut_b_mm is None:
        raise NotAChain("This way has no cuts; choose one that has.")
    return offer.cut_a_mm, offer.cut_b_mm


def cut_out(line: Line, rigid: Rigid, a_mm: float, b_mm: float, joint: Joint) -> tuple[Line, str, str, str]:
    """A tube cut twice, with `joint` at both cuts: the line, and the ids of what stays on the side of A, of
    what is cut out, and of what stays on the side of B."""
    ids, parts = tuple(bend.id for bend in rigid.part.bends), cut_across(rigid.shape, a_mm)
    first, middle = rigid.run.span.id, fresh_id(line, "s")
    last = fresh_id(line, "s", (middle,))
    made = split(line, first, rigid.shape, ids, a_mm, joint, middle)
    made = split(made, middle, parts.behind, ids[parts.first_bend :], b_mm - a_mm, joint, last)
    return made, first, middle, last


def _with_piece(line: Line, kit: Kit, rigid: Rigid, offer: Offer, reason: str) -> Line:
    made, first, middle, last = cut_out(line, rigid, *_cuts(offer), _joint(line, offer, reason))
    use, between = _loss(kit, offer, rigid), offer.stop_mm or 0.0
    end = _end(kit, offer, rigid.tube)
    made = _changed(made, first, "stays", b_mm=-use, end_b=end)
    made = _changed(made, last, "stays", a_mm=-use, end_a=end)
    by = use - between
    return _changed(made, middle, "to make", a_mm=by, b_mm=by, end_a=end, end_b=end)


def _loss(kit: Kit, offer: Offer, rigid: Rigid) -> float:
    """What an old end loses to its own flare, in mm, in the union that the offer takes."""
    union = next(way for way in kit.splicing.methods.values() if way.joint == offer.joint)
    return flare_loss(kit, union, offer.fitting, rigid.tube)


def _with_hose(line: Line, kit: Kit, rigid: Rigid, offer: Offer, reason: str) -> Line:
    made, first, middle, last = cut_out(line, rigid, *_cuts(offer), Joint(why=reason[:400]))
    bead = TubeEnd(fitting=offer.fitting or "plain")
    made = _changed(made, first, "stays", end_b=bead)
    made = _changed(made, last, "stays", end_a=bead)
    readings = rigid_at(made, middle).readings
    hose = clamped_hose(line, kit, middle, rigid.tube.od_mm, offer.piece_mm or 0.0)
    span = replace(hose, shape=readings if isinstance(readings, BendReadings) else None)
    at = place_of(made, middle)
    return replace(made, spans=(*made.spans[:at], span, *made.spans[at + 1 :]))


def _from_a_separation(line: Line, kit: Kit, rigid: Rigid, offer: Offer, reason: str) -> Line:
    from_a = offer.method == "replace_from_a"
    cut = offer.cut_b_mm if from_a else offer.cut_a_mm
    if cut is None:
        raise NotAChain("This way has no cut; choose one that has.")
    ids = tuple(bend.id for bend in rigid.part.bends)
    first = rigid.run.span.id
    other = fresh_id(line, "s")
    made = split(line, first, rigid.shape, ids, cut, _joint(line, offer, reason), other)
    use, between = _loss(kit, offer, rigid), offer.stop_mm or 0.0
    end = _end(kit, offer, rigid.tube)
    long = replace(end, leave_long=computed_length(offer.overlap_mm or 0.0, line.unit))
    if from_a:
        made = _changed(made, first, "to make", b_mm=use - between, end_b=long)
        return _changed(made, other, "stays", a_mm=-use, end_a=end)
    made = _changed(made, first, "stays", b_mm=-use, end_b=end)
    return _changed(made, other, "to make", a_mm=use - between, end_a=long)


def _changed(
    line: Line,
    name: str,
    state: str,
    *,
    a_mm: float = 0.0,
    b_mm: float = 0.0,
    end_a: TubeEnd | None = None,
    end_b: TubeEnd | None = None,
) -> Line:
    """One tube with its end legs made longer and its ends changed. Its readings are exact here: they were
    computed when the tube was split."""
    span = rigid_at(line, name)
    changed: RigidSpan = replace(
        span,
        state="stays" if state == "stays" else "to make",
        readings=_longer(span, a_mm, b_mm, line),
        end_a=end_a or span.end_a,
        end_b=end_b or span.end_b,
    )
    return with_span(line, changed)


def _longer(span: RigidSpan, a_mm: float, b_mm: float, line: Line) -> BendReadings:
    readings = span.readings
    if not isinstance(readings, BendReadings):
        raise NotAChain("The tube that was cut has no bend readings.")
    rows, last = list(readings.rows), (readings.last.exact_mm or 0.0) + b_mm
    if rows:
        first = (rows[0].length.exact_mm or 0.0) + a_mm
        rows[0] = replace(rows[0], length=computed_length(first, line.unit))
    else:
        last += a_mm
    return replace(readings, rows=tuple(rows), last=computed_length(last, line.unit))
