"""A hose as it is made or bought: its ends, its lengths, how two elbows stand to each other, the steps."""

from __future__ import annotations

from bendrel.core.findings import EndName, Source
from bendrel.core.geometry.vectors import scale
from bendrel.core.hose.laid import LaidHose
from bendrel.core.joints.hose_ends import end_kind_of
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.line.run import ENDS
from bendrel.core.parts.hose_end import (
    EndAngle,
    HoseEndKind,
    HoseEndSize,
    turned_off_deg,
)
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.step import Step
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length

_BOTH_WAYS = 0.5


@record
class HoseEndMade:
    """One end of a hose: its angle, what it adds to the length and how far its seat stands off the hose's
    axis, None while there are no figures. `turned_deg` is the angle that port and hose stand at, None
    while not said."""

    end: EndName
    angle: EndAngle
    takes_mm: float | None
    stands_out_mm: float | None
    turned_deg: float | None


@record
class Assembly:
    """A hose as made or bought. `kind` is that of its ends, None where nobody makes one; `dash` its size.
    `overall_mm` runs from seat to seat (of an angled end to where the axes cross), `cut_mm` is the hose
    alone; None while no length is known. `shorter_mm` and `longer_mm` are what pressure takes and gives.
    `clock_deg` is None where it is not known or nothing is to be clocked; `clocked` says that there are
    two elbows."""

    span: str
    kind: str | None
    name: str
    dash: int | None
    nut: str
    ends: tuple[HoseEndMade, HoseEndMade]
    overall_mm: float | None
    cut_mm: float | None
    shorter_mm: float | None
    longer_mm: float | None
    clocked: bool
    clock_deg: float | None
    clock_text: str
    steps: tuple[Step, ...]
    source: Source


def assembly_of(kit: Kit, hose: PlacedHose, laid: LaidHose | None, unit: Unit, *, wets: str) -> Assembly:
    """How one hose is made; `wets` is what may be smeared on where it is pushed on."""
    kind = end_kind_of(kit, hose)
    size = kind.size_for(hose.hose.size) if kind else None
    ends = (
        _end(hose, "A", hose.piece.angle_a, size, laid),
        _end(hose, "B", hose.piece.angle_b, size, laid),
    )
    overall, cut = hose.length_mm, hose.cut_mm
    clocked = hose.piece.angle_a != 0 and hose.piece.angle_b != 0
    clock = (hose.clock_deg if laid is None else laid.clock_deg) if clocked else None
    text = clock_text(clocked, clock)
    pressed = 0.0 if hose.piece.joined == "clamps" else (cut or 0.0)
    made = kind.steps if kind else ()
    words = _words(kit, hose, kind, unit, overall, cut, clock=text, wets=wets)
    return Assembly(
        span=hose.piece.id,
        kind=kind.id if kind else None,
        name=kind.name if kind else "",
        dash=size.dash if size else None,
        nut=kit.nut_by_dash(size.dash) if size and kind and kind.nut else "",
        ends=ends,
        overall_mm=overall,
        cut_mm=cut,
        shorter_mm=pressed * kit.limits["hose_shrinks"].value if pressed else None,
        longer_mm=pressed * kit.limits["hose_grows"].value if pressed else None,
        clocked=clocked,
        clock_deg=clock,
        clock_text=text,
        steps=tuple(
            Step(id=step.id, stage="make", kind="hose", text=step.text.format_map(words), why=step.why)
            for step in made
            if step.id != "clock" or clocked
        ),
        source=kind.source if kind else hose.hose.source,
    )


def clock_text(clocked: bool, clock: float | None) -> str:
    """How two elbows stand to each other, for a person holding the hose."""
    if not clocked:
        return "Nothing to clock: at least one end is straight."
    if clock is None:
        return (
            "Fit both ends loosely on the machine, mark hose and socket across, take it off and tighten it "
            "to the marks."
        )
    hold = "Hold the hose with end A toward you, its elbow up. Looking along it, the elbow of end B points "
    if min(clock, 360.0 - clock) < _BOTH_WAYS:
        return f"{hold}up too."
    hours = clock / 30.0
    whole, minutes = int(hours) or 12, round((hours - int(hours)) * 60)
    if minutes == 60:
        whole, minutes = whole % 12 + 1, 0
    way = f"{clock:.0f}° clockwise" if clock <= 180 else f"{360 - clock:.0f}° anticlockwise"
    return f"{hold}to {whole}:{minutes:02d} ({way})."


