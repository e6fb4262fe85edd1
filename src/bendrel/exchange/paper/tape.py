"""The paper tape: every mark at full size, to lay along the tube or wrap around it.

The whole tube from end A's cut end to end B's, in stretches that are cut out and joined at crosses.
Its width is the tube's circumference, so that wrapped around with the printed side out it also shows
on which side each bend closes: down the paper is clockwise as seen from end A.
"""

from __future__ import annotations

import io
from itertools import pairwise
from math import pi

from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm as MM
from reportlab.pdfgen.canvas import Canvas

from bendrel.core.bend.tube.part import Part
from bendrel.core.line.document import Line
from bendrel.core.record import record
from bendrel.core.units.notation import format_clock, format_length
from bendrel.exchange.errors import FileError
from bendrel.exchange.paper.paper import BOLD, FIGURE, INK, LABEL, RULE, SECOND, TEXT, TUBE, fonts, text_at

WIDE, HIGH = landscape(A4)
STRETCH_MM = 250.0
LEFT_MM, TOP_MM = 23.5, 178.0
LOW_MM = 14.0  # the check ruler lies below
WORDS_MM = 20.0  # what stands above and below a stretch: the place it begins at, three rows of words, crosses
LEAST_WIDE_MM = 14.0


@record
class TapeMark:
    """A line across the tape, `at_mm` from its left end. `clock_deg` is the side on which a bend closes,
    None for marks that are none of a bend's."""

    at_mm: float
    text: str
    clock_deg: float | None
    cut: bool


def tape_marks(part: Part) -> tuple[TapeMark, ...]:
    """All marks of the tape from end A's cut end, in the person's school, and the two rims."""
    a, b = part.beyond_mm["A"], part.beyond_mm["B"]
    whole = a + part.developed_mm + b
    found = [TapeMark(at_mm=0.0, text="end A, cut", clock_deg=None, cut=True)]
    if a > 0:
        found.append(TapeMark(at_mm=a, text="rim A", clock_deg=None, cut=False))
    for move in part.moves:
        if move.mark_mm is None:
            continue
        at = move.mark_mm if move.held == "A" else whole - move.mark_mm
        said = f"bend {move.bend} · {move.dial_deg:.1f}° · {format_clock(move.clock_deg)} · {move.held} held"
        found.append(TapeMark(at_mm=at, text=said, clock_deg=move.clock_deg, cut=False))
    if b > 0:
        found.append(TapeMark(at_mm=whole - b, text="rim B", clock_deg=None, cut=False))
    found.append(TapeMark(at_mm=whole, text="end B, cut", clock_deg=None, cut=True))
    return tuple(sorted(found, key=lambda mark: mark.at_mm))


