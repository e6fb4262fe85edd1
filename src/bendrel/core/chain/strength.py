"""What every element of the line stands: the tube at its governing place, the ends, hoses and joints."""

from __future__ import annotations

from typing import Literal

from bendrel.core.chain.carried import Carried
from bendrel.core.chain.pieces import Pieces, PlacedHose
from bendrel.core.ends.fitting import EndSize, Fitting
from bendrel.core.findings import EndName, Source, Where
from bendrel.core.fluids.flow import area_mm2
from bendrel.core.pressure.tube import TubeStrength, tube_strength
from bendrel.core.record import record
from bendrel.core.shape.bends import Span
from bendrel.core.shop.kit import Kit
from bendrel.core.tube.material import Material, Tube

ElementKind = Literal["tube", "end", "hose", "clamps"]


@record
class Element:
    """One element with its burst and allowed pressure in kPa, None where nothing is known or, for
    `too_hot`, where the temperature is beyond what it is used at. `approved` says that it is judged by
    a law and not by a working pressure, `unknown` that the catalogue has no rating for it."""

    id: str
    kind: ElementKind
    name: str
    where: Where
    burst_kpa: float | None
    allowed_kpa: float | None
    too_hot: bool
    words: str
    source: Source
    approved: bool = False
    unknown: bool = False


@record
class Strength:
    """All elements, the weakest of them by id, and the tube's own figures with the thick-wall formula
    for information."""

    elements: tuple[Element, ...]
    weakest: str | None
    tube: TubeStrength


def strength_of(
    kit: Kit,
    tube: Tube,
    material: Material,
    carried: Carried,
    spans: tuple[Span, ...],
    radii_mm: tuple[float, ...],
    developed_mm: float,
    ends: tuple[tuple[EndName, Fitting, EndSize | None], ...],
    pieces: Pieces,
) -> Strength:
    """Every element against the duty of `carried`. The tightest bend governs the tube."""
    duty = carried.duty
    radius, where = None, Where(kind="tube", from_mm=0.0, to_mm=developed_mm)
    if radii_mm:
        tightest = min(range(len(radii_mm)), key=lambda k: radii_mm[k])
        radius = radii_mm[tightest]
        span = spans[tightest]
        where = Where(kind="bend", number=tightest + 1, from_mm=span.start_mm, to_mm=span.end_mm)
    own = tube_strength(tube, material, radius_mm=radius, temperature_c=duty.hot_c, factor=duty.design_factor)
    place = f"bend {where.number}" if where.kind == "bend" else "straight"
    elements = [
        Element(
            id="tube",
            kind="tube",
            name=f"tube, {place}",
            where=where,
            burst_kpa=own.burst_kpa,
            allowed_kpa=own.allowed_kpa,
            too_hot=own.share is None,
            words=f"least wall {own.wall_mm:.2f} mm, factor {duty.design_factor:g}, {duty.hot_c:.0f} °C",
            source=material.strength_source,
        )
    ]
    for end, fitting, size in ends:
        found = _end(kit, tube, pieces, end, fitting, size, developed_mm, duty.hot_c)
        if found is not None:
            elements.append(found)
    for hose in pieces.hoses:
        elements += _hose(kit, hose, carried, developed_mm)
    known = [e for e in elements if e.allowed_kpa is not None]
    weakest = min(known, key=lambda e: e.allowed_kpa or 0.0).id if known else None
    return Strength(elements=tuple(elements), weakest=weakest, tube=own)


def _at(end: EndName, developed_mm: float) -> float:
    return 0.0 if end == "A" else developed_mm


def _end(
    kit: Kit,
    tube: Tube,
    pieces: Pieces,
    end: EndName,
    fitting: Fitting,
    size: EndSize | None,
    developed_mm: float,
    hot_c: float,
) -> Element | None:
    """One end of the tube: as strong as the tube, by its rating, by what a clamped hose on it holds, or
    not known. None where a hose that is noted there is judged instead."""
    if any(hose.end == end and hose.index == 0 for hose in pieces.hoses) and fitting.takes_hose:
        return None
    if fitting.strong_as_tube and size is not None:
        return None
    at = _at(end, developed_mm)
    allowed, words, source = None, "the catalogue has no rating for this size", fitting.source
    if fitting.takes_hose:
        joint = clamped_joint(kit, tube.od_mm, bare=fitting.kind == "plain", clamps=2)
        allowed, words, source = joint.kpa, "hose and two clamps, none noted yet", joint.source
    elif size is not None and size.rated_kpa is not None:
        allowed, words, source = size.rated_kpa, "rating of the joint", size.source
    too_hot = fitting.highest_c is not None and hot_c > fitting.highest_c
    return Element(
        id=f"end-{end}",
        kind="end",
        name=f"end {end}, {fitting.name}",
        where=Where(kind="end", end=end, from_mm=at, to_mm=at),
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


def _hose(kit: Kit, placed: PlacedHose, carried: Carried, developed_mm: float) -> list[Element]:
    at = _at(placed.end, developed_mm)
    where = Where(kind="piece", end=placed.end, number=placed.index + 1, from_mm=at, to_mm=at)
    key = f"{placed.end}-{placed.index + 1}"
    hot = carried.duty.hot_c > placed.hose_class.highest_c
    law, made_up = placed.hose_class.law, placed.piece.joined == "crimped"
    found = [
        Element(
            id=f"hose-{key}",
            kind="hose",
            name=f"hose beyond {placed.end}, {placed.hose_class.name} {placed.hose.size}",
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
                    id=f"clamps-{key}" + ("" if side.side == "near" else "-far"),
                    kind="clamps",
                    name=f"clamped joint beyond {placed.end}"
                    + (", far spigot" if side.side == "far" else "")
                    + (", bare" if side.bare else ""),
                    where=where,
                    burst_kpa=None,
                    allowed_kpa=joint.kpa,
                    too_hot=False,
                    words=f"{placed.piece.clamps_each} each side on {side.on_mm:.1f} mm",
                    source=joint.source,
                )
            )
    return found
