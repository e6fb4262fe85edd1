"""What a hose is wetted with before it is pushed on: one answer for sheet, stage, bench and findings.

Source: common practice; the fluid's own row says what goes with it.
"""

from __future__ import annotations

from bendrel.core.parts.fluid import Fluid
from bendrel.core.record import record

_WHY = {
    "own": "It slides on without tearing; grease swells rubber.",
    "oil": "Petrol on a hose that is pushed on is a fire; oil of the engine harms neither.",
    "dry": "What is smeared in stays in, and a hose that nothing presses on creeps off it.",
    "unsaid": "What goes in must suit what it carries.",
}
_SMEAR = {
    "own": "a smear of the system's own fluid",
    "oil": "a smear of clean engine oil, never petrol",
    "dry": "nothing: it is pushed on dry",
    "unsaid": "nothing until it is said what the line carries",
}


@record
class Wetting:
    """What is smeared on in words, and why; `dry` where nothing is."""

    smear: str
    why: str
    dry: bool


def wetting(fluid: Fluid | None) -> Wetting:
    """What goes on a hose of a line that carries `fluid` (None: nobody has said)."""
    way = "unsaid" if fluid is None else fluid.wets
    return Wetting(smear=_SMEAR[way], why=_WHY[way], dry=way in ("dry", "unsaid"))
