"""The kit list of one line: everything to have on the bench before it is begun."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Literal

from bendrel.core.bend.tube.ends import EndParts
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.geometry.clips import Clips
from bendrel.core.joints.hose_ends import end_kind_of
from bendrel.core.joints.pieces import Pieces, PlacedHose, Stands
from bendrel.core.line.carried import Carried
from bendrel.core.line.opened import joint_opened, stays
from bendrel.core.line.removal import PartToGet
from bendrel.core.line.removed import Removed
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.single_use import ItemKind
from bendrel.core.parts.splicing import Choice
from bendrel.core.record import record
from bendrel.core.units.notation import format_fine

NeedUnit = Literal["mm", "each", "l"]


@record
class Need:
    """One thing to have. `ref` names the catalogue row, `group:id`, so that stock and prices find it;
    `amount` is in mm, pieces or litres. `kind` is the kind of thing where it can be in the removal log
    too, and `old` says that it is asked for because of that log. `span` is the tube that it is cut for."""

    ref: str
    what: str
    amount: float
    unit: NeedUnit
    why: str
    kind: ItemKind | None = None
    old: bool = False
    span: str = ""


@record
class NewClips:
    """The clips of one rigid piece, and how many of them are to be got."""

    clips: Clips
    count: int


def needs_of(
    kit: Kit,
    rigids: Sequence[Rigid],
    pieces: Pieces,
    removed: Removed,
    carried: Carried | None,
    volume_ml: float,
    *,
    decided: Choice | None,
    clips: Mapping[str, NewClips],
) -> tuple[Need, ...]:
    """Everything that the line takes, for what is made new. Where a piece is to be let in and the line is
    still one whole tube, the tube is not asked for, nor its ends where it is spliced. `clips` are those of
    each rigid piece. Source: the plan; two washers a banjo, a cap for every port, by common practice."""
    whole = decided in (None, "replace whole") or any(not rigid.new for rigid in rigids)
    return _once(
        [
            *_tubes(kit, rigids, decided, whole),
            *_unions(kit, rigids),
            *_hoses(kit, pieces),
            *_components(pieces),
            *(
                _clips(held.clips, rigid.tube.size, held.count)
                for rigid in rigids
                if (held := clips.get(rigid.run.span.id)) and held.count and rigid.new and whole
            ),
            *parts_needed(removed.parts),
            *_filling(kit, carried, removed, volume_ml),
        ]
    )


def _tubes(kit: Kit, rigids: Sequence[Rigid], decided: Choice | None, whole: bool) -> Iterator[Need]:
    for rigid in rigids:
        if rigid.new and whole:
            tube, material = rigid.tube, rigid.choices.material
            name = f"{material.name} tube {tube.size} × {format_fine(tube.wall_mm, rigid.run.line.unit)}"
            cut = _need(f"tube:{tube.id}", name, rigid.part.take_mm, "cut length", "mm")
            yield replace(cut, span=rigid.run.span.id)
        for parts in rigid.ends:
            joint = parts.choice.joint
            joined = joint is not None and joint.kind in kit.joints
            if (whole or decided != "splice") if rigid.new else joined:
                yield from _end(rigid.choices, parts)


def _hoses(kit: Kit, pieces: Pieces) -> Iterator[Need]:
    for hose in (one for one in pieces.hoses if not stays(one.piece)):
        why = _why(hose.stands)
        name = f"{hose.hose_class.name} {hose.hose.size}"
        if hose.length_mm is not None:
            # one with crimped ends is ordered by its length over all
            cut = hose.length_mm if hose.cut_mm is None else max(hose.cut_mm, 0.0)
            yield _need(f"hose:{hose.hose.id}", name, cut, why, "mm")
        if hose.piece.joined == "clamps" and hose.clamp is not None:
            kind = kit.clamp_kinds[hose.clamp.kind].name
            count = 2 * hose.piece.clamps_each
            yield _need(f"clamp:{hose.clamp.id}", f"{kind} {hose.clamp.name} mm", count, why)
        elif hose.piece.joined != "clamps":
            yield from _own_ends(kit, hose, name, why)
        if hose.piece.rubs:
            yield _need("sleeve:hose", f"sleeve over {name}", 1, "where it rubs")


def _components(pieces: Pieces) -> Iterator[Need]:
    for one in pieces.components:
        if not stays(one.piece):
            name = one.row.name if one.row is not None else one.piece.note.strip()
            what = f"{one.piece.what}, {name}" if name else one.piece.what
            ref = one.row.id if one.row is not None else one.piece.what
            yield _need(f"part:{ref}", what, 1, _why(one.stands))


def _filling(kit: Kit, carried: Carried | None, removed: Removed, volume_ml: float) -> Iterator[Need]:
    if carried is not None and not carried.fluid.gas and removed.advice is not None:
        litres, why = _fluid(kit, carried, removed, volume_ml)
        if litres > 0:
            yield _need(f"fluid:{carried.fluid.id}", carried.fluid.name, litres, why, "l")


def _unions(kit: Kit, rigids: Sequence[Rigid]) -> list[Need]:
    """What joins two tubes, by kind and size; a reducer that stands between them is a component of its
    own."""
    found: dict[str, Need] = {}
    for before, behind in pairwise(rigids):
        joint = before.run.end("B").joint
        if behind.run.index != before.run.index + 1 or joint is None or joint.kind not in kit.joints:
            continue
        if not joint_opened(before.run.line, before.run.index):
            continue  # it is there, and stays closed
        one, other = before.tube.size, behind.tube.size
        size = one if one == other else f"{one} to {other}"
        ref = f"joint:{joint.kind}/{size}"
        count = found[ref].amount if ref in found else 0
        found[ref] = _need(ref, f"{kit.joints[joint.kind].name}, {size}", count + 1, "between two tubes")
    return list(found.values())


def _why(stands: Stands) -> str:
    return f"beyond end {stands.end}" if stands.end else stands.told


def _clips(clips: Clips, size: str, count: int) -> Need:
    clip = clips.clip
    ref, name = (f"clip:{clip.id}", clip.name) if clip else (f"clip:{size}", f"clip for {size} tube")
    return _need(ref, name, count, "near each end and regularly between")


def _fluid(kit: Kit, carried: Carried, removed: Removed, volume_ml: float) -> tuple[float, str]:
    """Litres to have, and why. What was drained clean goes back unless the shop's way, the fluid itself or
    its condition says otherwise; then only what the line holds and what is lost is bought."""
    advice = removed.advice
    if advice is None:
        return 0.0, ""
    back = carried.fluid.goes_back and kit.preferences.get("fluid") == "goes back"
    if removed.fluid in ("dirty or burnt", "changed on purpose"):
        return advice.volume_l, f"{removed.fluid}: the whole system"
    if removed.fluid == "clean, goes back" and carried.fluid.goes_back:
        back = True
    if back:
        lost = min(advice.volume_l, volume_ml / 1000 + advice.lost_l)
        return round(lost, 2), "what the line holds and what is lost; the rest goes back clean"
    return advice.volume_l, "fill and bleed; what was out does not go back"


def _once(needs: list[Need]) -> tuple[Need, ...]:
    """What the joints take anew anyway is not bought a second time for the old ones in the log."""
    new: dict[ItemKind, float] = {}
    for need in needs:
        if need.kind is not None and not need.old:
            new[need.kind] = new.get(need.kind, 0.0) + need.amount
    found = []
    for need in needs:
        if need.old and need.kind is not None and new.get(need.kind):
            met = min(new[need.kind], need.amount)
            new[need.kind] -= met
            if met == need.amount:
                continue
            need = replace(need, amount=need.amount - met)
        found.append(need)
    return tuple(found)


def parts_needed(parts: Iterable[PartToGet]) -> list[Need]:
    """What taking the old line off has shown to be needed; known before the line is measured."""
    return [
        Need(
            ref=f"old:{part.what}",
            what=part.what,
            amount=part.count,
            unit="each",
            why=part.because,
            kind=part.kind,
            old=True,
        )
        for part in parts
    ]


def _need(
    ref: str, what: str, amount: float, why: str, unit: NeedUnit = "each", kind: ItemKind | None = None
) -> Need:
    return Need(ref=ref, what=what, amount=amount, unit=unit, why=why, kind=kind)


def _own_ends(kit: Kit, hose: PlacedHose, name: str, why: str) -> list[Need]:
    """The ends of a hose that is not clamped: of reusable ones each by its size and angle."""
    kind = end_kind_of(kit, hose)
    size = kind.size_for(hose.hose.size) if kind else None
    if kind is None or size is None:
        return [_need(f"hose-end:{hose.hose.id}", f"{hose.piece.joined} ends, {name}", 2, why)]
    return [
        _need(
            f"hose-end:{kind.id}-{size.dash}-{angle}",
            f"{kind.name}, dash {size.dash}, {'straight' if angle == 0 else f'{angle}°'}",
            1,
            why,
        )
        for angle in (hose.piece.angle_a, hose.piece.angle_b)
    ]


def _end(chosen: Choices, parts: EndParts) -> list[Need]:
    fitting, nut, why = parts.fitting, parts.nut, f"end {parts.end}"
    found = []
    if nut is not None:
        word = {"banjo": "banjo bolt", "stud": "stud"}.get(fitting.kind, "nut")
        found.append(_need(f"nut:{nut.id}", f"{word} {nut.thread}, {fitting.name}, {nut.size}", 1, why))
        cap = nut.thread
        found.append(_need(f"cap:{cap}", f"cap or plug {cap}", 1, f"{why}: keep grit out"))
    if parts.choice.tube.insert:
        found.append(_need(f"insert:{chosen.tube.size}", f"tube insert, {chosen.tube.size}", 1, why))
    for part in fitting.renewed(nut, chosen.tube.size, "its port"):
        found.append(_need(part.ref, part.what, part.count, why, kind=part.kind))
    return found
