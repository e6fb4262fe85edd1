"""Look-ups from what a person typed: every answer is computed from the shop's own catalogue."""

from __future__ import annotations

from typing import Annotated

from annotated_types import MaxLen

from bendrel.core.findings import Source
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.stripped import Rescue, StrippedLimits, by_seat, rescues, tapered_rescues
from bendrel.core.parts.threads.designation import Thread, ThreadError
from bendrel.core.parts.threads.fit import ThreadFit, thread_fit
from bendrel.core.parts.threads.identify import Candidate, Gender, TaperSeen, ThreadReading, identify
from bendrel.core.parts.threads.lookalikes import LookAlike, look_alikes, say_pitch, telling_test
from bendrel.core.parts.threads.profile import Profile, thread_profile
from bendrel.core.parts.threads.wrench import WrenchFit, wrenches_for
from bendrel.core.parts.tube_strength import TubeStrength, tube_strength
from bendrel.core.parts.verdict import Of, VerdictWord, preferred
from bendrel.core.record import record
from bendrel.core.units.notation import MM_PER_INCH, Unit, UnitError, format_small, parse_length
from bendrel.core.units.quantities import parse_temperature
from bendrel.services.errors import Refused

Typed = Annotated[str, MaxLen(40)]
BRAKES = frozenset({"brake"})
"""Services, and those like them, whose parts are never saved by a new thread."""
DRAWN_MM = 7.0
"""How much of a pair of threads is drawn: enough for a few turns of the coarsest."""


@record
class ThreadOrder:
    """A reading as typed. `pitch` is a length, or turns per inch as `24 per inch`, `24 tpi` or a bare
    whole number over 8 in a shop that works in inches; blank where it was not read."""

    gender: Gender
    diameter: Typed
    diameter_error: Typed = "0.1 mm"
    pitch: Typed = ""
    pitch_error_percent: float = 2.0
    taper: TaperSeen = "not sure"
    unit: Unit = "mm"


@record
class FoundThread:
    """One candidate with its use and what it is taken for."""

    candidate: Candidate
    pitch: str
    used_for: str
    source: Source
    alike: tuple[LookAlike, ...]


@record
class ThreadFound:
    """The candidates, likeliest first, with the reading as it was understood, in mm."""

    diameter_mm: float
    pitch_mm: float | None
    found: tuple[FoundThread, ...]


@record
class PairOrder:
    """A male and a female thread by designation."""

    male: Typed
    female: Typed


@record
class ThreadPair:
    """How the pair fits, or why it is refused; the test that tells the two apart; both profiles of the
    male in the female, and both as male threads laid over one another, in mm."""

    male: str
    female: str
    fit: ThreadFit | None
    refused: str
    test: str
    mated: tuple[Profile, Profile]
    overlaid: tuple[Profile, Profile]


@record
class HexOrder:
    """A hex across flats as typed."""

    hex: Typed
    unit: Unit = "mm"


@record
class WrenchAnswer:
    """The hex in mm and the wrenches that can be used on it, the best first."""

    hex_mm: float
    wrenches: tuple[WrenchFit, ...]


@record
class PortOrder:
    """A stripped port: its thread, what it carries, its seat by catalogue id (blank: not said), the metal
    across it and the room in front, as typed or blank."""

    thread: Typed
    service: Annotated[str, MaxLen(40)] = ""
    seat: Annotated[str, MaxLen(40)] = ""
    boss: Typed = ""
    room: Typed = ""
    unit: Unit = "mm"


@record
class PortRescue:
    """The thread as read, the ways to save the port, and why none of them is taken where that is so."""

    thread: str
    ways: tuple[Rescue, ...]
    refused: str


@record
class StrengthOrder:
    """A tube by catalogue id, bent to a radius (blank: straight), at a temperature, as typed."""

    tube: Annotated[str, MaxLen(80)]
    radius: Typed = ""
    temperature: Typed = "20 °C"
    factor: float = 4.0
    unit: Unit = "mm"


@record
class Stronger:
    """The strength of the tube, and where the figures come from."""

    strength: TubeStrength
    source: Source


