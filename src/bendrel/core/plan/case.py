"""What a rule of the plan may look at, and how it says where."""

from __future__ import annotations

from collections.abc import Mapping

from bendrel.core.bending.bender import Bender
from bendrel.core.ends.fitting import Fitting, Nut
from bendrel.core.ends.room import EndRoom
from bendrel.core.findings import Change, EndName, Fix, Where
from bendrel.core.line.document import Line
from bendrel.core.plan.kit import Kit
from bendrel.core.plan.model import Part
from bendrel.core.record import record
from bendrel.core.service import Service
from bendrel.core.tube.material import Material, Tube
from bendrel.core.units import format_length

SPAN = "/spans/0"


@record
class Case:
    """A planned part and everything that it was planned with."""

    line: Line
    kit: Kit
    part: Part
    tube: Tube
    material: Material
    bender: Bender
    service: Service
    rooms: Mapping[EndName, EndRoom]
    nuts: Mapping[EndName, Nut | None]
    fittings: Mapping[EndName, Fitting]
    lengths_mm: Mapping[str, float]

    def say(self, mm: float) -> str:
        """A length in the person's unit."""
        return format_length(mm, self.line.unit)

    def at_bend(self, number: int) -> Where:
        """The arc of one bend."""
        bend = self.part.bends[number - 1]
        return Where(kind="bend", number=number, from_mm=bend.start_mm, to_mm=bend.end_mm)

    def at_straight(self, number: int) -> Where:
        """Straight `number` lies before bend `number`; the last lies before end B."""
        bends = self.part.bends
        start = bends[number - 2].end_mm if number > 1 else 0.0
        end = bends[number - 1].start_mm if number <= len(bends) else self.part.developed_mm
        return Where(kind="straight", number=number, from_mm=min(start, end), to_mm=max(start, end))

    def at_end(self, end: EndName) -> Where:
        """The straight at one end."""
        bends, whole = self.part.bends, self.part.developed_mm
        if end == "A":
            reach = bends[0].start_mm if bends else whole
            return Where(kind="end", end="A", from_mm=0.0, to_mm=max(0.0, reach))
        reach = bends[-1].end_mm if bends else 0.0
        return Where(kind="end", end="B", from_mm=min(reach, whole), to_mm=whole)

    def at_piece(self, end: EndName, index: int) -> Where:
        """A hose or part beyond one end; it lies off the tube, at that end."""
        at = 0.0 if end == "A" else self.part.developed_mm
        return Where(kind="piece", end=end, number=index + 1, from_mm=at, to_mm=at)

    def whole(self) -> Where:
        """The whole tube."""
        return Where(kind="tube", from_mm=0.0, to_mm=self.part.developed_mm)


def set_value(label: str, path: str, value: str | float | bool | None) -> Fix:
    """A fix that sets one value of the document."""
    return Fix(label=label, changes=(Change(path=path, value=value),))
