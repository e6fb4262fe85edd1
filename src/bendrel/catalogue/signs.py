"""Our own signs of the kinds of component, for screen, drawing and paper alike."""

from __future__ import annotations

from functools import cache

from pydantic import TypeAdapter

from bendrel.catalogue.loader import toml_file
from bendrel.core.findings import Source
from bendrel.core.line.document import ComponentKind
from bendrel.core.record import record

Pair = tuple[float, float]


@record
class SignLine:
    """One line of a sign; a closed one is filled."""

    points: tuple[Pair, ...]
    closed: bool = False
    dashed: bool = False


@record
class Sign:
    """The sign of one kind of component, in a box 40 wide and 28 high about its middle, y downwards.
    `circle` is its middle and radius."""

    what: ComponentKind
    source: Source
    lines: tuple[SignLine, ...]
    circle: tuple[float, float, float] | None = None


@cache
def load_signs() -> dict[ComponentKind, Sign]:
    """Every sign by its kind. Raises pydantic.ValidationError where the data file is not as it should be."""
    signs = TypeAdapter(tuple[Sign, ...]).validate_python(toml_file("signs.toml")["sign"])
    return {sign.what: sign for sign in signs}
