"""Reasons and instructions are kept by id: when bends are replaced as a whole, none comes to stand at one
that it was not given for, and a piece that comes between moves none."""

import pytest

from bendrel.core.findings import Spot
from bendrel.core.line.document import LeftOpen, PartReading, SetAside
from bendrel.core.line.references import without_bends
from bendrel.core.line.run import main_run
from bendrel.core.plan.compare import compare
from bendrel.core.units.lengths import Angle
from bendrel.services.line.importing import import_text
from bendrel.services.line.measuring import CopyOrder, copy_line
from tests.lines import DOUBLE, Component, bent, in_order, replace, row, the_tube, with_tube

WHY = "agreed with the inspector"


def aside(code, **at):
    return SetAside(code=code, at=Spot(**at), reason=WHY)


END_B, TUBE = {"kind": "end", "span": "s1", "end": "B"}, {"kind": "tube"}


def noted():
    line = bent(
        row(100, 90),
        row(60, 45, "3:00"),
        set_aside=(
            aside("kinks", kind="bend", span="s1", row="r2"),
            aside("x", kind="straight", span="s1", row="r1"),
            aside("no_spare", **END_B),
            aside("t", **TUBE),
        ),
        bought=(PartReading(kind="bend", row="r2", text="44"), PartReading(kind="rim to rim", text="200 mm")),
    )
    return with_tube(line, order=in_order("A2 A1"), left_open=(LeftOpen(row="r2", angle=Angle(text="20")),))


def kept(line):
    return [item.at for item in line.set_aside] == [Spot(**END_B), Spot(**TUBE)]


def test_other_readings_take_nothing_over():
    freed = without_bends(noted(), the_tube(noted()))
    assert kept(freed)
    assert the_tube(freed).order == ()
    assert the_tube(freed).left_open == ()
    assert [item.kind for item in the_tube(freed).bought] == ["rim to rim"]


def test_an_imported_file_and_a_copied_line_take_nothing_over(kit):
    csv = "x_mm,y_mm,z_mm,radius_mm\n0,0,0,\n100,0,0,15\n100,100,0,\n"
    imported = import_text(csv, noted(), "", None, kit).document
    assert kept(imported)
    source = bent(row(90, 30), row(50, 60, "6:00"), row(70, 90, "9:00"))
    for how in ("mirror", "same"):
        copied, _ = copy_line(noted(), source, CopyOrder(how=how), kit)
        assert kept(copied)
        assert the_tube(copied).left_open == ()


@pytest.mark.parametrize("end", ["A", "B"])
def test_an_adapter_comes_between_and_every_reason_stays_where_it_was_given(kit, end):
    name = f"{end.lower()}1"
    line = bent(
        row(100, 90),
        set_aside=(aside("x", kind="span", span=name),),
        **{f"end_{end.lower()}": replace(DOUBLE, beyond=(Component(what="filter"),))},
    )
    adapters = 0
    for choice in compare(main_run(line), kit)[1:]:
        made = choice.document
        beyond = main_run(made).end(end).beyond
        adapters += len(beyond) - 1
        (found,) = [span for span in beyond if span.id == made.set_aside[0].at.span]
        assert found.what == "filter"
    assert adapters > 0
