"""The line drawing as SVG, for screens without WebGL and for files."""

from __future__ import annotations

from bendrel.core.rigid.part import Part
from bendrel.core.shape.view import Point, View
from bendrel.exchange.sketch import Sketch, sketch

EDGE, STRAIGHT, BEND = "#5a2a0f", "#b5561f", "#7d3a13"
TUBE = 'fill="none" stroke-linecap="round" stroke-linejoin="round"'
FONT = 'font-family="\'Barlow Condensed\',sans-serif" font-weight="600" font-size="13" text-anchor="middle"'


def draw_svg(part: Part, view: View, width: float = 760, height: float = 480) -> str:
    """One view of the part as a stand-alone SVG of `width` × `height` pixels.

    Every bend carries `data-bend` so that a screen can link it to the strip. Styled by attributes
    alone: a strict content policy allows no style element.
    """
    drawing = sketch(part, view, width, height, 56)
    body = [*_tube(drawing), *_ends(drawing), *_labels(drawing)]
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}" '
        f'role="img" aria-label="Drawing of the line, {len(part.bends)} bends">'
        f"{''.join(body)}</svg>"
    )


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
