"""One step of the work, wherever it is done: made, fitted or proved; on screen, at the bench and on paper."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from bendrel.core.parts.flaring import Flaring
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.proving import Asked
from bendrel.core.parts.service import WorkStage
from bendrel.core.parts.step_row import WHOLE, Does, StepKind
from bendrel.core.record import record


@record
class Step:
    """One step, with the words for it and for why it stands here; `whole` says that it fits or proves the
    whole line. `joint` is the joint it is done at, `does` what it does to it, in which `round`; `opens` are
    joints that must still be open. `on` and `off` are ids of things put on and taken off, `lends` of those
    that are undone for this step alone and back on before it ends; `run` the step of the guided run that it
    is, with what that `asks`. `bend` is the bend that is made in it, `flaring` how the flare of
    one is. Without a `must` nothing is signed off;
    `cautions` are what must be said before it."""

    id: str
    stage: WorkStage
    kind: StepKind
    text: str
    why: str = ""
    joint: str = ""
    does: Does = ""
    round: int = 1
    opens: tuple[str, ...] = ()
    on: tuple[str, ...] = ()
    off: tuple[str, ...] = ()
    lends: tuple[str, ...] = ()
    run: str = ""
    asks: tuple[Asked, ...] = ()
    again: bool = False
    by_place: bool = False
    must: bool = False
    safety: bool = False
    expects: str = ""
    if_fitted: bool = False
    bend: int | None = None
    flaring: Flaring | None = None
    whole: bool = False
    cautions: tuple[str, ...] = ()


def step_of(kit: Kit, row: str, name: str = "", /, **figures: object) -> Step:
    """The step of a row of the catalogue with `figures` in its words; `name` is its id, the row's where it is
    left out. Raises KeyError for a row or a figure that is missing."""
    of = kit.steps[row]
    return Step(
        id=name or row,
        stage=of.stage,
        kind=of.kind,
        text=of.text.format(**figures),
        why=of.why.format(**figures),
        does=of.does,
        must=of.must,
        safety=of.safety,
        whole=of.kind in WHOLE,
    )


def cautioned(steps: Iterable[Step], kit: Kit, service: str) -> tuple[Step, ...]:
    """`steps` with what must be said in a service at the first step of each stage."""
    told: set[WorkStage] = set()
    found = []
    for step in steps:
        if step.stage not in told:
            told.add(step.stage)
            step = replace(step, cautions=tuple(c.text for c in kit.cautions_at(service, step.stage)))
        found.append(step)
    return tuple(found)