@record
class Cell:
    """One verdict of the matrix. `preferred` says that it is the shop's own school."""

    service: str
    verdict: VerdictWord
    reason: str
    source: Source
    school: str
    preferred: bool


@record
class MatrixRow:
    """One tube, end, hose, clamp or joint through all services."""

    id: str
    name: str
    cells: tuple[Cell, ...]


@record
class MatrixPart:
    """One block of the matrix."""

    of: Of
    rows: tuple[MatrixRow, ...]


@record
class Heading:
    """One service as a column."""

    id: str
    name: str


@record
class Matrix:
    """Rows by what is chosen, columns by service."""

    services: tuple[Heading, ...]
    parts: tuple[MatrixPart, ...]


def which_thread(order: ThreadOrder, kit: Kit) -> ThreadFound:
    """Candidates for a reading. Raises Refused."""
    diameter = _length("The diameter", order.diameter, order.unit)
    error = _length("The diameter's error", order.diameter_error, order.unit)
    if not 0.1 <= order.pitch_error_percent <= 20:
        raise Refused("The pitch's error must lie between 0.1 and 20 %.")
    pitch = read_pitch(order.pitch, order.unit)
    threads = {name: kit.thread(name) for name in kit.threads}
    reading = ThreadReading(
        gender=order.gender,
        diameter_mm=diameter,
        diameter_error_mm=error,
        pitch_mm=pitch,
        pitch_error_mm=(pitch or 1.0) * order.pitch_error_percent / 100,
        taper=order.taper,
    )
    found = []
    for candidate in identify(reading, threads.values()):
        thread, known = threads[candidate.designation], kit.threads[candidate.designation]
        found.append(
            FoundThread(
                candidate=candidate,
                pitch=say_pitch(thread),
                used_for=known.used_for,
                source=known.source,
                alike=look_alikes(thread, threads.values(), kit.likeness, kit.least_engagement),
            )
        )
    return ThreadFound(diameter_mm=diameter, pitch_mm=pitch, found=tuple(found))


def read_pitch(text: str, unit: Unit) -> float | None:
    """mm from `1.25`, `1 mm`, `24 tpi` or `24 per inch`; a bare number is turns per inch in a shop that
    works in inches and from 8 up anywhere. Raises Refused."""
    clean = text.strip().lower()
    if not clean:
        return None
    for word in ("tpi", "per inch", "/in", "turns"):
        if clean.endswith(word):
            return _tpi(text, clean.removesuffix(word))
    try:
        bare = float(clean)
    except ValueError:
        return _length("The pitch", text, "mm")
    if bare >= 8 or (unit == "in" and bare >= 4):
        return _tpi(text, clean)
    return _length("The pitch", text, "mm")


def thread_pair(order: PairOrder, kit: Kit) -> ThreadPair:
    """One thread in another. Raises Refused for what is no thread."""
    male, female = _thread(order.male, kit), _thread(order.female, kit)
    fit, refused = None, ""
    try:
        fit = thread_fit(male, female, kit.least_engagement)
    except ThreadError as error:
        refused = str(error)
    same = male.designation == female.designation
    length = max(DRAWN_MM, 4 * max(male.pitch_mm, female.pitch_mm))
    shift = max(male.pitch_mm, female.pitch_mm) / 2
    return ThreadPair(
        male=male.designation,
        female=female.designation,
        fit=fit,
        refused=refused,
        test="" if same else telling_test(male, female, kit.likeness),
        mated=(
            thread_profile(male, "male", length, shift),
            thread_profile(female, "female", length, shift),
        ),
        overlaid=(
            thread_profile(male, "male", length, shift),
            thread_profile(female, "male", length, shift),
        ),
    )


def which_wrench(order: HexOrder, kit: Kit) -> WrenchAnswer:
    """Wrenches for a hex. Raises Refused."""
    mm = _length("The hex", order.hex, order.unit)
    return WrenchAnswer(hex_mm=mm, wrenches=wrenches_for(mm, kit.wrenches, kit.wrench_band))


