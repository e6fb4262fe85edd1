"""What a line carries, how hard it is pressed, what must always be said, and how it is proved."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Gt

from bendrel.core.findings import Source
from bendrel.core.parts.rule_names import LimitName
from bendrel.core.record import record
from bendrel.core.words import a_or_an

WorkStage = Literal["remove", "make", "fit", "prove"]
"""The stages of the work at which something must be said."""

WORK_STAGES: tuple[WorkStage, ...] = ("remove", "make", "fit", "prove")


@record
class Caution:
    """What must be said, and the stages at which it matters."""

    id: str
    text: str
    stages: tuple[WorkStage, ...]
    source: Source


@record
class Start:
    """What a new line of a service begins with: the tube's size and the end type, in inches and in
    metric measures."""

    inch: str
    metric: str
    end_inch: str
    end_metric: str


@record
class Duty:
    """The usual working conditions of a service: pressures in kPa above the air (below it for
    `vacuum`), temperatures in °C, flow in L/min. `fluid` is what it usually carries, `families` what
    may go in, `made_for` what its seals can be made for (the same, where that is one thing);
    `velocity_mps` is the usual guide, 0 where there is none.

    `open` says that it stands open to the air. `available_kpa` may be lost between source and sink and
    `least_lpm` is what the consumer needs hot, by `flow_source`; 0 where neither is asked. Above
    `most_kpa` (0: no bound) the line belongs to another service, as `most_text` says.
    """

    working_kpa: Annotated[float, Gt(0)]
    test_kpa: Annotated[float, Gt(0)]
    design_factor: Annotated[float, Ge(1)]
    hot_c: float
    cold_c: float
    fluid: str
    families: tuple[str, ...]
    flow_lpm: Annotated[float, Ge(0)]
    velocity_mps: Annotated[float, Ge(0)]
    vacuum: bool
    source: Source
    open: bool = False
    available_kpa: Annotated[float, Ge(0)] = 0.0
    least_lpm: Annotated[float, Ge(0)] = 0.0
    flow_source: Source | None = None
    most_kpa: Annotated[float, Ge(0)] = 0.0
    most_text: str = ""
    made_for: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        if not self.made_for:
            object.__setattr__(self, "made_for", self.families)


@record
class Service:
    """A service with its duty (None while nobody has said what the line carries), the ids of the cautions
    that always go with it. `flat` names the rule for flattened bends
    where the service has one of its own, `hose_class` the hose that a new piece starts with.

    `like` names the service whose verdicts hold where this one has none; `left_to` says who does the
    work where it is not made here, blank where it is. `suction` says that a pump draws through it.
    """

    id: str
    name: str
    safety_critical: bool
    cautions: tuple[str, ...]
    source: Source
    hose_class: str
    flat: LimitName | Literal[""] = ""
    like: str = ""
    left_to: str = ""
    suction: bool = False
    start: Start | None = None
    duty: Duty | None = None

    @property
    def a_line(self) -> str:
        """A line of it in words: an engine-oil cooler line."""
        return a_or_an(f"{self.name} line")
