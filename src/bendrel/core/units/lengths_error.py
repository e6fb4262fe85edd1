"""What is refused and speaks of lengths: they are said in the unit of whoever reads it."""

from __future__ import annotations

from bendrel.core.errors import BendrelError
from bendrel.core.units.notation import Unit, format_fine, format_length


class LengthsError(BendrelError):
    """A refusal whose sentence names its lengths in braces. As text it is in mm.

    Example:
        >>> LengthsError("{at} lies beyond the tube.", at=25.4).said("in")
        '1" lies beyond the tube.'
    """

    def __init__(self, sentence: str, **lengths_mm: float) -> None:
        """`sentence` with a brace for each of `lengths_mm`, in mm."""
        self.sentence = sentence
        self.lengths_mm = lengths_mm
        super().__init__(self.said("mm"))

    def said(self, unit: Unit) -> str:
        """The sentence with its lengths in `unit`."""
        if not self.lengths_mm:
            return self.sentence
        return self.sentence.format(**{name: _with_unit(mm, unit) for name, mm in self.lengths_mm.items()})


def said_in(error: Exception, unit: Unit) -> str:
    """What `error` says, its lengths in `unit` where it speaks of any."""
    return error.said(unit) if isinstance(error, LengthsError) else str(error)


def _with_unit(mm: float, unit: Unit) -> str:
    said = format_length(mm, unit)
    # what is too short by less than a shop's rule shows is still too short
    return said if said != format_length(0.0, unit) or not mm else format_fine(mm, unit)
