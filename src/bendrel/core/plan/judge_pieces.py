"""Rules on what lies beyond the ends: hose by class, fluid, fit and clamps; parts with a direction."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Change, Finding, Fix
from bendrel.core.joints.direction import ONE_WAY, backwards
from bendrel.core.plan.case import Case, set_value
from bendrel.core.plan.chosen import Chosen
from bendrel.core.plan.pieces import HoseEndFit, PlacedHose, PlacedPart


def judge_pieces(case: Case, chosen: Chosen) -> Iterator[Finding]:
    """Findings on hoses, clamps and parts."""
    for hose in chosen.pieces.hoses:
        yield from _class(case, chosen, hose)
        yield from _joint(case, hose)
        if hose.piece.rubs and not hose.piece.sleeved:
            yield from _rubs(case, hose)
    yield from _direction(case, chosen)
    yield from _old_filter(case, chosen)


def _path(piece: PlacedHose | PlacedPart) -> str:
    return f"/end_{piece.end.lower()}/beyond/{piece.index}"


def _class(case: Case, chosen: Chosen, hose: PlacedHose) -> Iterator[Finding]:
    where, name = case.at_piece(hose.end, hose.index), hose.hose_class.name
    verdict = case.kit.verdict("hose", hose.hose_class.id, case.service.id)
    if verdict is not None and verdict.verdict in ("caution", "refused"):
        refused = verdict.verdict == "refused"
        yield Finding(
            severity="stop" if refused else "caution",
            code="hose_refused" if refused else "hose_care",
            where=where,
            title=f"{'No' if refused else 'Care with'} {name} on a {case.service.name} line",
            message=verdict.reason,
            source=verdict.source,
            advice="Choose hose of the right class.",
            fix=_right_hose(case, hose) if refused else None,
            safety=True,
        )
    if chosen.carried is None:
        return
    fluid = chosen.carried.fluid
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
            fix=_right_hose(case, hose),
            safety=True,
        )


def _right_hose(case: Case, hose: PlacedHose) -> Fix | None:
    """Hose of a class that is right here, in the bore nearest to the present one."""
    right = [
        other
        for other in case.kit.hoses.values()
        if (v := case.kit.verdict("hose", other.hose_class, case.service.id)) and v.verdict == "right"
    ]
    if not right:
        return None
    best = min(right, key=lambda other: abs(other.id_mm - hose.hose.id_mm))
    name = case.kit.hose_classes[best.hose_class].name
    changes = [Change(path=f"{_path(hose)}/hose", value=best.id)]
    if not case.kit.hose_classes[best.hose_class].clamps:
        changes += [
            Change(path=f"{_path(hose)}/joined", value="crimped"),
            Change(path=f"{_path(hose)}/clamp", value=None),
        ]
    return Fix(label=f"Use {name} {best.size}", changes=tuple(changes))


def _joint(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    where = case.at_piece(hose.end, hose.index)
    joint = "hose-and-clamps" if hose.piece.joined == "clamps" else "crimped-hose"
    verdict = case.kit.verdict("joint", joint, case.service.id)
    if verdict is not None and verdict.verdict == "refused":
        yield Finding(
            severity="stop",
            code="joint_refused",
            where=where,
            title=f"No {case.kit.joints[joint].name} on a {case.service.name} line",
            message=verdict.reason,
            source=verdict.source,
            advice="Use flared ends and a made-up hose of the right class.",
            safety=True,
        )
    if hose.piece.joined != "clamps":
        return
    yield from _clamp(case, hose)
    for side in hose.ends:
        yield from _push(case, hose, side)


def _clamp(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    where, clamp = case.at_piece(hose.end, hose.index), hose.clamp
    offers = [name for name in (hose.ends[0].offers if hose.ends else ()) if _allowed(case, name)]
    fix = None
    if offers:
        best = case.kit.clamps[offers[0]]
        kind = case.kit.clamp_kinds[best.kind].name
        fix = set_value(f"Use a {kind} {best.name} mm", f"{_path(hose)}/clamp", best.id)
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
    verdict = case.kit.verdict("clamp", clamp.kind, case.service.id)
    kind = case.kit.clamp_kinds[clamp.kind].name
    if verdict is not None and verdict.verdict in ("caution", "refused"):
        refused = verdict.verdict == "refused"
        yield Finding(
            severity="stop" if refused else "caution",
            code="clamp_refused" if refused else "clamp_care",
            where=where,
            title=f"{'No' if refused else 'Care with a'} {kind} on a {case.service.name} line",
            message=verdict.reason,
            source=verdict.source,
            advice="Choose another kind of clamp.",
            fix=fix if refused else None,
            safety=True,
        )
    wrong = [side for side in hose.ends if side.holds is False]
    if wrong:
        over = wrong[0].fit.over_mm
        yield Finding(
            severity="stop",
            code="clamp_range",
            where=where,
            title=f"The {kind} {clamp.name} does not suit the hose",
            message=(
                f"It takes {clamp.closed_mm:g} to {clamp.open_mm:g} mm; the hose measures {over:.1f} mm "
                "once pushed on."
            ),
            source=clamp.source,
            advice="Choose a clamp whose range holds that.",
            fix=fix,
            safety=case.service.safety_critical,
        )


def _allowed(case: Case, clamp: str) -> bool:
    verdict = case.kit.verdict("clamp", case.kit.clamps[clamp].kind, case.service.id)
    return verdict is None or verdict.verdict != "refused"


def _push(case: Case, hose: PlacedHose, side: HoseEndFit) -> Iterator[Finding]:
    where = case.at_piece(hose.end, hose.index)
    on = "the tube" if side.side == "near" else "the far spigot"
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
            advice="Choose the bore that fits.",
            fix=_fitting_bore(case, hose, side),
            safety=case.service.safety_critical,
        )
    elif side.fit.push == "warm":
        limit = case.kit.limits["hose_warm"]
        yield Finding(
            severity="note",
            code=f"hose_warm_{side.side}",
            where=where,
            title=f"The hose goes on {on} warm",
            message=(
                f"{figures}: warm it in hot water, wet it with the system's own fluid, push. Never a flame."
            ),
            source=limit.source,
        )
    if side.overlap_mm is not None and side.overlap_mm > hose.hose.overlap_mm:
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
    if side.bare and hose.piece.clamps_each < 2:
        rule = case.kit.advice["bead"]
        two = case.kit.preferences.get("clamp-count", "two") == "two"
        yield Finding(
            severity="caution" if two else "note",
            code=f"one_clamp_{side.side}",
            where=where,
            title=f"One clamp on bare {'tube' if side.side == 'near' else 'spigot'}",
            message=rule.text if two else f"{rule.text} This shop's way is one clamp on a good fit.",
            source=rule.source,
            fix=set_value("Two clamps each side", f"{_path(hose)}/clamps_each", 2),
        )
    elif side.bare and side.side == "near":
        rule = case.kit.advice["bead"]
        yield Finding(
            severity="note",
            code="no_bead",
            where=where,
            title="Bead the tube under the hose",
            message=rule.text,
            source=rule.source,
            fix=_beaded(case, hose),
        )


def _beaded(case: Case, hose: PlacedHose) -> Fix | None:
    if ("bead", case.tube.size) not in case.kit.end_sizes:
        return None
    return set_value("Change it to a beaded end", f"/end_{hose.end.lower()}/fitting", "bead")


def _fitting_bore(case: Case, hose: PlacedHose, side: HoseEndFit) -> Fix | None:
    same = [h for h in case.kit.hoses.values() if h.hose_class == hose.hose.hose_class]
    limits = case.kit.limits
    fits = [
        h
        for h in same
        if limits["hose_loose"].value <= (side.on_mm - h.id_mm) / h.id_mm <= limits["hose_warm"].value
    ]
    if not fits:
        return None
    best = min(fits, key=lambda h: abs(side.on_mm - h.id_mm))
    return set_value(f"Use {best.size}", f"{_path(hose)}/hose", best.id)


def _rubs(case: Case, hose: PlacedHose) -> Iterator[Finding]:
    rule = case.kit.advice["hose_sleeve"]
    yield Finding(
        severity="caution",
        code="hose_rubs",
        where=case.at_piece(hose.end, hose.index),
        title="The hose rubs and has no sleeve",
        message=rule.text,
        source=rule.source,
        fix=set_value("A sleeve is on", f"{_path(hose)}/sleeved", True),
        safety=case.service.safety_critical,
    )


def _direction(case: Case, chosen: Chosen) -> Iterator[Finding]:
    rule = case.kit.advice["backwards"]
    for part in chosen.pieces.parts:
        name, where = part.piece.part, case.at_piece(part.end, part.index)
        if backwards(part.piece, chosen.flows):
            turned = "A" if part.piece.points == "B" else "B"
            marked = part.piece.part in ONE_WAY
            yield Finding(
                severity="stop" if marked else "caution",
                code="backwards",
                where=where,
                title=f"The {name} stands the wrong way round",
                message=f"It points to {part.piece.points}, the line flows {chosen.flows}. {rule.text}",
                source=rule.source,
                fix=set_value("Turn it round", f"{_path(part)}/points", turned),
                safety=marked and case.service.safety_critical,
            )
        elif part.piece.part in ONE_WAY and (
            part.piece.points == "not marked" or chosen.flows in ("not known", "contradicts")
        ):
            missing = (
                "which end its arrow points to"
                if part.piece.points == "not marked"
                else "which way the line flows"
            )
            yield Finding(
                severity="caution",
                code="direction_unknown",
                where=where,
                title=f"Is the {name} the right way round?",
                message=f"Say {missing}. {rule.text}",
                source=rule.source,
                advice="Look for the arrow, or blow through it: a check valve passes one way only.",
            )
        if name == "restrictor" and part.bore_mm is None:
            yield Finding(
                severity="note",
                code="restrictor_bore",
                where=where,
                title="The restrictor's bore is not measured",
                message="Without it nothing can be said of what it lets through.",
                source=case.kit.limits["orifice_cd"].source,
                advice="Measure it with a drill shank that just passes.",
            )


def _old_filter(case: Case, chosen: Chosen) -> Iterator[Finding]:
    parts = chosen.pieces.parts
    new = [p for p in parts if p.piece.part == "restrictor" and p.piece.age == "new"]
    old = [p for p in parts if p.piece.part == "filter" and p.piece.age == "old"]
    if not new:
        return
    rule = case.kit.advice["old_filter"]
    for part in old:
        yield Finding(
            severity="stop",
            code="old_filter",
            where=case.at_piece(part.end, part.index),
            title="An old filter beside a new restrictor",
            message=rule.text,
            source=rule.source,
            fix=set_value("A new filter is fitted", f"{_path(part)}/age", "new"),
            safety=case.service.safety_critical,
        )
