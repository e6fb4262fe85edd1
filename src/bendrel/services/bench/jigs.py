"""Use cases on the jig of a tube: its sheet, and its blocks as files. `home` is the end at the stop."""

from __future__ import annotations

from bendrel.core.bend.fitting.jig import Jig, lay_on_board
from bendrel.core.bend.tube.part import shape_of
from bendrel.core.findings import EndName
from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.exchange.paper.jig_blocks import write_blocks_dxf, write_blocks_stl
from bendrel.exchange.paper.jig_sheet import build_jig
from bendrel.services.bench.benches import planned_of


def print_jig(line: Line, kit: Kit, span: str = "", home: EndName = "A") -> bytes:
    """PDF of the jig sheet, to scale. Raises Refused and FileError."""
    return build_jig(line, _jig(line, kit, span, home), planned_of(line, kit, span).tube.size)


def blocks_stl(line: Line, kit: Kit, span: str = "", home: EndName = "A") -> bytes:
    """The blocks to print. Raises Refused."""
    return write_blocks_stl(_jig(line, kit, span, home))


def blocks_dxf(line: Line, kit: Kit, span: str = "", home: EndName = "A") -> bytes:
    """The blocks to cut. Raises Refused."""
    return write_blocks_dxf(_jig(line, kit, span, home)).encode()


def _jig(line: Line, kit: Kit, span: str, home: EndName) -> Jig:
    part = planned_of(line, kit, span).part
    return lay_on_board(
        shape_of(part),
        part.od_mm,
        least_mm=kit.limits["jig_least_mm"].value,
        margin_mm=kit.limits["jig_margin_mm"].value,
        home=home,
    )
