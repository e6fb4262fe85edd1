"""The pages of fitting and proving: every step of the line with a box to tick, as the screen has them."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from reportlab.lib.units import mm as MM

from bendrel.core.parts.step import Step
from bendrel.exchange.paper.flowing import Pages
from bendrel.exchange.paper.paper import INK, LEFT, RIGHT, SECOND, STOP, TEXT, text_at, wrapped

HEADINGS = {"fit": "Fit", "prove": "Prove"}


def closing_of(steps: Sequence[Step]) -> list[Step]:
    """The steps of fitting and proving among those of a line."""
    return [step for step in steps if step.whole]


def work_pages(pages: Pages, steps: Sequence[Step], *, name: str, job: str, today: date) -> None:
    """Write the steps of fitting and proving on pages of their own."""
    pages.head(name, job, "Fit and prove", today)
    stage = ""
    for number, step in enumerate(closing_of(steps), start=1):
        if step.stage != stage:
            stage = step.stage
            pages.heading(HEADINGS[stage])
        for caution in step.cautions:
            pages.paragraph(caution, 9, STOP)
        ticked(pages, f"{number}. {step.text}", step.why)


def ticked(pages: Pages, text: str, why: str) -> None:
    """Write a step with a box to tick before it, and under it why it stands there."""
    lines = wrapped(text, TEXT, 10, RIGHT - LEFT - 8 * MM)
    pages.room((len(lines) * 4.6 + 3) * MM)
    pages.y -= 1.4 * MM
    for k, line in enumerate(lines):
        pages.y -= 4.4 * MM
        if k == 0:
            pages.canvas.setStrokeColor(INK)
            pages.canvas.setLineWidth(0.7)
            pages.canvas.rect(LEFT, pages.y - 0.5, 8, 8)
        text_at(pages.canvas, LEFT + 6 * MM, pages.y, line, TEXT, 10)
    if why:
        pages.paragraph(why, 8.5, SECOND, 6 * MM)
