"""The jig sheet: a part's plan at full size on tiles of paper, with the heights of its bends, the stop for
the end at home and the target for the other."""

from __future__ import annotations

import io
from itertools import pairwise
from math import ceil, cos, radians, sin

from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm as MM
from reportlab.pdfgen.canvas import Canvas

from bendrel.core.bend.fitting.jig import Jig, Rest
from bendrel.core.line.document import Line
from bendrel.core.units.notation import format_length
from bendrel.exchange.errors import FileError
from bendrel.exchange.paper.paper import BOLD, FIGURE, INK, LABEL, RULE, SECOND, TEXT, TUBE, fonts, text_at

WIDE, HIGH = landscape(A4)
TILE_X, TILE_Y = 260.0, 160.0
LEFT_MM, LOW_MM = 18.0, 18.0
MOST_TILES = 40
BLOCK_MM = (24.0, 30.0)
"""A block's length along the tube and its width across."""
RINGS = 10
READ_BESIDE = 10
"""Millimetres beside a bend that are marked."""


def build_jig(line: Line, jig: Jig, size: str) -> bytes:
    """PDF bytes: the target's card on the first page, then the tiles, row by row from the lower left.
    Raises FileError for a part that is too large for paper."""
    columns, rows = (
        max(1, ceil(side / tile)) for side, tile in ((jig.wide_mm, TILE_X), (jig.deep_mm, TILE_Y))
    )
    if columns * rows > MOST_TILES:
        raise FileError(
            f"This part needs {columns * rows} sheets of paper; a jig sheet has up to {MOST_TILES}: "
            "offer it to its ports instead."
        )
    fonts()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(WIDE, HIGH), pageCompression=0)
    canvas.setTitle(f"Jig sheet: {line.name}")
    canvas.setCreator("Bendrel")
    _card(canvas, line, jig, size, columns, rows)
    for row in range(rows):
        for column in range(columns):
            _tile(canvas, line, jig, column, row, columns, rows)
    canvas.save()
    return out.getvalue()


def _head(canvas: Canvas, line: Line, said: str) -> None:
    text_at(canvas, LEFT_MM * MM, HIGH - 11 * MM, line.name, FIGURE, 16)
    text_at(canvas, LEFT_MM * MM, HIGH - 16.5 * MM, said, LABEL, 10, SECOND)
    canvas.setFillColor(SECOND)
    canvas.setFont(TEXT, 8)
    canvas.drawRightString(WIDE - LEFT_MM * MM, HIGH - 11 * MM, "Print at 100 %, not fitted to the page.")
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.4)
    x, y = LEFT_MM * MM, 7 * MM
    canvas.line(x, y, x + 100 * MM, y)
    for k in range(11):
        canvas.line(x + k * 10 * MM, y, x + k * 10 * MM, y + (3.5 if k in (0, 10) else 2) * MM)
    text_at(canvas, x + 104 * MM, y, "must measure 100 mm", TEXT, 8, SECOND)


def _card(canvas: Canvas, line: Line, jig: Jig, size: str, columns: int, rows: int) -> None:
    """The target to cut out and stand up where the other end lands, and the list of blocks."""
    target = jig.target
    _head(canvas, line, f"{size} · jig sheet · {columns} × {rows} sheets, joined cross on cross")
    x, y = 90 * MM, 105 * MM
    canvas.setStrokeColor(INK)
    for ring in range(1, RINGS + 1):
        canvas.setLineWidth(0.8 if ring in (1, 5, 10) else 0.3)
        canvas.circle(x, y, ring * MM + jig.od_mm / 2 * MM, stroke=1, fill=0)
    canvas.setStrokeColor(TUBE)
    canvas.setLineWidth(1)
    canvas.circle(x, y, jig.od_mm / 2 * MM, stroke=1, fill=0)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.4)
    reach = (RINGS + 6) * MM
    canvas.line(x - reach, y, x + reach, y)
    canvas.line(x, y - reach, x, y + reach)
    canvas.setFont(BOLD, 11)
    canvas.setFillColor(INK)
    for hour in range(12):
        turned = radians(hour * 30 + target.noon_deg)
        away = (RINGS + 10) * MM
        canvas.drawCentredString(x + away * sin(turned), y + away * cos(turned) - 4, str(hour or 12))
    foot = y - target.high_mm * MM
    if abs(target.rise_deg) < 60 and foot > 26 * MM:
        canvas.setDash(3, 2)
        canvas.line(x - 30 * MM, foot, x + 30 * MM, foot)
        canvas.setDash()
        canvas.setFont(TEXT, 8)
        canvas.setFillColor(SECOND)
        canvas.drawRightString(x - 32 * MM, foot - MM, f"fold here: it stands on the board at {jig.lands}")
    home, lands = jig.home, jig.lands
    lines = [
        f"Target for end {lands}, seen from {home}: the inner ring is the tube.",
        "Each ring is 1 mm beside the port; the hours are the line's own clock"
        + ("." if home == "A" else f" seen from B, bend {len(jig.rests) - 2} at 12."),
        f"Middle of the tube {format_length(target.high_mm, line.unit)} above the board"
        + (f", rising {target.rise_deg:+.1f}°." if abs(target.rise_deg) >= 0.5 else "."),
        f"End {home} against its stop, the part rolled to its best on its blocks; end {lands} not trimmed.",
        f"Read how far it is too long on the scale at {lands}, how far beside and towards which hour here,",
        "and how far it leans along the line drawn on the sheet.",
    ]
    for k, said in enumerate(lines):
        text_at(canvas, 150 * MM, (160 - 5.5 * k) * MM, said, TEXT, 9.5)
    text_at(canvas, 150 * MM, 120 * MM, "Blocks, to the underside of the tube", FIGURE, 12)
    for k, rest in enumerate(jig.rests):
        column, down = divmod(k, 14)
        name = f"bend {rest.name}" if rest.bend else f"end {rest.name}"
        said = f"{name}: {format_length(rest.high_mm, line.unit)}"
        text_at(canvas, (150 + 45 * column) * MM, (113 - 5 * down) * MM, said, LABEL, 10)
    canvas.showPage()


