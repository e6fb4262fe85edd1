"""The second half of the matrix: hold tests, ladders, strip-downs, gaps by material, typed heat and pressure.

Each part yields (what was tried, what is wrong with it or ""). What must be and what must not is written down
here by hand, by kind, from common practice and the services' own figures, not asked of the rules.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import product
from random import Random

from tests.core.test_asked import asked_of, held
from tests.core.test_closing import line, tube
from tests.core.test_strip_downs import KIT, SOURCES, nothing_stands, stripped
from tests.lines import bent, replace, row

from bendrel.core.joints.closing import joints_of
from bendrel.core.line.document import Carries
from bendrel.core.line.proving import JointEvent, JointWork, Proving
from bendrel.core.mend.gap import over_gap, tubes_of
from bendrel.core.parts.service import Service
from bendrel.core.plan.planner import plan_line
from bendrel.core.work.closing import work_of
from bendrel.core.work.proof.hold import HoldError
from bendrel.core.work.standing import standing_of

Tried = Iterator[tuple[str, str]]
HERE = [service for service in KIT.services.values() if service.duty and not service.left_to]


def hold_tests() -> Tried:
    """Every service with a test, by kind, share of pressure and share of time: what is as asked counts, what
    is less does not."""
    for service in HERE:
        if KIT.proving.by_service[service.id].hold is None:
            continue
        asked = asked_of(service.id)
        for kind, pressure, time in product(
            ("gas", "liquid", "vacuum"), (0.05, 0.5, 0.9, 1.0, 1.04), (0.1, 0.9, 1.0, 1.2)
        ):
            bar, minutes = asked.kpa * pressure / 100, asked.minutes * time
            if kind == "vacuum" and bar > 0.95:
                continue
            try:
                proof = held(
                    service.id, kind, bar, minutes, threshold=f"{bar * 0.97:.4g} bar", minutes=f"{minutes:g}"
                )
            except HoldError:
                continue
            except ValueError:
                continue  # gas that is refused outright
            enough = kind == asked.kind and pressure >= 1.0 and time >= 1.0
            wrong = ""
            if proof.result.verdict == "holds" and proof.counts != enough:
                wrong = "counts" if proof.counts else f"does not count: {proof.short}"
            yield f"{service.id}, {kind}, {pressure:g} of the pressure, {time:g} of the time", wrong


def ladders() -> Tried:
    """Every rung at every kind of joint in every service begins with nothing standing behind it."""
    for service, closes in product(KIT.proving.by_service, KIT.proving.ladders):
        if service == "vent":
            continue
        made = line(service, (tube("s1"),))
        joint = next(iter(joints_of(made, KIT)))
        ladder = KIT.proving.ladders[closes]
        for tried in range(len(ladder.rungs)):
            events = [JointEvent(what="wet")]
            for rung in ladder.rungs[:tried]:
                events += [JointEvent(what=rung), JointEvent(what="wet")]
            work = JointWork(span="s1", end="A", events=tuple(events))
            at = replace(made, proving=Proving(joints=(work,)))
            told = standing_of(at, KIT, replace(joint, closes=closes)).rung_text
            yield f"{service}, {closes}, rung {tried + 1}", "" if nothing_stands(told) else told


def strip_downs(count: int = 500) -> Tried:
    """`count` random strip-downs of every service: no source is open while a joint is."""
    for service in KIT.services:
        for seed in range(count):
            made = stripped(seed, service)
            joints = {joint.id for joint in joints_of(made, KIT)}
            shut = {name for name in SOURCES.get(service, {}) if name in made.removal.done}
            tight, wrong = set[str](), ""
            for step in work_of(made, KIT, joints_of(made, KIT)).steps:
                if step.does == "tightens" and step.round == 1:
                    tight.add(step.joint)
                if shut & set(step.off) and tight != joints:
                    wrong = step.text
                if step.lends and "Before the joint is closed" not in step.text:
                    wrong = step.text
                shut -= set(step.off)
                if step.kind in ("fill", "hold", "works") and shut:
                    wrong = f"{step.id} with {shut} shut"
            yield f"{service}, strip-down {seed}", wrong


NEVER_A_BRAKE = {"aluminium-3003", "aluminium-5052", "aluminium-6061", "aluminium-6061-O", "copper", "nylon"}
SOFT_OR_BRAZED = {
    "copper-nickel", "copper", "nylon", "aluminium-3003", "aluminium-5052", "aluminium-6061-O",
    "steel-double-wall", "steel-plated", "steel-coated",
}  # fmt: skip
HARD = {"steel-seamless", "stainless-304", "stainless-316"}


def gap_must_be_refused(service: Service, material: str, method: str) -> str:
    """Why a way over a gap must be refused; "" where that is not known."""
    if service.id in ("brake", "clutch"):
        if material in NEVER_A_BRAKE:
            return "no brake tube"
        if method != "flared_unions":
            return "no brake joint"
    if service.id == "air-brake" and material.startswith("aluminium"):
        return "aluminium on air brakes"
    if service.id in ("hydraulic", "steering-pressure"):
        if method in ("sleeve_unions", "hose"):
            return "no joint for high pressure"
        if material == "nylon":
            return "nylon at high pressure"
    if method == "bite_unions" and material in SOFT_OR_BRAZED:
        return "steel sleeve on soft or thin tube"
    if method == "flared_unions" and material == "nylon":
        return "nylon does not flare"
    if service.id in ("oil-cooler", "oil-feed") and material == "nylon":
        return "nylon in hot oil"
    if service.id == "oil-feed" and method == "hose":
        return "no hose of it takes clamps"
    return ""


RIGHT_GAPS = {
    ("brake", "copper-nickel", 4.7625, "flared_unions"), ("brake", "steel-plated", 4.7625, "flared_unions"),
    ("clutch", "steel-plated", 6.0, "flared_unions"), ("hydraulic", "steel-seamless", 12.0, "bite_unions"),
    ("hydraulic", "steel-seamless", 15.0, "bite_unions"), ("fuel-low", "copper-nickel", 8.0, "flared_unions"),
    ("fuel-low", "steel-plated", 8.0, "hose"), ("cooler", "steel-plated", 9.525, "hose"),
    ("cooler", "steel-plated", 9.525, "flared_unions"), ("coolant", "copper", 15.0, "hose"),
    ("vacuum-actuator", "copper", 6.0, "hose"), ("steering-return", "steel-plated", 9.525, "hose"),
    ("hydraulic-return", "steel-seamless", 22.0, "bite_unions"), ("fuel-low", "nylon", 8.0, "sleeve_unions"),
    ("oil-feed", "steel-seamless", 6.0, "flared_unions"), ("air", "copper", 6.0, "sleeve_unions"),
}  # fmt: skip


def gaps() -> Tried:
    """Every service × size × material × way, with the material said; and the right ones with it not said."""
    for service, od_mm in product(HERE, (4.7625, 6.0, 8.0, 9.525, 12.0, 15.0, 22.0)):
        for one in tubes_of(KIT, od_mm, service):
            for offer in over_gap(KIT, 250, od_mm, od_mm, service, (one,)):
                must = gap_must_be_refused(service, one.material, offer.method)
                right = (service.id, one.material, od_mm, offer.method) in RIGHT_GAPS
                wrong = ""
                if must and offer.verdict != "refused":
                    wrong = f"offered: {must}"
                elif right and offer.verdict == "refused":
                    wrong = f"refused: {offer.reasons[-1].text}"
                yield f"gap, {service.id}, {one.material}, {od_mm:g} mm, {offer.method}", wrong
    for service_id, _, od_mm, method in RIGHT_GAPS:
        service = KIT.services[service_id]
        found = over_gap(KIT, 250, od_mm, od_mm, service, tubes_of(KIT, od_mm, service))
        offer = next(one for one in found if one.method == method)
        unsaid = f"gap, {service_id}, material not said, {od_mm:g} mm, {method}"
        yield unsaid, "refused by an assumption" if offer.verdict == "refused" else ""


def typed() -> Tried:
    """Heat and pressure typed at the usual say nothing; far from it they are asked for a reason, and with one
    nothing more is said."""
    rng = Random(1)
    for service in HERE:
        duty = service.duty
        assert duty is not None
        made = bent(row(200, 30, radius=80), last=200, service=service.id, unit="mm")
        for share, degrees in product((0.1, 0.4, 0.6, 1.0, 2.0, 3.0, 5.0), (-60, -30, -10, 0, 40, 90)):
            kpa, hot = duty.working_kpa * share, duty.hot_c + degrees
            asked = Carries(pressure=f"{kpa / 100:.5g} bar", temperature=f"{hot:.0f} °C")
            codes = {f.code for f in plan_line(replace(made, carries=asked), KIT).findings}
            told = f"{service.id} typed {share:g} of the pressure, {degrees:+d} °C"
            expected = set()
            if not duty.vacuum:
                if share < 0.5:
                    expected.add("low_pressure")
                over = duty.most_kpa and kpa > duty.most_kpa
                if over:
                    expected.add("other_service")
                elif share > 2.5:
                    expected.add("over_pressure")
            if degrees < -25:
                expected.add("low_heat")
            if degrees > 60:
                expected.add("over_heat")
            kinds = {"low_pressure", "over_pressure", "other_service", "low_heat", "over_heat"}
            wrong = "" if codes & kinds == expected else f"told {codes & kinds}, expected {expected}"
            yield told, wrong
            if rng.random() < 0.2:
                why = replace(
                    asked, why_low="measured here", why_high="measured here", why_heat="measured here"
                )
                left = {f.code for f in plan_line(replace(made, carries=why), KIT).findings} & kinds
                yield f"{told}, with reasons", "" if left <= {"other_service"} else f"still {left}"


PARTS = {
    "hold tests": hold_tests, "ladders": ladders, "strip-downs": strip_downs, "gaps": gaps, "typed": typed,
}  # fmt: skip
"""The parts by name, for `tools/matrix.py`."""
