"""Test pieces as typed, and what they tell of a tool."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import Annotated

from annotated_types import MaxLen

from bendrel.core.bend.told.doubt import prior_of
from bendrel.core.bend.tool.calibration import (
    Trial,
    blank_piece,
    calibrate,
    names_of,
    next_piece,
    prediction_sd,
)
from bendrel.core.measure.legs import HOOKED_DEG
from bendrel.core.parts.bender import Bender
from bendrel.core.parts.calibration import Calibration, ReadingName
from bendrel.core.parts.kit import Kit
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, UnitError, parse_angle, parse_length
from bendrel.services.errors import Refused

TrialFields = dict[Annotated[str, MaxLen(20)], Annotated[str, MaxLen(40)]]

NAMES = {
    "cut": "Cut length",
    "mark": "Mark",
    "dial": "Dial",
    "leg_a": "Leg on the clamped side",
    "leg_b": "Leg on the free side",
    "angle": "Angle",
    "width": "Width of the U",
}
READINGS: dict[ReadingName, str] = {"leg A": "leg_a", "leg B": "leg_b", "angle": "angle", "width": "width"}
MOST_TRIALS = 40


@record
class KeptTrial:
    """One test piece as it is kept. `fields` are as typed, bare figures in `unit`."""

    id: str
    bender: str
    material: str
    fields: TrialFields
    unit: Unit = "mm"


@record
class JudgedTrial:
    """A kept piece with the readings that do not agree with the rest, in words."""

    trial: KeptTrial
    odd: tuple[str, ...]


@record
class ToolCard:
    """A tool in one material: its pieces, what they tell (None without any), the piece that would tell
    most next, which readings that one takes, and whether its legs are read over the back. The doubts are
    two standard deviations of a leg and the angle of the next 90° bend, by what is known now."""

    bender: Bender
    material: str
    material_name: str
    trials: tuple[JudgedTrial, ...]
    calibration: Calibration | None
    next: Trial
    next_takes: tuple[str, ...]
    next_hooked: bool
    leg_doubt_mm: float
    angle_doubt_deg: float


def read_trial(fields: Mapping[str, str], unit: Unit) -> Trial:
    """A piece from what was typed. Raises Refused, naming the field."""

    def length(name: str, *, needed: bool) -> float | None:
        text = fields.get(name, "")
        if not text.strip() and not needed:
            return None
        try:
            return parse_length(text, unit)
        except UnitError as error:
            raise Refused(f"{NAMES[name]}: {error}") from error

    def angle(name: str, *, needed: bool) -> float | None:
        text = fields.get(name, "")
        if not text.strip() and not needed:
            return None
        try:
            return parse_angle(text)
        except UnitError as error:
            raise Refused(f"{NAMES[name]}: {error}") from error

    trial = Trial(
        cut_mm=length("cut", needed=True) or 0.0,
        mark_mm=length("mark", needed=True) or 0.0,
        dial_deg=angle("dial", needed=True) or 0.0,
        leg_a_mm=length("leg_a", needed=False),
        leg_b_mm=length("leg_b", needed=False),
        angle_deg=angle("angle", needed=False),
        width_mm=length("width", needed=False),
    )
    if trial.mark_mm >= trial.cut_mm:
        raise Refused("Mark: it must lie on the piece, short of its cut length.")
    if all(v is None for v in (trial.leg_a_mm, trial.leg_b_mm, trial.angle_deg, trial.width_mm)):
        raise Refused("Read at least one leg, the angle, or the width of a U.")
    return trial


@record
class BentAngle:
    """An angle read off a bend of a part that is finished: with which bender, in which material, what the
    dial was to show and what it read."""

    bender: str
    material: str
    dial_deg: float
    angle_deg: float


MOST_BENT = 60
"""So many of the angles of finished parts, the latest, teach a tool."""


def calibrations_of(
    kit: Kit, kept: Iterable[KeptTrial], bent: Iterable[BentAngle] = ()
) -> dict[tuple[str, str], Calibration]:
    """What the kept pieces tell, by bender and material; a piece that cannot be read any more is left
    out. The angles of finished parts go on teaching a tool that has pieces."""
    taught: dict[tuple[str, str], list[Trial]] = {}
    for item in bent:
        taught.setdefault((item.bender, item.material), []).append(
            Trial(
                cut_mm=1000.0,
                mark_mm=500.0,
                dial_deg=item.dial_deg,
                leg_a_mm=None,
                leg_b_mm=None,
                angle_deg=item.angle_deg,
            )
        )
    by_tool: dict[tuple[str, str], list[Trial]] = {}
    for trial in kept:
        bender = kit.benders.get(trial.bender)
        if bender is None or bender.radius_mm is None or trial.material not in kit.materials:
            continue
        try:
            by_tool.setdefault((trial.bender, trial.material), []).append(
                read_trial(trial.fields, trial.unit)
            )
        except Refused:
            continue
    return {
        tool: replace(
            calibrate(
                [*pieces, *taught.get(tool, [])[-MOST_BENT:]],
                kit.benders[tool[0]].od_mm,
                prior_of(kit, kit.benders[tool[0]], tool[1]),
            ),
            pieces=len(pieces),
        )
        for tool, pieces in by_tool.items()
    }


def tool_card(kit: Kit, bender_id: str, material: str, kept: Iterable[KeptTrial]) -> ToolCard:
    """Everything about one tool in one material. Raises Refused."""
    bender = kit.benders.get(bender_id)
    if bender is None or material not in kit.materials:
        raise Refused("Choose a bender and a material that are listed.")
    if bender.radius_mm is None:
        raise Refused("This bender takes the radii of the file; there is nothing to calibrate.")
    prior = prior_of(kit, bender, material)
    own: list[KeptTrial] = []
    pieces: list[Trial] = []
    unread: list[JudgedTrial] = []
    for trial in kept:
        if (trial.bender, trial.material) != (bender_id, material):
            continue
        try:
            pieces.append(read_trial(trial.fields, trial.unit))
            own.append(trial)
        except Refused as error:
            unread.append(JudgedTrial(trial=trial, odd=(f"Left out of the reckoning. {error}",)))
    found = calibrate(pieces, bender.od_mm, prior)
    square = prediction_sd(found, blank_piece(bender, 90.0), bender.od_mm)
    following = next_piece(bender, found, pieces, prior)
    return ToolCard(
        bender=bender,
        material=material,
        material_name=kit.materials[material].name,
        trials=(
            *(JudgedTrial(trial=trial, odd=tuple(_odd(found, k))) for k, trial in enumerate(own)),
            *unread,
        ),
        calibration=found if own else None,
        next=following,
        next_takes=tuple(READINGS[name] for name in names_of(following)),
        next_hooked=following.dial_deg >= HOOKED_DEG,
        leg_doubt_mm=2 * max(square["leg A"][1], square["leg B"][1]),
        angle_doubt_deg=2 * square["angle"][1],
    )


def _odd(found: Calibration, index: int) -> Iterable[str]:
    for odd in found.odd:
        if odd.piece == index:
            name, unit = NAMES[READINGS[odd.reading]], "°" if odd.reading == "angle" else " mm"
            yield f"{name} does not agree with the rest, by about {abs(odd.off):.1f}{unit}: read it again."
            return  # the worst one; it drags the others of its piece along
