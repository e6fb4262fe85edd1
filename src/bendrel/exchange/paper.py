"""Colours, fonts and text on printed paper."""

from __future__ import annotations

import io
from functools import cache
from importlib.resources import files

from reportlab.lib.colors import HexColor
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

INK, SECOND, RULE = HexColor("#15191b"), HexColor("#545b5e"), HexColor("#c6c0b4")
TUBE, BEND, STOP = HexColor("#b5561f"), HexColor("#7d3a13"), HexColor("#b3121d")
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
