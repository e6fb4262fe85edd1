"""The papers of a line that was proved: its record, the note for its owner, and what is due as a calendar."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, date, datetime

from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.planner import plan_line
from bendrel.core.work.holding import air_of
from bendrel.exchange.paper.handover import build_handover
from bendrel.exchange.paper.record import HeldPaper, RecordPaper, build_record
from bendrel.exchange.readings.reminders import build_reminders
from bendrel.exchange.shapes.sketch_line import name_of
from bendrel.services.bench.benches import flares_stand
from bendrel.services.bench.makings import Makings
from bendrel.services.errors import NotFound, Refused
from bendrel.services.job.jobs import Jobs
from bendrel.services.job.photos import Photos, photos_of
from bendrel.services.line.lines import Lines
from bendrel.services.proof.closings import Closings, HoldTold
from bendrel.services.proof.proof_runs import ProofRuns
from bendrel.services.shelf.shelf import Shelf

COURSE = 300
"""Points of a run that are drawn on paper."""

ABOVE = "override"
"""The caution that the record ends with in words of its own."""


class Papers:
    """Use cases on papers. Raises NotFound and Refused."""

    def __init__(
        self,
        lines: Lines,
        jobs: Jobs,
        closings: Closings,
        runs: ProofRuns,
        makings: Makings,
        photos: Photos,
        shelf: Shelf,
    ) -> None:
        self._lines, self._jobs, self._closings, self._makings = lines, jobs, closings, makings
        self._runs, self._photos, self._shelf = runs, photos, shelf

    def record(self, line_id: str, today: date) -> tuple[bytes, str]:
        """(PDF, name of the line)."""
        paper = self._paper(line_id, today)
        return build_record(paper, self._shelf.kit, today), paper.line.name

    def handover(self, line_id: str, today: date) -> tuple[bytes, str]:
        """(PDF, name of the line)."""
        paper = self._paper(line_id, today)
        return build_handover([paper], self._shelf.kit, today, name=paper.line.name), paper.line.name

    def handover_of_job(self, job_id: str, today: date) -> tuple[bytes, str]:
        """(PDF, name of the job): one note over all its lines. Refused while it has none."""
        job = self._jobs.one(job_id)
        papers = [self._paper(line.id, today) for line in job.lines]
        if not papers:
            raise Refused("This job has no line yet: there is nothing to hand over.")
        return build_handover(papers, self._shelf.kit, today, name=job.name), job.name

    def reminders(self, line_id: str, today: date) -> tuple[bytes, str]:
        """(iCalendar, name of the line). Refused where nothing has a date."""
        opened = self._lines.open(line_id)
        due = self._closings.of(opened.document, line_id, today).due
        if not any(one.day for one in due):
            raise Refused("Nothing of this line is due on a day; give a follow-up its date first.")
        data = build_reminders(line_id, opened.document.name, opened.job_name, due, datetime.now(UTC))
        return data, opened.document.name

    def _paper(self, line_id: str, today: date) -> RecordPaper:
        opened = self._lines.open(line_id)
        line, kit = opened.document, self._shelf.kit
        said = self._closings.of(line, line_id, today)
        job = self._jobs.one(opened.job_id)
        return RecordPaper(
            job=job.name,
            machine=job.machine,
            line=line,
            plan=plan_line(line, kit),
            joints=said.joints,
            standing=said.standing,
            held=tuple(self._held(line, told) for told in said.holds),
            balance=said.balance,
            due=said.due,
            in_the_way=said.in_the_way,
            signed_stands=said.signed_stands,
            cautions=tuple(
                caution.text for caution in kit.cautions_at(line.service, "prove") if caution.id != ABOVE
            ),
            photos=tuple(self._pictures(line)),
            step_texts=_step_texts(kit, line),
            flares=tuple(self._flares(line, line_id)),
        )

    def _held(self, line: Line, told: HoldTold) -> HeldPaper:
        hold = next(one for one in line.proving.holds if one.id == told.id)
        course: tuple[tuple[float, float], ...] = ()
        if hold.run and told.result is not None:
            read = self._runs.readings(hold.run, air_of(hold))
            every = max(1, len(read.times_s) // COURSE)
            pairs = zip(read.times_s, read.pressures_kpa, strict=True)
            course = tuple(pair for k, pair in enumerate(pairs) if k % every == 0)
        return HeldPaper(hold=hold, result=told.result, short=told.short, course=course)

    def _flares(self, line: Line, line_id: str) -> Iterator[str]:
        """What was read of the flares of each tube as it was made last."""
        told: set[str] = set()
        for made in self._makings.of_line(line_id):
            if made.span in told or made.outcome not in ("", "good"):
                continue
            told.add(made.span)
            noted = [one for one in made.state.flares if one.across.strip() or one.failed]
            if not noted or not any(span.id == made.span for span in line.spans):
                continue
            tube = name_of(line, made.span)
            for one in flares_stand(made.document, self._shelf.kit, tuple(noted), made.span):
                if one.end in {flare.end for flare in noted}:
                    failed = next(flare.failed for flare in noted if flare.end == one.end)
                    cut = f" {one.lost}" if failed else ""
                    yield f"{tube.capitalize()}, end {one.end}: {one.text or 'not measured.'}{cut}"

    def _pictures(self, line: Line) -> list[bytes]:
        found = []
        for name in photos_of(line):
            try:
                found.append(self._photos.path(name).read_bytes())
            except NotFound:
                continue
        return found


def _step_texts(kit: Kit, line: Line) -> dict[str, str]:
    """The first sentence of each step of the guided run."""
    rule = kit.proving.by_service[line.service]
    return {step.id: step.text.split(". ")[0].split(":")[0].rstrip(".") for step in rule.steps}