def _tile(canvas: Canvas, line: Line, jig: Jig, column: int, row: int, columns: int, rows: int) -> None:
    """One sheet of the plan. What lies beyond its edges is clipped."""
    _head(canvas, line, f"sheet {chr(65 + row)}{column + 1} of {chr(64 + rows)}{columns} · seen from above")
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(LEFT_MM * MM, LOW_MM * MM, TILE_X * MM, TILE_Y * MM)
    canvas.clipPath(frame, stroke=0, fill=0)
    canvas.translate((LEFT_MM - column * TILE_X) * MM, (LOW_MM - row * TILE_Y) * MM)
    _plan(canvas, line, jig)
    canvas.restoreState()
    canvas.setStrokeColor(RULE)
    canvas.setLineWidth(0.4)
    canvas.rect(LEFT_MM * MM, LOW_MM * MM, TILE_X * MM, TILE_Y * MM, stroke=1, fill=0)
    canvas.setStrokeColor(INK)
    for x in (LEFT_MM, LEFT_MM + TILE_X):
        for y in (LOW_MM, LOW_MM + TILE_Y):
            canvas.line((x - 3) * MM, y * MM, (x + 3) * MM, y * MM)
            canvas.line(x * MM, (y - 3) * MM, x * MM, (y + 3) * MM)
    canvas.showPage()


def _plan(canvas: Canvas, line: Line, jig: Jig) -> None:
    half = jig.od_mm / 2
    canvas.setStrokeColor(TUBE)
    for side, wide in ((half, 0.5), (-half, 0.5), (0.0, 0.25)):
        canvas.setLineWidth(wide)
        for (x, y, _), (x2, y2, _) in pairwise(jig.path):
            size = ((x2 - x) ** 2 + (y2 - y) ** 2) ** 0.5
            if size < 1e-6:
                continue
            off_x, off_y = -(y2 - y) / size * side, (x2 - x) / size * side
            canvas.line((x + off_x) * MM, (y + off_y) * MM, (x2 + off_x) * MM, (y2 + off_y) * MM)
    for rest in jig.rests:
        _block(canvas, line, rest, jig)
    _scale(canvas, jig)


def _block(canvas: Canvas, line: Line, rest: Rest, jig: Jig) -> None:
    """Where a block stands; at the end at home its stop across the tube's end."""
    long, wide = BLOCK_MM
    canvas.saveState()
    canvas.translate(rest.x_mm * MM, rest.y_mm * MM)
    canvas.rotate(rest.way_deg)
    canvas.setStrokeColor(SECOND)
    canvas.setLineWidth(0.5)
    starts: dict[str, float] = {jig.home: 0.0, jig.lands: -long}
    start = starts.get(rest.name, -long / 2)
    canvas.rect(start * MM, -wide / 2 * MM, long * MM, wide * MM, stroke=1, fill=0)
    if rest.name == jig.home:
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(1.6)
        canvas.line(0, -wide / 2 * MM, 0, wide / 2 * MM)
    elif rest.bend is not None:  # how far an old part lies beside, at the middle of its bend
        canvas.setLineWidth(0.3)
        for k in range(1, READ_BESIDE + 1):
            for side in (1, -1):
                y = side * (jig.od_mm / 2 + k) * MM
                half = (2.0 if k % 5 == 0 else 1.0) * MM
                canvas.line(-half, y, half, y)
    said = f"{'end' if rest.bend is None else 'bend'} {rest.name} · {format_length(rest.high_mm, line.unit)}"
    text_at(canvas, start * MM, (wide / 2 + 1.5) * MM, said, LABEL, 9)
    if rest.name == jig.home:
        text_at(canvas, start * MM, -(wide / 2 + 4.5) * MM, "stop", LABEL, 9)
    canvas.restoreState()


def _scale(canvas: Canvas, jig: Jig) -> None:
    """Where the other end lands: millimetres along the tube (0 is where the rim belongs) and beside it, and
    its line carried on to read how far it leans."""
    target = jig.target
    canvas.saveState()
    canvas.translate(target.x_mm * MM, target.y_mm * MM)
    canvas.rotate(target.way_deg)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.3)
    canvas.line(-60 * MM, 0, 45 * MM, 0)
    for k in range(-15, 41):
        tall = 4.0 if k % 10 == 0 else 2.6 if k % 5 == 0 else 1.6
        y = -(jig.od_mm / 2 + 1) * MM
        canvas.line(k * MM, y, k * MM, y - tall * MM)
        if k % 10 == 0:
            text_at(canvas, k * MM - 2, y - 7.5 * MM, f"{k:+d}" if k else "0", LABEL, 7)
    canvas.setLineWidth(1.2)
    canvas.line(0, -10 * MM, 0, 10 * MM)
    canvas.setLineWidth(0.3)
    for k in range(-10, 11):
        tall = 4.0 if k % 5 == 0 else 2.0
        canvas.line(0, k * MM, tall * MM, k * MM)
    canvas.restoreState()
