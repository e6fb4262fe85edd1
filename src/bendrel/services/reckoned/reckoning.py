"""What may take long to reckon, each as one call that is made apart and gives its answer ready to be sent."""

from __future__ import annotations

from pydantic import TypeAdapter

from bendrel.core.bend.bench.sweep import SwingView
from bendrel.core.bend.told.figures import MadeBend
from bendrel.core.bend.told.offered import TypedOffer
from bendrel.core.line.document import Line
from bendrel.core.parts.kit import Kit
from bendrel.services.bench.benches import BenchReport, PartStanding, report, standing, swing
from bendrel.services.line.measuring import CheckAdvice, look_at_checks
from bendrel.services.mend.splicing import Mending, MendOrder, ways_to_mend

_REPORT = TypeAdapter(BenchReport)
_STANDING = TypeAdapter(PartStanding)
_SWING = TypeAdapter(SwingView)
_CHECKS = TypeAdapter(CheckAdvice)
_MENDING = TypeAdapter(Mending)


def bench_report(line: Line, kit: Kit, span: str) -> bytes:
    """See `benches.report`."""
    return _REPORT.dump_json(report(line, kit, span))


def part_standing(
    line: Line, kit: Kit, made: tuple[MadeBend, ...], span: str, offers: tuple[TypedOffer, ...]
) -> bytes:
    """See `benches.standing`."""
    return _STANDING.dump_json(standing(line, kit, made, span, offers))


def swing_of(line: Line, kit: Kit, move: int, span: str) -> bytes:
    """See `benches.swing`."""
    return _SWING.dump_json(swing(line, kit, move, span))


def checks(line: Line, kit: Kit, span: str) -> bytes:
    """See `measuring.look_at_checks`."""
    return _CHECKS.dump_json(look_at_checks(line, kit, span))


def mending(line: Line, order: MendOrder, kit: Kit) -> bytes:
    """See `splicing.ways_to_mend`."""
    return _MENDING.dump_json(ways_to_mend(line, order, kit))
