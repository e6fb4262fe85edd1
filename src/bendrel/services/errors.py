"""What a use case can refuse. Every text is one sentence for the person."""

from __future__ import annotations

from typing import Any

from bendrel.core.errors import BendrelError
from bendrel.store.database import Busy, NoRoom

__all__ = [
    "Busy",
    "Crowded",
    "GivenUp",
    "NoRoom",
    "NotFound",
    "Refused",
    "Stale",
    "TooMuch",
    "Unreadable",
    "check_name",
]


class NotFound(BendrelError, LookupError):
    """No such job or line, or it has been deleted."""


class Refused(BendrelError, ValueError):
    """The request makes no sense as it stands."""


class Unreadable(Refused):
    """What is kept of a line cannot be read. It can be exported as it is, or a good step brought back."""


class TooMuch(Refused):
    """It cannot be answered within the limits of time and memory."""


class GivenUp(BendrelError, RuntimeError):
    """Nobody waits for the answer any more: a newer request has taken its place."""


class Crowded(BendrelError, RuntimeError):
    """Too much is being worked on already; trying again helps."""


class Stale(BendrelError, RuntimeError):
    """Somebody else saved first. Carries what is stored now, so that nothing is lost."""

    def __init__(self, message: str, version: int, current: dict[str, Any]) -> None:
        super().__init__(message)
        self.version = version
        self.current = current


def check_name(name: str) -> None:
    """Raises Refused for a name of spaces alone."""
    if not name.strip():
        raise Refused("A name is needed; spaces alone are none.")
