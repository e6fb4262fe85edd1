"""The page of the build sheet that shows the whole line: where its tube stands, and what joins what."""

from __future__ import annotations

from collections.abc import Callable

from reportlab.lib.colors import HexColor, white
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm as MM
from reportlab.pdfgen.canvas import Canvas

from bendrel.catalogue.signs import Sign
from bendrel.core.geometry.view import Point
from bendrel.core.line.document import ComponentSpan, HoseSpan, Line
from bendrel.core.parts.kit import Kit
from bendrel.core.plan.in_space import InSpace
from bendrel.core.plan.model import Plan
from bendrel.core.units.notation import format_length
from bendrel.exchange.paper.paper import (
    FIGURE,
    INK,
    LABEL,
    LEFT,
    RIGHT,
    RULE,
    SECOND,
    TEXT,
    TUBE,
    draw_bars,
    fitted,
    text_at,
)
from bendrel.exchange.shapes.sketch_line import (
    LineSketch,
    SpanSketch,
    alongside,
    cross_ticks,
    name_of,
    sketch_line,
)

PICTURE = 120 * MM
ROW = 6.4 * MM
At = Callable[[Point], Point]
GROUND = HexColor("#d8d4ca")


def whole_line_page(canvas: Canvas, line: Line, plan: Plan, kit: Kit, space: InSpace, tube: str) -> None:
    """Draw the page: the line in space, then its spans from port A with the joint behind each; `tube` is the
    one that the sheet is for."""
    y = A4[1] - 17 * MM
    text_at(canvas, LEFT, y, fitted(f"{line.name}: the whole line", FIGURE, 20, RIGHT - LEFT), FIGURE, 20)
    y -= 5 * MM
    draw_whole(
        canvas, sketch_line(line, plan, space, "free", RIGHT - LEFT, PICTURE, 24 * MM), LEFT, y - PICTURE
    )
    y -= PICTURE + 8 * MM
    ports = (line.port_a.label, line.port_b.label)
    y = _row(canvas, y, "A", f"port A{_said(ports[0])}", "", False)
    for k, span in enumerate(line.spans):
        joint = line.joints[k] if k < len(line.joints) else None
        behind = "" if joint is None else _joint(kit, joint.kind, joint.why)
        y = _row(canvas, y, str(k + 1), span_in_words(line, plan, kit, span.id), behind, span.id == tube)
    _row(canvas, y, "B", f"port B{_said(ports[1])}", "", False)


def _said(label: str) -> str:
    return f" · {label}" if label else ""


def span_in_words(line: Line, plan: Plan, kit: Kit, span_id: str) -> str:
    """One span in words: what it is, of what, how long."""
    span, name = line.span(span_id), name_of(line, span_id)
    if isinstance(span, ComponentSpan):
        turned = f", {span.turn.text}" if span.turn.text else ""
        points = "" if span.points == "not marked" else f", arrow to {span.points}"
        return name + turned + points + _length(_shown(line, plan, span_id))
    if isinstance(span, HoseSpan):
        hose = kit.hoses.get(span.hose)
        of = f", {kit.hose_classes[hose.hose_class].name} {hose.size}" if hose else ""
        return name + of + _length(_shown(line, plan, span_id))
    piece = plan.piece(span_id)
    row = kit.tubes.get(span.tube)
    said = f", {row.size} {kit.materials[row.material].name}" if row else ""
    part = piece.part if piece else None
    return name + said + _length(format_length(part.developed_mm, line.unit) if part else None)


def _shown(line: Line, plan: Plan, span_id: str) -> str | None:
    pieces = plan.chosen.pieces if plan.chosen else None
    lengths: dict[str, float | None] = {}
    if pieces:
        lengths |= {hose.stands.span: hose.length_mm for hose in pieces.hoses}
        lengths |= {part.stands.span: part.length_mm for part in pieces.components}
    length = lengths.get(span_id)
    return None if length is None else format_length(length, line.unit)


def _length(text: str | None) -> str:
    return f", {text}" if text else ", length not known"


