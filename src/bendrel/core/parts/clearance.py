"""How far a line keeps from what stands beside it, by what that is."""

from __future__ import annotations

from typing import Annotated

from annotated_types import Gt

from bendrel.core.findings import Source
from bendrel.core.record import record


@record
class Clearance:
    """One kind of thing beside a line: the least distance in mm, the harm that it does nearer, and the
    remedy. `stop` says that it is dangerous where the line can hurt somebody."""

    id: str
    name: str
    least_mm: Annotated[float, Gt(0)]
    harm: str
    remedy: str
    source: Source
    stop: bool = False
