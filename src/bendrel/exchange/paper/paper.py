"""Colours, fonts and text on printed paper."""

from __future__ import annotations

import io
from collections.abc import Callable, Sequence
from functools import cache
from importlib.resources import files

from reportlab.lib.colors import HexColor, white
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm as MM
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from bendrel.core.findings import Finding
from bendrel.core.geometry.view import Point

INK, SECOND, RULE = HexColor("#15191b"), HexColor("#545b5e"), HexColor("#c6c0b4")
TUBE, BEND, STOP = HexColor("#b5561f"), HexColor("#7d3a13"), HexColor("#b3121d")
LEFT, RIGHT = 14 * MM, A4[0] - 14 * MM
"""The text's edges on the page, in points."""
TEXT, BOLD, LABEL, FIGURE = "Bendrel", "Bendrel-Bold", "Bendrel-Label", "Bendrel-Figure"


@cache
def fonts() -> None:
    """Register the fonts that ship with the project."""
    names = {
        TEXT: "Barlow-Regular",
        BOLD: "Barlow-SemiBold",
        LABEL: "BarlowCondensed-Medium",
        FIGURE: "BarlowCondensed-SemiBold",
    }
    for name, file in names.items():
        data = io.BytesIO((files(__package__) / "fonts" / f"{file}.ttf").read_bytes())
        pdfmetrics.registerFont(TTFont(name, data))


def text_at(
    canvas: Canvas, x: float, y: float, text: str, font: str, size: float, colour: HexColor = INK
) -> None:
    """`text` with its baseline starting at (x, y) points."""
    canvas.setFont(font, size)
    canvas.setFillColor(colour)
    canvas.drawString(x, y, text)


def fitted(text: str, font: str, size: float, width: float) -> str:
    """`text` cut with an ellipsis to fit `width`."""
    if pdfmetrics.stringWidth(text, font, size) <= width:
        return text
    while text and pdfmetrics.stringWidth(text + "…", font, size) > width:
        text = text[:-1]
    return text.rstrip() + "…"


def wrapped(text: str, font: str, size: float, width: float) -> list[str]:
    """`text` in lines of up to `width`, broken between words."""
    lines = [""]
    for word in text.split():
        trial = f"{lines[-1]} {word}".strip()
        if pdfmetrics.stringWidth(trial, font, size) <= width or not lines[-1]:
            lines[-1] = trial
        else:
            lines.append(word)
    return lines


def draw_bars(canvas: Canvas, bars: Sequence[tuple[Point, Point]], at: Callable[[Point], Point]) -> None:
    """Draw the clips of a line."""
    canvas.setLineCap(0)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(2.4)
    for a, b in bars:
        canvas.line(*at(a), *at(b))


def stops_bar(canvas: Canvas, findings: Sequence[Finding], y: float) -> float:
    """A bar under `y` that says not to make it while stops are open; the y below it, in points."""
    stops = [finding for finding in findings if finding.severity == "stop" and not finding.set_aside]
    if not stops:
        return y
    shown = "; ".join(f.title for f in stops[:3]) + ("; and more" if len(stops) > 3 else "")
    canvas.setFillColor(STOP)
    canvas.rect(LEFT, y - 8 * MM, RIGHT - LEFT, 7 * MM, stroke=0, fill=1)
    text = fitted(f"DO NOT MAKE YET · {shown}", FIGURE, 11, RIGHT - LEFT - 6 * MM)
    text_at(canvas, LEFT + 3 * MM, y - 5.8 * MM, text, FIGURE, 11, white)
    return y - 9 * MM
