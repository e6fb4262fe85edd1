"""Draw the pictures of docs/guide from the program's own shapes: python tools/guide_drawings.py"""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise
from pathlib import Path

from bendrel.core.geometry.bends import Bend, BendList, bend_spans
from bendrel.core.geometry.centreline import sampled
from bendrel.core.geometry.copies import neighbour
from bendrel.core.geometry.corners import corners_from_bends
from bendrel.core.geometry.reradius import reradius
from bendrel.core.geometry.view import ABOVE, View, clearest
from bendrel.core.measure.legs import setback_mm
from bendrel.core.units.notation import format_length

FOLDER = Path(__file__).parents[1] / "docs" / "guide" / "drawings"
TUBE, BEND, LIGHT, INK, SECOND, NOTE = "#b5561f", "#7d3a13", "#d98b57", "#15191b", "#4c5457", "#2c5a70"
OD, R = 12.0, 36.0  # a thick tube, so that its two sides can be told apart on paper
Flat = tuple[float, float]


class Sketch:
    """One drawing, 640 pixels wide, on the paper of a view."""

    def __init__(self, points: Iterable[tuple[float, float, float]], view: View, height: int = 260) -> None:
        self._view, self._height, self._parts = view, height, []
        flat = [view.flat(point) for point in points]
        xs, ys = [p[0] for p in flat], [p[1] for p in flat]
        self._scale = min(500 / max(max(xs) - min(xs), 1), (height - 110) / max(max(ys) - min(ys), 1))
        self._middle = ((max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2)

    def at(self, point: tuple[float, float, float]) -> Flat:
        x, y = self._view.flat(point)
        return (
            320 + (x - self._middle[0]) * self._scale,
            self._height / 2 - (y - self._middle[1]) * self._scale,
        )

    def the_tube(
        self, shape: BendList, colour: str = TUBE, wide: float | None = None, dash: str = ""
    ) -> None:
        points = " ".join("{:.1f},{:.1f}".format(*self.at(point)) for _, point in sampled(shape, 3.0))
        thick = OD * self._scale if wide is None else wide
        dashed = f' stroke-dasharray="{dash}"' if dash else ""
        self._parts.append(
            f'<polyline points="{points}" fill="none" stroke="{colour}" stroke-width="{thick:.1f}" '
            f'stroke-linejoin="round"{dashed}/>'
        )

    def line(self, a: Flat, b: Flat, colour: str = INK, dash: str = "", ends: bool = False) -> None:
        dashed = f' stroke-dasharray="{dash}"' if dash else ""
        self._parts.append(
            f'<line x1="{a[0]:.1f}" y1="{a[1]:.1f}" x2="{b[0]:.1f}" y2="{b[1]:.1f}" stroke="{colour}" '
            f'stroke-width="1.6"{dashed}/>'
        )
        for point in (a, b) if ends else ():
            self._parts.append(f'<circle cx="{point[0]:.1f}" cy="{point[1]:.1f}" r="3.5" fill="{colour}"/>')

    def text(self, at: Flat, words: str, anchor: str = "middle", colour: str = INK, size: int = 15) -> None:
        self._parts.append(
            f'<text x="{at[0]:.1f}" y="{at[1]:.1f}" text-anchor="{anchor}" fill="{colour}" '
            f'font-family="Barlow, sans-serif" font-size="{size}">{words}</text>'
        )

    def keep(self, name: str, title: str) -> None:
        body = "".join(self._parts)
        (FOLDER / f"{name}.svg").write_text(
            f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 {self._height}" role="img" '
            f'aria-label="{title}"><rect width="640" height="{self._height}" fill="#f6f4ef"/>{body}</svg>\n',
            encoding="utf-8",
        )


def bent(*rows: tuple[float, float, float], last: float, radius: float = R) -> BendList:
    bends = [Bend(straight_mm=s, rotation_deg=t, angle_deg=a, radius_mm=radius) for s, t, a in rows]
    return BendList(bends=tuple(bends), last_straight_mm=last)


Z_LINE = bent((120, 0, 60), (140, 180, 60), last=130)
SPACE = bent((130, 0, 90), (110, 90, 60), (150, -120, 90), last=120)


def sketch_of(shape: BendList, view: View | None = None, height: int = 260) -> Sketch:
    points = [point for _, point in sampled(shape)]
    return Sketch(points, view or clearest(tuple(points)), height)


def by_rule() -> None:
    """A Z: out at the first bend, in at the second."""
    page = sketch_of(Z_LINE, ABOVE, 300)
    page.tube(Z_LINE)
    corners = corners_from_bends(Z_LINE).points
    reach = setback_mm("outside", 60, R, OD) - setback_mm("centre", 60, R, OD)
    start = (0.0, -OD / 2, 0.0)
    out = (corners[1][0] + reach, -OD / 2, 0.0)
    page.line(page.at(start), page.at(out), INK, "4 4", ends=True)
    page.text((page.at(start)[0] + 60, page.at(start)[1] + 24), "leg 1: rim to out")
    page.line(page.at(corners[1]), page.at(corners[2]), NOTE, "4 4", ends=True)
    middle = page.at(tuple((a + b) / 2 for a, b in zip(corners[1], corners[2], strict=True)))
    page.text((middle[0] + 18, middle[1] + 14), "leg 2: centre to centre", "start", NOTE)
    page.text((page.at(out)[0] + 12, page.at(out)[1] + 8), "out", "start")
    page.keep("by-rule", "A Z-shaped line with its legs read to outside corners and along the centreline")


def wire() -> None:
    """The same line and its straightened wire."""
    page = sketch_of(Z_LINE, ABOVE, 360)
    page.tube(Z_LINE)
    left, scale, y = 50.0, 540 / Z_LINE.developed_mm, 318.0
    page.line((left, y), (left + 540, y), TUBE)
    for k, span in enumerate(bend_spans(Z_LINE), start=1):
        for mm in (span.start_mm, span.end_mm):
            page.line((left + mm * scale, y - 10), (left + mm * scale, y + 10))
            page.text((left + mm * scale, y + 26), format_length(mm, "mm"), size=13)
        page.text((left + span.middle_mm * scale, y - 14), f"bend {k}")
    page.text((left + 540, y - 14), "whole wire", "end", SECOND)
    page.keep("wire", "A line above the wire that was straightened from it, with start and end marks")


def string() -> None:
    part = bent((120, 0, 60), last=60)
    page = sketch_of(Z_LINE, ABOVE)
    page.tube(Z_LINE, LIGHT, dash="10 7")
    page.tube(part)
    end = page.at(sampled(part)[-1][1])
    page.line((end[0] - 12, end[1] - 12), (end[0] + 12, end[1] + 12))
    page.text((320, 246), "a string from the last bend around the rest: a length, no shape")
    page.keep("string", "A line of which the far part is known only by a string around it")


def corner_points() -> None:
    page = sketch_of(SPACE)
    page.tube(SPACE)
    points = corners_from_bends(SPACE).points
    for a, b in pairwise(points):
        page.line(page.at(a), page.at(b), INK, "3 4")
    for k, point in enumerate(points):
        x, y = page.at(point)
        page.line((x, y), (x, y), ends=True)
        name = "A" if k == 0 else "B" if k == len(points) - 1 else str(k)
        told = ", ".join(f"{v + 0:.0f}" for v in point)
        below = 0 < k < len(points) - 1
        page.text((x + 14 * below, y + (26 if below else -12)), f"{name} ({told})", size=13)
    page.keep("corner-points", "A line in space with the co-ordinates of its corner points")


def mirror() -> None:
    other = bent(
        *((b.straight_mm, -b.rotation_deg, b.angle_deg) for b in SPACE.bends), last=SPACE.last_straight_mm
    )
    points = [point for shape in (SPACE, other) for _, point in sampled(shape)]
    page = Sketch(points, clearest(tuple(points)))
    page.tube(other, LIGHT)
    page.tube(SPACE)
    page.text((320, 246), "the same legs and angles; every plane the other way round: 3:00 becomes 9:00")
    page.keep("mirror", "A line and its mirror image")


def beside() -> None:
    page = sketch_of(Z_LINE, ABOVE, 300)
    page.tube(Z_LINE)
    points = [point for _, point in sampled(neighbour(Z_LINE, 26, 0, nested=True), 3.0)]
    shifted = [page.at((x, y + 26, z)) for x, y, z in points]
    for a, b in pairwise(shifted):
        page.line(a, b, NOTE)
    page.text((320, 288), "26 mm beside it at 12:00, bends about the same centres")
    page.keep("neighbour", "A line and a neighbour at a constant distance")


def other_radius() -> None:
    old = bent((120, 0, 90), (140, 180, 90), last=120, radius=20)
    made = reradius(old, 52, least_between_mm=10, least_ends_mm=(10, 10))
    page = sketch_of(old, ABOVE, 300)
    page.tube(old, LIGHT)
    page.tube(made.shape, BEND, 3.0)
    away, less = format_length(made.departure_mm, "mm"), format_length(made.surplus_mm, "mm")
    page.text((320, 288), f"between the same ports: at most {away} from the old path, {less} shorter")
    page.keep("another-radius", "The old line and the same line with a larger radius")


def checks() -> None:
    page = sketch_of(SPACE)
    page.tube(SPACE)
    a, b = page.at((0.0, 0.0, 0.0)), page.at(sampled(SPACE)[-1][1])
    page.line(a, b, INK, "6 4", ends=True)
    page.text(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + 22), "rim to rim")
    page.text((320, 246), "a tape across the ends, a wire along the line, the way into port B")
    page.keep("checks", "A line with a tape across its ends")


def main() -> None:
    FOLDER.mkdir(parents=True, exist_ok=True)
    for draw in (by_rule, wire, string, corner_points, mirror, beside, other_radius, checks):
        draw()


if __name__ == "__main__":
    main()
