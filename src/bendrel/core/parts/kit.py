"""Everything the plan may look up: the catalogue's rows as typed objects."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cached_property

from bendrel.core.findings import Source
from bendrel.core.geometry.clips import Clip, ClipSpacing
from bendrel.core.parts.apart import Apart
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.calibration import Calibration, calibrated
from bendrel.core.parts.circuit_row import CircuitRow
from bendrel.core.parts.clearance import Clearance
from bendrel.core.parts.component import Component, ComponentFamily
from bendrel.core.parts.finding_row import FindingRow
from bendrel.core.parts.fitting import EndSize, Fitting, Flarer, Nut, Rating, Torque
from bendrel.core.parts.flaring import FlareRange, FlaringRules
from bendrel.core.parts.fluid import Fluid
from bendrel.core.parts.hose import Clamp, ClampKind, Hose, HoseClass
from bendrel.core.parts.hose_end import HoseEndKind
from bendrel.core.parts.owner import OwnerWords
from bendrel.core.parts.pace import Pace
from bendrel.core.parts.pair import Pair
from bendrel.core.parts.proving import ProvingRules
from bendrel.core.parts.removal import RemovalRule
from bendrel.core.parts.rule_names import AdviceName, LimitName
from bendrel.core.parts.school import School
from bendrel.core.parts.seat import Seat, SharedThread
from bendrel.core.parts.service import Caution, Service, WorkStage
from bendrel.core.parts.single_use import SingleUse
from bendrel.core.parts.splicing import Argument, Splicing
from bendrel.core.parts.spread import Spread
from bendrel.core.parts.step_row import StepRow
from bendrel.core.parts.threads.designation import (
    KnownThread,
    PipeThread,
    Thread,
    WhitworthSize,
    parse_thread,
)
from bendrel.core.parts.threads.lookalikes import Likeness
from bendrel.core.parts.threads.wrench import Wrench, WrenchBand
from bendrel.core.parts.tool_kind import Bench, ToolKind
from bendrel.core.parts.tube import Material, Tube
from bendrel.core.parts.verdict import Joint, Of, Verdict, Verdicts
from bendrel.core.record import record


@record
class Advice:
    """A rule of the shop that is words rather than a number, with its source."""

    text: str
    source: Source


@record
class Limit:
    """A number that a rule compares with, with its source."""

    value: float
    source: Source


@record
class Body:
    """What the part at a port is made of, with its anodic index in volts (0 where it is no metal)."""

    id: str
    name: str
    anodic_v: float
    source: Source


@record
class Kit:
    """Materials, tubes, tools, ends, hoses, fluids, threads and rules by id. `rules_version` stamps
    what is printed; `preferences` are the shop's answers where schools differ, `own_figures` what it measured
    for them, by the figure's id; `calibrations` what test pieces told of a bender in a material, `spread` how
    exactly this shop bends, `pace` how fast."""

    rules_version: str
    materials: Mapping[str, Material]
    tubes: Mapping[str, Tube]
    benders: Mapping[str, Bender]
    tool_kinds: Mapping[str, ToolKind]
    bench: Bench
    flarers: Mapping[str, Flarer]
    fittings: Mapping[str, Fitting]
    end_sizes: Mapping[tuple[str, str], EndSize]
    flaring: FlaringRules
    nuts: Mapping[str, Nut]
    torques: Mapping[str, Torque]
    clips: tuple[Clip, ...]
    clip_spacing: tuple[ClipSpacing, ...]
    clearances: Mapping[str, Clearance]
    seats: Mapping[str, Seat]
    shared_threads: tuple[SharedThread, ...]
    pairs: Mapping[tuple[str, str], Pair]
    bodies: Mapping[str, Body]
    pipes: Mapping[str, PipeThread]
    whitworth: Mapping[str, WhitworthSize]
    threads: Mapping[str, KnownThread]
    wrenches: tuple[Wrench, ...]
    hose_classes: Mapping[str, HoseClass]
    hoses: Mapping[str, Hose]
    hose_ends: Mapping[str, HoseEndKind]
    clamp_kinds: Mapping[str, ClampKind]
    clamps: Mapping[str, Clamp]
    fluids: Mapping[str, Fluid]
    joints: Mapping[str, Joint]
    components: Mapping[str, Component]
    component_families: Mapping[str, ComponentFamily]
    verdicts: Verdicts
    schools: Mapping[str, School]
    preferences: Mapping[str, str]
    own_figures: Mapping[str, float]
    calibrations: Mapping[tuple[str, str], Calibration]
    spread: Spread
    pace: Pace
    services: Mapping[str, Service]
    cautions: Mapping[str, Caution]
    advice: Mapping[AdviceName, Advice]
    limits: Mapping[LimitName, Limit]
    findings: Mapping[str, FindingRow]
    circuit_findings: Mapping[str, CircuitRow]
    circuit_source: Source
    steps: Mapping[str, StepRow]
    arguments: tuple[Argument, ...]
    splicing: Splicing
    removal: Mapping[str, RemovalRule]
    apart: Apart
    pan_share: Limit
    single_use: SingleUse
    proving: ProvingRules
    owner: OwnerWords

    @property
    def least_engagement(self) -> float:
        """Share of a proper thread's depth below which two threads of one pitch do not hold."""
        return self.limits["least_engagement"].value

    @cached_property
    def outside_mm(self) -> Mapping[str, float]:
        """Outside diameter of every tube size by its name."""
        return {tube.size: tube.od_mm for tube in self.tubes.values()}

    def goes_on(self, made_for: str, size: str) -> bool:
        """What is made for one tube size goes on another: the same size, or an outside diameter that does
        not differ by more than is used every day (4.75 mm and 3/16 in)."""
        if made_for == size:
            return True
        one, other = self.outside_mm.get(made_for), self.outside_mm.get(size)
        return one is not None and other is not None and abs(one - other) <= self._same_mm

    @cached_property
    def dashes(self) -> Mapping[int, str]:
        """Thread of the 37° nut by its dash size."""
        return {row.dash: row.designation for row in self.threads.values() if row.dash is not None}

    def nut_by_dash(self, dash: int) -> str:
        """Thread of the 37° nut of a dash size, as designated; blank for a size that has none."""
        return self.dashes.get(dash, "")

    @property
    def stands_in(self) -> dict[str, tuple[str, ...]]:
        """Sizes whose nuts and tools are used for another size, by that size."""
        sizes = tuple(self.outside_mm)
        alike = {size: tuple(o for o in sizes if o != size and self.goes_on(o, size)) for size in sizes}
        return {size: others for size, others in alike.items() if others}

    @property
    def _same_mm(self) -> float:
        return self.limits["same_size_mm"].value

    def end_size(self, fitting: str, size: str) -> EndSize | None:
        """What one tube size needs for one end type; the row of a size that is used for it where it has
        none of its own. An end that is brazed on has one figure for all its sizes."""
        own = self.end_sizes.get((fitting, size))
        if own is not None:
            return own
        known = self.fittings.get(fitting)
        if known is not None and known.rated is not None:
            return self._rated_end(known, known.rated, size)
        return next(
            (
                row
                for row in self.end_sizes.values()
                if row.fitting == fitting and self.goes_on(row.size, size)
            ),
            None,
        )

    def flare_range(self, fitting: str, size: str) -> FlareRange | None:
        """How wide a flare is to be across, by end type and tube size; None where it is not known."""
        ranges = self.flaring.ranges
        alike = (ranges.get((fitting, one)) for one in (size, *self.stands_in.get(size, ())))
        return next((row for row in alike if row is not None), None)

    def _rated_end(self, fitting: Fitting, rated: Rating, size: str) -> EndSize | None:
        made = any(n.fitting == fitting.id and self.goes_on(n.size, size) for n in self.nuts.values())
        if not made:
            return None
        return EndSize(
            fitting=fitting.id,
            size=size,
            flare_diameter_mm=None,
            used_mm=0.0,
            length_mm=0.0,
            rated_kpa=rated.kpa,
            source=rated.source,
        )

    def nuts_for(self, fitting: str, size: str) -> tuple[Nut, ...]:
        """Nuts for one end type and tube size, the usual one first, then those of a size used for it."""
        fits = [n for n in self.nuts.values() if n.fitting == fitting and self.goes_on(n.size, size)]
        return tuple(sorted(fits, key=lambda nut: nut.size != size))

    def torque_for(self, fitting: str, thread: str, material: str) -> Torque | None:
        """What is published for a joint of this end, thread and tube material; None where nothing is."""
        known = self.materials.get(material)
        kinds = {material, known.family if known else ""}
        return next(
            (
                row
                for row in self.torques.values()
                if (row.fitting, row.thread) == (fitting, thread)
                and (row.tubes is None or kinds & set(row.tubes.split()))
            ),
            None,
        )

    def benders_for(self, size: str, *, plastic: bool = False) -> tuple[Bender, ...]:
        """Benders for one tube size of metal (or of plastic), in catalogue order, then those of a size
        used for it."""
        fits = [b for b in self.benders.values() if b.plastic == plastic and self.goes_on(b.size, size)]
        return tuple(sorted(fits, key=lambda bender: bender.size != size))

    def takes(self, bender: Bender, size: str) -> bool:
        """The tool's groove is for this tube size."""
        return bender.radius_mm is None or self.goes_on(bender.size, size)

    def calibration(self, bender: str, tube: str) -> Calibration | None:
        """What test pieces told of a bender in the material of a tube."""
        known = self.tubes.get(tube)
        return self.calibrations.get((bender, known.material)) if known else None

    def tool(self, bender: str, tube: str) -> Bender | None:
        """A bender as it really works in the material of a tube; None for one that is not there."""
        found = self.benders.get(bender)
        return calibrated(found, self.calibration(bender, tube)) if found else None

    def thread(self, text: str) -> Thread:
        """A thread as written. Raises ThreadError."""
        return parse_thread(text, self.pipes, self.whitworth, self.dashes)

    def verdict(self, of: Of, item: str, service: str) -> Verdict | None:
        """What is said of one row in one service, or in the service that it is like; None where nobody has
        said what the line carries."""
        found = self.verdicts.get((of, item, service))
        known = self.services.get(service)
        if found is None and known is not None and known.like:
            return self.verdicts.get((of, item, known.like))
        return found

    def cautions_at(self, service: str, stage: WorkStage | None = None) -> tuple[Caution, ...]:
        """What must be said at one stage of the work (None: at any) on a line of one service."""
        known = self.services.get(service)
        said = [self.cautions[name] for name in known.cautions] if known else []
        return tuple(caution for caution in said if stage is None or stage in caution.stages)

    @property
    def likeness(self) -> Likeness:
        """How near two threads must be to be taken for one another."""
        return Likeness(
            diameter_mm=self.limits["alike_mm"].value,
            diameter_share=self.limits["alike_share"].value,
            pitch_share=self.limits["alike_pitch"].value,
            tell_mm=self.limits["tell_mm"].value,
            tell_pitch=self.limits["tell_pitch"].value,
        )

    @property
    def wrench_band(self) -> WrenchBand:
        """How much a wrench may differ from a hex."""
        limits = self.limits
        return WrenchBand(
            exact=limits["wrench_exact"].value,
            least=limits["wrench_least"].value,
            most=limits["wrench_most"].value,
        )
