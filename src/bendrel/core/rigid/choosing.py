"""The catalogue rows that a rigid piece's choices mean."""

from __future__ import annotations

from collections.abc import Container

from bendrel.core.bending.calibration import calibrated
from bendrel.core.line.document import Line
from bendrel.core.line.resolve import Problem
from bendrel.core.shop.choices import Choices
from bendrel.core.shop.kit import Kit

SPAN = "/spans/0"


def choices_of(line: Line, kit: Kit) -> Choices | None:
    """What the line's choices mean; None where the catalogue lacks one of them."""
    return choose_rows(line, kit, [])


def choose_rows(line: Line, kit: Kit, problems: list[Problem]) -> Choices | None:
    span = line.spans[0]
    asked: list[tuple[str, str, str | None, Container[str]]] = [
        (f"{SPAN}/tube", "tube", span.tube, kit.tubes),
        (f"{SPAN}/bender", "bender", span.bender, kit.benders),
        ("/service", "service", line.service, kit.services),
    ]
    for path, end in (("/end_a", line.end_a), ("/end_b", line.end_b)):
        asked.append((f"{path}/fitting", "end type", end.fitting, kit.fittings))
        asked.append((f"{path}/nut", "nut", end.nut, kit.nuts))
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
