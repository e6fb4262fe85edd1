"""Reasons and instructions are kept by number: when bends or pieces are replaced as a whole, none comes to
stand at one that it was not given for."""

from dataclasses import replace

import pytest

from bendrel.core.lengths import Angle
from bendrel.core.line.document import LeftOpen, LineEnd, PartPiece, PartReading, SetAside
from bendrel.core.line.references import with_piece_before, without_bends
from bendrel.core.plan.compare import compare
from bendrel.services.importing import import_text
from bendrel.services.measuring import CopyOrder, copy_line
from tests.lines import DOUBLE, bent, row

WHY = "agreed with the inspector"


def aside(code, where):
    return SetAside(code=code, where=where, reason=WHY)


def noted():
    line = bent(
        row(100, 90),
        row(60, 45, "3:00"),
        set_aside=(
            aside("kinks", "bend 2"),
            aside("x", "straight 1"),
            aside("no_spare", "end B"),
            aside("t", "tube"),
        ),
        bought=(PartReading(kind="bend", number=2, text="44"), PartReading(kind="rim to rim", text="200 mm")),
    )
    span = replace(line.spans[0], order="A2 A1", left_open=(LeftOpen(bend=2, angle=Angle(text="20")),))
    return replace(line, spans=(span,))


def test_other_readings_take_nothing_over():
    freed = without_bends(noted())
    assert [item.where for item in freed.set_aside] == ["end B", "tube"]
    assert freed.spans[0].order == ""
    assert freed.spans[0].left_open == ()
    assert [item.kind for item in freed.bought] == ["rim to rim"]


def test_an_imported_file_and_a_copied_line_take_nothing_over(kit):
    csv = "x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n100,0,0,15\n100,100,0,\n"
    imported = import_text(csv, noted(), "", None, kit).document
    assert [item.where for item in imported.set_aside] == ["end B", "tube"]
    source = bent(row(90, 30), row(50, 60, "6:00"), row(70, 90, "9:00"))
    for how in ("mirror", "same"):
        copied, _ = copy_line(noted(), source, CopyOrder(how=how), kit)
        assert [item.where for item in copied.set_aside] == ["end B", "tube"]
        assert copied.spans[0].left_open == ()


@pytest.mark.parametrize("end", ["A", "B"])
def test_an_adapter_moves_what_lies_beyond_it_and_its_reasons(kit, end):
    both = tuple(aside("hose_rubs", f"piece {n} beyond {e}") for n in (1, 2) for e in ("A", "B"))
    moved = with_piece_before(bent(row(100, 90), set_aside=both), end)
    other = "B" if end == "A" else "A"
    assert {item.where for item in moved.set_aside} == {
        *(f"piece {n} beyond {end}" for n in (2, 3)),
        *(f"piece {n} beyond {other}" for n in (1, 2)),
    }
    part = PartPiece(part="filter")
    key = f"end_{end.lower()}"
    line = bent(
        row(100, 90),
        set_aside=(aside("x", f"piece 1 beyond {end}"),),
        **{key: replace(DOUBLE, beyond=(part,))},
    )
    for choice in compare(line, kit)[1:]:
        made: LineEnd = getattr(choice.document, key)
        place = made.beyond.index(part) + 1
        assert choice.document.set_aside[0].where == f"piece {place} beyond {end}"
