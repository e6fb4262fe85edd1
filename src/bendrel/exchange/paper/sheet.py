"""The build sheet: one page that goes to the bench, and one of the whole line where there is more to it."""

from __future__ import annotations

import io
from collections.abc import Sequence
from datetime import date

from reportlab.lib.colors import HexColor, white
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm as MM
from reportlab.pdfgen.canvas import Canvas

from bendrel.core.bend.tube.part import Move, Part
from bendrel.core.line.document import Line, Port
from bendrel.core.line.run import ENDS, run_of
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step
from bendrel.core.plan.model import Plan
from bendrel.core.units.notation import Unit, format_angle, format_clock, format_length
from bendrel.exchange.paper.flowing import Pages
from bendrel.exchange.paper.paper import (
    BEND,
    BOLD,
    FIGURE,
    INK,
    LABEL,
    LEFT,
    RIGHT,
    RULE,
    SECOND,
    STOP,
    TEXT,
    TUBE,
    draw_bars,
    fitted,
    fonts,
    stops_bar,
    text_at,
    wrapped,
)
from bendrel.exchange.paper.sheet_flare import flaring_pages
from bendrel.exchange.paper.sheet_line import whole_line_page
from bendrel.exchange.paper.sheet_work import closing_of, work_pages
from bendrel.exchange.shapes.sketch import Sketch, sketch

FOOT = 14 * MM


def build_sheet(line: Line, plan: Plan, kit: Kit, steps: Sequence[Step], *, job: str, machine: str,
                cautions: str, tube: str, today: date) -> bytes:  # fmt: skip
    """PDF bytes of the sheet of the main tube with its `steps`. Raises ValueError without a part."""
    if plan.part is None:
        raise ValueError("There is nothing to print until every reading can be read.")
    fonts()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, pageCompression=1)
    canvas.setTitle(f"Build sheet: {line.name}")
    canvas.setCreator("Bendrel")
    part = plan.part
    y = _header(canvas, line, f"{job} · {machine}" if machine else job, tube, plan, today)
    y = stops_bar(canvas, plan.findings, y)
    crowded = len(part.bends) > 10
    y = _drawing_and_figures(canvas, line, plan, part, y, 52 * MM if crowded else 78 * MM)
    y = _table(canvas, part, line.unit, y)
    y = _steps(canvas, [step for step in steps if not step.whole], y)
    _cautions(canvas, cautions, y)
    canvas.showPage()
    flarings = [step.flaring for step in steps if step.kind == "flare" and step.flaring is not None]
    if flarings:
        flaring_pages(Pages("", canvas), flarings, name=line.name, job=job, today=today)
        canvas.showPage()
    if plan.in_space is not None:
        whole_line_page(canvas, line, plan, kit, plan.in_space, part.span)
        canvas.showPage()
    if closing_of(steps):
        work_pages(Pages("", canvas), steps, name=line.name, job=job, today=today)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _rule(canvas: Canvas, y: float, colour: HexColor = RULE, width: float = 0.5) -> None:
    canvas.setStrokeColor(colour)
    canvas.setLineWidth(width)
    canvas.line(LEFT, y, RIGHT, y)


def _header(canvas: Canvas, line: Line, job: str, tube: str, plan: Plan, today: date) -> float:
    y = A4[1] - 17 * MM
    text_at(canvas, LEFT, y, fitted(line.name, FIGURE, 24, 128 * MM), FIGURE, 24)
    text_at(canvas, LEFT, y - 6 * MM, fitted(job, TEXT, 10, 120 * MM), TEXT, 10, SECOND)
    canvas.setFillColor(SECOND)
    canvas.setFont(LABEL, 10)
    canvas.drawRightString(RIGHT, y + 2 * MM, f"Build sheet · {today.isoformat()}")
    canvas.drawRightString(RIGHT, y - 2.2 * MM, f"rules {plan.rules_version}")
    canvas.drawRightString(RIGHT, y - 6.4 * MM, tube)
    _rule(canvas, y - 9 * MM, INK, 1.4)
    return y - 9 * MM


