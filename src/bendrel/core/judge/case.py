"""What a rule may look at, and how it says where."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cached_property
from typing import cast

from bendrel.core.bend.tube.part import Part, place_of_bend
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.codes import Code
from bendrel.core.findings import Change, EndName, Finding, Fix, Place, Severity, Source
from bendrel.core.hose.laid import LaidHose
from bendrel.core.line.document import HoseSpan, Line
from bendrel.core.line.run import ENDS, Run
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.fits import goes_on_tube
from bendrel.core.parts.fitting import Fitting, Nut
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.room import EndRoom
from bendrel.core.parts.service import Service
from bendrel.core.parts.tube import Material, Tube
from bendrel.core.parts.tube_strength import tube_strength
from bendrel.core.parts.wetting import Wetting, wetting
from bendrel.core.record import record
from bendrel.core.units.notation import format_fine, format_length, format_small
from bendrel.core.units.quantities import format_pressure
from bendrel.core.work.chosen import Chosen


@record
class Whole:
    """A planned line and everything that it was planned with; `rigids` are its tubes, `laid` its hoses with
    known ends."""

    line: Line
    kit: Kit
    service: Service
    chosen: Chosen
    rigids: Sequence[Rigid]
    laid: Sequence[LaidHose] = ()

    @property
    def hand_mm(self) -> float:
        """A difference of lengths that a hand cannot see."""
        return self.kit.limits["hand_mm"].value

    @property
    def working_kpa(self) -> float | None:
        """What the line works at above the air; None of a vacuum, a vent, or where nobody has said."""
        carried = self.chosen.carried
        duty = carried.duty if carried else None
        return None if duty is None or duty.vacuum or duty.open else duty.working_kpa

    @property
    def open_or_vacuum(self) -> bool:
        """Nothing presses a hose off."""
        carried = self.chosen.carried
        return carried is not None and (carried.duty.vacuum or carried.duty.open)

    @property
    def wetting(self) -> Wetting:
        """What a hose is wetted with before it is pushed on."""
        return wetting(self.chosen.carried.fluid if self.chosen.carried else None)

    def say(self, mm: float) -> str:
        """A length in the person's unit."""
        return format_length(mm, self.line.unit)

    def say_small(self, mm: float) -> str:
        """What is read with a caliper, in the person's unit."""
        return format_small(mm, self.line.unit)

    def say_wall(self, mm: float) -> str:
        """A wall as tube is sold, in the person's unit."""
        return format_fine(mm, self.line.unit)

    def say_kpa(self, kpa: float) -> str:
        """A pressure in the person's system."""
        return format_pressure(kpa, self.line.unit)

    def say_apart(self, one_mm: float, other_mm: float) -> tuple[str, str]:
        """Two lengths that differ, as finely as it takes for them to read differently."""
        unit = self.line.unit
        for denominator in (32, 64, 128):
            told = tuple(format_length(mm, unit, denominator) for mm in (one_mm, other_mm))
            if told[0] != told[1]:
                return told[0], told[1]
        return f"{one_mm:.2f} mm", f"{other_mm:.2f} mm"

    @property
    def words(self) -> dict[str, object]:
        """What every finding may name without being given it."""
        return {"service": self.service}

    def told(
        self,
        kind: str,
        where: Place,
        /,
        *,
        code: Code | None = None,
        source: Source | None = None,
        severity: Severity | None = None,
        safety: bool | None = None,
        title: str | None = None,
        message: str | None = None,
        advice: str | None = None,
        fix: Fix | None = None,
        **figures: object,
    ) -> Finding:
        """The finding whose row of the catalogue is `kind`. Its words have `figures`, what `words` knows, and
        the end or number of the place; what is given here counts before the row. Raises KeyError for a row, a
        figure or a source that is missing."""
        row, critical = self.kit.findings[kind], self.service.safety_critical
        rule = self.kit.advice[row.rule] if row.rule else None
        known = self.kit.limits[row.limit].source if row.limit else rule.source if rule else source
        if known is None:
            raise KeyError(f"no source is given for {kind}")
        words = {**self.words, "rule": rule.text if rule else "", "end": where.end, "number": where.number}
        words |= figures
        takes_reason = row.safety == "always" or (row.safety == "service" and critical)
        said = row.critical if critical and row.critical else row.severity
        return Finding(
            severity=severity or said or "note",
            code=code or row.code or cast(Code, row.id),
            where=where,
            title=row.title.format(**words) if title is None else title,
            message=(row.message or "{rule}").format(**words) if message is None else message,
            source=source or known,
            advice=row.advice.format(**words) if advice is None else advice,
            fix=fix,
            safety=takes_reason if safety is None else safety,
        )

    def whole(self) -> Place:
        """The whole line; its one tube where it has only one."""
        if len(self.rigids) == 1:
            return Place(kind="tube", from_mm=0.0, to_mm=self.rigids[0].part.developed_mm)
        return Place(kind="tube")

    def at_span(self, span: str, end: EndName | None = None) -> Place:
        """A hose or component, or one end of it."""
        return Place(kind="span", span=span, end=end)

    @cached_property
    def cases(self) -> tuple[Case, ...]:
        """One for every tube."""
        return tuple(
            Case(
                line=self.line,
                kit=self.kit,
                service=self.service,
                chosen=self.chosen,
                rigids=self.rigids,
                laid=self.laid,
                rigid=rigid,
            )
            for rigid in self.rigids
        )

    def beside(self, span: str, faces: EndName) -> tuple[Case, EndName] | None:
        """The tube next to a hose on the side that looks to end `faces`, and its end there."""
        end: EndName = "B" if faces == "A" else "A"
        for case in self.cases:
            beyond = case.run.end(end).beyond
            if beyond and beyond[0].id == span:
                return case, end
        return None


