"""From the plan to what the hands do: the order of bends and how far to turn the tube.

A bender bends in one fixed plane, so a plane in the part becomes a turn of the tube. The turn is
the opposite of the rotation: to bring a bend that lies clockwise up to the tool, the tube goes
anticlockwise. Getting this wrong makes a mirror image.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import Literal

from bendrel.core.errors import BendrelError
from bendrel.core.findings import EndName
from bendrel.core.record import record
from bendrel.core.units.notation import normalised_turn

Sense = Literal["left", "right"]


@record
class Setting:
    """How one bend sits in the tool: which bend (0 is the one nearest end A), which end of the
    tube is on the clamped side, and which way the tool swings the other side."""

    bend: int
    held: EndName
    sense: Sense = "left"


def usual_order(count: int, held: EndName) -> tuple[Setting, ...]:
    """Every bend once, working away from the held end."""
    order = range(count) if held == "A" else range(count - 1, -1, -1)
    return tuple(Setting(bend=k, held=held) for k in order)


class OrderError(BendrelError, ValueError):
    """An order that cannot be followed. The text is one sentence for the person."""


def parse_order(text: str, count: int) -> tuple[Setting, ...]:
    """An order as written, such as "A1 A2 B4 B3": for each bend the end in the clamp and its number.

    Raises OrderError unless every one of `count` bends is named once.
    """
    found: list[Setting] = []
    for word in text.replace(",", " ").split():
        end, number = word[:1].upper(), word[1:]
        held: EndName | None = "A" if end == "A" else "B" if end == "B" else None
        if held is None or not (number.isascii() and number.isdigit()):
            raise OrderError(f"“{word[:12]}” is no step; write the end held and the bend, such as A1 or B3.")
        if not 1 <= int(number) <= count or any(s.bend == int(number) - 1 for s in found):
            raise OrderError(f"“{word[:12]}”: name each of the {count} bends once.")
        found.append(Setting(bend=int(number) - 1, held=held))
    if len(found) != count:
        raise OrderError(f"{len(found)} of {count} bends are named; name each of them once.")
    return tuple(found)


def written_order(settings: Sequence[Setting]) -> str:
    """An order as `parse_order` reads it."""
    return " ".join(f"{setting.held}{setting.bend + 1}" for setting in settings)


def tube_turns(clocks_deg: Sequence[float], settings: Sequence[Setting]) -> tuple[float, ...]:
    """How far to turn the tube before each bend, in degrees in (-180, 180].

    Positive is clockwise as seen looking from the held end along the tube. The first turn is 0.
    Between two bends it is −(C_next − C_previous) with end A held and the opposite sign with end
    B held. When the swinging side changes and the tool's sense does not, or the sense alone
    changes, the bend would fall on the other side of the tube: 180° more. A tube changed over
    is taken to be swung end for end flat in the bender's plane.
    Source: derived from the geometry of a rotary-draw bender; the tests carry it out literally.
    """
    turns = [0.0] * min(1, len(settings))
    for before, now in pairwise(settings):
        difference = clocks_deg[now.bend] - clocks_deg[before.bend]
        turn = -difference if now.held == "A" else difference
        if (before.held != now.held) != (before.sense != now.sense):
            turn += 180.0
        turns.append(normalised_turn(turn))
    return tuple(turns)
