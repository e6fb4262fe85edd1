"""Where the words lie on a printed page."""

from __future__ import annotations

from datetime import date

import pypdfium2

from bendrel.core.plan.planner import plan_line
from bendrel.core.plan.working import order_of_work
from bendrel.exchange.paper.sheet import build_sheet


def boxes_on(data, number=0):
    """(left, bottom, right, top) in points of every run of text on a page as PDFium places it; its size."""
    page = pypdfium2.PdfDocument(data)[number]
    text = page.get_textpage()
    return [text.get_rect(k) for k in range(text.count_rects())], page.get_size()


def crossing(boxes):
    """Pairs of boxes that cover more than a tenth of the smaller one."""
    found = []
    for k, (l1, b1, r1, t1) in enumerate(boxes):
        for l2, b2, r2, t2 in boxes[k + 1 :]:
            wide, tall = min(r1, r2) - max(l1, l2), min(t1, t2) - max(b1, b2)
            least = min((r1 - l1) * (t1 - b1), (r2 - l2) * (t2 - b2))
            if wide > 0 and tall > 0 and wide * tall > 0.1 * least:
                found.append(((l1, b1, r1, t1), (l2, b2, r2, t2)))
    return found


def sheet_of(line, kit, **words):
    """The build sheet of a line's main tube, with whatever is written on it."""
    said = {"job": "x", "machine": "", "cautions": "", "tube": "y", "today": date(2026, 11, 26), **words}
    return build_sheet(line, plan_line(line, kit), kit, order_of_work(line, kit), **said)
