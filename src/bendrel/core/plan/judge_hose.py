"""Rules on hoses beyond the ends: class, fluid, heat and cold, how they are held, and what they go on."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding, Fix
from bendrel.core.hose.hose import ClampKindId, Hose
from bendrel.core.plan.case import Case, choose, set_value
from bendrel.core.plan.chosen import Chosen
from bendrel.core.plan.judge_service import against
from bendrel.core.plan.pieces import HoseEndFit, PlacedHose, clamp_offers


def judge_hose(case: Case, chosen: Chosen) -> Iterator[Finding]:
    """Findings on every hose beyond the ends."""
    for hose in chosen.pieces.hoses:
        yield from _class(case, chosen, hose)
        yield from _joint(case, hose)
        yield from _over_end(case, hose)
        yield from _short(case, hose)
        if hose.piece.rubs and not hose.piece.sleeved:
            yield from _rubs(case, hose)


Values = list[tuple[str, str | float | bool | None]]


def hose_path(hose: PlacedHose) -> str:
    """Where the piece stands in the document."""
    return f"/end_{hose.end.lower()}/beyond/{hose.index}"


def _class(case: Case, chosen: Chosen, hose: PlacedHose) -> Iterator[Finding]:
    where, name = case.at_piece(hose.end, hose.index), hose.hose_class.name
    verdict = case.kit.verdict("hose", hose.hose_class.id, case.service.id)
    severity = against(verdict)
    if verdict is not None and severity is not None:
        refused = severity == "stop"
        yield Finding(
            severity=severity,
            code="hose_refused" if refused else "hose_care",
            where=where,
            title=f"{'No' if refused else 'Care with'} {name} on a {case.service.name} line",
            message=verdict.reason,
            source=verdict.source,
            advice="Choose hose of the right class.",
            fix=_right_hose(case, chosen, hose) if refused else None,
            safety=True,
        )
    if chosen.carried is None:
        return
    fluid, duty = chosen.carried.fluid, chosen.carried.duty
    attack = next((a for a in fluid.attacks if a.id == hose.hose_class.liner), None)
    if attack is not None or fluid.family not in hose.hose_class.families:
        yield Finding(
            severity="stop" if attack else "caution",
            code="hose_fluid",
            where=where,
            title=f"{fluid.name} in {name}",
            message=attack.reason if attack else f"Its {hose.hose_class.liner} liner is not made for it.",
            source=fluid.source if attack else hose.hose_class.source,
            advice="Choose hose whose liner is made for this fluid.",
            fix=_right_hose(case, chosen, hose),
            safety=True,
        )
    if duty.cold_c < hose.hose_class.lowest_c:
        yield Finding(
            severity="caution",
            code="too_cold_hose",
            where=where,
            title=f"Too cold for the {name}",
            message=f"It is made for {hose.hose_class.lowest_c:.0f} °C and up, the line sees "
            f"{duty.cold_c:.0f} °C.",
            source=hose.hose_class.source,
            advice="Choose a class that stays soft in that cold.",
            safety=case.service.safety_critical,
        )


def _right_hose(case: Case, chosen: Chosen, hose: PlacedHose) -> Fix | None:
    """Hose that is right or acceptable here, stands fluid, heat and pressure, and fits what it goes on, in
    the bore nearest to the present one, with the way of holding it that its class has."""
    carried = chosen.carried
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
        if kind.clamps and not all(_goes(case, other, side) for side in hose.ends):
            continue
        ranked.append((verdict.verdict != "right", abs(other.id_mm - hose.hose.id_mm), other))
    if not ranked:
        return None
    best = min(ranked, key=lambda row: row[:2])[2]
    kind = case.kit.hose_classes[best.hose_class]
    values: Values = [(f"{hose_path(hose)}/hose", best.id)]
    if not kind.clamps:
        values += [(f"{hose_path(hose)}/joined", "crimped"), (f"{hose_path(hose)}/clamp", None)]
    elif hose.piece.joined == "clamps":
        values += _clamp_for(case, hose, best)
    return choose(f"Use {kind.name} {best.size}", *values)


def _goes(case: Case, hose: Hose, side: HoseEndFit) -> bool:
    """The bore is neither loose nor too tight on what it goes on."""
    limits = case.kit.limits
    share = (side.on_mm - hose.id_mm) / hose.id_mm
    return limits["hose_loose"].value <= share <= limits["hose_warm"].value


def _clamp_for(case: Case, placed: PlacedHose, hose: Hose) -> Values:
    """The clamp that goes with another hose: the present one where it holds, else the best that does."""
    kind = case.kit.hose_classes[hose.hose_class]
    offers = clamp_offers(
        case.kit, case.service.id, hose, kind.clamps, tuple(side.on_mm for side in placed.ends)
    )
    if placed.clamp is None or placed.clamp.id in offers:
        return []
    return [(f"{hose_path(placed)}/clamp", offers[0] if offers else None)]


JOINTS = {"clamps": "hose-and-clamps", "crimped": "crimped-hose", "reusable": "reusable-hose"}


def joint_of(hose: PlacedHose) -> str:
    """The kind of joint that a hose makes, by catalogue id."""
    if hose.piece.joined == "clamps" and hose.piece.clamps_each == 0:
        return "push-on"
    return JOINTS[hose.piece.joined]


def _joint(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    where, joint = case.at_piece(hose.end, hose.index), joint_of(hose)
    verdict = case.kit.verdict("joint", joint, case.service.id)
    severity = against(verdict)
    met = verdict is not None and (
        (verdict.unless == "two clamps" and hose.piece.clamps_each == 2)
        or (verdict.unless == "made up" and bool(hose.hose_class.law))
    )
    if verdict is not None and severity is not None and not met:
        refused = severity == "stop"
        name = case.kit.joints[joint].name
        yield Finding(
            severity=severity,
            code="joint_refused" if refused else "joint_care",
            where=where,
            title=f"{'No' if refused else 'Care with'} {name} on a {case.service.name} line",
            message=verdict.reason,
            source=verdict.source,
            advice="Use ends that are right for this service." if refused else "",
            safety=refused or case.service.safety_critical,
        )
    if hose.piece.joined == "reusable" and hose.hose_class.law:
        rule = case.kit.advice["reusable_brake"]
        yield Finding(
            severity="stop",
            code="reusable_brake",
            where=where,
            title="No reusable ends on a brake hose",
            message=rule.text,
            source=rule.source,
            fix=choose("It is bought made up", (f"{hose_path(hose)}/joined", "crimped")),
            safety=True,
        )
    if hose.piece.joined != "clamps":
        return
    yield from _clamp(case, hose)
    for side in hose.ends:
        yield from _push(case, hose, side)


def _clamp(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    where, clamp, kind = case.at_piece(hose.end, hose.index), hose.clamp, hose.hose_class
    sizes = tuple(side.on_mm for side in hose.ends)
    if hose.piece.clamps_each == 0:
        return  # pushed on: judged as that joint
    if not kind.clamps:
        yield Finding(
            severity="stop",
            code="clamp_on_class",
            where=where,
            title=f"No clamps on {kind.name}",
            message="It does not give under a clamp: its ends are crimped or reusable.",
            source=kind.source,
            advice="Have it crimped, or choose hose made for clamps.",
            fix=choose(
                "Its ends are crimped",
                (f"{hose_path(hose)}/joined", "crimped"),
                (f"{hose_path(hose)}/clamp", None),
            ),
            safety=True,
        )
        return
    offers = clamp_offers(case.kit, case.service.id, hose.hose, kind.clamps, sizes)
    fix = None
    if offers:
        best = case.kit.clamps[offers[0]]
        name = case.kit.clamp_kinds[best.kind].name
        fix = choose(f"Use a {name} {best.name} mm", (f"{hose_path(hose)}/clamp", best.id))
    if clamp is None:
        yield Finding(
            severity="caution",
            code="no_clamp",
            where=where,
            title="No clamp chosen for the hose",
            message=f"Once pushed on it measures {hose.ends[0].fit.over_mm:.1f} mm outside.",
            source=hose.hose.source,
            advice="Choose a clamp whose range holds that.",
            fix=fix,
            safety=case.service.safety_critical,
        )
        return
    yield from _clamp_kind(case, hose, clamp.kind, fix)
    wrong = [side for side in hose.ends if side.holds is False]
    if wrong:
        over = wrong[0].fit.over_mm
        inside = clamp.closed_mm < over <= clamp.open_mm
        limit = case.kit.limits["clamp_left"]
        yield Finding(
            severity="stop",
            code="clamp_range",
            where=where,
            title=f"The {case.kit.clamp_kinds[clamp.kind].name} {clamp.name} does not suit the hose",
            message=(
                f"It takes {clamp.closed_mm:g} to {clamp.open_mm:g} mm; the hose measures {over:.1f} mm "
                "once pushed on"
                + (f": less than {limit.value:.0%} of its range is left to squeeze." if inside else ".")
            ),
            source=limit.source if inside else clamp.source,
            advice="Choose a clamp whose range holds that with something left to squeeze.",
            fix=fix,
            safety=case.service.safety_critical,
        )


def _clamp_kind(case: Case, hose: PlacedHose, kind: ClampKindId, fix: Fix | None) -> Iterator[Finding]:
    where, name = case.at_piece(hose.end, hose.index), case.kit.clamp_kinds[kind].name
    verdict = case.kit.verdict("clamp", kind, case.service.id)
    severity = against(verdict)
    if verdict is not None and severity is not None:
        refused = severity == "stop"
        yield Finding(
            severity=severity,
            code="clamp_refused" if refused else "clamp_care",
            where=where,
            title=f"{'No' if refused else 'Care with a'} {name} on a {case.service.name} line",
            message=verdict.reason,
            source=verdict.source,
            advice="Choose another kind of clamp.",
            fix=fix if refused else None,
            safety=True,
        )
    if kind not in hose.hose_class.clamps:
        yield Finding(
            severity="stop",
            code="clamp_on_class",
            where=where,
            title=f"No {name} on {hose.hose_class.name}",
            message="This class of hose takes "
            + " or ".join(f"a {case.kit.clamp_kinds[k].name}" for k in hose.hose_class.clamps)
            + ".",
            source=hose.hose_class.source,
            advice="Choose another kind of clamp.",
            fix=fix,
            safety=True,
        )


def _push(case: Case, hose: PlacedHose, side: HoseEndFit) -> Iterator[Finding]:
    where = case.at_piece(hose.end, hose.index)
    on = "the tube" if side.side == "near" and hose.index == 0 else f"the {side.side} spigot"
    share = f"{side.fit.interference:+.0%}"
    figures = f"{side.on_mm:.1f} mm in a bore of {hose.hose.id_mm:.1f} mm is {share}"
    if side.fit.push in ("loose", "too tight"):
        loose = side.fit.push == "loose"
        limit = case.kit.limits["hose_loose" if loose else "hose_warm"]
        yield Finding(
            severity="stop",
            code=f"hose_{'loose' if loose else 'tight'}_{side.side}",
            where=where,
            title=f"Hose too {'loose' if loose else 'tight'} on {on}",
            message=f"{figures}: "
            + ("no clamp makes up for it." if loose else "it splits or is never seated."),
            source=limit.source,
            advice="Choose the bore that fits; where one hose would join two diameters, a reducing "
            "connector between two hoses.",
            fix=_fitting_bore(case, hose),
            safety=case.service.safety_critical,
        )
    elif side.fit.push == "warm":
        limit = case.kit.limits["hose_warm"]
        yield Finding(
            severity="note",
            code=f"hose_warm_{side.side}",
            where=where,
            title=f"The hose goes on {on} warm",
            message=f"{figures}: {_warming(case)}",
            source=limit.source,
        )
    if side.overlap_mm is not None and side.overlap_mm > hose.hose.overlap_mm + case.hand_mm:
        limit = case.kit.limits["clamp_gap_mm"]
        yield Finding(
            severity="caution",
            code=f"clamp_room_{side.side}",
            where=where,
            title=f"No room for {hose.piece.clamps_each} clamps on {on}",
            message=(
                f"They need {case.say(side.overlap_mm)} of overlap, this hose is pushed on "
                f"{case.say(hose.hose.overlap_mm)}."
            ),
            source=limit.source,
            advice="Use a narrower clamp, one clamp behind a bead, or push it on further.",
        )
    if side.bare:
        yield from _bare(case, hose, side)


def _warming(case: Case) -> str:
    """How a stiff hose is warmed and wetted, by what it carries. Source: common practice."""
    if not case.wets_hose:
        return (
            "warm it in hot water away from the machine, dry it, push it on dry or with a smear of "
            "engine oil. Never petrol, never a flame."
        )
    return "warm it in hot water, wet it with the system's own fluid, push. Never a flame."


def _bare(case: Case, hose: PlacedHose, side: HoseEndFit) -> Iterator[Finding]:
    where = case.at_piece(hose.end, hose.index)
    what = "tube" if side.side == "near" and hose.index == 0 else "spigot"
    verdict = case.kit.verdict("end", "plain", case.service.id)
    if verdict is not None and verdict.verdict == "refused":
        yield Finding(
            severity="stop",
            code=f"bare_refused_{side.side}",
            where=where,
            title=f"No hose on a bare {what} on a {case.service.name} line",
            message=verdict.reason,
            source=verdict.source,
            advice="Bead the tube, or fit a spigot with a bead.",
            fix=_beaded(case, hose) if side.side == "near" else None,
            safety=True,
        )
        return
    if case.open_or_vacuum:
        return
    rule = case.kit.advice["bead"]
    if hose.piece.clamps_each == 1:
        two = case.kit.preferences.get("clamp-count", "two") == "two"
        yield Finding(
            severity="caution" if two else "note",
            code=f"one_clamp_{side.side}",
            where=where,
            title=f"One clamp on bare {what}",
            message=rule.text if two else f"{rule.text} This shop's way is one clamp on a good fit.",
            source=rule.source,
            fix=choose("Two clamps each side", (f"{hose_path(hose)}/clamps_each", 2)),
        )
    elif side.side == "near":
        yield Finding(
            severity="note",
            code="no_bead",
            where=where,
            title=f"Bead the {what} under the hose",
            message=rule.text,
            source=rule.source,
            fix=_beaded(case, hose),
        )


def _beaded(case: Case, hose: PlacedHose) -> Fix | None:
    verdict = case.kit.verdict("end", "bead", case.service.id)
    if hose.index > 0 or case.kit.end_size("bead", case.tube.size) is None or case.plastic:
        return None
    if verdict is not None and verdict.verdict == "refused":
        return None
    path = f"/end_{hose.end.lower()}"
    return choose("Change it to a beaded end", (f"{path}/fitting", "bead"), (f"{path}/nut", None))


def _fitting_bore(case: Case, hose: PlacedHose) -> Fix | None:
    """The bore of the same class that goes on everything this hose goes on, with a clamp that holds it."""
    fits = [
        other
        for other in case.kit.hoses.values()
        if other.hose_class == hose.hose.hose_class and all(_goes(case, other, side) for side in hose.ends)
    ]
    if not fits:
        return None
    on = hose.ends[0].on_mm
    best = min(fits, key=lambda other: abs(on - other.id_mm))
    return choose(f"Use {best.size}", (f"{hose_path(hose)}/hose", best.id), *_clamp_for(case, hose, best))


def _over_end(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    """A clamped hose next to the tube goes over the tube's own end."""
    fitting = case.fittings[hose.end]
    if hose.index > 0 or hose.piece.joined != "clamps" or fitting.takes_hose:
        return
    rule = case.kit.advice["hose_over"]
    yield Finding(
        severity="stop",
        code="hose_over_end",
        where=case.at_piece(hose.end, hose.index),
        title=f"A hose clamped over a {fitting.name}",
        message=rule.text,
        source=rule.source,
        advice="Change the tube's end, or put an adapter with a spigot between the two.",
        fix=_beaded(case, hose),
        safety=True,
    )


def _short(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    """A hose no longer than what lies on its two ends."""
    if hose.length_mm is None or hose.piece.joined != "clamps":
        return
    need = 2 * hose.hose.overlap_mm
    if hose.length_mm > need + case.hand_mm:
        return
    rule = case.kit.advice["overlaps"]
    yield Finding(
        severity="stop",
        code="hose_short",
        where=case.at_piece(hose.end, hose.index),
        title="The hose is shorter than its two overlaps",
        message=f"{case.say(hose.length_mm)} of hose, {case.say(hose.hose.overlap_mm)} on each end. "
        f"{rule.text}",
        source=rule.source,
        advice="Measure it again: the gap between the ends and an overlap at each.",
        safety=case.service.safety_critical,
    )


def _rubs(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    rule = case.kit.advice["hose_sleeve"]
    yield Finding(
        severity="caution",
        code="hose_rubs",
        where=case.at_piece(hose.end, hose.index),
        title="The hose rubs and has no sleeve",
        message=rule.text,
        source=rule.source,
        fix=set_value("A sleeve is on", f"{hose_path(hose)}/sleeved", True),
        safety=case.service.safety_critical,
    )
