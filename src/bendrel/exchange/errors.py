"""What goes wrong with a file."""

from __future__ import annotations

from bendrel.core.errors import BendrelError


class FileError(BendrelError, ValueError):
    """A file that cannot be used. The text is one sentence for the person."""
