"""Getting joints apart: what is done before, what is tried on one that will not come, how it ends."""

from __future__ import annotations

from typing import Literal

from bendrel.core.findings import Source
from bendrel.core.parts.proving import Closes
from bendrel.core.parts.removal import RemovalStep
from bendrel.core.record import record

ApartEnd = Literal["came undone", "came, damaged", "tube cut behind it", "left shut"]
"""How getting a joint apart ended."""


@record
class ApartWay:
    """One thing to try on a joint that closes in one of some ways; `warm` says that it takes warmth."""

    id: str
    closes: tuple[Closes, ...]
    text: str
    source: Source
    warm: bool = False


@record
class Ended:
    """What an end of an old line is, for replacing or splicing it, after it was worked on."""

    id: ApartEnd
    is_: Literal["comes undone", "seized"]


@record
class Apart:
    """All of it. `clean` comes before any joint, `shut` where a hose is clamped shut; no warmth goes near a
    line that holds one of the families in `burns`, which `no_warmth` says, nor near one of which nobody said
    what it holds (`unsaid`)."""

    clean: RemovalStep
    shut: tuple[RemovalStep, ...]
    ways: tuple[ApartWay, ...]
    ended: tuple[Ended, ...]
    burns: tuple[str, ...]
    no_warmth: str
    unsaid: str
