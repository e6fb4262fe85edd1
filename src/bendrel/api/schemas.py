"""Bodies of requests and errors that are not types of the core."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from annotated_types import Ge, MaxLen

from bendrel.catalogue.signs import Sign, load_signs
from bendrel.core.findings import Source
from bendrel.core.geometry.clips import Clip
from bendrel.core.line.condition import Reason, Urgency
from bendrel.core.line.document import Line, Name
from bendrel.core.line.rewrite import Entry
from bendrel.core.line.strip_down import StripDown
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.clearance import Clearance
from bendrel.core.parts.component import Component, ComponentFamily
from bendrel.core.parts.fitting import EndSize, Fitting, Flarer, Nut, Torque
from bendrel.core.parts.fluid import Fluid
from bendrel.core.parts.hose import Clamp, ClampKind, Hose, HoseClass
from bendrel.core.parts.hose_end import HoseEndKind
from bendrel.core.parts.kit import Body, Kit
from bendrel.core.parts.school import School
from bendrel.core.parts.seat import Seat
from bendrel.core.parts.service import Caution, Service
from bendrel.core.parts.single_use import SingleUse
from bendrel.core.parts.threads.designation import KnownThread, PipeThread
from bendrel.core.parts.threads.wrench import Wrench
from bendrel.core.parts.tool_kind import Bench, ToolKind
from bendrel.core.parts.tube import Material, Tube
from bendrel.core.plan.beginning import Beginning
from bendrel.core.record import record
from bendrel.core.units.notation import Unit
from bendrel.core.work.tools import Tool
from bendrel.services.job.jobs import JobDraft
from bendrel.services.job.kits import KitList
from bendrel.services.line.chains import ChainEdit
from bendrel.services.line.measuring import CopyOrder
from bendrel.services.mend.letting_in import LetInOrder
from bendrel.services.mend.splicing import MendOrder
from bendrel.services.proof.closings import SignDraft


@record
class NewLine:
    """A new line needs only a name; the rest is what is known when it is taken in."""

    name: Name
    service: Annotated[str, MaxLen(40)] = "brake"
    reasons: tuple[Reason, ...] = ()
    urgency: Urgency = "soon"
    begins: Beginning = Beginning()


@record
class StripDownChange:
    """A changed strip-down with the version that it was changed from."""

    version: int
    log: StripDown


@record
class JobChange:
    """A changed job with the version it was read at."""

    version: Annotated[int, Ge(1)]
    job: JobDraft


@record
class LineSave:
    """A changed line with the version it was read at."""

    version: Annotated[int, Ge(1)]
    document: Line


@record
class SignOrder:
    """A sign-off of a line as it was saved at a version."""

    version: Annotated[int, Ge(1)]
    sign_off: SignDraft


@record
class RunBegin:
    """A run to record; `absolute` says that the gauge counts from nothing, else from the air."""

    absolute: bool = False


@record
class RunMark:
    """A mark in a run that is on."""

    text: Annotated[str, MaxLen(80)]


@record
class AtVersion:
    """Undo or redo, from the version that the person sees."""

    version: Annotated[int, Ge(1)]


@record
class Conversion:
    """A line to be told in the other way of entry."""

    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    to: Entry


@record
class ChainOrder:
    """A line and one edit of its chain."""

    document: Line
    edit: ChainEdit


@record
class MendQuestion:
    """A line and the damage that is to be mended."""

    document: Line
    order: MendOrder


@record
class LetInQuestion:
    """A line and what is to be let into one of its tubes."""

    document: Line
    order: LetInOrder


@record
class MendChoice:
    """A line, the damage, and the way that is looked at."""

    document: Line
    order: MendOrder
    method: Annotated[str, MaxLen(40)]


@record
class TakesOut:
    """What a way of mending asks for, priced, and the tools for it."""

    list: KitList
    tools: tuple[Tool, ...]


@record
class MendDecision:
    """A line, the damage, and the way that a person has decided on."""

    document: Line
    order: MendOrder
    method: Annotated[str, MaxLen(40)]
    reason: Annotated[str, MaxLen(400)]


@record
class Copying:
    """Another line to be copied into a document; nothing is saved."""

    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    source: Annotated[str, MaxLen(40)]
    order: CopyOrder


@record
class OtherRadius:
    """A line to be made with another radius; blank is the bender's own."""

    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    radius: Annotated[str, MaxLen(40)] = ""


@record
class DrawingOrder:
    """A line to be drawn."""

    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    view: Literal["free", "from A", "from B", "above"] = "free"


