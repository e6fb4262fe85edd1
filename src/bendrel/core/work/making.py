"""The steps that turn a planned part into one that can be fitted, in the order that hands need them.

Nuts go on before the first flare and before the first bend: forgetting is the classic mistake and
costs the whole piece. Source: common practice.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from itertools import pairwise

from bendrel.core.bend.tube.ends import EndParts
from bendrel.core.bend.tube.opened import open_bends
from bendrel.core.bend.tube.part import Part, ids_of
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import EndName
from bendrel.core.line.document import BendReadings, HoseSpan
from bendrel.core.line.exact_ways import ExactWays
from bendrel.core.parts.fitting import FittingKind
from bendrel.core.parts.flaring import Flaring
from bendrel.core.parts.kit import Kit
from bendrel.core.parts.room import FlareOrder
from bendrel.core.parts.step import Step, step_of
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length
from bendrel.core.work.flaring import flaring_of, to_flare
from bendrel.core.work.old_tube import cut_and_plugged, made_ready, marked, old_ends

_TAKES: Mapping[FittingKind, str] = {
    "double": "flare",
    "single": "flare",
    "bulb": "flare",
    "hose": "bead",
    "quick": "bead",
    "compression": "way into the body",
    "bite": "way into the body",
    "nipple": "nipple",
}
"""What the tube of an end's allowance is for."""


@record
class EndWork:
    """What a step needs to know of one end. `takes` is what its allowance is for, `formed` how it is
    finished for a hose (blank otherwise); `at_port` says that it goes into a port of the line, not into a
    union; `flaring` how it is flared, None where it is not."""

    end: EndName
    name: str
    flared: bool
    nut_thread: str | None
    allowance_mm: float
    takes: str
    order: FlareOrder | None
    leave_long_mm: float = 0.0
    loose_nut: bool = True
    ready: bool = False
    brazed: bool = False
    formed: str = ""
    at_port: bool = True
    flaring: Flaring | None = None


@record
class Making:
    """What is made: `held` is the end that the marks are taken from. `copied` says that it is bent after the
    old part and has no marks; `ways` what is done to be more exact. The `form` of its stock and what is added
    for rolling it straight; whether its spare comes off before bending, and the tool is `turned` round. `old`
    is the work at old tubes that it meets: before anything is made, at the trial fit, before it is closed."""

    cut_mm: float
    spare_mm: float
    bends: int
    held: EndWork
    far: EndWork
    unit: Unit
    changes: int = 0
    form: str = "stick"
    straighten_mm: float = 0.0
    trim_first: bool = False
    turned: bool = False
    finishes: tuple[str, ...] = ()
    copied: bool = False
    old: tuple[tuple[Step, ...], tuple[Step, ...], tuple[Step, ...]] = ((), (), ())
    ways: ExactWays = ExactWays()

    def said(self, mm: float) -> str:
        """A length in the person's unit."""
        return format_length(mm, self.unit)

    @property
    def by_name(self) -> list[EndWork]:
        """Both ends, A first."""
        return sorted((self.held, self.far), key=lambda end: end.end)


