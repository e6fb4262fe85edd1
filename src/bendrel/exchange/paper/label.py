"""A label for a stick, a coil or an offcut, with a QR code that any reader understands."""

from __future__ import annotations

import io

import segno
from reportlab.lib.units import mm as MM
from reportlab.pdfgen.canvas import Canvas

from bendrel.exchange.paper.paper import FIGURE, INK, LABEL, SECOND, fitted, fonts, text_at

WIDE_MM, HIGH_MM = 70.0, 25.0


def label_text(label: str, tube: str, length: str, finished: str) -> str:
    """What the code says: plain words, one a line."""
    return "\n".join(part for part in (f"Bendrel {label}", tube, length, finished) if part)


def build_label(label: str, tube: str, length: str, finished: str) -> bytes:
    """PDF bytes of one label, 70 by 25 mm, to wrap around the tube as a flag."""
    fonts()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(WIDE_MM * MM, HIGH_MM * MM), pageCompression=0)
    canvas.setTitle(f"Label {label}")
    code = segno.make_qr(label_text(label, tube, length, finished), error="m")
    rows = list(code.matrix)
    size = 21.0 / len(rows)
    canvas.setFillColor(INK)
    for r, row in enumerate(rows):
        for c, dark in enumerate(row):
            if dark:
                x, y = 2 + c * size, HIGH_MM - 2 - (r + 1) * size
                canvas.rect(x * MM, y * MM, size * MM, size * MM, stroke=0, fill=1)
    room = (WIDE_MM - 28) * MM
    text_at(canvas, 26 * MM, 17 * MM, label, FIGURE, 20)
    text_at(canvas, 26 * MM, 11.5 * MM, fitted(length, FIGURE, 12, room), FIGURE, 12)
    text_at(canvas, 26 * MM, 7 * MM, fitted(tube, LABEL, 9, room), LABEL, 9)
    text_at(canvas, 26 * MM, 3 * MM, fitted(finished or "both ends plain", LABEL, 8, room), LABEL, 8, SECOND)
    canvas.save()
    return out.getvalue()