def _joint(kit: Kit, kind: str, why: str) -> str:
    joint = kit.joints.get(kind)
    return (joint.name if joint else "") + (f": {why}" if why and joint else "")


def _row(canvas: Canvas, y: float, number: str, text: str, behind: str, here: bool) -> float:
    if here:
        canvas.setFillColor(GROUND)
        canvas.rect(LEFT, y - 2 * MM, RIGHT - LEFT, ROW - 0.4 * MM, stroke=0, fill=1)
    text_at(canvas, LEFT + 2 * MM, y, number, FIGURE, 11)
    said = f"{text} · this sheet" if here else text
    text_at(canvas, LEFT + 10 * MM, y, fitted(said, TEXT, 10, RIGHT - LEFT - 12 * MM), TEXT, 10)
    y -= ROW
    if behind:
        shown = fitted(f"joined by {behind}", LABEL, 9.5, RIGHT - LEFT - 20 * MM)
        text_at(canvas, LEFT + 18 * MM, y + 1.4 * MM, shown, LABEL, 9.5, SECOND)
        y -= ROW * 0.6
    canvas.setStrokeColor(RULE)
    canvas.setLineWidth(0.5)
    canvas.line(LEFT, y + 3.8 * MM, RIGHT, y + 3.8 * MM)
    return y


def draw_whole(canvas: Canvas, drawing: LineSketch, x0: float, y0: float) -> None:
    """Draw a whole line with its lower left corner at (x0, y0) points."""

    def at(point: Point) -> Point:
        return x0 + point[0], y0 + drawing.height - point[1]

    canvas.setLineJoin(1)
    for span in drawing.spans:
        _draw_span(canvas, span, at)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(1.4)
    for a, b in drawing.joints:
        canvas.line(*at(a), *at(b))
    draw_bars(canvas, drawing.clips, at)
    canvas.setFillColor(INK)
    for label in drawing.labels:
        x, y = at(label.at)
        canvas.setFont(FIGURE, 12 if label.end else 10)
        canvas.drawCentredString(x, y - 3.2, f"End {label.text}" if label.end else label.text)


def _polyline(canvas: Canvas, points: tuple[Point, ...], at: At, *, close: bool = False) -> None:
    path = canvas.beginPath()
    path.moveTo(*at(points[0]))
    for point in points[1:]:
        path.lineTo(*at(point))
    if close:
        path.close()
    canvas.drawPath(path, fill=int(close))


def _draw_span(canvas: Canvas, span: SpanSketch, at: At) -> None:
    canvas.setLineCap(1)
    if span.sign is not None:
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(1)
        _polyline(canvas, span.points, at)
        _draw_sign(canvas, span.sign, at(span.middle))
        return
    if span.look == "to make":
        canvas.setStrokeColor(TUBE)
        canvas.setLineWidth(span.width * 0.7)
        _polyline(canvas, span.points, at)
        return
    canvas.setStrokeColor(TUBE if span.look == "stays" else INK)
    canvas.setLineWidth(1.1)
    half = span.width * 0.35 + 0.8
    if span.guessed:
        canvas.setDash(5, 3)
    for by in (half, -half):
        _polyline(canvas, alongside(span.points, by), at)
    canvas.setDash()
    if span.look == "hose":
        canvas.setLineWidth(0.7)
        for a, b in cross_ticks(span):
            canvas.line(*at(a), *at(b))


def _draw_sign(canvas: Canvas, sign: Sign, middle: Point) -> None:
    canvas.setLineWidth(1.1)
    canvas.setFillColor(white)
    canvas.setStrokeColor(INK)

    def at(point: Point) -> Point:
        return middle[0] + point[0] * 0.8, middle[1] - point[1] * 0.8

    if sign.circle is not None:
        x, y, r = sign.circle
        canvas.circle(*at((x, y)), r * 0.8, fill=1)
    for line in sign.lines:
        if line.dashed:
            canvas.setDash(2, 2)
        _polyline(canvas, line.points, at, close=line.closed)
        canvas.setDash()
