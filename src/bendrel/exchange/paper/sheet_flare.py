"""The page of flaring: every step with a box to tick, right and wrong ones cut through, room to note them."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from reportlab.lib.units import mm as MM

from bendrel.core.parts.flaring import FlarePicture, Flaring, FlaringTold
from bendrel.exchange.paper.flowing import Pages
from bendrel.exchange.paper.paper import (
    INK,
    LABEL,
    LEFT,
    RULE,
    SECOND,
    STOP,
    TUBE,
    text_at,
    wrapped,
)
from bendrel.exchange.paper.sheet_work import ticked

WIDE, TALL, APART = 34 * MM, 28 * MM, 42 * MM
"""A picture, and from one to the next, in points."""


def flaring_pages(pages: Pages, flarings: Sequence[Flaring], *, name: str, job: str, today: date) -> None:
    """Write how the ends of a tube are flared, those alike together."""
    pages.head(name, job, "Flaring", today)
    for alike in _alike(flarings):
        ends = " and ".join(one.end for one in alike)
        pages.heading(f"{'Ends' if len(alike) > 1 else 'End'} {ends}")
        number = 0
        for step in alike[0].steps:
            told = [step] if step.id != "nut" else [_nut(one) for one in alike]
            for each in told:
                number += 1
                ticked(pages, f"{number}. {each.text}", each.why)
            if step.pictures:
                _pictures(pages, alike[0], step.pictures)
        for one in alike:
            pages.paragraph(f"End {one.end} measured across: ______________    cut off: ______ times", 10)
            pages.y -= 2 * MM


def _nut(flaring: Flaring) -> FlaringTold:
    return next(step for step in flaring.steps if step.id == "nut")


def _alike(flarings: Sequence[Flaring]) -> list[list[Flaring]]:
    """Ends that are flared the same way, but for their nuts."""
    found: list[list[Flaring]] = []
    for one in flarings:
        same = next((group for group in found if _words(group[0]) == _words(one)), None)
        if same is None:
            found.append([one])
        else:
            same.append(one)
    return found


def _words(flaring: Flaring) -> list[str]:
    return [step.id if step.id == "nut" else step.text for step in flaring.steps]


def _pictures(pages: Pages, flaring: Flaring, pictures: Sequence[FlarePicture]) -> None:
    pages.room(TALL + 14 * MM)
    top = pages.y - 1.5 * MM
    for k, picture in enumerate(pictures):
        left = LEFT + 6 * MM + k * APART
        _picture(pages, flaring, picture, left, top - TALL)
        said = f"{'Right' if picture.right else 'Wrong'}: {picture.text}"
        for n, line in enumerate(wrapped(said, LABEL, 8.5, WIDE + 4 * MM)):
            text_at(pages.canvas, left, top - TALL - (3.6 + n * 3.4) * MM, line, LABEL, 8.5)
    pages.y = top - TALL - 12 * MM


def _picture(pages: Pages, flaring: Flaring, picture: FlarePicture, left: float, bottom: float) -> None:
    canvas, scale = pages.canvas, WIDE / (2.2 * flaring.od_mm)
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(left, bottom, WIDE, TALL)
    canvas.setStrokeColor(RULE)
    canvas.setLineWidth(0.7)
    canvas.clipPath(frame, stroke=1, fill=0)

    def draw(points: Sequence[tuple[float, float]]) -> None:
        path = canvas.beginPath()
        for n, (x, y) in enumerate(points):
            at = (left + (x + 1.5 * flaring.od_mm) * scale, bottom + TALL / 2 + y * scale)
            (path.lineTo if n else path.moveTo)(*at)
        canvas.drawPath(path)

    canvas.setLineJoin(1)
    canvas.setLineCap(2)
    for stroke in picture.strokes:
        for colour, share in ((INK, 1.0), (TUBE, 0.78)):
            canvas.setStrokeColor(colour)
            canvas.setLineWidth(flaring.wall_mm * share * scale)
            draw(stroke)
    canvas.setStrokeColor(STOP)
    canvas.setLineWidth(flaring.wall_mm * 0.45 * scale)
    for crack in picture.cracks:
        draw(crack)
    canvas.setStrokeColor(SECOND)
    canvas.setLineWidth(0.4)
    canvas.line(left, bottom + TALL / 2, left + WIDE, bottom + TALL / 2)
    canvas.restoreState()
