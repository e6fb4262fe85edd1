"""Shown working: the derivation behind every figure of the plan."""

from __future__ import annotations

from collections.abc import Mapping
from math import radians, tan

from bendrel.core.bend.tool.springback import springback_prior
from bendrel.core.bend.tube.part import Move, PlannedBend, Term
from bendrel.core.bend.tube.planned import Rigid
from bendrel.core.findings import DERIVED, Derivation, EndName, Input, Source
from bendrel.core.geometry.bends import NO_CORNER_DEG, BendList
from bendrel.core.parts.bender import Bender, MarkStyle
from bendrel.core.parts.calibration import Calibration
from bendrel.core.parts.fitting import EndSize, Fitting
from bendrel.core.parts.tube import Material, Tube
from bendrel.core.record import record
from bendrel.core.units.notation import Unit, format_length

OWN_PIECE = Source(kind="derived", text="your own flared test piece, before less after")


@record
class Figures:
    """What the working needs to see of a planned tube."""

    unit: Unit
    tube: Tube
    material: Material
    bender: Bender
    calibration: Calibration | None
    ends: Mapping[str, tuple[Fitting, EndSize | None]]
    trials: Mapping[str, bool]
    shape: BendList
    bends: tuple[PlannedBend, ...]
    terms: tuple[Term, ...]
    cut_mm: float
    moves: tuple[Move, ...]
    beyond_mm: Mapping[EndName, float]
    style: MarkStyle


def derivations(rigid: Rigid) -> tuple[Derivation, ...]:
    """Working for cut length, each of its terms, and each bend's arc, mark and dial."""
    figures = _figures(rigid)
    found = [_cut(figures), _developed(figures), *(_end(figures, end) for end in ("A", "B"))]
    for move in figures.moves:
        bend = figures.bends[move.bend - 1]
        found += [_arc(figures, bend), _mark(figures, move, bend), _dial(figures, move, bend)]
    return tuple(found)


def _figures(rigid: Rigid) -> Figures:
    chosen, part, (a, b) = rigid.choices, rigid.part, rigid.ends
    return Figures(
        unit=rigid.run.line.unit,
        tube=chosen.tube,
        material=chosen.material,
        bender=chosen.bender,
        calibration=chosen.calibration,
        ends={"A": (a.fitting, a.size), "B": (b.fitting, b.size)},
        trials={"A": a.own_piece, "B": b.own_piece},
        shape=rigid.shape,
        bends=part.bends,
        terms=part.terms,
        cut_mm=part.cut_mm,
        moves=part.moves,
        beyond_mm=part.beyond_mm,
        style=part.mark_style,
    )


def _both(mm: float, unit: Unit) -> str:
    """A length in the person's unit with hundredths of a millimetre beside it."""
    exact = f"{mm:.2f} mm"
    return exact if unit == "mm" else f"{format_length(mm, 'in')} ({exact})"


def _cut(f: Figures) -> Derivation:
    return Derivation(
        id="cut",
        title="Cut length",
        formula="cut = along the tube + allowance A + allowance B + spare",
        inputs=tuple(Input(name=term.label, value=_both(term.mm, f.unit)) for term in f.terms),
        result=_both(f.cut_mm, f.unit),
        source=Source(kind="common practice", text="pattern length plus flares plus a chosen spare"),
    )


def _developed(f: Figures) -> Derivation:
    straights, arcs = sum(f.shape.straights_mm), sum(bend.arc_mm for bend in f.shape.bends)
    return Derivation(
        id="developed",
        title="Length along the tube",
        formula="L = Σ straights + Σ R·θ",
        inputs=(
            Input(name=f"{len(f.shape.straights_mm)} straights", value=_both(straights, f.unit)),
            Input(name=f"{len(f.shape.bends)} arcs", value=_both(arcs, f.unit)),
        ),
        result=_both(f.shape.developed_mm, f.unit),
        source=DERIVED,
    )


def _end(f: Figures, end: str) -> Derivation:
    fitting, size = f.ends[end]
    term = next(term for term in f.terms if term.id == f"end-{end}")
    formula, source = "nothing is used up", fitting.source
    inputs: tuple[Input, ...] = ()
    if f.trials[end]:
        formula, source = "as measured", OWN_PIECE
    elif size is not None and size.flare_diameter_mm is not None:
        folds = "2x" if fitting.kind == "double" else "x"
        formula = f"{folds}/sin β − x/tan β,  x = (F − D)/2"
        inputs = (
            Input(name="F, flare diameter", value=f"{size.flare_diameter_mm:g} mm", source=size.source),
            Input(name="D, tube", value=f"{f.tube.od_mm:g} mm", source=f.tube.source),
            Input(name="β, half the cone", value=f"{fitting.half_angle_deg:g}°", source=fitting.source),
        )
        source = Source(kind="derived", text="slant geometry of the cone")
    elif size is not None and size.used_mm is not None:
        formula = "from the table, until you flare a test piece of your own"
        inputs = (Input(name=fitting.name, value=f"{size.used_mm:g} mm", source=size.source),)
        source = size.source
    return Derivation(
        id=f"end-{end}",
        title=f"Tube used at end {end}",
        formula=formula,
        inputs=inputs,
        result=_both(term.mm, f.unit),
        source=source,
    )


