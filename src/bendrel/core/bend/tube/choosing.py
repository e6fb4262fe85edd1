"""The catalogue rows that a rigid piece's choices mean."""

from __future__ import annotations

from collections.abc import Container

from bendrel.core.line.paths import at
from bendrel.core.line.resolve import Problem
from bendrel.core.line.run import Run
from bendrel.core.parts.calibration import calibrated
from bendrel.core.parts.choices import Choices
from bendrel.core.parts.kit import Kit


def choose_rows(run: Run, kit: Kit, problems: list[Problem]) -> Choices | None:
    """What the span's choices mean; None where the catalogue lacks one of them, which `problems` then say."""
    span = run.span
    asked: list[tuple[str, str, str | None, Container[str]]] = [
        (run.at("tube"), "tube", span.tube, kit.tubes),
        (run.at("bender"), "bender", span.bender, kit.benders),
        (at("service"), "service", run.line.service, kit.services),
    ]
    for end in run.ends.values():
        asked.append((end.tube_at("fitting"), "end type", end.tube.fitting, kit.fittings))
        asked.append((end.tube_at("nut"), "nut", end.tube.nut, kit.nuts))
    for path, what, wanted, known in asked:
        if wanted is not None and wanted not in known:
            message = f"The catalogue has no {what} “{wanted}”; choose one that is listed."
            problems.append(Problem(path=path, message=message))
    if problems:
        return None
    tube = kit.tubes[span.tube]
    told = kit.calibration(span.bender, span.tube)
    return Choices(
        tube=tube,
        material=kit.materials[tube.material],
        bender=calibrated(kit.benders[span.bender], told),
        calibration=told,
    )
