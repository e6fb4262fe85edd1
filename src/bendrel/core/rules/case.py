"""What a rule of the plan may look at, and how it says where."""

from __future__ import annotations

from collections.abc import Mapping

from bendrel.core.bending.bender import Bender
from bendrel.core.chain.carried import Carried
from bendrel.core.ends.fitting import Fitting, Nut
from bendrel.core.ends.room import EndRoom
from bendrel.core.findings import Change, EndName, Fix, Where
from bendrel.core.line.document import HosePiece, Line
from bendrel.core.pressure.tube import tube_strength
from bendrel.core.record import record
from bendrel.core.rigid.part import Part
from bendrel.core.service import Service
from bendrel.core.shop.fits import goes_on_tube
from bendrel.core.shop.kit import Kit
from bendrel.core.tube.material import Material, Tube
from bendrel.core.units import format_length


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
    carried: Carried | None

    @property
    def hand_mm(self) -> float:
        """A difference of lengths that a hand cannot see."""
        return self.kit.limits["hand_mm"].value

    @property
    def working_kpa(self) -> float | None:
        """What the line works at above the air; None of a vacuum, a vent, or where nobody has said."""
        duty = self.carried.duty if self.carried else None
        return None if duty is None or duty.vacuum or duty.open else duty.working_kpa

    @property
    def open_or_vacuum(self) -> bool:
        """Nothing presses a hose off."""
        return self.carried is not None and (self.carried.duty.vacuum or self.carried.duty.open)

    @property
    def plastic(self) -> bool:
        """The tube is plastic."""
        return self.material.family == "plastic"

    @property
    def wets_hose(self) -> bool:
        """A hose may be wetted with what the line carries."""
        return self.carried is None or self.carried.fluid.wets_hose

    def first_hose(self, end: EndName) -> HosePiece | None:
        """The hose next to the tube at one end."""
        beyond = self.line.end(end).beyond
        return beyond[0] if beyond and isinstance(beyond[0], HosePiece) else None

    def held_hose(self, end: EndName) -> bool:
        """The hose next to the tube holds by a crimp or an end of its own."""
        hose = self.first_hose(end)
        return hose is not None and hose.joined != "clamps"

    def two_clamps(self, end: EndName) -> bool:
        """The hose next to the tube is held by two clamps each side."""
        hose = self.first_hose(end)
        return hose is not None and hose.joined == "clamps" and hose.clamps_each == 2

    def good_tube(self, tube: Tube) -> bool:
        """Another tube takes both ends, this shape and what the line carries."""
        material = self.kit.materials[tube.material]
        if (material.family == "plastic") != self.plastic:
            return False
        ends: tuple[EndName, EndName] = ("A", "B")
        if not all(
            goes_on_tube(self.kit, self.fittings[end], tube, insert=self.line.end(end).insert) for end in ends
        ):
            return False
        tightest = min((bend.radius_mm for bend in self.part.bends), default=None)
        if tightest is not None and tightest < material.least_radius_per_od * tube.od_mm - self.hand_mm:
            return False
        if self.working_kpa is None or self.carried is None:
            return True
        duty = self.carried.duty
        strength = tube_strength(
            tube, material, radius_mm=tightest, temperature_c=duty.hot_c, factor=duty.design_factor
        )
        if strength.allowed_kpa is None or strength.burst_kpa is None:
            return False
        return strength.allowed_kpa >= duty.working_kpa and strength.burst_kpa >= duty.test_kpa

    def say(self, mm: float) -> str:
        """A length in the person's unit."""
        return format_length(mm, self.line.unit)

    def say_apart(self, one_mm: float, other_mm: float) -> tuple[str, str]:
        """Two lengths that differ, as finely as it takes for them to read differently."""
        unit = self.line.unit
        for denominator in (32, 64, 128):
            told = tuple(format_length(mm, unit, denominator) for mm in (one_mm, other_mm))
            if told[0] != told[1]:
                return told[0], told[1]
        return f"{one_mm:.2f} mm", f"{other_mm:.2f} mm"

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
    """A fix that sets one value of the document: something that the person says."""
    return Fix(label=label, changes=(Change(path=path, value=value),))


def choose(label: str, *values: tuple[str, str | float | bool | None]) -> Fix:
    """A fix that chooses something else: (path, value) each."""
    return Fix(
        label=label, changes=tuple(Change(path=path, value=value) for path, value in values), choice=True
    )
