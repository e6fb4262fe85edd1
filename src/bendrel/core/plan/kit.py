"""Everything the plan may look up: the catalogue's rows as typed objects."""

from __future__ import annotations

from collections.abc import Mapping

from bendrel.core.bending.bender import Bender
from bendrel.core.bending.body import Bench, ToolKind
from bendrel.core.bending.calibration import Calibration, calibrated
from bendrel.core.ends.fitting import EndSize, Fitting, Flarer, Nut
from bendrel.core.findings import Source
from bendrel.core.fitup.exactness import Spread
from bendrel.core.fluids.fluid import Fluid
from bendrel.core.hose.hose import Clamp, ClampKind, Hose, HoseClass
from bendrel.core.joints.school import School
from bendrel.core.joints.seat import Seat
from bendrel.core.joints.verdict import Joint, Of, Verdict, Verdicts
from bendrel.core.record import record
from bendrel.core.removal.advice import RemovalRule
from bendrel.core.removal.log import SingleUse
from bendrel.core.repair.recommend import Argument
from bendrel.core.service import Service
from bendrel.core.threads.designation import KnownThread, PipeThread, Thread, parse_thread
from bendrel.core.threads.lookalikes import Likeness
from bendrel.core.threads.wrench import Wrench, WrenchBand
from bendrel.core.tube.material import Material, Tube


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
    what is printed; `preferences` are the shop's answers where schools differ; `calibrations`
    what test pieces told of a bender in a material, `spread` how exactly this shop bends."""

    rules_version: str
    materials: Mapping[str, Material]
    tubes: Mapping[str, Tube]
    benders: Mapping[str, Bender]
    tool_kinds: Mapping[str, ToolKind]
    bench: Bench
    flarers: Mapping[str, Flarer]
    fittings: Mapping[str, Fitting]
    end_sizes: Mapping[tuple[str, str], EndSize]
    nuts: Mapping[str, Nut]
    seats: Mapping[str, Seat]
    bodies: Mapping[str, Body]
    pipes: Mapping[str, PipeThread]
    threads: Mapping[str, KnownThread]
    wrenches: tuple[Wrench, ...]
    hose_classes: Mapping[str, HoseClass]
    hoses: Mapping[str, Hose]
    clamp_kinds: Mapping[str, ClampKind]
    clamps: Mapping[str, Clamp]
    fluids: Mapping[str, Fluid]
    joints: Mapping[str, Joint]
    verdicts: Verdicts
    schools: Mapping[str, School]
    preferences: Mapping[str, str]
    calibrations: Mapping[tuple[str, str], Calibration]
    spread: Spread
    services: Mapping[str, Service]
    advice: Mapping[str, Advice]
    limits: Mapping[str, Limit]
    arguments: tuple[Argument, ...]
    removal: Mapping[str, RemovalRule]
    pan_share: Limit
    single_use: SingleUse

    @property
    def least_engagement(self) -> float:
        """Share of a proper thread's depth below which two threads of one pitch do not hold."""
        return self.limits["least_engagement"].value

    def nuts_for(self, fitting: str, size: str) -> tuple[Nut, ...]:
        """Nuts made for one end type and tube size, the usual one first."""
        return tuple(n for n in self.nuts.values() if n.fitting == fitting and n.size == size)

    def benders_for(self, size: str, *, plastic: bool = False) -> tuple[Bender, ...]:
        """Benders set up for one tube size of metal (or of plastic), in catalogue order."""
        return tuple(b for b in self.benders.values() if b.size == size and b.plastic == plastic)

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
        return parse_thread(text, self.pipes)

    def verdict(self, of: Of, item: str, service: str) -> Verdict | None:
        """What is said of one row in one service; None where nobody has said what the line carries."""
        return self.verdicts.get((of, item, service))

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
        exact, least, most = (self.limits[f"wrench_{name}"].value for name in ("exact", "least", "most"))
        return WrenchBand(exact=exact, least=least, most=most)
