"""A port whose thread is stripped: the ways to save it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Literal

from bendrel.core.parts.seat import Seat
from bendrel.core.parts.threads.designation import Thread
from bendrel.core.parts.threads.identify import TAPER
from bendrel.core.parts.threads.lookalikes import say_pitch
from bendrel.core.parts.threads.tolerance import basic_pitch_diameter, female_limits
from bendrel.core.record import record

HELIX_DEPTH = 0.649519
"""Share of the pitch by which a wire insert's thread is deeper than its own, on radius: ISO 68-1."""


@record
class StrippedLimits:
    """`wall_share` is the least wall around a port as a share of its diameter; `engagement` the thread
    length as a share of the diameter; `drill_room_mm` what a hand drill with a short bit needs in
    front of the port."""

    wall_share: float
    engagement: float
    drill_room_mm: float


Way = Literal["next thread", "wire insert", "next taper", "bushing"]


@record
class Rescue:
    """One way to save a port. Sizes in mm. `wall_mm` is what is left around the new thread, None where
    the boss was not measured; `ok` is None then, and where it depends on what is not said. `room_mm` is
    what drilling needs before the port."""

    way: Way
    thread: str
    tap: str
    drill_mm: float
    thread_length_mm: float
    room_mm: float
    wall_mm: float | None
    ok: bool | None
    reason: str


def rescues(
    stripped: Thread,
    threads: Iterable[Thread],
    *,
    boss_mm: float | None,
    room_mm: float | None,
    limits: StrippedLimits,
) -> tuple[Rescue, ...]:
    """Ways to save a parallel port thread, the least metal lost first: an insert of the same thread,
    then the next larger threads whose pitch line lies outside the old crests. `boss_mm` is the width
    of metal across the port, `room_mm` the free length in front of it.

    The drill is the new thread's bore at mid-tolerance; an insert is tapped 1.299 pitches larger
    than its thread (ISO 68-1 height on both sides). Source: derived; the wall by common practice.
    """
    found = [_insert(stripped, boss_mm, room_mm, limits)]
    larger = [
        t
        for t in threads
        if not t.taper
        and t.flank_deg == stripped.flank_deg
        and basic_pitch_diameter(t) >= stripped.diameter_mm
        and t.designation != stripped.designation
    ]
    for thread in sorted(larger, key=lambda t: (t.diameter_mm, t.pitch_mm))[:3]:
        bore = female_limits(thread).minor.middle
        new = (thread.designation, thread.designation, bore, thread.diameter_mm)
        found.append(_rescue("next thread", *new, boss_mm, room_mm, limits=limits))
    return tuple(found)


def tapered_rescues(
    stripped: Thread,
    threads: Iterable[Thread],
    *,
    boss_mm: float | None,
    room_mm: float | None,
    limits: StrippedLimits,
) -> tuple[Rescue, ...]:
    """Ways to save a tapered port: the next tapered size of the same form, and the same size again through a
    bushing screwed into it. It is drilled for the new size's small end and reamed by its tap.

    Source: the sizes of the pipe threads' own table; the wall by common practice.
    """
    larger = sorted(
        (
            t
            for t in threads
            if t.taper and t.flank_deg == stripped.flank_deg and t.diameter_mm > stripped.diameter_mm
        ),
        key=lambda t: t.diameter_mm,
    )
    if not larger:
        return ()
    size = larger[0]
    bore = female_limits(size).minor.middle - size.gauge_length_mm / TAPER
    new = (size.designation, f"{size.designation} (tapered)", bore, size.diameter_mm)
    chips = " Keep every chip out of the unit: grease on drill and tap, its passage plugged, then flushed."
    ways: tuple[tuple[Way, str], ...] = (
        ("next taper", chips),
        ("bushing", f" A bushing brings it back to {stripped.designation}." + chips),
    )
    made = (_rescue(way, *new, boss_mm, room_mm, limits=limits) for way, _ in ways)
    return tuple(
        replace(rescue, reason=rescue.reason + more) for rescue, (_, more) in zip(made, ways, strict=True)
    )


def by_seat(rescue: Rescue, seat: Seat | None) -> Rescue:
    """A rescue as the port's seat allows it: drilling takes a seat at the bottom of the bore away, a thread
    insert does not seal, a face must be left whole. Source: common practice."""
    if seat is None:
        ask = " Say which seat the port has: it decides whether this holds tight."
        return replace(rescue, ok=False if rescue.ok is False else None, reason=rescue.reason + ask)
    if seat.seals_at == "bottom":
        return replace(
            rescue,
            ok=False,
            reason=f"Drilling takes the {seat.name} at the bottom away: nothing seals any more. "
            "Replace the part, or have a machine shop cut a new seat.",
        )
    if seat.seals_at == "thread" and rescue.way in ("wire insert", "next thread"):
        return replace(
            rescue,
            ok=False,
            reason="A parallel thread or an insert does not seal where the thread itself must.",
        )
    if seat.seals_at == "face":
        return replace(rescue, reason=rescue.reason + f" The {seat.name} must be left whole and square.")
    return rescue


def _insert(stripped: Thread, boss_mm: float | None, room_mm: float | None, limits: StrippedLimits) -> Rescue:
    outer = stripped.diameter_mm + 2 * HELIX_DEPTH * stripped.pitch_mm
    bore = outer - 1.082532 * stripped.pitch_mm
    return _rescue(
        "wire insert",
        stripped.designation,
        f"{outer:.2f} mm × {say_pitch(stripped)} (insert tap for {stripped.designation})",
        bore,
        outer,
        boss_mm,
        room_mm,
        limits=limits,
    )


def _rescue(
    way: Way,
    thread: str,
    tap: str,
    drill: float,
    outer: float,
    boss_mm: float | None,
    room_mm: float | None,
    *,
    limits: StrippedLimits,
) -> Rescue:
    wall = None if boss_mm is None else (boss_mm - outer) / 2
    need = outer * limits.wall_share
    room = limits.drill_room_mm + outer * limits.engagement
    ok = None if wall is None else wall >= need
    if wall is None:
        reason = f"Measure the boss: it must leave {need:.1f} mm of metal all round."
    elif ok:
        reason = f"{wall:.1f} mm of metal is left all round; {need:.1f} mm is enough."
    else:
        reason = f"Only {max(wall, 0):.1f} mm of metal would be left all round; {need:.1f} mm is needed."
    if room_mm is not None and room_mm < room:
        ok = False
        reason += f" A drill needs {room:.0f} mm in front of the port and has {room_mm:.0f} mm."
    return Rescue(
        way=way,
        thread=thread,
        tap=tap,
        drill_mm=drill,
        thread_length_mm=outer * limits.engagement,
        room_mm=room,
        wall_mm=wall,
        ok=ok,
        reason=reason,
    )
