"""What the matrix calls right is right: over every service no right tube, end or hose is stopped, but where
the figures worked out here say that it does not hold."""

from __future__ import annotations

from math import pi

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.joints.pieces import clamp_offers
from bendrel.core.parts.fits import formed_in
from bendrel.core.plan.planner import plan_line
from bendrel.core.units.lengths import Length
from tests.lines import End, Hose, bent, end_of, replace, row

# how much arrives has tests of its own; here every line is wide enough
KIT = load_kit()
SERVICES = {
    s.id: replace(s, duty=replace(s.duty, least_lpm=0.0))
    for s in KIT.services.values()
    if s.duty and not s.left_to
}
KIT = replace(KIT, services={**KIT.services, **SERVICES})


def right(of, rows, service, words=("right",)):
    return [i for i in rows if (v := KIT.verdict(of, i, service)) and v.verdict in words]


def goes(end, tube):
    """The pair is made: a size for it, no refusal of the two, and a flare or bead that forms."""
    fitting, material = KIT.fittings[end], KIT.materials[tube.material]
    pair = KIT.pairs.get((end, material.id))
    refused = pair is not None and pair.verdict == "refused" and pair.needs != "insert"
    formed = formed_in(material, fitting)
    there = KIT.end_size(end, tube.size) or fitting.kind == "plain"
    nuts = not fitting.screwed or KIT.nuts_for(end, tube.size)
    return bool(there) and formed and not refused and bool(nuts)


def radius_on(tube):
    return max(60.0, KIT.materials[tube.material].least_radius_per_od * tube.od_mm)


def made(service, tube, end, **changes):
    """A gentle line with the seat said, an insert where it takes one, and the nut that goes."""
    fitting = KIT.fittings[end]
    nuts = KIT.nuts_for(end, tube.size) if fitting.screwed else ()
    seat = next((s.id for s in KIT.seats.values() if end in s.takes), "")
    choice = End(fitting=end, nut=nuts[0].id if nuts else None, seat=seat, insert=True)
    rows = tuple(row(300, 45, plane, radius=radius_on(tube)) for plane in ("12:00", "3:00"))
    start = {"tube": tube.id, "bender": "given_any", "end_a": choice, "end_b": choice}
    return bent(*rows, last=300, service=service, **(start | changes))


def too_weak(service, tube, end):
    """By hand: Barlow on the least wall, the bend, the heat and the factor; a joint's own rating; 260 N (bare
    180 N) on a hose's bore, at most 10 bar (7). Nothing is judged of a vacuum or an open line."""
    duty, material, fitting = SERVICES[service].duty, KIT.materials[tube.material], KIT.fittings[end]
    if duty.vacuum or duty.open:
        return set()
    share = next((s for c, s in material.derating if duty.hot_c <= c), None)
    least = min((s for c, s in material.derating if duty.hot_c <= c), default=0.0)
    radius = radius_on(tube)
    burst = 2000 * material.ultimate_mpa * tube.wall_mm * material.wall_share / tube.od_mm
    burst *= 2 * radius / (2 * radius + tube.od_mm / 2)
    found = set()
    # between two figures of heat the share is no less than the next one
    if share is None or burst * least / duty.design_factor < duty.working_kpa:
        found.add("pressure_tube")
    size = KIT.end_size(end, tube.size)
    rated = size.rated_kpa if size else None
    if fitting.takes_hose:
        force, most = (180, 700) if fitting.kind == "plain" else (260, 1000)
        rated = min(most, force / (pi * tube.od_mm**2 / 4) * 1000)
    if rated is not None and rated < duty.working_kpa:
        found.add("pressure_end")
    return found


def stops(line):
    return {f.code for f in plan_line(line, KIT).findings if f.severity == "stop"}


@pytest.mark.parametrize("service", SERVICES)
def test_every_right_tube_with_a_right_end(service):
    """Each tube with the first right end that goes on it."""
    tubes = [t for t in KIT.tubes.values() if t.material in right("tube", KIT.materials, service)]
    ends = right("end", KIT.fittings, service)
    tried = 0
    for tube in tubes:
        end = next((end for end in ends if goes(end, tube)), None)
        if end is None:
            continue
        tried += 1
        assert stops(made(service, tube, end)) <= too_weak(service, tube, end), (tube.id, end)
    assert tried >= len(tubes) / 2


@pytest.mark.parametrize("service", SERVICES)
def test_every_right_end_in_its_sizes(service):
    """Each end in each of its sizes, on the thickest tube that is right there (or acceptable, where no right
    tube takes it)."""
    for end in right("end", KIT.fittings, service):
        tried = 0
        sizes = {tube.size for tube in KIT.tubes.values() if KIT.end_size(end, tube.size) is not None}
        for size in sizes:
            for words in (("right",), ("right", "acceptable")):
                materials = right("tube", KIT.materials, service, words)
                tubes = [
                    t
                    for t in KIT.tubes.values()
                    if t.size == size and t.material in materials and goes(end, t)
                ]
                if tubes:
                    tube = max(tubes, key=lambda t: t.wall_mm * KIT.materials[t.material].ultimate_mpa)
                    tried += 1
                    assert stops(made(service, tube, end)) <= too_weak(service, tube, end), (tube.id, end)
                    break
        assert tried, end


@pytest.mark.parametrize("service", SERVICES)
def test_every_right_hose_held_as_its_class_is(service):
    """On the tube nearest to its bore: clamped behind a bead with a clamp that is offered, or made up."""
    for hose in KIT.hoses.values():
        verdict, kind = KIT.verdict("hose", hose.hose_class, service), KIT.hose_classes[hose.hose_class]
        if verdict is None or verdict.verdict != "right":
            continue
        materials = right("tube", KIT.materials, service, ("right", "acceptable"))
        tubes = [t for t in KIT.tubes.values() if t.material in materials]
        if kind.clamps:
            near = [
                t for t in tubes if -0.01 <= (t.od_mm - hose.id_mm) / hose.id_mm <= 0.06 and goes("bead", t)
            ]
            if not near:
                continue
            tube = max(near, key=lambda t: t.wall_mm)
            clamps = clamp_offers(KIT, service, hose, kind.clamps, (tube.od_mm,))
            piece = Hose(hose=hose.id, clamp=clamps[0] if clamps else None, length=Length(text="300 mm"))
            end = "bead"
        else:
            ends = right("end", KIT.fittings, service)
            pairs = [(t, e) for t in tubes for e in ends if goes(e, t) and not too_weak(service, t, e)]
            tube, end = min(pairs, key=lambda pair: abs(pair[0].od_mm - hose.id_mm))
            piece = Hose(hose=hose.id, joined="crimped", length=Length(text="300 mm"))
        line = made(service, tube, end)
        line = replace(line, end_b=replace(end_of(line, "B"), beyond=(piece,)))
        duty, allowed = SERVICES[service].duty, too_weak(service, tube, end)
        if hose.pressure_kpa is not None and hose.pressure_kpa < duty.working_kpa:
            allowed = {*allowed, "pressure_hose"}
        told = stops(line)
        assert told <= allowed | ({"pressure_clamps"} if "pressure_end" in allowed else set()), hose.id
