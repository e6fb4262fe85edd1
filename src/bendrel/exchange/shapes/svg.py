"""The line drawing as SVG, for screens without WebGL and for files."""

from __future__ import annotations

from collections.abc import Sequence
from xml.sax.saxutils import quoteattr

from bendrel.catalogue.signs import Sign
from bendrel.core.bend.tube.part import Part
from bendrel.core.geometry.view import Point, View
from bendrel.exchange.shapes.clip_bars import Bar
from bendrel.exchange.shapes.sketch import Label, Sketch, sketch
from bendrel.exchange.shapes.sketch_line import LineSketch, SpanSketch, alongside, cross_ticks

EDGE, STRAIGHT, BEND = "#5a2a0f", "#b5561f", "#7d3a13"
FILL = "#8f9aa0"
TUBE = 'fill="none" stroke-linecap="round" stroke-linejoin="round"'
FONT = 'font-family="\'Barlow Condensed\',sans-serif" font-weight="600" font-size="13" text-anchor="middle"'


def draw_svg(
    part: Part, view: View, width: float = 760, height: float = 480, clips_mm: Sequence[float] = ()
) -> str:
    """One view of the part as a stand-alone SVG of `width` × `height` pixels, held at `clips_mm` from end A.

    Every bend carries `data-bend` so that a screen can link it to the strip. Styled by attributes
    alone: a strict content policy allows no style element.
    """
    drawing = sketch(part, view, width, height, 56, clips_mm)
    body = [*_tube(drawing), *_clips(drawing.clips), *_ends(drawing), *_labels(drawing)]
    return _svg(width, height, f"Drawing of the line, {len(part.bends)} bends", body)


def draw_line_svg(drawing: LineSketch) -> str:
    """The whole line as a stand-alone SVG: new tube solid, old tube hollow, hose hollow with thin lines
    across, components by their signs. Every span carries `data-span`."""
    body = [
        *(line for span in drawing.spans for line in _span(span)),
        *(_line((a, b), 'stroke="currentColor" stroke-width="2"') for a, b in drawing.joints),
        *_clips(drawing.clips),
        *_words(drawing.labels),
    ]
    said = f"Drawing of the whole line, {len(drawing.spans)} spans"
    return _svg(drawing.width, drawing.height, said, body)


def _svg(width: float, height: float, said: str, body: Sequence[str]) -> str:
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}" '
        f'role="img" aria-label={quoteattr(said)}>{"".join(body)}</svg>'
    )


def _line(points: Sequence[Point], look: str) -> str:
    return f'<polyline {TUBE} {look} points="{" ".join(_pair(p) for p in points)}"/>'


def _span(span: SpanSketch) -> list[str]:
    link, ink = f"data-span={quoteattr(span.span)}", 'stroke="currentColor"'
    if span.sign is not None:
        thin = _line(span.points, f'{link} {ink} stroke-width="1.4"')
        return [thin, _sign(span.sign, span.middle, link)]
    if span.look == "to make":
        return [
            _line(span.points, f'{link} stroke="{paint}" stroke-width="{span.width + more:.1f}"')
            for paint, more in ((EDGE, 2), (STRAIGHT, 0))
        ]
    half = span.width / 2 + (0.6 if span.look == "stays" else 1.6)
    colour = f'stroke="{STRAIGHT}"' if span.look == "stays" else ink
    broken = ' stroke-dasharray="7 4"' if span.guessed else ""
    drawn = [
        _line(alongside(span.points, by), f'{link} {colour} stroke-width="1.6"{broken}')
        for by in (half, -half)
    ]
    if span.look == "hose":
        drawn += [_line(tick, f'{ink} stroke-width="1.2"') for tick in cross_ticks(span)]
    return drawn


def _clips(bars: Sequence[Bar]) -> list[str]:
    return [_line(bar, 'data-clip="" stroke="currentColor" stroke-width="4"') for bar in bars]


def _sign(sign: Sign, at: Point, link: str) -> str:
    drawn = []
    if sign.circle is not None:
        x, y, r = sign.circle
        drawn.append(f'<circle cx="{x:g}" cy="{y:g}" r="{r:g}" fill="{FILL}" stroke="currentColor"/>')
    for line in sign.lines:
        points = " ".join(_pair(p) for p in line.points)
        shape = "polygon" if line.closed else "polyline"
        fill = FILL if line.closed else "none"
        broken = ' stroke-dasharray="2 2"' if line.dashed else ""
        drawn.append(f'<{shape} points="{points}" fill="{fill}" stroke="currentColor"{broken}/>')
    return f'<g {link} stroke-width="1.6" transform="translate({at[0]:.1f} {at[1]:.1f})">{"".join(drawn)}</g>'


def _words(labels: Sequence[Label]) -> list[str]:
    return [
        f'<text {FONT} x="{label.at[0]:.1f}" y="{label.at[1] + 4.5:.1f}" fill="currentColor">'
        f"{'End ' if label.end else ''}{label.text}</text>"
        for label in labels
    ]


def _tube(drawing: Sketch) -> list[str]:
    wide = drawing.tube_width
    drawn = []
    for stroke in drawing.strokes:
        points = " ".join(_pair(p) for p in stroke.points)
        colour = BEND if stroke.role == "bend" else STRAIGHT
        link = f' data-bend="{stroke.number}"' if stroke.role == "bend" else ""
        for paint, thick in ((EDGE, wide + 2), (colour, wide)):
            drawn.append(
                f'<polyline {TUBE}{link} stroke="{paint}" stroke-width="{thick:.1f}" points="{points}"/>'
            )
    return drawn


def _ends(drawing: Sketch) -> list[str]:
    return [
        f'<line x1="{a[0]:.1f}" y1="{a[1]:.1f}" x2="{b[0]:.1f}" y2="{b[1]:.1f}" stroke="currentColor" '
        f'stroke-width="{drawing.tube_width + 6:.1f}"/>'
        for a, b in drawing.ends
    ]


def _labels(drawing: Sketch) -> list[str]:
    drawn = []
    for label in drawing.labels:
        x, y = label.at
        if not label.end:
            drawn.append(f'<circle cx="{x:.1f}" cy="{y:.1f}" r="10.5" fill="none" stroke="currentColor"/>')
        text = f"End {label.text}" if label.end else label.text
        drawn.append(f'<text {FONT} x="{x:.1f}" y="{y + 4.5:.1f}" fill="currentColor">{text}</text>')
    return drawn


def _pair(point: Point) -> str:
    return f"{point[0]:.1f},{point[1]:.1f}"
