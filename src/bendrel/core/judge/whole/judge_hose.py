"""Rules on hoses: class, fluid, cold, length, what they lie over, and what they touch."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding, Fix
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.judge.case import Whole, choose, set_value
from bendrel.core.judge.verdicts import said_against
from bendrel.core.judge.whole.hose_fixes import Values, beaded_end, clamp_for_hose, hose_at
from bendrel.core.judge.whole.judge_hose_joint import judge_hose_joint
from bendrel.core.parts.fits import bore_fits
from bendrel.core.parts.hose import Hose


def judge_hose(case: Whole) -> Iterator[Finding]:
    """Findings on every hose."""
    for hose in case.chosen.pieces.hoses:
        yield from _class(case, hose)
        yield from judge_hose_joint(case, hose)
        yield from _over_end(case, hose)
        yield from _short(case, hose)
        if hose.piece.rubs and not hose.piece.sleeved:
            yield from _rubs(case, hose)


def _class(case: Whole, hose: PlacedHose) -> Iterator[Finding]:
    where, name = case.at_span(hose.piece.id), hose.hose_class.name
    verdict = case.kit.verdict("hose", hose.hose_class.id, case.service.id)
    yield from said_against(
        case,
        verdict,
        refused="hose_refused",
        care="hose_care",
        where=where,
        what=name,
        advice="Choose hose of the right class.",
        fix=lambda: _right_hose(case, hose),
        safety=True,
    )
    carried = case.chosen.carried
    if carried is None:
        return
    fluid, duty = carried.fluid, carried.duty
    attack = next((a for a in fluid.attacks if a.id == hose.hose_class.liner), None)
    if attack is not None or fluid.family not in hose.hose_class.families:
        yield case.told(
            "hose_fluid",
            where,
            message=attack.reason if attack else f"Its {hose.hose_class.liner} liner is not made for it.",
            source=fluid.source if attack else hose.hose_class.source,
            severity="stop" if attack else "caution",
            fix=_right_hose(case, hose),
            fluid=fluid.name,
            name=name,
        )
    if duty.cold_c < hose.hose_class.lowest_c:
        yield case.told(
            "too_cold_hose",
            where,
            source=hose.hose_class.source,
            name=name,
            lowest_c=hose.hose_class.lowest_c,
            cold_c=duty.cold_c,
        )


def _right_hose(case: Whole, hose: PlacedHose) -> Fix | None:
    """Hose that is right or acceptable here, stands fluid, heat and pressure, and fits what it goes on, in
    the bore nearest to the present one, with the way of holding it that its class has."""
    carried = case.chosen.carried
    ranked: list[tuple[int, float, Hose]] = []
    for other in case.kit.hoses.values():
        kind = case.kit.hose_classes[other.hose_class]
        verdict = case.kit.verdict("hose", kind.id, case.service.id)
        if verdict is None or verdict.verdict not in ("right", "acceptable"):
            continue
        if carried is not None:
            duty = carried.duty
            harmed = any(attack.id == kind.liner for attack in carried.fluid.attacks)
            if harmed or carried.fluid.family not in kind.families or duty.hot_c > kind.highest_c:
                continue
            if other.pressure_kpa is None and not kind.law:
                continue
            if not duty.vacuum and other.pressure_kpa is not None and other.pressure_kpa < duty.working_kpa:
                continue
        clamped = case.kit.verdict("joint", "hose-and-clamps", case.service.id)
        if kind.clamps and (clamped is None or clamped.verdict == "refused"):
            continue
        if kind.clamps and not all(bore_fits(case.kit, other, side.on_mm) for side in hose.ends):
            continue
        ranked.append((verdict.verdict != "right", abs(other.id_mm - hose.hose.id_mm), other))
    if not ranked:
        return None
    best = min(ranked, key=lambda row: row[:2])[2]
    kind = case.kit.hose_classes[best.hose_class]
    values: Values = [(hose_at(hose, "hose"), best.id)]
    if not kind.clamps:
        values += [(hose_at(hose, "joined"), "crimped"), (hose_at(hose, "clamp"), None)]
    elif hose.piece.joined == "clamps":
        values += clamp_for_hose(case, hose, best)
    return choose(f"Use {kind.name} {best.size}", *values)


def _over_end(case: Whole, hose: PlacedHose) -> Iterator[Finding]:
    """A clamped hose next to a tube goes over the tube's own end."""
    for side in hose.ends:
        beside = case.beside(hose.piece.id, side.faces)
        if beside is None or hose.piece.joined != "clamps":
            continue
        fitting = beside[0].fittings[beside[1]]
        if fitting.takes_hose:
            continue
        yield case.told(
            "hose_over_end",
            case.at_span(hose.piece.id, side.faces if side.side == "far" else None),
            fix=beaded_end(case, hose, side),
            fitting=fitting.name,
        )


def _short(case: Whole, hose: PlacedHose) -> Iterator[Finding]:
    """A hose no longer than what lies on its two ends."""
    if hose.length_mm is None or hose.piece.joined != "clamps":
        return
    need = hose.on_ends_mm
    if hose.length_mm > need + case.hand_mm:
        return
    yield case.told(
        "hose_short", case.at_span(hose.piece.id), length=case.say(hose.length_mm), need=case.say(need)
    )


def _rubs(case: Whole, hose: PlacedHose) -> Iterator[Finding]:
    yield case.told(
        "hose_rubs",
        case.at_span(hose.piece.id),
        fix=set_value("A sleeve is on", hose_at(hose, "sleeved"), True),
    )