def steps_for(rigid: Rigid, kit: Kit) -> tuple[Step, ...]:
    """The order of work of a planned tube, from proving its nuts to blowing it through."""
    run, part, shape, moves = rigid.run, rigid.part, rigid.shape, rigid.part.moves
    line, span, ids = run.line, run.span, ids_of(part)
    a, b = rigid.ends
    held, far = (a, b) if span.held == "A" else (b, a)
    opened = open_bends(span, ids, shape)
    olds = old_ends(run, kit, {parts.end: parts.leave_long_mm for parts in (held, far)})

    def flaring(parts: EndParts) -> Flaring | None:
        # only what is flared first has the spare still beyond it
        spare = part.spare_mm if parts is held and parts.order == "before" else 0.0
        one = to_flare(kit, rigid.tube, parts, line.unit, spare_mm=spare, bends=bool(moves))
        return flaring_of(kit, one) if one is not None else None

    making = Making(
        cut_mm=part.cut_mm,
        spare_mm=part.spare_mm,
        bends=len(moves),
        held=_end_work(held, flaring(held)),
        far=_end_work(far, flaring(far)),
        unit=line.unit,
        changes=sum(one.held != two.held for one, two in pairwise(moves)),
        finishes=tuple(
            f"bend {bend} to {shape.bends[bend - 1].angle_deg:g}° {item.how}"
            for item in span.left_open
            if item.row in ids and (bend := ids.index(item.row) + 1) in opened
        ),
        form=span.stock_form,
        straighten_mm=kit.limits["straighten_mm"].value,
        trim_first=span.trim_first and part.spare_mm > 0,
        turned=span.turned and kit.tool_kinds[kit.benders[span.bender].kind].mount != "in the hands",
        ways=span.ways,
        copied=isinstance(span.readings, BendReadings) and span.readings.copied,
        old=(
            tuple(cut_and_plugged(kit, olds, shape, line.unit)),
            tuple(marked(kit, olds, line.unit)),
            tuple(made_ready(kit, olds, line.unit)),
        ),
    )
    return build_steps(kit, making)


def build_steps(kit: Kit, making: Making) -> tuple[Step, ...]:
    """All steps for one rigid piece, numbered in their order."""
    told = (*making.old[0], *_steps(kit, making))
    return tuple(replace(step, id=f"{number}-{step.kind}") for number, step in enumerate(told, start=1))


def bench_steps(part: Part, steps: Iterable[Step]) -> tuple[Step, ...]:
    """One step a screen: the order of work of a part, the one that says *bend* opened into one for each
    move."""
    found: list[Step] = []
    for step in steps:
        if step.kind != "bend":
            found.append(step)
            continue
        found += (
            replace(step, id=f"bend-{move.bend}", text=f"Bend {move.bend}", bend=move.bend, cautions=())
            for move in part.moves
        )
    return tuple(found)


def _end_work(parts: EndParts, flaring: Flaring | None) -> EndWork:
    return EndWork(
        end=parts.end,
        name=parts.fitting.name,
        flared=parts.fitting.flared,
        nut_thread=parts.nut.thread if parts.nut else None,
        loose_nut=parts.fitting.loose_nut,
        brazed=parts.fitting.brazed,
        formed=_formed(parts),
        allowance_mm=parts.allowance_mm,
        takes=_TAKES.get(parts.fitting.kind, "end"),
        order=parts.order,
        leave_long_mm=parts.leave_long_mm,
        ready=parts.ready,
        at_port=parts.choice.at_port,
        flaring=flaring,
    )


def _formed(parts: EndParts) -> str:
    """How an end is finished on which a hose goes; nothing of the others, nor of a bare end without a
    hose."""
    beyond = parts.choice.beyond
    hosed = bool(beyond) and isinstance(beyond[0], HoseSpan) and beyond[0].joined == "clamps"
    if parts.fitting.kind == "plain" and not hosed:
        return ""
    return parts.fitting.formed


