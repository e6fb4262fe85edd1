"""What is printed stands on the paper, inside what a printer leaves white, and no words on other words."""

from __future__ import annotations

from contextlib import suppress

import pypdfium2
import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.bend.fitting.jig import lay_on_board
from bendrel.core.bend.tube.part import shape_of
from bendrel.core.plan.planner import plan_line
from bendrel.exchange.errors import FileError
from bendrel.exchange.paper.jig_sheet import build_jig
from bendrel.exchange.paper.tape import build_tape
from tests.made_lines import made_line
from tests.paper import boxes_on, crossing, sheet_of

KIT = load_kit()
WHITE = 4.2 / 25.4 * 72  # points; office printers leave 3 to 4.2 mm (common practice)


def clean(data: bytes, pages: int | None = None) -> None:
    for number in range(pages or len(pypdfium2.PdfDocument(data))):
        boxes, (wide, high) = boxes_on(data, number)
        for left, bottom, right, top in boxes:
            assert left >= WHITE, number
            assert right <= wide - WHITE, number
            assert bottom >= WHITE, number
            assert top <= high - WHITE, number
        assert crossing(boxes) == [], number


@pytest.mark.parametrize("seed", range(12))
def test_papers_of_a_line(seed):
    line = made_line(KIT, seed)
    clean(sheet_of(line, KIT))
    part = plan_line(line, KIT).part
    if part is None:
        return
    clean(build_tape(line, part, "3/16 in"))
    jig = lay_on_board(shape_of(part), part.od_mm, least_mm=8.0, margin_mm=35.0)
    with suppress(FileError):  # it is larger than paper, and says so
        clean(build_jig(line, jig, "3/16 in"), pages=1)  # on the others the plan goes on beyond the edge
