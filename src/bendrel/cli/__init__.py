"""The command line: the same core without the screen.

Bad input is one clear line on standard error and exit status 2.
"""

from bendrel.cli import shapes, lines, shop  # noqa: F401, I001 - they name their commands in the order of --help
from bendrel.cli.app import main

__all__ = ["main"]
