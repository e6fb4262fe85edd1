"""Everything the plan may look up: the catalogue's rows as typed objects."""

from __future__ import annotations

from collections.abc import Mapping

from bendrel.core.bending.bender import Bender
from bendrel.core.ends.fitting import Fitting, FlareSize, Nut
from bendrel.core.findings import Source
from bendrel.core.record import record
from bendrel.core.removal.advice import RemovalRule
from bendrel.core.removal.log import SingleUse
from bendrel.core.repair.recommend import Argument
from bendrel.core.service import Service
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
class Kit:
    """Materials, tubes, tools, ends and rules by id. `rules_version` stamps what is printed."""

    rules_version: str
    materials: Mapping[str, Material]
    tubes: Mapping[str, Tube]
    benders: Mapping[str, Bender]
    fittings: Mapping[str, Fitting]
    flare_sizes: Mapping[tuple[str, str], FlareSize]
    nuts: Mapping[str, Nut]
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

    def benders_for(self, size: str) -> tuple[Bender, ...]:
        """Benders set up for one tube size, in catalogue order."""
        return tuple(b for b in self.benders.values() if b.size == size)