def _drawing_and_figures(
    canvas: Canvas, line: Line, plan: Plan, part: Part, y: float, height: float
) -> float:
    width = 118 * MM
    drawing = sketch(part, part.views["free"], width, height, 11 * MM, plan.clips_mm(part.span))
    draw_tube(canvas, drawing, LEFT, y - height)
    x, at, unit = LEFT + width + 6 * MM, y - 8 * MM, line.unit
    for term in part.terms:
        text_at(canvas, x, at, fitted(term.label, LABEL, 11, 40 * MM), LABEL, 11, SECOND)
        canvas.setFillColor(INK)
        canvas.setFont(FIGURE, 11)
        canvas.drawRightString(RIGHT, at, format_length(term.mm, unit))
        at -= 5 * MM
    at -= 4 * MM
    text_at(canvas, x, at, "cut", LABEL, 13, SECOND)
    canvas.setFillColor(INK)
    canvas.setFont(FIGURE, 24)
    canvas.drawRightString(RIGHT, at, format_length(part.cut_mm, unit))
    canvas.setStrokeColor(TUBE)
    canvas.setLineWidth(1.6)
    canvas.line(x, at - 2 * MM, RIGHT, at - 2 * MM)
    if unit == "in":
        canvas.setFillColor(SECOND)
        canvas.setFont(LABEL, 10)
        canvas.drawRightString(RIGHT, at - 6 * MM, format_length(part.cut_mm, "mm"))
    at -= 12 * MM
    run = run_of(line, part.span)
    ports = {end: run.end(end).port if run else Port() for end in ENDS}
    for end in (part.end_a, part.end_b):
        choice = ports[end.end]
        nut = f", {end.nut_thread} nut" if end.nut_thread else ""
        title = f"End {end.end}" + (f" · {choice.label}" if choice.label else "")
        text_at(canvas, x, at, fitted(title, FIGURE, 11, RIGHT - x), FIGURE, 11)
        said = fitted(f"{end.fitting_name}{nut}", LABEL, 10, RIGHT - x)
        text_at(canvas, x, at - 4 * MM, said, LABEL, 10, SECOND)
        at -= 9 * MM
    # the figures beside a low drawing may reach further down than it
    bottom = min(y - height - 1 * MM, at + 2.5 * MM)
    _rule(canvas, bottom)
    return bottom


def draw_tube(canvas: Canvas, drawing: Sketch, x0: float, y0: float) -> None:
    """Draw one tube with its lower left corner at (x0, y0) points."""

    def at(point: tuple[float, float]) -> tuple[float, float]:
        return x0 + point[0], y0 + drawing.height - point[1]

    wide = drawing.tube_width * 0.7
    canvas.setLineJoin(1)
    for stroke in drawing.strokes:
        canvas.setLineCap(1)
        canvas.setStrokeColor(BEND if stroke.role == "bend" else TUBE)
        canvas.setLineWidth(wide)
        path = canvas.beginPath()
        path.moveTo(*at(stroke.points[0]))
        for point in stroke.points[1:]:
            path.lineTo(*at(point))
        canvas.drawPath(path)
    canvas.setLineCap(0)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(wide + 4)
    for a, b in drawing.ends:
        canvas.line(*at(a), *at(b))
    draw_bars(canvas, drawing.clips, at)
    for label in drawing.labels:
        x, y = at(label.at)
        if not label.end:
            canvas.setFillColor(white)
            canvas.setStrokeColor(INK)
            canvas.setLineWidth(0.7)
            canvas.circle(x, y, 6.5, fill=1)
        canvas.setFillColor(INK)
        canvas.setFont(FIGURE, 12 if label.end else 9)
        canvas.drawCentredString(x, y - (4 if label.end else 3.2), label.text)


COLUMNS = (
    ("bend", 0.0), ("mark", 15.0), ("turn the tube", 45.0), ("plane", 99.0),
    ("angle", 116.0), ("dial", 133.0), ("straight before", 149.0), ("radius", 170.0),
)  # fmt: skip


