"""Rules on what an end does to its tube, and on the seat and the metal that it meets."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import EndName, Finding, Fix
from bendrel.core.judge.case import Case, choose, set_value
from bendrel.core.judge.ends_for import end_fix, ends_that_go
from bendrel.core.line.run import ENDS
from bendrel.core.parts.fits import formed_in


def judge_pairs(case: Case) -> Iterator[Finding]:
    """Findings on each end against its tube, its seat and the body it is screwed into."""
    for end in ENDS:
        yield from _on_tube(case, end)
        yield from _thin(case, end)
        yield from _flaring(case, end)
        yield from _shared(case, end)
        yield from _metals(case, end)


def _best(case: Case, end: EndName) -> Fix | None:
    """Another end that goes here, the best first."""
    present = case.fittings[end]
    return next(
        (end_fix(case, end, other) for other in ends_that_go(case, end) if other.id != present.id), None
    )


def _on_tube(case: Case, end: EndName) -> Iterator[Finding]:
    fitting = case.fittings[end]
    pair = case.kit.pairs.get((fitting.id, case.material.id))
    at = case.run.end(end)
    if pair is None or (pair.needs == "insert" and at.tube.insert):
        return
    refused = pair.verdict == "refused"
    insert = pair.needs == "insert"
    yield case.told(
        "end_on_tube",
        case.at_end(end),
        message=pair.reason,
        advice=case.kit.advice["insert"].text if insert else "Choose an end that suits the tube.",
        source=pair.source,
        severity="stop" if refused else "caution",
        safety=refused or case.service.safety_critical,
        fix=set_value("An insert is in the tube", at.tube_at("insert"), True)
        if insert
        else (_best(case, end) if refused else None),
        refused="no" if refused else "care with a",
        fitting=fitting.name,
        more=" without an insert" if insert else "",
    )


def _thin(case: Case, end: EndName) -> Iterator[Finding]:
    limit, fitting = case.kit.limits["sleeve_wall"], case.fittings[end]
    share = case.tube.wall_mm / case.tube.od_mm
    if fitting.kind != "bite" or share >= limit.value or (fitting.id, case.material.id) in case.kit.pairs:
        return
    yield case.told("sleeve_wall", case.at_end(end))


def _flaring(case: Case, end: EndName) -> Iterator[Finding]:
    fitting, material = case.fittings[end], case.material
    if fitting.beaded and not material.beads:
        yield case.told("no_flare", case.at_end(end), fix=_best(case, end))
        return
    if not fitting.flared or formed_in(material, fitting):
        return
    hard = material.flares != "not at all"
    kind, fix = ("double_flare_hard", _single_37) if hard else ("no_flare_in_it", _best)
    yield case.told(kind, case.at_end(end), fix=fix(case, end), name=fitting.name)


def _single_37(case: Case, end: EndName) -> Fix | None:
    nuts = case.kit.nuts_for("single-37", case.tube.size)
    verdict = case.kit.verdict("end", "single-37", case.service.id)
    if not nuts or (verdict is not None and verdict.verdict == "refused"):
        return None
    at = case.run.end(end)
    values: list[tuple[str, str | float | bool | None]] = [
        (at.tube_at("fitting"), "single-37"),
        (at.tube_at("nut"), nuts[0].id),
    ]
    if at.at_port:  # it goes over an adapter, not into this port
        values += [
            (at.port_at("thread"), ""),
            (at.port_at("seat"), "cone-37"),
            (at.port_at("proved"), False),
        ]
    return choose("Change it to a 37° single flare", *values)


def _shared(case: Case, end: EndName) -> Iterator[Finding]:
    """A nut that also goes home where its end does not seal, while nobody has said which seat it is."""
    nut, fitting, at = case.nuts[end], case.fittings[end], case.run.end(end)
    if nut is None or at.port.seat or at.beyond or not at.at_port or not at.opened:
        return
    for shared in case.kit.shared_threads:
        if nut.thread not in shared.threads or fitting.id not in shared.ends:
            continue
        stops = shared.severe and case.service.safety_critical
        seats = [seat for seat in case.kit.seats.values() if fitting.id in seat.takes]
        fix = None
        if seats:
            fix = set_value(f"It is a {seats[-1].name}", at.port_at("seat"), seats[-1].id)
        yield case.told(
            "seat_unsaid",
            case.at_end(end),
            source=shared.source,
            severity="stop" if stops else "caution",
            fix=fix,
            thread=nut.thread,
            looks_like=shared.looks_like,
            fitting=fitting.name,
        )
        return


def _metals(case: Case, end: EndName) -> Iterator[Finding]:
    """Tube and port of metals far apart corrode where they are wet."""
    body = case.kit.bodies.get(case.run.end(end).port.body)
    if body is None or case.material.family == "plastic" or body.anodic_v <= 0:
        return
    apart = abs(body.anodic_v - case.material.anodic_v)
    limit = case.kit.limits["galvanic_v"]
    if apart <= limit.value + 1e-9:
        return
    eaten = body.name if body.anodic_v > case.material.anodic_v else case.material.name
    yield case.told("galvanic", case.at_end(end), body=body.name, apart=apart, limit=limit.value, eaten=eaten)
