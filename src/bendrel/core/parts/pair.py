"""What an end does to the tube it is put on: pairs of end and material that do not go, or need care."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from bendrel.core.findings import Source
from bendrel.core.record import record

PairNeed = Literal["insert"]
"""What makes a pair right that does not go without it."""


@record
class Pair:
    """What is said of `ends` on tube of `materials`. With what it `needs` the pair is right."""

    ends: tuple[str, ...]
    materials: tuple[str, ...]
    verdict: Literal["caution", "refused"]
    reason: str
    source: Source
    needs: PairNeed | None = None


def index_pairs(rows: Iterable[Pair]) -> dict[tuple[str, str], Pair]:
    """The rows by (end, material). Raises ValueError when two rows say something of the same."""
    found: dict[tuple[str, str], Pair] = {}
    for row in rows:
        for end in row.ends:
            for material in row.materials:
                if (end, material) in found:
                    raise ValueError(f"Two rows on {end} on {material}.")
                found[end, material] = row
    return found
