"""A piece between two old tubes, planned anew for the gap that the cuts left."""

from __future__ import annotations

from dataclasses import replace

from bendrel.core.bend.tube.part import shape_of
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.vectors import length
from bendrel.core.line.document import BendReadings, CornerReadings, Line, RigidSpan
from bendrel.core.line.paths import LAST, row_path
from bendrel.core.line.run import with_span
from bendrel.core.parts.kit import Kit
from bendrel.core.units.lengths import Length, is_blank, length_mm
from bendrel.core.units.notation import UnitError, format_length
from bendrel.services.bench.benches import planned_of
from bendrel.services.errors import Refused
from bendrel.services.shelf.tubes import tube_of


def with_gap(line: Line, kit: Kit, span: str, read: Length) -> Line:
    """`line` with a tube adjusted to what was read from rim to rim; blank takes that back.

    Raises Refused where it is no length, and where it is further from what is planned than a cut lands beside
    its mark: nothing is bent to fit a slip.
    """
    own = tube_of(line, span).span
    if not is_blank(read):
        try:
            across = length_mm(read)
        except UnitError as error:
            raise Refused(f"Straight across: {error}") from error
        was = end_frame(shape_of(planned_of(line, kit, span).part)).point
        planned_mm, most = length(was), kit.limits["gross_mm"].value
        if abs(across - planned_mm) > most:
            planned, off = (format_length(mm, line.unit) for mm in (planned_mm, most))
            raise Refused(
                f"{read.text} straight across is more than {off} from the {planned} that are planned, "
                "further than cuts land beside their marks. Hold the rule once more; if it does read so, "
                "measure the piece anew."
            )
    changed = with_span(line, across_gap(own, read))
    planned_of(changed, kit, span)  # refused where that gap leaves no piece to make
    return changed


def across_gap(own: RigidSpan, read: Length) -> RigidSpan:
    """A tube held against its gap. The cuts lie where they came out, so the legs up to the two ends are no
    longer what was read: they are left out and found from the gap."""
    ends = end_legs(own.readings)
    others = tuple(path for path in own.checks.left_out if path not in ends)
    left_out = others if is_blank(read) else (*others, *ends)
    return replace(own, checks=replace(own.checks, tape=read, left_out=left_out))


def end_legs(readings: BendReadings | CornerReadings) -> tuple[str, ...]:
    """The readings that a cut at either end moves, as pointers into `readings`: none of a wire's marks and of
    points, which tell of more than their own leg."""
    if not isinstance(readings, BendReadings) or not readings.rows:
        return ()
    first = (row_path(readings.rows[0].id, "length"),) if readings.rows[0].by == "leg" else ()
    return (*first, LAST) if readings.last_by == "leg" else first
