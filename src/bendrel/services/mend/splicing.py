"""Use cases on mending: every way for a damaged line, and over a gap without any shape."""

from __future__ import annotations

from math import isfinite
from typing import Annotated, Any

from annotated_types import MaxLen

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.geometry.bends import ShapeError
from bendrel.core.line.apart import end_state
from bendrel.core.line.condition import HOLDING
from bendrel.core.line.document import Line, is_reason
from bendrel.core.mend.cuts import nearest
from bendrel.core.mend.decide import mended
from bendrel.core.mend.lengths import taken_by
from bendrel.core.mend.looked import PlacedDamage, PlacedFixture, look_at
from bendrel.core.mend.offer import Offer
from bendrel.core.mend.proposals import Damaged, proposals, ranked
from bendrel.core.mend.resleeve import crimped_end, resleeve, resleeved
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Service
from bendrel.core.parts.splicing import DamageKind, Splice
from bendrel.core.plan.planner import plan_line, tube_of_plan
from bendrel.core.record import record
from bendrel.core.units.lengths import is_blank, length_mm
from bendrel.core.units.lengths_error import said_in
from bendrel.core.units.notation import Unit, UnitError, format_length, parse_length
from bendrel.core.work.shopping import Need
from bendrel.core.work.tools import Tool
from bendrel.exchange.errors import FileError
from bendrel.services.errors import Refused
from bendrel.services.line.chains import Edited
from bendrel.services.line.offline import line_of_file
from bendrel.services.shelf.tubes import tube_of


def damaged_of(
    kit: Kit,
    rigid: Rigid,
    from_mm: float,
    to_mm: float,
    kind: DamageKind,
    fixtures: tuple[PlacedFixture, ...] = (),
    free_mm: float | None = None,
) -> Damaged:
    """A planned tube as the core takes a damaged one."""
    a, b = rigid.ends
    line = rigid.run.line
    return Damaged(
        shape=rigid.shape,
        tube=rigid.tube,
        from_mm=from_mm,
        to_mm=to_mm,
        kind=kind,
        clips_mm=tuple(item.at_mm for item in fixtures if item.kind in HOLDING and item.state == "there"),
        end_a_mm=taken_by(a.size, a.nut),
        end_b_mm=taken_by(b.size, b.nut),
        grip_mm=max(rigid.choices.bender.least_before_first_mm, rigid.choices.bender.least_after_last_mm),
        free_mm=free_mm,
        unit=line.unit,
        ends=(end_state(line, kit, "A"), end_state(line, kit, "B")),
    )


def service_of(kit: Kit, service: str) -> Service:
    """A service by its id. Raises Refused."""
    known = kit.services.get(service)
    if known is None:
        ids = ", ".join(sorted(kit.services))
        raise Refused(f"There is no service “{service[:30]}”; {ids} are known.")
    return known


def splice_file(
    data: bytes, *, from_mm: float, to_mm: float, service: str | None, radius_mm: float | None = None
) -> dict[str, Any]:
    """What `bendrel splice` answers. Raises FileError, Refused."""
    kit = load_kit()
    line = line_of_file(data, radius_mm)
    known = service_of(kit, service or line.service)
    rigid = _planned(line, tube_of(line).span.id, kit)
    whole = rigid.shape.developed_mm
    for name, mm in (("--from", from_mm), ("--to", to_mm)):
        if not isfinite(mm):
            raise Refused(f"{name} {mm}: a length in mm is accepted.")
    if to_mm < from_mm:
        raise Refused(
            f"--from {from_mm:g} lies beyond --to {to_mm:g}; give the damage from its end nearer to A."
        )
    if from_mm < 0 or to_mm > whole:
        raise Refused(
            f"The damage from {from_mm:g} to {to_mm:g} mm is outside the tube, which is {whole:.1f} mm long."
        )
    looked = look_at(line, kit, {rigid.run.span.id: whole})
    found = proposals(kit, damaged_of(kit, rigid, from_mm, to_mm, "rust", looked.fixtures), known)
    return {
        "developed_mm": whole,
        "damage": [from_mm, to_mm],
        "proposals": [told(offer) for offer in found],
    }


@record
class MendOrder:
    """What is to be mended: a noted damage, by its id. `cut_a` and `cut_b` are cuts as a person typed or
    dragged them, from the tube's end A; blank leaves them to be found. `room` is what is free all round the
    tube there, blank while nobody has measured it."""

    damage: Annotated[str, MaxLen(20)]
    cut_a: Annotated[str, MaxLen(40)] = ""
    cut_b: Annotated[str, MaxLen(40)] = ""
    room: Annotated[str, MaxLen(40)] = ""


@record
class Mending:
    """Every way for one damage of one tube, the best first. `snapped` says which cuts were moved off what
    they lay on, `stagger_mm` how far apart the cuts of a twin beside it must be (None: it has none),
    `twin_seen` whether anybody has looked at that twin."""

    span: str
    developed_mm: float
    damage: PlacedDamage
    offers: tuple[Offer, ...]
    methods: tuple[Splice, ...]
    snapped: tuple[str, ...]
    stagger_mm: float | None
    twin_seen: bool


