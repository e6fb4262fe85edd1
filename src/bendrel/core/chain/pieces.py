"""The hoses and parts beyond the ends, with the catalogue rows and figures that they mean."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import EndName
from bendrel.core.hose.hose import Clamp, ClampKindId, Hose, HoseClass
from bendrel.core.hose.push_fit import (
    HoseFit,
    PushBands,
    clamp_holds,
    clamps_for,
    hose_fit,
    overlap_needed_mm,
)
from bendrel.core.joints.verdict import VERDICT_ORDER
from bendrel.core.lengths import Length, is_blank, length_mm
from bendrel.core.line.document import HosePiece, Line, PartPiece
from bendrel.core.line.resolve import Problem
from bendrel.core.record import record
from bendrel.core.shop.kit import Kit
from bendrel.core.units import UnitError

Side = Literal["near", "far"]


@record
class HoseEndFit:
    """One end of a hose piece on what it goes on. `on_mm` is that diameter; `bare` says that there is
    neither bead nor barb; `overlap_mm` the hose that must lie on it for its clamps, None without;
    `holds` whether the chosen clamp takes it; `offers` the clamps that do."""

    side: Side
    on_mm: float
    bare: bool
    fit: HoseFit
    overlap_mm: float | None
    holds: bool | None
    offers: tuple[str, ...]


@record
class PlacedHose:
    """One hose piece beyond an end, from the tube outwards. `length_mm` is None while not measured."""

    end: EndName
    index: int
    piece: HosePiece
    hose: Hose
    hose_class: HoseClass
    clamp: Clamp | None
    length_mm: float | None
    ends: tuple[HoseEndFit, ...]


@record
class PlacedPart:
    """One part beyond an end. A restrictor's bore and land in mm; the bore is None of other parts, and
    while it is not measured."""

    end: EndName
    index: int
    piece: PartPiece
    bore_mm: float | None
    land_mm: float


@record
class Pieces:
    """Everything beyond both ends."""

    hoses: tuple[PlacedHose, ...]
    parts: tuple[PlacedPart, ...]


def place_pieces(line: Line, kit: Kit, tube_od_mm: float, problems: list[Problem]) -> Pieces:
    """Look up and measure what lies beyond the ends. What cannot be read is a problem."""
    hoses: list[PlacedHose] = []
    parts: list[PlacedPart] = []
    ends: tuple[EndName, EndName] = ("A", "B")
    for end in ends:
        fitting = kit.fittings.get(line.end(end).fitting)
        bare_tube = fitting is None or fitting.kind != "hose"
        for k, piece in enumerate(line.end(end).beyond):
            path = f"/end_{end.lower()}/beyond/{k}"
            if isinstance(piece, PartPiece):
                bore = _length(piece.bore, f"{path}/bore", problems) if piece.part == "restrictor" else None
                land = _length(piece.land, f"{path}/land", problems) or kit.limits["land_mm"].value
                parts.append(PlacedPart(end=end, index=k, piece=piece, bore_mm=bore, land_mm=land))
                continue
            placed = _hose(kit, line.service, end, k, piece, path, tube_od_mm, bare_tube and k == 0, problems)
            if placed is not None:
                hoses.append(placed)
    return Pieces(hoses=tuple(hoses), parts=tuple(parts))


def _hose(
    kit: Kit,
    service: str,
    end: EndName,
    index: int,
    piece: HosePiece,
    path: str,
    tube_od_mm: float,
    bare: bool,
    problems: list[Problem],
) -> PlacedHose | None:
    hose = kit.hoses.get(piece.hose)
    clamp = kit.clamps.get(piece.clamp) if piece.clamp else None
    for name, wanted, found in (("hose", piece.hose, hose), ("clamp", piece.clamp, clamp)):
        if wanted and found is None:
            message = f"The catalogue has no {name} “{wanted}”; choose one that is listed."
            problems.append(Problem(path=f"{path}/{name}", message=message))
    if hose is None:
        return None
    near = _length(piece.near, f"{path}/near", problems) or tube_od_mm
    far = _length(piece.far, f"{path}/far", problems)
    sides: list[tuple[Side, float, bool]] = [("near", near, bare)]
    if far is not None:
        sides.append(("far", far, piece.far_plain))
    ends: tuple[HoseEndFit, ...] = ()
    if piece.joined == "clamps":
        ends = tuple(_end_fit(kit, service, hose, clamp, piece, *side) for side in sides)
    return PlacedHose(
        end=end,
        index=index,
        piece=piece,
        hose=hose,
        hose_class=kit.hose_classes[hose.hose_class],
        clamp=clamp,
        length_mm=_length(piece.length, f"{path}/length", problems),
        ends=ends,
    )


def push_bands(kit: Kit) -> PushBands:
    """Where the words for a push fit change, by the rules."""
    return PushBands(
        loose=kit.limits["hose_loose"].value,
        slides=kit.limits["hose_slides"].value,
        warm=kit.limits["hose_warm"].value,
    )


def clamp_offers(
    kit: Kit, service: str, hose: Hose, kinds: tuple[ClampKindId, ...], sizes_mm: tuple[float, ...]
) -> tuple[str, ...]:
    """Clamps that hold `hose` on every diameter that it goes on and are not refused in the service; the
    shop's own kind first, then as the service judges them."""
    bands = push_bands(kit)
    over = [hose_fit(hose, size, bands).over_mm for size in sizes_mm]
    fits = clamps_for(over, kinds, kit.clamps.values(), kit.limits["clamp_left"].value)
    judged = {kind: kit.verdict("clamp", kind, service) for kind in kinds}
    allowed = [c for c in fits if (v := judged[c.kind]) is None or v.verdict != "refused"]
    preferred = kit.preferences.get("clamps", "")

    def rank(clamp: Clamp) -> tuple[bool, int]:
        verdict = judged[clamp.kind]
        return clamp.kind != preferred, VERDICT_ORDER[verdict.verdict] if verdict else 1

    return tuple(clamp.id for clamp in sorted(allowed, key=rank))


def _end_fit(
    kit: Kit,
    service: str,
    hose: Hose,
    clamp: Clamp | None,
    piece: HosePiece,
    side: Side,
    on_mm: float,
    bare: bool,
) -> HoseEndFit:
    fit = hose_fit(hose, on_mm, push_bands(kit))
    need = None
    if clamp is not None:
        need = overlap_needed_mm(clamp.width_mm, piece.clamps_each, kit.limits["clamp_gap_mm"].value)
    left = kit.limits["clamp_left"].value
    return HoseEndFit(
        side=side,
        on_mm=on_mm,
        bare=bare,
        fit=fit,
        overlap_mm=need,
        holds=None if clamp is None else clamp_holds(clamp, fit.over_mm, left),
        offers=clamp_offers(kit, service, hose, kit.hose_classes[hose.hose_class].clamps, (on_mm,)),
    )


def _length(reading: Length, path: str, problems: list[Problem]) -> float | None:
    if is_blank(reading):
        return None
    try:
        return length_mm(reading)
    except UnitError as error:
        problems.append(Problem(path=path, message=str(error)))
        return None