def _end(
    hose: PlacedHose,
    end: EndName,
    angle: EndAngle,
    size: HoseEndSize | None,
    laid: LaidHose | None,
) -> HoseEndMade:
    turned = None if laid is None or hose.piece.joined == "clamps" else turned_deg(laid, end)
    return HoseEndMade(
        end=end,
        angle=angle,
        takes_mm=hose.takes_mm[ENDS.index(end)],
        stands_out_mm=size.stands_out_mm(angle) if size else None,
        turned_deg=turned,
    )


def turned_deg(laid: LaidHose, end: EndName) -> float | None:
    """The angle that the port and the hose stand at, which its end must have; None while the port's way
    is not said."""
    # away from the hose: back along it at end A, on along it at end B
    seat, away = (laid.seat_a, scale(laid.ends.a.way, -1.0)) if end == "A" else (laid.seat_b, laid.ends.b.way)
    return None if seat is None else turned_off_deg(away, seat)


def _words(
    kit: Kit,
    hose: PlacedHose,
    kind: HoseEndKind | None,
    unit: Unit,
    overall: float | None,
    cut: float | None,
    *,
    clock: str,
    wets: str,
) -> dict[str, str]:
    """What the words of a step stand for here."""

    def said(mm: float | None, unknown: str) -> str:
        return unknown if mm is None else format_length(mm, unit)

    clamp = hose.clamp
    clamps = "no clamp is chosen yet"
    if clamp is not None:
        one, name = hose.piece.clamps_each == 1, kit.clamp_kinds[clamp.kind].name
        clamps = f"{'one' if one else 'two'} {name}{'' if one else 's'} of {clamp.name} mm at each end"
    warm = any(side.fit.push == "warm" for side in hose.ends)
    seats = "Clamps sit behind the bead, clear of the hose's end by a few millimetres"
    if hose.piece.clamps_each == 2:
        seats += "; two stand apart, their screws on opposite sides"
    return {
        "cut": said(cut, "to the length that is found on the machine"),
        "overall": said(overall, "as measured on the machine"),
        "gap": format_length(kind.gap_mm, unit) if kind else "",
        "clock": clock,
        "wet": wets,
        "clamps": clamps,
        "overlap": _laps(hose, unit),
        "seats": f"{seats}.",
        "both": _both_ways(hose, cut, unit),
        "warm": "Warm the end in hot water or warm air, away from the machine; never with a flame."
        if warm
        else "If it is stiff, warm the end in hot water, away from the machine; never with a flame.",
    }


def _laps(hose: PlacedHose, unit: Unit) -> str:
    """How far it is pushed on, at both ends where that differs."""
    told = [format_length(lap.mm, unit) for lap in hose.laps if lap is not None]
    if len(set(told)) < 2:
        return told[0] if told else ""
    return f"{told[0]} at end A, {told[1]} at end B"


def _both_ways(hose: PlacedHose, cut: float | None, unit: Unit) -> str:
    """How a hose gets onto two ends that do not move apart. Source: common practice."""
    if hose.stands.end is not None or len([side for side in hose.ends if side.tube]) < 2:
        return "First onto the end that cannot be moved, then bring the other to it."
    bare = "as long as the hose" if cut is None else format_length(cut, unit)
    return (
        "Either the ends spring apart by one overlap; or the hose goes right over one tube first, which "
        "must be "
        f"straight and without a bead for {bare}, and then back over the other."
    )


def nearest_angle(kind: HoseEndKind, turned_deg: float) -> EndAngle:
    """The angle of end that comes nearest to what is needed."""
    return min(kind.angles, key=lambda angle: abs(angle - turned_deg))
