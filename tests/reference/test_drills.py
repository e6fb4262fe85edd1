"""Drills for a new thread against another package's tap drills, and inserts by the thread's height."""

from __future__ import annotations

import csv
from importlib.metadata import files as package_files
from math import cos, radians

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.parts.stripped import StrippedLimits, by_seat, rescues, tapered_rescues
from bendrel.core.parts.threads.tolerance import female_limits

KIT = load_kit()
THREADS = [KIT.thread(name) for name in KIT.threads]
LIMITS = StrippedLimits(wall_share=0.25, engagement=1.0, drill_room_mm=60.0)


def table(name):
    file = next(f for f in package_files("bd_warehouse") if f.name == name)
    return list(csv.reader(file.read_text().splitlines()))[1:]


def drill_mm(name):
    """A drill by its number, letter, fraction of an inch or millimetres."""
    named = {size: float(inches) * 25.4 for size, inches in table("drill_sizes.csv")}
    if name in named:
        return named[name]
    if "/" in name:
        whole, _, part = name.rpartition(" ")
        top, bottom = part.split("/")
        return (float(whole or 0) + float(top) / float(bottom)) * 25.4
    return float(name)


TAP_HOLES = {
    size.replace("-", "x") if size.startswith("M") else size: drill_mm(soft)
    for size, soft, _ in table("tap_hole_sizes.csv")
}
SHARED = sorted(name for name in KIT.threads if name in TAP_HOLES)


def test_the_package_knows_a_good_part_of_our_threads():
    assert len(SHARED) >= 12


@pytest.mark.parametrize("name", SHARED)
def test_the_usual_tap_drill_lies_in_the_bore(name):
    """bd_warehouse: the drill for soft metal (75 % of thread) leaves a bore within the limits of the minor
    diameter, a tenth of a millimetre more or less, and the bore that we say lies within 0.3 mm of it."""
    bore = female_limits(KIT.thread(name)).minor
    assert bore.least - 0.1 <= TAP_HOLES[name] <= bore.most + 0.1
    assert bore.middle == pytest.approx(TAP_HOLES[name], abs=0.3)


def way(found, kind):
    return next(rescue for rescue in found if rescue.way == kind)


@pytest.mark.parametrize(("name", "outer", "bore"), [("M10x1", 11.30, 10.22), ("3/8-24", 10.90, 9.75)])
def test_a_wire_insert_sits_in_a_thread_one_height_larger(name, outer, bore):
    """ISO 68-1: the wire's section is as high as the thread, 3/4·H = 0.6495·P on each side, H = P·cos 30°;
    its own tap is so much larger, the drill 1.0825·P smaller than that. By hand."""
    thread = KIT.thread(name)
    height = thread.pitch_mm * cos(radians(30)) * 0.75
    told = way(rescues(thread, THREADS, boss_mm=30, room_mm=100, limits=LIMITS), "wire insert")
    assert float(told.tap.split(" mm")[0]) == pytest.approx(thread.diameter_mm + 2 * height, abs=0.006)
    assert float(told.tap.split(" mm")[0]) == pytest.approx(outer, abs=0.01)
    assert told.drill_mm == pytest.approx(bore, abs=0.01)
    assert told.thread == thread.designation
    assert told.drill_mm >= thread.diameter_mm  # the old crests are drilled away


def test_a_way_without_room_says_what_the_metal_is_and_what_the_drill_needs():
    told = way(rescues(KIT.thread("M10x1"), THREADS, boss_mm=30, room_mm=20, limits=LIMITS), "wire insert")
    assert told.ok is False
    assert "of metal is left all round" in told.reason
    assert told.reason.endswith(f"A drill needs {told.room_mm:.0f} mm in front of the port and has 20 mm.")
    assert told.room_mm > 20


def test_the_next_thread_starts_outside_the_old_crests():
    """M10x1 stripped: what is cut next has its pitch line outside 10 mm; the nearest three in their order."""
    found = rescues(KIT.thread("M10x1"), THREADS, boss_mm=30, room_mm=100, limits=LIMITS)
    larger = [r for r in found if r.way == "next thread"]
    assert len(larger) == 3
    for rescue in larger:
        thread = KIT.thread(rescue.thread)
        assert thread.diameter_mm - 0.65 * thread.pitch_mm >= 10.0
        assert rescue.drill_mm == pytest.approx(female_limits(thread).minor.middle)
        assert rescue.thread_length_mm == pytest.approx(thread.diameter_mm)
    assert [KIT.thread(r.thread).diameter_mm for r in larger] == sorted(
        KIT.thread(r.thread).diameter_mm for r in larger
    )
    assert "M10x1" not in {r.thread for r in larger}


@pytest.mark.parametrize(("boss", "ok"), [(17.0, True), (16.9, False), (None, None)])
def test_the_wall_that_is_left_is_judged_from_both_sides(boss, ok):
    """An insert for M10x1 takes 11.30 mm; a quarter of it, 2.83 mm, is needed all round: 16.95 mm."""
    told = way(
        rescues(KIT.thread("M10x1"), THREADS, boss_mm=boss, room_mm=None, limits=LIMITS), "wire insert"
    )
    assert told.ok is ok
    if boss:
        assert told.wall_mm == pytest.approx((boss - 11.299) / 2, abs=0.01)


@pytest.mark.parametrize(("room", "ok"), [(71.2, False), (71.4, True)])
def test_a_drill_needs_room_in_front_of_the_port(room, ok):
    """60 mm of drill and one diameter of thread, 11.30 mm."""
    told = way(rescues(KIT.thread("M10x1"), THREADS, boss_mm=40, room_mm=room, limits=LIMITS), "wire insert")
    assert told.room_mm == pytest.approx(71.30, abs=0.01)
    assert told.ok is ok


def test_a_tapered_port_gets_the_next_size_or_a_bushing():
    """ASME B1.20.1: after 1/8 NPT comes 1/4 NPT, tap drill 7/16 in without a reamer (handbooks)."""
    found = tapered_rescues(KIT.thread("1/8 NPT"), THREADS, boss_mm=30, room_mm=200, limits=LIMITS)
    assert [r.way for r in found] == ["next taper", "bushing"]
    assert {r.thread for r in found} == {"1/4-18 NPT"}
    assert found[0].drill_mm == pytest.approx(7 / 16 * 25.4, abs=0.35)
    assert "brings it back to 1/8-27 NPT" in found[1].reason
    largest = max((t for t in THREADS if t.taper and t.flank_deg == 60), key=lambda t: t.diameter_mm)
    assert tapered_rescues(largest, THREADS, boss_mm=60, room_mm=200, limits=LIMITS) == ()


@pytest.mark.parametrize(
    ("seat", "kind", "ok"),
    [
        ("inverted-45", "wire insert", False),  # the cone at the bottom is drilled away
        ("npt-port", "wire insert", False),  # an insert does not seal
        ("o-ring-port", "wire insert", True),  # sealed on the face, which must be left whole
        (None, "wire insert", None),
    ],
)
def test_the_seat_decides_whether_a_rescue_seals(seat, kind, ok):
    told = way(rescues(KIT.thread("M10x1"), THREADS, boss_mm=40, room_mm=200, limits=LIMITS), kind)
    assert by_seat(told, KIT.seats[seat] if seat else None).ok is ok
