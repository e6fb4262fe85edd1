"""What an owner is told, in words of every day."""

from __future__ import annotations

from collections.abc import Mapping

from bendrel.core.record import record


@record
class OwnerWords:
    """Why a line was worked on, what that came from ("" where nobody knows), and what the old part that stays
    was seen to be, by what was noted."""

    reasons: Mapping[str, str]
    causes: Mapping[str, str]
    rest: Mapping[str, str]
