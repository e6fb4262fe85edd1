"""What a line carries, how hard it is pressed, and what must always be said."""

from __future__ import annotations

from typing import Annotated

from annotated_types import Ge, Gt

from bendrel.core.findings import Source
from bendrel.core.record import record


@record
class Duty:
    """The usual working conditions of a service: pressures in kPa above the air (below it for
    `vacuum`), temperatures in °C, flow in L/min. `fluid` is what it usually carries, `families` what
    may go in; `velocity_mps` is the usual guide, 0 where there is none."""

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


@record
class Service:
    """A service with its duty (None while nobody has said what the line carries), the cautions that
    always go with it, and how it is proved. `flat` names the rule for flattened bends where the
    service has one of its own, `hose_class` the hose that a new piece starts with."""

    id: str
    name: str
    safety_critical: bool
    cautions: tuple[str, ...]
    tests: tuple[str, ...]
    source: Source
    hose_class: str
    flat: str = ""
    duty: Duty | None = None
