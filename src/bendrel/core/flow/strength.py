"""What every element of the line stands: the tube at its governing place, the ends, hoses and joints."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from bendrel.core.bend.tube.ends import EndParts
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import Place, Source
from bendrel.core.flow.flow import area_mm2
from bendrel.core.joints.pieces import Pieces, PlacedComponent, PlacedHose
from bendrel.core.line.carried import Carried
from bendrel.core.line.document import HoseSpan
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Duty
from bendrel.core.parts.tube_strength import TubeStrength, tube_strength
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_fine, format_small

ElementKind = Literal["tube", "end", "hose", "clamps", "component"]


@record
class Element:
    """One element with its burst and allowed pressure in kPa, None where nothing is known or, for
    `too_hot`, where the temperature is beyond what it is used at. `approved` says that it is judged by
    a law and not by a working pressure, `unknown` that the catalogue has no rating for it."""

    id: str
    kind: ElementKind
    name: str
    where: Place
    burst_kpa: float | None
    allowed_kpa: float | None
    too_hot: bool
    words: str
    source: Source
    approved: bool = False
    unknown: bool = False


@record
class Strength:
    """All elements, the weakest of them by id, and the figures of the weakest tube with the thick-wall
    formula for information, None without a tube; `governs` is the element that they are of."""

    elements: tuple[Element, ...]
    weakest: str | None
    governs: str
    tube: TubeStrength | None


def strength_of(
    kit: Kit, rigids: Sequence[Rigid], pieces: Pieces, carried: Carried, unit: Unit = "mm"
) -> Strength:
    """Every element against the duty of `carried`, told in `unit`. The tightest bend governs a tube."""
    elements: list[Element] = []
    tubes: list[tuple[str, TubeStrength]] = []
    several = len(rigids) > 1
    for k, rigid in enumerate(rigids, start=1):
        element, own = _tube(rigid, carried, f"tube {k}" if several else "tube")
        tubes.append((element.id, own))
        elements.append(element)
        elements += [
            found for end in rigid.ends if (found := _end(kit, rigid, end, k if several else 0, carried))
        ]
    for hose in pieces.hoses:
        elements += _hose(kit, hose, carried, unit)
    elements += [found for one in pieces.components if (found := _component(one, carried)) is not None]
    known = [e for e in elements if e.allowed_kpa is not None]
    weakest = min(known, key=lambda e: e.allowed_kpa or 0.0).id if known else None
    governs, tube = min(tubes, key=lambda t: t[1].allowed_kpa or 0.0) if tubes else ("", None)
    return Strength(elements=tuple(elements), weakest=weakest, governs=governs, tube=tube)


def _tube(rigid: Rigid, carried: Carried, name: str) -> tuple[Element, TubeStrength]:
    duty, part, span = carried.duty, rigid.part, rigid.run.span.id
    radius, where = None, Place(kind="tube", span=span, from_mm=0.0, to_mm=part.developed_mm)
    if part.bends:
        tightest = min(part.bends, key=lambda bend: bend.radius_mm)
        radius = tightest.radius_mm
        where = Place(
            kind="bend",
            span=span,
            row=tightest.id,
            number=tightest.number,
            from_mm=tightest.start_mm,
            to_mm=tightest.end_mm,
        )
    own = tube_strength(
        rigid.tube,
        rigid.choices.material,
        radius_mm=radius,
        temperature_c=duty.hot_c,
        factor=duty.design_factor,
        family="" if duty.vacuum or duty.open else carried.fluid.family,
    )
    place = f"bend {where.number}" if where.kind == "bend" else "straight"
    element = Element(
        id=f"tube-{span}",
        kind="tube",
        name=f"{name}, {place}",
        where=where,
        burst_kpa=own.burst_kpa,
        allowed_kpa=own.allowed_kpa,
        too_hot=own.share is None,
        words=_words(own, duty, rigid.run.line.unit),
        source=_source(rigid, own),
        approved=own.by == "law",
    )
    return element, own


def _words(own: TubeStrength, duty: Duty, unit: Unit) -> str:
    if own.by == "law":
        return "as it is sold for this use"
    wall = "wall" if own.by == "tube standard" else "least wall"
    said = format_fine(round(own.wall_mm, 2), unit)
    return f"{wall} {said}, factor {duty.design_factor:g}, {duty.hot_c:.0f} °C"


def _source(rigid: Rigid, own: TubeStrength) -> Source:
    law, standard = rigid.tube.law, rigid.choices.material.tube_standard
    if own.by == "law" and law is not None:
        return law.source
    return standard if own.by == "tube standard" and standard else rigid.choices.material.strength_source


def _component(placed: PlacedComponent, carried: Carried) -> Element | None:
    """By what its maker says. None of an old one that nobody has rated: it has held so far."""
    row, known = placed.row, placed.rated_kpa is not None
    if not known and placed.piece.age == "old":
        return None
    too_hot = placed.highest_c is not None and carried.duty.hot_c > placed.highest_c
    words = "as its maker rates it" if known else "nobody has said what it is rated for"
    from_row = row is not None and not placed.piece.rated.strip()
    return Element(
        id=f"component-{placed.piece.id}",
        kind="component",
        name=f"{placed.piece.what} {placed.stands.told}",
        where=Place(kind="span", span=placed.piece.id),
        burst_kpa=None,
        allowed_kpa=None if too_hot else placed.rated_kpa,
        too_hot=too_hot,
        words=f"up to {placed.highest_c:.0f} °C" if too_hot else words,
        source=row.source
        if row is not None and from_row
        else Source(kind="shop's own", text="noted at the component"),
        unknown=not known,
    )


def _end(kit: Kit, rigid: Rigid, parts: EndParts, number: int, carried: Carried) -> Element | None:
    """One end of a tube: as strong as the tube, by its rating, by what a clamped hose on it holds, or
    not known. None where a hose that is noted there is judged instead."""
    fitting, size, end = parts.fitting, parts.size, parts.end
    hot_c, span = carried.duty.hot_c, rigid.run.span.id
    next_to = parts.choice.beyond[0] if parts.choice.beyond else None
    if isinstance(next_to, HoseSpan) and next_to.hose in kit.hoses and fitting.takes_hose:
        return None
    if fitting.strong_as_tube and size is not None:
        return None
    at = 0.0 if end == "A" else rigid.part.developed_mm
    allowed, words, source = None, "the catalogue has no rating for this size", fitting.source
    if fitting.takes_hose:
        joint = clamped_joint(kit, rigid.tube.od_mm, bare=fitting.kind == "plain", clamps=2)
        allowed, words, source = joint.kpa, "hose and two clamps, none noted yet", joint.source
    elif size is not None and size.rated_kpa is not None:
        allowed, words, source = size.rated_kpa, "rating of the joint", size.source
    too_hot = fitting.highest_c is not None and hot_c > fitting.highest_c
    return Element(
        id=f"end-{span}-{end}",
        kind="end",
        name=f"end {end}{f' of tube {number}' if number else ''}, {fitting.name}",
        where=Place(kind="end", span=span, end=end, from_mm=at, to_mm=at),
        burst_kpa=None,
        allowed_kpa=None if too_hot else allowed,
        too_hot=too_hot,
        words=f"up to {fitting.highest_c:.0f} °C" if too_hot else words,
        source=source,
        unknown=allowed is None,
    )


@record
class ClampedJoint:
    """What a clamped joint holds, in kPa."""

    kpa: float
    source: Source


def clamped_joint(kit: Kit, bore_mm: float, *, bare: bool, clamps: int) -> ClampedJoint:
    """What `clamps` clamps hold on a bead or barb, or on a `bare` end, of one diameter.

    Source: the blow-off force p·π·d²/4 against what two clamps hold, and no more than what is held in
    any bore; one clamp holds its share of that (common practice).
    """
    force = kit.limits["clamped_bare_force_n" if bare else "clamped_force_n"]
    most = kit.limits["clamped_bare_kpa" if bare else "clamped_kpa"]
    by_force = force.value / area_mm2(bore_mm) * 1000
    share = {0: 0.0, 1: kit.limits["one_clamp_bare" if bare else "one_clamp_bead"].value}.get(clamps, 1.0)
    governing = force if by_force < most.value else most
    return ClampedJoint(kpa=min(by_force, most.value) * share, source=governing.source)


def _hose(kit: Kit, placed: PlacedHose, carried: Carried, unit: Unit) -> list[Element]:
    where, told = Place(kind="span", span=placed.piece.id), placed.stands.told
    hot = carried.duty.hot_c > placed.hose_class.highest_c
    law, made_up = placed.hose_class.law, placed.piece.joined == "crimped"
    found = [
        Element(
            id=f"hose-{placed.piece.id}",
            kind="hose",
            name=f"hose {told}, {placed.hose_class.name} {placed.hose.size}",
            where=where,
            burst_kpa=None,
            allowed_kpa=None if hot else placed.hose.pressure_kpa,
            too_hot=hot,
            words=law or f"{placed.hose_class.lowest_c:.0f} to {placed.hose_class.highest_c:.0f} °C",
            source=placed.hose_class.source if law else placed.hose.source,
            approved=bool(law) and made_up,
            unknown=placed.hose.pressure_kpa is None and not (law and made_up),
        )
    ]
    if placed.piece.joined == "clamps" and placed.piece.clamps_each > 0:
        for side in placed.ends:
            joint = clamped_joint(kit, side.on_mm, bare=side.bare, clamps=placed.piece.clamps_each)
            found.append(
                Element(
                    id=f"clamps-{placed.piece.id}-{side.faces}",
                    kind="clamps",
                    name=f"clamped joint {told}"
                    + (", far spigot" if side.side == "far" and not side.tube else "")
                    + (", bare" if side.bare else ""),
                    where=where,
                    burst_kpa=None,
                    allowed_kpa=joint.kpa,
                    too_hot=False,
                    words=f"{placed.piece.clamps_each} each side on {format_small(side.on_mm, unit)}",
                    source=joint.source,
                )
            )
    return found
