"""At the tool: the order of bends, the swing, the tape, and parts while they are being made."""

from __future__ import annotations

from typing import Annotated

from annotated_types import Ge, Le, MaxLen
from fastapi import Request, Response

from bendrel.api.beside import answered, beside
from bendrel.api.files import as_file
from bendrel.api.rooms import room
from bendrel.api.state import Services
from bendrel.core.bend.bench.state import Ended, MakingState
from bendrel.core.bend.bench.sweep import SwingView
from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.bend.told.flared import MadeFlare
from bendrel.core.bend.told.offered import MOST_OFFERS, TypedOffer
from bendrel.core.findings import EndName
from bendrel.core.line.document import Line
from bendrel.core.record import record
from bendrel.core.units.lengths import Length
from bendrel.core.work.flared import FlareStands
from bendrel.services.bench.benches import BenchReport, PartStanding, flares_stand, print_tape
from bendrel.services.bench.jigs import blocks_dxf, blocks_stl, print_jig
from bendrel.services.bench.makings import Making
from bendrel.services.reckoned.reckoning import bench_report, part_standing, swing_of

router = room("/api", "making")


@record
class SwingOrder:
    """Which move to see, the first is 1."""

    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    move: Annotated[int, Ge(1), Le(200)]


@record
class MadeSoFar:
    """A plan, the bends of it that are made, and the trial fits."""

    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    made: Annotated[tuple[MadeBend, ...], MaxLen(200)]
    offers: Annotated[tuple[TypedOffer, ...], MaxLen(MOST_OFFERS)] = ()


@record
class FlaresSoFar:
    """A plan, and what was noted of the flares of one tube."""

    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    flares: Annotated[tuple[MadeFlare, ...], MaxLen(2)]


@record
class KeptMaking:
    """How far a making is, against the version it was read at."""

    version: int
    state: MakingState


@record
class GapRead:
    """What was read straight across a gap, against the version of the making that it was read at."""

    version: int
    across: Length


@record
class Ending:
    """How a making ended."""

    outcome: Ended


@router.post("/bench", response_model=BenchReport)
async def bench(document: Line, request: Request, services: Services, span: str = "") -> Response:
    """What the tool makes of the line as typed, and how exact the part will be."""
    return await answered(request, bench_report, document, services.kit, span)


@router.post("/bench/swing", response_model=SwingView)
async def see_swing(body: SwingOrder, request: Request, services: Services) -> Response:
    """One move as it swings."""
    return await answered(request, swing_of, body.document, services.kit, body.move, body.span)


@router.post("/bench/standing", response_model=PartStanding)
async def see_standing(body: MadeSoFar, request: Request, services: Services) -> Response:
    """How a part stands of which some bends are made, and the rest re-planned."""
    told = (body.document, services.kit, body.made, body.span, body.offers)
    return await answered(request, part_standing, *told)


@router.post("/bench/flares")
def see_flares(body: FlaresSoFar, services: Services) -> tuple[FlareStands, ...]:
    """How the flares of a part stand."""
    return flares_stand(body.document, services.kit, body.flares, body.span)


@router.get("/lines/{line_id}/tape.pdf", response_class=Response)
def tape(line_id: str, services: Services, span: str = "") -> Response:
    """The paper tape of a line, to scale."""
    line = services.lines.open(line_id).document
    return as_file(
        print_tape(line, services.kit, span), "application/pdf", f"{line.name} tape.pdf", inline=True
    )


@router.get("/lines/{line_id}/jig.pdf", response_class=Response)
def jig_sheet(line_id: str, services: Services, span: str = "", home: EndName = "A") -> Response:
    """The jig sheet of a line, to scale."""
    line = services.lines.open(line_id).document
    return as_file(
        print_jig(line, services.kit, span, home), "application/pdf", f"{line.name} jig.pdf", inline=True
    )


@router.get("/lines/{line_id}/jig.stl", response_class=Response)
def jig_blocks_stl(line_id: str, services: Services, span: str = "", home: EndName = "A") -> Response:
    """The blocks of the jig, to print."""
    line = services.lines.open(line_id).document
    return as_file(blocks_stl(line, services.kit, span, home), "model/stl", f"{line.name} jig blocks.stl")


@router.get("/lines/{line_id}/jig.dxf", response_class=Response)
def jig_blocks_dxf(line_id: str, services: Services, span: str = "", home: EndName = "A") -> Response:
    """The blocks of the jig, to cut."""
    line = services.lines.open(line_id).document
    return as_file(blocks_dxf(line, services.kit, span, home), "image/vnd.dxf", f"{line.name} jig blocks.dxf")


@router.get("/lines/{line_id}/makings")
def makings(line_id: str, services: Services) -> tuple[Making, ...]:
    """All makings of a line, the newest first."""
    return services.makings.of_line(line_id)


@router.post("/lines/{line_id}/makings", status_code=201)
async def begin(line_id: str, services: Services, span: str = "") -> Making:
    """Begin to make a line, or go on with what was begun."""
    return await beside(services.makings.begin, line_id, span)


@router.put("/makings/{making_id}")
async def keep(making_id: str, body: KeptMaking, services: Services) -> Making:
    """Keep how far it is."""
    return await beside(services.makings.keep, making_id, body.version, body.state)


@router.post("/makings/{making_id}/gap")
async def gap(making_id: str, body: GapRead, services: Services) -> Making:
    """The piece is planned for the gap that the cuts left."""
    return await beside(services.makings.gap, making_id, body.version, body.across)


@router.post("/makings/{making_id}/end")
def end(making_id: str, body: Ending, services: Services) -> Making:
    """The part is finished, scrapped or given up."""
    return services.makings.end(making_id, body.outcome)
