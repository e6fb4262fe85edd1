"""A flare as it came out, read at the bench."""

from __future__ import annotations

from typing import Annotated

from annotated_types import Ge, Le

from bendrel.core.findings import EndName
from bendrel.core.record import record
from bendrel.core.units.lengths import Text
from bendrel.core.units.notation import Unit


@record
class MadeFlare:
    """The flare of one end: what was read `across` its rim, as typed (blank where nothing was), a bare number
    of it in `unit`, and how often one failed and was cut off."""

    end: EndName
    across: Text = ""
    unit: Unit = "mm"
    failed: Annotated[int, Ge(0), Le(20)] = 0
