"""What service, tube and rating say of one way of joining, the worst of them first."""

from __future__ import annotations

from collections.abc import Callable

from bendrel.core.findings import Source
from bendrel.core.record import record
from bendrel.core.repair.splicing import Splice
from bendrel.core.service import Service
from bendrel.core.shop.fits import formed_in
from bendrel.core.shop.kit import Kit
from bendrel.core.splice.offer import WORD_ORDER, Reason, Word
from bendrel.core.tube.material import Tube

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


def allowed(kit: Kit, way: Splice, service: Service, tube: Tube | None, size: str) -> Allowed:
    """What is said of `way` on a line of `service`, in `tube` (None: any metal tube of a size)."""
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
        say("refused", f"Nothing is known of a {way.name} on a {service.name} line.", NO_RATING)
    else:
        say("care", f"Nobody has judged it for a {service.name} line: say what the line carries.", NO_RATING)
    fitting = _end(kit, way, service, tube, size)
    if word != "refused" and service.id in way.law:
        law = kit.advice["union_law"]
        say("care", f"{law.text} Write the reason down.", law.source)
    if fitting is None:
        material = kit.materials[tube.material].name if tube else "this tube"
        say("refused", f"Its ends are not made in {material}, {size}.", way.source)
        return Allowed(word=word, reasons=tuple(reasons), fitting="")
    _rated(kit, service, fitting, size, say)
    return Allowed(word=word, reasons=tuple(reasons), fitting=fitting)


def _end(kit: Kit, way: Splice, service: Service, tube: Tube | None, size: str) -> str | None:
    """The first end of the way that goes on the tube and that the service does not refuse."""
    for name in way.ends:
        fitting = kit.fittings.get(name)
        if fitting is None:
            continue
        verdict = kit.verdict("end", name, service.id)
        if verdict is not None and verdict.verdict == "refused":
            continue
        if kit.end_size(name, size) is None and not fitting.takes_hose:
            continue
        if tube is not None:
            pair = kit.pairs.get((name, tube.material))
            refused = pair is not None and pair.verdict == "refused" and pair.needs != "insert"
            if refused or not formed_in(kit.materials[tube.material], fitting.kind):
                continue
        return name
    # refused by the service already, the ends are still the ones that it would be made with
    return (
        next((name for name in way.ends if name in kit.fittings), None)
        if _is_refused(kit, way, service)
        else None
    )


def _is_refused(kit: Kit, way: Splice, service: Service) -> bool:
    verdict = kit.verdict("joint", way.joint, service.id)
    return verdict is not None and verdict.verdict == "refused"


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
