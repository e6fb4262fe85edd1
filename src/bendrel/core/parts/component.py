"""Components as they are sold: what each of their two sides is, and what they stand."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Gt

from bendrel.core.findings import Source
from bendrel.core.record import record

SideKind = Literal["plug", "socket", "spigot"]
"""A plug seals in or over a seat as an end of tube does, a socket has the seat, a spigot goes into a hose."""
SpigotForm = Literal["plain", "bead", "barb"]
SPIGOT_FORMS: tuple[SpigotForm, ...] = ("plain", "bead", "barb")


@record
class ComponentSide:
    """One side. `of` is the end type that a plug seals as, the seat of a socket, or the form of a spigot;
    `thread` as designated, blank without; `on_mm` the diameter of a spigot or of the tube that goes in."""

    kind: SideKind
    of: str
    thread: str
    on_mm: Annotated[float, Gt(0)] | None


@record
class ComponentFamily:
    """What components are made of and for, in words."""

    id: str
    name: str
    source: Source


@record
class Component:
    """One component as it is sold. `what` is its kind, `family` what it is made of and for, by which the
    services judge it. `a` and `b` are its sides, the flow going from `a` to `b` where it goes `one_way`.
    `rated_kpa` and `highest_c` are what it stands, None where nobody says."""

    id: str
    what: str
    name: str
    family: str
    a: ComponentSide
    b: ComponentSide
    rated_kpa: Annotated[float, Gt(0)] | None
    highest_c: float | None
    one_way: bool
    source: Source
