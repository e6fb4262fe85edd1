"""A port whose thread is stripped: the ways to save it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from bendrel.core.record import record
from bendrel.core.threads.designation import Thread
from bendrel.core.threads.lookalikes import say_pitch
from bendrel.core.threads.tolerance import basic_pitch_diameter, female_limits

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


@record
class Rescue:
    """One way to save a port. Sizes in mm. `wall_mm` is what is left around the new thread, None where
    the boss was not measured; `ok` is None then. `room_mm` is what drilling needs before the port."""

    way: Literal["next thread", "wire insert"]
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
        found.append(_rescue("next thread", *new, boss_mm, room_mm, limits))
    return tuple(found)


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
        limits,
    )


def _rescue(
    way: Literal["next thread", "wire insert"],
    thread: str,
    tap: str,
    drill: float,
    outer: float,
    boss_mm: float | None,
    room_mm: float | None,
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