def _table(canvas: Canvas, part: Part, unit: Unit, y: float) -> float:
    if not part.moves:
        return y
    style = {"start": "start of bend", "middle": "middle of bend", "corner": "corner less take-up"}
    first = part.moves[0].held
    over = " until it is changed over" if any(move.held != first for move in part.moves) else ""
    said = (
        f"Marks from the {part.marked_from} at end {first} ({style[part.mark_style]}), "
        f"bends in the order they are made, end {first} towards you{over}"
    )
    text_at(canvas, LEFT, y - 5.5 * MM, said, BOLD, 9)
    y -= 10 * MM
    for name, x in COLUMNS:
        text_at(canvas, LEFT + x * MM, y, name, LABEL, 9, SECOND)
    _rule(canvas, y - 1.5 * MM, INK, 0.8)
    row = min(6.0 * MM, 128 * MM / max(len(part.moves), 20))
    size = max(5.5, min(11.0, row / MM * 1.9))
    for move in part.moves:
        y -= row
        for (_, x), cell in zip(COLUMNS, _cells(part, move, unit), strict=True):
            font = FIGURE if x < 16 else LABEL
            text_at(canvas, LEFT + x * MM, y - 0.6 * MM, cell, font, size)
        _rule(canvas, y - 2 * MM if row > 5 * MM else y - 1.2 * MM)
    return y - 3 * MM


def _cells(part: Part, move: Move, unit: Unit) -> tuple[str, ...]:
    bend = part.bends[move.bend - 1]
    mark = "none" if move.mark_mm is None else format_length(move.mark_mm, unit)
    words = move.turn_words.split(", end")[0]
    angle = format_angle(move.angle_deg)
    if move.finish_deg is not None:  # left open now, finished in its place
        angle += f" › {format_angle(move.finish_deg)}"
    return (
        str(move.bend),
        mark,
        words,
        format_clock(move.clock_deg),
        angle,
        format_angle(move.dial_deg),
        format_length(bend.straight_mm, unit),
        format_length(bend.radius_mm, unit),
    )


def _steps(canvas: Canvas, steps: Sequence[Step], y: float) -> float:
    """Steps in two columns, each a tick box, smaller when the table took the room."""
    room = y - FOOT - 26 * MM
    for size in (10.5, 9.0, 8.0, 7.0, 6.0, 5.2):
        columns = _flowed(steps, size)
        if max(len(column) for column in columns) * size * 1.28 <= room:
            break
    lead = size * 1.28
    lowest = y
    half = (RIGHT - LEFT) / 2
    for k, column in enumerate(columns):
        x, at = LEFT + k * half, y - 5 * MM
        for first, text in column:
            if first:
                canvas.setStrokeColor(INK)
                canvas.setLineWidth(0.7)
                canvas.rect(x, at - 0.5, size * 0.75, size * 0.75)
            text_at(canvas, x + size * 1.5, at, text, TEXT, size)
            at -= lead
        lowest = min(lowest, at)
    return lowest


def _flowed(steps: Sequence[Step], size: float) -> list[list[tuple[bool, str]]]:
    width = (RIGHT - LEFT) / 2 - size * 2.6
    blocks = [wrapped(f"{k}. {s.text}", TEXT, size, width) for k, s in enumerate(steps, start=1)]
    total = sum(len(block) for block in blocks)
    columns: list[list[tuple[bool, str]]] = [[], []]
    for block in blocks:
        side = 0 if len(columns[0]) + len(block) / 2 <= total / 2 and not columns[1] else 1
        columns[side] += [(k == 0, text) for k, text in enumerate(block)]
    return columns


def _cautions(canvas: Canvas, cautions: str, y: float) -> None:
    lines = wrapped(cautions, TEXT, 7.6, RIGHT - LEFT - 8 * MM)
    top = FOOT + len(lines) * 3.4 * MM
    top = min(top, y - 1 * MM) if y - 1 * MM > FOOT + 8 * MM else top
    _rule(canvas, top + 2.2 * MM, STOP, 1.2)
    at = top - 1.2 * MM
    for text in lines:
        text_at(canvas, LEFT, at, text, TEXT, 7.6)
        at -= 3.4 * MM
