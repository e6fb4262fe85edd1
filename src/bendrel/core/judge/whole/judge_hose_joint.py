"""Rules on how a hose is held: its joint, its clamps, and how it goes on tube and spigot."""

from __future__ import annotations

from collections.abc import Iterator

from bendrel.core.findings import Finding, Fix
from bendrel.core.joints.pieces import HoseEndFit, PlacedHose, clamp_offers
from bendrel.core.judge.case import Whole, choose
from bendrel.core.judge.verdicts import said_against
from bendrel.core.judge.whole.hose_fixes import beaded_end, fitting_bore, hose_at
from bendrel.core.parts.hose import ClampKindId
from bendrel.core.words import a_or_an

JOINTS = {"clamps": "hose-and-clamps", "crimped": "crimped-hose", "reusable": "reusable-hose"}


def joint_of(hose: PlacedHose) -> str:
    """The kind of joint that a hose makes, by catalogue id."""
    if hose.piece.joined == "clamps" and hose.piece.clamps_each == 0:
        return "push-on"
    return JOINTS[hose.piece.joined]


def judge_hose_joint(case: Whole, hose: PlacedHose) -> Iterator[Finding]:
    """Findings on how one hose is held, and on what it goes on."""
    where, joint = case.at_span(hose.piece.id), joint_of(hose)
    verdict = case.kit.verdict("joint", joint, case.service.id)
    met = verdict is not None and (
        (verdict.unless == "two clamps" and hose.piece.clamps_each == 2)
        or (verdict.unless == "made up" and bool(hose.hose_class.law))
    )
    if not met:
        refused = verdict is not None and verdict.verdict == "refused"
        yield from said_against(
            case,
            verdict,
            refused="joint_refused",
            care="joint_care",
            where=where,
            what=case.kit.joints[joint].name,
            advice="Use ends that are right for this service." if refused else "",
        )
    if hose.piece.joined == "reusable" and hose.hose_class.law:
        yield case.told(
            "reusable_brake", where, fix=choose("It is bought made up", (hose_at(hose, "joined"), "crimped"))
        )
    if hose.piece.joined != "clamps":
        return
    yield from _clamp(case, hose)
    for side in hose.ends:
        yield from _push(case, hose, side)


def _clamp(case: Whole, hose: PlacedHose) -> Iterator[Finding]:
    where, clamp, kind = case.at_span(hose.piece.id), hose.clamp, hose.hose_class
    sizes = tuple(side.on_mm for side in hose.ends)
    if hose.piece.clamps_each == 0:
        return  # pushed on: judged as that joint
    if not kind.clamps:
        yield case.told(
            "clamp_on_class",
            where,
            source=kind.source,
            fix=choose(
                "Its ends are crimped",
                (hose_at(hose, "joined"), "crimped"),
                (hose_at(hose, "clamp"), None),
            ),
            kind=kind.name,
        )
        return
    offers = clamp_offers(case.kit, case.service.id, hose.hose, kind.clamps, sizes)
    fix = None
    if offers and sizes:
        best = case.kit.clamps[offers[0]]
        name = case.kit.clamp_kinds[best.kind].name
        fix = choose(f"Use {a_or_an(name)} {best.name} mm", (hose_at(hose, "clamp"), best.id))
    if clamp is None:
        yield case.told(
            "no_clamp",
            where,
            message=f"Once pushed on it measures {case.say_small(hose.ends[0].fit.over_mm)} outside."
            if hose.ends
            else "What its ends go on is not known, so neither is what they measure once pushed on.",
            advice="Choose a clamp whose range holds that."
            if hose.ends
            else "Measure what the hose goes on, then choose a clamp that holds it.",
            source=hose.hose.source,
            fix=fix,
        )
        return
    yield from _clamp_kind(case, hose, clamp.kind, fix)
    wrong = [side for side in hose.ends if side.holds is False]
    if wrong:
        over = wrong[0].fit.over_mm
        inside = clamp.closed_mm < over <= clamp.open_mm
        limit = case.kit.limits["clamp_left"]
        yield case.told(
            "clamp_range",
            where,
            source=limit.source if inside else clamp.source,
            fix=fix,
            name=case.kit.clamp_kinds[clamp.kind].name,
            clamp=clamp.name,
            closed=case.say_small(clamp.closed_mm),
            opened=case.say_small(clamp.open_mm),
            over=case.say_small(over),
            more=f": less than {limit.value:.0%} of its range is left to squeeze." if inside else ".",
        )


