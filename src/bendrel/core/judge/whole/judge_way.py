"""Rules on the way of a hose: does it reach, is it nowhere too tight, does it twist, what does it come
near."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil

from bendrel.core.findings import EndName, Finding, Fix
from bendrel.core.hose.assembly import nearest_angle, turned_deg
from bendrel.core.hose.laid import LaidHose, Near, touches, windows_at_the_limits
from bendrel.core.hose.shape.laid import HoseError
from bendrel.core.hose.shape.moving import Hinge
from bendrel.core.hose.shape.windows import Window
from bendrel.core.joints.hose_ends import end_kind_of
from bendrel.core.joints.pieces import PlacedHose
from bendrel.core.judge.case import Whole, choose, set_value
from bendrel.core.judge.whole.hose_fixes import hose_at
from bendrel.core.parts.hose_end import EndAngle, HoseEndKind

_ROUND_MM, _ROUND_IN = 5.0, 25.4 / 4


def judge_way(case: Whole) -> Iterator[Finding]:
    """Findings on the ends of every hose, and on the way of those with known ends."""
    for hose in case.chosen.pieces.hoses:
        yield from _own_ends(case, hose)
    placed = {hose.piece.id: hose for hose in case.chosen.pieces.hoses}
    for laid in case.laid:
        hose = placed[laid.span]
        yield from _angles(case, laid, hose)
        if laid.length_mm is None:
            yield from _length(case, laid, hose)
            continue
        if laid.spare_mm is not None and laid.spare_mm < -1e-6:
            yield _no_reach(case, laid, hose)
        elif laid.radius_mm is not None and laid.radius_mm < laid.needs_mm:
            yield _kinks(case, laid, hose)
        else:
            yield from _slack(case, laid, hose)
        yield from _twists(case, laid, hose)
        for near in laid.nearest:
            yield from _near(case, laid, hose, near)


def _own_ends(case: Whole, hose: PlacedHose) -> Iterator[Finding]:
    if hose.piece.joined != "reusable" or hose.hose_class.law:
        return
    kind = end_kind_of(case.kit, hose)
    if kind is not None and kind.size_for(hose.hose.size) is not None:
        return
    where, name = case.at_span(hose.piece.id), hose.hose_class.name
    if kind is None and hose.hose_class.reusable:
        yield case.told("hose_end_unknown", where, name=name)
        return
    if kind is None:
        yield case.told(
            "hose_end_none_made",
            where,
            fix=choose("Its ends are crimped", (hose_at(hose, "joined"), "crimped")),
            name=name,
        )
        return
    yield case.told(
        "hose_end_none",
        where,
        fix=choose("Its ends are crimped", (hose_at(hose, "joined"), "crimped")),
        kind=kind.name,
        size=hose.hose.size,
        sizes=_sizes(kind),
    )


def _sizes(kind: HoseEndKind) -> str:
    return ", ".join(dict.fromkeys(f"{one.size} (dash {one.dash})" for one in kind.sizes))


def _angles(case: Whole, laid: LaidHose, hose: PlacedHose) -> Iterator[Finding]:
    kind, limit = end_kind_of(case.kit, hose), case.kit.limits["hose_end_deg"]
    if kind is None or hose.piece.joined == "clamps":
        return
    both: tuple[tuple[EndName, str, EndAngle], ...] = (
        ("A", "angle_a", hose.piece.angle_a),
        ("B", "angle_b", hose.piece.angle_b),
    )
    for end, field, angle in both:
        turned = turned_deg(laid, end)
        if turned is None or abs(turned - angle) <= limit.value:
            continue
        best = nearest_angle(kind, turned)
        near = abs(best - turned) <= limit.value
        yield case.told(
            "hose_end_angle",
            case.at_span(laid.span, end),
            advice=""
            if near
            else "Turn the port, or let the hose leave another way: no end comes in that angle.",
            fix=choose(
                f"Use {'a straight end' if best == 0 else f'an end of {best}°'}", (hose_at(hose, field), best)
            )
            if near
            else None,
            end=end,
            turned=turned,
            angle="straight" if angle == 0 else f"one of {angle}°",
        )


def position(case: Whole, laid: LaidHose, gone: tuple[float, ...]) -> str:
    """A position of the travel in words, blank where nothing moves."""
    told = [
        f"{name} {far:+.0f}°"
        if isinstance(move, Hinge)
        else f"{name} {case.say(abs(far))}{' back' if far < 0 else ''}"
        for name, move, far in zip(laid.move_names, laid.moves, gone, strict=True)
        if abs(far) > 1e-6
    ]
    if not told:
        return "as it is fitted" if laid.moves else ""
    return "at " + ", ".join(told)


def good_windows(case: Whole, laid: LaidHose) -> tuple[Window, ...]:
    """The lengths that keep the radius; none where there is no such length. Of a moving hose they are those
    of its limits: what is chosen from them is planned over the whole travel before it is offered."""
    share = case.kit.limits["hose_longest_share"].value
    try:
        return windows_at_the_limits(laid.ends, laid.moves, laid.needs_mm, share).windows
    except HoseError:
        return ()


def _draws_in(case: Whole, hose: PlacedHose) -> bool:
    """It is under pressure and built so that pressure makes it shorter: hose that is clamped is too soft for
    that."""
    return case.working_kpa is not None and hose.piece.joined != "clamps"


def good_length_mm(case: Whole, laid: LaidHose, hose: PlacedHose) -> float | None:
    """A free length to make it: in the window nearest to the present length, with slack for what pressure
    takes where the window is wide enough, rounded up; None where no length keeps the radius."""
    windows = good_windows(case, laid)
    if not windows:
        return None
    want = laid.length_mm or windows[0].least.length_mm

    def off(window: Window) -> float:
        return max(window.least.length_mm - want, want - window.most.length_mm)

    best = min(windows, key=off)
    low, high = best.least.length_mm, best.most.length_mm
    slack = low / (1 - case.kit.limits["hose_shrinks"].value) if _draws_in(case, hose) else low
    step = _ROUND_MM if case.line.unit == "mm" else _ROUND_IN
    for wish in (max(slack, min(want, high)), slack, low):
        made = ceil((wish + laid.on_ends_mm) / step - 1e-9) * step - laid.on_ends_mm
        if low <= made <= high:
            return made
    return (low + high) / 2


def _make_it(case: Whole, laid: LaidHose, hose: PlacedHose) -> Fix | None:
    good = good_length_mm(case, laid, hose)
    if good is None:
        return None
    cut = good + laid.on_ends_mm
    said = case.say(cut)
    return choose(
        f"Make it {said} long",
        (hose_at(hose, "length", "text"), said),
        (hose_at(hose, "length", "exact_mm"), cut),
    )


def _says(case: Whole, laid: LaidHose, windows: tuple[Window, ...]) -> str:
    return " or ".join(
        " to ".join(case.say(edge.length_mm + laid.on_ends_mm) for edge in (one.least, one.most))
        for one in windows[:2]
    )


_NO_WINDOW = (
    "No length keeps its radius between these ends: turn an end another way, use an angled end, or choose "
    "hose that bends more tightly."
)


def _length(case: Whole, laid: LaidHose, hose: PlacedHose) -> Iterator[Finding]:
    windows, rule = good_windows(case, laid), case.kit.advice["hose_way"]
    travel = " over its whole travel" if laid.moves else ""
    if not windows:
        yield case.told(
            "hose_length_none",
            case.at_span(laid.span),
            advice=_NO_WINDOW,
            source=hose.hose.source,
            needs=case.say(laid.needs_mm),
            travel=travel,
        )
        return
    in_place = case.kit.preferences.get("hose-length", "") == "cut in place"
    bought = bool(hose.hose_class.law)
    least = case.say(laid.least_mm + laid.on_ends_mm)
    yield case.told(
        "hose_length",
        case.at_span(laid.span),
        title=f"The length {('to buy ' if bought else '')}is not chosen"
        if laid.moves
        else f"{('Buy it' if bought else 'It may be')} {_says(case, laid, windows)} long",
        advice="Its panel shows which lengths do." if laid.moves else "",
        fix=_make_it(case, laid, hose),
        least=least,
        needs=case.say(laid.needs_mm),
        travel=travel,
        more="Route it, cut it in place, and write down what was cut."
        if in_place and (not bought)
        else rule.text,
    )


def _no_reach(case: Whole, laid: LaidHose, hose: PlacedHose) -> Finding:
    where = position(case, laid, laid.pulls_at)
    has, needs = (case.say(mm + laid.on_ends_mm) for mm in (laid.length_mm or 0.0, laid.least_mm))
    return case.told(
        "hose_no_reach",
        case.at_span(laid.span),
        title="The hose pulls at full travel" if any(laid.pulls_at) else "The hose does not reach",
        fix=_make_it(case, laid, hose),
        has=has,
        when=where + " " if where else "",
        needs=needs,
    )


def _kinks(case: Whole, laid: LaidHose, hose: PlacedHose) -> Finding:
    assert laid.radius_mm is not None
    where = position(case, laid, laid.tightest_gone)
    fix = _make_it(case, laid, hose)
    inside = hose.hose_class.radius_at == "inside"
    least = case.say(hose.hose.least_radius_mm)
    meant = f"{least} inside the bend and half its outside" if inside else f"{least} of the centreline"
    tight = (
        "It kinks"
        if laid.radius_mm == 0
        else f"Its radius is {case.say(laid.radius_mm)}, {case.say(laid.tightest_at_mm)} from end A"
    )
    return case.told(
        "hose_kinks",
        case.at_span(laid.span),
        advice=_NO_WINDOW
        if fix is None
        else "Its panel shows which lengths keep it."
        if laid.moves
        else f"{_says(case, laid, good_windows(case, laid))} keeps it.",
        source=hose.hose.source,
        fix=fix,
        tight=tight,
        when=", " + where if where else "",
        needs=case.say(laid.needs_mm),
        meant=meant,
    )


def _slack(case: Whole, laid: LaidHose, hose: PlacedHose) -> Iterator[Finding]:
    limit = case.kit.limits["hose_shrinks"]
    length = laid.length_mm or 0.0
    if not _draws_in(case, hose) or length * (1 - limit.value) >= laid.least_mm:
        return
    where = position(case, laid, laid.pulls_at)
    yield case.told(
        "hose_slack",
        case.at_span(laid.span),
        fix=_make_it(case, laid, hose),
        value=case.say(length * limit.value),
        when=where + " " if where else "",
        least=case.say(laid.least_mm + laid.on_ends_mm),
    )


def _twists(case: Whole, laid: LaidHose, hose: PlacedHose) -> Iterator[Finding]:
    limit = case.kit.limits["hose_twist_deg"]
    way = hose.piece.way
    if laid.twist_deg is None or laid.twist_deg <= limit.value or way is None or way.swivel:
        return
    pressed = not case.open_or_vacuum
    off, where = laid.off_plane_deg, position(case, laid, laid.twist_gone)
    plane = f" The motion lies {off:.0f}° off the plane of the hose." if off is not None and off > 1 else ""
    yield case.told(
        "hose_twists",
        case.at_span(laid.span),
        severity="caution" if pressed else "note",
        fix=set_value("A swivel is at end B", hose_at(hose, "way", "swivel"), "B"),
        twist_deg=laid.twist_deg,
        when=where[0].upper(),
        when_2=where[1:],
        text=limit.source.text,
        plane=plane,
    )


def _near(case: Whole, laid: LaidHose, hose: PlacedHose, near: Near) -> Iterator[Finding]:
    if near.distance_mm >= near.wanted_mm:
        return
    kind = case.kit.clearances[near.kind]
    against = touches(case.kit, near.distance_mm)
    sleeve = not kind.stop and hose.piece.sleeved
    if against and sleeve:
        return
    where = position(case, laid, near.gone)
    name = near.what.strip() or kind.name
    yield case.told(
        "hose_near",
        case.at_span(laid.span),
        source=kind.source,
        severity="stop" if against and kind.stop else "caution" if against or kind.stop else "note",
        fix=None if kind.stop or not against else set_value("A sleeve is on", hose_at(hose, "sleeved"), True),
        against="touches" if against else "comes near",
        name=name,
        at=case.say(near.at_mm),
        when=", " + where if where else "",
        harm=kind.harm,
        more="It lies against it"
        if against
        else f"{case.say(near.distance_mm)} are left of the {case.say(near.wanted_mm)} that are wanted",
        remedy=kind.remedy[0].upper(),
        remedy_2=kind.remedy[1:],
    )