def ways_to_mend(line: Line, order: MendOrder, kit: Kit) -> Mending:
    """Every way to mend a damage that was noted. Raises Refused."""
    rigid, damage = _noted(line, order.damage, kit)
    looked = look_at(line, kit, {rigid.run.span.id: rigid.shape.developed_mm})
    on_it = tuple(item for item in looked.fixtures if item.span in ("", rigid.run.span.id))
    free = measured("Room round the tube", order.room, line.unit)
    hurt = damaged_of(kit, rigid, damage.from_mm, damage.to_mm, damage.kind, on_it, free)
    snapped: list[str] = []
    cuts = _chosen_cuts(line, order, kit, hurt, snapped)
    weigh, service = kit.splicing.weigh, service_of(kit, line.service)
    offers = proposals(kit, hurt, service, cuts)
    crimped = crimped_end(rigid.run, kit, hurt)
    if crimped is not None:
        end, hose = crimped
        try:
            length = None if is_blank(hose.length) else length_mm(hose.length)
        except UnitError:
            length = None  # its own field says so
        offers = ranked((*offers, resleeve(kit, hurt, service, end, length)))
    return Mending(
        span=rigid.run.span.id,
        developed_mm=rigid.shape.developed_mm,
        damage=damage,
        offers=offers,
        methods=tuple(kit.splicing.methods.values()),
        snapped=tuple(snapped),
        stagger_mm=None if line.condition.twin == "no twin" else weigh.stagger_mm,
        twin_seen=line.condition.twin != "not looked at",
    )


@record
class Takes:
    """What deciding on a way asks for: everything that the line then needs, and the tools of the bench."""

    needs: tuple[Need, ...]
    tools: tuple[Tool, ...]


def what_it_takes(line: Line, order: MendOrder, method: str, kit: Kit) -> Takes:
    """Parts and tools of one way, as the shopping list would have them. Raises Refused."""
    made = decide_to_mend(line, order, method, "to see what it takes", kit).document
    chosen = plan_line(made, kit).chosen
    return Takes(needs=chosen.needs if chosen else (), tools=chosen.tools if chosen else ())


def measured(name: str, text: str, unit: Unit) -> float | None:
    """A length as typed; None for a blank one. Raises Refused."""
    if not text.strip():
        return None
    try:
        return parse_length(text, unit)
    except UnitError as error:
        raise Refused(f"{name}: {error}") from error


def decide_to_mend(line: Line, order: MendOrder, method: str, reason: str, kit: Kit) -> Edited:
    """The line rewritten into its chain. Raises Refused."""
    rigid, _ = _noted(line, order.damage, kit)
    offer = next((one for one in ways_to_mend(line, order, kit).offers if one.method == method), None)
    if offer is None:
        raise Refused(f"There is no way “{method[:30]}” to mend a line; choose one of those shown.")
    if not is_reason(reason):
        raise Refused("Say in a few words why it is mended this way; it is kept with the line.")
    made = (
        resleeved(line, kit, rigid, offer, reason)
        if method == "resleeve" and offer.verdict != "refused"
        else mended(line, kit, rigid, offer, reason)
    )
    return Edited(document=made, span=_looked_at_next(line, made, rigid.run.span.id))


def _looked_at_next(line: Line, made: Line, mended_span: str) -> str:
    """What is new of a mended tube: the piece to make, else the hose."""
    before = {one.id for one in line.spans} - {mended_span}
    parts = [one for one in made.spans if one.id not in before]
    new = next((one for one in parts if one.kind == "rigid" and one.state == "to make"), None)
    hose = next((one for one in parts if one.kind == "hose"), None)
    return (new or hose or parts[0]).id


def _noted(line: Line, damage_id: str, kit: Kit) -> tuple[Rigid, PlacedDamage]:
    noted = next((item for item in line.condition.damage if item.id == damage_id), None)
    if noted is None:
        raise Refused("That damage is not noted any more; note it at Look first.")
    try:
        rigid = _planned(line, tube_of(line, noted.span).span.id, kit)
    except FileError as error:
        raise Refused(f"Put the readings of the old tube right first: {error}") from error
    looked = look_at(line, kit, {rigid.run.span.id: rigid.shape.developed_mm})
    placed = next((item for item in looked.damage if item.id == damage_id), None)
    if placed is None:
        raise Refused("Say where the damage begins, in lengths from end A.")
    return rigid, placed


def _chosen_cuts(
    line: Line, order: MendOrder, kit: Kit, hurt: Damaged, snapped: list[str]
) -> tuple[float | None, float | None]:
    margin = kit.splicing.margins[hurt.kind].mm
    whole = hurt.shape.developed_mm
    bounds = {"A": (0.0, hurt.from_mm - margin), "B": (hurt.to_mm + margin, whole)}

    def cut(text: str, name: str) -> float | None:
        if not text.strip():
            return None
        low, high = bounds[name]
        if high <= low:
            return None
        try:
            wanted = parse_length(text, line.unit)
            at, why = nearest(hurt.shape, wanted, low, high, hurt.clips_mm, kit.splicing.weigh.clip_mm)
        except (UnitError, ShapeError) as error:
            raise Refused(f"Cut on the side of {name}: {said_in(error, line.unit)}") from error
        if why:
            snapped.append(
                f"The cut on the side of {name} was moved to {format_length(at, line.unit)}: {why}."
            )
        return at

    return cut(order.cut_a, "A"), cut(order.cut_b, "B")


def told(offer: Offer) -> dict[str, Any]:
    """One way as the command line tells it."""
    return {
        "method": offer.method,
        "verdict": offer.verdict,
        "cut_a_mm": offer.cut_a_mm,
        "cut_b_mm": offer.cut_b_mm,
        "gap_mm": offer.gap_mm,
        "piece_mm": offer.piece_mm,
        "piece_bends": list(offer.piece_bends),
        "overlap_mm": offer.overlap_mm,
        "stop_mm": offer.stop_mm,
        "spring_apart_mm": offer.spring_apart_mm,
        "reasons": [reason.text for reason in offer.reasons],
    }


def _planned(line: Line, span: str, kit: Kit) -> Rigid:
    rigid, problems = tube_of_plan(line, kit, span)
    if rigid is None:
        raise FileError(f"{problems[0].path}: {problems[0].message}")
    return rigid