def _steps(kit: Kit, making: Making) -> Iterator[Step]:
    held, far, said = making.held, making.far, making.said
    yield from _stock_and_nuts(kit, making)
    begun = bool(making.bends or making.copied)
    if held.flared and held.order == "before" and not held.ready:
        yield _flare(kit, held, "before the first bend" if begun else "first")
    flared_first = far.flared and far.order == "before"
    if making.trim_first and not flared_first:
        yield step_of(kit, "spare-off", spare=said(making.spare_mm), end=far.end)
    if flared_first and not far.ready:
        if making.spare_mm > 0:
            yield step_of(kit, "spare-off-first", spare=said(making.spare_mm), end=far.end)
        yield _flare(kit, far, "before the last bend, where it still has room" if begun else "next")
    yield from _bending(kit, making)
    if making.finishes:
        yield step_of(kit, "finish-in-place", finishes="; ".join(making.finishes))
    behind = "before the last flare" if far.flared and not flared_first else "before its ends are finished"
    yield step_of(
        kit, "trial-fit-rounds" if making.ways.fit_rounds else "trial-fit", behind=behind, far=far.end
    )
    yield from making.old[1]
    if held.leave_long_mm > 0:
        yield step_of(kit, "trim-long", long=said(held.leave_long_mm), end=held.end)
    if held.flared and held.order != "before" and not held.ready:
        yield _flare(kit, held, "after bending")
    left_on = 0.0 if making.trim_first else making.spare_mm
    if not far.ready and far.order != "before" and (far.flared or left_on + far.leave_long_mm > 0):
        extra = f", leaving {said(far.allowance_mm)} for the {far.takes}" if far.allowance_mm else ""
        yield step_of(kit, "trim", end=far.end, extra=extra)
        if far.flared:
            yield _flare(kit, far, "last; its nut is already on")
    for end in making.by_name:
        if end.brazed and not end.ready:
            nut = "Its nut is on; keep it cool. " if end.loose_nut else ""
            yield step_of(kit, "braze", end=end.end, name=end.name, nut=nut)
    for end in making.by_name:
        if end.formed and not end.ready:
            yield step_of(kit, "form", end=end.end, formed=end.formed)
    yield from making.old[2]
    yield step_of(kit, "blow-through")


def _stock_and_nuts(kit: Kit, making: Making) -> Iterator[Step]:
    said = making.said
    screwed = [end for end in making.by_name if end.nut_thread]
    if screwed:
        ends = " and ".join(f"{e.nut_thread} at {e.end}" for e in screwed)
        into = "its real port" if all(e.at_port for e in screwed) else "the very port or union it goes to"
        yield step_of(kit, "prove", into=into, ends=ends)
    if making.form != "stick":
        source = "the coil" if making.form == "coil" else "the folded line"
        take = said(making.cut_mm + making.straighten_mm)
        yield step_of(kit, "straighten", take=take, source=source, straighten=said(making.straighten_mm))
    finished = [end for end in (making.held, making.far) if end.ready]
    where = f" from the finished end, which is end {finished[0].end}" if finished else ""
    yield step_of(kit, "cut", cut=said(making.cut_mm), where=where)
    for end in finished:
        kind = "finished" if end.flared else "finished-bought"
        yield step_of(kit, kind, end=end.end, name=end.name, thread=end.nut_thread or "the right one")
    loose = [end for end in screwed if end.loose_nut and not end.ready]
    if loose:
        facing = " and ".join(f"the {e.nut_thread} facing end {e.end}" for e in loose)
        yield step_of(kit, "nuts", count="Both nuts" if len(loose) == 2 else "The nut", facing=facing)


def _bending(kit: Kit, making: Making) -> Iterator[Step]:
    held = making.held
    if making.bends:
        origin = "flared rim" if held.order == "before" else "finished end" if held.ready else "cut end"
        yield step_of(kit, "mark", origin=origin, end=held.end)
        yield step_of(
            kit,
            "bend",
            turned="Turn the tool round on the bench and feed from its other side. " if making.turned else "",
            changes=" Change the tube over where it says so." if making.changes else "",
            exact=_more_exact(making.ways),
        )
    if making.copied:
        yield step_of(kit, "copy", end=held.end)
        yield step_of(kit, "copy-sleeves")


def _more_exact(ways: ExactWays) -> str:
    said = [
        (ways.plane_first, " Read the plane at the clamp before you pull."),
        (ways.bend_short, " Stop short, let go, read, and pull what is missing."),
        (ways.fine_gauge, " Read every angle and plane with a gauge to 0.1°."),
    ]
    return "".join(text for on, text in said if on)


def _flare(kit: Kit, end: EndWork, when: str) -> Step:
    return replace(step_of(kit, "flare", end=end.end, name=end.name, when=when), flaring=end.flaring)
