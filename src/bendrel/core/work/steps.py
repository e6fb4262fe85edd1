"""The steps that turn a planned part into a fitted line, in the order that hands need them.

Nuts go on before the first flare and before the first bend: forgetting is the classic mistake and
costs the whole piece. Source: common practice.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Literal

from bendrel.core.findings import EndName
from bendrel.core.line.exact_ways import ExactWays
from bendrel.core.parts.room import FlareOrder
from bendrel.core.parts.service import WorkStage
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length

StepKind = Literal[
    "prove",
    "straighten",
    "cut",
    "nuts",
    "flare",
    "braze",
    "form",
    "mark",
    "bend",
    "fit",
    "trim",
    "blow",
    "install",
    "test",
    "old tube",
]


@record
class Step:
    """One step, with the words for it and for why it stands here; `work` is the id of a step of fitting or
    proving, `cautions` are what must be said before it."""

    kind: StepKind
    text: str
    why: str = ""
    work: str = ""
    cautions: tuple[str, ...] = ()


@record
class EndWork:
    """What a step needs to know of one end. `takes` is what its allowance is for, `formed` how it is
    finished for a hose (blank otherwise); `at_port` says that it goes into a port of the line, not into a
    union."""

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


@record
class OldWork:
    """What is done at the old tubes that the piece meets, in the order that it is done: before anything is
    made, at the trial fit, and before the joints are closed."""

    first: tuple[Step, ...] = ()
    fitting: tuple[Step, ...] = ()
    ready: tuple[Step, ...] = ()


@record
class Stock:
    """What the piece is cut from, and whether its spare comes off before bending."""

    form: str = "stick"
    straighten_mm: float = 0.0
    trim_first: bool = False
    turned: bool = False


def _more_exact(ways: ExactWays) -> str:
    said = [
        (ways.plane_first, " Read the plane at the clamp before you pull."),
        (ways.bend_short, " Stop short, let go, read, and pull what is missing."),
        (ways.fine_gauge, " Read every angle and plane with a gauge to 0.1°."),
    ]
    return "".join(text for on, text in said if on)


def _trial_fit(ways: ExactWays, far: EndWork) -> str:
    behind = (
        "before the last flare" if far.flared and far.order != "before" else "before its ends are finished"
    )
    if not ways.fit_rounds:
        return f"Trial fit. Correct small misses {behind}."
    return (
        f"Trial fit in rounds, {behind}: offer it to its ports or jig, read where end B lies, "
        "tweak it by how far end B moves, and offer it again until it fits."
    )


def stage_of(kind: StepKind) -> WorkStage:
    """The stage of the work that a step belongs to."""
    return "prove" if kind == "test" else "fit" if kind in ("fit", "install", "old tube") else "make"


def with_cautions(steps: tuple[Step, ...], cautions: Mapping[WorkStage, tuple[str, ...]]) -> tuple[Step, ...]:
    """`steps` with what must be said at each stage standing at its first step."""
    told: set[WorkStage] = set()
    found = []
    for step in steps:
        stage = stage_of(step.kind)
        found.append(step if stage in told else replace(step, cautions=cautions.get(stage, ())))
        told.add(stage)
    return tuple(found)


def build_steps(
    *,
    cut_mm: float,
    spare_mm: float,
    bends: int,
    held: EndWork,
    far: EndWork,
    unit: Unit,
    changes: int = 0,
    stock: Stock = Stock(),
    finishes: tuple[str, ...] = (),
    copied: bool = False,
    old: OldWork = OldWork(),
    ways: ExactWays = ExactWays(),
) -> tuple[Step, ...]:
    """All steps for one rigid piece, `held` being the end that the marks are taken from; `copied` says that
    it is bent after the old part and has no marks, `old` is the work at old tubes that it meets, `ways` what
    is done to be more exact."""
    return tuple(
        _steps(cut_mm, spare_mm, bends, changes, stock, finishes, held, far, unit, copied, old, ways)
    )


def _steps(
    cut_mm: float,
    spare_mm: float,
    bends: int,
    changes: int,
    stock: Stock,
    finishes: tuple[str, ...],
    held: EndWork,
    far: EndWork,
    unit: Unit,
    copied: bool,
    old: OldWork,
    ways: ExactWays,
) -> Iterator[Step]:
    yield from old.first
    screwed = [end for end in sorted((held, far), key=lambda e: e.end) if end.nut_thread]
    both = [end for end in screwed if end.loose_nut]
    if screwed:
        ends = " and ".join(f"{e.nut_thread} at {e.end}" for e in screwed)
        into = "its real port" if all(e.at_port for e in screwed) else "the very port or union it goes to"
        yield Step(
            kind="prove",
            text=f"Run each nut into {into} by hand, all the way: {ends}.",
            why="A nut that starts can still jam; find out before anything is flared.",
        )
    if stock.form != "stick":
        take = format_length(cut_mm + stock.straighten_mm, unit)
        source = "the coil" if stock.form == "coil" else "the folded line"
        yield Step(
            kind="straighten",
            text=f"Take {take} off {source}, roll it out flat and draw it straight over an edge of wood.",
            why=f"{format_length(stock.straighten_mm, unit)} of it is for the ends, which keep their curve.",
        )
    finished = [end for end in (held, far) if end.ready]
    where = f" from the finished end, which is end {finished[0].end}" if finished else ""
    yield Step(
        kind="cut",
        text=f"Cut {format_length(cut_mm, unit)}{where}, square. Deburr inside and out, file the end flat.",
        why="Keep the labelled end of the stock on the offcut.",
    )
    for end in finished:
        thread = end.nut_thread or "the right one"
        yield Step(
            kind="nuts",
            text=f"End {end.end} comes finished: check its flare, and that its nut is {thread}.",
            why="A ready-made stick or piece may carry the other thread.",
        )
    both = [end for end in both if not end.ready]
    if both:
        facing = " and ".join(f"the {e.nut_thread} facing end {e.end}" for e in both)
        count = "Both nuts" if len(both) == 2 else "The nut"
        yield Step(
            kind="nuts",
            text=f"{count} on now, thread outwards: {facing}. Tape so that none slides off.",
            why="Forgotten before the flare or the bend, a nut costs the whole piece.",
        )
    if held.flared and held.order == "before" and not held.ready:
        yield _flare(held, "before the first bend" if bends or copied else "first")
    if stock.trim_first and not (far.flared and far.order == "before"):
        yield Step(
            kind="trim",
            text=f"Cut the spare of {format_length(spare_mm, unit)} off end {far.end} before bending.",
            why="The long tail would run into something while it swings.",
        )
    if far.flared and far.order == "before" and not far.ready:
        if spare_mm > 0:
            yield Step(
                kind="trim",
                text=f"Cut the spare of {format_length(spare_mm, unit)} off end {far.end} first.",
                why=f"There is no room to flare {far.end} once it is bent.",
            )
        yield _flare(far, "before the last bend, where it still has room" if bends or copied else "next")
    if bends:
        origin = "flared rim" if held.order == "before" else "cut end"
        yield Step(
            kind="mark",
            text=f"Mark every bend from the {origin} at end {held.end}; scribe one line along the tube.",
            why="The line shows every turn of the tube.",
        )
        yield Step(
            kind="bend",
            text=(
                ("Turn the tool round on the bench and feed from its other side. " if stock.turned else "")
                + "Bend in the order of the table: set the mark, turn the tube, bend to the dial, check."
                + (" Change the tube over where it says so." if changes else "")
                + _more_exact(ways)
            ),
            why="A turn the wrong way makes a mirror image, which is scrap.",
        )
    if copied:
        yield Step(
            kind="bend",
            text=(
                f"Tape the new tube against the old part from end {held.end}, every hand's breadth. Mark a "
                "bend where the old one begins, take it off, bend it, lay it back and check; then tape on to "
                "the next."
            ),
            why="Checked at each bend, an error does not grow towards the far end.",
        )
        yield Step(
            kind="bend",
            text="Sleeves and clips over to the old part's places, before the far end is finished.",
            why="Some only go on over an open end.",
        )
    left_on = 0.0 if stock.trim_first else spare_mm
    if finishes:
        yield Step(
            kind="fit",
            text=f"Through its openings, then finish in place: {'; '.join(finishes)}.",
            why="Bent whole it would not go through.",
        )
    yield Step(kind="fit", text=_trial_fit(ways, far))
    yield from old.fitting
    if held.leave_long_mm > 0:
        yield Step(
            kind="trim",
            text=f"Trim the {format_length(held.leave_long_mm, unit)} left long off end {held.end}; deburr.",
            why="Left long for the trial fit.",
        )
    if held.flared and held.order != "before":
        yield _flare(held, "after bending")
    if far.order != "before" and (far.flared or left_on + far.leave_long_mm > 0):
        left = format_length(far.allowance_mm, unit)
        extra = f", leaving {left} for the {far.takes}" if far.allowance_mm else ""
        yield Step(
            kind="trim",
            text=f"Trim end {far.end} to the figure{extra}; deburr.",
            why="Left long until now so that a miss can still be taken up.",
        )
        if far.flared:
            yield _flare(far, "last; its nut is already on")
    for end in sorted((held, far), key=lambda e: e.end):
        if end.brazed:
            nut = "Its nut is on; keep it cool. " if end.loose_nut else ""
            yield Step(
                kind="braze",
                text=f"End {end.end}: braze on the {end.name}. {nut}Look for a full ring; wash the flux out.",
                why="At the bench, away from fuel and machine; flux that stays eats the tube.",
            )
    for end in sorted((held, far), key=lambda e: e.end):
        if end.formed and not end.ready:
            yield Step(
                kind="form",
                text=f"End {end.end}: {end.formed}",
                why="Under a hose every scratch along the tube is a leak; a bead keeps the hose on.",
            )
    yield from old.ready
    yield Step(kind="blow", text="Blow through both ways with clean air.")


def _flare(end: EndWork, when: str) -> Step:
    return Step(
        kind="flare",
        text=f"Flare end {end.end}, {end.name}, {when}. Inspect: square, concentric, no crack.",
        why="Practise on an offcut first; over-tightening thins or cracks the flare.",
    )
