"""Where an end B lies beside its port or its drawing, as a person types it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from bendrel.core.measure.landing import EndBeside
from bendrel.core.record import record
from bendrel.core.units.lengths import Text
from bendrel.core.units.notation import PlaneSchool, Unit, UnitError, parse_length, parse_plane, parse_tilt

LandingField = Literal["along", "off", "off_clock", "tilt", "tilt_clock"]
TOUCHES = ("touches", "touch", "home")
MOST_LEAN_DEG = 80.0


@record
class TypedLanding:
    """Blank where nothing was read. A length may be `touches`, or so many `tubes` (tube's thicknesses, told
    by eye). `along` is too long, or too short where `short` says so. Clocks are seen from A."""

    along: Text = ""
    short: bool = False
    off: Text = ""
    off_clock: Text = ""
    tilt: Text = ""
    tilt_clock: Text = ""
    plane_by: PlaneSchool = ""
    unit: Unit = "mm"


@record
class ByHand:
    """One standard deviation of what is read there: of a length (mm), of a lean (degrees), and of a length
    told by eye as a share of it."""

    mm: float
    deg: float
    eye_share: float


def read_landing(
    item: TypedLanding, by_hand: ByHand, od_mm: float, wrong: Callable[[LandingField, str], None]
) -> EndBeside:
    """What is typed as figures; what cannot be read is told to `wrong`, field and sentence, and left out.
    Raises nothing."""
    error = by_hand.mm

    def length(name: LandingField, text: str) -> float | None:
        nonlocal error
        if not text.strip():
            return None
        try:
            value, by_eye = _length(text, item.unit, od_mm)
        except UnitError as problem:
            wrong(name, str(problem))
            return None
        if by_eye:
            error = max(error, by_hand.eye_share * value)
        return value

    def clock(name: LandingField, text: str) -> float | None:
        if not text.strip():
            return None
        try:
            kind, turn = parse_plane(text, item.plane_by)
            if kind == "rotation" and item.plane_by != "degrees":
                raise UnitError(f"“{text.strip()}” is no clock; write it as seen from A, such as 3:00.")
            return turn
        except UnitError as problem:
            wrong(name, str(problem))
            return None

    along = length("along", item.along)
    off = length("off", item.off)
    tilt: float | None = None
    try:
        tilt = _lean(item.tilt)
    except UnitError as problem:
        wrong("tilt", str(problem))
    return EndBeside(
        along_mm=None if along is None else (-along if item.short else along),
        off_mm=off,
        off_clock_deg=0.0 if off == 0 else clock("off_clock", item.off_clock),
        tilt_deg=tilt,
        tilt_clock_deg=0.0 if tilt == 0 else clock("tilt_clock", item.tilt_clock),
        mm_error=error,
        deg_error=by_hand.deg,
    )


def _lean(text: str) -> float | None:
    said = text.strip().lower()
    if not said:
        return None
    lean = 0.0 if said in (*TOUCHES, "square") else parse_tilt(text)
    if lean > MOST_LEAN_DEG:
        raise UnitError(
            f"“{text.strip()}”: more than {MOST_LEAN_DEG:g}° is another part; write how far it leans."
        )
    return lean


def read_beside(text: str, unit: Unit, od_mm: float, by_hand: ByHand) -> tuple[float, float]:
    """How far beside, and one standard deviation, in mm. Raises UnitError."""
    value, by_eye = _length(text, unit, od_mm)
    return value, max(by_hand.mm, by_hand.eye_share * value) if by_eye else by_hand.mm


def _length(text: str, unit: Unit, od_mm: float) -> tuple[float, bool]:
    """(mm, told by eye)."""
    said = text.strip().lower()
    if said in TOUCHES:
        return 0.0, False
    number, _, word = said.partition(" ")
    if word in ("tube", "tubes"):
        return parse_length(number, "mm") * od_mm, True
    return parse_length(text, unit, "not_negative"), False
