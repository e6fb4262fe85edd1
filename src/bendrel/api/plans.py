"""What is computed from a document as typed, and the catalogue. Nothing here is stored."""

from __future__ import annotations

import re
from typing import Any

from fastapi import Request, Response
from pydantic import TypeAdapter

from bendrel.api.beside import answered, reckoned
from bendrel.api.rooms import room
from bendrel.api.schemas import (
    CatalogueOut,
    ChainOrder,
    Conversion,
    Copying,
    DrawingOrder,
    Imported,
    LetInQuestion,
    MendChoice,
    MendDecision,
    MendQuestion,
    OtherRadius,
    ShapeFile,
    TakesOut,
    catalogue_of,
)
from bendrel.api.state import Services
from bendrel.core.findings import Derivation
from bendrel.core.line.document import Line
from bendrel.core.parts.step import Step
from bendrel.core.plan.model import Plan
from bendrel.core.plan.working import order_of_work, working_of
from bendrel.exchange.documents.adapters import adapter
from bendrel.exchange.documents.documents import line_from_value, line_schema
from bendrel.services.hose.hose_ways import HoseStudy, study_hose
from bendrel.services.job.kits import added_up
from bendrel.services.line.chains import Edited, edit_chain
from bendrel.services.line.files import draw_line
from bendrel.services.line.importing import Understood, import_text
from bendrel.services.line.measuring import CheckAdvice, Rebuilt, copy_line, rebuild
from bendrel.services.mend.gaps import GapOrder, GapWays, ways_over_gap
from bendrel.services.mend.letting_in import LettingIn, letting_in
from bendrel.services.mend.splicing import Mending, decide_to_mend, what_it_takes
from bendrel.services.reckoned.apart import READING
from bendrel.services.reckoned.reckoning import checks, mending

router = room("/api", "plans")

_BEYOND_SIGHT = re.compile(rb"(\.\d{6})\d+(?=[,}\]])")
"""Digits of a number beyond a millionth: no screen shows them, and they are a tenth of the answer."""

_PLAN = adapter(Plan)


@router.post("/preview", response_model=Plan)
def preview(document: Line, services: Services) -> Response:
    """The plan of a line as typed."""
    # written straight from the dataclasses: validating our own answer again costs more than the plan
    answer = _PLAN.dump_json(services.lines.plan(document))
    return Response(_BEYOND_SIGHT.sub(rb"\1", answer), media_type="application/json")


@router.post("/up-to-date")
def bring_up_to_date(body: dict[str, Any]) -> Line:
    """A line document of any version as it is now, such as a draft that a browser kept."""
    return line_from_value(body)


@router.post("/convert")
def convert(body: Conversion, services: Services) -> Line:
    """The same shape in the other way of entry."""
    return services.lines.convert(body.document, body.to, body.span)


@router.post("/chain")
def edit_the_chain(body: ChainOrder, services: Services) -> Edited:
    """The line after one edit of its chain; saving it is a separate step."""
    return edit_chain(body.document, body.edit, services.kit)


@router.post("/hose")
def look_at_hose(document: Line, services: Services, span: str, line: str = "") -> HoseStudy:
    """One hose over its travel: how it lies, which lengths do, where it is held; beside the hoses of its job
    where `line` says which line it is of."""
    others = services.lines.of_same_job(line) if line else ()
    # not apart: how its positions lie is remembered here, for the next key and for the plan
    return study_hose(document, services.kit, span, others)


@router.post("/mend", response_model=Mending)
async def mend(body: MendQuestion, request: Request, services: Services) -> Response:
    """Every way to mend a damage that was noted, the best first."""
    return await answered(request, mending, body.document, body.order, services.kit)


@router.post("/mend/takes")
def takes(body: MendChoice, services: Services) -> TakesOut:
    """What one way asks for: parts with price and stock, and tools."""
    found = what_it_takes(body.document, body.order, body.method, services.kit)
    return TakesOut(list=services.kits.priced(added_up(found.needs)), tools=found.tools)


@router.post("/mend/gap")
def gap(body: GapOrder, services: Services) -> GapWays:
    """Every way over a gap in a line that nobody has drawn."""
    return ways_over_gap(body, services.kit)


@router.post("/let-in")
def let_in(body: LetInQuestion, services: Services) -> LettingIn:
    """A cooler, a filter or a valve let into a tube; saving it is a separate step."""
    return letting_in(body.document, body.order, services.kit)


@router.post("/mend/decide")
def decide(body: MendDecision, services: Services) -> Edited:
    """The line rewritten into its chain; saving it is a separate step."""
    return decide_to_mend(body.document, body.order, body.method, body.reason, services.kit)


@router.post("/working")
def working(document: Line, services: Services, span: str = "") -> tuple[Derivation, ...]:
    """The working behind the figures of one tube and of the whole line."""
    return working_of(document, services.kit, span)


@router.post("/steps")
def steps(document: Line, services: Services, span: str = "") -> tuple[Step, ...]:
    """The order of work of one tube."""
    return order_of_work(document, services.kit, span)


@router.post("/suspects", response_model=CheckAdvice)
async def find_suspects(document: Line, request: Request, services: Services, span: str = "") -> Response:
    """The readings to read again first when a check does not agree."""
    return await answered(request, checks, document, services.kit, span)


@router.post("/copy")
def copy_from(body: Copying, services: Services) -> Imported:
    """What a copy of another line would become; saving it is a separate step."""
    source = services.lines.open(body.source).document
    document, understood = copy_line(body.document, source, body.order, services.kit, body.span)
    return Imported(document=document, understood=understood)


@router.post("/reradius")
def other_radius(body: OtherRadius, services: Services) -> Rebuilt:
    """The line between the same ports with another radius; saving it is a separate step."""
    return rebuild(body.document, body.radius, services.kit, body.span)


@router.post("/drawing", response_class=Response, responses={200: {"content": {"image/svg+xml": {}}}})
def drawing(body: DrawingOrder, services: Services) -> Response:
    """The line drawing as SVG, as far as it has been read."""
    svg = draw_line(body.document, services.kit, body.span, body.view)
    return Response(svg, media_type="image/svg+xml")


@router.post("/import")
async def import_shape(body: ShapeFile, request: Request, services: Services) -> Understood:
    """What a file would become; saving it is a separate step."""
    told = (body.text, body.document, body.radius, body.unit, services.kit, body.span)
    found: Understood = await reckoned(request, import_text, *told, bounds=READING)
    return found


@router.get("/catalogue")
def catalogue(services: Services) -> CatalogueOut:
    """Everything that can be chosen, with its sources."""
    return catalogue_of(services.kit, services.shelf.ways_version)


@router.get("/schema/line", response_class=Response)
def schema() -> Response:
    """The JSON Schema of a line document."""
    return Response(TypeAdapter(dict).dump_json(line_schema()), media_type="application/schema+json")
