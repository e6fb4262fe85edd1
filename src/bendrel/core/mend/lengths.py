"""How long the new piece is over a gap, term by term."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from bendrel.core.bend.tube.ends import flare_use
from bendrel.core.findings import DERIVED, Derivation, Source, given, shown
from bendrel.core.geometry.parts import SLACK_MM
from bendrel.core.joints.lap import lap_on
from bendrel.core.joints.pieces import best_clamp
from bendrel.core.mend.hoses import hose_for
from bendrel.core.mend.offer import Offer, Reason
from bendrel.core.parts.fitting import EndSize, Nut
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.service import Service
from bendrel.core.parts.splicing import Splice
from bendrel.core.parts.tube import Tube
from bendrel.core.units.notation import Unit, format_length


def flare_loss(kit: Kit, way: Splice, fitting: str, tube: Tube | None) -> float:
    """What an old end loses to its own flare, in mm; 0 for a joint that takes cut ends."""
    return flare_use(kit, fitting, tube) if tube is not None and way.seat > 0 else 0.0


def insertion(kit: Kit, fitting: str, size: str) -> float | None:
    """How far a tube goes into the body of a sleeve joint, in mm; 0 where none does, None where the catalogue
    has not got this size."""
    known = kit.fittings.get(fitting)
    if known is None or known.kind not in ("compression", "bite"):
        return 0.0
    row = kit.end_size(fitting, size)
    return row.used_mm if row is not None else None


def hose_lap(kit: Kit, service: Service, od_mm: float) -> float:
    """How far the hose of a service with two of its clamps lies on a tube, in mm."""
    hose = hose_for(kit, service, od_mm)
    name = best_clamp(kit, service.id, hose, od_mm) if hose is not None else None
    clamp = kit.clamps[name] if name is not None else None
    return lap_on(kit, hose, od_mm, clamps=2, clamp=clamp).mm


def taken_by(size: EndSize | None, nut: Nut | None) -> float:
    """The straight that flare and nut of one end take up, in mm; nothing for what is not there."""
    return (size.length_mm if size else 0.0) + (nut.length_mm if nut else 0.0)


def end_takes(kit: Kit, fitting: str, size: str) -> float:
    """What an end takes up that is still to be made, with the nut that is usual for it."""
    return taken_by(kit.end_size(fitting, size), next(iter(kit.nuts_for(fitting, size)), None))


def least_piece(kit: Kit, way: Splice, fitting: str, size: str) -> float:
    """The shortest new piece, end to end in mm: both ends with their nuts, and the tool that makes the second
    of them where it is flared. Hose needs no more than its overlaps."""
    if way.id == "hose":
        return 0.0
    grip = kit.fittings[fitting].grip_mm if way.seat > 0 and fitting in kit.fittings else 0.0
    return 2 * max(end_takes(kit, fitting, size), insertion(kit, fitting, size) or 0.0) + grip


def gap_lengths(
    kit: Kit,
    way: Splice,
    service: Service,
    fitting: str,
    gap_mm: float,
    od_mm: float,
    tube: Tube | None,
    *,
    unit: Unit = "mm",
) -> Offer:
    """The new piece over a gap measured cut face to cut face. Source: plane geometry of the joints, term by
    term."""
    blank = Offer(
        method=way.id,
        name=way.name,
        verdict="right",
        gap_mm=gap_mm,
        fitting=fitting,
        joint=way.joint,
        years=way.years,
    )
    if way.id == "hose":
        overlap = hose_lap(kit, service, od_mm)
        return replace(
            blank,
            piece_mm=gap_mm + 2 * overlap,
            overlap_mm=overlap,
            working=(
                working(
                    "hose = gap + overlap at each end",
                    (("gap, cut face to cut face", gap_mm), ("overlap, two clamps", overlap)),
                    gap_mm + 2 * overlap,
                    unit,
                ),
            ),
        )
    if way.id == "flared_unions":
        use = flare_loss(kit, way, fitting, tube)
        piece = gap_mm + 2 * use - 2 * way.seat
        return replace(
            blank,
            piece_mm=piece,
            stop_mm=way.seat,
            spring_apart_mm=way.seat / 2,
            working=(
                working(
                    "piece, rim to rim = gap + what both old ends lose to their flares − both unions",
                    (
                        ("gap, cut face to cut face", gap_mm),
                        ("one flare of an old end", use),
                        ("one union, seat to seat", way.seat),
                    ),
                    piece,
                    unit,
                ),
            ),
        )
    piece = gap_mm - 2 * way.stop
    return replace(
        blank,
        piece_mm=piece,
        stop_mm=way.stop,
        spring_apart_mm=None if tube is None else insertion(kit, fitting, tube.size),
        working=(
            working(
                "piece, cut to cut = gap − the stop of each union",
                (("gap, cut face to cut face", gap_mm), ("stop of one union", way.stop)),
                piece,
                unit,
            ),
        ),
    )


def working(formula: str, terms: Sequence[tuple[str, float]], result: float, unit: Unit = "mm") -> Derivation:
    """How the length of a new piece comes about, term by term, in `unit`."""
    inputs = [given(name, format_length(mm, unit)) for name, mm in terms]
    return shown("splice", "Length of the new piece", formula, inputs, format_length(result, unit), DERIVED)


def fits(piece_mm: float | None, least_mm: float) -> bool:
    """A piece is as long as it must be, but for what floating point loses."""
    return (piece_mm or 0.0) >= least_mm - SLACK_MM


def too_short(least_mm: float, source: Source, unit: Unit = "mm") -> Reason:
    """Why a gap that leaves less than `least_mm` for the new piece is refused."""
    text = (
        f"The new piece is too short: both its ends need {format_length(least_mm, unit)}. Cut further apart."
    )
    return Reason(text=text, source=source)
