"""Ids inside a document: whatever is spoken of elsewhere in it has one, and it never changes."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Annotated, Any

from annotated_types import MaxLen, Predicate

from bendrel.core.errors import BendrelError

_PLAIN = re.compile(r"[A-Za-z0-9_-]*")


def plain(text: str) -> bool:
    """Letters, digits, hyphens and underscores alone: what can stand in a pointer, a file and a drawing."""
    return _PLAIN.fullmatch(text) is not None


Id = Annotated[str, MaxLen(20), Predicate(plain)]
LongId = Annotated[str, MaxLen(60), Predicate(plain)]
"""What is made of an id and a word, such as a step at a joint."""


class NotAChain(BendrelError, ValueError):
    """A document that is no chain. The text is one sentence for the person."""


def fill_ids(owner: Any, field: str, letter: str) -> None:
    """Give every item of a list that has none the next free id. Raises NotAChain for an id that is there
    twice."""
    items = getattr(owner, field)
    given = [item.id for item in items if item.id]
    if len(set(given)) != len(given):
        twice = next(name for name in given if given.count(name) > 1)
        raise NotAChain(f"The id “{twice}” is there twice among the {field}; each has its own.")
    if len(given) == len(items):
        return
    taken, number, filled = set(given), 0, []
    for item in items:
        if not item.id:
            number += 1
            while f"{letter}{number}" in taken:
                number += 1
            item = replace(item, id=f"{letter}{number}")
        filled.append(item)
    object.__setattr__(owner, field, tuple(filled))
