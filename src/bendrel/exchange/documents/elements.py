"""How many values a JSON text holds, told before any of them is built."""

from __future__ import annotations

import re

MOST_IN_A_LINE = 40_000
"""A line of 200 bends has about 4,500."""
MOST_IN_A_JOB = 600_000
_TEXT = re.compile(rb'"(?:[^"\\]++|\\.?)*+(?:"|\Z)', re.DOTALL)
_BEGINS = (b",", b"[", b"{")


def holds_over(data: bytes, most: int) -> bool:
    """Whether a JSON text holds over `most` values. Linear in its length, whatever it is."""
    if sum(data.count(mark) for mark in _BEGINS) <= most:
        return False
    bare = _TEXT.sub(b"", data)  # marks within text are text
    return sum(bare.count(mark) for mark in _BEGINS) > most