@record
class Case(Whole):
    """One planned tube of a line."""

    rigid: Rigid

    @property
    def run(self) -> Run:
        """The tube where it stands in its line."""
        return self.rigid.run

    @property
    def part(self) -> Part:
        """What was planned."""
        return self.rigid.part

    @property
    def tube(self) -> Tube:
        """Its tube."""
        return self.rigid.tube

    @property
    def material(self) -> Material:
        """What it is made of."""
        return self.rigid.choices.material

    @property
    def bender(self) -> Bender:
        """Its bender as it really works."""
        return self.rigid.choices.bender

    @property
    def lengths_mm(self) -> Mapping[str, float]:
        """What every length of the readings became, by pointer within them."""
        return self.rigid.lengths_mm

    @property
    def rooms(self) -> Mapping[EndName, EndRoom]:
        """The room at both ends."""
        return {end.end: end.room for end in self.rigid.ends}

    @property
    def nuts(self) -> Mapping[EndName, Nut | None]:
        """The nuts of both ends."""
        return {end.end: end.nut for end in self.rigid.ends}

    @property
    def fittings(self) -> Mapping[EndName, Fitting]:
        """The end types of both ends."""
        return {end.end: end.fitting for end in self.rigid.ends}

    @property
    def plastic(self) -> bool:
        """The tube is plastic."""
        return self.material.family == "plastic"

    @property
    def words(self) -> dict[str, object]:
        """What every finding may name without being given it."""
        return {
            "service": self.service,
            "tube": self.tube,
            "material": self.material,
            "bender": self.bender,
        }

    def first_hose(self, end: EndName) -> HoseSpan | None:
        """The hose next to the tube at one end."""
        beyond = self.run.end(end).beyond
        return beyond[0] if beyond and isinstance(beyond[0], HoseSpan) else None

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
        fittings = self.fittings
        if not all(
            goes_on_tube(self.kit, fittings[end], tube, insert=self.run.end(end).tube.insert) for end in ENDS
        ):
            return False
        tightest = min((bend.radius_mm for bend in self.part.bends), default=None)
        if tightest is not None and tightest < material.least_radius_per_od * tube.od_mm - self.hand_mm:
            return False
        if self.working_kpa is None or self.chosen.carried is None:
            return True
        duty = self.chosen.carried.duty
        return tube_strength(
            tube,
            material,
            radius_mm=tightest,
            temperature_c=duty.hot_c,
            factor=duty.design_factor,
            family=self.chosen.carried.fluid.family,
        ).holds(duty.working_kpa, duty.test_kpa)

    def at_bend(self, number: int) -> Place:
        """The arc of one bend."""
        return place_of_bend(self.part, number)

    def at_straight(self, number: int) -> Place:
        """Straight `number` lies before bend `number`; the last lies before end B."""
        bends = self.part.bends
        start = bends[number - 2].end_mm if number > 1 else 0.0
        end = bends[number - 1].start_mm if number <= len(bends) else self.part.developed_mm
        return Place(
            kind="straight",
            span=self.part.span,
            row=bends[number - 1].id if number <= len(bends) else "",
            number=number,
            from_mm=min(start, end),
            to_mm=min(max(start, end), self.part.developed_mm),
        )

    def at_end(self, end: EndName) -> Place:
        """The straight at one end."""
        bends, whole = self.part.bends, self.part.developed_mm
        if end == "A":
            start, stop = 0.0, max(0.0, bends[0].start_mm if bends else whole)
        else:
            start, stop = min(bends[-1].end_mm if bends else 0.0, whole), whole
        return Place(kind="end", span=self.part.span, end=end, from_mm=start, to_mm=stop)

    def along(self, start_mm: float, stop_mm: float, item: str = "") -> Place:
        """A stretch of the tube, and what lies there."""
        return Place(kind="tube", span=self.part.span, item=item, from_mm=start_mm, to_mm=stop_mm)

    def this(self) -> Place:
        """This tube."""
        return self.along(0.0, self.part.developed_mm)


def set_value(label: str, path: str, value: str | float | bool | None) -> Fix:
    """A fix that sets one value of the document: something that the person says."""
    return Fix(label=label, changes=(Change(path=path, value=value),))


def choose(label: str, *values: tuple[str, str | float | bool | None]) -> Fix:
    """A fix that chooses something else: (path, value) each."""
    return Fix(
        label=label, changes=tuple(Change(path=path, value=value) for path, value in values), choice=True
    )
