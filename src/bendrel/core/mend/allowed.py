"""What service, tube and rating say of one way of joining, the worst of them first."""

from __future__ import annotations

from collections.abc import Callable

from bendrel.core.findings import Source
from bendrel.core.flow.strength import clamped_joint
from bendrel.core.joints.pieces import best_clamp
from bendrel.core.mend.hoses import clamped_class, hose_for
from bendrel.core.mend.offer import WORD_ORDER, Reason, Word
from bendrel.core.parts.fits import goes_on_tube, stands, usual_strength
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.picking import verdict_order
from bendrel.core.parts.service import Service
from bendrel.core.parts.splicing import Splice
from bendrel.core.parts.tube import Tube
from bendrel.core.parts.verdict import VERDICT_ORDER
from bendrel.core.record import record

WORDS: dict[str, Word] = {
    "right": "right",
    "acceptable": "acceptable",
    "caution": "care",
    "refused": "refused",
}
Say = Callable[[Word, str, Source], None]
NO_RATING = Source(kind="common practice", text="no rating, no approval")


@record
class Allowed:
    """The word for a way, why, and the end type that it is made with (blank where it has none)."""

    word: Word
    reasons: tuple[Reason, ...]
    fitting: str


def worst(*words: Word) -> Word:
    """The worst of several."""
    return max(words, key=lambda word: WORD_ORDER[word])


def allowed(
    kit: Kit, way: Splice, service: Service, tube: Tube | None, size: str, od_mm: float | None = None
) -> Allowed:
    """What is said of `way` on a line of `service`, in `tube` (None: any metal tube of a size, `od_mm`
    outside): by the service's verdicts on the joint and the tube, by what the tube takes and stands, and by
    what the joint stands."""
    reasons: list[Reason] = []
    word: Word = "right"

    def say(found: Word, text: str, source: Source) -> None:
        nonlocal word
        word = worst(word, found)
        reasons.append(Reason(text=text, source=source))

    verdict = kit.verdict("joint", way.joint, service.id)
    if service.left_to:
        say("refused", f"It is not made here: {service.left_to}.", service.source)
    elif verdict is not None:
        say(WORDS[verdict.verdict], verdict.reason, verdict.source)
    elif service.safety_critical:
        say("refused", f"Nothing is known of a {way.name} on {service.a_line}.", NO_RATING)
    else:
        unsaid = f"Nobody has judged it for {service.a_line}: ask its maker."
        if service.duty is None:
            unsaid = "Whether it is right hangs on what the line carries: say it."
        say("care", unsaid, NO_RATING)
    if tube is not None:
        _tube(kit, service, tube, say)
    fitting = _end(kit, way, service, tube, size)
    if word != "refused" and service.id in way.law:
        law = kit.advice["union_law"]
        say("care", f"{law.text} Write the reason down.", law.source)
    if fitting is None:
        material = kit.materials[tube.material].name if tube else "this tube"
        say("refused", f"Its ends are not made in {material}, {size}.", way.source)
        return Allowed(word=word, reasons=tuple(reasons), fitting="")
    end = kit.verdict("end", fitting, service.id)
    if end is not None and end.verdict == "caution":
        say("care", end.reason, end.source)
    if tube is not None:
        _pair(kit, fitting, tube, say)
    if kit.fittings[fitting].takes_hose:
        _clamped(kit, service, fitting, tube.od_mm if tube else od_mm, say)
    _rated(kit, service, fitting, size, say)
    return Allowed(word=word, reasons=tuple(reasons), fitting=fitting)


def _tube(kit: Kit, service: Service, tube: Tube, say: Say) -> None:
    """What the service says of the tube itself, and whether it stands what the line works at: no joint makes
    up for a tube that is wrong."""
    verdict = kit.verdict("tube", tube.material, service.id)
    if verdict is not None and verdict.verdict in ("refused", "caution"):
        say(WORDS[verdict.verdict], verdict.reason, verdict.source)
    duty, material = service.duty, kit.materials[tube.material]
    if duty is None or stands(kit, duty, tube):
        return
    strength = usual_strength(kit, duty, tube)
    if strength.allowed_kpa is None:
        say("refused", f"{material.name.capitalize()} is not used at {duty.hot_c:.0f} °C.", material.source)
    else:
        say(
            "refused",
            f"The tube itself is allowed {strength.allowed_kpa / 100:.0f} bar, the line works at "
            f"{duty.working_kpa / 100:g} bar.",
            material.strength_source,
        )