def save_port(order: PortOrder, kit: Kit) -> PortRescue:
    """Ways to save a stripped port. Raises Refused."""
    thread = _thread(order.thread, kit)
    limits = StrippedLimits(
        wall_share=kit.limits["boss_wall_share"].value,
        engagement=kit.limits["thread_engagement"].value,
        drill_room_mm=kit.limits["drill_room_mm"].value,
    )
    service = kit.services.get(order.service)
    if order.seat and order.seat not in kit.seats:
        raise Refused("Choose a seat that is listed.")
    refused = ""
    if service is None:
        refused = "Say what the port carries first."
    elif service.left_to:
        refused = f"Not here: {service.left_to}."
    elif service.id in BRAKES or service.like in BRAKES:
        refused = "A brake part with a stripped port is replaced: no insert and no larger thread holds there."
    find = tapered_rescues if thread.taper else rescues
    ways = find(
        thread,
        (kit.thread(name) for name in kit.threads),
        boss_mm=_length("The boss", order.boss, order.unit) if order.boss.strip() else None,
        room_mm=_length("The room", order.room, order.unit) if order.room.strip() else None,
        limits=limits,
    )
    seat = kit.seats.get(order.seat)
    told = ways if thread.taper else tuple(by_seat(way, seat) for way in ways)
    return PortRescue(thread=thread.designation, ways=told if not refused else (), refused=refused)


def how_strong(order: StrengthOrder, kit: Kit) -> Stronger:
    """Strength of one tube. Raises Refused."""
    tube = kit.tubes.get(order.tube)
    if tube is None:
        raise Refused("Choose a tube that is listed.")
    if not 1 <= order.factor <= 10:
        raise Refused("The design factor must lie between 1 and 10.")
    radius = _length("The radius", order.radius, order.unit) if order.radius.strip() else None
    if radius is not None and radius <= tube.od_mm / 2:
        raise Refused(
            f"The radius must be more than {format_small(tube.od_mm / 2, order.unit)}, half the tube."
        )
    material = kit.materials[tube.material]
    heat = parse_temperature(order.temperature)
    found = tube_strength(tube, material, radius_mm=radius, temperature_c=heat, factor=order.factor)
    return Stronger(strength=found, source=material.strength_source)


def matrix(kit: Kit) -> Matrix:
    """The whole verdict matrix."""
    services = tuple(
        Heading(id=s.id, name=s.name) for s in kit.services.values() if s.duty is not None and not s.left_to
    )
    blocks: tuple[tuple[Of, tuple[tuple[str, str], ...]], ...] = (
        ("tube", tuple((m.id, m.name) for m in kit.materials.values())),
        ("end", tuple((f.id, f.name) for f in kit.fittings.values())),
        ("joint", tuple((j.id, j.name) for j in kit.joints.values())),
        ("hose", tuple((h.id, h.name) for h in kit.hose_classes.values())),
        ("clamp", tuple((c.id, c.name) for c in kit.clamp_kinds.values())),
        ("component", tuple((f.id, f.name) for f in kit.component_families.values())),
    )
    return Matrix(
        services=services,
        parts=tuple(
            MatrixPart(of=of, rows=tuple(_row(kit, of, item, name, services) for item, name in rows))
            for of, rows in blocks
        ),
    )


def _row(kit: Kit, of: Of, item: str, name: str, services: tuple[Heading, ...]) -> MatrixRow:
    cells = []
    for service in services:
        said = kit.verdict(of, item, service.id)
        if said is not None:
            cells.append(
                Cell(
                    service=service.id,
                    verdict=said.verdict,
                    reason=said.reason,
                    source=said.source,
                    school=said.school,
                    preferred=preferred(said, kit.preferences),
                )
            )
    return MatrixRow(id=item, name=name, cells=tuple(cells))


def _thread(text: str, kit: Kit) -> Thread:
    return kit.thread(text)


def _length(what: str, text: str, unit: Unit) -> float:
    try:
        return parse_length(text, unit)
    except UnitError as error:
        raise Refused(f"{what}: {error}") from error


def _tpi(shown: str, number: str) -> float:
    try:
        turns = float(number)
    except ValueError:
        turns = 0.0
    if not 3 <= turns <= 100:
        raise Refused(f"“{shown[:20]}” is no pitch; write it like 24 per inch, 24 tpi or 1.25 mm.")
    return MM_PER_INCH / turns