@record
class ShapeFile:
    """A points or bend CSV, a DXF or a line document, as text, to be read into a line. `unit` is what
    its figures are in, where the file does not say or says it wrong."""

    text: Annotated[str, MaxLen(4_100_000)]
    document: Line
    span: Annotated[str, MaxLen(20)] = ""
    radius: Annotated[str, MaxLen(40)] = ""
    unit: Unit | None = None


@record
class Imported:
    """What a file was understood as; nothing is saved yet."""

    document: Line
    understood: str


@record
class NamedAdvice:
    """A rule in words."""

    id: str
    text: str
    source: Source


@record
class NamedLimit:
    """A number that rules compare with."""

    id: str
    value: float
    source: Source


@record
class CatalogueOut:
    """The rows that can be chosen, and the rules with their sources; `stands_in` has the sizes that are
    used for one another, `joints` the names of what joins two pieces, `signs` what components are drawn
    as."""

    rules_version: str
    signs: tuple[Sign, ...]
    joints: dict[str, str]
    components: tuple[Component, ...]
    component_families: tuple[ComponentFamily, ...]
    materials: tuple[Material, ...]
    tubes: tuple[Tube, ...]
    stands_in: dict[str, tuple[str, ...]]
    benders: tuple[Bender, ...]
    tool_kinds: tuple[ToolKind, ...]
    flarers: tuple[Flarer, ...]
    bench: Bench
    fittings: tuple[Fitting, ...]
    end_sizes: tuple[EndSize, ...]
    nuts: tuple[Nut, ...]
    torques: tuple[Torque, ...]
    clips: tuple[Clip, ...]
    clearances: tuple[Clearance, ...]
    single_use: SingleUse
    seats: tuple[Seat, ...]
    bodies: tuple[Body, ...]
    threads: tuple[KnownThread, ...]
    pipes: tuple[PipeThread, ...]
    wrenches: tuple[Wrench, ...]
    hose_classes: tuple[HoseClass, ...]
    hoses: tuple[Hose, ...]
    hose_ends: tuple[HoseEndKind, ...]
    clamp_kinds: tuple[ClampKind, ...]
    clamps: tuple[Clamp, ...]
    fluids: tuple[Fluid, ...]
    services: tuple[Service, ...]
    cautions: tuple[Caution, ...]
    schools: tuple[School, ...]
    preferences: dict[str, str]
    own_figures: dict[str, float]
    ways_version: int
    limits: tuple[NamedLimit, ...]
    advice: tuple[NamedAdvice, ...]


def catalogue_of(kit: Kit, ways_version: int) -> CatalogueOut:
    """The catalogue of `kit` as the screens ask for it."""
    return CatalogueOut(
        rules_version=kit.rules_version,
        signs=tuple(load_signs().values()),
        joints={joint.id: joint.name for joint in kit.joints.values()},
        components=tuple(kit.components.values()),
        component_families=tuple(kit.component_families.values()),
        materials=tuple(kit.materials.values()),
        tubes=tuple(kit.tubes.values()),
        stands_in=kit.stands_in,
        benders=tuple(kit.benders.values()),
        tool_kinds=tuple(kit.tool_kinds.values()),
        flarers=tuple(kit.flarers.values()),
        bench=kit.bench,
        fittings=tuple(kit.fittings.values()),
        end_sizes=tuple(kit.end_sizes.values()),
        nuts=tuple(kit.nuts.values()),
        torques=tuple(kit.torques.values()),
        clips=kit.clips,
        clearances=tuple(kit.clearances.values()),
        single_use=kit.single_use,
        seats=tuple(kit.seats.values()),
        bodies=tuple(kit.bodies.values()),
        threads=tuple(kit.threads.values()),
        pipes=tuple(kit.pipes.values()),
        wrenches=kit.wrenches,
        hose_classes=tuple(kit.hose_classes.values()),
        hoses=tuple(kit.hoses.values()),
        hose_ends=tuple(kit.hose_ends.values()),
        clamp_kinds=tuple(kit.clamp_kinds.values()),
        clamps=tuple(kit.clamps.values()),
        fluids=tuple(kit.fluids.values()),
        services=tuple(kit.services.values()),
        cautions=tuple(kit.cautions.values()),
        schools=tuple(kit.schools.values()),
        preferences=dict(kit.preferences),
        own_figures=dict(kit.own_figures),
        ways_version=ways_version,
        limits=tuple(NamedLimit(id=k, value=v.value, source=v.source) for k, v in kit.limits.items()),
        advice=tuple(NamedAdvice(id=k, text=v.text, source=v.source) for k, v in kit.advice.items()),
    )


@record
class ErrorOut:
    """Every refusal: one sentence; a stale write also carries what is stored now."""

    message: str
    field: str | None = None
    version: int | None = None
    current: dict[str, Any] | None = None