def _arc(f: Figures, bend: PlannedBend) -> Derivation:
    return Derivation(
        id=f"arc-{bend.number}",
        title=f"Tube in bend {bend.number}",
        formula="arc = R·θ  (θ in radians)",
        inputs=(
            Input(
                name="R, centreline radius",
                value=f"{bend.radius_mm:.2f} mm",
                source=f.bender.source,
            ),
            Input(name="θ", value=f"{bend.angle_deg:.2f}°"),
        ),
        result=_both(bend.arc_mm, f.unit),
        source=DERIVED,
    )


def _mark(f: Figures, move: Move, bend: PlannedBend) -> Derivation:
    held, allowance = move.held, f.beyond_mm[move.held]
    from_held = bend.start_mm if held == "A" else f.shape.developed_mm - bend.end_mm
    inputs = [Input(name=f"bend starts, from rim {held}", value=_both(from_held, f.unit))]
    formula = "mark = start of bend"
    if move.measured_from == "cut_end":
        formula += " + allowance"
        inputs.append(Input(name=f"not cut off or flared yet at {held}", value=_both(allowance, f.unit)))
    offset = f.bender.zero_offset_mm
    if offset:
        formula += " − zero offset"
        inputs.append(Input(name="zero offset", value=f"{offset:g} mm", source=f.bender.source))
    if f.style == "middle":
        formula += " + R·θ/2"
        inputs.append(Input(name="half the arc", value=_both(bend.arc_mm / 2, f.unit)))
    if f.style == "corner" and bend.angle_deg < NO_CORNER_DEG:
        reach = bend.radius_mm * tan(radians(bend.angle_deg) / 2)
        formula = "mark = corner − take-up,  take-up = R·tan(θ/2) + zero offset"
        inputs = [
            Input(name="corner", value=_both(from_held + allowance + reach, f.unit)),
            Input(name="take-up", value=_both(reach + offset, f.unit)),
        ]
    result = "no corner mark from 170° up" if move.mark_mm is None else _both(move.mark_mm, f.unit)
    return Derivation(
        id=f"mark-{bend.number}",
        title=f"Mark for bend {bend.number}",
        formula=formula,
        inputs=tuple(inputs),
        result=result,
        source=Source(kind="derived", text="geometry of a rotary-draw bender"),
    )


def _dial(f: Figures, move: Move, bend: PlannedBend) -> Derivation:
    if f.calibration is not None:
        return _calibrated_dial(f.calibration, move, bend)
    if f.material.family == "plastic":
        return Derivation(
            id=f"dial-{bend.number}",
            title=f"Form for bend {bend.number}",
            formula="angle as drawn: formed warm over the block and held there until it is cold",
            inputs=(Input(name="θ", value=f"{bend.angle_deg:.2f}°"),),
            result=f"{move.dial_deg:.1f}°",
            source=Source(kind="common practice", text="plastic tube keeps the shape it cools in"),
        )
    share = springback_prior(f.material, f.tube, bend.radius_mm)
    return Derivation(
        id=f"dial-{bend.number}",
        title=f"Dial for bend {bend.number}",
        formula="dial = θ·(1 + a),  a = M_p·R/(E·I); at least this, hardening left out",
        inputs=(
            Input(name="θ", value=f"{bend.angle_deg:.2f}°"),
            Input(
                name=f"a, {f.material.name} at R {bend.radius_mm:g} mm",
                value=f"{share:.5f}",
                source=f.material.source,
            ),
        ),
        result=f"{move.dial_deg:.1f}°",
        source=Source(kind="derived", text="plastic bending of a tube, no calibration yet"),
    )


def _calibrated_dial(told: Calibration, move: Move, bend: PlannedBend) -> Derivation:
    pieces = "piece" if told.pieces == 1 else "pieces"
    source = Source(kind="shop's own", text=f"calibration from {told.pieces} test {pieces}")
    return Derivation(
        id=f"dial-{bend.number}",
        title=f"Dial for bend {bend.number}",
        formula="dial = (1 + a)·θ + b",
        inputs=(
            Input(name="θ", value=f"{bend.angle_deg:.2f}°"),
            Input(name="a", value=f"{told.springback:.4f} ± {told.doubt[2]:.4f}", source=source),
            Input(name="b", value=f"{told.springback_deg:+.2f}° ± {told.doubt[3]:.2f}°", source=source),
        ),
        result=f"{move.dial_deg:.1f}°",
        source=source,
    )
