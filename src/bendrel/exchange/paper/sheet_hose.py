"""The page for one hose: what to cut or order, how its elbows stand, and the steps to tick off."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from math import cos, radians, sin

from reportlab.lib.units import mm as MM
from reportlab.pdfgen.canvas import Canvas

from bendrel.core.findings import Finding
from bendrel.core.hose.assembly import Assembly
from bendrel.core.hose.supports import Support
from bendrel.core.parts.step import Step
from bendrel.core.units.notation import Unit, format_length
from bendrel.exchange.paper.flowing import Pages
from bendrel.exchange.paper.paper import (
    FIGURE,
    INK,
    LABEL,
    LEFT,
    RIGHT,
    RULE,
    SECOND,
    TEXT,
    fitted,
    stops_bar,
    text_at,
    wrapped,
)
from bendrel.exchange.paper.sheet_work import work_pages

CLOCK = 15 * MM


def build_hose_sheet(
    name: str,
    assembly: Assembly,
    supports: Sequence[Support],
    findings: Sequence[Finding],
    unit: Unit,
    *,
    job: str,
    hose: str,
    cautions: str,
    today: date,
    work: Sequence[Step] = (),
) -> bytes:
    """PDF bytes of the page, or pages where the steps go on; `work` are the steps of fitting and proving a
    line of hose alone."""
    pages = Pages(f"Hose: {name}")
    pages.head(name, job, "Hose sheet", today, hose)
    pages.y = stops_bar(pages.canvas, findings, pages.y)
    pages.y = _figures(pages.canvas, assembly, unit, pages.y)
    _clock(pages, assembly)
    pages.heading("Steps")
    for number, step in enumerate(assembly.steps, start=1):
        _step(pages, f"{number}", step.text, step.why)
    if supports:
        pages.heading("On the machine")
        for one in supports:
            where = format_length(one.from_mm, unit)
            if one.to_mm - one.from_mm > 1:
                where += f" to {format_length(one.to_mm, unit)}"
            _step(pages, "", f"{where} from end A: {one.text}", "")
    pages.y -= 3 * MM
    pages.paragraph(cautions, 9)
    if work:
        pages.next_page()
        work_pages(pages, work, name=name, job=job, today=today)
    return pages.done()


def _figures(canvas: Canvas, assembly: Assembly, unit: Unit, y: float) -> float:
    def said(mm: float | None) -> str:
        return "not known" if mm is None else format_length(mm, unit)

    rows = [("ends", assembly.name or "not known"), ("over all", said(assembly.overall_mm))]
    if assembly.dash:
        nut = f", nut {assembly.nut}" if assembly.nut else ""
        rows[0] = ("ends", f"{assembly.name}, dash {assembly.dash}{nut}")
    if assembly.cut_mm is not None:
        rows.append(("cut hose", said(assembly.cut_mm)))
    for one in assembly.ends:
        if one.takes_mm is not None:
            angle = "straight" if one.angle == 0 else f"{one.angle}°"
            rows.append((f"end {one.end}", f"{angle}, adds {said(one.takes_mm)}"))
    if assembly.shorter_mm is not None:
        rows.append(
            (
                "pressed",
                f"{said(assembly.shorter_mm)} shorter to {said(assembly.longer_mm)} longer; leave slack",
            )
        )
    for name, text in rows:
        y -= 6.4 * MM
        text_at(canvas, LEFT, y, name, LABEL, 10, SECOND)
        text_at(canvas, LEFT + 26 * MM, y, fitted(text, FIGURE, 13, RIGHT - LEFT - 26 * MM), FIGURE, 13)
    return y - 3 * MM


def _clock(pages: Pages, assembly: Assembly) -> None:
    """Two elbows seen along the hose from end A, and the words for it."""
    if not assembly.clocked or assembly.clock_deg is None:
        return
    canvas, x, middle = pages.canvas, LEFT + CLOCK + 2 * MM, pages.y - CLOCK - 4 * MM

    def at(degrees: float, r: float) -> tuple[float, float]:
        return x + r * sin(radians(degrees)), middle + r * cos(radians(degrees))

    canvas.setStrokeColor(RULE)
    canvas.setLineWidth(0.8)
    canvas.circle(x, middle, CLOCK, fill=0)
    for hour in range(0, 360, 30):
        canvas.line(*at(hour, CLOCK - (6 if hour % 90 == 0 else 3)), *at(hour, CLOCK))
    canvas.setLineCap(1)
    canvas.setStrokeColor(SECOND)
    canvas.setLineWidth(7)
    canvas.line(x, middle, *at(assembly.clock_deg, CLOCK))
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(4)
    canvas.line(x, middle, x, middle + CLOCK)
    canvas.setFillColor(INK)
    canvas.setFont(FIGURE, 11)
    canvas.drawRightString(x - 5, middle + CLOCK + 3, "A")
    bx, by = at(assembly.clock_deg, CLOCK + 9)
    canvas.drawCentredString(bx, by - 4, "B")
    pages.y = middle + 4 * MM
    pages.paragraph(assembly.clock_text, 11, indent=x + CLOCK + 12 * MM - LEFT)
    pages.y = middle - CLOCK - 5 * MM


def _step(pages: Pages, number: str, text: str, why: str) -> None:
    width = RIGHT - LEFT - 16 * MM
    lines, reasons = wrapped(text, TEXT, 10.5, width), wrapped(why, TEXT, 9, width) if why else []
    pages.room((len(lines) * 4.8 + len(reasons) * 4.2 + 3) * MM)
    canvas, y = pages.canvas, pages.y - 5 * MM
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.8)
    canvas.rect(LEFT, y - 0.6 * MM, 3.6 * MM, 3.6 * MM, fill=0)
    text_at(canvas, LEFT + 6 * MM, y, number, FIGURE, 11)
    for line in lines:
        text_at(canvas, LEFT + 13 * MM, y, line, TEXT, 10.5)
        y -= 4.8 * MM
    for line in reasons:
        text_at(canvas, LEFT + 13 * MM, y + 0.4 * MM, line, TEXT, 9, SECOND)
        y -= 4.2 * MM
    pages.y = y + 2.4 * MM
