"""Text that flows down printed pages: headings, paragraphs, rows, tables; a new page where one is full."""

from __future__ import annotations

import io
from collections.abc import Sequence
from datetime import date

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm as MM
from reportlab.pdfgen.canvas import Canvas

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
    fonts,
    text_at,
    wrapped,
)

FOOT = 16 * MM
TOP = A4[1] - 17 * MM


class Pages:
    """A document of A4 pages, written from the top down. `y` is where the next thing goes, in points."""

    def __init__(self, title: str, canvas: Canvas | None = None) -> None:
        """A document of its own, or more pages of one that is being drawn on `canvas`."""
        fonts()
        self._out = io.BytesIO()
        self.canvas = canvas or Canvas(self._out, pagesize=A4, pageCompression=1)
        if canvas is None:
            self.canvas.setTitle(title)
            self.canvas.setCreator("Bendrel")
        self.y = TOP

    def head(self, name: str, under: str, kind: str, today: date, beside: str = "") -> None:
        """The title over a thick rule."""
        text_at(self.canvas, LEFT, self.y, fitted(name, FIGURE, 24, 128 * MM), FIGURE, 24)
        text_at(self.canvas, LEFT, self.y - 6 * MM, fitted(under, TEXT, 10, 120 * MM), TEXT, 10, SECOND)
        self.canvas.setFillColor(SECOND)
        self.canvas.setFont(LABEL, 10)
        self.canvas.drawRightString(RIGHT, self.y + 2 * MM, f"{kind} · {today.isoformat()}")
        self.canvas.drawRightString(RIGHT, self.y - 4 * MM, fitted(beside, LABEL, 10, 90 * MM))
        self.y -= 9 * MM
        self._rule(INK, 1.4)
        self.y -= 2 * MM

    def room(self, needs: float) -> None:
        """Go to a new page where `needs` points do not fit on this one."""
        if self.y - needs <= FOOT:
            self.next_page()

    def next_page(self) -> None:
        """What follows stands on a new page."""
        self.canvas.showPage()
        self.y = TOP

    def heading(self, text: str) -> None:
        """A heading with room for something under it."""
        self.room(20 * MM)
        self.y -= 7 * MM
        text_at(self.canvas, LEFT, self.y, text, FIGURE, 14)
        self.y -= 2 * MM

    def paragraph(self, text: str, size: float = 10, colour: HexColor = INK, indent: float = 0.0) -> None:
        """Running text."""
        for line in wrapped(text, TEXT, size, RIGHT - LEFT - indent):
            self.room(size * 1.35)
            self.y -= size * 1.35
            text_at(self.canvas, LEFT + indent, self.y, line, TEXT, size, colour)

    def row(self, name: str, text: str, colour: HexColor = INK) -> None:
        """A name and what stands beside it, in as many lines as it takes."""
        lines = wrapped(text, TEXT, 10, RIGHT - LEFT - 38 * MM) or [""]
        self.room(len(lines) * 4.8 * MM)
        for k, line in enumerate(lines):
            self.y -= 4.8 * MM
            if k == 0:
                text_at(self.canvas, LEFT, self.y, fitted(name, LABEL, 10, 36 * MM), LABEL, 10, SECOND)
            text_at(self.canvas, LEFT + 38 * MM, self.y, line, TEXT, 10, colour)

    def table(self, widths_mm: Sequence[float], rows: Sequence[Sequence[str]]) -> None:
        """Rows under a first one of headings; a cell takes as many lines as it needs."""
        for k, cells in enumerate(rows):
            font, size = (LABEL, 9.5) if k == 0 else (TEXT, 9)
            told = [
                wrapped(cell, font, size, width * MM - 2 * MM)
                for cell, width in zip(cells, widths_mm, strict=True)
            ]
            deep = max(len(lines) for lines in told)
            self.room((deep * 4.2 + 2) * MM)
            top, x = self.y - 4.4 * MM, LEFT
            for lines, width in zip(told, widths_mm, strict=True):
                for n, line in enumerate(lines):
                    colour = SECOND if k == 0 else INK
                    text_at(self.canvas, x, top - n * 4.2 * MM, line, font, size, colour)
                x += width * MM
            self.y -= (deep * 4.2 + 1.6) * MM
            self._rule(RULE, 0.5)

    def done(self) -> bytes:
        """The bytes of the document."""
        self.canvas.showPage()
        self.canvas.save()
        return self._out.getvalue()

    def _rule(self, colour: HexColor, width: float) -> None:
        self.canvas.setStrokeColor(colour)
        self.canvas.setLineWidth(width)
        self.canvas.line(LEFT, self.y, RIGHT, self.y)
