"""Fitting, proving and signing off: what the two stages show, the runs of the gauge, the simulated vessel."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from annotated_types import Ge, Le
from fastapi import Response

from bendrel.api.beside import beside
from bendrel.api.files import BINARY_BODY, Raw, as_file
from bendrel.api.rooms import room
from bendrel.api.schemas import RunBegin, RunMark, SignOrder
from bendrel.api.state import At, Services
from bendrel.core.line.document import Line
from bendrel.core.parts.fluid import ATMOSPHERE_KPA
from bendrel.core.parts.proving import WrenchRule
from bendrel.core.work.learnt import Learnt, learnt
from bendrel.services.line.lines import OpenLine
from bendrel.services.proof.closings import Closing
from bendrel.services.proof.joined_holds import JoinedHold
from bendrel.services.proof.proof_runs import Chart, ProofRun
from bendrel.services.shelf.wrench import WrenchDraft
from bendrel.standins.vessel import VesselOrder

router = room("/api", "proving")

Points = Annotated[int, Ge(10), Le(2000)]


@router.post("/closing")
def closing(document: Line, services: Services, line: str, today: date) -> Closing:
    """Joints, steps, hold tests and what is in the way of a sign-off, of a line as typed."""
    return services.closings.of(document, line, today)


@router.post("/lines/{line_id}/sign-off")
def sign_off(line_id: str, body: SignOrder, services: Services) -> OpenLine:
    """Sign the line off as it is saved."""
    return services.closings.sign(line_id, body.version, body.sign_off)


@router.get("/lines/{line_id}/record.pdf", response_class=Response)
def record(line_id: str, services: Services) -> Response:
    """The record of what was done and proved."""
    data, name = services.papers.record(line_id, date.today())
    return as_file(data, "application/pdf", f"{name}, record.pdf", inline=True)


@router.get("/lines/{line_id}/handover.pdf", response_class=Response)
def handover(line_id: str, services: Services) -> Response:
    """The note for the owner."""
    data, name = services.papers.handover(line_id, date.today())
    return as_file(data, "application/pdf", f"{name}, handover.pdf", inline=True)


@router.get("/lines/{line_id}/joined-holds")
def joined_holds(line_id: str, services: Services, today: date) -> tuple[JoinedHold, ...]:
    """The hold tests of the lines that this one is joined to."""
    return services.joined_holds.of(line_id, today)


@router.get("/jobs/{job_id}/handover.pdf", response_class=Response)
def handover_of_job(job_id: str, services: Services) -> Response:
    """The note for the owner over all lines of a job."""
    data, name = services.papers.handover_of_job(job_id, date.today())
    return as_file(data, "application/pdf", f"{name}, handover.pdf", inline=True)


@router.get("/lines/{line_id}/follow-ups.ics", response_class=Response)
def reminders(line_id: str, services: Services) -> Response:
    """What is due, for a calendar."""
    data, name = services.papers.reminders(line_id, date.today())
    return as_file(data, "text/calendar; charset=utf-8", f"{name}.ics")


@router.get("/lines/{line_id}/runs")
def runs_of_line(line_id: str, services: Services) -> tuple[ProofRun, ...]:
    """The runs of a line, the newest first."""
    return services.runs.of_line(line_id)


@router.post("/lines/{line_id}/runs")
def begin_run(line_id: str, body: RunBegin, services: Services) -> ProofRun:
    """Record the pressure gauge for this line."""
    return services.runs.begin(line_id, absolute=body.absolute)


@router.post("/lines/{line_id}/runs/file", openapi_extra=BINARY_BODY)
async def bring_in_run(line_id: str, data: Raw, services: Services) -> ProofRun:
    """A CSV of readings as a run of this line."""
    return await beside(services.runs.bring_in, line_id, data)


@router.get("/runs/{run_id}")
def chart(run_id: str, services: Services, points: Points = 600) -> Chart:
    """A run, thinned out for a chart."""
    return services.runs.chart(run_id, points)


@router.post("/runs/{run_id}/end")
def end_run(run_id: str, services: Services) -> ProofRun:
    """Record no more."""
    return services.runs.end(run_id)


@router.post("/runs/{run_id}/marks")
def mark_run(run_id: str, body: RunMark, services: Services) -> ProofRun:
    """A mark at this moment."""
    return services.runs.mark(run_id, body.text)


@router.get("/runs/{run_id}/readings.csv", response_class=Response)
def readings_csv(run_id: str, services: Services, air_kpa: float = ATMOSPHERE_KPA) -> Response:
    """All readings, absolute pressure."""
    return as_file(services.runs.written(run_id, air_kpa).encode(), "text/csv", "readings.csv")


@router.get("/shop/learnt")
def what_was_learnt(services: Services) -> Learnt:
    """What the shop's own lines taught of joints and of fitting."""
    lines = [line for job in services.jobs.board() for line in job.lines]
    watched = [one for line in lines for one in line.watched]
    return learnt(watched, (line.met for line in lines), services.kit)


@router.put("/shop/wrench")
def measure_wrench(body: WrenchDraft, version: At, services: Services) -> WrenchRule:
    """Keep the shop's own torque wrench and crowfoot, from the version of the shop's ways that was read."""
    return services.shelf.measure_wrench(body, version)


@router.post("/standins/vessel", status_code=204)
async def simulate_vessel(order: VesselOrder, services: Services) -> None:
    """Set the simulated vessel under pressure; its gauge sends from now on."""
    services.vessel.run(order)


@router.post("/standins/vessel/{act}", status_code=204)
async def act_on_vessel(act: Literal["stop", "off", "lose", "nonsense"], services: Services) -> None:
    """The simulated gauge stops sending, is switched off, loses its connection, or sends nonsense."""
    vessel = services.vessel
    does = {"stop": vessel.stop, "off": vessel.off, "lose": vessel.lose, "nonsense": vessel.nonsense}
    does[act]()