def _pair(kit: Kit, fitting: str, tube: Tube, say: Say) -> None:
    """What the end does to the tube, and what makes it right."""
    pair = kit.pairs.get((fitting, tube.material))
    if pair is not None and pair.verdict == "caution":
        say("care", pair.reason, pair.source)
    elif pair is not None and pair.needs == "insert":
        say("acceptable", f"Only with an insert inside the tube. {pair.reason}", pair.source)


def _clamped(kit: Kit, service: Service, fitting: str, od_mm: float | None, say: Say) -> None:
    """Whether there is hose that takes clamps, and what two clamps hold on this tube."""
    named, duty = clamped_class(kit, service), service.duty
    if not named:
        if service.hose_class:
            text = f"No hose of {service.a_line} takes clamps: its ends are crimped or reusable."
            say("refused", text, kit.hose_classes[service.hose_class].source)
        return
    if named != service.hose_class:
        verdict, kind = kit.verdict("hose", named, service.id), kit.hose_classes[named]
        word = WORDS[verdict.verdict] if verdict is not None else "care"
        said = f": {verdict.reason}" if verdict is not None else "."
        say(word, f"The usual hose takes no clamps; {kind.name} does{said}", kind.source)
    hose = hose_for(kit, service, od_mm) if od_mm is not None else None
    clamp = best_clamp(kit, service.id, hose, od_mm) if hose is not None and od_mm is not None else None
    judged = kit.verdict("clamp", kit.clamps[clamp].kind, service.id) if clamp is not None else None
    if judged is not None and judged.verdict == "caution":
        say("care", judged.reason, judged.source)
    if duty is None or duty.vacuum or duty.open or od_mm is None:
        return
    holds = clamped_joint(kit, od_mm, bare=kit.fittings[fitting].kind == "plain", clamps=2)
    if holds.kpa < duty.working_kpa:
        say(
            "refused",
            f"Two clamps hold {holds.kpa / 100:.1f} bar on {od_mm:g} mm, the line works at "
            f"{duty.working_kpa / 100:g} bar.",
            holds.source,
        )


def _end(kit: Kit, way: Splice, service: Service, tube: Tube | None, size: str) -> str | None:
    """The first end of the way that goes on the tube and that the service does not refuse; what the service
    refuses as a whole is still told with the end that it would be made with."""
    refused = VERDICT_ORDER["refused"]
    known = [name for name in way.ends if name in kit.fittings]
    for name in known:
        fitting = kit.fittings[name]
        sized = kit.end_size(name, size) is not None or fitting.takes_hose
        goes = tube is None or goes_on_tube(kit, fitting, tube, insert=True)
        if sized and goes and verdict_order(kit, "end", name, service.id) < refused:
            return name
    judged = verdict_order(kit, "joint", way.joint, service.id)
    return next(iter(known), None) if judged == refused else None


def _rated(kit: Kit, service: Service, name: str, size: str, say: Say) -> None:
    fitting, row, duty = kit.fittings[name], kit.end_size(name, size), service.duty
    if duty is None or duty.vacuum or duty.open or fitting.takes_hose or fitting.strong_as_tube:
        return
    rated = row.rated_kpa if row is not None else None
    if rated is None and service.safety_critical:
        say("refused", "Its rated pressure is not known, and this line can hurt somebody.", NO_RATING)
    elif rated is None:
        say("care", "Its rated pressure is not known: find the maker's figure.", NO_RATING)
    elif row is not None and rated < duty.working_kpa:
        say(
            "refused",
            f"It is rated for {rated / 100:g} bar, the line works at {duty.working_kpa / 100:g} bar.",
            row.source,
        )
