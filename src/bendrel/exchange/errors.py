"""What goes wrong with a file."""

from __future__ import annotations


class FileError(ValueError):
    """A file that cannot be used. The text is one sentence for the person."""