def build_tape(line: Line, part: Part, size: str) -> bytes:
    """PDF bytes of the tape; lengths on the paper are lengths on the tube. Raises FileError for a tube that
    is wider around than the paper is high."""
    wide = max(LEAST_WIDE_MM, pi * part.od_mm)
    per_page = int((TOP_MM - LOW_MM) // (wide + WORDS_MM))
    if not per_page:
        most = format_length((TOP_MM - LOW_MM - WORDS_MM) / pi, line.unit)
        raise FileError(
            f"A tube of {size} is wider around than this paper is high; tapes go up to {most} across."
        )
    fonts()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(WIDE, HIGH), pageCompression=0)
    canvas.setTitle(f"Paper tape: {line.name}")
    canvas.setCreator("Bendrel")
    marks = tape_marks(part)
    low = min(0.0, marks[0].at_mm)
    edges = [low]
    while edges[-1] < marks[-1].at_mm - 1e-6:
        edges.append(min(edges[-1] + STRETCH_MM, marks[-1].at_mm))
    stretches = list(pairwise(edges))
    pages = max(1, -(-len(stretches) // per_page))
    for page in range(pages):
        _head(canvas, line, size, page + 1, pages)
        _check_ruler(canvas)
        for row, stretch in enumerate(stretches[page * per_page : (page + 1) * per_page]):
            _stretch(canvas, line, part, marks, stretch, TOP_MM - row * (wide + WORDS_MM), wide)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _head(canvas: Canvas, line: Line, size: str, page: int, pages: int) -> None:
    text_at(canvas, LEFT_MM * MM, HIGH - 13 * MM, line.name, FIGURE, 18)
    said = f"{size} · paper tape at full size · page {page} of {pages}"
    text_at(canvas, LEFT_MM * MM, HIGH - 19 * MM, said, LABEL, 11, SECOND)
    canvas.setFillColor(SECOND)
    canvas.setFont(TEXT, 8.5)
    how = "Print at 100 %, not fitted to the page. Cut out, join cross on cross, printed side out."
    canvas.drawRightString(WIDE - LEFT_MM * MM, HIGH - 13 * MM, how)
    down = (
        "Wrapped around, down the paper is clockwise seen from end A; the dot lies on the inside of the bend."
    )
    canvas.drawRightString(WIDE - LEFT_MM * MM, HIGH - 19 * MM, down)


def _check_ruler(canvas: Canvas) -> None:
    """100 mm and 4 inches to hold a rule against before anything is cut."""
    y = 9.0
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.4)
    for start, length, parts, unit in ((LEFT_MM, 100.0, 10, "100 mm"), (LEFT_MM + 145.0, 101.6, 4, "4 in")):
        canvas.line(start * MM, y * MM, (start + length) * MM, y * MM)
        for k in range(parts + 1):
            x = start + length * k / parts
            canvas.line(x * MM, y * MM, x * MM, (y + (4 if k in (0, parts) else 2.5)) * MM)
        text_at(canvas, (start + length - 22) * MM, (y - 4) * MM, f"must measure {unit}", TEXT, 8, SECOND)


def _stretch(
    canvas: Canvas,
    line: Line,
    part: Part,
    marks: tuple[TapeMark, ...],
    stretch: tuple[float, float],
    top_mm: float,
    wide_mm: float,
) -> None:
    start, end = stretch
    bottom = top_mm - wide_mm

    def x(at: float) -> float:
        return float((LEFT_MM + at - start) * MM)

    canvas.setStrokeColor(RULE)
    canvas.setLineWidth(0.5)
    canvas.setDash(3, 2)
    canvas.rect(x(start), bottom * MM, (end - start) * MM, wide_mm * MM, stroke=1, fill=0)
    canvas.setDash()
    canvas.setStrokeColor(TUBE)
    canvas.setLineWidth(0.7)
    canvas.line(x(start), top_mm * MM, x(end), top_mm * MM)  # the scribed line: 12 o'clock
    for edge in stretch:
        _cross(canvas, x(edge), (top_mm + 3) * MM)
        _cross(canvas, x(edge), (bottom - 3) * MM)
    text_at(canvas, x(start) + 4 * MM, (top_mm + 2) * MM, format_length(start, line.unit), LABEL, 8, SECOND)
    row = 0
    for mark in marks:
        if not start - 1e-6 <= mark.at_mm <= end + 1e-6:
            continue
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(1.0 if mark.cut else 0.6)
        canvas.line(x(mark.at_mm), top_mm * MM, x(mark.at_mm), bottom * MM)
        if mark.clock_deg is not None:
            y = top_mm - (mark.clock_deg % 360.0) / 360.0 * pi * part.od_mm
            canvas.setFillColor(INK)
            canvas.circle(x(mark.at_mm), y * MM, 1.1 * MM, stroke=0, fill=1)
        below = bottom - 4.5 - 4.2 * (row % 3)
        row += 1
        room = x(mark.at_mm) > WIDE - 75 * MM
        canvas.setFillColor(INK)
        canvas.setFont(BOLD, 8)
        said = f"{mark.text} · {format_length(mark.at_mm, line.unit)}"
        draw = canvas.drawRightString if room else canvas.drawString
        draw(x(mark.at_mm) + (-3 if room else 3) * MM, below * MM, said)


def _cross(canvas: Canvas, x: float, y: float) -> None:
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.35)
    canvas.line(x - 2 * MM, y, x + 2 * MM, y)
    canvas.line(x, y - 2 * MM, x, y + 2 * MM)
