"""One step a screen: the order of work with every bend as a step of its own."""

from __future__ import annotations

from collections.abc import Iterable

from bendrel.core.bend.tube.part import Part
from bendrel.core.record import record
from bendrel.core.work.steps import Step


@record
class BenchStep:
    """One screen of bench mode. `key` names it for as long as the plan stays; `bend` is the bend that is
    made in it, None for every other step; `cautions` are what must be said before it."""

    key: str
    kind: str
    text: str
    why: str
    bend: int | None
    cautions: tuple[str, ...] = ()


def bench_steps(part: Part, steps: Iterable[Step]) -> tuple[BenchStep, ...]:
    """The order of work of a part, the one that says *bend* opened into one for each move."""
    found: list[BenchStep] = []
    for number, step in enumerate(steps, start=1):
        if step.kind != "bend":
            key = f"{number}-{step.kind}"
            found.append(
                BenchStep(
                    key=key, kind=step.kind, text=step.text, why=step.why, bend=None, cautions=step.cautions
                )
            )
            continue
        for move in part.moves:
            text = f"Bend {move.bend}"
            found.append(
                BenchStep(key=f"bend-{move.bend}", kind="bend", text=text, why=step.why, bend=move.bend)
            )
    return tuple(found)
