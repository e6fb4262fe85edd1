"""What every element of the line stands: the tube at its governing place, the ends, hoses and joints."""

from __future__ import annotations

from bendrel.core.ends.fitting import EndSize, Fitting
from bendrel.core.findings import EndName, Source, Where
from bendrel.core.line.document import HosePiece
from bendrel.core.plan.carried import Carried
from bendrel.core.plan.kit import Kit
from bendrel.core.plan.pieces import Pieces, PlacedHose
from bendrel.core.pressure.tube import TubeStrength, tube_strength
from bendrel.core.record import record
from bendrel.core.shape.bends import Span
from bendrel.core.tube.material import Material, Tube


@record
class Element:
    """One element with its burst and allowed pressure in kPa, None where nothing is known or, for
    `too_hot`, where the temperature is beyond what it is used at."""

    id: str
    name: str
    where: Where
    burst_kpa: float | None
    allowed_kpa: float | None
    too_hot: bool
    words: str
    source: Source


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
    place = f"back of bend {where.number}" if where.kind == "bend" else "straight"
    elements = [
        Element(
            id="tube",
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
        clamped = any(h.end == end and h.piece.joined == "clamps" for h in pieces.hoses)
        if size is not None and size.rated_kpa is not None and not clamped:
            elements.append(
                Element(
                    id=f"end-{end}",
                    name=f"end {end}, {fitting.name}",
                    where=Where(
                        kind="end", end=end, from_mm=_at(end, developed_mm), to_mm=_at(end, developed_mm)
                    ),
                    burst_kpa=None,
                    allowed_kpa=size.rated_kpa,
                    too_hot=False,
                    words="rating of the joint",
                    source=size.source,
                )
            )
    for hose in pieces.hoses:
        elements += _hose(kit, hose, carried, developed_mm)
    known = [e for e in elements if e.allowed_kpa is not None]
    weakest = min(known, key=lambda e: e.allowed_kpa or 0.0).id if known else None
    return Strength(elements=tuple(elements), weakest=weakest, tube=own)


def _at(end: EndName, developed_mm: float) -> float:
    return 0.0 if end == "A" else developed_mm


def _hose(kit: Kit, placed: PlacedHose, carried: Carried, developed_mm: float) -> list[Element]:
    at = _at(placed.end, developed_mm)
    where = Where(kind="piece", end=placed.end, number=placed.index + 1, from_mm=at, to_mm=at)
    key = f"{placed.end}-{placed.index + 1}"
    hot = carried.duty.hot_c > placed.hose_class.highest_c
    found = [
        Element(
            id=f"hose-{key}",
            name=f"hose beyond {placed.end}, {placed.hose_class.name} {placed.hose.size}",
            where=where,
            burst_kpa=None,
            allowed_kpa=None if hot else placed.hose.pressure_kpa,
            too_hot=hot,
            words=f"up to {placed.hose_class.highest_c:.0f} °C",
            source=placed.hose.source,
        )
    ]
    if placed.piece.joined == "clamps":
        bare = any(side.bare for side in placed.ends)
        limit = kit.limits["clamped_bare_kpa" if bare else "clamped_kpa"]
        found.append(
            Element(
                id=f"clamps-{key}",
                name=f"clamped joint beyond {placed.end}" + (", bare tube" if bare else ""),
                where=where,
                burst_kpa=None,
                allowed_kpa=limit.value * _share(placed.piece),
                too_hot=False,
                words=f"{placed.piece.clamps_each} each side",
                source=limit.source,
            )
        )
    return found


def _share(piece: HosePiece) -> float:
    """The figures are those of two clamps; one holds half, none holds nothing."""
    return piece.clamps_each / 2
