"""What meets: every plug in every socket, every union on every two ends, every component in every service.

What goes together and what does not is written down here once more, by kind, from the standards that the
seats and threads are of (SAE J512, J514, J1926-1, J1453, J2044, ISO 4038, 8434-1, 6149-1, ISO 228-1,
ISO 7-1, ASME B1.20.1) and from common practice, independent of the catalogue's rows.
"""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.catalogue.loader import load_kit
from bendrel.core.joints.face import Face
from bendrel.core.joints.mate import mate
from bendrel.core.line.document import ComponentSpan, Line
from bendrel.core.plan.planner import plan_line

KIT = load_kit()
SERVICES = [service.id for service in KIT.services.values() if service.duty and not service.left_to]
SEALS = {
    "inverted-45": {"double-45"},
    "flare-45": {"double-45", "single-45"},
    "cone-37": {"single-37"},
    "bubble-seat": {"bubble"},
    "cone-24": {"bite-light", "bite-heavy", "bite-extra-light"},
    "cone-24-inch": {"bite-inch"},
    "maker-body": {"maker-sleeve"},
    "flat-face": {"face-seal"},
    "cone-60": {"bspp-swivel"},
    "metric-o-ring-port": {"metric-boss"},
    "sleeve-body": {"compression"},
    "quick-socket": {"quick"},
    "banjo-face": {"banjo"},
    "o-ring-port": {"o-ring-boss"},
    "npt-port": {"npt"},
    "bspp-port": {"bspp", "banjo"},
    "bspt-port": {"bspt"},
}
UNIONS = {
    "flared-union": {"double-45", "bubble", "single-37", "single-45"},
    "compression-union": {"compression"},
    "bite-union": {"bite-light", "bite-heavy", "bite-extra-light", "bite-inch"},
}
APART_MM = 0.8
"""Threads whose diameters differ by so much never hold each other."""
BRAKES = {"brake", "clutch"}
NO_BRAKE_PART = {
    "filter", "cooler", "reservoir", "restrictor", "shut-off valve", "check valve", "quick connector",
}  # fmt: skip
HIGH = {"hydraulic", "steering-pressure"}
LOW_FAMILIES = {
    "barb-brass", "barb-plastic", "vacuum-part", "fuel-low-part", "cooler-part", "hydraulic-low",
}  # fmt: skip
RIGHT = {
    ("steel-37", "hydraulic"), ("steel-37", "oil-cooler"), ("steel-37", "fuel-injection"),
    ("brake-brass", "brake"), ("brake-brass", "clutch"), ("vacuum-part", "vacuum"),
    ("vacuum-part", "vacuum-actuator"), ("cooler-part", "cooler"), ("cooler-part", "steering-return"),
    ("barb-brass", "coolant"), ("barb-brass", "fuel-low"), ("fuel-part", "fuel-injection"),
    ("fuel-low-part", "fuel-low"), ("hydraulic", "hydraulic"), ("air-brake-brass", "air-brake"),
}  # fmt: skip
Tried = Iterator[tuple[str, str]]


def plugs() -> Tried:
    """Every nut, bolt and stud in every seat with every thread."""
    for nut in KIT.nuts.values():
        plug = Face(kind="plug", name=nut.id, of=nut.fitting, thread=nut.thread)
        own = KIT.thread(nut.thread)
        for seat in SEALS:
            for row in KIT.threads.values():
                socket = Face(kind="socket", name=seat, of=seat, thread=row.designation)
                stops = bool(mate(KIT, plug, socket))
                seals = nut.fitting in SEALS[seat]
                apart = abs(KIT.thread(row.designation).diameter_mm - own.diameter_mm) > APART_MM
                what = f"{nut.id} in {seat} {row.designation}"
                if not stops and (not seals or apart):
                    yield what, "accepted"
                elif stops and seals and row.designation == nut.thread:
                    yield what, "refused"
                else:
                    yield what, ""


def unions() -> Tried:
    """Every union, and every joint that is none, on every two ends."""
    ends = list(KIT.fittings.values())
    for joint in KIT.joints.values():
        for one in ends:
            for other in ends:
                stops = bool(mate(KIT, _end(one.id), _end(other.id), joint))
                right = one.id == other.id and one.id in UNIONS.get(joint.id, set())
                yield (
                    f"{one.id} and {other.id} in {joint.id}",
                    "" if stops != right else "accepted" if right is False else "refused",
                )


def _end(fitting: str) -> Face:
    row = KIT.fittings[fitting]
    if row.takes_hose:
        return Face(kind="spigot", name=row.name, of="plain")
    return Face(kind="plug", name=row.name, of=fitting)


def components() -> Tried:
    """Every component as it is sold, and every kind without a rating, in every service."""
    for service in SERVICES:
        duty = KIT.services[service].duty
        assert duty is not None
        presses = not duty.vacuum and not duty.open
        for row in KIT.components.values():
            stops = _stops(service, ComponentSpan(id="c1", what=row.what, row=row.id, points="B"))  # type: ignore[arg-type]
            what = f"{row.id} in {service}"
            must = (
                (service in BRAKES and row.what in NO_BRAKE_PART)
                or (service in BRAKES | HIGH and row.family in LOW_FAMILIES)
                or (presses and (row.rated_kpa or 0.0) < duty.working_kpa)
                or (row.highest_c is not None and row.highest_c < duty.hot_c)
            )
            right = (row.family, service) in RIGHT and not must
            if must and not stops:
                yield what, "accepted"
            elif right and stops:
                yield what, f"refused: {stops}"
            else:
                yield what, ""
        for kind in sorted({row.what for row in KIT.components.values()}):
            stops = _stops(service, ComponentSpan(id="c1", what=kind))  # type: ignore[arg-type]
            must = presses and KIT.services[service].safety_critical
            yield f"{kind} without a rating in {service}", "accepted" if must and not stops else ""


def _stops(service: str, part: ComponentSpan) -> list[str]:
    made = Line(name="part", service=service, unit="mm", spans=(part,))
    return sorted({f.code for f in plan_line(made, KIT).findings if f.severity == "stop"})


PARTS = {"plugs in sockets": plugs, "unions": unions, "components": components}