def _clamp_kind(case: Whole, hose: PlacedHose, kind: ClampKindId, fix: Fix | None) -> Iterator[Finding]:
    where, name = case.at_span(hose.piece.id), case.kit.clamp_kinds[kind].name
    verdict = case.kit.verdict("clamp", kind, case.service.id)
    refused = verdict is not None and verdict.verdict == "refused"
    yield from said_against(
        case,
        verdict,
        refused="clamp_refused",
        care="clamp_care",
        where=where,
        what=name if refused else f"a {name}",
        advice="Choose another kind of clamp.",
        fix=lambda: fix,
        safety=True,
    )
    if kind not in hose.hose_class.clamps:
        yield case.told(
            "clamp_kind_on_class",
            where,
            source=hose.hose_class.source,
            fix=fix,
            name=name,
            hose_class=hose.hose_class.name,
            k=" or ".join(a_or_an(case.kit.clamp_kinds[k].name) for k in hose.hose_class.clamps),
        )


def _push(case: Whole, hose: PlacedHose, side: HoseEndFit) -> Iterator[Finding]:
    where = case.at_span(hose.piece.id, side.faces)
    on = "the tube" if side.tube else f"the {side.side} spigot"
    share = f"{side.fit.interference:+.0%}"
    figures = f"{case.say_small(side.on_mm)} in a bore of {case.say_small(hose.hose.id_mm)} is {share}"
    if side.fit.push in ("loose", "too tight"):
        kind = "hose_loose" if side.fit.push == "loose" else "hose_tight"
        yield case.told(kind, where, fix=fitting_bore(case, hose), on=on, figures=figures)
    elif side.fit.push == "warm":
        limit = case.kit.limits["hose_warm"]
        yield case.told(
            "hose_warm", where, source=limit.source, on=on, figures=figures, warming=_warming(case)
        )
    if not side.lap.holds_clamps:
        limit = case.kit.limits["clamp_gap_mm"]
        yield case.told(
            "clamp_room",
            where,
            source=limit.source,
            clamps_each=hose.piece.clamps_each,
            on=on,
            clamps=case.say(side.lap.clamps_mm),
            mm=case.say(side.lap.mm),
        )
    if side.bare:
        yield from _bare(case, hose, side)


def _warming(case: Whole) -> str:
    """How a stiff hose is warmed and wetted, by what it carries. Source: common practice."""
    wet = case.wetting
    if wet.dry:
        return "warm it in hot water, dry it, push it on dry. Never a flame."
    return f"warm it in hot water away from the machine, dry it; on it goes {wet.smear}. Never a flame."


def _bare(case: Whole, hose: PlacedHose, side: HoseEndFit) -> Iterator[Finding]:
    where = case.at_span(hose.piece.id, side.faces)
    what = "tube" if side.tube else "spigot"
    verdict = case.kit.verdict("end", "plain", case.service.id)
    if verdict is not None and verdict.verdict == "refused":
        yield case.told(
            "bare_refused",
            where,
            message=verdict.reason,
            source=verdict.source,
            fix=beaded_end(case, hose, side),
            what=what,
        )
        return
    if case.open_or_vacuum:
        return
    rule = case.kit.advice["bead"]
    if hose.piece.clamps_each == 1:
        two = case.kit.preferences.get("clamp-count", "two") == "two"
        yield case.told(
            "one_clamp",
            where,
            message=rule.text if two else f"{rule.text} This shop's way is one clamp on a good fit.",
            severity="caution" if two else "note",
            fix=choose("Two clamps each side", (hose_at(hose, "clamps_each"), 2)),
            what=what,
        )
    elif side.side == "near" or side.tube:
        beside = case.beside(hose.piece.id, side.faces)
        takes = beside is None or beside[0].material.beads
        yield case.told(
            "no_bead",
            where,
            title=f"Bead the {what} under the hose" if takes else "A barb in the tube under the hose",
            fix=beaded_end(case, hose, side),
        )
